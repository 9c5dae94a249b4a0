"""Evenings have single dates: a holiday is no evening, a free Saturday is one, and neither makes a week."""

from datetime import date, datetime

import pytest
from pydantic import ValidationError

from hardkeel.base.errors import BadInput
from hardkeel.edits.bench import set_day, set_evenings, take_otherwise
from hardkeel.project.model import Build
from hardkeel.schedule.evenings import dated, evenings_of, upcoming, week_of
from hardkeel.schedule.model import BenchTime, Evening
from hardkeel.schedule.what_if import Otherwise
from hardkeel.storage.format import build_from_text, text_of

NOW = datetime(2026, 12, 1, 18, 0)  # noqa: DTZ001  local: a Tuesday
WEEK = ((1, "19:00", 120), (3, "19:00", 120))
HOLIDAY, FREE = date(2026, 12, 3), date(2026, 12, 5)


def on(start: str, minutes: int = 240) -> Evening:
    return Evening(start=start, minutes=minutes)


def weekly() -> Build:
    made = [one for one, _ in zip(evenings_of(WEEK, NOW), range(6), strict=False)]
    return set_evenings(Build(name="dates"), made)


def starts(build: Build, count: int) -> list[str]:
    return [one.start for one in upcoming(build.bench, NOW, count)]


def test_a_holiday_is_left_out_and_a_free_saturday_is_put_in_and_the_week_goes_on() -> None:
    build = set_day(weekly(), HOLIDAY, (), NOW)
    build = set_day(build, FREE, (on("2026-12-05T10:00"),), NOW)
    assert starts(build, 4) == [
        "2026-12-01T19:00",
        "2026-12-05T10:00",
        "2026-12-08T19:00",
        "2026-12-10T19:00",
    ]
    assert week_of(build.bench) == WEEK
    # past what is written down the dates still count
    late = set_day(build, date(2026, 12, 24), (), NOW)
    assert "2026-12-24T19:00" in starts(build, 12)
    assert "2026-12-24T19:00" not in starts(late, 12)
    assert starts(late, 40)[-1] > "2027-03"
    assert build_from_text(text_of(late)).bench == late.bench


def test_a_date_that_is_as_any_other_again_is_forgotten() -> None:
    build = set_day(weekly(), HOLIDAY, (), NOW)
    assert starts(set_day(build, HOLIDAY, None, NOW), 6) == starts(weekly(), 6)


def test_an_evening_more_is_one_date_and_not_one_in_every_week() -> None:
    more = take_otherwise(weekly(), Otherwise("evening", "", FREE), (), NOW, 120)
    assert "2026-12-05T18:00" in starts(more, 5)
    assert "2026-12-12T18:00" not in starts(more, 20)
    assert week_of(more.bench) == WEEK
    # beside one that is there already
    again = take_otherwise(more, Otherwise("evening", "", date(2026, 12, 5)), (), NOW, 60)
    assert again.bench is not None
    assert len(again.bench.days["2026-12-05"]) == 1  # it would lie in the one that is there


def test_a_diary_without_a_week_gets_the_usual_one_with_its_first_date() -> None:
    build = set_day(Build(name="dates"), FREE, (on("2026-12-05T14:00"),), NOW)
    assert build.bench is not None
    held = dated(build.bench).evenings
    assert [one.start for one in held[:3]] == [
        "2026-12-01T19:00",
        "2026-12-03T19:00",
        "2026-12-05T14:00",  # instead of the morning of any Saturday
    ]


def test_what_is_no_date_or_lies_in_another_is_refused() -> None:
    with pytest.raises(ValidationError, match="is not on"):
        BenchTime(days={"2026-12-05": (on("2026-12-06T10:00"),)})
    with pytest.raises(ValidationError, match="Invalid isoformat"):
        BenchTime(days={"Saturday": ()})
    two = (on("2026-12-05T10:00"), on("2026-12-05T11:00"))
    with pytest.raises(BadInput, match="before the evening before it is over"):
        set_day(weekly(), FREE, two, NOW)
