"""Outlines and marks of a wing, stabilizer or fin from its figures: one place for both new builds and demo.

Airframe axes, mm.  A surface's corners are leading and trailing edge at each tip; a fin's are at foot
and top.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from hardkeel.balance.model import Break, risen, swept
from hardkeel.base.values import Point
from hardkeel.fuselage.engine import ThrustLine
from hardkeel.fuselage.model import Engine
from hardkeel.geometry.rotation import Array, turns
from hardkeel.survey.model import Body, Contact, Mark, Role, Seat


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
    role: Role | None = None
    breaks: tuple[Break, ...] = ()

    @property
    def pivot(self) -> Point:
        """Middle of the root chord."""
        return (self.le_x + self.root / 2, 0.0, self.z)

    @property
    def inner(self) -> float:
        """How far out the middle goes that stays on, mm: to where panels come off, else to the tip."""
        off = [one.y for one in self.breaks if one.comes_off]
        return min([*off, self.span / 2])

    def chord(self, y: float) -> float:
        """The chord at y, mm."""
        return self.root + abs(y) / (self.span / 2) * (self.tip - self.root)

    def aft(self, y: float) -> float:
        """How far aft the leading edge lies at y of the root's, mm."""
        return swept(self.sweep, self.span / 2, self.breaks, y)

    def corner(self, y: float, *, trailing: bool) -> Point:
        """A point of the leading or trailing edge at y on the true airframe, with its incidence."""
        return self.point(y, 1.0 if trailing else 0.0)

    def point(self, y: float, along: float) -> Point:
        """A point at y and a share of the chord there, on the true airframe."""
        aft = self.aft(y) + along * self.chord(y) - self.root / 2
        angle = math.radians(self.incidence)
        return (
            self.le_x + self.root / 2 + aft * math.cos(angle),
            y,
            self.z - aft * math.sin(angle) + risen(self.dihedral, self.breaks, y),
        )


_JOINER = (0.25, 0.75)  # of the chord: where a panel's joiner and its pin usually sit


def _said(body: Body, role: Role | None) -> Body:
    """With a role that the id does not tell; what it tells is not written."""
    return body.but(role=role) if role is not None else body


def surface_bodies(surface: Surface) -> tuple[Body, ...]:
    """The body with its seat's four contacts and its outline, and a body for each panel that comes off it."""
    half, seat = surface.inner, surface.seat_width / 2
    contacts = tuple(
        Contact(
            id=f"{front}_{side}",
            at=surface.corner(sign * seat, trailing=front == "rear"),
        )
        for front in ("front", "rear")
        for side, sign in (("port", -1), ("starboard", 1))
    )
    # The drawing's ring: out along the leading edge, back along the trailing edge.
    kinks = [one.y for one in surface.breaks if 0 < one.y < half]
    ys = (-half, *(-y for y in kinks[::-1]), 0.0, *kinks, half)
    body = Body(
        id=surface.id,
        pivot=surface.pivot,
        incidence=surface.incidence,
        span=2 * half,
        chord=surface.root,
        twist=surface.twist,
        seat=Seat(contacts=contacts),
        outline=_ring(surface, ys),
    )
    return (_said(body, surface.role), *panel_bodies(surface))


def _ring(surface: Surface, ys: Sequence[float]) -> tuple[Point, ...]:
    ring = [surface.corner(y, trailing=False) for y in ys]
    return (*ring, *(surface.corner(y, trailing=True) for y in ys[::-1]))


def panel_ids(surface_id: str) -> tuple[str, str]:
    """What the outer panels of a wing are called that come off it, port first."""
    return f"{surface_id}_outer_port", f"{surface_id}_outer_starboard"


def panel_bodies(surface: Surface) -> tuple[Body, ...]:
    """The two outer panels where they come off: each turns about its root, rests in it at both ends, its tip propped."""
    y, half = surface.inner, surface.span / 2
    if y == half:
        return ()
    long = half - y
    kinks = [one.y for one in surface.breaks if y < one.y < half]
    found = []
    for name, sign in zip(panel_ids(surface.id), (-1, 1), strict=True):
        places = {
            "front_root": (y, _JOINER[0]),
            "rear_root": (y, _JOINER[1]),
            "tip_prop": (half, 0.5),
        }
        contacts = tuple(
            Contact(id=place, at=surface.point(sign * out, along))
            for place, (out, along) in places.items()
        )
        ring = _ring(surface, [sign * one for one in (y, *kinks, half)])
        found.append(
            Body(
                id=name,
                pivot=surface.point(sign * y, 0.5),
                incidence=surface.incidence,
                span=2 * long,
                chord=surface.chord(y),
                seat=Seat(contacts=contacts, kind="tube"),
                outline=ring,
            )
        )
    return tuple(found)


def surface_marks(surface: Surface) -> tuple[Mark, ...]:
    """Marks at the four corners, where panels meet, and at the middle of both edges.

    A mark beyond where a panel comes off is that panel's, and that has two more at its root.
    """
    half, inner = surface.span / 2, surface.inner
    outer = dict(zip(("port", "starboard"), panel_ids(surface.id), strict=True))

    def both(name: str, y: float, *, panel: bool = False) -> Iterator[Mark]:
        for trailing, short in ((False, "le"), (True, "te")):
            for side, sign in (("port", -1), ("starboard", 1)):
                body = outer[side] if y > inner or panel else surface.id
                at = surface.corner(sign * y, trailing=trailing)
                yield Mark(id=f"{surface.id}_{name}_{short}_{side}", body=body, at=at)

    marks = [*both("tip", half)]
    for number, one in enumerate(surface.breaks, start=1):
        if 0 < one.y < half:
            marks += both(f"break{'' if number == 1 else number}", one.y)
    if inner < half:
        marks += both("root", inner, panel=True)
    return (
        *marks,
        *(
            Mark(
                id=f"{surface.id}_mid_{short}",
                body=surface.id,
                at=surface.corner(0.0, trailing=trailing),
            )
            for trailing, short in ((False, "le"), (True, "te"))
        ),
    )


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
    role: Role | None = None


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
    body = Body(
        id=fin.id,
        pivot=pivot,
        span=fin.height,
        chord=fin.root,
        seat=Seat(contacts=contacts),
        outline=ring,
    )
    return _said(body, fin.role)


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


