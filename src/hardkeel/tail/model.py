"""Tail surfaces as the file holds them; the contract's keys first, our own behind them.  mm and degrees."""

from typing import Annotated, Final, Literal

from pydantic import Field

from hardkeel.base.values import (
    Chord,
    ChordOrZero,
    Incidence,
    Place,
    Point2,
    Size,
    SizeOrZero,
    Skin,
    Slope,
    SmallGap,
    Span,
    Station,
    Stick,
    Sweep,
    Text,
    Thickness,
    Upward,
    Usual,
    Value,
)
from hardkeel.survey.model import Role, role_by_id

Kind = Literal["stick", "ribbed", "foam"]
Face = Literal["top", "bottom", "middle"]
TipShape = Literal["elliptic", "rounded", "block", "laminated"]
Pattern = Literal["none", "ladder", "zigzag", "crossed"]
SlotFit = Literal["good", "loose", "tight"]
Share = Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)]
InnerShare = Annotated[float, Field(gt=0, lt=1, allow_inf_nan=False)]
Throw = Annotated[float, Field(ge=0, le=85, allow_inf_nan=False)]
BoardPlace = Literal["port_le", "port_te", "starboard_le", "starboard_te", "mid_le", "mid_te"]
DEFAULT_CHORD_GAP_MM: Final = 1.0


class TailSpar(Value):
    """A spar, let into the ribs.

    Attributes
    ----------
    at_chord : float
        Where its middle lies, as a share of the straight-tapered chord.
    section : (float, float)
        Along the chord, and deep into the rib, at the root.
    tip_section : (float, float), optional
        The same at the tip; else it is the same all along.
    face : str
        The face of the rib that it is let into; ``middle`` for one that goes through.
    """

    id: Text
    at_chord: Share
    section: tuple[Stick, Stick]
    face: Face = "top"
    tip_section: tuple[Stick, Stick] | None = None
    material: str | None = None


class Tube(Value):
    """A joiner or tube spar through the ribs' middle line.

    Attributes
    ----------
    length : float
        All of it, from port to starboard.
    """

    id: Text
    at_chord: Share
    diameter: Annotated[Size, Usual(0.5, 40)]
    length: Annotated[Size, Usual(10, 3000)]
    material: str | None = None


class Tip(Value):
    """How a surface ends.

    Attributes
    ----------
    length : float
        Of the half span that is curved, or that is a block.
    layers, strip : int, float
        Of a laminated tip: how many strips, each how thick.
    form_at : float
        Where along the chord the curve runs furthest out, as a share of the chord.
    """

    shape: TipShape
    length: Annotated[Size, Usual(1, 500)]
    layers: Annotated[int, Field(ge=1, le=20)] = 4
    strip: Annotated[Size, Usual(0.3, 12)] = 1.5
    form_at: Share = 0.55


class TailBracing(Value):
    """Sticks between the edges of a flat frame.

    Attributes
    ----------
    pitch : float
        From cross-stick to cross-stick, about; the bays come out even.
    width : float
        Of a stick as seen in the drawing; it is as thick as the frame.
    joint : str
        How diagonals cross: halved into each other, or the second cut in two.
    gusset : float
        Legs of the gussets in free corners; 0 for none.
    stiff : bool
        Whether joints carry bending and twist, or are reckoned as hinges.
    """

    pattern: Pattern = "ladder"
    pitch: Annotated[Size, Usual(8, 300)] = 45.0
    width: Stick = 5.0
    joint: Literal["butt", "half-lap"] = "butt"
    gusset: Annotated[SizeOrZero, Usual(0, 120)] = 0.0
    curved_gussets: bool = False
    stiff: bool = True


class Linkage(Value):
    """From the servo to the surface.

    Attributes
    ----------
    servo_arm, travel : float
        Length of the servo's arm, and how far it turns to either side, degrees.
    horn : float
        From the hinge line to the hole of the horn.
    y : float
        Where the horn stands, from the middle.
    """

    servo_arm: Annotated[Size, Usual(3, 60)] = 10.0
    travel: Throw = 45.0
    horn: Annotated[Size, Usual(3, 80)] = 14.0
    y: Annotated[Place, Usual(-900, 900)] = 12.0


class Controls(Value):
    """The part that moves.

    Attributes
    ----------
    up, down : float
        Throw that is wanted, degrees; of a rudder to starboard and to port.
    gap : float
        Between the two hinge faces.
    inner : float
        Where it begins, from the middle: it clears the rudder, or the fuselage.
    edge : float
        Thickness of its trailing edge.
    joiner : str
        What joins the two halves.
    thickness : float, optional
        At the hinge line, where it is another than that of the fixed part.
    """

    up: Throw = 20.0
    down: Throw = 20.0
    gap: Annotated[SizeOrZero, Usual(0, 12)] = DEFAULT_CHORD_GAP_MM
    inner: Annotated[SizeOrZero, Usual(0, 400)] = 0.0
    edge: Annotated[SizeOrZero, Usual(0, 25)] = 2.0
    joiner: Literal["wire", "bar", "none"] = "wire"
    joiner_size: Annotated[Size, Usual(0.5, 20)] = 2.0
    thickness: Thickness | None = None
    linkage: Linkage = Linkage()


