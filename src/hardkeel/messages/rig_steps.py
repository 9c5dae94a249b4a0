"""The steps of *True*: what is set dry, in the order of rigging, before the tail is glued on."""

from typing import Final

from hardkeel.messages.names import body_name
from hardkeel.messages.work import Work
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
        "Level the fuselage on its datum, along and across",
        tuple(sorted(done)),
        hands_minutes=15.0,
        needs=("board",),
    )
    for body in order:
        name = body_name(survey, body)
        after = (last, f"{body} hinges", "stab seat" if body == "fin" else "")
        last = ready[body] = work.add(
            f"true {body}",
            f"Set the {name} dry: read it, correct its seat, read again",
            after,
            hands_minutes=_SET.get(body, _USUAL),
            parts=(),
            hold="the checks of this part are true, or known and accepted",
        )
    return work, ready
