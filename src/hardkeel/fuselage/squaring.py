"""Is the frame square on its board?  Its formers as bodies of the survey engine, by the contract.

Board frame, right-handed: x aft along the centre line from the datum station, z up from the board, y = z × x:
to starboard, but to port on an inverted board.  mm and degrees.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point
from hardkeel.fuselage.board_places import place_of_board
from hardkeel.fuselage.model import Board, Former, Fuselage, Squaring
from hardkeel.geometry.rotation import Array
from hardkeel.survey.adjusting import Solution
from hardkeel.survey.checking import Check, at_edge, verdict_of
from hardkeel.survey.columns import Priors
from hardkeel.survey.model import FUSELAGE, Body, Mark, Survey
from hardkeel.survey.network import Network, network_of
from hardkeel.survey.outliers import (
    NO_STARTS,
    Fit,
    Outlier,
    SightFit,
    Starts,
    fits,
    set_aside,
    sight_fits,
)
from hardkeel.survey.readings import (
    Incidence,
    Observation,
    Phase,
    Reading,
    Sight,
    counted,
    in_phase,
    marks_of,
)
from hardkeel.survey.soundness import check_measured

BOARD: Final = "board"
# what is checked of each former: its name, the unknown, default tolerance (mm or degrees)
CHECKED: Final = (
    ("dy", "dy", 0.5),
    ("roll", "roll", 0.5),
    ("lean", "pitch", 0.5),
    ("yaw", "yaw", 0.5),
    ("rack", "rack", 0.5),
)
CORNERS: Final = ("bp", "bs", "tp", "ts")
UNKNOWNS: Final = ("dx", "dy", "dz", "roll", "lean", "yaw", "rack")
_PRIORS: Final = Priors(shift=3.0, turn=2.0, bench=False)


@dataclass(frozen=True, slots=True)
class Squared:
    """What the readings say of a frame.

    Attributes
    ----------
    formers : tuple of str
        By station.
    stations : Array
        Shape (n,), mm.
    columns : Array of int
        Shape (n, 5): where each former's checked unknowns stand, in the order of `CHECKED`.
    tolerances : Array
        Shape (n, 5).
    checks : tuple of Check
        Former by former, in the order of `CHECKED`.
    """

    formers: tuple[str, ...]
    stations: Array
    net: Network
    solution: Solution
    readings: tuple[Reading, ...]
    fits: tuple[Fit, ...]
    sightings: tuple[Sight, ...]
    sight_fits: tuple[SightFit, ...]
    outliers: tuple[Outlier, ...]
    columns: np.ndarray[tuple[int, int], np.dtype[np.intp]]
    tolerances: Array
    checks: tuple[Check, ...]
    ended: Starts

    @property
    def read_on(self) -> frozenset[str]:
        """The formers that a reading in use touches."""
        used = {fit.id for fit in self.fits if fit.used}
        used |= {fit.id for fit in self.sight_fits if fit.used}
        found: set[str] = set()
        for one in (*self.readings, *self.sightings):
            if one.id in used:
                found |= bodies_of(one)
        return frozenset(found & set(self.formers))

    def checks_on(self, former: str) -> tuple[Check, ...]:
        """The checks of one former."""
        return tuple(check for check in self.checks if check.body == former)

    def unknown(self, former: str, name: str) -> tuple[float, float]:
        """Estimate and sigma of a former's ``dx`` … ``rack``, mm or degrees."""
        column = self.net.columns.column(former, "pitch" if name == "lean" else name)
        if column is None:
            return 0.0, 0.0
        spread = float(self.solution.covariance[column, column])
        return float(self.solution.unknowns[column]), max(spread, 0.0) ** 0.5


def bodies_of(reading: Observation) -> set[str]:
    """The formers, and the board, that a reading touches."""
    if isinstance(reading, Incidence):
        return {reading.body}
    return {mark.rpartition(".")[0] for mark in marks_of(reading)}


