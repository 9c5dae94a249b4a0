"""Planks: they cover the half girth, none is wider than a strip, none comes back; their bends a second way."""

import json
from collections import Counter
from pathlib import Path
from typing import Any

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from hardkeel.airframe.figures import Figures, build_from
from hardkeel.airframe.orders.at_hand import steps_at_hand
from hardkeel.airframe.parts import parts_of
from hardkeel.base.errors import BadInput
from hardkeel.cli.commands import run_command
from hardkeel.demo.planked import sorrel
from hardkeel.edits.framing import frame_as_usual, set_planking, take_planking_off
from hardkeel.edits.fuselage import delete_former, rename_former
from hardkeel.edits.sections import set_shape, shape_all_like
from hardkeel.export.framing import template_files
from hardkeel.export.template_pages import template_pages
from hardkeel.fuselage.contours import contour_of, girth_of
from hardkeel.fuselage.cut_list import cut_list_of
from hardkeel.fuselage.cutting import shape_of
from hardkeel.fuselage.inside import blank_of
from hardkeel.fuselage.inspecting import findings_of
from hardkeel.fuselage.model import (
    CutOut,
    Former,
    Framing,
    Fuselage,
    Planking,
    SectionShape,
    TailPost,
)
from hardkeel.fuselage.pieces import former_pieces
from hardkeel.fuselage.planking import Planked, plank_drawings, planks_of
from hardkeel.fuselage.sheeting import skins_of
from hardkeel.fuselage.soundness import check_fuselage
from hardkeel.messages.planking import planking_answer, planking_lines, planking_table
from hardkeel.messages.steps import step_title
from hardkeel.project.model import Build
from hardkeel.storage.format import build_from_text, text_of
from tests import sections_independent as second

STATIONS = (0.0, 90.0, 190.0, 300.0, 420.0, 560.0, 700.0)
WIDE = (22.0, 35.0, 45.0, 48.0, 40.0, 26.0, 12.0)


def oval(
    wide: tuple[float, ...] = WIDE,
    shape: SectionShape | None = None,
    **planking: Any,
) -> Fuselage:
    """A made-up oval fuselage, planked from its first former to its last."""
    formers = tuple(
        Former(
            id=f"F{i}",
            station=x,
            half_width=half,
            bottom=-half,
            top=1.2 * half,
            section=shape or SectionShape(),
        )
        for i, (x, half) in enumerate(zip(STATIONS, wide, strict=True))
    )
    made = Planking(**{"from": "F0", "to": f"F{len(formers) - 1}", "keel_width": 6.0, **planking})
    return Fuselage(formers=formers, framing=Framing(planking=made))


def sums(fuselage: Fuselage, planked: Planked, side: str) -> dict[str, float]:
    found: dict[str, float] = dict.fromkeys(planked.formers, 0.0)
    for plank in planked.planks:
        if plank.side == side:
            for former, wide in plank.widths:
                found[former] += wide
    return found


widths = st.lists(st.floats(9.0, 70.0), min_size=7, max_size=7)


@given(widths, st.floats(3.0, 12.0), st.floats(0.0, 8.0), st.sampled_from((1.6, 2.0, 3.0)))
def test_planks_cover_the_half_girth_and_none_is_wider_than_its_strip(
    wide: list[float], strip: float, keel: float, full: float
) -> None:
    fuselage = oval(tuple(wide), SectionShape(top=full, bottom=2.0), width=strip, keel_width=keel)
    planked = planks_of(fuselage)
    for side in ("port", "starboard"):
        found = sums(fuselage, planked, side)
        for former in fuselage.formers:
            half = second.girth(
                second.points(
                    former.half_width, former.bottom, former.top,
                    (former.bottom + former.top) / 2, full, 2.0,
                )
            ) / 2  # fmt: skip
            assert found[former.id] == pytest.approx(half - keel / 2, rel=1e-3)
    for plank in planked.planks:
        assert all(wide_ <= strip * (1 + 1e-9) for _, wide_ in plank.widths)
        # where it has run out it does not come back
        reached = [planked.formers.index(name) for name, _ in plank.widths]
        assert reached == list(range(reached[0], reached[-1] + 1))


def test_they_are_laid_from_the_keel_up_port_and_starboard_turn_about() -> None:
    planked = planks_of(oval())
    ids = [plank.id for plank in planked.planks]
    most = len(ids) // 2
    assert ids == [f"{side}{n}" for n in range(1, most + 1) for side in "PS"]
    widest = max(girth_of(one) for one in oval().formers)
    assert most == int(np.ceil((widest / 2 - 3) / 6))


