"""Corners on the lines of a cabin: what is drawn as one is no bump, and no curve goes through it."""

import numpy as np
import pytest

from hardkeel.base.errors import BadInput
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import fuselage as edits
from hardkeel.export.framing import plate_dxf
from hardkeel.export.plates import CutterWay, nested_plate
from hardkeel.export.svg import plate_svg
from hardkeel.fuselage.bending import bends_of
from hardkeel.fuselage.fairing import bumps_of
from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.model import Former, Fuselage, Line, Longeron, Section, TailPost
from hardkeel.fuselage.sheeted import bends_at_corners, blanks_of
from hardkeel.fuselage.surface import surface_of
from hardkeel.geometry.spline import NaturalCubic, arc_lengths
from hardkeel.joinery.nesting import nested
from hardkeel.messages.frame import bend_answer
from hardkeel.project.model import Build

STATIONS = (0.0, 40.0, 80.0, 120.0, 180.0, 240.0, 300.0, 360.0, 420.0)


def top(x: float) -> float:
    """Cowl, a windscreen from 80 to 120, a cabin roof and a curve to the tail."""
    if x <= 80:
        return 30 + 0.05 * x
    if x <= 120:
        return 34 + 0.8 * (x - 80)
    return float(66 - 40 * ((x - 120) / 340) ** 1.8)


def cabin(*, declared: bool) -> Build:
    corners: dict[float, tuple[Line, ...]] = {80.0: ("top",), 120.0: ("top",)} if declared else {}
    formers = tuple(
        Former(
            id=f"F{i}",
            station=x,
            bottom=-30 + 20 * (x / 460) ** 2,
            top=top(x),
            half_width=26 - 20 * (x / 460) ** 1.5,
            corner=4.0,
            line_corners=corners.get(x, ()),
        )
        for i, x in enumerate(STATIONS, start=1)
    )
    post = TailPost(station=460, bottom=-10.0, top=top(460), half_width=6.0)
    return Build(fuselage=Fuselage(formers=formers, tail_post=post, side_thickness=2))


def fuselage(*, declared: bool) -> Fuselage:
    made = cabin(declared=declared).fuselage
    assert made is not None
    return made


def test_a_windscreen_is_a_bump_until_it_is_said_to_be_a_corner() -> None:
    assert any(bump.line == "top" for bump in bumps_of(fuselage(declared=False)))
    assert not [bump for bump in bumps_of(fuselage(declared=True)) if bump.line == "top"]


def test_a_bump_behind_the_cabin_is_still_found() -> None:
    made = fuselage(declared=True)
    dented = made.but(
        formers=tuple(f.but(top=f.top - 4) if f.id == "F7" else f for f in made.formers)
    )
    found = [bump for bump in bumps_of(dented) if bump.line == "top"]
    assert [bump.former for bump in found] == ["F7"]
    assert found[0].off == pytest.approx(-4, abs=0.8)


def test_the_lines_are_straight_between_two_corners_and_smooth_elsewhere() -> None:
    loft = loft_of(fuselage(declared=True))
    at = np.linspace(80, 120, 21)
    assert loft.top.value(at) == pytest.approx([top(float(x)) for x in at], abs=1e-9)
    assert float(loft.top.slope(79.999)) == pytest.approx(0.05, abs=0.02)
    assert float(loft.top.slope(80.001)) == pytest.approx(0.8, abs=1e-6)
    plain = loft_of(fuselage(declared=False))
    assert loft.bottom.value(at) == pytest.approx(plain.bottom.value(at))


def test_each_piece_is_the_batten_that_it_would_be_by_itself() -> None:
    x = np.array([0.0, 3, 7, 12, 20, 24, 31])
    y = np.array([0.0, 2, 1, 5, 4, 4.5, 9])
    broken = NaturalCubic(x, y, (3,))
    first, second = NaturalCubic(x[:4], y[:4]), NaturalCubic(x[3:], y[3:])
    at = np.linspace(0, 31, 200)
    want = np.where(at < 12, first.value(at), second.value(at))
    assert broken.value(at) == pytest.approx(want)
    assert broken.energy == pytest.approx(first.energy + second.energy)
    length = float(arc_lengths((broken,), x)[-1])
    parts = arc_lengths((first,), x[:4])[-1] + arc_lengths((second,), x[3:])[-1]
    assert length == pytest.approx(float(parts))


