"""Angles at which ends are chamfered: tail post and rear blocks, and longerons that leave a sheet side."""

import math
from dataclasses import dataclass

from hardkeel.fuselage.loft import Loft, loft_of
from hardkeel.fuselage.methods import sections_with
from hardkeel.fuselage.model import TAIL_POST, Fuselage


@dataclass(frozen=True, slots=True)
class PostChamfer:
    """The last stop, degrees from square; positive where the fuselage closes in going aft.

    Attributes
    ----------
    sides : float
        Each side face of the post, and of rear blocks between the sides.
    top, bottom : float
        Its ends under and over the skins.
    half_width_ahead : float
        Half of its width at 10 mm ahead of its station, mm: what the post is planed from.
    """

    stop: str
    sides: float
    top: float
    bottom: float
    half_width_ahead: float


@dataclass(frozen=True, slots=True)
class LeavingLongeron:
    """A longeron where it leaves a sheet side and goes on as the frame's outside.

    Attributes
    ----------
    in_plan, in_side : float
        Degrees between it and the datum line, from above and from the side.
    mitre, bevel : float
        For its cut across, flat on a former that stands square: with the stick flat on the saw's table,
        how far the blade is swung from square and how far it is tilted.
    notch : float
        How deep it is let in so that it comes out to the side's outside, mm.
    """

    longeron: str
    stop: str
    in_plan: float
    in_side: float
    mitre: float
    bevel: float
    notch: float


_AHEAD_MM = 10.0


def post_chamfer_of(fuselage: Fuselage) -> PostChamfer | None:
    """The tail post's, or ``None`` where the fuselage has none.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    if fuselage.tail_post is None:
        return None
    loft, x = loft_of(fuselage), fuselage.tail_post.station
    return PostChamfer(
        TAIL_POST,
        -_slope(loft, "half_width", x),
        -_slope(loft, "top", x),
        _slope(loft, "bottom", x),
        float(loft.half_width.value(x - _AHEAD_MM)) - fuselage.side_thickness,
    )


def leaving_longerons_of(fuselage: Fuselage) -> tuple[LeavingLongeron, ...]:
    """Every longeron at every place where a sheet side ends and sticks go on.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    loft = loft_of(fuselage)
    stations = dict(fuselage.stations)
    begins = {one.from_ for one in sections_with(fuselage, "sticks")}
    found: list[LeavingLongeron] = []
    for section in sections_with(fuselage, "sheet"):
        if section.to not in begins:
            continue
        x = stations[section.to].station
        plan = _slope(loft, "half_width", x)
        for longeron in fuselage.longerons:
            side = _slope(loft, "bottom" if longeron.is_lower else "top", x)
            mitre, bevel = _saw(math.radians(plan), math.radians(side))
            found.append(
                LeavingLongeron(
                    longeron.id, section.to, plan, side, mitre, bevel, fuselage.side_thickness
                )
            )
    return tuple(found)


def _saw(plan: float, side: float) -> tuple[float, float]:
    """Swing and tilt, degrees, of a blade that cuts a stick along (1, tan plan, tan side) square to x."""
    rise = math.atan(math.tan(side) * math.cos(plan))  # over the stick's own run
    swing = math.atan2(math.sin(plan), math.cos(plan) * math.cos(rise))
    return math.degrees(swing), math.degrees(math.asin(math.cos(plan) * math.sin(rise)))


def _slope(loft: Loft, line: str, x: float) -> float:
    return math.degrees(math.atan(float(loft.line(line).slope(x))))  # type: ignore[arg-type]
