"""Log: what was done and found, by the builder and by the app, and the hours that it took."""

from hardkeel.ui.stages import Bench
from hardkeel.ui.stages.log.page import LogPage
from hardkeel.ui.tabbed.stage_page import StagePage


def make(bench: Bench) -> StagePage:
    """The page."""
    return LogPage(bench.document, bench.theme, bench.settings.unit)
