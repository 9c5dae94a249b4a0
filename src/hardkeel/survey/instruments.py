"""What each tool is worth: sigmas that follow from how it works, and what its own readings tell of it.

Sources: a straight edge is seen in line with another to about three minutes of arc by a practised eye on the bench
(ten times coarser than vernier acuity in the laboratory, because the edges are sanded wood in room light).  A figure
shown in steps of r is anywhere within its step, which is a sigma of r/√12 (uniform distribution).  The rest are
experience: a meniscus in a hose to 0.3 mm, a stand's pin to 0.2 mm, a ring on a stick to 0.3 mm, a digital level
laid on wood twice to 0.05°.
"""

import math
from collections import defaultdict
from collections.abc import Collection, Sequence
from dataclasses import dataclass
from statistics import fmean
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.survey.model import Instrument, InstrumentKind, Survey
from hardkeel.survey.readings import (
    ANGULAR,
    DEFAULT_SIGMA,
    DistanceDifference,
    Reading,
    Tilt,
    counted,
    place_of,
    sigma_of,
)

AS_HEIGHTS: Final[frozenset[InstrumentKind]] = frozenset({"water-level", "stand-pair"})
EYE_MINUTES: Final = 3.0
EYE_AWAY_MM: Final = 1500.0  # where a builder stands who sights over the tail
TRAMMEL_MM: Final = 1000.0  # longest stick that is still stiff
DIGITAL_STEP: Final = 0.1  # degrees that a digital level shows
_EYE_BEST: Final = 0.1  # degrees: edges are no truer than that
_MENISCUS_MM: Final = 0.3
_PIN_MM: Final = 0.2
_RING_MM: Final = 0.3
_LAID: Final = 0.05  # degrees
_LEAST_DOF: Final = 3
# An error that is the same in every repeat (the hook of a tape, a mark put beside its place) can't be learned from
# them, so no tool is counted finer than half of what it was.
FINEST_SHARE: Final = 0.5
_CLEAR: Final = 2.0  # sigmas
_ALIKE: Final = 3.0  # sigmas
_STEEPEST: Final = 0.7  # of the length between: 44 degrees


def tool_of(survey: Survey, reading: Reading) -> Instrument | None:
    """The builder's tool that a reading names."""
    return next((one for one in survey.instruments or () if one.id == reading.instrument), None)


def sigma_with(tool: Instrument, apart: float | None) -> float | None:
    """The sigma of what it reads, mm or degrees; ``None`` where it is as good as any of its kind.

    Parameters
    ----------
    apart : float, optional
        mm between the two marks of a tilt.
    """
    match tool.kind:
        case "water-level" | "stand-pair" if apart:
            return math.degrees(shown_sigma(tool) / apart)
        case _ if tool.sigma is not None:
            return tool.sigma
        case "eye" if apart:
            seen = EYE_MINUTES / 60 * (tool.distance or EYE_AWAY_MM) / apart
            return max(_EYE_BEST, seen)
        case "digital-level":
            return math.hypot((tool.resolution or DIGITAL_STEP) / math.sqrt(12), _LAID)
        case "trammel":
            return _RING_MM
        case _:
            return None


def within_reach(survey: Survey, tool: Instrument, reading: Reading) -> bool:
    """Whether a tool is long enough for it."""
    if tool.kind != "trammel" or not isinstance(reading, DistanceDifference):
        return True
    return all(apart_mm(survey, reading.from_, end) <= TRAMMEL_MM for end in reading.to)


def apart_mm(survey: Survey, one: str, other: str) -> float:
    """Distance between two marks on a true airframe, mm.

    Raises
    ------
    KeyError
        When there is no such mark.
    """
    a, b = survey.mark(one), survey.mark(other)
    if a is None or b is None:
        raise KeyError(one if a is None else other)
    return math.dist(a.at, b.at)


