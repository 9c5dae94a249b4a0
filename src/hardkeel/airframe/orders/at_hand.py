"""All steps of a build at once: those that were laid, and of stages where none was those that would be."""

from collections.abc import Mapping

from hardkeel.airframe.orders import frame, rig, tail
from hardkeel.airframe.orders.reached import supposed
from hardkeel.airframe.orders.whole import lay_anew, with_rigging
from hardkeel.base.errors import BadInput
from hardkeel.glue.model import Bottle
from hardkeel.project.model import Build
from hardkeel.schedule.model import Step
from hardkeel.schedule.ordering import ordered


def steps_at_hand(build: Build) -> tuple[Step, ...]:
    """Every step, in order; what the ledger says is done, and what is locked, counts as done.

    Raises
    ------
    BadInput
        When laid steps wait for each other.
    """
    if not build.steps:
        return _by_bottles(build, lay_anew(build))
    laid = list(build.steps)
    stages = {step.stage for step in laid}
    made: list[Step] = []
    for stage, make in (
        (frame.STAGE, frame.frame_steps),
        (tail.STAGE, tail.tail_steps),
    ):
        if stage not in stages:
            try:
                made += make(build)
            except BadInput:
                continue  # its page says what is missing
    steps = [*laid, *supposed(build, made)]
    if rig.STAGE not in stages and build.survey is not None:
        steps = with_rigging(build, steps)
    there = {step.id for step in steps}
    known = [step.but(after=tuple(one for one in step.after if one in there)) for step in steps]
    return _by_bottles(build, ordered(known))


def _by_bottles(build: Build, steps: tuple[Step, ...]) -> tuple[Step, ...]:
    shelf = build.glue.bottles if build.glue is not None else ()
    bottles: dict[str, Bottle] = {one.kind: one for one in shelf}
    return tuple(_by_bottle(step, bottles) for step in steps)


def _by_bottle(step: Step, bottles: Mapping[str, Bottle]) -> Step:
    """An open step with the times that the builder's own bottle says."""
    own = bottles.get(step.glue or "")
    if own is None or step.state != "open":
        return step
    return step.but(
        handle_minutes=own.handle_minutes or step.handle_minutes,
        cure_minutes=own.cure_minutes or step.cure_minutes,
    )
