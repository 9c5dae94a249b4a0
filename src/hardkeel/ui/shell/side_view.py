"""A model from the side, small: as the first page shows what lies behind a door and what was on the bench."""

from collections.abc import Sequence

from PyQt6.QtCore import QRectF
from PyQt6.QtGui import QPainter, QPen

from hardkeel.picture.truing import Stroke
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.viewport import fit, section_path


def paint_side(
    painter: QPainter,
    box: QRectF,
    theme: Theme,
    strokes: Sequence[Stroke],
    out: frozenset[str] = frozenset(),
) -> None:
    """Fuselage in wood, its formers, the surfaces; those in `out` edged in the colour of what is out."""
    points = [point for one in strokes for point in one.points]
    if not points:
        return
    us, vs = [one[0] for one in points], [one[1] for one in points]
    viewport = fit(box, (min(us), min(vs), max(us), max(vs)))
    for role in ("fuselage", "former", "strut", "wanted"):
        for one in strokes:
            if one.role != role:
                continue
            if role == "fuselage":
                painter.setPen(QPen(theme.colour("ink"), 1.4))
                painter.setBrush(theme.colour("wood"))
                painter.drawPolygon(viewport.polygon(one.points))
            elif role == "wanted":
                is_out = one.ref in out
                painter.setPen(
                    QPen(theme.colour("out" if is_out else "ink"), 2.4 if is_out else 1.4)
                )
                painter.setBrush(theme.colour("wing"))
                painter.drawPath(section_path(viewport, one.points))
            else:
                painter.setPen(QPen(theme.colour("soft"), 1.0))
                painter.drawPolyline(viewport.polygon(one.points))
