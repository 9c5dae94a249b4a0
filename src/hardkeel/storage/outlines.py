"""Outlines of formers from a DXF drawing."""

import math
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING, Final

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2

if TYPE_CHECKING:
    from ezdxf.document import Drawing

_FLAT_MM: Final = 0.02  # how far a chord may leave its arc
_TOUCH_MM: Final = 0.05  # ends nearer than this are joined
_LEAST_AREA_MM2: Final = 25.0
_LARGEST_FILE: Final = 64 * 1024 * 1024
# $INSUNITS → mm; unitless drawings are taken for millimetres
_UNITS: Final = {0: 1.0, 1: 25.4, 2: 304.8, 4: 1.0, 5: 10.0, 6: 1000.0}


@dataclass(frozen=True, slots=True)
class Outline:
    """A closed line of a drawing, mm.

    Attributes
    ----------
    name : str
        Its layer.
    """

    name: str
    ring: tuple[Point2, ...]
    area: float


def read_outlines(path: Path) -> tuple[Outline, ...]:
    """Closed lines of a drawing's model space, the largest first.

    Polylines, circles, ellipses, splines and chains of lines and arcs that close.

    Raises
    ------
    BadInput
        When the file is no DXF drawing or holds no closed line.
    """
    drawing = _read(path)
    factor = _UNITS.get(drawing.units, 1.0)
    closed: list[tuple[str, list[Point2]]] = []
    loose: dict[str, list[list[Point2]]] = {}
    from ezdxf import path as paths  # noqa: PLC0415  only when a drawing is read

    for entity in drawing.modelspace():
        try:
            made = paths.make_path(entity)
        except TypeError:
            continue  # text, dimensions and the like
        points = [(p.x * factor, p.y * factor) for p in made.flattening(_FLAT_MM / factor)]
        if len(points) < 2:  # noqa: PLR2004  a point
            continue
        layer = str(entity.dxf.layer)
        if math.dist(points[0], points[-1]) <= _TOUCH_MM:
            closed.append((layer, points[:-1]))
        else:
            loose.setdefault(layer, []).append(points)
    for layer, pieces in loose.items():
        closed += [(layer, ring) for ring in _chained(pieces)]
    found = [Outline(layer, tuple(ring), _area(ring)) for layer, ring in closed]
    found = [one for one in found if one.area >= _LEAST_AREA_MM2]
    if not found:
        raise BadInput(path.name, "holds no closed line that could be a former")
    return tuple(sorted(found, key=lambda one: -one.area))


def _read(path: Path) -> "Drawing":
    from ezdxf import recover  # noqa: PLC0415  heavy, and only when a drawing is read
    from ezdxf.lldxf.const import DXFError  # noqa: PLC0415

    try:
        if path.stat().st_size > _LARGEST_FILE:
            raise BadInput(path.name, "is too large for a former's outline")
        drawing, _audit = recover.readfile(str(path))
    except OSError as fault:
        raise BadInput(path.name, f"can't be read: {fault.strerror or fault}") from None
    except (DXFError, ValueError, IndexError, KeyError):
        raise BadInput(path.name, "is not a DXF drawing") from None
    return drawing


def _chained(pieces: list[list[Point2]]) -> list[list[Point2]]:
    """Rings made of pieces laid end to end; what does not close is left out."""
    rings: list[list[Point2]] = []
    rest = [list(piece) for piece in pieces]
    while rest:
        chain = rest.pop()
        joined = True
        while joined and math.dist(chain[0], chain[-1]) > _TOUCH_MM:
            joined = False
            for i, piece in enumerate(rest):
                if math.dist(piece[-1], chain[-1]) <= _TOUCH_MM:
                    piece.reverse()
                if math.dist(piece[0], chain[-1]) <= _TOUCH_MM:
                    chain += piece[1:]
                    rest.pop(i)
                    joined = True
                    break
        if len(chain) > 3 and math.dist(chain[0], chain[-1]) <= _TOUCH_MM:  # noqa: PLR2004  a triangle
            rings.append(chain[:-1])
    return rings


def _area(ring: list[Point2]) -> float:
    pairs = zip(ring, [*ring[1:], ring[0]], strict=True)
    return abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in pairs)) / 2
