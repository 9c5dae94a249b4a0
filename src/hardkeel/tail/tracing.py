"""What a sheet shows of a surface beside its outline: hinge line, ribs, and a section drawn by itself."""

from collections.abc import Sequence
from typing import Final

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2
from hardkeel.geometry.polygons import shapely
from hardkeel.geometry.rotation import Array
from hardkeel.tail.planform import Planform

_NEAR_SHARE: Final = 0.06  # of the chord from both ends, where the blunter one is the nose
_SAME_MM: Final = 1.0  # ribs clicked nearer to each other are one
_THINNEST_SHARE: Final = 0.01
_THICKEST_SHARE: Final = 0.35
_POINTS: Final = 61  # a side


def hinge_share(planform: Planform, points: Array) -> tuple[float, float]:
    """Where a hinge line lies as a share of the chord, and how far the share runs off that along it.

    Parameters
    ----------
    points : Array
        Shape (n, 2), (x, y) of the half.

    Raises
    ------
    BadInput
        When it does not lie on the surface.
    """
    x, y = points[:, 0], np.abs(points[:, 1])
    on = (y < 0.95 * planform.half) & (planform.chord(y) > 0)
    if not on.any():
        raise BadInput("", "the hinge line does not lie on this surface")
    share = (x[on] - planform.leading(y[on])) / planform.chord(y[on])
    middle = float(np.median(share))
    if not 0 < middle < 1:
        raise BadInput("", "the hinge line does not lie on this surface")
    return middle, float(np.abs(share - middle).max())


def rib_places(planform: Planform, points: Array) -> tuple[float, ...]:
    """Ribs at the places clicked, mm from the middle, each once, from the root out.

    Raises
    ------
    BadInput
        When one lies beyond the tip.
    """
    places = sorted(float(abs(y)) for _, y in points)
    kept = [y for i, y in enumerate(places) if i == 0 or y - places[i - 1] > _SAME_MM]
    if kept and kept[-1] > planform.half + _SAME_MM:
        raise BadInput(
            "", f"a rib at {kept[-1]:.0f} mm lies beyond the tip at {planform.half:.0f} mm"
        )
    return tuple(round(min(y, planform.half), 2) for y in kept)


def section_text(ring: Sequence[Point2], name: str) -> str:
    """A section drawn by itself as the text of a coordinate file: from the trailing edge over the top to it again.

    Its chord runs between the two points that lie farthest apart; the blunter one is the nose.  It may look either way,
    and is the way up that it was drawn.

    Raises
    ------
    BadInput
        When it is no section: as thick as a former, or nearly nothing.
    """
    points = np.array(ring, dtype=float)
    outline = shapely.Polygon(points)
    if not outline.is_valid or outline.area <= 0:
        raise BadInput("", "the outline crosses itself or encloses nothing")
    apart = np.hypot(*(points[:, None] - points[None]).transpose(2, 0, 1))
    i, j = np.unravel_index(int(np.argmax(apart)), apart.shape)
    a, b = sorted((points[i], points[j]), key=lambda p: float(p[0]))
    chord = float(apart[i, j])
    if not _THINNEST_SHARE < outline.area / chord**2 < _THICKEST_SHARE:
        raise BadInput("", "this outline is no section: it is too thick or too thin for its length")
    along = (b - a) / chord
    laid = (points - a) @ np.column_stack([along, (-along[1], along[0])]) / chord
    shape = shapely.Polygon(laid)
    if _thick(shape, 1 - _NEAR_SHARE) > _thick(shape, _NEAR_SHARE):  # its nose looks aft
        laid = laid * (-1, 1) + (1, 0)
        shape = shapely.Polygon(laid)
    x = (1 - np.cos(np.linspace(0, np.pi, _POINTS))) / 2
    upper, lower = (np.array([_edge(shape, float(at), up=up) for at in x]) for up in (True, False))
    rows = [*zip(x[::-1], upper[::-1], strict=True), *zip(x[1:], lower[1:], strict=True)]
    return "\n".join([name, *(f"{at:.5f} {height:.5f}" for at, height in rows)]) + "\n"


def _thick(shape: shapely.Polygon, at: float) -> float:
    return _edge(shape, at, up=True) - _edge(shape, at, up=False)


def _edge(shape: shapely.Polygon, at: float, *, up: bool) -> float:
    """The height of the upper or lower side at a share of the chord."""
    inside = min(max(at, 1e-6), 1 - 1e-6)
    cut = shape.intersection(shapely.LineString([(inside, -1), (inside, 1)]))
    if cut.is_empty:
        return 0.0
    return float(cut.bounds[3] if up else cut.bounds[1])
