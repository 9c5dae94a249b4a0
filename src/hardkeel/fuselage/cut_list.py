"""What is cut for a fuselage, stick by stick."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

from hardkeel.fuselage.loft import Loft, loft_of
from hardkeel.fuselage.model import Fuselage, Longeron
from hardkeel.fuselage.sticks import sticks_of
from hardkeel.geometry.spline import arc_lengths

BOTH_SIDES: Final = 2


@dataclass(frozen=True, slots=True)
class CutPart:
    """A line of the cut list.

    Attributes
    ----------
    kind : str
        ``upright``, ``diagonal`` or ``longeron``.
    quantity : int
        Of both sides together.
    section : (float, float)
        Across the side, and as seen in the drawing, mm.
    ends : tuple of tuple of float
        Angles of the cuts, degrees; empty for what is trimmed in place.
    """

    name: str
    kind: str
    quantity: int
    section: tuple[float, float]
    length: float
    ends: tuple[tuple[float, ...], ...]
    material: str | None


def cut_list_of(fuselage: Fuselage) -> tuple[CutPart, ...]:
    """Every stick and longeron; quantities multiplied out are all there are.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    loft = loft_of(fuselage)
    return (*_sticks(fuselage), *(_longeron(loft, longeron) for longeron in fuselage.longerons))


def _sticks(fuselage: Fuselage) -> Iterator[CutPart]:
    numbers: dict[str, int] = {}
    for stick in sticks_of(fuselage):
        number = numbers[stick.kind] = numbers.get(stick.kind, 0) + 1
        yield CutPart(
            f"{stick.kind} {number}",
            stick.kind,
            BOTH_SIDES,
            stick.section,
            stick.length,
            stick.ends,
            fuselage.side_material,
        )


def _longeron(loft: Loft, longeron: Longeron) -> CutPart:
    """A longeron from the first station to the tail post: the developed length of its outer corner."""
    height = loft.bottom if longeron.is_lower else loft.top
    length = float(arc_lengths((loft.half_width, height), loft.stations)[-1])
    return CutPart(
        f"{longeron.id} longeron",
        "longeron",
        BOTH_SIDES,
        longeron.section,
        length,
        (),
        longeron.material,
    )
