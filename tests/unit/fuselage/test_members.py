"""Members: what a file may say of them, and what they take from the formers they pass."""

import numpy as np
import pytest

from hardkeel.base.errors import BadInput
from hardkeel.fuselage.cutting import shape_of
from hardkeel.fuselage.fitting import fitted_formers
from hardkeel.fuselage.inside import ring_inside
from hardkeel.fuselage.model import CutOut, Former, Framing, Fuselage, Longeron, Member
from hardkeel.fuselage.notching import crossing
from hardkeel.fuselage.running import seats_along
from hardkeel.fuselage.soundness import check_fuselage
from hardkeel.geometry.polygons import shapely
from hardkeel.project.model import Build
from hardkeel.storage.format import build_from_text, text_of
from tests.frames import SIDE, SKIN, box, member

INNER_WIDE, INNER_TALL = 2 * (30.0 - SIDE), 90.0 - 2 * SKIN
WHOLE = INNER_WIDE * INNER_TALL


def area(fuselage: Fuselage, name: str = "F3") -> float:
    former = fuselage.former(name)
    assert former is not None
    return shape_of(fuselage, former).area


@pytest.mark.parametrize(
    ("figures", "place"),
    [
        ({"kind": "doubler", "thickness": 1.0, "from": "F9"}, "members[0].from: no former"),
        ({"kind": "doubler", "thickness": 1.0, "to": "F9"}, "members[0].to: no former"),
        ({"kind": "doubler"}, "members[0].thickness: is missing: a doubler needs it"),
        ({"kind": "stringer"}, "members[0].section: is missing"),
        ({"kind": "key", "height": 20.0}, "members[0].from: is missing: a key names its former"),
        ({"kind": "wire", "diameter": 2.0, "from": "F3", "to": "F2"}, "members[0].to: F2 does not stand"),
        ({"kind": "rod", "diameter": 2.0}, "members[0].station: is missing"),
    ],
)  # fmt: skip
def test_what_a_member_lacks_is_named_with_its_place(
    figures: dict[str, object], place: str
) -> None:
    fuselage = box(member(**{"name": "m", **figures}))  # type: ignore[arg-type]
    with pytest.raises(BadInput) as fault:
        check_fuselage(fuselage)
    assert f"fuselage.framing.{place}" in str(fault.value)


def test_two_members_of_one_name_are_refused() -> None:
    fuselage = box(member("keel", height=9.0, thickness=3.0), member("wire", diameter=2.0))
    with pytest.raises(BadInput, match=r'members\[1\]\.id: "m" is used twice'):
        check_fuselage(fuselage)


def test_framing_comes_back_from_a_file_as_it_went_in() -> None:
    build = Build(
        fuselage=box(member("stringer", section=(3.0, 4.0), angle=60.0, **{"from": "F2"}))
    )
    again = build_from_text(text_of(build).encode())
    assert again.fuselage == build.fuselage
    assert '"from": "F2"' in text_of(build)


def test_a_doubler_takes_its_thickness_from_both_edges() -> None:
    inset = 10.0
    doubled = box(member("doubler", thickness=1.5, inset=inset))
    assert area(doubled) == pytest.approx(WHOLE - 2 * 1.5 * (INNER_TALL - 2 * inset))


def test_a_doubler_that_stops_short_leaves_the_last_former_alone() -> None:
    doubled = box(member("doubler", thickness=1.5, to="F4", short=20.0))
    assert area(doubled, "F3") < WHOLE
    assert area(doubled, "F4") == pytest.approx(WHOLE)


def test_contract_figures_do_not_move_with_members() -> None:
    plain, framed = box(), box(member("doubler", thickness=1.5))
    assert fitted_formers(plain) == fitted_formers(framed)


def test_a_keel_and_the_former_have_half_a_lap_each() -> None:
    assert area(box(member("keel", height=12.0, thickness=3.0))) == pytest.approx(WHOLE - 6.0 * 3.0)
    assert area(box(member("keel", height=12.0, thickness=3.0, y=9.0))) == pytest.approx(
        WHOLE - 2 * 6.0 * 3.0
    )


def test_a_wire_leaves_a_round_hole_on_each_side() -> None:
    shape = shape_of(box(member("wire", diameter=4.0, y=12.0)), Former(
        id="F3", station=200.0, half_width=30.0, bottom=-40.0, top=50.0))  # fmt: skip
    assert len(shape.wood) == 3  # the edge and two holes
    assert shape.area == pytest.approx(WHOLE - 2 * np.pi * 2.0**2, abs=0.1)


