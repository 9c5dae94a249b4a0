"""The outline of a gusset: straight, or with a hollow edge."""

import math
from typing import Final

from hardkeel.base.values import Point2

_ARC_STEPS: Final = 40


def gusset_outline(leg: float, angle: float, *, curved: bool) -> list[Point2]:
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
