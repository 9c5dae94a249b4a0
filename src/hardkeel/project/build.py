"""The whole document: what a ``.keel`` file's ``build.json`` holds."""

from typing import Annotated, Final, Literal

from pydantic import Field

from hardkeel.logbook.entries import Entry, Session
from hardkeel.survey.model import Finite, Phase, Positive, Survey, Text, Value

FORMAT_NAME: Final = "hardkeel"
FORMAT_VERSION: Final = 1
FORMAT: Final = f"{FORMAT_NAME}/{FORMAT_VERSION}"

ModelClass = Literal["trainer", "sport", "precision"]


class Former(Value):
    """A former at a station; half-width, bottom and top are to the outside, mm."""

    id: Text
    station: Finite
    bottom: Finite
    top: Finite
    half_width: Annotated[float, Field(ge=0, allow_inf_nan=False)]
    thickness: Positive | None = None
    material: str | None = None


class TailPost(Value):
    """Where the sides close, mm."""

    station: Finite
    bottom: Finite
    top: Finite
    half_width: Annotated[float, Field(ge=0, allow_inf_nan=False)]


class Fuselage(Value):
    """The fuselage section as far as this version draws it; the rest is kept untouched."""

    formers: tuple[Former, ...] = ()
    tail_post: TailPost | None = None


class Wing(Value):
    """A straight-tapered wing, mm and degrees."""

    id: Text
    le_x: Finite
    z: Finite
    span: Positive
    root_chord: Positive
    tip_chord: Positive
    sweep_le: Finite = 0.0
    dihedral: Finite = 0.0
    incidence: Finite = 0.0


class Build(Value):
    """One model aircraft on the bench.

    Attributes
    ----------
    phase : Phase
        What the builder is measuring now; our own addition to the file, like name and log.
    """

    format: str = FORMAT
    name: str = ""
    model_class: ModelClass | None = None
    phase: Phase | None = None
    fuselage: Fuselage | None = None
    wings: tuple[Wing, ...] = ()
    survey: Survey | None = None
    log: tuple[Entry, ...] = ()
    sessions: tuple[Session, ...] = ()

    @property
    def surveyed(self) -> Survey:
        """The survey, empty where the file has none."""
        return self.survey or Survey()


def empty_build() -> Build:
    """A build that nobody has described yet."""
    return Build(format=FORMAT, name="")
