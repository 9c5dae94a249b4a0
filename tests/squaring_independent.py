"""A second implementation of the contract's frame squaring, written apart and by other means.

scipy's least squares with numerical derivatives, rotations multiplied out point by point, evidence by
multivariate normals; nothing of `hardkeel.fuselage` or `hardkeel.survey` but the values of a file.
"""

import math
from typing import Any

import numpy as np
from scipy.optimize import least_squares
from scipy.stats import multivariate_normal

Data = dict[str, Any]
NAMES = ("dx", "dy", "dz", "roll", "lean", "yaw", "rack")
PRIOR = np.array([3.0, 3.0, 3.0, 2.0, 2.0, 2.0, 2.0])
SIGMA = {
    "distance": 0.5, "distance-difference": 0.4, "height": 0.4, "incidence": 0.15,
    "tilt": 0.1, "offset": 0.5, "angle": 0.25, "gap": 0.3,
}  # fmt: skip
KINDS = ("dy", "roll", "lean", "yaw", "rack")


class Frame:
    """Formers, marks, readings of a fuselage as a file holds it."""

    def __init__(self, fuselage: Data) -> None:
        board = fuselage["board"]
        self.flip = bool(board.get("inverted", False))
        self.formers = sorted(fuselage["formers"], key=lambda f: f["station"])
        side = fuselage.get("side_thickness", 0.0)
        top, bottom = fuselage.get("top_skin", 0.0), fuselage.get("bottom_skin", 0.0)
        self.ids = [f["id"] for f in self.formers]
        self.x = np.array([f["station"] for f in self.formers], dtype=float)
        self.marks: dict[str, tuple[int | None, np.ndarray]] = {}
        self.pivots = []
        for k, f in enumerate(self.formers):
            low, high = f["bottom"] + bottom, f["top"] - top
            zb, zt = (
                (board["z"] - low, board["z"] - high)
                if self.flip
                else (low - board["z"], high - board["z"])
            )
            spacer = board["z"] - high if self.flip else low - board["z"]
            self.pivots.append(np.array([f["station"], 0.0, spacer]))
            w = (f["half_width"] - side) * (-1 if self.flip else 1)
            for name, y, z in (
                ("tp", -w, zt), ("ts", w, zt), ("bp", -w, zb), ("bs", w, zb), ("tc", 0.0, zt), ("bc", 0.0, zb)
            ):  # fmt: skip
                self.marks[f"{f['id']}.{name}"] = (k, np.array([f["station"], y, z]))
            self.marks[f"board.{f['id']}"] = (None, np.array([f["station"], 0.0, 0.0]))
        self.readings = [
            r for r in fuselage["squaring"].get("readings", []) if not r.get("ignored", False)
        ]
        self.own = fuselage["squaring"].get("tolerances") or {}
        self.extra: list[tuple[str, str]] = []
        self.extra_prior: list[float] = []
        self._share(fuselage["squaring"].get("shared") or {})

    def _share(self, shared: Data) -> None:
        """What the readings share: shifts of marks, zeros of tools; no seats of a gauge and no bends."""
        named = [
            mark
            for r in self.readings
            for end in (r.get("from"), r.get("to"), r.get("at"), r.get("mark"), r.get("along"))
            for mark in (end if isinstance(end, list) else [end])
            if mark is not None and not mark.startswith("board.")
        ]
        for mark in dict.fromkeys(named):
            if shared.get("mark"):
                self.extra += [(f"mark {mark}", axis) for axis in "xyz"]
                self.extra_prior += [shared["mark"]] * 3
        for key, kind in (("gauge", "incidence"), ("level", "tilt"), ("tape_zero", "distance"), ("tape_stretch", "distance")):  # fmt: skip
            tools = dict.fromkeys(
                r.get("instrument") or "" for r in self.readings if r["kind"] == kind
            )
            if shared.get(key):
                self.extra += [(key, tool) for tool in tools]
                self.extra_prior += [shared[key]] * len(tools)

    def more(self, u: np.ndarray, key: tuple[str, str]) -> float:
        """One of the shared unknowns; 0 where it is none."""
        return float(u[7 * len(self.ids) + self.extra.index(key)]) if key in self.extra else 0.0

    def place(self, mark: str, u: np.ndarray) -> np.ndarray:
        k, at = self.marks[mark]
        if k is None:
            return at
        dx, dy, dz, roll, gluing_prior, yaw, rack = u[7 * k : 7 * k + 7]
        at = at + np.array([self.more(u, (f"mark {mark}", axis)) for axis in "xyz"])
        arm = at - self.pivots[k]
        arm = arm + np.array([0.0, math.tan(math.radians(rack)) * arm[2], 0.0])
        a, b, c = (math.radians(v) for v in (roll, gluing_prior, yaw))
        rx = np.array([[1, 0, 0], [0, math.cos(a), -math.sin(a)], [0, math.sin(a), math.cos(a)]])
        ry = np.array([[math.cos(b), 0, math.sin(b)], [0, 1, 0], [-math.sin(b), 0, math.cos(b)]])
        rz = np.array([[math.cos(c), -math.sin(c), 0], [math.sin(c), math.cos(c), 0], [0, 0, 1]])
        return np.asarray(self.pivots[k] + np.array([dx, dy, dz]) + rz @ ry @ rx @ arm)

    def predict(self, r: Data, u: np.ndarray) -> float:
        kind, tool = r["kind"], r.get("instrument") or ""
        turned = -1.0 if r.get("turned") else 1.0
        plain = self._plain(r, u)
        if kind == "incidence":
            return plain + turned * self.more(u, ("gauge", tool))
        if kind == "tilt":
            return plain + turned * self.more(u, ("level", tool))
        if kind in ("distance", "distance-difference"):
            plain *= 1 + self.more(u, ("tape_stretch", tool))
        return plain + (self.more(u, ("tape_zero", tool)) if kind == "distance" else 0.0)

    def _plain(self, r: Data, u: np.ndarray) -> float:
        kind = r["kind"]
        if kind == "incidence":
            return float(u[7 * self.ids.index(r["body"]) + 4])
        if kind in ("height", "offset"):
            return float(self.place(r["mark"], u)[2 if kind == "height" else 1])
        a = self.place(r["from"], u)
        if kind == "distance-difference":
            p, q = (self.place(m, u) for m in r["to"])
            return float(np.linalg.norm(p - a) - np.linalg.norm(q - a))
        b = self.place(r["to"], u)
        if kind == "distance":
            return float(np.linalg.norm(b - a))
        if kind == "gap":
            return float((b - a)["xyz".index(r["axis"])])
        if kind == "tilt":
            d = b - a
            return math.degrees(math.atan2(d[2], math.hypot(d[0], d[1])))
        at = self.place(r["at"], u)
        p, q = a - at, b - at
        return math.degrees(math.acos(float(p @ q) / float(np.linalg.norm(p) * np.linalg.norm(q))))