def frame_survey(fuselage: Fuselage) -> Survey:
    """The formers as bodies with their marks, and the board's fixed points; no readings.

    Raises
    ------
    BadInput
        When there is no board to measure from, or a former is called ``board``.
    """
    board = fuselage.board
    if board is None:
        raise BadInput("fuselage.board", "is missing: a frame is squared over its board")
    for i, former in enumerate(fuselage.formers):
        if former.id == BOARD:
            raise BadInput(f"fuselage.formers[{i}].id", '"board" is the building board\'s own name')
    skins = (fuselage.side_thickness, fuselage.top_skin, fuselage.bottom_skin)
    survey = _survey(_bare(fuselage.formers), board, skins)
    return _with_places(survey, fuselage.squaring or Squaring())


def _with_places(survey: Survey, squaring: Squaring) -> Survey:
    """With the places of the board that targets or readings name by their figures: ``board.120.-35``."""
    there = {mark.id for mark in survey.marks}
    named = [one.mark for one in squaring.targets]
    named += [name for one in squaring.readings for name in marks_of(one)]
    found = []
    for name in dict.fromkeys(named):
        place = place_of_board(name)
        if name not in there and place is not None:
            found.append(Mark(id=name, body=FUSELAGE, at=(*place, 0.0)))
    return survey.but(marks=(*survey.marks, *found)) if found else survey


def measured_survey(fuselage: Fuselage) -> Survey:
    """The frame with all that was read of it, and what that shares: all but how a gauge sits, and bends.

    Raises
    ------
    BadInput
        As `frame_survey`.
    """
    squaring = fuselage.squaring or Squaring()
    shared = squaring.shared
    if shared is not None:
        shared = shared.model_copy(update={"gauge_seat": 0.0, "bend_y": 0.0, "bend_z": 0.0})
    changes = {
        "readings": squaring.readings,
        "shared": shared,
        "photos": squaring.photos,
        "targets": squaring.targets,
        "target_size": squaring.target_size,
    }
    return frame_survey(fuselage).model_copy(update=changes)


def _bare(formers: Sequence[Former]) -> tuple[Former, ...]:
    return tuple(sorted(formers, key=lambda former: former.station))


@lru_cache(maxsize=16)
def _survey(formers: tuple[Former, ...], board: Board, skins: tuple[float, float, float]) -> Survey:
    bodies, marks = [], []
    for former in formers:
        low, high = _heights(former, board, skins)
        nearest = high if board.inverted else low
        pivot = (former.station, 0.0, nearest)
        bodies.append(Body(id=former.id, pivot=pivot, racks=True))
        for name, at in _marks(former, board, skins):
            marks.append(Mark(id=f"{former.id}.{name}", body=former.id, at=at))
        at = (former.station, 0.0, 0.0)
        marks.append(Mark(id=f"{BOARD}.{former.id}", body="fuselage", at=at))
    return Survey(bodies=tuple(bodies), marks=tuple(marks))


def _heights(
    former: Former, board: Board, skins: tuple[float, float, float]
) -> tuple[float, float]:
    """Heights over the board of the bottom and the top edge inside the skins, mm."""
    _, top, bottom = skins
    low, high = former.bottom + bottom, former.top - top
    if board.inverted:
        return board.z - low, board.z - high
    return low - board.z, high - board.z


def _marks(
    former: Former, board: Board, skins: tuple[float, float, float]
) -> list[tuple[str, Point]]:
    low, high = _heights(former, board, skins)
    wide = former.half_width - skins[0]
    starboard = -wide if board.inverted else wide
    x = former.station
    return [
        ("tp", (x, -starboard, high)),
        ("ts", (x, starboard, high)),
        ("bp", (x, -starboard, low)),
        ("bs", (x, starboard, low)),
        ("tc", (x, 0.0, high)),
        ("bc", (x, 0.0, low)),
    ]


def check_squaring(fuselage: Fuselage, place: str = "fuselage.squaring") -> None:
    """Raise on the first reading that points at nothing.

    Raises
    ------
    BadInput
        Naming the place, as ``fuselage.squaring.readings[2].to: no mark "F9.tp"``.
    """
    squaring = fuselage.squaring
    if squaring is None:
        return
    check_measured(measured_survey(fuselage), place)


