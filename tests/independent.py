"""A second implementation of the contract's adjustment, written apart from the first.

Point by point in plain Python, numerical derivatives, scipy's solver: slow, and alike in nothing but
the contract.  It takes the plain data of a build.json.
"""

import math
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import least_squares
from scipy.spatial.transform import Rotation

Json = dict[str, Any]
Named = dict[tuple[str, str], float]
SIGMA = {"distance": 0.5, "distance-difference": 0.4, "height": 0.4, "incidence": 0.15, "tilt": 0.1,
         "offset": 0.5, "angle": 0.25}  # fmt: skip


class Independent:
    """Adjusts the survey of a build.json."""

    def __init__(self, survey: Json) -> None:
        self.bodies = {b["id"]: b for b in survey["bodies"]}
        self.marks = {m["id"]: m for m in survey["marks"]}
        self.readings = [r for r in survey["readings"] if not r.get("ignored")]
        self.names: list[tuple[str, str]] = []
        self._last: Named | None = None
        self._turns: dict[str, NDArray[np.float64]] = {}
        self._placed: dict[str, NDArray[np.float64]] = {}
        prior: list[float] = []
        for body_id, body in self.bodies.items():
            if body_id == "fuselage":
                continue
            for name in ("dx", "dy", "dz"):
                self.names.append((body_id, name))
                prior.append(5.0)
            for name in ("roll", "pitch", "yaw"):
                self.names.append((body_id, name))
                prior.append(3.0)
            if body.get("twist"):
                for name in ("twist_port", "twist_starboard"):
                    self.names.append((body_id, name))
                    prior.append(3.0)
        for name, spread in (("pitch", 5.0), ("roll", 5.0), ("z", 500.0)):
            self.names.append(("bench", name))
            prior.append(spread)
        self.prior = np.array(prior)

    def _turn(self, x: Named, body_id: str) -> NDArray[np.float64]:
        """A body's rotation, remembered while the unknowns are the same."""
        if self._last is not x:
            self._last, self._turns, self._placed = x, {}, {}
        if body_id not in self._turns:
            angles = [x.get((body_id, name), 0.0) for name in ("yaw", "pitch", "roll")]
            self._turns[body_id] = Rotation.from_euler("ZYX", angles, degrees=True).as_matrix()
        return self._turns[body_id]

    def place(self, x: Named, mark_id: str) -> NDArray[np.float64]:
        """A mark in airframe axes, remembered while the unknowns are the same."""
        if self._last is not x:
            self._last, self._turns, self._placed = x, {}, {}
        if mark_id not in self._placed:
            self._placed[mark_id] = self._put(x, mark_id)
        return self._placed[mark_id]

    def _put(self, x: Named, mark_id: str) -> NDArray[np.float64]:
        mark = self.marks[mark_id]
        at = np.array(mark["at"], float)
        body = self.bodies.get(mark["body"])
        if mark["body"] == "fuselage" or body is None:
            return at
        pivot = np.array(body["pivot"], float)
        arm = at - pivot
        if body.get("twist"):
            side = "twist_starboard" if arm[1] > 0 else "twist_port"
            angle = math.radians(x[(body["id"], side)] * abs(arm[1]) / (body["span"] / 2))
            c, s = math.cos(angle), math.sin(angle)
            arm = np.array([c * arm[0] + s * arm[2], arm[1], -s * arm[0] + c * arm[2]])
        shift = np.array([x[(body["id"], name)] for name in ("dx", "dy", "dz")])
        placed: NDArray[np.float64] = pivot + self._turn(x, body["id"]) @ arm + shift
        return placed

    def bench(self, x: Named, p: NDArray[np.float64]) -> NDArray[np.float64]:
        """The same over the board."""
        placed: NDArray[np.float64] = self._turn(x, "bench") @ p + np.array(
            [0, 0, x[("bench", "z")]]
        )
        return placed

    def predict(self, x: Named, r: Json) -> float:
        """What a reading should show."""
        kind = r["kind"]
        if kind == "distance":
            return float(np.linalg.norm(self.place(x, r["from"]) - self.place(x, r["to"])))
        if kind == "distance-difference":
            a, b = (np.linalg.norm(self.place(x, r["from"]) - self.place(x, m)) for m in r["to"])
            return float(a - b)
        if kind == "height":
            return float(self.bench(x, self.place(x, r["mark"]))[2])
        if kind == "offset":
            return float(self.place(x, r["mark"])[1])
        if kind == "tilt":
            d = self.bench(x, self.place(x, r["to"])) - self.bench(x, self.place(x, r["from"]))
            return math.degrees(math.atan2(d[2], math.hypot(d[0], d[1])))
        if kind == "angle":
            u = self.place(x, r["from"]) - self.place(x, r["at"])
            v = self.place(x, r["to"]) - self.place(x, r["at"])
            return math.degrees(math.acos(float(u @ v / np.linalg.norm(u) / np.linalg.norm(v))))
        return self._incidence(x, r)

    def _incidence(self, x: Named, r: Json) -> float:
        gluing_prior = x[("bench", "pitch")] if r.get("zero") == "level" else 0.0
        if r["body"] == "fuselage":
            return float(gluing_prior)
        body = self.bodies[r["body"]]
        value = body.get("incidence", 0.0) + x[(body["id"], "pitch")] + gluing_prior
        side = r.get("side", "centre")
        if body.get("twist") and side != "centre":
            value += x[(body["id"], f"twist_{side}")] * r.get("span_fraction", 0.0)
        return float(value)

    def solve(
        self, readings: list[Json], start: NDArray[np.float64] | None = None
    ) -> tuple[NDArray[np.float64], Any, Any, Any]:
        """Unknowns, covariance, residuals and redundancies for these readings."""
        sigma = np.array([r.get("sigma") or SIGMA[r["kind"]] for r in readings])
        value = np.array([r["value"] for r in readings])

        def named(x: Any) -> Named:
            return dict(zip(self.names, x, strict=True))

        def model(x: Any) -> Any:
            unknowns = named(x)  # one for all readings, so that turns and places are remembered
            return np.array([self.predict(unknowns, r) for r in readings])

        def cost(x: Any) -> Any:
            return np.concatenate([(value - model(x)) / sigma, x / self.prior])

        found = least_squares(
            cost,
            np.zeros(len(self.names)) if start is None else start,
            jac="2-point",
            x_scale=self.prior,
            xtol=1e-14,
            ftol=1e-14,
            gtol=1e-12,
        )
        x = found.x
        step = 1e-4
        columns = []
        for k in range(len(x)):
            up, down = x.copy(), x.copy()
            up[k] += step
            down[k] -= step
            columns.append((model(up) - model(down)) / (2 * step))
        j = np.array(columns).T.reshape(len(readings), len(x))
        covariance = np.linalg.inv(j.T @ np.diag(1 / sigma**2) @ j + np.diag(1 / self.prior**2))
        redundancy = 1 - np.diag(j @ covariance @ j.T) / sigma**2
        return x, covariance, value - model(x), redundancy

    def run(self) -> Json:
        """Set suspects aside one by one; unknowns by name, sigmas, suspects in order."""
        held, outliers = list(self.readings), []
        x: NDArray[np.float64] | None = None
        while True:
            x, covariance, residual, redundancy = self.solve(held, x)
            sigma = np.array([r.get("sigma") or SIGMA[r["kind"]] for r in held])
            w = np.where(
                redundancy > 0.02, abs(residual) / sigma / np.sqrt(np.maximum(redundancy, 1e-9)), 0
            )
            if not held or w.max() <= 3.29:
                break
            worst = int(w.argmax())
            outliers.append(held.pop(worst)["id"])
        return {
            "unknowns": dict(zip(self.names, x, strict=True)),
            "sigma": dict(zip(self.names, np.sqrt(np.diag(covariance)), strict=True)),
            "suspects": outliers,
            "redundancy": {r["id"]: float(v) for r, v in zip(held, redundancy, strict=True)},
        }
