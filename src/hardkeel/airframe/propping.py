"""What holds a tail surface while its seat sets: stop blocks on the bench, each as high as the drawing says.

The fuselage stands level on its datum, along and across, on two blocks of its own; the bench lies so far under it that
its lowest point is clear of it.  Airframe axes, mm.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.airframe.bodies import surfaces_of
from hardkeel.airframe.shapes import Surface, VeeHalf
from hardkeel.airframe.tails import thickness_of
from hardkeel.base.errors import BadInput
from hardkeel.fuselage.loft import loft_of
from hardkeel.project.model import Build
from hardkeel.tail.kinds import has
from hardkeel.tail.lofting import loft_of_tail
from hardkeel.tail.model import TailSurface

CLEAR_MM: Final = 12.0  # under the lowest point: room for a padded block
_OUT: Final = 0.85  # of the half span: under the tip, where the surface still has its full rib
_ALONG: Final = 0.4  # of the chord: before most hinge lines
_BEFORE_HINGE: Final = 0.75  # of the way to it where it lies farther ahead
_BLOCKS: Final = (0.2, 0.8)  # of the fuselage's length: where it rests on its two blocks
_LOOKED_AT: Final = 60


@dataclass(frozen=True, slots=True)
class Prop:
    """A block that stands on the bench.

    Attributes
    ----------
    under : str
        ``front`` or ``rear`` of the fuselage, or the surface.
    hand : int
        1 to starboard, -1 to port, 0 in the middle.
    at : (float, float)
        Station, and beside the centre line.
    height : float
        From the bench to the face that rests on it.
    """

    under: str
    hand: int
    at: tuple[float, float]
    height: float


def props_of(build: Build, surface: TailSurface) -> tuple[Prop, ...]:
    """The fuselage's two blocks, then one under each tip of a surface; none for a fin, or one that has no place.

    Raises
    ------
    BadInput
        When a figure or a section is missing.
    """
    fuselage = build.fuselage
    if surface.upright or fuselage is None or len(fuselage.stations) < 2:  # noqa: PLR2004  no loft
        return ()
    tips = tuple(_tips(build, surface))
    if not tips:
        return ()
    loft = loft_of(fuselage)
    first, last = float(loft.stations[0]), float(loft.stations[-1])
    x = np.linspace(first, last, _LOOKED_AT)
    lowest = min(float(np.min(loft.bottom.value(x))), *(z for _, _, _, z in tips))
    bench = lowest - CLEAR_MM
    blocks = [
        Prop(under, 0, (at, 0.0), float(loft.bottom.value(at)) - bench)
        for under, at in zip(
            ("front", "rear"), (first + share * (last - first) for share in _BLOCKS), strict=True
        )
    ]
    under = [Prop(surface.id, hand, (px, y), z - bench) for hand, px, y, z in tips]
    return (*blocks, *under)


def _tips(build: Build, surface: TailSurface) -> Iterator[tuple[int, float, float, float]]:
    """Hand, station, beside the middle, and how high its lower face lies there."""
    along = min(_ALONG, _BEFORE_HINGE * (surface.hinge_at_chord or 1.0))
    for shape in surfaces_of(build):
        if isinstance(shape, Surface) and shape.id == surface.id:
            out = _OUT * shape.span / 2
            for hand in (-1, 1):
                x, y, z = shape.point(hand * out, along)
                yield hand, x, y, z + _under(build, surface, out, along)
        elif isinstance(shape, VeeHalf) and shape.of == surface.id:
            out = _OUT * shape.half
            x, y, z = shape.at(out, along)
            yield 1 if shape.starboard else -1, x, y, z + _under(build, surface, out, along)


def _under(build: Build, surface: TailSurface, out: float, along: float) -> float:
    """How far its lower face lies from the chord line there, mm, less than nothing under it."""
    if surface.root_profile is not None and (surface.kind is None or has(surface, "section")):
        try:
            rib = loft_of_tail(surface, build.profiles).rib(min(out, surface.half))
        except BadInput:  # a section that is not there: as thick as a frame of it
            pass
        else:
            return float(rib.heights(along * rib.chord)[1])
    return -thickness_of(build, surface, out) / 2
