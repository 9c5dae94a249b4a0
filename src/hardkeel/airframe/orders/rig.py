"""The steps of *True*: what is set dry, in the order of rigging, before the tail is glued on."""

from typing import Final

from hardkeel.airframe.orders.work import Work
from hardkeel.project.model import Build
from hardkeel.survey.model import FUSELAGE
from hardkeel.survey.rigging import rigging_order

STAGE: Final = "true"
_SET: Final = {"wing": 45.0}
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
    done = {one for one in known if one in ("top sheet", "bottom sheet")}
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
        after = (last, f"{body} hinges", "stab seat" if body == "fin" else "")
        last = ready[body] = work.add(
            f"true {body}",
            after,
            key="set",
            about=(called,),
            hands_minutes=_SET.get(body, _USUAL),
            looks=True,
        )
    return work, ready
