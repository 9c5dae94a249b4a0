"""A tail surface as wood: lying flat, one half live and the other its mirror; its ribs; its hinge.

Axes: *flat* is (y, x), the leading edge up; a fin lies on its side, its foot to the left.  A rib is (x, −z).  mm.
"""

import math
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace
from typing import Final

from hardkeel.geometry.hull import Point2
from hardkeel.geometry.polygons import shapely
from hardkeel.picture.wood import (
    WoodLabel,
    WoodLine,
    WoodPicture,
    WoodShape,
    WoodSpot,
    down,
    tone_of,
)
from hardkeel.tail.controls import HingeStation, hinge_cut
from hardkeel.tail.flatness import corner_places
from hardkeel.tail.kinds import has, kind_of
from hardkeel.tail.lofting import Profiles
from hardkeel.tail.model import TailSurface
from hardkeel.tail.pieces import bare_width
from hardkeel.tail.pinning import pins_of
from hardkeel.tail.planform import planform_of
from hardkeel.tail.ribs import CutRib, hinge_x
from hardkeel.tail.stick_frame import stick_frame_of

_BETWEEN_MM: Final = 14.0
_SEEN_RIB_MM: Final = 2.5  # a rib on edge is drawn this thick at least


def flat_picture_of(
    surface: TailSurface,
    profiles: Profiles,
    made: frozenset[str] | None = None,
    give: float | None = None,
    told: str = "",
    *,
    pins: bool = True,
) -> WoodPicture:
    """The whole surface from above; a stick that is cut is drawn as wood, the mirror faintly.

    Parameters
    ----------
    made : frozenset of str, optional
        Keys of what is cut, the rest being drawn open; everything as wood without it.
    give : float, optional
        How far the tip's corners part under the pinch, mm: drawn as the tip's edge, turned so far; `told`
        says it.
    pins : bool
        Where pins stand; they are left out under a hand that drags.

    Raises
    ------
    BadInput
        When a figure is missing.
    """
    shapes = list(_wood(surface, profiles, made))
    lines: list[WoodLine] = []
    planform = planform_of(surface)
    ring = tuple((y, x) for x, y in planform.ring)
    lines.append(WoodLine("outline", (*ring, ring[0]), "outline"))
    if surface.hinge_at_chord is not None:
        ends = [(hinge_x(surface, y) or 0.0, y) for y in (0.0, planform.half)]
        cut = shapely.LineString(ends).intersection(shapely.Polygon(planform.ring))
        points = tuple((float(y), float(x)) for x, y in shapely.get_coordinates(cut))
        if len(points) > 1:
            lines.append(WoodLine("seat", points, "hinge"))
    bare = bare_width(surface)
    if bare:
        ends2 = ((bare, float(planform.leading(bare))), (bare, float(planform.trailing(bare))))
        lines.append(WoodLine("station", ends2))
    if has(surface, "bracing") and pins:
        lines += [WoodLine("pin", ((y, x),)) for x, y in pins_of(stick_frame_of(surface))]
    labels: list[WoodLabel] = []
    if give is not None:
        y = planform.half
        front, rear = float(planform.leading(0.97 * y)), float(planform.trailing(0.97 * y))
        # thumb above and finger below: two arrow heads beside the tip, and the edge between them
        out, head = y + 0.02 * y + 5, 4.0
        for x, way in ((front, -1.0), (rear, 1.0)):
            lines.append(
                WoodLine("wire", ((out - head, x), (out, x + way * head), (out + head, x)))
            )
        lines.append(WoodLine("wire", ((out, front), (out, rear))))
        labels.append(WoodLabel((out, rear + head), told or f"{give:.1f} mm"))
    if not surface.upright:
        shapes += [_mirrored(shape) for shape in shapes]
        lines += [
            WoodLine(line.role, tuple((-u, v) for u, v in line.points), line.ref)
            for line in lines
            if line.role in ("outline", "seat", "station")
        ]
        lines.append(WoodLine("centre", ((0.0, -10.0), (0.0, float(planform.trailing(0.0)) + 10))))
    return WoodPicture(tuple(shapes), tuple(lines), tuple(labels))


def _mirrored(shape: WoodShape) -> WoodShape:
    grain = None if shape.grain is None else 180.0 - shape.grain
    return replace(
        shape,
        ref="",
        ring=tuple((-u, v) for u, v in reversed(shape.ring)),
        holes=tuple(tuple((-u, v) for u, v in reversed(hole)) for hole in shape.holes),
        grain=grain,
        faint=True,
    )


def _wood(
    surface: TailSurface, profiles: Profiles, made: frozenset[str] | None
) -> Iterator[WoodShape]:
    if surface.kind is None:
        ring = tuple((y, x) for x, y in planform_of(surface).ring)
        yield WoodShape(surface.id, ring, grain=0.0, tone=tone_of(surface.material), made=False)
        return
    frame = has(surface, "bracing")  # what of a frame is cut is drawn as wood stick by stick
    for one in kind_of(surface).drawn(surface, profiles):
        tone = "metal" if one.material == "metal" else tone_of(one.material)
        cut = made is None or not frame or one.ref in made
        yield WoodShape(one.ref, one.ring, grain=one.grain, tone=tone, made=cut)


