"""What is wrong with a frame as a whole: its shape by least squares, its name by evidence; by the contract.

Evidence of a linear model with a normal prior: D. J. C. MacKay, "Bayesian interpolation", Neural Computation
4 (1992), 415-447.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import Final, Literal

import numpy as np

from hardkeel.fuselage.model import Squaring
from hardkeel.fuselage.squaring import CHECKED, Squared, kind_tolerance
from hardkeel.geometry.rotation import Array

Name = Literal[
    "true", "twisted", "bowed", "racked", "leaning", "lozenge", "askew", "one-former", "unsure"
]
Part = Literal["twist", "bow", "yaw", "lean"]
NAMES: Final[tuple[Name, ...]] = (
    "true", "twisted", "bowed", "racked", "leaning", "lozenge", "askew", "one-former",
)  # fmt: skip
_SURE: Final = 0.9
_DY, _ROLL, _LEAN, _YAW, _RACK = range(5)
_SIZE_MM, _SIZE_DEG, _SLIGHT_MM = 2.0, 2.0, 0.5
_CAREFUL: Final = 1 / 3  # of a tolerance: what a careful hand leaves
_MM_PER_M: Final = 1000.0
# whose tolerance each part of the shape is held against
_AGAINST: Final[dict[Part, str]] = {"twist": "roll", "bow": "dy", "yaw": "yaw", "lean": "lean"}
_SHAPED: Final[dict[Name, Part]] = {
    "twisted": "twist",
    "bowed": "bow",
    "racked": "yaw",
    "leaning": "lean",
}


@dataclass(frozen=True, slots=True)
class Shape:
    """The shape of a frame with its sigmas.

    Attributes
    ----------
    twist : float
        Degrees per metre; `bow` mm; `yaw`, `lean` degrees.
    """

    twist: float
    bow: float
    yaw: float
    lean: float
    sigma: Mapping[Part, float]


@dataclass(frozen=True, slots=True)
class Named:
    """What a frame is called.

    Attributes
    ----------
    former : str or None
        With ``one-former`` which one.
    probable : mapping of str to float
        How probable each name is.
    """

    name: Name
    former: str | None
    probable: Mapping[str, float]


def shape_of_frame(squared: Squared) -> Shape:
    """Twist, bow, yaw and lean: weighted least squares over the formers, each quantity apart.

    Weight 1 / (σ² + (tolerance/3)²).  All four are linear in the unknowns, so their sigmas come from the
    survey's full covariance.
    """
    covariance = squared.solution.covariance
    rows = _functionals(squared)
    values = {part: float(row @ squared.solution.unknowns) for part, row in rows.items()}
    sigmas = {
        part: math.sqrt(max(float(row @ covariance @ row), 0.0)) for part, row in rows.items()
    }
    return Shape(
        values["twist"], values["bow"], values["yaw"], values["lean"], MappingProxyType(sigmas)
    )


def _functionals(squared: Squared) -> dict[Part, Array]:
    """Each part of the shape as a row over the unknowns."""
    x, t = squared.stations, _along(squared.stations)
    ones = np.ones(len(x))
    roll = _solved(squared, _ROLL, np.column_stack([ones, x / _MM_PER_M]))
    bowed = _solved(squared, _DY, np.column_stack([ones, x, 4 * t * (1 - t)]))
    slope = bowed[1] * 180 / math.pi
    yaw = _solved(squared, _YAW, ones[:, None])[0] - slope
    lean = _solved(squared, _LEAN, ones[:, None])[0]
    return {"twist": roll[1], "bow": bowed[2], "yaw": yaw, "lean": lean}


def parts_of(squared: Squared, name: Name) -> dict[str, Array]:
    """What a named shape gives each former, by kind of check, shape (n,) each; nothing of any other name.

    A twisted frame is also straightened, a bowed one also turned in plan: each its own straight line.
    """
    x, t = squared.stations, _along(squared.stations)
    ones = np.ones(len(x))
    line, curve = np.column_stack([ones, x]), np.column_stack([ones, x, 4 * t * (1 - t)])

    def fitted(quantity: int, design: Array) -> Array:
        made: Array = design @ (_solved(squared, quantity, design) @ squared.solution.unknowns)
        return made

    match name:
        case "twisted":
            return {"roll": fitted(_ROLL, line), "dy": fitted(_DY, line)}
        case "bowed":
            return {"dy": fitted(_DY, curve), "yaw": fitted(_YAW, line)}
        case "racked":
            return {"yaw": ones * float(_functionals(squared)["yaw"] @ squared.solution.unknowns)}
        case "leaning":
            return {"lean": fitted(_LEAN, ones[:, None])}
        case _:
            return {}


def _solved(squared: Squared, quantity: int, design: Array) -> Array:
    """Rows over the unknowns that give the fit's coefficients, shape (coefficients, unknowns)."""
    columns, size = squared.columns[:, quantity], squared.net.columns.size
    variance = np.diag(squared.solution.covariance)[columns]
    careful = squared.tolerances[:, quantity] * _CAREFUL
    root = 1 / np.sqrt(np.maximum(variance, 0.0) + careful**2)
    # columns of one size, so that the pseudo-inverse drops what is not determined and nothing else
    scale = np.maximum(np.abs(design).max(axis=0), 1e-12)
    solved = np.linalg.pinv(design / scale * root[:, None]) * root[None, :] / scale[:, None]
    rows = np.zeros((design.shape[1], size))
    rows[:, columns] = solved
    return rows


def _along(stations: Array) -> Array:
    """0 at the first former to 1 at the last."""
    length = stations[-1] - stations[0]
    return (stations - stations[0]) / length if length > 0 else np.zeros(len(stations))


