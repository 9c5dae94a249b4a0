"""Frame: what to cut, how it bends, the paper and the wood to cut it by."""

from hardkeel.ui.stages import Bench, StagePage
from hardkeel.ui.stages.frame.page import FramePage
from hardkeel.ui.stages.frame.sheet_desk import SheetDesk


def make(bench: Bench) -> StagePage:
    """The page, with who carries out its long work."""
    page = FramePage(bench.document, bench.theme, bench.settings.unit)
    SheetDesk(bench.document, page, bench.jobs, bench.tell)
    return page
