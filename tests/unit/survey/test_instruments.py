"""What tools are worth: by how they work, by their repeats, by turning them end for end."""

import math
from datetime import UTC, datetime
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from hardkeel.base.errors import BadInput
from hardkeel.edits.tooling import change_tool, count_as, set_tools, take_off_zero
from hardkeel.edits.truing import take_reading
from hardkeel.messages.advice import format_reading
from hardkeel.messages.names import reading_name, tool_name
from hardkeel.project.model import Build
from hardkeel.survey.drafts import Draft, other_tool, own_tool, with_own_tool
from hardkeel.survey.instruments import (
    as_kept,
    as_shown,
    height_of,
    in_degrees,
    learned,
    sigma_with,
    tilt_of,
    zero_errors,
)
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.model import Instrument, InstrumentKind, Survey
from hardkeel.survey.proposing import candidates_of
from hardkeel.survey.readings import Distance, Reading, Tilt, place_of, sigma_of
from tests.airframes import plain_survey
from tests.draws import draws

NOW = datetime(2026, 11, 20, 19, tzinfo=UTC)
TIPS = ("wing_tip_le_port", "wing_tip_le_starboard")


def tool(kind: InstrumentKind, **figures: Any) -> Instrument:
    return Instrument(id=f"my {kind}", kind=kind, **figures)


def with_tools(*tools: Instrument) -> Survey:
    return plain_survey().but(instruments=tools)


def tilts_of(survey: Survey) -> dict[object, Reading]:
    return {place_of(one): one for one in candidates_of(survey) if isinstance(one, Tilt)}


def test_an_eye_sees_a_long_edge_better_than_a_short_one_and_from_near_better_than_from_far() -> (
    None
):
    eye = tool("eye", distance=1500.0)
    # three minutes of arc over 1.5 m are 1.309 mm: as an angle of an edge of 300 mm a quarter of a degree
    assert sigma_with(eye, 300) == pytest.approx(math.degrees(math.atan(1.309 / 300)), rel=1e-3)
    assert sigma_with(eye, 150) == pytest.approx(0.5)
    near = sigma_with(eye.but(distance=1000.0), 150)
    assert near == pytest.approx(1 / 3)
    assert sigma_with(eye, 5000) == pytest.approx(0.1)


def test_a_figure_in_steps_is_in_doubt_by_its_step_over_root_twelve() -> None:
    coarse = sigma_with(tool("digital-level", resolution=1.0), None)
    steps = np.random.default_rng(4).uniform(-0.5, 0.5, 200_000)
    laid = np.random.default_rng(5).normal(0, 0.05, 200_000)
    assert coarse == pytest.approx((steps + laid).std(), rel=0.01)


def test_two_menisci_are_two_doubts() -> None:
    drawn = np.random.default_rng(6).normal(0, 0.3, (200_000, 2))
    degrees = np.degrees(np.arcsin((drawn[:, 1] - drawn[:, 0]) / 400))
    assert sigma_with(tool("water-level"), 400) == pytest.approx(degrees.std(), rel=0.01)
    assert sigma_with(tool("stand-pair", sigma=0.5), 400) == pytest.approx(math.degrees(0.5 / 400))


@given(st.floats(-30, 30), st.floats(20, 2000))
def test_a_tilt_read_as_a_height_is_the_tilt(degrees: float, over: float) -> None:
    assert tilt_of(height_of(degrees, over), over) == pytest.approx(degrees, abs=1e-9)


def test_a_water_level_is_read_and_typed_in_mm_and_kept_in_degrees() -> None:
    survey = with_tools(tool("water-level"))
    reading = Tilt(id="r1", from_=TIPS[0], to=TIPS[1], value=0.0, instrument="my water-level")
    ends = [survey.mark(one) for one in TIPS]
    assert ends[0] is not None
    assert ends[1] is not None
    kept = reading.but(value=as_kept(survey, reading, 5.0))
    assert math.sin(math.radians(kept.value)) * math.dist(ends[0].at, ends[1].at) == pytest.approx(
        5
    )
    assert as_shown(survey, kept, kept.value) == pytest.approx(5)
    assert not in_degrees(survey, kept)
    assert format_reading(survey, kept, "mm") == "5.0 mm"
    assert reading_name(survey, kept) == "wing tip LE, starboard over port"
    assert tool_name(survey, kept) == "water level"
    plain = kept.but(instrument=None)
    assert in_degrees(survey, plain)
    with pytest.raises(BadInput, match="steeper"):
        as_kept(survey, reading, 1e5)


