"""Templates: true sizes on paper, for cutters and in lists; tiles that meet; outlines that close."""

import csv
import io
import math
import re
from collections.abc import Callable
from functools import cache
from itertools import pairwise
from pathlib import Path
from xml.etree import ElementTree as ET

import numpy as np
import pytest
from ezdxf.entities.lwpolyline import LWPolyline
from ezdxf.filemanagement import read, readfile
from hypothesis import assume, given
from hypothesis import strategies as st
from pypdf import PdfReader

from hardkeel.base.errors import BadInput, GivenUp, NotOurs
from hardkeel.demo.fleet import marram, sallow, withy
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.framing import set_framing
from hardkeel.export.cutter_tags import tagged
from hardkeel.export.framing import (
    cut_list_csv,
    plate_dxf,
    printer_of,
    template_files,
    write_templates,
)
from hardkeel.export.paper import OVERLAP_MM, Page, crosses_of, templates_pdf, tiles_of
from hardkeel.export.paper_sizes import PAPERS
from hardkeel.export.plan_drawing import PlanDrawing, PlanLine
from hardkeel.export.plates import CutterWay, Plate, grown, nested_plate
from hardkeel.export.renewing import Destination
from hardkeel.export.svg import plate_svg
from hardkeel.fuselage.cut_list import cut_list_of
from hardkeel.fuselage.fitting import fitted_formers
from hardkeel.fuselage.pieces import pieces_of
from hardkeel.geometry.polygons import shapely
from hardkeel.joinery.flat import FlatPiece, Mark
from hardkeel.joinery.nesting import NestedSheet, Placed
from hardkeel.project.model import Build


@cache
def files_of(make: Callable[[], Build], paper: str) -> dict[str, bytes]:
    """All templates of a demo, made once for those who look at them."""
    return template_files(make(), paper, "mm")


SQUARE = FlatPiece(
    "plate",
    "plate",
    "plate",
    ((0.0, 0.0), (120.0, 0.0), (120.0, 80.0), (0.0, 80.0)),
    holes=(((20.0, 20.0), (20.0, 40.0), (50.0, 40.0), (50.0, 20.0)),),
    marks=(Mark("centre", ((60.0, -4.0), (60.0, 84.0))),),
    material="light-ply",
    thickness=3.0,
)


def plate_of_one(piece: FlatPiece) -> Plate:
    """A sheet of wood with one piece in its corner."""
    placed = Placed(piece, 0, 0.0, 0.0)
    sheet = NestedSheet(piece.material, piece.thickness, 1000.0, 100.0, 1, (placed,))
    return nested_plate(sheet, "a", CutterWay())


FILES = files_of(demo_build, "A4")


def ruled(name: str, ring: tuple[tuple[float, float], ...]) -> PlanDrawing:
    return PlanDrawing(name, [PlanLine("CUT", ring, closed=True)])


@pytest.mark.parametrize("paper", list(PAPERS))
@pytest.mark.parametrize("size", [(150.0, 100.0), (1000.0, 90.0), (700.0, 500.0)])
def test_tiles_cover_a_plate_and_share_their_overlap(paper: str, size: tuple[float, float]) -> None:
    page = Page(paper)
    ring = ((5.0, -7.0), (5 + size[0], -7.0), (5 + size[0], -7 + size[1]), (5.0, -7 + size[1]))
    plate = ruled("long", ring)
    tiles, columns, rows = tiles_of(plate, page.room)
    assert len(tiles) == columns * rows
    covered = shapely.union_all(
        [shapely.box(t.u, t.v, t.u + page.room[0], t.v + page.room[1]) for t in tiles]
    )
    assert covered.covers(shapely.Polygon(ring))
    for one, other in pairwise([tile for tile in tiles if tile.row == 0]):
        assert one.u + page.room[0] - other.u == pytest.approx(OVERLAP_MM)


def test_registration_crosses_of_neighbours_lie_at_one_place() -> None:
    """In the plate's own millimetres: laid over each other, the tiles are the drawing."""
    plate = ruled("big", ((0, 0), (500, 0), (500, 600), (0, 600)))
    room = Page("A4").room
    tiles, columns, rows = tiles_of(plate, room)
    at = {(t.column, t.row): set(crosses_of(t, (columns, rows), room)) for t in tiles}
    for (column, row), crosses in at.items():
        for other in ((column + 1, row), (column, row + 1)):
            if other in at:
                shared = {(round(u, 6), round(v, 6)) for u, v in crosses} & {
                    (round(u, 6), round(v, 6)) for u, v in at[other]
                }
                assert len(shared) >= 2


