"""A second way to the checks and the trim by role: from the contract's text and plain JSON, no shared code."""

import math
from typing import Any

import numpy as np

Json = dict[str, Any]

BEGINNINGS = {
    "stab": "stabilizer",
    "fin": "fin",
    "canard": "foreplane",
    "foreplane": "foreplane",
    "vee": "vee",
    "thrust": "thrust",
}
USUAL = {
    "incidence": 0.5,
    "yaw": 0.3,
    "roll": 0.5,
    "roll_to_wing": 0.5,
    "offset": 1.5,
    "twist_difference": 0.5,
    "decalage": 0.5,
}


def role(thing: Json, *, tail: bool = False) -> str:
    """What it is."""
    if thing.get("role"):
        return str(thing["role"])
    if tail and thing.get("upright"):
        return "fin"
    for start, name in BEGINNINGS.items():
        if thing["id"].startswith(start):
            return name
    return "wing"


def checks(  # noqa: C901, PLR0912, PLR0915  one page of the contract, in its order
    survey: Json, x: dict[tuple[str, str], float]
) -> dict[str, tuple[float, float, float]]:
    """Value, target and tolerance of every check, for unknowns by (body, name); those not there are 0."""
    bodies = [one for one in survey["bodies"] if one["id"] != "fuselage"]
    by_role: dict[str, list[Json]] = {}
    for one in bodies:
        by_role.setdefault(role(one), []).append(one)

    def main(name: str) -> Json | None:
        return by_role.get(name, [None])[0]

    def at(one: Json, name: str) -> float:
        return x.get((one["id"], name), 0.0)

    def inc(one: Json) -> float:
        return float(one.get("incidence", 0.0))

    out: dict[str, tuple[float, float, float]] = {}
    own = survey.get("tolerances") or {}

    def put(name: str, value: float, target: float, usual: float) -> None:
        out[name] = (value, target, own.get(name, usual))

    wing, stab = main("wing"), main("stabilizer")
    for one in bodies:
        name, what = one["id"], role(one)
        yaw, design = at(one, "yaw"), float(one.get("yaw", 0.0))
        if what in ("wing", "stabilizer", "foreplane"):
            put(f"{name}_incidence", inc(one) + at(one, "pitch"), inc(one), 0.5)
            put(f"{name}_yaw", design + yaw, design, 0.3)
            put(f"{name}_roll", at(one, "roll"), 0.0, 0.5)
            put(f"{name}_offset", at(one, "dy"), 0.0, 1.5)
            if one.get("twist"):
                put(
                    f"{name}_twist_difference",
                    at(one, "twist_starboard") - at(one, "twist_port"),
                    0.0,
                    0.5,
                )
        if what in ("stabilizer", "foreplane") and wing is not None:
            put(f"{name}_roll_to_wing", at(one, "roll") - at(wing, "roll"), 0.0, 0.5)
        if what == "fin":
            put(f"{name}_yaw", design + yaw, design, 0.5)
            to = stab or wing
            if to is not None:
                put(f"{name}_lean_to_stab", at(one, "roll") - at(to, "roll"), 0.0, 0.75)
        if what == "vee":
            put(f"{name}_incidence", inc(one) + at(one, "pitch"), inc(one), 0.5)
            put(f"{name}_yaw", design + yaw, design, 0.5)
        if what == "thrust":
            put(f"{name}_down", -(inc(one) + at(one, "pitch")), -inc(one), 0.5)
            put(f"{name}_side", -(design + yaw), -design, 0.5)
    fins = by_role.get("fin", [])
    if len(fins) == 2:
        a, b = fins
        toe = float(b.get("yaw", 0.0)) - float(a.get("yaw", 0.0))
        put("fins_toe", toe + at(b, "yaw") - at(a, "yaw"), toe, 0.5)
    halves = by_role.get("vee", [])
    if len(halves) == 2:
        a, b = halves
        if wing is not None:
            put("vee_tilt", (at(a, "roll") + at(b, "roll")) / 2 - at(wing, "roll"), 0.0, 0.5)
        put("vee_angle", at(b, "roll") - at(a, "roll"), 0.0, 1.0)
        differ = inc(b) - inc(a)
        put("vee_incidence_difference", differ + at(b, "pitch") - at(a, "pitch"), differ, 0.5)
    if wing is not None:
        other: list[Json] = [stab] if stab else halves or ([main("foreplane")] if main("foreplane") else [])  # type: ignore[list-item]  # fmt: skip
        if other:
            mean = sum(inc(one) + at(one, "pitch") for one in other) / len(other)
            design = sum(inc(one) for one in other) / len(other)
            ahead = role(other[0]) == "foreplane" or other[0]["pivot"][0] < wing["pivot"][0]
            sign = -1.0 if ahead else 1.0
            put(
                "decalage",
                sign * (inc(wing) + at(wing, "pitch") - mean),
                sign * (inc(wing) - design),
                0.5,
            )
    return out


def slope(ar: float) -> float:
    """Helmbold."""
    return 2 * math.pi * ar / (2 + math.sqrt(ar * ar + 4))


def _mean(root: Any, tip: Any) -> tuple[float, float]:
    t = tip / root
    return 2 / 3 * root * (1 + t + t * t) / (1 + t), (1 + 2 * t) / (3 * (1 + t))


