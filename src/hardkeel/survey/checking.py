"""Is it true?  Each check is a line through the unknowns with a target and a tolerance."""

import math
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.survey.columns import BEND, Columns
from hardkeel.survey.model import FUSELAGE, Body, Role, Survey, Verdict
from hardkeel.survey.roles import (
    is_ahead,
    main_of,
    role_of,
    set_on_tail,
    trimming,
    wing_beneath,
    with_role,
)

# Defaults of the contract: degrees, but mm for the offset.
TOLERANCES: Final[dict[str, float]] = {
    "incidence": 0.5,
    "decalage": 0.5,
    "yaw": 0.3,
    "roll": 0.5,
    "roll_to_wing": 0.5,
    "offset": 1.5,
    "twist_difference": 0.5,
    "fin_yaw": 0.5,
    "fin_lean_to_stab": 0.75,
    "fins_toe": 0.5,
    "vee_yaw": 0.5,
    "vee_tilt": 0.5,
    "vee_angle": 1.0,
    "vee_incidence_difference": 0.5,
    "down": 0.5,
    "side": 0.5,
    "gap": 3.0,  # mm; what it does to the lift is nothing, what it does to struts and wires is not
    "stagger": 3.0,
}
LENGTHS: Final = frozenset({"offset", "gap", "stagger"})
_TURNED: Final = frozenset({"yaw", "fin_yaw", "vee_yaw"})
_TWO: Final = 2


@dataclass(frozen=True, slots=True)
class CheckRule:
    """What a check is, before anything is known.

    Attributes
    ----------
    id : str
        As in the file: ``stab_yaw``.
    kind : str
        The part of the id that says what is checked: ``yaw``.
    body : str
        The body to correct when it is out.
    unit : {"deg", "mm"}
    design : float
        Added to the unknowns' part to give the value.
    slope : Array
        Shape (n,): the value's derivative by the unknowns.
    role : str or None
        What `body` is.
    between : tuple of str
        The bodies that it holds.
    """

    id: str
    kind: str
    body: str
    unit: str
    target: float
    tolerance: float
    design: float
    slope: Array
    role: Role | None = None
    between: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Check:
    """A check with its estimate: degrees, or mm for an offset.

    Attributes
    ----------
    edge : bool
        It is known, and lies at the limit: no reading would decide it.
    spread : float
        What is shown as ±: sigma, widened by how far the likely stories of bad readings lie apart.
    """

    id: str
    kind: str
    body: str
    unit: str
    value: float
    sigma: float
    target: float
    tolerance: float
    verdict: Verdict
    edge: bool = False
    spread: float = 0.0
    role: Role | None = None
    between: tuple[str, ...] = ()

    @property
    def error(self) -> float:
        """Value − target."""
        return self.value - self.target

    def off_by(self, error: float) -> "Check":
        """The same were it off by so much."""
        return replace(self, value=self.target + error)

    @property
    def doubt(self) -> float:
        """What is shown as ±."""
        return max(self.sigma, self.spread)

    @property
    def hangs(self) -> bool:
        """Whether it is open only because another story is likely: by its own sigma it would be decided."""
        own = verdict_of(self.error, self.sigma, self.tolerance)
        return self.verdict == "unsure" and own != "unsure"


def rules_of(survey: Survey, columns: Columns) -> tuple[CheckRule, ...]:
    """All checks that this survey's bodies call for by their roles, in the order a builder trues them."""
    made = _Making(survey, columns)
    for body in survey.bodies:
        if body.id != FUSELAGE:
            _BY_ROLE[role_of(body) or "wing"](made, body)
    _pairs(made)
    _one_over_another(made)
    _decalage(made)
    return tuple(made.rules)


