"""Timers: across midnight, a changed clock and a night that is an hour longer; what a tick starts and a plan makes of it."""

from datetime import datetime, timedelta
from zoneinfo import ZoneInfo

import pytest
from pydantic import ValidationError

from hardkeel.base.errors import BadInput
from hardkeel.edits.bench import set_evenings, set_resource, start_timer, stop_timer, told_timers
from hardkeel.edits.steps import begin, tick, untick
from hardkeel.logbook.entries import StepDone
from hardkeel.messages.bench import countdown
from hardkeel.project.model import Build
from hardkeel.schedule.evenings import evenings_of, upcoming, with_tonight
from hardkeel.schedule.model import BenchTime, Evening, Step, Timer, local_time
from hardkeel.schedule.timers import gone_off, running, timer, underway
from hardkeel.storage.format import build_from_text, text_of

HOME = ZoneInfo("Europe/London")


def at(text: str) -> datetime:
    return datetime.fromisoformat(text).replace(tzinfo=HOME)


GLUE = Step(
    id="glue",
    title="Glue it",
    hands_minutes=20.0,
    handle_minutes=20.0,
    cure_minutes=720.0,
    glue="aliphatic",
)


def test_a_tick_starts_what_the_glue_wants_and_an_untick_stops_it() -> None:
    build = Build(steps=(GLUE, Step(id="cut", title="Cut")))
    done = tick(build, "glue", at("2026-10-02T21:50"))
    assert done.bench is not None
    assert [(one.kind, one.over) for one in done.bench.timers] == [
        ("handle", at("2026-10-02T22:10")),
        ("cure", at("2026-10-03T09:50")),
    ]
    assert tick(build, "cut", at("2026-10-02T21:50")).bench is None
    again = untick(done, "glue").bench
    assert again is not None
    assert again.timers == ()
    assert build_from_text(text_of(done)) == done


def test_the_log_says_how_long_it_took_but_not_a_night() -> None:
    build = begin(Build(steps=(GLUE,)), "glue", at("2026-10-02T19:00"))
    assert build.steps[0].state == "doing"
    assert tick(build, "glue", at("2026-10-02T19:23")).log[-1].step == StepDone(
        title="Glue it", minutes=23.0
    )
    assert tick(build, "glue", at("2026-10-03T19:23")).log[-1].step == StepDone(title="Glue it")


def test_twelve_hours_are_twelve_hours_in_the_night_that_has_thirteen() -> None:
    # clocks go back at two in the night to the 25th of October
    made = timer("a", "cure", at("2026-10-24T20:00"), 12 * 60)
    assert made.over == at("2026-10-25T07:00")
    assert made.left(at("2026-10-25T01:00")) == timedelta(hours=7)
    assert made.left(at("2026-10-24T20:00")) == timedelta(hours=12)


def test_three_timers_survive_closing_and_tell_what_went_off_when() -> None:
    build = Build()
    for minutes, name in ((5, "pot"), (20, "handle"), (720, "cure")):
        build = start_timer(build, "own", name, minutes, at("2026-10-02T23:50"))
    again = build_from_text(text_of(build))
    assert again == build
    assert again.bench is not None
    later = at("2026-10-03T00:50")
    assert [one.title for one in gone_off(again.bench.timers, later)] == ["pot", "handle"]
    assert [one.title for one in running(again.bench.timers, later)] == ["cure"]
    told = told_timers(again, later)
    assert told.bench is not None
    assert gone_off(told.bench.timers, later) == ()
    assert told_timers(told, later) == told
    struck = stop_timer(told, running(told.bench.timers, later)[0].id)
    assert struck.bench is not None
    assert running(struck.bench.timers, later) == ()


def test_a_clock_that_is_set_back_lets_a_timer_wait_and_one_set_forward_lets_it_go_off() -> None:
    made = timer("a", "own", at("2026-10-02T20:00"), 30)
    assert running([made], at("2026-10-02T19:00")) == (made,)
    assert gone_off([made], at("2026-10-02T20:30")) == (made,)


def test_what_no_timer_can_be_is_refused() -> None:
    with pytest.raises(BadInput):
        start_timer(Build(), "own", "x", 0, at("2026-10-02T20:00"))
    with pytest.raises(BadInput):
        start_timer(Build(), "own", "x", 1e6, at("2026-10-02T20:00"))
    with pytest.raises(ValidationError, match="zone"):
        Timer(id="a", started="2026-10-02T20:00", ends="2026-10-02T21:00")


def test_a_wall_clock_time_is_taken_for_the_walls() -> None:
    made = timer("a", "own", datetime.fromisoformat("2026-10-02T20:00"), 30)
    assert local_time(made.ends) == datetime.fromisoformat("2026-10-02T20:30")


def test_what_may_still_cure_is_under_way_for_a_plan() -> None:
    build = tick(Build(steps=(GLUE, Step(id="cut", state="done"))), "glue", at("2026-10-02T20:00"))
    assert build.bench is not None
    plan = underway(build.steps, build.bench.timers)
    assert (plan[0].state, plan[1].state) == ("doing", "done")
    assert datetime.fromisoformat(plan[0].started or "") == at("2026-10-02T19:40")


@pytest.mark.parametrize(
    ("seconds", "words"),
    [
        (1225, "21 min"),
        (580, "9 min 40 s"),
        (59, "59 s"),
        (-5, "0 s"),
        (7500, "2 h 05"),
        (97200, "1 day 3 h"),
        (180000, "2 days 2 h"),
    ],
)
def test_how_long_there_is(seconds: int, words: str) -> None:
    assert countdown(timedelta(seconds=seconds)) == words


# -- evenings -------------------------------------------------------------------------------------------


def wall(text: str) -> datetime:
    return datetime.fromisoformat(text)


def test_past_evenings_are_past_and_the_week_goes_on() -> None:
    bench = BenchTime(
        evenings=(
            Evening(start="2026-10-02T19:00", minutes=120),  # a Friday
            Evening(start="2026-10-04T10:00", minutes=180),
        )
    )
    coming = upcoming(bench, wall("2026-10-03T12:00"), 4)
    assert [one.start for one in coming] == [
        "2026-10-04T10:00", "2026-10-09T19:00", "2026-10-11T10:00", "2026-10-16T19:00",
    ]  # fmt: skip
    begun = upcoming(bench, wall("2026-10-02T20:15"), 1)[0]
    assert (begun.start, begun.minutes) == ("2026-10-02T20:15", 45)


def test_without_a_diary_there_is_a_usual_week() -> None:
    days = {wall(one.start).weekday() for one in upcoming(None, wall("2026-10-03T12:00"), 9)}
    assert days == {1, 3, 5}
    assert list(evenings_of((), wall("2026-10-03T12:00"))) == []


def test_tonight_comes_before_what_begins_once_it_is_over() -> None:
    others = upcoming(None, wall("2026-10-06T18:00"), 3)
    mine = with_tonight(others, wall("2026-10-06T18:30"), 90)
    assert (mine[0].start, mine[0].minutes) == ("2026-10-06T18:30", 90)
    assert mine[1].start == "2026-10-08T19:00"


def test_evenings_and_things_are_edits_that_refuse_nonsense() -> None:
    build = set_resource(Build(), "board", 2)
    assert build.bench is not None
    assert build.bench.resources == {"board": 2}
    with pytest.raises(BadInput):
        set_resource(build, "board", -1)
    with pytest.raises(BadInput, match="begins before"):
        set_evenings(
            build,
            [
                Evening(start="2026-10-02T19:00", minutes=120),
                Evening(start="2026-10-02T20:00", minutes=60),
            ],
        )