def test_the_skin_has_no_step_between_what_breaks_and_what_runs_on() -> None:
    made = fuselage(declared=True)
    skin, loft = surface_of(made), loft_of(made)
    at = np.linspace(60, 140, 33)
    half = skin.half(at)
    assert half[:, -1, 1] == pytest.approx(loft.top.value(at), abs=1e-6)  # the crown
    assert half[:, 0, 1] == pytest.approx(loft.bottom.value(at), abs=1e-6)
    assert half[:, :, 0].max(axis=1) == pytest.approx(loft.half_width.value(at), abs=0.05)
    plain = surface_of(fuselage(declared=False)).half(at)
    steps, before = np.abs(np.diff(half, axis=1)), np.abs(np.diff(plain, axis=1))
    assert steps.max() < before.max() + 0.6


def test_a_corner_is_said_and_taken_back_and_goes_along_with_its_former() -> None:
    build = edits.set_line_corner(cabin(declared=False), "F3", "top", on=True)
    build = edits.set_line_corner(build, "F3", "top", on=True)
    build = edits.rename_former(build, "F3", "screen")
    assert build.fuselage is not None
    assert build.fuselage.former("screen").line_corners == ("top",)  # type: ignore[union-attr]
    build = edits.set_line_corner(build, "screen", "top", on=False)
    assert build.fuselage.former("screen").line_corners == ()  # type: ignore[union-attr]
    with pytest.raises(BadInput, match="stands first"):
        edits.set_line_corner(demo_build(), "F1", "top", on=True)


def test_a_longeron_is_joined_at_a_corner_and_not_called_bent_there() -> None:
    longeron = Longeron(id="upper", section=(6.0, 6.0))
    told = {}
    for declared in (False, True):
        made = fuselage(declared=declared).but(longerons=(longeron,))
        told[declared] = next(b for b in bends_of(made, {}) if b.member.endswith("the side"))
    assert (told[False].radius or 0) < 60
    assert (told[True].radius or 0) > 600
    assert told[True].corners == ("F3", "F4")
    assert "cut and joined at its corners, F3, F4" in bend_answer(told[True])


def bent_box(*, declared: bool) -> Fuselage:
    """Sides parallel to F4, then closing in straight by a tenth."""
    formers = tuple(
        Former(
            id=f"F{i}", station=100.0 * i, bottom=-40.0, top=40.0,
            half_width=30.0 - max(0.0, 10.0 * (i - 4)),
            line_corners=("half_width",) if declared and i == 4 else (),
        )
        for i in range(1, 7)
    )  # fmt: skip
    sections = (Section.model_validate({"from": "F1", "to": "F6", "method": "sheet-sides"}),)
    return Fuselage(
        formers=formers, sections=sections, side_thickness=2.0, side_material="balsa-medium"
    )


def test_a_side_is_scored_where_its_line_has_a_corner() -> None:
    """The bend by hand: the sides turn in by atan(1/10) at F4, 300 mm behind where they begin."""
    assert bends_at_corners(bent_box(declared=False)) == {}
    fuselage = bent_box(declared=True)
    assert bends_at_corners(fuselage) == pytest.approx({"F4": np.degrees(np.arctan(0.1))}, abs=0.02)
    (side,) = blanks_of(fuselage)
    (bend,) = [mark for mark in side.marks if mark.role == "bend"]
    assert bend.text == "F4, bend 5.7°"
    assert [u for u, _ in bend.points] == pytest.approx([300.0, 300.0], abs=0.05)
    assert "F4" not in [mark.text for mark in side.marks if mark.role == "station"]
    sheet = nested([side], (1000.0, 100.0), 2.0)[0]
    plate = nested_plate(sheet, "sheet", CutterWay())
    (score,) = [stroke for stroke in plate.strokes if stroke.layer == "SCORE"]
    assert not score.closed
    (piece,) = [stroke for stroke in plate.strokes if stroke.layer == "CUT"]
    xs = [u for u, _ in piece.points]
    at = score.points[0][0]
    assert min(at - min(xs), max(xs) - at) == pytest.approx(200 / np.cos(np.arctan(0.1)), abs=0.1)
    assert "SCORE" in plate.note
    assert b"SCORE" in plate_dxf(plate).encode()
    assert 'class="SCORE"' in plate_svg(plate)