class _Making:
    """Checks as they are put together."""

    def __init__(self, survey: Survey, columns: Columns) -> None:
        self.survey, self._columns = survey, columns
        self._own = survey.tolerances or {}
        self._line = _LineOfTail(survey, columns)
        self.wing, self.stabilizer = main_of(survey, "wing"), main_of(survey, "stabilizer")
        self.rules: list[CheckRule] = []

    def add(
        self,
        check_id: str,
        kind: str,
        body: Body,
        parts: Mapping[tuple[str, str], float],
        design: float = 0.0,
    ) -> None:
        """A check of these unknowns, by body and name; none where one of them is not there."""
        bent = (
            self._line.shifted
            if kind == "offset"
            else self._line.turned
            if kind in _TURNED
            else None
        )
        slope = np.zeros(self._columns.size)
        turned = bent(body) if bent is not None else {}
        for (owner, unknown), factor in (*parts.items(), *turned.items()):
            column = (
                self._columns.shared.get((unknown, ""))
                if unknown in BEND
                else self._columns.column(owner, unknown)
            )
            if column is None:
                return
            slope[column] = factor
        unit = "mm" if kind in LENGTHS else "deg"
        limit = self._own.get(check_id, TOLERANCES.get(kind, 0.5))
        between = tuple(dict.fromkeys(owner for owner, _ in parts))
        self.rules.append(
            CheckRule(
                check_id, kind, body.id, unit, design, limit, design, slope, role_of(body), between
            )
        )

    def one(
        self, body: Body, name: str, kind: str, unknown: str, design: float = 0.0, by: float = 1.0
    ) -> None:
        """A check of one unknown of one body."""
        self.add(f"{body.id}_{name}", kind, body, {(body.id, unknown): by}, design)


def _surface(made: _Making, body: Body) -> None:
    made.one(body, "incidence", "incidence", "pitch", body.incidence)
    made.one(body, "yaw", "yaw", "yaw", body.yaw)
    made.one(body, "roll", "roll", "roll")
    made.one(body, "offset", "offset", "dy")
    if body.twist:
        parts = {(body.id, "twist_starboard"): 1.0, (body.id, "twist_port"): -1.0}
        made.add(f"{body.id}_twist_difference", "twist_difference", body, parts)


def _tail(made: _Making, body: Body) -> None:
    _surface(made, body)
    if made.wing is not None:
        parts = {(body.id, "roll"): 1.0, (made.wing.id, "roll"): -1.0}
        made.add(f"{body.id}_roll_to_wing", "roll_to_wing", body, parts)


def _fin(made: _Making, body: Body) -> None:
    made.one(body, "yaw", "fin_yaw", "yaw", body.yaw)
    other = made.stabilizer or made.wing
    if other is not None:
        parts = {(body.id, "roll"): 1.0, (other.id, "roll"): -1.0}
        made.add(f"{body.id}_lean_to_stab", "fin_lean_to_stab", body, parts)


def _vee(made: _Making, body: Body) -> None:
    made.one(body, "incidence", "incidence", "pitch", body.incidence)
    made.one(body, "yaw", "vee_yaw", "yaw", body.yaw)


def _thrust(made: _Making, body: Body) -> None:
    made.one(body, "down", "down", "pitch", -body.incidence, by=-1.0)
    made.one(body, "side", "side", "yaw", -body.yaw, by=-1.0)


_BY_ROLE: Final[dict[Role, Callable[[_Making, Body], None]]] = {
    "wing": _surface,
    "stabilizer": _tail,
    "foreplane": _tail,
    "fin": _fin,
    "vee": _vee,
    "thrust": _thrust,
}


def _pairs(made: _Making) -> None:
    """What two of a kind must have between them; charged to the second, which is set last."""
    fins, halves = with_role(made.survey, "fin"), with_role(made.survey, "vee")
    if len(fins) == _TWO:
        a, b = fins
        parts = {(b.id, "yaw"): 1.0, (a.id, "yaw"): -1.0}
        made.add("fins_toe", "fins_toe", b, parts, b.yaw - a.yaw)
    if len(halves) != _TWO:
        return
    a, b = halves
    if made.wing is not None:
        tilt = {(a.id, "roll"): 0.5, (b.id, "roll"): 0.5, (made.wing.id, "roll"): -1.0}
        made.add("vee_tilt", "vee_tilt", b, tilt)
    made.add("vee_angle", "vee_angle", b, {(b.id, "roll"): 1.0, (a.id, "roll"): -1.0})
    made.add(
        "vee_incidence_difference",
        "vee_incidence_difference",
        b,
        {(b.id, "pitch"): 1.0, (a.id, "pitch"): -1.0},
        b.incidence - a.incidence,
    )


