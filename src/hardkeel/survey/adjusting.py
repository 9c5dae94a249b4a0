"""The adjustment: weighted nonlinear least squares over all unknowns together."""

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import chain
from typing import Final

import numpy as np
from numpy.typing import NDArray

from hardkeel.base.errors import BadInput
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.solving import optimize
from hardkeel.survey.camera_starts import starts_of
from hardkeel.survey.cameras import Camera, photos_in_use
from hardkeel.survey.model import Photo
from hardkeel.survey.network import Network
from hardkeel.survey.normal import Normal
from hardkeel.survey.placing import Placed
from hardkeel.survey.readings import Observation, Sight, sigma_of
from hardkeel.survey.system import Seen, System

Rows = NDArray[np.intp]
# A step of a ten-thousandth of its own sigma changes nothing that anyone could read.
_SETTLED: Final = 1e-4
_MOST_STEPS: Final = 60
_FAR_FROM_SETTLED: Final = 1.0  # a last step of more than its own sigma: nothing can be said yet
_MANY: Final = 8  # marks in a photo that no other camera could see so, where they fit
PHOTOS_PLACE: Final = "survey.photos"  # where a click is at fault
_PROBED: Final = 12  # steps from each start
_PROBED_HALVINGS: Final = 8
_TRIED: Final = 2  # minima that are then gone down to the end
_BEHIND: Final = 1e30  # costs more than any misfit
_CREPT: Final = 1e-3
_MOST_HALVINGS: Final = 30
_WORTH_TURNING: Final = 0.02  # share of the last step below which acceleration changes nothing


@dataclass(frozen=True)
class Start:
    """Where to begin.

    Attributes
    ----------
    unknowns : Array
        Shape (n,).
    cameras : mapping of str to (Camera, object)
        By photo, with the sightings that it was found from: another set of them is looked at anew.
    """

    unknowns: Array
    cameras: Mapping[str, tuple[Camera, object]]


@dataclass(frozen=True)
class Whole:
    """The whole system: the airframe's unknowns and the cameras', one row a figure and two a sighting.

    Attributes
    ----------
    covariance : Array
        Shape (N, N): n of the airframe, then eight a photo.
    slopes : Array
        Shape (R, N).
    residuals, redundancy, w, sigmas : Array
        Shape (R,).
    owner : ndarray of int
        Shape (R,): the reading of each row, as its place among those that were adjusted.
    """

    covariance: Array
    slopes: Array
    residuals: Array
    redundancy: Array
    w: Array
    sigmas: Array
    owner: Rows


@dataclass(frozen=True, slots=True)
class Solution:
    """Unknowns with their covariance, and how each reading used sits with them.

    Attributes
    ----------
    unknowns : Array
        Shape (n,).
    covariance : Array
        Shape (n, n): of (JᵀWJ + P)⁻¹ at the solution, what belongs to the airframe.
    slopes : Array
        Shape (r, n): J, one row for each figure.
    residuals, redundancy, w : Array
        Shape (r,): value − prediction (mm or degrees); 1 − (JCJᵀW)ᵢᵢ; |residual| / (σ√redundancy).
    sigmas : Array
        Shape (r,).
    placed : Placed
        The marks at the solution.
    cost : float
        What was made least: weighted squares, with the priors'.
    whole : Whole
        All of it, with the photos.
    cameras : mapping of str to Camera
        By photo, those in use.
    found_from : mapping of str to object
        By photo, the sightings that its camera was found from.
    """

    unknowns: Array
    covariance: Array
    slopes: Array
    residuals: Array
    redundancy: Array
    w: Array
    sigmas: Array
    placed: Placed
    cost: float
    whole: Whole
    cameras: Mapping[str, Camera]
    found_from: Mapping[str, object]

    @property
    def start(self) -> Start:
        """Where the next one begins."""
        return Start(
            self.unknowns, {key: (one, self.found_from[key]) for key, one in self.cameras.items()}
        )


