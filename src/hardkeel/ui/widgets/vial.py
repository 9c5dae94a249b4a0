"""A check drawn as a spirit level: two lines are the tolerance, the bubble's width its doubt."""

from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QEnterEvent,
    QFocusEvent,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QPolygonF,
)
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.messages import kit as say
from hardkeel.survey.model import Verdict
from hardkeel.ui.theme import Theme

_HALF_RANGE: Final = 2.0  # the tube shows this many tolerances to each side
_LEAST_BUBBLE: Final = 0.13  # of the tolerance, so that a very sure bubble can still be seen
_ROW: Final = 22
_BELOW: Final = 15  # what the line under it adds
_SHAPE: Final = 9


@dataclass(frozen=True, slots=True)
class VialValue:
    """What a vial shows.

    Attributes
    ----------
    error, sigma : float
        In tolerances: 1 is on the line.
    text, word, sentence : str
        Value with unit; the verdict's word; the whole in a sentence.
    below : str
        What it does, in a line under the vial; empty for none.
    """

    id: str
    name: str
    error: float
    sigma: float
    verdict: Verdict
    text: str
    word: str
    sentence: str
    below: str = ""


class Vial(QWidget):
    """One vial in a row with its name, value and verdict.

    Signals
    -------
    picked : str
        The check's id, by click, Enter or space.
    """

    picked = pyqtSignal(str)

    def __init__(self, value: VialValue, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._value = value
        self._theme = theme
        self._chosen = False
        self._warm = False
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.show_value(value)

    @property
    def value(self) -> VialValue:
        """What is shown."""
        return self._value

    def show_value(self, value: VialValue) -> None:
        """Show another estimate."""
        if bool(value.below) != bool(self._value.below):
            self.updateGeometry()
        self._value = value
        told = f"{value.sentence}\n{value.below}" if value.below else value.sentence
        self.setToolTip(told)
        self.setAccessibleName(told)
        self.update()

    def set_theme(self, theme: Theme) -> None:
        """Paint in another theme."""
        self._theme = theme
        self.updateGeometry()
        self.update()

    def set_chosen(self, *, chosen: bool) -> None:
        """Mark it as the one whose detail is shown."""
        self._chosen = chosen
        self.update()

    def sizeHint(self) -> QSize:
        """A row tall enough for its text."""
        return QSize(self._theme.px(300), self._height())

    def _height(self) -> int:
        return self._theme.px(_ROW + (_BELOW if self._value.below else 0))

    def minimumSizeHint(self) -> QSize:
        """As the size wanted, but narrower."""
        return QSize(self._theme.px(250), self._height())

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Pick it."""
        self.picked.emit(self._value.id)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Pick it by keyboard."""
        if event is not None and event.key() in (
            Qt.Key.Key_Return,
            Qt.Key.Key_Enter,
            Qt.Key.Key_Space,
        ):
            self.picked.emit(self._value.id)
        else:
            super().keyPressEvent(event)

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        """Show the focus."""
        super().focusInEvent(event)
        self.update()

    def enterEvent(self, event: QEnterEvent | None) -> None:
        """Show that it can be picked."""
        self._warm = True
        self.update()

    def leaveEvent(self, event: object) -> None:
        """Cool down."""
        self._warm = False
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Paint the row."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        theme, value = self._theme, self._value
        box = QRectF(self.rect())
        if self._chosen or self._warm or self.hasFocus():
            painter.fillRect(box, theme.colour("act_wash"))
        if self.hasFocus():
            painter.setPen(QPen(theme.colour("act"), 1.5))
            painter.drawRect(box.adjusted(1, 1, -1, -1))
        if value.below:
            self._paint_below(painter, box)
            box.setHeight(theme.px(_ROW))
        colour = theme.colour({"out": "out", "unsure": "act", "true": "ink"}[value.verdict])
        strong = 600 if value.verdict != "true" else 400
        name_width = min(theme.px(148), box.width() * 0.38)
        word_width, value_width = theme.px(46), theme.px(58)
        middle = Qt.AlignmentFlag.AlignVCenter
        painter.setPen(colour if value.verdict == "out" else theme.colour("ink"))
        painter.setFont(theme.font(14, weight=strong if value.verdict == "out" else 400))
        name_box = QRectF(4, 0, name_width - 4, box.height())
        metrics = painter.fontMetrics()
        name = metrics.elidedText(value.name, Qt.TextElideMode.ElideRight, int(name_box.width()))
        painter.drawText(name_box, middle | Qt.AlignmentFlag.AlignLeft, name)
        tube_left = name_width + 4
        tube = QRectF(
            tube_left, 0, box.width() - tube_left - word_width - value_width - 6, theme.px(15)
        )
        tube.moveTop((box.height() - tube.height()) / 2)
        paint_tube(painter, tube, theme, value.error, value.sigma, value.verdict)
        painter.setPen(colour)
        painter.setFont(theme.font(14, weight=600))
        value_box = QRectF(tube.right() + 2, 0, value_width, box.height())
        painter.drawText(value_box, middle | Qt.AlignmentFlag.AlignRight, value.text)
        self._paint_word(painter, QRectF(value_box.right() + 8, 0, word_width, box.height()))

    def _paint_below(self, painter: QPainter, box: QRectF) -> None:
        line = QRectF(4, self._theme.px(_ROW - 3), box.width() - 8, self._theme.px(_BELOW))
        painter.setPen(self._theme.colour("soft"))
        painter.setFont(self._theme.font(12))
        text = painter.fontMetrics().elidedText(
            self._value.below, Qt.TextElideMode.ElideRight, int(line.width())
        )
        painter.drawText(line, Qt.AlignmentFlag.AlignTop | Qt.AlignmentFlag.AlignLeft, text)

    def _paint_word(self, painter: QPainter, box: QRectF) -> None:
        theme, value = self._theme, self._value
        colour = theme.colour({"out": "out", "unsure": "act", "true": "soft"}[value.verdict])
        paint_shape(
            painter,
            QPointF(box.left() + 5, box.center().y()),
            value.verdict,
            colour,
            theme.px(_SHAPE),
        )
        painter.setPen(colour)
        painter.setFont(theme.font(13, weight=600 if value.verdict == "out" else 400))
        text_box = box.adjusted(theme.px(14), 0, 0, 0)
        painter.drawText(
            text_box, Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignLeft, value.word
        )


def paint_tube(
    painter: QPainter, tube: QRectF, theme: Theme, error: float, sigma: float, verdict: Verdict
) -> None:
    """A tube with its two lines, and the bubble where the estimate is and as wide as its doubt; in tolerances."""
    radius = tube.height() / 2
    painter.setPen(QPen(theme.colour("fluid_edge"), 1))
    painter.setBrush(theme.colour("fluid"))
    painter.drawRoundedRect(tube, radius, radius)
    unit = tube.width() / 2 / _HALF_RANGE
    half_bubble = max(2 * sigma, _LEAST_BUBBLE) * unit
    height = tube.height() * 0.68
    half_bubble = min(max(half_bubble, height / 2), tube.width() / 2 - 2)
    # a bubble further out than the tube is long rests against its end, as in a real level
    reach = tube.width() / 2 - 2 - half_bubble
    offset = min(max(error * unit, -reach), reach) if reach > 0 else 0.0
    middle = tube.center()
    edge = {"out": "out", "unsure": "act", "true": "bubble_edge"}[verdict]
    painter.setPen(QPen(theme.colour(edge), 1.8))
    painter.setBrush(theme.colour("bubble", 0.85))
    bubble = QRectF(
        middle.x() + offset - half_bubble, middle.y() - height / 2, 2 * half_bubble, height
    )
    painter.drawRoundedRect(bubble, height / 2, height / 2)
    painter.setPen(QPen(theme.colour("bubble_edge" if theme.name == "light" else "ink"), 1.6))
    for side in (-1, 1):
        x = middle.x() + side * unit
        painter.drawLine(QPointF(x, tube.top() - 2), QPointF(x, tube.bottom() + 2))


@dataclass(frozen=True, slots=True)
class VialGroup:
    """The vials of one part.

    Attributes
    ----------
    words : str
        What they say together: ``to wing out 1.0°``, ``2 not known yet``, ``true``.
    """

    body: str
    name: str
    verdict: Verdict | None
    words: str
    vials: tuple[VialValue, ...]


class GroupLine(QWidget):
    """A part's name and what its vials say together, in a line; it folds them up and down.

    Signals
    -------
    toggled : str
        The part's id, by click, Enter or space.
    """

    toggled = pyqtSignal(str)

    def __init__(self, group: VialGroup, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._group, self._theme, self._open = group, theme, False
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def show_group(self, group: VialGroup, *, unfolded: bool) -> None:
        """Show another state of the part."""
        self._group, self._open = group, unfolded
        fold = "unfolded" if unfolded else "folded"
        self.setAccessibleName(f"{group.name}: {group.words}, {fold}")
        self.setToolTip(say.FOLD_UP if unfolded else say.unfold(group.name))
        self.update()

    def set_theme(self, theme: Theme) -> None:
        """Paint in another theme."""
        self._theme = theme
        self.updateGeometry()
        self.update()

    def sizeHint(self) -> QSize:
        """A row a little taller than a vial's."""
        return QSize(self._theme.px(300), self._theme.px(_ROW + 4))

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Fold or unfold."""
        self.toggled.emit(self._group.body)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Fold or unfold by keyboard."""
        keys = (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space)
        if event is not None and event.key() in keys:
            self.toggled.emit(self._group.body)
        else:
            super().keyPressEvent(event)

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        """Show the focus."""
        super().focusInEvent(event)
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Paint the fold, name, words and the verdict's shape."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        theme, group, box = self._theme, self._group, QRectF(self.rect())
        painter.setPen(QPen(theme.colour("hair"), 1))
        painter.drawLine(box.topLeft(), box.topRight())
        if self.hasFocus():
            painter.setPen(QPen(theme.colour("act"), 1.5))
            painter.drawRect(box.adjusted(1, 1, -1, -1))
        verdict = group.verdict or ""
        colour = theme.colour({"out": "out", "unsure": "act"}.get(verdict, "ink"))
        middle, size = box.center().y(), theme.px(_SHAPE)
        paint_shape(painter, QPointF(size, middle), group.verdict, colour, size)
        painter.setPen(colour)
        painter.setFont(theme.font(14, weight=600))
        left = 2.0 * size
        painter.drawText(
            QRectF(left, 0, box.width(), box.height()), Qt.AlignmentFlag.AlignVCenter, group.name
        )
        left += painter.fontMetrics().horizontalAdvance(group.name) + theme.px(10)
        painter.setFont(theme.font(13))
        painter.setPen(theme.colour("out" if verdict == "out" else "soft"))
        fold = theme.px(18)
        room = int(box.width() - left - fold)
        text = painter.fontMetrics().elidedText(group.words, Qt.TextElideMode.ElideRight, room)
        painter.drawText(QRectF(left, 0, room, box.height()), Qt.AlignmentFlag.AlignVCenter, text)
        self._paint_fold(painter, QPointF(box.right() - fold / 2, middle), theme.px(4))

    def _paint_fold(self, painter: QPainter, at: QPointF, size: float) -> None:
        painter.setPen(QPen(self._theme.colour("soft"), 1.6))
        tip = (
            QPointF(at.x(), at.y() + size / 2) if self._open else QPointF(at.x() + size / 2, at.y())
        )
        ends = (
            (QPointF(-size, -size / 2), QPointF(size, -size / 2))
            if self._open
            else (QPointF(-size / 2, -size), QPointF(-size / 2, size))
        )
        for end in ends:
            painter.drawLine(at + end, tip)


def paint_shape(
    painter: QPainter, at: QPointF, verdict: Verdict | None, colour: object, size: float
) -> None:
    """The verdict's shape: a dot is true, a triangle is out, a ring is not known yet."""
    painter.save()
    half = size / 2
    painter.setPen(QPen(colour, 1.6))  # type: ignore[call-overload]  # a QColor
    painter.setBrush(colour)  # type: ignore[call-overload]
    if verdict == "out":
        points = [
            QPointF(at.x(), at.y() - half),
            QPointF(at.x() + half, at.y() + half),
            QPointF(at.x() - half, at.y() + half),
        ]
        painter.drawPolygon(QPolygonF(points))
    else:
        if verdict != "true":
            painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawEllipse(at, half * 0.9, half * 0.9)
    painter.restore()