def test_a_pdf_has_a_page_for_each_tile() -> None:
    plate = ruled("long", ((0, 0), (1000, 0), (1000, 90), (0, 90)))
    page = Page("A3")
    pdf = templates_pdf([plate], "A build", page)
    upright = ruled("long", ((0, 0), (90, 0), (90, 1000), (0, 1000)))
    fewest = min(len(tiles_of(one, page.room)[0]) for one in (plate, upright))
    assert len(re.findall(rb"/Type /Page\b", pdf)) == fewest


def test_a_correction_makes_up_for_the_printer() -> None:
    """A printer that makes 101.6 mm of 100 is given 98.4: page by page the drawing has more room."""
    page = Page("A4", (1.016, 0.99))
    assert page.room[0] == pytest.approx(1.016 * Page("A4").room[0])
    assert page.room[1] == pytest.approx(0.99 * Page("A4").room[1])
    build = demo_build()
    assert printer_of(build) == (1.0, 1.0)
    corrected = set_framing(build, printer="former templates")
    x, y = printer_of(corrected)
    assert x == y == pytest.approx(1.016, abs=0.003)
    assert printer_of(set_framing(build, printer="another sheet")) == (1.0, 1.0)


# -- for cutters ----------------------------------------------------------------------------------


def test_every_dxf_is_sound_closed_and_true_to_size(tmp_path: Path) -> None:
    names = [name for name in FILES if name.endswith(".dxf")]
    assert len(names) > 5  # one for each sheet of wood
    for name in names:
        path = tmp_path / "a.dxf"
        path.write_bytes(FILES[name])
        drawing = readfile(path)
        assert not drawing.audit().errors
        assert drawing.header["$INSUNITS"] == 4
        assert FILES[name].startswith(b"999\nmillimetres, 1:1; no kerf is in it; no tags;")
        cut = [e for e in drawing.modelspace() if e.dxf.layer in ("CUT", "HOLES")]
        assert cut
        for line in cut:
            assert isinstance(line, LWPolyline)
            assert line.closed
            points = [(x, y) for x, y, *_ in line.get_points()]
            assert shapely.Polygon(points).is_valid, name


def test_a_dxf_holds_the_piece_to_a_thousandth(tmp_path: Path) -> None:
    (tmp_path / "a.dxf").write_text(plate_dxf(plate_of_one(SQUARE)))
    space = readfile(tmp_path / "a.dxf").modelspace()
    layers = {
        e.dxf.layer: [p[:2] for p in e.get_points()]
        for e in space
        if isinstance(e, LWPolyline) and e.dxf.layer != "TEXT"
    }
    assert layers["CUT"] == [pytest.approx(p) for p in SQUARE.outline]
    assert layers["HOLES"] == [pytest.approx(p) for p in SQUARE.holes[0]]
    # it is drawn 4 mm over both edges, where another piece may lie
    on_the_wood = ((60.0, 0.0), (60.0, 80.0))
    assert layers["CENTRE"] == [pytest.approx(p) for p in on_the_wood]


def svg_size(text: str) -> tuple[float, float, list[float]]:
    root = ET.fromstring(text)  # noqa: S314  our own text
    width, height = root.attrib["width"], root.attrib["height"]
    assert width.endswith("mm")
    assert height.endswith("mm")
    return float(width[:-2]), float(height[:-2]), [float(x) for x in root.attrib["viewBox"].split()]


def test_an_svg_is_sized_in_millimetres() -> None:
    text = plate_svg(plate_of_one(SQUARE))
    wide, tall, view = svg_size(text)
    assert view == pytest.approx([0, 0, wide, tall])  # a unit is a millimetre
    last = re.findall(r'd="M ([^"]*)"', text)[-1]  # a piece's outline is cut last
    outline = np.array(
        [[float(x) for x in point.split()] for point in last.replace(" Z", "").split(" L ")]
    )
    assert np.ptp(outline, axis=0) == pytest.approx([120.0, 80.0])
    assert last.endswith("Z")


def test_every_svg_can_be_read_and_has_its_layers() -> None:
    names = [name for name in FILES if name.endswith(".svg")]
    assert {name[4:-4] for name in names} == {n[4:-4] for n in FILES if n.endswith(".dxf")}
    for name in names:
        text = FILES[name].decode()
        svg_size(text)
        assert '<g id="CUT"' in text


