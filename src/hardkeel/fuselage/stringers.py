"""Where a stringer lies, and how long it is."""

import numpy as np

from hardkeel.fuselage.model import Fuselage, Member
from hardkeel.fuselage.running import stringer_places
from hardkeel.geometry.spline import NaturalCubic, arc_lengths


def stringer_length(fuselage: Fuselage, member: Member) -> float | None:
    """The 3-D length of a stringer, through its notches' outer edges as a batten lies; mm."""
    places = stringer_points(fuselage, member)
    if len(places) < 2:  # noqa: PLR2004  nothing between
        return None
    x, y, z = (np.array([place[i] for place in places]) for i in range(3))
    return float(arc_lengths((NaturalCubic(x, y), NaturalCubic(x, z)), x)[-1])


def stringer_points(fuselage: Fuselage, member: Member) -> tuple[tuple[float, float, float], ...]:
    """Where a stringer leaves each former's wood, (x, y, z), mm, on the starboard side."""
    return stringer_places(fuselage.drawn).get(member.id, ())
