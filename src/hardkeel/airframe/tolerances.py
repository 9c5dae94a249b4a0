"""What each class of model is allowed, for every surface that it has."""

from collections.abc import Iterable
from typing import Final

from hardkeel.project.model import ModelClass
from hardkeel.survey.checking import TOLERANCES, rules_of
from hardkeel.survey.columns import lay_out
from hardkeel.survey.model import Body, Survey

# How much of the default tolerance a class allows.  Half a degree of incidence or roll is trimmed out
# unnoticed on a slow trainer; a precision model is flown through manoeuvres in which a trimmed-out
# error comes back with every change of speed, so it gets little more than good tools can prove.
CLASS_FACTOR: Final[dict[ModelClass, float]] = {"trainer": 1.5, "sport": 1.0, "precision": 0.6}


def class_tolerances(model_class: ModelClass, bodies: Iterable[Body]) -> dict[str, float] | None:
    """Tolerances of a class for these bodies, by check id; ``None`` where the defaults stand."""
    factor = CLASS_FACTOR[model_class]
    if factor == 1.0:
        return None
    survey = Survey(bodies=tuple(bodies))
    rules = rules_of(survey, lay_out(survey.bodies))
    return {rule.id: round(TOLERANCES[rule.kind] * factor, 3) for rule in rules}
