"""A share as a filled strip: minutes of those there are, how well something goes."""

from PyQt6.QtCore import QRectF, QSize
from PyQt6.QtGui import QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.ui.theme import Theme


class ShareBar(QWidget):
    """How much of a whole, and what would come to it."""

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self._part = self._more = self._ticks = 0.0
        self._whole = 1.0
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def show_share(
        self, part: float, whole: float = 1.0, *, more: float = 0.0, ticks: float = 0.0
    ) -> None:
        """`more` is what would come to it, paler; a tick stands each so much, 0 for none."""
        self._part, self._whole, self._more, self._ticks = part, max(whole, 1e-9), more, ticks
        self.update()

    def set_theme(self, theme: Theme) -> None:
        """Paint in another theme."""
        self._theme = theme
        self.updateGeometry()
        self.update()

    def sizeHint(self) -> QSize:
        """A strip."""
        return QSize(self._theme.px(110), self._theme.px(12))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Paint what is filled, what would come to it, ticks and frame."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        theme, box = self._theme, QRectF(self.rect()).adjusted(1, 1, -1, -1)
        scale = box.width() / self._whole
        part = min(self._part, self._whole) * scale
        both = min(self._part + self._more, self._whole) * scale
        painter.fillRect(
            QRectF(box.left(), box.top(), both, box.height()), theme.colour("act_wash")
        )
        painter.fillRect(QRectF(box.left(), box.top(), part, box.height()), theme.colour("act"))
        painter.setPen(QPen(theme.colour("hair"), 1))
        count = int(self._whole / self._ticks) if self._ticks else 0
        for i in range(1, count + 1):
            x = int(box.left() + i * self._ticks * scale)
            painter.drawLine(x, int(box.top()), x, int(box.bottom()))
        painter.setPen(QPen(theme.colour("soft"), 1))
        painter.drawRect(box)