def name_frame(squared: Squared, squaring: Squaring, shape: Shape) -> Named:
    """What the frame is, if its readings bear a name; else ``unsure``."""
    if not squared.formers:
        return Named("unsure", None, MappingProxyType({}))
    chances, formers = _probabilities(squared)
    best = max(NAMES, key=lambda name: chances[name])
    named: Name = "unsure"
    former: str | None = None
    if chances[best] >= _SURE and _borne_out(best, squared, squaring, shape):
        if best != "one-former":
            named = best
        else:
            suspect = max(formers, key=lambda one: formers[one])
            if formers[suspect] >= _SURE and any(
                check.verdict == "out" for check in squared.checks_on(suspect)
            ):
                named, former = best, suspect
    return Named(named, former, MappingProxyType({str(k): v for k, v in chances.items()}))


def _borne_out(name: Name, squared: Squared, squaring: Squaring, shape: Shape) -> bool:
    out = any(check.verdict == "out" for check in squared.checks)
    sizes = _sizes(squared, shape)
    if name in _SHAPED:
        part = _SHAPED[name]
        size, sigma = sizes[part]
        return abs(size) - 2 * sigma > kind_tolerance(squaring, _AGAINST[part])
    if name == "true":
        return not out and all(
            abs(size) + 2 * sigma <= 2 * kind_tolerance(squaring, _AGAINST[part])
            for part, (size, sigma) in sizes.items()
        )
    return out or name == "one-former"


def _sizes(squared: Squared, shape: Shape) -> dict[Part, tuple[float, float]]:
    """Each part of the shape as it shows over the whole frame, with its sigma."""
    half = (squared.stations[-1] - squared.stations[0]) / _MM_PER_M / 2
    return {
        "twist": (shape.twist * half, shape.sigma["twist"] * half),
        "bow": (shape.bow, shape.sigma["bow"]),
        "yaw": (shape.yaw, shape.sigma["yaw"]),
        "lean": (shape.lean, shape.sigma["lean"]),
    }


def _probabilities(squared: Squared) -> tuple[dict[Name, float], dict[str, float]]:
    """How probable each name is, and each former alone."""
    n = len(squared.formers)
    columns = squared.columns.T.ravel()  # dy of all, roll of all …
    limits = squared.tolerances.T.ravel()
    v = squared.solution.unknowns[columns] / limits
    spread = squared.solution.covariance[np.ix_(columns, columns)] / np.outer(limits, limits)
    base = spread + _CAREFUL**2 * np.eye(5 * n)
    found: list[tuple[Name, str, float]] = []
    for name, hypotheses in _hypotheses(squared.stations).items():
        share = 0.5 if name == "true" else 1 / 14
        for number, patterns in enumerate(hypotheses):
            g = patterns / limits[:, None]
            log = math.log(share / len(hypotheses)) + _log_evidence(base + g @ g.T, v)
            which = squared.formers[number] if name == "one-former" else ""
            found.append((name, which, log))
    most = max(log for _, _, log in found)
    weights = [math.exp(log - most) for _, _, log in found]
    total = sum(weights)
    chances: dict[Name, float] = dict.fromkeys(NAMES, 0.0)
    formers: dict[str, float] = dict.fromkeys(squared.formers, 0.0)
    for (name, which, _), weight in zip(found, weights, strict=True):
        chances[name] += weight / total
        if which:
            formers[which] += weight / total
    return chances, formers


def _log_evidence(covariance: Array, v: Array) -> float:
    _, log_determinant = np.linalg.slogdet(covariance)
    return float(-0.5 * log_determinant - 0.5 * v @ np.linalg.solve(covariance, v))


def _hypotheses(stations: Array) -> dict[Name, list[Array]]:
    """Patterns of each hypothesis at their sizes, shape (5n, patterns): dy, roll, lean, yaw, rack of all."""
    n = len(stations)
    t, ones = _along(stations), np.ones(n)
    swing, arch = 2 * t - 1, 4 * t * (1 - t)

    def columns(*parts: dict[int, Array]) -> Array:
        made = np.zeros((5 * n, len(parts)))
        for j, part in enumerate(parts):
            for quantity, values in part.items():
                made[quantity * n : (quantity + 1) * n, j] = values
        return made

    half = (stations[-1] - stations[0]) / 2 or 1.0
    turned = {
        _DY: _SIZE_MM * (stations - stations.mean()) / half,
        _YAW: np.full(n, _SIZE_MM / half * 180 / math.pi),
    }
    alone = [
        columns(
            *(
                {quantity: (_SIZE_MM if quantity == _DY else _SIZE_DEG) * one}
                for quantity in range(len(CHECKED))
            )
        )
        for one in np.eye(n)
    ]
    return {
        "true": [np.zeros((5 * n, 0))],
        "twisted": [
            columns(
                {_ROLL: _SIZE_DEG * swing},
                {_ROLL: _SIZE_DEG * ones},
                {_DY: _SLIGHT_MM * ones},
                {_DY: _SIZE_MM * swing},
            )
        ],
        "bowed": [
            columns(
                {_DY: _SIZE_MM * arch},
                {_DY: _SLIGHT_MM * ones},
                {_DY: _SLIGHT_MM * swing},
                {_YAW: _SIZE_DEG * swing},
            )
        ],
        "racked": [columns({_YAW: _SIZE_DEG * ones})],
        "leaning": [columns({_LEAN: _SIZE_DEG * ones})],
        "lozenge": [columns({_RACK: _SIZE_DEG * ones})],
        "askew": [
            columns({_ROLL: _SIZE_DEG * ones}),
            columns({_DY: _SIZE_MM * ones}),
            columns(turned),
        ],
        "one-former": alone,
    }
