"""From an estimate to millimetres at the seat: what to shim, sand or slide, and what would follow."""

import math
from collections.abc import Collection, Iterable
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array, turns
from hardkeel.survey.adjusting import Solution
from hardkeel.survey.checking import Check, CheckRule, judge
from hardkeel.survey.columns import Columns
from hardkeel.survey.model import DATUM, PROP, Body, Contact, Shop, contacts_of
from hardkeel.survey.network import Network
from hardkeel.survey.roles import wing_beneath


@dataclass(frozen=True, slots=True)
class Packed:
    """Which way packing under a contact pushes a body, and what that can change."""

    axis: int
    sign: float
    changes: tuple[str, str, str]


_UP: Final = Packed(2, 1.0, ("dz", "roll", "pitch"))
_FORWARD: Final = Packed(0, -1.0, ("dx", "yaw", "pitch"))  # from behind, at a firewall
_RISES_FREELY_MM: Final = (
    1e4  # a degree of turn counts as much as this: it is taken only where needed
)


@dataclass(frozen=True, slots=True)
class ContactMove:
    """What brings one contact back to its design place, mm, each with its sigma.

    Attributes
    ----------
    strut : tuple of float, optional
        How long its strut is now and how long it must be, mm; where the contact says the strut's foot.
    """

    contact: str
    lift: float
    slide_x: float
    slide_y: float
    lift_sigma: float
    slide_x_sigma: float
    slide_y_sigma: float
    strut: tuple[float, float] | None = None


@dataclass(frozen=True, slots=True)
class Way:
    """A ready way to do it with what the builder has.

    Attributes
    ----------
    moves : tuple of (contact id, mm)
        Rounded; positive is packing under the contact, negative is wood to take off.
    checks : tuple of Check
        The checks of this body as they should stand afterwards.
    """

    moves: tuple[tuple[str, float], ...]
    checks: tuple[Check, ...]


@dataclass(frozen=True, slots=True)
class Correction:
    """All that can be done at one body's seat.

    Attributes
    ----------
    fitted : Way, optional
        Both ways at once, in the steps that the seat has: of a slot, a hole, struts or a cabane, which
        are neither shimmed nor sanded.
    """

    body: str
    moves: tuple[ContactMove, ...]
    only_shims: Way
    only_sanding: Way
    fitted: Way | None = None


@dataclass(frozen=True, slots=True)
class JointWay:
    """All seats that are out corrected at once.

    Attributes
    ----------
    moves : tuple of (body id, contact id, mm)
    checks : tuple of Check
        Every check as it should stand afterwards.
    """

    moves: tuple[tuple[str, str, float], ...]
    checks: tuple[Check, ...]


@dataclass(frozen=True, slots=True)
class Together:
    """Both ways of it."""

    only_shims: JointWay
    only_sanding: JointWay


def corrections_of(
    net: Network, solution: Solution, rules: tuple[CheckRule, ...]
) -> tuple[Correction, ...]:
    """One correction for each body that has a seat with contacts.

    Where the survey aims a body at another its contacts' design place is first turned about its pivot by
    that body's estimated roll and pitch, so that it comes true to it as it stands.
    """
    shop = net.survey.shop or Shop()
    return tuple(
        _correct(net, solution, rules, body, shop, _Aim.of(net, solution, body))
        for body in net.survey.bodies
        if body.id in net.seats and body.id not in net.survey.locked
    )


def together_of(
    net: Network, solution: Solution, rules: tuple[CheckRule, ...], out: Collection[str]
) -> Together | None:
    """All seats of these bodies corrected at once; ``None`` where none of them has a seat.

    A body that aims at one which is corrected with it aims at the datum: that is where the other goes.
    """
    shop = net.survey.shop or Shop()
    movable = net.seats.keys() - set(net.survey.locked)
    seats = [body for body in net.survey.bodies if body.id in movable and body.id in out]
    if not seats:
        return None
    aims = net.survey.aim or {}
    ways: list[JointWay] = []
    for name in ("only_shims", "only_sanding"):
        moves: list[tuple[str, str, float]] = []
        change = np.zeros(net.columns.size)
        for body in seats:
            aim = _Aim.of(net, solution, body, turned=aims.get(body.id) not in out)
            one = _correct(net, solution, rules, body, shop, aim)
            way: Way = one.fitted or getattr(one, name)
            moves += [(body.id, contact, mm) for contact, mm in way.moves]
            moves_with = net.seats[body.id].place(solution.unknowns).airframe_moves
            lifts = np.array([[mm] for _, mm in way.moves])
            change += _tilts_by(net.columns, body, moves_with, lifts)[:, 0]
        after = judge(rules, solution.unknowns + change, solution.covariance)
        ways.append(JointWay(tuple(moves), after))
    return Together(*ways)


@dataclass(frozen=True, slots=True)
class _Aim:
    """Where a body's contacts are wanted: their design place, turned and shifted with what it is set to.

    Attributes
    ----------
    turn : Array, optional
        Shape (3, 3), about the body's pivot: of what the survey aims it at; ``None`` for the datum.
    shift : Array
        Shape (3,), mm: of the wing on which its struts stand, up and along; what that does across is its own error.
    moves : Array
        Shape (3, n): the shift's derivative by the unknowns.
    """

    turn: Array | None
    shift: Array
    moves: Array

    @classmethod
    def of(cls, net: Network, solution: Solution, body: Body, *, turned: bool = True) -> "_Aim":
        """What this survey sets a body to."""
        moves = np.zeros((3, net.columns.size))
        lower = wing_beneath(net.survey, body)
        for axis, name in ((0, "dx"), (2, "dz")) if lower is not None else ():
            column = net.columns.column(lower.id, name) if lower is not None else None
            if column is not None:
                moves[axis, column] = 1.0
        turn = _turned_to(net, solution, body.id) if turned else None
        return cls(turn, moves @ solution.unknowns, moves)


