"""Ways to go about an exercise: by what to read next, by the best list beforehand."""

from collections.abc import Mapping
from dataclasses import dataclass

from hardkeel.practice.courses import tools_of
from hardkeel.practice.exercise import Exercise, minutes_of, untouched
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.planning import plan
from hardkeel.survey.readings import Reading

Said = Mapping[str, bool]


@dataclass(frozen=True)
class Played:
    """What came of it.

    Attributes
    ----------
    said : mapping of str to bool
        By asked check, whether it is called out.
    readings : tuple of Reading
        In the order they were taken.
    minutes : float
        That they cost.
    """

    said: Said
    readings: tuple[Reading, ...]
    minutes: float


def by_next(exercise: Exercise, taken: tuple[Reading, ...] = ()) -> Played:
    """Read what the engine asks for next until all that is asked is decided or the minutes are spent."""
    survey = exercise.build.surveyed
    spent = minutes_of(survey, taken)
    while True:
        judgement = judged(exercise, taken)
        open_ = still_open(exercise, judgement)
        wanted = _next(judgement, open_) if open_ else None
        cost = minutes_of(survey, [wanted]) if wanted is not None else 0.0
        if wanted is None or spent + cost > exercise.section.minutes:
            return Played(called(exercise, judgement), taken, spent)
        spent += cost
        taken = (*taken, exercise.read(wanted, len(taken)))


def by_list(exercise: Exercise) -> Played:
    """The best use of the minutes: the list that decides all that is asked, and what is still open read after it."""
    taken: tuple[Reading, ...] = ()
    for one in best_list(exercise):
        taken = (*taken, exercise.read(one, len(taken)))
    return by_next(exercise, taken)


def best_list(exercise: Exercise) -> tuple[Reading, ...]:
    """What is worth reading, before anything was read."""
    judgement = judged(exercise, ())
    rules = tuple(one for one in judgement.rules if one.id in exercise.section.asked)
    return plan(judgement.net, judgement.solution, rules, pool=judgement.pool)


def judged(exercise: Exercise, taken: tuple[Reading, ...]) -> Judgement:
    """What readings say of the exercise's model."""
    tools = tools_of(exercise.section.course)
    return judge_survey(untouched(exercise.build.surveyed, tools).but(readings=taken))


def still_open(exercise: Exercise, judgement: Judgement) -> set[str]:
    """Asked checks that are not decided."""
    return {
        one.id
        for one in judgement.checks
        if one.id in exercise.section.asked and one.verdict == "unsure"
    }


def called(exercise: Exercise, judgement: Judgement) -> Said:
    """What the engine says of all that is asked; where it is not decided, by its estimate."""
    return {
        one.id: one.verdict == "out"
        if one.verdict != "unsure"
        else abs(one.value - one.target) > one.tolerance
        for one in judgement.checks
        if one.id in exercise.section.asked
    }


def is_solved(exercise: Exercise, said: Said) -> bool:
    """Whether all that is asked was told rightly."""
    return all(said.get(check) == exercise.is_out(check) for check in exercise.section.asked)


def _next(judgement: Judgement, open_: set[str]) -> Reading | None:
    """The next reading of those that the engine offers for what is open."""
    offered = [one for one in judgement.next if one.helps in open_]
    if offered:
        return offered[0].reading
    rules = tuple(one for one in judgement.rules if one.id in open_)
    more = plan(judgement.net, judgement.solution, rules, judgement.readings, 1, judgement.pool)
    if more:
        return more[0]
    return judgement.next[0].reading if judgement.next else None
