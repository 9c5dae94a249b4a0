"""Is it true?  Each check is a line through the unknowns with a target and a tolerance."""

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.survey.columns import BEND, Columns
from hardkeel.survey.model import FUSELAGE, Body, Survey, Verdict, role_of

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
}


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
    """

    id: str
    kind: str
    body: str
    unit: str
    target: float
    tolerance: float
    design: float
    slope: Array


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

    @property
    def error(self) -> float:
        """Value − target."""
        return self.value - self.target

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
    """All checks that this survey's bodies call for, in the order a builder trues them."""
    own = survey.tolerances or {}
    bodies = {body.id: body for body in survey.bodies if body.id != FUSELAGE}
    rules: list[CheckRule] = []

    def add(
        check_id: str, kind: str, body: str, parts: Mapping[str, float], design: float = 0.0
    ) -> None:
        slope = np.zeros(columns.size)
        for name, factor in parts.items():
            owner, _, unknown = name.partition(".")
            column = (
                columns.shared.get((name, "")) if name in BEND else columns.column(owner, unknown)
            )
            if column is None:
                return
            slope[column] = factor
        unit = "mm" if kind == "offset" else "deg"
        limit = own.get(check_id, TOLERANCES.get(check_id, TOLERANCES.get(kind, 0.5)))
        rules.append(CheckRule(check_id, kind, body, unit, design, limit, design, slope))

    line = _LineOfTail(survey, columns)
    for name, body in bodies.items():
        if name == "fin":
            add("fin_yaw", "fin_yaw", "fin", {"fin.yaw": 1.0} | line.turned(body))
            add("fin_lean_to_stab", "fin_lean_to_stab", "fin", {"fin.roll": 1.0, "stab.roll": -1.0})
            continue
        for check_id, kind, parts, design in _surface_checks(body):
            bent = {"yaw": line.turned, "offset": line.shifted}.get(kind)
            add(check_id, kind, name, parts | (bent(body) if bent is not None else {}), design)
        if name == "stab":
            add("stab_roll_to_wing", "roll_to_wing", name, {"stab.roll": 1.0, "wing.roll": -1.0})
    if "wing" in bodies and "stab" in bodies:
        design = bodies["wing"].incidence - bodies["stab"].incidence
        add("decalage", "decalage", "stab", {"wing.pitch": 1.0, "stab.pitch": -1.0}, design)
    return tuple(rules)


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

    def _on_tail(self, body: Body) -> bool:
        return self._wanted and role_of(body) in ("stabilizer", "fin", "vee")

    def turned(self, body: Body) -> dict[str, float]:
        """Of a yaw: degrees for each mm that the tail bends to starboard."""
        return {BEND[0]: -math.degrees(1 / self._length)} if self._on_tail(body) else {}

    def shifted(self, body: Body) -> dict[str, float]:
        """Of an offset: how far the line stands off at the body's pivot, mm for each mm."""
        share = (body.origin[0] - self._first) / self._length
        return {BEND[0]: -share} if self._on_tail(body) else {}


def _surface_checks(body: Body) -> Iterable[tuple[str, str, dict[str, float], float]]:
    name = body.id
    yield f"{name}_incidence", "incidence", {f"{name}.pitch": 1.0}, body.incidence
    yield f"{name}_yaw", "yaw", {f"{name}.yaw": 1.0}, 0.0
    yield f"{name}_roll", "roll", {f"{name}.roll": 1.0}, 0.0
    yield f"{name}_offset", "offset", {f"{name}.dy": 1.0}, 0.0
    if body.twist:
        parts = {f"{name}.twist_starboard": 1.0, f"{name}.twist_port": -1.0}
        yield f"{name}_twist_difference", "twist_difference", parts, 0.0


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
