"""Ways out of a bend that is too tight, the force that holds it, and what springs back.

Sources
-------
Strain of the outer fibre t / (2R), and the batten as a beam: S. P. Timoshenko, "Strength of Materials",
part I, chapters 4 and 5.  What a lamination of n equal layers springs back is 1/n² of its bend: each layer
keeps bending by its own stiffness, n · (t/n)³, while the glued whole resists with t³.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from hardkeel.fuselage.bending import Bend, Limits, longeron_lines
from hardkeel.fuselage.flexing import Moduli, flexural_of
from hardkeel.fuselage.loft import Loft, loft_of
from hardkeel.fuselage.methods import any_with, sections_with
from hardkeel.fuselage.model import Fuselage
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.spline import NaturalCubic

Method = Literal["dry", "soaked", "steamed", "laminated"]
_KERF_MM: Final = 1.0  # a razor saw's; a knife's scored cut closes less
_LEAST_CUT_MM: Final = 0.3  # shallower a saw only scratches
_CORNERS: Final = 3.0  # times the thickness: further apart the wood between the cuts shows as corners; by experience
_LEAST_LEFT_MM: Final = 0.4  # of wood under a kerf: less tears when it is handled
# Shares of the bend that are lost when the clamps come off.  By experience of bench work with soft woods,
# not from a table: they scatter by half of themselves, so the reading on the morning after decides.
SPRINGS_BACK: Final[dict[Method, tuple[float, float]]] = {
    "dry": (1.0, 1.0),  # nothing but the joints holds it
    "soaked": (0.15, 0.35),  # wetted through, clamped overnight, dried in the clamps
    "steamed": (0.05, 0.20),
}
_TWO: Final = 2


@dataclass(frozen=True, slots=True)
class Laminating:
    """Layers that take the bend one by one: how many, how thick (mm), what springs back (share)."""

    layers: int
    thickness: float
    springs_back: float


@dataclass(frozen=True, slots=True)
class Kerfing:
    """Cuts across the inside: how deep, how far apart at most, what wood is left, mm."""

    depth: float
    spacing: float
    left: float


@dataclass(frozen=True, slots=True)
class BendRemedy:
    """What a member's tightest bend asks for.

    Attributes
    ----------
    margin : float or None
        The wood's dry limit over the strain: over 1 there is room; ``None`` for a wood nothing is known
        of or a straight member.
    soaked_margin : float or None
        The same with the limit soaked or steamed.
    woods : tuple of str
        Materials of the table that take it dry at this thickness.
    """

    bend: Bend
    margin: float | None
    soaked_margin: float | None
    laminating: Laminating | None
    kerfing: Kerfing | None
    woods: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Pull:
    """The force that holds a bent member at a stop, N, positive inward (towards the centre line)."""

    stop: str
    station: float
    force: float


@dataclass(frozen=True, slots=True)
class BendLine:
    """Strain along a member.

    Attributes
    ----------
    stations, strain : Array
        Shape (n,), mm and percent.
    limits : (float, float) or None
        Percent, dry and soaked.
    """

    member: str
    stations: Array
    strain: Array
    limits: tuple[float, float] | None


def remedy_of(bend: Bend, material: str | None, limits: Limits) -> BendRemedy:
    """Ways out for one member."""
    own = limits.get(material or "")
    if bend.radius is None or own is None or bend.strain <= 0:
        return BendRemedy(bend, None, None, None, None, ())
    dry, soaked = own
    margin, wet = dry / bend.strain, soaked / bend.strain
    if margin >= 1:
        return BendRemedy(bend, margin, wet, None, None, ())
    takes = tuple(sorted(wood for wood, (limit, _) in limits.items() if limit >= bend.strain > 0))
    thickest = 2 * bend.radius * dry / 100 if dry > 0 else 0.0
    laminating = kerfing = None
    if thickest > 0:
        layers = math.ceil(bend.thickness / thickest - 1e-9)
        laminating = Laminating(layers, bend.thickness / layers, 1 / layers**2)
        if thickest >= _LEAST_LEFT_MM:
            depth = bend.thickness - thickest
            # neighbouring cuts turn the strip by spacing / R; each may close by kerf / depth
            spacing = min(bend.radius * _KERF_MM / depth, _CORNERS * bend.thickness)
            # a scratch, or cuts that would lie a hand apart, do nothing for it
            if depth >= _LEAST_CUT_MM:
                kerfing = Kerfing(depth, spacing, thickest)
    return BendRemedy(bend, margin, wet, laminating, kerfing, takes)


def pulls_of(fuselage: Fuselage, stiffness: Moduli, *, joined: bool = True) -> tuple[Pull, ...]:
    """What holds one side to its line, stop by stop: a batten held at the stops.

    The moment at a stop is the EI there of all that bends with the side (`flexural_of`) times the second derivative of
    the natural cubic; between stops the shear is the slope of the moment, and a stop's force is the jump of the shear.
    So all forces are in balance, and a side's are exact where its EI is the same all along.

    Parameters
    ----------
    stiffness : callable
        Young's modulus along the grain of a material bent over so many mm, GPa.
    joined : bool
        Whether what lies on a sheet side was glued to it flat.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    flexural = flexural_of(fuselage, stiffness, joined=joined)
    if flexural is None:
        return ()
    loft = loft_of(fuselage)
    return tuple(
        Pull(name, float(x), float(force))
        for name, x, force in zip(
            loft.names, loft.stations, _holding(loft.half_width, flexural), strict=True
        )
    )


