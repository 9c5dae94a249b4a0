"""Steps as they are thought of, one after another, and why one has to wait.

Times are those of the kinds of glue on a warm bench; the builder's own bottle goes before.
"""

from collections.abc import Set

from hardkeel.glue.kinds import PLANNED
from hardkeel.schedule.model import Step


class Work:
    """The steps of one stage.

    Parameters
    ----------
    known : set of str
        Ids of steps of other stages that may be waited for.
    """

    def __init__(self, stage: str, known: Set[str] = frozenset()) -> None:
        self.stage, self._known = stage, known
        self.steps: list[Step] = []

    def add(self, step_id: str, title: str, after: tuple[str, ...] = (), **more: object) -> str:
        """A step behind those of `after` that there are."""
        known = {step.id for step in self.steps} | self._known
        glue = more.get("glue")
        if isinstance(glue, str):
            handle, cure = PLANNED[glue]
            more |= {"handle_minutes": handle, "cure_minutes": cure}
        self.steps.append(
            Step.model_validate(
                {
                    "id": step_id,
                    "stage": self.stage,
                    "title": title,
                    "after": tuple(one for one in after if one in known),
                    **more,
                }
            )
        )
        return step_id


def reasons(waits: tuple[Step, ...]) -> str:
    """Why a step can't be done yet."""
    first = waits[0]
    said = first.title[:1].lower() + first.title[1:] if first.title else first.id
    more = f", and {len(waits) - 1} more" if len(waits) > 1 else ""
    why = f" ({first.because})" if first.because else ""
    return f"first {said}{why}{more}"
