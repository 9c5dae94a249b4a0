"""What can be read on an airframe: one module is one kind of reading.

Lives here: each kind's fields, marks, usual sigma, effort and zeros, and what is asked of any reading.  Not here: what a
perfect tool would show (`survey.observing`, which needs arrays), words (`messages`), where it is drawn (`picture`).
Imports nothing of the survey.  Adding a kind: its module, its line in the union and in `KINDS` here, its row in
`observing`, its words.
"""

from typing import Annotated, Final, TypeVar

from pydantic import Field

from hardkeel.survey.readings.angle import AngleAt
from hardkeel.survey.readings.base import PHASES, Phase, ReadingBase, Side
from hardkeel.survey.readings.difference import DistanceDifference
from hardkeel.survey.readings.distance import Distance
from hardkeel.survey.readings.gap import Gap
from hardkeel.survey.readings.height import Height
from hardkeel.survey.readings.incidence import Incidence
from hardkeel.survey.readings.offset import Offset
from hardkeel.survey.readings.sight import Sight
from hardkeel.survey.readings.tilt import Tilt

__all__ = [
    "ANGULAR",
    "DEFAULT_SIGMA",
    "EFFORT",
    "KINDS",
    "PHASES",
    "AirframeReading",
    "AngleAt",
    "AnyReading",
    "Distance",
    "DistanceDifference",
    "Gap",
    "Height",
    "Incidence",
    "Observation",
    "Offset",
    "Phase",
    "Reading",
    "ReadingBase",
    "Side",
    "Sight",
    "Tilt",
    "counted",
    "in_phase",
    "marks_of",
    "place_of",
    "sigma_of",
]

_OnAirframe = Distance | DistanceDifference | Height | Incidence | Tilt | Offset | AngleAt
AirframeReading = Annotated[_OnAirframe | Sight, Field(discriminator="kind")]
Reading = Annotated[_OnAirframe | Gap, Field(discriminator="kind")]  # one figure, mm or degrees
Observation = Reading | Sight
AnyReading = Annotated[_OnAirframe | Gap | Sight, Field(discriminator="kind")]

_KINDS: Final[tuple[type[Observation], ...]] = (
    Distance,
    DistanceDifference,
    Height,
    Incidence,
    Tilt,
    Offset,
    AngleAt,
    Gap,
    Sight,
)
KINDS: Final[dict[str, type[Observation]]] = {
    str(one.model_fields["kind"].default): one for one in _KINDS
}
DEFAULT_SIGMA: Final = {name: one.usual_sigma for name, one in KINDS.items()}
ANGULAR: Final = frozenset(name for name, one in KINDS.items() if one.angular)
EFFORT: Final = {name: one.effort for name, one in KINDS.items() if one is not Sight}


def sigma_of(reading: Observation) -> float:
    """The reading's own sigma, or its kind's (mm, degrees, or pixels)."""
    return reading.sigma if reading.sigma is not None else reading.usual_sigma


def marks_of(reading: Observation) -> tuple[str, ...]:
    """Ids of the marks that a reading touches, in the order in which it is held; none for incidence."""
    return tuple(mark for _, mark in reading.ends)


def place_of(reading: Observation) -> tuple[object, ...]:
    """What makes two readings the same measurement, whatever they showed."""
    return (reading.kind, *reading.place)


_Any = TypeVar("_Any", bound=Observation)


def counted(readings: tuple[_Any, ...]) -> tuple[_Any, ...]:
    """The readings that are adjusted: not the ignored ones, and no simulated one beside a real one."""
    held = tuple(reading for reading in readings if not reading.ignored)
    return tuple(reading for reading in held if not reading.simulated) or held


def in_phase(readings: tuple[_Any, ...], phase: Phase | None) -> tuple[_Any, ...]:
    """The readings of one phase, or all of them for ``None``."""
    return tuple(r for r in readings if phase is None or r.phase == phase)