@dataclass(frozen=True, slots=True)
class VeeHalf:
    """One half of a V, as long as the wood; its root lies on the centre line, mm and degrees.

    Attributes
    ----------
    half : float
        Along the wood.
    starboard : bool
        Which of the two.
    of : str
        The surface that both are halves of.
    seat_width : float
        Across both halves' seats.
    """

    id: str
    le_x: float
    z: float
    half: float
    root: float
    tip: float
    sweep: float
    dihedral: float
    incidence: float
    starboard: bool
    of: str
    seat_width: float = 30.0

    @property
    def whole(self) -> Surface:
        """Both halves as one surface, as it lies on the board."""
        return Surface(
            self.of,
            self.le_x,
            self.z,
            2 * self.half,
            self.root,
            self.tip,
            sweep=self.sweep,
            dihedral=self.dihedral,
            incidence=self.incidence,
            seat_width=self.seat_width,
            role="vee",
        )

    def at(self, out: float, along: float) -> Point:
        """A point `out` mm along the wood and a share of the chord aft, on the true airframe."""
        share = out / self.half
        chord = self.root + share * (self.tip - self.root)
        aft = self.sweep * share + along * chord - self.root / 2
        angle, up = math.radians(self.incidence), math.radians(self.dihedral)
        y = out * math.cos(up)
        return (
            self.le_x + self.root / 2 + aft * math.cos(angle),
            y if self.starboard else -y,
            self.z - aft * math.sin(angle) + out * math.sin(up),
        )


_INNER_MM = 2.0  # of a half's foot from the middle: there the halves meet


def vee_body(half: VeeHalf) -> Body:
    """A half of a V: it rests on its foot at both ends, and on a prop under its tip until the glue holds."""
    contacts = tuple(
        Contact(id=name, at=half.at(out, share))
        for name, out, share in (
            ("front_root", _INNER_MM, 0.05),
            ("rear_root", _INNER_MM, 0.95),
            ("tip_prop", half.half, 0.5),
        )
    )
    ring = [half.at(0.0, 0.0), half.at(half.half, 0.0), half.at(half.half, 1.0), half.at(0.0, 1.0)]
    return Body(
        id=half.id,
        role="vee",
        pivot=(half.le_x + half.root / 2, 0.0, half.z),
        incidence=half.incidence,
        span=2 * half.half,
        chord=half.root,
        seat=Seat(contacts=contacts),
        outline=tuple(ring),
    )


def vee_marks(half: VeeHalf) -> tuple[Mark, ...]:
    """Marks at the tip's corners and at the seat's outer ends."""
    out = min(max(half.seat_width / 2, 3 * _INNER_MM), half.half)
    places = {
        "tip_le": (half.half, 0.0),
        "tip_te": (half.half, 1.0),
        "root_le": (out, 0.0),
        "root_te": (out, 1.0),
    }
    return tuple(
        Mark(id=f"{half.id}_{name}", body=half.id, at=half.at(*place))
        for name, place in places.items()
    )


def thrust_body(engine: Engine, line: ThrustLine) -> Body:
    """The engine: its pivot where the thrust line meets the firewall, its contacts the bolts."""
    across, up = (size / 2 for size in engine.bolts)
    x, y, z = line.cross
    contacts = tuple(
        Contact(id=f"{high}_{side}", at=(x, y + sign * across, z + rise * up))
        for high, rise in (("upper", 1), ("lower", -1))
        for side, sign in (("port", -1), ("starboard", 1))
    )
    return Body(
        id="thrust",
        role="thrust",
        pivot=line.cross,
        incidence=-engine.down,
        yaw=-engine.side,
        span=engine.disc,
        chord=abs(engine.reach) or engine.disc,
        seat=Seat(contacts=contacts, kind="firewall"),
        outline=tuple(_disc(engine, line)),
    )


def _disc(engine: Engine, line: ThrustLine) -> Iterator[Point]:
    """The propeller's tips all round."""
    turn = turns([(0.0, -engine.down, -engine.side)])[0][0]
    for i in range(_DISC_POINTS):
        angle = 2 * math.pi * i / _DISC_POINTS
        half = engine.disc / 2
        yield _beside(line.hub, turn, half * math.cos(angle), half * math.sin(angle))


_DISC_POINTS = 16


def thrust_marks(engine: Engine, line: ThrustLine) -> tuple[Mark, ...]:
    """The propeller's middle, its tips held level, and its tips held upright."""
    turn = turns([(0.0, -engine.down, -engine.side)])[0][0]
    half = engine.disc / 2
    places = {
        "hub": (0.0, 0.0),
        "tip_port": (-half, 0.0),
        "tip_starboard": (half, 0.0),
        "tip_top": (0.0, half),
        "tip_bottom": (0.0, -half),
    }
    return tuple(
        Mark(id=f"prop_{name}", body="thrust", at=_beside(line.hub, turn, y, z))
        for name, (y, z) in places.items()
    )


def _beside(hub: Point, turn: Array, y: float, z: float) -> Point:
    x0, y0, z0 = (float(a + b) for a, b in zip(hub, turn @ (0.0, y, z), strict=True))
    return (x0, y0, z0)
