import re
from dataclasses import replace

import pytest

from hardkeel.airframe.figures import Figures, build_from
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import truing as edits
from hardkeel.messages import names
from hardkeel.messages.advice import headline, next_step, seat_advice, suspect_sentence
from hardkeel.messages.alternatives import alternative_of, check_sentence
from hardkeel.messages.verdicts import state_words, verdict_sentence, way_off
from hardkeel.project.model import empty_build
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.model import Body, Survey
from hardkeel.survey.readings import AngleAt, DistanceDifference, Incidence, Tilt
from hardkeel.survey.rigging import deciding
from tests.airframes import exactly_wrong

BUILD = demo_build()
SURVEY = BUILD.surveyed
DRY = judge_survey(SURVEY, "dry")


def test_the_answer_names_the_part_that_is_out() -> None:
    assert headline(SURVEY, DRY) == "Stabilizer out of true"


def test_a_check_that_is_out_is_told_in_millimetres_at_the_tip_and_its_way() -> None:
    check = DRY.check("stab_roll_to_wing")
    assert check is not None
    words = r"starboard tip \d\.\d mm high against the wing"
    assert re.fullmatch(words, way_off(SURVEY, check, "mm"))
    assert "″ high" in way_off(SURVEY, check, "in")
    assert verdict_sentence(SURVEY, check, "mm").startswith(
        "Stabilizer to wing is out: starboard tip"
    )


def test_what_is_out_against_the_wing_is_not_called_level() -> None:
    judged = judge_survey(demo_build().surveyed, "dry")
    level = next(check for check in judged.checks if check.id == "stab_roll")
    to_wing = next(check for check in judged.checks if check.id == "stab_roll_to_wing")
    assert (level.verdict, to_wing.verdict) == ("unsure", "out")
    assert state_words(judged.checks_on("stab"), "mm") == "to wing out 0.8°"


def test_both_stories_are_told_where_a_verdict_rests_on_one_reading() -> None:
    check = DRY.check("stab_roll")
    assert check is not None
    assert check.verdict == "unsure"
    said = check_sentence(SURVEY, DRY, check, "mm")
    assert said.startswith("Stabilizer level is out: starboard tip")
    assert "unless “level, F3 upper longeron, port to starboard” is wrong (1 to 29)" in said
    doubt = alternative_of(DRY, check)
    assert doubt is not None
    assert deciding(DRY, doubt) == ("r1",)
    sure = DRY.check("wing_roll")
    assert sure is not None
    assert check_sentence(SURVEY, DRY, sure, "mm") == verdict_sentence(SURVEY, sure, "mm")
    edge = replace(sure, verdict="unsure", edge=True)
    assert check_sentence(SURVEY, DRY, edge, "in").endswith("correct it or accept it.")


def test_what_is_not_known_says_how_far_it_is_from_known() -> None:
    check = next(c for c in DRY.checks if c.verdict == "unsure")
    assert "is not known yet: ±" in verdict_sentence(SURVEY, check, "mm")


def test_the_seat_is_told_what_to_sand_and_what_follows() -> None:
    correction = next(c for c in DRY.corrections if c.body == "stab")
    sanding = seat_advice(SURVEY, DRY, correction, "sanding", "mm")
    shims = seat_advice(SURVEY, DRY, correction, "shims", "mm")
    assert sanding.needed
    assert all(line.startswith("Sand ") and "starboard" in line for line in sanding.do)
    assert all(line.startswith("Put ") for line in shims.do)
    assert "port" in shims.do[0]
    # level is out too unless a reading is wrong: open, so nothing is promised of it
    assert sanding.then.startswith("Then to wing ")
    assert "to wing" in sanding.then
    inches = seat_advice(SURVEY, DRY, correction, "sanding", "in")
    assert re.search(r"0\.0\d\d″ \(\d+/\d+\)", inches.do[0])


def test_a_body_that_is_not_out_is_left_alone() -> None:
    correction = next(c for c in DRY.corrections if c.body == "wing")
    assert not seat_advice(SURVEY, DRY, correction, "sanding", "mm").needed


def test_a_yawed_body_is_told_to_slide() -> None:
    judgement = exactly_wrong("yaw", 1.0)
    correction = next(c for c in judgement.corrections if c.body == "stab")
    advice = seat_advice(judgement.net.survey, judgement, correction, "shims", "mm")
    assert all(line.startswith("Slide the ") for line in advice.do)
    assert "starboard 0.4 mm aft" in " ".join(advice.do)


def test_next_is_the_doubtful_reading_then_a_new_one_then_the_seat() -> None:
    step = next_step(SURVEY, DRY, "mm")
    assert (step.kind, step.reading.id if step.reading else "") == (
        "again",
        DRY.outliers[0].reading,
    )
    cured = edits.set_ignored(BUILD, step.reading.id if step.reading else "", ignored=True)
    assert next_step(cured.surveyed, judge_survey(cured.surveyed, "dry"), "mm").kind == "reading"
    fresh = build_from(Figures()).surveyed
    assert next_step(fresh, judge_survey(fresh, "dry"), "mm").kind == "first"
    empty = empty_build().surveyed
    assert next_step(empty, judge_survey(empty), "mm").kind == "describe"


def test_when_tools_can_not_decide_it_says_so() -> None:
    bare = SURVEY.but(instruments=(), readings=())
    step = next_step(bare, judge_survey(bare), "mm")
    assert step.reading is None
    assert "can't decide" in step.why


def test_all_true_says_glue() -> None:
    loose = {check.id: 50.0 for check in DRY.checks}
    easy = SURVEY.but(tolerances=loose, readings=tuple(r for r in SURVEY.readings if r.id != "r20"))
    judgement = judge_survey(easy, "dry")
    assert headline(easy, judgement) == "All true"
    step = next_step(easy, judgement, "mm")
    assert step.kind == "glue"
    assert "gloves" in step.why


def test_a_suspect_says_which_reading_and_by_how_much() -> None:
    text = suspect_sentence(SURVEY, DRY, DRY.outliers[0], "mm")
    assert re.fullmatch(r"r\d+ does not fit the rest, by [+−]\d+\.\d mm: take it again\.", text)


@pytest.mark.parametrize(
    ("reading", "words"),
    [
        (Tilt(id="a", from_="wing_tip_le_port", to="wing_tip_le_starboard", value=0), "level, wing tip LE, port to starboard"),
        (DistanceDifference(id="a", from_="nose_pin", to=("stab_tip_te_port", "stab_tip_te_starboard"), value=0),
         "nose pin to stabilizer tip TE, port less starboard"),
        (Incidence(id="a", body="stab", side="port", span_fraction=0.5, zero="level", value=0),
         "incidence, stabilizer port 0.5, by gravity"),
        (AngleAt(id="a", at="fin_foot_te", from_="fin_top_te", to="stab_tip_te_port", value=0),
         "angle at fin foot TE: fin top TE, stabilizer tip TE port"),
    ],
)  # fmt: skip
def test_readings_are_named_by_where_they_are_held(reading: Tilt, words: str) -> None:
    assert names.reading_name(SURVEY, reading) == words


def test_labels_win_over_ids_and_ids_are_spelled_out() -> None:
    survey = Survey(bodies=(Body(id="stab", pivot=(0.0, 0.0, 0.0), label="tailplane"),))
    assert names.body_name(survey, "stab") == "tailplane"
    assert names.body_name(Survey(), "stab") == "stabilizer"
    assert names.mark_name(Survey(), "wing_tip_te_port") == "wing tip TE port"
