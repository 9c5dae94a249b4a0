"""What each class of model is allowed, for every surface that it has."""

from collections.abc import Iterable
from typing import Final

from hardkeel.project.model import ModelClass
from hardkeel.survey.checking import TOLERANCES

# How much of the default tolerance a class allows.  Half a degree of incidence or roll is trimmed out
# unnoticed on a slow trainer; a precision model is flown through manoeuvres in which a trimmed-out
# error comes back with every change of speed, so it gets little more than good tools can prove.
CLASS_FACTOR: Final[dict[ModelClass, float]] = {"trainer": 1.5, "sport": 1.0, "precision": 0.6}
_OF_A_SURFACE: Final = ("incidence", "yaw", "roll", "offset", "twist_difference")
_OF_ALL: Final = ("decalage", "stab_roll_to_wing", "fin_yaw", "fin_lean_to_stab")


def class_tolerances(
    model_class: ModelClass, surfaces: Iterable[str] = ("wing", "stab")
) -> dict[str, float] | None:
    """Tolerances of a class for lying surfaces, by check id; ``None`` where the defaults stand."""
    factor = CLASS_FACTOR[model_class]
    if factor == 1.0:
        return None
    kinds = {f"{body}_{kind}": kind for body in surfaces for kind in _OF_A_SURFACE}
    kinds |= {check: check.removeprefix("stab_") for check in _OF_ALL}
    return {check: round(TOLERANCES[kind] * factor, 3) for check, kind in kinds.items()}
