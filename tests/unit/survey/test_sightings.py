"""Photos as readings: cameras found without help, adjusted with the bodies, mis-clicks named."""

import json
import math
from typing import Any, cast

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hardkeel.base.errors import BadInput
from hardkeel.geometry.rotation import Array
from hardkeel.sight.viewpoints import WAYS, Place, camera_at, covariance_with, views_of
from hardkeel.survey.adjusting import Start, solve
from hardkeel.survey.cameras import Camera, Lens, in_one_line, turned
from hardkeel.survey.checking import judge, verdict_of
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.model import Gluing, Photo, Survey
from hardkeel.survey.network import network_of
from hardkeel.survey.readings import Sight
from hardkeel.survey.sighting import photo_view
from hardkeel.survey.soundness import check_survey
from hardkeel.survey.system import System
from hardkeel.survey.telling import as_json
from tests.airframes import plain_survey, random_truth, readings_of
from tests.draws import draws
from tests.photographs import FOCAL, SIZE, taken_from, with_photo
from tests.sight_independent import SightIndependent

PLACES: tuple[Place, ...] = tuple(WAYS)
seeds = st.integers(0, 10_000)


def photographed(
    seed: int, places: tuple[Place, ...] = ("behind", "above"), scale: float = 0.2, **more: Any
) -> tuple[Survey, Array, list[Camera]]:
    """A random airframe with a photo from each place, its truth, and the cameras'."""
    rng = np.random.default_rng(seed)
    survey = plain_survey()
    truth = random_truth(network_of(survey), rng, scale)
    cameras = []
    for i, place in enumerate(places):
        cameras.append(taken_from(survey, truth, rng, place))
        survey = with_photo(survey, truth, cameras[-1], rng, name=f"p{i + 1}", **more)
    return survey, truth, cameras


@given(seeds)
@settings(max_examples=draws(8, 15))
def test_slopes_are_those_of_the_projection(seed: int) -> None:
    rng = np.random.default_rng(seed)
    survey, truth, (camera,) = photographed(seed, ("quarter",))
    net = network_of(survey)
    lens = Lens(survey.photos[0], survey.sightings, net.index, camera.rotation)
    state = lens.state_of(camera) + np.array([*rng.normal(size=3), 0.1, -0.2, 0.15, 0.01, 0.03])

    def pixels(x: Array, camera: Array) -> Array:
        placed = net.placer.place(x)
        found = lens.predict(camera, placed.airframe, placed.airframe_moves)
        assert found is not None
        return found[0]

    placed = net.placer.place(truth)
    found = lens.predict(state, placed.airframe, placed.airframe_moves)
    assert found is not None
    assert found[0].reshape(-1, 2) == pytest.approx(
        lens.camera_of(state).project(placed.airframe, SIZE)[
            [net.index[s.mark] for s in survey.sightings]
        ]
    )
    step = 1e-5
    for k in range(8):
        e = np.eye(8)[k] * step
        slope = (pixels(truth, state + e) - pixels(truth, state - e)) / (2 * step)
        np.testing.assert_allclose(found[2][:, k], slope, rtol=1e-5, atol=1e-3)
    for k in range(net.columns.size):
        e = np.eye(net.columns.size)[k] * step
        slope = (pixels(truth + e, state) - pixels(truth - e, state)) / (2 * step)
        np.testing.assert_allclose(found[1][:, k], slope, rtol=1e-5, atol=1e-4)


def test_a_turn_is_a_rotation_whatever_its_size() -> None:
    for turn in (np.zeros(3), np.array([1e-10, 0, 0]), np.array([0.3, -1.2, 2.0])):
        matrix, _ = turned(turn)
        np.testing.assert_allclose(matrix @ matrix.T, np.eye(3), atol=1e-12)
        assert np.linalg.det(matrix) == pytest.approx(1.0)


