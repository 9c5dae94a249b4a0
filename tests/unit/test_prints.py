"""Prints: what lies on the bench stays right as long as its page shows the same, and what has changed is told."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hardkeel.demo.fleet import withy
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.fuselage import set_station
from hardkeel.edits.prints import forget_print, note_print
from hardkeel.edits.tail import set_figures
from hardkeel.export.paper import Page
from hardkeel.export.print_set import PrintSheet, print_sheets
from hardkeel.messages.prints import changed_words, made_up, which_pages
from hardkeel.paper.prints import Printed, changed_between, noted, standing_of
from hardkeel.project.model import Build
from hardkeel.storage.format import build_from_text, text_of

AT = "2026-10-06T18:50"


def sheets(build: Build, page: Page | None = None) -> dict[str, PrintSheet]:
    return {one.key: one for one in print_sheets(build, "mm", page or Page("A4"))}


def printed(sheet: PrintSheet, paper: str = "A4") -> Printed:
    return Printed(sheet=sheet.key, paper=paper, at=AT, pages=sheet.marks, figures=sheet.figures)


@pytest.fixture(scope="module")
def before() -> dict[str, PrintSheet]:
    return sheets(withy())


def moved(stop: str, by: float) -> Build:
    build = withy()
    assert build.fuselage is not None
    former = build.fuselage.former(stop)
    assert former is not None
    return set_station(build, stop, station=former.station + by)


def test_what_was_printed_is_right_until_something_changes(before: dict[str, PrintSheet]) -> None:
    again = sheets(withy())
    assert list(again) == list(before)
    for key, sheet in before.items():
        standing = standing_of(printed(sheet), "A4", again[key].marks, again[key].figures)
        assert standing.is_right, key
        assert not standing.changed


def test_a_station_that_moves_leaves_the_far_pages_and_the_tail_as_they_were(
    before: dict[str, PrintSheet],
) -> None:
    after = sheets(moved("F4", 2.0))
    side = standing_of(printed(before["side"]), "A4", after["side"].marks, after["side"].figures)
    assert 0 < len(side.stale) < side.pages
    assert "station F4" in side.changed
    told = changed_words(side.changed, "mm")
    assert told.startswith("F4 went 2.0 mm aft; ")
    assert "diagonal" in told
    for key in ("stab", "fin", "tail-sticks"):
        assert after[key].marks == before[key].marks


def test_a_larger_tail_leaves_the_fuselage_alone(before: dict[str, PrintSheet]) -> None:
    build = withy()
    stab = build.tail[0]
    after = sheets(set_figures(build, stab.id, span=(stab.span or 0.0) + 6))
    assert after["side"].marks == before["side"].marks
    assert after[stab.id].marks != before[stab.id].marks


def test_other_paper_or_another_printer_is_another_print(before: dict[str, PrintSheet]) -> None:
    side = before["side"]
    assert standing_of(printed(side), "A3", side.marks, side.figures).printed is None
    off = sheets(withy(), Page("A4", (1.004, 1.0)))["side"]
    assert not set(off.marks) & set(side.marks)


def test_pages_printed_one_by_one_come_right_one_by_one(before: dict[str, PrintSheet]) -> None:
    side = before["side"]
    count = len(side.marks)
    assert count > 2
    old = printed(side).but(
        pages=tuple(f"old {i}" for i in range(count)), figures={"station F4": 1.0}
    )
    build = note_print(withy().but(prints=(old,)), printed(side), (2,))
    (lies,) = build.prints
    standing = standing_of(lies, "A4", side.marks, side.figures)
    assert standing.stale == tuple(n for n in range(1, count + 1) if n != 2)
    assert "station F4" in standing.changed, (
        "what is told is still what changed since the whole print"
    )
    build = note_print(build, printed(side), standing.stale)
    (lies,) = build.prints
    assert lies.count == 3
    assert standing_of(lies, "A4", side.marks, side.figures).is_right
    assert not standing_of(lies, "A4", side.marks, side.figures).changed
    assert forget_print(build, "side").prints == ()


def test_prints_are_kept_in_the_file(before: dict[str, PrintSheet]) -> None:
    build = note_print(withy(), printed(before["side"]), (1,))
    back = build_from_text(text_of(build))
    assert back.prints == build.prints


def test_every_sheet_numbers_its_pages_through() -> None:
    for page in (Page("A4"), Page("A3"), Page("roll 610")):
        for sheet in sheets(demo_build(), page).values():
            assert [one.number for one in sheet.pages] == list(range(1, len(sheet.pages) + 1))
            assert {one.of for one in sheet.pages} == {len(sheet.pages)}


def test_a_roll_takes_no_more_pages_than_sheets(before: dict[str, PrintSheet]) -> None:
    rolled = sheets(withy(), Page("roll 610"))
    assert all(len(rolled[key].pages) <= len(sheet.pages) for key, sheet in before.items())
    assert len(rolled["side"].pages) == 1
    laid = rolled["side"].pages[0]
    tall = Page("roll 610").tall_for(laid.drawn)
    assert laid.drawn.size[1] < tall < laid.drawn.size[1] + 100


@given(
    st.dictionaries(st.sampled_from("abcdef"), st.floats(-9, 9)),
    st.dictionaries(st.sampled_from("abcdef"), st.floats(-9, 9)),
)
def test_what_has_changed_is_what_differs(one: dict[str, float], other: dict[str, float]) -> None:
    found = changed_between(one, other)
    for name in {*one, *other}:
        differs = name not in one or name not in other or abs(one[name] - other[name]) > 0.05
        assert (name in found) == differs
    assert changed_between(one, one) == {}


@given(st.sets(st.integers(1, 9)), st.integers(1, 9))
def test_noting_pages_touches_no_other(numbers: set[int], count: int) -> None:
    was = Printed(sheet="s", paper="A4", at=AT, pages=tuple(f"was {i}" for i in range(count)))
    now = was.but(pages=tuple(f"now {i}" for i in range(count)))
    made = noted(was, now, numbers)
    for i, page in enumerate(made.pages):
        assert page == (f"now {i}" if i + 1 in numbers else f"was {i}")


def test_words() -> None:
    assert which_pages((2,), 9) == "page 2"
    assert which_pages((2, 4, 5, 7), 9) == "pages 2, 4, 5 and 7"
    assert which_pages((1, 2), 2) == "all 2 pages"
    assert which_pages((1,), 1) == "the page"
    assert made_up(1.0, 1.0) == "true both ways"
    assert made_up(1.002, 1.0) == "0.2 % long across: made up for"
    assert made_up(1.002, 0.997) == "0.2 % long across and 0.3 % short up the page: made up for"
    moved_words = changed_words({"station F5": (100.0, 98.0), "width at F5": (30.0, 31.0)}, "mm")
    assert moved_words == "F5 went 2.0 mm forward; width at F5 has another length."
