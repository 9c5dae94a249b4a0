"""How far the parts of a step are once it is done, and what the ledger says is done already."""

from collections.abc import Sequence
from typing import Final

from hardkeel.airframe.parts import parts_of
from hardkeel.parts.model import STATES, State
from hardkeel.project.model import Build
from hardkeel.schedule.model import Step
from hardkeel.schedule.ordering import all_before

# what a step without glue leaves its parts as: the file's steps hold no key for it, so it goes by their ids
_REACHED: Final[dict[str, State]] = {
    "cut": "cleaned",
    "try in": "dry-fitted",
    "formers up": "dry-fitted",
}
_REACHED_OF_A_SURFACE: Final[dict[str, State]] = {
    "cut": "cleaned",
    "pin": "dry-fitted",
    "feet": "dry-fitted",
    "spar": "dry-fitted",
    "strips": "dry-fitted",
}


def reached_by(step: Step) -> State | None:
    """How far the parts of a step are once it is done."""
    if step.glue:
        return "glued"
    # a step of one surface is called by the surface and what is done: "stab cut"
    return _REACHED.get(step.id) or _REACHED_OF_A_SURFACE.get(step.id.rpartition(" ")[2])


def supposed(build: Build, made: Sequence[Step]) -> tuple[Step, ...]:
    """Steps that were never laid, as the ledger has them: done where all of their parts are that far, and what comes before those."""
    states = build.listed.states
    there = {part.id for part in parts_of(build)}
    done: set[str] = set()
    for step in made:
        reached = reached_by(step)
        parts = [part for part in step.parts if part in there]
        if reached is None or not parts or step.state != "open":
            continue
        if all(STATES.index(states.get(part, "wanted")) >= STATES.index(reached) for part in parts):
            done |= {step.id, *all_before(made, step.id)}
    return tuple(
        step.but(state="done") if step.id in done and step.state == "open" else step
        for step in made
    )
