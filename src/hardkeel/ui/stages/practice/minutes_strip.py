"""Minutes as lengths: each reading a block, filled by what it was worth; the best use of them beneath."""

from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import QEvent, QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QHelpEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy, QToolTip, QWidget

from hardkeel.messages import practising as say
from hardkeel.ui.theme import Theme

_ROW: Final = 24
_GAP: Final = 3
_LABELS: Final = 16
_AXIS: Final = 17
_LEFT: Final = 54
_TICKS: Final = (1, 2, 5, 10, 20, 30)
_MOST_TICKS: Final = 8


@dataclass(frozen=True, slots=True)
class Block:
    """One reading.

    Attributes
    ----------
    tool : str
        Blocks of one tool in a row share its name.
    fill : float
        0 to 1.
    """

    key: str
    tool: str
    minutes: float
    fill: float
    tip: str
    doubted: bool = False


class MinutesStrip(QWidget):
    """Two rows over one axis of minutes.

    Signals
    -------
    step_picked : int
        A block of the best use was clicked.
    """

    step_picked = pyqtSignal(int)

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self._you: tuple[Block, ...] = ()
        self._best: tuple[Block, ...] = ()
        self._step = -1
        self.setMouseTracking(True)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def set_theme(self, theme: Theme) -> None:
        """Paint in another theme."""
        self._theme = theme
        self.updateGeometry()
        self.update()

    def show_blocks(self, you: tuple[Block, ...], best: tuple[Block, ...], step: int) -> None:
        """Show others; `step` is the block of the best use that is replayed, −1 for none."""
        self._you, self._best, self._step = you, best, step
        self.setAccessibleName(f"{say.YOU}: {len(you)}; {say.BEST}: {len(best)}")
        self.update()

    def sizeHint(self) -> QSize:
        """Two rows, their tools, the axis."""
        return QSize(600, self._theme.px(2 * (_ROW + _LABELS) + _GAP + _AXIS))

    def minimumSizeHint(self) -> QSize:
        """As tall, narrower."""
        return QSize(380, self.sizeHint().height())

    def _scale(self) -> float:
        longest = max(sum(one.minutes for one in row) for row in (self._you, self._best))
        return (self.width() - self._theme.px(_LEFT) - 20) / max(longest, 1.0)

    def _tops(self) -> tuple[float, float]:
        """Where the two rows of blocks begin."""
        px = self._theme.px
        return float(px(_LABELS)), float(px(2 * _LABELS + _ROW + _GAP))

    def _rects(self, row: tuple[Block, ...], top: float) -> list[QRectF]:
        x, scale, high = float(self._theme.px(_LEFT)), self._scale(), self._theme.px(_ROW)
        found = []
        for one in row:
            found.append(QRectF(x, top, one.minutes * scale, high))
            x += one.minutes * scale
        return found

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Paint both rows and the axis."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        theme = self._theme
        for words, row, top in zip(
            (say.YOU, say.BEST), (self._you, self._best), self._tops(), strict=True
        ):
            painter.setPen(theme.colour("act" if row is self._best else "ink"))
            painter.setFont(theme.font(13, weight=600))
            box = QRectF(14, top, theme.px(_LEFT) - 14, theme.px(_ROW))
            painter.drawText(box, Qt.AlignmentFlag.AlignVCenter, words)
            self._paint_row(painter, row, top)
        self._paint_axis(painter)

    def _paint_row(self, painter: QPainter, row: tuple[Block, ...], top: float) -> None:
        theme = self._theme
        rects = self._rects(row, top)
        for number, (one, box) in enumerate(zip(row, rects, strict=True)):
            chosen = row is self._best and number == self._step
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(theme.colour("paper"))
            painter.drawRect(box)
            filled = QRectF(box)
            filled.setTop(box.bottom() - one.fill * box.height())
            painter.setBrush(theme.colour("soft" if one.doubted else "act", 0.9))
            painter.drawRect(filled)
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(theme.colour("ink"), 2.4 if chosen else 1))
            painter.drawRect(box)
        self._paint_tools(painter, row, rects)

    def _paint_tools(self, painter: QPainter, row: tuple[Block, ...], rects: list[QRectF]) -> None:
        """Each run of blocks of one tool under its name, where that has room."""
        theme = self._theme
        painter.setFont(theme.font(12))
        painter.setPen(theme.colour("soft"))
        metrics = painter.fontMetrics()
        start, last = 0, float("-inf")
        for i in range(1, len(row) + 1):
            if i < len(row) and row[i].tool == row[start].tool:
                continue
            left = rects[start].left()
            width = metrics.horizontalAdvance(row[start].tool)
            fits = left + width <= max(rects[i - 1].right() + 14, left + 1)
            if left > last + 6 and fits and left + width < self.width():
                painter.drawText(QPointF(left, rects[start].top() - 4), row[start].tool)
                last = left + width
            start = i

    def _paint_axis(self, painter: QPainter) -> None:
        theme, scale = self._theme, self._scale()
        painter.setFont(theme.font(12))
        painter.setPen(theme.colour("soft"))
        room = (self.width() - theme.px(_LEFT) - 20) / scale
        every = next((one for one in _TICKS if room / one <= _MOST_TICKS), _TICKS[-1])
        top = self._tops()[1] + theme.px(_ROW) + 3
        minute = 0
        while minute <= room:
            x = theme.px(_LEFT) + minute * scale
            painter.drawLine(QPointF(x, top), QPointF(x, top + 4))
            words = f"{minute}" if minute else "0 min"
            painter.drawText(QPointF(x + 3, top + theme.px(12)), words)
            minute += every

    def _at(self, at: QPointF) -> tuple[Block, int, bool] | None:
        for row, top in zip((self._you, self._best), self._tops(), strict=True):
            for i, (one, box) in enumerate(zip(row, self._rects(row, top), strict=True)):
                if box.contains(at):
                    return one, i, row is self._best
        return None

    def event(self, event: QEvent | None) -> bool:
        """What a block is, under the pointer."""
        if isinstance(event, QHelpEvent) and event.type() == QEvent.Type.ToolTip:
            found = self._at(QPointF(event.pos()))
            if found is not None:
                QToolTip.showText(event.globalPos(), found[0].tip, self)
                return True
        return super().event(event)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Replay from this block on."""
        found = self._at(event.position()) if event is not None else None
        if found is not None and found[2]:
            self.step_picked.emit(found[1])