class Trimmed:
    """The trim section of a build.json with one wing; `h` the balance point as a share of the mean chord.

    Where the contract gives closed formulas this solves equilibrium: forces on the plates by their normals, one
    after another, small angles.
    """

    def __init__(self, wing: Json, tails: list[Json], h: float, **flight: float) -> None:
        self.h = h
        self.lift = flight.get("lift_coefficient", 0.5)
        self.zero = flight.get("zero_lift", -2.5)
        self.cm0 = flight.get("cm0", -0.05)
        self.tail_zero = flight.get("tail_zero_lift", 0.0)
        self.elevator = flight.get("elevator_fraction", 0.3)
        self.s = wing["span"] * (wing["root_chord"] + wing["tip_chord"]) / 2
        self.ar = wing["span"] ** 2 / self.s
        self.c, share = _mean(wing["root_chord"], wing["tip_chord"])
        self.x = wing["le_x"] + wing.get("sweep_le", 0.0) * share + self.c / 4
        self.a = slope(self.ar)
        self.tails = tails
        first: dict[str, Json] = {}
        for one in tails:
            first.setdefault(role(one, tail=True), one)
        self.tail = first.get("stabilizer") or first.get("vee") or first.get("foreplane")
        self.fore = self.tail is not None and role(self.tail) == "foreplane"

    def plate(self, t: Json) -> tuple[float, float, float, float, float]:
        """Area, slope, arm from the wing's centre, dihedral in radians, mean chord."""
        tip = t.get("tip_chord", t["root_chord"])
        c, share = _mean(t["root_chord"], tip)
        x = t["le_x"] + t.get("sweep_le", 0.0) * share + c / 4
        if t.get("upright"):
            height = t["span"] / 2
            area = height * (t["root_chord"] + tip) / 2
            return area, slope(2 * height**2 / area), x - self.x, math.pi / 2, c
        area = t["span"] * (t["root_chord"] + tip) / 2
        gamma = math.radians(t.get("dihedral", 0.0))
        return area, slope(t["span"] ** 2 / area), x - self.x, gamma, c

    def moment(
        self, alpha: float, setting: float, h: float, wash: float | None = None
    ) -> tuple[float, float]:
        """C_L and C_m about h for the wing's angle from no lift and the tail's chord below the wing's, radians.

        Each half of the tail is a plate whose normal leans by its dihedral: a normal force from the angle that
        it sees, of which the upright part lifts.
        """
        assert self.tail is not None
        area, a_t, arm, gamma, _ = self.plate(self.tail)
        of_wing = self.a * alpha
        eta = 1.0 if self.fore else 0.9
        washed = 0.0 if self.fore else 2 * of_wing / (math.pi * self.ar)
        vertical = alpha + math.radians(self.zero) - setting - washed
        lift = 0.0
        for _half in (-1, 1):
            seen = vertical * math.cos(gamma) - math.radians(self.tail_zero)
            lift += eta * a_t * seen * area / 2 * math.cos(gamma) / self.s
        total = of_wing + lift
        return total, self.cm0 + total * (h - 0.25) - lift * arm / self.c

    def neutral(self) -> float:
        """Where the moment does not change with the angle."""
        step, low, high = 1e-5, -4.0, 6.0
        for _ in range(200):
            h = (low + high) / 2
            rises = self.moment(0.1 + step, 0.0, h)[1] > self.moment(0.1, 0.0, h)[1]
            low, high = (low, h) if rises else (h, high)
        return (low + high) / 2

    def decalage(self) -> float:
        """Front less rear, degrees, at which it is in trim at the wanted lift: two linear equations solved."""
        base = np.array(self.moment(0.0, 0.0, self.h))
        by_alpha = np.array(self.moment(1.0, 0.0, self.h)) - base
        by_setting = np.array(self.moment(0.0, 1.0, self.h)) - base
        found = np.linalg.solve(
            np.array([by_alpha, by_setting]).T, np.array([self.lift, 0.0]) - base
        )
        degrees = math.degrees(float(found[1]))
        return -degrees if self.fore else degrees

    def trims_at(self, off: float) -> float:
        """The lift coefficient at which it comes to rest with the front set `off` degrees higher than trims."""
        setting = math.radians((-1 if self.fore else 1) * (self.decalage() + off))
        base = np.array(self.moment(0.0, setting, self.h))
        slope_ = np.array(self.moment(1.0, setting, self.h)) - base
        alpha = -base[1] / slope_[1]
        return float(base[0] + slope_[0] * alpha)

    def tail_angle(self) -> float:
        """The trimming surface's own angle from no lift in an upright plane, radians: what makes its lift."""
        assert self.tail is not None
        area, a_t, arm, gamma, _ = self.plate(self.tail)
        eta = 1.0 if self.fore else 0.9
        lift = (self.cm0 + self.lift * (self.h - 0.25)) * self.c / arm
        return float(lift * self.s / (eta * a_t * area * math.cos(gamma) ** 2))

    def stiffness(self) -> float:
        """Σ of all fins and side areas about the balance point."""
        total = 0.0
        for one in self.tails:
            area, a, arm, gamma, _ = self.plate(one)
            total += 0.9 * a * area * math.sin(gamma) ** 2 * (arm - (self.h - 0.25) * self.c)
        return total

    def slip(self, tilt: float) -> float:
        """Sideslip, degrees, where the whole trimming surface is rolled by `tilt` degrees, by adding up plates.

        Each half's normal is turned by its dihedral and by the tilt; the side force is what of its normal force
        points sideways.  Yaw is at rest where that moment and the fins' are even.
        """
        assert self.tail is not None
        area, a_t, arm, gamma, _ = self.plate(self.tail)
        eta = 1.0 if self.fore else 0.9
        alpha_n = self.tail_angle()
        vertical = alpha_n + math.radians(self.tail_zero) / math.cos(gamma)
        side = 0.0
        for half in (-1, 1):
            lean = -half * gamma - math.radians(tilt)  # of its normal from upright, to starboard
            seen = vertical * math.cos(lean) - math.radians(self.tail_zero)
            side += eta * a_t * area / 2 * seen * math.sin(lean)
        lever = arm - (self.h - 0.25) * self.c
        return math.degrees(side * lever / self.stiffness())
