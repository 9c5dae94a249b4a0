"""The thrust line: where down and side thrust put the bolts, so that the spinner stays on the centre line."""

import math
from dataclasses import dataclass

from hardkeel.base.values import Point
from hardkeel.fuselage.model import Engine, Fuselage


@dataclass(frozen=True, slots=True)
class ThrustLine:
    """A thrust line in airframe axes, mm.

    Attributes
    ----------
    hub : Point
        The propeller's middle, on the centre plane.
    cross : Point
        Where the line meets the firewall: the middle of the bolts.
    forward : Point
        The way that the shaft points, of length 1.
    """

    hub: Point
    cross: Point
    forward: Point

    @property
    def aside(self) -> float:
        """How far the bolts' cross stands off the centre line, to starboard, mm."""
        return self.cross[1]


def firewall_x(fuselage: Fuselage, engine: Engine) -> float | None:
    """Station of the former that the engine is bolted to: the first, a pusher's the last; ``None`` without one."""
    formers = sorted(fuselage.formers, key=lambda former: former.station)
    if not formers:
        return None
    return formers[0].station if engine.reach >= 0 else formers[-1].station


def thrust_line(engine: Engine, x: float) -> ThrustLine:
    """The line of an engine whose firewall stands at x.

    The shaft points along Rz(−side)·Ry(−down)·(−1, 0, 0), the contract's turns; from the hub it is followed back to
    the firewall's plane.
    """
    down, side = math.radians(engine.down), math.radians(engine.side)
    forward = (
        -math.cos(down) * math.cos(side),
        math.cos(down) * math.sin(side),
        -math.sin(down),
    )
    hub = (x - engine.reach, 0.0, engine.z)
    back = (x - hub[0]) / forward[0]
    cross = (x, back * forward[1], engine.z + back * forward[2])
    return ThrustLine(hub, cross, forward)


def thrust_of(fuselage: Fuselage) -> ThrustLine | None:
    """The thrust line of a fuselage; ``None`` without an engine or a former to bolt it to."""
    if fuselage.engine is None:
        return None
    x = firewall_x(fuselage, fuselage.engine)
    return thrust_line(fuselage.engine, x) if x is not None else None
