"""Lay out: the airframe drawn, taken from paper, checked as printed, cut, and brought into balance."""

from hardkeel.ui.stages import Bench, StagePage
from hardkeel.ui.stages.layout.desk_work import DeskWork
from hardkeel.ui.stages.layout.page import LayoutPage


def make(bench: Bench) -> StagePage:
    """The page, with who carries out what its benches ask of the disk."""
    page = LayoutPage(bench.document, bench.theme, bench.settings.unit)
    DeskWork(
        bench.document, page, bench.images, bench.jobs, bench.tell, page
    )  # lives as long as it
    return page
