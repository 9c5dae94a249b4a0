"""Ribs as they are cut: stock, skin, hinge line, notches and tubes taken off the loft exactly.

A rib's plane: x aft from its own leading edge, z up, mm.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Final

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.geometry.hull import Point2
from hardkeel.geometry.polygons import BaseGeometry, shapely
from hardkeel.joinery.flat import FlatPiece, Mark, open_ring, sound
from hardkeel.tail.lofting import LoftedRib, Profiles, TailLoft, loft_of_tail, rib_places
from hardkeel.tail.model import TailSpar, TailSurface, Tube
from hardkeel.tail.planform import planform_of, straight_chord, straight_lead

_FAR: Final = 1e4
_HAIR: Final = 1e-9
_ROUND_SIDES: Final = 32  # a quarter of a tube's hole
_FOOT_WIDE: Final = 8.0
_FOOT_AT: Final = (
    0.2,
    0.75,
)  # of what is there of the rib: clear of notches, far enough apart to stand
_SMALLEST_MM2: Final = 1.0
_DOUBLER_WOOD: Final = "light-ply"


@dataclass(frozen=True, slots=True)
class Notch:
    """Where a spar is let in.

    Attributes
    ----------
    x : (float, float)
        Its walls, aft of the rib's leading edge.
    floor : float
        Height of its floor; floors of one spar lie on one straight line in space.
    depth : float
        From the face of the wood down to the floor, at the spar's middle.
    """

    spar: str
    face: str
    x: tuple[float, float]
    floor: float
    depth: float


@dataclass(frozen=True)
class CutRib:
    """A rib with what is taken off it.

    Attributes
    ----------
    fixed, moving : tuple of ring
        The wood ahead of the hinge line, and behind it (empty without one); the largest part first.
    holes : tuple of ring
        Of tubes that go through.
    feet : tuple of ring
        Tabs that hold it over the board, to be broken off.
    """

    lofted: LoftedRib
    fixed: tuple[tuple[Point2, ...], ...]
    moving: tuple[tuple[Point2, ...], ...]
    holes: tuple[tuple[Point2, ...], ...]
    notches: tuple[Notch, ...]
    feet: tuple[tuple[Point2, ...], ...] = ()
    half: bool = False


def hinge_x(surface: TailSurface, y: float) -> float | None:
    """The hinge line at y, aft of the root's leading edge; straight from root to tip.  ``None`` without one."""
    if surface.hinge_at_chord is None:
        return None
    if surface.outline:
        planform = planform_of(surface)
        return float(planform.leading(0.0)) + surface.hinge_at_chord * float(planform.chord(0.0))
    lead, chord = straight_lead(surface, y), straight_chord(surface, y)
    return float(lead + surface.hinge_at_chord * chord)


def spar_x(surface: TailSurface, at_chord: float, y: float) -> float:
    """The middle of a spar at y, aft of the root's leading edge; straight from root to tip."""
    if surface.outline:
        planform = planform_of(surface)
        ends = [
            float(planform.leading(e)) + at_chord * float(planform.chord(e))
            for e in (0.0, 0.8 * planform.half)
        ]
        return ends[0] + (ends[1] - ends[0]) * y / (0.8 * planform.half)
    return float(straight_lead(surface, y) + at_chord * straight_chord(surface, y))


def tube_x(surface: TailSurface, tube: Tube) -> float:
    """A tube's middle, aft of the root's leading edge: it goes straight through, square to the keel line."""
    return spar_x(surface, tube.at_chord, 0.0)


def spar_size(spar: TailSpar, share: float) -> tuple[float, float]:
    """Width and depth at a share of the half span."""
    tip = spar.tip_section or spar.section
    return (
        spar.section[0] + share * (tip[0] - spar.section[0]),
        spar.section[1] + share * (tip[1] - spar.section[1]),
    )


def cut_ribs(surface: TailSurface, profiles: Profiles, place: str = "") -> tuple[CutRib, ...]:
    """Every rib of one half, from the middle out; half ribs behind the rib that they follow.

    Raises
    ------
    BadInput
        When a section is missing, or stock leaves no wood of a rib.
    """
    names = (surface.root_profile, surface.tip_profile)
    texts = tuple((name, profiles[name]) for name in names if name and name in profiles)
    return _cut_ribs(surface.model_copy(update={"flatness": ()}), texts, place)


