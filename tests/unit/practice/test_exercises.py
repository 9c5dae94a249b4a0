"""Exercises: made by a seed, their truth sealed, solved by who follows what to read next and by nobody who guesses."""

import base64
import json
import math
import zlib
from functools import cache
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from pypdf import PdfReader

from hardkeel.base.errors import BadInput
from hardkeel.cli.commands import run_command
from hardkeel.demo.bench import practice_models
from hardkeel.edits.sight import lay_targets
from hardkeel.export.exercise_sheet import exercise_sheet_pdf
from hardkeel.messages import practice as say
from hardkeel.messages.names import check_name
from hardkeel.practice.courses import COURSES, Course
from hardkeel.practice.exercise import Exercise, minutes_of, opened
from hardkeel.practice.making import exercise_from
from hardkeel.practice.stories import STORIES
from hardkeel.practice.strategies import by_list, by_next, is_solved, judged
from hardkeel.practice.truth import Truth
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.storage.package import load, save
from hardkeel.survey.readings import Distance, DistanceDifference
from tests.draws import draws

FEW = range(draws(2, 334))


@cache
def made(seed: int, grade: int) -> Exercise:
    return exercise_from(practice_models(), seed, grade)


def test_a_seed_is_always_the_same_exercise_and_another_is_another() -> None:
    again = exercise_from(practice_models(), 4, 2)
    assert text_of(again.build) == text_of(made(4, 2).build)
    assert len({made(seed, 2).section.sealed for seed in range(6)}) == 6


@pytest.mark.parametrize("grade", [1, 2, 3])
@pytest.mark.parametrize("seed", FEW)
def test_it_is_solved_by_what_to_read_next_and_by_the_best_list(seed: int, grade: int) -> None:
    exercise = made(seed, grade)
    for way in (by_next, by_list):
        played = way(exercise)
        assert is_solved(exercise, played.said), (way.__name__, exercise.truth.story)
        assert played.minutes <= exercise.section.minutes
        assert minutes_of(exercise.build.surveyed, played.readings) == played.minutes


def test_who_says_the_same_of_all_is_seldom_right() -> None:
    """Of three exercises two have something out, and never all of it: a rule without readings is worth little."""
    count = draws(12, 300)
    all_true = all_out = 0
    for seed in range(count):
        exercise = made(seed, 1)
        out = [exercise.is_out(one) for one in exercise.section.asked]
        all_true += not any(out)
        all_out += all(out)
    assert 0 < all_true < 0.34 * count + 3 * math.sqrt(count * 2 / 9)
    assert all_out < 0.2 * count


def slope(exercise: Exercise, body: str, axis: int) -> float | None:
    """Of the line through a body's trailing tips, degrees, as they stand without the marks' own shifts."""
    hidden = exercise.hidden
    placed, columns = hidden.net.placer.place(hidden.unknowns).airframe, hidden.net.columns
    ends = []
    for side in ("port", "starboard"):
        name = f"{body}_tip_te_{side}"
        if name not in hidden.net.index:
            return None
        first = columns.shared["mark", name]
        ends.append(placed[hidden.net.index[name]] - hidden.unknowns[first : first + 3])
    run = ends[1] - ends[0]
    return math.degrees(math.atan2(run[axis], run[1]))


def test_the_told_truth_is_the_airframe_that_tools_are_held_on() -> None:
    """Rolls and yaws once more from where the marks are, by plain geometry."""
    looked = 0
    for seed in range(8):
        exercise = made(seed, 1)
        asked = exercise.section.asked
        for check in ("stab_yaw", "wing_yaw"):
            yaw = slope(exercise, check.partition("_")[0], 0)
            if check in asked and yaw is not None:
                looked += 1
                assert -yaw == pytest.approx(exercise.value_of(check), abs=0.01)
        stab, wing = slope(exercise, "stab", 2), slope(exercise, "wing", 2)
        if "stab_roll_to_wing" in asked and stab is not None and wing is not None:
            looked += 1
            told = exercise.value_of("stab_roll_to_wing")
            assert stab - wing == pytest.approx(
                told, abs=0.04
            )  # twist moves the trailing tips, too
    assert looked > 5


