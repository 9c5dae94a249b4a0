"""The learner's word, what it is worth, and what is kept of it."""

import math
from datetime import UTC, datetime, timedelta
from functools import cache
from pathlib import Path

import numpy as np
import pytest

from hardkeel.base.errors import BadInput
from hardkeel.demo.bench import practice_models
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.practising import doubt, have_told, say_of, take_in_practice
from hardkeel.messages import practising as words
from hardkeel.messages.verdicts import is_told_in_mm, ways_alone
from hardkeel.practice.again import as_said, corrected, the_same_again
from hardkeel.practice.courses import BEFORE_LAST, COURSES, IDEAS
from hardkeel.practice.exercise import Exercise, opened
from hardkeel.practice.learners import Learner
from hardkeel.practice.making import Models, exercise_from
from hardkeel.practice.pieces import PIECES
from hardkeel.practice.progress import (
    EVERY,
    ORDER,
    Book,
    Done,
    done_of,
    due_of,
    next_course,
    skill_now,
    skills_of,
)
from hardkeel.practice.replay import all_known_after, best_steps, steps_of
from hardkeel.practice.scoring import Line, Scored, outcome_of, scored
from hardkeel.practice.standing import minutes_spent, right_in, told_of
from hardkeel.practice.stories.after import AFTER
from hardkeel.practice.strategies import by_next, is_solved, judged
from hardkeel.practice.went import went_of
from hardkeel.practice.worth import worth_of
from hardkeel.project.model import Build
from hardkeel.project.practice import Word
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.storage.practice_book import read_book, write_book
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.ranking import KNOWN
from hardkeel.survey.reaching import error_at_reach_mm, error_from_reach
from tests.draws import draws

EVENING = datetime(2026, 3, 2, 19, 0, tzinfo=UTC)


@cache
def swung() -> Exercise:
    """One in which something is out."""
    for seed in range(40):
        found = exercise_from(practice_models(), seed, course=COURSES["corners"])
        if found.truth.story == "swung":
            return found
    raise AssertionError


def read_through(exercise: Exercise) -> Build:
    build = exercise.build
    for one in by_next(exercise).readings:
        build = take_in_practice(build, one)
    return build


def said_truly(exercise: Exercise, build: Build, share: float = 1.0) -> Build:
    """The word that is so, with a share of the figure."""
    for rule in exercise.asked:
        off = exercise.value_of(rule.id) - rule.target
        out = exercise.is_out(rule.id)
        build = say_of(build, rule.id, Word(out=out, off=share * off if out else None))
    return build


# -- before the word -------------------------------------------------------------------------------


def test_nothing_judges_what_was_read_before_the_word() -> None:
    build = read_through(swung())
    assert minutes_spent(build) > 0
    assert build.surveyed.readings == ()
    assert {one.verdict for one in judge_survey(build.surveyed).checks} == {"unsure"}
    assert right_in(build, judge_survey(build.surveyed)) is None
    assert told_of(build, judge_survey(build.surveyed)) == ()
    again = build_from_text(text_of(build))
    assert again.practice == build.practice
    assert swung().truth.story not in text_of(build)


def test_after_the_word_the_readings_stand_where_everything_judges_them() -> None:
    exercise = swung()
    build = have_told(said_truly(exercise, read_through(exercise)))
    assert build.practice is not None
    assert build.surveyed.readings == build.practice.taken
    judgement = judge_survey(build.surveyed)
    assert right_in(build, judgement) == len(build.practice.asked)
    told = told_of(build, judge_survey(build.surveyed))
    assert {one.outcome for one in told} == {"found", "right"}
    for edit in (
        take_in_practice.of(build.practice.taken[0]),
        say_of.of(build.practice.asked[0], None),
        have_told.of(),
    ):
        with pytest.raises(BadInput, match="is over"):
            edit(build)


