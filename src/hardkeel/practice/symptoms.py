"""What a model does in the air, and which of its errors could be behind it, by the same reckoning as *In the air*."""

from dataclasses import dataclass
from typing import Final

from hardkeel.practice.feeling import Feel, Listed
from hardkeel.survey.checking import Check
from hardkeel.survey.model import Role
from hardkeel.trim.flying import FELT, Effect, effect_of


@dataclass(frozen=True, slots=True)
class Symptom:
    """Something that a model does.

    Attributes
    ----------
    kinds : tuple of str
        Checks whose error does it.
    sign : float
        Of the effect's first figure: 1, −1, or 0 for either way.
    roles : tuple of str
        Of what only such an error does it; empty for any.
    """

    id: str
    kinds: tuple[str, ...]
    sign: float = 0.0
    roles: tuple[Role, ...] = ()


# Figures that say a way: what trims out with rudder to port or down elevator would turn to starboard or raise its nose
# if left alone, and a roll rate is one.  A slip is none: which way a slipping model turns is its dihedral's to say.
_SAYS_WAY: Final = frozenset({"rudder", "elevator", "roll_rate"})
SYMPTOMS: Final = (
    Symptom("pulls-port", ("fin_yaw", "vee_yaw", "yaw", "roll_to_wing", "vee_tilt", "vee_incidence_difference"), -1.0),
    Symptom("pulls-starboard", ("fin_yaw", "vee_yaw", "yaw", "roll_to_wing", "vee_tilt", "vee_incidence_difference"), 1.0),
    Symptom("rolls-port", ("twist_difference", "offset"), -1.0, ("wing",)),
    Symptom("rolls-starboard", ("twist_difference", "offset"), 1.0, ("wing",)),
    Symptom("nose-up", ("decalage",), 1.0),
    Symptom("nose-down", ("decalage",), -1.0),
    Symptom("corkscrews", ("roll_to_wing", "vee_tilt")),
    Symptom("rudder-pitches", ("fin_lean_to_stab",)),
    Symptom("throttle", ("down", "side")),
)  # fmt: skip


@dataclass(frozen=True)
class Cause:
    """An error that could be behind it.

    Attributes
    ----------
    check : Check
        At the edge of its tolerance, the way that would do it; where the way is not reckoned either way is meant.
    effect : Effect or None
        What that much of it does.
    either : bool
        The way is not reckoned.
    listed : Listed
        What to read for it.
    """

    check: Check
    effect: Effect | None
    either: bool
    listed: Listed

    @property
    def is_slight(self) -> bool:
        """Whether what is allowed of it would not be felt."""
        return self.effect is not None and abs(self.effect.first) < FELT


def causes_of(feel: Feel, symptom: Symptom) -> tuple[Cause, ...]:
    """All that it could be on this model: what is soonest known first, what would hardly be felt last."""
    trim = feel.trim
    found = []
    for rule in feel.judgement.rules:
        if rule.kind not in symptom.kinds or (symptom.roles and rule.role not in symptom.roles):
            continue
        check = next(one for one in feel.checks(feel.unknowns({})) if one.id == rule.id)
        effect = effect_of(trim, check, rule.tolerance, 0.0)
        known = effect is not None and effect.figures[0][0] in _SAYS_WAY and effect.first != 0
        either = not known or not symptom.sign
        error = rule.tolerance
        if effect is not None and not either and effect.first * symptom.sign < 0:
            error = -rule.tolerance
            effect = effect_of(trim, check, error, 0.0)
        found.append(Cause(check.off_by(error), effect, either, feel.list_for(rule)))
    return tuple(
        sorted(found, key=lambda one: (one.is_slight, not one.listed.decides, one.listed.minutes))
    )


def symptom_called(name: str) -> Symptom:
    """The one with this id."""
    return next(one for one in SYMPTOMS if one.id == name)
