"""The stage with its benches; the timers are watched whichever is seen."""

from typing import Final

from PyQt6.QtWidgets import QWidget

from hardkeel.base.units import LengthUnit
from hardkeel.messages import bench as say
from hardkeel.messages.glue import COUPONS, GLUE
from hardkeel.ui.document.document import Document
from hardkeel.ui.stages.bench.timer_watch import TimerWatch
from hardkeel.ui.tabbed.stage_page import TabbedStage, TabList
from hardkeel.ui.theme import Theme

BENCHES: Final = TabList(
    "hardkeel.ui.stages.bench",
    (
        ("tonight", say.TONIGHT, "TonightPage"),
        ("weeks", say.EVENINGS, "WeeksPage"),
        ("glue", GLUE, "GluePage"),
        ("coupons", COUPONS, "CouponsPage"),
    ),
    "Ctrl+Alt",
)


class BenchStage(TabbedStage):
    """The bench."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, BENCHES, parent)
        self.watch = TimerWatch(document, self)
