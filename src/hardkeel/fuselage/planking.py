"""Planks over round sections: how many, how wide at each former, which run out, how they bend, in what order they are laid."""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from typing import Final, Literal

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.fuselage.contours import bare, half_of
from hardkeel.fuselage.model import Former, Fuselage, Planking
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.spline import weights
from hardkeel.joinery.flat import FlatPiece, Mark

Side = Literal["port", "starboard"]
SIDES: Final[tuple[Side, Side]] = ("port", "starboard")
_NARROWEST: Final = 0.5  # of a strip's width: below it a plank is hard to cut and splits; the next one is better left out
_HAIR: Final = 1e-6
_NODES: Final = 8
_NUDGE_MM: Final = 0.05
_SAMPLES: Final = 12  # between two formers, for how a plank bends


@dataclass(frozen=True, slots=True)
class Plank:
    """One plank.

    Attributes
    ----------
    id : str
        ``P1`` to port, ``S1`` to starboard, numbered from the keel up.
    widths : tuple of (former, mm)
        Along the outside contour; none where it has run out.
    bevels : tuple of (former, degrees)
        Of its upper edge against a square one, so that it lies to the next: half of the turn between both.
    places : tuple of (former, mm)
        Where formers lie along its middle, from the first that it reaches.
    length : float
        Along its middle, mm.
    area : float
        As it lies, tapered, mm².
    edgewise : float
        The most strain that bending it on edge takes, percent.
    at : float
        Station of that, mm.
    """

    id: str
    side: Side
    number: int
    widths: tuple[tuple[str, float], ...]
    bevels: tuple[tuple[str, float], ...]
    places: tuple[tuple[str, float], ...]
    length: float
    area: float
    edgewise: float
    at: float


@dataclass(frozen=True, slots=True)
class Planked:
    """The planking of a fuselage.

    Attributes
    ----------
    planks : tuple of Plank
        In the order in which they are laid: from the keel up, port and starboard turn about.
    formers : tuple of str
    stealers : tuple of int
        Numbers of the planks that run out.
    ends : tuple of (former, points)
        Where edges lie on the starboard contour, from the keel's edge to the crown, mm.
    reaching : tuple of (former, numbers)
        The planks that reach it, from the keel up; each ends at the edge behind its own.
    """

    planks: tuple[Plank, ...]
    formers: tuple[str, ...]
    stealers: tuple[int, ...]
    ends: tuple[tuple[str, tuple[tuple[float, float], ...]], ...]
    reaching: tuple[tuple[str, tuple[int, ...]], ...]


def planked_between(fuselage: Fuselage) -> tuple[Former, ...]:
    """The formers that are planked, by station; none without planking.

    Raises
    ------
    BadInput
        When it names no former, or ends before it begins.
    """
    planking = fuselage.framed.planking
    if planking is None:
        return ()
    ends = [fuselage.former(name) for name in (planking.from_, planking.to)]
    for name, one in zip((planking.from_, planking.to), ends, strict=True):
        if one is None:
            raise BadInput("fuselage.framing.planking", f'names no former "{name}"')
    first, last = (one.station for one in ends if one is not None)
    if last <= first:
        raise BadInput("fuselage.framing.planking", "ends where it begins, or before")
    ordered = sorted(fuselage.formers, key=lambda one: one.station)
    return tuple(one for one in ordered if first <= one.station <= last)


def is_planked(fuselage: Fuselage, former: Former) -> bool:
    """Whether planks lie on a former."""
    planking = fuselage.framed.planking
    if planking is None:
        return False
    return any(one.id == former.id for one in planked_between(fuselage))


def planked_length(fuselage: Fuselage) -> float:
    """How much of a fuselage lies under planks, and so under no sheet, mm."""
    formers = planked_between(fuselage)
    return formers[-1].station - formers[0].station if formers else 0.0


def planks_of(fuselage: Fuselage) -> Planked:
    """The planks of a fuselage; none without planking.

    As many as the widest girth wants of strips as they are bought.  Each former shares its half girth evenly among
    the planks that reach it; where they would be narrower than half a strip some run out, the middle ones first: one
    wider in their place is a stealer's.  One that has run out does not come back.

    Raises
    ------
    BadInput
        When the planking names no former, or the keel leaves nothing to plank.
    """
    planking = fuselage.framed.planking
    formers = planked_between(fuselage)
    if planking is None or len(formers) < 2:  # noqa: PLR2004  a plank has a length
        return Planked((), (), (), (), ())
    return _planks(planking, tuple(bare(one) for one in formers))


