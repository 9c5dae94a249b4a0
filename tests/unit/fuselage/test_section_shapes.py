"""Section shapes: the contour is the equation, girth and area are its own, and the wood lies a skin inside."""

import json
from pathlib import Path
from typing import Any

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from hardkeel.base.errors import BadInput
from hardkeel.cli.commands import run_command
from hardkeel.fuselage.contours import (
    area_of,
    contour_of,
    fullness_through,
    girth_of,
    half_of,
    shoulder_of,
    widest_of,
)
from hardkeel.fuselage.cutting import shape_of
from hardkeel.fuselage.dragging import dragged
from hardkeel.fuselage.inside import blank_of
from hardkeel.fuselage.loft import former_at
from hardkeel.fuselage.model import Former, Fuselage, SectionShape, TailPost
from hardkeel.fuselage.surface import surface_of
from hardkeel.project.model import Build
from hardkeel.storage.format import build_from_text, text_of
from tests import sections_independent as second

EXPONENTS = (1.0, 1.3, 2.0, 2.6, 4.0, 12.0, 50.0)


def former(half: float, low: float, high: float, shape: SectionShape, **more: Any) -> Former:
    return Former(id="F1", station=0, bottom=low, top=high, half_width=half, section=shape, **more)


shapes = st.tuples(
    st.floats(8, 120),
    st.floats(-150, -10),
    st.floats(10, 150),
    st.floats(0.1, 0.9),
    st.sampled_from(EXPONENTS),
    st.sampled_from(EXPONENTS),
)


