"""Each asked check in a row of three vials: as it was, as the learner said, as the readings said."""

from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.messages import practising as say
from hardkeel.practice.scoring import Outcome
from hardkeel.survey.model import Verdict
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.vial import paint_tube

_ROW: Final = 25
_HEAD: Final = 20
_NAME_SHARE, _WORDS_SHARE = 0.2, 0.18


@dataclass(frozen=True, slots=True)
class Bubble:
    """One vial; `error` and `sigma` in tolerances, ``None`` where there is nothing to draw."""

    error: float | None
    sigma: float
    verdict: Verdict
    text: str


@dataclass(frozen=True, slots=True)
class VerdictRow:
    """One check."""

    name: str
    was: Bubble
    said: Bubble
    read: Bubble
    outcome: Outcome
    words: str


class VerdictRows(QWidget):
    """The rows under their headings."""

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self._rows: tuple[VerdictRow, ...] = ()
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    @property
    def rows(self) -> tuple[VerdictRow, ...]:
        """What is shown."""
        return self._rows

    def set_theme(self, theme: Theme) -> None:
        """Paint in another theme."""
        self._theme = theme
        self.updateGeometry()
        self.update()

    def show_rows(self, rows: tuple[VerdictRow, ...]) -> None:
        """Show others."""
        self._rows = rows
        told = [
            f"{one.name}: {say.ROWS[0]} {one.was.text}, {say.ROWS[1]} {one.said.text}, {say.ROWS[2]} {one.read.text}, {one.words}"
            for one in rows
        ]
        self.setAccessibleName(". ".join(told))
        self.updateGeometry()
        self.update()

    def sizeHint(self) -> QSize:
        """A row a check."""
        return QSize(600, self._theme.px(_HEAD + _ROW * len(self._rows) + 6))

    def minimumSizeHint(self) -> QSize:
        """As tall, narrower."""
        return QSize(380, self.sizeHint().height())

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Paint headings and rows."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        theme = self._theme
        left, wide = 14.0, self.width() - 24.0
        name, words = wide * _NAME_SHARE, wide * _WORDS_SHARE
        third = (wide - name - words) / 3
        painter.setFont(theme.font(12, weight=500))
        for i, head in enumerate(say.ROWS):
            painter.setPen(theme.colour("act" if i == 1 else "soft"))
            box = QRectF(left + name + i * third, 0, third - 8, theme.px(_HEAD))
            painter.drawText(box, Qt.AlignmentFlag.AlignVCenter, head)
        for number, row in enumerate(self._rows):
            y = float(theme.px(_HEAD + _ROW * number))
            self._paint_row(painter, row, QRectF(left, y, wide, theme.px(_ROW)))

    def _paint_row(self, painter: QPainter, row: VerdictRow, box: QRectF) -> None:
        theme = self._theme
        name, words = box.width() * _NAME_SHARE, box.width() * _WORDS_SHARE
        third = (box.width() - name - words) / 3
        painter.setPen(QPen(theme.colour("hair"), 1))
        painter.drawLine(box.topLeft(), box.topRight())
        middle = Qt.AlignmentFlag.AlignVCenter
        painter.setPen(theme.colour("ink"))
        painter.setFont(theme.font(14, weight=600))
        text = painter.fontMetrics().elidedText(
            row.name, Qt.TextElideMode.ElideRight, int(name - 6)
        )
        painter.drawText(QRectF(box.left(), box.top(), name - 6, box.height()), middle, text)
        for i, bubble in enumerate((row.was, row.said, row.read)):
            cell = QRectF(box.left() + name + i * third, box.top(), third - 10, box.height())
            self._paint_bubble(painter, bubble, cell)
        at = QRectF(box.right() - words, box.top(), words, box.height())
        paint_outcome(painter, QPointF(at.left() + 7, at.center().y()), row.outcome, theme)
        painter.setPen(theme.colour("ink"))
        painter.setFont(theme.font(13, weight=600))
        said = at.adjusted(theme.px(18), 0, 0, 0)
        text = painter.fontMetrics().elidedText(
            row.words, Qt.TextElideMode.ElideRight, int(said.width())
        )
        painter.drawText(said, middle, text)

    def _paint_bubble(self, painter: QPainter, bubble: Bubble, cell: QRectF) -> None:
        theme = self._theme
        value = min(float(theme.px(60)), cell.width() * 0.45)
        if bubble.error is not None:
            tube = QRectF(cell.left(), 0, cell.width() - value - 4, theme.px(14))
            tube.moveTop(cell.center().y() - tube.height() / 2)
            paint_tube(painter, tube, theme, bubble.error, bubble.sigma, bubble.verdict)
        colour = {"out": "out", "unsure": "act", "true": "ink"}[bubble.verdict]
        painter.setPen(theme.colour(colour))
        painter.setFont(theme.font(13, weight=600))
        box = QRectF(cell.right() - value, cell.top(), value, cell.height())
        align = Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignRight
        painter.drawText(box, align, bubble.text)


def paint_outcome(painter: QPainter, at: QPointF, outcome: Outcome, theme: Theme) -> None:
    """A filled dot is right, half of it by half, a ring wrong or not said; red is for out of true alone."""
    radius = theme.px(9) / 2
    box = QRectF(at.x() - radius, at.y() - radius, 2 * radius, 2 * radius)
    painter.setPen(QPen(theme.colour("ink"), 1.6))
    painter.setBrush(theme.colour("ink" if outcome in ("found", "right") else "paper"))
    painter.drawEllipse(box)
    if outcome == "half":
        painter.setBrush(theme.colour("ink"))
        painter.drawPie(box, 90 * 16, 180 * 16)