def test_nothing_of_it_stands_in_the_file_to_be_read_at_a_glance() -> None:
    for seed in range(6):
        exercise = made(seed, 3)
        text = text_of(exercise.build)
        given = json.loads(text)
        assert exercise.truth.story not in text.replace(exercise.build.name, "")
        assert "stand_in" not in text
        assert set(given["practice"]) <= {
            "seed",
            "course",
            "last",
            "grade",
            "minutes",
            "asked",
            "sealed",
        }
        for names in exercise.truth.bodies.values():
            for amount in names.values():
                assert f"{amount:.4f}" not in text
        assert exercise.build.surveyed.readings == ()
        assert STORIES[exercise.truth.story].id not in exercise.build.name


def test_every_story_is_told_by_a_course_and_has_its_words() -> None:
    assert set(say.STORIES) == set(say.ALONG) == set(STORIES)
    assert set(say.COURSES) == set(COURSES)
    of_courses = {one for course in COURSES.values() for one in (*course.stories, course.last)}
    assert of_courses | {"fin-leans", "fin-off", "corrected"} == set(STORIES)


@pytest.mark.parametrize("course", COURSES.values(), ids=lambda one: one.id)
def test_a_course_tells_its_own_stories(course: Course) -> None:
    told = set()
    for seed in range(draws(12, 80)):
        exercise = exercise_from(practice_models(), seed, course=course)
        assert exercise.section.minutes <= course.minutes
        assert exercise.section.course == course.id
        told.add(exercise.truth.story)
        if len(told) > 1 and draws(1, 2) == 1:
            break
    assert told <= set(course.stories)
    assert len(told) > 1 if draws(1, 2) == 1 else told == set(course.stories)


def test_a_reading_shows_what_a_tool_shows_there() -> None:
    exercise = made(2, 3)
    first = by_next(exercise).readings[0]
    assert exercise.read(first, 0).value == first.value
    assert exercise.read(first, 1).value != first.value
    many = [exercise.read(first, number).value for number in range(2000, 2400)]
    near = 0.2 * float(np.std(many))
    assert float(np.mean(many)) == pytest.approx(exercise.hidden.show(first), abs=near)


def test_a_line_that_catches_shows_it_from_its_pin_alone() -> None:
    exercise = made(1, 3)
    pin, amount = "nose_pin", 2.5
    caught = Exercise(
        exercise.build,
        exercise.section,
        exercise.truth.but(caught={pin: amount}),
        exercise.hidden,
    )
    seen = set()
    for one in exercise.bare.pool.readings:
        more = caught.read(one, 3).value - exercise.read(one, 3).value
        catches = isinstance(one, DistanceDifference) and one.from_ == pin
        seen.add(catches)
        assert more == pytest.approx(amount if catches else 0.0)
    assert seen == {True, False}
    assert Truth.unsealed(caught.truth.sealed()).caught == {pin: amount}


# -- files -----------------------------------------------------------------------------------------


def spoiled(change: Any) -> Any:
    exercise = made(0, 1)
    assert exercise.build.practice is not None
    return exercise.build.but(practice=exercise.build.practice.but(**change))


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"sealed": "no seal"}, r"practice\.sealed: is not what"),
        ({"sealed": base64.b64encode(zlib.compress(b"{}")).decode()}, r"practice\.sealed: story"),
        (
            {"sealed": base64.b64encode(zlib.compress(b" " * 3_000_000)).decode()},
            r"practice\.sealed",
        ),
        ({"sealed": Truth(story="nonsense", bodies={}, bench={}).sealed()}, "not known here"),
        (
            {"sealed": Truth(story="tipped", bodies={"sail": {"dx": 1.0}}, bench={}).sealed()},
            'speaks of "sail"',
        ),
        ({"asked": ("sail_roll",)}, 'no check "sail_roll"'),
    ],
)
def test_a_file_that_is_none_is_refused_with_its_place(change: Any, words: str) -> None:
    with pytest.raises(BadInput, match=words):
        opened(spoiled(change))


def test_a_file_whose_seal_is_none_is_not_opened() -> None:
    given = json.loads(text_of(made(0, 1).build))
    given["practice"]["sealed"] = "broken"
    with pytest.raises(BadInput, match=r"practice\.sealed: is not what"):
        build_from_text(json.dumps(given))
    given["practice"] = {"seed": 1}
    with pytest.raises(BadInput, match=r"practice\."):
        build_from_text(json.dumps(given))


