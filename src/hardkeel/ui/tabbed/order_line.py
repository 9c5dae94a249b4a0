"""One line at the foot of a stage's benches: what now, what next, what not yet."""

from typing import Final

from PyQt6.QtCore import QSize, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.messages import order as say
from hardkeel.messages.steps import step_title, why_not
from hardkeel.schedule.model import OWN
from hardkeel.schedule.ordering import standing_of
from hardkeel.ui.document.document import Change, Document
from hardkeel.ui.theme import Theme

_PAD: Final = 14
_BETWEEN_PX: Final = 28
_LEAST_PX: Final = 170  # what is shorter is left to the tip


class OrderLine(QWidget):
    """The line; a click, or Enter, goes to the whole order.

    Parameters
    ----------
    stage : str
        Whose steps; the builder's own go with any.

    Signals
    -------
    wanted : (nothing)
        The whole order is wanted.
    """

    wanted = pyqtSignal()

    def __init__(self, document: Document, theme: Theme, stage: str) -> None:
        super().__init__()
        self._document, self._theme, self._stage = document, theme, stage
        self._needed = True
        self.words: tuple[str, ...] = ()
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        # not by `LazyRefresh`: a line without words is hidden, and must come back by itself
        document.build_changed.connect(self._on_build_changed)
        self.refresh()

    def sizeHint(self) -> QSize:
        """One line of text."""
        return QSize(400, self._theme.px(26))

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        self.updateGeometry()
        self.update()

    def set_needed(self, *, needed: bool) -> None:
        """Whether the line is wanted on the bench shown."""
        self._needed = needed
        self.setVisible(needed and bool(self.words))

    def _on_build_changed(self, change: Change) -> None:
        if change.touches(frozenset({"steps"})):
            self.refresh()

    def refresh(self) -> None:
        """Show the steps as they are now."""
        standing = standing_of(self._document.build.steps, self._document.clock().date()).of_stages(
            {self._stage, OWN}
        )
        if standing.now:
            now, *rest = (*standing.now, *(step for step, _ in standing.blocked))
            blocked = [one for one in standing.blocked if not rest or one[0] is not rest[0]]
            waiting = ""
            if blocked:
                step, waits = blocked[0]
                waiting = f"{step_title(step)}, {why_not(step, waits)}"
            self.words = say.line_words(now, rest[0] if rest else None, waiting)
        else:
            self.words = ()
        told = "; ".join(word for word in self.words if word)
        self.setAccessibleName(told or say.ORDER)
        self.setToolTip(told)
        self.setVisible(self._needed and bool(self.words))
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Three pieces side by side, the first in ink."""
        painter = QPainter(self)
        theme = self._theme
        painter.fillRect(self.rect(), theme.colour("paper"))
        painter.setPen(theme.colour("act" if self.hasFocus() else "hair"))
        painter.drawLine(0, 0, self.width(), 0)
        left, end = _PAD, self.width() - _PAD
        for i, text in enumerate(self.words):
            painter.setFont(theme.font(13, weight=600 if i == 0 else 400))
            painter.setPen(theme.colour("ink" if i == 0 else "soft"))
            metrics = painter.fontMetrics()
            if i and end - left < theme.px(_LEAST_PX):
                break  # three broken words tell nothing; a tip tells all
            shown = metrics.elidedText(text, Qt.TextElideMode.ElideRight, end - left)
            wide = metrics.horizontalAdvance(shown)
            painter.drawText(left, 0, wide + 1, self.height(), Qt.AlignmentFlag.AlignVCenter, shown)
            left += wide + _BETWEEN_PX

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Go to the whole order."""
        self.wanted.emit()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Enter goes to the whole order."""
        if event is not None and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.wanted.emit()
        else:
            super().keyPressEvent(event)
