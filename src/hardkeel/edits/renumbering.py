"""Formers numbered from the nose, with everything that names one."""

from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.edits.fuselage import fuselage_of, rename_former
from hardkeel.edits.named import edit
from hardkeel.fuselage.naming import numbered_anew
from hardkeel.project.model import Build

_ASIDE: Final = "renumbered former "


@edit
def renumber_formers(build: Build) -> Build:
    """Number the formers from the nose; everything that names one goes along.

    Raises
    ------
    BadInput
        When they are numbered so already.
    """
    names = numbered_anew(fuselage_of(build))
    if not names:
        raise BadInput("", "the formers are numbered from the nose already")
    # first out of each other's way, then home
    for number, old in enumerate(names):
        build = rename_former(build, old, f"{_ASIDE}{number}")
    for number, new in enumerate(names.values()):
        build = rename_former(build, f"{_ASIDE}{number}", new)
    return build
