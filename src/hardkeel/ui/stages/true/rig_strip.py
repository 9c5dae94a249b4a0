"""The stages of rigging along the top of the drawing: what is glued in ink, what is to come in pencil."""

from dataclasses import dataclass
from itertools import pairwise
from typing import Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QFontMetrics, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QAbstractButton, QHBoxLayout, QPushButton, QSizePolicy, QWidget

from hardkeel.messages import rigging as say
from hardkeel.survey.rigging import RigState
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.flow import FlowLayout

_HEIGHT: Final = 30
_DOT: Final = 6


@dataclass(frozen=True, slots=True)
class RigShown:
    """A stage as the strip shows it."""

    body: str
    name: str
    word: str
    tip: str
    state: RigState
    current: bool
    lockable: bool


_WRONG: Final = ("out", "moved")
_LOCKED: Final = ("locked", "moved")


class RigButton(QAbstractButton):
    """One stage: its shape, its name, a word."""

    def __init__(self, shown: RigShown, theme: Theme) -> None:
        super().__init__()
        self._theme = theme
        self.setCheckable(True)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.show_stage(shown)

    def show_stage(self, shown: RigShown) -> None:
        """Show another state of it."""
        self._shown = shown
        self.setText(shown.name)
        self.setToolTip(shown.tip)
        self.setAccessibleName(shown.tip)
        self.updateGeometry()
        self.update()

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        self.updateGeometry()
        self.update()

    def sizeHint(self) -> QSize:
        """As wide as its words."""
        theme, shown = self._theme, self._shown
        width = self._least()
        if shown.word:
            word = QFontMetrics(theme.font(12)).horizontalAdvance(shown.word)
            width += theme.px(6) + word
        return QSize(width + theme.px(6), theme.px(_HEIGHT))

    def minimumSizeHint(self) -> QSize:
        """The name is never cut; the word is left out where there is no room."""
        return QSize(self._least(), self._theme.px(_HEIGHT))

    def _least(self) -> int:
        name = QFontMetrics(self._theme.font(15, weight=600)).horizontalAdvance(self._shown.name)
        return self._theme.px(2 * _DOT + 14) + name

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """A full disc for what stands, a ring for what is open, dashed for what is to come."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        theme, shown, box = self._theme, self._shown, QRectF(self.rect())
        now = shown.current or shown.state in _WRONG
        colour = theme.colour(
            "out"
            if shown.state in _WRONG
            else "act"
            if shown.current
            else "ink"
            if shown.state in ("locked", "true")
            else "soft"
        )
        if self.isChecked() or self.underMouse() or self.hasFocus():
            painter.fillRect(box, theme.colour("act_wash"))
        if self.hasFocus():
            painter.setPen(QPen(theme.colour("act"), 1.5))
            painter.drawRect(box.adjusted(1, 1, -1, -1))
        radius = theme.px(_DOT)
        at = QPointF(radius + theme.px(4), box.center().y())
        style = Qt.PenStyle.SolidLine if now or shown.state != "open" else Qt.PenStyle.DotLine
        painter.setPen(QPen(colour, 1.8, style))
        painter.setBrush(colour if shown.state == "locked" else theme.colour("paper"))
        painter.drawEllipse(at, radius, radius)
        if shown.state == "true":
            painter.setBrush(colour)
            painter.drawEllipse(at, radius / 2, radius / 2)
        left = at.x() + radius + theme.px(6)
        painter.setPen(colour)
        painter.setFont(theme.font(15, weight=600 if now or shown.state != "open" else 400))
        middle = Qt.AlignmentFlag.AlignVCenter
        painter.drawText(QRectF(left, 0, box.width(), box.height()), middle, shown.name)
        left += painter.fontMetrics().horizontalAdvance(shown.name) + theme.px(6)
        painter.setFont(theme.font(12))
        painter.setPen(theme.colour("out" if shown.state in _WRONG else "soft"))
        if left + painter.fontMetrics().horizontalAdvance(shown.word) <= box.width():
            painter.drawText(QRectF(left, 0, box.width(), box.height()), middle, shown.word)


class RigStrip(QWidget):
    """Stages in a row or more, and the lock of the one that is picked.

    Signals
    -------
    picked : str
        A stage was picked; its body.
    lock_asked : str, bool
        It is glued, or may be moved again.
    """

    picked = pyqtSignal(str)
    lock_asked = pyqtSignal(str, bool)

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self.stages: dict[str, RigButton] = {}
        self._shown: dict[str, RigShown] = {}
        self._chosen = ""
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Preferred)
        beside = QHBoxLayout(self)
        beside.setContentsMargins(10, 2, 10, 2)
        self._row = FlowLayout(gap=theme.px(10))  # in large text a biplane's stages want two rows
        beside.addLayout(self._row, 1)
        self.lock = QPushButton()
        self.lock.setObjectName("plain")
        self.lock.clicked.connect(self._on_lock)
        beside.addWidget(self.lock, 0, Qt.AlignmentFlag.AlignTop)

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        for button in self.stages.values():
            button.set_theme(theme)

    def show_stages(self, stages: tuple[RigShown, ...], chosen: str) -> None:
        """Show these; the chosen one is the one in hand."""
        self._shown = {one.body: one for one in stages}
        self._chosen = chosen
        if list(self.stages) != list(self._shown):
            self._lay(stages)
        for one in stages:
            self.stages[one.body].show_stage(one)
            self.stages[one.body].setChecked(one.body == chosen)
        self.setVisible(bool(stages))
        held = self._shown.get(chosen)
        self.lock.setVisible(held is not None and held.lockable)
        if held is not None:
            locked = held.state in _LOCKED
            self.lock.setText(say.UNLOCK if locked else say.LOCK)
            self.lock.setToolTip(say.UNLOCK_TIP if locked else say.LOCK_TIP)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """A line from stage to stage: in ink between two that stand."""
        painter = QPainter(self)
        buttons = list(self.stages.items())
        for (body, left), (_, right) in pairwise(buttons):
            stands = self._shown[body].state in ("locked", "true")
            painter.setPen(QPen(self._theme.colour("ink" if stands else "hair"), 1.4))
            y = left.geometry().center().y()
            if y != right.geometry().center().y():
                continue
            painter.drawLine(left.geometry().right() + 1, y, right.geometry().left() - 1, y)

    def _lay(self, stages: tuple[RigShown, ...]) -> None:
        for button in self.stages.values():
            self._row.removeWidget(button)
            button.deleteLater()
        self.stages = {}
        for one in stages:
            button = self.stages[one.body] = RigButton(one, self._theme)
            button.clicked.connect(lambda _on, body=one.body: self.picked.emit(body))
            self._row.addWidget(button)

    def _on_lock(self) -> None:
        held = self._shown.get(self._chosen)
        if held is not None:
            self.lock_asked.emit(held.body, held.state not in _LOCKED)
