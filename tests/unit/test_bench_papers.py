"""The calendar read back by the RFC's own rules, and the diary as text."""

import io
from datetime import UTC, datetime

from PIL import Image
from pypdf import PdfReader

from hardkeel.airframe.orders.at_hand import steps_at_hand
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.bench import start_timer
from hardkeel.edits.glue import break_coupon, new_batch
from hardkeel.edits.steps import begin, lay_all, tick
from hardkeel.edits.truing import add_note
from hardkeel.export.calendar import calendar_text
from hardkeel.export.diary import DayByDay, diary_pdf
from hardkeel.export.record import record_pdf
from hardkeel.messages.deeds import seat_deed
from hardkeel.messages.steps import title_of
from hardkeel.project.model import Build
from hardkeel.schedule.planning import list_evenings
from hardkeel.schedule.tonight import plan_tonight
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.seat_step import SeatStep

NOW = datetime(2026, 10, 6, 19, tzinfo=UTC)
SEVEN = datetime.fromisoformat("2026-10-06T19:00")


def text_of(pdf: bytes) -> str:
    pages = PdfReader(io.BytesIO(pdf)).pages
    return " ".join(" ".join(page.extract_text() for page in pages).split())


def unfolded(text: str) -> list[str]:
    for line in text.split("\r\n"):
        assert len(line.encode()) <= 75
    return text.replace("\r\n ", "").split("\r\n")


def events(text: str) -> list[dict[str, str]]:
    """Names and values of each event, unescaped; a second reading of the RFC."""
    found: list[dict[str, str]] = []
    for line in unfolded(text):
        name, _, value = line.partition(":")
        if line == "BEGIN:VEVENT":
            found.append({})
        elif found and name not in ("BEGIN", "END"):
            out, at = "", 0
            while at < len(value):
                if value[at] == "\\":
                    out += {"n": "\n"}.get(value[at + 1], value[at + 1])
                    at += 2
                else:
                    out, at = out + value[at], at + 1
            found[-1].setdefault(name, out)
    return found


def test_the_calendar_holds_every_evening_with_its_steps_and_what_runs() -> None:
    build = start_timer(demo_build(), "own", "Epoxy, slow; on the tail", 90, NOW)
    plan = plan_tonight(steps_at_hand(build), build.bench, SEVEN, 120, 1.0).plan
    assert build.bench is not None
    text = calendar_text(build, plan, build.bench.timers, NOW)
    assert text.startswith("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:")
    assert text.endswith("END:VCALENDAR\r\n")
    found = events(text)
    assert len(found) == plan.evenings_used + 1
    assert len({one["UID"] for one in found}) == len(found)
    first = found[0]
    tonight = [one for one in plan.steps if one.evening == 0]
    assert first["DTSTART"] == f"{min(one.start for one in tonight):%Y%m%dT%H%M%S}"
    assert first["SUMMARY"] == f"Kettlewick 1280: {len(tonight)} steps"
    assert [line[6:] for line in first["DESCRIPTION"].split("\n")] == [
        title_of(one.step) for one in tonight
    ]
    timer = found[-1]
    assert timer["SUMMARY"] == "Epoxy, slow; on the tail: is up"
    assert timer["DTSTART"] == "20261006T203000Z"
    assert timer["TRIGGER"] in ("PT0S", "P0D")  # at once


def test_letters_of_more_than_one_octet_are_never_cut() -> None:
    build = Build(name="Ä" * 90)
    plan = plan_tonight(steps_at_hand(demo_build()), None, SEVEN, 120, 0.5).plan
    assert events(calendar_text(build, plan, (), NOW))[0]["SUMMARY"].startswith("Ä" * 90)


