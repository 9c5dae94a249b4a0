"""Pure functions run beside the window, their result or error brought back by a signal."""

import traceback
from collections.abc import Callable

from PyQt6 import sip
from PyQt6.QtCore import QObject, QRunnable, QThreadPool, pyqtSignal

from hardkeel.base.errors import HardKeelError


class _Mouth(QObject):
    done = pyqtSignal(object)
    failed = pyqtSignal(object)
    crashed = pyqtSignal(str)


class _Job(QRunnable):
    def __init__(self, work: Callable[[], object], mouth: _Mouth) -> None:
        super().__init__()
        self._work = work
        self._mouth = mouth

    def run(self) -> None:
        try:
            result = self._work()
        except HardKeelError as fault:
            self._mouth.failed.emit(fault)
        except Exception:  # noqa: BLE001  whatever it is, the window's thread must hear of it
            self._mouth.crashed.emit(traceback.format_exc())
        else:
            self._mouth.done.emit(result)


class Jobs(QObject):
    """Starts jobs; an answer to a job that is no longer the newest of its kind is dropped.

    Signals
    -------
    crashed : str
        A job ended by a fault that nobody foresaw; the report.
    """

    crashed = pyqtSignal(str)

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._pool = QThreadPool(self)
        self._newest: dict[str, int] = {}
        self._mouths: set[_Mouth] = set()

    def start(
        self,
        kind: str,
        work: Callable[[], object],
        done: Callable[[object], object],
        failed: Callable[[HardKeelError], object],
    ) -> None:
        """Run `work` on frozen input; `done` or `failed` is called in the window's thread."""
        number = self._newest[kind] = self._newest.get(kind, 0) + 1
        mouth = _Mouth(self)
        self._mouths.add(mouth)

        def finish(answer: Callable[[], object]) -> None:
            if sip.isdeleted(mouth):  # the window was closed while the job ran on
                return
            self._mouths.discard(mouth)
            mouth.deleteLater()
            if self._newest.get(kind) == number:
                answer()

        mouth.done.connect(lambda result: finish(lambda: done(result)))
        mouth.failed.connect(lambda fault: finish(lambda: failed(fault)))
        mouth.crashed.connect(lambda report: finish(lambda: self._crash(report, failed)))
        self._pool.start(_Job(work, mouth))

    def _crash(self, report: str, failed: Callable[[HardKeelError], object]) -> None:
        failed(HardKeelError("it went wrong in a way that nobody foresaw"))
        self.crashed.emit(report)

    def wait(self, milliseconds: int = 5000) -> bool:
        """Let running jobs end; for closing and for tests."""
        return self._pool.waitForDone(milliseconds)
