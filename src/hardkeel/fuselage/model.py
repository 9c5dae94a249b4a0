"""What a fuselage is made of, as the file holds it.

Lengths in mm; half-widths, bottoms and tops are to the outside of the finished airframe.
"""

import re
from typing import Annotated, Final, Literal

from pydantic import Field

from hardkeel.base.values import Place, Point2, Size, SizeOrZero, Text, Value

Method = Literal["sheet-sides", "stick-sides", "crutch", "board"]
METHODS: Final[tuple[Method, ...]] = ("sheet-sides", "stick-sides", "crutch", "board")
CutOutKind = Literal["battery", "tank", "hatch", "hole"]
TAIL_POST: Final = "tail_post"
MOST_FORMERS: Final = 200  # each is lofted, cut and drawn at full size; a model has a dozen or two


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
    z: Place = 0.0


class Template(Value):
    """What was measured on the template that does not fit, mm to the outside; our own key."""

    half_width: SizeOrZero
    bottom: Place
    top: Place


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
    half_width: SizeOrZero
    thickness: Size | None = None
    material: str | None = None
    corner: SizeOrZero = 0.0
    cutouts: tuple[CutOut, ...] = ()
    lightened: bool = False
    outline: tuple[Point2, ...] = ()
    template: Template | None = None


class TailPost(Value):
    """Where the sides close, mm."""

    station: Place
    bottom: Place
    top: Place
    half_width: SizeOrZero


class Section(Value):
    """How a stretch from one station to another is built."""

    from_: Text = Field(alias="from")
    to: Text
    method: Method


class Longeron(Value):
    """A stick along all stations; `section` is (across the side, as seen in side view), mm."""

    id: Text
    section: tuple[Size, Size]
    material: str | None = None

    @property
    def is_lower(self) -> bool:
        """Whether it runs along the bottom line; by what builders call it."""
        words = set(re.split(r"[^a-z]+", self.id.casefold()))
        return bool(words & _LOWER_WORDS)


class Bracing(Value):
    """Uprights and diagonals of stick sides, sections in mm."""

    upright: tuple[Size, Size] | None = None
    diagonal: tuple[Size, Size] | None = None
    pattern: Literal["zigzag", "crossed", "none"] = "zigzag"


class Board(Value):
    """The building board, `z` in airframe axes, mm."""

    z: Place = 0.0
    inverted: bool = False


class Fuselage(Value):
    """The fuselage section of a build."""

    side_thickness: SizeOrZero = 0.0
    side_material: str | None = None
    bottom_skin: SizeOrZero = 0.0
    top_skin: SizeOrZero = 0.0
    board: Board | None = None
    formers: Annotated[tuple[Former, ...], Field(max_length=MOST_FORMERS)] = ()
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
