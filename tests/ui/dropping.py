"""Files dragged on a widget and dropped there, as a file manager does it."""

from pathlib import Path

from PyQt6.QtCore import QMimeData, QPoint, QPointF, Qt, QUrl
from PyQt6.QtGui import QDragEnterEvent, QDropEvent
from PyQt6.QtWidgets import QApplication, QWidget

_AT = QPoint(40, 40)
_COPY = Qt.DropAction.CopyAction
_LEFT, _NONE = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier


def drop_on(widget: QWidget, *paths: Path) -> bool:
    """Drag files on a widget and let go of them; whether they were taken."""
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(path)) for path in paths])
    enter = QDragEnterEvent(_AT, _COPY, data, _LEFT, _NONE)
    QApplication.sendEvent(widget, enter)
    if not enter.isAccepted():
        return False
    drop = QDropEvent(QPointF(_AT), _COPY, data, _LEFT, _NONE)
    QApplication.sendEvent(widget, drop)
    return drop.isAccepted()
