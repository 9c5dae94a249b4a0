"""Exercises made by a seed: a story, a model that it suits, what is asked, and minutes that are enough."""

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.practice.courses import IDEAS, TOOLS, Course, tools_of
from hardkeel.practice.exercise import Exercise, minutes_of, untouched
from hardkeel.practice.learners import Learner
from hardkeel.practice.stories import STORIES
from hardkeel.practice.stories.story import Bent, Story
from hardkeel.practice.strategies import Said, by_list, by_next, is_solved
from hardkeel.practice.truth import SharedTruth, Truth
from hardkeel.project.model import Build
from hardkeel.project.practice import PracticeSection
from hardkeel.survey.columns import POSE, TWIST
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.model import FUSELAGE, OWN_TARGET, Survey
from hardkeel.survey.network import network_of
from hardkeel.survey.planning import plan
from hardkeel.survey.priors import Shared

Step = Callable[[int, int], object]
_ASKED: Final = {1: 3, 2: 4, 3: 5}
_SLIPS: Final = {1: 0.0, 2: 0.0, 3: 0.04}  # of the readings
_SLIP_SIGMAS: Final = (9.0, 14.0)
_WHOLE_SIGMAS: Final = (24.0, 30.0)  # a whole centimetre read wrong on a line
_READINGS: Final = 120
_LONG: Final = 24  # readings: what takes more is not asked
_MINUTES: Final = {1: 30.0, 2: 40.0, 3: 90.0}  # that an exercise has at most
# times what the best use of the minutes takes; where readings may be misread some are taken twice
_ROOM: Final = {1: 1.6, 2: 1.6, 3: 2.2}
_STILL_DEG, _STILL_MM = 0.054, 0.25  # one sigma: no model is quite true
_MOST: Final = 0.45  # of a tolerance, of what is to be called true
_LEAST: Final = 1.5  # of what is to be called out
_NAME: Final = "Crooked"
_KEPT: Final = 25  # tries of one story
_OUT_SHARE: Final = 2 / 3
_AGAIN: Final = 1.15  # times what following the next reading takes
_TRIES: Final = 200
_SHARED_SHARE: Final = 0.4  # of what the shop's habits allow, one sigma


def bare(build: Build, tools: Shared = TOOLS) -> Build:
    """A model as it stands on the bench before anything was read of it."""
    survey = build.surveyed
    plain = untouched(survey, tools).but(
        targets=(),
        target_size=None,
        marks=tuple(one for one in survey.marks if not one.id.startswith(OWN_TARGET)),
    )
    return Build(
        name=build.name,
        model_class=build.model_class,
        fuselage=build.fuselage,
        wings=build.wings,
        tail=build.tail,
        profiles=build.profiles,
        flight=build.flight,
        survey=plain,
    )


@dataclass(frozen=True)
class Ready:
    """A model laid ready: bare, judged without readings, with what each check costs to decide.

    Attributes
    ----------
    minutes : mapping of str to float
        By check; those alone that the practice bench's tools can decide.
    """

    build: Build
    judgement: Judgement
    minutes: Mapping[str, float]


class Models:
    """Models that exercises are made of, each laid ready when it is first drawn.

    Parameters
    ----------
    makers : sequence of callable
        Each makes a build; which and in what order decides what a seed gives.
    """

    def __init__(self, makers: Sequence[Callable[[], Build]]) -> None:
        self._makers = tuple(makers)
        self._ready: dict[tuple[int, Shared], Ready] = {}

    def __len__(self) -> int:
        return len(self._makers)

    def whole(self, number: int) -> Build:
        """One of them with all that its maker gives it."""
        return self._makers[number]()

    def ready(self, number: int, tools: Shared = TOOLS) -> Ready:
        """One of them, with tools as well kept as these."""
        key = (number, tools)
        if key not in self._ready:
            self._ready[key] = _laid_ready(bare(self._makers[number](), tools))
        return self._ready[key]


def _laid_ready(build: Build) -> Ready:
    judgement = judge_survey(build.surveyed)
    minutes = {}
    for rule in judgement.rules:
        listed = plan(judgement.net, judgement.solution, (rule,), most=_LONG, pool=judgement.pool)
        if 0 < len(listed) < _LONG:
            minutes[rule.id] = minutes_of(build.surveyed, listed)
    return Ready(build, judgement, minutes)