def test_the_finer_of_two_tools_is_proposed_for_a_place() -> None:
    level, water = tool("level"), tool("water-level")
    alone, both = tilts_of(with_tools(level)), tilts_of(with_tools(level, water))
    assert set(alone) == set(both)
    for place, reading in both.items():
        assert sigma_of(reading) <= sigma_of(alone[place])
    # over the whole wing a hose is finer, over a narrow fuselage a level
    assert {one.instrument for one in both.values()} == {level.id, water.id}


def test_a_stick_is_not_longer_than_it_is() -> None:
    survey = with_tools(tool("trammel"))
    long = with_tools(tool("line"))
    mine = {place_of(one) for one in candidates_of(survey)}
    all_ = {place_of(one) for one in candidates_of(long)}
    assert mine < all_
    assert mine


def test_a_reading_put_together_by_hand_has_the_finest_tool_and_the_next_on_asking() -> None:
    survey = with_tools(tool("level"), tool("digital-level", resolution=0.01), tool("tape"))
    draft = Draft("tilt", TIPS)
    reading = with_own_tool(survey, draft)
    assert reading is not None
    assert reading.instrument == "my digital-level"
    assert sigma_of(reading) == pytest.approx(0.05, abs=1e-3)
    other = other_tool(survey, draft)
    assert (found := own_tool(survey, other)) is not None
    assert found.kind == "level"
    assert own_tool(survey, other_tool(survey, other)) == own_tool(survey, draft)
    assert own_tool(survey, Draft("height")) is None
    assert with_own_tool(survey, Draft("height", TIPS[:1])) == Draft("height", TIPS[:1]).reading()


def repeats(sigma: float, places: int, times: int, seed: int) -> Survey:
    survey = with_tools(tool("tape"))
    spots = [one for one in candidates_of(survey) if isinstance(one, Distance)][:places]
    rng = np.random.default_rng(seed)
    readings = tuple(
        spot.but(id=f"r{i}-{j}", value=500 + i + float(rng.normal(0, sigma)))
        for i, spot in enumerate(spots)
        for j in range(times)
    )
    return survey.but(readings=readings)


def test_what_repeats_scatter_by_is_the_pooled_deviation_of_a_textbook() -> None:
    survey = repeats(0.3, places=4, times=3, seed=1)
    (one,) = learned(survey)
    groups = np.array([r.value for r in survey.readings]).reshape(4, 3)
    assert one.sigma == pytest.approx(math.sqrt(groups.var(axis=1, ddof=1).mean()))
    assert (one.dof, one.readings, one.places, one.counted) == (8, 12, 4, 0.5)
    assert not one.angular


def test_the_scatter_is_right_in_the_mean_and_its_doubt_too() -> None:
    told = [learned(repeats(0.3, 3, 3, seed))[0] for seed in range(draws(150, 300))]
    variances = np.array([one.sigma**2 for one in told])
    assert variances.mean() == pytest.approx(0.09, rel=0.08)
    spread = np.array([one.sigma for one in told]).std()
    assert spread == pytest.approx(np.mean([one.doubt for one in told]), rel=0.12)


def test_too_few_repeats_tell_nothing_and_a_blunder_is_no_scatter() -> None:
    assert learned(repeats(0.3, 2, 2, 1)) == ()
    survey = repeats(0.3, 4, 3, 1)
    first = survey.figures[0]
    spoilt = survey.but(readings=(first.but(value=first.value + 20), *survey.figures[1:]))
    assert learned(spoilt)[0].sigma > 4
    assert learned(spoilt, {first.id})[0].sigma < 0.5


