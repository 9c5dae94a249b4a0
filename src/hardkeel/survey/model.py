"""Bodies, marks and readings: the values that a survey is made of.

Lengths in mm, angles in degrees, airframe axes: x aft, y starboard, z up.
"""

import math
from datetime import datetime
from typing import Annotated, Final, Literal

from pydantic import Field, field_validator

from hardkeel.base.values import (
    Place,
    Point,
    Positive,
    Size,
    Slope,
    Text,
    Value,
)
from hardkeel.survey.priors import Shared, SquaredTo
from hardkeel.survey.readings import AirframeReading, Observation, Reading, Sight

Role = Literal["wing", "stabilizer", "foreplane", "fin", "vee", "thrust"]
Verdict = Literal["true", "out", "unsure"]

FUSELAGE: Final = "fuselage"


class Contact(Value):
    """A place where a body sits on the fuselage, `at` on a true airframe (airframe axes, mm).

    Attributes
    ----------
    foot : Point, optional
        Where the other end of a strut is held; our own addition to the file.
    """

    id: Text
    at: Point
    label: str | None = None
    foot: Point | None = None


WIDEST_GAP_MM: Final = 50.0
GapPlace = Literal["le", "spar", "te"]
PanelSide = Literal["port", "starboard"]


class GapRead(Value):
    """How far a panel's root stands off the fuselage side at one place, mm; our own addition to the file."""

    side: PanelSide
    at: GapPlace
    mm: Annotated[float, Field(ge=0, le=WIDEST_GAP_MM, allow_inf_nan=False)]


SeatKind = Literal["saddle", "bands", "bolts", "slot", "tube", "struts", "cabane", "firewall"]


Share = Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)]


PROP: Final = "tip_prop"  # the contact of what is held by a prop under its tip


class Struts(Value):
    """Where the struts of a wing meet it, and what they stand on; both sides alike.  Our own addition to the file.

    Attributes
    ----------
    out, foot_out : float
        Beside the middle, on the wing and at the feet, mm.
    front, rear : float
        Shares of the chord there; the feet stand under them.
    foot_z : float
        Height of the feet, mm.
    end : float
        From a strut's hole to its end, mm.
    """

    out: Positive
    front: Share = 0.18
    rear: Share = 0.66
    foot_out: Annotated[float, Field(ge=0, allow_inf_nan=False)]
    foot_z: Annotated[float, Field(allow_inf_nan=False)]
    end: Positive = 6.0


class Laid(Value):
    """Where a wing or stabilizer is held, both sides alike: bolts, tube and pin, legs, corners.  Our own addition.

    Attributes
    ----------
    out : float
        Beside the middle, mm.
    front, rear : float
        Shares of the chord there.
    said : bool
        The builder said so; before that it is only where such things usually are.
    """

    out: Positive
    front: Share = 0.0
    rear: Share = 1.0
    said: bool = False


class Seat(Value):
    """The contacts on which a body rests.

    Attributes
    ----------
    kind : str
        What the seat can do: a saddle is packed and sanded, under rubber bands or bolts too; a slot's edges
        are opened and packed; a tube's or dowel's hole is opened and filled; struts are made longer or
        shorter; a cabane takes whole washers; an engine's firewall is packed along x.  Our own addition to the file.
    gaps : tuple of GapRead
        What was read between root and fuselage side.
    struts : Struts, optional
        Where its struts were said to be: the contacts follow from it.
    laid : Laid, optional
        The same of any other seat.
    """

    contacts: tuple[Contact, ...] = ()
    kind: SeatKind = "saddle"
    gaps: tuple[GapRead, ...] = ()
    struts: Struts | None = None
    laid: Laid | None = None


class Body(Value):
    """A rigid part with six unknowns, and two more where it may be twisted.

    Attributes
    ----------
    pivot : Point
        The point about which its rotations turn, airframe axes, mm.  The fuselage needs none.
    incidence, yaw : float
        As designed, degrees; marks and contacts stand so.
    outline : tuple of Point
        Its edge on a true airframe, for drawings only; our own addition to the file.
    racks : bool
        A former's: it may be pushed out of square in its own plane; only where a frame is squared.
    role : str, optional
        What it is, whatever it is called; without it the id tells (`role_of`).
    """

    id: Text
    pivot: Point | None = None
    incidence: Slope = 0.0
    yaw: Slope = 0.0
    span: Size | None = None
    chord: Size | None = None
    twist: bool = False
    seat: Seat | None = None
    label: str | None = None
    outline: tuple[Point, ...] = ()
    racks: bool = False
    role: Role | None = None

    @property
    def origin(self) -> Point:
        """The pivot, or the datum for a body without one."""
        return self.pivot or (0.0, 0.0, 0.0)


class Mark(Value):
    """A point of a body that can be found again: a pin, a corner, a line's end.

    Attributes
    ----------
    label : str, optional
        What the builder calls it; without one its name follows from its id.
    former : str, optional
        Id of the former that it is at, where that is how it is found.
    """

    id: Text
    body: Text
    at: Point
    label: str | None = None
    former: Text | None = None