def _one_over_another(made: _Making) -> None:
    """How far a wing stands over the one beneath, and ahead of it: where its struts are placed, for they make it."""
    for upper in with_role(made.survey, "wing"):
        lower = wing_beneath(made.survey, upper)
        if lower is None:
            continue
        ahead, _, over = (high - low for high, low in zip(upper.origin, lower.origin, strict=True))
        gap = {(upper.id, "dz"): 1.0, (lower.id, "dz"): -1.0}
        made.add(f"{upper.id}_gap", "gap", upper, gap, over)
        stagger = {(upper.id, "dx"): -1.0, (lower.id, "dx"): 1.0}
        made.add(f"{upper.id}_stagger", "stagger", upper, stagger, -ahead)


def _decalage(made: _Making) -> None:
    """The front surface's incidence less the rear one's; a V's is the mean of its halves."""
    others, wing = trimming(made.survey), made.wing
    if not others or wing is None:
        return
    sign = -1.0 if is_ahead(wing, others[0]) else 1.0
    parts = {(wing.id, "pitch"): sign}
    parts |= {(one.id, "pitch"): -sign / len(others) for one in others}
    design = sign * (wing.incidence - sum(one.incidence for one in others) / len(others))
    made.add("decalage", "decalage", others[-1], parts, design)


class _LineOfTail:
    """What a bent tail brings to the checks of what stands on it, where that is set square to the line from nose to tail.

    The line runs from the fuselage's foremost mark to where the bend takes its last; what belongs to the wing is
    held against the fore part all the same.
    """

    def __init__(self, survey: Survey, columns: Columns) -> None:
        own = [mark.at[0] for mark in survey.marks if mark.body == FUSELAGE]
        bends = columns.bend is not None and (BEND[0], "") in columns.shared
        self._wanted = bends and survey.squared_to == "line"
        self._first = min(own, default=0.0)
        self._length = columns.bend.last - self._first if columns.bend is not None else 1.0

    def turned(self, body: Body) -> dict[tuple[str, str], float]:
        """Of a yaw: degrees for each mm that the tail bends to starboard."""
        on_it = self._wanted and set_on_tail(body)
        return {("", BEND[0]): -math.degrees(1 / self._length)} if on_it else {}

    def shifted(self, body: Body) -> dict[tuple[str, str], float]:
        """Of an offset: how far the line stands off at the body's pivot, mm for each mm."""
        share = (body.origin[0] - self._first) / self._length
        return {("", BEND[0]): -share} if self._wanted and set_on_tail(body) else {}


def judge(rules: Iterable[CheckRule], unknowns: Array, covariance: Array) -> tuple[Check, ...]:
    """Value, sigma and verdict of each rule for unknowns (n,) with covariance (n, n)."""
    rules = tuple(rules)
    slopes = np.array([rule.slope for rule in rules]).reshape(len(rules), len(unknowns))
    spread = np.sqrt(np.maximum(np.sum((slopes @ covariance) * slopes, axis=1), 0.0))
    found = zip(rules, (slopes @ unknowns).tolist(), spread.tolist(), strict=True)
    return tuple(_judged(rule, rule.design + moved, sigma) for rule, moved, sigma in found)


def _judged(rule: CheckRule, value: float, sigma: float) -> Check:
    return Check(
        rule.id,
        rule.kind,
        rule.body,
        rule.unit,
        value,
        sigma,
        rule.target,
        rule.tolerance,
        verdict_of(value - rule.target, sigma, rule.tolerance),
        spread=sigma,
        role=rule.role,
        between=rule.between,
    )


EDGE: Final = 0.5  # of the tolerance: 2 sigma within it is as good as known


def at_edge(check: Check) -> Check:
    """By two sigma alone: unsure though known to half the tolerance, so that it lies at the limit."""
    edge = check.verdict == "unsure" and 2 * check.sigma <= EDGE * check.tolerance
    return replace(check, edge=edge)


def verdict_of(error: float, sigma: float, tolerance: float) -> Verdict:
    """The contract's rule: two sigma inside is true, two sigma outside is out, else unsure."""
    if abs(error) + 2 * sigma <= tolerance:
        return "true"
    return "out" if abs(error) - 2 * sigma > tolerance else "unsure"
