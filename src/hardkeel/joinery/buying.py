"""Strips to buy, and how each is cut: the least of one stock length that holds all parts.

The cutting-stock problem.  First the longest part into the strip that it leaves least of; then each strip
filled as full as it goes; where neither meets the bound, by `patterns`.
"""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from typing import Final

from hardkeel.joinery.cut_part import CutPart, Stock
from hardkeel.joinery.patterns import HAIR, by_patterns, fullest, fullest_one

TUBE: Final = "tube"  # a kind of part
STOCK_MM: Final = (915.0, 1000.0, 1220.0, 1830.0)  # lengths that strips are sold in


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
    cuts : tuple of tuple of float
        For each strip the lengths that are cut from it, mm.
    own : tuple of (float, tuple of float)
        Strips of the builder's rack that are used: how long each is, and what is cut from it, mm.
    triangular : bool
        Half a square, cut corner to corner.
    tube : bool
        Round and hollow; the section is its outside diameter.
    """

    section: tuple[float, float]
    material: str | None
    stock: float
    pieces: int
    at_least: int
    waste: float
    joined: int
    cuts: tuple[tuple[float, ...], ...]
    own: tuple[tuple[float, tuple[float, ...]], ...] = ()
    triangular: bool = False
    tube: bool = False

    def left(self, kerf: float) -> tuple[float, ...]:
        """What is left of each strip that is bought, mm."""
        return tuple(
            max(0.0, self.stock - sum(strip) - kerf * max(len(strip) - 1, 0)) for strip in self.cuts
        )


def purchases_of(
    parts: Iterable[CutPart], kerf: float = 0.0, rack: Sequence[Stock] = ()
) -> tuple[Purchase, ...]:
    """Strips to buy, by section and wood, in the shortest stock length that takes the longest part.

    Parameters
    ----------
    kerf : float
        What the saw takes at each cut, mm.
    rack : sequence of Stock
        What the builder has: each strip of it is filled as full as it goes before any is bought.
    """
    groups: dict[tuple[tuple[float, float], str | None, bool, bool], list[float]] = {}
    for part in parts:
        key = (_by_size(part.section), part.material, part.triangular, part.kind == TUBE)
        groups.setdefault(key, []).extend([part.length] * part.quantity)
    found = []
    for (section, material, triangular, tube), lengths in groups.items():
        racked = [
            one.length
            for one in rack
            if _by_size(one.section) == section and one.material == material
            if not (triangular or tube)
            for _ in range(one.pieces)
        ]
        own, rest = _from_rack(lengths, racked, kerf)
        made = _purchase(section, material, rest, kerf)
        over = sum(length + kerf for length in lengths) - sum(one + kerf for one in racked)
        least = max(0, math.ceil((over - HAIR) / (made.stock + kerf))) if racked else made.at_least
        found.append(replace(made, own=own, at_least=least, triangular=triangular, tube=tube))
    return tuple(found)


def _by_size(section: tuple[float, float]) -> tuple[float, float]:
    return min(section), max(section)


def _from_rack(
    lengths: list[float], racked: list[float], kerf: float
) -> tuple[tuple[tuple[float, tuple[float, ...]], ...], list[float]]:
    """Each strip of the rack, the shortest first, filled as full as it goes; and what is left to cut."""
    rest = sorted(lengths)
    own: list[tuple[float, tuple[float, ...]]] = []
    for strip in sorted(racked):
        fitting = [length for length in rest if length <= strip + HAIR]
        if not fitting:
            continue
        chosen = fullest_one([length + kerf for length in fitting], strip + kerf)
        taken = tuple(sorted((width - kerf for width in chosen), reverse=True))
        own.append((strip, taken))
        for length in taken:
            rest.remove(min(rest, key=lambda one: abs(one - length)))
    return tuple(own), rest


def _purchase(
    section: tuple[float, float], material: str | None, lengths: list[float], kerf: float
) -> Purchase:
    if not lengths:
        return Purchase(section, material, STOCK_MM[0], 0, 0, 0.0, 0, ())
    stock = next((one for one in STOCK_MM if one >= max(lengths) - HAIR), STOCK_MM[-1])
    cuts: list[tuple[float, ...]] = []
    rest, joined = [], 0
    for length in lengths:
        strips = int((length - HAIR) // stock)
        joined += strips > 0
        cuts += [(stock,)] * strips
        rest.append(length - strips * stock)
    packed, bound = packing(rest, stock, kerf)
    at_least = len(cuts) + bound
    cuts += packed
    waste = 100 * (1 - sum(lengths) / (len(cuts) * stock))
    return Purchase(section, material, stock, len(cuts), at_least, waste, joined, tuple(cuts))


def packing(
    lengths: Sequence[float], stock: float, kerf: float = 0.0
) -> tuple[list[tuple[float, ...]], int]:
    """Lengths (none over `stock`, mm) cut from as few strips as can be found, and a bound on their number."""
    # a kerf goes with each part; the last of a strip needs none
    room = stock + kerf
    widths = [length + kerf for length in lengths]
    simple = _best_fit(widths, room)
    bound = _at_least(widths, room)
    if len(simple) > bound:
        simple = min(simple, fullest(widths, room), key=len)
    if len(simple) > bound:
        simple, better = by_patterns(widths, room, simple, bound)
        bound = max(bound, better)
    return [tuple(width - kerf for width in strip) for strip in simple], bound


def _best_fit(widths: Sequence[float], room: float) -> list[list[float]]:
    """The longest first, each into the strip that it leaves least of."""
    strips: list[list[float]] = []
    left: list[float] = []
    for width in sorted(widths, reverse=True):
        fitting = [i for i, free in enumerate(left) if free >= width - HAIR]
        if fitting:
            best = min(fitting, key=lambda i: left[i])
            strips[best].append(width)
            left[best] -= width
        else:
            strips.append([width])
            left.append(room - width)
    return strips


def _at_least(widths: Sequence[float], room: float) -> int:
    """Strips that no way of cutting gets under, at a glance.

    S. Martello and P. Toth, "Lower bounds and reduction procedures for the bin packing problem",
    Discrete Applied Mathematics 28 (1990), 59-70: for a threshold, what is over the room less it wants
    a strip each, what is over half of it does too, and the rest fills what those leave.
    """
    best = 0
    for threshold in {0.0, *(width for width in widths if width <= room / 2)}:
        alone = [one for one in widths if one > room - threshold + HAIR]
        large = [one for one in widths if room / 2 < one <= room - threshold + HAIR]
        small = [one for one in widths if threshold <= one <= room / 2]
        over = sum(small) - (len(large) * room - sum(large))
        more = math.ceil((over - HAIR) / room) if over > HAIR else 0
        best = max(best, len(alone) + len(large) + more)
    return best
