"""Wings, tails and seats: where their corners, contacts and marks stand."""

import math
from itertools import pairwise

import pytest
from hypothesis import assume, example, given, settings
from hypothesis import strategies as st

from hardkeel.airframe.bodies import bodies_of, fuselage_pins, marks_from, surfaces_of
from hardkeel.airframe.kinds import CRUTCH, ON_BOARD, SHEET_BOX, STICK, fuselage_from
from hardkeel.airframe.shapes import Fin, Surface
from hardkeel.airframe.starters import STARTERS, start_from, starter
from hardkeel.balance.model import Wing
from hardkeel.base.errors import BadInput
from hardkeel.edits import surfaces
from hardkeel.fuselage.loft import loft_of
from hardkeel.messages.airframe import STARTER_WORDS
from hardkeel.project.model import Build
from hardkeel.survey.checking import rules_of
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.model import FUSELAGE, Body, Survey
from hardkeel.tail.model import TailSurface
from tests.draws import draws

BOX = fuselage_from(SHEET_BOX, 0.0, 900.0, 85.0)
angles = st.floats(-8, 8)


def body(build: Build, name: str) -> Body:
    found = build.surveyed.body(name)
    assert found is not None
    return found


@given(sweep=st.floats(-60, 90), dihedral=angles, incidence=angles, tip=st.floats(20, 240))
def test_a_wings_corners_follow_chord_sweep_dihedral_and_incidence(
    sweep: float, dihedral: float, incidence: float, tip: float
) -> None:
    wing = Surface("wing", 200.0, 50.0, 1000.0, 180.0, tip, sweep, dihedral, incidence)
    le, te = (wing.corner(500.0, trailing=t) for t in (False, True))
    assert math.dist(le, te) == pytest.approx(tip, abs=0.01)
    port = wing.corner(-500.0, trailing=False)
    assert (port[0], port[2]) == (le[0], le[2])
    slope = math.degrees(math.atan2(le[2] - te[2], te[0] - le[0]))
    assert slope == pytest.approx(incidence, abs=0.02)
    middle = [
        (a + b) / 2
        for a, b in zip(
            wing.corner(0.0, trailing=False), wing.corner(0.0, trailing=True), strict=True
        )
    ]
    assert middle == pytest.approx(list(wing.pivot), abs=0.01)


@pytest.mark.parametrize("frame", [STICK, SHEET_BOX, CRUTCH, ON_BOARD])
@pytest.mark.parametrize("length", [400.0, 900.0, 1800.0])
def test_every_frame_is_as_long_as_it_should_be_and_has_a_method_everywhere(
    frame: object, length: float
) -> None:
    fuselage = fuselage_from(frame, -30.0, length, length * 0.09)  # type: ignore[arg-type]
    stations = fuselage.stations
    assert stations[0][1].station == -30.0
    assert stations[-1][1].station == pytest.approx(length - 30.0)
    assert stations[-1][0] == "tail_post"
    names = [name for name, _ in stations]
    covered = [(names.index(s.from_), names.index(s.to)) for s in fuselage.sections]
    assert covered[0][0] == 0
    assert covered[-1][1] == len(names) - 1
    assert all(a[1] == b[0] for a, b in pairwise(covered))


def test_pins_stand_on_the_top_line_and_longerons_at_the_widest_former() -> None:
    marks = {mark.id: mark for mark in fuselage_pins(BOX, 600.0)}
    assert set(marks) == {
        "nose_pin",
        "tail_pin",
        "nose_foot",
        "longeron_port",
        "longeron_starboard",
    }
    top = loft_of(BOX).top
    for name in ("nose_pin", "tail_pin"):
        x, y, z = marks[name].at
        assert y == 0
        assert z == pytest.approx(float(top.value(x)), abs=0.06)
    widest = max(former.half_width for former in BOX.formers)
    assert marks["longeron_starboard"].at[1] == widest
    assert marks["longeron_port"].at[1] == -widest


def test_a_wing_rests_on_the_middle_of_both_sides_unless_said_otherwise() -> None:
    wing = Wing(id="wing", le_x=250, z=45, span=1100, root_chord=180, tip_chord=180)
    build = Build(format="hardkeel/1", fuselage=BOX, wings=(wing,))
    half = loft_of(BOX).figures(340.0)["half_width"]
    for contact in bodies_of(build)[1].seat.contacts:  # type: ignore[union-attr]
        outer, inner = half - abs(contact.at[1]), abs(contact.at[1]) - (half - BOX.side_thickness)
        assert outer > 0  # on the side's edge, as far from its one face as from the other
        assert outer == pytest.approx(inner)
    told = build.but(wings=(wing.but(seat_width=33.0),))
    contact = bodies_of(told)[1].seat.contacts[0]  # type: ignore[union-attr]
    assert abs(contact.at[1]) == 16.5
    with pytest.raises(BadInput, match="seat width must be more than 0"):
        surfaces.set_wing(told, "wing", seat_width=0.0)