@lru_cache(maxsize=16)
def _planks(planking: Planking, formers: tuple[Former, ...]) -> Planked:
    halves = [half_of(one) for one in formers]
    girths = [_arc(half)[-1] - planking.keel_width / 2 for half in halves]
    if min(girths) <= 0:
        narrow = formers[int(np.argmin(girths))].id
        raise BadInput("fuselage.framing.planking", f"the keel leaves nothing to plank at {narrow}")
    most = max(_least(girth, planking) for girth in girths)
    counts = _counts(girths, most, planking)
    order = _last_to_go(most)
    there = [sorted(order[:count]) for count in counts]
    made = _Laid(planking, formers, halves, girths, there)
    planks = tuple(plank for number in range(1, most + 1) for plank in made.pair(number))
    stealers = tuple(n for n in range(1, most + 1) if any(n not in one for one in there))
    ends = tuple(
        (former.id, tuple((float(y), float(z)) for y, z in made.edges(i)))
        for i, former in enumerate(formers)
    )
    names = tuple(one.id for one in formers)
    reaching = tuple((name, tuple(numbers)) for name, numbers in zip(names, there, strict=True))
    return Planked(planks, names, stealers, ends, reaching)


def _least(girth: float, planking: Planking) -> int:
    return math.ceil(girth / planking.width - _HAIR)


def _counts(girths: list[float], most: int, planking: Planking) -> list[int]:
    """How many planks reach each former: all at the widest, never more again further out."""
    needed = [_least(girth, planking) for girth in girths]
    fits = [
        min(most, max(need, math.floor(girth / (_NARROWEST * planking.width) + _HAIR)))
        for need, girth in zip(needed, girths, strict=True)
    ]
    counts, widest = list(fits), int(np.argmax(girths))
    counts[widest] = most
    for way in (range(widest + 1, len(girths)), range(widest - 1, -1, -1)):
        further = list(way)
        for place, i in enumerate(further):
            before = i - 1 if i > widest else i + 1
            beyond = max(needed[j] for j in further[place:])
            counts[i] = max(min(fits[i], counts[before]), beyond)
    return counts


def _last_to_go(most: int) -> list[int]:
    """Numbers from the one that stays longest: next to keel and crown first, the middle runs out first."""
    middle = (most + 1) / 2
    return sorted(range(1, most + 1), key=lambda number: (-abs(number - middle), number))


