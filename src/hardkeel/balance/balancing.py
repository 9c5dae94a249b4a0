"""Where it balances, where the pack must sit, and what the nose wants."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Final, Literal

import numpy as np

from hardkeel.balance.model import Balance, Battery, Hatch, Mass, Wing
from hardkeel.base.errors import BadInput
from hardkeel.base.values import unique_ids
from hardkeel.survey.model import role_by_id

WayIn = Literal["flat", "on edge", "end first", "nose first, aslant", "turned crosswise"]
_SLOPES: Final = 400
_UPRIGHT: Final = 1e-9
_FINGER_MM: Final = 3.0  # to spare on each side, so that the pack comes out again


@dataclass(frozen=True, slots=True)
class MeanChord:
    """The mean aerodynamic chord and where its leading edge lies, mm."""

    length: float
    le_x: float


@dataclass(frozen=True, slots=True)
class Balanced:
    """The answer, grams and mm.

    Attributes
    ----------
    mass, x, percent
        With battery and nose weight in; percent of the mean chord.
    battery_x : float or None
        Where the middle of the pack must sit for the target, whether or not it can.
    placed_x : float or None
        Where it goes then: there, or the nearer end of its bay.
    nose_weight : float or None
        Never negative; ``None`` where weight at that place can't help.
    """

    mass: float
    chord: MeanChord | None
    target_x: float
    battery_x: float | None
    placed_x: float | None
    battery_fits: bool | None
    x: float
    percent: float | None
    nose_weight: float | None


def mean_chord(wing: Wing) -> MeanChord:
    """Mean aerodynamic chord of a straight-tapered wing.

    With taper λ: c = ⅔ root (1+λ+λ²)/(1+λ), found at y = span/6 (1+2λ)/(1+λ); the contract's
    formula, as in every textbook (e.g. J. D. Anderson, "Aircraft Performance and Design", 1999).
    Where panels have a sweep of their own its leading edge is the mean of theirs weighted by the chord.
    """
    taper = wing.tip_chord / wing.root_chord
    length = 2 / 3 * wing.root_chord * (1 + taper + taper**2) / (1 + taper)
    if any(one.sweep is not None for one in wing.breaks):
        return MeanChord(length, wing.le_x + _mean_sweep(wing))
    y = wing.span / 6 * (1 + 2 * taper) / (1 + taper)
    return MeanChord(length, wing.le_x + wing.sweep_le * y / (wing.span / 2))


def _mean_sweep(wing: Wing) -> float:
    """How far aft the mean chord begins of the root's, mm: over each panel chord times sweep is a parabola."""
    half = wing.span / 2

    def moment(y: float) -> float:
        return (wing.root_chord + (wing.tip_chord - wing.root_chord) * y / half) * wing.aft(y)

    edges = (0.0, *(one.y for one in wing.breaks), half)
    total = sum(
        (b - a) / 6 * (moment(a) + 4 * moment((a + b) / 2) + moment(b)) for a, b in pairwise(edges)
    )
    return total / (half * (wing.root_chord + wing.tip_chord) / 2)


def mean_chord_of(wings: Sequence[Wing]) -> MeanChord | None:
    """The mean chord of all wings weighted by area, so that a biplane has one; ``None`` without."""
    lifting = [wing for wing in wings if role_by_id(wing.id) == "wing"]
    if not lifting:
        return None
    areas = [wing.span * (wing.root_chord + wing.tip_chord) / 2 for wing in lifting]
    chords = [mean_chord(wing) for wing in lifting]
    total = sum(areas)
    return MeanChord(
        sum(a * c.length for a, c in zip(areas, chords, strict=True)) / total,
        sum(a * c.le_x for a, c in zip(areas, chords, strict=True)) / total,
    )


def balance_of(masses: Sequence[Mass], wings: Sequence[Wing], wanted: Balance) -> Balanced:
    """Put the pack where it must sit, and weight in the nose where that is not enough.

    Raises
    ------
    BadInput
        When there is no target, nothing weighs anything, or the target needs a wing that is not there.
    """
    check_balance(masses, wanted)
    chord = mean_chord_of(wings)
    target = _target(wanted, chord)
    mass = sum(one.mass for one in masses)
    moment = sum(one.mass * one.x for one in masses)
    battery_x, placed, fits = None, None, None
    if wanted.battery is not None:
        battery_x, placed = _place(wanted.battery, mass, moment, target)
        fits = placed == battery_x
        mass += wanted.battery.mass
        moment += wanted.battery.mass * placed
    if mass <= 0:
        raise BadInput("masses", "nothing weighs anything yet")
    weight: float | None = 0.0
    # what is left over, as a moment about the target; the pack in its own place leaves none
    left = moment - target * mass
    if not fits and abs(left) > 1e-9 * max(1.0, abs(moment)):
        weight = _weight(left, target, wanted.nose_weight_x)
        if weight is not None and wanted.nose_weight_x is not None:
            mass += weight
            moment += weight * wanted.nose_weight_x
    x = moment / mass
    percent = (x - chord.le_x) / chord.length * 100 if chord is not None else None
    return Balanced(mass, chord, target, battery_x, placed, fits, x, percent, weight)


