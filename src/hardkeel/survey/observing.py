"""What each reading would show for given unknowns, all at once, with derivatives.

Readings are sorted by kind once; every evaluation is then a handful of array operations whatever
their number, which is what makes ranking hundreds of candidate readings cheap.
"""

from collections.abc import Callable, Collection, Iterator, Mapping, Sequence

import numpy as np
from numpy.typing import NDArray

from hardkeel.geometry.rotation import RADIANS_PER_DEGREE, Array
from hardkeel.survey.columns import Columns
from hardkeel.survey.model import FUSELAGE, Survey
from hardkeel.survey.placing import Placed
from hardkeel.survey.readings import (
    Gap,
    Incidence,
    Offset,
    Reading,
    marks_of,
)

Rows = NDArray[np.intp]
_TINY = 1e-9  # mm or its square: below this a direction has no meaning and gets no derivative


class Observer:
    """Predicts a fixed list of readings.

    Parameters
    ----------
    survey : Survey
        Bodies and marks that the readings refer to; references must be sound.
    readings : sequence of Reading
        In the order of the rows of every result.
    columns : Columns
        The order of the unknowns.
    index : mapping of str to int
        Row of each mark among the placed points.
    """

    def __init__(
        self,
        survey: Survey,
        readings: Sequence[Reading],
        columns: Columns,
        index: Mapping[str, int],
    ) -> None:
        self._count = len(readings)
        self._size = columns.size
        rows: dict[str, list[int]] = {}
        for i, reading in enumerate(readings):
            rows.setdefault(reading.kind, []).append(i)
        self._groups: list[tuple[Rows, Rows, _Model]] = []
        strings = {i for i, r in enumerate(readings) if isinstance(r, Offset) and r.along}
        for kind, which in _apart(rows, strings):
            if kind == "incidence":
                continue
            ends = np.array(
                [[index[m] for m in marks_of(readings[i])] for i in which], dtype=np.intp
            )
            model = MODELS[kind]
            if kind == "gap":
                axes = [readings[i] for i in which]
                model = _gap_along(np.array([_AXES[r.axis] for r in axes if isinstance(r, Gap)]))
            self._groups.append((np.array(which, dtype=np.intp), ends.T, model))
        # Incidence readings are linear in the unknowns: one constant row each.
        self._constant = np.zeros(self._count)
        self._linear = np.zeros((self._count, self._size))
        for i in rows.get("incidence", ()):
            reading = readings[i]
            if isinstance(reading, Incidence):
                self._constant[i] = _incidence_row(survey, reading, columns, self._linear[i])
        self._stretched = _stretched(readings, columns)
        for i, reading in enumerate(readings):
            _zero_row(reading, columns, self._linear[i])

    def predict(self, unknowns: Array, placed: Placed) -> tuple[Array, Array]:
        """Predicted values, shape (r,), and derivatives, shape (r, n); mm and degrees."""
        values = self._constant + self._linear @ unknowns
        slopes = self._linear.copy()
        for rows, ends, model in self._groups:
            length, slope = model(placed, ends)
            values[rows] += length
            slopes[rows] += slope
        if self._stretched is not None:
            self._stretch(unknowns, values, slopes)
        return values, slopes

    def _stretch(self, unknowns: Array, values: Array, slopes: Array) -> None:
        """What a tape reads long is its length, and not what its hook adds."""
        rows, column = self._stretched or (np.zeros(0, np.intp), np.zeros(0, np.intp))
        by = unknowns[column]
        zero = self._linear[rows]
        length = values[rows] - zero @ unknowns
        values[rows] += length * by
        slopes[rows] += (slopes[rows] - zero) * by[:, None]
        slopes[rows, column] += length


def _apart(
    rows: Mapping[str, list[int]], strings: Collection[int]
) -> Iterator[tuple[str, list[int]]]:
    """By kind its readings; offsets from a string by themselves."""
    for kind, which in rows.items():
        for name, mine in (
            (kind, [i for i in which if i not in strings]),
            (_ALONG, [i for i in which if i in strings]),
        ):
            if mine:
                yield name, mine


def _zero_row(reading: Reading, columns: Columns, row: Array) -> None:
    """The zeros that a reading shares with others of its tool, and how the gauge sits on its body."""
    for key, amount in reading.zeros:
        _add(columns, (key, reading.instrument or ""), amount, row)
    if reading.hung_on is not None:
        _add(columns, ("gauge_seat", reading.hung_on), 1.0, row)


def _add(columns: Columns, key: tuple[str, str], amount: float, row: Array) -> None:
    column = columns.shared.get(key)
    if column is not None:
        row[column] += amount


def _stretched(readings: Sequence[Reading], columns: Columns) -> tuple[Rows, Rows] | None:
    """Rows of what is read by a tape that may be stretched, and the column of that; ``None`` where none is."""
    found = [
        (i, column)
        for i, reading in enumerate(readings)
        if reading.stretches
        and (column := columns.shared.get(("tape_stretch", reading.instrument or ""))) is not None
    ]
    if not found:
        return None
    rows, column = np.array(found, dtype=np.intp).T
    return rows, column


_Model = Callable[[Placed, Rows], tuple[Array, Array]]


def _incidence_row(survey: Survey, reading: Incidence, columns: Columns, row: Array) -> float:
    body = survey.body(reading.body)
    pitch = columns.column(reading.body, "pitch")
    if pitch is not None:
        row[pitch] = 1.0
    if reading.side != "centre":
        twist = columns.column(reading.body, f"twist_{reading.side}")
        if twist is not None:
            row[twist] = reading.span_fraction
    if reading.zero == "level" and columns.has_bench:
        row[columns.bench] = 1.0
    return body.incidence if body is not None and body.id != FUSELAGE else 0.0