@lru_cache(maxsize=32)
def _cut_ribs(
    surface: TailSurface, texts: tuple[tuple[str, str], ...], place: str
) -> tuple[CutRib, ...]:
    loft = loft_of_tail(surface, dict(texts), place)
    places = rib_places(surface)
    floors = {spar.id: _Floor(loft, spar, places) for spar in surface.spars}
    found: list[CutRib] = []
    for i, y in enumerate(places):
        found.append(_cut(loft, y, floors, place or f"tail {surface.id}"))
        if surface.half_ribs and i + 1 < len(places) and surface.spars:
            found.append(_half_rib(loft, (y + places[i + 1]) / 2, floors, place))
    return tuple(found)


class _Floor:
    """A spar's notch floor: a straight line in space between the first rib and the last it passes."""

    def __init__(self, loft: TailLoft, spar: TailSpar, places: Sequence[float]) -> None:
        self.loft, self.spar = loft, spar
        reached = [y for y in places if self._passes(y)]
        self.ends = (reached[0], reached[-1]) if reached else (0.0, 0.0)
        self._at = tuple(self._wanted(y) for y in self.ends) if reached else (0.0, 0.0)
        self._any = bool(reached)

    def reaches(self, y: float) -> bool:
        """Whether the spar passes a place."""
        return self._any and self.ends[0] - _HAIR <= y <= self.ends[1] + _HAIR

    def middle(self, y: float) -> float:
        """The spar's middle in the rib's own plane."""
        lead = float(self.loft.planform.leading(y))
        return spar_x(self.loft.surface, self.spar.at_chord, y) - lead

    def _passes(self, y: float) -> bool:
        wide = spar_size(self.spar, y / self.loft.surface.half)[0]
        at, chord = self.middle(y), float(self.loft.planform.chord(y))
        return wide / 2 < at < chord - wide / 2

    def face(self, y: float) -> float:
        """The wood's face at the spar's middle: the loft less the skin, taken square to the surface."""
        rib, x = self.loft.rib(y), self.middle(y)
        top, low = (float(one) for one in rib.heights(x))
        if self.spar.face == "middle":
            return (top + low) / 2
        line = rib.upper if self.spar.face == "top" else rib.lower
        step = 0.005 * rib.chord
        rise = float(
            np.interp(x + step, line[:, 0], line[:, 1])
            - np.interp(x - step, line[:, 0], line[:, 1])
        )
        skin = self.loft.surface.covered(y) * math.hypot(1.0, rise / (2 * step))
        return top - skin if self.spar.face == "top" else low + skin

    def _wanted(self, y: float) -> float:
        deep = spar_size(self.spar, y / self.loft.surface.half)[1]
        if self.spar.face == "middle":
            return self.face(y) - deep / 2
        return self.face(y) - deep if self.spar.face == "top" else self.face(y) + deep

    def height(self, y: float) -> float:
        """The floor at y."""
        a, b = self.ends
        share = (y - a) / (b - a) if b > a else 0.0
        return self._at[0] + share * (self._at[1] - self._at[0])

    def notch(self, y: float) -> Notch:
        """The notch of the rib at y."""
        wide, deep = spar_size(self.spar, y / self.loft.surface.half)
        x, floor = self.middle(y), self.height(y)
        depth = deep if self.spar.face == "middle" else abs(self.face(y) - floor)
        return Notch(self.spar.id, self.spar.face, (x - wide / 2, x + wide / 2), floor, depth)

    def taken(self, notch: Notch) -> BaseGeometry:
        """What is cut out of the rib."""
        if notch.face == "middle":
            return shapely.box(notch.x[0], notch.floor, notch.x[1], notch.floor + notch.depth)
        low, high = (notch.floor, _FAR) if notch.face == "top" else (-_FAR, notch.floor)
        return shapely.box(notch.x[0], low, notch.x[1], high)


