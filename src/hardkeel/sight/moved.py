"""Whether a part stood otherwise in some pictures than in the others: a model that was touched between them.

Each part but the fuselage is given a second place in some of the pictures (in the last ones, or in one alone), and the
adjustment asked by how much that would fit better: the score test, with the second place's figures eliminated against all
others.  Cameras are unknown anyhow, so that a model that was moved as a whole does no harm.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.geometry.chances import chi_square_beyond
from hardkeel.survey.columns import POSE, SHIFTS
from hardkeel.survey.judging import Judgement
from hardkeel.survey.model import FUSELAGE
from hardkeel.survey.system import System

_LEAST_MARKS: Final = 3  # of a part in those pictures, and in the others
_BY_CHANCE: Final = 1e-5  # that one is told though nothing moved
_SHIFT_MM: Final = 5.0  # one sigma of what a touch does
_TURN: Final = 3.0


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
    """The part that most likely was moved between pictures; ``None`` where nothing says so."""
    net, solution = judgement.net, judgement.solution
    cameras = solution.cameras
    photos = [one.id for one in net.survey.photos if one.id in cameras]
    if len(photos) < 2:  # noqa: PLR2004  between one and another
        return None
    used = [one for one in judgement.sightings if one.photo in cameras and not one.ignored]
    figures = [one for one in judgement.readings if not one.ignored]
    system = System(net, (*figures, *used), cameras)
    state = system.state_of(solution.unknowns, cameras)
    seen = system.look(state)
    if not np.isfinite(seen.cost):
        return None
    rows = seen.slopes * system.root_weight[:, None]
    off = seen.residuals * system.root_weight
    cofactor = np.linalg.inv(rows.T @ rows + system.prior)
    pull = rows.T @ off - system.prior @ (state - system.mean)
    body_of = {mark.id: mark.body for mark in net.survey.marks}
    own = np.array([1 / (_SHIFT_MM if part in SHIFTS else _TURN) ** 2 for part in POSE])
    found: list[MovedPart] = []
    tried = 0
    for group in _groups(photos):
        for body, at in net.columns.start.items():
            if body == FUSELAGE:
                continue
            mine = [
                2 * i + half + system.rows_of(photo).start
                for photo in group
                for i, one in enumerate(s for s in used if s.photo == photo)
                if body_of.get(one.mark) == body
                for half in (0, 1)
            ]
            others = {
                one.mark for one in used if one.photo not in group and body_of.get(one.mark) == body
            }
            if len(mine) < 2 * _LEAST_MARKS or len(others) < _LEAST_MARKS:
                continue
            tried += 1
            columns = slice(at, at + len(POSE))
            extra = rows[mine, columns]
            across = extra.T @ rows[mine]
            weight = extra.T @ extra - across @ cofactor @ across.T + np.diag(own)
            force = extra.T @ off[mine] - across @ cofactor @ pull
            change = np.linalg.solve(weight, force)
            moves = [
                seen.placed.airframe_moves[net.index[mark.id]][:, columns] @ change
                for mark in net.survey.marks
                if mark.body == body
            ]
            by = float(np.max(np.linalg.norm(moves, axis=1)))
            found.append(MovedPart(body, group, by, float(force @ change)))
    best = max(found, key=lambda one: one.better, default=None)
    if best is None or tried * chi_square_beyond(best.better, len(POSE)) > _BY_CHANCE:
        return None
    return best


def _groups(photos: list[str]) -> Iterator[tuple[str, ...]]:
    """The last pictures, as many as are not most of them and then the others; and each one alone."""
    for i in range(1, len(photos)):
        yield tuple(photos[i:])
    yield from ((one,) for one in photos[:-1])