def sigma(r: Data) -> float:
    return float(r.get("sigma") or SIGMA[r["kind"]])


def solve(
    frame: Frame, readings: list[Data]
) -> tuple[np.ndarray, np.ndarray, np.ndarray, np.ndarray]:
    """Unknowns, covariance, residuals, jacobian (rows divided by sigma)."""
    prior = np.concatenate([np.tile(PRIOR, len(frame.ids)), frame.extra_prior])
    n = len(prior)

    def cost(u: np.ndarray) -> np.ndarray:
        fit = [(r["value"] - frame.predict(r, u)) / sigma(r) for r in readings]
        return np.concatenate([np.array(fit), u / prior])

    found = least_squares(cost, np.zeros(n), jac="3-point", xtol=1e-14, ftol=1e-14, gtol=1e-12)
    m = len(readings)
    jac = -found.jac[:m]
    covariance = np.linalg.inv(found.jac.T @ found.jac)
    return found.x, covariance, found.fun[:m] * np.array([sigma(r) for r in readings]), jac


def squaring(fuselage: Data) -> Data:
    """The contract's figures."""
    frame = Frame(fuselage)
    held = list(frame.readings)
    outliers = []
    while True:
        u, c, residual, jac = solve(frame, held)
        redundancy = np.array([1 - row @ c @ row for row in jac])
        w = np.array(
            [
                abs(e) / (sigma(r) * math.sqrt(red)) if red > 0.02 else 0.0
                for e, r, red in zip(residual, held, redundancy, strict=True)
            ]
        )
        if not len(w) or w.max() <= 3.29:
            break
        worst = int(np.argmax(w))
        outliers.append(held[worst]["id"])
        held = held[:worst] + held[worst + 1 :]
    k = len(frame.ids)
    at = {"dy": 1, "roll": 3, "lean": 4, "yaw": 5, "rack": 6}
    checks = {}
    for i, name in enumerate(frame.ids):
        for kind in KINDS:
            j = 7 * i + at[kind]
            limit = frame.own.get(f"{name}_{kind}", frame.own.get(kind, 0.5))
            value, spread = u[j], math.sqrt(c[j, j])
            verdict = (
                "true" if abs(value) + 2 * spread <= limit
                else "out" if abs(value) - 2 * spread > limit else "unsure"
            )  # fmt: skip
            checks[f"{name}_{kind}"] = (value, spread, limit, verdict)
    shape, shape_sigma = _shape(frame, u, c, checks)
    named, former = _named(frame, u, c, checks, shape, shape_sigma)
    parts = _parts(frame, u, c, checks, named)
    return {
        "u": u[: 7 * k].reshape(k, 7), "sigma": np.sqrt(np.diag(c))[: 7 * k].reshape(k, 7), "suspects": outliers,
        "checks": checks, "shape": shape, "shape_sigma": shape_sigma, "named": named, "former": former,
        "parts": parts, "moves": _moves(frame, u, checks, parts),
    }  # fmt: skip


