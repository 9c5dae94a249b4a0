"""The airframe in space: what is painted last is what is nearest, by rays; turned, moved and looked at from all sides."""

from collections.abc import Callable

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from hardkeel.demo.fleet import marram, sallow, withy
from hardkeel.demo.kettlewick import demo_build
from hardkeel.demo.planked import sorrel
from hardkeel.fuselage.curing import judge_frame
from hardkeel.fuselage.planking import planks_of
from hardkeel.messages.in_the_round import looked_from
from hardkeel.picture.frame_in_space import in_space, moves_of, trued_in_space
from hardkeel.picture.in_space import Eye, Face, Layer, Moves, Space, bar, prism
from hardkeel.project.model import Build
from hardkeel.survey.judging import judge_survey

ALL: frozenset[Layer] = frozenset({"frame", "skin", "surface"})
FRAME: frozenset[Layer] = frozenset({"frame"})


def wrongly_covered(faces: list[Face], eye: Eye, rays: int = 300) -> float:
    """Share of rays on which what is painted last lies more than a joint's depth behind what is nearest."""
    right, up, toward = eye.axes
    across = np.column_stack([right, -up])
    solid = [one for one in faces if one.out is not None and abs(float(one.out @ toward)) > 0.05]
    shapes = [
        shapely.Polygon(one.rings[0] @ across, [ring @ across for ring in one.rings[1:]]).buffer(
            -0.2
        )
        for one in solid
    ]
    tree = shapely.STRtree(shapes)
    rng = np.random.default_rng(4)
    met = wrong = 0
    for i in rng.permutation(len(shapes)).tolist():
        if shapes[i].is_empty:
            continue
        point = shapes[i].representative_point()
        on_plane = point.x * right - point.y * up
        hits = []
        for k in sorted(tree.query(point, predicate="within").tolist()):
            out = solid[k].out
            assert out is not None
            gone = float(out @ (solid[k].rings[0].mean(axis=0) - on_plane))
            hits.append(gone / float(out @ toward))
        if len(hits) > 1:
            met += 1
            wrong += hits[-1] < max(hits) - 8.0
        if met == rays:
            break
    assert met > 40
    return wrong / met


@pytest.mark.parametrize("make", [withy, sorrel, marram])
@pytest.mark.parametrize("eye", [Eye(30, 20), Eye(-140, 35), Eye(80, -10)])
def test_what_is_painted_last_is_nearest(make: Callable[[], Build], eye: Eye) -> None:
    space = in_space(make())
    _, order, _ = space.turned_to(eye, FRAME, open_=False)
    faces = [space.faces[i] for i in order.tolist()]
    assert wrongly_covered(faces, eye) <= 0.03


def test_a_box_shows_three_of_its_faces_and_its_hole_stays_open() -> None:
    ring = np.array([(0, 0), (10, 0), (10, 10), (0, 10)], dtype=float)
    hole = np.array([(4, 4), (6, 4), (6, 6), (4, 6)], dtype=float)
    space = Space(list(prism("F1", ring, [hole], (0.0, 3.0), 0, 0)))
    seen = space.seen_from(Eye(30, 20), FRAME, open_=False)
    assert sum(len(one.rings) == 2 for one in seen) == 1  # the near face, with its hole
    assert len(seen) == 3 + 2  # and two rims of the hole
    stick = Space(list(bar("s", np.array([[(x, y, z) for y, z in ((0, 0), (3, 0), (3, 3), (0, 3))] for x in (0, 50)], dtype=float), [1])))  # fmt: skip
    assert len(stick.seen_from(Eye(30, 20), FRAME, open_=False)) == 3


@given(st.floats(-180, 180), st.floats(-90, 90))
def test_the_eye_has_three_axes_square_to_each_other_and_words(round_: float, up: float) -> None:
    axes = np.array(Eye(round_, up).axes)
    assert axes @ axes.T == pytest.approx(np.eye(3), abs=1e-12)
    assert looked_from(round_, up)


def test_plan_side_and_rear_are_what_builders_call_so() -> None:
    point = np.array([[100.0, 20.0, 30.0]])
    for eye, wanted in (
        (Eye(0, 90), (100, -20)),
        (Eye(0, 0), (100, -30)),
        (Eye(-90, 0), (20, -30)),
    ):
        right, up, _ = eye.axes
        assert (point @ np.column_stack([right, -up]))[0] == pytest.approx(wanted)
    assert looked_from(0, 90) == "from above"
    assert looked_from(0, 0).startswith("from port,")
    assert looked_from(-90, 0).startswith("from behind")


def test_planks_cover_the_skin_without_a_gap() -> None:
    build = sorrel()
    assert build.fuselage is not None
    space = in_space(build)
    planks = [one for one in space.faces if one.layer == "skin"]
    reaching = dict(planks_of(build.fuselage).reaching)
    assert {one.ref for one in planks} >= {f"P{n}" for n in reaching["F4"]}
    # from the side every place of the hull is hidden by a plank
    seen = space.seen_from(Eye(0, 0), frozenset({"skin"}), open_=False)
    cover = shapely.union_all([shapely.Polygon(one.rings[0]).buffer(0.05) for one in seen])
    hull = [(one.station, -one.top + 1.5) for one in build.fuselage.formers]
    hull += [(one.station, -one.bottom - 4.0) for one in reversed(build.fuselage.formers)]
    assert shapely.Polygon(hull).buffer(-1).difference(cover).area < 0.01 * cover.area


def test_moved_corners_move_what_lies_between_in_proportion() -> None:
    shift = np.zeros((2, 4, 3))
    shift[1, :, 1] = 10.0  # the second former goes ten to starboard
    shift[1, 2:, 2] = 4.0  # and its top four up
    moves = Moves(np.array((0.0, 100.0)), np.array(((20.0, -20.0, 20.0),) * 2), shift)
    moved = moves(
        np.array(((0.0, 5.0, 5.0), (50.0, 0.0, 0.0), (100.0, 0.0, 20.0), (150.0, 0.0, -20.0)))
    )
    assert np.allclose(moved, ((0, 5, 5), (50, 5, 1), (100, 10, 24), (150, 10, -20)))


def test_a_frame_stands_as_it_was_read() -> None:
    build = sallow()
    assert build.fuselage is not None
    judged = judge_frame(build.fuselage)
    moves = moves_of(build.fuselage, judged.squared, 1.0)
    assert moves is not None
    design = {mark.id: np.array(mark.at) for mark in judged.squared.net.survey.marks}
    now = judged.squared.solution.placed.airframe
    former = build.fuselage.formers[2]
    corner = np.array([[former.station, former.half_width, former.top]])
    by = now[judged.squared.net.index[f"{former.id}.ts"]] - design[f"{former.id}.ts"]
    hand = -1.0 if build.fuselage.board and build.fuselage.board.inverted else 1.0
    assert (moves(corner) - corner)[0] == pytest.approx(by * (1.0, hand, hand), abs=1e-6)


def test_the_trued_airframe_has_its_error_enlarged() -> None:
    build = demo_build()
    judgement = judge_survey(build.surveyed)
    space, wanted = trued_in_space(build, judgement, 10.0)
    once, _ = trued_in_space(build, judgement, 1.0)
    ring, small = (
        next(one.rings[0] for one in each.faces if one.ref == "stab") for each in (space, once)
    )
    as_wanted = next(line for name, line in wanted.lines if name == "stab")[:-1]
    assert np.abs(ring - as_wanted).max() == pytest.approx(10 * np.abs(small - as_wanted).max())
