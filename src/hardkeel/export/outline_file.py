"""An outline that was taken from a part, at full size: a template for the saw or the cutter."""

from collections.abc import Sequence
from pathlib import Path
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2
from hardkeel.export.framing import plate_dxf
from hardkeel.export.plates import Plate, Stroke
from hardkeel.export.svg import plate_svg
from hardkeel.messages import mat as say

SUFFIXES: Final = (".dxf", ".svg")


def outline_file(rings: Sequence[Sequence[Point2]], path: Path) -> bytes:
    """The outline and its holes as the bytes of a DXF or an SVG, mm, by the path's suffix.

    Raises
    ------
    BadInput
        When it has another suffix.
    """
    suffix = path.suffix.lower()
    if suffix not in SUFFIXES:
        raise BadInput("to", f"{path.name} is neither a .dxf nor an .svg")
    outer, *holes = (tuple(ring) for ring in rings)
    strokes = (Stroke("CUT", outer), *(Stroke("HOLES", hole) for hole in holes))
    plate = Plate(path.stem, strokes, say.TAKEN_OUTLINE)
    text = plate_dxf(plate) if suffix == ".dxf" else plate_svg(plate)
    return text.encode("utf-8")
