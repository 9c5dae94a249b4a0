"""Outlines as they are met in real drawings: blocks, layers off, lines twice, ends that hardly meet."""

import math
from collections.abc import Callable
from pathlib import Path

import pytest
from ezdxf.document import Drawing
from ezdxf.filemanagement import new
from ezdxf.layouts.blocklayout import BlockLayout

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.storage.lettered_stations import lettered, station_of
from hardkeel.storage.outlines import Outline, apart, called, read_outlines

BOX = [(0.0, 0.0), (60.0, 0.0), (60.0, 80.0), (0.0, 80.0)]
Draw = Callable[[Drawing], object]


@pytest.fixture
def drawn(tmp_path: Path) -> Callable[[Draw], Path]:
    def write(draw: Draw) -> Path:
        drawing = new("R2010", units=4)
        draw(drawing)
        path = tmp_path / "former.dxf"
        drawing.saveas(path)
        return path

    return write


def lines(
    where: Drawing | BlockLayout, points: list[tuple[float, float]], layer: str = "0"
) -> None:
    space = where.modelspace() if isinstance(where, Drawing) else where
    for a, b in zip(points, [*points[1:], points[0]], strict=True):
        space.add_line(a, b, dxfattribs={"layer": layer})


def test_a_former_in_a_block_in_a_block_is_found_where_it_is_put(
    drawn: Callable[[Draw], Path],
) -> None:
    def draw(drawing: Drawing) -> None:
        inner = drawing.blocks.new("former")
        inner.add_lwpolyline(BOX, close=True)
        outer = drawing.blocks.new("sheet")
        outer.add_blockref("former", (100, 0))
        drawing.modelspace().add_blockref("sheet", (0, 50), dxfattribs={"xscale": 2, "yscale": 2})

    [found] = read_outlines(drawn(draw))
    assert found.area == pytest.approx(4 * 60 * 80)
    assert min(x for x, _ in found.ring) == pytest.approx(200)


@pytest.mark.parametrize("how", ["off", "frozen"])
def test_what_is_not_to_be_seen_is_left_out(drawn: Callable[[Draw], Path], how: str) -> None:
    def draw(drawing: Drawing) -> None:
        layer = drawing.layers.add("OLD")
        layer.off() if how == "off" else layer.freeze()
        drawing.modelspace().add_circle((0, 0), 300, dxfattribs={"layer": "old"})
        block = drawing.blocks.new("b")
        block.add_circle((0, 0), 200, dxfattribs={"layer": "OLD"})
        drawing.modelspace().add_blockref("b", (0, 0))
        lines(drawing, BOX)

    [found] = read_outlines(drawn(draw))
    assert found.area == pytest.approx(4800)


def test_a_line_drawn_twice_counts_once(drawn: Callable[[Draw], Path]) -> None:
    def draw(drawing: Drawing) -> None:
        lines(drawing, BOX)
        lines(drawing, BOX[::-1])
        drawing.modelspace().add_lwpolyline(BOX, close=True)

    [found] = read_outlines(drawn(draw))
    assert found.area == pytest.approx(4800)
    assert found.gap == 0


@pytest.mark.parametrize(("gap", "closes"), [(0.03, True), (0.15, True), (0.4, False)])
def test_ends_that_hardly_meet_are_joined_and_told(
    drawn: Callable[[Draw], Path], gap: float, closes: bool
) -> None:
    def draw(drawing: Drawing) -> None:
        space = drawing.modelspace()
        space.add_line((0, 0), (60, 0))
        space.add_line((60, gap), (60, 40))
        space.add_arc((30, 40), 30, 0, 180)
        space.add_line((0, 40), (0, gap))

    path = drawn(draw)
    if not closes:
        with pytest.raises(BadInput, match="no closed line"):
            read_outlines(path)
        return
    [found] = read_outlines(path)
    assert found.area == pytest.approx(60 * 40 + math.pi * 450, rel=0.01)
    assert found.gap == (0 if gap < 0.05 else pytest.approx(gap))


def test_an_outline_with_its_centre_line_drawn_across_is_found_whole(
    drawn: Callable[[Draw], Path],
) -> None:
    """The halves close too, and are offered after it; a line that only touches it closes nothing."""

    def draw(drawing: Drawing) -> None:
        lines(drawing, [(0, 0), (30, 0), (60, 0), (60, 80), (30, 80), (0, 80)])
        space = drawing.modelspace()
        space.add_line((30, 0), (30, 80))
        space.add_line((60, 80), (90, 100))

    found = read_outlines(drawn(draw))
    assert [round(one.area) for one in found] == [4800, 2400, 2400]
    assert len(found[0].ring) == 6


def test_small_lines_of_a_curve_are_not_drawn_together(drawn: Callable[[Draw], Path]) -> None:
    """Pieces shorter than the gap that is closed: the ring keeps them all."""
    ring = [
        (20 * math.cos(i * math.tau / 900), 20 * math.sin(i * math.tau / 900)) for i in range(900)
    ]
    [found] = read_outlines(drawn(lambda drawing: lines(drawing, ring)))
    assert len(found.ring) == 900
    assert found.area == pytest.approx(math.pi * 400, rel=1e-4)
    assert found.gap == 0.0