def check_balance(masses: Sequence[Mass], wanted: Balance) -> None:
    """Raise on what does not hang together.

    Raises
    ------
    BadInput
        Naming the place.
    """
    seen = unique_ids("masses", (one.id for one in masses))
    if wanted.battery is not None:
        if wanted.battery.id in seen:
            raise BadInput("balance.battery.id", f'"{wanted.battery.id}" is among the masses too')
        between = wanted.battery.between
        if between is not None and between[0] > between[1]:
            raise BadInput("balance.battery.between", "must run from front to rear")
    for i, hatch in enumerate(wanted.hatches):
        if hatch.between[0] >= hatch.between[1]:
            raise BadInput(f"balance.hatches[{i}].between", "must run from front to rear")


def hatch_for(
    pack: Battery,
    hatches: Sequence[Hatch],
    deep: Callable[[Hatch], float | None] = lambda _hatch: None,
) -> tuple[Hatch, WayIn] | None:
    """The first hatch that the pack passes, and how; ``None`` for none.

    Needs the pack's size.  A few millimetres are left for fingers.

    Parameters
    ----------
    deep : callable
        What is free under a hatch, mm; ``None`` where that is not known: then end first is taken to have room.
    """
    if pack.size is None:
        return None
    for hatch in hatches:
        way = way_in(pack.size, hatch, deep(hatch))
        if way is not None:
            return hatch, way
    return None


def way_in(
    size: tuple[float, float, float], hatch: Hatch, depth: float | None = None
) -> WayIn | None:
    """How a pack of (length, width, height) passes a hatch over a bay so deep; ``None`` where it does not."""
    length, width, height = size
    opening = hatch.between[1] - hatch.between[0] - 2 * _FINGER_MM
    across = hatch.width - 2 * _FINGER_MM
    if length <= opening and min(width, height) <= across:
        return "flat" if width <= across else "on edge"
    for thick, broad in ((height, width), (width, height)):
        if broad > across or thick > opening:
            continue
        if depth is None or length <= depth or length <= longest_aslant(opening, depth, thick):
            return "end first" if depth is None or length <= depth else "nose first, aslant"
    if length <= across and min(width, height) <= opening:
        return "turned crosswise"
    return None


def longest_aslant(opening: float, depth: float, thick: float) -> float:
    """How long a pack may be that is slid under a deck through an opening, nose first, in a bay so deep; mm.

    At a slope θ its upper face lies against the opening's front edge.  So much of it is below as the floor lets,
    (depth − thick·cos θ)/sin θ; so much may be left behind that its tail clears the opening's rear edge,
    (opening − thick·sin θ)/cos θ.  Above θ = arcsin(thick/opening) it slides through whatever its length; from there
    down to lying flat the least sum of both is its greatest length: the ladder round the corner, with a thin deck.
    """
    if thick > min(opening, depth):
        return 0.0
    slopes = np.linspace(1e-3, math.asin(thick / opening), _SLOPES)
    sin, cos = np.sin(slopes), np.cos(slopes)
    with np.errstate(divide="ignore"):
        below = (depth - thick * cos) / sin
        behind = np.where(
            cos > _UPRIGHT, (opening - thick * sin) / np.maximum(cos, _UPRIGHT), np.inf
        )
    return float(np.min(below + behind))


def nose_cost(extra_mass: float, x: float, target_x: float, nose_x: float) -> float | None:
    """Grams that the nose wants for a gram more at x; negative ahead of the balance point."""
    return _weight((x - target_x) * extra_mass, target_x, nose_x, signed=True)


def _target(wanted: Balance, chord: MeanChord | None) -> float:
    if wanted.target_x is not None:
        return wanted.target_x
    if wanted.target_percent is None:
        raise BadInput("balance", "has neither target_percent nor target_x")
    if chord is None:
        raise BadInput("balance.target_percent", "needs a wing to be a percentage of")
    return chord.le_x + wanted.target_percent / 100 * chord.length


def _place(pack: Battery, mass: float, moment: float, target: float) -> tuple[float, float]:
    needed = (target * (mass + pack.mass) - moment) / pack.mass
    if pack.between is None:
        return needed, needed
    return needed, min(max(needed, pack.between[0]), pack.between[1])


def _weight(
    left: float, target: float, nose_x: float | None, *, signed: bool = False
) -> float | None:
    if nose_x is None or nose_x == target:
        return None
    weight = left / (target - nose_x)
    return weight if weight >= 0 or signed else None
