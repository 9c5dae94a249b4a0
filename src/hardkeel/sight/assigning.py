"""Which printed label sits on which mark, where they were stuck on in another order than their sheet has.

A label of a known size stands at a known place before each camera.  Three of them, far apart, are laid on every three
marks that are as far from each other; what then has most labels on a mark is how the camera stood (M. A. Fischler and
R. C. Bolles, "Random sample consensus", 1981, here over all threes).  Each label goes with a mark so that all together
lie nearest (H. W. Kuhn, "The Hungarian method", 1955), over all photographs at once.
"""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.geometry.solving import optimize
from hardkeel.sight.codes import CodeSeen, label_before
from hardkeel.sight.targets import USUAL_SIDE, Taken, agreeing, usual_focal
from hardkeel.survey.model import Survey

_AS_TOLD: Final = 0.75  # of all labels seen; two that are swapped are told by name
_LEAST: Final = 5  # labels to one photograph
_NEAR: Final = 0.08  # of a distance: what a told focal length may stretch it
_NEAR_MM: Final = 20.0
_ON_MM, _ON_SHARE = 25.0, 0.012  # of a mark; and of the way to it, for the depth is less well known
_CROOKED_MM: Final = 30.0  # what a crooked model has a mark off its place, at most
_CLEARLY: Final = 2.0  # times as near as the next mark
_APART_MM: Final = 12.0  # or so much nearer
_THREES: Final = 6  # of labels that are tried
_MOST: Final = 400  # of threes of marks to each, the best-fitting first
_SHARE: Final = 0.6  # of a photograph's labels that must lie on marks
_FACING: Final = 0.15  # cosine: what is seen more aslant than that is not seen


@dataclass(frozen=True, slots=True)
class Assigned:
    """Which label sits where.

    Attributes
    ----------
    marks : mapping of int to str
        The mark of each code that is clear.
    unclear : tuple of int
        Codes that may sit at two places, or at none of the airframe's.
    """

    marks: dict[int, str]
    unclear: tuple[int, ...]


def order_of(survey: Survey, photos: Sequence[Taken]) -> Assigned | None:
    """Which label sits where, when many do not sit where the survey has them; ``None`` when they do, or nothing says."""
    if not survey.targets or agreeing(survey, photos) > _AS_TOLD:
        return None
    return assigned(survey, photos, survey.target_size or USUAL_SIDE)


@dataclass(frozen=True)
class _Spots:
    marks: tuple[str, ...]
    at: Array
    normal: Array


def assigned(survey: Survey, photos: Sequence[Taken], side: float) -> Assigned | None:
    """Which code sits on which of the marks that have a target, by photographs alone; ``None`` where they don't say.

    Parameters
    ----------
    side : float
        Of the black square, mm.
    """
    spots = _spots_of(survey)
    codes = sorted({one.code for photo in photos for one in photo.codes})
    if len(spots.marks) < _LEAST or len(codes) < _LEAST:
        return None
    sums, counts = (np.zeros((len(codes), len(spots.marks))) for _ in range(2))
    for photo in photos:
        seen = _once(photo.codes)
        if len(seen) < _LEAST:
            continue
        focal = photo.focal if photo.focal is not None else usual_focal(photo.size)
        places = np.array([label_before(one, side, focal, photo.size) for one in seen])
        laid = _laid(places, spots)
        if laid is None:
            continue
        rows = [codes.index(one.code) for one in seen]
        sums[rows] += np.minimum(_off(places, spots, laid), 10 * _CROOKED_MM)
        counts[rows] += 1
    known = counts[:, 0] > 0
    if known.sum() < _LEAST:
        return None
    cost = np.where(known[:, None], sums / np.maximum(counts, 1), 10 * _CROOKED_MM)
    return _clear(codes, cost, spots.marks)


def reordered(survey: Survey, found: Assigned) -> Survey:
    """The survey with its targets where they were found; those that nobody saw keep their number where it is free."""
    used, placed = set(found.marks), set(found.marks.values())
    by_mark = {mark: code for code, mark in found.marks.items()}
    targets = tuple(
        one.but(code=by_mark[one.mark]) if one.mark in placed else one
        for one in survey.targets
        if one.mark in placed or (one.code not in used and one.code not in found.unclear)
    )
    return survey.but(targets=targets)


def _spots_of(survey: Survey) -> _Spots:
    marks, at, normals = [], [], []
    for target in survey.targets:
        mark = survey.mark(target.mark)
        if mark is not None:
            marks.append(mark.id)
            at.append(mark.at)
            normals.append(survey.normal_of(target))
    return _Spots(
        tuple(marks), np.array(at, float).reshape(-1, 3), np.array(normals, float).reshape(-1, 3)
    )


def _once(codes: Sequence[CodeSeen]) -> list[CodeSeen]:
    count = [one.code for one in codes]
    return [one for one in codes if count.count(one.code) == 1]


