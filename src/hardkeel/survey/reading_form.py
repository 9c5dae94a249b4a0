"""The rigging sheet: a list of readings that follows from bodies, marks and tools alone, so that paper and screen agree."""

from collections.abc import Sequence
from functools import lru_cache

from hardkeel.survey.judging import judge_survey
from hardkeel.survey.model import Survey
from hardkeel.survey.planning import plan
from hardkeel.survey.readings import Reading, place_of


def form_list(survey: Survey) -> tuple[Reading, ...]:
    """What to read, in order; values are what a true airframe would show.

    Raises
    ------
    BadInput
        When the survey does not hang together.
    """
    bare = survey.but(readings=(), gluing=None, locked=(), aim=None)
    return _listed(bare.model_dump_json(by_alias=True, exclude_unset=True))


@lru_cache(maxsize=8)
def _listed(text: str) -> tuple[Reading, ...]:
    judged = judge_survey(Survey.model_validate_json(text))
    listed = plan(judged.net, judged.solution, judged.rules, pool=judged.pool)
    return tuple(reading.but(id=str(i)) for i, reading in enumerate(listed, start=1))


def next_on_form(listed: Sequence[Reading], taken: Sequence[Reading]) -> Reading | None:
    """The first that was not taken yet."""
    done = {place_of(reading) for reading in taken}
    return next((reading for reading in listed if place_of(reading) not in done), None)
