"""What to click next, which picture to take next, and which marks are worth a pin: by what each would tell."""

import math
from collections import Counter
from collections.abc import Collection, Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.sight.snapping import PIN_SIGMA
from hardkeel.sight.targets import SIGMA as TARGET_SIGMA
from hardkeel.sight.viewpoints import View, covariance_with, hidden_marks, views_of
from hardkeel.survey.cameras import Lens
from hardkeel.survey.checking import Check, CheckRule
from hardkeel.survey.judging import Judgement
from hardkeel.survey.model import FUSELAGE, OWN_TARGET
from hardkeel.survey.readings import DEFAULT_SIGMA, Sight

_LEAST_TURNED: Final = math.cos(
    math.radians(62.0)
)  # more aslant codes were not all read (docs/sight.md)
_CLICK: Final = DEFAULT_SIGMA["sight"]
_FIX_CAMERA: Final = 3  # marks on the fuselage, with two more anywhere
_OFTEN: Final = 0.75  # of the places from which the best seen marks are seen
_PINS: Final = 3
_HELPS: Final = 0.97  # of its sigma: a pin that sharpens a check by less is not asked for
_SHARPER: Final = 0.9  # a picture that sharpens by less is not worth climbing on a chair
# where the camera is not known yet: what fixes it, then what is far out, then what is near the root
_FIRST: Final = ("tip_te", "tip_le", "mid", "foot", "top")


@dataclass(frozen=True, slots=True)
class NextPicture:
    """A picture worth taking.

    Attributes
    ----------
    check : str
        Whose sigma it sharpens, from `now` to `then` (degrees or mm).
    view : View
        Where it is taken from, and what is in it.
    promised : tuple of (str, float)
        By check, the sigma that it would then have.
    """

    view: View
    check: str
    now: float
    then: float
    promised: tuple[tuple[str, float], ...]


def to_click(
    judgement: Judgement,
    photo_id: str,
    skipped: Collection[str] = (),
    walls: Sequence[Array] = (),
) -> tuple[str, ...]:
    """Marks not sighted in a photo yet, the most telling first; those that something stands before come last.

    Before the camera is known, those on the fuselage that are seen from most places.

    Parameters
    ----------
    skipped : collection of str
        Marks that the builder can't see.
    """
    survey = judgement.net.survey
    # what was left behind when a seat was corrected shows how it stood before: it is not asked for again
    done = {one.mark for one in survey.sightings if one.photo == photo_id}
    left = [
        m.id
        for m in survey.marks
        if not (m.id in done or m.id in skipped or m.id.startswith(OWN_TARGET))
    ]
    camera = judgement.solution.cameras.get(photo_id)
    if camera is None:
        seen = Counter(
            mark
            for view in views_of(judgement.net, judgement.solution, walls)
            for mark in view.marks
        )
        most = max(seen.values(), default=0)
        fixed = {mark.id for mark in survey.marks if mark.body == FUSELAGE}
        order = sorted(
            left,
            key=lambda mark: (seen[mark] < _OFTEN * most, _turn(judgement, mark), -seen[mark]),
        )
        # nothing works before the third on the fuselage
        first = [mark for mark in order if mark in fixed][: max(0, _FIX_CAMERA - len(fixed & done))]
        return (*first, *(mark for mark in order if mark not in first))
    placed = judgement.solution.placed.airframe
    where = {mark.id: placed[judgement.net.index[mark.id]] for mark in survey.marks}
    for body in survey.bodies:
        if body.outline:
            placer = judgement.net.placer_of([(body.id, at) for at in body.outline])
            where[f"outline {body.id}"] = placer.place(judgement.solution.unknowns).airframe
    hidden = hidden_marks(survey, where, camera, walls)
    photo = survey.photo(photo_id)
    if photo is None or not left:
        return ()
    inside = [
        mark
        for mark in left
        if _is_inside(camera.project(where[mark][None], photo.size)[0], photo.size)
    ]
    gains = _worths(judgement, photo_id, inside)
    order = sorted(inside, key=lambda mark: (mark in hidden, -gains[mark]))
    return tuple(order)


def _is_inside(pixel: Array, size: tuple[int, int]) -> bool:
    return bool(np.isfinite(pixel).all() and 0 <= pixel[0] <= size[0] and 0 <= pixel[1] <= size[1])


def _turn(judgement: Judgement, mark_id: str) -> tuple[int, int]:
    """The fuselage first, since it fixes the camera; then far out, then near the root."""
    mark = judgement.net.survey.mark(mark_id)
    if mark is not None and mark.body == FUSELAGE:
        return 0, 0
    ranks = [i for i, part in enumerate(_FIRST) if part in mark_id]
    return 1, ranks[0] if ranks else len(_FIRST)


