"""From an estimate to millimetres at the seat: what to shim, sand or slide, and what would follow."""

import math
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.survey.adjusting import Network, Solution
from hardkeel.survey.checking import Check, CheckRule, judge
from hardkeel.survey.columns import Columns
from hardkeel.survey.model import Body, Contact, Shop, contacts_of

_VERTICAL: Final = ("dz", "roll", "pitch")  # what packing or sanding a seat can change
_RISES_FREELY_MM: Final = (
    1e4  # a degree of turn counts as much as this: it is taken only where needed
)


@dataclass(frozen=True, slots=True)
class ContactMove:
    """What brings one contact back to its design place, mm, each with its sigma."""

    contact: str
    lift: float
    slide_x: float
    slide_y: float
    lift_sigma: float
    slide_x_sigma: float
    slide_y_sigma: float


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
    """All that can be done at one body's seat."""

    body: str
    moves: tuple[ContactMove, ...]
    only_shims: Way
    only_sanding: Way


def corrections_of(
    net: Network, solution: Solution, rules: tuple[CheckRule, ...]
) -> tuple[Correction, ...]:
    """One correction for each body that has a seat with contacts."""
    shop = net.survey.shop or Shop()
    return tuple(
        _correct(net, solution, rules, body, shop)
        for body in net.survey.bodies
        if body.id in net.seats
    )


def _correct(
    net: Network, solution: Solution, rules: tuple[CheckRule, ...], body: Body, shop: Shop
) -> Correction:
    columns, contacts = net.columns, contacts_of(body)
    at = np.array([contact.at for contact in contacts])
    placed = net.seats[body.id].place(solution.unknowns)
    off = at - placed.airframe
    moves = placed.airframe_moves
    sigma = np.sqrt(np.maximum(np.einsum("kin,nm,kim->ki", moves, solution.covariance, moves), 0))
    lifts = off[:, 2]
    shims = _round_up_from_zero(lifts - lifts.min(), shop.shim_step)
    sanding = -_round_up_from_zero(lifts.max() - lifts, shop.sand_step)

    touched = [rule for rule in rules if _moves_with(columns, rule, body.id)]
    tilts = _tilts_by(columns, body.id, moves[:, 2], np.column_stack([shims, sanding]))

    def way(rounded: Array, tilt: Array) -> Way:
        after = solution.unknowns + tilt
        return Way(_named(contacts, rounded), judge(touched, after, solution.covariance))

    return Correction(
        body.id,
        tuple(
            ContactMove(
                c.id,
                *(float(off[i, a]) for a in (2, 0, 1)),
                *(float(sigma[i, a]) for a in (2, 0, 1)),
            )
            for i, c in enumerate(contacts)
        ),
        way(shims, tilts[:, 0]),
        way(sanding, tilts[:, 1]),
    )


def _round_up_from_zero(amounts: Array, step: float) -> Array:
    """To the nearest step the builder has; the amounts are never negative."""
    return np.floor(amounts / step + 0.5) * step


def _tilts_by(columns: Columns, body: str, vertical: Array, lifts: Array) -> Array:
    """Changes of the unknowns, shape (n, w), when the contacts are lifted by `lifts` mm, shape (k, w).

    Least squares over dz, roll and pitch; where the contacts do not define all of them (two in line)
    the body turns as little as it can, so that what nobody packs does not change.
    """
    free = [columns.start[body] + columns.names[body].index(name) for name in _VERTICAL]
    cost = np.array([_RISES_FREELY_MM, 1.0, 1.0])  # dz in mm beside roll and pitch in degrees
    change = np.zeros((columns.size, lifts.shape[1]))
    turned = np.linalg.lstsq(vertical[:, free] * cost, lifts, rcond=1e-9)[0]
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