def _laid(places: Array, spots: _Spots) -> tuple[Array, Array] | None:
    """Turn and shift from body axes to the camera's, so that most labels lie on marks; ``None`` where too few do."""
    best: tuple[float, Array, Array] | None = None
    far = np.linalg.norm(spots.at[:, None] - spots.at[None], axis=2)
    for three in _threes(places):
        mine = places[list(three)]
        for theirs in _alike(mine, far):
            turn, shift = _rigid(spots.at[list(theirs)], mine)
            worth = _worth(places, spots, (turn, shift))
            if best is None or worth > best[0]:
                best = (worth, turn, shift)
    if best is None:
        return None
    laid = best[1:]
    for _ in range(3):  # once more by all that lie on a mark
        off = _off(places, spots, laid)
        rows, columns = optimize.linear_sum_assignment(off)
        on = off[rows, columns] < _CROOKED_MM
        if on.sum() < max(_LEAST, _SHARE * len(places)):
            return None
        laid = _rigid(spots.at[columns[on]], places[rows[on]])
    return laid


def _threes(places: Array) -> list[tuple[int, int, int]]:
    """Labels that span most, a few threes of them."""
    every = itertools.combinations(range(len(places)), 3)

    def area(three: tuple[int, int, int]) -> float:
        a, b, c = places[list(three)]
        return float(np.linalg.norm(np.cross(b - a, c - a)))

    best = sorted(every, key=area, reverse=True)
    # not six times nearly the same: each label in two of them at most
    kept: list[tuple[int, int, int]] = []
    for three in best:
        if all(sum(one in other for other in kept) < 2 for one in three):  # noqa: PLR2004
            kept.append(three)
        if len(kept) == _THREES:
            break
    return kept


def _alike(mine: Array, far: Array) -> list[tuple[int, int, int]]:
    """Threes of marks that are as far from each other as these labels, those that are most alike first."""
    a, b, c = (float(np.linalg.norm(mine[i] - mine[j])) for i, j in ((0, 1), (1, 2), (2, 0)))

    def off(length: float) -> Array:
        found: Array = np.abs(far - length) / (_NEAR * length + _NEAR_MM)
        return found

    first, second, third = off(a), off(b), off(c)
    # [i, j, k]: how much worse than allowed the worst of the three is
    worst = np.maximum(np.maximum(first[:, :, None], second[None, :, :]), third.T[:, None, :])
    i, j, k = np.nonzero(worst < 1.0)
    apart = (i != j) & (j != k) & (i != k)
    order = np.argsort(worst[i, j, k] + np.where(apart, 0.0, 9.0))[: min(_MOST, int(apart.sum()))]
    return [(int(i[n]), int(j[n]), int(k[n])) for n in order]


def _rigid(from_: Array, to: Array) -> tuple[Array, Array]:
    """Turn and shift that lay the first on the second (W. Kabsch, Acta Cryst. A32 (1976) 922)."""
    a, b = from_.mean(axis=0), to.mean(axis=0)
    u, _, v = np.linalg.svd((from_ - a).T @ (to - b))
    hand = np.sign(np.linalg.det(v.T @ u.T))
    turn: Array = v.T @ np.diag([1.0, 1.0, hand]) @ u.T
    return turn, b - turn @ a


def _off(places: Array, spots: _Spots, laid: tuple[Array, Array]) -> Array:
    """How far each label lies from each mark, mm, shape (m, n); far where the mark's face looks away.

    Across the line of sight: the way along it is less well known, and counts as much as it is known.
    """
    turn, shift = laid
    there = spots.at @ turn.T + shift
    way = there / np.linalg.norm(there, axis=1, keepdims=True)
    faces = -np.sum((spots.normal @ turn.T) * way, axis=1) > _FACING
    apart = places[:, None] - there[None]
    along = np.abs(np.sum(apart * way[None], axis=2))
    across = np.sqrt(np.maximum(np.sum(apart**2, axis=2) - along**2, 0.0))
    known = _ON_SHARE * np.linalg.norm(places, axis=1)[:, None]
    off: Array = np.hypot(across, along * _ON_MM / np.maximum(known, _ON_MM))
    return np.where(faces[None], off, 10 * _CROOKED_MM)


def _worth(places: Array, spots: _Spots, laid: tuple[Array, Array]) -> float:
    """How many labels lie on a mark, the nearer the more."""
    nearest = _off(places, spots, laid).min(axis=1)
    return float(np.sum(np.clip(1.0 - nearest / (2 * _CROOKED_MM), 0.0, None)))


def _clear(codes: Sequence[int], cost: Array, marks: Sequence[str]) -> Assigned | None:
    """Each label with its mark where no other would do nearly as well."""
    rows, columns = optimize.linear_sum_assignment(cost)
    found: dict[int, str] = {}
    for row, column in zip(rows.tolist(), columns.tolist(), strict=True):
        off = float(cost[row, column])
        others = np.delete(cost[row], column)
        rival = float(others.min()) if len(others) else np.inf
        if off < _CROOKED_MM and (rival > _CLEARLY * off or rival > off + _APART_MM):
            found[codes[row]] = marks[column]
    if len(found) < max(_LEAST, _SHARE * len(codes)):
        return None
    return Assigned(found, tuple(code for code in codes if code not in found))