def test_bearers_pass_only_to_the_former_where_they_end() -> None:
    fuselage = box(member("bearer", section=(10.0, 8.0), y=15.0, to="F2", station=-40.0))
    assert area(fuselage, "F2") == pytest.approx(WHOLE - 2 * 10 * 8)
    assert area(fuselage, "F3") == pytest.approx(WHOLE)


def test_a_crutch_parts_the_former_on_purpose() -> None:
    fuselage = box(member("crutch", width=8.0, thickness=6.0, z=5.0), method="crutch")
    former = fuselage.formers[2]
    shape = shape_of(fuselage, former)
    assert len(shape.pieces) == 2
    assert "split" not in shape.cautions
    lower, upper = (max(z for _, z in piece[0]) for piece in shape.pieces)
    assert (lower, min(z for _, z in shape.pieces[1][0])) == (2.0, 8.0)
    assert upper == 48.5


def test_a_key_reaches_through_doubler_and_side() -> None:
    fuselage = box(
        member("key", "key", height=20.0, **{"from": "F1"}),
        member("doubler", "doubler", thickness=1.5, inset=5.0),
    )
    shape = shape_of(fuselage, fuselage.formers[0])
    assert len(shape.pieces) == 1
    assert max(y for y, _ in shape.wood[0]) == pytest.approx(30.0)
    assert len(crossing(fuselage, fuselage.formers[1])) == 1  # the key is F1's alone


def test_a_split_former_is_cut_on_the_centre_line() -> None:
    fuselage = box()
    former = fuselage.formers[2].but(split=True)
    shape = shape_of(fuselage, former)
    assert len(shape.pieces) == 2
    assert shape.cautions == ()
    assert shape.area == pytest.approx(WHOLE)
    port, starboard = shape.pieces
    assert max(y for y, _ in port[0]) == 0.0 == min(y for y, _ in starboard[0])


def test_a_former_of_sticks_is_a_frame() -> None:
    fuselage = box()
    shape = shape_of(fuselage, fuselage.formers[2].but(sticks=(8.0, 3.0)))
    assert shape.area == pytest.approx(WHOLE - (INNER_WIDE - 16) * (INNER_TALL - 16))


@pytest.mark.parametrize("angle", [0.0, 37.0, 90.0, 143.0, 180.0])
def test_stringers_lie_where_their_ray_leaves_the_wood(angle: float) -> None:
    """On a circle every ray leaves at the radius, and every notch takes as much."""
    circle = tuple(
        (40 * float(np.cos(t)), 40 * float(np.sin(t))) for t in np.linspace(0, 2 * np.pi, 721)[:-1]
    )
    thin = Member(id="s", kind="stringer", section=(0.5, 0.5), angle=angle)
    seats = seats_along(ring_inside(shapely.Polygon(circle)), (thin,))
    assert seats.there[0]
    place = seats.at[0]
    assert np.hypot(*place) == pytest.approx(40.0, abs=0.01)
    way = np.degrees(np.arctan2(place[0], place[1]))
    assert way == pytest.approx(angle, abs=0.01)


def test_stringer_notches_of_both_sides_are_alike() -> None:
    fuselage = box(member("stringer", section=(3.0, 5.0), angle=90.0))
    assert area(fuselage) == pytest.approx(WHOLE - 2 * 3 * 5)
    assert area(box(member("stringer", section=(3.0, 5.0), angle=0.0))) == pytest.approx(
        WHOLE - 3 * 5
    )


def test_longerons_and_cutouts_are_cut_as_before() -> None:
    fuselage = box().but(
        longerons=(
            Longeron(id="upper", section=(5.0, 6.0)),
            Longeron(id="lower", section=(4.0, 4.0)),
        )
    )
    pack = CutOut(id="pack", kind="battery", width=20.0, height=10.0)
    former = fuselage.formers[2].but(cutouts=(pack,))
    assert shape_of(fuselage, former).area == pytest.approx(WHOLE - 2 * 30 - 2 * 16 - 200)


def test_a_framing_without_members_changes_nothing() -> None:
    fuselage = box()
    bare = fuselage.but(framing=None)
    assert fuselage.framed == Framing() == bare.framed
    assert area(fuselage) == area(bare)
