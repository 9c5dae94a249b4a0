"""Bench: tonight, what runs, the evenings to come."""

from hardkeel.ui.stages import Bench
from hardkeel.ui.stages.bench.plan_desk import PlanDesk
from hardkeel.ui.stages.bench.stage import BenchStage
from hardkeel.ui.tabbed.stage_page import StagePage


def make(bench: Bench) -> StagePage:
    """The page, with who plans beside the window."""
    page = BenchStage(bench.document, bench.theme, bench.settings.unit)
    PlanDesk(bench.document, page, bench.jobs)
    return page
