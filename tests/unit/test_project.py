from collections.abc import Callable
from datetime import UTC, datetime

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from hardkeel.airframe.figures import Figures, build_from
from hardkeel.base.errors import BadInput
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import truing as edits
from hardkeel.geometry.rotation import Array
from hardkeel.picture.truing import VIEWS, body_ring, picture_of
from hardkeel.project.model import Build, empty_build
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.survey.drafts import KIND_ORDER, Draft, find_body, find_mark
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.model import Body, Mark, Survey
from hardkeel.survey.planning import plan
from hardkeel.survey.readings import Distance, Height, Incidence
from hardkeel.survey.seat_step import SeatStep

NOW = datetime(2026, 10, 5, 20, 0, tzinfo=UTC)


def height(mark: str = "nose_pin", value: float = 100.0) -> Height:
    return Height(id="?", mark=mark, value=value, phase="dry")


def test_the_demo_tells_its_story() -> None:
    build = demo_build()
    judgement = judge_survey(build.surveyed, "dry")
    assert 35 <= len(build.surveyed.readings) <= 45
    assert {r.phase for r in build.surveyed.readings} == {"dry", "wet"}
    assert {check.verdict for check in judgement.checks} == {"true", "out", "unsure"}
    assert {c.body for c in judgement.checks if c.verdict == "out"} == {"stab"}
    assert len(judgement.outliers) == 1
    assert not judgement.outliers[0].alike
    wrong = build.surveyed.reading(judgement.outliers[0].reading)
    assert isinstance(wrong, Distance)
    assert wrong.to == "stab_tip_te_starboard"


@given(
    span=st.floats(400, 3000), root=st.floats(80, 400), taper=st.floats(0.4, 1.2), arm=st.floats(1.5, 4),
    sweep=st.floats(-2, 5),
)  # fmt: skip
def test_any_sensible_figures_give_an_airframe_that_can_be_trued(
    span: float, root: float, taper: float, arm: float, sweep: float
) -> None:
    figures = Figures(wing_span=span, wing_root=root, wing_tip=root * taper, tail_arm=arm * root,
                      stab_span=span / 3, stab_chord=root / 2, fin_chord=root / 2, wing_dihedral=sweep)  # fmt: skip
    build = build_from(figures)
    assert build_from_text(text_of(build)) == build
    judgement = judge_survey(build.surveyed)
    assert len(judgement.checks) == 14
    assert plan(judgement.net, judgement.solution, judgement.rules)
    assert judgement.next


def test_figures_that_contradict_each_other_are_told() -> None:
    with pytest.raises(BadInput, match="tail arm"):
        build_from(Figures(tail_arm=120))
    with pytest.raises(BadInput, match="stabilizer span"):
        build_from(Figures(stab_span=2000))


def test_a_precision_model_gets_tighter_tolerances_and_only_the_ticked_tools() -> None:
    build = build_from(Figures(model_class="precision", tools=("tape", "eye")))
    judgement = judge_survey(build.surveyed)
    assert {c.id: c.tolerance for c in judgement.checks}["stab_yaw"] == pytest.approx(0.18)
    assert {one.reading.kind for one in judgement.next} <= {"distance", "tilt"}


def test_corner_marks_stand_where_the_figures_say() -> None:
    build = build_from(
        Figures(
            wing_span=1000,
            wing_root=200,
            wing_tip=200,
            wing_le_x=100,
            wing_incidence=0,
            wing_dihedral=0,
        )
    )
    port, mid = build.surveyed.mark("wing_tip_te_port"), build.surveyed.mark("wing_mid_le")
    assert port is not None
    assert mid is not None
    assert port.at == pytest.approx((300, -500, mid.at[2]))
    assert mid.at[0] == 100


def test_taking_a_reading_gives_it_an_id_a_time_and_a_line_in_the_log() -> None:
    build = build_from(Figures())
    build = edits.take_reading(build, height(), NOW)
    build = edits.take_reading(build, height("tail_pin"), NOW)
    assert [r.id for r in build.surveyed.readings] == ["r1", "r2"]
    assert build.surveyed.readings[0].taken == NOW.isoformat(timespec="seconds")
    assert [(entry.kind, entry.count, entry.text) for entry in build.log] == [("readings", 2, "")]


def test_taking_again_keeps_the_old_one_unused() -> None:
    build = edits.take_reading(build_from(Figures()), height(), NOW)
    build = edits.take_again(build, "r1", 101.5, NOW)
    assert [(r.id, r.value, r.ignored) for r in build.surveyed.readings] == [
        ("r1", 100.0, True),
        ("r2", 101.5, False),
    ]


def test_ids_are_never_used_twice() -> None:
    build = build_from(Figures())
    for _ in range(3):
        build = edits.take_reading(build, height(), NOW)
    build = edits.delete_reading(build, "r2")
    build = edits.take_reading(build, height(), NOW)
    ids = [r.id for r in build.surveyed.readings]
    assert len(set(ids)) == len(ids) == 3


def test_an_edit_that_points_at_nothing_changes_nothing() -> None:
    build = build_from(Figures())
    attempts: tuple[Callable[[], Build], ...] = (
        lambda: edits.take_reading(build, height("no such"), NOW),
        lambda: edits.delete_reading(build, "r99"),
        lambda: edits.change_value(build, "r99", 1.0),
        lambda: edits.set_tolerance(build, "stab_yaw", -1.0),
        lambda: edits.add_note(build, "   ", NOW),
    )
    for edit in attempts:
        with pytest.raises(BadInput):
            edit()
    assert build == build_from(Figures())


