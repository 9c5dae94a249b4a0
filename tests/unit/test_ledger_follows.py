"""Weights by the shape that is cut, and masses and ledger that follow the airframe."""

import math

import pytest
from shapely.geometry import Point as Spot
from shapely.geometry import Polygon, box

from hardkeel.airframe.figures import Figures, build_from
from hardkeel.airframe.parts import ledger_renamed, parts_of, weights_of
from hardkeel.airframe.starters import STARTERS, start_from
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import fuselage as drawing
from hardkeel.edits import ledger as ledger_edits
from hardkeel.edits import surfaces
from hardkeel.fuselage.cutting import shape_of
from hardkeel.fuselage.fairing import bumps_of
from hardkeel.fuselage.model import Former, Fuselage, Longeron
from hardkeel.paper.model import Pair, PrintedSheet
from hardkeel.parts.model import OwnWood
from hardkeel.parts.swapping import Choice, figures_of
from hardkeel.parts.woods import woods_with
from hardkeel.project.model import Build
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.model import Contact, Seat
from tests.airframes import exactly

DEMO = demo_build()


def mass(build: Build, name: str) -> tuple[float, float]:
    [found] = [one for one in build.masses if one.id == name]
    return found.mass, found.x


def estimate(build: Build, name: str) -> float:
    grams = weights_of(build, parts_of(build))[name].estimated
    assert grams is not None
    return grams


def test_a_former_weighs_what_is_cut_not_its_box() -> None:
    """Against a hand-reckoned one: a box 60 × 80 inside, two notches below and above, one hole."""
    former = Former(
        id="F1", station=0, half_width=33, bottom=-41, top=41, thickness=3, material="light-ply"
    )
    fuselage = Fuselage(
        side_thickness=3,
        top_skin=1,
        bottom_skin=1,
        formers=(former, former.but(id="F2", station=100.0)),
        longerons=(Longeron(id="upper", section=(6, 5)), Longeron(id="lower", section=(6, 5))),
    )
    whole = (60 * 80 - 4 * 6 * 5) * 3 * 430e-6
    build = Build(fuselage=fuselage)
    assert estimate(build, "F1") == pytest.approx(whole, rel=1e-9)
    light = drawing.set_cutouts(build, "F1", (), lightened=True)
    circles = shape_of(light.fuselage, light.fuselage.former("F1")).lightening  # type: ignore[union-attr,arg-type]
    drilled = sum(math.pi * r**2 for _, _, r in circles) * 3 * 430e-6
    assert circles
    assert estimate(light, "F1") == pytest.approx(whole - drilled, rel=0.01)


def test_a_round_corner_leaves_room_for_the_side_where_there_is_no_top_skin() -> None:
    former = Former(id="F1", station=0, half_width=30, bottom=-30, top=30, corner=30)
    around = Fuselage(side_thickness=3.0, top_skin=0.0, bottom_skin=0.0, formers=(former,))
    [ring] = shape_of(around, former).wood
    wood = Polygon(ring)
    # every place of the wood has 3 mm of side beside it, all round the circle
    for y, z in ring:
        assert math.hypot(abs(y) + 3.0, z) <= 30.0 + 0.15
    # brute: the circle less itself moved 3 mm either way
    circle = Spot(0, 0).buffer(30, 64)
    moved = Polygon([(y - 3, z) for y, z in circle.exterior.coords])
    other = Polygon([(y + 3, z) for y, z in circle.exterior.coords])
    assert wood.area == pytest.approx(moved.intersection(other).area, rel=0.01)
    even = around.but(top_skin=3.0, bottom_skin=3.0)
    [ring] = shape_of(even, former).wood
    assert Polygon(ring).area == pytest.approx(math.pi * 27**2, rel=0.01)
    assert Polygon(ring).within(box(-27.001, -27.001, 27.001, 27.001))


@pytest.mark.parametrize("name", ["bottom", "lower port", "Lower", "keel_strip", "belly-2"])
def test_a_longeron_below_is_known_by_what_builders_call_it(name: str) -> None:
    former = Former(id="F1", station=0, half_width=30, bottom=-30, top=30)
    around = Fuselage(formers=(former,), longerons=(Longeron(id=name, section=(6, 6)),))
    [ring] = shape_of(around, former).wood
    wood = Polygon(ring)
    assert not wood.contains(Spot(27, -27))
    assert wood.contains(Spot(27, 27))


def test_masses_counted_in_follow_the_airframe_until_the_builder_moves_or_weighs_them() -> None:
    build = ledger_edits.bring_parts_in(DEMO.but(ledger=None, masses=()))
    thicker = drawing.set_wood(build, "F4", thickness=6.0)
    assert mass(thicker, "F4")[0] == pytest.approx(2 * mass(build, "F4")[0], rel=2e-3)
    moved = drawing.set_station(thicker, "F4", station=390.0)
    assert mass(moved, "F4")[1] == 390.0
    swept = surfaces.set_wing(build, "wing", le_x=200.0)
    assert mass(swept, "wing_half")[1] != mass(build, "wing_half")[1]
    [own] = [one for one in build.masses if one.id == "F4"]
    put = ledger_edits.put_mass(build, own.but(mass=9.0))  # typed on the Balance bench
    put = drawing.set_wood(put, "F4", thickness=6.0)
    assert mass(put, "F4")[0] == 9.0
    placed = ledger_edits.put_mass(build, own.but(x=300.0))
    placed = drawing.set_station(placed, "F4", station=390.0)
    assert mass(placed, "F4")[1] == 300.0
    scaled = ledger_edits.weigh(build, "F4", 4.4)
    scaled = drawing.set_wood(scaled, "F4", thickness=6.0)
    assert mass(scaled, "F4")[0] == 4.4


