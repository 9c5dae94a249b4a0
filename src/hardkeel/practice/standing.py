"""What a build's simulated tools are held on, and how an exercise on the bench stands."""

from hardkeel.base.errors import BadInput
from hardkeel.practice.exercise import minutes_of, opened
from hardkeel.practice.hidden import Hidden, hidden_by_chance, hidden_from
from hardkeel.practice.scoring import Scored, scored
from hardkeel.project.model import Build
from hardkeel.survey.judging import Judgement


def is_played(build: Build) -> bool:
    """Whether simulated tools are its own: of a demo or an exercise what they show is what there is to be read."""
    return build.practice is not None or build.hidden is not None


def hidden_of(build: Build) -> Hidden:
    """The airframe as it really stands.

    Raises
    ------
    BadInput
        When an exercise's truth does not belong to it any more: a body or a mark of it was taken away.
    """
    if build.practice is not None:
        return opened(build).hidden
    if build.hidden is not None:
        return hidden_from(build.surveyed, build.hidden)
    return hidden_by_chance(build.surveyed, build.name)


def minutes_spent(build: Build) -> float:
    """On the readings of an exercise."""
    return minutes_of(build.surveyed, build.practice.taken) if build.practice is not None else 0.0


def right_in(build: Build, judgement: Judgement) -> int | None:
    """How many of what was asked were told rightly and known; ``None`` while that is not to be told."""
    told = told_of(build, judgement)
    return sum(one.is_right for one in told) if told else None


def told_of(build: Build, judgement: Judgement) -> tuple[Scored, ...]:
    """Each asked check when it is over; nothing while the truth is sealed, or where it belongs to it no more."""
    if build.practice is None or not build.practice.told:
        return ()
    checks = {one.id: one for one in judgement.checks}
    try:
        return scored(opened(build), checks)
    except (BadInput, KeyError):
        return ()
