"""Whose fault it is: a check between two bodies is charged by what each of them shows on its own."""

import math
from collections.abc import Collection, Mapping
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.survey.checking import Check, CheckRule, verdict_of
from hardkeel.survey.columns import Columns
from hardkeel.survey.correcting import Correction

BY_PACKING: Final = frozenset(
    {
        "incidence",
        "roll",
        "roll_to_wing",
        "gap",
        "decalage",
        "fin_lean_to_stab",
        "vee_tilt",
        "vee_angle",
        "vee_incidence_difference",
        "down",
        "side",
    }
)

# what the struts of a wing make: they are its own, whatever the wing beneath does
_OF_THE_UPPER: Final = frozenset({"gap", "stagger"})


def charges_of(
    columns: Columns,
    rules: tuple[CheckRule, ...],
    checks: tuple[Check, ...],
    unknowns: Array,
    covariance: Array,
    locked: Collection[str] = (),
) -> dict[str, tuple[str, ...]]:
    """The bodies that each check is charged to, by the check's id.

    A check of one body is that body's.  One between two bodies is charged to the one that is out of
    true by itself, and to both where neither or both are: then nothing tells them apart.  What is locked
    moves no more, so that the other is charged.

    Parameters
    ----------
    unknowns, covariance : Array
        Shape (n,) and (n, n): the estimate.
    """
    charged: dict[str, tuple[str, ...]] = {}
    for rule, check in zip(rules, checks, strict=True):
        between = [body for body in columns.start if _part(columns, rule, body).any()]
        if len(between) < 2 or check.verdict != "out":  # noqa: PLR2004  a check of one body
            charged[check.id] = (check.body,)
            continue
        if check.kind in _OF_THE_UPPER and check.body not in locked:
            charged[check.id] = (check.body,)
            continue
        free = [body for body in between if body not in locked]
        if len(free) == 1:
            charged[check.id] = (free[0],)
            continue
        out = [
            body
            for body in between
            if _is_out_alone(_part(columns, rule, body), rules, rule, unknowns, covariance)
        ]
        charged[check.id] = tuple(out) if len(out) == 1 else tuple(between)
    return charged


def _part(columns: Columns, rule: CheckRule, body: str) -> Array:
    """What a body itself brings to a check: the slope by its own unknowns, shape (n,)."""
    part = np.zeros(columns.size)
    span = slice(columns.start[body], columns.start[body] + len(columns.names[body]))
    part[span] = rule.slope[span]
    return part


def _is_out_alone(
    part: Array,
    rules: tuple[CheckRule, ...],
    rule: CheckRule,
    unknowns: Array,
    covariance: Array,
) -> bool:
    own = next((r for r in rules if np.array_equal(np.abs(r.slope), np.abs(part))), rule)
    sigma = math.sqrt(max(float(part @ covariance @ part), 0.0))
    return verdict_of(float(part @ unknowns), sigma, own.tolerance) == "out"


def culprit_of(
    checks: tuple[Check, ...],
    charged: Mapping[str, tuple[str, ...]],
    corrections: tuple[Correction, ...],
    locked: Collection[str] = (),
) -> str:
    """The body whose correction mends most of what is out, in tolerances; empty where nothing is to move."""
    out = [
        check
        for check in checks
        if check.verdict == "out" and not set(charged.get(check.id, ())) <= set(locked)
    ]
    best, most = "", 0.0
    for correction in corrections:
        mended = sum(
            _mended(check, correction)
            for check in out
            if correction.body in charged.get(check.id, ())
        )
        if mended > most + 1e-9:
            best, most = correction.body, mended
    if not best and out:  # nothing with a seat: say at least which body it is
        best = charged[out[0].id][0]
    return best


def _mended(check: Check, correction: Correction) -> float:
    """How much of a check's error goes away with a correction, in tolerances."""
    if check.kind not in BY_PACKING:
        return abs(check.error) / check.tolerance  # slid home, or taken out of the panel
    way = correction.fitted or correction.only_sanding
    after = next((c for c in way.checks if c.id == check.id), check)
    return (abs(check.error) - abs(after.error)) / check.tolerance
