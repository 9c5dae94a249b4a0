"""Stiffness of a flat frame in twist: a plane frame loaded square to its plane.

Each stick is a beam that bends and twists (three freedoms a joint: deflection w up, slope θx about x,
slope θy about y).  Stiffness of a beam: W. McGuire, R. H. Gallagher and R. D. Ziemian, "Matrix structural
analysis", 2nd edition, Wiley 2000, section 4.5; torsion constant of a rectangle: S. P. Timoshenko and
J. N. Goodier, "Theory of elasticity", 3rd edition, McGraw-Hill 1970, article 109.

Plane: x aft, y out, z up; mm, N, moduli in GPa (kN/mm²).
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import pairwise
from typing import Final

import numpy as np

from hardkeel.geometry.hull import Point2
from hardkeel.geometry.polygons import shapely
from hardkeel.geometry.rotation import Array
from hardkeel.tail.model import Pattern, TailBracing, TailSurface
from hardkeel.tail.stick_frame import Panel, StickFrame, frame_thickness, stick_frame_of

_SERIES: Final = 25
_N_PER_KN: Final = 1000.0
_HAIR: Final = 1e-6
_FAR: Final = 1e4
PATTERNS: Final[tuple[Pattern, ...]] = ("none", "ladder", "zigzag", "crossed")


@dataclass(frozen=True, slots=True)
class Beam:
    """A stick between two joints.

    Attributes
    ----------
    size : (float, float)
        Its width in the plane, and its thickness square to it, mm.
    moduli : (float, float)
        Young's modulus along the grain, and the shear modulus, GPa.
    pinned : bool
        Its ends carry neither bending nor twist.
    """

    a: int
    b: int
    size: tuple[float, float]
    moduli: tuple[float, float]
    pinned: bool = False


@dataclass(frozen=True)
class Grillage:
    """Joints, beams, and which joints are held.

    Attributes
    ----------
    joints : Array
        Shape (n, 2), mm.
    """

    joints: Array
    beams: tuple[Beam, ...]
    held: tuple[int, ...]

    def solved(self, loads: Mapping[int, float]) -> Array:
        """Deflections under forces square to the plane.

        Parameters
        ----------
        loads : mapping of int to float
            By joint, N, up.

        Returns
        -------
        Array
            Shape (n, 3): w in mm, θx and θy in radians.

        Raises
        ------
        numpy.linalg.LinAlgError
            When the frame can move without bending.
        """
        count = len(self.joints)
        stiff = np.zeros((3 * count, 3 * count))
        for beam in self.beams:
            at = np.r_[3 * beam.a : 3 * beam.a + 3, 3 * beam.b : 3 * beam.b + 3]
            stiff[np.ix_(at, at)] += _beam_stiffness(self.joints[beam.a], self.joints[beam.b], beam)
        force = np.zeros(3 * count)
        for joint, load in loads.items():
            force[3 * joint] = load
        fixed = {3 * joint + k for joint in self.held for k in range(3)}
        # a joint that only pinned sticks meet has slopes that nothing resists and nothing needs
        free = [i for i in range(3 * count) if i not in fixed and stiff[i, i] > _HAIR]
        out = np.zeros(3 * count)
        out[free] = np.linalg.solve(stiff[np.ix_(free, free)], force[free])
        return out.reshape(count, 3)

    def refined(self, parts: int) -> "Grillage":
        """Every beam in so many parts: the answer must not change."""
        joints, beams = list(self.joints), []
        for beam in self.beams:
            a, b = self.joints[beam.a], self.joints[beam.b]
            last = beam.a
            if beam.pinned:
                beams.append(beam)
                continue
            for i in range(1, parts):
                joints.append(a + (b - a) * i / parts)
                beams.append(replace(beam, a=last, b=len(joints) - 1))
                last = len(joints) - 1
            beams.append(replace(beam, a=last, b=beam.b))
        return Grillage(np.array(joints), tuple(beams), self.held)


def torsion_constant(a: float, b: float) -> float:
    """Of a rectangle of sides a and b, mm⁴."""
    long, short = max(a, b), min(a, b)
    terms = sum(
        math.tanh(n * math.pi * long / (2 * short)) / n**5 for n in range(1, 2 * _SERIES, 2)
    )
    return long * short**3 / 3 * (1 - 192 / math.pi**5 * short / long * terms)


def _beam_stiffness(a: Array, b: Array, beam: Beam) -> Array:
    """6 × 6 in (w, θx, θy) of both ends; N and mm."""
    run = b - a
    length = float(np.hypot(*run))
    if beam.pinned or length < _HAIR:
        return np.zeros((6, 6))
    wide, thick = beam.size
    bend = beam.moduli[0] * _N_PER_KN * wide * thick**3 / 12
    twist = beam.moduli[1] * _N_PER_KN * torsion_constant(wide, thick) / length
    v, m, k, h = 12 * bend / length**3, 6 * bend / length**2, 4 * bend / length, 2 * bend / length
    # local: w, twist about the beam, slope about the axis square to it (dw/ds = −θ)
    local = np.array(
        [
            [v, 0, -m, -v, 0, -m],
            [0, twist, 0, 0, -twist, 0],
            [-m, 0, k, m, 0, h],
            [-v, 0, m, v, 0, m],
            [0, -twist, 0, 0, twist, 0],
            [-m, 0, h, m, 0, k],
        ]
    )
    c, s = run / length
    turn = np.array([[1, 0, 0], [0, c, s], [0, -s, c]])
    both = np.zeros((6, 6))
    both[:3, :3] = both[3:, 3:] = turn
    return np.asarray(both.T @ local @ both)


@dataclass(frozen=True, slots=True)
class Twist:
    """What a pinch of 1 N does: up at the tip's front corner, down at its rear corner.

    Attributes
    ----------
    give : float
        How far the two corners part, mm.
    degrees : float
        The tip's twist.
    """

    give: float
    degrees: float


@dataclass(frozen=True, slots=True)
class Choice:
    """A frame with its mass and its give."""

    pattern: Pattern
    material: str
    mass: float
    twist: Twist


def grillage_of(frame: StickFrame, moduli: tuple[float, float]) -> tuple[Grillage, int, int]:
    """The fixed panel as beams, held at its root; and its two tip joints, front and rear."""
    panel = frame.panels[0]
    bracing = frame.surface.bracing or TailBracing()
    thick = frame_thickness(frame.surface)
    joints: list[Point2] = []
    beams: list[Beam] = []

    def joint(x: float, y: float) -> int:
        joints.append((x, y))
        return len(joints) - 1

    def stick(a: int, b: int, wide: float, *, pinned: bool = False) -> None:
        beams.append(Beam(a, b, (wide, thick), moduli, pinned))

    rows = _rows(frame, panel)
    fronts = [joint(row.front, row.y) for row in rows]
    rears = [
        joint(row.rear, row.y) if row.rear > row.front else fronts[i] for i, row in enumerate(rows)
    ]
    for i in range(len(rows) - 1):
        stick(fronts[i], fronts[i + 1], panel.front)
        stick(rears[i], rears[i + 1], panel.rear)
    loose = not bracing.stiff
    if rears[-1] != fronts[-1]:
        stick(fronts[-1], rears[-1], panel.front)
    posts = [i for i, row in enumerate(rows) if row.post is not None]
    for i in posts[1:-1]:
        stick(fronts[i], rears[i], bracing.width, pinned=loose)
    braced = bracing.pattern in ("zigzag", "crossed")
    for number, (i, j) in enumerate(pairwise(posts) if braced else ()):
        ways = [(fronts[i], rears[j]), (rears[i], fronts[j])]
        if len({*ways[0], *ways[1]}) < 4:  # noqa: PLR2004  a bay that runs to a point
            continue
        if bracing.pattern == "zigzag":
            stick(*ways[number % 2], bracing.width, pinned=loose)
            continue
        middle = _crossing(*(joints[n] for n in (*ways[0], *ways[1])))
        centre = joint(*middle)
        for a, b in ways:
            stick(a, centre, bracing.width, pinned=loose)
            stick(centre, b, bracing.width, pinned=loose)
    pinched = max(i for i in range(len(rows)) if rears[i] != fronts[i])
    return (
        Grillage(np.array(joints), tuple(beams), (fronts[0], rears[0])),
        fronts[pinched],
        rears[pinched],
    )


@dataclass(frozen=True, slots=True)
class _Row:
    """Joints at one place along the span; `post` numbers the panel's posts, a curved tip's start has none."""

    y: float
    front: float
    rear: float
    post: int | None


def _rows(frame: StickFrame, panel: Panel) -> list[_Row]:
    """From the root's outer face, where the wood is held, to the tip; both edges by their middle lines."""
    last = len(panel.posts) - 1
    places: list[tuple[float, int | None]] = [
        # held where the root's wood ends; the tip's strip by its middle
        (high if i == 0 else high - panel.front / 2 if i == last else (low + high) / 2, i)
        for i, (low, high) in enumerate(panel.posts)
    ]
    tip = frame.surface.tip
    if tip is not None and tip.shape != "block":
        start = frame.surface.half - tip.length
        if (
            all(abs(start - y) > panel.front for y, _ in places)
            and places[0][0] < start < places[-1][0]
        ):
            places.append((start, None))
            places.sort()
    found = []
    for y, post in places:
        row = panel.whole.intersection(shapely.LineString([(-_FAR, y), (_FAR, y)]))
        if row.is_empty:
            continue
        left, _, right, _ = row.bounds
        front, rear = left + panel.front / 2, right - panel.rear / 2
        if rear - front < panel.front / 2:  # the tip runs to a point
            front = rear = (left + right) / 2
        found.append(_Row(y, float(front), float(rear), post))
    return found


