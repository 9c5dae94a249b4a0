"""What photos are worth beside strings and gauges: ``python tools/measure_sight.py [COUNT]``.

Crooked airframes with their roots and the fin's foot marked; a camera behind and one above, each as near as the marks
fill the picture, its focal length told within 1.5 %, every mark that no plank hides clicked with 1.5 pixels.  Beside
it a pin's head found to half a pixel, both with six tapes and four gauges, and thirty readings of the app's own list.
Also: how long one adjustment takes, of sixty figures and thirty sightings in two photos.
"""

import sys
import time
from collections.abc import Callable

import numpy as np

from hardkeel.demo.kettlewick import demo_build
from hardkeel.geometry.rotation import Array
from hardkeel.sight.viewpoints import Place, hidden_marks
from hardkeel.survey.adjusting import solve
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.model import Survey
from hardkeel.survey.network import network_of
from hardkeel.survey.planning import plan
from hardkeel.survey.readings import Incidence, Sight, sigma_of
from tests.airframes import plain_survey, random_truth, readings_of
from tests.photographs import SIZE, taken_from, with_photo

_COUNT = 200
_SCALE = 0.2
_CHECKS = ("stab_roll_to_wing", "stab_yaw", "decalage")
Way = Callable[[Survey, Array, np.random.Generator], Survey]


def _photos(places: tuple[Place, ...], sigma: float) -> Way:
    def way(survey: Survey, truth: Array, rng: np.random.Generator) -> Survey:
        for i, place in enumerate(places):
            camera = taken_from(survey, truth, rng, place, spread=0.05)
            net = network_of(survey)
            points = net.placer.place(truth).airframe
            where = {mark.id: points[net.index[mark.id]] for mark in survey.marks}
            for body in survey.bodies:
                corners = [(body.id, at) for at in body.outline]
                if corners:
                    where[f"outline {body.id}"] = net.placer_of(corners).place(truth).airframe
            hidden = hidden_marks(survey, where, camera)
            marks = [mark.id for mark in survey.marks if mark.id not in hidden]
            survey = with_photo(survey, truth, camera, rng, name=f"p{i}", sigma=sigma, marks=marks)
        return survey

    return way


def _figures(count: int) -> Way:
    """The first tapes and gauges of the app's own list, or all of it."""

    def way(survey: Survey, truth: Array, rng: np.random.Generator) -> Survey:
        empty = judge_survey(survey.but(readings=(), photos=()))
        listed = plan(empty.net, empty.solution, empty.rules, (), 30, empty.pool)
        if count < len(listed):
            gauges = [one for one in listed if isinstance(one, Incidence)][: count * 2 // 5]
            others = [one for one in listed if one.kind == "distance"]
            listed = (*gauges, *others[: count - len(gauges)])
        net = network_of(survey)
        values, _ = net.observer(listed).predict(truth, net.placer.place(truth))
        taken = tuple(
            one.but(id=f"r{i}", value=float(v) + float(rng.normal()) * sigma_of(one))
            for i, (one, v) in enumerate(zip(listed, values, strict=True))
        )
        return survey.but(readings=(*survey.readings, *taken))

    return way


def _both(*ways: Way) -> Way:
    def way(survey: Survey, truth: Array, rng: np.random.Generator) -> Survey:
        for one in ways:
            survey = one(survey, truth, rng)
        return survey

    return way


def main(count: int) -> None:
    """Print sigma, and error over sigma, of the checks that matter."""
    survey = demo_build().surveyed.but(readings=())  # its roots, fin foot and deck are marked
    two: tuple[Place, ...] = ("behind", "above")
    many: tuple[Place, ...] = ("behind", "above", "quarter", "quarter-starboard", "above-tail")
    ways: dict[str, Way] = {
        "one photo behind": _photos(("behind",), 1.5),
        "behind and above": _photos(two, 1.5),
        "the same, half a pixel": _photos(two, 0.5),
        "five photos, 10 figures": _both(_photos(many, 1.5), _figures(10)),
        "30 figures, no photo": _figures(30),
    }
    print(f"{count} airframes; sigma in degrees (error over sigma)")
    for name, way in ways.items():
        sigmas: dict[str, list[float]] = {check: [] for check in _CHECKS}
        pulls: dict[str, list[float]] = {check: [] for check in _CHECKS}
        for seed in range(count):
            rng = np.random.default_rng(seed)
            truth = random_truth(network_of(survey), rng, _SCALE)
            judged = judge_survey(way(survey, truth, rng))
            for check in _CHECKS:
                sigma, error = _error(judged, check, truth)
                sigmas[check].append(sigma)
                pulls[check].append(error / sigma)
        told = "   ".join(
            f"{check} {np.median(sigmas[check]):.3f} ({np.sqrt(np.mean(np.square(pulls[check]))):.2f})"
            for check in _CHECKS
        )
        print(f"  {name:26s} {told}")
    _speed()


def _error(judged: Judgement, check: str, truth: Array) -> tuple[float, float]:
    rule = next(one for one in judged.rules if one.id == check)
    found = judged.check(check)
    assert found is not None
    return found.sigma, found.value - (rule.design + float(rule.slope @ truth))


def _speed() -> None:
    rng = np.random.default_rng(1)
    survey = plain_survey()
    truth = random_truth(network_of(survey), rng, _SCALE)
    read = readings_of(survey, truth, rng, 60)
    names = [mark.id for mark in survey.marks]
    for i, place in enumerate(("behind", "above")):
        camera = taken_from(survey, truth, rng, place)  # type: ignore[arg-type]
        read = with_photo(read, truth, camera, rng, name=f"p{i}", marks=names[:15])
    net = network_of(read)
    begun = time.perf_counter()
    found = solve(net, read.readings)
    cold = time.perf_counter() - begun
    warm = []
    start = found.start
    for _ in range(40):
        moved = start.unknowns + rng.normal(size=len(start.unknowns)) * 0.01
        begun = time.perf_counter()
        solve(net, read.readings, type(start)(moved, start.cameras))
        warm.append(time.perf_counter() - begun)
    sights = sum(isinstance(one, Sight) for one in read.readings)
    print(
        f"  {len(read.readings) - sights} figures, {sights} sightings in two photos (of {SIZE[0]} pixels): "
        f"one adjustment {np.median(warm) * 1000:.1f} ms, cameras found first {cold * 1000:.0f} ms"
    )


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else _COUNT)
