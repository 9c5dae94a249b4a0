"""A second implementation of the contract's sightings, apart from the first: point by point, numerical slopes.

It takes the plain data of a build.json; cameras are sought from many random places by scipy's solver alone.
"""

import math
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import least_squares
from scipy.spatial.transform import Rotation

from tests.independent import SIGMA, Independent, Json

Floats = NDArray[np.float64]


class SightIndependent(Independent):
    """Adjusts figures and sightings of a build.json together."""

    def __init__(self, survey: Json) -> None:
        super().__init__(survey)
        self.photos = {photo["id"]: photo for photo in survey["photos"]}

    def pixel(self, x: Any, camera: Floats, photo: Json, mark: str) -> Floats:
        """Where a mark falls: camera is place, rotation vector, ln f, k1."""
        seen = Rotation.from_rotvec(camera[3:6]).apply(self.place(x, mark) - camera[:3])
        if seen[2] <= 1e-3:
            return np.full(2, 1e6)
        a, b = seen[0] / seen[2], seen[1] / seen[2]
        bent = math.exp(camera[6]) * (1 + camera[7] * (a * a + b * b))
        return np.array([photo["size"][0] / 2 + bent * a, photo["size"][1] / 2 + bent * b])

    def prior_of(self, photo: Json) -> tuple[float, float]:
        """Mean and sigma of ln f."""
        if photo.get("focal"):
            return math.log(photo["focal"]), 0.03
        return math.log(0.8 * max(photo["size"])), 0.4

    def in_use(self, readings: list[Json]) -> list[str]:
        """Photos with enough marks."""

        def spread(marks: list[str]) -> bool:
            if len(marks) < 3:
                return False
            at = np.array([self.marks[m]["at"] for m in marks], float)
            at -= at.mean(axis=0)
            values, vectors = np.linalg.eigh(at.T @ at)
            line = vectors[:, int(np.argmax(values))]
            return bool(max(np.linalg.norm(np.cross(p, line)) for p in at) > 2.0)

        found = []
        for photo in self.photos:
            marks = [r["mark"] for r in readings if r["kind"] == "sight" and r["photo"] == photo]
            fixed = [m for m in marks if self.marks[m]["body"] == "fuselage"]
            if len(set(marks)) >= 5 and len(set(fixed)) >= 3 and spread(marks) and spread(fixed):
                found.append(photo)
        return found

    def find(self, photo: Json, sights: list[Json], rng: np.random.Generator) -> list[Floats]:
        """Cameras that see the marks, as designed, nearly where they were sighted."""
        x = dict.fromkeys(self.names, 0.0)
        mean, sigma = self.prior_of(photo)
        at = np.array([self.place(x, s["mark"]) for s in sights])
        middle, far = at.mean(axis=0), float(np.linalg.norm(at - at.mean(axis=0), axis=1).max())
        pixels = np.array([s["value"] for s in sights])
        reach = float(np.linalg.norm(pixels - pixels.mean(axis=0), axis=1).max())
        away = math.exp(mean) * far / reach

        def cost(c: Floats) -> Floats:
            seen = Rotation.from_rotvec(c[3:6]).apply(at - c[:3])
            with np.errstate(all="ignore"):
                flat = seen[:, :2] / np.where(seen[:, 2:] > 1, seen[:, 2:], 1e-3)
            bent = math.exp(c[6]) * (1 + c[7] * np.sum(flat**2, axis=1, keepdims=True)) * flat
            miss = (pixels - np.array(photo["size"]) / 2 - bent) / 20.0
            return np.concatenate(
                [np.clip(miss, -1e4, 1e4).ravel(), [(c[6] - mean) / sigma, c[7] / 0.05]]
            )

        found = []
        for _ in range(24):
            way = rng.normal(size=3)
            way /= np.linalg.norm(way)
            side = np.cross(way, rng.normal(size=3))
            side /= np.linalg.norm(side)
            turn = Rotation.from_matrix(np.array([side, np.cross(-way, side), -way]))
            begin = np.array([*(middle + away * way), *turn.as_rotvec(), mean, 0.0])
            ended = least_squares(
                cost, begin, x_scale=[100, 100, 100, 0.3, 0.3, 0.3, 0.1, 0.05], max_nfev=60
            )
            found.append((float(ended.cost), ended.x))
        found.sort(key=lambda one: one[0])
        return [one for _, one in found[:2]]

    def adjust(self, seed: int = 0) -> Json:
        """Unknowns and sigmas by name, cameras by photo; nothing is set aside."""
        rng = np.random.default_rng(seed)
        photos = self.in_use(self.readings)
        figures = [r for r in self.readings if r["kind"] != "sight"]
        sights = [r for r in self.readings if r["kind"] == "sight" and r["photo"] in photos]
        n = len(self.names)
        sigma = np.array(
            [r.get("sigma") or SIGMA[r["kind"]] for r in figures]
            + [r.get("sigma") or 1.5 for r in sights for _ in (0, 1)]
        )
        value = np.array([r["value"] for r in figures] + [v for r in sights for v in r["value"]])
        lens = [self.prior_of(self.photos[p]) for p in photos]
        scale = np.concatenate(
            [self.prior, *[[100, 100, 100, 0.1, 0.1, 0.1, 0.03, 0.05] for _ in photos]]
        )

        def model(z: Floats) -> Floats:
            x = dict(zip(self.names, z[:n], strict=True))
            out = [self.predict(x, r) for r in figures]
            for r in sights:
                k = n + 8 * photos.index(r["photo"])
                out += self.pixel(x, z[k : k + 8], self.photos[r["photo"]], r["mark"]).tolist()
            return np.array(out)

        def known(z: Floats) -> list[float]:
            out = []
            for i, (mean, spread) in enumerate(lens):
                k = n + 8 * i
                out += [(z[k + 6] - mean) / spread, z[k + 7] / 0.05]
            return out

        def cost(z: Floats) -> Floats:
            return np.concatenate([(value - model(z)) / sigma, z[:n] / self.prior, known(z)])

        starts = [
            self.find(self.photos[p], [r for r in sights if r["photo"] == p], rng) for p in photos
        ]
        best = None
        for i in range(max((len(one) for one in starts), default=1)):
            begin = np.concatenate([np.zeros(n), *[one[min(i, len(one) - 1)] for one in starts]])
            ended = least_squares(cost, begin, x_scale=scale, xtol=1e-14, ftol=1e-14, gtol=1e-12)
            if best is None or ended.cost < best.cost:
                best = ended
        assert best is not None
        z = best.x
        rows = []
        for k in range(len(z)):
            step = 1e-5 * scale[k]
            up, down = z.copy(), z.copy()
            up[k] += step
            down[k] -= step
            rows.append((cost(up) - cost(down)) / (2 * step))
        slopes = np.array(rows).T
        covariance = np.linalg.inv(slopes.T @ slopes)
        spread = np.sqrt(np.diag(covariance))
        return {
            "unknowns": dict(zip(self.names, z[:n], strict=True)),
            "sigma": dict(zip(self.names, spread[:n], strict=True)),
            "cameras": {
                p: {
                    "place": z[n + 8 * i : n + 8 * i + 3],
                    "rotation": Rotation.from_rotvec(z[n + 8 * i + 3 : n + 8 * i + 6]).as_matrix(),
                    "focal": math.exp(z[n + 8 * i + 6]),
                    "k1": z[n + 8 * i + 7],
                    "place_sigma": spread[n + 8 * i : n + 8 * i + 3],
                }
                for i, p in enumerate(photos)
            },
            "cost": 2 * best.cost,
        }
