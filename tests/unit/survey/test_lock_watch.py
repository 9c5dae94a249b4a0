"""A lock is a claim with a date: a body that was pushed afterwards is named, a bad reading is not a push."""

from collections.abc import Sequence
from datetime import UTC, datetime, timedelta
from typing import Final, Literal

import numpy as np
import pytest
from scipy.stats import multivariate_normal

from hardkeel.base.errors import BadInput
from hardkeel.edits.truing import replace_reading, set_locked, take_reading
from hardkeel.messages.advice import headline
from hardkeel.messages.locks import check_why
from hardkeel.messages.rig_next import stage_step
from hardkeel.messages.rigging import stage_tip
from hardkeel.practice.hidden import hidden_from
from hardkeel.project.model import Build
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.likelihoods import explained, told_of
from hardkeel.survey.lock_watch import Seen, check_of_locked
from hardkeel.survey.model import FUSELAGE, Survey, bodies_of, is_since
from hardkeel.survey.proposing import candidates_of
from hardkeel.survey.readings import Incidence, Reading, sigma_of
from hardkeel.survey.rigging import ends_stage, in_question, next_on_stage, rig_stages
from tests.airframes import plain_survey
from tests.draws import draws

SIDES: Final[tuple[Literal["port", "starboard"], ...]] = ("port", "starboard")
NOON = datetime(2026, 11, 30, 12, 0, tzinfo=UTC)
TRUE = {"bench": {"pitch": 0.2, "roll": 0.1, "z": 70.0}}
PUSHED = {**TRUE, "wing": {"pitch": 0.8}}


def at(minutes: float) -> datetime:
    return NOON + timedelta(minutes=minutes)


def plain_build() -> Build:
    return Build(name="plain", survey=plain_survey(), phase="dry")


def incidence(side: Literal["port", "starboard"], fraction: float = 0.5) -> Incidence:
    return Incidence(
        id="new", body="wing", side=side, span_fraction=fraction, zero="datum", value=0.0
    )


def with_readings(
    build: Build, given: dict[str, dict[str, float]], taken: Sequence[Reading], begin: float
) -> Build:
    """Exactly read, one a minute."""
    hidden = hidden_from(build.surveyed, given)
    for i, one in enumerate(taken):
        read = one.but(value=hidden.show(one), phase="dry")
        build = take_reading(build, read, at(begin + i))
    return build


def wanted(survey: Survey, body: str = "wing") -> tuple[Reading, ...]:
    """What the program asks for until all of a body is known."""
    hidden, found = hidden_from(survey, TRUE), tuple[Reading, ...]()
    for number in range(60):
        said = judge_survey(survey.but(readings=found))
        asked = next_on_stage(said, FUSELAGE) or next_on_stage(said, body)
        if not asked:
            break
        one = asked[0].reading
        found = (*found, one.but(id=f"r{number + 1}", value=hidden.show(one)))
    return found


def locked_build() -> Build:
    """The wing known all round and locked at 12:55."""
    build = plain_build()
    along = [incidence(side, out) for side in SIDES for out in (0.3, 0.5, 0.9)]
    listed = [*wanted(build.surveyed), *along]
    return set_locked(with_readings(build, TRUE, listed, 0), "wing", locked=True, now=at(55))


def judged(build: Build) -> Judgement:
    return judge_survey(build.surveyed, "dry")


def test_two_readings_since_its_lock_that_fit_only_a_push_name_it() -> None:
    build = with_readings(
        locked_build(), PUSHED, [incidence("port"), incidence("starboard")], begin=60
    )
    said = judged(build)
    assert [one.body for one in said.moved] == ["wing"]
    watch = said.moved[0]
    assert not watch.rivals
    assert len(watch.read) == 2
    assert not said.outliers  # nothing is charged to the gauge
    known = {one.id for one in said.checks_on("wing") if one.verdict == "true"}
    assert "wing_incidence" not in known
    assert "wing_roll" not in known  # not read since
    assert headline(build.surveyed, said) == "The wing has moved since it was locked"
    step = stage_step(build.surveyed, said, "stab", "mm")
    assert (step.kind, step.body) == ("moved", "wing")
    assert "Leading edge up by" in step.why
    assert f"{watch.read[0]} and {watch.read[1]} fit nothing else" in step.why
    stage = next(one for one in rig_stages(said) if one.body == "wing")
    assert stage.state == "moved"
    assert stage.current
    assert "moved since it was locked on Mon 30 Nov 12:55" in stage_tip(build.surveyed, stage)


def test_one_reading_alone_asks_for_the_one_that_tells() -> None:
    build = with_readings(locked_build(), PUSHED, [incidence("port")], begin=60)
    said = judged(build)
    assert not said.moved
    found = in_question(said, "stab")
    assert found is not None
    watch, reading = found
    assert watch.body == "wing"
    assert isinstance(reading, Incidence)  # what a push in pitch would show in
    step = stage_step(build.surveyed, said, "stab", "mm")
    assert step.kind == "reading"
    assert "the wing has moved since it was locked" in step.why


