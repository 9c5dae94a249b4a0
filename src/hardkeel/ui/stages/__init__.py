"""The stages in the order of work; none of them imports another.

A stage is one package here and one line in `STAGES`.  Its package gives ``make(bench)``, which makes
its page; the window shows the page and knows no stage by name.
"""

from collections.abc import Callable
from dataclasses import dataclass
from importlib import import_module
from typing import Final, cast

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QWidget

from hardkeel.base.units import LengthUnit
from hardkeel.build.model import Build
from hardkeel.storage.attaching import Images
from hardkeel.survey.judging import Judgement
from hardkeel.ui.document.document import Document
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.settings import Settings
from hardkeel.ui.theme import Theme, wear
from hardkeel.voice import shell as say
from hardkeel.voice.standing import (
    how_far_framed,
    how_far_laid_out,
    how_far_logged,
    how_far_trued,
)


@dataclass(frozen=True, slots=True)
class Bench:
    """What the window hands to a stage.

    Parameters
    ----------
    tell : callable
        Says a sentence to the builder.
    """

    document: Document
    settings: Settings
    theme: Theme
    images: Images
    jobs: Jobs
    tell: Callable[[str], object]


class StagePage(QWidget):
    """The page of a stage; what a stage has no use for stays as it is here.

    Signals
    -------
    body_chosen : str
        A part was picked here.
    description_wanted : (nothing)
        The builder asks to describe a model.
    closed : (nothing)
        The window is about to end.
    """

    body_chosen = pyqtSignal(str)
    description_wanted = pyqtSignal()
    closed = pyqtSignal()

    @property
    def foot(self) -> QWidget | None:
        """What of this stage stands at the foot of the rail, whichever stage is shown."""
        return None

    def wake(self) -> None:
        """Get ready: the stage was turned to."""

    def turn_to(self, place: str) -> None:
        """Show one of several benches, where the stage has any."""

    def choose_body(self, body: str) -> None:
        """Show what is known of one part."""

    def choose_stop(self, stop: str) -> None:
        """Show what is known of a former."""

    def set_unit(self, unit: LengthUnit) -> None:
        """Show lengths in another unit."""

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""

    def wear(self) -> None:
        """Put the style sheet on what is seen."""
        wear(self)


def always(_build: Build) -> bool:
    """For a stage that is there, or has work, whatever is on the bench."""
    return True


@dataclass(frozen=True, slots=True)
class Stage:
    """A stage as the window knows it.

    Parameters
    ----------
    key : str
        How it is called inside.
    title : str
        What stands on the rail.
    module : str
        The package that has ``make(bench)``.
    note : callable
        How far it is, in a word or two, from the build and its judgement.
    appears : callable
        Whether it is on the rail for this build.
    ready : callable
        Whether it has anything to work on; until then the first page of the window stands in for it.
    """

    key: str
    title: str
    module: str
    note: Callable[[Build, Judgement], str]
    appears: Callable[[Build], bool] = always
    ready: Callable[[Build], bool] = always

    def make(self, bench: Bench) -> StagePage:
        """Make its page."""
        return cast("StagePage", import_module(self.module).make(bench))


def _surveyed(build: Build) -> bool:
    return build.survey is not None


STAGES: Final = (
    Stage("layout", say.LAY_OUT, "hardkeel.ui.stages.layout", how_far_laid_out),
    Stage("frame", say.FRAME, "hardkeel.ui.stages.frame", how_far_framed),
    Stage("true", say.TRUE, "hardkeel.ui.stages.true", how_far_trued, ready=_surveyed),
    Stage("log", say.LOG, "hardkeel.ui.stages.log", how_far_logged),
)
HOME: Final = "true"  # where a build that was opened is shown
ON_PAPER: Final = ("layout", "paper")  # where a plan on paper is begun
