"""Templates on paper: every piece there as often as it is wanted, no word over a line, as few pages as they fit on."""

import math
from collections.abc import Callable

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import LineString, Polygon, STRtree, affinity

from hardkeel.airframe.figures import build_from, proposed
from hardkeel.airframe.starters import start_from
from hardkeel.base.units import LengthUnit
from hardkeel.demo.biplane import teasel
from hardkeel.demo.fleet import marram, sallow, withy
from hardkeel.demo.kettlewick import demo_build
from hardkeel.demo.other_shapes import bracken, tansy, yarrow
from hardkeel.demo.planked import sorrel
from hardkeel.edits.framing import frame_as_usual
from hardkeel.edits.tail import set_built
from hardkeel.export.paper import Page, pages_of
from hardkeel.export.plan_drawing import PlanDrawing
from hardkeel.export.print_set import fuselage_pieces, print_sheets, tail_pieces_of
from hardkeel.export.template_pages import template_pages
from hardkeel.joinery.alike import gathered
from hardkeel.joinery.flat import FlatPiece
from hardkeel.messages.sheets import names_words
from hardkeel.project.model import Build
from hardkeel.tail.model import Kind

MADE = [demo_build, withy, marram, sallow, sorrel, teasel, bracken, yarrow, tansy]
ROOM = Page("A4").room


def pieces_of(build: Build) -> list[FlatPiece]:
    return [*fuselage_pieces(build), *tail_pieces_of(build)]


@pytest.fixture(scope="module", params=MADE, ids=lambda make: make.__name__)
def laid(request: pytest.FixtureRequest) -> tuple[list[FlatPiece], tuple[PlanDrawing, ...]]:
    make: Callable[[], Build] = request.param
    pieces = pieces_of(make())
    return pieces, template_pages(pieces, ROOM, "mm")


Laid = tuple[list[FlatPiece], tuple[PlanDrawing, ...]]


def test_no_word_lies_over_a_cut_or_another_word(laid: Laid) -> None:
    for drawing in laid[1]:
        cuts = [
            LineString([*line.points, line.points[0]])
            for line in drawing.lines
            if line.layer in ("CUT", "HOLES")
        ]
        tree = STRtree(cuts)
        # numbers of planks stand between ticks that are closer than their box
        words = [one for one in drawing.words if one.size > 1.9]
        boxes = [one.box for one in words]
        for one, box in zip(words, boxes, strict=True):
            assert not len(tree.query(box, predicate="intersects")), one
        for i, j in STRtree(boxes).query(boxes, predicate="intersects").T:
            assert i == j, f"{words[i].text} / {words[j].text}"


def test_every_shape_is_there_once_and_at_full_size(laid: Laid) -> None:
    pieces, drawings = laid
    alike = gathered(pieces)
    cut = [Polygon(line.points) for d in drawings for line in d.lines if line.layer == "CUT"]
    holes = [Polygon(line.points) for d in drawings for line in d.lines if line.layer == "HOLES"]
    assert len(cut) == len(alike)
    assert sorted(one.area for one in cut) == pytest.approx(
        sorted(Polygon(one.piece.outline).area for one in alike), rel=1e-6
    )
    assert sum(one.area for one in holes) == pytest.approx(
        sum(Polygon(h).area for one in alike for h in one.piece.holes), rel=1e-6
    )
    assert sum(one.count for one in alike) == sum(piece.quantity for piece in pieces)
    named = "\n".join(words.text for d in drawings for words in d.words).replace("\n", " ")
    for one in alike:
        assert names_words([name.replace("_", " ") for name in one.names]) in named


def test_no_two_pieces_lie_over_each_other(laid: Laid) -> None:
    for drawing in laid[1]:
        cut = [Polygon(line.points) for line in drawing.lines if line.layer == "CUT"]
        for i, j in STRtree(cut).query(cut, predicate="dwithin", distance=3.0).T:
            assert i == j


def test_drawings_take_the_pages_they_were_made_for(laid: Laid) -> None:
    """What is laid for so many pages in a row takes no more: nothing reaches over their end."""
    for drawing in laid[1]:
        pages = pages_of([drawing], Page("A4"))
        columns, rows = pages[0].count
        assert min(columns, rows) == 1 or all(
            min(
                Polygon(line.points).bounds[2] - Polygon(line.points).bounds[0],
                Polygon(line.points).bounds[3] - Polygon(line.points).bounds[1],
            )
            > ROOM[0] - 10
            for line in drawing.lines
            if line.layer == "CUT"
        ), drawing.name


def test_a_third_fewer_pages_than_one_strip_a_page() -> None:
    """Counted before on the same builds, formers and templates of the fuselage: 34 and 9 pages, 31 and 9."""
    for make, before in ((sallow, 43), (marram, 40)):
        pages = pages_of(template_pages(fuselage_pieces(make()), ROOM, "mm"), Page("A4"))
        assert len(pages) <= before * 2 / 3


corner = st.tuples(st.floats(5, 60), st.floats(5, 60))


