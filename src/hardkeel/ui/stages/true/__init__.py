"""True: readings taken and adjusted, checks judged, one thing to do next; gauges at the rail's foot."""

from hardkeel.ui.stages import Bench, StagePage
from hardkeel.ui.stages.true.gauge_bench import GaugeBench
from hardkeel.ui.stages.true.page import TruePage


def make(bench: Bench) -> StagePage:
    """The page, with the gauges that write in its field."""
    page = TruePage(bench.document, bench.theme, bench.settings.unit)
    GaugeBench(bench.document, page, bench.settings)  # lives as long as the page
    return page
