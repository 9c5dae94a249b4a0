"""A plate as SVG: sized in millimetres, one group a layer, every outline closed."""

from typing import Final
from xml.sax.saxutils import escape, quoteattr

from hardkeel.export.plates import LAYERS, TEXT_LAYER, LayerName, Plate

_COLOURS: Final[dict[LayerName, str]] = {
    "CUT": "#B8391B",
    "HOLES": "#0B5D6B",
    "MARKS": "#1E2B33",
    "CENTRE": "#5C6A70",
}
_HEAD: Final = (
    '<svg xmlns="http://www.w3.org/2000/svg" width="{wide:.4f}mm" height="{tall:.4f}mm" '
    'viewBox="0 0 {wide:.4f} {tall:.4f}">'
)
_MARGIN_MM: Final = 2.0
_HAIRLINE_MM: Final = 0.1


def plate_svg(plate: Plate) -> str:
    """The drawing as text; a unit of it is a millimetre, v turned over so that up is up."""
    left, low, right, high = plate.bounds
    wide, tall = right - left + 2 * _MARGIN_MM, high - low + 2 * _MARGIN_MM

    def at(u: float, v: float) -> str:
        return f"{u - left + _MARGIN_MM:.4f} {high - v + _MARGIN_MM:.4f}"

    lines = [
        '<?xml version="1.0" encoding="UTF-8"?>',
        _HEAD.format(wide=wide, tall=tall),
        f"<title>{escape(plate.name)}</title>",
    ]
    for layer in LAYERS:
        strokes = [stroke for stroke in plate.strokes if stroke.layer == layer]
        if not strokes:
            continue
        lines.append(
            f'<g id="{layer}" fill="none" stroke="{_COLOURS[layer]}" stroke-width="{_HAIRLINE_MM}">'
        )
        for stroke in strokes:
            path = "M " + " L ".join(at(*point) for point in stroke.points)
            lines.append(f'<path d="{path}{" Z" if stroke.closed else ""}"/>')
        lines.append("</g>")
    if plate.words:
        lines.append(f'<g id="{TEXT_LAYER}" fill="#1E2B33" text-anchor="middle">')
        for word in plate.words:
            x, y = at(*word.at).split()
            size = quoteattr(f"{word.size:.2f}")
            lines.append(f'<text x="{x}" y="{y}" font-size={size}>{escape(word.text)}</text>')
        lines.append("</g>")
    lines.append("</svg>")
    return "\n".join(lines) + "\n"