@given(corner, st.sampled_from([0, 90, 180, 270]), st.booleans(), st.floats(-300, 300))
def test_what_is_turned_or_turned_over_is_alike(
    sides: tuple[float, float], turn: int, over: bool, away: float
) -> None:
    wide, tall = sides
    ring = Polygon([(0, 0), (wide, 0), (wide, tall * 0.4), (wide * 0.3, tall)])
    other = affinity.rotate(ring, turn, origin=(0, 0))
    if over:
        other = affinity.scale(other, -1, 1, origin=(0, 0))
    other = affinity.translate(other, away, 2 * away)
    made = [
        FlatPiece(name, "gusset", name, tuple(shape.exterior.coords[:-1]), thickness=2.0)
        for name, shape in (("gusset 1", ring), ("gusset 2", other))
    ]
    (one,) = gathered(made)
    assert one.count == 2
    symmetric = math.isclose(wide, tall * 0.4, rel_tol=0.02)
    assert symmetric or one.turned_over == int(over) or one.turned_over == 0
    larger = FlatPiece(
        "x", "gusset", "x", tuple((1.05 * u, v) for u, v in made[0].outline), thickness=2.0
    )
    assert len(gathered([made[0], larger])) == 2


def test_a_pair_is_drawn_once_and_says_what_to_turn_over() -> None:
    ring = ((0.0, 0.0), (80.0, 0.0), (80.0, 20.0), (10.0, 40.0))
    side = FlatPiece(
        "side", "side", "side", ring, thickness=1.5, material="balsa-medium", quantity=2, pair=True
    )
    (page,) = template_pages([side], ROOM, "mm")
    text = page.words[0].text
    assert text.split("\n") == ["side", "balsa medium 1.5 mm", "cut 2, 1 of them turned over"]
    even = tuple((u, v) for u, v in ((0.0, 0.0), (80.0, 0.0), (80.0, 20.0), (0.0, 20.0)))
    (page,) = template_pages(
        [FlatPiece("strap", "plate", "strap", even, quantity=2, pair=True)], ROOM, "mm"
    )
    assert page.words[0].text.split("\n") == ["strap", "cut 2"]


def test_names_in_one() -> None:
    assert names_words(["F4"]) == "F4"
    assert names_words(["gusset 1", "gusset 2", "gusset 3", "gusset 7"]) == "gusset 1 to 3, 7"
    assert names_words(["gusset 2", "gusset 1"]) == "gusset 1, 2"
    assert names_words(["top panel 7", "bottom panel 7"]) == "top panel 7, bottom panel 7"


def test_a_round_hole_has_its_middle_marked() -> None:
    ring = ((0.0, 0.0), (60.0, 0.0), (60.0, 60.0), (0.0, 60.0))
    turns = np.linspace(0, 2 * np.pi, 40, endpoint=False)
    hole = tuple((30 + 8 * math.cos(t), 25 + 8 * math.sin(t)) for t in turns)
    box = ((5.0, 5.0), (12.0, 5.0), (12.0, 12.0), (5.0, 12.0))
    (page,) = template_pages([FlatPiece("plate", "plate", "plate", ring, (hole, box))], ROOM, "mm")
    marks = [line for line in page.lines if line.layer == "MARKS"]
    assert len(marks) == 2
    middle = Polygon(next(line.points for line in page.lines if line.layer == "HOLES")).centroid
    for line in marks:
        assert LineString(line.points).centroid.distance(middle) < 1e-6


@pytest.mark.parametrize(
    ("make", "kind", "unit"),
    [
        (lambda: start_from("sheet-box", 480.0, 370.0), "foam", "in"),
        (lambda: start_from("board", 480.0, 365.0), "ribbed", "mm"),
        (lambda: start_from("crutch", 900.0, 700.0), "stick", "in"),
        (lambda: build_from(proposed("vee")), "foam", "in"),
        (lambda: build_from(proposed("foreplane")), "ribbed", "mm"),
    ],
)
def test_sheets_of_models_that_are_no_demos_are_as_clear(
    make: Callable[[], Build], kind: Kind, unit: LengthUnit
) -> None:
    build = frame_as_usual(make())
    for surface in build.tail:
        build = set_built(build, surface.id, kind)
    for sheet in print_sheets(build, unit, Page("Letter" if unit == "in" else "A4")):
        for drawing in sheet.drawn:
            wood = [
                Polygon(line.points).buffer(-0.05)
                for line in drawing.lines
                if line.closed and line.layer in ("STICKS", "GUSSETS", "PINS")
            ]
            edges = [
                LineString([*line.points, line.points[0]])
                for line in drawing.lines
                if line.closed and line.layer in ("OUTLINE", "FORMERS", "CUT", "HOLES")
            ]
            tree = STRtree([*wood, *edges])
            words = [one for one in drawing.words if one.size > 1.9]
            boxes = [one.box for one in words]
            for one, box in zip(words, boxes, strict=True):
                assert not len(tree.query(box, predicate="intersects")), (sheet.key, one.text)
            for i, j in STRtree(boxes).query(boxes, predicate="intersects").T:
                assert i == j, f"{sheet.key}: {words[i].text} / {words[j].text}"


def test_what_is_trimmed_later_has_a_line_round_it() -> None:
    ring = ((0.0, 0.0), (60.0, 0.0), (60.0, 40.0), (0.0, 40.0))
    (page,) = template_pages([FlatPiece("plate", "plate", "plate", ring)], ROOM, "mm", trim=2.0)
    (line,) = [Polygon(one.points) for one in page.lines if one.layer == "MARKS"]
    (cut,) = [Polygon(one.points) for one in page.lines if one.layer == "CUT"]
    assert line.area == pytest.approx(64 * 44)
    assert line.exterior.distance(cut.exterior) == pytest.approx(2.0)
    assert cut.area == pytest.approx(60 * 40)
