"""In which order sticks are cut, so that the cutting jig is set as seldom as can be.

A jig set to an angle cuts one end of every stick that has that angle.  Sticks alike at both ends are one
batch: its first ends are all cut at one setting, its second ends at the next.  Settings are the places of
a graph and batches its ways; going on from a batch to one that shares a setting saves setting it again, so
the fewest settings come from the fewest trails that use every way once (L. Euler 1736; C. Hierholzer,
"Ueber die Möglichkeit, einen Linienzug ohne Wiederholung und ohne Unterbrechung zu umfahren",
Mathematische Annalen 6 (1873), 30-32).
"""

from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final

from hardkeel.joinery.cut_part import CutPart, is_fitted

_Line = tuple[CutPart, tuple[float | None, ...]]
ALIKE_DEGREES: Final = (
    0.5  # within one setting: a quarter degree either way, what a jig's scale shows
)


@dataclass(frozen=True, slots=True)
class JigStep:
    """One stick line of the cut list with the jig's settings for it.

    Attributes
    ----------
    settings : tuple of float
        Degrees for the end that is cut first and for the other; the same where they are alike.  An end that is fitted
        has none.
    by_end : (float or None, float or None)
        The same in the order of the part's ends.
    sets : int
        How often the jig is set for it: 0, 1 or 2.
    """

    part: CutPart
    settings: tuple[float, ...]
    by_end: tuple[float | None, ...]
    sets: int


def jig_order(parts: Iterable[CutPart]) -> tuple[JigStep, ...]:
    """Parts with angles, in the order to cut them; those without are left out.

    A pointed end is set by its first face; the second is scribed from the drawing.  One against a curve is fitted: sticks
    without an end for the jig come last.
    """
    cut = [part for part in parts if len(part.ends) == 2]  # noqa: PLR2004  two ends
    # wood of another size needs another stop: each size by itself, the one with most sticks first
    sizes: dict[tuple[float, float], list[CutPart]] = defaultdict(list)
    for part in cut:
        sizes[part.section].append(part)
    steps: list[JigStep] = []
    for section in sorted(sizes, key=lambda one: (-len(sizes[one]), one)):
        steps += _ordered(sizes[section])
    return tuple(steps)


def settings_needed(steps: Sequence[JigStep]) -> int:
    """How often the jig is set in all."""
    return sum(step.sets for step in steps)


def _ordered(parts: Sequence[CutPart]) -> list[JigStep]:
    groups = _grouped([end[0] for part in parts for end in part.ends if not is_fitted(end)])
    by_end = [tuple(None if is_fitted(e) else groups[e[0]] for e in part.ends) for part in parts]
    batches: dict[tuple[float, float], list[_Line]] = defaultdict(list)
    by_hand: list[_Line] = []
    for line in zip(parts, by_end, strict=True):
        set_to = sorted(setting for setting in line[1] if setting is not None)
        if set_to:  # a stick with one end for the jig is set once, as one with both ends alike
            batches[set_to[0], set_to[-1]].append(line)
        else:
            by_hand.append(line)
    steps: list[JigStep] = []
    now: float | None = None
    for a, b in _trails(list(batches)):
        first = True
        for part, ends in batches[min(a, b), max(a, b)]:
            sets = 0
            if first:
                sets = (a != now) + (b != a)
                first = False
            steps.append(JigStep(part, (a,) if None in ends else (a, b), ends, sets))
        now = b
    return [*steps, *(JigStep(part, (), ends, 0) for part, ends in by_hand)]


def _grouped(angles: Iterable[float]) -> dict[float, float]:
    """Each angle with the setting that it is cut at: the middle of those that lie within half a degree."""
    found: dict[float, float] = {}
    group: list[float] = []
    for angle in [*sorted(set(angles)), float("inf")]:
        if group and angle - group[0] > ALIKE_DEGREES:
            middle = (group[0] + group[-1]) / 2
            found |= dict.fromkeys(group, middle)
            group = []
        group.append(angle)
    return found


def _trails(ways: Sequence[tuple[float, float]]) -> list[tuple[float, float]]:
    """Every way once, each in the direction it is gone, in as few trails as there can be."""
    links: dict[float, list[tuple[float, int]]] = defaultdict(list)
    for i, (a, b) in enumerate(ways):
        links[a].append((b, i))
        if a != b:
            links[b].append((a, i))
    odd = sorted(node for node in links if _degree(links, node) % 2)
    # odd places are joined in pairs by ways that do not count: each is a break between two trails
    for number, (a, b) in enumerate(_paired(links, odd)):
        i = -1 - number
        links[a].append((b, i))
        links[b].append((a, i))
    used: set[int] = set()
    trail: list[tuple[float, float, int]] = []
    for start in sorted(links, key=lambda node: (node not in odd, node)):
        while any(i not in used for _, i in links[start]):
            trail += _from_a_break(_circuit(links, start, used))
    return [(a, b) for a, b, i in trail if i >= 0]


def _degree(links: dict[float, list[tuple[float, int]]], node: float) -> int:
    return sum(2 if other == node else 1 for other, _ in links[node])


def _paired(
    links: dict[float, list[tuple[float, int]]], odd: Sequence[float]
) -> list[tuple[float, float]]:
    """Odd places two by two, within what hangs together: there is an even number in each."""
    left, pairs = list(odd), []
    while left:
        start = left.pop(0)
        reached, queue = {start}, [start]
        while queue:
            for other, _ in links[queue.pop()]:
                if other not in reached:
                    reached.add(other)
                    queue.append(other)
        partner = next(node for node in left if node in reached)
        left.remove(partner)
        pairs.append((start, partner))
    return pairs


def _circuit(
    links: dict[float, list[tuple[float, int]]], start: float, used: set[int]
) -> list[tuple[float, float, int]]:
    """A closed walk over every way that can be reached, each once."""
    stack: list[tuple[float, tuple[float, float, int] | None]] = [(start, None)]
    walk: list[tuple[float, float, int]] = []
    while stack:
        node, came = stack[-1]
        onward = next(((other, i) for other, i in links[node] if i not in used), None)
        if onward is None:
            stack.pop()
            if came is not None:
                walk.append(came)
        else:
            other, i = onward
            used.add(i)
            stack.append((other, (node, other, i)))
    return walk[::-1]


def _from_a_break(walk: list[tuple[float, float, int]]) -> list[tuple[float, float, int]]:
    """The closed walk begun behind one of its breaks, so that no trail is cut in two by the start."""
    for at, (_, _, i) in enumerate(walk):
        if i < 0:
            return walk[at + 1 :] + walk[: at + 1]
    return walk