def test_what_can_not_be_said_or_doubted_is_refused() -> None:
    build = swung().build
    with pytest.raises(BadInput, match="say of one check at least"):
        have_told(build)
    with pytest.raises(BadInput, match='no reading "r1"'):
        doubt(build, "r1", doubted=True)
    with pytest.raises(BadInput, match="is not asked"):
        say_of(build, "sail_roll", Word(out=True))
    with pytest.raises(BadInput, match="no exercise"):
        doubt(build.but(practice=None), "r1", doubted=True)


def test_a_doubted_reading_is_kept_and_its_minutes_are_spent() -> None:
    build = read_through(swung())
    doubted = doubt(build, "r1", doubted=True)
    assert minutes_spent(doubted) == minutes_spent(build)
    assert doubted.practice is not None
    assert [one.id for one in doubted.practice.taken if one.ignored] == ["r1"]
    assert doubt(doubted, "r1", doubted=False) == build


# -- the word --------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("is_out", "word", "outcome"),
    [
        (True, None, "unsaid"),
        (True, Word(out=True), "found"),
        (True, Word(out=True, off=0.9), "found"),
        (True, Word(out=True, off=0.4), "half"),
        (True, Word(out=True, off=-1.0), "half"),
        (True, Word(out=False), "missed"),
        (False, Word(out=False), "right"),
        (False, Word(out=True, off=1.0), "called"),
    ],
)
def test_how_a_word_stands(is_out: bool, word: Word | None, outcome: str) -> None:
    assert outcome_of(Line("stab_yaw", 1.0, 1.0, is_out), word) == outcome


def test_a_word_that_the_readings_do_not_bear_is_a_guess() -> None:
    exercise = opened(have_told(said_truly(swung(), swung().build)))
    checks = {one.id: one for one in judged(exercise, ()).checks}
    assert all(one.guessed for one in scored(exercise, checks))
    read = opened(have_told(said_truly(swung(), read_through(swung()))))
    checks = {one.id: one for one in judged(read, read.section.taken).checks}
    assert not any(one.guessed for one in scored(read, checks))


def test_a_figure_is_asked_as_one_sees_it_and_meant_as_the_check_is() -> None:
    """Millimetres at the tip and back, against plain trigonometry."""
    survey = swung().build.surveyed
    for check in swung().checks:
        reach = error_at_reach_mm(survey, check.off_by(0.7))
        if reach is None:
            continue
        assert error_from_reach(survey, check, reach) == pytest.approx(0.7)
        body = survey.body(check.body)
        if check.kind == "yaw" and body is not None and body.span:
            assert reach == pytest.approx(body.span / 2 * math.sin(math.radians(0.7)))
            assert is_told_in_mm(survey, check)
            assert error_from_reach(survey, check, body.span) is None
    yaw = next(one for one in swung().checks if one.id == "stab_yaw")
    assert ways_alone(survey, yaw) == ("starboard tip forward", "starboard tip aft")


# -- how it went -----------------------------------------------------------------------------------


def test_what_a_reading_was_worth_is_what_the_adjustment_says() -> None:
    """Brute: the first reading's share alone, and the sum of all, by solving with and without."""
    exercise = swung()
    taken = by_next(exercise).readings
    worth = worth_of(exercise, taken)
    assert max(worth) == 1.0
    assert min(worth) >= 0.0
    doubted = tuple(one.but(ignored=i == 0) for i, one in enumerate(taken))
    assert worth_of(exercise, doubted)[0] == 0.0

    def open_with(count: int) -> float:
        covariance = judged(exercise, taken[:count]).solution.covariance
        total = 0.0
        for rule in exercise.asked:
            sharp = math.sqrt(float(rule.slope @ covariance @ rule.slope)) / rule.tolerance
            total += math.log(max(sharp, KNOWN))
        return total

    first, second = open_with(0) - open_with(1), open_with(1) - open_with(2)
    pair = np.array(worth_of(exercise, taken[:2]))
    share = pair[1] / pair.sum()
    # of what both told the second has its own at most, and of it only what it would have told without the first
    assert share <= second / (first + second) + 0.02
    alone = worth_of(exercise, (taken[0], taken[0].but(id="r9")))
    assert alone[0] > alone[1]


