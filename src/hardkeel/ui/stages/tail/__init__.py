"""Tail: how each surface is built, its sticks or ribs, what moves, whether it is flat, the wood to cut it from."""

from typing import TYPE_CHECKING, cast

from hardkeel.airframe.tails import tail_cut_list, tail_pieces
from hardkeel.base.late import late
from hardkeel.base.units import LengthUnit
from hardkeel.export.renewing import Destination
from hardkeel.project.model import Build
from hardkeel.ui.stages import StageContext
from hardkeel.ui.stages.tail.page import TailPage
from hardkeel.ui.tabbed.sheet_controller import CutSource, SheetController
from hardkeel.ui.tabbed.stage_page import StagePage

if TYPE_CHECKING:
    from collections.abc import Callable

    from hardkeel.export import tail as templates
    from hardkeel.ui.stages.tail import flat_targets
    from hardkeel.ui.stages.tail.flat_page import FlatPage
else:
    flat_targets = late("hardkeel.ui.stages.tail.flat_targets")
    templates = late("hardkeel.export.tail")


def make(context: StageContext) -> StagePage:
    """The page, with who carries out its long work."""
    page = TailPage(context.document, context.theme, context.settings.unit)
    source = CutSource("tail", tail_cut_list, tail_pieces, _write, cutting="sticks")
    SheetController(context.document, page, context.jobs, context.tell, source)
    page.made.connect(lambda key, made: _with_targets(context, made) if key == "flat" else None)
    return page


def _with_targets(context: StageContext, made: object) -> None:
    """The bench that looks whether it is flat gets who reads its pictures."""
    page = cast("FlatPage", made)
    flat_targets.FlatTargets(context.document, page, context.jobs, context.tell)


def _write(
    build: Build,
    to: Destination,
    paper: str,
    unit: LengthUnit,
    step: "Callable[[int, int], None]",
) -> object:
    return templates.write_tail(build, to, paper, unit, step)
