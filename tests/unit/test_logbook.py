from datetime import UTC, datetime, timedelta

import pytest
from pydantic import ValidationError

from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.truing import delete_reading, take_reading
from hardkeel.logbook.entries import (
    Entry,
    Session,
    add_time,
    count_reading,
    local_day,
    matching,
    total_hours,
)
from hardkeel.messages.log import entry_text
from hardkeel.survey.readings import Distance

START = datetime(2026, 10, 5, 20, 0, tzinfo=UTC)


def test_readings_of_one_sitting_share_an_entry() -> None:
    log: tuple[Entry, ...] = ()
    for minute in (0, 2, 4):
        log = count_reading(log, START + timedelta(minutes=minute), "dry")
    assert [(e.kind, e.count) for e in log] == [("readings", 3)]
    log = count_reading(log, START + timedelta(minutes=5), "wet")
    log = count_reading(log, START + timedelta(hours=3), "wet")
    assert [e.count for e in log] == [3, 1, 1]


def test_the_log_keeps_what_was_read_whatever_becomes_of_it() -> None:
    build = demo_build()
    for value in (955.0, 954.5):
        reading = Distance(id="x", from_="nose_pin", to="stab_tip_te_starboard", value=value)
        build = take_reading(build, reading, START)
    told = entry_text(build.surveyed, build.log[-1], "mm")
    assert told == "Took 2 readings: r42 955.0 mm, r43 954.5 mm"
    gone = delete_reading(build, build.surveyed.readings[-1].id)
    assert entry_text(gone.surveyed, gone.log[-1], "mm") == told
    assert "37.579″" in entry_text(build.surveyed, build.log[-1], "in")
    long = demo_build()
    shown = entry_text(long.surveyed, long.log[-2], "mm")
    assert shown.startswith("Took 34 readings: r1 −0.25°, ")
    assert ", …, " in shown
    assert shown.count(",") < 12


def test_time_is_added_to_its_day_in_order() -> None:
    sessions = add_time((), "2026-10-05", 1.5, "tail")
    sessions = add_time(sessions, "2026-10-04", 2.0)
    sessions = add_time(sessions, "2026-10-05", 0.5)
    assert [(s.day, s.hours, s.note) for s in sessions] == [
        ("2026-10-04", 2.0, None),
        ("2026-10-05", 2.0, "tail"),
    ]
    assert total_hours(sessions) == 4.0
    assert add_time(sessions, "2026-10-05", 23)[1].hours == 24.0


def test_filters_hold_together() -> None:
    log = (
        Entry(at=START.isoformat(), text="Sanded the tail seat"),
        Entry(at=START.isoformat(), text="Tail dried", kind="change"),
        Entry(at=START.isoformat(), by="app", kind="verdict", text="Wing level: true", phase="dry"),
    )
    assert len(matching(log, "")) == 3
    assert [e.text for e in matching(log, "TAIL seat")] == ["Sanded the tail seat"]
    assert [e.kind for e in matching(log, "", frozenset({"verdict"}))] == ["verdict"]
    assert [e.kind for e in matching(log, "dry")] == ["verdict"]
    assert matching(log, "spinner") == []


def test_bad_days_and_hours_are_refused() -> None:
    for day, hours in (("yesterday", 1.0), ("2026-10-05", 0.0), ("2026-10-05", 25.0)):
        with pytest.raises(ValidationError):
            Session(day=day, hours=hours)
    with pytest.raises(ValidationError):
        Entry(at="now", text="x")


def test_hours_and_days_of_moments() -> None:
    assert local_day(START) == "2026-10-05"
