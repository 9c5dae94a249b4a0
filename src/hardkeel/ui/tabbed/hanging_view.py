"""The order as a drawing: each step a slip of paper, tied to what it hangs on; one is picked as in the list."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QFontMetrics,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPainterPath,
    QPaintEvent,
    QPen,
)
from PyQt6.QtWidgets import QWidget

from hardkeel.messages import order as say
from hardkeel.schedule.hanging import Hanging
from hardkeel.ui.theme import Theme

_SLIP_PX: Final = 216  # no wider, however few hang beside each other
_LEAST_PX: Final = 118
_GAP_PX: Final = 16
_DROP_PX: Final = 24  # between two rows
_PAD_PX: Final = 7
_WAYS: Final = {
    Qt.Key.Key_Left: (-1, 0),
    Qt.Key.Key_Right: (1, 0),
    Qt.Key.Key_Up: (0, -1),
    Qt.Key.Key_Down: (0, 1),
}
_WORDS: Final = int(Qt.TextFlag.TextWordWrap) | int(Qt.AlignmentFlag.AlignCenter)


@dataclass(frozen=True, slots=True)
class Slip:
    """One step as it hangs.

    Attributes
    ----------
    state : str
        ``now``, ``waits`` or ``done``.
    """

    key: str
    words: str
    state: str


class HangingView(QWidget):
    """Slips in rows with their ties; those of the picked one in ink, all others pale.

    Signals
    -------
    picked : str
        A step, by click or by the arrow keys.
    started : str
        Enter, or a double click, on a step: as in the list.
    """

    picked = pyqtSignal(str)
    started = pyqtSignal(str)

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self._hanging = Hanging((), ())
        self._slips: dict[str, Slip] = {}
        self._chosen = ""
        self._boxes: dict[str, QRectF] = {}
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(say.AS_IT_HANGS)

    @property
    def boxes(self) -> dict[str, QRectF]:
        """Where each step hangs, pixels."""
        return self._boxes

    def set_theme(self, theme: Theme) -> None:
        """Paint in another theme."""
        self._theme = theme
        self._lay()

    def show_hanging(self, hanging: Hanging, slips: Sequence[Slip], chosen: str) -> None:
        """Show these."""
        self._hanging, self._slips = hanging, {one.key: one for one in slips}
        self._lay()
        self.choose(chosen)

    def choose(self, key: str) -> None:
        """Take a step in hand that was picked elsewhere."""
        self._chosen = key
        slip = self._slips.get(key)
        self.setAccessibleDescription(slip.words if slip is not None else "")
        self.update()

    def sizeHint(self) -> QSize:
        """All of it."""
        lowest = max((box.bottom() for box in self._boxes.values()), default=0.0)
        return QSize(self._theme.across(_SLIP_PX), round(lowest) + self._theme.px(_DROP_PX))

    def minimumSizeHint(self) -> QSize:
        """As narrow as one slip can be, and all of their height: a row breaks where it has no room."""
        wide = self._theme.px(_LEAST_PX) + 2 * self._theme.px(_GAP_PX)
        return QSize(wide, self.sizeHint().height())

    def resizeEvent(self, event: object) -> None:
        """Hang them anew."""
        self._lay()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Pick what lies there."""
        if event is not None:
            at = event.position()
            found = next((key for key, box in self._boxes.items() if box.contains(at)), "")
            if found:
                self._pick(found)

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        """Tick what lies there."""
        if (
            event is not None
            and self._chosen
            and self._boxes[self._chosen].contains(event.position())
        ):
            self.started.emit(self._chosen)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Go to the next one beside, above or below; Enter ticks."""
        key = Qt.Key(event.key()) if event is not None else None
        if key in _WAYS:
            self._go(*_WAYS[key])
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self._chosen:
            self.started.emit(self._chosen)
        else:
            super().keyPressEvent(event)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Ties first, slips over them."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        near = [tie for tie in self._hanging.ties if self._chosen in tie]
        painter.setPen(QPen(self._theme.colour("hair"), 1.2))
        for tie in self._hanging.ties:
            if tie not in near:
                painter.drawPath(self._tie(*tie))
        painter.setPen(QPen(self._theme.colour("act"), 2.0))
        for tie in near:
            painter.drawPath(self._tie(*tie))
        beside = {one for tie in near for one in tie}
        for key, box in self._boxes.items():
            self._paint_slip(painter, box, self._slips[key], beside=key in beside)

    def _paint_slip(self, painter: QPainter, box: QRectF, slip: Slip, *, beside: bool) -> None:
        theme, chosen = self._theme, slip.key == self._chosen
        # the accent is for what hangs together: a tie may run behind a slip that has no part in it
        edge = "act" if chosen or beside else "ink" if slip.state == "now" else "hair"
        painter.setPen(QPen(theme.colour(edge), 2.4 if chosen else 1.2, _LINE[slip.state]))
        painter.setBrush(theme.colour({"now": "act_wash", "done": "desk"}.get(slip.state, "field")))
        painter.drawRoundedRect(box, 2, 2)
        painter.setFont(self._theme.font(13, weight=600 if slip.state == "now" else 400))
        painter.setPen(theme.colour("soft" if slip.state == "done" else "ink"))
        pad = theme.px(_PAD_PX)
        painter.drawText(box.adjusted(pad, pad / 2, -pad, -pad / 2), _WORDS, slip.words)

    def _tie(self, first: str, later: str) -> QPainterPath:
        """A cord from under one slip to the top of another."""
        above, below = self._boxes[first], self._boxes[later]
        start = QPointF(above.center().x(), above.bottom())
        end = QPointF(below.center().x(), below.top())
        pull = QPointF(0.0, max((end.y() - start.y()) / 2, 1.0))
        path = QPainterPath(start)
        path.cubicTo(start + pull, end - pull, end)
        return path

    def _lay(self) -> None:
        """Give every slip its place."""
        theme, pad = self._theme, self._theme.px(_PAD_PX)
        metrics = QFontMetrics(theme.font(13, weight=600))
        gap, drop = theme.px(_GAP_PX), theme.px(_DROP_PX)
        whole = max(self.width(), self.minimumSizeHint().width()) - gap
        most = max(1, int(whole / (theme.px(_LEAST_PX) + gap)))
        self._boxes, top = {}, float(drop) / 2
        for row in (one for level in self._hanging.rows for one in _batched(level, most)):
            room = whole / len(row)
            wide = min(room - gap, theme.across(_SLIP_PX))
            inside = QRectF(0, 0, wide - 2 * pad, 10_000).toRect()
            tall = max(
                metrics.boundingRect(inside, _WORDS, self._slips[key].words).height() for key in row
            )
            for number, key in enumerate(row):
                middle = gap / 2 + room * (number + 0.5)
                self._boxes[key] = QRectF(middle - wide / 2, top, wide, tall + 2 * pad)
            top += tall + 2 * pad + drop
        self.setMinimumHeight(self.sizeHint().height())
        self.updateGeometry()
        self.update()

    def _go(self, aside: int, down: int) -> None:
        rows = self._hanging.rows
        at = next(
            ((i, row.index(self._chosen)) for i, row in enumerate(rows) if self._chosen in row),
            None,
        )
        if at is None:
            return
        number, place = at
        if aside and 0 <= place + aside < len(rows[number]):
            self._pick(rows[number][place + aside])
        elif down and 0 <= number + down < len(rows):
            here = self._boxes[self._chosen].center().x()
            other = rows[number + down]
            self._pick(min(other, key=lambda one: abs(self._boxes[one].center().x() - here)))

    def _pick(self, key: str) -> None:
        self.choose(key)
        self.picked.emit(key)


def _batched(level: Sequence[str], most: int) -> Iterator[Sequence[str]]:
    """A level in rows of no more than so many."""
    return (level[i : i + most] for i in range(0, len(level), most))


_LINE: Final = {
    "now": Qt.PenStyle.SolidLine,
    "waits": Qt.PenStyle.SolidLine,
    "done": Qt.PenStyle.DotLine,
}
