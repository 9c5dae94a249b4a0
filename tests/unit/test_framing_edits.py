"""Edits of a frame: pure, checked, and followed by all that hangs on former names and lengths."""

from collections.abc import Callable
from itertools import pairwise
from typing import get_args

import numpy as np
import pytest

from hardkeel.airframe.framing import cut_off, pieces_cut
from hardkeel.airframe.parts import parts_of
from hardkeel.base.errors import BadInput
from hardkeel.demo.fleet import withy
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import framing as edits
from hardkeel.edits import fuselage as drawing
from hardkeel.fuselage.cut_list import cut_list_of
from hardkeel.fuselage.model import Fuselage, Member, MemberKind
from hardkeel.messages.rack import rack_text, read_rack
from hardkeel.project.model import Build
from hardkeel.storage.format import build_from_text, text_of

DEMO = demo_build()


def fuselage_of(build: Build) -> Fuselage:
    assert build.fuselage is not None
    return build.fuselage


def members(build: Build) -> dict[str, Member]:
    return {one.id: one for one in fuselage_of(build).framed.members}


@pytest.mark.parametrize("kind", sorted(get_args(MemberKind)))
def test_every_kind_can_be_added_saved_and_taken_out(kind: str) -> None:
    build = edits.add_member(DEMO, kind, "F2", "F4")  # type: ignore[arg-type]
    new = set(members(build)) - set(members(DEMO))
    assert len(new) == 1
    assert build_from_text(text_of(build).encode()) == build
    parts_of(build)
    assert members(edits.delete_member(build, new.pop())) == members(DEMO)


def test_names_of_new_members_are_free() -> None:
    build = DEMO
    for _ in range(3):
        build = edits.add_member(build, "keel", "F2", "F4")
    assert {"keel", "keel 2", "keel 3"} <= set(members(build))


def test_what_can_not_be_is_refused_and_nothing_has_changed() -> None:
    tried: tuple[Callable[[Build], Build], ...] = (
        edits.add_member.of("keel", "F4", "F2"),
        edits.add_member.of("keel", "F2", "F99"),
        edits.set_member.of("no such", thickness=2.0),
        edits.set_member.of("servo tray", thickness=None),
        edits.set_member.of("servo tray", thickness=-1.0),
        edits.set_former.of("F99", split=True),
        edits.set_framing.of(web=-1.0),
    )
    for edit in tried:
        with pytest.raises(BadInput):
            edit(DEMO)
    with pytest.raises(BadInput, match="no fuselage"):
        edits.frame_as_usual(Build())


def test_members_go_along_when_a_former_is_renamed() -> None:
    named = drawing.rename_former(DEMO, "F4", "bay")
    assert members(named)["doubler"].to == "bay"
    assert members(named)["servo tray"].from_ == "bay"
    assert drawing.rename_former(named, "bay", "F4") == DEMO


def test_members_go_on_to_the_neighbour_when_a_former_is_taken_out() -> None:
    gone = drawing.delete_former(DEMO, "F4")
    assert members(gone)["doubler"].to == "F5"
    assert members(gone)["servo tray"].from_ == "F3"
    # what stood between F1 and the former ahead of it went with it
    nose = drawing.delete_former(DEMO, "F1")
    assert "firewall key" not in members(nose)
    assert members(nose)["doubler"].from_ == "F2"


def test_what_was_said_of_a_guessed_doubler_stays_with_the_drawn_one() -> None:
    bare = DEMO.but(fuselage=fuselage_of(DEMO).but(framing=None))
    guessed = {part.id for part in parts_of(bare)}
    assert "doubler_F1_F4" in guessed
    said = bare.but(
        ledger=bare.listed.but(states={"doubler_F1_F4": "cut"}, weighed={"doubler_F1_F4": 20.5})
    )
    framed = edits.frame_as_usual(said)
    assert framed.listed.states["doubler"] == "cut"
    assert framed.listed.weighed["doubler"] == 20.5


def test_a_stick_is_cut_until_the_drawing_wants_another_length() -> None:
    build = withy()
    part = next(p for p in cut_list_of(fuselage_of(build)) if p.kind == "diagonal")
    cut = edits.note_cut(build, part.key, 2, part.length)
    assert pieces_cut(cut, part) == 2
    moved = drawing.set_station(cut, "F3", top=fuselage_of(cut).formers[2].top + 6)
    other = next(p for p in cut_list_of(fuselage_of(moved)) if p.key == part.key)
    assert abs(other.length - part.length) > 0.2
    assert pieces_cut(moved, other) == 0
    assert cut_off(moved, other) == pytest.approx(part.length)
    none = edits.note_cut(cut, part.key, 0, part.length)
    assert part.key not in none.listed.cut


def test_cut_sticks_are_remembered_by_their_stops() -> None:
    """A former more ahead of them gives every later upright another number, but it is the same stick."""
    build = withy()
    sticks = [p for p in cut_list_of(fuselage_of(build)) if p.kind in ("upright", "diagonal")]
    assert len({p.key for p in sticks}) == len(sticks)
    more = drawing.add_former(build, fuselage_of(build).formers[2].station + 30)
    before = {p.key: p for p in sticks if p.kind == "upright"}
    after = {p.key: p for p in cut_list_of(fuselage_of(more)) if p.kind == "upright"}
    assert before.keys() < after.keys()
    assert any(before[key].name != after[key].name for key in before)


@pytest.mark.parametrize("unit", ["mm", "in"])
def test_the_rack_is_read_as_it_is_written(unit: str) -> None:
    text = "2 of 5 x 5 x 610 balsa-medium; 1 of 6 x 3 x 900"
    rack = read_rack(text, "mm")
    assert [(one.pieces, one.section, one.length, one.material) for one in rack] == [
        (2, (5.0, 5.0), 610.0, "balsa-medium"), (1, (6.0, 3.0), 900.0, None)
    ]  # fmt: skip
    again = read_rack(rack_text(rack, unit), unit)  # type: ignore[arg-type]
    for one, other in zip(rack, again, strict=True):
        assert other.section == pytest.approx(one.section, abs=0.02)
        assert other.length == pytest.approx(one.length, abs=0.02)
    assert read_rack("", "mm") == ()
    assert read_rack('3 of 3/16" x 3/16" x 36in spruce', "mm")[0].section == pytest.approx(
        (4.7625,) * 2
    )


@pytest.mark.parametrize(
    "text", ["five strips", "2 of 5 x 610", "0 of 5 x 5 x 610", "2 of 0 x 5 x 610"]
)
def test_a_rack_that_is_not_understood_is_named(text: str) -> None:
    with pytest.raises(BadInput, match=text.split(maxsplit=1)[0]):
        read_rack(text, "mm")


def test_sticks_weigh_what_their_outlines_have() -> None:
    build = withy()
    part = next(one for one in parts_of(build) if one.kind == "sticks")
    rough = sum(
        p.quantity * p.length * p.section[0] * p.section[1]
        for p in cut_list_of(fuselage_of(build))
        if p.kind in ("upright", "diagonal")
    )
    assert 0.85 * rough < part.volume_mm3 < rough
    assert np.isfinite(part.volume_mm3)


def test_a_side_of_sticks_set_former_by_former_is_one_section() -> None:
    build = demo_build()
    assert build.fuselage is not None
    names = [name for name, _ in build.fuselage.stations]
    for first, second in pairwise(names[3:]):
        build = drawing.set_method(build, first, second, "stick-sides")
    sections = build.fuselage.sections if build.fuselage is not None else ()
    assert [(s.from_, s.to) for s in sections if s.method == "stick-sides"] == [
        (names[3], names[-1])
    ]
