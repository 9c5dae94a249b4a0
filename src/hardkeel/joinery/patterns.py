"""Ways to cut a strip, made by what the linear programme would pay for them, and whole numbers of each.

P. C. Gilmore and R. E. Gomory, "A linear programming approach to the cutting-stock problem", Operations
Research 9 (1961), 849-859.  Each round makes for every size the best pattern that holds it, by two tables
of knapsacks (what comes before it, what comes behind).  What sizes are worth is drawn towards the prices of
the best bound so far, or the rounds would be many: P. Wentges, "Weighted Dantzig-Wolfe decomposition for
linear mixed-integer programming", International Transactions in Operational Research 4 (1997), 151-162.
The bound is Farley's: A. A. Farley, "A note on bounding a class of linear programming problems, including
cutting stock problems", Operations Research 38 (1990), 922-923.
"""

import math
import random
import time
from collections import Counter
from collections.abc import Iterable, Sequence
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.geometry.solving import optimize, sparse

HAIR: Final = 1e-6  # mm: a strip takes what is as long as it
TENTHS: Final = 10  # of a millimetre: how finely patterns are made
_FINER: Final = 10  # the bound is reckoned in hundredths: what rounding costs it is then nothing
_PAYS: Final = 1e-6  # of a strip: a pattern that saves less is not made
_DRAWN: Final = 0.4  # share of the best bound's prices in those that patterns are made for
_ROUNDS: Final = 60
_PRICING_S: Final = 1.2
_MILP_S: Final = 0.5
_DIVES: Final = 30
_STIRRED: Final = 0.3  # of a strip: by how much a dive's order is shaken
_Pattern = tuple[int, ...]  # how many of each size


def tenths_up(width: float) -> int:
    """A width in tenths of a millimetre, rounded up."""
    return max(1, math.ceil(width * TENTHS - HAIR))


def by_patterns(
    widths: Sequence[float], room: float, start: Sequence[Sequence[float]], bound: int
) -> tuple[list[list[float]], int]:
    """Widths cut from as few strips as patterns give, and a bound on their number.

    Parameters
    ----------
    room : float
        What a strip holds, mm.
    start : sequence
        A way that is known.
    bound : int
        A number that is known to be needed.
    """
    sizes = Counter(map(tenths_up, widths))
    names = sorted(sizes, reverse=True)
    wanted = [sizes[name] for name in names]
    capacity = math.floor(room * TENTHS + HAIR)
    columns = _Columns(names, wanted, capacity)
    columns.add(tuple(Counter(map(tenths_up, strip))[name] for name in names) for strip in start)
    paid, worth, centre = _priced(columns)
    bound = max(bound, _bound(names, widths, centre, room))
    best = [list(strip) for strip in start]
    if len(best) > bound:
        best = min(best, _dived(columns, paid, widths, bound), key=len)
    if len(best) > bound:
        counts = _rounded(columns, paid, worth, bound)
        if counts is not None and sum(counts.values()) < len(best):
            best = _strips(counts, names, widths)
    return best, bound


