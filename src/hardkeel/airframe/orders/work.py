"""Steps as they are thought of, one after another.

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

    def add(
        self, step_id: str, after: tuple[str, ...] = (), *, key: str = "", **more: object
    ) -> str:
        """A step behind those of `after` that there are; its words follow from `key`, its own id without one."""
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
                    "key": f"{self.stage}.{key or step_id}",
                    "after": tuple(one for one in after if one in known),
                    **more,
                }
            )
        )
        return step_id
