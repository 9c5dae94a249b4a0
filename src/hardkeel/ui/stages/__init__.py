"""The stages in the order of work; none of them imports another.

A stage is one package here and one line in `STAGES`.  Its package gives ``make(bench)``, which makes
its page; the window shows the page and knows no stage by name.
"""

from collections.abc import Callable
from dataclasses import dataclass
from importlib import import_module
from pathlib import Path
from typing import Final, Protocol, cast

from hardkeel.messages import shell as say
from hardkeel.messages.practising import PRACTICE
from hardkeel.messages.prints import PAPER
from hardkeel.messages.standing import (
    how_far_framed,
    how_far_laid_out,
    how_far_logged,
    how_far_planned,
    how_far_practised,
    how_far_printed,
    how_far_tailed,
    how_far_trued,
)
from hardkeel.project.model import Build
from hardkeel.survey.judging import Judgement
from hardkeel.ui.document.document import Document
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.settings import Settings
from hardkeel.ui.tabbed.stage_page import StagePage
from hardkeel.ui.theme import Theme


class Tell(Protocol):
    """Says a sentence to the builder, with answers that may be given to it; an empty one takes it back."""

    def __call__(
        self, text: str, *answers: tuple[str, Callable[[], object]], well: bool = False
    ) -> object:
        """Say it; what went well is said quietly, and goes by itself."""


class Visit(Protocol):
    """Somebody else's model on the bench for a while, and the way back to the builder's own."""

    @property
    def own(self) -> str:
        """The name of the builder's own model that waits; empty where none does."""

    def put(self, build: Build) -> bool:
        """Put a model on the bench that has no file; whether the builder let the one before go."""

    def back(self) -> None:
        """Put the builder's own back."""


@dataclass(frozen=True, slots=True)
class StageContext:
    """What the window hands to a stage.

    Parameters
    ----------
    tell : callable
        Says a sentence to the builder.
    state : Path
        The application's state folder.
    """

    document: Document
    settings: Settings
    theme: Theme
    jobs: Jobs
    tell: Tell
    visit: Visit
    state: Path


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

    def make(self, bench: StageContext) -> StagePage:
        """Make its page."""
        return cast("StagePage", import_module(self.module).make(bench))


def _surveyed(build: Build) -> bool:
    return build.survey is not None


def _laid_out(build: Build) -> bool:
    return build.fuselage is not None


def _drawn(build: Build) -> bool:
    return build.fuselage is not None or bool(build.tail)


def _own(build: Build) -> bool:
    """Whether it is a build to be built, and not an exercise."""
    return build.practice is None


def _open(build: Build) -> bool:
    """Whether verdicts may be shown: of an exercise not before the learner has said his word."""
    return build.practice is None or build.practice.told


STAGES: Final = (
    Stage("layout", say.LAY_OUT, "hardkeel.ui.stages.layout", how_far_laid_out, _own),
    Stage("frame", say.FRAME, "hardkeel.ui.stages.frame", how_far_framed, _own, _laid_out),
    Stage("tail", say.TAIL, "hardkeel.ui.stages.tail", how_far_tailed, _own),
    Stage("true", say.TRUE, "hardkeel.ui.stages.true", how_far_trued, _open, _surveyed),
    Stage("bench", say.BENCH, "hardkeel.ui.stages.bench", how_far_planned, _own),
    Stage("log", say.LOG, "hardkeel.ui.stages.log", how_far_logged, _own),
    Stage("paper", PAPER, "hardkeel.ui.stages.paper", how_far_printed, _own, _drawn),
    Stage("practice", PRACTICE, "hardkeel.ui.stages.practice", how_far_practised),
)


def home_of(build: Build) -> str:
    """Where a build that was opened is shown: an exercise where it is read."""
    return HOME if build.practice is None else "practice"


HOME: Final = "true"
PICTURED: Final = "true"  # what photographs of the model say
PRINTED: Final = "paper"  # where sheets are printed
ON_PAPER: Final = ("layout", "paper")  # where a plan on paper is begun
