"""Pure functions run beside the window, their result or error brought back by a signal."""

from collections.abc import Callable

from PyQt6.QtCore import QObject, QRunnable, QThreadPool, pyqtSignal

from hardkeel.base.errors import HardKeelError


class _Mouth(QObject):
    done = pyqtSignal(object)
    failed = pyqtSignal(str)


class _Job(QRunnable):
    def __init__(self, work: Callable[[], object], mouth: _Mouth) -> None:
        super().__init__()
        self._work = work
        self._mouth = mouth

    def run(self) -> None:
        try:
            result = self._work()
        except HardKeelError as fault:
            self._mouth.failed.emit(str(fault))
        else:
            self._mouth.done.emit(result)


class Jobs(QObject):
    """Starts jobs; an answer to a job that is no longer the newest of its kind is dropped."""

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
        failed: Callable[[str], object],
    ) -> None:
        """Run `work` on frozen input; `done` or `failed` is called in the window's thread."""
        number = self._newest[kind] = self._newest.get(kind, 0) + 1
        mouth = _Mouth(self)
        self._mouths.add(mouth)

        def finish(answer: Callable[[], object]) -> None:
            self._mouths.discard(mouth)
            mouth.deleteLater()
            if self._newest.get(kind) == number:
                answer()

        mouth.done.connect(lambda result: finish(lambda: done(result)))
        mouth.failed.connect(lambda text: finish(lambda: failed(text)))
        self._pool.start(_Job(work, mouth))

    def wait(self, milliseconds: int = 5000) -> bool:
        """Let running jobs end; for closing and for tests."""
        return self._pool.waitForDone(milliseconds)
