"""A crooked model rigged as the program says: readings by chance, advice followed by a hand that errs."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from hardkeel.practice.hidden import hidden_from
from hardkeel.survey.checking import judge, rules_of
from hardkeel.survey.columns import lay_out
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.model import Body, Survey, contacts_of
from hardkeel.survey.planning import plan
from hardkeel.survey.readings import Reading, sigma_of
from hardkeel.survey.rigging import next_on_stage, rigging_order
from hardkeel.survey.seat_step import SeatStep
from hardkeel.survey.seatwork import seat_work

Poses = dict[str, dict[str, float]]
Array = NDArray[np.float64]
_DEGREE = np.radians(1.0)
# what each way of moving a contact turns, and the row of a contact that it moves
_UP = ("dz", "roll", "pitch")
_MORE = 4
_AT_A_STAGE = 40  # readings more, until a body is known: nobody moves what is not known
_ACROSS = ("dx", "dy", "yaw")
_BEHIND = ("dx", "yaw", "pitch")


@dataclass
class Hand:
    """A hand that errs by so many mm at each contact."""

    rng: np.random.Generator
    errs: float = 0.1
    told: list[str] = field(default_factory=list)

    def follow(self, body: Body, steps: tuple[SeatStep, ...], pose: dict[str, float]) -> None:
        """Do the steps at a seat: the body is moved as rigidly as the contacts let it."""
        up, aft, side, behind = ({c.id: 0.0 for c in contacts_of(body)} for _ in range(4))
        for step in steps:
            self.told.append(step.act)
            lifted = {
                "pack": step.mm,
                "sand": -step.mm,
                "washers": math.copysign(step.mm, step.count),
            }
            for contact in step.contacts:
                up[contact] += lifted.get(step.act, 0.0) + (step.up if step.act != "rib" else 0.0)
                behind[contact] += step.mm if step.act == "behind" else 0.0
                aft[contact] += step.aft
                side[contact] += step.starboard
            if step.act == "upright":  # held by its top, as far above the foot as it is tall
                leant = (step.starboard + self.rng.normal(0.0, self.errs)) / (body.span or 1.0)
                pose["roll"] = pose.get("roll", 0.0) - float(np.degrees(leant))
            if step.act == "along":
                slid = step.starboard + self.rng.normal(0.0, self.errs)
                pose["dy"] = pose.get("dy", 0.0) + float(slid)
            if step.act == "untwist":
                pose["twist_port"] = pose["twist_starboard"] = 0.0
        acts = {step.act for step in steps}
        ribs = {c: step.up for step in steps if step.act == "rib" for c in step.contacts}
        if ribs:  # the root rib lies against the wing: what is packed there goes outward
            out = 1.0 if body.origin[1] > 0 else -1.0
            roots = [c.id for c in contacts_of(body) if c.id != "tip_prop"]
            outward = {name: (None, out * ribs.get(name, 0.0), None) for name in roots}
            self._move(body, pose, ("dy", "yaw"), outward)
        if any(up.values()):
            self._move(body, pose, _UP, {name: (None, None, mm) for name, mm in up.items()})
        if acts & {"slide", "hold", "edge", "hole"}:
            held = {c for step in steps for c in step.contacts if step.act in ("slide", "hold")}
            names = held or set(aft)
            moves = {name: (aft[name], side[name], None) for name in names}
            self._move(body, pose, _ACROSS, moves)
        if any(behind.values()):
            self._move(
                body, pose, _BEHIND, {name: (-mm, None, None) for name, mm in behind.items()}
            )

    def _move(
        self,
        body: Body,
        pose: dict[str, float],
        free: tuple[str, ...],
        moves: Mapping[str, tuple[float | None, float | None, float | None]],
    ) -> None:
        at = {one.id: np.array(one.at) - np.array(body.origin) for one in contacts_of(body)}
        rows, wanted = [], []
        for name, move in moves.items():
            for axis, mm in enumerate(move):
                if mm is not None:
                    slopes = _slopes(at[name], axis)
                    rows.append([slopes[one] for one in free])
                    wanted.append(mm + self.rng.normal(0.0, self.errs))
        scale = np.array([1.0 if name.startswith("d") else 0.01 for name in free])
        found = np.linalg.lstsq(np.array(rows) * scale, np.array(wanted), rcond=1e-6)[0] * scale
        for name, by in zip(free, found, strict=True):
            pose[name] = pose.get(name, 0.0) + float(by)


def _slopes(r: Array, axis: int) -> dict[str, float]:
    """How far a point moves along an axis for each mm and degree: the contract's turns, small."""
    x, y, z = (float(v) for v in r)
    moved = {
        "dx": (1.0, 0.0, 0.0),
        "dy": (0.0, 1.0, 0.0),
        "dz": (0.0, 0.0, 1.0),
        "roll": (0.0, -z * _DEGREE, y * _DEGREE),
        "pitch": (z * _DEGREE, 0.0, -x * _DEGREE),
        "yaw": (-y * _DEGREE, x * _DEGREE, 0.0),
    }
    return {name: by[axis] for name, by in moved.items()}


