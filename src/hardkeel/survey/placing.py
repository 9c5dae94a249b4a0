"""Where every mark stands for given unknowns, and how it moves with each of them."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from hardkeel.base.values import Point
from hardkeel.geometry.rotation import RADIANS_PER_DEGREE, Array, turns
from hardkeel.survey.columns import Columns
from hardkeel.survey.model import Body

Rows = NDArray[np.intp]


@dataclass(frozen=True, slots=True)
class Placed:
    """Points for one set of unknowns.

    Attributes
    ----------
    airframe, bench : Array
        Shape (m, 3), mm, in airframe axes and over the board.
    airframe_moves, bench_moves : Array
        Shape (m, 3, n): their derivatives, mm per mm or per degree.
    """

    airframe: Array
    bench: Array
    airframe_moves: Array
    bench_moves: Array


class Placer:
    """Places a fixed set of points again and again for changing unknowns.

    All points of all bodies go through each step together: a survey has few bodies and few marks,
    and the cost would otherwise be that of starting array operations, not of doing them.

    Parameters
    ----------
    columns : Columns
        The order of the unknowns.
    bodies : sequence of Body
        All bodies of the survey.
    points : sequence of (body id, Point)
        Each as it stands on a true airframe, airframe axes, mm.
    """

    def __init__(
        self, columns: Columns, bodies: Sequence[Body], points: Sequence[tuple[str, Point]]
    ) -> None:
        self._columns = columns
        self._at = np.array([at for _, at in points], dtype=float).reshape(-1, 3)
        free = [body for body in bodies if body.id in columns.start]
        number = {body.id: i for i, body in enumerate(free)}
        self._starts = [columns.start[body.id] for body in free]
        self._rows = np.array([i for i, (b, _) in enumerate(points) if b in number], dtype=np.intp)
        self._owner = np.array([number[points[i][0]] for i in self._rows], dtype=np.intp)
        pivots = np.array([body.origin for body in free]).reshape(-1, 3)
        self._pivot = pivots[self._owner]
        self._arm = self._at[self._rows] - self._pivot
        self._twisted = self._find_twisted(free)
        self._racked = np.flatnonzero(
            np.array([body.racks for body in free], dtype=bool)[self._owner]
            if free
            else np.zeros(0, dtype=bool)
        )
        start = np.array(self._starts, dtype=np.intp)[self._owner]
        self._shift_at = start[:, None] + np.arange(3)
        self._turn_at = self._shift_at + 3

    def _find_twisted(self, free: Sequence[Body]) -> tuple[Rows, Array, Array] | None:
        """Rows of points that may be twisted, and the share of each tip's twist that reaches them.

        By contract the share is |y − pivot y| / (span/2), of the tip on the point's own side.
        """
        half = np.array([(b.span or 0) / 2 if b.twist else 0.0 for b in free])
        which = np.flatnonzero(half[self._owner] > 0)
        if not len(which):
            return None
        share = self._arm[which, 1] / half[self._owner[which]]
        return which, np.maximum(-share, 0.0), np.maximum(share, 0.0)

    def place(self, unknowns: Array) -> Placed:
        """Place all points; `unknowns` has shape (n,) in the columns' order."""
        k = self._columns.bench
        free = len(self._starts)
        x = unknowns.tolist()
        angles = [(x[at + 3], x[at + 4], x[at + 5]) for at in self._starts]
        on_bench = self._columns.has_bench
        matrices, slopes = turns([*angles, (x[k + 1], x[k], 0.0)] if on_bench else angles)

        airframe = self._at.copy()
        moves = np.zeros((len(airframe), 3, self._columns.size))
        if len(self._rows):
            self._place_free(unknowns, (matrices, slopes), airframe, moves)

        if not on_bench:
            return Placed(airframe, airframe, moves, moves)
        turn = matrices[free]
        bench = airframe @ turn.T
        bench[:, 2] += unknowns[k + 2]
        bench_moves = np.matmul(turn, moves)
        bench_moves[:, :, k] = airframe @ slopes[free, 1].T
        bench_moves[:, :, k + 1] = airframe @ slopes[free, 0].T
        bench_moves[:, 2, k + 2] = 1.0
        return Placed(airframe, bench, moves, bench_moves)

    def _place_free(
        self, unknowns: Array, rotation: tuple[Array, Array], out: Array, moves: Array
    ) -> None:
        matrices, slopes = rotation
        rows, arm = self._rows, self._arm
        turn = matrices[self._owner]
        if self._twisted is not None:
            arm = self._twist(unknowns, turn, moves)
        if len(self._racked):
            arm = self._rack(unknowns, arm, turn, moves)
        out[rows] = self._pivot + unknowns[self._shift_at] + (turn @ arm[:, :, None])[:, :, 0]
        axes = np.arange(3)
        moves[rows[:, None], axes, self._shift_at] = 1.0
        by_angle = (slopes[self._owner] @ arm[:, None, :, None])[..., 0]
        moves[rows[:, None], :, self._turn_at] = by_angle

    def _twist(self, unknowns: Array, turn: Array, moves: Array) -> Array:
        """Turn each arm about y by its share of the tip's twist; note how that moves the points."""
        assert self._twisted is not None  # noqa: S101  the caller has looked
        which, port, starboard = self._twisted
        column = self._turn_at[which, 0] + 3
        angle = unknowns[column] * port + unknowns[column + 1] * starboard
        c, s = np.cos(angle * RADIANS_PER_DEGREE), np.sin(angle * RADIANS_PER_DEGREE)
        arm = self._arm.copy()
        x, z = self._arm[which, 0], self._arm[which, 2]
        arm[which, 0] = c * x + s * z
        arm[which, 2] = c * z - s * x
        slope = np.zeros((len(which), 3))
        slope[:, 0], slope[:, 2] = arm[which, 2], -arm[which, 0]
        slope = (turn[which] @ slope[:, :, None])[:, :, 0] * RADIANS_PER_DEGREE
        rows = self._rows[which]
        moves[rows, :, column] = slope * port[:, None]
        moves[rows, :, column + 1] = slope * starboard[:, None]
        turned: Array = arm
        return turned

    def _rack(self, unknowns: Array, arm: Array, turn: Array, moves: Array) -> Array:
        """Push each arm to starboard by tan(rack) for each mm above its pivot; note how that moves it."""
        which = self._racked
        column = self._turn_at[which, 0] + 3
        tangent = np.tan(unknowns[column] * RADIANS_PER_DEGREE)
        pushed: Array = arm.copy()
        height = arm[which, 2]
        pushed[which, 1] += tangent * height
        slope = np.zeros((len(which), 3))
        slope[:, 1] = height * (1 + tangent**2) * RADIANS_PER_DEGREE
        moves[self._rows[which], :, column] = (turn[which] @ slope[:, :, None])[:, :, 0]
        return pushed