def test_the_middle_ones_run_out_where_they_would_be_narrower_than_half_a_strip() -> None:
    planked = planks_of(oval())
    least = min(wide for plank in planked.planks for _, wide in plank.widths)
    assert planked.stealers
    assert least >= 3.0 * 0.999  # half of six
    most = len(planked.planks) // 2
    assert 1 not in planked.stealers
    assert most not in planked.stealers
    middle = sorted(planked.stealers)
    assert abs(np.mean(middle) - (most + 1) / 2) <= 1.0
    even = planks_of(oval(wide=(40.0,) * 7))
    assert even.stealers == ()


def test_on_a_barrel_planks_follow_meridians_and_lie_without_a_bend_on_edge() -> None:
    barrel = tuple(
        Former(id=f"F{i}", station=x, half_width=r, bottom=-r, top=r, section=SectionShape())
        for i, (x, r) in enumerate(zip(STATIONS, (30.0, 34, 38, 42, 40, 36, 32), strict=True))
    )
    planking = Planking.model_validate({"from": "F0", "to": "F6", "keel_width": 0, "width": 9})
    planked = planks_of(Fuselage(formers=barrel, framing=Framing(planking=planking)))
    assert planked.stealers == ()
    for plank in planked.planks:  # by symmetry all of them are one meridian turned round
        assert plank.edgewise < 0.005
    cylinder = planks_of(oval(wide=(40.0,) * 7))
    for plank in cylinder.planks:
        assert plank.length == pytest.approx(700.0)
        assert plank.edgewise == pytest.approx(0.0, abs=1e-9)


def test_a_bend_on_edge_is_what_both_edges_differ_by() -> None:
    # a keel that keeps its width while the section narrows pushes the planks round
    fuselage = oval(keel_width=14.0)
    planked = planks_of(fuselage)
    edges = dict(planked.ends)
    names = planked.formers
    whole = [
        p for p in planked.planks if p.number not in planked.stealers and p.side == "starboard"
    ]
    stations = np.array([one.station for one in fuselage.formers])
    x = np.linspace(stations[0], stations[-1], 4001)
    for plank in whole[2:5]:  # where it is most; nearer the keel both are but half of it
        lines = []
        for edge in (0, 1):
            points = np.array([edges[name][plank.number - 1 + edge] for name in names])
            lines.append(
                np.column_stack([x, *(_natural(stations, points[:, k], x) for k in (0, 1))])
            )
        runs = [np.linalg.norm(np.diff(line, axis=0), axis=1) for line in lines]
        wide = np.linalg.norm(lines[1] - lines[0], axis=1)[:-1]
        # a strip whose edges differ by so much a millimetre is curved by that over its width
        curved = np.abs(runs[1] - runs[0]) / (wide * (runs[0] + runs[1]) / 2)
        strain = 100 * curved * wide / 2
        middle = slice(300, -300)  # free ends of the splines differ
        # its middle is not quite the mean of its edges: within an eighth
        assert plank.edgewise == pytest.approx(float(strain[middle].max()), rel=0.12)
        assert plank.edgewise > 0.07


def _natural(x: np.ndarray[Any, Any], y: np.ndarray[Any, Any], at: np.ndarray[Any, Any]) -> Any:
    from scipy.interpolate import CubicSpline  # noqa: PLC0415  the second way's own

    return CubicSpline(x, y, bc_type="natural")(at)