def test_a_tail_without_a_place_has_no_body_yet() -> None:
    ribbed = TailSurface.model_validate(
        {"id": "stab", "kind": "ribbed", "span": 480.0, "root_chord": 130.0, "ribs": (0, 40)}
    )
    build = Build(format="hardkeel/1", fuselage=BOX, tail=(ribbed,))
    assert surfaces_of(build) == ()
    placed = build.but(tail=(ribbed.but(le_x=760.0, z=20.0),))
    stab = surfaces_of(placed)[0]
    assert isinstance(stab, Surface)
    assert stab.tip == 130.0  # no tip chord: as the root
    assert (placed.tail[0].kind, placed.tail[0].ribs) == ("ribbed", (0, 40))


def test_a_fin_is_half_its_span_high() -> None:
    fin = TailSurface(
        id="fin",
        span=240.0,
        root_chord=110.0,
        tip_chord=60.0,
        sweep_le=40.0,
        le_x=800.0,
        z=30.0,
        upright=True,
    )
    shape = surfaces_of(Build(format="hardkeel/1", fuselage=BOX, tail=(fin,)))[0]
    assert isinstance(shape, Fin)
    assert shape.height == 120.0
    marks = {m.id: m.at for m in marks_from(Build(format="hardkeel/1", tail=(fin,)))}
    assert marks["fin_top_te"] == (900.0, 0.0, 150.0)


@settings(max_examples=draws(8, 25))
@given(
    kind=st.sampled_from([one.id for one in STARTERS]),
    figure=st.sampled_from(
        ["span", "root_chord", "tip_chord", "le_x", "z", "dihedral", "incidence", "sweep_le"]
    ),
    share=st.floats(0.8, 1.2),
)
@example(kind="stick", figure="dihedral", share=0.9)
def test_a_wing_changed_and_changed_back_leaves_the_survey_as_it_was(
    kind: str, figure: str, share: float
) -> None:
    build = start_from(kind, 1200.0, 960.0)
    was = getattr(build.wings[0], figure)
    other = was * share + 0.5
    assume(other != was)  # 5° of dihedral times 0.9 and half a degree is 5° again
    changed = surfaces.set_wing(build, "wing", **{figure: other})
    assert changed.surveyed != build.surveyed
    assert surfaces.set_wing(changed, "wing", **{figure: was}) == build


def test_incidence_of_a_wing_is_the_target_of_its_check() -> None:
    build = surfaces.set_wing(start_from("stick", 1200.0, 960.0), "wing", incidence=3.25)
    judged = judge_survey(build.surveyed)
    assert judged.check("wing_incidence").target == 3.25  # type: ignore[union-attr]
    decalage = judged.check("decalage")
    assert decalage is not None
    assert decalage.target == 3.25 - build.tail[0].incidence


def test_every_body_of_a_biplane_has_rules_and_a_seat() -> None:
    survey: Survey = start_from("biplane", 1000.0, 860.0).surveyed
    judged = judge_survey(survey)
    ruled = {rule.id.rsplit("_", 1)[0] for rule in rules_of(survey, judged.net.columns)}
    assert any(name.startswith("upper_wing") for name in ruled)
    assert {c.body for c in judged.corrections} == {b.id for b in survey.bodies if b.id != FUSELAGE}


def test_every_starter_has_words_and_a_tail_that_is_large_enough() -> None:
    """Tail volumes as the note beside the proportions says, with the areas of all wings."""
    assert set(STARTER_WORDS) == {kind.id for kind in STARTERS}
    for kind in STARTERS:
        build = start_from(kind.id, 1200.0, kind.length * 1200.0)
        wing, (stab, fin) = build.wings[0], build.tail
        area = sum(w.span * (w.root_chord + w.tip_chord) / 2 for w in build.wings)
        chord = (wing.root_chord + wing.tip_chord) / 2
        arm = stab.le_x + stab.root_chord / 4 - wing.le_x - wing.root_chord / 4  # type: ignore[operator]
        lying = stab.span * (stab.root_chord + stab.tip_chord) / 2  # type: ignore[operator]
        standing = fin.span / 2 * (fin.root_chord + fin.tip_chord) / 2  # type: ignore[operator]
        volume, upright = lying * arm / area / chord, standing * arm / area / wing.span
        least, most = (0.38, 0.40) if kind.two_wings else (0.65, 0.82)
        assert least < volume < most, kind.id
        least, most = (0.017, 0.019) if kind.two_wings else (0.030, 0.036)
        assert least < upright < most, kind.id


def test_there_is_no_other_starter() -> None:
    assert starter("crutch").id == "crutch"
    with pytest.raises(BadInput, match="there is no"):
        starter("canoe")
