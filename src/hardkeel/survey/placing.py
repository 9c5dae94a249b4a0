"""Where every mark stands for given unknowns, and how it moves with each of them."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from hardkeel.base.values import Point
from hardkeel.geometry.rotation import RADIANS_PER_DEGREE, Array, turns
from hardkeel.survey.columns import BEND, Columns
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
    names : sequence of str, optional
        The marks that the points are: such a one may sit beside its place, and bends with the fuselage.
    """

    def __init__(
        self,
        columns: Columns,
        bodies: Sequence[Body],
        points: Sequence[tuple[str, Point]],
        names: Sequence[str] | None = None,
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
        self._beside: _Beside | None = None
        if names is not None and columns.shared:
            self._beside = _Beside(columns, points, names, self._rows)

    def _find_twisted(self, free: Sequence[Body]) -> tuple[Rows, Array, Array] | None:
        """Rows of points that may be twisted, and the share of each tip's twist that reaches them.

        By contract the share is |y − pivot y| / (span/2), of the tip on the point's own side.
        """
        half = np.array([(b.span or 0) / 2 if b.twist else 0.0 for b in free])
        which = np.flatnonzero(half[self._owner] > 0)
        if not len(which):
            return None
        # the share goes by the place in the file, wherever the mark sits
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
        if self._beside is not None:
            self._beside.place_fixed(unknowns, airframe, moves)
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
        beside = self._beside
        if beside is not None:
            arm = arm.copy()
            arm[beside.free] += beside.free_shifts(unknowns)
        local = turn
        if self._twisted is not None:
            arm, local = self._twist(unknowns, arm, turn, moves)
        if len(self._racked):
            arm, local = self._rack(unknowns, arm, turn, moves)
        if beside is not None:
            # a mark's shift goes through all that its body goes through
            which = beside.free
            ways = local[which] @ beside.free_frames
            moves[rows[which][:, None], :, beside.free_columns] = np.swapaxes(ways, 1, 2)
        out[rows] = self._pivot + unknowns[self._shift_at] + (turn @ arm[:, :, None])[:, :, 0]
        axes = np.arange(3)
        moves[rows[:, None], axes, self._shift_at] = 1.0
        by_angle = (slopes[self._owner] @ arm[:, None, :, None])[..., 0]
        moves[rows[:, None], :, self._turn_at] = by_angle

    def _twist(self, unknowns: Array, arm: Array, turn: Array, moves: Array) -> tuple[Array, Array]:
        """Turn each arm about y by its share of the tip's twist; note how that moves the points.

        Gives the arms, and what takes a shift of a mark to where it is placed, shape (k, 3, 3).
        """
        assert self._twisted is not None  # noqa: S101  the caller has looked
        which, port, starboard = self._twisted
        column = self._turn_at[which, 0] + 3
        angle = unknowns[column] * port + unknowns[column + 1] * starboard
        c, s = np.cos(angle * RADIANS_PER_DEGREE), np.sin(angle * RADIANS_PER_DEGREE)
        x, z = arm[which, 0], arm[which, 2]
        arm = arm.copy()
        arm[which, 0] = c * x + s * z
        arm[which, 2] = c * z - s * x
        slope = np.zeros((len(which), 3))
        slope[:, 0], slope[:, 2] = arm[which, 2], -arm[which, 0]
        slope = (turn[which] @ slope[:, :, None])[:, :, 0] * RADIANS_PER_DEGREE
        rows = self._rows[which]
        moves[rows, :, column] = slope * port[:, None]
        moves[rows, :, column + 1] = slope * starboard[:, None]
        local = turn
        if self._beside is not None:
            about = np.zeros((len(which), 3, 3))
            about[:, 0, 0] = about[:, 2, 2] = c
            about[:, 0, 2], about[:, 2, 0], about[:, 1, 1] = s, -s, 1.0
            local = turn.copy()
            local[which] = turn[which] @ about
        return arm, local

    def _rack(self, unknowns: Array, arm: Array, turn: Array, moves: Array) -> tuple[Array, Array]:
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
        local = turn
        if self._beside is not None:
            pushing = np.tile(np.eye(3), (len(which), 1, 1))
            pushing[:, 1, 2] = tangent
            local = turn.copy()
            local[which] = turn[which] @ pushing
        return pushed, local


class _Beside:
    """Marks that may sit beside their places, on bodies and on a fuselage that may bend.

    Attributes
    ----------
    free : ndarray of int
        Those on bodies, as places among the points that move.
    free_columns : ndarray of int
        Shape (k, 3): where their shifts stand.
    free_frames : Array
        Shape (k, 3, 3): the ways of their shifts, as columns.
    """

    def __init__(
        self,
        columns: Columns,
        points: Sequence[tuple[str, Point]],
        names: Sequence[str],
        moving: Rows,
    ) -> None:
        at = [columns.shared.get(("mark", name), -1) for name in names]
        place = {int(row): i for i, row in enumerate(moving)}
        free = [i for i in range(len(names)) if i in place and at[i] >= 0]
        fixed = [i for i in range(len(names)) if i not in place and at[i] >= 0]
        axes = np.arange(3)
        self.free = np.array([place[i] for i in free], dtype=np.intp)
        self.free_columns = np.array([at[i] for i in free], dtype=np.intp)[:, None] + axes
        self.free_frames = _frames(columns, [names[i] for i in free])
        self._fixed_frames = _frames(columns, [names[i] for i in fixed])
        self._fixed = np.array(fixed, dtype=np.intp)
        self._fixed_columns = np.array([at[i] for i in fixed], dtype=np.intp)[:, None] + axes
        self._bent: list[tuple[int, int, Rows, Array]] = []
        if columns.bend is not None:
            bend = columns.bend
            shares = [
                (i, bend.share(where[0])) for i, (_, where) in enumerate(points) if i not in place
            ]
            rows = np.array([i for i, share in shares if share > 0], dtype=np.intp)
            amounts = np.array([share for _, share in shares if share > 0])
            for axis, key in ((1, BEND[0]), (2, BEND[1])):
                column = columns.shared.get((key, ""))
                if column is not None:
                    self._bent.append((axis, column, rows, amounts))

    def free_shifts(self, unknowns: Array) -> Array:
        """How far those on bodies sit beside their places, shape (k, 3), body axes."""
        return _along(self.free_frames, unknowns[self.free_columns])

    def place_fixed(self, unknowns: Array, out: Array, moves: Array) -> None:
        """Shift and bend the fuselage's marks."""
        out[self._fixed] += _along(self._fixed_frames, unknowns[self._fixed_columns])
        moves[self._fixed[:, None], :, self._fixed_columns] = np.swapaxes(self._fixed_frames, 1, 2)
        for axis, column, rows, amounts in self._bent:
            out[rows, axis] += unknowns[column] * amounts
            moves[rows, axis, column] = amounts


def _frames(columns: Columns, names: Sequence[str]) -> Array:
    """The ways of marks' shifts, shape (k, 3, 3)."""
    return np.array([columns.frames.get(name, np.eye(3)) for name in names]).reshape(-1, 3, 3)


def _along(frames: Array, shifts: Array) -> Array:
    """Shifts along ways of their own as shifts along the axes, both shape (k, 3)."""
    return np.asarray(np.einsum("kij,kj->ki", frames, shifts))