@given(shapes)
def test_the_contour_is_the_equation_and_its_girth_and_area_the_second_ways(
    given_: tuple[float, float, float, float, float, float],
) -> None:
    half, low, high, share, n, m = given_
    widest = low + share * (high - low)
    one = former(half, low, high, SectionShape(widest=widest, top=n, bottom=m))
    reference = second.points(half, low, high, widest, n, m)
    assert girth_of(one) == pytest.approx(second.girth(reference), rel=2e-4)
    assert area_of(one) == pytest.approx(second.area(half, low, high, widest, n, m), rel=3e-4)
    walked = shapely.LineString(half_of(one))
    picked = reference[:: len(reference) // 200]
    assert float(shapely.distance(walked, shapely.points(picked)).max()) < 0.02
    # and nothing of it lies beside the equation
    y, z = half_of(one).T
    tall, power = np.where(z > widest, high - widest, widest - low), np.where(z > widest, n, m)
    with np.errstate(divide="ignore"):
        left = np.abs(y / half) ** power + np.abs((z - widest) / tall) ** power
    assert left == pytest.approx(1.0, abs=1e-6)


@given(shapes, st.floats(0.5, 3.0))
def test_the_wood_lies_a_skin_inside_square_to_the_contour(
    given_: tuple[float, float, float, float, float, float], skin: float
) -> None:
    half, low, high, share, n, m = given_
    if half < 5 * skin or min(share, 1 - share) * (high - low) < 5 * skin:
        return
    widest = low + share * (high - low)
    one = former(half, low, high, SectionShape(widest=widest, top=n, bottom=m))
    fuselage = Fuselage(side_thickness=skin, top_skin=skin, bottom_skin=skin, formers=(one,))
    blank = shapely.Polygon(blank_of(fuselage, one))
    other = second.inside(half, low, high, widest, n, m, skin)
    ring = shapely.points(np.array(blank.exterior.coords))
    assert float(shapely.distance(other.exterior, ring).max()) < 0.02
    assert blank.area == pytest.approx(other.area, rel=1e-3)


def test_known_sections() -> None:
    circle = former(40, -40, 40, SectionShape())
    assert girth_of(circle) == pytest.approx(2 * np.pi * 40, rel=1e-4)
    assert area_of(circle) == pytest.approx(np.pi * 1600, rel=1e-4)
    diamond = former(30, -40, 40, SectionShape(top=1, bottom=1))
    assert girth_of(diamond) == pytest.approx(200.0)
    # Ramanujan's second formula: a textbook's
    oval = former(46, -51.5, 51.5, SectionShape())
    a, b = 46.0, 51.5
    h = ((a - b) / (a + b)) ** 2
    by_hand = np.pi * (a + b) * (1 + 3 * h / (10 + np.sqrt(4 - 3 * h)))
    assert girth_of(oval) == pytest.approx(by_hand, rel=1e-4)
    box = Former(id="F", station=0, bottom=-30, top=50, half_width=25, corner=8.0)
    assert girth_of(box) == pytest.approx(2 * (50 + 80) - 8 * 8 + 2 * np.pi * 8, rel=1e-4)
    assert area_of(box) == pytest.approx(50 * 80 - (4 - np.pi) * 64, rel=2e-4)


def test_a_round_top_on_a_flat_side_is_widest_where_it_is_said() -> None:
    one = former(35, -40, 45, SectionShape(widest=5.0, top=2.0, bottom=40.0))
    half = half_of(one)
    assert np.interp(5.0, half[:, 1], half[:, 0]) == pytest.approx(35.0, abs=0.01)
    assert half[:, 0].max() == pytest.approx(35.0, abs=0.01)
    assert tuple(half[0]) == pytest.approx((0.0, -40.0))
    assert tuple(half[-1]) == pytest.approx((0.0, 45.0))
    with pytest.raises(BadInput, match="widest"):
        contour_of(former(35, -40, 45, SectionShape(widest=60.0)))


def test_a_drawn_outline_keeps_its_own_shape_and_its_half_runs_from_keel_to_crown() -> None:
    ring = ((-30.0, -20.0), (30.0, -20.0), (20.0, 25.0), (0.0, 40.0), (-20.0, 25.0))
    one = Former(id="F", station=0, bottom=-20, top=40, half_width=30, outline=ring)
    assert area_of(one) == pytest.approx(shapely.Polygon(ring).area)
    half = half_of(one)
    assert tuple(half[0]) == pytest.approx((0.0, -20.0))
    assert tuple(half[-1]) == pytest.approx((0.0, 40.0))
    assert (half[:, 0] >= -1e-9).all()


def test_it_is_kept_in_the_file_and_told_by_the_command(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    formers = tuple(
        former(30 + 5 * i, -30, 40, SectionShape(top=2.4, bottom=2.0)).but(
            id=f"F{i}", station=60.0 * i
        )
        for i in range(4)
    )
    post = TailPost(station=300, bottom=-5, top=20, half_width=4)
    build = Build(
        format="hardkeel/1",
        fuselage=Fuselage(
            side_thickness=2, top_skin=2, bottom_skin=2, formers=formers, tail_post=post
        ),
    )
    again = build_from_text(text_of(build))
    assert again == build
    file = tmp_path / "oval.json"
    file.write_text(text_of(build))
    assert run_command(["frame", str(file), "--json"]) == 0
    loft = json.loads(capsys.readouterr().out)["loft"]
    assert [one["id"] for one in loft] == ["F0", "F1", "F2", "F3"]
    assert loft[1]["girth"] == pytest.approx(girth_of(formers[1]))
    ring = shapely.Polygon(loft[1]["contour"])
    assert ring.area == pytest.approx(loft[1]["area"])
    assert build.fuselage is not None
    wood = shape_of(build.fuselage, formers[1])
    assert shapely.Polygon(wood.outside).buffer(0.01).contains(shapely.Polygon(wood.wood[0]))


def test_a_file_with_nonsense_in_it_is_refused() -> None:
    for bad in ('{"kind": "egg"}', '{"kind": "superellipse", "top": 0.4}', '{"bottom": 90}'):
        text = (
            '{"format": "hardkeel/1", "fuselage": {"formers": [{"id": "F1", "station": 0, "bottom": -1, '
            f'"top": 1, "half_width": 1, "section": {bad}}}]}}}}'
        )
        with pytest.raises(BadInput, match="section"):
            build_from_text(text)


@given(shapes)
def test_a_hand_that_drags_the_shoulder_gets_the_fullness_that_passes_there(
    given_: tuple[float, float, float, float, float, float],
) -> None:
    half, low, high, share, n, m = given_
    one = former(half, low, high, SectionShape(widest=low + share * (high - low), top=n, bottom=m))
    for above, power in ((True, n), (False, m)):
        at = shoulder_of(one, above=above)
        inside = shapely.Polygon(contour_of(one)).exterior
        assert inside.distance(shapely.Point(at)) < 0.02
        assert fullness_through(one, at, above=above) == pytest.approx(power, rel=1e-3)
    assert fullness_through(one, (0.0, widest_of(one)), above=True) == pytest.approx(1.0, abs=1e-3)
    assert fullness_through(one, (half, high), above=True) == pytest.approx(50.0, abs=1e-3)


def test_a_round_former_keeps_where_it_is_widest_when_it_is_stretched() -> None:
    one = former(30, -20, 40, SectionShape(widest=10.0, top=2.2, bottom=3.0))
    fuselage = Fuselage(formers=(one, one.but(id="F2", station=100.0)))
    taller = dragged(fuselage, "F1", top=100.0).former("F1")
    assert taller is not None
    assert taller.section is not None
    assert taller.section.widest == pytest.approx(-20 + 0.5 * 120)
    wild = dragged(fuselage, "F1", widest=900.0).former("F1")
    assert wild is not None
    assert widest_of(wild) == 39.0
    through = dragged(fuselage, "F1", full_y=28.0, full_z=36.0).former("F1")
    assert through is not None
    ring = shapely.Polygon(contour_of(through)).exterior
    assert ring.distance(shapely.Point(28.0, 36.0)) < 0.05
    assert through.section is not None
    assert through.section.bottom == 3.0


def test_a_former_put_between_two_round_ones_is_round_between_them() -> None:
    a = former(30, -20, 40, SectionShape(widest=10.0, top=2.0, bottom=3.0))
    b = a.but(id="F2", station=100.0, section=SectionShape(widest=25.0, top=4.0, bottom=3.0))
    made = former_at(Fuselage(formers=(a, b)), 50.0, "F3")
    assert made.section is not None
    # as full as the skin there: half way between both contours, point by point, not half way between exponents
    assert 2.2 < made.section.top < 3.0
    assert made.section.bottom == pytest.approx(3.0, abs=0.03)
    assert made.section.widest == pytest.approx(17.5)
    skin = float(surface_of(Fuselage(formers=(a, b))).area(np.array([50.0]))[0])
    assert area_of(made) == pytest.approx(skin, rel=1e-3)
    boxes = former_at(Fuselage(formers=(a.but(section=None), b.but(section=None))), 50.0, "F3")
    assert boxes.section is None
