"""Hears timers go off, whatever page is seen, and lets it be heard."""

from typing import Final

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

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
        self._seen = document.clock()
        self._wait = QTimer(self)
        self._wait.setSingleShot(True)
        self._wait.timeout.connect(self.look)
        document.build_changed.connect(lambda _change: self._set())
        document.build_opened.connect(self._on_opened)
        self._set()

    def _on_opened(self) -> None:
        self._seen = (
            self._document.clock()
        )  # what went off before is told on the card, and does not ring
        self._set()

    def look(self) -> None:
        """Ring for what went off since it was last looked."""
        now = self._document.clock()
        bench = self._document.build.bench
        for one in bench.timers if bench is not None else ():
            if self._seen < one.over <= now and not one.told:
                self._chime.ring()
                self.rang.emit(one.id)
        self._seen = max(self._seen, now)
        self._set()

    def _set(self) -> None:
        bench = self._document.build.bench
        now = self._document.clock()
        left = running(bench.timers, now) if bench is not None else ()
        if not left:
            self._wait.stop()
            return
        until = left[0].left(now).total_seconds() * 1000 + 50
        self._wait.start(int(min(_LONGEST_MS, max(50.0, until))))
