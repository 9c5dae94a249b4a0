"""What is stored holds ids and figures; the words are made when it is shown, in today's unit."""

import json
from datetime import UTC, datetime
from pathlib import Path

import pytest

from hardkeel.airframe.figures import Figures, build_from
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import fuselage as drawing
from hardkeel.edits import truing as edits
from hardkeel.edits.surfaces import set_wing
from hardkeel.logbook.entries import Entry, SeatDone, VerdictChange, matching
from hardkeel.messages.advice import seat_advice
from hardkeel.messages.log import entry_text
from hardkeel.messages.names import mark_name
from hardkeel.project.model import Build
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.model import Survey
from hardkeel.survey.seat_step import SeatStep
from hardkeel.survey.seatwork import seat_work

NOW = datetime(2026, 11, 3, 19, 30, tzinfo=UTC)
PINS = 2  # for photos: the file is older than they
WORDED = Path(__file__).parents[1] / "golden" / "demo-build-with-words.json"


@pytest.fixture(scope="module")
def corrected() -> Build:
    """The demo with its stabilizer corrected, and a verdict that came of it."""
    build = demo_build()
    judged = judge_survey(build.surveyed, "dry")
    correction = next(c for c in judged.corrections if c.body == judged.culprit)
    steps = seat_work(judged, correction, "sanding").steps
    done = edits.correction_done(build, correction.body, "dry", steps, NOW)
    after = judge_survey(done.surveyed, "dry")
    was = {check.id: check.verdict for check in judged.checks}
    return edits.log_verdicts(done, was, after.checks, NOW)


def test_a_correction_tells_in_either_unit_what_the_seat_card_said_as_done(
    corrected: Build,
) -> None:
    judged = judge_survey(demo_build().surveyed, "dry")
    correction = next(c for c in judged.corrections if c.body == judged.culprit)
    entry = next(e for e in corrected.log if e.kind == "correction")
    assert entry.text == ""
    for unit in ("mm", "in"):
        card = seat_advice(demo_build().surveyed, judged, correction, "sanding", unit)
        told = entry_text(corrected.surveyed, entry, unit)
        deeds = [one.replace("Sand ", "Sanded ", 1) for one in card.do]  # as done, not as ordered
        assert told == f"{card.title}: {' '.join(deeds)}"
    assert entry_text(corrected.surveyed, entry, "mm") != entry_text(
        corrected.surveyed, entry, "in"
    )


def test_verdicts_are_kept_as_figures_and_told_in_the_unit_of_the_day() -> None:
    change = VerdictChange(
        check="stab_roll", kind="roll", body="stab", was="unsure", now="out", error=0.5, reach=2.3
    )
    entry = Entry(at=NOW.isoformat(), by="app", kind="verdict", verdict=change)
    survey = Survey()  # the body may be gone since
    assert entry_text(survey, entry, "mm") == (
        "Stabilizer level: not known yet, now out (starboard tip 2.3 mm high)"
    )
    assert entry_text(survey, entry, "in").endswith("(starboard tip 0.091″ high)")


def test_an_edit_logs_each_check_that_changed_and_no_other(corrected: Build) -> None:
    before = {c.id: c.verdict for c in judge_survey(demo_build().surveyed, "dry").checks}
    after = {c.id: c.verdict for c in judge_survey(corrected.surveyed, "dry").checks}
    logged = {e.verdict.check: (e.verdict.was, e.verdict.now) for e in corrected.log if e.verdict}
    assert logged
    assert logged == {
        check: (before[check], now) for check, now in after.items() if before[check] != now
    }


def test_no_sentence_of_ours_is_stored(corrected: Build) -> None:
    kept = json.loads(text_of(corrected))
    assert all("text" not in entry for entry in kept["log"] if entry["by"] == "app")
    assert build_from_text(text_of(corrected)) == corrected
    assert not any("label" in mark for mark in kept["survey"]["marks"])
    assert not any("label" in tool for tool in kept["survey"].get("instruments", ()))


@pytest.mark.parametrize(
    ("entry", "words"),
    [
        (Entry(at=NOW.isoformat(), by="app", kind="readings", count=1), "Took a reading"),
        (Entry(at=NOW.isoformat(), by="app", kind="readings", count=3), "Took 3 readings"),
        (Entry(at=NOW.isoformat(), by="app", kind="readings", count=2, text="Took 2 readings"),
         "Took 2 readings"),
        (Entry(at=NOW.isoformat(), by="app", kind="verdict", text="Wing level: true, now out"),
         "Wing level: true, now out"),
        (Entry(at=NOW.isoformat(), text="Sanded"), "Sanded"),
    ],
)  # fmt: skip
def test_entries_of_every_age_are_told(entry: Entry, words: str) -> None:
    assert entry_text(Survey(), entry, "mm") == words