def _weighted(
    frame: Frame, c: np.ndarray, checks: Data, kind: str, design: np.ndarray
) -> np.ndarray:
    at = {"dy": 1, "roll": 3, "lean": 4, "yaw": 5}[kind]
    n = len(frame.ids)
    weights = np.diag(
        [
            1 / (c[7 * i + at, 7 * i + at] + (checks[f"{name}_{kind}"][2] / 3) ** 2)
            for i, name in enumerate(frame.ids)
        ]
    )
    pick = np.zeros((n, len(c)))
    for i in range(n):
        pick[i, 7 * i + at] = 1.0
    normal = design.T @ weights @ design
    if np.linalg.matrix_rank(design) < design.shape[1]:
        return np.zeros((design.shape[1], len(c)))  # two formers have no bow
    return np.linalg.solve(normal, design.T @ weights) @ pick


def _shape(frame: Frame, u: np.ndarray, c: np.ndarray, checks: Data) -> tuple[Data, Data]:
    x = frame.x
    t = (x - x[0]) / (x[-1] - x[0])
    one = np.ones(len(x))
    twist = _weighted(frame, c, checks, "roll", np.stack([one, x / 1000], axis=1))[1]
    line = _weighted(frame, c, checks, "dy", np.stack([one, x, 4 * t * (1 - t)], axis=1))
    yaw = _weighted(frame, c, checks, "yaw", one[:, None])[0] - line[1] * 180 / math.pi
    gluing_prior = _weighted(frame, c, checks, "lean", one[:, None])[0]
    rows = {"twist": twist, "bow": line[2], "yaw": yaw, "lean": gluing_prior}
    return (
        {key: float(g @ u) for key, g in rows.items()},
        {key: math.sqrt(float(g @ c @ g)) for key, g in rows.items()},
    )


