"""Painting wood as wood: its tone, its grain the way it runs, end grain at a cut."""

import random
from functools import cache
from typing import Final

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QBrush, QColor, QPainter, QPainterPath, QPen, QPixmap, QPolygonF, QTransform

from hardkeel.picture.wood import Tone, WoodShape
from hardkeel.ui.theme import Theme, ThemeName
from hardkeel.ui.widgets.viewport import Viewport

_TILE: Final = (160, 26)
_GRAINS: Final = 9
# by theme and tone: the wood, its grain
_TONES: Final[dict[ThemeName, dict[Tone, tuple[str, str]]]] = {
    "light": {
        "soft": ("#F0E1B9", "#D9C48D"),
        "hard": ("#E6CD97", "#C4A263"),
        "ply": ("#E3CFA6", "#BE9F69"),
        "metal": ("#C3CACC", "#9AA5A9"),
        "foam": ("#E4ECF0", "#D3DEE5"),
    },
    "dark": {
        "soft": ("#6B5F40", "#857750"),
        "hard": ("#75603A", "#937B4B"),
        "ply": ("#6C5A3B", "#8D7850"),
        "metal": ("#566065", "#75828A"),
        "foam": ("#4A565E", "#55636C"),
    },
}
_FAINT: Final = 0.55


@cache
def _tile(name: ThemeName, tone: Tone) -> QPixmap:
    """A few grain lines along u, over the wood's colour; ends meet, so that it can be repeated."""
    width, height = _TILE
    plain, grain = _TONES[name][tone]
    tile = QPixmap(width, height)
    tile.fill(QColor(plain))
    painter = QPainter(tile)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    rng = random.Random(7)  # noqa: S311  the same wood each time
    for i in range(_GRAINS):
        y = (i + 0.2 + 0.6 * rng.random()) * height / _GRAINS
        colour = QColor(grain)
        colour.setAlphaF(0.35 + 0.5 * rng.random())
        painter.setPen(QPen(colour, 0.7 + 0.5 * rng.random()))
        bend = 1.6 * (rng.random() - 0.5)
        line = QPainterPath(QPointF(0, y))
        line.cubicTo(
            QPointF(width / 3, y + bend), QPointF(2 * width / 3, y - bend), QPointF(width, y)
        )
        painter.drawPath(line)
    painter.end()
    return tile


@cache
def _end_tile(name: ThemeName, tone: Tone) -> QPixmap:
    """End grain: short arcs of the year's rings."""
    size = 22
    plain, grain = _TONES[name][tone]
    tile = QPixmap(size, size)
    tile.fill(QColor(plain))
    painter = QPainter(tile)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(QPen(QColor(grain), 1.0))
    for radius in (6, 11, 16, 21, 26, 31):
        painter.drawEllipse(QPointF(0, size), radius, radius)
    painter.end()
    return tile


def wood_brush(theme: Theme, tone: Tone, grain: float | None) -> QBrush:
    """A brush whose grain runs at an angle, degrees from u towards v; ``None`` for end grain."""
    if grain is None:
        return QBrush(_end_tile(theme.name, tone))
    brush = QBrush(_tile(theme.name, tone))
    brush.setTransform(QTransform().rotate(grain))
    return brush


def tone_colour(theme: Theme, tone: Tone) -> QColor:
    """A wood's own colour, without its grain."""
    return QColor(_TONES[theme.name][tone][0])


def shape_path(view: Viewport, shape: WoodShape) -> QPainterPath:
    """The outline with its holes, in pixels."""
    path = QPainterPath()
    path.setFillRule(Qt.FillRule.OddEvenFill)
    for ring in (shape.ring, *shape.holes):
        path.addPolygon(QPolygonF(view.polygon(ring)))
        path.closeSubpath()
    return path


def paint_wood(painter: QPainter, theme: Theme, shape: WoodShape, path: QPainterPath) -> None:
    """A shape as wood; what is still to be made as an open, dashed outline."""
    pen = QPen(theme.colour("ink"), 1.1)
    if shape.faint:
        pen = QPen(theme.colour("ink", _FAINT), 0.8)
    if not shape.made:
        pen.setStyle(Qt.PenStyle.DashLine)
        pen.setWidthF(0.9)
        painter.setPen(pen)
        painter.fillPath(path, theme.colour("paper", 0.6))
        painter.drawPath(path)
        return
    painter.setPen(pen)
    painter.setOpacity(_FAINT if shape.faint else 1.0)
    painter.fillPath(path, wood_brush(theme, shape.tone, shape.grain))
    painter.setOpacity(1.0)
    painter.drawPath(path)


def paint_pin(painter: QPainter, theme: Theme, at: QPointF) -> None:
    """A pin's head beside the wood."""
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(theme.colour("ink"))
    painter.drawEllipse(at, 2.0, 2.0)
    painter.setBrush(Qt.BrushStyle.NoBrush)


def text_box(painter: QPainter, at: QPointF, text: str, side: str) -> QRectF:
    """Where a word stands beside a place, pixels."""
    metrics = painter.fontMetrics()
    wide, tall = metrics.horizontalAdvance(text) + 4, metrics.height()
    if side == "above":
        return QRectF(at.x() - wide / 2, at.y() - tall, wide, tall)
    if side == "right":
        return QRectF(at.x() - wide / 2, at.y() - tall / 2, wide, tall)
    return QRectF(at.x() - wide / 2, at.y(), wide, tall)
