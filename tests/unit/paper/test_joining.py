"""Two scans of one drawing: what both show is found, and what is not there is told."""

import math

import numpy as np
import pytest

from hardkeel.base.errors import BadInput
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import paper as edits
from hardkeel.edits.picks import point_named
from hardkeel.paper import joining
from hardkeel.paper.calibrating import calibrate
from hardkeel.paper.ink import Ink
from hardkeel.paper.joining import same_places
from hardkeel.paper.model import KnownPoint, Plan, Trace
from hardkeel.paper.picking import picked_stations
from tests.inked import Drawing, Ring, scanned

DPI = 150


def pieces(seed: int, *, turned: float, overlap: float = 45.0) -> tuple[Drawing, Drawing]:
    """A drawing of lines any way, cut in two that overlap; the second laid on the glass askew."""
    rng = np.random.default_rng(seed)
    lines = []
    for _ in range(26):
        middle = rng.uniform((10, 10), (230, 110))
        way, half = rng.uniform(0, math.pi), rng.uniform(15, 60)
        run = half * np.array([math.cos(way), math.sin(way)])
        lines.append(np.array([middle - run, middle + run]))
    first, second = Drawing((120 + overlap / 2, 120)), Drawing((130, 130))
    for line in lines:
        first.line(line, 0.35)
        second.line(moved(line, turned, overlap), 0.35)
    return first, second


def moved(points: Ring, turned: float, overlap: float) -> Ring:
    """Where the first one's places lie on the second sheet, mm."""
    turn = math.radians(turned)
    cos, sin = math.cos(turn), math.sin(turn)
    low = np.array([120 - overlap / 2, 0.0])
    return np.asarray((points - low) @ np.array([[cos, sin], [-sin, cos]]) + (3.0, 5.0))


@pytest.mark.parametrize(("seed", "turned"), [(1, 0.0), (2, 1.3), (3, -2.2)])
def test_what_both_show_is_found_to_a_tenth(seed: int, turned: float) -> None:
    scale = DPI / 25.4
    one, other = (Ink(scanned(piece, DPI), scale) for piece in pieces(seed, turned=turned))
    found = same_places(one, other)
    assert len(found) >= 5
    off = [
        np.hypot(*(moved(np.array([p.one]) / scale, turned, 45.0)[0] - np.array(p.other) / scale))
        for p in found
    ]
    assert max(off) < 0.3
    assert float(np.median(off)) < 0.08


def test_sheets_that_have_nothing_in_common_are_told() -> None:
    scale = DPI / 25.4
    first, second = pieces(1, turned=0.0)[0], pieces(8, turned=0.0)[1]
    with pytest.raises(BadInput, match=r"in common|overlap"):
        same_places(Ink(scanned(first, DPI), scale), Ink(scanned(second, DPI), scale))


def test_a_point_is_known_by_the_end_of_a_former() -> None:
    fuselage = demo_build().fuselage
    assert fuselage is not None
    stop = dict(fuselage.stations)["F4"]
    found = point_named(fuselage, (5.0, 6.0), "f4 Top")
    assert found is not None
    assert found.plan == (stop.station, stop.top)
    assert point_named(fuselage, (0.0, 0.0), "50, 70") is None
    assert point_named(fuselage, (0.0, 0.0), "F4").plan == (stop.station, 0.0)  # type: ignore[union-attr]
    post = point_named(fuselage, (0.0, 0.0), "post bottom")
    assert post is not None
    assert post.plan == (fuselage.tail_post.station, fuselage.tail_post.bottom)  # type: ignore[union-attr]
    with pytest.raises(BadInput, match="no former F77"):
        point_named(fuselage, (0.0, 0.0), "F77 top")


def test_a_sheet_placed_by_known_points_needs_no_datum_of_its_own() -> None:
    spots = ((100.0, 50.0), (100.0, -40.0), (300.0, 20.0), (300.0, -30.0))
    points = tuple(
        KnownPoint(pixel=(10 * (x - 80), 1000 - 10 * y), plan=(x, y), of="nose") for x, y in spots
    )
    plan = Plan(id="tail", image="plans/t.png", points=points)
    clicked = Trace(id="stations", kind="stations", pixels=((10 * (250 - 80), 995.0),))
    row = picked_stations(plan.but(traces=(clicked,)), calibrate(plan))[0]
    assert row.station == pytest.approx(250, abs=1e-6)
    printed = plan.but(points=tuple(point.but(of=None) for point in points), traces=(clicked,))
    with pytest.raises(BadInput, match="datum"):
        picked_stations(printed, calibrate(printed))


def test_beyond_a_crease_the_same_image_is_laid_again() -> None:
    plan = Plan(id="page", image="plans/p.png", origin=(3.0, 4.0), size=(100, 80))
    build = edits.lay_again(edits.add_plan(demo_build(), plan), "page")
    build = edits.lay_again(build, "page")
    last = build.plans[-1]
    assert (last.id, last.image, last.origin, last.size) == (
        "page, part 3",
        "plans/p.png",
        None,
        (100, 80),
    )


def test_a_piece_is_sought_as_by_laying_it_at_every_place() -> None:
    """Against the correlation coefficient of every place, one by one."""
    rng = np.random.default_rng(3)
    for shape, size in (((30, 34), (9, 11)), ((25, 25), (25, 25)), ((40, 28), (7, 7))):
        window = rng.normal(200, 20, shape)
        v, u = min(3, shape[0] - size[0]), min(2, shape[1] - size[1])
        piece = window[v : v + size[0], u : u + size[1]] + rng.normal(0, 2, size)
        rows, columns = shape[0] - size[0] + 1, shape[1] - size[1] + 1
        if rows < 3 or columns < 3:
            assert joining._searched(window, piece)[0] == -1.0  # noqa: SLF001
            continue
        by_place = np.array(
            [
                [
                    np.corrcoef(window[v : v + size[0], u : u + size[1]].ravel(), piece.ravel())[
                        0, 1
                    ]
                    for u in range(columns)
                ]
                for v in range(rows)
            ]
        )
        alike, at = joining._searched(window, piece)  # noqa: SLF001
        assert alike == pytest.approx(by_place.max(), abs=1e-6)
        row, column = np.unravel_index(by_place.argmax(), by_place.shape)
        assert np.abs(at - (column, row)).max() <= 0.5
