"""The skin from nose to tail: curves of equal parameter through the outside contours of all stations.

A contour's parameter runs from 0 at the keel over 0.5 at its lower edge, 1 at its widest line and 1.5 at its upper edge to 2
at the crown, by the share of the arc in each stretch; every parameter's y and z are natural cubics over the stations, so
that the widest lines, keels and crowns are the lines of `loft`, and edges meet edges.  An edge is where flat sides or a
box's end, a superellipse's shoulder, of a drawn contour where it runs more across than up.  Frame: airframe axes, mm; starboard.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from typing import Final

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.fuselage.contours import bare, half_of, shoulder_of, widest_of
from hardkeel.fuselage.model import Former, Fuselage, Line, TailPost
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.spline import weights

EDGES: Final = (0.0, 0.5, 1.0, 1.5, 2.0)
_GRID: Final = 32  # parameters a stretch that every surface has
_SAME: Final = 2e-4  # of a quarter: contours' own points closer than this are one
_ROUNDS: Final = 3
_MOST: Final = 2048  # parameters; a multiple of eight, so that edges are among them
_FLAT_MM: Final = 0.003  # how far a chord may lie off the contour
_HAIR_MM: Final = 1e-9
_LEVEL_MM: Final = 0.01
_THIN_MM: Final = 1e-9
_LINES: Final[tuple[Line, ...]] = ("bottom", "half_width", "top")  # from keel to crown


@dataclass(frozen=True, slots=True)
class Surface:
    """The outside of a fuselage.

    Attributes
    ----------
    names : tuple of str
        Formers and tail post by station.
    stations : Array
        Shape (n,), mm.
    shares : Array
        Shape (k,), parameters from 0 to 2.
    points : Array
        Shape (n, k, 2), (y, z) of the starboard contour at each station.
    broken : tuple of three tuples of int
        Stations at which the bottom line, the widest line and the top line have a corner.
    """

    names: tuple[str, ...]
    stations: Array
    shares: Array
    points: Array
    broken: tuple[tuple[int, ...], ...] = ((), (), ())

    def half(self, at: Array) -> Array:
        """Starboard contours at stations, shape (m, k, 2), from keel to crown; y is never under 0."""
        found = self._through(at, 0)
        found[..., 0] = np.maximum(found[..., 0], 0.0)
        return found

    def slope(self, at: Array) -> Array:
        """How y and z change along x, shape (m, k, 2)."""
        return self._through(at, 1)

    def bend(self, at: Array) -> Array:
        """Second derivatives along x, shape (m, k, 2), 1/mm."""
        return self._through(at, 2)

    def girth(self, at: Array) -> Array:
        """The length all round, shape (m,), mm."""
        return np.asarray(2 * arcs(self.half(at))[:, -1])

    def area(self, at: Array) -> Array:
        """What a section encloses, shape (m,), mm²."""
        half = self.half(at)
        y, rise = half[..., 0], np.diff(half[..., 1], axis=1)
        return np.asarray(np.sum((y[:, 1:] + y[:, :-1]) * rise, axis=1))

    def _through(self, at: Array, order: int) -> Array:
        """Curves of equal parameter, or their derivatives, at stations.

        From an edge on to keel or crown they break where the bottom or top line does, at the widest line where that
        does; between them what goes through and what breaks are mixed by the parameter, so that the skin has no step.
        """
        knots, places = tuple(self.stations.tolist()), tuple(np.atleast_1d(at).tolist())
        if not any(self.broken):
            return _mixed(weights(knots, places, order), self.points)
        low, side, high = (
            _mixed(weights(knots, places, order, corners), self.points) for corners in self.broken
        )
        down = np.clip((1.0 - self.shares) * 2, 0.0, 1.0)[:, None]
        up = np.clip((self.shares - 1.0) * 2, 0.0, 1.0)[:, None]
        return np.asarray(down * low + up * high + (1 - down - up) * side)


def surface_of(fuselage: Fuselage) -> Surface:
    """The outside of a fuselage.

    Raises
    ------
    BadInput
        When there are fewer than two stations, or an outline crosses itself.
    """
    stops = fuselage.stations
    if len(stops) < 2:  # noqa: PLR2004  nothing between
        raise BadInput("fuselage.formers", "a loft needs at least two stations")
    plain = tuple(bare(stop) if isinstance(stop, Former) else stop for _, stop in stops)
    return _surface(tuple(name for name, _ in stops), plain)


def half_at(stop: Former, shares: Array) -> Array:
    """A former's starboard contour at parameters of a surface, shape (k, 2)."""
    share, half = _with_shares(stop)
    return np.column_stack([np.interp(shares, share, half[:, i]) for i in (0, 1)])


