"""Where a surface is held: said, clicked, confirmed; and nothing is advised from a guess."""

import numpy as np
import pytest

from hardkeel.airframe.bodies import held_at, laid_of
from hardkeel.airframe.figures import Figures, build_from
from hardkeel.base.errors import BadInput
from hardkeel.edits.fuselage import set_station
from hardkeel.edits.seats import set_laid, set_seat_kind
from hardkeel.edits.surfaces import set_wing
from hardkeel.messages.advice import seat_advice
from hardkeel.project.model import Build
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.model import Contact, Seat
from tests.rigged import read_all


def seat_of(build: Build, body: str = "wing") -> Seat:
    found = build.surveyed.body(body)
    assert found is not None
    assert found.seat is not None
    return found.seat


def told(build: Build) -> tuple[str, ...]:
    judged = judge_survey(build.surveyed, "dry")
    mine = next(one for one in judged.corrections if one.body == "wing")
    return seat_advice(build.surveyed, judged, mine, "shims", "mm").do


def pitched(build: Build) -> Build:
    poses = {"wing": {"pitch": 1.5}, "bench": {"z": 60.0}}
    return build.but(survey=read_all(build.surveyed, poses, np.random.default_rng(3), times=3))


@pytest.mark.parametrize("kind", ["bolts", "tube", "cabane"])
def test_a_seat_whose_lever_is_a_guess_advises_nothing_until_it_is_said(kind: str) -> None:
    build = set_seat_kind(pitched(build_from(Figures())), "wing", kind)  # type: ignore[arg-type]
    assert told(build) == ("Say below where it is held: what to do hangs on that.",)
    said = told(set_laid(build, "wing"))
    assert "it is held" not in " ".join(said)
    assert "mm" in said[0]


def test_the_nearer_the_holds_the_less_is_put_under() -> None:
    build = set_seat_kind(pitched(build_from(Figures())), "wing", "bolts")
    lifts = {}
    for rear in (0.9, 0.45):
        laid = set_laid(build, "wing", front=0.0, rear=rear)
        judged = judge_survey(laid.surveyed, "dry")
        mine = next(one for one in judged.corrections if one.body == "wing")
        up = {move.contact: move.lift for move in mine.moves}
        lifts[rear] = up["rear_port"] - up["front_port"]
    # a degree and a half over the distance between the holds
    assert lifts[0.9] == pytest.approx(np.radians(1.5) * 0.9 * 200, abs=0.8)
    assert lifts[0.45] == pytest.approx(lifts[0.9] / 2, rel=0.02)


def test_a_click_from_above_tells_front_or_rear_and_how_far_out() -> None:
    build = build_from(Figures(wing_root=200.0, wing_tip=200.0))
    le_x = build.wings[0].le_x
    near = held_at(build, "wing", (le_x + 20.0, -30.0, 0.0), from_above=True)
    assert near == {"out": 30.0, "front": pytest.approx(0.1, abs=0.001)}
    far = held_at(build, "wing", (le_x + 170.0, 30.0, 0.0), from_above=True)
    assert far == {"out": 30.0, "rear": pytest.approx(0.85, abs=0.001)}
    foot = held_at(build, "wing", (0.0, -40.0, -12.0), from_above=False)
    assert foot == {"foot_out": 40.0, "foot_z": -12.0}
    for wild in ((le_x - 20.0, 0.0, 0.0), (le_x + 50.0, 900.0, 0.0)):
        with pytest.raises(BadInput, match=r"beside|ahead"):
            held_at(build, "wing", wild, from_above=True)


def test_what_was_said_goes_with_the_wing_and_what_is_usual_with_the_fuselage() -> None:
    build = set_seat_kind(build_from(Figures()), "wing", "bolts")
    usual = laid_of(build, "wing")
    assert usual is not None
    assert not usual.said
    wide = build
    assert wide.fuselage is not None
    for name, stop in wide.fuselage.stations:
        wide = set_station(wide, name, half_width=stop.half_width + 10.0)
    now = laid_of(wide, "wing")
    assert now is not None
    assert now.out == pytest.approx(usual.out + 10.0, abs=0.5)
    said = set_laid(build, "wing", out=22.0, front=0.1, rear=0.8)
    moved = set_wing(said, "wing", le_x=said.wings[0].le_x + 40.0)
    before, after = (seat_of(one).contacts for one in (said, moved))
    for a, b in zip(before, after, strict=True):
        assert np.subtract(b.at, a.at) == pytest.approx((40.0, 0.0, 0.0), abs=1e-6)
    assert build_from_text(text_of(said)).survey == said.survey


def test_another_kind_is_asked_anew_and_a_saddle_rests_at_its_corners_again() -> None:
    drawn = build_from(Figures())
    corners = seat_of(drawn).contacts
    bolted = set_laid(set_seat_kind(drawn, "wing", "bolts"), "wing")
    cabane = seat_of(set_seat_kind(bolted, "wing", "cabane")).laid
    assert cabane is not None
    assert not cabane.said
    assert seat_of(set_seat_kind(bolted, "wing", "saddle")).contacts == corners
    placed = set_laid(drawn, "wing", out=15.0)
    assert seat_of(set_seat_kind(placed, "wing", "bands")).laid == seat_of(placed).laid


def test_nonsense_is_refused_and_a_files_own_contacts_are_never_asked_about() -> None:
    build = build_from(Figures())
    for figures in ({"out": 900.0}, {"front": 0.9, "rear": 0.2}, {"rear": 1.4}, {"out": -3.0}):
        with pytest.raises(BadInput):
            set_laid(build, "wing", **figures)
    with pytest.raises(BadInput):
        set_laid(build, "fin")
    contacts = (Contact(id="a", at=(200, -20, 70)), Contact(id="b", at=(330, 20, 70)))
    own = Seat(contacts=contacts, kind="bolts")
    bodies = tuple(one.but(seat=own) if one.id == "wing" else one for one in build.surveyed.bodies)
    given = pitched(build.but(survey=build.surveyed.but(bodies=bodies)))
    assert "it is held" not in " ".join(told(given))
