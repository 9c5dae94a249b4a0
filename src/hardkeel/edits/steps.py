"""Pure edits of the order of work: steps planned, ticked, added, cut, moved."""

from collections.abc import Sequence, Set
from datetime import datetime
from typing import Final, Literal

from pydantic import ValidationError

from hardkeel.airframe.orders import tail
from hardkeel.airframe.orders.craft import REPAIRS, Repair, look_again_minutes
from hardkeel.airframe.orders.reached import reached_by
from hardkeel.airframe.orders.whole import asked_for
from hardkeel.airframe.parts import parts_of
from hardkeel.base.errors import BadInput
from hardkeel.edits.glue import glued, unglued
from hardkeel.edits.named import edit
from hardkeel.glue.kinds import KINDS, PLANNED
from hardkeel.glue.schools import School, sort_of
from hardkeel.logbook.entries import Entry, StepDone
from hardkeel.parts.model import STATES
from hardkeel.project.model import Build, Covering
from hardkeel.schedule.model import BY_HAND, OWN, BenchTime, Step, StepState
from hardkeel.schedule.ordering import all_before, check_steps, ordered, standing_of
from hardkeel.schedule.timers import timer, timers_of, with_timers

_LONGEST_SITTING_MINUTES: Final = 16 * 60


class OutOfOrder(BadInput):
    """A step is to be done before one that it waits for.

    Attributes
    ----------
    waits : tuple of Step
        What should be done first.
    """

    def __init__(self, step: Step, waits: tuple[Step, ...]) -> None:
        self.step, self.waits = step, waits
        super().__init__("", f"{step.id} waits for {waits[0].id}")


@edit
def plan_steps(build: Build, steps: Sequence[Step], stage: str) -> Build:
    """Put a stage's steps in; what is done of them stays done, the builder's own and other stages' stay.

    Those of other stages wait for these where the whole order has it so, in whichever order stages are laid.
    """
    was = {step.id: step for step in build.steps}
    made = tuple(step.as_it_was(was.get(step.id)) for step in steps)
    known = {step.id for step in made}
    others = [step for step in build.steps if step.stage != stage and step.id not in known]
    left = known | {step.id for step in others}
    # of another stage's step that is not laid nothing is waited for
    alone = [
        step.but(after=tuple(one for one in step.after if one in left)) for step in (*made, *others)
    ]
    asked = {step.id: step.after for step in asked_for(build)}
    bound = [
        step.but(after=tuple(dict.fromkeys((*step.after, *_there(asked.get(step.id, ()), left)))))
        for step in alone
    ]
    try:
        return _with(build, ordered(bound))
    except BadInput:  # the builder moved some: their order goes before ours
        return _with(build, ordered(alone))


def _there(names: Sequence[str], known: Set[str]) -> tuple[str, ...]:
    return tuple(one for one in names if one in known)


@edit
def tick(build: Build, step_id: str, at: datetime, *, anyway: bool = False) -> Build:
    """A step is done: its parts' states follow, the log says so.

    Raises
    ------
    OutOfOrder
        When it waits for another, unless it is done `anyway`.
    """
    step = _step(build, step_id)
    if not anyway:
        for one, waits in standing_of(build.steps).blocked:
            if one.id == step_id:
                raise OutOfOrder(step, waits)
    took = _minutes_taken(step, at)
    done = _with_state(build, step_id, "done", took=float(took) if took else step.took)
    ledger = done.listed
    there = {part.id for part in parts_of(done)}
    states = dict(ledger.states)
    reached = reached_by(step)
    if reached is not None:
        for part in step.parts:
            now = STATES.index(states.get(part, "wanted"))
            if part in there and now < STATES.index(reached):
                states[part] = reached
    changed = done.but(ledger=ledger.but(states=states)) if states != ledger.states else done
    entry = Entry(
        at=at.isoformat(timespec="seconds"),
        by="app",
        kind="change",
        step=StepDone(
            title=step.title if step.title or step.key else step.id,
            key=step.key,
            about=step.about,
            minutes=float(took) if took else None,
        ),
    )
    more = timers_of(step, at)
    look = look_again_minutes(step)
    if look:
        more = (timer(f"{step.id} look", "look", at, look, step=step), *more)
    if more:
        bench = changed.bench or BenchTime()
        changed = changed.but(bench=bench.but(timers=with_timers(bench.timers, more, at)))
    return glued(changed.but(log=(*changed.log, entry)), step_id, step.glue, at)


