"""Labels that were stuck on in any order: each is found on the mark it sits on, and none is guessed."""

from dataclasses import replace
from functools import cache

import numpy as np
import pytest

from hardkeel.messages import targets as say
from hardkeel.sight.assigning import assigned, order_of, reordered
from hardkeel.sight.targets import Taken, sighted
from hardkeel.survey.judging import judge_survey
from tests.targeted import Bench, bench, seen


@cache
def standing(seed: int) -> tuple[Bench, list[Taken]]:
    made = bench(seed)
    return made, seen(made, seed)


def in_other_order(
    made: Bench, photos: list[Taken], seed: int
) -> tuple[list[Taken], dict[int, str]]:
    """The photographs as they would be with the labels stuck on by chance, some of other numbers; what is true."""
    rng = np.random.default_rng(seed)
    codes = [one.code for one in made.survey.targets]
    given = dict(zip(codes, rng.permutation(np.arange(10, 10 + len(codes))).tolist(), strict=True))
    shuffled = [
        replace(one, codes=tuple(replace(code, code=given[code.code]) for code in one.codes))
        for one in photos
    ]
    return shuffled, {given[one.code]: one.mark for one in made.survey.targets}


@pytest.mark.parametrize("seed", range(4))
@pytest.mark.parametrize("count", [1, 2, 4])
def test_each_is_found_where_it_sits(seed: int, count: int) -> None:
    made, photos = standing(seed)
    shuffled, truth = in_other_order(made, photos[:count], seed)
    found = assigned(made.survey, shuffled, 20.0)
    assert found is not None
    assert {code: truth[code] for code in found.marks} == found.marks
    shown = {one.code for photo in shuffled for one in photo.codes}
    assert set(found.marks) | set(found.unclear) == shown
    assert len(found.marks) >= 0.8 * len(shown)


def test_a_camera_that_told_nothing_of_itself_does_too() -> None:
    made, photos = standing(1)
    shuffled, truth = in_other_order(made, [replace(one, focal=None) for one in photos], 7)
    found = assigned(made.survey, shuffled, 20.0)
    assert found is not None
    assert all(truth[code] == mark for code, mark in found.marks.items())


def test_the_answer_is_the_same_as_in_the_sheets_order() -> None:
    made, photos = standing(2)
    shuffled, _ = in_other_order(made, photos, 3)
    order = order_of(made.survey, shuffled)
    assert order is not None
    survey = reordered(made.survey, order)
    assert {one.mark for one in survey.targets} == {one.mark for one in made.survey.targets}
    asked = judge_survey(sighted(made.survey, photos).survey)
    got = judge_survey(sighted(survey, shuffled).survey)
    for one in asked.checks:
        other = got.check(one.id)
        assert other is not None
        assert other.value == pytest.approx(one.value, abs=1e-6)


def test_it_is_said_whether_they_sit_otherwise() -> None:
    made, photos = standing(2)
    as_laid = assigned(made.survey, photos, 20.0)
    assert say.order_lines(as_laid, made.survey) == [say.SAME_ORDER]
    shuffled, _ = in_other_order(made, photos, 3)
    assert say.order_lines(assigned(made.survey, shuffled, 20.0), made.survey)[0] == say.OTHER_ORDER
    assert say.order_lines(None, made.survey) == []


def test_nothing_is_said_where_all_sit_as_they_should_or_nothing_tells() -> None:
    made, photos = standing(0)
    assert order_of(made.survey, photos) is None
    swapped = [
        replace(
            one,
            codes=tuple(
                replace(code, code={3: 9, 9: 3}.get(code.code, code.code)) for code in one.codes
            ),
        )
        for one in photos
    ]
    assert order_of(made.survey, swapped) is None, "two that are swapped are told by name"
    rng = np.random.default_rng(5)
    scattered = [
        replace(
            one,
            codes=tuple(
                replace(code, corners=tuple((u + a, v + b) for u, v in code.corners))  # type: ignore[arg-type]
                for code in one.codes
                for a, b in [rng.uniform(-900, 900, 2)]
            ),
        )
        for one in photos
    ]
    assert assigned(made.survey, scattered, 20.0) is None
    assert assigned(made.survey, [], 20.0) is None


def test_a_label_on_the_bench_is_on_no_mark() -> None:
    made, photos = standing(3)
    shuffled, truth = in_other_order(made, photos, 1)
    stray = [
        replace(
            one,
            codes=(
                *one.codes,
                replace(
                    one.codes[0], code=77,
                    corners=tuple((u + 260.0, v + 330.0) for u, v in one.codes[0].corners),  # type: ignore[arg-type]
                ),
            ),
        )
        for one in shuffled
    ]  # fmt: skip
    found = assigned(made.survey, stray, 20.0)
    assert found is not None
    assert 77 in found.unclear
    assert all(truth[code] == mark for code, mark in found.marks.items())
