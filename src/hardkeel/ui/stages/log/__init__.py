"""Log: what was done and found, by the builder and by the app, and the hours that it took."""

from hardkeel.ui.stages import StageContext
from hardkeel.ui.stages.log.page import LogPage
from hardkeel.ui.tabbed.stage_page import StagePage


def make(context: StageContext) -> StagePage:
    """The page."""
    return LogPage(context.document, context.theme, context.settings.unit)