def exercise_from(
    models: Models,
    seed: int,
    grade: int = 1,
    *,
    course: Course | None = None,
    last: bool = False,
    step: Step = lambda _done, _total: None,
) -> Exercise:
    """The exercise of a seed; always the same.

    Parameters
    ----------
    course : Course, optional
        Whose stories, grade and minutes it has; any story of the grade without one.
    last : bool
        The last of its course, that who lacks its idea fails.
    step : callable
        Told which try it is, of how many at most; what it raises ends it.

    Raises
    ------
    BadInput
        When no model suits any of the stories, or none comes out clear.
    """
    at = course.grade if course is not None else grade
    of = course.id if course is not None else ""
    final = course if last else None
    rng = np.random.default_rng((seed, at, *of.encode(), *([1] if final is not None else [])))
    told = _told_by(course, at, final)
    most = course.minutes if course is not None else _MINUTES[at]
    story = _drawn(told, rng)
    for attempt in range(1, _TRIES):
        step(attempt, _TRIES)
        if (
            attempt % _KEPT == 0
        ):  # it suits hardly any; no sooner, or what comes out clear at once is told oftener
            story = _drawn(told, rng)
        ready = models.ready(int(rng.integers(len(models))), tools_of(of or None))
        if len(models) == 1 and not ready.minutes:
            raise BadInput("practice", "finds nothing on this model that could be read and told")
        found = _made(ready, story, Hard(at, most, final.asks if final is not None else ()), rng)
        if found is None:
            continue
        exercise = _given(ready, found, at, (seed, of or None, final is not None))
        ample = exercise.with_minutes(most)
        played = [way(ample) for way in (by_next, by_list)]
        if not all(is_solved(exercise, one.said) for one in played):
            continue  # what is misread lies where these minutes do not clear it up
        if final is not None:
            learned = Learner(exercise).play()
            if not is_solved(exercise, learned.said) or is_solved(
                exercise, _lacking(exercise, final)
            ):
                continue  # its idea does not decide it
            played.append(learned)
        minutes = max(
            exercise.section.minutes, *(float(math.ceil(_AGAIN * one.minutes)) for one in played)
        )
        if minutes <= most:
            return exercise.with_minutes(minutes)
    raise BadInput("practice", f"no exercise of seed {seed} comes out clear")


def _lacking(exercise: Exercise, course: Course) -> Said:
    """What somebody says who lacks the course's idea."""
    return Learner(exercise, frozenset(IDEAS) - {course.idea}).play().said


@dataclass(frozen=True, slots=True)
class Hard:
    """How hard an exercise is.

    Attributes
    ----------
    most : float
        Minutes that it has at most.
    asks : tuple of str
        Kinds of checks that alone are asked; empty for any.
    """

    grade: int
    most: float
    asks: tuple[str, ...] = ()


def _told_by(course: Course | None, grade: int, final: Course | None) -> list[Story]:
    """The stories that may be told."""
    if final is not None:
        return [STORIES[final.last]]
    if course is not None:
        return [STORIES[one] for one in course.stories]
    return [one for one in STORIES.values() if one.grade <= grade]


def _given(
    ready: Ready,
    found: tuple[Truth, float, tuple[str, ...]],
    grade: int,
    of: tuple[int, str | None, bool],
) -> Exercise:
    """As it is handed out; `of` its seed, its course, and whether it is the last of that."""
    truth, minutes, asked = found
    section = PracticeSection(
        seed=of[0],
        course=of[1],
        last=of[2],
        grade=grade,
        minutes=minutes,
        asked=asked,
        sealed=truth.sealed(),
    )
    plain = (ready.build.name or "").removeprefix(f"{_NAME} ")
    made = ready.build.but(name=f"{_NAME} {plain}".strip(), practice=section)
    return Exercise(made, section, truth, truth.hidden(made.surveyed))


def _drawn(told: Sequence[Story], rng: np.random.Generator) -> Story:
    """One of the stories; two of three put something out, or who always says "true" would be right too often."""
    out = [one for one in told if one.puts_out]
    none = [one for one in told if not one.puts_out]
    some = out if out and (not none or rng.random() < _OUT_SHARE) else none
    return some[int(rng.integers(len(some)))]


