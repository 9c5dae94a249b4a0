"""What a fuselage is made of, as the file holds it.

Lengths in mm; half-widths, bottoms and tops are to the outside of the finished airframe.
"""

import re
from typing import Annotated, Final, Literal, Self

from pydantic import Field

from hardkeel.base.values import (
    HalfWidth,
    Incidence,
    Place,
    Point2,
    Positive,
    Size,
    SizeOrZero,
    Skin,
    SmallGap,
    Station,
    Stick,
    Text,
    Thickness,
    Upward,
    Usual,
    Value,
)
from hardkeel.joinery.cut_part import Stock
from hardkeel.survey.model import Photo, Target
from hardkeel.survey.priors import Shared
from hardkeel.survey.readings import AnyReading, Reading, Sight

Method = Literal["sheet-sides", "on-side", "stick-sides", "crutch", "board", "half-shell"]
METHODS: Final[tuple[Method, ...]] = (
    "sheet-sides",
    "on-side",
    "stick-sides",
    "crutch",
    "board",
    "half-shell",
)
CutOutKind = Literal["battery", "tank", "hatch", "hole"]
TAIL_POST: Final = "tail_post"
MOST_FORMERS: Final = 200  # each is lofted, cut and drawn at full size; a model has a dozen or two
MOST_MEMBERS: Final = 200
MemberKind = Literal[
    "doubler",
    "tail-doubler",
    "corner-strip",
    "crutch",
    "stringer",
    "keel",
    "wire",
    "rod",
    "bearer",
    "dowel-plate",
    "undercarriage-plate",
    "servo-tray",
    "battery-tray",
    "hatch-frame",
    "key",
    "gusset",
    "nose-block",
    "canopy",
    "guide",
    "servo",
    "strap",
    "bolt",
    "tail-bracket",
]


_LOWER_WORDS: Final = frozenset({"lower", "bottom", "low", "belly", "keel", "under", "underside"})


class CutOut(Value):
    """A hole in a former: a pack's passage, a tank's circle, a hatch open to the top.

    Attributes
    ----------
    width, height : float
        mm; a tank's hole is an ellipse in them.
    y, z : float
        Its middle, airframe axes, mm.
    """

    id: Text
    kind: CutOutKind = "hole"
    width: Size
    height: Size
    y: Place = 0.0
    z: Upward = 0.0


class Template(Value):
    """What was measured on the template that does not fit, mm to the outside; our own key."""

    half_width: HalfWidth
    bottom: Upward
    top: Upward


Exponent = Annotated[float, Field(ge=1, le=50, allow_inf_nan=False)]


class SectionShape(Value):
    """A round section: |y/half|ⁿ + |(z − widest)/tall|ⁿ = 1, with exponents of its own above and below; or flat sides.

    Attributes
    ----------
    kind : {"superellipse", "flat-sides"}
        The second is our own: upright sides with a round deck above and a round belly below.
    widest : float, optional
        Height of a superellipse's widest line, mm; without it the middle.
    top, bottom : float
        Exponents of a superellipse: 1 is a diamond, 2 an ellipse, large a box.
    deck, belly : float
        How far the crown lies above the sides' upper edges, and the keel below their lower ones, mm; 0 is flat.
    """

    kind: Literal["superellipse", "flat-sides"] = "superellipse"
    widest: Upward | None = None
    top: Exponent = 2.0
    bottom: Exponent = 2.0
    deck: Annotated[SizeOrZero, Usual(0, 300)] = 0.0
    belly: Annotated[SizeOrZero, Usual(0, 300)] = 0.0


Line = Literal["half_width", "top", "bottom"]