def test_what_was_read_laid_or_set_since_does_not_move_it() -> None:
    exercise = made(2, 2)
    taken = by_next(exercise).readings
    build = lay_targets(
        exercise.build.but(survey=exercise.build.surveyed.but(readings=taken, shared=None))
    )
    again = opened(build)
    for body, start in exercise.hidden.net.columns.start.items():
        for i, name in enumerate(exercise.hidden.net.columns.names[body]):
            column = again.hidden.net.columns.column(body, name)
            assert column is not None
            assert again.hidden.unknowns[column] == exercise.hidden.unknowns[start + i]
    for one in taken:
        assert again.hidden.show(one) == pytest.approx(exercise.hidden.show(one), abs=1e-9)
    assert [again.is_out(one) for one in exercise.section.asked] == [
        exercise.is_out(one) for one in exercise.section.asked
    ]


def test_a_build_is_no_exercise() -> None:
    with pytest.raises(BadInput, match="this build is no exercise"):
        opened(made(0, 1).build.but(practice=None))


def test_the_command_makes_lists_and_reveals(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    to = tmp_path / "club.keel"
    assert run_command(["practice", "--seed", "7", "--course", "corners", "--to", str(to)]) == 0
    said = capsys.readouterr().out
    assert "minutes for readings" in said
    exercise = opened(load(to).build)
    assert exercise.truth.story not in said
    assert run_command(["practice", "--reveal", str(to), "--json"]) == 0
    told = json.loads(capsys.readouterr().out)
    assert told["story"] == exercise.truth.story
    for body, names in told["bodies"].items():
        start = exercise.hidden.net.columns.start[body]
        for i, name in enumerate(exercise.hidden.net.columns.names[body]):
            assert names[name] == exercise.hidden.unknowns[start + i]
    assert run_command(["practice", "--reveal", str(to)]) == 0
    assert say.ALONG[exercise.truth.story] in capsys.readouterr().out
    assert run_command(["practice", "--list"]) == 0
    assert len(capsys.readouterr().out.splitlines()) == len(COURSES)


@pytest.mark.parametrize(
    ("more", "words"),
    [
        ([], "one of --list"),
        (["--seed", "3"], "to: is missing"),
        (["--seed", "3", "--list"], "one of --list"),
        (["--seed", "-3", "--to", "x.keel"], "less than 0"),
        (["--seed", "3", "--course", "sailing", "--to", "x.keel"], 'no course "sailing"'),
    ],
)
def test_what_can_not_be_meant_is_refused(
    more: list[str], words: str, capsys: pytest.CaptureFixture[str]
) -> None:
    assert run_command(["practice", *more]) == 2
    assert words in capsys.readouterr().err


def test_a_plain_build_is_not_revealed(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    save(made(0, 1).build.but(practice=None), tmp_path / "own.keel")
    assert run_command(["practice", "--reveal", str(tmp_path / "own.keel")]) == 2
    assert "no exercise" in capsys.readouterr().err


def test_a_sheet_asks_and_another_tells(tmp_path: Path) -> None:
    exercise = made(3, 3)
    data = exercise_sheet_pdf(exercise, "in", (215.9, 279.4))
    (tmp_path / "club.pdf").write_bytes(data)
    pages = [page.extract_text() for page in PdfReader(tmp_path / "club.pdf").pages]
    asked, solved = " ".join(pages[:-1]), pages[-1]
    assert say.STORIES[exercise.truth.story] not in asked
    assert say.STORIES[exercise.truth.story] in solved
    for check in exercise.checks:
        if check.id in exercise.section.asked:
            assert check_name(exercise.build.surveyed, check) in asked
            assert check_name(exercise.build.surveyed, check) in solved
    assert data == exercise_sheet_pdf(exercise, "in", (215.9, 279.4))
    first = by_list(exercise).readings[:1]
    assert exercise.if_true(first) != pytest.approx([first[0].value], abs=1e-9)


def test_on_a_true_airframe_readings_show_what_the_drawing_says() -> None:
    """Distances once more from the marks' places by design."""
    exercise = made(2, 2)
    survey = exercise.build.surveyed
    tapes = [one for one in judged(exercise, ()).pool.readings if isinstance(one, Distance)][:5]
    for tape, shown in zip(tapes, exercise.if_true(tapes), strict=True):
        ends = [survey.mark(name) for name in (tape.from_, tape.to)]
        assert None not in ends
        assert shown == pytest.approx(
            math.dist(*(one.at for one in ends if one is not None)), abs=1e-6
        )
