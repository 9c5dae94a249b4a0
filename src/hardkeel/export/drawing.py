"""One view of the airframe as a reportlab drawing: readable when printed in grey."""

import math
from collections.abc import Sequence
from itertools import pairwise
from typing import Final

from hardkeel.export.stationery import (
    Circle,
    Color,
    Drawing,
    Flowable,
    HexColor,
    Line,
    Path,
    PolyLine,
    String,
    Table,
    black,
    white,
)
from hardkeel.picture.in_space import Eye, Layer, Space
from hardkeel.picture.truing import Picture, Stroke, View

_INK: Final = HexColor(0x1E2B33)
_SOFT: Final = HexColor(0x8A958F)
_MARGIN: Final = 8.0
_BELOW: Final[tuple[View, View]] = ("behind", "side")
# role → colour, width, dashes: line kinds tell wanted from estimated without colour
_STYLES: Final[dict[str, tuple[Color, float, list[float] | None]]] = {
    "fuselage": (_SOFT, 0.8, None),
    "former": (_SOFT, 0.4, None),
    "strut": (_SOFT, 0.8, None),
    "centre": (_SOFT, 0.4, [6, 2, 1, 2]),
    "board": (_SOFT, 0.6, None),
    "wanted": (_INK, 0.4, [2, 2]),
    "estimated": (_INK, 1.0, None),
}


def view_drawing(
    picture: Picture,
    view: View,
    size: tuple[float, float],
    font: str,
    strings: Sequence[tuple[str, Stroke]] = (),
) -> Drawing:
    """A view to scale in a box of `size` points; marks are left to the screen.

    Parameters
    ----------
    strings : sequence of (str, Stroke)
        Strings and gauges to draw with their numbers, of this view or of another.
    """
    width, height = size
    drawing = Drawing(width, height)
    bounds = picture.bounds(view)
    if bounds is None:
        drawing.add(String(6, height / 2, "nothing to draw yet", fontName=font, fontSize=8))
        return drawing
    left, top, right, bottom = bounds
    scale = min(
        (width - 2 * _MARGIN) / max(right - left, 1.0),
        (height - 2 * _MARGIN) / max(bottom - top, 1.0),
    )
    x0 = (width - scale * (right - left)) / 2 - scale * left
    y0 = (height + scale * (bottom - top)) / 2 + scale * top

    def points(stroke: Stroke) -> list[float]:
        ring = stroke.points + stroke.points[:1] if stroke.closed else stroke.points
        return [value for u, v in ring for value in (x0 + scale * u, y0 - scale * v)]

    for stroke in picture.of(view):
        style = _STYLES.get(stroke.role)
        if style is None:
            continue
        colour, weight, dashes = style
        out = stroke.role == "estimated" and stroke.verdict == "out"
        drawing.add(
            PolyLine(
                points(stroke),
                strokeColor=black if out else colour,
                strokeWidth=2.2 if out else weight,
                strokeDashArray=dashes or [],
            )
        )
    mine = [(number, stroke) for number, stroke in strings if stroke.view == view]
    for i, (number, stroke) in enumerate(mine):
        line = points(stroke)
        drawing.add(PolyLine(line, strokeColor=_INK, strokeWidth=0.5))
        x, y = _along(line, _SPREAD[i % len(_SPREAD)])
        wide = 5.0 + 3.2 * len(number)
        drawing.add(Circle(x, y, wide / 2, strokeColor=_INK, strokeWidth=0.4, fillColor=white))
        drawing.add(String(x, y - 2.3, number, fontName=font, fontSize=6.5, textAnchor="middle"))
    drawing.add(Line(0, 0, width, 0, strokeColor=_SOFT, strokeWidth=0.3))
    return drawing


_EYE: Final = Eye(35.0, 22.0)
_FILLS: Final[dict[Layer, Color]] = {
    "frame": HexColor(0xEFE7D2),
    "skin": HexColor(0xF7F2E4),
    "surface": white,
}


def three_views(
    picture: Picture,
    wide: float,
    heights: tuple[float, float],
    font: str,
    strings: Sequence[tuple[str, Stroke]],
) -> list[Flowable]:
    """From above, and below it from behind and from port side by side; `wide` and `heights` points."""
    plan = view_drawing(picture, "plan", (wide, heights[0]), font, strings)
    behind, side = (
        view_drawing(picture, view, (wide / 2, heights[1]), font, strings) for view in _BELOW
    )
    return [plan, Table([[behind, side]], colWidths=[wide / 2, wide / 2])]


def space_drawing(space: Space, size: tuple[float, float]) -> Drawing:
    """The airframe in space from port ahead, hidden lines out, in a box of `size` points; empty where nothing stands."""
    drawing = Drawing(*size)
    layers: frozenset[Layer] = frozenset({"frame", "skin", "surface"})
    seen = space.seen_from(_EYE, layers, open_=True)
    points = [ring for one in seen for ring in one.rings]
    if not points:
        return drawing
    left, top = (min(float(ring[:, i].min()) for ring in points) for i in (0, 1))
    right, bottom = (max(float(ring[:, i].max()) for ring in points) for i in (0, 1))
    scale = min(
        (size[0] - 2 * _MARGIN) / max(right - left, 1.0),
        (size[1] - 2 * _MARGIN) / max(bottom - top, 1.0),
    )
    x0 = (size[0] - scale * (right - left)) / 2 - scale * left
    y0 = (size[1] + scale * (bottom - top)) / 2 + scale * top
    for one in seen:
        path = Path(
            fillColor=_FILLS[one.layer],
            fillOpacity=0.5 if one.layer == "surface" else 1.0,
            fillMode=0,  # even and odd: holes stay open
            strokeColor=_SOFT if one.layer == "skin" else _INK,
            strokeWidth=0.2 if one.layer == "skin" else 0.35,
        )
        for ring in one.rings:
            (u, v), *rest = ring.tolist()
            path.moveTo(x0 + scale * u, y0 - scale * v)
            for a, b in rest:
                path.lineTo(x0 + scale * a, y0 - scale * b)
            path.closePath()
        drawing.add(path)
    return drawing


# numbers of strings that run together stand at other places along them
_SPREAD: Final = (0.3, 0.62, 0.45, 0.78, 0.38, 0.7, 0.53)


def _along(line: list[float], share: float) -> tuple[float, float]:
    """A point along a polyline of x, y, x, y, …, by its length."""
    at = list(zip(line[::2], line[1::2], strict=True))
    lengths = [math.dist(a, b) for a, b in pairwise(at)]
    left = share * sum(lengths)
    for (a, b), length in zip(pairwise(at), lengths, strict=True):
        if left <= length and length > 0:
            t = left / length
            return a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])
        left -= length
    return at[-1]
