"""Whether an exercise's seal is one: looked at when its file is read, so that it is refused like any bad file."""

from hardkeel.base.errors import BadInput
from hardkeel.practice.stories import STORIES
from hardkeel.practice.truth import Truth
from hardkeel.project.practice import PracticeSection


def check_seal(section: PracticeSection) -> Truth:
    """What is sealed.

    Raises
    ------
    BadInput
        When it is no seal, or tells a story that is not known.
    """
    truth = Truth.unsealed(section.sealed)
    if truth.story not in STORIES:
        raise BadInput("practice.sealed", f'tells a story "{truth.story}" that is not known here')
    return truth