@pytest.mark.parametrize("seed", draws([1], [0, 1, 2]))
def test_random_surveys_with_photos_give_the_same_numbers(seed: int) -> None:
    every: tuple[tuple[Place, ...], ...] = (
        ("behind", "above"),
        ("quarter",),
        ("above-tail", "front"),
    )
    places = every[seed]
    survey, truth, _ = photographed(seed, places)
    rng = np.random.default_rng(seed + 50)
    figures = readings_of(plain_survey(), truth, rng, 12).readings
    survey = survey.but(readings=(*figures, *survey.readings))
    plain = json.loads(survey.model_dump_json(by_alias=True))
    other = SightIndependent(plain).adjust(seed)
    net = network_of(survey)
    solution = solve(net, survey.readings)
    sigma = np.sqrt(np.diag(solution.covariance))
    names = [(body, name) for body, held in net.columns.names.items() for name in held]
    names += [("bench", "pitch"), ("bench", "roll"), ("bench", "z")]
    assert solution.cost == pytest.approx(other["cost"], rel=1e-4)
    for i, name in enumerate(names):
        assert solution.unknowns[i] == pytest.approx(other["unknowns"][name], abs=0.005), name
        assert sigma[i] == pytest.approx(other["sigma"][name], rel=0.01, abs=1e-4), name
    told: Any = as_json(judge_survey(survey))
    if not told["suspects"]:
        for photo in told["photos"]:
            mine = other["cameras"][photo["id"]]
            np.testing.assert_allclose(photo["place"], mine["place"], atol=0.5)
            np.testing.assert_allclose(photo["rotation"], mine["rotation"], atol=1e-4)
            assert photo["focal"] == pytest.approx(mine["focal"], rel=1e-4)
            assert photo["k1"] == pytest.approx(mine["k1"], abs=1e-4)
            np.testing.assert_allclose(photo["sigma"]["place"], mine["place_sigma"], rtol=0.01)


@given(seeds, st.sampled_from(PLACES), st.booleans())
@settings(max_examples=draws(10, 30))
def test_the_camera_is_found_without_help_wherever_it_stood(
    seed: int, place: Place, told: bool
) -> None:
    """As low as the minimum that is reached from the truth itself, with five marks as with all."""
    rng = np.random.default_rng(seed)
    survey = plain_survey()
    net = network_of(survey)
    truth = random_truth(net, rng, 0.4)
    camera = taken_from(survey, truth, rng, place, spread=0.3)
    names = [mark.id for mark in survey.marks]
    marks = [
        *rng.choice(names[:5], 3, replace=False),
        *rng.choice(names[5:], int(rng.integers(2, 8)), replace=False),
    ]
    photo = with_photo(survey, truth, camera, rng, marks=marks, focal=FOCAL if told else None)
    found = solve(network_of(photo), photo.readings)
    if not found.cameras:
        return
    from_truth = solve(
        network_of(photo), photo.readings, Start(truth, {"p1": (camera, found.found_from["p1"])})
    )
    assert found.cost <= from_truth.cost + 1e-3


def test_truth_lies_within_sigma() -> None:
    pulls = []
    for seed in range(draws(12, 40)):
        survey, truth, _ = photographed(seed, (PLACES[seed % 7], PLACES[(seed + 3) % 7]))
        solution = solve(network_of(survey), survey.readings)
        bench = network_of(survey).columns.bench
        pulls.append(((solution.unknowns - truth) / np.sqrt(np.diag(solution.covariance)))[:bench])
    # truths are drawn narrower than the priors, so what the photos leave open pulls it below one
    assert 0.8 < float(np.sqrt(np.mean(np.square(pulls)))) < 1.08


def test_five_marks_in_use_and_four_not() -> None:
    rng = np.random.default_rng(1)
    base = plain_survey()
    truth = random_truth(network_of(base), rng)
    camera = taken_from(base, truth, rng, "quarter")
    fuselage = ["nose_pin", "tail_pin", "nose_foot"]
    for marks, used in (
        ([*fuselage, "wing_tip_te_port", "stab_tip_te_port"], True),
        ([*fuselage, "wing_tip_te_port"], False),
        (
            ["nose_pin", "tail_pin", "wing_tip_te_port", "wing_tip_le_port", "stab_tip_te_port"],
            False,
        ),
    ):
        survey = with_photo(base, truth, camera, rng, marks=marks)
        told: Any = as_json(judge_survey(survey))
        assert told["photos"][0]["used"] is used
        assert [one["used"] for one in told["readings"]] == [used] * len(marks)
        if not used:
            assert told["photos"][0]["place"] is None
            assert told["readings"][0]["residual"] is None


def test_points_within_two_millimetres_lie_in_a_line() -> None:
    line = np.array([[x, 0.0, 0.02 * x] for x in range(0, 500, 100)])
    assert in_one_line(line)
    assert in_one_line(line + np.array([[0, 1.5 * (-1) ** i, 0] for i in range(5)]))
    assert not in_one_line(line + np.array([[0, 2.6 * (-1) ** i, 0] for i in range(5)]))


