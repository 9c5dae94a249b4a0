"""Balance: the contract's formulas against moments worked another way."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy import ndimage

from hardkeel.airframe.hatches import depth_under
from hardkeel.balance.balancing import (
    balance_of,
    hatch_for,
    longest_aslant,
    mean_chord,
    mean_chord_of,
    nose_cost,
    way_in,
)
from hardkeel.balance.model import Balance, Battery, Hatch, Mass, Wing
from hardkeel.base.errors import BadInput
from hardkeel.fuselage.model import Former, Framing, Fuselage, Member
from hardkeel.geometry.polygons import shapely
from hardkeel.messages.balance import balance_sentence, bay_sentence, hatch_sentence
from tests.draws import draws

WING = Wing(id="wing", le_x=200, z=55, span=1250, root_chord=210, tip_chord=170, sweep_le=25)
MASSES = (
    Mass(id="motor", mass=120, x=-20),
    Mass(id="wing", mass=210, x=290),
    Mass(id="tail", mass=40, x=880),
    Mass(id="fuselage", mass=190, x=380),
)


def pack(*between: float, **more: object) -> Battery:
    return Battery(id="pack", mass=180, between=between, **more)  # type: ignore[arg-type]


@settings(max_examples=draws(16, 50))
@given(tip=st.floats(0, 400), sweep=st.floats(-80, 120))
def test_the_mean_chord_is_the_integral_over_the_span(tip: float, sweep: float) -> None:
    wing = WING.but(tip_chord=tip, sweep_le=sweep)
    eta = (np.arange(4000) + 0.5) / 4000
    chord = wing.root_chord + eta * (tip - wing.root_chord)
    area = chord.sum()
    found = mean_chord(wing)
    assert found.length == pytest.approx((chord**2).sum() / area, rel=1e-5)
    assert found.le_x == pytest.approx(wing.le_x + (chord * sweep * eta).sum() / area, abs=1e-3)


def test_a_biplane_has_one_mean_chord_and_a_stabilizer_does_not_count() -> None:
    upper = WING.but(id="upper", le_x=150.0)
    both = mean_chord_of([WING, upper])
    assert both is not None
    assert both.le_x == pytest.approx(mean_chord(WING).le_x - 25)
    assert mean_chord_of([WING, upper.but(id="stab")]) == mean_chord(WING)
    assert mean_chord_of([]) is None


@settings(max_examples=draws(20, 60))
@given(target=st.floats(5, 60), front=st.floats(-50, 150), length=st.floats(0, 200))
def test_with_everything_in_it_balances_where_it_should(
    target: float, front: float, length: float
) -> None:
    wanted = Balance(
        target_percent=target, battery=pack(front, front + length), nose_weight_x=-35.0
    )
    found = balance_of(MASSES, [WING], wanted)
    assert found.placed_x is not None
    assert front <= found.placed_x <= front + length
    assert found.battery_fits == (found.placed_x == found.battery_x)
    if found.nose_weight is not None:
        assert found.nose_weight >= 0
        assert found.x == pytest.approx(found.target_x, abs=1e-6)
        assert found.percent == pytest.approx(target, abs=1e-5)
        assert found.mass == pytest.approx(560 + 180 + found.nose_weight)
    else:  # it is nose heavy: weight in the nose can't help
        assert found.x < found.target_x


def test_what_it_says() -> None:
    inside = Balance(target_percent=30, battery=pack(20, 260), nose_weight_x=-35)
    found = balance_of(MASSES, [WING], inside)
    assert balance_sentence(found, inside).startswith("Put the middle of the pack at")
    assert bay_sentence(found, inside) == "That is inside its bay."
    aft = Balance(target_percent=20, battery=pack(120, 140), nose_weight_x=-35)
    heavy = balance_of(MASSES, [WING], aft)
    assert balance_sentence(heavy, aft).startswith("Add ")
    assert "further forward" in bay_sentence(heavy, aft)
    front = Balance(target_x=400, battery=pack(20, 60), nose_weight_x=-35)
    light = balance_of(MASSES, [WING], front)
    assert light.nose_weight is None
    assert "aft" in balance_sentence(light, front)


def test_without_a_pack_or_weight_it_says_where_it_is() -> None:
    found = balance_of(MASSES, [WING], Balance(target_x=300.0))
    assert found.battery_x is None
    assert found.nose_weight is None
    assert found.x == pytest.approx((120 * -20 + 210 * 290 + 40 * 880 + 190 * 380) / 560)


@pytest.mark.parametrize(
    ("wanted", "wings", "words"),
    [
        (Balance(), [WING], "neither"),
        (Balance(target_percent=30), [], "needs a wing"),
        (Balance(target_x=1, battery=Battery(id="motor", mass=5)), [WING], "among the masses"),
        (Balance(target_x=1, battery=pack(90, 20)), [WING], "front to rear"),
        (Balance(target_x=1, hatches=(Hatch(id="h", between=(9, 1), width=40),)), [], "front to rear"),
    ],
)  # fmt: skip
def test_what_can_not_be_balanced_is_told(wanted: Balance, wings: list[Wing], words: str) -> None:
    with pytest.raises(BadInput, match=words):
        balance_of(MASSES, wings, wanted)


def test_nothing_weighs_nothing() -> None:
    with pytest.raises(BadInput, match="nothing weighs"):
        balance_of([], [WING], Balance(target_x=1.0))


def test_a_gram_at_the_tail_wants_several_in_the_nose() -> None:
    cost = nose_cost(1.0, 880, 260, -35)
    assert cost == pytest.approx(620 / 295)
    ahead = nose_cost(1.0, 100, 260, -35)
    assert ahead is not None
    assert ahead < 0


def test_the_pack_passes_a_hatch_flat_end_first_or_not_at_all() -> None:
    hatch = Hatch(id="belly hatch", between=(0, 120), width=50)
    small, long, fat = ((105, 36, 30), (140, 40, 34), (140, 60, 55))
    assert hatch_for(pack(0, 1, size=small), [hatch]) == (hatch, "flat")
    assert hatch_for(pack(0, 1, size=long), [hatch]) == (hatch, "end first")
    assert hatch_for(pack(0, 1, size=fat), [hatch]) is None
    wanted = Balance(target_x=1, battery=pack(0, 1, size=fat), hatches=(hatch,))
    assert "no hatch" in hatch_sentence(wanted)


@pytest.mark.parametrize(
    ("size", "depth", "way"),
    [
        ((105, 36, 30), 60, "flat"),
        ((105, 50, 30), 60, "on edge"),
        ((140, 40, 34), 150, "end first"),
        ((140, 40, 34), 70, "nose first, aslant"),
        ((300, 40, 34), 70, None),
        ((140, 40, 34), 30, None),
        ((44, 118, 60), 20, "turned crosswise"),
    ],
)
def test_a_pack_is_turned_until_it_goes_in(
    size: tuple[float, float, float], depth: float, way: str | None
) -> None:
    hatch = Hatch(id="hatch", between=(0, 120), width=50)
    assert way_in(size, hatch, depth) == way


@pytest.mark.parametrize(("opening", "depth", "thick"), [(80, 50, 20), (60, 60, 25), (110, 40, 30)])
def test_the_longest_pack_that_slides_in_aslant_is_that_of_a_search_over_all_places(
    opening: float, depth: float, thick: float
) -> None:
    """Every place and slope on a grid, walls as shapes: is what lies outside joined with what lies inside?"""
    longest = longest_aslant(opening, depth, thick)
    assert _slides_in(0.94 * longest, opening, depth, thick)
    assert not _slides_in(1.06 * longest, opening, depth, thick)


def _slides_in(long: float, opening: float, depth: float, thick: float) -> bool:
    far = 3 * long
    deck = shapely.union_all(
        [
            shapely.box(-far, -0.2, 0, 0),
            shapely.box(opening, -0.2, far, 0),
            shapely.box(-far, -depth - 9, far, -depth),
        ]
    )
    xs = np.arange(-0.75 * long, opening + 0.5 * long, 1.6)
    zs = np.arange(-depth + thick / 2 + 0.05, 0.62 * long, 1.6)
    slopes = np.linspace(0, math.pi / 2, 46)  # the nose, to the left, points down
    x, z, slope = np.meshgrid(xs, zs, slopes, indexing="ij")
    corners = np.array([(-1, -1), (1, -1), (1, 1), (-1, 1)]) * (long / 2, thick / 2)
    cos, sin = np.cos(slope)[..., None], np.sin(slope)[..., None]
    u = x[..., None] + corners[:, 0] * cos - corners[:, 1] * sin
    v = z[..., None] + corners[:, 0] * sin + corners[:, 1] * cos
    shapes = shapely.polygons(np.stack([u, v], axis=-1))
    shapely.prepare(deck)
    free = ~shapely.intersects(deck, shapes)
    parts, _ = ndimage.label(free, structure=np.ones((3, 3, 3)))
    outside = parts[len(xs) // 2, -1, 0]
    flat = parts[0, :, 0]
    inside = set(flat[(zs < -thick / 2) & (flat > 0)])
    assert outside > 0
    assert inside
    return outside in inside


def test_how_deep_it_is_under_a_hatch_follows_from_skins_and_trays() -> None:
    formers = tuple(
        Former(id=f"F{i}", station=100.0 * i, bottom=-30.0, top=40.0 - 5 * i, half_width=30.0)
        for i in range(4)
    )
    bare = Fuselage(formers=formers, top_skin=1.5, bottom_skin=1.5)
    hatch = Hatch(id="hatch", between=(100, 200), width=50)
    assert depth_under(bare)(hatch) == pytest.approx(
        70 - 10 - 3, abs=0.2
    )  # as narrow as at its rear end
    tray = Member.model_validate(
        {
            "id": "tray",
            "kind": "battery-tray",
            "from": "F0",
            "to": "F2",
            "thickness": 2.0,
            "z": -11.0,
        }
    )
    trayed = bare.but(framing=Framing(members=(tray,)))
    assert depth_under(trayed)(hatch) == pytest.approx(30 - 1.5 + 10, abs=0.2)
    assert depth_under(trayed)(hatch.but(id="belly hatch")) == pytest.approx(30 - 1.5 - 12, abs=0.2)
    assert depth_under(None)(hatch) is None
    assert depth_under(bare)(hatch.but(between=(-50.0, 40.0))) is None


def test_a_bay_holds_the_whole_pack_and_not_its_middle_alone() -> None:
    pack = Battery(mass=150.0, size=(100.0, 35.0, 25.0)).in_bay(20.0, 180.0)
    assert pack.between == (70.0, 130.0)
    assert pack.bay == (20.0, 180.0)
    with pytest.raises(BadInput, match=r"the bay is 20\.0 mm shorter than the pack"):
        pack.in_bay(20.0, 100.0)
    exact = pack.in_bay(20.0, 120.0)
    assert exact.between == (70.0, 70.0)
    assert Battery(mass=150.0).in_bay(20.0, 80.0).between == (20.0, 80.0)