def _made(
    ready: Ready, story: Story, hard: Hard, rng: np.random.Generator
) -> tuple[Truth, float, tuple[str, ...]] | None:
    """What hides, the minutes and what is asked; ``None`` where that would not be clear, or takes too long."""
    survey, judgement = ready.judgement.net.survey, ready.judgement
    grade, most = hard.grade, hard.most
    if not story.suits(survey):
        return None
    truth = _truth(survey, story, story.bend(survey, rng), grade, rng)
    hidden = truth.hidden(survey)
    off = {
        rule.id: abs(rule.design + float(rule.slope @ hidden.unknowns) - rule.target)
        / rule.tolerance
        for rule in judgement.rules
        if rule.id in ready.minutes
    }
    kinds = hard.asks or story.asks
    mine = [rule.id for rule in judgement.rules if rule.kind in kinds]
    if hard.asks:
        off = {check: one for check, one in off.items() if check in mine}
    asked = _asked(off, ready.minutes, (mine, story.puts_out), (grade, most / _ROOM[grade]), rng)
    if asked is None:
        return None
    rules = tuple(rule for rule in judgement.rules if rule.id in asked)
    best = plan(judgement.net, judgement.solution, rules, pool=judgement.pool)
    minutes = float(math.ceil(_ROOM[grade] * minutes_of(survey, best)))
    return (truth, minutes, tuple(rule.id for rule in rules)) if minutes <= most else None


def _asked(
    off: Mapping[str, float],
    minutes: Mapping[str, float],
    story: tuple[Sequence[str], bool],
    hard: tuple[int, float],
    rng: np.random.Generator,
) -> set[str] | None:
    """All that the story puts out, one of its checks at least, and others while there are minutes for them.

    None of them is near its limit.

    Parameters
    ----------
    off : mapping of str to float
        By check that can be decided, how far it is off its target, in tolerances.
    story : (sequence of str, bool)
        Its checks, and whether it puts one of them out.
    """
    (grade, room), (of_story, puts_out) = hard, story
    out = {check for check, one in off.items() if one > 1}
    if any(_MOST < one < _LEAST for one in off.values()):
        return None
    mine = [one for one in of_story if one in off]
    if not mine or puts_out != bool(out) or (puts_out and not out & set(mine)):
        return None
    chosen = set(out) or {mine[int(rng.integers(len(mine)))]}
    spent = sum(minutes[one] for one in chosen)
    rest = [one for one in off if one not in chosen]
    for i in rng.permutation(len(rest)).tolist():
        if len(chosen) < _ASKED[grade] and spent + minutes[rest[i]] <= room:
            chosen.add(rest[i])
            spent += minutes[rest[i]]
    return chosen if len(chosen) > min(1, len(rest)) and spent <= room else None


def _truth(survey: Survey, story: Story, bent: Bent, grade: int, rng: np.random.Generator) -> Truth:
    """The story on a model that is otherwise as true as models are."""
    columns = network_of(survey).columns
    bodies: dict[str, dict[str, float]] = {}
    for body in survey.bodies:
        if body.id == FUSELAGE:
            continue
        told = bent.bodies.get(body.id, {})
        bodies[body.id] = {
            name: told[name] if name in told else _still(name, rng)
            for name in (*POSE, *TWIST)
            if columns.column(body.id, name) is not None
        }
    spread = {(part.what, part.owner): part.sigma for part in network_of(survey).parts}
    shared = []
    for (what, owner), sigma in spread.items():
        value = bent.shared.get((what, owner))
        if value is None:
            many = 3 if what == "mark" else 1
            value = tuple(
                float(one) for one in np.clip(rng.normal(0, 1, many), -2, 2) * sigma * _SHARED_SHARE
            )
        shared.append(SharedTruth(what=what, owner=owner, value=value))
    bench = {
        "pitch": float(rng.normal(0, 0.3)), "roll": float(rng.normal(0, 0.3)), "z": float(rng.uniform(60, 120)),
    } | bent.bench  # fmt: skip
    slips = {
        number: float(rng.choice([-1.0, 1.0]) * rng.uniform(*_SLIP_SIGMAS))
        for number in range(_READINGS)
        if rng.random() < _SLIPS[grade]
    }
    for number in story.slips:
        slips[number] = float(rng.choice([-1.0, 1.0]) * rng.uniform(*_WHOLE_SIGMAS))
    return Truth(
        story=story.id,
        bodies=bodies,
        bench=bench,
        shared=tuple(shared),
        slips=slips,
        caught=bent.caught,
    )


def _still(name: str, rng: np.random.Generator) -> float:
    """What a part is off that is not out: mm or degrees."""
    sigma = _STILL_MM if name.startswith("d") else _STILL_DEG
    return float(np.clip(rng.normal(0, sigma), -2 * sigma, 2 * sigma))