@pytest.mark.parametrize("seed", range(draws(2, 6)))
def test_a_mis_click_is_named_and_set_aside_whole(seed: int) -> None:
    survey, truth, _ = photographed(seed)
    rng = np.random.default_rng(seed)
    sights = list(survey.sightings)
    bad = int(rng.integers(len(sights)))
    u, v = sights[bad].value
    sights[bad] = sights[bad].but(value=(u + 40.0 if u < 2000 else u - 40.0, v))
    judged = judge_survey(survey.but(readings=tuple(sights)))
    assert sights[bad].id in {name for one in judged.outliers for name in (one.reading, *one.alike)}
    assert judged.outliers
    fit = next(one for one in judged.sight_fits if one.id == judged.outliers[0].reading)
    assert not fit.used
    assert fit.residual is not None
    assert fit.off is not None
    assert fit.residual == pytest.approx(math.hypot(*fit.off))
    stab = network_of(survey).columns.column("stab", "roll")
    assert stab is not None
    sigma = math.sqrt(judged.solution.covariance[stab, stab])
    assert abs(judged.solution.unknowns[stab] - truth[stab]) < 4 * sigma


def test_where_it_begins_makes_no_difference() -> None:
    survey, _, _ = photographed(3)
    cold = judge_survey(survey)
    fewer = judge_survey(survey.but(readings=survey.readings[:-4]))
    warm = judge_survey(survey, near=fewer)
    np.testing.assert_allclose(warm.solution.unknowns, cold.solution.unknowns, atol=1e-3)


def test_a_photo_that_was_judged_is_worth_what_was_foretold() -> None:
    """The predicted covariance is that of the adjustment with the photo in it, about the same state."""
    survey, _, _ = photographed(5, ("behind",))
    judged = judge_survey(survey)
    views = {view.place: view for view in views_of(judged.net, judged.solution)}
    view = views["above"]
    foretold = covariance_with(judged.net, judged.solution, view, 1.5, {})
    assert foretold is not None
    placed = judged.solution.placed.airframe
    pixels = view.camera.project(placed, SIZE)
    rows = {mark.id: i for i, mark in enumerate(survey.marks)}
    more = tuple(
        Sight(
            id=f"n{m}",
            photo="p9",
            mark=m,
            value=(float(pixels[rows[m], 0]), float(pixels[rows[m], 1])),
        )
        for m in view.marks
    )
    both = survey.but(
        photos=(*survey.photos, Photo(id="p9", image="p9.jpg", size=SIZE, focal=FOCAL)),
        readings=(*survey.readings, *more),
    )
    taken = judge_survey(both)
    np.testing.assert_allclose(
        np.sqrt(np.diag(foretold)), np.sqrt(np.diag(taken.solution.covariance)), rtol=0.02
    )


def test_marks_fill_the_picture_and_planks_hide_what_is_behind() -> None:
    survey = plain_survey()
    points = network_of(survey).placer.place(np.zeros(network_of(survey).columns.size)).airframe
    for way in WAYS.values():
        pixels = camera_at(points, way, SIZE, FOCAL).project(points, SIZE)
        away = np.abs(pixels - np.array(SIZE) / 2) / (np.array(SIZE) / 2)
        assert 0.88 < away.max() < 0.905
    boarded = survey.but(
        bodies=tuple(
            body.but(
                outline=tuple(
                    next(m.at for m in survey.marks if m.id == f"wing_tip_{key}")
                    for key in ("le_port", "le_starboard", "te_starboard", "te_port")
                )
            )
            if body.id == "wing"
            else body
            for body in survey.bodies
        )
    )
    views = {
        view.place: view for view in views_of(network_of(boarded), solve(network_of(boarded), ()))
    }
    assert "longeron_port" not in views["above"].marks
    assert "stab_tip_te_port" in views["above"].marks
    assert set(views["behind"].marks) >= {"wing_mid_le", "stab_tip_te_port"}


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"value": (4001.0, 10.0)}, "readings[0].value: 4001 pixels right lies outside the picture of 4000 by 3000"),
        ({"value": (1.0, -0.5)}, "readings[0].value: -0.5 pixels down lies outside"),
        ({"photo": "p7"}, 'readings[0].photo: no photo "p7"'),
        ({"mark": "nose"}, 'readings[0].mark: no mark "nose"'),
    ],
)  # fmt: skip
def test_what_does_not_hang_together_is_told_with_its_place(
    change: dict[str, Any], said: str
) -> None:
    survey, _, _ = photographed(0, ("behind",))
    first, *rest = survey.sightings
    with pytest.raises(BadInput) as told:
        check_survey(survey.but(readings=(first.but(**change), *rest)))
    assert said in str(told.value)


