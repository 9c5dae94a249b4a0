"""Lay out: the airframe drawn, taken from paper, checked as printed, cut, and brought into balance."""

from hardkeel.ui.stages import Bench
from hardkeel.ui.stages.layout.drawing_desk import DrawingDesk
from hardkeel.ui.stages.layout.page import LayoutPage
from hardkeel.ui.stages.layout.scan_desk import ScanDesk
from hardkeel.ui.tabbed.stage_page import StagePage


def make(bench: Bench) -> StagePage:
    """The page, with who carries out what its benches ask of the disk."""
    page = LayoutPage(bench.document, bench.theme, bench.settings.unit)
    ScanDesk(bench.document, page, bench.jobs, bench.tell)
    DrawingDesk(bench.document, page, bench.jobs, bench.tell)
    return page
