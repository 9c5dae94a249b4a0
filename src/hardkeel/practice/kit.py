"""The order of work as an exercise: steps chosen one by one; what was closed too early turns up when it is wanted."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.airframe.orders.whole import lay_anew
from hardkeel.base.errors import BadInput
from hardkeel.practice.making import Models
from hardkeel.schedule.model import Step
from hardkeel.schedule.ordering import all_before

_STEPS: Final = 9
_CLOSING: Final = 3  # of them at most that can't be undone
_UNDOING: Final = 2.0  # times its own minutes: cut open what can't be undone, and do it again


@dataclass(frozen=True)
class Kit:
    """Steps to be put in order.

    Attributes
    ----------
    steps : tuple of Step
        In an order that can be worked; `Step.after` names those among them that come before, near or far.
    offered : tuple of str
        Their ids as they are laid out: shuffled.
    """

    model: str
    steps: tuple[Step, ...]
    offered: tuple[str, ...]

    def step(self, step_id: str) -> Step:
        """The one with this id."""
        return next(one for one in self.steps if one.id == step_id)


@dataclass(frozen=True, slots=True)
class Late:
    """A step that was chosen when others had closed it already.

    Attributes
    ----------
    closed_by : tuple of Step
        What was done before it and must be undone for it.
    minutes : float
        That undoing and doing them again takes.
    """

    step: Step
    closed_by: tuple[Step, ...]
    minutes: float


def kit_of(models: Models, seed: int) -> Kit:
    """The kit of a seed; always the same.

    Raises
    ------
    BadInput
        When no model has an order of work with a step that can't be undone.
    """
    rng = np.random.default_rng((seed, 11))
    for number in rng.permutation(len(models)).tolist():
        build = models.whole(number)
        steps = lay_anew(build.but(steps=()))
        closing = [one.id for one in steps if one.no_return]
        if closing:
            return _chosen(build.name or "", steps, closing, rng)
    raise BadInput("practice", "finds no order of work in which something can't be undone")


def _chosen(
    model: str, steps: Sequence[Step], closing: Sequence[str], rng: np.random.Generator
) -> Kit:
    """Some steps that can't be undone, with what must come before them, the nearest first."""
    some = [str(one) for one in rng.permutation(closing)[:_CLOSING]]
    by_id = {one.id: one for one in steps}
    chosen = set(some)
    near = [one for step in some for one in by_id[step].after]
    far = [one for step in near for one in by_id[step].after]
    for ring in (near, far):
        for one in rng.permutation(sorted(set(ring) - chosen)).tolist():
            if len(chosen) < _STEPS:
                chosen.add(str(one))
    before = {one: all_before(steps, one) & chosen for one in chosen}
    kept = tuple(
        one.but(after=tuple(sorted(before[one.id])), state="open")
        for one in steps
        if one.id in chosen
    )
    return Kit(model, kept, tuple(str(one) for one in rng.permutation([one.id for one in kept])))


def found_late(kit: Kit, done: Sequence[str], chosen: str) -> Late | None:
    """What turns up when a step is chosen after others; ``None`` where nothing stands in its way.

    Parameters
    ----------
    done : sequence of str
        Ids chosen before it.
    """
    closed = tuple(kit.step(one) for one in done if chosen in kit.step(one).after)
    if not closed:
        return None
    minutes = sum(one.hands_minutes * (_UNDOING if one.no_return else 1.0) for one in closed)
    return Late(kit.step(chosen), closed, minutes)


def all_late(kit: Kit, order: Sequence[str]) -> tuple[Late, ...]:
    """All that turns up in an order, as it turns up."""
    found = (found_late(kit, order[:i], one) for i, one in enumerate(order))
    return tuple(one for one in found if one is not None)
