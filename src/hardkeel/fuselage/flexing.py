"""How stiff one side is against being bent in plan: all that bends with it, loose or glued on flat before.

Loose members bend each about its own middle, and their stiffnesses add up.  What was glued to the side while it lay
flat bends with it about one common line: the transformed section of S. P. Timoshenko, "Strength of Materials", part I,
chapter on beams of two materials, EI = Σ E·(I + A·(y − ȳ)²) with ȳ = Σ E·A·y / Σ E·A.  Glue lines are taken as rigid.
"""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.members import kinds_with
from hardkeel.fuselage.methods import methods_with
from hardkeel.fuselage.model import Fuselage, Member
from hardkeel.fuselage.sheeted import Side
from hardkeel.geometry.rotation import Array

Moduli = Callable[
    [str, float], float | None
]  # GPa of a material bent over so many mm; none: unknown
_GPA: Final = 1000.0  # in N/mm²
_HALF: Final = 0.5


def solid(figures: Mapping[str, float]) -> Moduli:
    """Woods that are as stiff however thick they are, GPa by material."""
    return lambda material, _thickness: figures.get(material)


@dataclass(frozen=True, slots=True)
class Layer:
    """What bends at one station: E (N/mm²), area (mm²), own second moment (mm⁴), its middle from the outside (mm)."""

    modulus: float
    area: float
    inertia: float
    middle: float

    @classmethod
    def of(cls, modulus: float, thick: float, tall: float, inside: float) -> "Layer":
        """A rectangle, `thick` across the side and `tall` along it, that begins `inside` mm from the outside."""
        return cls(modulus, thick * tall, tall * thick**3 / 12, inside + thick / 2)


def flexural_of(fuselage: Fuselage, stiffness: Moduli, *, joined: bool = True) -> Array | None:
    """EI of one side at each stop, N·mm², shape (n,); ``None`` where nothing is known that bends.

    Parameters
    ----------
    stiffness : callable
        Young's modulus along the grain of a material bent over so many mm, GPa; one that is not known counts for nothing.
    joined : bool
        Whether longerons, doublers and corner strips were glued to sheet sides while these lay flat, as the order of
        work has it; sides of sticks bend stick by stick all the same.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    loft = loft_of(fuselage)
    side = Side(fuselage)
    tall = np.maximum(side.top(loft.stations) - side.bottom(loft.stations), 0.0)
    found = np.zeros(len(loft.stations))
    known = False
    for i, x in enumerate(loft.stations.tolist()):
        method = fuselage.method_at(x)
        sheeted = method is None or method in methods_with("flat")
        layers = list(_layers(fuselage, stiffness, x, float(tall[i]), sheeted=sheeted))
        known = known or bool(layers)
        found[i] = _together(layers) if joined and sheeted else _apart(layers)
    return found if known else None


def _apart(layers: list[Layer]) -> float:
    return sum(one.modulus * one.inertia for one in layers)


def _together(layers: list[Layer]) -> float:
    pull = sum(one.modulus * one.area for one in layers)
    if pull <= 0:
        return 0.0
    middle = sum(one.modulus * one.area * one.middle for one in layers) / pull
    return sum(
        one.modulus * (one.inertia + one.area * (one.middle - middle) ** 2) for one in layers
    )


def _layers(
    fuselage: Fuselage, stiffness: Moduli, x: float, tall: float, *, sheeted: bool
) -> Iterator[Layer]:
    """What bends at a station: the sheet, what lies on its inside, the longerons inside of that."""
    of_sticks = fuselage.method_at(x) in methods_with("sticks")
    thick = 0.0 if of_sticks else fuselage.side_thickness
    own = stiffness(fuselage.side_material or "", thick)
    if thick > 0 and own:
        yield Layer.of(own * _GPA, thick, tall, 0.0)
    inside = thick
    for member in fuselage.framed.members:
        if member.kind not in kinds_with("on the sides") or not _runs_past(fuselage, member, x):
            continue
        over = member.section[0] if member.section is not None else member.thickness or 0.0
        modulus = stiffness(member.material or fuselage.side_material or "", over)
        if not modulus:
            continue
        if member.section is not None:  # a strip along the upper and the lower edge
            across, along = member.section
            share = _HALF if member.triangular else 1.0
            yield Layer.of(modulus * _GPA, across, 2 * share * along, thick)
        elif member.thickness and sheeted:
            yield Layer.of(
                modulus * _GPA, member.thickness, max(tall - 2 * member.inset, 0.0), inside
            )
            inside += member.thickness
    for longeron in fuselage.longerons:
        across, deep = longeron.section
        modulus = stiffness(longeron.material or "", across)
        if modulus:
            yield Layer.of(modulus * _GPA, across, deep, inside)


def _runs_past(fuselage: Fuselage, member: Member, x: float) -> bool:
    first, last = fuselage.span(member)
    return first <= x <= last - member.short
