"""Hinges and linkage: what the gap lets through, what must be bevelled, how the servo's arm becomes a throw."""

import math
from dataclasses import dataclass
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2
from hardkeel.tail.kinds.kind import kind_of
from hardkeel.tail.lofting import Profiles, loft_of_tail
from hardkeel.tail.model import Controls, Linkage, TailSurface
from hardkeel.tail.planform import planform_of
from hardkeel.tail.ribs import hinge_x
from hardkeel.tail.stick_frame import frame_thickness

Ring = tuple[Point2, ...]

_SEEN_MM: Final = 0.5  # a step between fin and rudder that shows through the covering
_FEWEST_HINGES: Final = 3
_HINGE_EVERY_MM: Final = 90.0


@dataclass(frozen=True, slots=True)
class HingeStation:
    """The hinge line at one place.

    Attributes
    ----------
    thickness : (float, float)
        Of the fixed and of the moving part there, mm.
    chord : float
        Of the moving part, from the hinge line to its edge.
    bevel_up, bevel_down : float
        How far the moving part's upper face (for the throw up) and lower face are bevelled, degrees.
    edge_up, edge_down : float
        Travel of the trailing edge at the throw wanted, mm.
    taper : float
        Between the faces of the moving part, from the hinge line to its edge, degrees.
    """

    y: float
    x: float
    thickness: tuple[float, float]
    chord: float
    bevel_up: float
    bevel_down: float
    edge_up: float
    edge_down: float
    taper: float


@dataclass(frozen=True, slots=True)
class Throws:
    """What the linkage gives.

    Attributes
    ----------
    degrees : float
        Of the surface, at the servo's whole travel; the smaller of both ways.
    needed : float
        The servo's travel for the larger of the throws that are wanted; ``inf`` where the horn is too long.
    at_horn : float
        How far the edge moves at the horn's place, mm.
    """

    degrees: float
    needed: float
    at_horn: float


def bevel_for(throw: float, gap: float, thickness: float) -> float:
    """The bevel from the hinge line to one face that lets a surface swing so far to that side, degrees.

    The bevelled corner stands at (g/2 + t/2·tan β, −t/2) from the hinge line; turned by the throw it must
    stay behind the other face at −g/2.
    """
    turn, half, room = math.radians(throw), thickness / 2, gap / 2
    needed = (half * math.sin(turn) - room * (1 + math.cos(turn))) / (half * math.cos(turn))
    return max(0.0, math.degrees(math.atan(needed)))


def hinge_cut(station: HingeStation, gap: float, edge: float, long: float) -> tuple[Ring, Ring]:
    """A cut across the hinge line at rest, the fixed part and the moving one: (aft, up) of the line, mm.

    Parameters
    ----------
    gap : float
        Between them.
    edge : float
        How thick the moving part ends.
    long : float
        How much of the fixed part is seen; of the moving one its whole chord, 1.6 times that at the most.
    """
    fixed, moving = station.thickness
    half, g = moving / 2, gap / 2
    up, low = (half * math.tan(math.radians(b)) for b in (station.bevel_up, station.bevel_down))
    end = g + min(station.chord, 1.6 * long)
    taper = math.tan(math.radians(station.taper / 2))
    thin = max(half - (end - g) * taper, edge / 2)
    ahead = ((-long, fixed / 2), (-g, fixed / 2), (-g, -fixed / 2), (-long, -fixed / 2))
    flap = ((g, 0.0), (g + up, half), (end, thin), (end, -thin), (g + low, -half))
    return ahead, flap


def horn_throw(linkage: Linkage, travel: float) -> float:
    """The surface's angle at a servo's angle, degrees; a rod that is long beside arm and horn.

    Raises
    ------
    BadInput
        When the arm is so much longer than the horn that the surface would turn over.
    """
    reach = linkage.servo_arm * math.sin(math.radians(travel)) / linkage.horn
    if abs(reach) > 1:
        raise BadInput(
            "",
            "the servo's arm is longer than the horn can follow: a longer horn, or the next hole in",
        )
    return math.degrees(math.asin(reach))