def read_over(survey: Survey, reading: Reading) -> float | None:
    """Where a level is read as a difference of two heights: mm between its marks; else ``None``."""
    tool = tool_of(survey, reading)
    if tool is None or tool.kind not in AS_HEIGHTS or not isinstance(reading, Tilt):
        return None
    return apart_mm(survey, reading.from_, reading.to) or None


def in_degrees(survey: Survey, reading: Reading) -> bool:
    """Whether what its tool shows are degrees."""
    return reading.kind in ANGULAR and read_over(survey, reading) is None


def as_shown(survey: Survey, reading: Reading, value: float) -> float:
    """A reading's value as its tool shows it: mm of height for a tilt read so."""
    over = read_over(survey, reading)
    return value if over is None else height_of(value, over)


def as_kept(survey: Survey, reading: Reading, shown: float) -> float:
    """What its tool showed as the reading's value.

    Raises
    ------
    BadInput
        When the two ends can't differ by so much.
    """
    over = read_over(survey, reading)
    if over is None:
        return shown
    if abs(shown) > _STEEPEST * over:
        raise BadInput(
            "", f"the two marks are {over:.0f} mm apart: that is steeper than any surface is set"
        )
    return tilt_of(shown, over)


def height_of(degrees: float, over: float) -> float:
    """How much higher the far mark is, mm, where the line of `over` mm rises by so many degrees."""
    return over * math.sin(math.radians(degrees))


def tilt_of(height: float, over: float) -> float:
    """Degrees by which a line of `over` mm rises whose ends differ by so many mm, no more than `over`."""
    return math.degrees(math.asin(height / over))


@dataclass(frozen=True, slots=True)
class Learned:
    """What repeats tell of a tool.

    Attributes
    ----------
    tool : str
        Its id.
    sigma, counted : float
        What its repeats scatter by, and what it was counted as; mm or degrees as it shows them, by `angular`.
    dof : int
        Repeats beyond the first at each place.
    readings, places : int
        How many were repeated, and at how many places.
    """

    tool: str
    angular: bool
    sigma: float
    counted: float
    dof: int
    readings: int
    places: int

    @property
    def doubt(self) -> float:
        """One sigma of the sigma: s/√(2ν), as for any normal sample."""
        return self.sigma / math.sqrt(2 * self.dof)

    @property
    def differs(self) -> bool:
        """Whether it is clearly another than it was counted as."""
        if self.sigma == 0:
            return True
        return abs(math.log(self.sigma / self.counted)) > _CLEAR / math.sqrt(2 * self.dof)

    @property
    def usable(self) -> float:
        """What to count it as: never finer than half of what it was."""
        return max(self.sigma, FINEST_SHARE * self.counted)


def learned(survey: Survey, without: Collection[str] = ()) -> tuple[Learned, ...]:
    """What the repeats of each tool tell: the scatter about each place's mean, pooled over its places.

    Parameters
    ----------
    without : collection of str
        Ids of readings in doubt; a blunder is no scatter.
    """
    at_place: dict[str, dict[object, list[Reading]]] = defaultdict(lambda: defaultdict(list))
    for reading in counted(survey.figures):
        if reading.instrument is not None and reading.id not in without:
            place = (place_of(reading), reading.phase)
            at_place[reading.instrument][place].append(reading)
    found = []
    for tool, places in at_place.items():
        again = [many for many in places.values() if len(many) > 1]
        dof = sum(len(many) - 1 for many in again)
        if dof < _LEAST_DOF:
            continue
        squares = 0.0
        for many in again:
            shown = [as_shown(survey, one, one.value) for one in many]
            mean = fmean(shown)
            squares += sum((value - mean) ** 2 for value in shown)
        every = [one for many in again for one in many]
        used = math.sqrt(fmean(as_shown(survey, one, sigma_of(one)) ** 2 for one in every))
        found.append(
            Learned(
                tool=tool,
                angular=in_degrees(survey, every[0]),
                sigma=math.sqrt(squares / dof),
                counted=used,
                dof=dof,
                readings=len(every),
                places=len(again),
            )
        )
    return tuple(found)