class _Laid:
    """Planks as they lie on the formers."""

    def __init__(
        self,
        planking: Planking,
        formers: tuple[Former, ...],
        halves: list[Array],
        girths: list[float],
        there: list[list[int]],
    ) -> None:
        self._planking, self._formers, self._halves = planking, formers, halves
        self._there, self._girths = there, girths
        self._arcs = [_arc(half) for half in halves]
        self._edges: dict[int, Array] = {}
        self._turns: dict[int, Array] = {}
        self._mid: dict[int, tuple[Array, Array]] = {}

    def edges(self, i: int) -> Array:
        """Where planks' edges lie on the starboard contour of former i, shape (k, 2)."""
        if i not in self._edges:
            count = len(self._there[i])
            along = self._planking.keel_width / 2 + np.arange(count + 1) * self._girths[i] / count
            self._edges[i] = self._at(i, along)
        return self._edges[i]

    def pair(self, number: int) -> Iterator[Plank]:
        """A plank to port, then its like to starboard."""
        reached = [i for i, there in enumerate(self._there) if number in there]
        widths = tuple(
            (self._formers[i].id, float(self._girths[i] / len(self._there[i]))) for i in reached
        )
        bevels = tuple(
            (self._formers[i].id, float(self._bevels(i)[self._there[i].index(number)]))
            for i in reached
        )
        along, strain, at = self._run(reached, number)
        length = along[-1]
        places = tuple((self._formers[i].id, run) for i, run in zip(reached, along, strict=True))
        stations = [self._formers[i].station for i in reached]
        over = np.trapezoid([wide for _, wide in widths], stations)
        area = float(over) * length / (stations[-1] - stations[0]) if length else 0.0
        for side in SIDES:
            name = f"{side[0].upper()}{number}"
            yield Plank(name, side, number, widths, bevels, places, length, area, strain, at)

    def _at(self, i: int, along: Array) -> Array:
        arc, half = self._arcs[i], self._halves[i]
        return np.column_stack([np.interp(along, arc, half[:, k]) for k in (0, 1)])

    def _bevels(self, i: int) -> Array:
        """Half of the turn from each plank's chord to the next one's; at the crown both sides meet."""
        if i not in self._turns:
            edges = self.edges(i)
            chords = np.diff(np.vstack([edges, edges[-2:-1] * (-1.0, 1.0)]), axis=0)
            angles = np.arctan2(chords[:, 1], chords[:, 0])
            turns = (np.diff(angles) + np.pi) % (2 * np.pi) - np.pi
            self._turns[i] = np.degrees(turns) / 2
        return self._turns[i]

    def _middles(self, i: int) -> tuple[Array, Array]:
        """The middles of all planks at a former, and which way the contour runs there, shape (k, 2) each."""
        if i not in self._mid:
            count = len(self._there[i])
            share = self._girths[i] / count
            along = np.asarray(
                self._planking.keel_width / 2 + (np.arange(count) + 0.5) * share, dtype=np.float64
            )
            across = self._at(i, along + _NUDGE_MM) - self._at(i, along - _NUDGE_MM)
            self._mid[i] = self._at(i, along), across
        return self._mid[i]

    def _run(self, reached: list[int], number: int) -> tuple[list[float], float, float]:
        """Length along its middle to each former, the most strain on edge, and where: its curvature in the surface."""
        stations = np.array([self._formers[i].station for i in reached])
        if len(reached) < 2:  # noqa: PLR2004  it dies at one former
            return [0.0], 0.0, float(stations[0])
        rows = [(*self._middles(i), self._there[i].index(number)) for i in reached]
        points = np.array([middles[place] for middles, _, place in rows])
        across = np.array([ways[place] for _, ways, place in rows])
        knots = tuple(stations.tolist())
        x, quadrature, steps = _places(knots)
        # with the slopes' weights the length is one product for each plank
        pace = np.sqrt(1 + np.sum((weights(knots, quadrature, 1) @ points) ** 2, axis=1))
        runs = (steps * pace).reshape(-1, _NODES).sum(axis=1)
        along = [0.0, *np.cumsum(runs).tolist()]
        ones = np.ones((len(x), 1))
        slope = np.hstack([ones, weights(knots, x, 1) @ points])
        bend = np.hstack([0 * ones, weights(knots, x, 2) @ points])
        way = np.hstack(
            [0 * ones, np.column_stack([np.interp(x, stations, across[:, k]) for k in (0, 1)])]
        )
        way /= np.maximum(np.linalg.norm(way, axis=1), 1e-12)[:, None]
        # along the surface and square to the plank: what of its bend lies there is bent on edge
        tangent = slope / np.linalg.norm(slope, axis=1)[:, None]
        way -= tangent * np.sum(way * tangent, axis=1)[:, None]
        way /= np.maximum(np.linalg.norm(way, axis=1), 1e-12)[:, None]
        curved = np.abs(np.sum(bend * way, axis=1)) / np.sum(slope**2, axis=1)
        wide = np.interp(x, stations, [self._girths[i] / len(self._there[i]) for i in reached])
        strain = 100 * curved * wide / 2
        worst = int(np.argmax(strain))
        return along, float(strain[worst]), float(x[worst])


@lru_cache(maxsize=64)
def _places(knots: tuple[float, ...]) -> tuple[tuple[float, ...], tuple[float, ...], Array]:
    """Where a plank's bend is looked at, where its length is summed, and with what weights (Gauss and Legendre)."""
    x = np.linspace(knots[0], knots[-1], _SAMPLES * (len(knots) - 1) + 1)
    nodes, shares = np.polynomial.legendre.leggauss(_NODES)
    half = np.diff(knots) / 2
    middle = np.array(knots[:-1]) + half
    places = (middle[:, None] + half[:, None] * nodes).ravel()
    return tuple(x.tolist()), tuple(places.tolist()), (half[:, None] * shares).ravel()


def _arc(half: Array) -> Array:
    """Along a half contour from the keel, shape (k,), mm."""
    found: Array = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(half, axis=0).T))])
    return found


def plank_drawings(fuselage: Fuselage) -> tuple[FlatPiece, ...]:
    """Planks at full size, straight about their middle, with the formers across them; none where that is not wanted.

    One of each hand is the other's like: each is drawn once.
    """
    planking = fuselage.framed.planking
    if planking is None or not planking.full_size:
        return ()
    found = []
    for plank in planks_of(fuselage).planks:
        if plank.side != "starboard" or plank.length <= 0:
            continue
        rows = [
            (along, wide / 2)
            for (_, along), (_, wide) in zip(plank.places, plank.widths, strict=True)
        ]
        upper, lower = rows, [(along, -half) for along, half in reversed(rows)]
        marks = tuple(
            Mark("station", ((along, -half), (along, half)), name)
            for (name, along), (_, half) in zip(plank.places, rows, strict=True)
        )
        found.append(
            FlatPiece(
                name=f"plank {plank.number}",
                kind="plank",
                part="planking",
                outline=(*lower, *upper),
                marks=marks,
                thickness=planking.thickness,
                material=planking.material,
                quantity=2,
                grain="u",
            )
        )
    return tuple(found)
