"""Paper: every sheet that is printed, what of it is out of date, and the printer."""

from hardkeel.ui.stages import StageContext
from hardkeel.ui.stages.paper.controller import PaperController
from hardkeel.ui.stages.paper.page import PaperPage
from hardkeel.ui.tabbed.stage_page import StagePage


def make(context: StageContext) -> StagePage:
    """The page, with who carries out its wishes."""
    page = PaperPage(context.theme, context.settings.unit)
    PaperController(context, page)
    return page
