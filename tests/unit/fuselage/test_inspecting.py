"""What would break, part or not fit is found, where it is, with the figure that a ruler would show."""

import numpy as np
import pytest

from hardkeel.demo.kettlewick import demo_build
from hardkeel.fuselage.cutting import shape_of
from hardkeel.fuselage.inspecting import Finding, findings_of
from hardkeel.fuselage.model import (
    CutOut,
    Former,
    Framing,
    Fuselage,
    Longeron,
    Member,
    SectionShape,
)
from hardkeel.messages.findings import finding_sentence, finding_title
from hardkeel.messages.frame import side_taken_off
from tests.draws import draws
from tests.frames import box, member, random_frame


def hole(width: float, height: float, y: float = 0.0, z: float = 0.0, name: str = "pack") -> CutOut:
    return CutOut(id=name, kind="battery", width=width, height=height, y=y, z=z)


def with_hole(fuselage: Fuselage, *holes: CutOut) -> Fuselage:
    third = fuselage.formers[2].but(cutouts=holes)
    return fuselage.but(formers=(*fuselage.formers[:2], third, *fuselage.formers[3:]))


def only(fuselage: Fuselage) -> Finding:
    found = findings_of(fuselage)
    assert len(found) == 1, found
    return found[0]


def test_a_sound_box_has_nothing_to_look_into() -> None:
    assert findings_of(box(member("doubler", thickness=1.5, inset=6.0))) == ()


def test_thin_wood_beside_a_hole_is_told_on_each_side() -> None:
    # inner: 27 either way, −38.5 to 48.5
    found = only(with_hole(box(), hole(50.0, 20.0, z=5.0)))
    assert (found.former, found.kind, found.ref) == ("F3", "thin", "pack")
    assert found.figure == pytest.approx(2.0)
    left = dict(found.left)
    assert left["port"] == pytest.approx(2.0) == left["starboard"]
    assert left["above"] > 3
    assert left["below"] > 3


def test_a_round_hole_is_measured_at_its_nearest_points() -> None:
    tank = CutOut(id="tank", kind="tank", width=50.0, height=30.0, z=5.0)
    left = dict(only(with_hole(box(), tank)).left)
    assert left["port"] == pytest.approx(2.0, abs=0.01)
    assert left["above"] == pytest.approx(48.5 - 20.0, abs=0.01)


def test_a_corner_that_comes_near_a_notch_is_told_as_a_corner() -> None:
    framed = box().but(longerons=(Longeron(id="upper", section=(6.0, 6.0)),))
    # the notch's inner corner lies at (21, 42.5); the hole's at (20, 41.5)
    found = only(with_hole(framed, hole(40.0, 20.0, z=31.5)))
    assert found.kind == "thin"
    assert dict(found.left)["corner"] == pytest.approx(2**0.5)
    assert "at a corner" in finding_sentence(found, "mm", 3.0)


def test_a_web_as_thick_as_wanted_is_no_finding() -> None:
    assert findings_of(with_hole(box(), hole(48.0, 20.0))) == ()
    framed = box().framed.but(web=3.1)
    assert only(with_hole(box().but(framing=framed), hole(48.0, 20.0))).kind == "thin"


def test_a_hole_over_the_edge_says_what_is_left_elsewhere() -> None:
    found = findings_of(with_hole(box(), hole(20.0, 20.0, z=-35.0)))
    assert [one.kind for one in found] == ["opened"]
    left = dict(found[0].left)
    assert left["below"] == 0.0
    assert left["port"] == pytest.approx(17.0)
    assert left["above"] == pytest.approx(48.5 + 25.0)


def test_a_hole_from_side_to_side_parts_the_former() -> None:
    kinds = {one.kind: one for one in findings_of(with_hole(box(), hole(80.0, 10.0)))}
    assert set(kinds) == {"opened", "parted"}
    assert kinds["parted"].ref == "pack"
    assert kinds["parted"].figure == 2


def test_two_holes_too_near_each_other_meet() -> None:
    found = only(with_hole(box(), hole(10.0, 10.0, y=-6.0), hole(10.0, 10.0, y=6.0, name="tank")))
    assert (found.kind, found.ref, found.other) == ("meet", "pack", "tank")
    assert found.figure == pytest.approx(2.0)
    assert found.at is not None
    assert found.at[0] == pytest.approx(0.0)


def test_notches_that_meet_and_longerons_that_do_not_fit() -> None:
    slim = box(half_width=8.0).but(longerons=(Longeron(id="upper", section=(4.0, 6.0)),))
    # inner 10 wide, notches of 4 either side: 2 between
    found = {one.former: one for one in findings_of(slim)}
    assert len(found) == 5
    assert found["F2"].kind == "meet"
    assert found["F2"].figure == pytest.approx(2.0)
    wide = slim.but(longerons=(Longeron(id="upper", section=(5.5, 6.0)),))
    unfit = [one for one in findings_of(wide) if one.kind == "unfit" and one.former == "F2"]
    assert unfit[0].figure == pytest.approx(0.5)


