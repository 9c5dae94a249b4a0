"""The outline of one half of a surface: x aft from the root leading edge, y out from the middle, mm."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.geometry.hull import Point2
from hardkeel.geometry.rotation import Array
from hardkeel.tail.model import TailSurface

_CURVE_STEPS: Final = 160
_ROUNDED: Final = 3.0  # exponent of the rounded tip's curve: 2 is an ellipse, more is squarer
_FINE: Final = 4000  # strips of the sums over the half span
_HAIR: Final = 1e-9


@dataclass(frozen=True, slots=True)
class Planform:
    """Leading and trailing edge of one half.

    Attributes
    ----------
    ys, le, te : Array
        Shape (n,): edges at places from the middle to the tip, straight between them.
    """

    ys: Array
    le: Array
    te: Array

    @property
    def half(self) -> float:
        """Half the span, mm."""
        return float(self.ys[-1])

    def leading(self, y: Array | float) -> Array:
        """The leading edge, in the shape of `y`."""
        return np.asarray(np.interp(y, self.ys, self.le))

    def trailing(self, y: Array | float) -> Array:
        """The trailing edge, in the shape of `y`."""
        return np.asarray(np.interp(y, self.ys, self.te))

    def chord(self, y: Array | float) -> Array:
        """The chord, in the shape of `y`."""
        return self.trailing(y) - self.leading(y)

    @property
    def ring(self) -> tuple[Point2, ...]:
        """The half's outline (x, y): out along the leading edge, back along the trailing edge."""
        out = [(float(x), float(y)) for x, y in zip(self.le, self.ys, strict=True)]
        back = [(float(x), float(y)) for x, y in zip(self.te, self.ys, strict=True)][::-1]
        if abs(out[-1][0] - back[0][0]) < _HAIR:
            back = back[1:]
        return tuple(out + back)

    @property
    def area(self) -> float:
        """Of both halves, mm²; the trapezoids of the outline are exact."""
        return 2 * float(np.trapezoid(self.te - self.le, self.ys))

    @property
    def aspect(self) -> float:
        """Span squared over area."""
        return (2 * self.half) ** 2 / self.area

    def mean_chord(self) -> tuple[float, float, float]:
        """Mean aerodynamic chord, its place from the middle, its leading edge; mm.

        ∫c² dy / ∫c dy over the half span, and the area's moments of y and of the leading edge: exact for
        an outline of straight pieces but for the sum's own steps.
        """
        edges = np.union1d(self.ys, np.linspace(0.0, self.half, _FINE))
        middle, width = (edges[1:] + edges[:-1]) / 2, np.diff(edges)
        chord = self.chord(middle)
        area = float(np.sum(chord * width))
        mean = float(np.sum(chord**2 * width)) / area
        out = float(np.sum(chord * middle * width)) / area
        front = float(np.sum(chord * self.leading(middle) * width)) / area
        return mean, out, front


@lru_cache(maxsize=64)
def planform_of(surface: TailSurface) -> Planform:
    """The outline: traced, or from span, chords, sweep and tip.

    Raises
    ------
    BadInput
        When a figure is missing, or a traced outline doubles back.
    """
    if surface.outline:
        return _traced(surface)
    place = f"tail {surface.id}"
    if surface.span is None:
        raise BadInput(f"{place}.span", "is missing: a surface needs its span")
    if surface.root_chord is None:
        raise BadInput(f"{place}.root_chord", "is missing: a surface needs its chord")
    return _with_tip(surface)


def straight_chord(surface: TailSurface, y: Array | float) -> Array:
    """The straight-tapered chord at y, whatever the tip does; mm."""
    root = surface.root_chord or 0.0
    share = np.asarray(y, dtype=float) / surface.half
    return np.asarray(root + share * (surface.tip_size - root))


def straight_lead(surface: TailSurface, y: Array | float) -> Array:
    """The leading edge of the straight-tapered outline at y, mm."""
    return np.asarray(surface.sweep_le * np.asarray(y, dtype=float) / surface.half)


def _with_tip(surface: TailSurface) -> Planform:
    half, tip = surface.half, surface.tip
    ys = np.array([0.0, half])
    curved = tip is not None and tip.shape != "block"
    start = half
    if tip is not None and curved:
        start = max(half - tip.length, 0.0)
        # places close together towards the tip, where the curve turns
        turn = np.sin(np.linspace(0.0, np.pi / 2, _CURVE_STEPS))
        ys = np.concatenate([[0.0], start + (half - start) * turn])
        ys = np.unique(ys)
    lead, chord = straight_lead(surface, ys), straight_chord(surface, ys)
    te = lead + chord
    if tip is not None and curved:
        power = _ROUNDED if tip.shape == "rounded" else 2.0
        share = np.clip((ys - start) / (half - start), 0.0, 1.0)
        left = (1 - share**power) ** (1 / power)
        axis = lead + tip.form_at * chord
        lead, te = axis - (axis - lead) * left, axis + (te - axis) * left
    return Planform(ys, lead, te)


def _traced(surface: TailSurface) -> Planform:
    place = f"tail {surface.id}.outline"
    points = np.array(surface.outline, dtype=float)
    if len(points) < 3:  # noqa: PLR2004  nothing is enclosed
        raise BadInput(place, "needs three points at least")
    far = int(np.argmax(points[:, 1]))
    out, back = points[: far + 1], points[far:][::-1]
    for number, line in ((0, out), (far, back)):
        steps = np.diff(line[:, 1])
        if np.any(steps < -_HAIR):
            at = number + int(np.argmax(steps < -_HAIR))
            raise BadInput(f"{place}[{at}]", "doubles back: a half goes out once and comes in once")
    if out[0, 1] > _HAIR or back[0, 1] > _HAIR:
        raise BadInput(place, "must begin and end in the middle, at y = 0")
    # a square tip is an edge of its own: the trailing edge begins where that ends
    ys = np.union1d(out[:, 1], back[:, 1])
    lead = _along(ys, out)
    te = _along(ys, back)
    front = float(lead[0])
    if np.any(te - lead < -_HAIR):
        raise BadInput(place, "crosses itself: its trailing edge lies ahead of its leading edge")
    return Planform(ys, lead - front, te - front)


def _along(ys: Array, line: Array) -> Array:
    """X at each y along a line that goes out; of two points at one y the one further in counts."""
    _, first = np.unique(line[:, 1], return_index=True)
    kept = line[first]
    return np.asarray(np.interp(ys, kept[:, 1], kept[:, 0]))