class _Columns:
    """The patterns made so far, as the programme's columns.

    Attributes
    ----------
    names, wanted : list of int
        Sizes in tenths of a millimetre, the largest first, and how many of each.
    """

    def __init__(self, names: list[int], wanted: list[int], capacity: int) -> None:
        self.names, self.wanted, self.capacity = names, wanted, capacity
        self.patterns: list[_Pattern] = []
        self._seen: set[_Pattern] = set()
        self._rows: list[int] = []
        self._counts: list[float] = []
        self._ends = [0]
        for i, size in enumerate(names):
            most = min(capacity // size, wanted[i])
            self.add([tuple(most if i == j else 0 for j in range(len(names)))])

    def add(self, patterns: Iterable[_Pattern]) -> int:
        """Take patterns in that are new and fit a strip; how many were."""
        before = len(self.patterns)
        for pattern in patterns:
            if pattern in self._seen or not self.fits(pattern):
                continue
            self._seen.add(pattern)
            self.patterns.append(pattern)
            for i, count in enumerate(pattern):
                if count:
                    self._rows.append(i)
                    self._counts.append(float(count))
            self._ends.append(len(self._rows))
        return len(self.patterns) - before

    def fits(self, pattern: _Pattern) -> bool:
        """Whether a strip holds it."""
        return sum(n * s for n, s in zip(pattern, self.names, strict=True)) <= self.capacity

    @property
    def table(self) -> "sparse.csc_matrix":
        """How many of each size (row) a pattern (column) holds."""
        shape = (len(self.names), len(self.patterns))
        return sparse.csc_matrix((self._counts, self._rows, self._ends), shape=shape)


def _priced(columns: _Columns) -> tuple[Array, Array, Array]:
    """How much of each pattern the programme uses, what sizes are worth, the prices of the best bound."""
    names, need = columns.names, np.array(columns.wanted, dtype=float)
    bundles = _bundles(columns.wanted, names, columns.capacity)
    centre = np.array(names, dtype=float) / columns.capacity
    least, began = float(centre @ need), time.perf_counter()
    paid, worth = np.zeros(len(columns.patterns)), centre
    for _ in range(_ROUNDS):
        solved = optimize.linprog(
            np.ones(len(columns.patterns)), A_ub=-columns.table, b_ub=-need, method="highs-ds"
        )
        if solved.x is None:
            break
        paid, worth = np.asarray(solved.x), np.maximum(-np.asarray(solved.ineqlin.marginals), 0.0)
        added = 0
        for share in (_DRAWN, 0.0):
            prices = share * centre + (1 - share) * worth
            found = _best_with_each(bundles, prices, names, columns.capacity)
            dearest = max(1.0, *(value for _, value in found))
            if float(prices @ need) / dearest > least:
                least, centre = float(prices @ need) / dearest, prices / dearest
            added = columns.add(
                pattern for pattern, _ in found if float(worth @ np.array(pattern)) > 1 + _PAYS
            )
            if added:
                break
        proven = math.ceil(least - _PAYS) >= math.ceil(float(solved.fun) - _PAYS)
        if proven or not added or time.perf_counter() - began > _PRICING_S:
            break
    return np.pad(paid, (0, len(columns.patterns) - len(paid))), worth, centre


_Bundle = tuple[int, int, int]  # number of the size, how many of it, how wide together


def _bundles(wanted: Sequence[int], names: Sequence[int], capacity: int) -> list[_Bundle]:
    """As many of each size as a strip takes, in bundles of 1, 2, 4 … so that any number can be had."""
    found: list[_Bundle] = []
    for i, size in enumerate(names):
        left, bundle = min(wanted[i], capacity // size), 1
        while left > 0:
            count = min(bundle, left)
            found.append((i, count, count * size))
            left -= count
            bundle *= 2
    return found


def _best_with_each(
    bundles: Sequence[_Bundle], worth: Array, names: Sequence[int], capacity: int
) -> list[tuple[_Pattern, float]]:
    """For each bundle the pattern of most worth that holds it, with its worth."""
    before, behind = _table(bundles, worth, capacity), _table(bundles[::-1], worth, capacity)
    found = []
    for k, (i, count, width) in enumerate(bundles):
        room = capacity - width
        fore, aft = before[k][: room + 1], behind[len(bundles) - 1 - k][: room + 1]
        together = fore + aft[::-1]
        at = int(np.argmax(together))
        pattern = [0] * len(names)
        pattern[i] += count
        _traced(pattern, bundles[:k], before, at)
        _traced(pattern, bundles[::-1][: len(bundles) - 1 - k], behind, room - at)
        found.append((tuple(pattern), float(together[at]) + count * float(worth[i])))
    return found


def _table(bundles: Sequence[_Bundle], worth: Array, capacity: int) -> Array:
    """Most worth within each width with the first k bundles, shape (bundles + 1, capacity + 1)."""
    rows = np.zeros((len(bundles) + 1, capacity + 1))
    for k, (i, count, width) in enumerate(bundles):
        rows[k + 1] = rows[k]
        if width <= capacity and worth[i] > 0:
            np.maximum(
                rows[k][width:],
                rows[k][: capacity + 1 - width] + count * worth[i],
                out=rows[k + 1][width:],
            )
    return rows


def _traced(pattern: list[int], bundles: Sequence[_Bundle], rows: Array, at: int) -> None:
    """Add to a pattern what the best within a width is made of."""
    for k in range(len(bundles), 0, -1):
        if rows[k][at] > rows[k - 1][at]:
            i, count, width = bundles[k - 1]
            pattern[i] += count
            at -= width


def _bound(names: Sequence[int], widths: Sequence[float], prices: Array, room: float) -> int:
    """Farley's bound for the true widths: each as many hundredths as it has at least."""
    fine = TENTHS * _FINER
    least: dict[int, int] = {}
    for width in widths:
        name = tenths_up(width)
        short = max(1, math.floor(width * fine + HAIR))
        least[name] = min(least.get(name, short), short)
    counts = Counter(map(tenths_up, widths))
    capacity = math.ceil(room * fine - HAIR)
    wanted = [counts[name] for name in names]
    best = np.zeros(capacity + 1)
    for i, count, width in _bundles(wanted, [least[name] for name in names], capacity):
        if prices[i] > 0:
            # the right side is made before anything is put in place
            best[width:] = np.maximum(
                best[width:], best[: capacity + 1 - width] + count * prices[i]
            )
    return math.ceil(float(np.dot(prices, wanted)) / max(1.0, float(best[-1])) - _PAYS)


def _dived(
    columns: _Columns, paid: Array, widths: Sequence[float], bound: int
) -> list[list[float]]:
    """What the programme uses most as often as it goes, the rest strip by strip; some orders tried."""
    rng = random.Random(0)  # noqa: S311  a shaken order, not a secret
    used = [i for i in np.argsort(-paid).tolist() if paid[i] > _PAYS]
    best: list[list[float]] | None = None
    room = columns.capacity / TENTHS
    for number in range(_DIVES):
        shaken = _STIRRED if number else 0.0
        order = sorted(used, key=lambda i: -(paid[i] + shaken * rng.random()))
        left = list(columns.wanted)
        counts: Counter[_Pattern] = Counter()
        for i in order:
            pattern = columns.patterns[i]
            while all(have >= count for have, count in zip(left, pattern, strict=True)):
                counts[pattern] += 1
                left = [have - count for have, count in zip(left, pattern, strict=True)]
        dealt = _strips(counts, columns.names, widths)
        rest = list((Counter(widths) - Counter(w for strip in dealt for w in strip)).elements())
        found = dealt + fullest(rest, room)
        if best is None or len(found) < len(best):
            best = found
        if len(best) <= bound:
            break
    return best or []


def fullest(widths: Sequence[float], room: float) -> list[list[float]]:
    """Strip by strip: the longest that is left, and what fills the rest of it best.

    J. N. D. Gupta and J. C. Ho, "A new heuristic algorithm for the one-dimensional bin-packing problem",
    Production Planning and Control 10 (1999), 598-603; the best filling is a subset sum, in tenths of a
    millimetre, whose sums are the bits of one large number.
    """
    left = sorted(widths)
    strips: list[list[float]] = []
    while left:
        longest = left.pop()
        strip = [longest, *_filling(left, room - longest)]
        strips.append(strip)
    return strips


def fullest_one(widths: Sequence[float], room: float) -> list[float]:
    """Of the widths those that fill one strip best."""
    return _filling(sorted(widths), room)


def _filling(left: list[float], room: float) -> list[float]:
    """Take from rising widths those that fill a room best; short ones are left for what comes later."""
    free = math.floor(room * TENTHS + HAIR)
    sums = [1]
    for width in left:
        sums.append(sums[-1] | sums[-1] << tenths_up(width))
    at = (sums[-1] & ((1 << max(free, 0) + 1) - 1)).bit_length() - 1
    taken: list[float] = []
    for i in range(len(left) - 1, -1, -1):
        size = tenths_up(left[i])
        if size <= at and sums[i] >> (at - size) & 1:
            at -= size
            taken.append(left.pop(i))
    return taken


def _rounded(columns: _Columns, paid: Array, worth: Array, bound: int) -> Counter[_Pattern] | None:
    """The best whole number of each pattern that can be found in the time."""
    table = columns.table
    # patterns that the programme would never use again only make the search longer
    idle = 1 - table.T @ worth
    kept = np.flatnonzero((idle < 1.0 / max(bound, 1)) | (paid > 0))
    rows = table[:, kept]
    if not len(kept) or np.any(rows.sum(axis=1) == 0):
        return None
    solved = optimize.milp(
        np.ones(len(kept)),
        constraints=optimize.LinearConstraint(rows, columns.wanted, np.inf),
        integrality=np.ones(len(kept)),
        options={"time_limit": _MILP_S},
    )
    if solved.x is None:
        return None
    counts: Counter[_Pattern] = Counter()
    for k, times in zip(kept, np.rint(solved.x).astype(int), strict=True):
        if times > 0:
            counts[columns.patterns[k]] += int(times)
    return counts


def _strips(
    counts: Counter[_Pattern], names: Sequence[int], widths: Sequence[float]
) -> list[list[float]]:
    """The widths dealt out to the patterns; a pattern may have room for more than there are."""
    heaps: dict[int, list[float]] = {}
    for width in widths:
        heaps.setdefault(tenths_up(width), []).append(width)
    strips: list[list[float]] = []
    for pattern, times in counts.items():
        for _ in range(times):
            strip = [
                heaps[name].pop()
                for name, count in zip(names, pattern, strict=True)
                for _ in range(min(count, len(heaps[name])))
            ]
            if strip:
                strips.append(strip)
    return strips
