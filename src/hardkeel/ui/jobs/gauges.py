"""The gauges on the bench, brought to the window's thread."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from PyQt6.QtCore import QObject, pyqtSignal

from hardkeel.gauges.link import GaugeLink, GaugeReport
from hardkeel.gauges.port import StandInPort
from hardkeel.gauges.protocol import GAUGE_KINDS, GaugeKind, gauge_for
from hardkeel.gauges.standin import StandIn
from hardkeel.practice.standing import hidden_of
from hardkeel.project.model import Build
from hardkeel.survey.readings import Reading


@dataclass(slots=True)
class _Plugged:
    link: GaugeLink
    port: StandInPort | None


def _place(reading: Reading) -> str:
    return reading.model_dump_json(by_alias=True)


class GaugeController(QObject):
    """Plugs gauges in and out and passes on what they show.

    A report comes from a link's own thread; the signal brings it over, queued, so that a slow or dead
    gauge can never hold up the window.

    Signals
    -------
    reported : str, object
        A gauge's kind and its `GaugeReport`.
    """

    reported = pyqtSignal(str, object)

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._plugged: dict[GaugeKind, _Plugged] = {}
        self._listening: dict[GaugeKind, object] = {}

    def is_plugged(self, kind: GaugeKind) -> bool:
        """Whether this gauge is there."""
        return kind in self._plugged

    def is_simulated(self, kind: GaugeKind) -> bool:
        """Whether what it shows is made up by a stand-in."""
        return kind in self._plugged and self._plugged[kind].port is not None

    def plug(self, kind: GaugeKind, url: str) -> None:
        """Plug a real gauge in, at a URL that pyserial opens."""
        if kind not in self._plugged:
            link = GaugeLink(url, self._listener(kind), kind=kind)
            self._plugged[kind] = _Plugged(link, None)

    def plug_stand_in(self, kind: GaugeKind, build: Build) -> None:
        """Plug a simulated gauge in, which measures a hidden crooked copy of a build.

        Raises
        ------
        BadInput
            When the build is an exercise that its truth does not belong to any more.
        """
        if kind in self._plugged:
            return
        hidden = hidden_of(build)
        port = StandInPort(StandIn(kind, hidden, np.random.default_rng()))
        link = GaugeLink(port.url, self._listener(kind), kind=kind, stand_in=True)
        self._plugged[kind] = _Plugged(link, port)

    def unplug(self, kind: GaugeKind) -> None:
        """Pull a gauge's cable and stop asking it."""
        plugged = self._plugged.pop(kind, None)
        self._listening.pop(kind, None)
        if plugged is not None:
            plugged.link.close()
            if plugged.port is not None:
                plugged.port.unplug()

    def zero(self, kind: GaugeKind) -> None:
        """Hold it on the datum and ask it to zero itself; its reports tell whether it did."""
        if kind in self._plugged:
            self._plugged[kind].link.zero()

    def hold(self, reading: Reading) -> None:
        """Hold the gauge that takes this kind of reading where it is to be taken."""
        kind = gauge_for(reading.kind)
        if kind in self._plugged and kind is not None:
            self._plugged[kind].link.hold(_place(reading))

    def is_answer(self, kind: GaugeKind, report: GaugeReport, reading: Reading) -> bool:
        """Whether a report is what this gauge shows at this reading.

        A report waits in the queue of the window's thread: what a stand-in showed at the place before
        may come when the next is already wanted.
        """
        if gauge_for(reading.kind) != kind or not report.held:
            return False
        return not self.is_simulated(kind) or report.at == _place(reading)

    def close(self) -> None:
        """Unplug everything."""
        for kind in GAUGE_KINDS:
            self.unplug(kind)

    def _listener(self, kind: GaugeKind) -> Callable[[GaugeReport], None]:
        """What a link is to call: heard from before it is there, for it may report at once, until it is pulled."""
        mine = self._listening[kind] = object()

        def hear(report: GaugeReport) -> None:
            if self._listening.get(kind) is mine:
                self.reported.emit(kind, report)

        return hear
