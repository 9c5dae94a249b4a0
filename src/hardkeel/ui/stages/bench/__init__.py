"""Bench: tonight, what runs, the evenings to come."""

from hardkeel.ui.stages import StageContext
from hardkeel.ui.stages.bench.plan_controller import PlanController
from hardkeel.ui.stages.bench.stage import BenchStage
from hardkeel.ui.tabbed.stage_page import StagePage


def make(context: StageContext) -> StagePage:
    """The page, with who plans beside the window."""
    page = BenchStage(context.document, context.theme, context.settings.unit)
    PlanController(context.document, page, context.jobs)
    return page
