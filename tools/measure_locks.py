"""Push locked bodies and see whether it is named: ``python tools/measure_locks.py [COUNT]``.

Models are rigged as the program says, reading by reading, from nearly true; of what is read some in a hundred is off
by 5 to 20 sigma.  When the first body was locked it is turned by 0.3° to 1.5° about an axis by chance, or not at all.
"""

import sys
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

import numpy as np

from hardkeel.demo.biplane import teasel
from hardkeel.edits.truing import correction_done, set_locked, take_again, take_reading
from hardkeel.messages.rig_next import stage_step
from hardkeel.practice.hidden import hidden_from
from hardkeel.project.model import Build
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.model import FUSELAGE, Survey
from hardkeel.survey.readings import Reading, sigma_of
from hardkeel.survey.rigging import RigStage, rig_stages
from tests.airframes import plain_survey

_COUNT = 150
_LEAST, _MOST = 0.3, 1.5
_CROOKED = {"dx": 0.3, "dy": 0.3, "dz": 0.3, "roll": 0.1, "pitch": 0.1, "yaw": 0.1}
_MOST_READINGS = 110
_STEPS = (0.3, 0.6, 0.9, 1.2)
_AXES = ("roll", "pitch", "yaw")


@dataclass(frozen=True)
class Ended:
    """How one rigging went.

    Attributes
    ----------
    first : str
        The body that was locked first, and turned by so many degrees.
    named, rivals : str, bool
        Who was said to have moved; whether a reading from before the lock may be bad instead.
    readings : int
        Taken since that lock.
    """

    first: str
    by: float
    named: str
    rivals: bool
    readings: int
    finished: bool


def main(count: int) -> None:
    """Print how many were named, and how many wrongly."""
    for name, survey in (("biplane", teasel().surveyed), ("monoplane", plain_survey())):
        for blunders in (0.0, 0.04):
            print(f"{name}, {count} each, {blunders:.0%} blunders")
            for pushed in (True, False):
                _tell(
                    [_rig(survey, seed, blunders, pushed=pushed) for seed in range(count)],
                    pushed=pushed,
                )


def _tell(ended: list[Ended], *, pushed: bool) -> None:
    if not pushed:
        named = [one for one in ended if one.named]
        surely = sum(not one.rivals for one in named)
        print(
            f"  not moved: said to have moved {surely / len(ended):.1%}, or a reading from before to be bad "
            f"{(len(named) - surely) / len(ended):.1%}; {sum(one.finished for one in ended)} of {len(ended)} finished"
        )
        return
    right = [one for one in ended if one.named == one.first]
    other = sum(bool(one.named) and one.named != one.first for one in ended)
    after = sorted(one.readings for one in right)
    print(
        f"  moved: named {len(right) / len(ended):.1%} ({sum(one.rivals for one in right)} with an or), "
        f"another named {other}, after a median of {after[len(after) // 2] if after else 0} readings"
    )
    for least in _STEPS:
        some = [one for one in ended if least <= one.by < least + _STEPS[1] - _STEPS[0]]
        if some:
            hit = sum(one.named == one.first for one in some)
            print(f"    by {least}° and more: {hit} of {len(some)}")


def _rig(survey: Survey, seed: int, blunders: float, *, pushed: bool) -> Ended:
    rng = np.random.default_rng(seed)
    given = {
        body.id: {name: float(rng.normal(0, by)) for name, by in _CROOKED.items()}
        for body in survey.bodies
        if body.id != FUSELAGE
    }
    given["bench"] = {"pitch": 0.3, "roll": -0.2, "z": 70.0}
    by, axis = float(rng.uniform(_LEAST, _MOST)), str(rng.choice(_AXES))
    by_signed = by * float(rng.choice((-1, 1)))
    build = Build(name="locks", survey=survey, phase="dry")
    now, first, since = datetime(2026, 11, 30, 19, 0, tzinfo=UTC), "", 0
    hidden, judged = hidden_from(survey, given), judge_survey(build.surveyed, "dry")
    for _ in range(_MOST_READINGS):
        stages = rig_stages(judged)
        stage = next((one.body for one in stages if _is_next(one)), "")
        if not stage:
            return Ended(first, by, "", rivals=False, readings=since, finished=True)
        step = stage_step(build.surveyed, judged, stage, "mm")
        now += timedelta(minutes=1)
        body = step.body or ""
        match step.kind:
            case "moved":
                rivals = bool(judged.moved[0].rivals)
                return Ended(first, by, body, rivals, since, finished=False)
            case "lock":
                build = set_locked(build, body, locked=True, now=now)
                if not first:
                    first = body
                    if pushed:
                        given[body] = {**given[body], axis: given[body].get(axis, 0.0) + by_signed}
            case "correct":
                given[body] = {}
                build = correction_done(build, body, "dry", (), now)
            case _ if step.reading is not None:
                since += bool(first)
                one = step.reading
                value = _read(one, hidden.show(one), rng, blunders)
                if step.kind == "again":
                    build = take_again(build, one.id, value, now)
                else:
                    build = take_reading(build, one.but(value=value, phase="dry"), now)
            case _:
                break
        hidden = hidden_from(survey, given)
        judged = judge_survey(build.surveyed, "dry", near=judged, sound=True)
    return Ended(first, by, "", rivals=False, readings=since, finished=False)


def _is_next(stage: RigStage) -> bool:
    done = stage.state in ("true", "edge") and stage.body != FUSELAGE
    return stage.current or done


def _read(one: Reading, value: float, rng: np.random.Generator, blunders: float) -> float:
    sigma = sigma_of(one)
    if rng.uniform() < blunders:
        return value + sigma * float(rng.choice((-1, 1)) * rng.uniform(5, 20))
    return value + float(rng.normal(0, sigma))


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else _COUNT)
