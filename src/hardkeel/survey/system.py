"""Everything that is adjusted together: the figures, and the sightings of each photo with its camera."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from hardkeel.geometry.rotation import Array
from hardkeel.survey.cameras import K1, K1_SIGMA, LOG_FOCAL, SIZE, Camera, Lens
from hardkeel.survey.network import Network
from hardkeel.survey.normal import Normal
from hardkeel.survey.placing import Placed
from hardkeel.survey.readings import Observation, Sight, sigma_of

Rows = NDArray[np.intp]


@dataclass(frozen=True, slots=True)
class Seen:
    """The system at one state; a state that puts a mark behind a camera costs more than any other."""

    placed: Placed
    residuals: Array
    slopes: Array
    cost: float


class System:
    """Everything that is adjusted together: figures, then the sightings of each photo.

    Parameters
    ----------
    cameras : mapping of str to Camera
        By photo, where each begins: its rotation is the one that the camera's turns are counted from.
    """

    def __init__(
        self, net: Network, readings: Sequence[Observation], cameras: Mapping[str, Camera]
    ) -> None:
        self._net = net
        figures = [(i, one) for i, one in enumerate(readings) if not isinstance(one, Sight)]
        self.figures = len(figures)
        self._observer = net.observer([one for _, one in figures])
        owner = [i for i, _ in figures]
        values = [one.value for _, one in figures]
        sigmas = [sigma_of(one) for _, one in figures]
        self._lenses: list[Lens] = []
        self._rows: dict[str, slice] = {}
        for photo in net.survey.photos:
            if photo.id not in cameras:
                continue
            mine = [
                (i, one)
                for i, one in enumerate(readings)
                if isinstance(one, Sight) and one.photo == photo.id
            ]
            self._lenses.append(
                Lens(photo, [one for _, one in mine], net.index, cameras[photo.id].rotation)
            )
            self._rows[photo.id] = slice(len(owner), len(owner) + 2 * len(mine))
            for i, one in mine:
                owner += [i, i]
                values += one.value
                sigmas += [sigma_of(one)] * 2
        self.owner = np.array(owner, dtype=np.intp)
        self._values = np.array(values, dtype=float)
        self.root_weight = 1.0 / np.array(sigmas, dtype=float)
        n = net.columns.size
        size = n + SIZE * len(self._lenses)
        self.mean, self.prior = np.zeros(size), np.zeros((size, size))
        self.mean[:n], self.prior[:n, :n] = net.prior_mean, net.prior_matrix
        for i, lens in enumerate(self._lenses):
            at = n + SIZE * i
            self.mean[at + LOG_FOCAL] = lens.log_focal
            self.prior[at : at + SIZE, at : at + SIZE] = self.prior_of_camera(lens)

    def normal(self, rows: Array) -> Normal:
        """The normal equations of whitened rows, shape (R, N)."""
        own = self._net.columns
        shared = slice(own.own, own.size) if self._net.gluing_prior is None else slice(0, 0)
        return Normal(rows, self.prior, shared)

    def rows_of(self, photo_id: str) -> slice:
        """The rows of a photo's sightings."""
        return self._rows[photo_id]

    @staticmethod
    def prior_of_camera(lens: Lens) -> Array:
        """Shape (8, 8): nothing is known beforehand of place and rotation."""
        weight = np.zeros(SIZE)
        weight[LOG_FOCAL], weight[K1] = 1 / lens.log_sigma**2, 1 / K1_SIGMA**2
        return np.diag(weight)

    def state_of(self, unknowns: Array, cameras: Mapping[str, Camera]) -> Array:
        """Shape (N,)."""
        parts = [lens.state_of(cameras[lens.photo.id]) for lens in self._lenses]
        return np.concatenate([unknowns, *parts])

    def cameras_of(self, state: Array) -> dict[str, Camera]:
        """By photo."""
        n = self._net.columns.size
        return {
            lens.photo.id: lens.camera_of(state[n + SIZE * i : n + SIZE * (i + 1)])
            for i, lens in enumerate(self._lenses)
        }

    def look(self, state: Array) -> Seen:
        """Misfits, slopes and cost."""
        n = self._net.columns.size
        unknowns = state[:n]
        placed = self._net.placer.place(unknowns)
        predicted, slopes = self._observer.predict(unknowns, placed)
        cost = 0.0
        if self._lenses:
            values = np.zeros(len(self._values))
            whole = np.zeros((len(values), len(state)))
            values[: self.figures], whole[: self.figures, :n] = predicted, slopes
            at = self.figures
            for i, lens in enumerate(self._lenses):
                column = n + SIZE * i
                found = lens.predict(
                    state[column : column + SIZE], placed.airframe, placed.airframe_moves
                )
                if found is None:
                    cost = np.inf
                    break
                rows = slice(at, at + len(found[0]))
                values[rows], whole[rows, :n] = found[0], found[1]
                whole[rows, column : column + SIZE] = found[2]
                at = rows.stop
            predicted, slopes = values, whole
        residuals = self._values - predicted
        away = state - self.mean
        cost += float(np.sum((residuals * self.root_weight) ** 2) + away @ self.prior @ away)
        return Seen(placed, residuals, slopes, cost)
