"""The hull from former to former as flat walls and straight corner lines: what a camera sees of it."""

from itertools import pairwise
from typing import Final

import numpy as np

from hardkeel.fuselage.model import Fuselage
from hardkeel.geometry.rotation import Array

_UNDER_MM: Final = 0.8  # walls lie this far inside, so that a mark on the skin is not behind it


def rings_of(fuselage: Fuselage | None, inside: float = 0.0) -> tuple[Array, ...]:
    """The four corners at each former and the tail post, forward first.

    Parameters
    ----------
    inside : float
        mm that they lie inside of the outer skin.

    Returns
    -------
    tuple of Array
        Shape (4, 3), mm: bottom port, bottom starboard, top starboard, top port; none where nothing is drawn.
    """
    if fuselage is None:
        return ()
    return tuple(
        np.array(
            [
                (stop.station, side * (stop.half_width - inside), height)
                for side, height in (
                    (-1, stop.bottom + inside),
                    (1, stop.bottom + inside),
                    (1, stop.top - inside),
                    (-1, stop.top - inside),
                )
            ]
        )
        for _, stop in fuselage.stations
    )


def hull_of(fuselage: Fuselage | None) -> tuple[Array, ...]:
    """The walls from former to former and both ends, each shape (4, 3), mm; none where nothing is drawn."""
    rings = rings_of(fuselage, _UNDER_MM)
    walls = [
        np.array([one[i], one[(i + 1) % 4], other[(i + 1) % 4], other[i]])
        for one, other in pairwise(rings)
        for i in range(4)
    ]
    return (*([rings[0], rings[-1]] if rings else []), *walls)


def corner_lines(fuselage: Fuselage | None) -> tuple[Array, ...]:
    """The four corners from nose to tail, each shape (k, 3), mm; none where nothing is drawn."""
    rings = rings_of(fuselage)
    return tuple(np.array([ring[i] for ring in rings]) for i in range(4)) if rings else ()
