"""Practice: somebody else's crooked model, read in so many minutes, told, and shown as it was."""

from hardkeel.ui.stages import StageContext
from hardkeel.ui.stages.practice.controller import PracticeController
from hardkeel.ui.stages.practice.stage import PracticeStage
from hardkeel.ui.tabbed.stage_page import StagePage


def make(context: StageContext) -> StagePage:
    """The page, with who makes exercises and goes through them."""
    page = PracticeStage(context.document, context.theme, context.settings.unit)
    PracticeController(context, page)
    return page
