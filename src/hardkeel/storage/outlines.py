"""Outlines of formers from a DXF drawing."""

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING, Final

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2

if TYPE_CHECKING:
    from ezdxf.document import Drawing
    from ezdxf.entities.dxfentity import DXFEntity

_FLAT_MM: Final = 0.02  # how far a chord may leave its arc
_TOUCH_MM: Final = 0.05  # ends nearer than this are joined
_SLACK_MM: Final = 0.2  # ends up to here are joined too, and told: drawn by eye
_LEAST_AREA_MM2: Final = 25.0
_LARGEST_FILE: Final = 64 * 1024 * 1024
_MOST_PIECES: Final = 20_000
_SHEET_MM: Final = 205.0  # the long side of the smallest paper that plans are drawn on
_SHEET_MARGIN: Final = 1.12  # a sheet's border is larger than what is drawn on it by at least this
# $INSUNITS → mm; unitless drawings are taken for millimetres
_UNITS: Final = {0: 1.0, 1: 25.4, 2: 304.8, 4: 1.0, 5: 10.0, 6: 1000.0}

Ring = tuple[Point2, ...]


@dataclass(frozen=True, slots=True)
class Outline:
    """A closed line of a drawing, mm.

    Attributes
    ----------
    name : str
        Its layer.
    gap : float
        The widest gap that had to be closed, mm; 0 where all its ends met.
    """

    name: str
    ring: Ring
    area: float
    gap: float = 0.0


def read_outlines(path: Path) -> tuple[Outline, ...]:
    """Closed lines of what is to be seen in a drawing, the largest first; a sheet's border comes last.

    Polylines, circles, ellipses, splines, chains of lines and arcs that close, and all of these in
    blocks; what lies on a layer that is off or frozen is left out, and a line drawn twice counts once.

    Raises
    ------
    BadInput
        When the file is no DXF drawing or holds no closed line.
    """
    drawing = _read(path)
    factor = _UNITS.get(drawing.units, 1.0)
    closed: list[Outline] = []
    loose: dict[str, list[list[Point2]]] = {}
    for layer, points in _pieces(drawing, factor):
        if math.dist(points[0], points[-1]) <= _TOUCH_MM and len(points) > 3:  # noqa: PLR2004
            closed.append(_outline(layer, points[:-1], 0.0))
        else:
            loose.setdefault(layer, []).append(points)
    if sum(map(len, loose.values())) > _MOST_PIECES:
        raise BadInput(path.name, f"holds more than {_MOST_PIECES} pieces of line")
    for layer, pieces in loose.items():
        closed += [_outline(layer, ring, gap) for ring, gap in _chained(_once(pieces))]
    found = [one for one in _once_each(closed) if one.area >= _LEAST_AREA_MM2]
    if not found:
        raise BadInput(path.name, "holds no closed line that could be a former")
    return tuple(sorted(found, key=lambda one: (_is_border(one, found), -one.area)))


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


def _pieces(drawing: "Drawing", factor: float) -> Iterator[tuple[str, list[Point2]]]:
    """Every line to be seen, flattened, with its layer, mm."""
    from ezdxf import path as paths  # noqa: PLC0415  only when a drawing is read
    from ezdxf.disassemble import recursive_decompose  # noqa: PLC0415

    hidden = {
        layer.dxf.name.casefold() for layer in drawing.layers if layer.is_off() or layer.is_frozen()
    }
    shown = [one for one in drawing.modelspace() if not _is_hidden(one, hidden)]
    for entity in recursive_decompose(shown):
        if _is_hidden(entity, hidden):
            continue
        try:
            made = paths.make_path(entity)
        except TypeError:
            continue  # text, dimensions and the like
        points = [(p.x * factor, p.y * factor) for p in made.flattening(_FLAT_MM / factor)]
        if len(points) > 1:
            yield str(entity.dxf.layer), points


def _is_hidden(entity: "DXFEntity", hidden: set[str]) -> bool:
    layer = str(entity.dxf.get("layer", "0")).casefold()
    return layer in hidden or bool(entity.dxf.get("invisible", 0))


