"""What wing and tail rest on, and how high over it: so that a changed fuselage leaves none behind unnoticed."""

from dataclasses import dataclass
from typing import Final

from hardkeel.balance.model import Wing
from hardkeel.fuselage.loft import loft_of
from hardkeel.project.model import Build
from hardkeel.tail.model import TailSurface, stands_on_fin

_NEAR: Final = 0.3  # of the depth, from top or bottom: a wing that lies there rests on it
_OVER: Final = 0.25  # of the depth: what stands further off rests on nothing of the fuselage
_SEEN_MM: Final = 0.5
TOP, BOTTOM, MIDDLE = "top", "bottom", "middle"


@dataclass(frozen=True, slots=True)
class Rest:
    """What a surface rests on.

    Attributes
    ----------
    on : str
        ``top``, ``bottom`` or ``middle`` of the fuselage, or the id of a tail surface.
    over : float
        How high the middle of its root chord lies over that, mm; negative is inside.
    """

    on: str
    over: float


@dataclass(frozen=True, slots=True)
class LeftBehind:
    """A surface that stayed where it was when what it rests on changed.

    Attributes
    ----------
    by : float
        How far it must go up to rest as it did, mm.
    over : float
        How high it now lies over what it rests on, mm; negative is inside.
    former : str
        The former nearest to the middle of its root; empty where it rests on no fuselage.
    """

    surface: str
    on: str
    by: float
    over: float
    former: str


def surfaces(build: Build) -> list[Wing | TailSurface]:
    """Wings and tail surfaces."""
    return [*build.wings, *build.tail]


def rests_of(build: Build) -> dict[str, Rest]:
    """What each wing and tail surface rests on as it is drawn now; those that rest on nothing are left out."""
    found = {}
    for surface in surfaces(build):
        on = _chosen(build, surface)
        base = base_of(build, surface.id, on) if on else None
        if base is not None and surface.z is not None:
            found[surface.id] = Rest(on, surface.z - base)
    return found


def left_behind(build: Build, rested: dict[str, Rest]) -> tuple[LeftBehind, ...]:
    """The surfaces that do not rest any more as `rested` tells of them."""
    found = []
    for surface in surfaces(build):
        was = rested.get(surface.id)
        base = base_of(build, surface.id, was.on) if was is not None else None
        if was is None or base is None or surface.z is None:
            continue
        by = round(base + was.over - surface.z, 1)
        if abs(by) >= _SEEN_MM:
            former = _former(build, surface) if was.on in (TOP, BOTTOM, MIDDLE) else ""
            found.append(LeftBehind(surface.id, was.on, by, surface.z - base, former))
    return tuple(found)


def base_of(build: Build, surface_id: str, on: str) -> float | None:
    """The height of what a surface rests on, at the middle of its root chord, mm; ``None`` where that is not there."""
    surface = next((one for one in surfaces(build) if one.id == surface_id), None)
    x = _middle(surface) if surface is not None else None
    if x is None:
        return None
    other = next((one for one in build.tail if one.id == on), None)
    if other is not None:
        if other.z is None or other.span is None:
            return None
        return other.z + other.span / 2 if other.upright else other.z
    fuselage = build.fuselage
    if fuselage is None or len(fuselage.stations) < 2:  # noqa: PLR2004  no loft
        return None
    loft = loft_of(fuselage)
    if not loft.stations[0] <= x <= loft.stations[-1]:
        return None
    figures = loft.figures(x)
    top, bottom = figures["top"], figures["bottom"]
    return {TOP: top, BOTTOM: bottom, MIDDLE: (top + bottom) / 2}.get(on)


def _chosen(build: Build, surface: Wing | TailSurface) -> str:
    """What it rests on, by where it lies."""
    if isinstance(surface, TailSurface):
        for other in build.tail:
            if other.id != surface.id and stands_on_fin(surface, other):
                return other.id
        if surface.upright and surface.y:  # at the ends of what lies
            return next((one.id for one in build.tail if not one.upright), "")
    top, bottom = (base_of(build, surface.id, on) for on in (TOP, BOTTOM))
    if top is None or bottom is None or surface.z is None or top <= bottom:
        return ""
    share = (surface.z - bottom) / (top - bottom)
    if not -_OVER <= share <= 1 + _OVER:
        return ""
    return TOP if share > 1 - _NEAR else BOTTOM if share < _NEAR else MIDDLE


def _middle(surface: Wing | TailSurface) -> float | None:
    if surface.le_x is None or surface.root_chord is None:
        return None
    return surface.le_x + surface.root_chord / 2


def _former(build: Build, surface: Wing | TailSurface) -> str:
    x, fuselage = _middle(surface), build.fuselage
    if x is None or fuselage is None or not fuselage.formers:
        return ""
    return min(fuselage.formers, key=lambda one: abs(one.station - x)).id