def read_all(
    survey: Survey, poses: Poses, rng: np.random.Generator, times: int = 2, body: str = ""
) -> Survey:
    """Everything that the plan asks for, some of it again until it is known, each with its tool's error.

    With a `body` what its stage of rigging asks for, too, until all of its checks are decided.
    """
    hidden = hidden_from(survey, poses)
    bare = survey.but(readings=())

    def taken(one: Reading, number: int) -> Reading:
        value = hidden.show(one) + rng.normal(0.0, sigma_of(one))
        return one.but(id=f"r{number}", value=float(value), phase="dry")

    first = judge_survey(bare, "dry")
    readings = [
        taken(one, i) for i, one in enumerate(plan(first.net, first.solution, first.rules) * times)
    ]
    for number in range(_MORE):
        judged = judge_survey(bare.but(readings=tuple(readings)), "dry")
        if not judged.next:
            break
        readings.append(taken(judged.next[0].reading, len(readings) + number))
    for number in range(_AT_A_STAGE if body else 0):
        judged = judge_survey(bare.but(readings=tuple(readings)), "dry")
        open_ = [one for one in judged.checks_on(body) if one.verdict == "unsure" and not one.edge]
        wanted = next_on_stage(judged, body) if open_ else ()
        if not wanted:
            break
        readings.append(taken(wanted[0].reading, len(readings) + _MORE + number))
    return bare.but(readings=tuple(readings))


def out_of_true(survey: Survey, poses: Poses) -> dict[str, float]:
    """Checks that the model as it really stands does not meet, with their errors."""
    columns = lay_out(survey.bodies)
    unknowns = np.zeros(columns.size)
    for body, pose in poses.items():
        for name, value in pose.items():
            column = columns.column(body, name) if body in columns.start else None
            if column is not None:
                unknowns[column] = value
    checks = judge(rules_of(survey, columns), unknowns, np.eye(columns.size) * 1e-12)
    return {one.id: one.error for one in checks if abs(one.error) > one.tolerance}


def rig(survey: Survey, poses: Poses, rng: np.random.Generator, rounds: int = 2) -> Poses:
    """Set one body after another in the order of rigging, each in so many rounds; the poses that come of it.

    A round is reading everything anew and doing what is told at that seat, where a check of it is out: what only
    lies at the limit may be left, and is.
    """
    hand = Hand(rng)
    for name in rigging_order(survey):
        body = survey.body(name)
        for _ in range(rounds):
            judged = judge_survey(read_all(survey, poses, rng, body=name), "dry")
            if not any(check.verdict == "out" for check in judged.checks_on(name)):
                break
            _follow(judged, body, poses, hand)
    return poses


def _follow(judged: Judgement, body: Body | None, poses: Poses, hand: Hand) -> None:
    for correction in judged.corrections:
        if body is not None and correction.body == body.id:
            steps = seat_work(judged, correction, "shims").steps
            hand.follow(body, steps, poses.setdefault(body.id, {}))