def test_what_was_said_of_a_former_goes_with_it_and_does_not_wait_for_its_namesake() -> None:
    build = ledger_edits.weigh(ledger_edits.bring_parts_in(DEMO), "F5", 9.9)
    build = ledger_edits.set_state(build, "F5", "glued")
    gone = drawing.delete_former(build, "F5")
    assert not {"F5"} & (gone.listed.states.keys() | gone.listed.weighed.keys())
    assert all(one.id != "F5" for one in gone.masses)
    back = drawing.rename_former(drawing.add_former(gone, 550.0), "F4a", "F5")
    assert "F5" not in back.listed.states
    assert "F5" not in back.listed.weighed


def test_a_split_section_leaves_the_other_sections_weights_where_they_are() -> None:
    build = drawing.set_method(DEMO, "F4", "tail_post", "sheet-sides")
    build = ledger_edits.weigh(build, "side_F1_F4", 25.0)
    build = ledger_edits.weigh(build, "side_F4_tail_post", 31.0)
    split = drawing.set_method(build, "F2", "F3", "stick-sides")
    assert split.listed.weighed["side_F4_tail_post"] == 31.0
    assert "side_F1_F4" not in split.listed.weighed  # it is not that piece any more
    renamed = drawing.rename_former(build, "F4", "wing former")
    assert renamed.listed.weighed["side_F1_wing former"] == 25.0
    assert renamed.listed.weighed["side_wing former_tail_post"] == 31.0


def test_a_ledger_that_numbered_its_sides_is_read_by_their_ends() -> None:
    guessed = ledger_renamed(DEMO.listed, {"doubler": "doubler_F1_F4"})
    bare = DEMO.but(fuselage=DEMO.fuselage.but(framing=None), ledger=guessed, steps=())  # type: ignore[union-attr]
    text = text_of(bare).replace("side_F1_F4", "side1").replace("doubler_F1_F4", "doubler1")
    text = text.replace('"revision": 3', '"revision": 0')
    assert build_from_text(text) == bare


def test_renaming_a_former_reaches_the_audit_pairs() -> None:
    sheet = PrintedSheet(
        id="s", pairs=(Pair(part="F4", plan=50, measured=51), Pair(plan=9, measured=9))
    )
    named = drawing.rename_former(DEMO.but(audit=(sheet,)), "F4", "bay")
    assert [pair.part for pair in named.audit[0].pairs] == ["bay", None]


@pytest.mark.parametrize("kind", [one.id for one in STARTERS])
def test_no_starter_of_any_size_accuses_itself(kind: str) -> None:
    for span in (400, 700, 1000, 1280, 1600, 2000, 3000, 4500, 6000):
        for share in (0.5, 0.7, 0.82, 1.0, 1.3):
            fuselage = start_from(kind, span, span * share).fuselage
            assert fuselage is not None
            assert bumps_of(fuselage) == (), (span, share)
    biplane = start_from("biplane", 1000, 820).fuselage
    assert biplane is not None
    assert bumps_of(biplane) == ()


def test_an_own_stiffness_takes_the_cross_grain_with_it() -> None:
    usual = woods_with({})
    twice = OwnWood(stiffness=2 * usual["balsa-medium"].stiffness)
    woods = woods_with({"balsa-medium": twice})
    for along in (True, False):
        piece = Choice("balsa-medium", 300, 20, 3, along=along)
        assert figures_of(piece, woods).flat == pytest.approx(2 * figures_of(piece, usual).flat)


def test_a_second_wing_is_held_to_the_same_class() -> None:
    build = build_from(Figures(name="x", model_class="precision"))
    both = surfaces.add_wing_above(build)
    checks = {check.id: check.tolerance for check in judge_survey(both.surveyed).checks}
    for kind in ("incidence", "yaw", "roll", "offset", "twist_difference"):
        assert checks[f"upper_wing_{kind}"] == checks[f"wing_{kind}"]


def test_two_contacts_in_line_do_not_promise_another_incidence() -> None:
    judged = exactly({"stab.roll": 1.0})
    survey = judged.net.survey
    bodies = []
    for body in survey.bodies:
        if body.id == "stab":
            line = tuple(Contact(id=s, at=(870.0, y, 30.0)) for s, y in (("p", -25.0), ("s", 25.0)))
            bodies.append(body.but(seat=Seat(contacts=line)))
        else:
            bodies.append(body)
    judged = judge_survey(survey.but(bodies=tuple(bodies)))
    [stab] = [one for one in judged.corrections if one.body == "stab"]
    now = judged.check("stab_incidence")
    assert now is not None
    for way in (stab.only_shims, stab.only_sanding):
        then = {check.id: check.value for check in way.checks}
        assert then["stab_incidence"] == pytest.approx(now.value, abs=1e-6)
        assert then["stab_roll"] == pytest.approx(0.0, abs=0.03)
