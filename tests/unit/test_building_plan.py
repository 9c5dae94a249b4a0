"""The building plan: every stick is there as it is cut, and no word lies over wood or another word."""

import io
import json
import math
import re
from collections.abc import Callable
from itertools import combinations
from pathlib import Path

import numpy as np
import pytest
from ezdxf.entities.lwpolyline import LWPolyline
from ezdxf.filemanagement import read
from pypdf import PdfReader
from shapely import LineString, Polygon, STRtree, points

from hardkeel.cli.commands import run_command
from hardkeel.demo.biplane import teasel
from hardkeel.demo.fleet import marram, sallow, withy
from hardkeel.demo.kettlewick import demo_build
from hardkeel.demo.other_shapes import bracken, tansy, yarrow
from hardkeel.demo.planked import sorrel
from hardkeel.export.building_plan import drawings_of, plan_files
from hardkeel.export.plan_drawing import LAYERS, PlanDrawing
from hardkeel.fuselage.fitting import fitted_formers
from hardkeel.fuselage.gussets import gusset_places, gussets_of
from hardkeel.fuselage.loft import loft_of
from hardkeel.project.model import Build
from hardkeel.storage.format import text_of
from hardkeel.tail.stick_frame import frame_cut_list

MADE: list[Callable[[], Build]] = [demo_build, withy]
ALL = [demo_build, withy, marram, sallow, sorrel, teasel, bracken, yarrow, tansy]


def sticks_in(data: bytes) -> list[np.ndarray]:
    drawing = read(io.StringIO(data.decode()))
    found = [e for e in drawing.modelspace().query("LWPOLYLINE") if e.dxf.layer == "STICKS"]
    assert all(isinstance(one, LWPolyline) and one.closed for one in found)
    return [np.array(one.get_points("xy")) for one in found if isinstance(one, LWPolyline)]


def axis_of(outline: np.ndarray) -> np.ndarray:
    """Along its two long faces, which alone are parallel but for the ends' own: a cut may be longer than a face."""
    edges = np.roll(outline, -1, axis=0) - outline
    long = np.hypot(*edges.T)
    ways = edges / long[:, None]
    pairs = [
        (long[i] + long[j], i)
        for i, j in combinations(range(len(edges)), 2)
        if float(ways[i] @ ways[j]) < -1 + 1e-9
    ]
    found: np.ndarray = ways[max(pairs)[1]]
    return found


def longest(outline: np.ndarray) -> float:
    """The longest extent along its own axis."""
    return float(np.ptp(outline @ axis_of(outline)))


