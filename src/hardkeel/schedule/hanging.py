"""What hangs on what: steps in rows, each below all that it waits for, and the ties that say it without repeating."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from hardkeel.schedule.model import Step
from hardkeel.schedule.ordering import all_before, ordered

_SWEEPS: Final = 4  # down and up in turn; more changes nothing that is seen


@dataclass(frozen=True, slots=True)
class Hanging:
    """Steps by their ids.

    Attributes
    ----------
    rows : tuple of tuple of str
        From the top; a step's row lies below the rows of all that it waits for.
    ties : tuple of (str, str)
        What is done first, and what waits for it; none that follows from others.
    """

    rows: tuple[tuple[str, ...], ...]
    ties: tuple[tuple[str, str], ...]


def hanging_of(steps: Sequence[Step]) -> Hanging:
    """Steps in rows by the longest chain before each, with few crossings.

    What waits for nothing hangs just above the first that waits for it.  Steps that are not given are not waited for.
    Layers by longest path and crossings by the mean of neighbours' places, after K. Sugiyama, S. Tagawa and M. Toda,
    "Methods for visual understanding of hierarchical system structures", IEEE Transactions on Systems, Man, and
    Cybernetics 11 (1981).

    Raises
    ------
    BadInput
        When some wait for each other.
    """
    given = {step.id for step in steps}
    alone = [step.but(after=tuple(one for one in step.after if one in given)) for step in steps]
    level: dict[str, int] = {}
    for step in ordered(alone):
        level[step.id] = 1 + max((level[one] for one in step.after), default=-1)
    ties = _bare_ties(alone)
    for step in alone:
        after = [level[later] for first, later in ties if first == step.id]
        if after and not step.after:
            level[step.id] = min(after) - 1
    rows: list[list[str]] = [[] for _ in range(1 + max(level.values(), default=-1))]
    for step in alone:
        rows[level[step.id]].append(step.id)
    _uncross(rows, ties)
    return Hanging(tuple(tuple(row) for row in rows), ties)


def _bare_ties(steps: Sequence[Step]) -> tuple[tuple[str, str], ...]:
    """Each step tied to those before it that no other of them waits for."""
    before = {step.id: all_before(steps, step.id) for step in steps}
    return tuple(
        (first, step.id)
        for step in steps
        for first in dict.fromkeys(step.after)
        if not any(first in before[other] for other in step.after)
    )


def _uncross(rows: list[list[str]], ties: Sequence[tuple[str, str]]) -> None:
    """Put each row in the order of its neighbours above, then below, in turn."""
    above: dict[str, list[str]] = {}
    below: dict[str, list[str]] = {}
    for first, later in ties:
        above.setdefault(later, []).append(first)
        below.setdefault(first, []).append(later)
    for sweep in range(_SWEEPS):
        down = sweep % 2 == 0
        for row in rows if down else reversed(rows):
            place = {
                one: (number + 0.5) / len(line) for line in rows for number, one in enumerate(line)
            }
            _by_neighbours(row, above if down else below, place)


def _by_neighbours(
    row: list[str], neighbours: Mapping[str, Sequence[str]], place: Mapping[str, float]
) -> None:
    """Sort a row by the mean place of each step's neighbours; one without stays where it is."""
    wanted = {}
    for one in row:
        beside = [place[other] for other in neighbours.get(one, ())]
        wanted[one] = sum(beside) / len(beside) if beside else place[one]
    row.sort(key=lambda one: wanted[one])
