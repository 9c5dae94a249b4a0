"""Is the frame flat?  Heights of its corners over the board, by the survey's engine.

Each half is a body of its own, both held together in the middle, so that a twist, a bow and a tip that
stands up are told apart.  Board frame: x aft from the root leading edge, y out to starboard, z up from
the board to the under side; mm and degrees.
"""

from dataclasses import dataclass
from functools import lru_cache
from typing import Final, Literal

import numpy as np

from hardkeel.survey.adjusting import Solution, solve
from hardkeel.survey.columns import Priors
from hardkeel.survey.expecting import Expected
from hardkeel.survey.model import Body, Mark, Survey
from hardkeel.survey.network import network_of
from hardkeel.survey.readings import Gap, Height, Reading
from hardkeel.tail.model import BoardPlace, FlatReading, TailSurface
from hardkeel.tail.planform import planform_of

Phase = Literal["dry", "wet", "cured"]
PHASES: Final[tuple[Phase, ...]] = ("dry", "wet", "cured")
PLACES: Final[tuple[BoardPlace, ...]] = (
    "port_le", "port_te", "mid_le", "mid_te", "starboard_le", "starboard_te",
)  # fmt: skip
TWIST_TOLERANCE: Final = 0.5  # degrees from tip to tip: a quarter of what trims out unseen
_TIP_SHARE: Final = 0.96  # of the half span: a corner that can be touched
_SIGMA: Final = 0.3  # a steel rule on its end, mm
_JOINED: Final = 0.02  # both halves share their middle, mm
PRIORS: Final = Priors(shift=6.0, turn=3.0, bench=False)
MOST_BENT: Final = 10.0  # mm that a corner stands off the others: by more a rule was misread
MOST_TWIST: Final = (
    5.0  # degrees: by more the corners are to be measured again before anything is flexed
)
_HIGHEST: Final = 60.0  # mm over the board that a frame is propped up
# By experience a glued frame keeps about two thirds of what it was flexed by; the rest springs back.
KEPT: Final = 0.65


@dataclass(frozen=True, slots=True)
class Figure:
    """An estimate with its sigma."""

    value: float
    sigma: float


@dataclass(frozen=True, slots=True)
class Flatness:
    """What the heights say.

    Attributes
    ----------
    twist : Figure
        Of the starboard tip against the port tip, degrees, leading edge up.
    bow : Figure
        By how much both tips stand higher than the middle, on average, mm.
    port, starboard : Figure
        Rise of each tip over the middle, the frame laid level, mm.
    lift : (str, float) or None
        The corner to flex up, and by how much so that it stays true after springing back, mm.
    known : bool
        Whether all corners that the twist needs are read.
    """

    twist: Figure
    bow: Figure
    port: Figure
    starboard: Figure
    lift: tuple[BoardPlace, float] | None
    known: bool
    residuals: tuple[float, ...]

    @property
    def twisted(self) -> bool:
        """Whether the twist is out of its tolerance beyond doubt: nothing is flexed for less."""
        return self.known and abs(self.twist.value) - 2 * self.twist.sigma > TWIST_TOLERANCE

    @property
    def beyond_sense(self) -> bool:
        """Whether the twist is more than any frame has: a corner was misread."""
        return abs(self.twist.value) > MOST_TWIST


def expected_corner(surface: TailSurface, phase: Phase, place: BoardPlace) -> Expected:
    """What a corner's height should be: about as high as the others, within what a frame can be bent; mm."""
    others = [one.value for one in surface.flatness if one.phase == phase and one.at != place]
    if not others:
        return Expected(_HIGHEST / 2, _HIGHEST / 2)
    return Expected(float(np.median(others)), MOST_BENT)


def corner_places(surface: TailSurface) -> dict[BoardPlace, tuple[float, float]]:
    """Where the heights are read, (x, y), mm; a fin has its foot for a middle and no port half."""
    planform = planform_of(surface)
    y = _TIP_SHARE * planform.half
    front, rear = float(planform.leading(y)), float(planform.trailing(y))
    found: dict[BoardPlace, tuple[float, float]] = {
        "mid_le": (float(planform.leading(0.0)), 0.0),
        "mid_te": (float(planform.trailing(0.0)), 0.0),
        "starboard_le": (front, y),
        "starboard_te": (rear, y),
    }
    if not surface.upright:
        found |= {"port_le": (front, -y), "port_te": (rear, -y)}
    return found


def flatness_of(surface: TailSurface, phase: Phase) -> Flatness | None:
    """Adjust one phase's heights; ``None`` where there are none.

    Raises
    ------
    BadInput
        When the surface has no outline.
    """
    places = corner_places(surface)
    readings = tuple(r for r in surface.flatness if r.phase == phase and r.at in places)
    if not readings:
        return None
    return _adjusted(surface.but(flatness=()), readings)


