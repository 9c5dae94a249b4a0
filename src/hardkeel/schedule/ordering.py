"""In which order steps are done, and which of them can be done now."""

from collections.abc import Sequence, Set
from dataclasses import dataclass
from datetime import date
from graphlib import CycleError, TopologicalSorter

from hardkeel.base.errors import BadInput
from hardkeel.base.values import unique_ids
from hardkeel.schedule.model import Step


@dataclass(frozen=True, slots=True)
class Standing:
    """Where the work stands.

    Attributes
    ----------
    now : tuple of Step
        Begun, or open with all before it done; in order.
    blocked : tuple of (Step, tuple of Step)
        Not yet, with the steps that must be done before; none where only a date is waited for.
    """

    now: tuple[Step, ...]
    blocked: tuple[tuple[Step, tuple[Step, ...]], ...]
    done: tuple[Step, ...]

    def of_stages(self, stages: Set[str]) -> "Standing":
        """The same of these stages' steps alone."""
        return Standing(
            tuple(step for step in self.now if step.stage in stages),
            tuple((step, waits) for step, waits in self.blocked if step.stage in stages),
            tuple(step for step in self.done if step.stage in stages),
        )


def check_steps(steps: Sequence[Step], place: str = "steps") -> None:
    """Raise on ids used twice, ids that are not there, and steps that wait for each other.

    Raises
    ------
    BadInput
        Naming the place, and of a cycle two of its steps.
    """
    known = unique_ids(place, (step.id for step in steps))
    for i, step in enumerate(steps):
        for j, before in enumerate(step.after):
            if before not in known:
                raise BadInput(f"{place}[{i}].after[{j}]", f'no step "{before}"')
    ordered(steps, place)


def ordered(steps: Sequence[Step], place: str = "steps") -> tuple[Step, ...]:
    """The steps, each behind those it waits for, else as they are given.

    Raises
    ------
    BadInput
        When some wait for each other; two of them are named.
    """
    by_id = {step.id: step for step in steps}
    number = {step.id: i for i, step in enumerate(steps)}
    sorter = TopologicalSorter({step.id: step.after for step in steps})
    try:
        sorter.prepare()
    except CycleError as fault:
        first, second = fault.args[1][:2]
        raise BadInput(place, f'"{first}" and "{second}" wait for each other') from None
    found: list[Step] = []
    ready: list[str] = []
    while sorter.is_active():
        ready += sorter.get_ready()
        ready.sort(key=lambda one: number[one])
        now = ready.pop(0)
        found.append(by_id[now])
        sorter.done(now)
    return tuple(found)


def standing_of(steps: Sequence[Step], today: date | None = None) -> Standing:
    """What can be done now, what not yet and why, what is done.

    Parameters
    ----------
    today : date, optional
        What waits for a later one can't be begun; without it dates are not looked at.
    """
    by_id = {step.id: step for step in steps}
    now, blocked, done = [], [], []
    for step in ordered(steps):
        waits = tuple(by_id[one] for one in step.after if by_id[one].state != "done")
        if step.state == "done":
            done.append(step)
        elif step.state == "doing" or not (waits or (today is not None and step.waits_on(today))):
            now.append(step)
        else:
            blocked.append((step, waits))
    return Standing(tuple(now), tuple(blocked), tuple(done))


def all_before(steps: Sequence[Step], step_id: str) -> frozenset[str]:
    """Ids of every step that must be done before one, and of those before them."""
    by_id = {step.id: step for step in steps}
    found: set[str] = set()
    queue = list(by_id[step_id].after)
    while queue:
        one = queue.pop()
        if one not in found:
            found.add(one)
            queue += by_id[one].after
    return frozenset(found)
