"""Pictures that are dragged on a widget."""

from collections.abc import Callable
from pathlib import Path
from typing import Final

from PyQt6.QtCore import QEvent, QMimeData, QObject, pyqtSignal
from PyQt6.QtGui import QDropEvent
from PyQt6.QtWidgets import QWidget

PICTURES: Final = (".jpg", ".jpeg", ".png")


class PictureDrop(QObject):
    """Lets pictures be dropped on a widget; whatever else is dragged goes on to who is behind it.

    Parameters
    ----------
    wanted : callable
        Whether there is a use for them now.

    Signals
    -------
    dropped : list of Path
        They were.
    """

    dropped = pyqtSignal(list)

    def __init__(self, widget: QWidget, wanted: Callable[[], bool] = lambda: True) -> None:
        super().__init__(widget)
        self._wanted = wanted
        widget.setAcceptDrops(True)
        widget.installEventFilter(self)

    def eventFilter(self, _widget: QObject | None, event: QEvent | None) -> bool:
        """Accept pictures that are dragged in, and say which were dropped."""
        # one that is dragged in is a drop that has not happened yet
        if not isinstance(event, QDropEvent) or event.type() not in _HEEDED or not self._wanted():
            return False
        found = _pictures_in(event.mimeData())
        if not found:
            return False
        event.acceptProposedAction()
        if event.type() == QEvent.Type.Drop:
            self.dropped.emit(found)
        return True


_HEEDED: Final = (QEvent.Type.DragEnter, QEvent.Type.Drop)


def _pictures_in(data: QMimeData | None) -> list[Path]:
    urls = data.urls() if data is not None else []
    paths = [Path(url.toLocalFile()) for url in urls if url.isLocalFile()]
    return [path for path in paths if path.suffix.lower() in PICTURES]
