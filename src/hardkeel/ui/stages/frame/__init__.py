"""Frame: what to cut, how it bends, the paper and the wood to cut it by."""

from typing import TYPE_CHECKING

from hardkeel.airframe.framing import build_pieces
from hardkeel.base.late import late
from hardkeel.base.units import LengthUnit
from hardkeel.export.renewing import Destination
from hardkeel.fuselage.cut_list import cut_list_of
from hardkeel.fuselage.model import Fuselage
from hardkeel.joinery.cut_part import CutPart
from hardkeel.project.model import Build
from hardkeel.ui.stages import StageContext
from hardkeel.ui.stages.frame.page import FramePage
from hardkeel.ui.tabbed.round_controller import RoundController
from hardkeel.ui.tabbed.sheet_controller import CutSource, SheetController
from hardkeel.ui.tabbed.stage_page import StagePage

if TYPE_CHECKING:
    from collections.abc import Callable

    from hardkeel.export import framing as templates
else:
    templates = late("hardkeel.export.framing")


def make(context: StageContext) -> StagePage:
    """The page, with who carries out its long work."""
    page = FramePage(context.document, context.theme, context.settings.unit)
    source = CutSource("frame", _parts, build_pieces, _write)
    SheetController(context.document, page, context.jobs, context.tell, source)
    beside = RoundController(context.document, page, context.jobs, "frame")
    page.made.connect(lambda _key, made: beside.take(made))
    return page


def _parts(build: Build) -> tuple[CutPart, ...]:
    return cut_list_of(build.fuselage) if build.fuselage is not None else cut_list_of(Fuselage())


def _write(
    build: Build,
    to: Destination,
    paper: str,
    unit: LengthUnit,
    step: "Callable[[int, int], None]",
) -> object:
    return templates.write_templates(build, to, paper, unit, step)