def _length(vector: Array, moves: Array) -> tuple[Array, Array]:
    """Lengths of (k, 3) vectors and their derivatives from (k, 3, n)."""
    length = np.sqrt(np.einsum("ki,ki->k", vector, vector))
    unit = vector / np.maximum(length, _TINY)[:, None]
    return length, np.einsum("ki,kin->kn", unit, moves)


def _distance(placed: Placed, ends: Rows) -> tuple[Array, Array]:
    a, b = ends
    return _length(
        placed.airframe[b] - placed.airframe[a],
        placed.airframe_moves[b] - placed.airframe_moves[a],
    )


def _difference(placed: Placed, ends: Rows) -> tuple[Array, Array]:
    pin, a, b = ends
    start, moves = placed.airframe[pin], placed.airframe_moves[pin]
    to_a, slope_a = _length(placed.airframe[a] - start, placed.airframe_moves[a] - moves)
    to_b, slope_b = _length(placed.airframe[b] - start, placed.airframe_moves[b] - moves)
    return to_a - to_b, slope_a - slope_b


def _height(placed: Placed, ends: Rows) -> tuple[Array, Array]:
    (mark,) = ends
    return placed.bench[mark, 2], placed.bench_moves[mark, 2]


def _offset(placed: Placed, ends: Rows) -> tuple[Array, Array]:
    (mark,) = ends
    return placed.airframe[mark, 1], placed.airframe_moves[mark, 1]


def _along(placed: Placed, ends: Rows) -> tuple[Array, Array]:
    """How far a mark stands to starboard of the upright plane through two others, mm."""
    mark, a, b = ends
    run = (placed.airframe[b] - placed.airframe[a])[:, :2]
    run_moves = (placed.airframe_moves[b] - placed.airframe_moves[a])[:, :2]
    off = (placed.airframe[mark] - placed.airframe[a])[:, :2]
    off_moves = (placed.airframe_moves[mark] - placed.airframe_moves[a])[:, :2]
    length, length_slope = _length(run, run_moves)
    length = np.maximum(length, _TINY)
    # n·off with n = (−t_y, t_x): the cross product of run and off, over the run
    cross = run[:, 0] * off[:, 1] - run[:, 1] * off[:, 0]
    slope = (
        run_moves[:, 0] * off[:, 1:]
        + run[:, :1] * off_moves[:, 1]
        - run_moves[:, 1] * off[:, :1]
        - run[:, 1:] * off_moves[:, 0]
    )
    value = cross / length
    return value, (slope - value[:, None] * length_slope) / length[:, None]


def _tilt(placed: Placed, ends: Rows) -> tuple[Array, Array]:
    """atan2(dz, hypot(dx, dy)) of the line in the bench frame, degrees."""
    a, b = ends
    line = placed.bench[b] - placed.bench[a]
    moves = placed.bench_moves[b] - placed.bench_moves[a]
    run, run_slope = _length(line[:, :2], moves[:, :2])
    rise, rise_slope = line[:, 2], moves[:, 2]
    square = np.maximum(run**2 + rise**2, _TINY)[:, None]
    slope = (run[:, None] * rise_slope - rise[:, None] * run_slope) / square
    return np.arctan2(rise, run) / RADIANS_PER_DEGREE, slope / RADIANS_PER_DEGREE


def _angle(placed: Placed, ends: Rows) -> tuple[Array, Array]:
    """Angle between two lines from one mark, degrees; atan2 of |u×v| and u·v, exact near 0 and 180."""
    first, apex, second = ends
    u = placed.airframe[first] - placed.airframe[apex]
    v = placed.airframe[second] - placed.airframe[apex]
    du = placed.airframe_moves[first] - placed.airframe_moves[apex]
    dv = placed.airframe_moves[second] - placed.airframe_moves[apex]
    cross = np.cross(u, v)
    sine = np.sqrt(np.einsum("ki,ki->k", cross, cross))
    cosine = np.einsum("ki,ki->k", u, v)
    # d(angle) = −d(u)·(n×u)/|u|² + d(v)·(n×v)/|v|² with n the unit normal of the corner
    normal = cross / np.maximum(sine, _TINY)[:, None]
    wing_u = np.cross(normal, u) / np.maximum(np.einsum("ki,ki->k", u, u), _TINY)[:, None]
    wing_v = np.cross(normal, v) / np.maximum(np.einsum("ki,ki->k", v, v), _TINY)[:, None]
    slope = np.einsum("ki,kin->kn", wing_v, dv) - np.einsum("ki,kin->kn", wing_u, du)
    return np.arctan2(sine, cosine) / RADIANS_PER_DEGREE, slope / RADIANS_PER_DEGREE


_ALONG = "along"
_AXES = {"x": 0, "y": 1, "z": 2}


def _gap_along(axes: Rows) -> _Model:
    """Along which axis of the board each gap runs."""

    def gap(placed: Placed, ends: Rows) -> tuple[Array, Array]:
        a, b = ends
        each = np.arange(len(axes))
        line = (placed.bench[b] - placed.bench[a])[each, axes]
        return line, (placed.bench_moves[b] - placed.bench_moves[a])[each, axes]

    return gap


MODELS: dict[str, _Model] = {
    "gap": _gap_along(np.zeros(0, dtype=np.intp)),
    "distance": _distance,
    "distance-difference": _difference,
    "height": _height,
    "offset": _offset,
    _ALONG: _along,
    "tilt": _tilt,
    "angle": _angle,
}
