"""Outlines and marks of a wing, stabilizer or fin from its figures: one place for both new builds and demo.

Airframe axes, mm.  A surface's corners are leading and trailing edge at each tip; a fin's are at foot
and top.
"""

import math
from dataclasses import dataclass

from hardkeel.base.values import Point
from hardkeel.survey.model import Body, Contact, Mark, Seat


@dataclass(frozen=True, slots=True)
class Surface:
    """A straight-tapered lying surface.

    Attributes
    ----------
    le_x, z : float
        Leading edge at the root, mm.
    sweep : float
        How far aft the tip's leading edge is of the root's, mm.
    dihedral : float
        Degrees.
    seat_width : float
        Across the fuselage, mm.
    """

    id: str
    le_x: float
    z: float
    span: float
    root: float
    tip: float
    sweep: float = 0.0
    dihedral: float = 0.0
    incidence: float = 0.0
    seat_width: float = 50.0
    twist: bool = True

    @property
    def pivot(self) -> Point:
        """Middle of the root chord."""
        return (self.le_x + self.root / 2, 0.0, self.z)

    def corner(self, y: float, *, trailing: bool) -> Point:
        """A point of the leading or trailing edge at y on the true airframe, with its incidence."""
        share = abs(y) / (self.span / 2)
        chord = self.root + share * (self.tip - self.root)
        aft = self.sweep * share + (chord if trailing else 0.0) - self.root / 2
        angle = math.radians(self.incidence)
        return (
            self.le_x + self.root / 2 + aft * math.cos(angle),
            y,
            self.z - aft * math.sin(angle) + abs(y) * math.tan(math.radians(self.dihedral)),
        )


def surface_body(surface: Surface) -> Body:
    """The body with its seat's four contacts and its outline."""
    half, seat = surface.span / 2, surface.seat_width / 2
    contacts = tuple(
        Contact(
            id=f"{front}_{side}",
            at=surface.corner(sign * seat, trailing=front == "rear"),
        )
        for front in ("front", "rear")
        for side, sign in (("port", -1), ("starboard", 1))
    )
    # The drawing's ring: out along the leading edge, back along the trailing edge.
    ys = (-half, 0.0, half)
    ring = [surface.corner(y, trailing=False) for y in ys]
    ring += [surface.corner(y, trailing=True) for y in ys[::-1]]
    return Body(
        id=surface.id,
        pivot=surface.pivot,
        incidence=surface.incidence,
        span=surface.span,
        chord=surface.root,
        twist=surface.twist,
        seat=Seat(contacts=contacts),
        outline=tuple(ring),
    )


def surface_marks(surface: Surface) -> tuple[Mark, ...]:
    """Marks at the four corners and at the middle of both edges."""
    half = surface.span / 2
    corners = tuple(
        Mark(
            id=f"{surface.id}_tip_{short}_{side}",
            body=surface.id,
            at=surface.corner(sign * half, trailing=trailing),
        )
        for trailing, short in ((False, "le"), (True, "te"))
        for side, sign in (("port", -1), ("starboard", 1))
    )
    middles = tuple(
        Mark(
            id=f"{surface.id}_mid_{short}",
            body=surface.id,
            at=surface.corner(0.0, trailing=trailing),
        )
        for trailing, short in ((False, "le"), (True, "te"))
    )
    return corners + middles


@dataclass(frozen=True, slots=True)
class Fin:
    """An upright surface; `le_x` and `z` at its foot, `y` beside the centre line, mm."""

    le_x: float
    z: float
    height: float
    root: float
    tip: float
    sweep: float = 0.0
    id: str = "fin"
    y: float = 0.0


def fin_body(fin: Fin) -> Body:
    """The fin as a body that can yaw and lean; its contacts lie along the foot."""
    pivot = (fin.le_x + fin.root / 2, fin.y, fin.z)
    ring: tuple[Point, ...] = (
        (fin.le_x, fin.y, fin.z),
        (fin.le_x + fin.sweep, fin.y, fin.z + fin.height),
        (fin.le_x + fin.sweep + fin.tip, fin.y, fin.z + fin.height),
        (fin.le_x + fin.root, fin.y, fin.z),
    )
    contacts = tuple(
        Contact(id=place, at=(x, fin.y, fin.z))
        for place, x in (("front", fin.le_x + 5), ("rear", fin.le_x + fin.root - 5))
    )
    return Body(
        id=fin.id,
        pivot=pivot,
        span=fin.height,
        chord=fin.root,
        seat=Seat(contacts=contacts),
        outline=ring,
    )


def fin_marks(fin: Fin) -> tuple[Mark, ...]:
    """Marks at the four corners."""
    top, foot = fin.z + fin.height, fin.z
    places = {
        f"{fin.id}_top_le": (fin.le_x + fin.sweep, top),
        f"{fin.id}_top_te": (fin.le_x + fin.sweep + fin.tip, top),
        f"{fin.id}_foot_le": (fin.le_x, foot),
        f"{fin.id}_foot_te": (fin.le_x + fin.root, foot),
    }
    return tuple(Mark(id=name, body=fin.id, at=(x, fin.y, z)) for name, (x, z) in places.items())