def _crossing(a: Point2, b: Point2, c: Point2, d: Point2) -> Point2:
    (ax, ay), (bx, by), (cx, cy), (dx, dy) = a, b, c, d
    det = (bx - ax) * (dy - cy) - (by - ay) * (dx - cx)
    share = ((cx - ax) * (dy - cy) - (cy - ay) * (dx - cx)) / det
    return ax + share * (bx - ax), ay + share * (by - ay)


@lru_cache(maxsize=16)  # each showing of a page asks for the same again
def twist_of(surface: TailSurface, moduli: tuple[float, float]) -> Twist:
    """Tip twist under the pinch of 1 N.

    Parameters
    ----------
    moduli : (float, float)
        Young's and shear modulus, GPa.

    Raises
    ------
    BadInput
        As `stick_frame_of`.
    """
    grillage, front, rear = grillage_of(stick_frame_of(surface), moduli)
    w = grillage.solved({front: 1.0, rear: -1.0})[:, 0]
    give = float(w[front] - w[rear])
    apart = float(np.hypot(*(grillage.joints[front] - grillage.joints[rear])))
    return Twist(give, math.degrees(math.atan2(give, apart)))


def frame_mass(surface: TailSurface, density: float) -> float:
    """Grams of the frame's sticks, `density` in kg/m³; glue and covering are not counted."""
    frame = stick_frame_of(surface)
    return frame.area * frame.thickness * density * 1e-6


def choices_of(
    surface: TailSurface, woods: Sequence[tuple[str, float, float, float]]
) -> tuple[Choice, ...]:
    """The frame as it is, with the next two patterns of bracing, and in the next wood either way.

    Parameters
    ----------
    woods : sequence of (id, density kg/m³, Young's modulus GPa, shear modulus GPa)
        Lightest first; the surface's own is among them.
    """
    bracing = surface.bracing or TailBracing()
    names = [one[0] for one in woods]
    at = names.index(surface.material) if surface.material in names else 0
    other = [one for one in PATTERNS if one != bracing.pattern]
    near = sorted(other, key=lambda one: abs(PATTERNS.index(one) - PATTERNS.index(bracing.pattern)))
    tried = [(bracing.pattern, at), *((one, at) for one in near[:2])]
    tried += [(bracing.pattern, i) for i in (at - 1, at + 1) if 0 <= i < len(woods)]
    found = []
    for pattern, i in tried:
        wood, density, young, shear = woods[i]
        one = surface.but(bracing=bracing.but(pattern=pattern), material=wood)
        found.append(Choice(pattern, wood, frame_mass(one, density), twist_of(one, (young, shear))))
    return tuple(found)
