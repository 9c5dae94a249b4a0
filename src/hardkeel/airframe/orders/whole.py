"""The order of work of all stages together, laid anew from the build: what Frame, Tail, True, Bench and the commands share."""

from collections.abc import Iterable, Mapping
from typing import Final

from hardkeel.airframe.bodies import bodies_of_tail
from hardkeel.airframe.orders import frame, rig, tail
from hardkeel.airframe.orders.reached import supposed
from hardkeel.base.errors import BadInput
from hardkeel.project.model import Build
from hardkeel.schedule.model import OWN, Step
from hardkeel.schedule.ordering import ordered

SINCE: Final = ", more"  # ends the id of a step that goes on with one that was done
LATE: Final = ".late"  # and its key


def lay_anew(build: Build) -> tuple[Step, ...]:
    """Every step that the build asks for now, in an order that can be worked.

    What was ticked or begun stays so, also where nothing asks for it any more, and so do the builder's own steps. A
    step that was never laid is done where the ledger says that its parts are that far.

    Raises
    ------
    BadInput
        When steps wait for each other.
    """
    laid = {step.id: step for step in build.steps}
    fresh = as_they_were(asked_for(build), laid)
    known = {step.id for step in fresh}
    kept = [
        step
        for step in build.steps
        if step.id not in known and (step.stage == OWN or step.state != "open")
    ]
    never = [step for step in supposed(build, fresh) if step.id not in laid]
    states = {step.id: step.state for step in never}
    fresh = [step.but(state=states.get(step.id, step.state)) for step in fresh]
    return ordered(_without_strangers([*fresh, *kept]))


def asked_for(build: Build) -> tuple[Step, ...]:
    """The steps of framing, of the tail and of rigging, bound to each other; a stage that lacks a figure has none."""
    steps: list[Step] = []
    for make in (frame.frame_steps, tail.tail_steps):
        try:
            steps += make(build)
        except BadInput:  # its page says what is missing
            continue
    if build.survey is not None:
        steps = with_rigging(build, steps)
    return tuple(_without_strangers(steps))


def as_they_were(fresh: Iterable[Step], laid: Mapping[str, Step]) -> list[Step]:
    """Fresh steps with what was done of those that were laid.

    What was done was done to what it was about then: what has come since is a step of its own behind it, which those
    wait for that wait for it.
    """
    found: list[Step] = []
    since: dict[str, str] = {}
    for step in fresh:
        was = laid.get(step.id)
        new = tuple(one for one in step.about if was is not None and one not in was.about)
        # as many gone as have come: they were called otherwise
        if was is None or was.state == "open" or len(step.about) <= len(was.about):
            found.append(step.as_it_was(was))
            continue
        found.append(step.as_it_was(was).but(about=was.about, parts=was.parts))
        name = since[step.id] = f"{step.id}{SINCE}"
        parts = tuple(one for one in step.parts if one not in was.parts)
        key = f"{step.key}{LATE}"
        more = step.but(id=name, key=key, about=new, parts=parts, after=(*step.after, step.id))
        found.append(more.as_it_was(laid.get(name)))
    return [
        step.but(after=(*step.after, *(since[one] for one in step.after if one in since)))
        if step.state == "open" and not step.id.endswith(SINCE)
        else step
        for step in found
    ]


def with_rigging(build: Build, steps: list[Step]) -> list[Step]:
    """With what is set on the fuselage: each part once what it stands on is glued, and before it is glued itself."""
    work, ready = rig.rig_steps(build, frozenset(step.id for step in steps))
    of_tail = {body: one.id for one in build.tail for body in bodies_of_tail(one)}
    # a V's seat waits for both halves
    seats: dict[str, tuple[str, ...]] = {}
    for body, step in ready.items():
        seat = f"{of_tail.get(body, body)} seat"
        seats[seat] = (*seats.get(seat, ()), step)
    seated = {step.id for step in steps if step.id in seats and step.state == "done"}
    glued = {body for body in ready if f"{of_tail.get(body, body)} seat" in seated}
    locked = {*build.surveyed.locked, *glued}
    done = {f"true {body}" for body in locked}
    if done:
        done.add("true level")
    # the props are tried on what is set, and stand when it is glued
    waits = seats | {f"{seat.removesuffix(' seat')} props": for_ for seat, for_ in seats.items()}
    bound = [
        step.but(after=(*step.after, *waits[step.id])) if step.id in waits else step
        for step in steps
    ]
    return [*bound, *(one.but(state="done") if one.id in done else one for one in work.steps)]


def _without_strangers(steps: Iterable[Step]) -> list[Step]:
    """Each waiting for steps that are there."""
    found = list(steps)
    there = {step.id for step in found}
    return [step.but(after=tuple(one for one in step.after if one in there)) for step in found]