def _turned_to(net: Network, solution: Solution, body: str) -> Array | None:
    """The turn of what a body aims at, shape (3, 3); ``None`` for the datum."""
    aim = (net.survey.aim or {}).get(body, DATUM)
    if aim == DATUM:
        return None
    angles = []
    for name in ("roll", "pitch"):
        column = net.columns.column(aim, name)
        angles.append(float(solution.unknowns[column]) if column is not None else 0.0)
    turn: Array = turns([(angles[0], angles[1], 0.0)])[0][0]
    return turn


def _correct(
    net: Network,
    solution: Solution,
    rules: tuple[CheckRule, ...],
    body: Body,
    shop: Shop,
    aim: _Aim,
) -> Correction:
    columns, contacts = net.columns, contacts_of(body)
    at = np.array([contact.at for contact in contacts])
    if aim.turn is not None:
        pivot = np.array(body.origin)
        at = (at - pivot) @ aim.turn.T + pivot
    at = at + aim.shift
    placed = net.seats[body.id].place(solution.unknowns)
    off = at - placed.airframe
    moves = placed.airframe_moves
    against = moves - aim.moves
    spread = np.einsum("kin,nm,kim->ki", against, solution.covariance, against)
    sigma = np.sqrt(np.maximum(spread, 0))
    packed = packed_along(body)
    lifts = packed.sign * off[:, packed.axis]
    shims = _round_up_from_zero(lifts - lifts.min(), shop.shim_step)
    sanding = -_round_up_from_zero(lifts.max() - lifts, shop.sand_step)
    steps = seat_steps(body, shop)
    fitted = np.floor(lifts / steps + 0.5) * steps if steps is not None else np.zeros_like(lifts)

    touched = [rule for rule in rules if _moves_with(columns, rule, body.id)]
    tilts = _tilts_by(columns, body, moves, np.column_stack([shims, sanding, fitted]))

    def way(rounded: Array, tilt: Array) -> Way:
        after = solution.unknowns + tilt
        return Way(_named(contacts, rounded), judge(touched, after, solution.covariance))

    return Correction(
        body.id,
        tuple(
            ContactMove(
                c.id,
                lift=float(off[i, 2]),
                slide_x=float(off[i, 0]),
                slide_y=float(off[i, 1]),
                lift_sigma=float(sigma[i, 2]),
                slide_x_sigma=float(sigma[i, 0]),
                slide_y_sigma=float(sigma[i, 1]),
                strut=_strut(c, aim.shift, placed.airframe[i], at[i]),
            )
            for i, c in enumerate(contacts)
        ),
        way(shims, tilts[:, 0]),
        way(sanding, tilts[:, 1]),
        way(fitted, tilts[:, 2]) if steps is not None else None,
    )


def seat_steps(body: Body, shop: Shop) -> float | None:
    """How finely the seat goes up and down, mm; ``None`` for one that is packed or sanded."""
    kind = body.seat.kind if body.seat is not None else "saddle"
    if any(contact.id == PROP for contact in contacts_of(body)):
        return shop.shim_step  # a prop goes up and down, and what it turns wants both at the foot
    return {
        "slot": shop.stroke,
        "tube": shop.stroke,
        "struts": shop.shim_step,
        "cabane": shop.washer,
    }.get(kind)


def _strut(contact: Contact, shift: Array, now: Array, wanted: Array) -> tuple[float, float] | None:
    """A strut's length as it is and as it must be."""
    if contact.foot is None:
        return None
    foot = np.array(contact.foot) + shift
    return float(np.linalg.norm(now - foot)), float(np.linalg.norm(wanted - foot))


def _round_up_from_zero(amounts: Array, step: float) -> Array:
    """To the nearest step the builder has; the amounts are never negative."""
    return np.floor(amounts / step + 0.5) * step


def packed_along(body: Body) -> Packed:
    """Which way a body's seat is packed: up, an engine's firewall along x."""
    return _FORWARD if body.seat is not None and body.seat.kind == "firewall" else _UP


def _tilts_by(columns: Columns, body: Body, moves: Array, lifts: Array) -> Array:
    """Changes of the unknowns, shape (n, w), when the contacts are packed by `lifts` mm, shape (k, w).

    Least squares over a shift and two turns; where the contacts do not define all of them (two in line)
    the body turns as little as it can, so that what nobody packs does not change.
    """
    packed = packed_along(body)
    along = packed.sign * moves[:, packed.axis]
    names = columns.names[body.id]
    free = [columns.start[body.id] + names.index(name) for name in packed.changes]
    cost = np.array([_RISES_FREELY_MM, 1.0, 1.0])  # mm beside degrees
    change = np.zeros((columns.size, lifts.shape[1]))
    turned = np.linalg.lstsq(along[:, free] * cost, lifts, rcond=1e-9)[0]
    change[free] = cost[:, None] * turned
    return change


def _moves_with(columns: Columns, rule: CheckRule, body: str) -> bool:
    start = columns.start[body]
    return bool(np.any(rule.slope[start : start + len(columns.names[body])]))


def _named(contacts: Iterable[Contact], amounts: Array) -> tuple[tuple[str, float], ...]:
    return tuple(
        (contact.id, 0.0 if math.isclose(mm, 0, abs_tol=1e-12) else float(mm))
        for contact, mm in zip(contacts, amounts, strict=True)
    )