@lru_cache(maxsize=32)
def _adjusted(surface: TailSurface, readings: tuple[FlatReading, ...]) -> Flatness:
    places = corner_places(surface)
    survey = halves_of(surface)
    taken: list[Reading] = [
        Height(
            id=f"h{i}",
            mark=corner_mark(one.at),
            value=one.value,
            sigma=one.sigma if one.sigma is not None else _SIGMA,
        )
        for i, one in enumerate(readings)
    ]
    taken += joins_of(surface)
    net = network_of(survey, None, PRIORS)
    solution = solve(net, taken)
    rows = {mark.id: net.index[mark.id] for mark in survey.marks}

    def figure(weights: dict[str, float]) -> Figure:
        return _figure(solution, {rows[name]: w for name, w in weights.items()})

    chord = places["starboard_te"][0] - places["starboard_le"][0]
    root = places["mid_te"][0] - places["mid_le"][0]
    degree = float(np.degrees(1.0))
    tip = {"starboard.tip_le": degree / chord, "starboard.tip_te": -degree / chord}
    if surface.upright:
        base = {"starboard.mid_le": -degree / root, "starboard.mid_te": degree / root}
    else:
        base = {"port.tip_le": -degree / chord, "port.tip_te": degree / chord}
    twist = figure(tip | base)
    middle = {"starboard.mid_le": -0.5, "starboard.mid_te": -0.5}
    starboard = {"starboard.tip_le": 0.5, "starboard.tip_te": 0.5}
    port = {"port.tip_le": 0.5, "port.tip_te": 0.5}
    level = Figure(
        0.0, 0.0
    )  # a fin's foot lies on the board: what it leans is no fault of the frame
    bow = level
    rises = (level, level)
    if not surface.upright:
        bow = figure({name: w / 2 for name, w in (starboard | port).items()} | middle)
        rises = (figure(port | middle), figure(starboard | middle))
    read = {one.at for one in readings}
    known = read >= (set(places) if surface.upright else set(places) - {"mid_le", "mid_te"})
    residuals = tuple(float(r) for r in solution.residuals[: len(readings)])
    return Flatness(twist, bow, *rises, _lift(twist, chord), known, residuals)


def _figure(solution: Solution, weights: dict[int, float]) -> Figure:
    placed = solution.placed
    value = sum(w * float(placed.airframe[row][2]) for row, w in weights.items())
    slope = np.zeros(len(solution.unknowns))
    for row, w in weights.items():
        slope += w * np.asarray(placed.airframe_moves[row][2])
    spread = float(slope @ solution.covariance @ slope)
    return Figure(value, max(spread, 0.0) ** 0.5)


def _lift(twist: Figure, chord: float) -> tuple[BoardPlace, float] | None:
    """The starboard corner to flex up, beyond true by what will spring back."""
    if abs(twist.value) <= max(2 * twist.sigma, TWIST_TOLERANCE / 4):
        return None
    out = float(np.radians(abs(twist.value))) * chord
    corner: BoardPlace = "starboard_te" if twist.value > 0 else "starboard_le"
    return corner, out / KEPT


def joins_of(surface: TailSurface) -> tuple[Gap, ...]:
    """That both halves share their middle; a fin has one half."""
    if surface.upright:
        return ()
    return tuple(
        Gap(
            id=f"joined {end}",
            from_=f"port.mid_{end}",
            to=f"starboard.mid_{end}",
            axis="z",
            value=0.0,
            sigma=_JOINED,
        )
        for end in ("le", "te")
    )


def corner_mark(at: BoardPlace) -> str:
    """The mark of a corner in `halves_of`; of the middle that of the starboard half."""
    side, _, end = at.partition("_")
    return f"starboard.mid_{end}" if side == "mid" else f"{side}.tip_{end}"


def halves_of(surface: TailSurface) -> Survey:
    """Each half a body that can twist, its corners and its middle as marks; no readings.

    Raises
    ------
    BadInput
        When the surface has no outline.
    """
    places = corner_places(surface)
    middle = (places["mid_le"][0] + places["mid_te"][0]) / 2
    sides = ("starboard",) if surface.upright else ("port", "starboard")
    bodies = [
        Body(id=side, pivot=(middle, 0.0, 0.0), span=surface.span, twist=True) for side in sides
    ]
    marks = []
    for side in sides:
        for place, (x, y) in places.items():
            where, _, end = place.partition("_")
            if where in ("mid", side):
                name = f"{side}.{'mid' if where == 'mid' else 'tip'}_{end}"
                marks.append(Mark(id=name, body=side, at=(x, y, 0.0)))
    return Survey(bodies=tuple(bodies), marks=tuple(marks))