def was_turned(survey: Survey, reading: Reading) -> bool:
    """Whether the same level was laid on the same two marks the other way round too."""
    return isinstance(reading, Tilt) and any(
        isinstance(other, Tilt)
        and (other.from_, other.to) == (reading.to, reading.from_)
        and other.instrument == reading.instrument
        for other in counted(survey.figures)
    )


@dataclass(frozen=True, slots=True)
class ZeroError:
    """By how much a level shows too much whichever way it lies, degrees, from `pairs` places where it was turned.

    Attributes
    ----------
    agree : bool
        Whether there are several places and all tell the same; one alone may be a slip.
    """

    tool: str
    error: float
    sigma: float
    pairs: int
    agree: bool

    @property
    def noticeable(self) -> bool:
        """Whether it is more than doubt."""
        return abs(self.error) > _CLEAR * self.sigma

    @property
    def sure(self) -> bool:
        """Whether it may be taken off the readings."""
        return self.noticeable and self.agree


def zero_errors(survey: Survey) -> tuple[ZeroError, ...]:
    """The own error of each level that was laid on the same two marks both ways round.

    One way it shows tilt and error, end for end the tilt's opposite and the same error: half the sum is the error.
    Places are weighted by their variances.  Readings in doubt are not left out: a pair with such an error in it
    contradicts itself, and only several places that tell the same clear it.
    """
    laid: dict[tuple[str, str | None, str, str], list[Tilt]] = defaultdict(list)
    for reading in counted(survey.figures):
        if isinstance(reading, Tilt) and reading.instrument:
            key = (reading.instrument, reading.phase, reading.from_, reading.to)
            laid[key].append(reading)
    by_tool: dict[str, list[tuple[float, float]]] = defaultdict(list)
    for (tool, phase, one, other), there in laid.items():
        back = laid.get((tool, phase, other, one))
        if back is None or one > other:
            continue
        half = (fmean(t.value for t in there) + fmean(t.value for t in back)) / 2
        by_tool[tool].append((half, (_variance(there) + _variance(back)) / 4))
    found = []
    for tool, pairs in by_tool.items():
        weight = sum(1 / variance for _, variance in pairs)
        error = sum(half / variance for half, variance in pairs) / weight
        agree = len(pairs) > 1 and all(
            abs(half - error) <= _ALIKE * math.sqrt(variance) for half, variance in pairs
        )
        found.append(ZeroError(tool, error, math.sqrt(1 / weight), len(pairs), agree))
    return tuple(found)


def _variance(tilts: Sequence[Tilt]) -> float:
    """Of their mean."""
    return sum(sigma_of(one) ** 2 for one in tilts) / len(tilts) ** 2


def shows_degrees(tool: Instrument) -> bool:
    """Whether what it shows are degrees."""
    return USED_FOR[tool.kind] in ANGULAR and tool.kind not in AS_HEIGHTS


def shown_sigma(tool: Instrument) -> float:
    """What it is counted as, mm or degrees as it shows them; the eye over a usual length."""
    if tool.sigma is not None:
        return tool.sigma
    if tool.kind in AS_HEIGHTS:
        return math.sqrt(2) * (_MENISCUS_MM if tool.kind == "water-level" else _PIN_MM)
    return typical_sigma(tool)


def typical_sigma(tool: Instrument) -> float:
    """The sigma of its readings, mm or degrees; over a usual length for a tilt."""
    own = sigma_with(tool, TYPICAL_MM)
    return own if own is not None else DEFAULT_SIGMA[USED_FOR[tool.kind]]


TYPICAL_MM: Final = 300.0
USED_FOR: Final[dict[InstrumentKind, str]] = {
    "tape": "distance",
    "line": "distance-difference",
    "trammel": "distance-difference",
    "height-stand": "height",
    "stand-pair": "tilt",
    "incidence-gauge": "incidence",
    "level": "tilt",
    "digital-level": "tilt",
    "water-level": "tilt",
    "square": "angle",
    "laser": "offset",
    "eye": "tilt",
}
