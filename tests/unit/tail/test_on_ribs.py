"""What lies on ribs and beside them: capstrips, a sheeted centre, doublers, pivots; places that are typed."""

import pytest
import shapely

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.edits import tail as edits
from hardkeel.messages.on_ribs import places_text, read_places
from hardkeel.project.model import Build
from hardkeel.tail.model import TailSurface
from hardkeel.tail.own_sections import own_section
from hardkeel.tail.pieces import cut_list_of_tail, flat_pieces_of_tail, wood_volume
from hardkeel.tail.ribs import cut_ribs, stock_heights


def ribbed(**more: object) -> TailSurface:
    made = {
        "id": "stab", "kind": "ribbed", "span": 480.0, "root_chord": 130.0, "tip_chord": 90.0,
        "sweep_le": 12.0, "root_profile": "0012", "ribs": (0.0, 20.0, 40.0, 90.0, 160.0, 240.0),
        "leading_edge": (6.0, 8.0), "trailing_edge": (10.0, 3.0),
    }  # fmt: skip
    return TailSurface.model_validate(made | more)


def test_ribs_are_smaller_by_their_capstrips_and_by_the_sheet_of_the_centre() -> None:
    plain, capped = ribbed(), ribbed(capstrip=(6.0, 1.0), centre_sheet=50.0, centre_skin=1.5)
    for before, after in zip(cut_ribs(plain, {}), cut_ribs(capped, {}), strict=True):
        skin = 1.5 if after.lofted.y < 50 else 1.0
        whole = shapely.Polygon(before.lofted.outline).buffer(
            -skin, join_style="mitre", mitre_limit=10
        )
        chord = before.lofted.chord
        wanted = whole.intersection(shapely.box(6.0, -99, chord - 10.0, 99)).area
        assert shapely.Polygon(after.fixed[0]).area == pytest.approx(wanted, rel=1e-6)


def test_capstrips_and_the_centre_sheet_are_cut_and_weighed() -> None:
    surface = ribbed(
        capstrip=(6.0, 1.0), centre_sheet=50.0, centre_skin=1.5, material="balsa-light"
    )
    caps = [one for one in cut_list_of_tail(surface, {}) if one.kind == "capstrip"]
    # three of six ribs stand beyond the sheet; two strips on each, both halves
    assert [one.quantity for one in caps] == [4, 4, 4]
    longest = 130 + (90 - 130) * 90 / 240 - 6 - 10
    assert max(one.length for one in caps) == pytest.approx(longest, abs=0.3)
    (sheet,) = [one for one in flat_pieces_of_tail(surface, {}) if one.name == "stab centre sheet"]
    mean = 130 - 40 * 25 / 240
    assert sheet.area == pytest.approx(100.0 * (mean - 16.0), rel=1e-3)
    assert sheet.quantity == 2
    bare = wood_volume(ribbed(material="balsa-light"), {})["balsa-light"]
    more = wood_volume(surface, {})["balsa-light"]
    strips = sum(one.quantity * one.length * 6.0 for one in caps)
    ribs = [
        sum(
            p.area * p.quantity * p.thickness
            for p in flat_pieces_of_tail(one, {})
            if p.kind == "rib"
        )
        for one in (ribbed(material="balsa-light"), surface)
    ]
    assert more - bare == pytest.approx(strips + 2 * sheet.area * 1.5 + ribs[1] - ribs[0], rel=1e-6)


def test_root_ribs_have_doublers_of_their_own_wood() -> None:
    pieces = flat_pieces_of_tail(ribbed(doubled_ribs=2, doubler=0.6), {})
    doublers = [one for one in pieces if one.kind == "rib doubler"]
    assert [one.name for one in doublers] == ["stab rib 1 doubler", "stab rib 2 doubler"]
    assert {one.thickness for one in doublers} == {0.6}
    assert {one.material for one in doublers} == {"light-ply"}
    ribs = {one.name: one for one in pieces if one.kind == "rib"}
    assert doublers[1].outline == ribs["stab rib 2"].outline


def test_edge_stock_is_as_high_as_the_section_where_it_stands() -> None:
    lead, trail = stock_heights(ribbed(capstrip=(6.0, 1.0)), {})
    section = own_section("0012")
    assert section is not None
    for one, x in ((lead, 6.0), (trail, 130.0 - 10.0)):
        top, low = (float(h) for h in section.heights(x / 130.0))
        assert one.root == pytest.approx(130.0 * (top - low) - 2.0, abs=0.02)
    assert lead.tip < lead.root


def test_an_all_moving_tail_gets_a_pivot_and_a_drive_pin_in_its_root_rib() -> None:
    build = edits.set_built(
        Build(tail=(ribbed(ribs=(), kind=None, pivot_at_chord=0.28),)), "stab", "ribbed"
    )
    (surface,) = [one for one in build.tail if one.id == "stab"]
    pivot, pin = surface.tubes
    assert pivot.at_chord == pytest.approx(0.28)
    assert pin.at_chord > pivot.at_chord
    ribs = cut_ribs(surface, {})
    assert len(ribs[0].holes) == 2
    assert len(ribs[-1].holes) == 0


@pytest.mark.parametrize(
    ("text", "unit", "wanted"),
    [
        ("0, 20, 55.5", "mm", (0.0, 20.0, 55.5)),
        ("2; 0; 1", "in", (0.0, 25.4, 50.8)),
        ("40 mm, 0", "in", (0.0, 40.0)),
    ],
)
def test_places_of_ribs_are_typed(text: str, unit: LengthUnit, wanted: tuple[float, ...]) -> None:
    assert read_places(text, unit) == pytest.approx(wanted)
    assert read_places(places_text(wanted, unit), unit) == pytest.approx(wanted, abs=0.02)
    for bad in ("0", "", "0, -5", "0, x"):
        with pytest.raises(BadInput):
            read_places(bad, unit)
