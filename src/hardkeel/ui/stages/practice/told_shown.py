"""What *How it was* shows, as plain values made from an exercise that was gone through."""

from collections.abc import Callable, Sequence
from typing import Final

from hardkeel.base.units import LengthUnit, format_angle, format_length
from hardkeel.messages import practising as say
from hardkeel.messages.names import TOOLS, check_name
from hardkeel.messages.verdicts import VERDICT_WORDS, way_off
from hardkeel.picture.truing import (
    Stroke,
    View,
    fuselage_strokes,
    held_strokes,
    project,
    rings_by,
    seen_corners,
    view_of_check,
)
from hardkeel.practice.scoring import Scored
from hardkeel.practice.went import Went
from hardkeel.practice.worth import TOLD_NOTHING
from hardkeel.project.practice import Word
from hardkeel.survey.checking import Check
from hardkeel.ui.stages.practice.lamp_view import Ghosts, Scene
from hardkeel.ui.stages.practice.minutes_strip import Block
from hardkeel.ui.stages.practice.verdict_rows import Bubble, VerdictRow

_VIEWS: Final[tuple[View, ...]] = ("behind", "plan", "side")


def verdict_rows(went: Went, unit: LengthUnit) -> tuple[VerdictRow, ...]:
    """Each asked check."""
    checks = {one.id: one for one in went.exercise.checks}
    survey = went.exercise.build.surveyed
    return tuple(
        VerdictRow(
            check_name(survey, checks[one.line.check]),
            _was(checks[one.line.check], one, unit),
            _said(checks[one.line.check], one, unit),
            _read(one, unit),
            one.outcome,
            say.outcome_words(one.outcome, guessed=one.guessed),
        )
        for one in went.lines
    )


def _was(check: Check, one: Scored, unit: LengthUnit) -> Bubble:
    text = _amount(check, one.line.value, unit)
    off = one.line.error / check.tolerance
    return Bubble(off, 0.0, "out" if one.line.is_out else "true", text)


def said_bubble(word: Word | None, tolerance: float, amount: Callable[[float], str]) -> Bubble:
    """What the learner said; `amount` words how far off what is wanted it was called."""
    if word is None:
        return Bubble(None, 0.0, "unsure", say.OUTCOMES["unsaid"])
    if not word.out:
        return Bubble(0.0, 0.0, "true", VERDICT_WORDS["true"])
    if not word.off:
        return Bubble(None, 0.0, "out", VERDICT_WORDS["out"])
    return Bubble(word.off / tolerance, 0.0, "out", amount(word.off))


def _said(check: Check, one: Scored, unit: LengthUnit) -> Bubble:
    return said_bubble(
        one.word, check.tolerance, lambda off: _amount(check, check.target + off, unit)
    )


def _read(one: Scored, unit: LengthUnit) -> Bubble:
    check = one.read
    known = check.doubt <= check.tolerance
    text = _amount(check, check.value, unit) if known else say.NOT_KNOWN
    return Bubble(check.error / check.tolerance, check.doubt / check.tolerance, check.verdict, text)


def _amount(check: Check, value: float, unit: LengthUnit) -> str:
    return format_length(value, unit) if check.unit == "mm" else format_angle(value)


def scenes(went: Went, factor: float, unit: LengthUnit, step: int) -> tuple[Scene, ...]:
    """The views in which something was asked.

    Parameters
    ----------
    step : int
        The reading of the best use whose string is drawn; −1 for none.
    """
    exercise = went.exercise
    build, survey, net = exercise.build, exercise.build.surveyed, exercise.hidden.net
    asked = {rule.id: rule for rule in exercise.asked}
    views = _views(went)
    was, said, read = (
        rings_by(build, net, unknowns, factor)
        for unknowns in (exercise.hidden.unknowns, went.said, went.read)
    )
    outlines = fuselage_strokes(build.fuselage) if build.fuselage is not None else []
    held: tuple[Stroke, ...] = ()
    if 0 <= step < len(went.best):
        held = held_strokes(build, exercise.bare, 1.0, went.best[step].reading)
    found = []
    for view in views:
        parts = []
        for body in survey.bodies:
            if body.id not in was:
                continue
            corners = seen_corners(survey, body, was[body.id][0], view)
            mine = [one for one in went.lines if asked[one.line.check].body == body.id]
            here = [one for one in mine if view_of_check(asked[one.line.check].kind) == view]
            words, word = _words(went, here, unit)
            before, mine_said, mine_read = (
                project(view, [rings[body.id][1][i] for i in corners])
                for rings in (was, said, read)
            )
            out = any(one.line.is_out for one in here)
            parts.append(
                Ghosts(body.id, before, mine_said, mine_read, bool(mine), out, words, word)
            )
        fuselage = tuple(
            one.points for one in outlines if one.view == view and one.role == "fuselage"
        )
        strings = tuple(one.points for one in held if one.view == view)
        found.append(Scene(view, fuselage, tuple(parts), strings))
    return tuple(found)


