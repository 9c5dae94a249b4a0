"""A drawing to build over, at full size: lines on named layers, words that lie over nothing, as DXF and SVG."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace
from typing import Final, Literal
from xml.etree import ElementTree as ET

from hardkeel.base.values import Point2
from hardkeel.geometry.polygons import BaseGeometry, shapely
from hardkeel.storage.dxf import DrawnText, Layer, dxf_text

LayerName = Literal[
    "OUTLINE", "STICKS", "FORMERS", "GUSSETS", "PINS", "STATIONS", "CENTRE", "TEXT", "DIMENSIONS",
    "CUT", "HOLES", "MARKS",
]  # fmt: skip
Anchor = Literal["start", "middle", "end"]
LAYERS: Final[dict[LayerName, tuple[int, float]]] = {  # colour by DXF's index, line weight in mm
    "OUTLINE": (7, 0.5),
    "STICKS": (30, 0.35),
    "FORMERS": (5, 0.35),
    "GUSSETS": (3, 0.25),
    "PINS": (1, 0.25),
    "STATIONS": (8, 0.18),
    "CENTRE": (6, 0.18),
    "TEXT": (7, 0.18),
    "DIMENSIONS": (8, 0.18),
}
TEMPLATE_LAYERS: Final[
    dict[LayerName, tuple[int, float]]
] = {  # of pieces to cut out, on paper only
    "CUT": (1, 0.35),
    "HOLES": (5, 0.35),
    "MARKS": (7, 0.18),
}
WEIGHTS: Final[dict[LayerName, float]] = {
    name: weight for name, (_, weight) in (LAYERS | TEMPLATE_LAYERS).items()
}
TEXT_MM: Final = 2.6
SMALL_MM: Final = 2.0
LINE: Final = 1.45  # of the letters' height, from one line to the next
LETTER: Final = 0.62  # of its height, how wide a letter is, on the average
_GAP_MM: Final = 0.5
_FURTHER_MM: Final = (8.0, 12.0, 16.0, 22.0, 30.0, 40.0)
_MARGIN_MM: Final = 4.0
_SPACE: Final = "http://www.w3.org/2000/svg"
WOOD: Final = "#F3EBD3"
_KEPT_FREE: Final[frozenset[LayerName]] = frozenset(
    {"STATIONS", "DIMENSIONS", "OUTLINE", "FORMERS"}
)
DASHED: Final[frozenset[LayerName]] = frozenset({"CENTRE"})


@dataclass(frozen=True, slots=True)
class PlanLine:
    """A line of the drawing; `hidden` what lies behind other wood, dashed; `wood` what is cut through, seen as wood."""

    layer: LayerName
    points: tuple[Point2, ...]
    closed: bool = False
    hidden: bool = False
    wood: bool = False


@dataclass(frozen=True, slots=True)
class PlanWords:
    """Words at a place, on several lines where they hold breaks; `turn` in degrees, `size` the letters' height in mm.

    Attributes
    ----------
    anchor : str
        What of each line lies at the place; the lines are stacked about it.
    """

    at: Point2
    text: str
    size: float = TEXT_MM
    turn: float = 0.0
    layer: LayerName = "TEXT"
    anchor: Anchor = "middle"

    @property
    def corners(self) -> tuple[Point2, Point2, Point2, Point2]:
        """Of what they cover."""
        rows = self.text.split("\n")
        wide = max(map(len, rows)) * self.size * LETTER
        tall = self.size * (1.15 + LINE * (len(rows) - 1)) / 2
        left = {"start": 0.0, "middle": -wide / 2, "end": -wide}[self.anchor]
        way = math.radians(self.turn)
        cos, sin = math.cos(way), math.sin(way)
        u, v = self.at
        a, b, c, d = (
            (u + along * cos - up * sin, v + along * sin + up * cos)
            for along, up in (
                (left, -tall),
                (left + wide, -tall),
                (left + wide, tall),
                (left, tall),
            )
        )
        return a, b, c, d

    @property
    def box(self) -> BaseGeometry:
        """The same as a shape."""
        return shapely.Polygon(self.corners)

    @property
    def rows(self) -> "tuple[PlanWords, ...]":
        """Each of its lines by itself."""
        texts = self.text.split("\n")
        if len(texts) == 1:
            return (self,)
        way = math.radians(self.turn)
        up = (-math.sin(way), math.cos(way))
        first = (len(texts) - 1) / 2 * self.size * LINE
        return tuple(
            replace(self, at=(self.at[0] + over * up[0], self.at[1] + over * up[1]), text=text)
            for text, over in zip(
                texts, (first - i * self.size * LINE for i in range(len(texts))), strict=True
            )
        )


@dataclass(slots=True)
class PlanDrawing:
    """A drawing while it is made: u along, v up, mm.

    Attributes
    ----------
    name : str
        As in the file's name: ``side``, ``top``, ``board``, a surface's id.
    figures : dict of str to float
        What it shows, by name in words, mm: so that a later one tells what has changed.
    """

    name: str
    lines: list[PlanLine] = field(default_factory=list)
    words: list[PlanWords] = field(default_factory=list)
    figures: dict[str, float] = field(default_factory=dict)
    _taken: list[BaseGeometry] = field(default_factory=list)

    def line(
        self,
        layer: LayerName,
        points: Iterable[Point2],
        *,
        closed: bool = False,
        hidden: bool = False,
        open_: bool = False,
        wood: bool = False,
    ) -> None:
        """Draw a line; words keep off what is closed, and of what is `open_` or hidden off its line only.

        Of lines that are not closed they keep off stations and seats.
        """
        spots = tuple((float(u), float(v)) for u, v in points)
        self.lines.append(PlanLine(layer, spots, closed, hidden, wood))
        if not closed or len(spots) < 3:  # noqa: PLR2004  it covers nothing
            if layer in _KEPT_FREE:
                self._taken.append(shapely.LineString(spots).buffer(0.2))
            return
        shape = shapely.Polygon(spots)
        self._taken.append(shape.exterior.buffer(0.2) if open_ or hidden else shape)

    def pin(self, at: Point2, half: float) -> None:
        """A pin's cross; none where wood lies."""
        (u, v), room = at, shapely.Point(at).buffer(half)
        if any(room.intersects(one) for one in self._taken):
            return
        self.line("PINS", [(u - half, v), (u + half, v)])
        self.line("PINS", [(u, v - half), (u, v + half)])
        self._taken.append(room)

    def front(self, at: Point2, words: str) -> None:
        """Which way the front is: an arrow with the word, and what else is to be known of the drawing beside it."""
        u, v = at
        self.line("DIMENSIONS", [(u + 12, v), (u, v)])
        self.line("DIMENSIONS", [(u + 3, v + 1.4), (u, v), (u + 3, v - 1.4)])
        self.write((u + 15, v), words, anchor="start")

    def write(
        self,
        at: Point2,
        text: str,
        *,
        size: float = TEXT_MM,
        turn: float = 0.0,
        anchor: Anchor = "middle",
    ) -> None:
        """Write where told."""
        words = PlanWords(at, text, size, turn, anchor=anchor)
        self.words.append(words)
        self._taken.append(words.box)

    def label(
        self, places: Sequence[tuple[Point2, float]], text: str, size: float = TEXT_MM
    ) -> bool:
        """Write at the first of some places (middle, turn) where it lies over nothing; whether there was one."""
        for at, turn in places:
            words = PlanWords(at, text, size, turn)
            box = words.box.buffer(_GAP_MM)
            if not any(box.intersects(one) for one in self._taken):
                self.words.append(words)
                self._taken.append(words.box)
                return True
        return False

    def point_out(self, outline: Sequence[Point2], text: str, size: float = TEXT_MM) -> None:
        """Write a stick's name beside it, or where there is no room farther off with a line to it."""
        places = beside(outline, size)
        if self.label(places, text, size):
            return
        middle = shapely.Polygon(outline).centroid
        for far in _FURTHER_MM:
            for turn in range(0, 360, 30):
                way = math.radians(turn + 90)
                at = (middle.x + far * math.cos(way), middle.y + far * math.sin(way))
                if self.label([(at, 0.0)], text, size):
                    self.line(
                        "TEXT",
                        [
                            (middle.x, middle.y),
                            shapely.shortest_line(
                                shapely.Point(middle.x, middle.y), self.words[-1].box
                            ).coords[1],
                        ],
                    )
                    return

    @property
    def bounds(self) -> tuple[float, float, float, float]:
        """Least u and v, greatest u and v, words with it."""
        boxes = [shapely.LineString(line.points).bounds for line in self.lines]
        boxes += [words.box.bounds for words in self.words]
        return (
            min(b[0] for b in boxes),
            min(b[1] for b in boxes),
            max(b[2] for b in boxes),
            max(b[3] for b in boxes),
        )

    @property
    def size(self) -> tuple[float, float]:
        """Along u and along v, mm."""
        left, low, right, high = self.bounds
        return right - left, high - low

    def upright(self) -> "PlanDrawing":
        """Turned a quarter, u up the page."""

        def turned(point: Point2) -> Point2:
            return -point[1], point[0]

        return PlanDrawing(
            self.name,
            [replace(one, points=tuple(map(turned, one.points))) for one in self.lines],
            [_turned(one, turned(one.at)) for one in self.words],
            self.figures,
        )

    def dxf(self) -> str:
        """As DXF, mm, 1:1, one layer a kind of thing."""
        return dxf_text(
            Layer(
                name,
                colour,
                tuple(line.points for line in self.lines if line.layer == name and line.closed),
                tuple(line.points for line in self.lines if line.layer == name and not line.closed),
                tuple(
                    DrawnText(words.text, words.at, words.size, words.turn, words.anchor)
                    for block in self.words
                    for words in block.rows
                    if words.layer == name
                ),
            )
            for name, (colour, _) in LAYERS.items()
        )

    def svg(self) -> str:
        """As SVG, a unit a millimetre, v turned over so that up is up."""
        left, low, right, high = self.bounds
        wide, tall = right - left + 2 * _MARGIN_MM, high - low + 2 * _MARGIN_MM

        def at(u: float, v: float) -> tuple[str, str]:
            return f"{u - left + _MARGIN_MM:.4f}", f"{high - v + _MARGIN_MM:.4f}"

        size = {"width": f"{wide:.4f}mm", "height": f"{tall:.4f}mm"}
        root = ET.Element("svg", {"xmlns": _SPACE, **size, "viewBox": f"0 0 {wide:.4f} {tall:.4f}"})
        for name, (_, weight) in LAYERS.items():
            lines = [line for line in self.lines if line.layer == name]
            words = [row for one in self.words for row in one.rows if one.layer == name]
            if not lines and not words:
                continue
            drawn = {"fill": "none", "stroke": "#1E2B33", "stroke-width": f"{weight}"}
            if name in DASHED:
                drawn["stroke-dasharray"] = "8 2 1.5 2"
            group = ET.SubElement(root, "g", {"id": name, **drawn})
            for line in lines:
                path = "M " + " L ".join(" ".join(at(*point)) for point in line.points)
                made = {"d": f"{path}{' Z' if line.closed else ''}"}
                if line.wood:
                    made["fill"] = WOOD
                if line.hidden:
                    made["stroke-dasharray"] = "2 1.2"
                ET.SubElement(group, "path", made)
            for one in words:
                x, y = at(*one.at)
                made = {"x": x, "y": y, "font-size": f"{one.size:.2f}", "text-anchor": one.anchor}
                made |= {"dominant-baseline": "central", "fill": "#1E2B33", "stroke": "none"}
                if one.turn:
                    made["transform"] = f"rotate({-one.turn:.2f} {x} {y})"
                text = ET.SubElement(group, "text", made)
                text.text = "".join(c if c.isprintable() else " " for c in one.text)
        ET.indent(root, "")
        body = ET.tostring(root, encoding="unicode")
        return f'<?xml version="1.0" encoding="UTF-8"?>\n{body}\n'


