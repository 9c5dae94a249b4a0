"""True: readings taken and adjusted, checks judged, one thing to do next; gauges at the rail's foot."""

from hardkeel.ui.stages import StageContext
from hardkeel.ui.stages.true.form_controller import ReadingFormController
from hardkeel.ui.stages.true.gauge_bench import GaugeBench
from hardkeel.ui.stages.true.sight_controller import SightController
from hardkeel.ui.stages.true.stage import TrueStage
from hardkeel.ui.tabbed.round_controller import RoundController
from hardkeel.ui.tabbed.stage_page import StagePage


def make(context: StageContext) -> StagePage:
    """The page, with the gauges that write in its field."""
    page = TrueStage(context.document, context.theme, context.settings.unit)
    ReadingFormController(context.document, page.rigging)
    GaugeBench(context.document, page.rigging, context.settings)  # lives as long as the page
    SightController(context.document, page, context.jobs, context.tell)
    page.made.connect(RoundController(context.document, page, context.jobs, "true").take)
    return page