@pytest.mark.parametrize("kerf", [0.1, 0.2, 1.0])
def test_what_a_cutter_takes_is_added_outside_and_left_in_holes(kerf: float) -> None:
    outline, (hole,) = grown(SQUARE, kerf)
    outside, inside = shapely.Polygon(outline), shapely.Polygon(hole)
    left, low, right, high = outside.bounds
    assert (right - left, high - low) == pytest.approx((120 + kerf, 80 + kerf))
    left, low, right, high = inside.bounds
    assert (right - left, high - low) == pytest.approx((30 - kerf, 20 - kerf))
    assert grown(SQUARE, 0.0) == (SQUARE.outline, SQUARE.holes)


def test_the_cutters_kerf_of_the_build_is_in_its_files() -> None:
    plain = files_of(withy, "A4")
    wide = template_files(set_framing(withy(), cutter_kerf=0.4), "A4", "mm")
    for name in plain:
        if not name.endswith(".dxf"):
            continue
        before, after = (
            sorted(outlines_in(one[name]), key=lambda o: o.area) for one in (plain, wide)
        )
        for one, other in zip(before, after, strict=True):
            assert other.area == pytest.approx(one.buffer(0.2, join_style="mitre").area, rel=2e-3)
        assert b"no kerf is in it" in plain[name]
        assert b"kerf 0.4 mm is in the outlines" in wide[name]


def outlines_in(dxf: bytes) -> list[shapely.Polygon]:
    space = read(io.StringIO(dxf.decode())).modelspace()
    lines = [e for e in space.query("LWPOLYLINE") if e.dxf.layer == "CUT"]
    return [
        shapely.Polygon([p[:2] for p in e.get_points()]) for e in lines if isinstance(e, LWPolyline)
    ]


def test_tags_hold_every_piece_in_its_sheet() -> None:
    plain = files_of(withy, "A4")
    held = template_files(set_framing(withy(), cutter_tag=0.8), "A4", "mm")
    for name in plain:
        if not name.endswith(".dxf"):
            continue
        space = read(io.StringIO(held[name].decode())).modelspace()
        lines = [
            e
            for e in space.query("LWPOLYLINE")
            if e.dxf.layer == "CUT" and isinstance(e, LWPolyline)
        ]
        assert not any(line.closed for line in lines)
        cut = sum(shapely.LineString([p[:2] for p in e.get_points()]).length for e in lines)
        around = sum(one.length for one in outlines_in(plain[name]))
        assert around - cut == pytest.approx(0.8 * len(lines), abs=0.02)  # a gap for each line
        assert len(lines) >= len(outlines_in(plain[name]))
        assert b"tags of 0.8 mm are left" in held[name]


@given(
    st.lists(
        st.tuples(st.floats(-60, 60), st.floats(-60, 60)), min_size=3, max_size=9, unique=True
    ),
    st.floats(0.3, 2.0),
)
def test_lines_and_tags_make_up_the_outline(
    points: list[tuple[float, float]], width: float
) -> None:
    hull = shapely.MultiPoint(points).convex_hull
    assume(hull.geom_type == "Polygon" and hull.area > 50)
    ring = tuple((float(u), float(v)) for u, v in hull.exterior.coords[:-1])
    lines = tagged(ring, width)
    if lines == (ring,):
        return
    drawn = shapely.union_all([shapely.LineString(line) for line in lines])
    assert drawn.length == pytest.approx(hull.length - len(lines) * width, abs=1e-6)
    assert hull.exterior.buffer(1e-6).covers(drawn)
    gaps = shapely.get_parts(hull.exterior.difference(drawn.buffer(1e-6)))
    assert min(len(lines), 2) <= len(gaps) <= len(lines) + 1  # the ring may begin within one


def test_what_is_drawn_on_a_piece_ends_where_its_wood_does() -> None:
    for name, data in files_of(demo_build, "A4").items():
        if not name.endswith(".dxf"):
            continue
        space = read(io.StringIO(data.decode())).modelspace()
        lines = [e for e in space.query("LWPOLYLINE") if isinstance(e, LWPolyline)]
        rings = {
            layer: [
                shapely.Polygon([p[:2] for p in e.get_points()])
                for e in lines
                if e.dxf.layer == layer
            ]
            for layer in ("CUT", "HOLES")
        }
        for e in lines:
            if e.dxf.layer in ("MARKS", "CENTRE"):
                drawn = shapely.LineString([p[:2] for p in e.get_points()])
                assert any(one.buffer(1e-6).covers(drawn) for one in rings["CUT"]), name
                lying_in = [one for one in rings["CUT"] if one.buffer(1e-6).covers(drawn)]
                own = min(lying_in, key=lambda one: one.area)
                holes = [one for one in rings["HOLES"] if own.covers(one)]
                assert not any(drawn.intersection(one).length > 1e-6 for one in holes), name


