"""Frame: what to cut, how it bends, the paper and the wood to cut it by."""

from typing import TYPE_CHECKING, cast

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
    from hardkeel.ui.stages.frame import square_targets
    from hardkeel.ui.stages.frame.square_page import SquarePage
else:
    square_targets = late("hardkeel.ui.stages.frame.square_targets")
    templates = late("hardkeel.export.framing")


def make(context: StageContext) -> StagePage:
    """The page, with who carries out its long work."""
    page = FramePage(context.document, context.theme, context.settings.unit)
    source = CutSource("frame", _parts, build_pieces, _write)
    SheetController(context.document, page, context.jobs, context.tell, source)
    beside = RoundController(context.document, page, context.jobs, "frame")
    page.made.connect(lambda _key, made: beside.take(made))
    page.made.connect(lambda key, made: _with_targets(context, made) if key == "square" else None)
    return page


def _with_targets(context: StageContext, made: object) -> None:
    """The bench that squares gets who reads its pictures."""
    page = cast("SquarePage", made)
    square_targets.SquareTargets(context.document, page, context.jobs, context.tell)


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