def test_a_mark_is_sighted_once_in_a_photo_but_for_what_is_ignored() -> None:
    survey, _, _ = photographed(0, ("behind",))
    first = survey.sightings[0]
    again = first.but(id="again")
    with pytest.raises(BadInput, match="is sighted twice in photo"):
        check_survey(survey.but(readings=(*survey.readings, again)))
    check_survey(survey.but(readings=(*survey.readings, again.but(ignored=True))))


class OtherStories:
    """Stories by whole normal matrices: the likelihood of all rows with the cameras integrated out, set by set."""

    def __init__(self, judged: Judgement) -> None:
        readings = [
            one
            for one in (*judged.readings, *judged.sightings)
            if not isinstance(one, Sight) or one.photo in judged.solution.cameras
        ]
        system = System(judged.net, readings, judged.solution.cameras)
        self.state = system.state_of(judged.solution.unknowns, judged.solution.cameras)
        seen = system.look(self.state)
        self.a = seen.slopes * system.root_weight[:, None]
        self.y = seen.residuals * system.root_weight + self.a @ (self.state - system.mean)
        self.prior, self.mean, self.owner = system.prior, system.mean, system.owner
        self.ids, self.rules = [one.id for one in readings], judged.rules

    def _solved(self, bad: frozenset[int]) -> tuple[Array, Array, float]:
        w = np.where(np.isin(self.owner, list(bad)), 1 / 169.0, 1.0)
        normal = self.a.T @ (w[:, None] * self.a) + self.prior
        d: Array = np.linalg.solve(normal, self.a.T @ (w * self.y)).astype(float)
        cost = float(np.sum(w * (self.y - self.a @ d) ** 2) + d @ self.prior @ d)
        log = 0.5 * float(np.sum(np.log(w))) - 0.5 * float(np.linalg.slogdet(normal)[1])
        return d, normal, log - cost / 2

    def score(self, bad: frozenset[int]) -> float:
        return (
            len(bad) * math.log(0.04 / 0.96) + self._solved(bad)[2] - self._solved(frozenset())[2]
        )

    def near(self, bad: frozenset[int]) -> list[frozenset[int]]:
        every = range(len(self.ids))
        return [
            *(bad | {j} for j in every if j not in bad),
            *(bad - {i} for i in bad),
            *(bad - {i} | {j} for i in bad for j in every if j not in bad),
        ]

    def verdicts(self, bad: frozenset[int]) -> list[str]:
        d, normal, _ = self._solved(bad)
        covariance = np.linalg.inv(normal)
        told: list[str] = []
        for rule in self.rules:
            slope = np.zeros(len(d))
            slope[: len(rule.slope)] = rule.slope
            value = rule.design + float(slope @ (d + self.mean))
            sigma = math.sqrt(float(slope @ covariance @ slope))
            told.append(verdict_of(value - rule.target, sigma, rule.tolerance))
        return told


