"""How tightly sides and longerons are bent, and what their wood says to it."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Final, Literal

import numpy as np

from hardkeel.fuselage.loft import Loft, loft_of
from hardkeel.fuselage.methods import sections_with
from hardkeel.fuselage.model import Fuselage, Longeron
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.spline import NaturalCubic

Verdict = Literal["dry", "soaked", "too tight"]
Limits = Mapping[str, tuple[float, float]]  # by material: strain in percent dry, and soaked

_STRAIGHT: Final = 1e-9  # 1/mm: a radius of a thousand kilometres
_REAL: Final = 1e-6  # a double root is found a little beside the real line


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
    corners : tuple of str
        Stops at which its line has a corner: there it is not bent but cut and joined.
    """

    member: str
    thickness: float
    radius: float | None
    at_station: float | None
    strain: float
    verdict: Verdict | None
    corners: tuple[str, ...] = ()


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
            bent = _bend(name, thickness, line, whole, wood)
            bends.append(replace(bent, corners=tuple(loft.names[i] for i in line.corners)))
    return tuple(bends)


def longeron_lines(loft: Loft, longeron: Longeron) -> Iterator[tuple[str, float, NaturalCubic]]:
    """A longeron in both views, with what of it is bent there: across the side, and as seen in side view."""
    across, deep = longeron.section
    yield f"{longeron.id} longeron from above", across, loft.half_width
    height = loft.edge(lower=longeron.is_lower)
    yield f"{longeron.id} longeron from the side", deep, height


def _sheeted(fuselage: Fuselage, loft: Loft) -> Iterator[tuple[float, float]]:
    station = dict(zip(loft.names, loft.stations, strict=True))
    for section in sections_with(fuselage, "flat"):
        yield float(station[section.from_]), float(station[section.to])


def _bend(
    member: str,
    thickness: float,
    line: NaturalCubic,
    stretches: list[tuple[float, float]],
    limits: tuple[float, float] | None,
) -> Bend:
    curvature, at = max(tightest(line, a, b) for a, b in stretches)
    if curvature < _STRAIGHT:
        return Bend(member, thickness, None, None, 0.0, "dry")
    strain = 100 * thickness * curvature / 2
    return Bend(member, thickness, 1 / curvature, at, strain, _verdict(strain, limits))


def _verdict(strain: float, limits: tuple[float, float] | None) -> Verdict | None:
    if limits is None:
        return None
    dry, soaked = limits
    return "dry" if strain <= dry else "soaked" if strain <= soaked else "too tight"


def tightest(line: NaturalCubic, a: float, b: float) -> tuple[float, float]:
    """The greatest curvature (1/mm) of a line between two stations, and where."""
    knots = np.array([a, *(x for x in line.x if a < x < b), b])
    places = np.concatenate([knots, _tops(line, knots)])
    found = _curvature(line, places)
    top = int(np.argmax(found))
    return float(found[top]), float(places[top])


def _tops(line: NaturalCubic, knots: Array) -> Array:
    """Places between knots where the curvature may be greatest, shape (n,).

    Between two knots the second derivative m is straight and the slope s a parabola with s' = m, so that the
    curvature |m| / (1 + s²)^1.5 has its tops where m' (1 + s²) = 3 s m².  That is a quartic in u, the share of the
    way from knot to knot; its roots are the eigenvalues of its companion matrix.
    """
    width = np.diff(knots)
    slope, bends = line.slope(knots)[:-1], line.bend(knots)
    m, rise = width * bends[:-1], width * np.diff(bends)  # of the slope, per u and per u²
    # s = slope + m u + rise u²/2, and width · m = m + rise u
    bent = np.abs(rise) > _STRAIGHT
    level = ~bent & (np.abs(m) > _STRAIGHT)  # an arc of a parabola: its top lies where it is level
    slope, m, rise, whole = slope[bent], m[bent], rise[bent], np.flatnonzero(bent)
    half = rise / 2
    quartic = [
        rise * half**2 - 3 * half * rise**2,
        2 * rise * half * m - 3 * (half * 2 * m * rise + m * rise**2),
        rise * (m**2 + 2 * half * slope) - 3 * (half * m**2 + 2 * m**2 * rise + slope * rise**2),
        2 * rise * m * slope - 3 * (m**3 + 2 * slope * m * rise),
        rise * (1 + slope**2) - 3 * slope * m**2,
    ]
    companion = np.zeros((len(whole), 4, 4))
    companion[:, 1:, :-1] = np.eye(3)
    for row, part in enumerate(reversed(quartic[1:])):
        companion[:, row, -1] = -part / quartic[0]
    roots = np.linalg.eigvals(companion)
    inside = (np.abs(roots.imag) <= _REAL) & (roots.real > 0) & (roots.real < 1)
    of, _ = np.nonzero(inside)
    left = knots[:-1]
    tops = left[whole[of]] + width[whole[of]] * roots.real[inside]
    flat = np.flatnonzero(level)
    share = -line.slope(left[flat]) / (width * bends[:-1])[flat]
    return np.concatenate([tops, left[flat] + width[flat] * np.clip(share, 0, 1)])


def _curvature(line: NaturalCubic, at: Array) -> Array:
    return np.asarray(np.abs(line.bend(at)) / (1 + line.slope(at) ** 2) ** 1.5)
