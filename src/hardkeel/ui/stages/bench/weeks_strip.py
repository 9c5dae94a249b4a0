"""The evenings to come as a strip: hands busy, glue at work through the night, evenings that are not needed."""

from dataclasses import dataclass
from datetime import date, datetime, timedelta
from typing import Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QDragEnterEvent,
    QDragLeaveEvent,
    QDragMoveEvent,
    QDropEvent,
    QPainter,
    QPaintEvent,
    QPen,
)
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.schedule.what_if import Otherwise
from hardkeel.ui.stages.bench.otherwise import of_mime
from hardkeel.ui.theme import Theme

_HIGH: Final = 92
_HELD_PX: Final = 16
_DAY_PX: Final = 74.0
_LANES: Final = 3


@dataclass(frozen=True, slots=True)
class StripSpan:
    """Hands, or glue: from when to when.

    Attributes
    ----------
    critical : bool
        What the finish hangs on.
    """

    start: datetime
    end: datetime
    critical: bool = False


@dataclass(frozen=True, slots=True)
class Strip:
    """What the strip shows: evenings (start, end) with a word for their day, hands, glue, and what is held how long."""

    evenings: tuple[tuple[datetime, datetime, str], ...] = ()
    hands: tuple[StripSpan, ...] = ()
    glue: tuple[StripSpan, ...] = ()
    held: tuple[tuple[str, tuple[StripSpan, ...]], ...] = ()
    told: str = ""


class WeeksStrip(QWidget):
    """The strip: one column an evening; the nights between are where the glue lies.

    Signals
    -------
    wondered : object
        An `Otherwise` hangs over it; ``None`` once it is drawn away.
    taken : object
        An `Otherwise` was let fall on it.
    """

    wondered = pyqtSignal(object)
    taken = pyqtSignal(object)

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.setAcceptDrops(True)
        self._over: Otherwise | None = None
        self._theme = theme
        self._strip = Strip()
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        self.updateGeometry()
        self.update()

    def show_strip(self, strip: Strip) -> None:
        """Show another plan."""
        self._strip = strip
        self.setAccessibleName(strip.told)
        self.updateGeometry()
        self.update()

    def sizeHint(self) -> QSize:
        """As high as a day, its hands and three lanes of glue."""
        return QSize(320, self._theme.px(_HIGH + _HELD_PX * len(self._strip.held)))

    def _place(self, moment: datetime) -> float:
        """Across: evenings are columns, their time runs across two thirds of one, the rest is the time until the next."""
        evenings = self._strip.evenings
        column = self._column()
        for i, (start, end, _) in enumerate(evenings):
            after = evenings[i + 1][0] if i + 1 < len(evenings) else None
            if moment < start:
                return i * column
            if moment <= end:
                share = (moment - start).total_seconds() / max(1.0, (end - start).total_seconds())
                return (i + share * 2 / 3) * column
            if after is None or moment < after:
                whole = (after - end).total_seconds() if after is not None else 48 * 3600.0
                share = min(1.0, (moment - end).total_seconds() / max(1.0, whole))
                return (i + 2 / 3 + share / 3) * column
        return len(evenings) * column

    def _column(self) -> float:
        count = max(1, len(self._strip.evenings))
        return min(self._theme.px(_DAY_PX) * 1.6, (self.width() - 8) / count)

    # -- what might be otherwise, dragged over it ----------------------------------------------------

    def day_at(self, x: float) -> date | None:
        """The day on which an evening more would be that is let fall there: the first free one after the column."""
        evenings = self._strip.evenings
        if not evenings:
            return None
        at = min(len(evenings) - 1, max(0, int(x / self._column())))
        taken = {start.date() for start, _, _ in evenings}
        day = evenings[at][0].date()
        while day in taken:
            day += timedelta(days=1)
        return day

    def _hangs(self, event: QDragMoveEvent | QDropEvent) -> Otherwise | None:
        return of_mime(event.mimeData(), self.day_at(event.position().x()))

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        """Only what might be otherwise is let in."""
        if event is not None and self._hangs(event) is not None:
            event.acceptProposedAction()

    def dragMoveEvent(self, event: QDragMoveEvent | None) -> None:
        """Wonder about it, there."""
        over = self._hangs(event) if event is not None else None
        if event is None or over is None:
            return
        event.acceptProposedAction()
        if over != self._over:
            self._over = over
            self.wondered.emit(over)

    def dragLeaveEvent(self, event: QDragLeaveEvent | None) -> None:
        """It was only a thought."""
        del event
        self._over = None
        self.wondered.emit(None)

    def dropEvent(self, event: QDropEvent | None) -> None:
        """Take it."""
        over = self._hangs(event) if event is not None else None
        self._over = None
        if event is not None and over is not None:
            event.acceptProposedAction()
            self.taken.emit(over)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Days, hands, glue."""
        del event
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        theme, column = self._theme, self._column()
        day, bar = theme.px(20), theme.px(20)
        painter.setFont(theme.font(13, weight=600))
        for i, (_, _, word) in enumerate(self._strip.evenings):
            box = QRectF(i * column, 0, column * 2 / 3, day)
            painter.setPen(theme.colour("ink"))
            if column > theme.px(34) or i % 2 == 0:
                painter.drawText(box.adjusted(-20, 0, 20, 0), Qt.AlignmentFlag.AlignCenter, word)
            painter.setPen(QPen(theme.colour("ink"), 1.2))
            painter.setBrush(theme.colour("paper"))
            painter.drawRect(QRectF(i * column + 1, day + 2, column * 2 / 3 - 2, bar))
        for span in self._strip.hands:
            left, right = self._place(span.start), self._place(span.end)
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(theme.colour("act" if span.critical else "ink"))
            painter.drawRect(QRectF(left + 2, day + 4, max(1.5, right - left - 2), bar - 4))
        self._paint_glue(painter, day + bar + theme.px(8))
        painter.end()

    def _paint_glue(self, painter: QPainter, top: float) -> None:
        theme = self._theme
        tall = theme.px(11)
        lanes = [-1.0] * _LANES
        for span in self._strip.glue:
            left, right = self._place(span.start), self._place(span.end)
            lane = next((i for i, taken in enumerate(lanes) if taken <= left), _LANES - 1)
            lanes[lane] = right
            box = QRectF(left, top + lane * (tall + 4), max(tall, right - left), tall)
            painter.setPen(QPen(theme.colour("fluid_edge"), 1.2))
            painter.setBrush(theme.colour("fluid"))
            painter.drawRoundedRect(box, tall / 2, tall / 2)
        self._paint_held(painter, top + _LANES * (tall + 4) + 2)
        painter.setPen(QPen(theme.colour("hair"), 1))
        painter.drawLine(QPointF(0, self.height() - 1), QPointF(self.width(), self.height() - 1))

    def _paint_held(self, painter: QPainter, top: float) -> None:
        """What is taken: a plank of wood as long as it is, its name at the end of the lane."""
        theme = self._theme
        painter.setFont(theme.font(11))
        for lane, (name, spans) in enumerate(self._strip.held):
            y = top + lane * theme.px(_HELD_PX)
            for span in spans:
                left, right = self._place(span.start), self._place(span.end)
                box = QRectF(left, y, max(2.0, right - left), theme.px(_HELD_PX) - 4)
                painter.setPen(QPen(theme.colour("soft"), 0.8))
                painter.setBrush(theme.colour("wood"))
                painter.drawRect(box)
            painter.setPen(theme.colour("soft"))
            whole = QRectF(0, y - 2, self.width() - 4, theme.px(_HELD_PX))
            painter.drawText(
                whole, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, name
            )
