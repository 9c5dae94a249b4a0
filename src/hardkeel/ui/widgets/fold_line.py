"""A line that says a name and what it comes to; a press shows what lies under it."""

import re
from typing import Final

from PyQt6.QtCore import QPointF, QSize, Qt
from PyQt6.QtGui import QColor, QKeyEvent, QPainter, QPaintEvent, QPalette, QPen, QPolygonF
from PyQt6.QtWidgets import QAbstractButton, QHBoxLayout, QLabel, QSizePolicy, QWidget

_MARK_PX: Final = 4.0  # half of the mark at the line's end
_MARK_ROOM_PX: Final = 12
_RIM_PX: Final = 14
_WASH_ALPHA: Final = 22
_STAYS: Final = "\u00a0"  # a unit is not parted from its figure where the line breaks
_UNIT: Final = re.compile(r"(?<=\d) (?=[^\W\d_]{1,2}\b|[%×°])")


class FoldLine(QAbstractButton):
    """Down while what lies under it is shown; by click, space or Enter."""

    def __init__(self, name: str, rim: int = _RIM_PX, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setCheckable(True)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        rule = QSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Preferred)
        rule.setHeightForWidth(True)
        self.setSizePolicy(rule)
        self._name, self._value = QLabel(name), QLabel()
        self._name.setObjectName("heading")
        self._value.setObjectName("soft")
        self._value.setWordWrap(True)
        self._value.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        row = QHBoxLayout(self)
        row.setContentsMargins(rim, 6, rim + _MARK_ROOM_PX, 6)
        self._mark_from_end = max(rim, _MARK_PX + 1)
        row.setSpacing(10)
        row.addWidget(self._name)
        row.addWidget(self._value, 1)
        for one in (self._name, self._value):
            one.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        self.toggled.connect(self.update)
        self.show_value("")

    @property
    def value(self) -> str:
        """What it says that it comes to."""
        return self._value.text().replace(_STAYS, " ")

    def show_value(self, words: str) -> None:
        """What lies under it comes to this."""
        self._value.setText(_UNIT.sub(_STAYS, words))
        name = self._name.text()
        self.setText(name)
        self.setAccessibleName(f"{name}: {words}" if words else name)

    def sizeHint(self) -> QSize:
        """As its words want; a button's own text is not painted."""
        box = self.layout()
        return box.sizeHint() if box is not None else super().sizeHint()

    def minimumSizeHint(self) -> QSize:
        """As its words want."""
        box = self.layout()
        return box.minimumSize() if box is not None else super().minimumSizeHint()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Enter does what space does."""
        if event is not None and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.click()
        else:
            super().keyPressEvent(event)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Paint where the cursor is, and the mark that points down while it is open."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        act = self.palette().color(QPalette.ColorRole.Highlight)
        if self.underMouse():
            wash = QColor(act)
            wash.setAlpha(_WASH_ALPHA)
            painter.fillRect(self.rect(), wash)
        if self.hasFocus():
            painter.setPen(QPen(act, 2.0))
            painter.drawRect(self.rect().adjusted(1, 1, -1, -1))
        middle = QPointF(self.width() - self._mark_from_end, self.height() / 2)
        reach = _MARK_PX
        corners = (
            ((-reach, -reach / 2), (0.0, reach / 2), (reach, -reach / 2))
            if self.isChecked()
            else ((-reach / 2, -reach), (reach / 2, 0.0), (-reach / 2, reach))
        )
        painter.setPen(QPen(self.palette().color(QPalette.ColorRole.WindowText), 1.6))
        painter.drawPolyline(QPolygonF([middle + QPointF(*corner) for corner in corners]))
