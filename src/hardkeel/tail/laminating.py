"""A tip bent from strips around a form."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.geometry.hull import Point2
from hardkeel.geometry.polygons import shapely
from hardkeel.joinery.flat import open_ring
from hardkeel.tail.model import TailSurface
from hardkeel.tail.planform import planform_of

_HAIR: Final = 1e-6
_FAR: Final = 1e4


@dataclass(frozen=True, slots=True)
class Lamination:
    """A tip bent from strips around a form.

    Attributes
    ----------
    radius : float
        The smallest of the inside of the curve, mm.
    strain : float
        Percent in the outer fibre of one strip there.
    length : float
        Of the outermost strip, with a hand's breadth to hold at both ends.
    form : ring
        The form's outline in the drawing: the inside of the curve.
    """

    radius: float
    strain: float
    length: float
    layers: int
    strip: float
    form: tuple[Point2, ...]


_TO_HOLD_MM: Final = 80.0


def lamination_of(surface: TailSurface) -> Lamination | None:
    """How a laminated tip is bent; ``None`` where there is none."""
    tip = surface.tip
    if tip is None or tip.shape != "laminated":
        return None
    planform = planform_of(surface)
    start = planform.half - tip.length
    whole = shapely.Polygon(planform.ring)
    inner = whole.buffer(-tip.layers * tip.strip).intersection(
        shapely.box(-_FAR, start, _FAR, _FAR)
    )
    if inner.is_empty:
        raise BadInput(f"tail {surface.id}.tip", "has more strips than the tip has room for")
    far = planform.ys >= start - _HAIR
    edge = [(float(x), float(y)) for x, y in zip(planform.le[far], planform.ys[far], strict=True)]
    edge += [(float(x), float(y)) for x, y in zip(planform.te[far], planform.ys[far], strict=True)][
        ::-1
    ]
    line = shapely.LineString(edge)
    even = [line.interpolate(s) for s in np.linspace(0, line.length, 400)]
    points = np.array([(p.x, p.y) for p in even])
    radius = _smallest_radius(points) - tip.layers * tip.strip
    if radius <= tip.strip / 2:
        raise BadInput(f"tail {surface.id}.tip", "turns too tightly for its strips")
    return Lamination(
        radius,
        100 * tip.strip / (2 * radius + tip.strip),
        float(line.length) + _TO_HOLD_MM,
        tip.layers,
        tip.strip,
        open_ring(inner.exterior.coords),
    )


def _smallest_radius(points: np.ndarray[tuple[int, int], np.dtype[np.float64]]) -> float:
    """Of a smooth line with evenly spaced points: the circle through three that lie some way apart."""
    reach = 14
    a, b, c = points[: -2 * reach], points[reach:-reach], points[2 * reach :]
    sides = [np.linalg.norm(p - q, axis=1) for p, q in ((a, b), (b, c), (c, a))]
    u, v = b - a, c - a
    area = np.abs(u[:, 0] * v[:, 1] - u[:, 1] * v[:, 0]) / 2
    with np.errstate(divide="ignore"):
        radius = sides[0] * sides[1] * sides[2] / (4 * area)
    return float(np.min(radius))