def is_shaped(fuselage: Fuselage) -> bool:
    """Whether any former is other than a plain box."""
    return any(one.corner or one.section is not None or one.outline for one in fuselage.formers)


def arcs(half: Array) -> Array:
    """Arc length along contours from the keel, shape (m, k) for (m, k, 2), mm."""
    steps = np.hypot(*np.moveaxis(np.diff(half, axis=1), -1, 0))
    found = np.zeros(half.shape[:2])
    np.cumsum(steps, axis=1, out=found[:, 1:])
    return found


def moved_in(half: Array, side: Array, top: Array, bottom: Array) -> Array:
    """Contours moved inward by their skins, square to them, point by point; shape of `half`.

    A skin is as thick as its side wants and blends round the corner, as in `contours.skinned`.

    Parameters
    ----------
    half : Array
        Shape (m, k, 2).
    side, top, bottom : Array
        Shape (m,), mm.
    """
    run = np.gradient(half, axis=1)
    size = np.maximum(np.hypot(run[..., 0], run[..., 1]), _THIN_MM)
    out = np.stack([run[..., 1], -run[..., 0]], axis=-1) / size[..., None]
    thick = np.where(out[..., 1] > 0, top[:, None], bottom[:, None])
    across = side[:, None] * np.ones_like(thick)
    reach = np.maximum(np.hypot(across * out[..., 0], thick * out[..., 1]), _THIN_MM)
    by = np.stack([across**2 * out[..., 0], thick**2 * out[..., 1]], axis=-1) / reach[..., None]
    found: Array = half - by
    found[..., 0] = np.maximum(found[..., 0], 0.0)
    return found


def half_width_at(half: Array, z: Array) -> Array:
    """Half of each contour's width at a height, shape (m,), mm; 0 above and below it.

    The lines between a contour's points are taken for it; where it is that wide more than once, the least.
    """
    ys, zs = half[..., 0], half[..., 1] - z[:, None]
    over = (zs[:, :-1] <= 0) != (zs[:, 1:] <= 0)
    rise = zs[:, 1:] - zs[:, :-1]
    share = np.divide(-zs[:, :-1], rise, out=np.zeros_like(rise), where=over)
    wide = ys[:, :-1] + share * (ys[:, 1:] - ys[:, :-1])
    least = np.min(np.where(over, wide, np.inf), axis=1)
    return np.asarray(np.where(np.isfinite(least), least, 0.0))


def _mixed(weights: Array, points: Array) -> Array:
    n, k, _ = points.shape
    found: Array = (weights @ points.reshape(n, 2 * k)).reshape(len(weights), k, 2)
    return found


@lru_cache(maxsize=32)
def _surface(names: tuple[str, ...], stops: tuple[Former | TailPost, ...]) -> Surface:
    lines = [_with_shares(stop) for stop in stops]
    shares = np.linspace(0.0, 2.0, 4 * _GRID + 1)
    # where a chord between parameters cuts a contour's corner off, its own points
    for _ in range(_ROUNDS):
        missed = [_missed(share, half, shares) for share, half in lines]
        if not any(len(one) for one in missed):
            break
        shares = np.array(list(_apart(np.unique(np.concatenate([shares, *missed])))))
        if len(shares) > _MOST:  # a file's outlines may have any number of points
            shares = np.unique(np.round(shares * _MOST / 4) * 4 / _MOST)
            break
    points = np.array(
        [
            np.column_stack([np.interp(shares, share, half[:, i]) for i in (0, 1)])
            for share, half in lines
        ]
    )
    points.setflags(write=False)
    broken = tuple(corners_of(stops, line) for line in _LINES)
    return Surface(names, np.array([stop.station for stop in stops]), shares, points, broken)