def test_the_best_use_is_told_step_by_step() -> None:
    exercise = swung()
    steps = best_steps(exercise)
    asked = exercise.section.asked
    settled = [one for step in steps for one in step.settled]
    assert set(settled) == set(asked)
    assert [step.minutes for step in steps] == sorted(step.minutes for step in steps)
    assert steps[-1].minutes == exercise.spent([step.reading for step in steps])
    known = all_known_after(steps, len(asked))
    assert known is not None
    assert known <= len(steps)
    assert all_known_after(steps[: known - 1], len(asked)) is None
    assert all_known_after(steps_of(exercise, ()), len(asked)) is None


def test_corrected_by_the_word_it_stands_where_that_leaves_it() -> None:
    exercise = swung()
    build = have_told(said_truly(exercise, read_through(exercise), share=0.5))
    over = opened(build)
    anew = opened(corrected(over))
    assert anew.truth.story == AFTER
    assert anew.section.taken == ()
    assert not anew.section.told
    for rule in exercise.asked:
        before = exercise.value_of(rule.id) - rule.target
        after = anew.value_of(rule.id) - rule.target
        half = 0.5 if exercise.is_out(rule.id) else 1.0
        assert after == pytest.approx(half * before, abs=0.05 * rule.tolerance)
    drawn = as_said(over)
    for rule in exercise.asked:
        word = over.section.said[rule.id]
        if word.off:
            assert float(rule.slope @ drawn) == pytest.approx(word.off)


def test_the_same_again_shows_the_same() -> None:
    exercise = swung()
    build = have_told(said_truly(exercise, read_through(exercise)))
    section = build.practice
    assert section is not None
    again = opened(the_same_again(build, section))
    assert again.section.said == {}
    assert again.build.surveyed.readings == ()
    assert by_next(again).readings == by_next(exercise).readings


def test_an_exercise_that_is_over_is_gone_through_whole() -> None:
    exercise = swung()
    went = went_of(have_told(said_truly(exercise, read_through(exercise))))
    assert went.spent == by_next(exercise).minutes
    assert went.known is not None
    assert went.known <= went.spent
    assert {one.outcome for one in went.lines} == {"found", "right"}
    assert words.along(went.exercise, went.lines, went.best)
    assert len(went.worth) == len(went.steps) == len(by_next(exercise).readings)


# -- what is kept ----------------------------------------------------------------------------------


def done(course: str, day: int, *, well: bool, last: bool = False) -> Done:
    return Done(
        when=EVENING + timedelta(days=day),
        seed=day,
        course=course,
        last=last,
        grade=1,
        model="Crooked Withy",
        right=3 if well else 2,
        asked=3,
        minutes=20.0,
        best=12.0,
        skills={"finding": 1.0 if well else 0.5},
    )


def test_what_went_wrong_comes_back_tomorrow_and_what_went_well_later_each_time() -> None:
    gone = [done("corners", 0, well=False), done("corners", 1, well=True)]
    first = {one.course: one for one in due_of(Book(done=tuple(gone[:1])))}["corners"]
    assert first.on == EVENING + timedelta(days=1)
    after = {one.course: one for one in due_of(Book(done=tuple(gone)))}["corners"]
    assert after.on == EVENING + timedelta(days=1 + 3)
    assert not after.is_last
    twice = Book(done=(*gone, done("corners", 2, well=True)))
    assert {one.course: one for one in due_of(twice)}["corners"].is_last
    assert BEFORE_LAST == 2
    passed = Book(done=(*twice.done, done("corners", 3, well=True, last=True)))
    assert {one.course: one for one in due_of(passed)}["corners"].passed
    assert next_course(Book(), EVENING) == EVERY[0]
    board = [done(one, 3, well=True) for one in (*PIECES, ORDER)]
    both = Book(done=(*board, *passed.done))
    assert next_course(both, EVENING + timedelta(days=4)) == list(COURSES)[1]


