"""Ribs by hand: a stack of blanks sanded between two templates, or all cut to the root and trimmed in place."""

import math
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.geometry.hull import Point2, convex_hull
from hardkeel.geometry.rotation import Array
from hardkeel.tail.lofting import Profiles, TailLoft, loft_of_tail, rib_places
from hardkeel.tail.model import TailSurface
from hardkeel.tail.ribs import spar_size, spar_x

_FACING: Final = 0.05  # a face that looks nearly along the surface stops nothing
_SPARE_MM: Final = 3.0  # a blank is so much larger than its rib all round


@dataclass(frozen=True, slots=True)
class Stacked:
    """One rib of a sanded stack.

    Attributes
    ----------
    excess : float
        The most by which a flat block leaves it proud of the true loft, mm.
    at : (float, float)
        Where that is, in the rib's own plane.
    """

    y: float
    excess: float
    at: Point2


@dataclass(frozen=True)
class Stack:
    """How a stack is made.

    Attributes
    ----------
    blanks : int
        How many, both halves together.
    size : (float, float)
        Of a blank, along and across the grain, mm.
    root, tip : ring
        The two templates.
    """

    blanks: int
    size: tuple[float, float]
    root: tuple[Point2, ...]
    tip: tuple[Point2, ...]
    ribs: tuple[Stacked, ...]

    @property
    def worst(self) -> Stacked:
        """The rib that leaves the loft most."""
        return max(self.ribs, key=lambda one: one.excess)


@dataclass(frozen=True, slots=True)
class Trimmed:
    """One rib of those that are all cut to the root section and trimmed in place.

    Attributes
    ----------
    trim : float
        What is cut off its nose, measured from the rear datum, mm.
    notches : tuple of (spar, float)
        How deep each notch is cut so that a straight spar lies in all of them, mm.
    sanding : float
        The most wood that is left to sand down to the true loft, mm.
    lacking : float
        Where the root section is too thin: the most that is missing, mm; else 0.
    """

    y: float
    trim: float
    notches: tuple[tuple[str, float], ...]
    sanding: float
    lacking: float


def stack_of(surface: TailSurface, profiles: Profiles) -> Stack:
    """Blanks between root and tip template, stood at even distances, as a stack stands.

    A flat block sands until it touches both templates: what it leaves is the mix of both outlines at
    equal slopes (their Minkowski sum), which lies on or over the mix at equal shares of the chord.

    Raises
    ------
    BadInput
        When a figure or a section is missing.
    """
    loft = loft_of_tail(surface, profiles)
    places = rib_places(surface)
    first, last = loft.rib(places[0]), loft.rib(places[-1])
    count = len(places)
    between = _Between(first.outline, last.outline)
    ribs = [
        between.left(loft, y, i / (count - 1) if count > 1 else 0.0) for i, y in enumerate(places)
    ]
    left = (first, last)
    size = (
        max(rib.chord for rib in left) + 2 * _SPARE_MM,
        max(float(np.ptp([z for _, z in rib.outline])) for rib in left) + 2 * _SPARE_MM,
    )
    blanks = count if surface.upright else 2 * count - (places[0] == 0)
    return Stack(blanks, size, first.outline, last.outline, tuple(ribs))


class _Between:
    """What a flat block can reach between two templates.

    The mix of two convex outlines has no other sides than those of the two: its faces are theirs, each at
    the mix of both supports.
    """

    def __init__(self, root: tuple[Point2, ...], tip: tuple[Point2, ...]) -> None:
        hulls = [np.array(convex_hull(ring)) for ring in (root, tip)]
        self._ways = np.vstack([_normals(hull)[0] for hull in hulls])
        self._supports = [np.max(self._ways @ hull.T, axis=1) for hull in hulls]

    def left(self, loft: TailLoft, y: float, share: float) -> Stacked:
        """What stands proud of the loft at `y`: how far a point of the true outline can be moved outward.

        Square to the outline, until a face of the mix stops it; `share` is 0 at the root and 1 at the tip.
        """
        normals, points = _normals(np.array(convex_hull(loft.rib(y).outline)))
        support = (1 - share) * self._supports[0] + share * self._supports[1]
        along = normals @ self._ways.T
        away = support - points @ self._ways.T
        reach = np.full_like(along, np.inf)
        np.divide(away, along, out=reach, where=along > _FACING)
        room = reach.min(axis=1)
        worst = int(np.argmax(room))
        at = (float(points[worst][0]), float(points[worst][1]))
        return Stacked(y, max(float(room[worst]), 0.0), at)


def _normals(hull: Array) -> tuple[Array, Array]:
    """Outward normals at the middle of each side of a ring that runs counter-clockwise."""
    following = np.roll(hull, -1, axis=0)
    run = following - hull
    size = np.hypot(run[:, 0], run[:, 1])
    kept = size > 1e-6  # noqa: PLR2004  mm
    normals = np.column_stack([run[:, 1], -run[:, 0]])[kept] / size[kept][:, None]
    return normals, ((hull + following) / 2)[kept]


def trimmed_of(surface: TailSurface, profiles: Profiles) -> tuple[Trimmed, ...]:
    """Every rib cut to the root section, its rear end on the rear datum, its nose trimmed off.

    Raises
    ------
    BadInput
        When a figure or a section is missing.
    """
    loft = loft_of_tail(surface, profiles)
    root = loft.rib(0.0)
    found = []
    for y in rib_places(surface):
        rib = loft.rib(y)
        trim = root.chord - rib.chord
        x = np.linspace(0.02 * rib.chord, 0.99 * rib.chord, 200)
        top, low = rib.heights(x)
        over, under = root.heights(x + trim)
        spare = np.concatenate([over - top, low - under])
        notches = []
        for spar in surface.spars:
            if spar.face == "middle":
                continue
            at = spar_x(surface, spar.at_chord, y) - rib.le_x
            deep = spar_size(spar, y / surface.half)[1]
            side = 0 if spar.face == "top" else 1
            true = float(rib.heights(at)[side])
            there = float(root.heights(at + trim)[side])
            floor = true - deep if side == 0 else true + deep
            notches.append((spar.id, abs(there - floor)))
        found.append(
            Trimmed(
                y, trim, tuple(notches), max(float(spare.max()), 0.0), max(float(-spare.min()), 0.0)
            )
        )
    return tuple(found)


def even_in_stack(surface: TailSurface) -> float:
    """By how much the ribs stand away from even distances, the most, mm: a stack stands even."""
    places = np.array(rib_places(surface))
    if len(places) < 3:  # noqa: PLR2004  two are always even
        return 0.0
    even = np.linspace(places[0], places[-1], len(places))
    off = float(np.max(np.abs(places - even)))
    return off if math.isfinite(off) else 0.0