def test_a_neck_is_found_where_the_wood_narrows() -> None:
    """Two hatches from the top leave a bridge of 2 mm between them: no hole, no notch, yet it breaks."""
    slots = (
        CutOut(id="a", kind="hatch", width=20.0, height=89.0, y=-11.0, z=6.0),
        CutOut(id="b", kind="hatch", width=20.0, height=89.0, y=11.0, z=6.0),
    )
    found = findings_of(with_hole(box(), *slots))
    assert {one.kind for one in found} & {"neck", "meet"}
    meet = next(one for one in found if one.kind in ("neck", "meet"))
    assert meet.figure == pytest.approx(2.0, abs=0.06)


def test_formers_that_stand_in_each_other_are_crowded() -> None:
    fuselage = box()
    near = fuselage.formers[2].but(station=103.0)  # 4 mm each: 1 mm too near
    found = only(fuselage.but(formers=(fuselage.formers[0], fuselage.formers[1], near)).but(
        sections=()))  # fmt: skip
    assert (found.kind, found.ref) == ("crowded", "F2")
    assert found.figure == pytest.approx(1.0)


def test_a_tray_that_has_to_pass_a_former_wants_an_opening() -> None:
    tray = member("battery-tray", thickness=2.0, width=30.0, **{"from": "F2", "to": "F4"})
    found = only(box(tray))
    assert (found.kind, found.former, found.figure) == ("barred", "F3", 30.0)
    assert findings_of(with_hole(box(tray), hole(34.0, 12.0))) == ()


def test_a_crutch_and_a_split_are_no_breakages() -> None:
    crutch = box(member("crutch", width=8.0, thickness=6.0), method="crutch")
    formers = tuple(former.but(split=True) for former in crutch.formers)
    assert findings_of(crutch.but(formers=formers)) == ()


def test_a_former_no_wider_than_its_sides_has_nothing_left() -> None:
    fuselage = box()
    thin = Former(id="F6", station=500.0, half_width=2.0, bottom=-10.0, top=10.0)
    found = findings_of(fuselage.but(formers=(*fuselage.formers, thin)))
    assert [(one.former, one.kind) for one in found] == [("F6", "nothing")]


def test_the_demo_says_that_f2_loses_its_foot() -> None:
    fuselage = demo_build().fuselage
    assert fuselage is not None
    found = findings_of(fuselage)
    assert {one.kind for one in found if one.former == "F2"} == {"opened", "parted"}
    # F7 stands between sides of sticks: no sheet is taken off it, and its notches have room
    assert {one.former for one in found} == {"F2"}


def test_a_former_between_sides_of_sticks_is_as_wide_as_drawn() -> None:
    """84 mm stay 84; at the station where sheet sides end the sheet is still there."""
    fuselage = Fuselage.model_validate(
        {
            "side_thickness": 3.0,
            "formers": tuple(
                {
                    "id": f"F{i}",
                    "station": 100.0 * i,
                    "bottom": -30.0,
                    "top": 30.0,
                    "half_width": 42.0,
                }
                for i in range(1, 6)
            ),
            "sections": (
                {"from": "F1", "to": "F3", "method": "sheet-sides"},
                {"from": "F3", "to": "F5", "method": "stick-sides"},
            ),
        }
    )
    wide = {}
    for former in fuselage.formers:
        ring = np.array(shape_of(fuselage, former).wood[0])
        wide[former.id] = np.ptp(ring[:, 0])
    assert wide == pytest.approx({"F1": 78.0, "F2": 78.0, "F3": 78.0, "F4": 84.0, "F5": 84.0})
    assert "3.0 mm are taken off" in side_taken_off(fuselage, fuselage.formers[1], "mm")
    assert "nothing is taken off" in side_taken_off(fuselage, fuselage.formers[3], "mm")


@pytest.mark.parametrize("seed", range(draws(20, 60)))
def test_every_finding_can_be_said(seed: int) -> None:
    fuselage = random_frame(np.random.default_rng(seed))
    if fuselage is None or len(fuselage.stations) < 2:
        return
    for one in findings_of(fuselage):
        title, said = finding_title(one), finding_sentence(one, "mm", fuselage.framed.web)
        assert title.endswith(".")
        assert said.endswith(".")
        assert "nan" not in said
        assert one.figure >= 0


def test_a_plate_that_lies_outside_is_told_with_where_it_may_lie() -> None:
    oval = tuple(
        Former(
            id=f"F{i}", station=100.0 * i, half_width=40, bottom=-40, top=50, section=SectionShape()
        )
        for i in range(3)
    )

    def build(z: float) -> Fuselage:
        tray = Member.model_validate(
            {"id": "tray", "kind": "servo-tray", "from": "F0", "to": "F1", "thickness": 2.0, "z": z}
        )
        return Fuselage(formers=oval, framing=Framing(members=(tray,)))

    outside = [one for one in findings_of(build(-41.5)) if one.kind == "outside"]
    assert [one.former for one in outside] == ["F0"]
    left = dict(outside[0].left)
    # an ellipse of 40 by 45 is wider than twice the tray's thickness there
    assert -39.0 < left["low"] < -35.0
    assert 45.0 < left["high"] < 49.5
    assert not [one for one in findings_of(build(0.0)) if one.kind == "outside"]
    words = finding_sentence(outside[0], "mm", 3.0)
    assert "outside the skin" in words
    assert "Set it between" in words