def test_a_bad_reading_since_the_lock_is_bad_and_nothing_else() -> None:
    build = with_readings(locked_build(), PUSHED, [incidence("port")], begin=60)
    again = [incidence("port"), incidence("starboard"), incidence("port", 0.9)]
    build = with_readings(build, TRUE, again, begin=70)
    said = judged(build)
    assert not said.moved
    assert [one.reading for one in said.outliers] == [build.surveyed.readings[-4].id]
    assert rig_stages(said)[1].state == "locked"


def test_a_reading_from_before_that_alone_may_be_bad_instead_is_told() -> None:
    build = plain_build()
    listed = wanted(build.surveyed)
    yaw = [one for one in listed if one.kind == "distance-difference"]
    once = [one for one in listed if one not in yaw[1:]]  # one reading alone holds the yaw
    build = set_locked(with_readings(build, TRUE, once, 0), "wing", locked=True, now=at(55))
    swung = [
        one
        for one in candidates_of(build.surveyed)
        if one.kind == "distance-difference"
        and bodies_of(build.surveyed, one) == {"wing", FUSELAGE}
    ]
    turned = {**TRUE, "wing": {"yaw": 1.2}}
    said = judged(with_readings(build, turned, swung, begin=60))
    assert [one.body for one in said.moved] == ["wing"]
    rival = build.surveyed.readings[once.index(yaw[0])].id
    assert said.moved[0].rivals == (rival,)
    step = stage_step(said.net.survey, said, "stab", "mm")
    assert step.title == f"The wing has moved since it was locked, or {rival} was bad"
    assert (
        f"fit this, or {rival} being bad, and nothing else. Unlock it and true it again" in step.why
    )


def test_without_a_date_nothing_is_held_against_a_lock_and_a_date_without_one_is_refused() -> None:
    build = with_readings(
        locked_build(), PUSHED, [incidence("port"), incidence("starboard")], begin=60
    )
    old = judge_survey(build.surveyed.but(locked_at=None), "dry")
    assert not old.locks
    with pytest.raises(BadInput, match=r"locked_at\.stab"):
        judge_survey(build.surveyed.but(locked_at={"stab": at(0).isoformat()}), "dry")
    kept = build_from_text(text_of(build)).surveyed
    assert kept.locked_at == {"wing": "2026-11-30T12:55:00+00:00"}


def test_unlocking_what_moved_sets_aside_how_it_stood_and_it_can_be_locked_anew() -> None:
    build = with_readings(
        locked_build(), PUSHED, [incidence("port"), incidence("starboard")], begin=60
    )
    before = judged(build).moved[0].before
    free = set_locked(build, "wing", locked=False, now=at(70), before=before)
    assert free.surveyed.locked == ()
    assert free.surveyed.locked_at is None
    ignored = {one.id for one in free.surveyed.readings if one.ignored}
    assert ignored == set(before)
    again = judged(set_locked(free, "wing", locked=True, now=at(80)))
    assert not again.moved
    assert not again.outliers


def test_a_lock_in_another_zone_or_in_none_is_compared_all_the_same() -> None:
    assert is_since("2026-11-30T12:00:00+00:00", "2026-11-30T14:30:00+02:00")
    assert not is_since("2026-11-30T12:00:00+00:00", "2026-11-30T13:30:00+02:00")
    assert is_since("2026-11-30T12:00:00", "2026-11-30T12:30:00+02:00")
    assert not is_since("2026-11-30T12:00:00", None)


def test_each_stage_ends_with_one_reading_of_what_is_locked() -> None:
    build = locked_build()
    said = judged(build)
    seen = Seen(said.net, said.pool, said.solution, said.readings)
    asked = check_of_locked(seen, said.locks, last_stage=False)
    assert asked is not None
    assert "wing" in bodies_of(build.surveyed, asked)
    assert bodies_of(build.surveyed, asked) <= {"wing", FUSELAGE}
    build = with_readings(build, TRUE, [asked], begin=60)
    said = judged(build)
    seen = Seen(said.net, said.pool, said.solution, said.readings)
    assert check_of_locked(seen, said.locks, last_stage=False) is None
    more = check_of_locked(seen, said.locks, last_stage=True)
    assert more is not None  # a push the other ways would not have been seen
    for minutes in range(61, 75):
        if more is None:
            break
        build = with_readings(build, TRUE, [more], begin=minutes)
        said = judged(build)
        seen = Seen(said.net, said.pool, said.solution, said.readings)
        more = check_of_locked(seen, said.locks, last_stage=True)
    assert more is None
    locked_later = set_locked(build, "stab", locked=True, now=at(80))
    said = judged(locked_later)
    seen = Seen(said.net, said.pool, said.solution, said.readings)
    asked = check_of_locked(seen, said.locks, last_stage=False)
    assert asked is not None
    said_of = check_why(said.net.survey, said, asked)
    touched = bodies_of(build.surveyed, asked)
    for body, name in (("wing", "wing"), ("stab", "stabilizer")):
        assert (name in said_of) == (
            body in touched
        )  # nothing is asked of a lock it does not touch