def _holding(line: NaturalCubic, flexural: Array) -> Array:
    """Forces at the knots of a batten, N, positive towards smaller heights, shape (n,)."""
    if len(line.x) <= _TWO:
        return np.zeros(len(line.x))
    shear = np.diff(flexural * line.bends) / np.diff(line.x)
    forces = np.zeros(len(line.x))
    forces[:-1] -= shear
    forces[1:] += shear
    return forces


def bend_lines_of(
    fuselage: Fuselage, limits: Limits, steps: int = 240, also: Sequence[float] = ()
) -> tuple[BendLine, ...]:
    """Strain along the sides and each longeron from nose to tail, for a chart.

    Parameters
    ----------
    also : sequence of float
        Stations that stand in it beside the even ones, mm: where a line has its top.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    loft = loft_of(fuselage)
    x = np.unique(
        np.concatenate(
            [np.linspace(loft.stations[0], loft.stations[-1], steps), loft.stations, also]
        )
    )
    lines = []
    if fuselage.side_thickness > 0 and any_with(fuselage, "flat"):
        inside = _sheeted(fuselage, loft, x)
        strain = np.where(inside, _strain(loft.half_width, x, fuselage.side_thickness), np.nan)
        lines.append(BendLine("side", x, strain, limits.get(fuselage.side_material or "")))
    for longeron in fuselage.longerons:
        for name, thickness, line in longeron_lines(loft, longeron):
            lines.append(
                BendLine(name, x, _strain(line, x, thickness), limits.get(longeron.material or ""))
            )
    return tuple(lines)


def _sheeted(fuselage: Fuselage, loft: Loft, x: Array) -> Array:
    station = dict(zip(loft.names, loft.stations.tolist(), strict=True))
    inside = np.zeros(len(x), dtype=bool)
    for section in sections_with(fuselage, "flat"):
        inside |= (x >= station[section.from_]) & (x <= station[section.to])
    return inside


def _strain(line: NaturalCubic, x: Array, thickness: float) -> Array:
    curvature = np.abs(line.bend(x)) / (1 + line.slope(x) ** 2) ** 1.5
    return np.asarray(50 * thickness * curvature)


def sprung(radius: float, share: float) -> float:
    """The radius to bend to, so that after losing a share of the bend it is at `radius`, mm."""
    return radius * (1 - share)