def test_a_name_is_engraved_inside_its_piece_as_lines() -> None:
    for name, data in files_of(withy, "A4").items():
        if not name.endswith(".dxf"):
            continue
        space = read(io.StringIO(data.decode())).modelspace()
        assert not space.query("TEXT")
        letters = [
            shapely.LineString([p[:2] for p in e.get_points()])
            for e in space.query("LWPOLYLINE")
            if e.dxf.layer == "TEXT" and isinstance(e, LWPolyline)
        ]
        assert letters
        edges = shapely.union_all([one.exterior for one in outlines_in(data)])
        assert not any(edges.intersects(letter) for letter in letters)


# -- lists and files ------------------------------------------------------------------------------


def test_the_cut_list_has_every_stick_and_piece() -> None:
    fuselage = withy().fuselage
    assert fuselage is not None
    pieces = pieces_of(fuselage)
    rows = list(
        csv.DictReader(io.StringIO(cut_list_csv(cut_list_of(fuselage), pieces, fuselage.framed)))
    )
    names = [row["part"] for row in rows]
    for part in cut_list_of(fuselage):
        row = rows[names.index(part.name)]
        assert float(row["length_mm"]) == pytest.approx(part.length, abs=1e-3)
        assert int(row["quantity"]) == part.quantity
    for piece in pieces:
        assert piece.name in names
    assert any(row["part"] == "to buy" for row in rows)


def test_long_work_tells_how_far_it_is_and_is_given_up_without_a_file(tmp_path: Path) -> None:
    told: list[int] = []
    template_files(withy(), "A4", "mm", lambda done, _total: told.append(done))
    assert told == sorted(told)
    assert told[-1] == 100

    def stop(done: int, _total: int) -> None:
        if done > 60:
            raise GivenUp("stopped")

    with pytest.raises(GivenUp):
        write_templates(marram(), Destination(tmp_path), "A4", "mm", stop)
    assert list(tmp_path.iterdir()) == []


def test_templates_are_renewed_and_anothers_file_is_not_written_over(tmp_path: Path) -> None:
    first = write_templates(withy(), Destination(tmp_path), "A4", "mm")
    assert all(path.exists() for path in first)
    (mine,) = [path for path in first if path.name.startswith("sheet-1") and path.suffix == ".svg"]
    mine.write_text("mine")
    with pytest.raises(NotOurs):
        write_templates(set_framing(withy(), cutter_kerf=0.3), Destination(tmp_path), "A4", "mm")
    assert mine.read_text() == "mine"


def test_without_a_fuselage_there_is_one_clear_sentence() -> None:
    with pytest.raises(BadInput, match="nothing to frame"):
        template_files(Build(), "A4", "mm")


@pytest.mark.parametrize(("paper", "wide"), [("A4", 210.0), ("Letter", 215.9)])
def test_a_frame_on_a_board_gets_a_sheet_to_write_its_readings_on(paper: str, wide: float) -> None:
    files = files_of(sallow, paper)
    reader = PdfReader(io.BytesIO(files[f"squaring-sheet-{paper}.pdf"]))
    assert float(reader.pages[0].mediabox.width) * 25.4 / 72 == pytest.approx(wide, abs=0.1)
    lines = [line for page in reader.pages for line in page.extract_text().splitlines()]
    fuselage = sallow().fuselage
    assert fuselage is not None
    for fitted in fitted_formers(fuselage):
        assert fitted.id in lines  # a heading
    # by hand: a diagonal of an opening is its width and height between the skins
    former = fuselage.formers[3]
    tall = former.top - fuselage.top_skin - former.bottom - fuselage.bottom_skin
    across = 2 * (former.half_width - fuselage.side_thickness)
    diagonal = f"{math.hypot(across, tall):.1f} mm"
    text = " ".join(lines)
    assert f"F4 bottom port to F4 top starboard {diagonal}" in text
    spacer = fitted_formers(fuselage)[3].spacer
    assert f"height of F4 bottom port {spacer:.1f} mm" in text
    assert "squaring-sheet-A4.pdf" not in files_of(withy, "A4")
