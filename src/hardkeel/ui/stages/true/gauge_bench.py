"""The gauges at work: dock, links and the page that takes their values, tied together."""

from PyQt6.QtCore import QObject

from hardkeel.base.errors import BadInput
from hardkeel.base.units import format_angle, format_length
from hardkeel.gauges.link import GaugeReport
from hardkeel.gauges.places import found_places
from hardkeel.gauges.protocol import GAUGE_KINDS, UNITS, GaugeKind
from hardkeel.messages import true as say
from hardkeel.practice.standing import is_played
from hardkeel.survey.readings import Reading
from hardkeel.ui.document.document import Document
from hardkeel.ui.jobs.gauges import GaugeController
from hardkeel.ui.settings import Settings
from hardkeel.ui.stages.true.gauge_dock import SIMULATED
from hardkeel.ui.stages.true.page import TruePage


class GaugeBench(QObject):
    """Lets a gauge write into the field of the True page when it is held where a reading is wanted.

    On a builder's own build a gauge is a real one, and where it is plugged in is asked; a simulated one
    is there for who wants it, and all that comes of it says so.
    """

    def __init__(self, document: Document, page: TruePage, settings: Settings) -> None:
        super().__init__(page)
        self._document, self._page, self._settings = document, page, settings
        self._dock = dock = page.dock
        self.desk = GaugeController(self)
        document.build_opened.connect(self.close)  # a gauge is held on one model
        page.closed.connect(self.close)
        dock.plug_toggled.connect(self._on_plug_toggled)
        dock.place_picked.connect(self._on_place_picked)
        dock.zero_pressed.connect(self._on_zero_pressed)
        page.entry.reading_wanted.connect(self._on_reading_wanted)
        self.desk.reported.connect(self._on_reported)

    def close(self) -> None:
        """Unplug everything."""
        self.desk.close()
        for kind in GAUGE_KINDS:
            self._dock.row(kind).show_state("", "", zeroed=False)

    def _on_plug_toggled(self, kind: GaugeKind) -> None:
        row = self._dock.row(kind)
        if self.desk.is_plugged(kind):
            self.desk.unplug(kind)
            self._page.entry.hear_gauge(kind, GaugeReport("lost"), answers=False)
            row.show_state("", "", zeroed=False)
            return
        row.ask_where(self._places(kind), self._settings.gauge_place(kind))

    def _places(self, kind: GaugeKind) -> tuple[tuple[str, str], ...]:
        """Where it may be: the simulated one first in an exercise, last and on purpose elsewhere."""
        last = self._settings.gauge_place(kind)
        found = [(one.url, f"{one.url}  {one.words}".strip()) for one in found_places()]
        if last and last not in dict(found):
            found.insert(0, (last, f"{last}  as last time"))
        found.sort(key=lambda one: one[0] != last)
        if is_played(self._document.build):
            whose = "demo" if self._document.build.practice is None else "exercise"
            return ((SIMULATED, f"the {whose}'s simulated gauge"), *found)
        return (*found, (SIMULATED, "try it with a simulated gauge"))

    def _on_place_picked(self, kind: GaugeKind, where: str) -> None:
        if where == SIMULATED:
            try:
                self.desk.plug_stand_in(kind, self._document.build)
            except BadInput as fault:
                self._dock.row(kind).show_state("unplugged", fault.fault, zeroed=False)
                return
        else:
            self._settings.set_gauge_place(kind, where)
            self.desk.plug(kind, where)
        self._dock.row(kind).show_state("waiting", "", zeroed=False)
        self._on_reading_wanted(self._page.entry.target)

    def _is_made_up(self, kind: GaugeKind) -> bool:
        """Whether what it shows must be marked: simulated, on a build that is no exercise."""
        return self.desk.is_simulated(kind) and not is_played(self._document.build)

    def _on_zero_pressed(self, kind: GaugeKind) -> None:
        self.desk.zero(kind)
        self._on_reading_wanted(self._page.entry.target)
        self._page.next.focus_entry()  # the next key is for the reading

    def _on_reading_wanted(self, reading: Reading | None) -> None:
        if reading is not None:
            self.desk.hold(reading)

    def _on_reported(self, kind: GaugeKind, report: GaugeReport) -> None:
        if not self.desk.is_plugged(kind):
            return
        entry, shown, made_up = self._page.entry, report.shown, self._is_made_up(kind)
        target = entry.target
        answers = target is not None and self.desk.is_answer(kind, report, target)
        entry.hear_gauge(kind, report, answers=answers, simulated=made_up)
        if report.state == "missed":
            return  # it may yet answer: what it showed is no longer in the field
        text = ""
        if shown is not None:
            text = (
                format_angle(shown.value)
                if shown.unit == "deg"
                else format_length(shown.value, self._settings.unit)
            )
            text = "not held" if not report.held else f"{text}\nsimulated" if made_up else text
            text = f"{text}\n{say.not_zeroed(report.refused)}" if report.refused else text
        elif report.state == "other":
            text = f"a {report.name}"
        elif report.state == "unit":
            text = say.other_unit(report.name, UNITS[kind])
        self._dock.row(kind).show_state(report.state, text, zeroed=report.zeroed)