class Former(Value):
    """A former at a station.

    Attributes
    ----------
    corner : float
        Radius of its outer corners, mm; our own key, like the rest below.
    lightened : bool
        Whether lightening holes are wanted.
    section : SectionShape, optional
        Its shape, where it is neither a box with round corners nor drawn.
    outline : tuple of (y, z)
        Its own outer shape, where it is not a box with round corners.
    deck_apart : bool
        What stands over flat sides' upper edge is a piece of its own, glued on when the box stands.
    split : bool
        Cut on its centre line, so that the tail can be closed in the jig and the halves glued last.
    sticks : (float, float), optional
        Built of sticks instead of cut from sheet: how wide as seen from ahead, and how deep, mm.
    joint : {"butt", "lap"}
        How the corners of one built of sticks meet.
    line_corners : tuple of {"half_width", "top", "bottom"}
        Lines that have a corner here, as a windscreen's foot: no curve goes through.
    """

    id: Text
    station: Station
    bottom: Upward
    top: Upward
    half_width: HalfWidth
    thickness: Thickness | None = None
    material: str | None = None
    corner: Annotated[SizeOrZero, Usual(0, 300)] = 0.0
    cutouts: tuple[CutOut, ...] = ()
    lightened: bool = False
    section: SectionShape | None = None
    outline: tuple[Point2, ...] = ()
    template: Template | None = None
    deck_apart: bool = False
    split: bool = False
    sticks: tuple[Stick, Stick] | None = None
    joint: Literal["butt", "lap"] = "butt"
    line_corners: tuple[Line, ...] = ()


class TailPost(Value):
    """Where the sides close, mm."""

    station: Station
    bottom: Upward
    top: Upward
    half_width: HalfWidth


class Engine(Value):
    """Where the thrust line lies, and what it is bolted to; our own addition to the file.

    Attributes
    ----------
    down, side : float
        Down thrust and side thrust to starboard, degrees.
    z : float
        Height of the propeller's middle, which stays on the centre line, mm.
    reach : float
        From the firewall's face forward to the propeller, mm; aft for a pusher's, less than nothing.
    disc : float
        Diameter of the propeller, mm.
    bolts : (float, float)
        Between the bolts that hold it, across and up, mm.
    """

    down: Incidence = 0.0
    side: Incidence = 0.0
    z: Upward = 0.0
    reach: Annotated[Place, Usual(-400, 400)] = 60.0
    disc: Annotated[Size, Usual(60, 800)] = 230.0
    bolts: tuple[Size, Size] = (40.0, 40.0)


class Section(Value):
    """How a stretch from one station to another is built."""

    from_: Text = Field(alias="from")
    to: Text
    method: Method


class Longeron(Value):
    """A stick along all stations; `section` is (across the side, as seen in side view), mm."""

    id: Text
    section: tuple[Stick, Stick]
    material: str | None = None

    @property
    def is_lower(self) -> bool:
        """Whether it runs along the bottom line; by what builders call it."""
        words = set(re.split(r"[^a-z]+", self.id.casefold()))
        return bool(words & _LOWER_WORDS)


class Bracing(Value):
    """Uprights and diagonals of stick sides, sections in mm."""

    upright: tuple[Stick, Stick] | None = None
    diagonal: tuple[Stick, Stick] | None = None
    pattern: Literal["zigzag", "crossed", "none"] = "zigzag"


class Board(Value):
    """The building board, `z` in airframe axes, mm.

    Attributes
    ----------
    tacked : bool
        Its spacers are sacrificial blocks, tacked to glass or board with a drop of glue and broken off; our own key.
    length : float, optional
        Of the board, mm; without it it is long enough. Our own key.
    """

    z: Upward = 0.0
    inverted: bool = False
    tacked: bool = False
    length: Annotated[Size, Usual(150, 3000)] | None = None


