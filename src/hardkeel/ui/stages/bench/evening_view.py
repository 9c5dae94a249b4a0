"""An evening as a line of time: what the hands do, in order, each as long as it takes."""

from dataclasses import dataclass
from datetime import datetime
from typing import Final, Literal

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QFontMetrics,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QResizeEvent,
)
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.ui.theme import Theme

_CLOCK_PX: Final = 62
_BAR_PX: Final = 10
_LEAST_PX: Final = 46  # a title of one line, and what stands under it
_LINE_PX: Final = 24
_RIM_PX: Final = 18
_WRAPPED: Final = int(Qt.AlignmentFlag.AlignLeft) | int(Qt.TextFlag.TextWordWrap)

RowState = Literal["", "doing", "lies"]


@dataclass(frozen=True, slots=True)
class EveningRow:
    """One step of the evening.

    Attributes
    ----------
    length : str
        How long the hands are at it, in words; of one that is being done since when.
    state : {"", "doing", "lies"}
        ``lies``: it is done, and may not be handled yet.
    """

    id: str
    title: str
    under: str
    length: str
    start: datetime
    end: datetime
    glue: bool = False
    state: RowState = ""


class EveningView(QWidget):
    """The evening.

    Signals
    -------
    picked : str
        A step was clicked, or reached by arrow keys.
    """

    picked = pyqtSignal(str)

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self._theme = theme
        self._rows: tuple[EveningRow, ...] = ()
        self._span: tuple[datetime, datetime] | None = None
        self._chosen = ""
        self.setObjectName("paper")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.MinimumExpanding)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        self.updateGeometry()
        self.update()

    def show_evening(
        self, rows: tuple[EveningRow, ...], start: datetime, end: datetime, chosen: str
    ) -> None:
        """Show these steps between start and end."""
        self._rows, self._span, self._chosen = rows, (start, end), chosen
        self.setAccessibleName(
            ". ".join(f"{row.start:%H:%M} {row.title}, {row.length}" for row in rows)
        )
        self.updateGeometry()
        self.update()

    def sizeHint(self) -> QSize:
        """Room for every step's title, in as many lines as it wants, and a line under it."""
        wanted = sum(self._least(row) for row in self._rows)
        return QSize(320, max(3 * self._theme.px(_LEAST_PX), wanted) + self._theme.px(16))

    def minimumSizeHint(self) -> QSize:
        """The same: it scrolls with the page."""
        return self.sizeHint()

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Titles break anew."""
        super().resizeEvent(event)
        self.updateGeometry()

    def _words_at(self) -> float:
        """Where the words begin, pixels."""
        return self._theme.px(_CLOCK_PX) + 8.0 + self._theme.px(_BAR_PX) + self._theme.px(12)

    def _length_room(self, row: EveningRow) -> int:
        """What is kept for how long it takes, pixels."""
        return self._theme.px(120 if row.state == "doing" else 70)

    def _title_height(self, row: EveningRow) -> int:
        """How high a title stands, pixels."""
        wide = max(1, round(self.width() - self._words_at() - self._length_room(row) - _RIM_PX))
        metrics = QFontMetrics(self._theme.font(17, weight=600))
        tall = metrics.boundingRect(0, 0, wide, 10_000, _WRAPPED, row.title).height()
        return max(tall, self._theme.px(_LINE_PX))

    def _least(self, row: EveningRow) -> int:
        """How high a step lies at least, pixels."""
        return self._title_height(row) + self._theme.px(_LEAST_PX - _LINE_PX)

    def boxes(self) -> dict[str, QRectF]:
        """Where each step lies: as high as it is long, but never less than its two lines."""
        if self._span is None or not self._rows:
            return {}
        start, end = self._span
        least = [self._least(row) for row in self._rows]
        room = self.height() - 12.0
        whole = max(1.0, (max(end, self._rows[-1].end) - start).total_seconds())
        spans = [(row.end - row.start).total_seconds() for row in self._rows]
        gaps = [
            (row.start - before).total_seconds()
            for row, before in zip(
                self._rows, (start, *(row.end for row in self._rows)), strict=False
            )
        ]
        spare = max(0.0, room - sum(least))
        found, y = {}, 6.0
        for row, low, span, gap in zip(self._rows, least, spans, gaps, strict=True):
            y += spare * max(0.0, gap) / whole
            tall = low + spare * span / whole
            found[row.id] = QRectF(self._theme.px(_CLOCK_PX), y, self.width(), tall)
            y += tall
        return found

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Clock on the left, bars on a line, words beside them."""
        del event
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        theme = self._theme
        boxes = self.boxes()
        if not boxes:
            return
        line = theme.px(_CLOCK_PX) + 8.0
        last = list(boxes.values())[-1]
        painter.setPen(QPen(theme.colour("ink"), 1.6))
        painter.drawLine(QPointF(line, 6), QPointF(line, last.bottom()))
        for row in self._rows:
            self._paint_row(painter, row, boxes[row.id], line)
        painter.end()

    def _paint_row(self, painter: QPainter, row: EveningRow, box: QRectF, line: float) -> None:
        theme = self._theme
        chosen = row.id == self._chosen
        words, title = self._words_at(), self._title_height(row)
        if chosen:
            painter.fillRect(
                QRectF(line + 1, box.top(), self.width() - line - 12, box.height() - 4),
                theme.colour("act_wash"),
            )
        painter.setPen(QPen(theme.colour("ink"), 1.2))
        painter.drawLine(QPointF(line - 6, box.top()), QPointF(line, box.top()))
        painter.setFont(theme.font(14))
        painter.setPen(theme.colour("soft"))
        painter.drawText(
            QRectF(0, box.top() - 2, theme.px(_CLOCK_PX) - 2, theme.px(20)),
            Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignTop,
            f"{row.start:%H:%M}",
        )
        bar = QRectF(line + 2, box.top() + 2, theme.px(_BAR_PX), box.height() - 8)
        painter.setPen(QPen(theme.colour("ink"), 1.2))
        fill = {"doing": "act", "lies": "fluid"}.get(row.state, "paper")
        painter.setBrush(theme.colour(fill))
        painter.drawRect(bar)
        if row.glue and row.state != "lies":
            painter.setBrush(theme.colour("fluid"))
            painter.drawRect(QRectF(bar.left(), bar.bottom() - 8, bar.width(), 8))
        length = self._length_room(row)
        painter.setFont(theme.font(17, weight=600))
        painter.setPen(theme.colour("soft" if row.state == "lies" else "ink"))
        painter.drawText(
            QRectF(words, box.top() + 1, self.width() - words - length - _RIM_PX, title),
            _WRAPPED,
            row.title,
        )
        painter.setFont(theme.font(15, weight=600))
        if row.state == "doing":
            painter.setPen(theme.colour("act"))
        painter.drawText(
            QRectF(self.width() - length - _RIM_PX, box.top() + 1, length, theme.px(_LINE_PX)),
            Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter,
            row.length,
        )
        painter.setFont(theme.font(13))
        painter.setPen(theme.colour("soft"))
        painter.drawText(
            QRectF(words, box.top() + title, self.width() - words - _RIM_PX, theme.px(18)),
            Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter,
            # the card beside says all of it
            painter.fontMetrics().elidedText(
                row.under, Qt.TextElideMode.ElideRight, round(self.width() - words - _RIM_PX)
            ),
        )

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Take a step in hand."""
        if event is None:
            return
        boxes = self.boxes()
        for row in self._rows:
            if row.state != "lies" and (
                boxes[row.id].top() <= event.position().y() < boxes[row.id].bottom()
            ):
                self.picked.emit(row.id)
                return

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Up and down go through the steps."""
        if event is None:
            return
        way = {Qt.Key.Key_Up: -1, Qt.Key.Key_Down: 1}.get(Qt.Key(event.key()))
        ids = [row.id for row in self._rows if row.state != "lies"]
        if way is None or not ids:
            super().keyPressEvent(event)
            return
        at = ids.index(self._chosen) + way if self._chosen in ids else 0
        self.picked.emit(ids[max(0, min(len(ids) - 1, at))])
