"""Labels laid by a builder's own mark: a corner on it, a flag beyond its edge, a foot that hangs from it."""

import math

import numpy as np
import pytest

from hardkeel.airframe.target_ways import RIM, laid_by
from hardkeel.airframe.targeting import followed
from hardkeel.base.errors import BadInput
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.sight import drop_targets, lay_target_by, lay_targets
from hardkeel.practice.hidden import hidden_from
from hardkeel.practice.photographing import labels_on
from hardkeel.project.model import Build
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.survey.model import LaidBy, Mark

SIZE = 20.0
HALF = RIM * SIZE / 2


def place(build: Build, by: LaidBy) -> list[tuple[np.ndarray, np.ndarray]]:
    """Off the mark, and the normal, of each label that is laid so."""
    mark = build.surveyed.mark(by.mark)
    assert mark is not None
    marks, targets = laid_by(build.surveyed, by, SIZE)
    return [
        (np.array(own.at) - mark.at, np.array(target.normal))
        for own, target in zip(marks, targets, strict=True)
    ]


def test_a_corner_lies_on_the_corner_of_the_tip_and_the_label_on_the_wood() -> None:
    build = demo_build()
    wing = next(one for one in build.surveyed.bodies if one.id == "wing")
    ring = np.array(wing.outline)
    for name, aft, side in (
        ("wing_tip_le_port", 1, -1), ("wing_tip_te_port", -1, -1), ("wing_tip_le_starboard", 1, 1),
    ):  # fmt: skip
        ((off, normal),) = place(build, LaidBy(mark=name, way="corner", over=2.0))
        assert np.linalg.norm(off) == pytest.approx(math.hypot(HALF, HALF, 2.0), abs=0.02)
        assert off[0] * aft > 0.8 * HALF
        assert off[1] * -side > 0.8 * HALF
        # its plane is the panel's own: the drawn corners of that half lie in it
        mine = ring[ring[:, 1] * side >= 0]
        mark = build.surveyed.mark(name)
        assert mark is not None
        assert np.abs((mine - mark.at) @ normal).max() < 0.6
        assert off @ normal == pytest.approx(2.0, abs=0.02)


def test_a_flag_stands_beyond_the_edge_and_a_fins_is_read_from_both_sides() -> None:
    build = demo_build()
    port, starboard = place(build, LaidBy(mark="fin_top_te", way="flag"))
    assert port[0] == pytest.approx(starboard[0])
    assert port[1] == pytest.approx(-starboard[1])
    assert port[0][0] == pytest.approx(HALF, abs=0.01)
    (front, _), _ = place(build, LaidBy(mark="fin_top_le", way="flag"))
    assert front[0] == pytest.approx(-HALF, abs=0.01)
    assert port[0][1:] == pytest.approx([0, 0])
    ((off, normal),) = place(build, LaidBy(mark="stab_tip_te_port", way="flag"))
    assert off[0] == pytest.approx(HALF, abs=0.05)
    assert normal[2] > 0.99


def test_a_foot_hangs_from_its_edge_and_looks_back() -> None:
    ((off, normal),) = place(demo_build(), LaidBy(mark="wing_tip_te_port", way="foot"))
    assert off == pytest.approx([0, 0, -HALF], abs=0.01)
    assert normal == pytest.approx([1, 0, 0])


def test_the_stand_in_camera_draws_them_whatever_way_they_face() -> None:
    build = lay_target_by(demo_build(), "wing_tip_te_port", "foot", 0.0)
    build = lay_target_by(build, "fin_top_te", "flag", 0.0)
    labels = labels_on(hidden_from(build.surveyed, {}))
    assert len(labels) == 3
    for label in labels.values():
        axes = np.array([label.right, label.up, label.normal])
        assert axes @ axes.T == pytest.approx(np.eye(3), abs=1e-6)


def test_it_follows_its_mark_and_the_file_keeps_it() -> None:
    build = lay_target_by(demo_build(), "stab_tip_te_port", "corner", 1.5)
    target = build.surveyed.targets[-1]
    assert target.by == LaidBy(mark="stab_tip_te_port", way="corner", over=1.5)
    assert build_from_text(text_of(build)).surveyed == build.surveyed
    survey = build.surveyed
    moved = survey.but(
        marks=tuple(
            one.but(at=(one.at[0] + 7, one.at[1], one.at[2]))
            if one.id == "stab_tip_te_port"
            else one
            for one in survey.marks
        )
    )
    after = followed(build, build.but(survey=moved)).surveyed
    was, now = survey.mark(target.mark), after.mark(target.mark)
    assert was is not None
    assert now is not None
    assert now.at[0] == pytest.approx(was.at[0] + 7)
    gone = survey.but(marks=tuple(one for one in survey.marks if one.id != "stab_tip_te_port"))
    assert followed(build, build.but(survey=gone)).surveyed.mark(target.mark) == was
    assert drop_targets(build).surveyed.marks == demo_build().surveyed.marks


def test_what_can_not_be_laid_is_refused() -> None:
    build = lay_target_by(demo_build(), "fin_top_te", "flag", 0.0)
    assert len(build.surveyed.targets) == 2
    with pytest.raises(BadInput, match="in this way already"):
        lay_target_by(build, "fin_top_te", "flag", 0.0)
    with pytest.raises(BadInput, match='no mark "nowhere"'):
        lay_target_by(build, "nowhere", "corner", 0.0)
    many = lay_targets(build)
    marks = [Mark(id=f"m{i}", body="fuselage", at=(float(i), 0.0, 0.0)) for i in range(100)]
    survey = many.surveyed
    crowded = many.but(survey=survey.but(marks=(*survey.marks, *marks)))
    for mark in marks[: 100 - len(survey.targets)]:
        crowded = lay_target_by(crowded, mark.id, "middle", 0.0)
    with pytest.raises(BadInput, match="all 100 codes are used"):
        lay_target_by(crowded, "m99", "middle", 0.0)
