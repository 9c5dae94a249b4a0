"""Lay out: the airframe drawn, taken from paper, checked as printed, cut, and brought into balance."""

from hardkeel.ui.stages import StageContext
from hardkeel.ui.stages.layout.check_controller import CheckController
from hardkeel.ui.stages.layout.drawing_controller import DrawingController
from hardkeel.ui.stages.layout.ink_controller import InkController
from hardkeel.ui.stages.layout.join_controller import JoinController
from hardkeel.ui.stages.layout.label_controller import LabelController
from hardkeel.ui.stages.layout.page import LayoutPage
from hardkeel.ui.stages.layout.scan_controller import ScanController
from hardkeel.ui.tabbed.round_controller import RoundController
from hardkeel.ui.tabbed.stage_page import StagePage


def make(context: StageContext) -> StagePage:
    """The page, with who carries out what its benches ask of the disk."""
    page = LayoutPage(context.document, context.theme, context.settings.unit)
    InkController(context.document, page, context.jobs)
    JoinController(context.document, page, context.jobs)
    LabelController(context.document, page, context.jobs, context.tell)
    ScanController(context.document, page, context.jobs, context.tell)
    CheckController(context.document, page, context.jobs, context.tell)
    DrawingController(context.document, page, context.jobs, context.tell)
    beside = RoundController(context.document, page, context.jobs, "layout")
    page.made.connect(lambda _key, made: beside.take(made))
    return page
