"""A build that was lately on the bench: its side view, how it stands, and what is next."""

from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.picture.truing import Stroke
from hardkeel.survey.model import Verdict
from hardkeel.ui.shell.leading import Leading
from hardkeel.ui.shell.side_view import paint_side
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.vial import paint_shape

_SIDE: Final = 14
_LINE: Final = 24
_HIGH: Final = 128


@dataclass(frozen=True, slots=True)
class Glance:
    """What is seen of a build without opening it.

    Attributes
    ----------
    when : str
        When it was saved, in words.
    answer, next : str
        How it stands, and what is next; empty where it has no survey.
    """

    name: str
    when: str
    answer: str = ""
    next: str = ""
    verdict: Verdict | None = None
    out: frozenset[str] = frozenset()
    strokes: tuple[Stroke, ...] = ()


class RecentCard(Leading):
    """Opens it by a click, Enter or Space."""

    def __init__(self, glance: Glance, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(theme, parent)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Preferred)
        self.glance = glance
        self.show_glance(glance)

    def show_glance(self, glance: Glance) -> None:
        """Show what was found of it."""
        self.glance = glance
        self.setText(glance.name)
        told = ", ".join(one for one in (glance.name, glance.answer, glance.next) if one)
        self.setAccessibleName(told)
        self.setToolTip(told)
        self.update()

    def sizeHint(self) -> QSize:
        """Two lines, a side view, a line."""
        return QSize(self.theme.px(330), self.theme.px(_HIGH))

    def minimumSizeHint(self) -> QSize:
        """Its words alone."""
        return QSize(self.theme.px(190), self.theme.px(3 * _LINE + 14))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Paint it."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        theme, glance = self.theme, self.glance
        box = QRectF(self.rect()).adjusted(1, 1, -1, -1)
        painter.fillRect(box, theme.colour("paper"))
        line = float(theme.px(_LINE))
        inner = box.adjusted(_SIDE, 6, -_SIDE, -6)
        head = QRectF(inner.left(), inner.top(), inner.width(), line)
        flags = Qt.AlignmentFlag.AlignVCenter
        painter.setFont(theme.font(13))
        painter.setPen(theme.colour("soft"))
        painter.drawText(head, flags | Qt.AlignmentFlag.AlignRight, glance.when)
        beside = painter.fontMetrics().horizontalAdvance(glance.when) + 10
        self._say(painter, head.adjusted(0, 0, -beside, 0), glance.name, 17)
        state = head.translated(0, line)
        colour = {"out": "out", "unsure": "act"}.get(glance.verdict or "", "ink")
        if glance.answer:
            paint_shape(
                painter,
                QPointF(state.left() + 5, state.center().y()),
                glance.verdict,
                theme.colour(colour),
                theme.px(9),
            )
            painter.setPen(theme.colour(colour))
            self._say(painter, state.adjusted(16, 0, 0, 0), glance.answer, 14)
        foot = QRectF(inner.left(), inner.bottom() - line, inner.width(), line)
        painter.setPen(theme.colour("ink"))
        self._say(painter, foot, glance.next, 14)
        room = QRectF(inner.left(), state.bottom(), inner.width(), foot.top() - state.bottom())
        if room.height() > line:
            paint_side(painter, room, theme, glance.strokes, glance.out)
        self.paint_frame(painter, box)

    def _say(self, painter: QPainter, box: QRectF, text: str, size: int) -> None:
        painter.setFont(self.theme.font(size, weight=600))
        if painter.pen().color() == self.theme.colour("soft"):
            painter.setPen(self.theme.colour("ink"))
        fitting = painter.fontMetrics().elidedText(
            text, Qt.TextElideMode.ElideRight, int(box.width())
        )
        painter.drawText(box, Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignLeft, fitting)
