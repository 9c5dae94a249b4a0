"""What might be otherwise, as chips that are dragged onto the evenings: the finish moves while they hang over them."""

from datetime import date
from typing import Final

from PyQt6.QtCore import QMimeData, QPoint, Qt, pyqtSignal
from PyQt6.QtGui import QDrag, QMouseEvent
from PyQt6.QtWidgets import QPushButton, QWidget

from hardkeel.messages import bench as say
from hardkeel.schedule.what_if import Otherwise
from hardkeel.ui.widgets.flow import FlowLayout

MIME: Final = "application/x-hardkeel-otherwise"


def as_mime(one: Otherwise) -> QMimeData:
    """What is dragged, as it hangs on the pointer."""
    data = QMimeData()
    data.setData(MIME, f"{one.kind}\n{one.what}".encode())
    return data


def of_mime(data: QMimeData | None, day: date | None) -> Otherwise | None:
    """What hangs on the pointer, over a day; nothing where it is something else."""
    if data is None or not data.hasFormat(MIME):
        return None
    kind, _, what = data.data(MIME).data().decode().partition("\n")
    match kind:
        case "resource":
            return Otherwise("resource", what)
        case "evening":
            return Otherwise("evening", "", day)
        case "glue":
            return Otherwise("glue", what)
        case _:
            return None


class _Chip(QPushButton):
    """Pressed it is wondered about; drawn away it hangs on the pointer."""

    def __init__(self, one: Otherwise, parent: QWidget) -> None:
        super().__init__(say.otherwise_words(one.kind, one.what), parent)
        self.setObjectName("tool")
        self.setToolTip(say.OTHERWISE_TIP)
        self.one = one
        self._from = QPoint()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Remember where it was taken."""
        if event is not None:
            self._from = event.position().toPoint()
        super().mousePressEvent(event)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Far enough away from there it is dragged."""
        if event is None or not event.buttons() & Qt.MouseButton.LeftButton:
            return
        if (event.position().toPoint() - self._from).manhattanLength() < _DRAG_PX:
            return
        self.setDown(False)
        drag = QDrag(self)
        drag.setMimeData(as_mime(self.one))
        drag.setPixmap(self.grab())
        drag.setHotSpot(self._from)
        drag.exec(Qt.DropAction.CopyAction)


_DRAG_PX: Final = 8


class OtherwiseRow(QWidget):
    """The chips.

    Signals
    -------
    wondered : object
        An `Otherwise`: one was pressed; once more, and it is taken.
    taken : object
        It was pressed once more.
    """

    wondered = pyqtSignal(object)
    taken = pyqtSignal(object)

    def __init__(self) -> None:
        super().__init__()
        self._flow = FlowLayout(self, gap=4)
        self.chips: list[_Chip] = []
        self._asked: Otherwise | None = None

    def show_chips(self, found: tuple[Otherwise, ...]) -> None:
        """Offer these."""
        self._asked = None
        if [chip.one for chip in self.chips] == list(found):
            return
        for chip in self.chips:
            self._flow.removeWidget(chip)
            chip.deleteLater()
        self.chips = []
        for one in found:
            chip = _Chip(one, self)
            chip.clicked.connect(lambda _on, one=one: self._on_pressed(one))
            self._flow.addWidget(chip)
            chip.show()
            self.chips.append(chip)
        self.setVisible(bool(found))

    def _on_pressed(self, one: Otherwise) -> None:
        again, self._asked = self._asked == one, one
        if again:
            self._asked = None
            self.taken.emit(one)
        else:
            self.wondered.emit(one)
