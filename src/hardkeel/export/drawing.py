"""One view of the airframe as a reportlab drawing: readable when printed in grey."""

from typing import Final

from hardkeel.export.stationery import Color, Drawing, HexColor, Line, PolyLine, String, black
from hardkeel.picture.truing import Picture, Stroke, View

_INK: Final = HexColor(0x1E2B33)
_SOFT: Final = HexColor(0x8A958F)
_MARGIN: Final = 8.0
# role → colour, width, dashes: line kinds tell wanted from estimated without colour
_STYLES: Final[dict[str, tuple[Color, float, list[float] | None]]] = {
    "fuselage": (_SOFT, 0.8, None),
    "former": (_SOFT, 0.4, None),
    "centre": (_SOFT, 0.4, [6, 2, 1, 2]),
    "board": (_SOFT, 0.6, None),
    "wanted": (_INK, 0.4, [2, 2]),
    "estimated": (_INK, 1.0, None),
}


def view_drawing(picture: Picture, view: View, size: tuple[float, float], font: str) -> Drawing:
    """A view to scale in a box of `size` points; strings and marks are left to the screen."""
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
    drawing.add(Line(0, 0, width, 0, strokeColor=_SOFT, strokeWidth=0.3))
    return drawing
