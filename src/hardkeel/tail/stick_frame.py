"""A flat frame of sticks: edges, centre sheet, cross-sticks and diagonals, each as its neighbours cut it.

One half is drawn, x aft from the root leading edge, y out from the middle; the other is its mirror.  A
surface with a hinge line is two panels, the fixed one ahead of the moving one.
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import pairwise
from typing import Final

from hardkeel.geometry.hull import Point2
from hardkeel.geometry.polygons import BaseGeometry, shapely
from hardkeel.joinery.cut_part import CutPart
from hardkeel.joinery.flat import FlatPiece, ring_of
from hardkeel.joinery.gusset import gusset_outline
from hardkeel.joinery.strips import strips_in
from hardkeel.tail.frame_shell import (
    FAR,
    LEAST_MM2,
    USUAL_EDGE,
    FramePiece,
    Shell,
    shells_of,
)
from hardkeel.tail.model import TailBracing, TailSurface

_HAIR: Final = 1e-6
_LEAST_BAY: Final = 0.25  # of the pitch: less than this beside the tip is no bay


@dataclass(frozen=True)
class Panel:
    """The fixed or the moving part of one half.

    Attributes
    ----------
    inside : BaseGeometry
        What lies between its edges.
    posts : tuple of (y, y)
        Inner and outer face of the root, of each cross-stick, and of the tip's strip.
    bays : tuple of BaseGeometry
        Between neighbouring posts.
    """

    name: str
    whole: BaseGeometry
    inside: BaseGeometry
    posts: tuple[tuple[float, float], ...]
    bays: tuple[BaseGeometry, ...]
    front: float
    rear: float


@dataclass(frozen=True, slots=True)
class FreeCorner:
    """A corner of a bay where no diagonal ends, with room for a gusset.

    Attributes
    ----------
    at, across, along : point
        The corner, and where a gusset's legs end: along the post, along the edge.
    leg : float
        Length of both legs, mm.
    """

    at: Point2
    across: Point2
    along: Point2
    leg: float


@dataclass(frozen=True)
class StickFrame:
    """All of one half."""

    surface: TailSurface
    panels: tuple[Panel, ...]
    pieces: tuple[FramePiece, ...]
    corners: tuple[FreeCorner, ...]

    @property
    def thickness(self) -> float:
        """Of the frame, mm."""
        return frame_thickness(self.surface)

    @property
    def area(self) -> float:
        """mm² of wood of both halves, gussets left out: they lie in the corners, not over the sticks."""
        sides = 1 if self.surface.upright else 2
        return sides * sum(_area(piece.strip.outline) for piece in self.pieces)

    @property
    def gussets(self) -> tuple[FlatPiece, ...]:
        """One piece for each free corner, of each hand alike."""
        surface, bracing = self.surface, self.surface.bracing or TailBracing()
        found: list[FlatPiece] = []
        for corner in self.corners:
            angle = _angle(corner.at, corner.across, corner.along)
            outline = ring_of(gusset_outline(corner.leg, angle, curved=bracing.curved_gussets))
            if outline:
                found.append(
                    FlatPiece(
                        name=f"{surface.id} gusset {len(found) + 1}",
                        kind="gusset",
                        part=surface.id,
                        outline=outline,
                        thickness=self.thickness,
                        material=surface.material,
                        quantity=1 if surface.upright else 2,
                        pair=not surface.upright,
                    )
                )
        return tuple(found)


def _area(ring: tuple[Point2, ...]) -> float:
    """Of a ring, by the shoelace."""
    closed = (*ring, ring[0])
    return abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in pairwise(closed))) / 2


def frame_thickness(surface: TailSurface) -> float:
    """Of a flat frame, mm: its own, else its edges' height."""
    if surface.thickness is not None:
        return surface.thickness
    return (surface.leading_edge or USUAL_EDGE)[1]


def stick_frame_of(surface: TailSurface) -> StickFrame:
    """The frame of one half.

    Raises
    ------
    BadInput
        When a figure is missing, or edges and centre leave nothing between them.
    """
    # its wood and what was read of it change nothing in the drawing
    drawn = surface.model_copy(update={"material": None, "flatness": (), "slot_fit": None})
    return replace(_drawn(drawn), surface=surface)


@lru_cache(maxsize=64)
def _drawn(surface: TailSurface) -> StickFrame:
    bracing = surface.bracing or TailBracing()
    pieces: list[FramePiece] = []
    panels: list[Panel] = []
    # what is dragged leaves the edges as they are
    still = bracing.model_copy(update={"pattern": "none", "pitch": 1.0, "gusset": 0.0})
    for shell in shells_of(surface.model_copy(update={"bracing": still})):
        panel = _panel(shell, bracing)
        panels.append(panel)
        pieces += shell.edges
        pieces += _between(panel, bracing)
    numbered = tuple(_named(surface, pieces))
    return StickFrame(surface, tuple(panels), numbered, tuple(_free_corners(panels, bracing)))


def _panel(shell: Shell, bracing: TailBracing) -> Panel:
    inside = shell.inside
    posts = _posts(inside, shell.root, float(shell.whole.bounds[3]), bracing)
    bays = tuple(
        inside.intersection(shapely.box(-FAR, a, FAR, b)) for (_, a), (b, _) in pairwise(posts)
    )
    return Panel(shell.name, shell.whole, inside, posts, bays, *shell.widths)


