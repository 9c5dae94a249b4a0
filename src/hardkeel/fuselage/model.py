"""What a fuselage is made of, as the file holds it.

Lengths in mm; half-widths, bottoms and tops are to the outside of the finished airframe.
"""

from typing import Annotated, Final, Literal

from pydantic import Field

from hardkeel.base.values import Finite, NotNegative, Place, Point2, Positive, Text, Value

Method = Literal["sheet-sides", "stick-sides", "crutch", "board"]
METHODS: Final[tuple[Method, ...]] = ("sheet-sides", "stick-sides", "crutch", "board")
CutOutKind = Literal["battery", "tank", "hatch", "hole"]
TAIL_POST: Final = "tail_post"


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
    width: Positive
    height: Positive
    y: Finite = 0.0
    z: Finite = 0.0


class Template(Value):
    """What was measured on the template that does not fit, mm to the outside; our own key."""

    half_width: NotNegative
    bottom: Finite
    top: Finite


class Former(Value):
    """A former at a station.

    Attributes
    ----------
    corner : float
        Radius of its outer corners, mm; our own key, like the rest below.
    lightened : bool
        Whether lightening holes are wanted.
    outline : tuple of (y, z)
        Its own outer shape, where it is not a box with round corners.
    """

    id: Text
    station: Place
    bottom: Place
    top: Place
    half_width: Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)]
    thickness: Positive | None = None
    material: str | None = None
    corner: NotNegative = 0.0
    cutouts: tuple[CutOut, ...] = ()
    lightened: bool = False
    outline: tuple[Point2, ...] = ()
    template: Template | None = None


class TailPost(Value):
    """Where the sides close, mm."""

    station: Place
    bottom: Place
    top: Place
    half_width: Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)]


class Section(Value):
    """How a stretch from one station to another is built."""

    from_: Text = Field(alias="from")
    to: Text
    method: Method


class Longeron(Value):
    """A stick along all stations; `section` is (across the side, as seen in side view), mm."""

    id: Text
    section: tuple[Positive, Positive]
    material: str | None = None


class Bracing(Value):
    """Uprights and diagonals of stick sides, sections in mm."""

    upright: tuple[Positive, Positive] | None = None
    diagonal: tuple[Positive, Positive] | None = None
    pattern: Literal["zigzag", "crossed", "none"] = "zigzag"


class Board(Value):
    """The building board, `z` in airframe axes, mm."""

    z: Finite = 0.0
    inverted: bool = False


class Fuselage(Value):
    """The fuselage section of a build."""

    side_thickness: NotNegative = 0.0
    side_material: str | None = None
    bottom_skin: NotNegative = 0.0
    top_skin: NotNegative = 0.0
    board: Board | None = None
    formers: tuple[Former, ...] = ()
    tail_post: TailPost | None = None
    sections: tuple[Section, ...] = ()
    longerons: tuple[Longeron, ...] = ()
    bracing: Bracing | None = None

    def former(self, former_id: str) -> Former | None:
        """The former with this id."""
        return next((former for former in self.formers if former.id == former_id), None)

    @property
    def stops(self) -> tuple[tuple[str, Former | TailPost], ...]:
        """Formers and tail post by station, each with its name."""
        found: list[tuple[str, Former | TailPost]] = [(f.id, f) for f in self.formers]
        if self.tail_post is not None:
            found.append((TAIL_POST, self.tail_post))
        return tuple(sorted(found, key=lambda stop: stop[1].station))
