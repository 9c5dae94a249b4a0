"""Each asked check in a row of three vials: as it was, as the learner said, as the readings said."""

from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import QEvent, QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QFontMetrics, QHelpEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy, QToolTip, QWidget

from hardkeel.messages import practising as say
from hardkeel.practice.scoring import Outcome
from hardkeel.survey.model import Verdict
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.vial import paint_tube

_ROW: Final = 25
_HEAD: Final = 20
_NAME_SHARE: Final = 0.3  # of the width, at most
_SHAPE: Final = 18
_TUBE: Final = 46  # at least; words give way to it
_BESIDE: Final = 10


@dataclass(frozen=True, slots=True)
class _Widths:
    """How the width is shared out: the name, three cells of a tube with its value, the outcome with or without words."""

    name: float
    cell: float
    value: float
    words: float


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

    def event(self, event: QEvent | None) -> bool:
        """A row in words, under the pointer."""
        if isinstance(event, QHelpEvent) and event.type() == QEvent.Type.ToolTip:
            number = (event.pos().y() - self._theme.px(_HEAD)) // max(1, self._theme.px(_ROW))
            if 0 <= number < len(self._rows):
                row = self._rows[number]
                QToolTip.showText(event.globalPos(), f"{row.name}: {row.words}", self)
                return True
        return super().event(event)

    def _widths(self) -> _Widths:
        """Names and figures have the room that they need, then the words; tubes have what is left."""
        theme, wide = self._theme, self.width() - 24.0
        bold, plain = (QFontMetrics(theme.font(size, weight=600)) for size in (14, 13))
        names = [bold.horizontalAdvance(one.name) for one in self._rows]
        values = [
            plain.horizontalAdvance(bubble.text)
            for one in self._rows
            for bubble in (one.was, one.said, one.read)
        ]
        said = [plain.horizontalAdvance(one.words) for one in self._rows]
        name = min(max(names, default=0) + _BESIDE, _NAME_SHARE * wide)
        value = max(values, default=0) + 6.0
        words = theme.px(_SHAPE) + max(said, default=0) + 4.0
        if wide - name - words < 3 * (value + theme.px(_TUBE) + _BESIDE):
            words = float(theme.px(_SHAPE))
        return _Widths(name, (wide - name - words) / 3, value, words)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Paint headings and rows."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        theme, widths = self._theme, self._widths()
        painter.setFont(theme.font(12, weight=500))
        for i, head in enumerate(say.ROWS):
            painter.setPen(theme.colour("act" if i == 1 else "soft"))
            left = 14.0 + widths.name + i * widths.cell
            box = QRectF(left, 0, widths.cell - _BESIDE, theme.px(_HEAD))
            painter.drawText(box, Qt.AlignmentFlag.AlignVCenter, head)
        for number, row in enumerate(self._rows):
            y = float(theme.px(_HEAD + _ROW * number))
            box = QRectF(14.0, y, self.width() - 24.0, theme.px(_ROW))
            self._paint_row(painter, row, box, widths)

    def _paint_row(self, painter: QPainter, row: VerdictRow, box: QRectF, widths: _Widths) -> None:
        theme, middle = self._theme, Qt.AlignmentFlag.AlignVCenter
        painter.setPen(QPen(theme.colour("hair"), 1))
        painter.drawLine(box.topLeft(), box.topRight())
        painter.setPen(theme.colour("ink"))
        painter.setFont(theme.font(14, weight=600))
        name = QRectF(box.left(), box.top(), widths.name - 4, box.height())
        metrics = painter.fontMetrics()
        text = metrics.elidedText(row.name, Qt.TextElideMode.ElideRight, int(name.width()))
        painter.drawText(name, middle, text)
        for i, bubble in enumerate((row.was, row.said, row.read)):
            left = box.left() + widths.name + i * widths.cell
            cell = QRectF(left, box.top(), widths.cell - _BESIDE, box.height())
            self._paint_bubble(painter, bubble, cell, widths.value)
        at = QRectF(box.right() - widths.words, box.top(), widths.words, box.height())
        paint_outcome(painter, QPointF(at.left() + 7, at.center().y()), row.outcome, theme)
        if widths.words > theme.px(_SHAPE):
            painter.setPen(theme.colour("ink"))
            painter.setFont(theme.font(13, weight=600))
            painter.drawText(at.adjusted(theme.px(_SHAPE), 0, 0, 0), middle, row.words)

    def _paint_bubble(self, painter: QPainter, bubble: Bubble, cell: QRectF, value: float) -> None:
        theme = self._theme
        if bubble.error is not None:
            tube = QRectF(cell.left(), 0, cell.width() - value, theme.px(14))
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