def _posts(
    inside: BaseGeometry,
    root: tuple[float, float],
    outer: float,
    bracing: TailBracing,
) -> tuple[tuple[float, float], ...]:
    end = float(inside.bounds[3])
    begin = max(float(inside.bounds[1]), root[1])
    count = max(1, round((end - begin) / bracing.pitch))
    if bracing.pattern == "none":
        count = 1
    half = bracing.width / 2
    middles = [begin + (end - begin) * i / count for i in range(1, count)]
    middles = [y for y in middles if y - half > begin and y + half < end - _LEAST_BAY * half]
    return (root, *((y - half, y + half) for y in middles), (end, outer))


def _between(panel: Panel, bracing: TailBracing) -> Iterator[FramePiece]:
    for low, high in panel.posts[1:-1]:
        y = (low + high) / 2
        row = panel.inside.intersection(shapely.LineString([(-FAR, y), (FAR, y)]))
        if row.is_empty:
            continue
        left, _, right, _ = row.bounds
        for strip in strips_in(panel.inside, (left, y), (right, y), bracing.width):
            yield FramePiece(
                "cross-piece",
                panel.name,
                strip,
                ((left, y), (right, y)),
                bracing.width,
                f"{panel.name} {y:.0f}",
            )
    if bracing.pattern in ("zigzag", "crossed"):
        yield from _diagonals(panel, bracing)


def _diagonals(panel: Panel, bracing: TailBracing) -> Iterator[FramePiece]:
    for number, bay in enumerate(panel.bays):
        corners = bay_corners(bay)
        if corners is None:
            continue
        front_in, rear_in, front_out, rear_out = corners
        ways = [(front_in, rear_out), (rear_in, front_out)]
        if bracing.pattern == "zigzag":
            ways = [ways[number % 2]]
        room = bay
        for i, (a, b) in enumerate(ways):
            strips = strips_in(room, a, b, bracing.width)
            kept = strips if i and bracing.joint == "butt" else strips[:1]
            for strip in kept:
                yield FramePiece(
                    "diagonal",
                    panel.name,
                    strip,
                    (a, b),
                    bracing.width,
                    f"{panel.name} bay {number + 1}",
                )
            if bracing.joint == "butt" and strips:
                room = room.difference(shapely.Polygon(strips[0].outline))


def bay_corners(bay: BaseGeometry) -> tuple[Point2, Point2, Point2, Point2] | None:
    """Corners of a bay: front and rear at its inner face, front and rear at its outer; ``None`` for a scrap."""
    if bay.is_empty or bay.area < LEAST_MM2:
        return None
    whole = (
        bay if bay.geom_type == "Polygon" else max(shapely.get_parts(bay), key=lambda one: one.area)
    )
    if whole.geom_type != "Polygon":
        return None
    _, low, _, high = whole.bounds
    points = list(whole.exterior.coords)[:-1]
    found = []
    for y in (low, high):
        row = [(float(p[0]), float(p[1])) for p in points if abs(p[1] - y) < 1e-4]  # noqa: PLR2004  on the face
        found += [min(row), max(row)]
    return found[0], found[1], found[2], found[3]


def _named(surface: TailSurface, pieces: list[FramePiece]) -> Iterator[FramePiece]:
    numbers: dict[str, int] = {}
    for piece in pieces:
        if piece.kind in ("cross-piece", "diagonal"):
            number = numbers[piece.kind] = numbers.get(piece.kind, 0) + 1
            yield replace(piece, key=f"{surface.id} {piece.kind} {number}")
        else:
            yield replace(piece, key=f"{surface.id} {piece.key}")


def _free_corners(panels: list[Panel], bracing: TailBracing) -> Iterator[FreeCorner]:
    """Every corner of a bay where no diagonal ends."""
    if bracing.gusset <= 0:
        return
    for panel in panels:
        for i, bay in enumerate(panel.bays):
            corners = bay_corners(bay)
            if corners is None:
                continue
            front_in, rear_in, front_out, rear_out = corners
            falls = i % 2 == 0
            free = {
                "none": (True,) * 4,
                "ladder": (True,) * 4,
                "crossed": (False,) * 4,
                "zigzag": (not falls, falls, falls, not falls),
            }[bracing.pattern]
            around = (
                (front_in, rear_in, front_out),
                (rear_in, front_in, rear_out),
                (front_out, rear_out, front_in),
                (rear_out, front_out, rear_in),
            )
            for is_free, (at, across, along) in zip(free, around, strict=True):
                reach = min(bracing.gusset, math.dist(at, across) / 2, math.dist(at, along) / 2)
                if is_free and reach >= 1:
                    yield FreeCorner(
                        at, _towards(at, across, reach), _towards(at, along, reach), reach
                    )


def _towards(at: Point2, other: Point2, reach: float) -> Point2:
    share = reach / math.dist(at, other)
    return at[0] + share * (other[0] - at[0]), at[1] + share * (other[1] - at[1])


def _angle(at: Point2, a: Point2, b: Point2) -> float:
    one = math.atan2(a[1] - at[1], a[0] - at[0])
    other = math.atan2(b[1] - at[1], b[0] - at[0])
    turn = abs(math.degrees(one - other)) % 360
    return min(turn, 360 - turn)


def frame_cut_list(surface: TailSurface) -> tuple[CutPart, ...]:
    """Every stick; quantities multiplied out are all of the surface.

    Raises
    ------
    BadInput
        As `stick_frame_of`.
    """
    frame = stick_frame_of(surface)
    found = []
    for piece in frame.pieces:
        once = surface.upright or piece.whole
        length = piece.strip.length
        found.append(
            CutPart(
                piece.key,
                piece.kind,
                1 if once else 2,
                (frame.thickness, piece.width),
                length,
                piece.strip.ends if all(piece.strip.ends) else (),
                surface.material,
                piece.strip.outline,
                piece.key,
                member=surface.id,
            )
        )
    return tuple(found)
