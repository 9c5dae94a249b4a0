"""Openings of a tray: a servo's with its pilot holes, a strap's slots; and which tray they are cut in.

Seen from above: (x aft, y to starboard), mm.
"""

import math
from collections.abc import Iterator
from typing import Final

from hardkeel.base.values import Point2
from hardkeel.fuselage.members.kind import kinds_with
from hardkeel.fuselage.model import Fuselage, Member

Ring = tuple[Point2, ...]
_PILOT_OUT_MM: Final = 2.5  # from a servo's opening to its screws, as its lugs have them
_TWO_SCREWS_FROM_MM: Final = 16.0  # wide servos have two screws at each end
_SCREWS_APART: Final = 0.5  # of the width
_STEPS: Final = 24


def rings_of(member: Member) -> tuple[Ring, ...]:
    """Its opening, then its pilot holes; the slots of a strap on both sides."""
    return tuple(_rings(member))


def _rings(member: Member) -> Iterator[Ring]:
    x = member.station or 0.0
    if member.kind == "strap":
        long, broad = (member.width or 0.0) / 2, (member.thickness or 0.0) / 2
        for hand in (-1, 1):
            yield _box((x, hand * abs(member.y)), long, broad)
        return
    long, broad = (member.height or 0.0) / 2, (member.width or 0.0) / 2
    yield _box((x, member.y), long, broad)
    pilot = (member.diameter or 0.0) / 2
    if pilot:
        wide = 2 * broad
        across = (-0.5, 0.5) if wide >= _TWO_SCREWS_FROM_MM else (0.0,)
        for hand in (-1, 1):
            for share in across:
                middle = (
                    x + hand * (long + _PILOT_OUT_MM),
                    member.y + share * _SCREWS_APART * wide,
                )
                yield _circle(middle, pilot)


def tray_of(fuselage: Fuselage, member: Member) -> Member | None:
    """The plate that an opening is cut in: of those over or under its place the nearest in height."""
    if member.station is None:
        return None
    there = [
        one
        for one in fuselage.framed.members
        if one.kind in kinds_with("plate")
        and fuselage.span(one)[0] < member.station < fuselage.span(one)[1]
    ]
    return min(there, key=lambda one: abs(one.z - member.z), default=None)


def openings_in(fuselage: Fuselage, plate: Member) -> tuple[Ring, ...]:
    """All openings that are cut in a plate."""
    return tuple(
        ring
        for member in fuselage.framed.members
        if member.kind in kinds_with("opening") and tray_of(fuselage, member) == plate
        for ring in rings_of(member)
    )


def _box(middle: Point2, long: float, broad: float) -> Ring:
    (x, y) = middle
    return (
        (x - long, y - broad),
        (x + long, y - broad),
        (x + long, y + broad),
        (x - long, y + broad),
    )


def _circle(middle: Point2, radius: float) -> Ring:
    return tuple(
        (
            middle[0] + radius * math.cos(2 * math.pi * i / _STEPS),
            middle[1] + radius * math.sin(2 * math.pi * i / _STEPS),
        )
        for i in range(_STEPS)
    )
