"""A coarse vortex lattice: lifting surfaces as horseshoes in their own planes, wakes straight aft, small angles.

The method of V. M. Falkner (ARC R&M 1910, 1943) as every text has it: a bound line at a panel's quarter, the condition of
no flow through it at three quarters.  Independent of the program: it knows neither Helmbold nor a downwash formula.
"""

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]


@dataclass
class Sheet:
    """A straight-tapered surface, both halves; mm, dihedral and incidence in degrees. `upright` stands up, one half."""

    le_x: float
    z: float
    span: float
    root: float
    tip: float
    sweep: float = 0.0
    dihedral: float = 0.0
    incidence: float = 0.0

    def points(self, eta: Array, share: Array) -> Array:
        """(…, 3) of the starboard half at shares of the half span along the wood and of the chord."""
        chord = self.root + eta * (self.tip - self.root)
        out = eta * self.span / 2
        x = self.le_x + self.sweep * eta + share * chord
        gamma = np.radians(self.dihedral)
        z = self.z + out * np.sin(gamma)
        return np.stack([x, out * np.cos(gamma), z], axis=-1)


def panels(sheet: Sheet, across: int, along: int) -> dict[str, Array]:
    """Bound ends, control points, normals and sizes of all panels of both halves."""
    edges = np.sin(np.linspace(0, np.pi / 2, across + 1))  # closer together at the tip
    found: dict[str, list[Array]] = {"a": [], "b": [], "c": [], "n": []}
    for i in range(across):
        for j in range(along):
            quarter = np.full(2, (j + 0.25) / along)
            a, b = sheet.points(edges[i : i + 2], quarter)
            middle = np.array([(edges[i] + edges[i + 1]) / 2])
            c = sheet.points(middle, np.array([(j + 0.75) / along]))[0]
            fore = sheet.points(middle, np.array([j / along]))[0]
            aft = sheet.points(middle, np.array([(j + 1) / along]))[0]
            normal = np.cross(aft - fore, b - a)
            normal /= np.linalg.norm(normal)
            for flip in (1.0, -1.0):
                mirror = np.array([1.0, flip, 1.0])
                ends = (a, b) if flip > 0 else (b * mirror, a * mirror)
                found["a"].append(ends[0])
                found["b"].append(ends[1])
                found["c"].append(c * mirror)
                found["n"].append(normal * mirror)
    return {name: np.array(rows) for name, rows in found.items()}


def _segment(p: Array, a: Array, b: Array) -> Array:
    """Velocity at p from a vortex of strength 1 from a to b."""
    r1, r2, r0 = p - a, p - b, b - a
    cross = np.cross(r1, r2)
    square = np.maximum((cross**2).sum(-1), 1e-9)
    n1, n2 = np.linalg.norm(r1, axis=-1), np.linalg.norm(r2, axis=-1)
    dot = (r0 * (r1 / n1[..., None] - r2 / n2[..., None])).sum(-1)
    found: Array = cross * (dot / square / (4 * np.pi))[..., None]
    return found


def derivatives(sheets: list[Sheet], across: int = 12, along: int = 3) -> tuple[float, float, Any]:
    """Lift per radian of incidence over q (mm²), its moment about x = 0 over q (mm³, nose up), by sheet both.

    The neutral point is −moment/lift.
    """
    parts = [panels(one, across, along) for one in sheets]
    a, b, c, n = (np.concatenate([part[key] for part in parts]) for key in "abcn")
    far = np.array([1e5, 0.0, 0.0])
    at = c[:, None, :]
    induced = _segment(at, a[None], b[None])
    induced = induced + _segment(at, b[None], b[None] + far) + _segment(at, a[None] + far, a[None])
    matrix = np.einsum("ijk,ik->ij", induced, n)
    strength = np.linalg.solve(matrix, -n[:, 2])  # per radian of the stream turned up
    span = (b - a)[:, 1]
    lift = 2 * strength * span  # ρVΓ over ½ρV²
    middle = (a + b)[:, 0] / 2
    owner = np.repeat(np.arange(len(sheets)), [len(part["c"]) for part in parts])
    shares = [
        (float(lift[owner == i].sum()), float(-(lift * middle)[owner == i].sum()))
        for i in range(len(sheets))
    ]
    return float(lift.sum()), float(-(lift * middle).sum()), shares
