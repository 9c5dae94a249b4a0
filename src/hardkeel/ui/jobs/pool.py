"""Pure functions run beside the window, their result or error brought back by a signal."""

import traceback
from collections.abc import Callable
from dataclasses import dataclass
from typing import Protocol

from PyQt6 import sip
from PyQt6.QtCore import QObject, QRunnable, QThreadPool, pyqtBoundSignal, pyqtSignal

from hardkeel.base.errors import HardKeelError


class _JobSignals(QObject):
    done = pyqtSignal(object)
    failed = pyqtSignal(object)
    crashed = pyqtSignal(str)


class _Job(QRunnable):
    def __init__(self, work: Callable[[], object], signals: _JobSignals) -> None:
        super().__init__()
        self._work = work
        self._mouth = signals

    def run(self) -> None:
        try:
            result = self._work()
        except HardKeelError as fault:
            self._mouth.failed.emit(fault)
        except Exception:  # noqa: BLE001  whatever it is, the window's thread must hear of it
            self._mouth.crashed.emit(traceback.format_exc())
        else:
            self._mouth.done.emit(result)


class Owner(Protocol):
    """What a job is done for: a session of a build, or whatever lives shorter than the window."""

    ended: pyqtBoundSignal


@dataclass(frozen=True, slots=True)
class _Begun:
    """A job that was begun and is still wanted."""

    number: int
    stop: Callable[[], object]
    left: Callable[[], object]
    writes: bool


class Jobs(QObject):
    """Starts jobs; an answer that nobody waits for any more is dropped.

    A job belongs to somebody and is of a kind.  Another of the same kind for the same owner takes its place; when the
    owner ends all of its jobs are stopped, and no answer arrives.

    Signals
    -------
    crashed : str
        A job ended by a fault that nobody foresaw; the report.
    """

    crashed = pyqtSignal(str)

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._pool = QThreadPool(self)
        self._number = 0
        self._begun: dict[tuple[int, str], _Begun] = {}
        self._owners: set[int] = set()
        self._signals: set[_JobSignals] = set()

    def start(  # noqa: PLR0913
        self,
        owner: Owner,
        kind: str,
        work: Callable[[], object],
        done: Callable[[object], object],
        failed: Callable[[HardKeelError], object],
        *,
        stop: Callable[[], object] = lambda: None,
        left: Callable[[], object] = lambda: None,
        writes: bool = False,
    ) -> None:
        """Run `work` on frozen input; `done` or `failed` is called in the window's thread.

        Parameters
        ----------
        stop : callable
            Lets the work know that it may leave off.
        left : callable
            Called where the owner ended before there was an answer.
        writes : bool
            It writes files: the window asks before it closes over it.
        """
        self._heed(owner)
        key = (id(owner), kind)
        before = self._begun.get(key)
        if before is not None:
            before.stop()
        self._number += 1
        number = self._number
        self._begun[key] = _Begun(number, stop, left, writes)
        signals = _JobSignals(self)
        self._signals.add(signals)

        def finish(answer: Callable[[], object]) -> None:
            if sip.isdeleted(signals):  # the window was closed while the job ran on
                return
            self._signals.discard(signals)
            signals.deleteLater()
            begun = self._begun.get(key)
            if begun is not None and begun.number == number:
                del self._begun[key]
                answer()

        signals.done.connect(lambda result: finish(lambda: done(result)))
        signals.failed.connect(lambda fault: finish(lambda: failed(fault)))
        signals.crashed.connect(lambda report: finish(lambda: self._crash(report, failed)))
        self._pool.start(_Job(work, signals))

    def is_running(self, owner: Owner, kind: str) -> bool:
        """Whether an answer of this kind is still waited for."""
        return (id(owner), kind) in self._begun

    @property
    def busy(self) -> bool:
        """Whether any answer is still waited for."""
        return bool(self._begun)

    @property
    def writing(self) -> bool:
        """Whether files are being written."""
        return any(begun.writes for begun in self._begun.values())

    def stop_all(self) -> None:
        """Let everything leave off; no answer arrives."""
        for begun in self._begun.values():
            begun.stop()
        self._begun.clear()

    def _heed(self, owner: Owner) -> None:
        if id(owner) not in self._owners:
            self._owners.add(id(owner))
            owner.ended.connect(lambda: self._end(id(owner)))

    def _end(self, owner: int) -> None:
        mine = [key for key in self._begun if key[0] == owner]
        gone = [self._begun.pop(key) for key in mine]
        self._owners.discard(owner)
        for begun in gone:
            begun.stop()
            begun.left()

    def _crash(self, report: str, failed: Callable[[HardKeelError], object]) -> None:
        failed(HardKeelError("it went wrong in a way that nobody foresaw"))
        self.crashed.emit(report)

    def wait(self, milliseconds: int = 5000) -> bool:
        """Let running jobs end; for closing and for tests."""
        return self._pool.waitForDone(milliseconds)