def travel_needed(linkage: Linkage, throw: float) -> float:
    """The servo's angle for a throw, degrees; ``inf`` where no angle gives it."""
    reach = linkage.horn * math.sin(math.radians(throw)) / linkage.servo_arm
    return math.degrees(math.asin(reach)) if abs(reach) <= 1 else math.inf


def throws_of(surface: TailSurface) -> Throws:
    """What the linkage gives, at the horn's place.

    Raises
    ------
    BadInput
        When there is no hinge line, or the linkage would turn over.
    """
    controls = surface.controls or Controls()
    link = controls.linkage
    degrees = horn_throw(link, link.travel)
    needed = travel_needed(link, max(controls.up, controls.down))
    return Throws(degrees, needed, _chord(surface, abs(link.y)) * math.sin(math.radians(degrees)))


def hinge_stations(surface: TailSurface, profiles: Profiles) -> tuple[HingeStation, ...]:
    """The hinge line at the inner end, in the middle and at the outer end of the moving part.

    Raises
    ------
    BadInput
        When a figure or a section is missing.
    """
    if surface.hinge_at_chord is None:
        return ()
    controls = surface.controls or Controls()
    half = planform_of(surface).half
    outer = _outer(surface, half)
    found = []
    for y in (controls.inner, (controls.inner + outer) / 2, outer):
        x = hinge_x(surface, y) or 0.0
        thick = thickness_at_hinge(surface, profiles, y)
        moving = controls.thickness or thick
        chord = _chord(surface, y)
        found.append(
            HingeStation(
                y,
                x,
                (thick, moving),
                chord,
                bevel_for(controls.up, controls.gap, moving),
                bevel_for(controls.down, controls.gap, moving),
                chord * math.sin(math.radians(controls.up)),
                chord * math.sin(math.radians(controls.down)),
                math.degrees(
                    2 * math.atan2(max(moving - controls.edge, 0.0) / 2, max(chord, 1e-6))
                ),
            )
        )
    return tuple(found)


def thickness_at_hinge(surface: TailSurface, profiles: Profiles, y: float) -> float:
    """Of the fixed part at the hinge line, mm."""
    if surface.kind is None or not kind_of(surface).lofted(surface):
        return frame_thickness(surface)
    rib = loft_of_tail(surface, profiles).rib(y)
    top, low = rib.heights((hinge_x(surface, y) or 0.0) - rib.le_x)
    return float(top - low)


def mismatch_of(surface: TailSurface, profiles: Profiles) -> float:
    """By how much the moving part is thicker than the fixed one at the hinge line, mm; 0 where none shows."""
    stations = hinge_stations(surface, profiles)
    if not stations:
        return 0.0
    fixed, moving = stations[0].thickness
    return moving - fixed if abs(moving - fixed) >= _SEEN_MM else 0.0


def hinge_places(surface: TailSurface) -> tuple[float, ...]:
    """Where hinges go along one half, from the middle, mm: near both ends, and every hand's breadth between."""
    if surface.hinge_at_chord is None:
        return ()
    controls = surface.controls or Controls()
    outer = _outer(surface, planform_of(surface).half)
    length = outer - controls.inner
    inset = min(20.0, length / 6)
    count = max(_FEWEST_HINGES, math.ceil((length - 2 * inset) / _HINGE_EVERY_MM) + 1)
    step = (length - 2 * inset) / (count - 1)
    return tuple(controls.inner + inset + i * step for i in range(count))


def _outer(surface: TailSurface, half: float) -> float:
    """Where the moving part ends: the tip, or where a curved edge runs over the hinge line."""
    steps = 200
    for i in range(steps):
        y = half * (1 - i / steps)
        if _chord(surface, y) > 4.0:  # noqa: PLR2004  less than that is no surface
            return y
    return half


def _chord(surface: TailSurface, y: float) -> float:
    """From the hinge line to the trailing edge, mm."""
    x = hinge_x(surface, y)
    if x is None:
        raise BadInput(f"tail {surface.id}.hinge_at_chord", "is missing: nothing moves")
    return max(float(planform_of(surface).trailing(y)) - x, 0.0)