class FlatReading(Value):
    """A corner's height over the board.

    Attributes
    ----------
    phase : str
        Before the glue, after it, or after drying under weight.
    """

    at: BoardPlace
    value: Annotated[Place, Usual(-150, 300)]
    phase: Literal["dry", "wet", "cured"] = "dry"
    sigma: Size | None = None


class TailSurface(Value):
    """A tail surface; the contract's tail section with the place that it leaves open.

    Attributes
    ----------
    span : float
        mm; for a fin twice its height.
    le_x, z : float, optional
        Leading edge at the root; without them the surface has no place yet.
    root_profile, tip_profile : str, optional
        A coordinate file of the build, or a section that comes with the app.
    tip_thickness : float, optional
        Greatest thickness of the tip section, mm: its heights are scaled to it.
    ribs : tuple of float
        Places of the ribs from the middle, mm.
    leading_edge, trailing_edge : (float, float), optional
        Stock along the chord, and how high.
    thickness : float, optional
        Of a flat frame, or of a foam sheet.
    outline : tuple of (x, y), optional
        A traced outline of the starboard half: from the root leading edge out and back to the root
        trailing edge.
    y : float
        Where its root stands beside the middle: one of two fins.
    washout : float
        By how much the tip section is turned nose down.
    role : str, optional
        What it is; without it `upright` and its id tell (`duty`).
    capstrip : (float, float), optional
        Strips over the ribs where they are not sheeted, how wide and how thick, mm.
    centre_sheet, centre_skin : float
        From the middle so far it is sheeted, with sheet so thick, mm.
    doubled_ribs, doubler : int, float
        So many ribs from the middle out have a doubler, so thick, mm.
    pivot_at_chord : float, optional
        Where the pivot of one that moves as a whole lies, as a share of the mean chord.
    """

    id: Text
    kind: Kind | None = None
    span: Span | None = None
    root_chord: Chord | None = None
    tip_chord: ChordOrZero | None = None
    sweep_le: Sweep = 0.0
    root_profile: Text | None = None
    tip_profile: Text | None = None
    ribs: tuple[SizeOrZero, ...] = ()
    spars: tuple[TailSpar, ...] = ()
    leading_edge: tuple[Stick, Stick] | None = None
    trailing_edge: tuple[Stick, Stick] | None = None
    skin: Skin = 0.0
    hinge_at_chord: InnerShare | None = None
    le_x: Station | None = None
    z: Upward | None = None
    y: Annotated[Place, Usual(-1500, 1500)] = 0.0
    incidence: Incidence = 0.0
    dihedral: Annotated[Slope, Usual(-15, 50, "°")] = 0.0
    seat_width: Size | None = None
    upright: bool = False
    outline: tuple[Point2, ...] = ()
    tip: Tip | None = None
    tip_thickness: Annotated[Size, Usual(0.5, 150)] | None = None
    washout: Incidence = 0.0
    thickness: Thickness | None = None
    material: str | None = None
    rib_thickness: Annotated[Size, Usual(0.3, 12)] = 1.5
    centre: Annotated[SizeOrZero, Usual(0, 400)] = 0.0
    hinge_edge: Stick | None = None
    bracing: TailBracing | None = None
    half_ribs: bool = False
    feet: SmallGap = 0.0
    tubes: tuple[Tube, ...] = ()
    skin_material: str | None = None
    controls: Controls | None = None
    slot_fit: SlotFit | None = None
    flatness: tuple[FlatReading, ...] = ()
    role: Role | None = None
    pivot_at_chord: InnerShare | None = None
    capstrip: tuple[Stick, Stick] | None = None
    centre_sheet: Annotated[SizeOrZero, Usual(0, 600)] = 0.0
    centre_skin: Skin = 0.0
    doubled_ribs: Annotated[int, Field(ge=0, le=40)] = 0
    doubler: Annotated[SizeOrZero, Usual(0, 6)] = 0.8
    doubler_material: str | None = None

    def covered(self, y: float) -> float:
        """What lies on a rib at a distance from the middle, mm: sheet, or a capstrip."""
        if self.skin:
            return self.skin
        if y < self.centre_sheet and self.centre_skin:
            return self.centre_skin
        return self.capstrip[1] if self.capstrip is not None else 0.0

    @property
    def all_moving(self) -> bool:
        """Whether it turns as a whole, on a pivot."""
        return self.pivot_at_chord is not None

    @property
    def duty(self) -> Role:
        """What it is, whatever it is called."""
        if self.role is not None:
            return self.role
        return "fin" if self.upright else role_by_id(self.id)

    @property
    def half(self) -> float:
        """Half the span, or a fin's height; mm."""
        return (self.span or 0.0) / 2

    @property
    def tip_size(self) -> float:
        """The tip chord, the root's where none is given; mm."""
        return self.tip_chord if self.tip_chord is not None else self.root_chord or 0.0


def stands_on_fin(surface: TailSurface, fin: TailSurface) -> bool:
    """Whether a surface sits on a fin: above the middle of it."""
    if surface.upright or not fin.upright or surface.z is None or fin.z is None:
        return False
    return surface.z > fin.z + fin.half / 2