def test_a_correction_sets_aside_what_was_read_on_that_body_only() -> None:
    build = demo_build()
    after = edits.correction_done(
        build, "stab", "dry", (SeatStep(act="sand", contacts=("front_port",), mm=0.4),), NOW
    )
    for before, now in zip(build.surveyed.readings, after.surveyed.readings, strict=True):
        if before.phase == "wet" or not _on_stab(before):
            assert now == before
        else:
            assert now.ignored
    assert after.log[-1].kind == "correction"


def _on_stab(reading: object) -> bool:
    return "stab" in repr(reading).replace("instrument='stand'", "")


def test_an_own_tolerance_can_be_set_and_dropped() -> None:
    build = edits.set_tolerance(build_from(Figures()), "stab_yaw", 0.2)
    assert build.surveyed.tolerances == {"stab_yaw": 0.2}
    assert edits.set_tolerance(build, "stab_yaw", None).surveyed.tolerances == {}


@pytest.mark.parametrize("kind", KIND_ORDER)
def test_a_draft_of_each_kind_becomes_a_reading_once_all_is_picked(kind: str) -> None:
    survey = build_from(Figures()).surveyed
    draft = Draft(kind)  # type: ignore[arg-type]
    marks = iter(["fin_top_te", "fin_foot_te", "stab_tip_te_port"])
    assert draft.reading() is None
    while draft.wants:
        draft = (
            draft.with_body(survey, "wing", 300.0)
            if draft.wants == "body"
            else draft.with_mark(survey, next(marks))
        )
    reading = draft.reading(12.0)
    assert reading is not None
    assert (reading.kind, reading.value) == (kind, 12.0)


def test_a_gauge_hangs_where_the_body_was_clicked() -> None:
    survey = build_from(Figures(wing_span=1200)).surveyed
    draft = Draft("incidence")
    assert draft.with_body(survey, "wing", -300.0).reading() == Incidence(
        id="?", value=0.0, body="wing", side="port", span_fraction=0.5
    )
    middle = draft.with_body(survey, "wing", 5.0)
    assert (middle.side, middle.span_fraction) == ("centre", 0.0)
    with pytest.raises(BadInput):
        draft.with_body(survey, "fuselage")


def test_marks_and_bodies_are_found_by_what_a_builder_calls_them() -> None:
    survey = build_from(Figures(wing_span=1200)).surveyed
    assert find_mark(survey, "nose pin") == "nose_pin"
    assert find_mark(survey, "stab te port") == "stab_tip_te_port"
    assert find_body(survey, "wing port 0.5") == ("wing", -300.0)
    for words in ("wing te", "propeller", ""):
        with pytest.raises(BadInput):
            find_mark(survey, words)
    for words, share in (("0,5", 0.5), ("1/2", 0.5), ("50%", 0.5), (".25", 0.25), ("1", 1.0)):
        for text in (f"wing port {words}", f"{words} port wing"):
            body, y = find_body(survey, text)
            assert (body, y) == ("wing", -600.0 * share)
    assert find_body(survey, "stabilizer")[0] == find_body(survey, "tail")[0] == "stab"
    for text, told in (
        ("wing port 3", "not a share"),
        ("wing port 1/0", "not a share"),
        ("wingg2", "wingg2"),
        ("wing port half", "half"),
        ("wing 0.5", "needs port or starboard"),
        ("", "write it like"),
    ):
        with pytest.raises(BadInput, match=told):
            find_body(survey, text)
    with pytest.raises(BadInput, match="“prot” in its name"):
        find_mark(survey, "stab te prot")


def test_the_picture_exaggerates_the_error_and_nothing_else() -> None:
    build = demo_build()
    judgement = judge_survey(build.surveyed, "dry")

    def tip(factor: float) -> Array:
        strokes = picture_of(build, judgement, factor).of("behind")
        return np.array(
            next(s.points for s in strokes if s.role == "estimated" and s.ref == "stab")
        )

    wanted, once, ten = tip(0), tip(1), tip(10)
    assert ten - wanted == pytest.approx(10 * (once - wanted))
    assert abs(once - wanted).max() > 1


def test_every_reading_is_drawn_and_every_view_has_bounds() -> None:
    build = demo_build()
    judgement = judge_survey(build.surveyed, "dry")
    picture = picture_of(build, judgement, 5)
    assert {s.ref for s in picture.strokes if s.role == "reading"} == {
        r.id for r in judgement.readings
    }
    assert all(picture.bounds(view) for view in VIEWS)


def test_a_body_without_outline_is_drawn_from_its_marks_or_its_figures() -> None:
    corners = tuple(
        Mark(id=f"m{i}", body="b", at=(float(x), float(y), 5.0))
        for i, (x, y) in enumerate(((0, 0), (9, 0), (9, 9), (0, 9), (4, 4)))
    )
    bare = Body(id="b", pivot=(100.0, 0.0, 5.0), span=200.0, chord=60.0)
    assert len(body_ring(Survey(bodies=(bare,), marks=corners), bare)) == 4
    assert body_ring(Survey(bodies=(bare,)), bare)[0] == (70.0, -100.0, 5.0)


def test_an_empty_build_has_an_empty_picture() -> None:
    build = empty_build()
    picture = picture_of(build, judge_survey(build.surveyed), 10)
    assert picture.strokes == ()
    assert picture.bounds("plan") is None