def solve(net: Network, readings: Sequence[Observation], start: Start | None = None) -> Solution:
    """Adjust these readings, figures and sightings together.

    Gauss–Newton with step halving: the normal matrix holds the priors and so is always positive
    definite, and each step is a way down.  Model and covariance as in the contract; for the
    redundancy and the test on w see W. Baarda, "A testing procedure for use in geodetic networks",
    Netherlands Geodetic Commission 2/5 (1968).

    Sightings of a photo that too few of them fix are left out.  A camera that is not known yet is found from many
    starts; the lowest joint minimum counts.

    Parameters
    ----------
    start : Start, optional
        Where to begin; without it a true airframe, or what the net leans on.

    Raises
    ------
    BadInput
        When figures in the file are so large that the sums overflow, or so far from any airframe that
        the steps do not settle.
    """
    sightings = [one for one in readings if isinstance(one, Sight)]
    photos = photos_in_use(net.survey, sightings) if sightings else ()
    begin = start if start is not None else Start(net.prior_mean.copy(), {})
    known: dict[str, Camera] = {}
    found_from: dict[str, object] = {}
    unknowns = begin.unknowns
    solution: Solution | None = None
    for photo in photos:
        mine = [one for one in sightings if one.photo == photo.id]
        found_from[photo.id] = _how_seen(net, photo, mine)
        held = begin.cameras.get(photo.id)
        if held is not None:
            known[photo.id] = held[0]
        if held is not None and held[1] == found_from[photo.id]:
            continue
        solution = _best_of(net, readings, photo, mine, unknowns, known)
        known, unknowns = dict(solution.cameras), solution.unknowns
    if solution is None or len(solution.cameras) < len(photos):
        try:
            solution = _settle(net, readings, unknowns, known)
        except BadInput:
            if known or start is None:
                raise
            # a photo that is out of use by now may have led far astray
            solution = _settle(net, readings, net.prior_mean.copy(), known)
    return replace(solution, found_from=found_from)


def _how_seen(net: Network, photo: Photo, sightings: Sequence[Sight]) -> object:
    """All that the search for a photo's camera rests on."""
    marks = {mark.id: mark for mark in net.survey.marks}
    return photo, tuple((marks[one.mark], one.value, one.sigma) for one in sightings)


def _best_of(
    net: Network,
    readings: Sequence[Observation],
    photo: Photo,
    sightings: Sequence[Sight],
    unknowns: Array,
    known: Mapping[str, Camera],
) -> Solution:
    """The lowest minimum of all with this photo, from each place where it may have been taken from."""
    placed = net.placer.place(unknowns)
    rows = [net.index[one.mark] for one in sightings]
    moves = placed.airframe_moves[rows]
    prior = np.linalg.inv(net.prior_matrix)
    slack = np.sqrt(np.einsum("min,nk,mik->m", moves, prior, moves) / 3)
    pixels = np.array([one.value for one in sightings])
    sigma = np.array([sigma_of(one) for one in sightings])
    held = known.get(photo.id)
    starts = starts_of(photo, pixels, placed.airframe[rows], slack, sigma)
    probes: list[tuple[float, Array, dict[str, Camera]]] = []
    for camera in chain([held] if held is not None else [], starts):
        system = System(net, readings, {**known, photo.id: camera})
        begin = system.state_of(unknowns, {**known, photo.id: camera})
        with np.errstate(all="ignore"):
            try:
                state, seen, left = _descend(system, begin, _PROBED, _PROBED_HALVINGS)
            except (BadInput, np.linalg.LinAlgError):
                continue
        probes.append((seen.cost, state[: net.columns.size], system.cameras_of(state)))
        squares = (seen.residuals * system.root_weight) ** 2
        # what the photo itself misses, and how far the priors are stretched for it
        own = float(np.sum(squares[system.rows_of(photo.id)]) + seen.cost - np.sum(squares))
        fits = left < _FAR_FROM_SETTLED and own < _likely(2 * len(sightings))
        if len(sightings) >= _MANY and fits:
            probes = probes[-1:]
            break
    best: Solution | None = None
    fault = _far_off([photo.id])
    for _, unknowns_then, cameras in sorted(probes, key=lambda one: one[0])[:_TRIED]:
        try:
            one = _settle(net, readings, unknowns_then, cameras)
        except BadInput as trouble:
            fault = trouble
            continue
        if best is None or one.cost < best.cost:
            best = one
    if best is None:
        raise fault
    return best


def _likely(rows: int) -> float:
    """Weighted squares that so many rows hardly ever have more of."""
    return rows + 2.0 * math.sqrt(2.0 * rows)


def _settle(
    net: Network,
    readings: Sequence[Observation],
    unknowns: Array,
    cameras: Mapping[str, Camera],
) -> Solution:
    """Go down from here with these cameras; sightings of other photos are left out."""
    system = System(net, readings, cameras)
    state = system.state_of(unknowns, cameras)
    with np.errstate(all="ignore"):
        try:
            state, seen, left = _descend(system, state, _MOST_STEPS)
            if left > _FAR_FROM_SETTLED and cameras:
                state, left = _crept(system, state)
            if left > _FAR_FROM_SETTLED:
                raise _far_off(list(cameras))
            ended = system.cameras_of(state)
            if ended:
                # each camera's turn is counted from where it ended, so that all that follows is linear about there
                system = System(net, readings, ended)
                state = system.state_of(state[: net.columns.size], ended)
                seen = system.look(state)
            scaled = seen.slopes * system.root_weight[:, None]
            covariance = system.normal(scaled).inverse()
        except np.linalg.LinAlgError as fault:
            raise _overflow() from fault
        sigmas = 1.0 / system.root_weight
        redundancy = np.clip(1.0 - np.sum((scaled @ covariance) * scaled, axis=1), 0.0, 1.0)
        w = np.abs(seen.residuals) / (sigmas * np.sqrt(np.maximum(redundancy, 1e-12)))
    if not all(np.isfinite(part).all() for part in (state, covariance, seen.residuals, w)):
        raise _overflow()
    whole = Whole(covariance, seen.slopes, seen.residuals, redundancy, w, sigmas, system.owner)
    n, r = net.columns.size, system.figures
    return Solution(
        unknowns=state[:n],
        covariance=covariance[:n, :n],
        slopes=seen.slopes[:r, :n],
        residuals=seen.residuals[:r],
        redundancy=redundancy[:r],
        w=w[:r],
        sigmas=sigmas[:r],
        placed=seen.placed,
        cost=seen.cost,
        whole=whole,
        cameras=ended,
        found_from={},
    )


