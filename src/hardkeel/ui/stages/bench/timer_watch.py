"""Hears timers go off, whatever page is seen, and lets it be heard."""

from typing import Final

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from hardkeel.schedule.model import Timer
from hardkeel.schedule.timers import running
from hardkeel.ui.document.document import Document
from hardkeel.ui.stages.bench.chime import Chime

_LONGEST_MS: Final = (
    60_000  # looked at once a minute at least: a clock may be changed, a lid closed
)


class TimerWatch(QObject):
    """Waits for the next timer of the document's build.

    Signals
    -------
    rang : str
        The id of one that went off while the window was open.
    """

    rang = pyqtSignal(str)

    def __init__(self, document: Document, parent: QObject) -> None:
        super().__init__(parent)
        self._document = document
        self._chime = Chime(self)
        self._rung: set[tuple[str, str]] = set()  # what went off and was heard, or went off before
        self._wait = QTimer(self)
        self._wait.setSingleShot(True)
        self._wait.timeout.connect(self.look)
        document.build_changed.connect(lambda _change: self._set())
        document.build_opened.connect(self._on_opened)
        self._on_opened()

    def _on_opened(self) -> None:
        now = self._document.clock()  # what went off before is told on the card, and does not ring
        self._rung = {(one.id, one.ends) for one in self._timers() if one.over <= now}
        self._set()

    def _timers(self) -> tuple[Timer, ...]:
        bench = self._document.build.bench
        return bench.timers if bench is not None else ()

    def look(self) -> None:
        """Ring for what went off since it was last looked."""
        now = self._document.clock()
        for one in self._timers():
            # by what it is, not by when it was last looked: a clock may be put back
            if one.over <= now and not one.told and (one.id, one.ends) not in self._rung:
                self._rung.add((one.id, one.ends))
                self._chime.ring()
                self.rang.emit(one.id)
        self._set()

    def _set(self) -> None:
        now = self._document.clock()
        left = running(self._timers(), now)
        if not left:
            self._wait.stop()
            return
        until = left[0].left(now).total_seconds() * 1000 + 50
        self._wait.start(int(min(_LONGEST_MS, max(50.0, until))))