def _within(surface: TailSurface, rib: LoftedRib) -> BaseGeometry:
    """The rib between its stock, inside its skin."""
    whole = rib.polygon
    skin = surface.covered(rib.y)
    if skin:
        whole = whole.buffer(-skin, join_style="mitre", mitre_limit=10)
    front = surface.leading_edge[0] if surface.leading_edge is not None else -_FAR
    rear = surface.trailing_edge[0] if surface.trailing_edge is not None else -_FAR
    turned = math.cos(math.radians(surface.washout * rib.y / surface.half))
    end = float(rib.upper[-1, 0]) if turned < 1 else rib.chord
    if front >= end - rear:
        return shapely.Polygon()
    return whole.intersection(shapely.box(front, -_FAR, end - rear, _FAR))


def _cut(loft: TailLoft, y: float, floors: dict[str, _Floor], place: str) -> CutRib:
    surface, rib = loft.surface, loft.rib(y)
    wood = _within(surface, rib)
    if wood.is_empty or wood.area < _SMALLEST_MM2:
        raise BadInput(
            f"{place}.ribs",
            f"leave no wood at {y:g} mm: edge stock and skin are larger than the rib",
        )
    notches = tuple(floors[s.id].notch(y) for s in surface.spars if floors[s.id].reaches(y))
    taken = [floors[notch.spar].taken(notch) for notch in notches]
    holes = [
        _hole(surface, rib, tube)
        for tube in surface.tubes
        if y <= tube.length / 2 and 0 < tube_x(surface, tube) - rib.le_x < rib.chord
    ]
    left = wood.difference(shapely.union_all(taken)) if taken else wood
    hinge = hinge_x(surface, y)
    if hinge is None:
        fixed, moving = left, shapely.Polygon()
    else:
        controls = surface.controls
        gap = controls.gap if controls is not None else 0.0
        edge = surface.hinge_edge or 0.0
        at = hinge - rib.le_x
        fixed = left.intersection(shapely.box(-_FAR, -_FAR, at - gap / 2 - edge, _FAR))
        moving = left.intersection(shapely.box(at + gap / 2 + edge, -_FAR, _FAR, _FAR))
        if controls is not None and y < controls.inner - _HAIR:
            moving = shapely.Polygon()
    feet = _feet(surface, fixed) if surface.feet else ()
    return CutRib(rib, _rings(fixed), _rings(moving), tuple(holes), notches, feet)


def _half_rib(loft: TailLoft, y: float, floors: dict[str, _Floor], place: str) -> CutRib:
    """A rib from the leading edge to the front wall of the foremost spar."""
    surface = loft.surface
    whole = _cut(loft, y, floors, place)
    end = min(notch.x[0] for notch in whole.notches) if whole.notches else whole.lofted.chord / 3
    wood = _within(surface, whole.lofted).intersection(shapely.box(-_FAR, -_FAR, end, _FAR))
    return CutRib(whole.lofted, _rings(wood), (), (), (), half=True)


def _rings(shape: BaseGeometry) -> tuple[tuple[Point2, ...], ...]:
    parts = [
        one
        for one in shapely.get_parts(shape)
        if one.geom_type == "Polygon" and one.area > _SMALLEST_MM2
    ]
    parts.sort(key=lambda one: -one.area)
    return tuple(
        tuple(map(tuple, shapely.get_coordinates(one.exterior)[:-1].tolist())) for one in parts
    )


def _hole(surface: TailSurface, rib: LoftedRib, tube: Tube) -> tuple[Point2, ...]:
    x = tube_x(surface, tube) - rib.le_x
    top, low = (float(one) for one in rib.heights(x))
    circle = shapely.Point(x, (top + low) / 2).buffer(tube.diameter / 2, quad_segs=_ROUND_SIDES)
    return open_ring(circle.exterior.coords)


def _feet(surface: TailSurface, wood: BaseGeometry) -> tuple[tuple[Point2, ...], ...]:
    """Two tabs down to the board, which lies `feet` under the chord line of every rib."""
    if wood.is_empty:
        return ()
    left, _, right, _ = wood.bounds
    found = []
    for share in _FOOT_AT:
        x = left + share * (right - left)
        strip = shapely.box(x - _FOOT_WIDE / 2, -surface.feet, x + _FOOT_WIDE / 2, 0.0)
        below = strip.difference(wood)
        reach = [one for one in shapely.get_parts(below) if one.geom_type == "Polygon"]
        lowest = [one for one in reach if one.bounds[1] <= -surface.feet + _HAIR]
        if lowest:
            found.append(open_ring(lowest[0].exterior.coords))
    return tuple(found)