@pytest.mark.parametrize("seed", range(draws(3, 8)))
def test_doubtful_sightings_count_with_both_rows(seed: int) -> None:
    """Against another way to the contract's figures: each set solved whole."""
    rng = np.random.default_rng(seed)
    survey, truth, _ = photographed(seed, ("behind", "above"), 0.1)
    figures = readings_of(plain_survey(), truth, rng, 8).figures
    sights = list(survey.sightings)
    for i in rng.choice(len(sights), 2, replace=False):
        u, v = sights[i].value
        sights[i] = sights[i].but(value=(u, v + (7.0 if v < 1500 else -7.0)))
    survey = survey.but(readings=(*figures, *sights))
    judged = judge_survey(survey)
    other = OtherStories(judged)
    now = frozenset(other.ids.index(one.reading) for one in judged.outliers)
    for _ in range(12):
        best = max(other.near(now), key=other.score)
        if other.score(best) <= other.score(now) + 1e-9:
            break
        now = best
    stories = [now, *other.near(now)]
    scores = [other.score(one) for one in stories]
    plain = judge(judged.rules, judged.solution.unknowns, judged.solution.covariance)
    turned: dict[frozenset[str], set[str]] = {}
    for i, check in enumerate(plain):
        within = {"true": math.log(20), "out": math.log(50)}.get(check.verdict, 0.0)
        others = [
            story
            for story, score in zip(stories, scores, strict=True)
            if score >= max(scores) - within and other.verdicts(story)[i] != check.verdict
        ]
        if check.verdict != "unsure":
            assert judged.checks[i].verdict == ("unsure" if others else check.verdict), check.id
            for story in others:
                turned.setdefault(frozenset(other.ids[j] for j in story), set()).add(check.id)
    assert {frozenset(d.bad): set(d.checks) for d in judged.alternatives} == turned
    for doubt in judged.alternatives:
        story = frozenset(other.ids.index(one) for one in doubt.bad)
        assert doubt.odds == pytest.approx(math.exp(other.score(story) - max(scores)), rel=1e-5)


def test_a_view_tells_focal_length_and_lens() -> None:
    survey, _, cameras = photographed(4)
    judged = judge_survey(survey)
    view = photo_view(judged, "p1")
    assert view is not None
    assert view.rms < 3.0
    assert abs(view.camera.focal - cameras[0].focal) < 4 * view.focal_sigma
    assert abs(view.camera.k1 - cameras[0].k1) < 4 * view.k1_sigma
    away = np.abs(view.camera.place - cameras[0].place)
    assert np.all(away < 4 * np.array(view.place_sigma))
    assert photo_view(judged, "p7") is None


def test_a_wet_photo_leans_on_the_dry_readings_and_tells_what_the_glue_moved() -> None:
    rng = np.random.default_rng(12)
    survey = plain_survey()
    net = network_of(survey)
    truth = random_truth(net, rng, 0.15)
    moved = truth.copy()
    roll = net.columns.column("stab", "roll")
    assert roll is not None
    moved[roll] += 0.8
    dry = tuple(one.but(phase="dry") for one in readings_of(survey, truth, rng, 40).readings)
    wet = survey
    for i, place in enumerate(("behind", "above-tail", "front")):
        camera = taken_from(survey, moved, rng, cast("Place", place))
        wet = with_photo(wet, moved, camera, rng, name=f"p{i + 1}")
    sights = tuple(one.but(phase="wet") for one in wet.readings)
    glued = wet.but(readings=(*dry, *sights), gluing=Gluing(body="stab"))
    judged = judge_survey(glued, "wet")
    assert set(judged.solution.cameras) == {"p1", "p2", "p3"}
    told = {one.name: one for one in judged.movement["stab"]}
    assert told["roll"].value == pytest.approx(0.8, abs=4 * told["roll"].sigma)
    assert told["roll"].value > 2 * told["roll"].sigma
    sigma = math.sqrt(judged.solution.covariance[roll, roll])
    assert sigma < 0.7 * math.sqrt(judge_survey(glued, "dry").solution.covariance[roll, roll])
    assert abs(judged.solution.unknowns[roll] - moved[roll]) < 4 * sigma
    alone = judge_survey(glued, "dry")
    assert alone.solution.cameras == {}
    assert {fit.id for fit in alone.sight_fits} == set()


def test_clicks_at_random_are_refused_with_the_photos_name_or_told_to_be_wrong() -> None:
    """Never a traceback, never an answer that rests on them without a word."""
    refused = []
    for seed in range(draws(1, 3)):
        rng = np.random.default_rng(seed)
        survey = plain_survey(twist=False)
        truth = random_truth(network_of(survey), rng, 0.2)
        camera = taken_from(survey, truth, rng, "behind")
        photo = with_photo(survey, truth, camera, rng)
        thrown = tuple(
            one.but(value=(float(rng.uniform(0, 4000)), float(rng.uniform(0, 3000))))
            for one in photo.sightings[:7]
        )
        try:
            judged = judge_survey(photo.but(readings=thrown))
        except BadInput as fault:
            refused.append((fault.place, '"p1"' in str(fault)))
        else:
            assert judged.outliers or not judged.solution.cameras
    assert set(refused) <= {("survey.photos", True)}
