"""How tightly sides and longerons are bent, and what their wood says to it."""

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from itertools import pairwise
from typing import Final, Literal

import numpy as np

from hardkeel.fuselage.loft import Loft, loft_of
from hardkeel.fuselage.model import Fuselage, Longeron
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.spline import NaturalCubic

Verdict = Literal["dry", "soaked", "too tight"]
Limits = Mapping[str, tuple[float, float]]  # by material: strain in percent dry, and soaked

_PIECES: Final = 64  # of a stretch between two stations, before the tightest place is closed in on
_STRAIGHT: Final = 1e-9  # 1/mm: a radius of a thousand kilometres
_ROUNDS: Final = 60
_GOLDEN: Final = (math.sqrt(5) - 1) / 2


@dataclass(frozen=True, slots=True)
class Bend:
    """The tightest place of a member.

    Attributes
    ----------
    thickness : float
        mm across the bend.
    radius, at_station : float or None
        mm; ``None`` for what is straight.
    strain : float
        Of the outer fibre, percent: thickness / (2 · radius).
    verdict : str or None
        Whether it goes dry, soaked or not at all; ``None`` for a wood that nothing is known of.
    """

    member: str
    thickness: float
    radius: float | None
    at_station: float | None
    strain: float
    verdict: Verdict | None


def bends_of(fuselage: Fuselage, limits: Limits) -> tuple[Bend, ...]:
    """The side where it is of sheet, then each longeron in both views.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    loft = loft_of(fuselage)
    bends = []
    sheeted = list(_sheeted(fuselage, loft))
    if sheeted and fuselage.side_thickness > 0:
        wood = limits.get(fuselage.side_material or "")
        bends.append(_bend("side", fuselage.side_thickness, loft.half_width, sheeted, wood))
    whole = [(float(loft.stations[0]), float(loft.stations[-1]))]
    for longeron in fuselage.longerons:
        wood = limits.get(longeron.material or "")
        for name, thickness, line in longeron_lines(loft, longeron):
            bends.append(_bend(name, thickness, line, whole, wood))
    return tuple(bends)


def longeron_lines(loft: Loft, longeron: Longeron) -> Iterator[tuple[str, float, NaturalCubic]]:
    """A longeron in both views, with what of it is bent there: across the side, and as seen in side view."""
    across, deep = longeron.section
    yield f"{longeron.id} longeron from above", across, loft.half_width
    height = loft.bottom if longeron.is_lower else loft.top
    yield f"{longeron.id} longeron from the side", deep, height


def _sheeted(fuselage: Fuselage, loft: Loft) -> Iterator[tuple[float, float]]:
    station = dict(zip(loft.names, loft.stations, strict=True))
    for section in fuselage.sections:
        if section.method == "sheet-sides":
            yield float(station[section.from_]), float(station[section.to])


def _bend(
    member: str,
    thickness: float,
    line: NaturalCubic,
    stretches: list[tuple[float, float]],
    limits: tuple[float, float] | None,
) -> Bend:
    curvature, at = max(_tightest(line, a, b) for a, b in stretches)
    if curvature < _STRAIGHT:
        return Bend(member, thickness, None, None, 0.0, "dry")
    strain = 100 * thickness * curvature / 2
    return Bend(member, thickness, 1 / curvature, at, strain, _verdict(strain, limits))


def _verdict(strain: float, limits: tuple[float, float] | None) -> Verdict | None:
    if limits is None:
        return None
    dry, soaked = limits
    return "dry" if strain <= dry else "soaked" if strain <= soaked else "too tight"


def _tightest(line: NaturalCubic, a: float, b: float) -> tuple[float, float]:
    """The greatest curvature (1/mm) of a line between two stations, and where.

    Between two knots the second derivative is straight and the slope a parabola, so that the curvature
    has few tops; each is closed in on by golden section.
    """
    knots = np.array([a, *(x for x in line.x if a < x < b), b])
    best = (0.0, a)
    for left, right in pairwise(knots.tolist()):
        at = np.linspace(left, right, _PIECES + 1)
        found = _curvature(line, at)
        top = int(np.argmax(found))
        low, high = at[max(top - 1, 0)], at[min(top + 1, _PIECES)]
        place = _closed_in(line, float(low), float(high))
        for x in (place, float(at[top])):
            best = max(best, (float(_curvature(line, np.array([x]))[0]), x))
    return best


def _curvature(line: NaturalCubic, at: Array) -> Array:
    return np.asarray(np.abs(line.bend(at)) / (1 + line.slope(at) ** 2) ** 1.5)


def _closed_in(line: NaturalCubic, low: float, high: float) -> float:
    for _ in range(_ROUNDS):
        width = _GOLDEN * (high - low)
        a, b = high - width, low + width
        if _curvature(line, np.array([a]))[0] > _curvature(line, np.array([b]))[0]:
            high = b
        else:
            low = a
    return (low + high) / 2
