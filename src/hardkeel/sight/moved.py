"""Whether a part stood otherwise in some pictures than in the others: a model that was touched between them.

Each part but the fuselage is given a second place in some of the pictures (in the last ones, or in one alone), and the
adjustment asked by how much that would fit better: the score test, with the second place's figures eliminated against all
others.  Cameras are unknown anyhow, so that a model that was moved as a whole does no harm.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.geometry.chances import chi_square_beyond
from hardkeel.geometry.rotation import Array
from hardkeel.survey.columns import POSE, SHIFTS
from hardkeel.survey.judging import Judgement
from hardkeel.survey.system import System

_LEAST_MARKS: Final = 3  # of a part in those pictures, and in the others
_BY_CHANCE: Final = 1e-5  # that one is told though nothing moved
_SHIFT_MM: Final = 5.0  # one sigma of what a touch does
_TURN: Final = 3.0
_OWN: Final = np.array([1 / (_SHIFT_MM if part in SHIFTS else _TURN) ** 2 for part in POSE])


@dataclass(frozen=True, slots=True)
class MovedPart:
    """A part that stood otherwise.

    Attributes
    ----------
    photos : tuple of str
        In which it did, by id.
    by : float
        How far the mark of it moved that moved farthest, mm.
    better : float
        By how much less the misfits' sum of squares would be.
    """

    body: str
    photos: tuple[str, ...]
    by: float
    better: float


def moved_between(judgement: Judgement) -> MovedPart | None:
    """The part that most likely was moved between pictures; ``None`` where nothing says so.

    Only what the pictures say counts: a tape that was misread moves no part between two of them.  And it must be said
    without any one of the part's marks in those pictures: one that is wrong by itself is a wrong click or label.
    """
    net, solution = judgement.net, judgement.solution
    cameras = solution.cameras
    photos = [one.id for one in net.survey.photos if one.id in cameras]
    if len(photos) < 2:  # noqa: PLR2004  between one and another
        return None
    used = [one for one in judgement.sightings if one.photo in cameras and not one.ignored]
    system = System(net, used, cameras)
    state = system.state_of(solution.unknowns, cameras)
    seen = system.look(state)
    if not np.isfinite(seen.cost):
        return None
    fit = _Fit(
        seen.slopes * system.root_weight[:, None],
        seen.residuals * system.root_weight,
        system.prior,
        system.prior @ (state - system.mean),
    )
    body_of = {mark.id: mark.body for mark in net.survey.marks}
    of_body = {
        (photo, body): [
            slice(system.rows_of(photo).start + 2 * i, system.rows_of(photo).start + 2 * i + 2)
            for i, one in enumerate(s for s in used if s.photo == photo)
            if body_of.get(one.mark) == body
        ]
        for photo in photos
        for body in net.columns.start
    }
    found: list[tuple[float, str, tuple[str, ...]]] = []
    without = fit.without(())
    for group in _groups(photos):
        for body, at in net.columns.start.items():
            mine = [two for photo in group for two in of_body[photo, body]]
            others = [two for photo in photos if photo not in group for two in of_body[photo, body]]
            if len(mine) < _LEAST_MARKS or len(others) < _LEAST_MARKS:
                continue
            better, _ = without.second_place(mine, slice(at, at + len(POSE)))
            found.append((better, body, group))
    if not found:
        return None
    better, body, group = max(found)
    mine = [two for photo in group for two in of_body[photo, body]]
    columns = slice(net.columns.start[body], net.columns.start[body] + len(POSE))
    least = min(
        fit.without((two,)).second_place([one for one in mine if one != two], columns)[0]
        for two in mine
    )
    if len(found) * chi_square_beyond(least, len(POSE)) > _BY_CHANCE:
        return None
    _, change = without.second_place(mine, columns)
    moves = [
        seen.placed.airframe_moves[net.index[mark.id]][:, columns] @ change
        for mark in net.survey.marks
        if mark.body == body
    ]
    return MovedPart(body, group, float(np.max(np.linalg.norm(moves, axis=1))), better)


@dataclass(frozen=True, slots=True)
class _Fit:
    """Whitened rows, shape (R, N), their misfits, the prior's weight and its pull."""

    rows: Array
    off: Array
    prior: Array
    prior_pull: Array

    def without(self, left_out: Sequence[slice]) -> "_Solved":
        """Solved once, some rows left out."""
        rows, off = self.rows.copy(), self.off.copy()
        for two in left_out:
            rows[two], off[two] = 0.0, 0.0
        cofactor: Array = np.asarray(np.linalg.inv(rows.T @ rows + self.prior), dtype=float)
        return _Solved(rows, off, cofactor, cofactor @ (rows.T @ off - self.prior_pull))


@dataclass(frozen=True, slots=True)
class _Solved:
    rows: Array
    off: Array
    cofactor: Array
    step: Array

    def second_place(self, mine: Sequence[slice], columns: slice) -> tuple[float, Array]:
        """By how much less the squares are where a part has a second place in these rows; its change, shape (6,)."""
        at = np.concatenate([np.arange(two.start, two.stop) for two in mine])
        extra = self.rows[at, columns]
        across = extra.T @ self.rows[at]
        weight = extra.T @ extra - across @ self.cofactor @ across.T + np.diag(_OWN)
        force = extra.T @ self.off[at] - across @ self.step
        change = np.linalg.solve(weight, force)
        return float(force @ change), change


def _groups(photos: list[str]) -> Iterator[tuple[str, ...]]:
    """The last pictures, as many as are not most of them and then the others; and each one alone."""
    for i in range(1, len(photos)):
        yield tuple(photos[i:])
    yield from ((one,) for one in photos[:-1])
