"""Words that agree with their number."""

import pytest

from hardkeel.demo.kettlewick import demo_build
from hardkeel.messages.bench import one_more, resource_edit
from hardkeel.messages.counting import number_of
from hardkeel.messages.frame import members_count
from hardkeel.messages.sight import clicked_words
from hardkeel.messages.standing import how_far_logged
from hardkeel.survey.judging import judge_survey


@pytest.mark.parametrize(
    ("count", "told"), [(0, "0 entries"), (1, "1 entry"), (2, "2 entries"), (11, "11 entries")]
)
def test_one_is_one(count: int, told: str) -> None:
    assert number_of(count, "entry", "entries") == told
    assert number_of(count, "mark") == f"{count} mark{'' if count == 1 else 's'}"


def test_what_is_counted_in_the_window_agrees() -> None:
    build = demo_build()
    one = build.but(log=build.log[:1], sessions=())
    judged = judge_survey(build.surveyed, "dry")
    assert how_far_logged(one, judged) == "1 entry"
    assert clicked_words("p1", 1) == "Photo p1: 1 mark clicked."
    assert members_count(1) == "1 member"


def test_clamps_are_more_and_a_board_is_another() -> None:
    assert one_more("clamps") == resource_edit("clamps") == "more clamps"
    assert one_more("board") == "another board"
