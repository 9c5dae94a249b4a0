"""The adjustment: weighted nonlinear least squares over all unknowns together."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point
from hardkeel.geometry.rotation import Array
from hardkeel.survey.columns import AIRFRAME, Columns, Priors, lay_out
from hardkeel.survey.model import FUSELAGE, Reading, Survey, contacts_of, sigma_of
from hardkeel.survey.observing import Observer
from hardkeel.survey.placing import Placed, Placer

# A step of a ten-thousandth of its own sigma changes nothing that anyone could read.
_SETTLED: Final = 1e-4
_MOST_STEPS: Final = 60
_FAR_FROM_SETTLED: Final = 1.0  # a last step of more than its own sigma: nothing can be said yet
_MOST_HALVINGS: Final = 30
_WORTH_TURNING: Final = 0.02  # share of the last step below which acceleration changes nothing


@dataclass(frozen=True)
class Lean:
    """What is known beforehand, in place of the weak priors: x ~ N(mean, weight⁻¹).

    Attributes
    ----------
    mean, weight : Array
        Shape (n,) and (n, n).
    """

    mean: Array
    weight: Array


@dataclass(frozen=True, slots=True)
class Network:
    """A survey made ready for solving: bodies, unknowns, placed marks.

    Attributes
    ----------
    index : dict of str to int
        Row of each mark among the placed points.
    seats : dict of str to Placer
        By body, its seat's contacts: near the root, so placed with the body but not twisted.
    lean : Lean, optional
        What an earlier phase left, where this one leans on it.
    """

    survey: Survey
    columns: Columns
    placer: Placer
    index: dict[str, int]
    seats: dict[str, Placer]
    lean: Lean | None = None

    @property
    def prior_mean(self) -> Array:
        """Shape (n,)."""
        return self.lean.mean if self.lean is not None else np.zeros(self.columns.size)

    @property
    def prior_matrix(self) -> Array:
        """Shape (n, n)."""
        return self.lean.weight if self.lean is not None else np.diag(self.columns.prior_weight)

    def observer(self, readings: Sequence[Reading]) -> Observer:
        """Predictor of these readings."""
        return Observer(self.survey, readings, self.columns, self.index)

    def placer_of(self, points: Sequence[tuple[str, Point]]) -> Placer:
        """Placer of other points than the marks (contacts, outlines)."""
        return Placer(self.columns, self.survey.bodies, points)


def network_of(survey: Survey, like: Network | None = None, priors: Priors = AIRFRAME) -> Network:
    """Prepare a survey whose references are sound.

    Parameters
    ----------
    like : Network, optional
        Of another survey; where bodies and marks are the same, what was made ready for it serves.
    """
    if (
        like is not None
        and like.survey.bodies == survey.bodies
        and like.survey.marks == survey.marks
    ):
        return replace(like, survey=survey, lean=None)
    columns = lay_out((body for body in survey.bodies if body.id != FUSELAGE), priors)
    placer = Placer(columns, survey.bodies, [(mark.body, mark.at) for mark in survey.marks])
    index = {mark.id: i for i, mark in enumerate(survey.marks)}
    seats = {
        body.id: Placer(
            columns, [body.but(twist=False)], [(body.id, c.at) for c in contacts_of(body)]
        )
        for body in survey.bodies
        if body.id in columns.start and contacts_of(body)
    }
    return Network(survey, columns, placer, index, seats)


@dataclass(frozen=True, slots=True)
class Solution:
    """Unknowns with their covariance, and how each reading used sits with them.

    Attributes
    ----------
    unknowns : Array
        Shape (n,).
    covariance : Array
        Shape (n, n): (JᵀWJ + P)⁻¹ at the solution.
    slopes : Array
        Shape (r, n): J, one row for each reading.
    residuals, redundancy, w : Array
        Shape (r,): value − prediction (mm or degrees); 1 − (JCJᵀW)ᵢᵢ; |residual| / (σ√redundancy).
    sigmas : Array
        Shape (r,).
    placed : Placed
        The marks at the solution.
    """

    unknowns: Array
    covariance: Array
    slopes: Array
    residuals: Array
    redundancy: Array
    w: Array
    sigmas: Array
    placed: Placed


def solve(net: Network, readings: Sequence[Reading], start: Array | None = None) -> Solution:
    """Adjust these readings.

    Gauss–Newton with step halving: the normal matrix holds the priors and so is always positive
    definite, and each step is a way down.  Model and covariance as in the contract; for the
    redundancy and the test on w see W. Baarda, "A testing procedure for use in geodetic networks",
    Netherlands Geodetic Commission 2/5 (1968).

    Parameters
    ----------
    start : Array, optional
        Shape (n,), where to begin; without it a true airframe, or what the net leans on.

    Raises
    ------
    BadInput
        When figures in the file are so large that the sums overflow, or so far from any airframe that
        the steps do not settle.
    """
    observer = net.observer(readings)
    observed = np.array([reading.value for reading in readings])
    sigmas = np.array([sigma_of(reading) for reading in readings])
    unknowns = net.prior_mean.copy() if start is None else start.copy()
    with np.errstate(all="ignore"):
        try:
            unknowns, placed, residuals, slopes = _descend(
                net, observer, (observed, 1.0 / sigmas), unknowns
            )
            scaled = slopes / sigmas[:, None]
            normal = scaled.T @ scaled + net.prior_matrix
            covariance = np.linalg.inv(normal)
        except np.linalg.LinAlgError as fault:
            raise _overflow() from fault
        covariance = (covariance + covariance.T) / 2
        redundancy = np.clip(1.0 - np.sum((scaled @ covariance) * scaled, axis=1), 0.0, 1.0)
        w = np.abs(residuals) / (sigmas * np.sqrt(np.maximum(redundancy, 1e-12)))
    if not all(np.isfinite(part).all() for part in (unknowns, covariance, residuals, w)):
        raise _overflow()
    return Solution(unknowns, covariance, slopes, residuals, redundancy, w, sigmas, placed)


def _descend(
    net: Network, observer: Observer, data: tuple[Array, Array], unknowns: Array
) -> tuple[Array, Placed, Array, Array]:
    observed, root_weight = data
    prior, mean = net.prior_matrix, net.prior_mean

    def look(x: Array) -> tuple[Placed, Array, Array, float]:
        placed = net.placer.place(x)
        predicted, slopes = observer.predict(x, placed)
        residuals = observed - predicted
        away = x - mean
        cost = float(np.sum((residuals * root_weight) ** 2) + away @ prior @ away)
        return placed, residuals, slopes, cost

    now = look(unknowns)
    length = 0.0
    before: tuple[Array, Array] | None = None  # the last point and the step that was wanted there
    for _ in range(_MOST_STEPS):
        placed, residuals, slopes, cost = now
        scaled = slopes * root_weight[:, None]
        normal = scaled.T @ scaled + prior
        pull = scaled.T @ (residuals * root_weight) - prior @ (unknowns - mean)
        step = np.linalg.solve(normal, pull).astype(np.float64, copy=False)
        # The step measured in its own sigma: stepᵀ N step.
        length = float(np.sqrt(step @ normal @ step))
        if not length > _SETTLED:
            break
        for trial in _trials(unknowns, step, before, normal):
            seen = look(trial)
            if seen[3] <= cost * (1 + 1e-12):
                break
        else:
            break
        before, unknowns, now = (unknowns, step), trial, seen
    else:
        if length > _FAR_FROM_SETTLED:
            raise BadInput(
                "survey",
                f"the adjustment does not settle in {_MOST_STEPS} steps: a reading or a place is far off",
            )
    placed, residuals, slopes, _ = now
    return unknowns, placed, residuals, slopes


def _trials(
    here: Array, step: Array, before: tuple[Array, Array] | None, normal: Array
) -> Iterator[Array]:
    """Points to try in turn: accelerated, then the plain step, then ever shorter ones.

    With a blunder among the readings plain Gauss–Newton closes in by a constant factor only, often
    swinging from side to side; the last two steps tell that factor (D. G. Anderson, "Iterative
    procedures for nonlinear integral equations", J. ACM 12 (1965), 547–560, with one step back).
    """
    if before is not None:
        change = step - before[1]
        length = float(change @ normal @ change)
        share = float(step @ normal @ change) / length if length > 0 else 0.0
        if abs(share) > _WORTH_TURNING:
            yield here + step - share * (here - before[0] + change)
    for halving in range(_MOST_HALVINGS):
        yield here + step / 2**halving


def _overflow() -> BadInput:
    return BadInput("survey", "the figures are too large or too far apart to be adjusted")