def rib_pieces(surface: TailSurface, profiles: Profiles) -> tuple[FlatPiece, ...]:
    """Every rib as flat pieces for sheet: one of each hand, but for those in the middle and a fin's."""
    pieces: list[FlatPiece] = []
    number = 0
    for rib in cut_ribs(surface, profiles):
        number += not rib.half
        name = f"{surface.id} rib {number}" + (" half" if rib.half else "")
        once = surface.upright or rib.lofted.y < _HAIR
        for kind, rings in (("rib", rib.fixed), ("control rib", rib.moving)):
            for i, ring in enumerate(rings):
                words = name if kind == "rib" else f"{name} control"
                words = words if len(rings) == 1 else f"{words} {'abc'[min(i, 2)]}"
                pieces.append(_piece(surface, rib, words, kind, ring, once=once))
                if kind == "rib" and not rib.half and number <= surface.doubled_ribs:
                    doubler = _piece(
                        surface, rib, f"{words} doubler", "rib doubler", ring, once=once
                    )
                    wood = surface.doubler_material or _DOUBLER_WOOD
                    pieces.append(replace(doubler, thickness=surface.doubler, material=wood))
    return tuple(pieces)


@dataclass(frozen=True, slots=True)
class StockHeights:
    """How high edge stock must be where it stands: the section there, inside what covers it, mm.

    Attributes
    ----------
    edge : str
        ``leading_edge`` or ``trailing_edge``.
    root, tip : float
        At the first rib and at the last, at the face that the ribs are glued to.
    """

    edge: str
    root: float
    tip: float


def stock_heights(surface: TailSurface, profiles: Profiles) -> tuple[StockHeights, ...]:
    """The heights that edge stock wants.

    Raises
    ------
    BadInput
        When a section is missing.
    """
    places = rib_places(surface)
    if not places:
        return ()
    loft = loft_of_tail(surface, profiles)
    found = []
    for edge in ("leading_edge", "trailing_edge"):
        stock = getattr(surface, edge)
        if stock is None:
            continue
        heights = []
        for y in (places[0], places[-1]):
            rib = loft.rib(y)
            x = stock[0] if edge == "leading_edge" else rib.chord - stock[0]
            top, low = (float(one) for one in rib.heights(x))
            heights.append(max(top - low - 2 * surface.covered(y), 0.0))
        found.append(StockHeights(edge, heights[0], heights[1]))
    return tuple(found)


def _piece(
    surface: TailSurface, rib: CutRib, name: str, kind: str, ring: tuple[Point2, ...], *, once: bool
) -> FlatPiece:
    wood = shapely.Polygon(ring)
    holes = [hole for hole in rib.holes if wood.contains(shapely.Polygon(hole))]
    feet = [shapely.Polygon(foot) for foot in rib.feet] if kind == "rib" else []
    marks = [Mark("centre", ((wood.bounds[0], 0.0), (wood.bounds[2], 0.0)))]
    if feet:
        touching = [foot for foot in feet if foot.distance(wood) < 1e-6]  # noqa: PLR2004  a common edge
        marks += [Mark("drawn", tuple(_edge(wood, foot))) for foot in touching]
        wood = sound(shapely.union_all([wood, *(foot.buffer(1e-4) for foot in touching)]))
    outline = open_ring(wood.exterior.coords)
    return FlatPiece(
        name=name,
        kind=kind,
        part=surface.id,
        outline=outline,
        holes=tuple(holes),
        marks=tuple(mark for mark in marks if len(mark.points) > 1),
        thickness=surface.rib_thickness,
        material=surface.material,
        quantity=1 if once else 2,
        grain="u",
    )


def _edge(wood: BaseGeometry, foot: BaseGeometry) -> list[Point2]:
    """Where a foot is broken off."""
    line = foot.exterior.intersection(wood.buffer(1e-6))
    points = [(float(x), float(z)) for x, z in shapely.get_coordinates(line)]
    return [min(points), max(points)] if points else []
