"""What the benches of Frame share: one piece in hand, and what is shown where there is nothing to frame."""

from typing import Final

from PyQt6.QtCore import pyqtSignal

from hardkeel.build.model import Build
from hardkeel.fuselage.model import Fuselage
from hardkeel.ui.document.sub_page import SubPage

SHOWS: Final = frozenset({"fuselage", "ledger", "wings"})


class FrameSubPage(SubPage):
    """A bench of Frame.

    Signals
    -------
    piece_chosen : str
        A piece was picked here: a former, a member, a stick of the cut list.
    place_wanted : str
        Another bench is asked for.
    """

    piece_chosen = pyqtSignal(str)
    place_wanted = pyqtSignal(str)

    def choose(self, ref: str) -> None:
        """Take a piece in hand that was picked elsewhere."""

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
    return build.fuselage is not None and len(build.fuselage.stops) > 1