def rib_gallery(ribs: Sequence[CutRib], tone: object) -> WoodPicture:
    """Every rib, nose to the left, in as many rows as make them largest on a board twice as wide as tall."""
    if not ribs:
        return WoodPicture()
    sizes = [(rib.lofted.chord, _reach(rib)) for rib in ribs]
    best = max(range(1, len(ribs) + 1), key=lambda columns: _scale(sizes, columns))
    shapes: list[WoodShape] = []
    labels: list[WoodLabel] = []
    wide = max(chord for chord, _ in sizes) + _BETWEEN_MM
    top = 0.0
    for first in range(0, len(ribs), best):
        row = ribs[first : first + best]
        above = max(high for _, (_, high) in sizes[first : first + best])
        below = max(-low for _, (low, _) in sizes[first : first + best])
        for column, rib in enumerate(row):
            name = f"rib {first + column + 1}"
            left, base = column * wide, top + above
            shapes += _rib_shapes(rib, name, (left, base), tone)
            labels.append(
                WoodLabel((left + rib.lofted.chord / 2, base + below + 1), name, ref=name)
            )
        top += above + below + _BETWEEN_MM
    return WoodPicture(tuple(shapes), (), tuple(labels))


def _reach(rib: CutRib) -> tuple[float, float]:
    """Lowest and highest of a rib; its feet are seen on the one in hand."""
    zs = [z for _, z in rib.lofted.outline]
    return min(zs), max(zs)


def _scale(sizes: Sequence[tuple[float, tuple[float, float]]], columns: int) -> float:
    rows = math.ceil(len(sizes) / columns)
    wide = columns * (max(chord for chord, _ in sizes) + _BETWEEN_MM)
    tall = rows * (max(high - low for _, (low, high) in sizes) + 1.6 * _BETWEEN_MM)
    return min(_BOARD_RATIO / wide, 1.0 / tall)


_BOARD_RATIO: Final = 1.9


def rib_picture(rib: CutRib, tone: object, number: int) -> WoodPicture:
    """One rib large: its wood, its true outline round it, notches, tubes, feet and the chord line."""
    outline = down(rib.lofted.outline)
    lines = [
        WoodLine("outline", (*outline, outline[0])),
        WoodLine("centre", ((-4.0, 0.0), (rib.lofted.chord + 4.0, 0.0))),
    ]
    feet = [WoodShape("", down(foot), tone=tone, faint=True) for foot in rib.feet]  # type: ignore[arg-type]
    return WoodPicture((*_rib_shapes(rib, f"rib {number}", (0.0, 0.0), tone), *feet), tuple(lines))


def _rib_shapes(rib: CutRib, ref: str, at: Point2, tone: object) -> list[WoodShape]:
    shapes = []
    for ring in (*rib.fixed, *rib.moving):
        wood = shapely.Polygon(ring)
        holes = tuple(hole for hole in rib.holes if wood.contains(shapely.Polygon(hole)))
        moved = tuple((x + at[0], at[1] - z) for x, z in ring)
        bored = tuple(tuple((x + at[0], at[1] - z) for x, z in hole) for hole in holes)
        shapes.append(WoodShape(ref, moved, bored, grain=0.0, tone=tone))  # type: ignore[arg-type]
    return shapes


def hinge_picture(surface: TailSurface, station: HingeStation, throw: float) -> WoodPicture:
    """A cut across the hinge line: fixed part, moving part with its bevels, and where it stands at a throw."""
    controls = surface.controls
    gap = controls.gap if controls is not None else 0.0
    edge = controls.edge if controls is not None else 2.0
    ahead, flap = hinge_cut(station, gap, edge, max(3 * station.thickness[1], 18.0))
    turn = math.radians(throw)
    turned = tuple(
        (x * math.cos(turn) - z * math.sin(turn), z * math.cos(turn) + x * math.sin(turn))
        for x, z in flap
    )
    tone = tone_of(surface.material)
    shapes = (
        WoodShape("fixed", down(ahead), tone=tone),
        WoodShape("moving", down(flap), tone=tone, faint=True),
        WoodShape("turned", down(turned), grain=-throw, tone=tone),
    )
    return WoodPicture(shapes, (WoodLine("pin", ((0.0, 0.0),)),))


def corners_picture(
    surface: TailSurface, profiles: Profiles, read: Iterable[str], held: str = ""
) -> WoodPicture:
    """The surface on the board with the corners whose heights are read as spots; the one in hand is lit."""
    base = flat_picture_of(surface, profiles)
    spots, lines = [], [line for line in base.lines if line.role != "pin"]
    taken = set(read)
    for place, (x, y) in corner_places(surface).items():
        spots.append(WoodSpot(place, (y, x)))
        if place in taken:
            lines.append(WoodLine("pin", ((y, x),)))
        if place == held:
            r = 6.0
            ring = tuple(
                (y + r * math.cos(a), x + r * math.sin(a))
                for a in (i * math.pi / 8 for i in range(17))
            )
            lines.append(WoodLine("outline", ring))
    shapes = tuple(replace(shape, faint=False) for shape in base.shapes)
    return WoodPicture(shapes, tuple(lines), base.labels, tuple(spots))