@edit
def begin(build: Build, step_id: str, at: datetime) -> Build:
    """A step is being done since now."""
    step = _step(build, step_id)
    begun = step.but(state="doing", started=at.isoformat(timespec="seconds"))
    return _with(build, tuple(begun if one.id == step_id else one for one in build.steps))


def _minutes_taken(step: Step, at: datetime) -> int:
    """How long the hands were at it; 0 where it is not known when they began: a night between is no work."""
    if step.started is None:
        return 0
    begun = datetime.fromisoformat(step.started)
    if (begun.tzinfo is None) != (at.tzinfo is None):
        begun, at = begun.replace(tzinfo=None), at.replace(tzinfo=None)
    minutes = round((at - begun).total_seconds() / 60)
    return minutes if 0 < minutes <= _LONGEST_SITTING_MINUTES else 0


@edit
def lay_all(build: Build, steps: Sequence[Step]) -> Build:
    """Keep these as the build's steps, whole."""
    return _with(build, ordered(steps))


@edit
def untick(build: Build, step_id: str) -> Build:
    """A step is open again and its timers run no more; parts and log stay: what was done to the wood was done."""
    opened = unglued(_with_state(build, step_id, "open"), step_id)
    bench = opened.bench
    if bench is None or all(one.step != step_id for one in bench.timers):
        return opened
    timers = tuple(one for one in bench.timers if one.step != step_id)
    return opened.but(bench=bench.but(timers=timers))


@edit
def add_step(build: Build, title: str, after: str | None) -> Build:
    """Add a step of the builder's own behind another.

    Raises
    ------
    BadInput
        When it has no name, or there is no such step to stand behind.
    """
    if not title.strip():
        raise BadInput("", "a step needs a name")
    return _with_own(build, after, title=title.strip())


def _with_own(build: Build, after: str | None, **figures: object) -> Build:
    """With a step of the builder's own behind another, or last."""
    used = {step.id for step in build.steps}
    number = 1
    while f"{OWN} {number}" in used:
        number += 1
    waits = (_step(build, after).id,) if after else ()
    made = Step.model_validate({"id": f"{OWN} {number}", "stage": OWN, "after": waits, **figures})
    at = next((i + 1 for i, step in enumerate(build.steps) if step.id == after), len(build.steps))
    return _with(build, (*build.steps[:at], made, *build.steps[at:]))


@edit
def add_repair(build: Build, what: Repair, of: str, after: str | None) -> Build:
    """Add the mending of something as a step behind another; `of` says in the builder's words of what.

    Raises
    ------
    BadInput
        When there is no such step to stand behind.
    """
    minutes, glue = REPAIRS[what]
    times = (
        dict(zip(("handle_minutes", "cure_minutes"), PLANNED[glue], strict=True)) if glue else {}
    )
    return _with_own(
        build,
        after,
        key=f"{OWN}.repair.{what}",
        about=(of.strip(),) if of.strip() else (),
        hands_minutes=minutes,
        glue=glue,
        looks=True,
        **times,
    )


@edit
def set_step(build: Build, /, step_id: str, **figures: object) -> Build:
    """Set figures of a step: its minutes, glue, what to look for, cautions, what it needs, a note.

    With another glue go that glue's times and cautions, where they are not set themselves. What is set stays when the
    order is laid anew.

    Raises
    ------
    BadInput
        When there is no such step or figure, or it is none that a step can have.
    """
    unknown = set(figures) - BY_HAND - {"note"}
    if unknown:
        raise BadInput("", f"no figure {sorted(unknown)[0]}")
    step = _step(build, step_id)
    if "glue" in figures:
        figures = {**_with_glue(step, str(figures["glue"] or "")), **figures}
    own = tuple(dict.fromkeys((*step.by_hand, *(name for name in figures if name != "note"))))
    try:
        changed = Step.model_validate({**step.model_dump(), **figures, "by_hand": own})
    except ValidationError as fault:
        wrong = fault.errors()[0]
        told = wrong["msg"].removeprefix("Value error, ")
        raise BadInput(
            "", f"{str(wrong['loc'][0]).replace('_', ' ')} {told[:1].lower()}{told[1:]}"
        ) from None
    return _with(build, tuple(changed if one.id == step_id else one for one in build.steps))