def square(
    fuselage: Fuselage, phase: Phase | None = None, *, near: Squared | None = None
) -> Squared:
    """Adjust the readings and judge every former.

    Parameters
    ----------
    near : Squared, optional
        Of nearly the same frame: the adjustment starts from there.

    Raises
    ------
    BadInput
        When the frame has no board, a reading points at nothing, or the figures can't be adjusted.
    """
    check_squaring(fuselage)
    squaring = fuselage.squaring or Squaring()
    survey = measured_survey(fuselage)
    net = network_of(survey, near.net if near is not None else None, _PRIORS)
    starts = near.ended if near is not None and near.net.placer is net.placer else NO_STARTS
    readings = in_phase(squaring.readings, phase)
    solution, held, outliers, ended = set_aside(net, counted(readings), starts)
    figures = tuple(one for one in readings if not isinstance(one, Sight))
    sightings = tuple(one for one in readings if isinstance(one, Sight))
    names = tuple(body.id for body in survey.bodies)
    columns = np.array(
        [[net.columns.column(name, unknown) or 0 for _, unknown, _ in CHECKED] for name in names],
        dtype=np.intp,
    ).reshape(len(names), len(CHECKED))
    tolerances = tolerances_of(names, squaring)
    checks = _checks(names, columns, tolerances, solution)
    return Squared(
        formers=names,
        stations=np.array([body.origin[0] for body in survey.bodies]),
        net=net,
        solution=solution,
        readings=figures,
        fits=fits(net, figures, held, solution),
        sightings=sightings,
        sight_fits=sight_fits(net, sightings, held, solution),
        outliers=outliers,
        columns=columns,
        tolerances=tolerances,
        checks=checks,
        ended=ended,
    )


@dataclass(frozen=True, slots=True)
class Movement:
    """How a checked figure changed from one phase to another, mm or degrees."""

    former: str
    kind: str
    amount: float
    sigma: float


def movements(before: Squared, after: Squared) -> tuple[Movement, ...]:
    """What moved beyond doubt (two sigma) between two phases, by tolerances the most first."""
    found = []
    for i, name in enumerate(after.formers):
        for j, (kind, unknown, _) in enumerate(CHECKED):
            now, sigma = after.unknown(name, unknown)
            was, old = before.unknown(name, unknown)
            doubt = float(np.hypot(sigma, old))
            if abs(now - was) > 2 * doubt:
                limit = float(after.tolerances[i, j])
                found.append((abs(now - was) / limit, Movement(name, kind, now - was, doubt)))
    found.sort(key=lambda one: -one[0])
    return tuple(one for _, one in found)


def tolerances_of(names: Sequence[str], squaring: Squaring) -> Array:
    """Of each former's checks, shape (n, 5): its own, else its kind's, else the default."""
    own = squaring.tolerances or {}
    return np.array(
        [
            [own.get(f"{name}_{kind}", own.get(kind, usual)) for kind, _, usual in CHECKED]
            for name in names
        ]
    ).reshape(len(names), len(CHECKED))


def kind_tolerance(squaring: Squaring, kind: str) -> float:
    """The tolerance of a kind of check, mm or degrees."""
    usual = next(limit for name, _, limit in CHECKED if name == kind)
    return (squaring.tolerances or {}).get(kind, usual)


def _checks(
    names: Sequence[str],
    columns: np.ndarray[tuple[int, int], np.dtype[np.intp]],
    tolerances: Array,
    solution: Solution,
) -> tuple[Check, ...]:
    spread = np.sqrt(np.maximum(np.diag(solution.covariance), 0.0))
    found = []
    for i, name in enumerate(names):
        for j, (kind, _, _) in enumerate(CHECKED):
            column, limit = int(columns[i, j]), float(tolerances[i, j])
            value, sigma = float(solution.unknowns[column]), float(spread[column])
            unit = "mm" if kind == "dy" else "deg"
            verdict = verdict_of(value, sigma, limit)
            check = Check(
                f"{name}_{kind}", kind, name, unit, value, sigma, 0.0, limit, verdict, spread=sigma
            )
            found.append(at_edge(check))
    return tuple(found)
