"""What each body is, whatever it is called: the contract's roles, and what follows from them."""

from typing import Final

from hardkeel.survey.model import FUSELAGE, PROP, Body, Role, Survey, contacts_of, role_of

__all__ = [
    "LYING",
    "STANDING",
    "is_ahead",
    "is_aside",
    "is_panel",
    "main_of",
    "role_in",
    "role_of",
    "set_on_tail",
    "trimming",
    "turn_of",
    "wing_beneath",
    "with_role",
]

LYING: Final[frozenset[Role]] = frozenset({"wing", "stabilizer", "foreplane"})
STANDING: Final[frozenset[Role]] = frozenset({"fin"})
_ON_TAIL: Final[frozenset[Role]] = frozenset({"stabilizer", "fin", "vee"})
_BESIDE_MM: Final = 1.0
_NO_WING: Final = 0.3  # of the wing's span: what is narrower and sits on nothing is no second wing
# whose turn it is when a model is set: all hangs on the wing, and the engine waits until the airframe stands
_TURNS: Final[dict[Role, int]] = {
    "wing": 0,
    "foreplane": 1,
    "stabilizer": 1,
    "vee": 1,
    "fin": 2,
    "thrust": 3,
}


def with_role(survey: Survey, role: Role) -> tuple[Body, ...]:
    """The bodies of a role, in the file's order: the first is the main one."""
    return tuple(body for body in survey.bodies if role_of(body) == role)


def main_of(survey: Survey, role: Role) -> Body | None:
    """The main body of a role."""
    return next(iter(with_role(survey, role)), None)


def role_in(survey: Survey, body_id: str) -> Role | None:
    """What the body with this id is; ``None`` for the fuselage and where there is none."""
    body = survey.body(body_id)
    return role_of(body) if body is not None and body.id != FUSELAGE else None


def trimming(survey: Survey) -> tuple[Body, ...]:
    """What the wing is trimmed against: the main stabilizer, both halves of a V, or the main foreplane."""
    stabilizer = main_of(survey, "stabilizer")
    if stabilizer is not None:
        return (stabilizer,)
    halves = with_role(survey, "vee")
    if halves:
        return halves[:2]
    foreplane = main_of(survey, "foreplane")
    return (foreplane,) if foreplane is not None else ()


def is_panel(body: Body) -> bool:
    """Whether it is a wing's panel on one side, set for itself: its tip is propped, its root beside the middle."""
    beside = role_of(body) == "wing" and abs(body.origin[1]) > _BESIDE_MM
    return beside and any(contact.id == PROP for contact in contacts_of(body))


def is_aside(survey: Survey, body: Body) -> bool:
    """Whether it is a part of the builder's own, a step or a float: measured, and set on no seat."""
    main = main_of(survey, "wing")
    if role_of(body) != "wing" or body.seat is not None or main is None or body == main:
        return False
    return (body.span or 0.0) < _NO_WING * (main.span or 0.0)


def wing_beneath(survey: Survey, body: Body) -> Body | None:
    """The wing that another stands over on struts which were placed; ``None`` where it stands on none."""
    if role_of(body) != "wing" or body.seat is None or body.seat.struts is None:
        return None
    lower = [
        one
        for one in with_role(survey, "wing")
        if one.origin[2] < body.origin[2] and not is_panel(one) and not is_aside(survey, one)
    ]
    return max(lower, key=lambda one: one.origin[2], default=None)


def is_ahead(wing: Body, other: Body) -> bool:
    """Whether a surface is the front one of the two: a foreplane always, else by its pivot."""
    return role_of(other) == "foreplane" or other.origin[0] < wing.origin[0]


def set_on_tail(body: Body) -> bool:
    """Whether a body is set to the tail of the fuselage, and goes where that bends."""
    return role_of(body) in _ON_TAIL


def turn_of(role: Role | None) -> int:
    """Whose turn it is: wings, then what lies beside them, then what stands, the engine last."""
    return _TURNS[role] if role is not None else 0
