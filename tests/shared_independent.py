"""A second implementation of what readings share, written apart from the first, from the contract alone.

It builds on `tests.independent`: mark by mark in plain Python, numerical slopes, scipy's solver.
"""

import math
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import least_squares
from scipy.stats import chi2 as chi_square

from tests.independent import SIGMA, Independent, Json, Named

_NOT_WINGS = ("stab", "fin", "canard", "foreplane", "vee", "thrust")


def _is_wing(body: Json) -> bool:
    role = body.get("role")
    if role is not None:
        return bool(role == "wing")
    return body["id"] != "fuselage" and not body["id"].startswith(_NOT_WINGS)


class SharedIndependent(Independent):
    """Adjusts a survey whose readings share errors."""

    def __init__(self, survey: Json) -> None:  # noqa: C901  the contract's kinds one after another
        super().__init__(survey)
        self.shared: Json = survey.get("shared") or {}
        own = list(self.prior)
        named = self._named_marks()

        def add(owner: str, name: str, spread: float) -> None:
            self.names.append((owner, name))
            own.append(spread)

        def of(key: str) -> float:
            return float(self.shared.get(key) or 0.0)

        if of("mark"):
            for mark in named:
                for axis in "xyz":
                    add(f"mark {mark}", axis, of("mark"))
        takes = {"gauge": ("incidence",), "level": ("tilt",), "tape_zero": ("distance",), "tape_stretch": ("distance",)}  # fmt: skip
        for key, kinds in takes.items():
            if of(key):
                found = {r.get("instrument") or "" for r in self.readings if r["kind"] in kinds}
                for one in sorted(found):
                    add(f"{key} {one}", "zero", of(key))
        if of("gauge_seat"):
            sat = {r["body"] for r in self.readings if r["kind"] == "incidence"} - {"fuselage"}
            for body in sorted(sat):
                add(f"gauge_seat {body}", "zero", of("gauge_seat"))
        self.x0, self.x1 = self._bending(survey)
        for key in ("bend_y", "bend_z"):
            if of(key) and self.x1 >= self.x0 + 1:
                add(key, "b", of(key))
        self.prior = np.array(own)

    def _named_marks(self) -> list[str]:
        found: list[str] = []
        for r in self.readings:
            ends = [r.get("from"), r.get("at"), r.get("mark"), *(r.get("along") or [])]
            to = r.get("to")
            ends += to if isinstance(to, list | tuple) else [to]
            for mark in ends:
                if mark and mark not in found and not mark.startswith("board."):
                    found.append(mark)
        return found

    def _bending(self, survey: Json) -> tuple[float, float]:
        wings = [b for b in survey["bodies"] if _is_wing(b)]
        own = [m["at"][0] for m in survey["marks"] if m["body"] == "fuselage"]
        if not wings or not own:
            return 0.0, -1.0
        contacts = (wings[0].get("seat") or {}).get("contacts") or []
        x0 = max((c["at"][0] for c in contacts), default=wings[0]["pivot"][0])
        return x0, max(own)

    def _put(self, x: Named, mark_id: str) -> NDArray[np.float64]:
        mark = self.marks[mark_id]
        at = np.array(mark["at"], float)
        shift = np.array([x.get((f"mark {mark_id}", axis), 0.0) for axis in "xyz"])
        body = self.bodies.get(mark["body"])
        if mark["body"] == "fuselage" or body is None:
            if at[0] > self.x0 and self.x1 >= self.x0 + 1:
                share = ((at[0] - self.x0) / (self.x1 - self.x0)) ** 2
                shift = shift + share * np.array(
                    [0.0, x.get(("bend_y", "b"), 0.0), x.get(("bend_z", "b"), 0.0)]
                )
            return np.asarray(at + shift)
        pivot = np.array(body["pivot"], float)
        arm = at + shift - pivot
        if body.get("twist"):
            off = at[1] - pivot[1]
            side = "twist_starboard" if off > 0 else "twist_port"
            angle = math.radians(x[(body["id"], side)] * abs(off) / (body["span"] / 2))
            c, s = math.cos(angle), math.sin(angle)
            arm = np.array([c * arm[0] + s * arm[2], arm[1], -s * arm[0] + c * arm[2]])
        moved = np.array([x[(body["id"], name)] for name in ("dx", "dy", "dz")])
        placed: NDArray[np.float64] = pivot + self._turn(x, body["id"]) @ arm + moved
        return placed

    def predict(self, x: Named, r: Json) -> float:
        """What a reading should show, with what it shares with others."""
        kind, tool = r["kind"], r.get("instrument") or ""
        turned = -1.0 if r.get("turned") else 1.0
        if kind == "offset" and r.get("along"):
            a, b = (self.place(x, one)[:2] for one in r["along"])
            t = (b - a) / np.linalg.norm(b - a)
            return float(np.array([-t[1], t[0]]) @ (self.place(x, r["mark"])[:2] - a))
        plain = super().predict(x, r)
        if kind == "incidence":
            if r["body"] != "fuselage":
                plain += x.get((f"gauge_seat {r['body']}", "zero"), 0.0)
            return plain + turned * x.get((f"gauge {tool}", "zero"), 0.0)
        if kind == "tilt":
            return plain + turned * x.get((f"level {tool}", "zero"), 0.0)
        if kind in ("distance", "distance-difference"):
            plain *= 1 + x.get((f"tape_stretch {tool}", "zero"), 0.0)
        if kind == "distance":
            plain += x.get((f"tape_zero {tool}", "zero"), 0.0)
        return plain

    def solve(
        self, readings: list[Json], start: NDArray[np.float64] | None = None
    ) -> tuple[NDArray[np.float64], Any, Any, Any]:
        """As the base, but slopes at steps of each unknown's own size."""
        sigma = np.array([r.get("sigma") or SIGMA[r["kind"]] for r in readings])
        value = np.array([r["value"] for r in readings])

        def model(z: Any) -> Any:
            unknowns = dict(zip(self.names, z * self.prior, strict=True))
            return np.array([self.predict(unknowns, r) for r in readings])

        found = least_squares(
            lambda z: np.concatenate([(value - model(z)) / sigma, z]),
            np.zeros(len(self.names)) if start is None else start / self.prior,
            jac="3-point",
            xtol=1e-14,
            ftol=1e-14,
            gtol=1e-11,
        )
        j = -found.jac[: len(readings)]
        covariance = np.linalg.inv(j.T @ j + np.eye(len(self.names)))
        redundancy = 1 - np.diag(j @ covariance @ j.T)
        scale = np.outer(self.prior, self.prior)
        return found.x * self.prior, covariance * scale, value - model(found.x), redundancy

    def fit(self, held: list[Json], x: Any, covariance: Any, residual: Any) -> Json:
        """chi2, rows and p of the contract."""
        sigma = np.array([r.get("sigma") or SIGMA[r["kind"]] for r in held])
        weak = [
            i for i, (owner, _) in enumerate(self.names) if owner in self.bodies or owner == "bench"
        ]
        strong = [i for i in range(len(self.names)) if i not in weak]
        chi2 = float(
            np.sum((residual / sigma) ** 2) + sum((x[i] / self.prior[i]) ** 2 for i in strong)
        )
        rows = len(held) - sum(1 - covariance[i, i] / self.prior[i] ** 2 for i in weak)
        p = float(chi_square.sf(chi2, rows)) if rows > 0.5 else None
        return {"chi2": chi2, "rows": float(rows), "p": p}

    def all_told(self) -> Json:
        """What `run` gives, and value, sigma and fit of everything."""
        held, outliers = list(self.readings), []
        x: NDArray[np.float64] | None = None
        while True:
            x, covariance, residual, redundancy = self.solve(held, x)
            sigma = np.array([r.get("sigma") or SIGMA[r["kind"]] for r in held])
            safe = np.sqrt(np.maximum(redundancy, 1e-9))
            w = np.where(redundancy > 0.02, abs(residual) / sigma / safe, 0)
            if not held or w.max() <= 3.29:
                break
            outliers.append(held.pop(int(w.argmax()))["id"])
        spread = np.sqrt(np.diag(covariance))
        return {
            "unknowns": dict(zip(self.names, x, strict=True)),
            "sigma": dict(zip(self.names, spread, strict=True)),
            "suspects": outliers,
            "redundancy": {r["id"]: float(v) for r, v in zip(held, redundancy, strict=True)},
            "fit": self.fit(held, x, covariance, residual),
        }