def corners_of(stops: Sequence[Former | TailPost], line: Line) -> tuple[int, ...]:
    """Numbers of the stops at which a line has a corner; both ends have none."""
    return tuple(
        i
        for i, stop in enumerate(stops)
        if 0 < i < len(stops) - 1 and isinstance(stop, Former) and line in stop.line_corners
    )


def _missed(share: Array, half: Array, shares: Array) -> Array:
    """Parameters of a contour's points that lie off the chords between given parameters."""
    there = np.column_stack([np.interp(shares, share, half[:, i]) for i in (0, 1)])
    i = np.clip(np.searchsorted(shares, share, side="right") - 1, 0, len(shares) - 2)
    chord = there[i + 1] - there[i]
    size = np.maximum(np.hypot(*chord.T), _THIN_MM)
    gone = half - there[i]
    off = np.abs(chord[:, 0] * gone[:, 1] - chord[:, 1] * gone[:, 0]) / size
    return np.asarray(share[off > _FLAT_MM])


def _apart(shares: Array) -> Iterator[float]:
    last = -1.0
    for one in shares.tolist():
        # corners stay where they are: 0, 1 and 2 are everybody's
        if one - last > _SAME or one in EDGES:
            yield one
            last = one


def _with_shares(stop: Former | TailPost) -> tuple[Array, Array]:
    """A stop's starboard contour with each point's parameter; where parameters are whole or half a point stands."""
    former = stop if isinstance(stop, Former) else _as_former(stop)
    half = half_of(former)
    arc = arcs(half[None])[0]
    widest = _arc_of_widest(half, arc, _widest_height(former, half))
    low, high = _arcs_of_edges(former, half, arc, widest)
    knots = np.maximum.accumulate([0.0, min(low, widest), widest, max(high, widest), arc[-1]])
    marks = np.array(EDGES)
    share = np.interp(arc, knots + 1e-12 * np.arange(5), marks)
    # the knots themselves are points: two of them may lie at one place
    points = np.column_stack([np.interp(knots, arc, half[:, i]) for i in (0, 1)])
    inner = np.min(np.abs(arc[:, None] - knots), axis=1) > _HAIR_MM
    shares = np.concatenate([share[inner], marks])
    order = np.argsort(shares, kind="stable")
    return shares[order], np.vstack([half[inner], points])[order]


def _arc_of_widest(half: Array, arc: Array, height: float) -> float:
    """Along the contour to its widest line."""
    place = _crossing(half, height)
    one, other = half[place], half[min(place + 1, len(half) - 1)]
    rise = other[1] - one[1]
    share = min(1.0, max(0.0, (height - one[1]) / rise)) if rise else 0.0
    return float(arc[place] + share * np.hypot(*(other - one)))


def _arcs_of_edges(former: Former, half: Array, arc: Array, widest: float) -> tuple[float, float]:
    """Along the contour to its lower and its upper edge."""
    if former.outline:
        run = np.abs(np.diff(half, axis=0))
        flat = run[:, 0] > run[:, 1]
        under, over = flat & (arc[1:] <= widest), flat & (arc[:-1] >= widest)
        low = float(arc[1:][under].max()) if under.any() else 0.0
        return low, float(arc[:-1][over].min()) if over.any() else float(arc[-1])
    if former.section is not None and former.section.kind == "superellipse":
        low, high = (shoulder_of(former, above=above)[1] for above in (False, True))
        return float(np.interp(low, half[:, 1], arc)), float(np.interp(high, half[:, 1], arc))
    upright = arc[half[:, 0] >= half[:, 0].max() - _LEVEL_MM]
    return float(upright.min()), float(upright.max())


def _as_former(post: TailPost) -> Former:
    return Former(
        id="tail_post",
        station=post.station,
        bottom=post.bottom,
        top=post.top,
        half_width=post.half_width,
    )


def _widest_height(former: Former, half: Array) -> float:
    if not former.outline:
        return float(widest_of(former))
    level = half[half[:, 0] >= half[:, 0].max() - _LEVEL_MM, 1]
    return float((level.min() + level.max()) / 2)


def _crossing(half: Array, height: float) -> int:
    """The last point below a height, on the way up."""
    widest = half[:, 0].max() - _LEVEL_MM
    for i, (one, other) in enumerate(pairwise(half)):
        if one[1] <= height <= other[1] and max(one[0], other[0]) >= widest:
            return i
    return int(np.argmax(half[:, 0]))