InstrumentKind = Literal[
    "tape",
    "line",
    "trammel",
    "height-stand",
    "stand-pair",
    "incidence-gauge",
    "level",
    "digital-level",
    "water-level",
    "square",
    "laser",
    "eye",
]


class Instrument(Value):
    """A tool that the builder owns; our own addition to the file.

    Attributes
    ----------
    sigma : float, optional
        What it is counted as, mm or degrees as it shows them.
    distance : float, optional
        mm from which the eye sights an edge.
    resolution : float, optional
        Degrees between two figures that a digital level can show.
    """

    id: Text
    kind: InstrumentKind
    label: str | None = None
    sigma: Positive | None = None
    distance: Positive | None = None
    resolution: Positive | None = None


# finer than a hand can work, or coarser than any shim, is a slip
Step = Annotated[float, Field(ge=0.001, le=20, allow_inf_nan=False)]


class Shop(Value):
    """How finely the builder can correct, mm; our own addition to the file.

    Attributes
    ----------
    stroke : float
        What one stroke of a file takes off an edge.
    washer : float
        How thick a washer is.
    """

    shim_step: Step = 0.1
    sand_step: Step = 0.2
    stroke: Step = 0.1
    washer: Step = 0.5


RUDDER: Final = (
    "rudder"  # hung last; no body, since it is trued by its hinge line, but it can be locked
)
DATUM: Final = "datum"  # what a body aims at unless the survey says another


BackTo = Literal["dry", "true"]


class Gluing(Value):
    """What the glue holds: wet and cured readings lean on the dry ones, but for this body.

    Attributes
    ----------
    mixed : str, optional
        When the glue was mixed, ISO time; our own addition to the file, like `pot_life`.
    pot_life : float, optional
        How long it can be worked, minutes: by the maker's sheet, at this evening's temperature.
    back_to : str
        Where what has moved is brought back to: how it stood dry, or true; our own addition too.
    """

    body: Text
    mixed: str | None = None
    pot_life: Positive | None = None
    back_to: BackTo = "dry"

    @field_validator("mixed")
    @classmethod
    def _is_iso_time(cls, text: str | None) -> str | None:
        if text is not None:
            datetime.fromisoformat(text)
        return text

    def minutes_left(self, now: datetime) -> float | None:
        """Minutes until the pot life is over; less than nothing afterwards, ``None`` before it was mixed."""
        if self.mixed is None or self.pot_life is None:
            return None
        mixed = datetime.fromisoformat(self.mixed)
        if (mixed.tzinfo is None) != (now.tzinfo is None):
            mixed, now = mixed.replace(tzinfo=None), now.replace(tzinfo=None)
        return self.pot_life - (now - mixed).total_seconds() / 60


Pixels = Annotated[int, Field(gt=0, le=100_000)]


class Photo(Value):
    """A picture in which marks are sighted.

    Attributes
    ----------
    image : str
        Its place in the build's file: ``photos/p1.jpg``.
    size : (int, int)
        Width and height in pixels, turned as its EXIF says and never cropped.
    focal : float, optional
        Focal length in pixels, as the camera said.
    focal_sigma : float, optional
        Of its logarithm; without it the contract's for a photograph that was clicked in.  Our own addition.
    original : str, optional
        SHA-256 of the file that it came from; our own addition to the file.
    unseen : tuple of str
        Marks that can't be seen in it; our own addition too.
    """

    id: Text
    image: Text
    size: tuple[Pixels, Pixels]
    focal: Positive | None = None
    focal_sigma: Positive | None = None
    original: str | None = None
    unseen: tuple[Text, ...] = ()


# begins the id of a mark that is there for its target alone: hands do not read it
OWN_TARGET: Final = "target_"


Way = Literal["middle", "corner", "flag", "foot"]


class LaidBy(Value):
    """How a target is laid by a mark that it does not lie on; our own addition to the file.

    Attributes
    ----------
    mark : str
        The one that it is laid by.
    way : str
        Its ``middle`` over the mark, its ``corner`` on it, a ``flag`` beyond the edge, a ``foot`` that hangs from it.
    over : float
        How far its face lies over the mark, mm.
    """

    mark: Text
    way: Way
    over: Place = 0.0


class Target(Value):
    """A printed code on a mark, so that a photograph tells which it is and where.

    Attributes
    ----------
    code : int
        Of the dictionary, 0 to 99.
    normal : (float, float, float), optional
        Out of its face, body axes; without it up, on a fin to starboard.
    by : LaidBy, optional
        How it is laid by another mark, where it is.
    """

    code: Annotated[int, Field(ge=0, le=99)]
    mark: Text
    normal: Point | None = None
    by: LaidBy | None = None


