"""Sheet round shaped sections: where its sides end and its panels begin, how far it is across, what lies inside.

Where no former is shaped nothing of this is asked.  Frame: airframe axes, mm; starboard.
"""

from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np

from hardkeel.fuselage.inside import skins_along
from hardkeel.fuselage.model import Fuselage
from hardkeel.fuselage.surface import (
    EDGES,
    arcs,
    half_width_at,
    is_shaped,
    moved_in,
    surface_of,
)
from hardkeel.geometry.rotation import Array

_LEVEL_MM: Final = 0.01
_MOST_KEPT: Final = 24


@dataclass(frozen=True, slots=True)
class Wrapped:
    """Sheet round the sections at stations; each shape (m,), mm.

    Attributes
    ----------
    low, high : Array
        Heights of the sides' lower and upper edges.
    beneath, above : Array
        Along the contour from the widest line down and up to them.
    belly, deck : Array
        Along it from there to keel and crown: half of a panel's width.
    widest : Array
        Height of the widest line.
    slant_low, slant_high : Array
        Length of those edges from the first of the stations, in space.
    """

    low: Array
    high: Array
    beneath: Array
    above: Array
    belly: Array
    deck: Array
    widest: Array
    slant_low: Array
    slant_high: Array


class Wrap:
    """The sheet round a fuselage, and what lies inside its skins."""

    def __init__(self, fuselage: Fuselage) -> None:
        self._fuselage = fuselage
        self._surface = surface_of(fuselage)
        self._kept: dict[bytes, Wrapped] = {}
        self._inner: dict[bytes, Array] = {}

    def at(self, x: Array) -> Wrapped:
        """How the sheet lies at stations."""
        key = x.tobytes()
        if key not in self._kept:
            if len(self._kept) >= _MOST_KEPT:
                self._kept.clear()
            self._kept[key] = self._wrapped(x)
        return self._kept[key]

    def inside(self, x: Array) -> Array:
        """Starboard contours inside the skins, shape (m, k, 2)."""
        key = x.tobytes()
        if key not in self._inner:
            if len(self._inner) >= _MOST_KEPT:
                self._inner.clear()
            self._inner[key] = moved_in(self._surface.half(x), *skins_along(self._fuselage, x))
        return self._inner[key]

    def half_width(self, x: Array, z: float, thick: float = 0.0) -> Array:
        """Half of what is free inside the skins for something so thick at a height, shape (m,)."""
        rows = self.inside(x)
        heights = {z - thick / 2, z, z + thick / 2}
        found = [half_width_at(rows, np.full(len(x), height)) for height in heights]
        return np.asarray(np.min(found, axis=0))

    def foot(self, x: Array, y: float) -> Array:
        """Height of the skin's inside beneath a distance from the centre line, shape (m,)."""
        lower = np.searchsorted(self._surface.shares, 1.0, side="right")
        half = self._surface.half(x)[:, :lower]
        rows = moved_in(half, *skins_along(self._fuselage, x))
        return np.array([np.interp(abs(y), row[:, 0], row[:, 1]) for row in rows])

    def _wrapped(self, x: Array) -> Wrapped:
        surface = self._surface
        half = surface.half(x)
        arc = arcs(half)
        low, middle, high = (
            np.concatenate([half[:, place], arc[:, [place]]], axis=1)
            for place in np.searchsorted(surface.shares, EDGES[1:4])
        )
        return Wrapped(
            low=low[:, 1],
            high=high[:, 1],
            beneath=middle[:, 2] - low[:, 2],
            above=high[:, 2] - middle[:, 2],
            belly=low[:, 2],
            deck=arc[:, -1] - high[:, 2],
            widest=middle[:, 1],
            slant_low=_length(x, low[:, :2]),
            slant_high=_length(x, high[:, :2]),
        )


def is_wrapped(fuselage: Fuselage) -> bool:
    """Whether any section is other than a box with round corners."""
    return any(one.section is not None or one.outline for one in fuselage.formers)


def wrap_of(fuselage: Fuselage) -> Wrap | None:
    """The sheet round a fuselage; ``None`` where all sections are boxes with round corners.

    Raises
    ------
    BadInput
        When there are fewer than two stations, or an outline crosses itself.
    """
    return _wrap(fuselage.drawn) if is_wrapped(fuselage) else None


def hollow_of(fuselage: Fuselage) -> Wrap | None:
    """What lies inside the skins of a fuselage; ``None`` where all sections are plain boxes.

    Raises
    ------
    BadInput
        As `wrap_of`.
    """
    return _wrap(fuselage.drawn) if is_shaped(fuselage) else None


@lru_cache(maxsize=8)
def _wrap(fuselage: Fuselage) -> Wrap:
    return Wrap(fuselage)


def _length(x: Array, edge: Array) -> Array:
    steps = np.sqrt(np.diff(x) ** 2 + np.sum(np.diff(edge, axis=0) ** 2, axis=1))
    return np.concatenate([[0.0], np.cumsum(steps)])
