"""What a former is cut to, and outlines that come from and go to drawings."""

from pathlib import Path

import ezdxf
import pytest

from hardkeel.base.errors import BadInput
from hardkeel.export.parts import former_dxf
from hardkeel.fuselage.cutting import former_from_outline, misfit_of, shape_of
from hardkeel.fuselage.fairing import Bump
from hardkeel.fuselage.model import CutOut, Former, Fuselage, Longeron, Template
from hardkeel.messages.airframe import (
    bump_sentence,
    caution_sentence,
    cutouts_text,
    misfit_sentence,
    read_cutouts,
)
from hardkeel.storage.outlines import read_outlines

BOX = Former(id="F3", station=100.0, half_width=30.0, bottom=-40.0, top=50.0)
SKINNED = Fuselage(
    side_thickness=3.0,
    bottom_skin=1.5,
    top_skin=2.0,
    formers=(BOX,),
    longerons=(Longeron(id="upper", section=(5.0, 6.0)), Longeron(id="lower", section=(4.0, 4.0))),
)


def test_skins_and_notches_come_off_exactly() -> None:
    shape = shape_of(SKINNED, BOX)
    wide, tall = 2 * (30 - 3), 90 - 1.5 - 2
    assert shape.area == pytest.approx(wide * tall - 2 * 5 * 6 - 2 * 4 * 4)
    ys = [y for y, _ in shape.wood[0]]
    zs = [z for _, z in shape.wood[0]]
    assert (min(ys), max(ys), min(zs), max(zs)) == (-27.0, 27.0, -38.5, 48.0)
    assert (27.0, 48.0) not in shape.wood[0]  # the corner is the longeron's
    assert (22.0, 42.0) in shape.wood[0]


def test_cut_outs_and_lightening_holes_leave_a_rim() -> None:
    pack = CutOut(id="pack", kind="battery", width=30.0, height=20.0, z=-15.0)
    shape = shape_of(SKINNED, BOX.but(cutouts=(pack,), lightened=True))
    plain = shape_of(SKINNED, BOX)
    assert shape.lightening
    holes = sum(3.14159 * r * r for *_, r in shape.lightening)
    assert shape.area == pytest.approx(plain.area - 600 - holes, rel=0.002)
    for y, z, radius in shape.lightening:
        assert abs(y) + radius <= 27 - 5.5
        assert z - radius >= -5 + 5.5  # above the pack's passage


def test_what_would_break_is_told() -> None:
    wide = CutOut(id="wide", kind="hole", width=52.0, height=10.0)
    assert shape_of(SKINNED, BOX.but(cutouts=(wide,))).cautions == ("wide",)
    through = CutOut(id="slot", kind="hole", width=80.0, height=10.0)
    cut = shape_of(SKINNED, BOX.but(cutouts=(through,)))
    assert "split" in cut.cautions
    assert "falls apart" in caution_sentence(BOX, cut.cautions)
    hatch = CutOut(id="h", kind="hatch", width=30.0, height=20.0, z=40.0)
    assert shape_of(SKINNED, BOX.but(cutouts=(hatch,))).cautions == ()


def test_a_round_former_keeps_its_longerons_in_wood() -> None:
    round_one = BOX.but(corner=24.0)
    shape = shape_of(SKINNED, round_one)
    smooth = shape_of(SKINNED.but(longerons=()), round_one)
    assert shape.area < smooth.area - 40
    assert shape.cautions == ()


def test_a_former_thinner_than_its_skins_is_no_wood() -> None:
    thin = BOX.but(half_width=2.0)
    assert shape_of(SKINNED, thin).wood == ()


def test_a_template_is_held_against_the_loft() -> None:
    misfit = misfit_of(BOX, Template(half_width=31.2, top=50.1, bottom=-41.0))
    assert misfit.worst == pytest.approx(1.2)
    said = misfit_sentence(misfit, "mm")
    assert "1.2 mm proud each side" in said
    assert "1.0 mm proud at the bottom" in said
    assert "top" not in said
    assert "fits" in misfit_sentence(
        misfit_of(BOX, Template(half_width=30, top=50, bottom=-40)), "mm"
    )