def _views(went: Went) -> list[View]:
    """Those in which something was asked, that with most out first."""
    kinds = {rule.id: view_of_check(rule.kind) for rule in went.exercise.asked}
    seen = {view: sum(kinds[one.line.check] == view for one in went.lines) for view in _VIEWS}
    out = {
        view: sum(one.line.is_out for one in went.lines if kinds[one.line.check] == view)
        for view in _VIEWS
    }
    return sorted((one for one in _VIEWS if seen[one]), key=lambda one: -out[one])


def _words(went: Went, here: list[Scored], unit: LengthUnit) -> tuple[str, str]:
    """How a part was in this view, and what was said of that: what was out first; nothing of what was told rightly."""
    here = [one for one in here if one.outcome != "right"]
    if not here:
        return "", ""
    survey = went.exercise.build.surveyed
    one = max(here, key=lambda it: (it.line.is_out, it.word is not None and it.word.out))
    check = next(it for it in went.exercise.checks if it.id == one.line.check)
    name = check_name(survey, check)
    is_so = way_off(survey, check.off_by(one.line.error), unit) if one.line.is_out else say.WAS_TRUE
    said = (
        say.word_words(survey, check, one.word, unit) if one.word is not None else say.SAID_NOTHING
    )
    return f"{name}: {is_so}", said


def your_blocks(went: Went) -> tuple[Block, ...]:
    """What the learner read."""
    exercise = went.exercise
    survey = exercise.build.surveyed
    return tuple(
        Block(
            one.id,
            TOOLS[one.kind],
            minutes := exercise.spent([one]),
            worth,
            say.block_tip(survey, one, minutes, worth),
            one.ignored,
        )
        for one, worth in zip(exercise.section.taken, went.worth, strict=True)
    )


def best_blocks(went: Went) -> tuple[Block, ...]:
    """The best use of the minutes."""
    exercise = went.exercise
    return tuple(
        Block(
            one.reading.id,
            TOOLS[one.reading.kind],
            exercise.spent([one.reading]),
            1.0,
            say.step_words(exercise, number, went.best),
        )
        for number, one in enumerate(went.best)
    )


def folds(went: Went, unit: LengthUnit) -> tuple[tuple[str, str, tuple[str, ...]], ...]:
    """How it went: names, what they come to, and the lines beneath."""
    exercise, section = went.exercise, went.exercise.section
    checks = {one.id: one for one in exercise.checks}
    survey = exercise.build.surveyed

    def names(lines: Sequence[Scored]) -> str:
        return say.names_of(exercise, [one.line.check for one in lines])

    def those(*outcomes: str) -> str:
        return names([one for one in went.lines if one.outcome in outcomes])

    left = tuple(
        say.left_words(survey, checks[one.line.check], one.left, unit)
        for one in went.lines
        if one.left is not None
    )
    slipped = [f"r{i + 1}" for i in sorted(exercise.truth.slips) if i < len(section.taken)]
    doubted = [one.id for one in section.taken if one.ignored]
    guessed = [one.line.check for one in went.lines if one.guessed]
    told_nothing = sum(
        exercise.spent([one])
        for one, worth in zip(section.taken, went.worth, strict=True)
        if worth < TOLD_NOTHING
    )
    unsaid = [one for one in went.lines if one.outcome == "unsaid"]
    missed = [one for one in went.lines if one.outcome == "missed"]
    missed += [one for one in unsaid if one.line.is_out]
    lines = [
        (say.FOUND, those("found", "half"), left),
        (say.MISSED, names(missed), ()),
        (say.CALLED, those("called"), ()),
        (say.UNSAID, names([one for one in unsaid if not one.line.is_out]), ()),
        (say.GUESSED, say.names_of(exercise, guessed), ()),
        (say.DOUBTS, say.doubts_words(slipped, doubted), ()),
        (
            say.MINUTES,
            say.nothing_told(told_nothing, went.spent),
            (say.known_words(went.known, went.spent),),
        ),
    ]
    return tuple(lines)
