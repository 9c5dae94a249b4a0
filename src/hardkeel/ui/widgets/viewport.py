"""Putting strokes on a widget: one mapping from a view's millimetres to pixels."""

from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import QLine, QPointF, QRect, QRectF
from PyQt6.QtGui import QPainter, QPainterPath, QPen, QPolygonF

from hardkeel.geometry.hull import Point2
from hardkeel.ui.theme import Theme

GRID_PX: Final = 24


@dataclass(frozen=True, slots=True)
class Viewport:
    """A view placed in a box of pixels, to scale.

    Attributes
    ----------
    scale : float
        Pixels per mm.
    """

    box: QRectF
    scale: float
    u0: float
    v0: float

    def point(self, at: Point2) -> QPointF:
        """Where a point of the view stands on the widget."""
        return QPointF(self.u0 + self.scale * at[0], self.v0 + self.scale * at[1])

    def polygon(self, points: tuple[Point2, ...]) -> QPolygonF:
        """A polyline on the widget."""
        u0, v0, scale = self.u0, self.v0, self.scale  # some thousand points a viewport
        return QPolygonF([QPointF(u0 + scale * u, v0 + scale * v) for u, v in points])

    def back(self, at: QPointF) -> Point2:
        """The point of the view under a pixel, mm."""
        return ((at.x() - self.u0) / self.scale, (at.y() - self.v0) / self.scale)

    def nearer(self, times: float, at: QPointF) -> "Viewport":
        """The same so many times as large, the point under a pixel staying there."""
        return Viewport(
            self.box,
            self.scale * times,
            at.x() + times * (self.u0 - at.x()),
            at.y() + times * (self.v0 - at.y()),
        )

    def moved(self, by: QPointF) -> "Viewport":
        """The same pushed aside, pixels."""
        return Viewport(self.box, self.scale, self.u0 + by.x(), self.v0 + by.y())


def fit(box: QRectF, bounds: tuple[float, float, float, float]) -> Viewport:
    """Place bounds (u, v least and greatest) in a box, centred, as large as they go."""
    left, top, right, bottom = bounds
    scale = min(box.width() / max(right - left, 1.0), box.height() / max(bottom - top, 1.0))
    middle = box.center()
    return Viewport(
        box,
        scale,
        middle.x() - scale * (left + right) / 2,
        middle.y() - scale * (top + bottom) / 2,
    )


def paint_paper(painter: QPainter, theme: Theme, rect: QRect) -> None:
    """Drawing paper with its faint grid."""
    painter.fillRect(rect, theme.colour("paper"))
    painter.setPen(QPen(theme.colour("grid"), 1))
    width, height = rect.width(), rect.height()
    lines = [QLine(x, 0, x, height) for x in range(0, width, GRID_PX)]
    lines += [QLine(0, y, width, y) for y in range(0, height, GRID_PX)]
    painter.drawLines(*lines)


def distance_to(point: QPointF, line: QPolygonF) -> float:
    """Pixels from a point to a polyline."""
    best = float("inf")
    count = line.count()
    for i in range(count - 1):
        best = min(best, _to_segment(point, line.at(i), line.at(i + 1)))
    return best


def _to_segment(p: QPointF, a: QPointF, b: QPointF) -> float:
    run = b - a
    square = QPointF.dotProduct(run, run)
    share = QPointF.dotProduct(p - a, run) / square if square > 0 else 0.0
    near = a + run * min(1.0, max(0.0, share))
    gap = p - near
    return float(QPointF.dotProduct(gap, gap) ** 0.5)


def section_path(viewport: Viewport, points: tuple[Point2, ...]) -> QPainterPath:
    """A lying surface as a thin section over its chord; an upright one as its outline."""
    shape = viewport.polygon(points)
    box = shape.boundingRect()
    path = QPainterPath()
    if box.height() > box.width() * 0.5:
        path.addPolygon(shape)
        path.closeSubpath()
        return path
    nose = min((shape.at(i) for i in range(shape.count())), key=lambda p: (p.x(), -p.y()))
    tail = max((shape.at(i) for i in range(shape.count())), key=lambda p: (p.x(), p.y()))
    thick = max(4.0, 0.09 * (tail.x() - nose.x()))
    run = tail - nose
    path.moveTo(nose)
    path.cubicTo(
        nose + QPointF(run.x() * 0.08, -thick * 1.5),
        nose + run * 0.45 + QPointF(0, -thick * 1.4),
        tail,
    )
    path.cubicTo(
        nose + run * 0.6 + QPointF(0, 1), nose + run * 0.2 + QPointF(0, thick * 0.35), nose
    )
    return path