class Survey(Value):
    """Everything that was measured, and on what.

    Attributes
    ----------
    photos : tuple of Photo
        Pictures in which marks were sighted.
    aim : mapping of str to str, optional
        What a body is to be true to: another body as it stands, or the datum.
    locked : tuple of str
        Bodies that are glued and move no more: no advice asks it of them.  Our own addition to the file, like
        `locked_at`.
    locked_at : mapping of str to str, optional
        When each of them was locked, ISO time: what is read later is held against that claim.
    shared : Shared, optional
        What readings may have in common; without it each errs by itself.
    squared_to : str
        What stabilizer and fin are set square to where the tail bends: the ``fore`` part, or the ``line`` from
        nose to tail.  Our own addition to the file.
    targets : tuple of Target
        Which printed code sits on which mark.
    target_size : float, optional
        The side of their black square, mm.
    """

    bodies: tuple[Body, ...] = ()
    marks: tuple[Mark, ...] = ()
    readings: tuple[AirframeReading, ...] = ()
    tolerances: dict[str, Positive] | None = None
    instruments: tuple[Instrument, ...] | None = None
    shop: Shop | None = None
    gluing: Gluing | None = None
    aim: dict[str, Text] | None = None
    locked: tuple[Text, ...] = ()
    locked_at: dict[str, str] | None = None
    photos: tuple[Photo, ...] = ()
    shared: Shared | None = None
    squared_to: SquaredTo = "fore"
    targets: tuple[Target, ...] = ()
    target_size: Positive | None = None

    @field_validator("locked_at")
    @classmethod
    def _are_iso_times(cls, dates: dict[str, str] | None) -> dict[str, str] | None:
        for moment in (dates or {}).values():
            datetime.fromisoformat(moment)
        return dates

    @property
    def figures(self) -> tuple[Reading, ...]:
        """The readings that are one figure each."""
        return tuple(one for one in self.readings if not isinstance(one, Sight))

    @property
    def sightings(self) -> tuple[Sight, ...]:
        """The readings that are marks seen in photos."""
        return tuple(one for one in self.readings if isinstance(one, Sight))

    def photo(self, photo_id: str) -> Photo | None:
        """The photo with this id."""
        return next((photo for photo in self.photos if photo.id == photo_id), None)

    def body(self, body_id: str) -> Body | None:
        """The body with this id; the fuselage is there even where the file does not name it."""
        for body in self.bodies:
            if body.id == body_id:
                return body
        return Body(id=FUSELAGE) if body_id == FUSELAGE else None

    def normal_of(self, target: Target) -> Point:
        """Out of a target's face: as the file has it, else up, of one on a fin to starboard; unit length, body axes."""
        if target.normal is not None:
            length = math.sqrt(sum(one * one for one in target.normal))
            x, y, z = (one / length for one in target.normal)
            return x, y, z
        mark = self.mark(target.mark)
        body = self.body(mark.body) if mark is not None else None
        return (0.0, 1.0, 0.0) if body is not None and role_of(body) == "fin" else (0.0, 0.0, 1.0)

    def mark(self, mark_id: str) -> Mark | None:
        """The mark with this id."""
        return next((mark for mark in self.marks if mark.id == mark_id), None)

    def reading(self, reading_id: str) -> Reading | None:
        """The figure with this id; a sighting is no figure."""
        return next((reading for reading in self.figures if reading.id == reading_id), None)

    def sighting(self, reading_id: str) -> Sight | None:
        """The sighting with this id."""
        return next((one for one in self.sightings if one.id == reading_id), None)


_BEGINNINGS: Final[tuple[tuple[str, Role], ...]] = (
    ("stab", "stabilizer"),
    ("fin", "fin"),
    ("canard", "foreplane"),
    ("foreplane", "foreplane"),
    ("vee", "vee"),
    ("thrust", "thrust"),
)


def role_of(body: Body) -> Role | None:
    """What a body is: as the file says, else as its id begins, else a wing; ``None`` for the fuselage."""
    if body.role is not None or body.id == FUSELAGE:
        return body.role
    return role_by_id(body.id)


def role_by_id(name: str) -> Role:
    """What something is of which only its id tells: by how that begins, else a wing."""
    return next((role for start, role in _BEGINNINGS if name.startswith(start)), "wing")


def contacts_of(body: Body) -> tuple[Contact, ...]:
    """The contacts of its seat; none where it has no seat."""
    return body.seat.contacts if body.seat is not None else ()


def bodies_of(survey: Survey, reading: Observation) -> set[str]:
    """Ids of the bodies that a reading touches; a mark that the survey lacks touches none."""
    if reading.hung_on is not None:
        return {reading.hung_on}
    marks = {mark for _, mark in reading.ends}
    return {mark.body for mark in survey.marks if mark.id in marks}


def is_since(moment: str, taken: str | None) -> bool:
    """Whether something was read at a moment or later, both ISO times; not where nobody knows when it was read."""
    if taken is None:
        return False
    then, now = datetime.fromisoformat(moment), datetime.fromisoformat(taken)
    if (then.tzinfo is None) != (now.tzinfo is None):
        then, now = then.replace(tzinfo=None), now.replace(tzinfo=None)
    return now >= then
