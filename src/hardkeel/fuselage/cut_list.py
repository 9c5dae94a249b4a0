"""What is cut for a fuselage, stick by stick, and the lengths of wood to buy for it."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from typing import Final

from hardkeel.fuselage.loft import Loft, loft_of
from hardkeel.fuselage.model import Fuselage, Longeron
from hardkeel.fuselage.sticks import sticks_of
from hardkeel.geometry.spline import arc_lengths

STOCK_MM: Final = (915.0, 1000.0, 1220.0, 1830.0)  # lengths that strips are sold in
BOTH_SIDES: Final = 2
_HAIR: Final = 1e-6  # mm: a strip takes what is as long as it


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


@dataclass(frozen=True, slots=True)
class Purchase:
    """Strips of one section and wood.

    Attributes
    ----------
    pieces, at_least : int
        Strips to buy, and the number that no way of cutting gets under.
    waste : float
        Percent of what is bought.
    joined : int
        Members longer than any strip, which are scarfed.
    """

    section: tuple[float, float]
    material: str | None
    stock: float
    pieces: int
    at_least: int
    waste: float
    joined: int


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


def purchases_of(parts: Iterable[CutPart]) -> tuple[Purchase, ...]:
    """Strips to buy, by section and wood, in the shortest stock length that takes the longest part."""
    groups: dict[tuple[tuple[float, float], str | None], list[float]] = {}
    for part in parts:
        small, large = sorted(part.section)
        groups.setdefault(((small, large), part.material), []).extend([part.length] * part.quantity)
    return tuple(
        _purchase(section, material, lengths) for (section, material), lengths in groups.items()
    )


def _purchase(section: tuple[float, float], material: str | None, lengths: list[float]) -> Purchase:
    stock = next((one for one in STOCK_MM if one >= max(lengths) - _HAIR), STOCK_MM[-1])
    whole, rest, joined = 0, [], 0
    for length in lengths:
        strips = int((length - _HAIR) // stock)
        joined += strips > 0
        whole += strips
        rest.append(length - strips * stock)
    pieces = whole + len(_packed(rest, stock))
    waste = 100 * (1 - sum(lengths) / (pieces * stock))
    return Purchase(section, material, stock, pieces, whole + _at_least(rest, stock), waste, joined)


def _packed(lengths: Sequence[float], stock: float) -> list[float]:
    """What is left of each strip: the longest first, each into the strip that it leaves least of."""
    left: list[float] = []
    for length in sorted(lengths, reverse=True):
        fitting = [i for i, room in enumerate(left) if room >= length - _HAIR]
        if fitting:
            best = min(fitting, key=lambda i: left[i])
            left[best] -= length
        else:
            left.append(stock - length)
    return left


def _at_least(lengths: Sequence[float], stock: float) -> int:
    """Strips that no way of cutting gets under.

    S. Martello and P. Toth, "Lower bounds and reduction procedures for the bin packing problem",
    Discrete Applied Mathematics 28 (1990), 59-70: for a threshold, what is over stock less it wants a
    strip each, what is over half of it does too, and the rest fills what those leave.
    """
    best = 0
    for threshold in {0.0, *(length for length in lengths if length <= stock / 2)}:
        alone = [one for one in lengths if one > stock - threshold + _HAIR]
        large = [one for one in lengths if stock / 2 < one <= stock - threshold + _HAIR]
        small = [one for one in lengths if threshold <= one <= stock / 2]
        over = sum(small) - (len(large) * stock - sum(large))
        more = max(0, -int(-(over - _HAIR) // stock)) if over > _HAIR else 0
        best = max(best, len(alone) + len(large) + more)
    return best
