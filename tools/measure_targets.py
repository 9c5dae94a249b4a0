"""Targets beside clicks and hand readings, on drawn photographs: ``python -m tools.measure_targets [COUNT]``.

The demo's airframe, crooked, with 32 labels laid 0.3 mm off in their plane and 0.1 along its normal, drawn four times
(4000 by 3000) and read as the program reads what a telephone gives.  Beside it the demo's own marks clicked in the same
four pictures with 1.5 pixels, and thirty readings of the app's own list with the noise of their tools.
"""

import sys
import time
from collections.abc import Callable, Sequence
from typing import Final

import numpy as np

from hardkeel.fuselage.hull import hull_of
from hardkeel.practice.photographing import outlines_of
from hardkeel.sight.codes import codes_in, grey_of
from hardkeel.sight.targets import Taken, sighted
from hardkeel.sight.viewpoints import hidden_marks
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.model import OWN_TARGET, Photo, Survey
from hardkeel.survey.planning import plan
from hardkeel.survey.readings import Sight, sigma_of
from tests.targeted import SIZE, TOLD, Bench, bench, cameras, pictures

_COUNT: Final = 200
_SAID_EVERY: Final = 20  # it takes an hour: so far
_CLICK_PX: Final = 1.5
_FOCAL_SIGMA: Final = 0.05
_CHECKS: Final = ("stab_roll_to_wing", "stab_yaw", "fin_lean_to_stab", "decalage")
Read = Callable[[Bench, int], Survey]


def by_targets(made: Bench, seed: int) -> Survey:
    """What four drawn pictures show of the labels."""
    taken = [
        Taken(f"p{i}.jpg", f"photos/p{i}.jpg", SIZE, TOLD * SIZE[0], codes_in(grey_of(pixels)))
        for i, pixels in enumerate(pictures(made, seed))
    ]
    return sighted(made.survey, taken, None).survey


def by_clicks(made: Bench, seed: int) -> Survey:
    """The demo's own marks clicked in the same four."""
    rng = np.random.default_rng(seed)
    survey = _plain(made.survey)
    net = made.hidden.net
    placed = net.placer.place(made.hidden.unknowns).airframe
    at = {mark.id: placed[net.index[mark.id]] for mark in survey.marks}
    photos: list[Photo] = []
    readings: list[Sight] = []
    for number, camera in enumerate(cameras(made, rng)):
        gone = hidden_marks(survey, at | outlines_of(made.hidden), camera, hull_of(made.fuselage))
        photo = f"p{number}"
        photos.append(
            Photo(
                id=photo,
                image=f"{photo}.jpg",
                size=SIZE,
                focal=TOLD * SIZE[0],
                focal_sigma=_FOCAL_SIGMA,
            )
        )
        for mark in survey.marks:
            u, v = camera.project(at[mark.id][None], SIZE)[0] + rng.normal(0, _CLICK_PX, 2)
            if mark.id not in gone and 0 <= u <= SIZE[0] and 0 <= v <= SIZE[1]:
                readings.append(
                    Sight(
                        id=f"s{len(readings)}",
                        photo=photo,
                        mark=mark.id,
                        value=(float(u), float(v)),
                        sigma=_CLICK_PX,
                    )
                )
    return survey.but(photos=tuple(photos), readings=tuple(readings))


def by_hand(made: Bench, seed: int) -> Survey:
    """Thirty readings of the list that the app makes for this airframe."""
    rng = np.random.default_rng(seed)
    survey = _plain(made.survey)
    empty = judge_survey(survey)
    listed = plan(empty.net, empty.solution, empty.rules, (), 30, empty.pool)
    placed = made.hidden.net.placer.place(made.hidden.unknowns)
    values, _ = made.hidden.net.observer(listed).predict(made.hidden.unknowns, placed)
    readings = tuple(
        one.but(id=f"r{i}", value=float(value) + float(rng.normal()) * sigma_of(one))
        for i, (one, value) in enumerate(zip(listed, values, strict=True))
    )
    return survey.but(readings=readings)


def _plain(survey: Survey) -> Survey:
    """Without its targets and the marks that are there for them."""
    marks = tuple(mark for mark in survey.marks if not mark.id.startswith(OWN_TARGET))
    return survey.but(marks=marks, targets=(), target_size=None, shared=None)


def main(count: int) -> None:
    """Print the table."""
    ways: dict[str, Read] = {
        "32 targets, 4 pictures": by_targets,
        "clicks in the same 4": by_clicks,
        "30 hand readings": by_hand,
    }
    print(f"{count} airframes; error p50 / p95 in degrees, error over sigma, out or true wrongly")
    for name, way in ways.items():
        begun = time.monotonic()
        errors: dict[str, list[tuple[float, float]]] = {check: [] for check in _CHECKS}
        false = 0
        for seed in range(count):
            made = bench(seed)
            judged = judge_survey(way(made, seed))
            truths = _truths(made, judged)
            false += _false(judged, truths)
            for check in _CHECKS:
                found = judged.check(check)
                assert found is not None
                errors[check].append((found.value - truths[check], found.sigma))
            if (seed + 1) % _SAID_EVERY == 0:
                _say(f"{name}, {seed + 1}", errors, false, begun)
        _say(name, errors, false, begun)


def _say(name: str, errors: dict[str, list[tuple[float, float]]], false: int, begun: float) -> None:
    told = "   ".join(f"{check} {_figures(errors[check])}" for check in _CHECKS)
    print(f"  {name:28s} {told}   false {false}   {time.monotonic() - begun:.0f} s", flush=True)


def _figures(errors: Sequence[tuple[float, float]]) -> str:
    off, sigma = np.abs(np.array(errors)).T
    low, high = np.percentile(off, [50, 95])
    return f"{low:.3f} / {high:.3f} ({np.sqrt(np.mean((off / sigma) ** 2)):.2f})"


def _truths(made: Bench, judged: Judgement) -> dict[str, float]:
    """Each check's true value: the design's, and what the hidden airframe's bodies add."""
    hidden, columns = made.hidden.net.columns, judged.net.columns
    truth = np.zeros(columns.size)
    truth[: columns.bench] = made.hidden.unknowns[: hidden.bench]  # the bodies' stand first, alike
    return {rule.id: rule.design + float(rule.slope @ truth) for rule in judged.rules}


def _false(judged: Judgement, truths: dict[str, float]) -> int:
    """Checks that are called out and are within, or true and are outside of, what is allowed."""
    found = 0
    for check in judged.checks:
        within = abs(truths[check.id] - check.target) <= check.tolerance
        found += (check.verdict == "out" and within) or (check.verdict == "true" and not within)
    return found


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else _COUNT)
