"""Who is to blame: the true part is not accused of what another does."""

import pytest

from hardkeel.edits.truing import correction_done
from hardkeel.messages.advice import headline, next_step, seat_advice
from hardkeel.project.model import Build
from hardkeel.survey.judging import Judgement
from hardkeel.survey.readings import marks_of
from tests.airframes import exactly
from tests.conftest import StepClock


def out(judged: Judgement) -> set[str]:
    return {check.id for check in judged.checks if check.verdict == "out"}


@pytest.mark.parametrize(
    ("wrong", "relative", "to_blame"),
    [
        ({"wing.pitch": 1.2}, "decalage", ("wing",)),
        ({"stab.pitch": -1.2}, "decalage", ("stab",)),
        ({"wing.roll": 1.2}, "stab_roll_to_wing", ("wing",)),
        ({"stab.roll": -1.2}, "stab_roll_to_wing", ("stab",)),
        ({"stab.roll": 1.2}, "fin_lean_to_stab", ("stab",)),
        ({"fin.roll": 1.2}, "fin_lean_to_stab", ("fin",)),
        # each within its own half degree, together beyond it: nothing tells them apart
        ({"wing.pitch": 0.4, "stab.pitch": -0.4}, "decalage", ("wing", "stab")),
        ({"wing.pitch": 1.2, "stab.pitch": -1.2}, "decalage", ("wing", "stab")),
    ],
)
def test_a_check_between_two_is_charged_to_the_one_that_is_out(
    wrong: dict[str, float], relative: str, to_blame: tuple[str, ...]
) -> None:
    judged = exactly(wrong)
    assert relative in out(judged)
    assert judged.charged[relative] == to_blame
    for check in judged.checks:  # a check of one body is always that body's
        if check.kind not in ("decalage", "roll_to_wing", "fin_lean_to_stab"):
            assert judged.charged[check.id] == (check.body,)


def test_the_headline_and_the_seat_name_the_wing_when_only_the_wing_is_out() -> None:
    judged = exactly({"wing.pitch": 1.2})
    survey = judged.net.survey
    assert headline(survey, judged) == "Wing out of true"
    assert judged.culprit == "wing"
    step = next_step(survey, judged, "mm")
    assert (step.kind, step.body) in (("correct", "wing"), ("reading", None))
    seats = {c.body: seat_advice(survey, judged, c, "sanding", "mm") for c in judged.corrections}
    assert seats["wing"].needed
    assert not seats["stab"].needed
    assert {check.verdict for check in judged.checks_on("stab")} == {"true"}


def test_of_two_that_are_out_the_seat_that_mends_most_is_shown_first() -> None:
    judged = exactly({"wing.pitch": 0.6, "stab.roll": 1.5, "stab.pitch": -0.7})
    assert judged.culprit == "stab"
    assert headline(judged.net.survey, judged) == "Wing and stabilizer out of true"


def test_done_sets_aside_only_what_was_read_on_the_corrected_body(clock: StepClock) -> None:
    judged = exactly({"wing.pitch": 1.2})
    survey = judged.net.survey
    done = correction_done(Build(survey=survey), judged.culprit, None, (), clock())
    owners = {mark.id: mark.body for mark in survey.marks}
    aside = 0
    for before, after in zip(survey.readings, done.surveyed.readings, strict=True):
        on = {before.body} if before.kind == "incidence" else {owners[m] for m in marks_of(before)}
        assert after.ignored == ("wing" in on)
        aside += after.ignored
    assert 0 < aside < len(survey.readings)
