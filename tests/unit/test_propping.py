"""Props under a tail that sets: heights against the airframe's own marks and against a flat bench."""

import io
import math

import numpy as np
import pytest
from ezdxf.entities.lwpolyline import LWPolyline
from ezdxf.filemanagement import read

from hardkeel.airframe.propping import CLEAR_MM, props_of
from hardkeel.airframe.starters import start_from
from hardkeel.demo.fleet import marram, withy
from hardkeel.demo.kettlewick import demo_build
from hardkeel.demo.other_shapes import tansy
from hardkeel.edits.tail import arrange, set_built
from hardkeel.export.building_plan import plan_files
from hardkeel.fuselage.loft import loft_of
from hardkeel.messages.propping import prop_lines
from hardkeel.project.model import Build
from hardkeel.tail.model import TailSurface


def surface(build: Build, name: str = "stab") -> TailSurface:
    return next(one for one in build.tail if one.id == name)


def level(build: Build) -> Build:
    stab = surface(build)
    flat = stab.but(
        kind="stick", root_profile=None, tip_profile=None, thickness=6.0, dihedral=0.0, incidence=0.0,
        outline=(), tip=None,
    )  # fmt: skip
    return build.but(tail=tuple(flat if one.id == "stab" else one for one in build.tail))


def test_a_flat_level_stabilizer_rests_on_two_blocks_of_one_height() -> None:
    build = level(withy())
    stab = surface(build)
    assert build.fuselage is not None
    nose, rear, port, starboard = props_of(build, stab)
    assert (port.hand, starboard.hand) == (-1, 1)
    assert port.height == starboard.height
    loft = loft_of(build.fuselage)
    x = np.linspace(loft.stations[0], loft.stations[-1], 2000)
    bench = min(float(np.min(loft.bottom.value(x))), (stab.z or 0.0) - 3.0) - CLEAR_MM
    assert port.height == pytest.approx((stab.z or 0.0) - 3.0 - bench, abs=0.05)
    for block in (nose, rear):
        assert block.height == pytest.approx(
            float(loft.bottom.value(block.at[0])) - bench, abs=0.05
        )
        assert block.height >= CLEAR_MM - 1e-6


def test_incidence_and_dihedral_are_in_the_heights() -> None:
    """By turning a point of the lower face by hand."""
    build = level(withy())
    stab = surface(build)
    base = props_of(build, stab)[2]
    turned = stab.but(incidence=3.0, dihedral=4.0)
    tilted = props_of(build.but(tail=(turned,)), turned)
    out = base.at[1]
    aft = base.at[0] - ((stab.le_x or 0.0) + (stab.root_chord or 0.0) / 2)
    rise = abs(out) * math.tan(math.radians(4.0)) - aft * math.sin(math.radians(3.0))
    # the bench may lie otherwise: the fuselage's block tells by how much
    moved = tilted[0].height - props_of(build, stab)[0].height
    assert tilted[2].height - base.height == pytest.approx(rise + moved, abs=0.05)


def test_a_section_lies_as_deep_as_its_lower_face() -> None:
    build = marram()
    even = surface(build).but(root_profile="0012", tip_profile=None, tip_thickness=None)
    thin = even.but(root_profile="0006")
    heights = []
    for one in (even, thin):
        made = build.but(tail=tuple(one if t.id == "stab" else t for t in build.tail))
        heights.append(props_of(made, one)[2].height)
    chord = 0.15 * (even.root_chord or 0.0) + 0.85 * even.tip_size  # at 85 % of the half span
    # NACA's own half thickness at 40 % of the chord is 0.967 of its greatest
    assert heights[1] - heights[0] == pytest.approx(0.967 * 0.03 * chord, abs=0.05)


def test_a_v_has_a_prop_under_each_half_high_up_and_a_fin_has_none() -> None:
    build = tansy()
    vee = surface(build, "vee")
    _, _, port, starboard = props_of(build, vee)
    assert port.height == pytest.approx(starboard.height)
    assert port.at[1] == pytest.approx(-starboard.at[1])
    fin = surface(demo_build(), "fin")
    assert props_of(demo_build(), fin) == ()
    bare = demo_build().but(fuselage=None)
    assert props_of(bare, surface(demo_build())) == ()


@pytest.mark.parametrize("way", ["usual", "t", "v", "twin"])
def test_every_arrangement_that_lies_has_its_blocks(way: str) -> None:
    build = arrange(start_from("sheet-box", 1200.0, 940.0), way)  # type: ignore[arg-type]
    for one in build.tail:
        build = set_built(build, one.id, "stick")
    for one in build.tail:
        props = props_of(build, one)
        assert len(props) == (0 if one.upright else 4)
        assert all(prop.height >= CLEAR_MM - 1e-6 for prop in props)


def test_the_blocks_are_a_sheet_of_the_plan_at_full_size() -> None:
    build = demo_build()
    data = plan_files(build, "mm")["plan-props-stab.dxf"]
    space = read(io.StringIO(data.decode())).modelspace()
    rings = [
        np.array(e.get_points("xy"))
        for e in space.query("LWPOLYLINE")
        if isinstance(e, LWPolyline) and e.dxf.layer == "STICKS"
    ]
    heights = sorted(float(np.ptp(ring[:, 1])) for ring in rings)
    assert heights == pytest.approx(
        sorted(prop.height for prop in props_of(build, surface(build))), abs=1e-3
    )
    lines = prop_lines(props_of(build, surface(build)), "in")
    assert len(lines) == 5
    assert all("″" in line for line in lines)
