"""What the benches of Frame share: the fuselage, and whether there is one to frame."""

from typing import Final

from hardkeel.fuselage.model import Fuselage
from hardkeel.project.model import Build
from hardkeel.ui.document.sub_page import SubPage

SHOWS: Final = frozenset({"fuselage", "ledger", "wings"})


class FrameSubPage(SubPage):
    """A bench of Frame."""

    @property
    def fuselage(self) -> Fuselage:
        """The fuselage, empty where there is none."""
        return self.document.build.fuselage or Fuselage()

    @property
    def framed(self) -> bool:
        """Whether there is a fuselage to frame."""
        return is_framed(self.document.build)


def is_framed(build: Build) -> bool:
    """Whether a build has a fuselage with something between its stations."""
    return build.fuselage is not None and len(build.fuselage.stations) > 1
