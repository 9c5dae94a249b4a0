"""What a learner does with an exercise; each gives the next build.  What a tool shows is for `practice` to say."""

from hardkeel.base.errors import BadInput
from hardkeel.edits.named import edit
from hardkeel.project.model import Build
from hardkeel.project.practice import PracticeSection, Word
from hardkeel.survey.readings import Reading


def section_of(build: Build) -> PracticeSection:
    """The exercise of a build.

    Raises
    ------
    BadInput
        When it is none.
    """
    if build.practice is None:
        raise BadInput("practice", "is missing: this build is no exercise")
    return build.practice


def _open(build: Build) -> PracticeSection:
    section = section_of(build)
    if section.told:
        raise BadInput("practice", "is over: what was said of it stands")
    return section


@edit
def take_in_practice(build: Build, reading: Reading) -> Build:
    """Note what a tool has shown."""
    section = _open(build)
    return build.but(practice=section.but(taken=(*section.taken, reading)))


@edit
def doubt(build: Build, reading_id: str, *, doubted: bool) -> Build:
    """Set a reading aside, or trust it again; its minutes are spent either way.

    Raises
    ------
    BadInput
        When there is none of that name.
    """
    section = _open(build)
    if all(one.id != reading_id for one in section.taken):
        raise BadInput("practice.taken", f'no reading "{reading_id}"')
    taken = tuple(
        one.but(ignored=doubted) if one.id == reading_id else one for one in section.taken
    )
    return build.but(practice=section.but(taken=taken))


@edit
def say_of(build: Build, check: str, word: Word | None) -> Build:
    """Say of a check whether it is out, or take that back.

    Raises
    ------
    BadInput
        When it is not asked.
    """
    section = _open(build)
    if check not in section.asked:
        raise BadInput("practice.said", f'"{check}" is not asked')
    said = {name: one for name, one in section.said.items() if name != check}
    if word is not None:
        said[check] = word
    return build.but(practice=section.but(said=said))


@edit
def have_told(build: Build) -> Build:
    """The learner is through: what was read goes into the survey, where everything judges it.

    Raises
    ------
    BadInput
        When nothing was said yet.
    """
    section = _open(build)
    if not section.said:
        raise BadInput("practice.said", "is empty: say of one check at least whether it is out")
    survey = build.surveyed.but(readings=section.taken)
    return build.but(practice=section.but(told=True), survey=survey)
