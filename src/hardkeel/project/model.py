"""The whole document: what a ``.keel`` file's ``build.json`` holds."""

from typing import Final, Literal

from pydantic import Field

from hardkeel.balance.model import Balance, Mass, Wing
from hardkeel.base.values import Value
from hardkeel.fuselage.model import Fuselage
from hardkeel.glue.model import Shelf
from hardkeel.logbook.entries import Entry, Session
from hardkeel.paper.model import Plan, PrintedSheet
from hardkeel.paper.prints import Printed
from hardkeel.parts.model import Ledger
from hardkeel.project.practice import PracticeSection
from hardkeel.schedule.model import BenchTime, Step
from hardkeel.survey.model import Survey
from hardkeel.survey.readings import Phase
from hardkeel.tail.model import TailSurface
from hardkeel.trim.model import Flight

FORMAT_NAME: Final = "hardkeel"
FORMAT_VERSION: Final = 1
FORMAT: Final = f"{FORMAT_NAME}/{FORMAT_VERSION}"

ModelClass = Literal["trainer", "sport", "precision"]


class Covering(Value):
    """How the tail is covered; our own key.

    Attributes
    ----------
    when : {"after", "before"}
        Once it stands on the model, or by itself with its seat left bare.
    """

    when: Literal["after", "before"] = "after"


class Build(Value):
    """One model aircraft on the bench.

    Attributes
    ----------
    phase : Phase
        What the builder is measuring now; our own addition to the file, like name and log.
    profiles : mapping of str to str
        The text of each coordinate file that a section is read from, by its name.  A file holds them as
        files of their own; the journal, which is one text, holds them here.
    prints : tuple of Printed
        The last print of each sheet; our own key.
    practice : PracticeSection, optional
        Of an exercise: a model that is nobody's own.
    """

    format: str = FORMAT
    name: str = ""
    model_class: ModelClass | None = None
    phase: Phase | None = None
    fuselage: Fuselage | None = None
    wings: tuple[Wing, ...] = ()
    tail: tuple[TailSurface, ...] = ()
    profiles: dict[str, str] = Field(default_factory=dict)
    masses: tuple[Mass, ...] = ()
    balance: Balance | None = None
    audit: tuple[PrintedSheet, ...] = ()
    plans: tuple[Plan, ...] = ()
    prints: tuple[Printed, ...] = ()
    ledger: Ledger | None = None
    survey: Survey | None = None
    flight: Flight | None = None
    steps: tuple[Step, ...] = ()
    bench: BenchTime | None = None
    glue: Shelf | None = None
    covering: Covering = Covering()
    log: tuple[Entry, ...] = ()
    sessions: tuple[Session, ...] = ()
    practice: PracticeSection | None = None

    @property
    def surveyed(self) -> Survey:
        """The survey, empty where the file has none."""
        return self.survey or Survey()

    @property
    def listed(self) -> Ledger:
        """The ledger, empty where the file has none."""
        return self.ledger or Ledger()

    @property
    def hidden(self) -> dict[str, dict[str, float]] | None:
        """How crooked the airframe is that stand-in gauges measure: only a demo or exercise has it."""
        given = (self.model_extra or {}).get("stand_in")
        if not isinstance(given, dict):
            return None
        return {
            str(body): {str(n): float(v) for n, v in names.items() if isinstance(v, int | float)}
            for body, names in given.items()
            if isinstance(names, dict)
        }

    @property
    def described(self) -> bool:
        """Whether there is anything of an airframe yet."""
        return bool(
            self.survey is not None
            or self.wings
            or self.tail
            or (self.fuselage is not None and self.fuselage.stations)
        )


def empty_build() -> Build:
    """A build that nobody has described yet."""
    return Build(format=FORMAT, name="")
