"""The stages in the order of work; none of them imports another.

A stage is one package here and one line in `STAGES`.  Its package gives ``make(bench)``, which makes
its page; the window shows the page and knows no stage by name.
"""

from collections.abc import Callable
from dataclasses import dataclass
from importlib import import_module
from typing import Final, Protocol, cast

from hardkeel.messages import shell as say
from hardkeel.messages.prints import PAPER
from hardkeel.messages.standing import (
    how_far_framed,
    how_far_laid_out,
    how_far_logged,
    how_far_planned,
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


@dataclass(frozen=True, slots=True)
class StageContext:
    """What the window hands to a stage.

    Parameters
    ----------
    tell : callable
        Says a sentence to the builder.
    """

    document: Document
    settings: Settings
    theme: Theme
    jobs: Jobs
    tell: Tell


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


STAGES: Final = (
    Stage("layout", say.LAY_OUT, "hardkeel.ui.stages.layout", how_far_laid_out),
    Stage("frame", say.FRAME, "hardkeel.ui.stages.frame", how_far_framed),
    Stage("tail", say.TAIL, "hardkeel.ui.stages.tail", how_far_tailed),
    Stage("true", say.TRUE, "hardkeel.ui.stages.true", how_far_trued, ready=_surveyed),
    Stage("bench", say.BENCH, "hardkeel.ui.stages.bench", how_far_planned),
    Stage("log", say.LOG, "hardkeel.ui.stages.log", how_far_logged),
    Stage("paper", PAPER, "hardkeel.ui.stages.paper", how_far_printed),
)
HOME: Final = "true"  # where a build that was opened is shown
PICTURED: Final = "true"  # what photographs of the model say
PRINTED: Final = "paper"  # where sheets are printed
ON_PAPER: Final = ("layout", "paper")  # where a plan on paper is begun