def test_the_sheets_border_is_not_taken_for_the_former(drawn: Callable[[Draw], Path]) -> None:
    def draw(drawing: Drawing) -> None:
        drawing.modelspace().add_lwpolyline(
            [(-80, -60), (217, -60), (217, 150), (-80, 150)], close=True
        )
        lines(drawing, BOX)
        drawing.modelspace().add_circle((30, 40), 12)

    found = read_outlines(drawn(draw))
    assert [round(one.area) for one in found] == [4800, 452, 62370]


def test_a_rectangular_former_keeps_its_place_before_its_opening(
    drawn: Callable[[Draw], Path],
) -> None:
    def draw(drawing: Drawing) -> None:
        lines(drawing, BOX)
        drawing.modelspace().add_circle((30, 40), 12)

    assert read_outlines(drawn(draw))[0].area == pytest.approx(4800)


def box(x: float, wide: float, tall: float) -> list[tuple[float, float]]:
    return [(x, 0.0), (x + wide, 0.0), (x + wide, tall), (x, tall)]


def test_of_a_whole_set_each_former_is_found_by_what_is_written_in_it(
    drawn: Callable[[Draw], Path],
) -> None:
    def draw(drawing: Drawing) -> None:
        space = drawing.modelspace()
        for i, name in enumerate(("F2", "F3", "F4 3 mm lite ply")):
            space.add_lwpolyline(box(100.0 * i, 40 + 10 * i, 60), close=True)
            space.add_circle((100 * i + 20, 20), 8)  # a hole is no former
            space.add_text(name, height=5).set_placement((100 * i + 4, 40))
        border = [(-60, -60), (440, -60), (440, 340), (-60, 340)]
        space.add_lwpolyline(border, close=True)

    found = apart(read_outlines(drawn(draw)))
    widths = {name: width(one) for name, one in called(found, ["F1", "F2", "F3", "F4"]).items()}
    assert len(found) == 3
    assert widths == pytest.approx({"F2": 40, "F3": 50, "F4": 60})


def width(one: Outline) -> float:
    return max(x for x, _ in one.ring) - min(x for x, _ in one.ring)


def test_a_block_or_a_layer_names_its_outline_and_two_alike_name_none(
    drawn: Callable[[Draw], Path],
) -> None:
    def draw(drawing: Drawing) -> None:
        for name, wide in (("F2", 40), ("F3", 50)):
            lines(drawing.blocks.new(name), box(0, wide, 60))  # lines that close, not a polyline
        space = drawing.modelspace()
        space.add_blockref("F2", (0, 0))
        space.add_blockref("F3", (100, 0))
        space.add_blockref("F3", (200, 0))
        space.add_lwpolyline(box(300, 70, 60), close=True, dxfattribs={"layer": "f5"})

    found = apart(read_outlines(drawn(draw)))
    named = called(found, ["F2", "F3", "F5"])
    assert {name: width(one) for name, one in named.items()} == pytest.approx({"F2": 40, "F5": 70})


def test_a_centre_line_across_a_former_makes_no_two_of_it(drawn: Callable[[Draw], Path]) -> None:
    def draw(drawing: Drawing) -> None:
        lines(drawing, BOX)
        drawing.modelspace().add_line((30, 0), (30, 80))

    assert [one.area for one in apart(read_outlines(drawn(draw)))] == pytest.approx([4800])


@pytest.mark.parametrize(
    ("texts", "bare", "station"),
    [
        (("F4 at 281.7",), "mm", 281.7),
        (("F4", "Sta. 281.7 mm"), "mm", 281.7),
        (("F4 @ 11-1/2",), "in", 292.1),
        (('F4 station 11 1/2"',), "mm", 292.1),
        (("F4 x = -12,5",), "mm", -12.5),
        (("F4 3 mm ply",), "mm", None),
        (("F4 flat 281.7",), "mm", None),  # no word that ends in "at"
        (("F4 at 281.7", "at 280"), "mm", None),  # two things
        (("F4 at 281.7", "x = 281.7"), "mm", 281.7),
    ],
)
def test_a_lettered_station_is_read_where_it_says_that_it_is_one(
    texts: tuple[str, ...], bare: LengthUnit, station: float | None
) -> None:
    assert station_of(texts, bare) == (None if station is None else pytest.approx(station))


def test_outlines_with_name_and_station_are_told_by_station(
    drawn: Callable[[Draw], Path],
) -> None:
    told = ["F6 at 300", "at 120 F4 ply", "F9", "f6x at 120", "F5 sta 200"]

    def draw(drawing: Drawing) -> None:
        for i, text in enumerate(told):
            lines(drawing, [(x + 100 * i, y) for x, y in BOX])
            drawing.modelspace().add_text(text, height=4).set_placement((100 * i + 5, 40))

    found = lettered(read_outlines(drawn(draw)), "mm")
    assert {name: at for name, (_, at) in found.items()} == {"F5": 200.0, "F6": 300.0}
    assert list(found) == ["F5", "F6"], "two stand at 120: neither is sure"