@edit
def set_school(build: Build, school: School) -> Build:
    """Glue all joints of a school's sorts with its glue; what is begun or done stays as it was.

    Raises
    ------
    BadInput
        When no open step glues any of them.
    """
    steps = in_school(build.steps, school)
    if not steps:
        raise BadInput("", "no open step glues such joints")
    for step in steps:
        figures: dict[str, object] = {"glue": school.glue}
        if school.tacked:
            figures["hazards"] = tuple(
                dict.fromkeys(
                    (*_hazards_with(step, school.glue), *KINDS["thin cyanoacrylate"].hazards)
                )
            )
        build = set_step(build, step.id, **figures)
    return build


def in_school(steps: Sequence[Step], school: School) -> tuple[Step, ...]:
    """The open steps that glue joints of a school's sorts."""
    return tuple(
        step for step in steps if step.state == "open" and sort_of(step.key) in school.sorts
    )


def _hazards_with(step: Step, glue: str) -> tuple[str, ...]:
    """A step's cautions with another glue."""
    before = KINDS.get(step.glue or "")  # type: ignore[call-overload]
    kind = KINDS.get(glue)  # type: ignore[call-overload]
    others = [one for one in step.hazards if before is None or one not in before.hazards]
    return tuple(dict.fromkeys((*others, *(kind.hazards if kind is not None else ()))))


def _with_glue(step: Step, glue: str) -> dict[str, object]:
    """Times and cautions that go with a glue; none of them where none is used."""
    kind = KINDS.get(glue)  # type: ignore[call-overload]
    hazards = _hazards_with(step, glue)
    usual = (sum(kind.handle) / 2, sum(kind.cure) / 2) if kind is not None else (0.0, 0.0)
    handle, cure = PLANNED.get(glue, usual)
    return {"handle_minutes": handle, "cure_minutes": cure, "hazards": hazards}


@edit
def set_covering(build: Build, when: Literal["after", "before"]) -> Build:
    """Cover the tail after it stands on the model, or each surface before; steps that are laid follow."""
    changed = build.but(covering=Covering(when=when))
    if not any(step.stage == tail.STAGE for step in build.steps):
        return changed
    fresh = tail.tail_steps(changed)
    there = {step.id for step in fresh}
    # what the other school has and this has not is let go, as far as nothing was done of it
    gone = [
        step.id
        for step in changed.steps
        if step.stage == tail.STAGE and step.id not in there and step.state == "open"
    ]
    for step_id in gone:
        changed = delete_step(changed, step_id)
    return plan_steps(changed, fresh, tail.STAGE)


@edit
def delete_step(build: Build, step_id: str) -> Build:
    """Cut a step; what waited for it waits for what it had waited for."""
    gone = _step(build, step_id)

    def without(step: Step) -> Step:
        if step_id not in step.after:
            return step
        after = [one for one in step.after if one != step_id]
        return step.but(after=tuple(dict.fromkeys((*after, *gone.after))))

    return _with(build, tuple(without(step) for step in build.steps if step.id != step_id))


@edit
def move_step(build: Build, step_id: str, way: Literal[-1, 1]) -> Build:
    """Move a step up or down the list, as far as what waits for what allows.

    Raises
    ------
    BadInput
        When it would stand before one that it waits for.
    """
    steps = list(build.steps)
    at = next(i for i, step in enumerate(steps) if step.id == _step(build, step_id).id)
    to = at + way
    if not 0 <= to < len(steps):
        return build
    first, second = (steps[to], steps[at]) if way < 0 else (steps[at], steps[to])
    if first.id in all_before(build.steps, second.id):
        raise OutOfOrder(second, (first,))
    steps[at], steps[to] = steps[to], steps[at]
    return _with(build, tuple(steps))


def _step(build: Build, step_id: str | None) -> Step:
    found = next((step for step in build.steps if step.id == step_id), None)
    if found is None:
        raise BadInput("", f'no step "{step_id}"')
    return found


def _with_state(
    build: Build, step_id: str, state: StepState, *, took: float | None = None
) -> Build:
    step = _step(build, step_id)
    changed = step.but(state=state, took=took) if took is not None else step.but(state=state)
    return _with(build, tuple(changed if one.id == step_id else one for one in build.steps))


def _with(build: Build, steps: tuple[Step, ...]) -> Build:
    check_steps(steps)
    return build.but(steps=steps)
