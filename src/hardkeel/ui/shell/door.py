"""A door of the first page: a picture of what goes on behind it, its name, and a line."""

from collections.abc import Callable
from typing import Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.ui.shell.leading import Leading
from hardkeel.ui.theme import Theme

Painted = Callable[[QPainter, QRectF, Theme], None]
_WORDS: Final = 62  # of a door's height
_HEAD: Final = 34
_SIDE: Final = 14


class Door(Leading):
    """Painted; its name is its text.

    Parameters
    ----------
    picture : callable
        Paints what lies behind it into a box.
    """

    def __init__(
        self,
        title: str,
        sentence: str,
        picture: Painted,
        theme: Theme,
        parent: QWidget | None = None,
    ) -> None:
        super().__init__(theme, parent)
        self._sentence, self._picture = sentence, picture
        self.setText(title)
        self.setAccessibleName(title)
        self.setAccessibleDescription(sentence)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def sizeHint(self) -> QSize:
        """A picture over two lines."""
        return QSize(self.theme.px(300), self.theme.px(240))

    def minimumSizeHint(self) -> QSize:
        """Still a picture."""
        return QSize(self.theme.px(170), self.theme.px(_WORDS) + 60)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Paint the picture, the words under it, and a frame."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        theme = self.theme
        box = QRectF(self.rect()).adjusted(1, 1, -1, -1)
        room = int(box.width() - 2 * _SIDE)
        painter.setFont(theme.font(14))
        told = painter.fontMetrics().boundingRect(
            0, 0, room, 1000, int(Qt.TextFlag.TextWordWrap), self._sentence
        )
        head = float(theme.px(_HEAD))
        words = head + told.height() + 10
        painter.fillRect(box, theme.colour("paper"))
        above = box.adjusted(0, 0, 0, -words)
        painter.save()
        painter.setClipRect(above)
        self._picture(painter, above, theme)
        painter.restore()
        painter.setPen(QPen(theme.colour("hair"), 1))
        painter.drawLine(above.bottomLeft(), above.bottomRight())
        painter.setPen(theme.colour("ink"))
        painter.setFont(theme.font(18, weight=600))
        title = QRectF(box.left() + _SIDE, above.bottom() + 2, room - 18, head)
        painter.drawText(title, Qt.AlignmentFlag.AlignVCenter, self.text())
        painter.setFont(theme.font(14))
        painter.setPen(theme.colour("soft"))
        line = QRectF(title.left(), title.bottom(), room, told.height() + 4)
        painter.drawText(line, int(Qt.TextFlag.TextWordWrap), self._sentence)
        self._paint_arrow(painter, QPointF(box.right() - _SIDE - 4, title.center().y()))
        self.paint_frame(painter, box)  # fmt: skip

    def _paint_arrow(self, painter: QPainter, at: QPointF) -> None:
        painter.setPen(QPen(self.theme.colour("act"), 2.4))
        for side in (-5.0, 5.0):
            painter.drawLine(QPointF(at.x() - 6, at.y() + side), at)
