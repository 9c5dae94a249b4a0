"""The steps of *True*: what is set dry, in the order of rigging, before the tail is glued on."""

from typing import Final

from hardkeel.airframe.bodies import bodies_of_tail
from hardkeel.airframe.orders.tail import seating_order
from hardkeel.airframe.orders.work import Work
from hardkeel.project.model import Build
from hardkeel.survey.model import FUSELAGE
from hardkeel.survey.rigging import rigging_order
from hardkeel.survey.roles import role_in
from hardkeel.tail.model import stands_on_fin

STAGE: Final = "true"
_SET: Final = {"wing": 45.0}  # by role
_USUAL: Final = 30.0


def rig_steps(build: Build, known: frozenset[str] = frozenset()) -> tuple[Work, dict[str, str]]:
    """The steps, and for each body the step after which it may be glued.

    Parameters
    ----------
    known : frozenset of str
        Ids of other stages' steps that may be waited for.
    """
    work = Work(STAGE, known)
    survey = build.surveyed
    ready: dict[str, str] = {}
    order = [body for body in rigging_order(survey) if body != FUSELAGE]
    if not order:
        return work, ready
    done = {
        one
        for one in known
        if one in ("read", "lift", "top sheet", "bottom sheet") or one.startswith("planks ")
    }
    last = work.add(
        "true level",
        tuple(sorted(done)),
        key="level",
        hands_minutes=15.0,
        needs=("board",),
    )
    for body in order:
        held = survey.body(body)
        called = (held.label if held is not None else None) or body  # the builder's own name for it
        after = (last, f"{_surface_of(build, body)} hinges", *_glued_under(build, body))
        last = ready[body] = work.add(
            f"true {body}",
            after,
            key="set",
            about=(called,),
            hands_minutes=_SET.get(role_in(survey, body) or "", _USUAL),
            looks=True,
        )
    return work, ready


def _surface_of(build: Build, body: str) -> str:
    """The tail surface that a body is, or is a half of; its own name for any other."""
    return next((one.id for one in build.tail if body in bodies_of_tail(one)), body)


def _glued_under(build: Build, body: str) -> tuple[str, ...]:
    """Seats that are glued before a tail surface is set: of what it stands on."""
    order = seating_order(build.tail)
    mine = next((one for one in order if body in bodies_of_tail(one)), None)
    if mine is None or not (mine.upright or any(stands_on_fin(mine, one) for one in order)):
        return ()
    under = [
        one
        for one in order[: order.index(mine)]
        if (not one.upright if mine.upright else stands_on_fin(mine, one))
    ]
    return tuple(f"{one.id} seat" for one in under)
