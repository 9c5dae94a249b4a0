"""The gauges at work: dock, links and the page that takes their values, tied together."""

from collections.abc import Callable

from PyQt6.QtCore import QObject

from hardkeel.base.units import LengthUnit, format_angle, format_length
from hardkeel.gauges.link import GaugeReport
from hardkeel.gauges.protocol import GaugeKind, gauge_for
from hardkeel.survey.model import Reading
from hardkeel.ui.commands.document import Document
from hardkeel.ui.jobs.gauges import GaugeDesk
from hardkeel.ui.pages.true_page import TruePage
from hardkeel.ui.widgets.gauge_dock import GaugeDock


class GaugeBench(QObject):
    """Lets a gauge write into the field of the True page when it is held where a reading is wanted.

    Parameters
    ----------
    unit : callable
        Gives the unit lengths are shown in.
    """

    def __init__(
        self,
        document: Document,
        dock: GaugeDock,
        page: TruePage,
        unit: Callable[[], LengthUnit],
        parent: QObject,
    ) -> None:
        super().__init__(parent)
        self._document, self._dock, self._page, self._unit = document, dock, page, unit
        self.desk = GaugeDesk(self)
        dock.plug_toggled.connect(self._on_plug_toggled)
        dock.zero_pressed.connect(self._on_zero_pressed)
        page.reading_wanted.connect(self._on_reading_wanted)
        self.desk.reported.connect(self._on_reported)

    def close(self) -> None:
        """Unplug everything."""
        self.desk.close()

    def _on_plug_toggled(self, kind: GaugeKind) -> None:
        row = self._dock.row(kind)
        if self.desk.is_plugged(kind):
            self.desk.unplug(kind)
            row.show_state("", "", zeroed=False)
            return
        self.desk.set_build(self._document.build)
        self.desk.plug(kind)
        row.show_state("waiting", "", zeroed=False)
        self._on_reading_wanted(self._page.target)

    def _on_zero_pressed(self, kind: GaugeKind) -> None:
        self.desk.zero(kind)
        self._on_reading_wanted(self._page.target)

    def _on_reading_wanted(self, reading: Reading | None) -> None:
        if reading is not None:
            self.desk.hold(reading)

    def _on_reported(self, kind: GaugeKind, report: GaugeReport) -> None:
        if not self.desk.is_plugged(kind):
            return
        shown, text = report.shown, ""
        if shown is not None:
            text = (
                format_angle(shown.value)
                if shown.unit == "deg"
                else format_length(shown.value, self._unit())
            )
            target = self._page.target
            if target is not None and gauge_for(target.kind) == kind:
                self._page.show_gauge_value(shown.value, zeroed=self.desk.is_zeroed(kind))
        self._dock.row(kind).show_state(report.state, text, zeroed=self.desk.is_zeroed(kind))