def _once(pieces: list[list[Point2]]) -> list[list[Point2]]:
    """The pieces without those that another draws again, in either direction."""
    seen: set[tuple[tuple[int, int], ...]] = set()
    kept = []
    for piece in pieces:
        middle = piece[len(piece) // 2] if len(piece) > 2 else _half_way(piece)  # noqa: PLR2004
        ends = sorted((_cell(piece[0]), _cell(piece[-1])))
        key = (*ends, _cell(middle))
        if key not in seen and math.dist(piece[0], piece[-1]) + len(piece) > 2:  # noqa: PLR2004
            seen.add(key)
            kept.append(piece)
    return kept


def _half_way(piece: list[Point2]) -> Point2:
    return ((piece[0][0] + piece[-1][0]) / 2, (piece[0][1] + piece[-1][1]) / 2)


def _cell(point: Point2) -> tuple[int, int]:
    return (round(point[0] / (2 * _TOUCH_MM)), round(point[1] / (2 * _TOUCH_MM)))


def _chained(pieces: list[list[Point2]]) -> list[tuple[list[Point2], float]]:
    """Rings made of pieces laid end to end, each with its widest gap; what does not close is left out.

    Ends that touch are joined first; only what is then left over is joined over a small gap.
    """
    rings, left = _joined(pieces, _TOUCH_MM)
    more, _ = _joined(left, _SLACK_MM)
    return rings + more


def _joined(
    pieces: list[list[Point2]], reach: float
) -> tuple[list[tuple[list[Point2], float]], list[list[Point2]]]:
    rings: list[tuple[list[Point2], float]] = []
    left: list[list[Point2]] = []
    rest = [list(piece) for piece in pieces]
    while rest:
        chain, gap = rest.pop(), 0.0
        while math.dist(chain[0], chain[-1]) > reach or len(chain) < 3:  # noqa: PLR2004
            found = min(
                ((_away(chain[-1], piece), i) for i, piece in enumerate(rest)), default=(9e9, -1)
            )
            if found[0] > reach:
                break
            piece = rest.pop(found[1])
            if math.dist(piece[-1], chain[-1]) < math.dist(piece[0], chain[-1]):
                piece.reverse()
            gap = max(gap, found[0])
            chain += piece[1:] if found[0] <= _TOUCH_MM else piece
        if len(chain) > 3 and math.dist(chain[0], chain[-1]) <= reach:  # noqa: PLR2004  a triangle
            gap = max(gap, math.dist(chain[0], chain[-1]))
            ring = chain[:-1] if math.dist(chain[0], chain[-1]) <= _TOUCH_MM else chain
            rings.append((ring, gap if gap > _TOUCH_MM else 0.0))
        else:
            left.append(chain)
    return rings, left


def _away(end: Point2, piece: list[Point2]) -> float:
    return min(math.dist(piece[0], end), math.dist(piece[-1], end))


def _outline(layer: str, ring: Iterable[Point2], gap: float) -> Outline:
    points = tuple(ring)
    return Outline(layer, points, _area(points), gap)


def _once_each(outlines: list[Outline]) -> list[Outline]:
    """The outlines without those that lie on another: the same area about the same middle."""
    kept: list[Outline] = []
    for one in outlines:
        box = _box(one.ring)
        if not any(
            math.isclose(one.area, other.area, rel_tol=1e-3)
            and all(abs(a - b) <= _SLACK_MM for a, b in zip(box, _box(other.ring), strict=True))
            for other in kept
        ):
            kept.append(one)
    return kept


def _is_border(one: Outline, outlines: list[Outline]) -> bool:
    """Whether it is the border of the sheet: an upright rectangle around all others, with room.

    A rectangular former around its opening is as large as a sheet only on the largest models.
    """
    left, low, right, high = _box(one.ring)
    if not math.isclose(one.area, (right - left) * (high - low), rel_tol=1e-3):
        return False
    others = [other for other in outlines if other is not one]
    inside = [
        box
        for box in (_box(other.ring) for other in others)
        if box[0] > left and box[1] > low and box[2] < right and box[3] < high
    ]
    if not inside or len(inside) < len(others):
        return False
    wide = max(box[2] for box in inside) - min(box[0] for box in inside)
    tall = max(box[3] for box in inside) - min(box[1] for box in inside)
    roomy = (right - left) > _SHEET_MARGIN * wide and (high - low) > _SHEET_MARGIN * tall
    return roomy and max(right - left, high - low) > _SHEET_MM


def _box(ring: Ring) -> tuple[float, float, float, float]:
    xs, ys = [p[0] for p in ring], [p[1] for p in ring]
    return min(xs), min(ys), max(xs), max(ys)


def _area(ring: Ring) -> float:
    pairs = zip(ring, [*ring[1:], ring[0]], strict=True)
    return abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in pairs)) / 2