def test_formers_are_cut_a_plank_inside_and_the_file_keeps_it(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    fuselage = oval(thickness=2.0, material="balsa-medium")
    former = fuselage.formers[3]
    outside = shapely.Polygon(contour_of(former))
    blank = shapely.Polygon(blank_of(fuselage, former))
    ring = shapely.points(np.array(blank.exterior.coords))
    assert shapely.distance(outside.exterior, ring) == pytest.approx(2.0, abs=0.02)
    build = Build(format="hardkeel/1", fuselage=fuselage)
    assert build_from_text(text_of(build)) == build
    file = tmp_path / "oval.json"
    file.write_text(text_of(build))
    assert run_command(["frame", str(file), "--json"]) == 0
    told = json.loads(capsys.readouterr().out)
    assert told["planks"][0]["id"] == "P1"
    assert told["planks"][1]["side"] == "starboard"
    half = next(one["girth"] for one in told["loft"] if one["id"] == "F3") / 2
    port = sum(p["widths"].get("F3", 0.0) for p in told["planks"] if p["side"] == "port")
    assert port == pytest.approx(half - 3.0, rel=1e-3)


def test_nonsense_is_refused_with_its_place() -> None:
    with pytest.raises(BadInput, match='names no former "F9"'):
        check_fuselage(oval(to="F9"))
    with pytest.raises(BadInput, match="ends where it begins"):
        check_fuselage(oval(to="F0"))
    with pytest.raises(BadInput, match="leaves nothing to plank at F6"):
        planks_of(oval(keel_width=150.0))


def test_what_is_told_of_it_and_what_is_bought() -> None:
    fuselage = oval(material="balsa-medium")
    planked, planking = planks_of(fuselage), fuselage.framed.planking
    assert planking is not None
    limits = {"balsa-medium": (0.5, 1.1)}
    lines = planking_lines(planked, planking, limits, "mm")
    assert lines[0].startswith("Narrowest 3.")
    assert "run out" in lines[1]
    assert "On edge they bend by at most" in lines[2]
    assert (
        planking_answer(planked, planking, "mm")
        == f"{len(planked.planks) // 2} planks a side of 6.0 × 2.0 mm"
    )
    table = planking_table(planked, "mm")
    assert len(table) == 1 + len(planked.planks) // 2
    assert "–" in "".join(table)
    strips = [part for part in cut_list_of(fuselage) if part.kind == "plank"]
    assert sum(part.quantity for part in strips) == len(planked.planks)
    assert all(part.section == (2.0, 6.0) for part in strips)
    whole = next(part for part in strips if part.name == "plank 1")
    assert 700.0 < whole.length < 720.0


def test_planks_are_numbered_on_each_formers_edge() -> None:
    fuselage = oval()
    planked = planks_of(fuselage)
    for name, edges in planked.ends:
        former = fuselage.former(name)
        assert former is not None
        (piece,) = former_pieces(fuselage, former)
        ticks = [mark for mark in piece.marks if mark.role == "plank" and mark.text]
        # each edge has the number of the plank that ends there, as the table has it, not of its place among those left
        reaching = {plank.number for plank in planked.planks if name in dict(plank.widths)}
        assert len(edges) == len(reaching) + 1
        assert {int(mark.text) for mark in ticks} == reaching
        # and the number is printed behind the tick's inner end
        (page,) = template_pages([piece], (400.0, 400.0), "mm")
        numbers = [word for word in page.words if word.text.isdigit()]
        assert len(numbers) == len(ticks)
        drawn = [line.points for line in page.lines if line.layer == "MARKS"]
        for word in numbers:
            near = min(np.hypot(*np.subtract(word.at, points[-1])) for points in drawn)
            assert near < 2.0
        wood = piece.polygon.buffer(0.1)
        assert all(wood.contains(shapely.LineString(mark.points)) for mark in ticks)


def test_it_is_put_on_changed_and_taken_off() -> None:
    bare = oval()
    build = Build(format="hardkeel/1", fuselage=bare.but(framing=Framing()))
    build = set_planking(build)
    planking = (build.fuselage or bare).framed.planking
    assert planking is not None
    assert (planking.from_, planking.to) == ("F0", "F6")
    build = set_planking(build, width=8.0, from_="F1")
    planking = (build.fuselage or bare).framed.planking
    assert planking is not None
    assert (planking.width, planking.from_, planking.to) == (8.0, "F1", "F6")
    with pytest.raises(BadInput, match=r"more than 0|greater"):
        set_planking(build, width=-2.0)
    assert (take_planking_off(build).fuselage or bare).framed.planking is None


def test_planks_go_with_the_formers_that_they_begin_and_end_at() -> None:
    build = Build(format="hardkeel/1", fuselage=oval())

    def ends(one: Build) -> tuple[str, str] | None:
        planking = one.fuselage.framed.planking if one.fuselage is not None else None
        return None if planking is None else (planking.from_, planking.to)

    assert ends(rename_former(build, "F6", "tail ring")) == ("F0", "tail ring")
    assert ends(delete_former(build, "F0")) == ("F1", "F6")
    assert ends(delete_former(build, "F6")) == ("F0", "F5")
    few = build
    for name in ("F1", "F2", "F3", "F4", "F5"):
        few = delete_former(few, name)
    post = TailPost(station=900, bottom=0, top=9, half_width=4)
    assert few.fuselage is not None
    few = few.but(fuselage=few.fuselage.but(tail_post=post))
    assert ends(delete_former(few, "F6")) is None


def planked_model(first: str = "F1", last: str = "F9") -> Build:
    """A described model of round formers, framed as usual, planked between two of them."""
    build = build_from(Figures(fuselage="board", wing_span=1400, tail_arm=620))
    build = shape_all_like(set_shape(build, "F4", "round"), "F4")
    # a board's own figures have no sheet over it; give it some to be left out
    assert build.fuselage is not None
    build = build.but(fuselage=build.fuselage.but(top_skin=1.5, bottom_skin=1.5))
    return set_planking(frame_as_usual(build), from_=first, to=last)


def test_planks_weigh_what_they_cover_and_formers_what_is_left_of_them() -> None:
    build = planked_model()
    fuselage = build.fuselage
    assert fuselage is not None
    parts = {part.id: part for part in parts_of(build)}
    stations = [one.station for one in fuselage.formers]
    girths = [girth_of(one) - 6.0 for one in fuselage.formers]
    area = float(np.trapezoid(girths, stations))  # a fine enough sum for a tenth
    assert parts["planking"].volume == pytest.approx(area * 2.0, rel=0.03)
    former = fuselage.formers[3]
    assert parts["F4"].volume == pytest.approx(
        shape_of(fuselage, former).area * (former.thickness or 0.0), rel=1e-9
    )


def test_no_sheet_lies_under_planks() -> None:
    whole = planked_model().fuselage
    part = planked_model("F3", "F6").fuselage
    assert whole is not None
    assert part is not None
    bare = part.but(framing=part.framed.but(planking=None))
    area = {
        name: sum(piece.area for skin in skins_of(one) for piece in skin.panels)
        for name, one in (("whole", whole), ("part", part), ("bare", bare))
    }
    assert 0 < area["whole"] < 0.1 * area["bare"]  # behind the last former
    assert area["whole"] < area["part"] < area["bare"]


def test_planks_are_laid_in_steps_that_fit_an_evening_after_the_frame_was_read() -> None:
    steps = {step.id: step for step in steps_at_hand(planked_model())}
    laid = [step for name, step in steps.items() if name.startswith("planks ")]
    fuselage = planked_model().fuselage
    assert fuselage is not None
    count = len(planks_of(fuselage).planks) // 2
    assert [number for step in laid for number in step.about] == [
        str(n) for n in range(1, count + 1)
    ]
    assert all((step.hands_minutes or 0) <= 60 for step in laid)
    assert "read" in laid[0].after
    assert laid[1].after == (laid[0].id,)
    assert step_title(laid[0]).startswith("Lay planks 1, 2, 3, 4 and 5 from the keel up")


def test_what_a_former_lacks_is_found_in_the_wood_that_planks_leave() -> None:
    fuselage = oval()
    former = fuselage.formers[3]
    cut = former.but(
        cutouts=(CutOut(id="bay", kind="hole", width=2 * 44.0, height=10.0, y=0.0, z=2.0),)
    )
    formers = tuple(cut if one.id == cut.id else one for one in fuselage.formers)
    thin, thick = (
        fuselage.but(
            formers=formers,
            framing=fuselage.framed.but(
                planking=fuselage.framed.planking.but(thickness=size)  # type: ignore[union-attr]
            ),
        )
        for size in (0.8, 4.0)
    )
    told = [
        [one.kind for one in findings_of(one_) if one.former == cut.id] for one_ in (thin, thick)
    ]
    assert told[0] != told[1]


def test_a_page_of_several_pieces_has_the_numbers_too() -> None:
    fuselage = oval()
    pieces = [piece for former in fuselage.formers for piece in former_pieces(fuselage, former)]
    wanted = Counter(mark.text for one in pieces for mark in one.marks if mark.role == "plank")
    pages = template_pages(pieces, (190.0, 260.0), "mm")
    printed = Counter(word.text for page in pages for word in page.words if word.text.isdigit())
    assert printed == Counter({text: count for text, count in wanted.items() if text})


def test_planks_are_drawn_at_full_size_only_where_that_is_wanted() -> None:
    build = sorrel()
    fuselage = build.fuselage
    assert fuselage is not None
    assert plank_drawings(fuselage) == ()
    build = set_planking(build, full_size=True)
    assert build.fuselage is not None
    drawn = {one.name: one for one in plank_drawings(build.fuselage)}
    planks = {one.number: one for one in planks_of(build.fuselage).planks}
    assert set(drawn) == {f"plank {number}" for number in planks}
    one, plank = drawn["plank 3"], planks[3]
    long, wide = one.size
    assert long == pytest.approx(plank.length)
    assert wide == pytest.approx(max(mm for _, mm in plank.widths))
    for mark, (name, mm) in zip(one.marks, plank.widths, strict=True):
        assert mark.text == name
        assert abs(mark.points[1][1] - mark.points[0][1]) == pytest.approx(mm)
    # along the middle, by a fine sum over its own batten
    assert dict(plank.places)["F12"] == pytest.approx(plank.length)
    assert "templates-A4.pdf" in template_files(build, "A4", "mm")