def _descend(
    system: System, state: Array, most: int, halvings: int = _MOST_HALVINGS
) -> tuple[Array, Seen, float]:
    """Steps down, so many at most; where they end, and how long the next one would be, in its own sigma."""
    mean, root_weight = system.mean, system.root_weight
    now = system.look(state)
    if not np.isfinite(now.cost):
        raise _overflow()
    length = 0.0
    before: tuple[Array, Array] | None = None  # the last point and the step that was wanted there
    for _ in range(most):
        scaled = now.slopes * root_weight[:, None]
        normal = system.normal(scaled)
        pull = scaled.T @ (now.residuals * root_weight) - system.prior @ (state - mean)
        step = normal.solve(pull)
        length = math.sqrt(max(normal.square(step), 0.0))
        if not length > _SETTLED:
            break
        for trial in _trials((state, step), before, normal, halvings):
            seen = system.look(trial)
            if seen.cost <= now.cost * (1 + 1e-12):
                break
        else:
            length = 0.0  # no way down is left that sums can tell
            break
        before, state, now = (state, step), trial, seen
    return state, now, length


def _crept(system: System, state: Array) -> tuple[Array, float]:
    """Where Gauss and Newton's steps swing about a minimum, as with a click on quite another place: by BFGS.

    In coordinates in which the normal matrix of the start is one; how long the last Gauss–Newton step would be there.
    """

    def slope(at: Array) -> tuple[Seen, Array, Array]:
        seen = system.look(at)
        scaled = seen.slopes * system.root_weight[:, None]
        pull = scaled.T @ (seen.residuals * system.root_weight)
        return seen, pull - system.prior @ (at - system.mean), scaled.T @ scaled + system.prior

    _, _, normal = slope(state)
    factor = np.linalg.inv(np.linalg.cholesky(normal))  # x = start + factorᵀ·z

    def cost(z: Array) -> tuple[float, Array]:
        seen, pull, _ = slope(state + factor.T @ z)
        if not np.isfinite(seen.cost):
            return _BEHIND, np.zeros(len(z))
        return seen.cost / 2, -factor @ pull

    found = optimize.minimize(
        cost,
        np.zeros(len(state)),
        jac=True,
        method="BFGS",
        options={"gtol": _CREPT, "maxiter": 150},
    )
    there: Array = state + factor.T @ np.asarray(found.x)
    _, pull, normal = slope(there)
    step = np.linalg.solve(normal, pull)
    return there, float(np.sqrt(step @ normal @ step))


def _trials(
    now: tuple[Array, Array], before: tuple[Array, Array] | None, normal: Normal, halvings: int
) -> Iterator[Array]:
    """Points to try in turn: accelerated, then the plain step, then ever shorter ones.

    With a blunder among the readings plain Gauss–Newton closes in by a constant factor only, often
    swinging from side to side; the last two steps tell that factor (D. G. Anderson, "Iterative
    procedures for nonlinear integral equations", J. ACM 12 (1965), 547–560, with one step back).
    """
    here, step = now
    if before is not None:
        change = step - before[1]
        length = normal.square(change)
        share = normal.along(step, change) / length if length > 0 else 0.0
        if abs(share) > _WORTH_TURNING:
            yield here + step - share * (here - before[0] + change)
    for halving in range(halvings):
        yield here + step / 2**halving


def _far_off(photos: Sequence[str]) -> BadInput:
    if photos:
        names = " and ".join(f'"{one}"' for one in photos)
        return BadInput(
            PHOTOS_PLACE,
            f"no camera could have seen the marks so in {names}: a click lies on another mark, or a reading is far off",
        )
    return BadInput(
        "survey",
        f"the adjustment does not settle in {_MOST_STEPS} steps: a reading or a place is far off",
    )


def _overflow() -> BadInput:
    return BadInput("survey", "the figures are too large or too far apart to be adjusted")