@pytest.mark.parametrize("make", MADE)
def test_every_stick_of_the_frame_lies_in_its_drawing(
    make: Callable[[], Build], tmp_path: object, capsys: pytest.CaptureFixture[str]
) -> None:
    build = make()
    path = f"{tmp_path}/build.json"
    with open(path, "w", encoding="utf-8") as out:  # noqa: PTH123
        out.write(text_of(build))
    assert run_command(["frame", path, "--json"]) == 0
    frame = json.loads(capsys.readouterr().out)
    wanted = [p for p in frame["cut_list"] if p["kind"] in ("upright", "diagonal")]
    drawn = sticks_in(plan_files(build, "mm")["plan-side.dxf"])
    assert len(drawn) == sum(part["quantity"] for part in wanted) // 2  # once for the pair
    uprights = sorted(
        p["length"] for p in wanted if p["kind"] == "upright" for _ in range(p["quantity"] // 2)
    )
    heights = sorted(float(np.ptp(one[:, 1])) for one in drawn if _is_upright(one))
    assert heights == pytest.approx(uprights, abs=0.02)


def _is_upright(outline: np.ndarray) -> bool:
    """Two faces square to the datum."""
    return len({round(float(u), 4) for u, _ in outline}) == 2


@pytest.mark.parametrize("make", MADE)
def test_a_tail_of_sticks_is_drawn_with_both_halves(make: Callable[[], Build]) -> None:
    build = make()
    files = plan_files(build, "mm")
    for surface in build.tail:
        name = f"plan-{surface.id}.dxf"
        if name not in files:
            continue
        parts = frame_cut_list(surface)
        drawn = sticks_in(files[name])
        assert len(drawn) == sum(part.quantity for part in parts)
        area = sum(Polygon(one).area for one in drawn)
        sides = 1 if surface.upright else 2
        wanted = sides * sum(Polygon(part.outline).area for part in parts)
        assert area == pytest.approx(wanted, rel=1e-3)


@pytest.mark.parametrize("make", ALL)
def test_no_word_lies_over_a_line_or_another_word(make: Callable[[], Build]) -> None:
    for drawing in drawings_of(make(), "mm"):
        wood = [
            Polygon(line.points).buffer(-0.05)
            for line in drawing.lines
            if line.closed and line.layer in ("STICKS", "GUSSETS", "PINS")
        ]
        edges = [
            LineString([*line.points, line.points[0]])
            for line in drawing.lines
            if line.closed and line.layer in ("OUTLINE", "FORMERS")
        ]
        lines = STRtree([*wood, *edges])
        boxes = [words.box for words in drawing.words]
        for words, box in zip(drawing.words, boxes, strict=True):
            struck = lines.query(box, predicate="intersects")
            assert not len(struck), f"{drawing.name}: {words.text} at {words.at}"
        for i, j in STRtree(boxes).query(boxes, predicate="intersects").T:
            both = f"{drawing.words[i].text} / {drawing.words[j].text}"
            assert i == j, f"{drawing.name}: {both} at {drawing.words[i].at}"


def test_all_sticks_are_named_and_the_layers_are_the_contracts() -> None:
    side = next(one for one in drawings_of(demo_build(), "mm") if one.name == "side")
    assert isinstance(side, PlanDrawing)
    named = {words.text for words in side.words}
    sticks = [line for line in side.lines if line.layer == "STICKS"]
    assert sum(name[:1] in "UD" and name[1:].isdigit() for name in named) == len(sticks)
    drawing = read(io.StringIO(side.dxf()))
    assert set(LAYERS) <= {layer.dxf.name for layer in drawing.layers}
    assert drawing.units == 4  # millimetres
    assert side.svg().startswith("<?xml")
    assert 'id="PINS"' in side.svg()


def test_the_board_says_how_high_each_former_stands() -> None:
    build = sallow()
    assert build.fuselage is not None
    board = next(one for one in drawings_of(build, "mm") if one.name == "board")
    words = {one.text for one in board.words}
    wanted = {
        f"block {fitted.spacer:.1f} mm"
        for fitted in fitted_formers(build.fuselage)
        if fitted.spacer
    }
    assert wanted <= words
    stations = [line for line in board.lines if line.layer == "STATIONS"]
    assert [line.points[0][0] for line in stations] == [
        stop.station for _, stop in build.fuselage.stations
    ]


def test_from_above_the_sides_lie_where_the_loft_has_them() -> None:
    build = demo_build()
    assert build.fuselage is not None
    top = next(one for one in drawings_of(build, "mm") if one.name == "top")
    outside = np.concatenate(
        [np.array(line.points) for line in top.lines if line.layer == "OUTLINE"]
    )
    loft = loft_of(build.fuselage)
    for (name, stop), x in zip(build.fuselage.stations, loft.stations, strict=True):
        there = outside[np.abs(outside[:, 0] - x) < 1e-6, 1]
        assert np.abs(there).max() == pytest.approx(stop.half_width, abs=0.001), name


def test_the_pages_hold_the_drawings_at_full_size() -> None:
    build = withy()
    drawings = drawings_of(build, "mm")
    files = plan_files(build, "mm", "Letter")
    whole = PdfReader(io.BytesIO(files["plan.pdf"]))
    assert len(whole.pages) == len(drawings)
    for page, drawing in zip(whole.pages, drawings, strict=True):
        wide = float(page.mediabox.width) / 72 * 25.4
        assert wide == pytest.approx(max(drawing.size[0], 220.0) + 30, abs=0.01)
    tiled = PdfReader(io.BytesIO(files["plan-Letter.pdf"]))
    assert len(tiled.pages) > len(drawings)
    assert all(
        (round(float(p.mediabox.width)), round(float(p.mediabox.height))) == (612, 792)
        for p in tiled.pages
    )
    first = tiled.pages[0].extract_text()
    assert "Sides" in first
    assert "full size" in whole.pages[0].extract_text()


def test_a_drawing_turned_upright_is_the_same_drawing() -> None:
    for drawing in drawings_of(withy(), "mm"):
        turned = drawing.upright()
        assert turned.size == pytest.approx(drawing.size[::-1], abs=0.01)
        areas = [
            sorted(Polygon(line.points).area for line in one.lines if line.layer == "STICKS")
            for one in (drawing, turned)
        ]
        assert areas[0] == pytest.approx(areas[1])
        assert all(
            -90 <= words.turn <= 90.001 for words in turned.words
        )  # nobody reads upside down


# -- what is built over it is what is cut: against the command's own figures ------------------------


def angles_at(outline: np.ndarray, part: dict[str, object]) -> None:
    """Every angle that the list says is one between two neighbouring edges of the drawing, or their supplement."""
    corners = []
    count = len(outline)
    for i in range(count):
        a, b = outline[i - 1] - outline[i], outline[(i + 1) % count] - outline[i]
        cos = float(a @ b / np.hypot(*a) / np.hypot(*b))
        inside = math.degrees(math.acos(max(-1.0, min(1.0, cos))))
        corners += [inside, 180 - inside]
    long = axis_of(outline)
    for i in range(count):
        edge = outline[(i + 1) % count] - outline[i]
        cos = abs(float(edge @ long / np.hypot(*edge)))
        corners.append(math.degrees(math.acos(min(1.0, cos))))
    for name in ("angle_a", "angle_b"):
        for angle in np.atleast_1d(np.array(part[name], float)):
            assert min(abs(one - angle) for one in corners) < 0.02, part


@pytest.mark.parametrize("make", [demo_build, withy, teasel])
def test_length_and_angles_of_every_stick_are_in_its_drawing(
    make: Callable[[], Build], tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    build = make()
    path = tmp_path / "build.json"
    path.write_text(text_of(build), encoding="utf-8")
    assert run_command(["frame", str(path), "--json"]) == 0
    frame = json.loads(capsys.readouterr().out)
    wanted = [p for p in frame["cut_list"] if p["kind"] in ("upright", "diagonal")]
    assert wanted
    data = plan_files(build, "mm")["plan-side.dxf"]
    drawn = sticks_in(data)
    assert all(Polygon(one).is_valid for one in drawn)
    left = list(drawn)
    for part in wanted:
        for _ in range(part["quantity"] // 2):
            outline = min(left, key=lambda one: abs(extent(one, part) - part["length"]))
            assert extent(outline, part) == pytest.approx(part["length"], abs=0.02), part
            angles_at(outline, part)
            left = [one for one in left if one is not outline]
    assert not left
    # they touch the longerons, and lie over nothing
    space = read(io.StringIO(data.decode())).modelspace()
    outlines = [
        Polygon(e.get_points("xy"))
        for e in space.query("LWPOLYLINE")
        if e.dxf.layer == "OUTLINE" and isinstance(e, LWPolyline) and e.closed
    ]
    shapes = [Polygon(one) for one in drawn]
    for shape in shapes:
        touched = [one for one in outlines if one.distance(shape) < 0.02]
        assert touched
        assert all(one.intersection(shape).area < 0.05 for one in touched if one.area < 9000)
    for one, other in combinations(shapes, 2):
        assert one.intersection(other).area < 0.05


def extent(outline: np.ndarray, part: dict[str, object]) -> float:
    """An upright's height; of a diagonal the longest extent along its own axis."""
    if part["kind"] == "upright":
        return float(np.ptp(outline[:, 1])) if _is_upright(outline) else math.inf
    return math.inf if _is_upright(outline) else longest(outline)


@pytest.mark.parametrize("make", [demo_build, withy, teasel])
def test_the_page_for_a_copy_shop_has_the_same_sticks(make: Callable[[], Build]) -> None:
    build = make()
    names = [one.name for one in drawings_of(build, "mm")]
    page = PdfReader(io.BytesIO(plan_files(build, "mm")["plan.pdf"])).pages[names.index("side")]
    content = page.get_contents()
    assert content is not None
    found = re.findall(r"(-?[\d.]+) (-?[\d.]+) [ml]\b", content.get_data().decode("latin-1"))
    spots = np.array(found, float) / 72 * 25.4
    drawn = sticks_in(plan_files(build, "mm")["plan-side.dxf"])
    # the page lies elsewhere: by the corner of the first stick on both
    tree = STRtree(points(spots))
    offsets = spots - drawn[0][0]
    best = None
    for offset in offsets:
        moved = drawn[0] + offset
        near = tree.query(points(moved), predicate="dwithin", distance=0.02)
        if len(set(near[0].tolist())) == len(moved):
            best = offset
            break
    assert best is not None
    for stick in drawn:
        near = tree.query(points(stick + best), predicate="dwithin", distance=0.02)
        assert set(near[0].tolist()) == set(range(len(stick)))


def test_every_gusset_has_the_number_of_its_template() -> None:
    build = withy()
    assert build.fuselage is not None
    side = next(one for one in drawings_of(build, "mm") if one.name == "side")
    drawn = [line for line in side.lines if line.layer == "GUSSETS"]
    pieces = gussets_of(build.fuselage)
    assert len(drawn) == len(pieces) > 4
    written = {words.text for words in side.words}
    assert {f"G{piece.name.rpartition(' ')[2]}" for piece in pieces} <= written
    # a triangle's two legs and its angle are those of the piece with its number
    for place, piece in zip(gusset_places(build.fuselage), pieces, strict=True):
        assert place.name == piece.name
        a, b, c = (np.array(point) for point in place.ring)
        one, other = b - a, c - a
        angle = math.degrees(math.acos(one @ other / np.hypot(*one) / np.hypot(*other)))
        at = min(piece.outline, key=lambda p: math.hypot(*p))
        assert math.hypot(*at) < 1e-6, "its corner is where both legs begin"
        ends = sorted(piece.outline, key=lambda p: -math.hypot(*p))[:2]
        ways = [math.degrees(math.atan2(v, u)) for u, v in ends]
        assert abs(angle - abs(ways[0] - ways[1])) < 0.05


def polylines(data: bytes, layer: str) -> list[np.ndarray]:
    found = read(io.StringIO(data.decode())).modelspace().query("LWPOLYLINE")
    return [np.array(e.get_points("xy")) for e in found if isinstance(e, LWPolyline) and e.dxf.layer == layer]  # fmt: skip


@pytest.mark.parametrize("made", [demo_build, sorrel])
def test_a_formers_bevel_is_drawn_as_its_edges_lean(made: Callable[[], Build]) -> None:
    """The ends' lean is measured on the sheet against how the sides run, by finite differences."""
    build = made()
    fuselage = build.fuselage
    assert fuselage is not None
    loft = loft_of(fuselage)
    wanted = []
    for former in fuselage.formers:
        x = former.station
        lean = math.degrees(
            math.atan(
                float(loft.half_width.value(x - 0.01) - loft.half_width.value(x + 0.01)) / 0.02
            )
        )
        if abs(lean) > 0.26 and former.thickness is not None:
            wanted.append((round(former.thickness, 3), lean))
    files = plan_files(build, "mm")
    drawn = []
    for name, data in files.items():
        if "sections" not in name or not name.endswith(".dxf"):
            continue
        for ring in polylines(data, "FORMERS"):
            if len(ring) == 4 and abs(ring[0, 1] - ring[1, 1]) < 1e-9 < abs(
                ring[1, 0] - ring[2, 0]
            ):
                thick = ring[1, 1] - ring[2, 1]
                drawn.append(
                    (round(thick, 3), math.degrees(math.atan((ring[1, 0] - ring[2, 0]) / thick)))
                )
    assert len(wanted) > 3
    for thick, lean in wanted:
        assert any(t == thick and abs(angle - lean) < 0.02 for t, angle in drawn), (thick, lean)


def test_a_hinge_is_cut_through_where_it_is_bevelled() -> None:
    files = plan_files(marram(), "mm")
    text = files[
        "dxf/stab.dxf"
        if "dxf/stab.dxf" in files
        else next(n for n in files if n.endswith("stab.dxf"))
    ]
    assert b"hinge line cut across at its inner end" in text
    assert b"hinge line cut" not in files[next(n for n in files if n.endswith("fin.dxf"))]
