"""Gussets in the free corners of open bays: the corner's true angle, straight or with a hollow edge."""

import math
from collections.abc import Iterator
from typing import Final

from hardkeel.base.values import Point2
from hardkeel.fuselage.flat import FlatPiece, ring_of
from hardkeel.fuselage.model import Fuselage, Member
from hardkeel.fuselage.sticks import Corner, free_corners_of

_ARC_STEPS: Final = 40


def gussets_of(fuselage: Fuselage) -> tuple[FlatPiece, ...]:
    """One piece for each free corner, to be cut once for each side; alike on both, for they show.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    members = [member for member in fuselage.framed.members if member.kind == "gusset"]
    if not members:
        return ()
    corners = free_corners_of(fuselage)
    return tuple(piece for member in members for piece in _of(fuselage, member, corners))


def _of(fuselage: Fuselage, member: Member, corners: tuple[Corner, ...]) -> Iterator[FlatPiece]:
    first, last = fuselage.span(member)
    station = {name: stop.station for name, stop in fuselage.stops}
    leg = member.width or 0.0
    number = 0
    for corner in corners:
        if not first <= station[corner.before] < last:
            continue
        reach = min(leg, corner.along / 2, corner.up / 2)  # two in one bay do not meet
        outline = ring_of(_shape(reach, corner.angle, curved=member.curved))
        if not outline:
            continue
        number += 1
        yield FlatPiece(
            name=f"{member.id} {number}",
            kind="gusset",
            part=member.id,
            outline=outline,
            thickness=member.thickness or 0.0,
            material=member.material,
            quantity=2,
            pair=True,
            grain="any",
        )


def _shape(leg: float, angle: float, *, curved: bool) -> list[Point2]:
    """A corner of `angle` degrees with legs of one length; hollow along a circle that touches both legs."""
    way = math.radians(angle)
    far = (leg * math.cos(way), leg * math.sin(way))
    if not curved:
        return [(0.0, 0.0), (leg, 0.0), far]
    # the circle touches each leg at its end: its middle lies on the corner's bisector
    radius = leg * math.tan(way / 2)
    middle = (leg, radius)
    start = math.atan2(-radius, 0.0)
    sweep = -(math.pi - way)
    arc = [
        (
            middle[0] + radius * math.cos(start + sweep * i / _ARC_STEPS),
            middle[1] + radius * math.sin(start + sweep * i / _ARC_STEPS),
        )
        for i in range(_ARC_STEPS + 1)
    ]
    return [(0.0, 0.0), *arc]
