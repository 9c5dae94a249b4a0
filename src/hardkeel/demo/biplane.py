"""A biplane to rig from the bare fuselage: lower wing first, the upper from it by its struts; all made up."""

import math
from functools import cache
from typing import Final

from hardkeel.airframe.starters import start_from
from hardkeel.demo.laid import with_order
from hardkeel.edits import framing as edits
from hardkeel.edits.seats import set_laid, set_seat_kind
from hardkeel.project.model import Build
from hardkeel.survey.model import Body, Contact, Seat
from hardkeel.survey.proposing import EVERY_TOOL

NAME: Final = "Teasel 1100"
# What its parts turn out to be when they are first put together, degrees and mm: the lower wing a little
# up at the leading edge, the upper one not level with it, the stabilizer low to starboard.
TRUTH: Final = {
    "wing": {"dx": 0.3, "dy": 0.4, "dz": 0.2, "roll": 0.2, "pitch": 0.9, "yaw": 0.05},
    "upper_wing": {"dx": -0.4, "dy": 0.3, "dz": -0.5, "roll": 0.9, "pitch": -0.1, "yaw": 0.1},
    "stab": {"dx": 0.2, "dy": -0.3, "dz": 0.1, "roll": -0.9, "pitch": 0.1, "yaw": 0.05},
    "fin": {"dx": 0.1, "dy": 0.1, "roll": 0.1, "yaw": 0.1},
    "bench": {"pitch": 0.4, "roll": -0.3, "z": 88.0},
}
_STRUTS_AT: Final = 0.68  # of the half span
_SPARS: Final = (0.18, 0.66)  # of the chord: where a strut is held


@cache
@with_order
def teasel() -> Build:
    """The bare airframe, nothing measured yet; its gauges measure `TRUTH`."""
    build = edits.frame_as_usual(start_from("biplane", 1100.0, 946.0, NAME))
    build = set_laid(set_seat_kind(build, "wing", "bolts"), "wing")
    survey = build.surveyed
    lower, upper = survey.body("wing"), survey.body("upper_wing")
    rises = math.tan(math.radians(build.wings[0].dihedral))
    bodies = tuple(
        _on_struts(body, lower, rises) if body is upper and lower is not None else body
        for body in survey.bodies
    )
    return build.but(survey=survey.but(bodies=bodies, instruments=EVERY_TOOL), stand_in=TRUTH)


def _on_struts(upper: Body, lower: Body, rises: float) -> Body:
    """The upper wing on four struts that stand on the lower one's spars, which rise by so much for each mm outwards."""
    contacts = []
    for side, sign in (("port", -1.0), ("starboard", 1.0)):
        y = sign * _STRUTS_AT * (upper.span or 0.0) / 2
        for place, share in zip(("front", "rear"), _SPARS, strict=True):
            at = (_along(upper, share), y, upper.origin[2])
            foot = (_along(lower, share), y, lower.origin[2] + abs(y) * rises)
            contacts.append(Contact(id=f"{place}_{side}", at=at, foot=foot))
    return upper.but(seat=Seat(contacts=tuple(contacts), kind="struts"))


def _along(body: Body, share: float) -> float:
    """A station at a share of the chord behind the leading edge."""
    chord = body.chord or 0.0
    return body.origin[0] + (share - 0.5) * chord