def test_readings_before_and_after_gluing_are_no_repeats() -> None:
    survey = repeats(0.3, 4, 2, 1)
    mixed = tuple(one.but(phase="wet" if i % 2 else "dry") for i, one in enumerate(survey.readings))
    assert learned(survey.but(readings=mixed)) == ()


def test_counting_a_tool_anew_counts_its_readings_anew_and_never_finer_than_half() -> None:
    survey = repeats(0.05, 5, 3, 1)
    build = Build(survey=survey)
    (one,) = learned(survey)
    assert one.differs
    assert one.usable == 0.25
    counted = count_as(build, one.tool, one.usable)
    assert {sigma_of(reading) for reading in counted.surveyed.readings} == {0.25}
    assert {sigma_of(reading) for reading in candidates_of(counted.surveyed)} == {0.25}
    as_counted = [learned(repeats(0.5, 5, 3, seed))[0].differs for seed in range(draws(150, 300))]
    assert np.mean(as_counted) < draws(0.12, 0.08)  # two sigmas: one in twenty by chance
    with pytest.raises(BadInput, match="no tool"):
        count_as(build, "yardstick", 0.3)


def turned(error: float, seed: int, *, noise: float = 0.1) -> Build:
    survey = with_tools(tool("level"))
    rng = np.random.default_rng(seed)
    build = Build(survey=survey)
    spots = list(tilts_of(survey).values())[:3]
    for spot in spots:
        assert isinstance(spot, Tilt)
        for start, end, sign in ((spot.from_, spot.to, 1), (spot.to, spot.from_, -1)):
            shown = sign * 0.4 + error + float(rng.normal(0, noise))
            laid = Tilt(id="?", from_=start, to=end, value=shown, instrument="my level")
            build = take_reading(build, laid, NOW)
    return build


def test_turning_a_level_end_for_end_tells_its_own_error_and_its_doubt() -> None:
    told = [zero_errors(turned(0.5, seed).surveyed)[0] for seed in range(draws(100, 200))]
    errors = np.array([one.error for one in told])
    assert errors.mean() == pytest.approx(0.5, abs=0.01)
    assert errors.std() == pytest.approx(told[0].sigma, rel=0.12)
    assert all(one.pairs == 3 for one in told)
    assert np.mean([one.sure for one in told]) > 0.95


def test_the_error_of_a_level_taken_off_is_gone_and_the_readings_agree() -> None:
    build = turned(0.8, 3, noise=0.02)
    (zero,) = zero_errors(build.surveyed)
    mended = take_off_zero(build, zero)
    (left,) = zero_errors(mended.surveyed)
    assert left.error == pytest.approx(0, abs=1e-9)
    assert judge_survey(build.surveyed).outliers or judge_survey(build.surveyed).alternatives
    assert not judge_survey(mended.surveyed).outliers


def test_one_place_or_places_that_disagree_clear_nothing() -> None:
    build = turned(0.5, 1)
    one = build.surveyed.but(readings=build.surveyed.figures[:2])
    assert not zero_errors(one)[0].sure
    slip = build.surveyed.figures[5]
    spoilt = build.surveyed.but(
        readings=(*build.surveyed.figures[:5], slip.but(value=slip.value + 3))
    )
    assert not zero_errors(spoilt)[0].sure
    assert zero_errors(build.surveyed.but(readings=build.surveyed.readings[::2])) == ()


def test_tools_are_owned_and_counted_by_edits_that_keep_the_rest() -> None:
    build = Build(survey=plain_survey())
    eye = tool("eye")
    owned = set_tools(build, (eye,))
    nearer = change_tool(owned, eye.but(distance=600.0))
    assert nearer.surveyed.instruments == (eye.but(distance=600.0),)
    assert nearer.surveyed.but(instruments=None) == build.surveyed.but(instruments=None)
    sharper = max(sigma_of(one) for one in candidates_of(nearer.surveyed))
    assert sharper < max(sigma_of(one) for one in candidates_of(owned.surveyed))
