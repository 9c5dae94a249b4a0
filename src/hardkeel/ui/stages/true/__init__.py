"""True: readings taken and adjusted, checks judged, one thing to do next; gauges at the rail's foot."""

from hardkeel.ui.stages import Bench
from hardkeel.ui.stages.true.gauge_bench import GaugeBench
from hardkeel.ui.stages.true.sheet_desk import MeasuringSheetDesk
from hardkeel.ui.stages.true.sight_desk import SightDesk
from hardkeel.ui.stages.true.stage import TrueStage
from hardkeel.ui.tabbed.stage_page import StagePage


def make(bench: Bench) -> StagePage:
    """The page, with the gauges that write in its field."""
    page = TrueStage(bench.document, bench.theme, bench.settings.unit)
    MeasuringSheetDesk(bench.document, page.rigging)
    GaugeBench(bench.document, page.rigging, bench.settings)  # lives as long as the page
    SightDesk(bench.document, page, bench.jobs, bench.tell)
    return page