def test_the_diary_tells_days_hours_weights_readings_and_coupons() -> None:
    build = demo_build()
    build = lay_all(build, steps_at_hand(build))
    build = new_batch(build, "slow epoxy", NOW, 48.0, 19.0)
    build = tick(begin(build, "plates", NOW), "plates", datetime(2026, 10, 6, 19, 35, tzinfo=UTC))
    build = break_coupon(build, "batch 1", "joint", datetime(2026, 10, 9, 20, 0, tzinfo=UTC))
    text = text_of(diary_pdf(build, DayByDay(build, "mm")))
    assert "14.6 h at the bench so far" in text  # 14 of them typed, 35 minutes timed
    assert "Tue 6 Oct 2026, 0.6 h" in text
    assert "Done: glue undercarriage plate" in text
    assert "tray and dowel plate (35 min)" in text
    assert "Mixed slow epoxy, 48 to 100, at 19 °C" in text
    assert "Fri 9 Oct 2026" in text
    assert "Broke a coupon of slow epoxy, 73 h old: the joint let go" in text
    assert "Weights against the estimate" in text
    assert "the joint let go" in text
    assert "Glued with it: Glue undercarriage plate" in text
    assert "Before and after the glue" in text
    assert (
        "Stabilizer level 1.03° not known" in text
    )  # nothing of it was read while the glue was wet
    assert diary_pdf(build, DayByDay(build, "mm")) == diary_pdf(build, DayByDay(build, "mm"))


def test_a_photo_under_two_notes_is_pasted_in_once_and_what_has_no_letter_is_told() -> None:
    png = io.BytesIO()
    Image.new("RGB", (40, 30), (90, 80, 70)).save(png, "PNG")
    build = add_note(Build(name="Wren 木"), "frame 😀 up", NOW, ("photos/a.png",))
    build = add_note(build, "the same", NOW, ("photos/a.png",))
    data = diary_pdf(build, DayByDay(build, "mm"), {"photos/a.png": png.getvalue()})
    assert sum(len(page.images) for page in PdfReader(io.BytesIO(data)).pages) == 1
    text = text_of(data)
    assert "frame ? up" in text
    assert "2 characters could not be printed and stand as “?”" in text
    assert "grinning face" in text
    assert "could not be printed" not in text_of(
        diary_pdf(Build(name="Wren"), DayByDay(Build(name="Wren"), "mm"))
    )


def test_the_log_tells_deeds_not_orders() -> None:
    survey = demo_build().surveyed
    steps = (
        SeatStep(act="sand", contacts=("te_port",), mm=0.4),
        SeatStep(act="pack", contacts=("le_port",), mm=0.8),
        SeatStep(act="slide", contacts=("le_port",), aft=0.5),
        SeatStep(act="strut", contacts=("le_port",), up=0.4),
        SeatStep(act="edge", contacts=("le_port",), up=0.3, starboard=0.2, count=3),
        SeatStep(act="hole", contacts=("le_port",), up=0.3, count=3),
        SeatStep(act="washers", contacts=("le_port",), count=-1, mm=0.5),
        SeatStep(act="untwist"),
        SeatStep(act="leave"),
        SeatStep(act="again", mm=9.0),
        SeatStep(act="hold", contacts=("te_port",)),
    )
    told = [seat_deed(survey, "stab", one, "mm") for one in steps]
    assert told[0].startswith("Sanded 0.4 mm off the ")
    assert [one.split()[0] for one in told] == [
        "Sanded", "Put", "Slid", "Made", "Opened", "Opened", "Took", "Took", "Left", "Measured", "Held",
    ]  # fmt: skip
    assert "; opened its end" in told[4]
    assert "packed the lower edge" in told[4]
    assert "; filled it behind" in told[5]


def test_a_diary_of_nothing_is_still_a_diary() -> None:
    assert diary_pdf(Build(), DayByDay(Build(), "mm")).startswith(b"%PDF")


def test_the_record_tells_what_is_left_on_evenings_that_are_still_to_come() -> None:
    build = demo_build()
    laid = lay_all(build, steps_at_hand(build))
    judged = judge_survey(laid.surveyed, "dry")
    text = text_of(record_pdf(laid, judged, "mm"))
    assert "Left to do" in text
    assert "h of hands to go" in text
    last = max(entry.at for entry in build.log)[:10]
    plan = list_evenings(laid.steps, laid.bench)
    assert plan.finish is not None
    assert not plan.proven
    later = [one for one in plan.steps if one.start.date().isoformat() > last]
    assert later
    assert title_of(later[0].step).split()[0] in text
    assert record_pdf(laid, judged, "mm") == record_pdf(laid, judged, "mm")
    assert "Left to do" not in text_of(record_pdf(build.but(steps=()), judged, "mm"))