class Member(Value):
    """What a fuselage is framed of beside formers, sides, longerons and sticks; our own key.

    Attributes
    ----------
    from_, to : str, optional
        Stops between which it runs; without them the first and the last.  A ``key`` names its former
        in ``from``, a ``bearer`` the stop where it ends in ``to``.
    station : float, optional
        Where a ``rod`` crosses, a ``hatch-frame`` stands, a ``bearer`` begins, a ``nose-block`` has its front, a
        ``canopy`` is highest, mm.
    section : (float, float), optional
        Of a stick: across the side, and as seen in side view, mm.
    triangular : bool
        A ``corner-strip`` that is half a square, cut corner to corner.
    curved : bool
        A ``gusset`` with a hollow edge.
    width : float, optional
        Of a ``crutch``'s rail and of a plate; the leg of a ``gusset``; of a ``nose-block``'s front, mm.
    height : float, optional
        Of a ``keel``, and of the tab of a ``key``; of a ``nose-block``'s front, of a ``canopy`` over the deck, mm.
    y, z : float
        Where it lies, airframe axes, mm; at a `y` other than 0 there is one on each side.
    angle : float
        Where a ``stringer`` lies, degrees from straight up round to straight down; one on each side
        but for 0 and 180.
    by_girth : bool
        That a ``stringer``'s angle is a share of the half girth from the crown, 180 being all of it.
    gap : float
        How far a ``corner-strip`` stops short of formers, mm.
    inset : float
        How far a doubler's edges stay inside those of its side; a hollow ``nose-block``'s wall; how far behind its
        stop a ``canopy`` begins, mm.
    short : float
        How far a doubler stops short of its last stop, so that the side bends there, mm.
    route : tuple of (x, y, z)
        Places of a ``guide``, from nose to tail, airframe axes, mm.
    slant : (float, float)
        How far a hole is drawn out across and up because what passes it slants, mm; reckoned, never in a file.
    """

    id: Text
    kind: MemberKind
    from_: Text | None = Field(default=None, alias="from")
    to: Text | None = None
    station: Station | None = None
    section: tuple[Stick, Stick] | None = None
    triangular: bool = False
    curved: bool = False
    thickness: Thickness | None = None
    width: Annotated[Size, Usual(1, 600)] | None = None
    height: Annotated[Size, Usual(1, 300)] | None = None
    diameter: Annotated[Size, Usual(0.3, 30)] | None = None
    y: Annotated[Place, Usual(-300, 300)] = 0.0
    z: Upward = 0.0
    angle: Annotated[float, Field(ge=0, le=180)] = 0.0
    by_girth: bool = False
    gap: SmallGap = 0.0
    inset: SmallGap = 0.0
    short: Annotated[SizeOrZero, Usual(0, 150)] = 0.0
    material: str | None = None
    route: Annotated[tuple[tuple[Place, Place, Upward], ...], Field(max_length=40)] = ()
    slant: tuple[SizeOrZero, SizeOrZero] = (0.0, 0.0)


class Planking(Value):
    """Strips laid side by side over the formers from a keel to the crown.

    Attributes
    ----------
    width, thickness : float
        Of the strips as they are bought, mm.
    from_, to : str
        Formers between which it is planked.
    keel_width : float
        Left free for the keel, both sides together, mm.
    full_size : bool
        Whether each plank is among the templates at full size; our own key.
    """

    width: Annotated[Size, Usual(2, 25)] = 6.0
    thickness: Annotated[Size, Usual(0.5, 6)] = 2.0
    material: str | None = None
    from_: Text = Field(alias="from")
    to: Text
    keel_width: Annotated[SizeOrZero, Usual(0, 40)] = 6.0
    full_size: bool = False


class Framing(Value):
    """How a fuselage is framed; our own key.

    Attributes
    ----------
    web : float
        Wood that must be left beside a hole or notch, mm.
    kerf : float
        What the saw takes from a strip at each cut, mm.
    sheet : (float, float)
        Length and width of the sheets that are bought, mm.
    sheet_gap : float
        Room between two pieces on a sheet: the blade's or cutter's, mm.
    sheeting : {"across", "along"}
        Which way the grain of top and bottom sheeting lies.
    cutter_kerf : float
        What a laser or mill takes, mm; outlines for it grow by half of it.
    cutter_tag : float
        How wide the tags are that hold a piece in its sheet while it is cut, mm; none at 0.
    trim : float
        How much is left standing round a template to be trimmed off later, mm; drawn as a line of its own, none at 0.
    printer : str, optional
        Id of the audited sheet that tells what the printer makes of a millimetre.
    offcuts : tuple of Stock
        The builder's own pieces of sheet: how thick and wide, and how long, mm; used up before any is bought.
    planking : Planking, optional
        The contract's.
    scallop : float
        How deep formers' edges are hollowed between stringers, so that the covering touches none of them, mm.
    """

    web: SmallGap = 3.0
    kerf: Annotated[SizeOrZero, Usual(0, 6)] = 0.0
    sheet: tuple[Size, Size] = (1000.0, 100.0)
    sheet_gap: SmallGap = 2.0
    sheeting: Literal["across", "along"] = "across"
    cutter_kerf: Annotated[SizeOrZero, Usual(0, 6)] = 0.0
    cutter_tag: Annotated[SizeOrZero, Usual(0, 3)] = 0.0
    trim: Annotated[SizeOrZero, Usual(0, 5)] = 0.0
    printer: str | None = None
    members: Annotated[tuple[Member, ...], Field(max_length=MOST_MEMBERS)] = ()
    stock: tuple[Stock, ...] = ()
    offcuts: tuple[Stock, ...] = ()
    planking: Planking | None = None
    scallop: Annotated[SizeOrZero, Usual(0, 10)] = 0.0


