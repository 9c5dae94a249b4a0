"""A plate as SVG: sized in millimetres, grouped by layers in the order of cutting, every outline closed."""

from typing import Final
from xml.etree import ElementTree as ET

from hardkeel.export.plates import LayerName, Plate

_COLOURS: Final[dict[LayerName, str]] = {
    "CUT": "#B8391B",
    "HOLES": "#0B5D6B",
    "SCORE": "#7A3F8F",
    "MARKS": "#1E2B33",
    "CENTRE": "#5C6A70",
    "TEXT": "#8A9447",
}
_SPACE: Final = "http://www.w3.org/2000/svg"
_MARGIN_MM: Final = 2.0
_HAIRLINE_MM: Final = 0.1


def plate_svg(plate: Plate) -> str:
    """The drawing as text; a unit of it is a millimetre, v turned over so that up is up."""
    left, low, right, high = plate.bounds
    wide, tall = right - left + 2 * _MARGIN_MM, high - low + 2 * _MARGIN_MM

    def at(u: float, v: float) -> tuple[str, str]:
        return f"{u - left + _MARGIN_MM:.4f}", f"{high - v + _MARGIN_MM:.4f}"

    size = {"width": f"{wide:.4f}mm", "height": f"{tall:.4f}mm"}
    root = ET.Element("svg", {"xmlns": _SPACE, **size, "viewBox": f"0 0 {wide:.4f} {tall:.4f}"})
    ET.SubElement(root, "title").text = _printable(plate.name)
    if plate.note:
        ET.SubElement(root, "desc").text = _printable(plate.note)
    used: set[str] = set()
    for layer, strokes in plate.runs:
        drawn = {"fill": "none", "stroke": _COLOURS[layer], "stroke-width": f"{_HAIRLINE_MM}"}
        name = layer if layer not in used else f"{layer}-{len(used)}"
        used.add(name)
        group = ET.SubElement(root, "g", {"id": name, "class": layer, **drawn})
        for stroke in strokes:
            path = "M " + " L ".join(" ".join(at(*point)) for point in stroke.points)
            ET.SubElement(group, "path", {"d": f"{path}{' Z' if stroke.closed else ''}"})
    ET.indent(root, "")
    body = ET.tostring(root, encoding="unicode")
    return f'<?xml version="1.0" encoding="UTF-8"?>\n{body}\n'


def _printable(text: str) -> str:
    """What XML can hold: a name may have any character in it."""
    return "".join(letter if letter.isprintable() else " " for letter in text)
