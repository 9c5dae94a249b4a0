"""How likely each of several causes is, as bars with words."""

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.ui.theme import Theme

_LINE_PX = 23


class Chances(QWidget):
    """One bar a cause; the leading one in the colour of what to do."""

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self._rows: tuple[tuple[str, float, bool], ...] = ()
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def show_chances(self, rows: tuple[tuple[str, float, bool], ...], theme: Theme) -> None:
        """Show name, probability and whether it leads."""
        self._rows, self._theme = rows, theme
        self.updateGeometry()
        self.update()

    def sizeHint(self) -> QSize:
        """A line for each."""
        return QSize(300, self._theme.px(_LINE_PX) * max(len(self._rows), 1) + 4)

    def minimumSizeHint(self) -> QSize:
        """The same, narrower."""
        return QSize(160, self.sizeHint().height())

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Paint the bars."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        theme, line = self._theme, self._theme.px(_LINE_PX)
        figure = theme.px(46)
        words = min(self.width() * 0.55, theme.px(215))
        for i, (name, chance, leads) in enumerate(self._rows):
            y = i * line
            painter.setFont(theme.font(14, weight=600 if leads else 400))
            painter.setPen(theme.colour("ink" if leads else "soft"))
            box = QRectF(0, y, words, line)
            told = painter.fontMetrics().elidedText(name, Qt.TextElideMode.ElideRight, int(words))
            painter.drawText(box, Qt.AlignmentFlag.AlignVCenter, told)
            room = self.width() - words - figure
            bar = QRectF(words, y + line * 0.3, room, line * 0.4)
            painter.setPen(QPen(theme.colour("hair"), 1))
            painter.setBrush(theme.colour("field"))
            painter.drawRect(bar)
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(theme.colour("act" if leads else "soft"))
            painter.drawRect(QRectF(bar.left(), bar.top(), room * chance, bar.height()))
            painter.setPen(theme.colour("ink" if leads else "soft"))
            painter.drawText(
                QRectF(self.width() - figure, y, figure, line),
                Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter,
                f"{chance:.0%}" if chance >= 0.01 else "0%",  # noqa: PLR2004  a hundredth
            )
