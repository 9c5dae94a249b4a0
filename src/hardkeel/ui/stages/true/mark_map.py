"""Where the mark is that is to be clicked: the airframe small, one mark ringed."""

from typing import Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.picture.truing import Picture, View
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.viewport import fit

_HIGH: Final = 112
_AROUND: Final = 10


class MarkMap(QWidget):
    """One view of the airframe with one mark ringed."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self._theme = theme
        self._picture = Picture(())
        self._view: View = "plan"
        self._mark = ""
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        self.updateGeometry()
        self.update()

    def sizeHint(self) -> QSize:
        """As wide as its card."""
        return QSize(260, self._theme.px(_HIGH))

    def show_mark(self, picture: Picture, view: View, mark: str, name: str) -> None:
        """Ring another mark."""
        self._picture, self._view, self._mark = picture, view, mark
        self.setAccessibleName(name)
        self.setVisible(bool(mark))
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Outlines as designed, and the ring."""
        del event
        bounds = self._picture.bounds(self._view)
        if bounds is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        box = QRectF(self.rect()).adjusted(_AROUND, _AROUND, -_AROUND, -_AROUND)
        port = fit(box, bounds)
        theme = self._theme
        for stroke in self._picture.of(self._view):
            if stroke.role in ("wanted", "fuselage"):
                painter.setPen(QPen(theme.colour("soft"), 1.2))
                painter.setBrush(theme.colour("wood") if stroke.closed else Qt.BrushStyle.NoBrush)
                polygon = port.polygon(stroke.points)
                if stroke.closed:
                    painter.drawPolygon(polygon)
                else:
                    painter.drawPolyline(polygon)
        for stroke in self._picture.of(self._view):
            if stroke.role == "mark" and stroke.points:
                at = port.point(stroke.points[0])
                painter.setPen(Qt.PenStyle.NoPen)
                painter.setBrush(theme.colour("ink"))
                painter.drawEllipse(at, 1.8, 1.8)
                if stroke.ref == self._mark:
                    self._ring(painter, at)
        painter.end()

    def _ring(self, painter: QPainter, at: QPointF) -> None:
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(self._theme.colour("act"), 3))
        painter.drawEllipse(at, 9, 9)
