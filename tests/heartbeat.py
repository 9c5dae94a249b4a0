"""How long the window's thread is busy at a stretch, in processor time: another program's work does not count."""

import time
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from PyQt6.QtCore import QCoreApplication, QEventLoop, Qt, QTimer

from hardkeel.edits import bench, framing, ledger, squaring, steps, surfaces, truing
from hardkeel.edits.fuselage import set_station
from hardkeel.edits.named import Edit
from hardkeel.edits.tail import set_figures
from hardkeel.project.model import Build
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages import STAGES

BEAT_MS = 10


class Heartbeat:
    """A beat each 10 ms; what lies between two, less what was idle, is what the hands would feel."""

    def __init__(self) -> None:
        self._timer = QTimer()
        self._timer.setTimerType(Qt.TimerType.PreciseTimer)
        self._timer.setInterval(BEAT_MS)
        self._timer.timeout.connect(self._beat)
        self._last = time.thread_time()
        self.worst = 0.0

    def _beat(self) -> None:
        now = time.thread_time()
        self.worst, self._last = max(self.worst, now - self._last), now

    @contextmanager
    def felt(self, rest_ms: int = 120) -> Iterator[None]:
        """Count from here until what is done within has been answered: `worst` holds seconds."""
        self._timer.start()
        settle(2 * BEAT_MS)
        self.worst, self._last = 0.0, time.thread_time()
        yield
        settle(rest_ms)
        self._beat()
        self._timer.stop()


def settle(milliseconds: int) -> None:
    """Let the event loop run."""
    loop = QEventLoop()
    QTimer.singleShot(milliseconds, loop.quit)
    loop.exec()
    QCoreApplication.processEvents()


@dataclass(frozen=True)
class Place:
    """A page, and the bench of it."""

    stage: str
    bench: str

    def __str__(self) -> str:
        return f"{self.stage} › {self.bench}" if self.bench else self.stage


def places_of(window: MainWindow) -> list[Place]:
    """Every page of the window, bench by bench."""
    found = []
    for stage in STAGES:
        tab_keys = window.pages[stage.key].tab_keys or ("",)
        found += [Place(stage.key, one) for one in tab_keys]
    return found


def turn(window: MainWindow, place: Place) -> None:
    window.show_stage(place.stage)
    if place.bench:
        window.pages[place.stage].turn_to(place.bench)


def edits_for(build: Build, place: Place) -> list[tuple[str, Edit]]:
    """Two edits that the page shows, as far as the build has anything to edit."""
    found: list[tuple[str, Edit]] = []
    if place.stage in ("layout", "frame", "log") and build.fuselage is not None:
        name = build.fuselage.stations[1][0]
        half = build.fuselage.stations[1][1].half_width
        found.append(("widen a former", set_station.of(name, half_width=half + 0.5)))
        found.append(("another wood", framing.set_framing.of(web=3.5)))
    if place.stage == "tail" and build.tail:
        surface = build.tail[0]
        span, chord = surface.span or 200.0, surface.root_chord or 80.0
        found.append(("longer", set_figures.of(surface.id, span=span + 4)))
        found.append(("deeper", set_figures.of(surface.id, root_chord=chord + 2)))
    readings = build.surveyed.readings
    if place.stage == "true" and readings:
        one, value = readings[-1].id, readings[-1]
        found.append(("set aside", truing.set_ignored.of(one, ignored=True)))
        if isinstance(value.value, float):
            more = value.value + 0.3
            found.append(("change", truing.change_value.of(one, more)))
    if place.stage == "bench":
        found.append(("a resource", bench.set_resource.of("board", 2)))
        found.append(("an own step", steps.add_step.of("make tea", None)))
    if not found and build.wings:
        wing = build.wings[0]
        found.append(("shift", surfaces.set_wing.of(wing.id, le_x=wing.le_x + 1)))
        found.append(("weigh", ledger.set_balance.of(target_percent=30.0)))
    if place.bench == "square" and build.fuselage is not None and build.fuselage.squaring:
        taken = build.fuselage.squaring.readings
        if taken:
            last = taken[-1].id
            found.append(("squared", squaring.change_square.of(last, ignored=True)))
    return found