def _worths(judgement: Judgement, photo_id: str, marks: Sequence[str]) -> dict[str, float]:
    """By how much each mark's sighting would sharpen what is least known: ln of the sigmas' product, all checks."""
    net, solution = judgement.net, judgement.solution
    photo = net.survey.photo(photo_id)
    camera = solution.cameras[photo_id]
    if photo is None or not marks:
        return {}
    sights = [Sight(id=m, photo=photo_id, mark=m, value=(0.0, 0.0)) for m in marks]
    lens = Lens(photo, sights, net.index, camera.rotation)
    placed = solution.placed
    found = lens.predict(lens.state_of(camera), placed.airframe, placed.airframe_moves)
    if found is None:
        return dict.fromkeys(marks, 0.0)
    _, by_body, by_camera = found
    n = net.columns.size
    order = [one.id for one in net.survey.photos if one.id in solution.cameras]
    at = n + by_camera.shape[1] * order.index(photo_id)
    rows = np.zeros((len(by_body), len(solution.whole.covariance)))
    rows[:, :n] = by_body
    rows[:, at : at + by_camera.shape[1]] = by_camera
    spread = rows @ solution.whole.covariance
    slopes = np.zeros((len(judgement.rules), rows.shape[1]))
    slopes[:, :n] = [rule.slope / rule.tolerance for rule in judgement.rules]
    now = np.sum((slopes @ solution.whole.covariance) * slopes, axis=1)
    worths = {}
    for i, mark in enumerate(marks):
        two = slice(2 * i, 2 * i + 2)
        own = spread[two] @ rows[two].T + _CLICK**2 * np.eye(2)
        across = spread[two] @ slopes.T
        gain = np.sum(across * np.linalg.solve(own, across), axis=0)
        worths[mark] = float(-0.5 * np.sum(np.log1p(-np.minimum(gain / now, 1 - 1e-9))))
    return worths


def open_checks(judgement: Judgement) -> list[Check]:
    """The checks that are not decided, the one that is known least for its tolerance first."""
    unsure = [one for one in judgement.checks if one.verdict == "unsure" and not one.edge]
    return sorted(unsure, key=lambda one: -one.sigma / one.tolerance)


def next_picture(judgement: Judgement, walls: Sequence[Array] = ()) -> NextPicture | None:
    """The picture that would most sharpen the worst open check that any picture would; ``None`` where none helps."""
    open_ = open_checks(judgement)
    if not open_:
        return None
    sigma = TARGET_SIGMA if judgement.net.survey.targets else _CLICK
    views = [
        (view, covariance)
        for view in _views(judgement, walls)
        if (covariance := covariance_with(judgement.net, judgement.solution, view, sigma, {}))
        is not None
    ]
    rules = {rule.id: rule for rule in judgement.rules}
    for check in open_ if views else ():
        then, view, covariance = min(
            ((_sigma(cov, rules[check.id]), view, cov) for view, cov in views),
            key=lambda one: one[0],
        )
        if then < _SHARPER * check.sigma:
            promised = tuple((one.id, _sigma(covariance, one)) for one in judgement.rules)
            return NextPicture(view, check.id, check.sigma, then, promised)
    return None


def _views(judgement: Judgement, walls: Sequence[Array]) -> list[View]:
    """Pictures that might be taken; where there are targets, of those whose faces are turned to the camera alone."""
    views = views_of(judgement.net, judgement.solution, walls)
    survey = judgement.net.survey
    if not survey.targets:
        return list(views)
    points = judgement.solution.placed.airframe
    faces = {one.mark: np.array(survey.normal_of(one)) for one in survey.targets}
    return [
        replace(
            view,
            marks=tuple(
                mark
                for mark in view.marks
                if mark in faces
                and _turned_to(view, points[judgement.net.index[mark]], faces[mark])
            ),
        )
        for view in views
    ]


def _turned_to(view: View, at: Array, normal: Array) -> bool:
    line = view.camera.place - at
    return bool(line @ normal > _LEAST_TURNED * np.linalg.norm(line))


def worth_a_pin(judgement: Judgement, wanted: NextPicture) -> tuple[str, ...]:
    """Marks whose coloured pin heads would sharpen its check most, if that picture is taken."""
    if judgement.net.survey.targets:  # nothing is clicked
        return ()
    view = wanted.view
    rule = next(one for one in judgement.rules if one.id == wanted.check)
    fine: dict[str, float] = {}
    plain = covariance_with(judgement.net, judgement.solution, view, _CLICK, {})
    if plain is None:
        return ()
    now = _sigma(plain, rule)
    chosen: list[str] = []
    for _ in range(_PINS):
        tried = {}
        for mark in view.marks:
            if mark in fine:
                continue
            with_it = covariance_with(
                judgement.net, judgement.solution, view, _CLICK, {**fine, mark: PIN_SIGMA}
            )
            if with_it is not None:
                tried[mark] = _sigma(with_it, rule)
        best = min(tried, key=lambda one: tried[one], default="")
        if not best or tried[best] > _HELPS * now:
            break
        fine[best], now = PIN_SIGMA, tried[best]
        chosen.append(best)
    return tuple(chosen)


def _sigma(covariance: Array, rule: CheckRule) -> float:
    return math.sqrt(max(0.0, float(rule.slope @ covariance @ rule.slope)))