def test_a_bump_says_proud_or_hollow_by_its_line() -> None:
    assert "proud" in bump_sentence(Bump("bottom", "F3", 1.0, -1.0, 0.0), "mm")
    assert "hollow" in bump_sentence(Bump("top", "F3", 1.0, -1.0, 0.0), "mm")


def test_cut_outs_are_read_as_they_are_written() -> None:
    cutouts = read_cutouts("battery 40 x 32 at -12; tank 30x30; hole 1/4 x 1/2 at 5 mm", "mm")
    assert [(c.kind, c.width, c.height, c.z) for c in cutouts] == [
        ("battery", 40.0, 32.0, -12.0),
        ("tank", 30.0, 30.0, 0.0),
        ("hole", 6.35, 12.7, 5.0),
    ]
    assert read_cutouts(cutouts_text(cutouts, "mm"), "mm") == cutouts
    inches = read_cutouts(cutouts_text(cutouts, "in"), "in")
    assert inches[0].width == pytest.approx(40.0, abs=0.02)
    for wrong in ("battery", "battery 40 at 3", "bomb 3 x 3", "hole 0 x 3"):
        with pytest.raises(BadInput):
            read_cutouts(wrong, "mm")


def test_a_former_goes_to_a_drawing_and_comes_back(tmp_path: Path) -> None:
    (tmp_path / "F3.dxf").write_text(former_dxf(shape_of(SKINNED, BOX)))
    outlines = read_outlines(tmp_path / "F3.dxf")
    assert outlines[0].area == pytest.approx(60 * 90)
    made = former_from_outline("F9", 10.0, outlines[0].ring)
    assert (made.half_width, made.bottom, made.top) == (30.0, -40.0, 50.0)
    # its figures are changed afterwards: the outline is stretched to them
    wider = shape_of(Fuselage(), made.but(half_width=33.0))
    assert max(y for y, _ in wider.outside) == pytest.approx(33.0)


def test_lines_arcs_splines_and_inches_are_understood(tmp_path: Path) -> None:
    drawing = ezdxf.new("R2010", units=1)  # type: ignore[attr-defined]  # inches
    space = drawing.modelspace()
    space.add_line((0, 0), (2, 0))
    space.add_arc((2, 1), 1, -90, 90)
    space.add_line((0, 2), (2, 2))
    space.add_line((0, 2), (0, 0))
    space.add_circle((5, 5), 0.5)
    space.add_text("not a former")
    space.add_line((9, 9), (10, 10))
    drawing.saveas(tmp_path / "d.dxf")
    big, small = read_outlines(tmp_path / "d.dxf")
    assert big.area == pytest.approx((4 + 3.14159 / 2) * 25.4**2, rel=3e-3)
    assert small.area == pytest.approx(3.14159 * 12.7**2, rel=3e-3)


@pytest.mark.parametrize(
    "content", [b"", b"nonsense", b"\x00\xff" * 99, b"0\nSECTION\n2\nENTITIES\n0\nENDSEC\n0\nEOF\n"]
)
def test_what_is_no_drawing_is_told(tmp_path: Path, content: bytes) -> None:
    (tmp_path / "x.dxf").write_bytes(content)
    with pytest.raises(BadInput, match=r"x\.dxf"):
        read_outlines(tmp_path / "x.dxf")


def test_an_outline_that_closes_around_nothing_is_told() -> None:
    with pytest.raises(BadInput):
        former_from_outline("F", 0.0, [(0.0, 0.0), (1.0, 1.0)])
    with pytest.raises(BadInput):
        former_from_outline("F", 0.0, [(0.0, 0.0), (2.0, 2.0), (2.0, 0.0), (0.0, 2.0)])
