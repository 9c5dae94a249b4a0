"""Hours at the bench, a bar for each day."""

from collections.abc import Sequence
from typing import Final

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.base.units import decimal
from hardkeel.logbook.entries import Session
from hardkeel.ui.theme import Theme

_LINE: Final = 18
_ROW: Final = 2 * _LINE + 14
_MOST_DAYS = 9


class HoursChart(QWidget):
    """The total, and the last days with their hours and what they were for."""

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self._sessions: tuple[Session, ...] = ()
        self._total = 0.0
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def set_theme(self, theme: Theme) -> None:
        """Paint in another theme."""
        self._theme = theme
        self.updateGeometry()
        self.update()

    def show_sessions(self, sessions: Sequence[Session], total: float) -> None:
        """Show other sessions; `total` counts those too old to be drawn."""
        self._sessions, self._total = tuple(sessions)[-_MOST_DAYS:], total
        self.setAccessibleName(f"{decimal(total, 1)} hours at the bench")
        self.updateGeometry()
        self.update()

    def sizeHint(self) -> QSize:
        """A line for each day, and the total."""
        return QSize(300, self._theme.px(40 + _ROW * max(1, len(self._sessions))))

    def minimumSizeHint(self) -> QSize:
        """As the size wanted."""
        return self.sizeHint()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Paint total and bars."""
        painter = QPainter(self)
        theme = self._theme
        painter.setPen(theme.colour("ink"))
        painter.setFont(theme.font(26, narrow=False, weight=600))
        painter.drawText(
            0, theme.px(28), f"{decimal(self._total, 1)} h" if self._total else "none yet"
        )
        row = theme.px(_ROW)
        longest = max((s.hours for s in self._sessions), default=1.0)
        for i, session in enumerate(reversed(self._sessions)):
            top = theme.px(40) + i * row
            painter.setFont(theme.font(13))
            painter.setPen(theme.colour("soft"))
            middle = Qt.AlignmentFlag.AlignVCenter
            line = QRectF(0, top, self.width(), theme.px(_LINE))
            painter.drawText(line, middle, session.day)
            words = painter.fontMetrics().elidedText(
                session.note or "", Qt.TextElideMode.ElideRight, self.width()
            )
            painter.drawText(line.translated(0, theme.px(_LINE)), middle, words)
            painter.setPen(theme.colour("ink"))
            painter.drawText(
                line, middle | Qt.AlignmentFlag.AlignRight, f"{decimal(session.hours, 2)} h"
            )
            below = top + theme.px(2 * _LINE + 2)
            bar = QRectF(0, below, self.width() * session.hours / longest, theme.px(6))
            painter.fillRect(bar, theme.colour("act"))
