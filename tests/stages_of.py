"""The pages of a window by what they are; the window itself knows no stage by name."""

from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.bench.stage import BenchStage
from hardkeel.ui.stages.frame.page import FramePage
from hardkeel.ui.stages.layout.drawing_controller import DrawingController
from hardkeel.ui.stages.layout.page import LayoutPage
from hardkeel.ui.stages.layout.scan_controller import ScanController
from hardkeel.ui.stages.log.page import LogPage
from hardkeel.ui.stages.practice.stage import PracticeStage
from hardkeel.ui.stages.true.gauge_bench import GaugeBench
from hardkeel.ui.stages.true.page import TruePage
from hardkeel.ui.stages.true.stage import TrueStage
from hardkeel.ui.tabbed.sheet_controller import SheetController


def true_of(window: MainWindow) -> TruePage:
    return stage_of(window).rigging


def stage_of(window: MainWindow) -> TrueStage:
    """The stage *True* of a window, with all of its benches."""
    page = window.pages["true"]
    assert isinstance(page, TrueStage)
    return page


def gauges_of(window: MainWindow) -> GaugeBench:
    bench = true_of(window).findChild(GaugeBench)
    assert bench is not None
    return bench


def layout_of(window: MainWindow) -> LayoutPage:
    page = window.pages["layout"]
    assert isinstance(page, LayoutPage)
    return page


def scans_of(window: MainWindow) -> ScanController:
    desk = layout_of(window).findChild(ScanController)
    assert desk is not None
    return desk


def drawings_of(window: MainWindow) -> DrawingController:
    desk = layout_of(window).findChild(DrawingController)
    assert desk is not None
    return desk


def log_of(window: MainWindow) -> LogPage:
    page = window.pages["log"]
    assert isinstance(page, LogPage)
    return page


def frame_of(window: MainWindow) -> FramePage:
    page = window.pages["frame"]
    assert isinstance(page, FramePage)
    return page


def sheets_of(window: MainWindow) -> SheetController:
    desk = frame_of(window).findChild(SheetController)
    assert desk is not None
    return desk


def bench_of(window: MainWindow) -> BenchStage:
    page = window.pages["bench"]
    assert isinstance(page, BenchStage)
    return page


def practice_of(window: MainWindow) -> PracticeStage:
    page = window.pages["practice"]
    assert isinstance(page, PracticeStage)
    return page