def _named(  # noqa: C901  the contract's rules one after another
    frame: Frame, u: np.ndarray, c: np.ndarray, checks: Data, shape: Data, spread: Data
) -> tuple[str, str | None]:
    n, x = len(frame.ids), frame.x
    t = (x - x[0]) / (x[-1] - x[0])
    order = [(i, kind) for i in range(n) for kind in KINDS]
    at = {"dy": 1, "roll": 3, "lean": 4, "yaw": 5, "rack": 6}
    index = [7 * i + at[kind] for i, kind in order]
    limit = np.array([checks[f"{frame.ids[i]}_{kind}"][2] for i, kind in order])
    v = u[index] / limit
    base = c[np.ix_(index, index)] / np.outer(limit, limit) + np.eye(5 * n) / 9

    def pattern(values: dict[str, Any]) -> np.ndarray:
        row = [
            (
                np.broadcast_to(np.asarray(values[kind], dtype=float), n)[i]
                if kind in values
                else 0.0
            )
            for i, kind in order
        ]
        return np.asarray(np.array(row) / limit)

    half, mean = (x[-1] - x[0]) / 2, x.mean()
    hypotheses: list[tuple[str, str | None, float, list[dict[str, Any]]]] = [
        ("true", None, 0.5, []),
        ("twisted", None, 1 / 14, [{"roll": 2 * (2 * t - 1)}, {"roll": 2}, {"dy": 0.5}, {"dy": 2 * (2 * t - 1)}]),
        ("bowed", None, 1 / 14, [{"dy": 8 * t * (1 - t)}, {"dy": 0.5}, {"dy": 0.5 * (2 * t - 1)}, {"yaw": 2 * (2 * t - 1)}]),
        ("racked", None, 1 / 14, [{"yaw": 2}]),
        ("leaning", None, 1 / 14, [{"lean": 2}]),
        ("lozenge", None, 1 / 14, [{"rack": 2}]),
        ("askew", None, 1 / 42, [{"roll": 2}]),
        ("askew", None, 1 / 42, [{"dy": 2}]),
        ("askew", None, 1 / 42, [{"dy": 2 * (x - mean) / half, "yaw": 2 / half * 180 / math.pi}]),
    ]  # fmt: skip
    for k, name in enumerate(frame.ids):
        alone = np.eye(n)[k] * 2
        hypotheses.append(("one-former", name, 1 / 14 / n, [{kind: alone} for kind in KINDS]))
    logs = []
    for _, _, prior, patterns in hypotheses:
        g = np.array([pattern(p) for p in patterns]).reshape(len(patterns), 5 * n)
        logs.append(math.log(prior) + multivariate_normal(cov=base + g.T @ g).logpdf(v))
    weight = np.exp(np.array(logs) - max(logs))
    weight /= weight.sum()
    chance: dict[str, float] = {}
    for (name, _, _, _), p in zip(hypotheses, weight, strict=True):
        chance[name] = chance.get(name, 0.0) + float(p)
    best = max(chance, key=lambda name: chance[name])
    if chance[best] < 0.9:
        return "unsure", None
    kind_limit = {kind: frame.own.get(kind, 0.5) for kind in KINDS}
    length = (x[-1] - x[0]) / 1000
    sizes = {
        "twisted": (shape["twist"] * length / 2, spread["twist"] * length / 2, kind_limit["roll"]),
        "bowed": (shape["bow"], spread["bow"], kind_limit["dy"]),
        "racked": (shape["yaw"], spread["yaw"], kind_limit["yaw"]),
        "leaning": (shape["lean"], spread["lean"], kind_limit["lean"]),
    }
    out = [name for name, check in checks.items() if check[3] == "out"]
    if best in sizes:
        size, sd, tolerance = sizes[best]
        return (best, None) if abs(size) - 2 * sd > tolerance else ("unsure", None)
    if best == "true":
        fine = all(abs(s) + 2 * sd <= 2 * tolerance for s, sd, tolerance in sizes.values())
        return ("true", None) if not out and fine else ("unsure", None)
    if best == "one-former":
        for (_, former, _, _), p in zip(hypotheses, weight, strict=True):
            if former is not None and p >= 0.9 and any(o.startswith(f"{former}_") for o in out):
                return best, former
        return "unsure", None
    return (best, None) if out else ("unsure", None)


def _parts(
    frame: Frame, u: np.ndarray, c: np.ndarray, checks: Data, named: str
) -> dict[str, dict[str, float]]:
    """What the shape gives each former, by kind; nothing where the whole is not named."""
    x, n = frame.x, len(frame.ids)
    t = (x - x[0]) / (x[-1] - x[0])
    one = np.ones(n)

    def fitted(kind: str, design: np.ndarray) -> np.ndarray:
        return np.asarray(_weighted(frame, c, checks, kind, design) @ u)

    line = np.stack([one, x], axis=1)
    curve = np.stack([one, x, 4 * t * (1 - t)], axis=1)
    found: dict[str, np.ndarray] = {}
    if named == "twisted":
        found["roll"], found["dy"] = line @ fitted("roll", line), line @ fitted("dy", line)
    elif named == "bowed":
        found["dy"], found["yaw"] = curve @ fitted("dy", curve), line @ fitted("yaw", line)
    elif named == "racked":
        mean = fitted("yaw", one[:, None])[0] - math.degrees(fitted("dy", curve)[1])
        found["yaw"] = one * mean
    elif named == "leaning":
        found["lean"] = one * fitted("lean", one[:, None])[0]
    return {
        name: {kind: float(values[i]) for kind, values in found.items()}
        for i, name in enumerate(frame.ids)
        if found
    }


def _moves(frame: Frame, u: np.ndarray, checks: Data, parts: Data) -> dict[str, np.ndarray]:
    at = {"dy": 1, "roll": 3, "lean": 4, "yaw": 5}
    found = {}
    for i, name in enumerate(frame.ids):
        mine, cured = parts.get(name, {}), u.copy()
        for kind, part in mine.items():
            cured[7 * i + at[kind]] -= part
        left = [
            abs(checks[f"{name}_{kind}"][0] - mine.get(kind, 0.0)) - 2 * checks[f"{name}_{kind}"][1]
            > checks[f"{name}_{kind}"][2]
            for kind in KINDS
        ]
        if any(left):
            for corner in ("bp", "bs", "tp", "ts"):
                mark = f"{name}.{corner}"
                found[mark] = frame.marks[mark][1] - frame.place(mark, cured)
    return found