class Squaring(Value):
    """Readings taken of the frame on its board, and what they are held against.

    Attributes
    ----------
    tolerances : dict, optional
        By kind (``yaw``) or by check (``F2_lean``, which goes before), mm or degrees.
    shared : Shared, optional
        What the readings have in common; a frame on its board has no bends and no seats of a gauge.
    photos : tuple of Photo
        Pictures in which formers' and the board's points were sighted.
    targets : tuple of Target
        Which printed code sits on which of them.
    target_size : float, optional
        The side of their black square, mm; our own key here.
    """

    readings: tuple[AnyReading, ...] = ()
    tolerances: dict[str, Positive] | None = None
    shared: Shared | None = None
    photos: tuple[Photo, ...] = ()
    targets: tuple[Target, ...] = ()
    target_size: Positive | None = None

    @property
    def figures(self) -> tuple[Reading, ...]:
        """The readings that are one figure each."""
        return tuple(one for one in self.readings if not isinstance(one, Sight))

    def __hash__(self) -> int:
        """What is computed from a fuselage is kept by the fuselage: a dictionary has no hash of its own."""
        return hash((self.readings, tuple(sorted((self.tolerances or {}).items()))))


class Fuselage(Value):
    """The fuselage section of a build."""

    side_thickness: Skin = 0.0
    side_material: str | None = None
    bottom_skin: Skin = 0.0
    top_skin: Skin = 0.0
    board: Board | None = None
    formers: Annotated[tuple[Former, ...], Field(max_length=MOST_FORMERS)] = ()
    tail_post: TailPost | None = None
    sections: tuple[Section, ...] = ()
    longerons: tuple[Longeron, ...] = ()
    bracing: Bracing | None = None
    framing: Framing | None = None
    squaring: Squaring | None = None
    engine: Engine | None = None

    @property
    def drawn(self) -> Self:
        """Without what was measured of it: what is cut of it does not hang on that."""
        if self.squaring is None:
            return self
        return self.model_copy(update={"squaring": None})

    @property
    def framed(self) -> Framing:
        """How it is framed, with the usual figures where nothing is said."""
        return self.framing or Framing()

    def span(self, member: Member) -> tuple[float, float]:
        """Stations between which a member runs, mm."""
        stations = self.stations
        known = {name: stop.station for name, stop in stations}
        first = known[member.from_] if member.from_ is not None else stations[0][1].station
        last = known[member.to] if member.to is not None else stations[-1][1].station
        return first, last

    def method_at(self, station: float) -> Method | None:
        """How it is built there; where two sections meet, the one that begins."""
        known = {name: stop.station for name, stop in self.stations}
        found: Method | None = None
        for section in self.sections:
            if known[section.from_] <= station <= known[section.to]:
                found = section.method
        return found

    def former(self, former_id: str) -> Former | None:
        """The former with this id."""
        return next((former for former in self.formers if former.id == former_id), None)

    @property
    def stations(self) -> tuple[tuple[str, Former | TailPost], ...]:
        """Formers and tail post by station, each with its name."""
        found: list[tuple[str, Former | TailPost]] = [(f.id, f) for f in self.formers]
        if self.tail_post is not None:
            found.append((TAIL_POST, self.tail_post))
        return tuple(sorted(found, key=lambda stop: stop[1].station))