def test_the_story_of_a_push_is_as_likely_as_the_normal_distribution_says() -> None:
    build = with_readings(
        locked_build(), PUSHED, [incidence("port"), incidence("starboard")], begin=60
    )
    survey, net = build.surveyed, judged(build).net
    readings = survey.figures
    solution = judge_survey(survey.but(locked_at=None), "dry").solution
    told = told_of(net, solution, readings, (), ())
    assert told is not None
    since = [one.id in {r.id for r in readings[-2:]} for one in readings]
    start = net.columns.start["wing"]
    by = np.where(np.array([*since, False])[:, None], told.linear.a[:, start : start + 6], 0.0)
    spread = np.diag([0.5, 0.4, 0.3, 0.6, 0.7, 0.8])
    _, score, causes, covariance = explained(told.linear, by, spread)
    # the readings as one draw: x ~ N(0, P), values J(x − x₀) + what is expected there, with noise
    values, slopes = net.observer(readings).predict(solution.unknowns, solution.placed)
    off = np.array([one.value for one in readings]) - values + slopes @ solution.unknowns
    noise = np.diag([sigma_of(one) ** 2 for one in readings])
    plain = slopes @ np.diag(1.0 / net.columns.prior_weight) @ slopes.T + noise
    pushed = np.where(np.array(since)[:, None], slopes[:, start : start + 6], 0.0)
    moved = plain + pushed @ spread @ pushed.T
    logs = [multivariate_normal.logpdf(off, np.zeros(len(off)), one) for one in (plain, moved)]
    assert score == pytest.approx(logs[1] - logs[0], abs=1e-4)
    gain = spread @ pushed.T @ np.linalg.inv(moved)
    assert causes == pytest.approx(gain @ off, abs=1e-5)
    assert covariance == pytest.approx(spread - gain @ pushed @ spread, abs=1e-6)


def pushes(survey: Survey, *, pushed: bool, count: int = 20) -> int:
    """How often it is named: read as asked for, locked, then checked as the end of the last stage is, all with noise."""
    listed, named = wanted(survey), 0
    for seed in range(count):
        rng = np.random.default_rng(seed)
        hidden = hidden_from(survey, TRUE)
        build = Build(name="push", survey=survey, phase="dry")
        for minute, one in enumerate(listed):
            read = one.but(value=hidden.measure(one, rng), phase="dry")
            build = take_reading(build, read, at(minute))
        build = set_locked(build, "wing", locked=True, now=at(100))
        if pushed:
            by = float(rng.uniform(0.5, 1.5) * rng.choice((-1, 1)))
            hidden = hidden_from(survey, {**TRUE, "wing": {("roll", "pitch", "yaw")[seed % 3]: by}})
        for minute in range(101, 110):
            said = judged(build)
            found = in_question(said, "wing")
            asked = found[1] if found is not None else ends_stage(said, "stab")
            if said.moved or asked is None:
                break
            read = asked.but(value=hidden.measure(asked, rng), phase="dry")
            build = take_reading(build, read, at(minute))
        named += [one.body for one in judged(build).moved] == ["wing"]
    return named


def test_a_push_is_named_nearly_always_and_none_is_never() -> None:
    plain = plain_survey()
    alone = plain.but(
        bodies=tuple(one for one in plain.bodies if one.id in (FUSELAGE, "wing", "stab")),
        marks=tuple(one for one in plain.marks if one.body in (FUSELAGE, "wing", "stab")),
    )
    count = draws(8, 20)
    assert pushes(alone, pushed=False, count=count) == 0
    assert pushes(alone, pushed=True, count=count) >= draws(7, 18)


def test_a_reading_from_before_the_lock_is_not_replaced_by_one_of_how_it_stands_now() -> None:
    build = locked_build()
    first = build.surveyed.figures[3]
    build = replace_reading(build, first.but(value=first.value + 3.0))
    for minutes in (60, 70):
        said = judged(build)
        assert first.id in {one.reading for one in said.outliers}
        found = in_question(said, "stab")
        assert found is not None
        assert found[1].id == first.id  # once more, beside it
        step = stage_step(build.surveyed, said, "stab", "mm")
        assert step.kind == "reading"  # not "again", which would set the first aside
        build = with_readings(build, TRUE, [first.but(id="new")], begin=minutes)
    said = judged(build)
    found = in_question(said, "stab")
    assert found is None or found[1].id != first.id
