"""Strips to buy, and how each is cut: the least of one stock length that holds all parts.

The cutting-stock problem: P. C. Gilmore and R. E. Gomory, "A linear programming approach to the
cutting-stock problem", Operations Research 9 (1961), 849-859.  First the longest part into the strip
that it leaves least of; then each strip filled as full as it goes; where neither meets the bound and
sizes are few, patterns are made one after another by what the linear programme would pay for them, and
the best whole number of each is found (scipy, HiGHS).
"""

import math
from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.fuselage.cut_list import CutPart
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.solving import optimize

STOCK_MM: Final = (915.0, 1000.0, 1220.0, 1830.0)  # lengths that strips are sold in
_HAIR: Final = 1e-6  # mm: a strip takes what is as long as it
_TENTHS: Final = 10  # of a millimetre: how finely patterns are made
_MOST_ROUNDS: Final = 300
_MOST_SIZES: Final = 40  # different ones: with more, patterns take longer than anyone waits
_PAYS: Final = 1e-7  # of a strip: a pattern that saves less is not made
_TIME_S: Final = 1.5
_Pattern = tuple[int, ...]  # how many of each size


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
    """

    section: tuple[float, float]
    material: str | None
    stock: float
    pieces: int
    at_least: int
    waste: float
    joined: int
    cuts: tuple[tuple[float, ...], ...]


def purchases_of(parts: Iterable[CutPart], kerf: float = 0.0) -> tuple[Purchase, ...]:
    """Strips to buy, by section and wood, in the shortest stock length that takes the longest part.

    Parameters
    ----------
    kerf : float
        What the saw takes at each cut, mm.
    """
    groups: dict[tuple[tuple[float, float], str | None], list[float]] = {}
    for part in parts:
        small, large = sorted(part.section)
        groups.setdefault(((small, large), part.material), []).extend([part.length] * part.quantity)
    return tuple(
        _purchase(section, material, lengths, kerf)
        for (section, material), lengths in groups.items()
    )


def _purchase(
    section: tuple[float, float], material: str | None, lengths: list[float], kerf: float
) -> Purchase:
    stock = next((one for one in STOCK_MM if one >= max(lengths) - _HAIR), STOCK_MM[-1])
    cuts: list[tuple[float, ...]] = []
    rest, joined = [], 0
    for length in lengths:
        strips = int((length - _HAIR) // stock)
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
        simple = min(simple, _fullest(widths, room), key=len)
    if len(simple) > bound and len(set(widths)) <= _MOST_SIZES:
        bound = max(bound, _relaxed(widths, room))
        if len(simple) > bound:
            simple = min(simple, _by_patterns(widths, room, simple), key=len)
    return [tuple(width - kerf for width in strip) for strip in simple], bound


def _best_fit(widths: Sequence[float], room: float) -> list[list[float]]:
    """The longest first, each into the strip that it leaves least of."""
    strips: list[list[float]] = []
    left: list[float] = []
    for width in sorted(widths, reverse=True):
        fitting = [i for i, free in enumerate(left) if free >= width - _HAIR]
        if fitting:
            best = min(fitting, key=lambda i: left[i])
            strips[best].append(width)
            left[best] -= width
        else:
            strips.append([width])
            left.append(room - width)
    return strips


def _fullest(widths: Sequence[float], room: float) -> list[list[float]]:
    """Strip by strip: the longest that is left, and what fills the rest of it best.

    J. N. D. Gupta and J. C. Ho, "A new heuristic algorithm for the one-dimensional bin-packing problem",
    Production Planning and Control 10 (1999), 598-603; the best filling is a subset sum, in tenths of a
    millimetre, whose sums are the bits of one large number.
    """
    capacity = math.floor(room * _TENTHS + _HAIR)
    left = sorted(widths)
    strips: list[list[float]] = []
    while left:
        strip = [left.pop()]
        free = capacity - _tenths_up(strip[0])
        sums = [1]
        for width in left:
            sums.append(sums[-1] | sums[-1] << _tenths_up(width))
        at = (sums[-1] & ((1 << max(free, 0) + 1) - 1)).bit_length() - 1
        for i in range(len(left) - 1, -1, -1):
            if not sums[i] >> at & 1:
                at -= _tenths_up(left[i])
                strip.append(left.pop(i))
        strips.append(strip)
    return strips


def _tenths_up(width: float) -> int:
    return max(1, math.ceil(width * _TENTHS - _HAIR))


def _at_least(widths: Sequence[float], room: float) -> int:
    """Strips that no way of cutting gets under, at a glance.

    S. Martello and P. Toth, "Lower bounds and reduction procedures for the bin packing problem",
    Discrete Applied Mathematics 28 (1990), 59-70: for a threshold, what is over the room less it wants
    a strip each, what is over half of it does too, and the rest fills what those leave.
    """
    best = 0
    for threshold in {0.0, *(width for width in widths if width <= room / 2)}:
        alone = [one for one in widths if one > room - threshold + _HAIR]
        large = [one for one in widths if room / 2 < one <= room - threshold + _HAIR]
        small = [one for one in widths if threshold <= one <= room / 2]
        over = sum(small) - (len(large) * room - sum(large))
        more = math.ceil((over - _HAIR) / room) if over > _HAIR else 0
        best = max(best, len(alone) + len(large) + more)
    return best


def _relaxed(widths: Sequence[float], room: float) -> int:
    """The same from the linear programme, with all widths a little too short: it holds for the true ones."""
    short = [math.floor(width * _TENTHS + _HAIR) for width in widths]
    sizes = Counter(size for size in short if size > 0)
    _, value = _patterns(sizes, math.ceil(room * _TENTHS), ())
    return math.ceil(value - 1e-6)


def _by_patterns(
    widths: Sequence[float], room: float, start: Sequence[Sequence[float]]
) -> list[list[float]]:
    """Whole numbers of the patterns that the linear programme would pay for, widths a little too long."""
    capacity = math.floor(room * _TENTHS + _HAIR)
    sizes = Counter(map(_tenths_up, widths))
    names = sorted(sizes)
    known = [tuple(Counter(map(_tenths_up, strip))[name] for name in names) for strip in start]
    known = [
        one for one in known if sum(n * s for n, s in zip(one, names, strict=True)) <= capacity
    ]
    patterns, _ = _patterns(sizes, capacity, known)
    table = np.array(patterns, dtype=float).T
    wanted = [sizes[name] for name in names]
    found = optimize.milp(
        np.ones(len(patterns)),
        constraints=optimize.LinearConstraint(table, wanted, np.inf),
        integrality=np.ones(len(patterns)),
        options={"time_limit": _TIME_S},
    )
    if found.x is None:
        return [list(strip) for strip in start]
    heaps: dict[int, list[float]] = {}
    for width in widths:
        heaps.setdefault(_tenths_up(width), []).append(width)
    strips: list[list[float]] = []
    for pattern, times in zip(patterns, np.rint(found.x).astype(int), strict=True):
        for _ in range(times):
            strip = [
                heaps[name].pop()
                for name, count in zip(names, pattern, strict=True)
                for _ in range(min(count, len(heaps[name])))
            ]
            if strip:
                strips.append(strip)
    return strips


def _patterns(
    sizes: Counter[int], capacity: int, start: Sequence[_Pattern]
) -> tuple[list[_Pattern], float]:
    """Ways to cut a strip, made until none more would pay, and the value of the linear programme."""
    names = sorted(sizes)
    wanted = np.array([sizes[name] for name in names], dtype=float)
    alone = [
        tuple(min(capacity // size, sizes[size]) if i == j else 0 for j in range(len(names)))
        for i, size in enumerate(names)
    ]
    patterns = list(dict.fromkeys((*alone, *start)))
    value = float("inf")
    for _ in range(_MOST_ROUNDS):
        table = np.array(patterns, dtype=float).T
        solved = optimize.linprog(np.ones(len(patterns)), A_ub=-table, b_ub=-wanted, method="highs")
        value = float(solved.fun)
        worth = -np.asarray(solved.ineqlin.marginals)
        best, pays = _dearest(names, [sizes[name] for name in names], worth, capacity)
        if pays <= 1 + _PAYS or best in patterns:
            return patterns, value
        patterns.append(best)
    return patterns, 0.0  # not done: the programme's value is no bound yet


def _dearest(
    names: Sequence[int], most: Sequence[int], worth: Array, capacity: int
) -> tuple[_Pattern, float]:
    """The pattern of most worth that fits a strip: a knapsack with so many of each size."""
    best = np.zeros(capacity + 1)
    taken: list[tuple[int, int, np.ndarray[tuple[int], np.dtype[np.bool_]]]] = []
    for i, size in enumerate(names):
        left = min(most[i], capacity // size) if size > 0 else 0
        bundle = 1
        while left > 0 and worth[i] > 0:
            count = min(bundle, left)
            width = count * size
            if width > capacity:
                break
            with_it = np.full(capacity + 1, -1.0)
            with_it[width:] = best[: capacity + 1 - width] + count * worth[i]
            better = with_it > best
            best = np.where(better, with_it, best)
            taken.append((i, count, better))
            left -= count
            bundle *= 2
    pattern, at = [0] * len(names), capacity
    for i, count, better in reversed(taken):
        if better[at]:
            pattern[i] += count
            at -= count * names[i]
    return tuple(pattern), float(best[capacity])