def test_how_it_goes_is_told_from_the_last_five() -> None:
    book = Book(done=tuple(done("bench", i, well=i > 3) for i in range(8)))
    assert skill_now(book, "finding") == pytest.approx((0.5 + 4) / 5)
    assert skill_now(book, "doubting") is None


def test_skills_are_those_that_it_called_for() -> None:
    exercise = swung()
    over = opened(have_told(said_truly(exercise, read_through(exercise))))
    checks = {one.id: one for one in judged(over, over.section.taken).checks}
    lines = scored(over, checks)
    assert skills_of(over, lines) == {"finding": 1.0, "deciding": 1.0}
    kept = done_of(over, lines, best_steps(over), EVENING)
    assert kept.well
    assert kept.right == kept.asked == len(lines)
    called = tuple(
        Scored(one.line, Word(out=True), one.read, "called", guessed=False, left=None)
        for one in lines
        if not one.line.is_out
    )
    assert skills_of(over, called)["deciding"] == 0.0


def test_who_guesses_has_doubted_nothing() -> None:
    """A tool that lies, and all called true: by readings that bear it, and by none."""
    exercise = exercise_from(practice_models(), 1, course=COURSES["bench"], last=True)
    assert exercise.truth.story == "crooked-bench"
    shares = []
    for build in (read_through(exercise), exercise.build):
        over = opened(have_told(said_truly(exercise, build)))
        checks = {one.id: one for one in judged(over, over.section.taken).checks}
        shares.append(skills_of(over, scored(over, checks))["doubting"])
    assert shares == [1.0, 0.0]


def test_the_book_is_kept_and_one_that_is_none_is_laid_aside(tmp_path: Path) -> None:
    assert read_book(tmp_path) == Book()
    book = Book(done=(done("corners", 0, well=True),))
    write_book(tmp_path, book)
    assert read_book(tmp_path) == book
    (tmp_path / "practised.json").write_text("no book")
    assert read_book(tmp_path) == Book()
    assert (tmp_path / "practised.unread").read_text() == "no book"


# -- courses ---------------------------------------------------------------------------------------


@pytest.mark.parametrize("course", COURSES.values(), ids=lambda one: one.id)
def test_who_lacks_its_idea_fails_the_last_exercise_and_passes_with_it(course) -> None:  # type: ignore[no-untyped-def]
    """By construction; here once more from the handed out file, each learner beginning anew."""
    for seed in range(draws(1, 20)):
        exercise = exercise_from(practice_models(), seed, course=course, last=True)
        given = opened(build_from_text(text_of(exercise.build)))
        assert given.section.last
        whole = Learner(given).play()
        assert is_solved(given, whole.said)
        assert whole.minutes <= given.section.minutes
        lacking = Learner(given, frozenset(IDEAS) - {course.idea}).play()
        assert not is_solved(given, lacking.said)


def test_every_idea_has_its_course() -> None:
    assert sorted(one.idea for one in COURSES.values()) == sorted(IDEAS)


def test_an_error_is_hidden_in_the_builders_own_model() -> None:
    own = demo_build()
    exercise = exercise_from(Models([lambda: own]), 3, 2)
    assert exercise.build.surveyed.marks
    assert {one.id for one in exercise.build.surveyed.bodies} == {
        one.id for one in own.surveyed.bodies
    }
    assert exercise.build.surveyed.readings == ()
    assert exercise.build.log == ()
    assert own == demo_build()
    with pytest.raises(BadInput, match="nothing on this model"):
        exercise_from(Models([lambda: Build(name="bare")]), 3, 2)
