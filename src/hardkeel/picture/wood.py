"""Wood to be drawn as wood: shapes with their grain, lines and names, in a view's own axes (mm, v down)."""

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Final, Literal

from hardkeel.geometry.hull import Point2

Tone = Literal["soft", "hard", "ply", "metal", "foam"]
LineRole = Literal["station", "centre", "outline", "pin", "seat", "wire", "seam"]
_NAMED_MM: Final = 14.0  # as high as a piece must be to bear its name
_HARD: Final = ("spruce", "pine", "beech", "basswood", "balsa-hard")


@dataclass(frozen=True, slots=True)
class WoodShape:
    """A piece of wood.

    Attributes
    ----------
    ref : str
        What is picked when it is pointed at.
    grain : float or None
        Which way its grain runs, degrees from u towards v; ``None`` for end grain.
    made : bool
        Cut or glued: drawn whole; else dashed, as what is still to be made.
    faint : bool
        Behind or beside what the view is about.
    """

    ref: str
    ring: tuple[Point2, ...]
    holes: tuple[tuple[Point2, ...], ...] = ()
    grain: float | None = 0.0
    tone: Tone = "soft"
    made: bool = True
    faint: bool = False


@dataclass(frozen=True, slots=True)
class WoodLine:
    """A line; a pin is a line of one point."""

    role: LineRole
    points: tuple[Point2, ...]
    ref: str = ""


@dataclass(frozen=True, slots=True)
class WoodLabel:
    """A word at a place.

    Attributes
    ----------
    side : str
        Where it stands from the place.
    warn : bool
        Something is wrong there.
    within : float
        It is left out where this many mm have no room for it; 0 for any.
    """

    at: Point2
    text: str
    side: Literal["below", "above", "right"] = "below"
    ref: str = ""
    warn: bool = False
    within: float = 0.0


@dataclass(frozen=True, slots=True)
class WoodSpot:
    """A place that can be pointed at by itself, before the wood it lies on; `words` are its name."""

    ref: str
    at: Point2
    words: str = ""


@dataclass(frozen=True, slots=True)
class WoodPicture:
    """One view."""

    shapes: tuple[WoodShape, ...] = ()
    lines: tuple[WoodLine, ...] = ()
    labels: tuple[WoodLabel, ...] = ()
    spots: tuple[WoodSpot, ...] = ()

    def called(self, words: Callable[[str], str]) -> "WoodPicture":
        """The same with names for its spots."""
        spots = tuple(WoodSpot(spot.ref, spot.at, words(spot.ref)) for spot in self.spots)
        return replace(self, spots=spots)

    def named(self, names: Mapping[str, str]) -> "WoodPicture":
        """The same with the names of pieces on them, by ref, where there is room; on a thin one over its edge."""
        labels = []
        for ref, text in names.items():
            boxes = [_box_of(shape.ring) for shape in self.shapes if shape.ref == ref]
            if boxes:
                left, top, right, bottom = max(boxes, key=lambda box: box[2] - box[0])
                thin = bottom - top < _NAMED_MM
                at = ((left + right) / 2, top if thin else (top + bottom) / 2)
                labels.append(
                    WoodLabel(at, text, "above" if thin else "right", ref, within=right - left)
                )
        return replace(self, labels=(*self.labels, *labels))

    @property
    def bounds(self) -> tuple[float, float, float, float] | None:
        """Least u and v, greatest u and v, of wood and lines; ``None`` where there is nothing."""
        points = [p for shape in self.shapes for p in shape.ring]
        points += [p for line in self.lines for p in line.points]
        if not points:
            return None
        return _box_of(points)


def _box_of(points: Sequence[Point2]) -> tuple[float, float, float, float]:
    us, vs = [p[0] for p in points], [p[1] for p in points]
    return min(us), min(vs), max(us), max(vs)


def tone_of(material: str | None) -> Tone:
    """How a wood looks."""
    if material is None:
        return "soft"
    if "foam" in material:
        return "foam"
    if "ply" in material:
        return "ply"
    if material in ("steel-wire", "aluminium", "brass", "carbon-strip", "carbon-cloth"):
        return "metal"
    return "hard" if material in _HARD else "soft"


def down(points: tuple[Point2, ...]) -> tuple[Point2, ...]:
    """Points with their second axis turned over: up becomes up on the screen."""
    return tuple((u, -v) for u, v in points)


def lying(outline: tuple[Point2, ...], length: float, deep: float) -> tuple[Point2, ...]:
    """A stick's outline turned so that it lies along u from its front or lower end, v down, mm.

    Parameters
    ----------
    outline : tuple of (s, z)
        As it lies in the drawing; without one a square-ended stick of this length and depth.
    """
    if not outline:
        half = deep / 2
        return ((0.0, -half), (length, -half), (length, half), (0.0, half))
    pairs = list(zip(outline, (*outline[1:], outline[0]), strict=True))
    a, b = max(pairs, key=lambda pair: math.dist(*pair))
    du, dv = b[0] - a[0], b[1] - a[1]
    if du < 0 or (abs(du) < abs(dv) * 1e-6 and dv < 0):
        du, dv = -du, -dv
    size = math.hypot(du, dv)
    c, s = du / size, dv / size
    return tuple((c * u + s * v, s * u - c * v) for u, v in outline)