def _turned(words: PlanWords, at: Point2) -> PlanWords:
    """A quarter round, and so that nobody reads upside down: then they begin where they ended."""
    turn = readable(words.turn + 90)
    over = abs(turn - words.turn - 90) > 1.0
    anchor = OTHER_END[words.anchor] if over else words.anchor
    return replace(words, at=at, turn=turn, anchor=anchor)


OTHER_END: Final[dict[Anchor, Anchor]] = {"start": "end", "middle": "middle", "end": "start"}


def readable(turn: float) -> float:
    """The same way or its opposite, so that nobody reads upside down; degrees."""
    return (turn + 90 - 1e-6) % 180 - 90 + 1e-6


def beside(outline: Sequence[Point2], size: float = TEXT_MM) -> list[tuple[Point2, float]]:
    """Places beside a stick for its name, along it: both sides, from its middle to its ends."""
    box = shapely.Polygon(outline).minimum_rotated_rectangle
    corners = list(box.exterior.coords)[:4]
    sides = [math.dist(corners[i], corners[(i + 1) % 4]) for i in (0, 1)]
    a, b = (corners[0], corners[1]) if sides[0] >= sides[1] else (corners[1], corners[2])
    wide = min(sides)
    way = math.atan2(b[1] - a[1], b[0] - a[0])
    if not -math.pi / 2 < way <= math.pi / 2:
        way -= math.copysign(math.pi, way)
    middle = box.centroid
    long = max(sides)
    along, across = (math.cos(way), math.sin(way)), (-math.sin(way), math.cos(way))
    off = wide / 2 + 0.9 * size
    found = []
    for share in (0.0, 0.18, -0.18, 0.32, -0.32, 0.42, -0.42):
        for side in (1, -1):
            u = middle.x + share * long * along[0] + side * off * across[0]
            v = middle.y + share * long * along[1] + side * off * across[1]
            found.append(((u, v), math.degrees(way)))
    return found