def test_words_are_found_as_they_are_shown(corrected: Build) -> None:
    def told(entry: Entry) -> str:
        return entry_text(corrected.surveyed, entry, "mm")

    assert matching(corrected.log, "sand front stabilizer seat", told=told)[-1].kind == "correction"
    assert matching(corrected.log, "starboard aardvark", told=told) == []


@pytest.mark.parametrize(
    ("step", "words"),
    [
        (SeatStep(act="pack", contacts=("front_port", "front_starboard"), mm=0.4),
         "Put 0.4 mm under the port front and starboard front."),
        (SeatStep(act="slide", contacts=("rear",), aft=-1.5, starboard=0.5),
         "Slid the rear of the foot 1.5 mm forward, 0.5 mm to starboard."),
        (SeatStep(act="leave"), "Left it: what was left was finer than hands can do."),
    ],
)  # fmt: skip
def test_steps_at_a_seat_are_told(step: SeatStep, words: str) -> None:
    entry = Entry.model_validate(
        {
            "at": NOW.isoformat(),
            "by": "app",
            "kind": "correction",
            "seat": {"body": "fin", "steps": (step,)},
        }
    )
    assert entry_text(Survey(), entry, "mm") == f"Fin seat: {words}"


def test_a_file_with_our_words_in_it_becomes_one_without_and_says_the_same() -> None:
    old, new = build_from_text(WORDED.read_bytes()), demo_build()
    assert old.surveyed.marks == new.surveyed.marks[:-PINS]
    assert old.surveyed.bodies == new.surveyed.bodies
    assert old.surveyed.instruments == new.surveyed.instruments
    raw = json.loads(WORDED.read_bytes())
    shown = {mark["id"]: mark_name(old.surveyed, mark["id"]) for mark in raw["survey"]["marks"]}
    # LE and TE were written small then
    small = {key: name.replace("LE", "le").replace("TE", "te") for key, name in shown.items()}
    assert small == {mark["id"]: mark["label"] for mark in raw["survey"]["marks"]}
    texts = [entry_text(old.surveyed, entry, "mm") for entry in old.log]
    assert texts == [entry["text"] for entry in raw["log"]]


def test_a_file_with_our_words_in_it_still_follows_the_airframe() -> None:
    """Its seats and marks are ours, not the builder's: they move along with a figure."""
    old, new = build_from_text(WORDED.read_bytes()), demo_build()
    x = new.wings[0].le_x + 7.0
    moved, wanted = (set_wing(build, "wing", le_x=x).surveyed for build in (old, new))
    assert moved.bodies == wanted.bodies
    assert moved.marks == wanted.marks[:-PINS]
    assert moved.bodies != old.surveyed.bodies


def test_a_former_called_anew_is_called_so_where_a_mark_is_at_it() -> None:
    build = demo_build()
    mark = next(mark for mark in build.surveyed.marks if mark.former is not None)
    renamed = drawing.rename_former(build, mark.former or "", "Main")
    assert mark_name(renamed.surveyed, mark.id).startswith("Main upper longeron")


def test_a_name_that_the_builder_gave_stays() -> None:
    build = build_from(Figures())
    raw = json.loads(text_of(build))
    raw["survey"]["marks"][0]["label"] = "my pin"
    read = build_from_text(json.dumps(raw))
    assert mark_name(read.surveyed, raw["survey"]["marks"][0]["id"]) == "my pin"


def test_a_seat_that_was_sanded_while_the_page_stood_at_wet_stays_sanded() -> None:
    """A file from before has such entries: nobody moved anything back then."""
    step = SeatStep(act="sand", contacts=("stab_front_port",), mm=0.4)
    sanded, brought = (
        Entry(
            at="2026-10-04T20:00:00+00:00",
            by="app",
            kind="correction",
            phase="wet",
            seat=SeatDone(body="stab", steps=steps),
        )
        for steps in ((step,), ())
    )
    survey = demo_build().surveyed
    assert "Sanded 0.4 mm" in entry_text(survey, sanded, "mm")
    assert entry_text(survey, brought, "mm") == "Stabilizer moved back while the glue was wet"
