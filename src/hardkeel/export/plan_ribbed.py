"""The building plan of a surface that is no frame of sticks: edges, spars, ribs, hinges, from above, both halves."""

import math

from hardkeel.base.values import Point2
from hardkeel.export.plan_drawing import LETTER, SMALL_MM, LayerName, PlanDrawing, readable
from hardkeel.messages import building_plan as say
from hardkeel.tail.kinds import Drawn, kind_of
from hardkeel.tail.lofting import Profiles
from hardkeel.tail.model import TailSurface
from hardkeel.tail.pieces import drawn_whole


def draw_ribbed(drawing: PlanDrawing, surface: TailSurface, profiles: Profiles) -> None:
    """Draw both halves (of a fin the one) across the page, the leading edge up.

    Raises
    ------
    BadInput
        When a figure or a section is missing.
    """
    hands = (1.0,) if surface.upright else (1.0, -1.0)
    pieces = tuple(kind_of(surface).drawn(surface, profiles))
    whole = drawn_whole(surface)
    for hand in hands:
        for piece in pieces:
            core = piece.ref == surface.id
            ring = [(hand * y, -x) for y, x in piece.ring]
            drawing.line(_layer(surface, piece), ring, closed=True, open_=core)
        drawing.line("OUTLINE", [(hand * y, -x) for x, y in whole.outline], closed=True, open_=True)
    draw_marks(drawing, surface)
    for ref, piece in {piece.ref: piece for piece in reversed(pieces)}.items():
        if ref != surface.id:
            ring = [(y, -x) for y, x in piece.ring]
            drawing.point_out(ring, ref.removeprefix(f"{surface.id} "), SMALL_MM)
    drawing.figures[say.half_span(surface.id)] = surface.half


def draw_marks(drawing: PlanDrawing, surface: TailSurface) -> None:
    """Hinge line, hinges, horn, spars and what stays bare, on both halves, named on starboard.

    Raises
    ------
    BadInput
        When a figure is missing.
    """
    hands = (1.0,) if surface.upright else (1.0, -1.0)
    marks = [mark for mark in drawn_whole(surface).marks if mark.role != "centre"]
    for hand in hands:
        for mark in marks:
            layer: LayerName = "CENTRE" if mark.text == "hinge line" else "DIMENSIONS"
            if not mark.text.endswith(" spar"):
                drawing.line(layer, [(hand * y, -x) for x, y in mark.points])
    for mark in marks:
        if mark.role in {"drawn", "seat"}:
            _name(drawing, [(y, -x) for x, y in mark.points], mark.text)


def _layer(surface: TailSurface, piece: Drawn) -> LayerName:
    """Ribs stand as formers do; what the whole surface is, is its outline; all else are sticks."""
    if piece.ref == surface.id:
        return "OUTLINE"
    return "FORMERS" if piece.ref.startswith("rib") else "STICKS"


def _name(drawing: PlanDrawing, line: list[Point2], text: str) -> None:
    """Beside a line, along it or off its end."""
    (u0, v0), (u1, v1) = line[0], line[-1]
    way = math.degrees(math.atan2(v1 - v0, u1 - u0))
    turn = readable(way)
    across = (-math.sin(math.radians(way)), math.cos(math.radians(way)))
    long, words = math.dist(line[0], line[-1]), len(text) * SMALL_MM * LETTER
    beyond = (long + words) / 2 / max(long, 1e-6) + 2.0 / max(long, 1e-6)
    places = [
        ((u0 + t * (u1 - u0) + off * across[0], v0 + t * (v1 - v0) + off * across[1]), turn)
        for t in (0.5, 0.2, 0.8)
        for off in (2.0, -2.0, 3.5, -3.5)
    ]
    places += [
        ((u0 + t * (u1 - u0), v0 + t * (v1 - v0)), turn) for t in (0.5 - beyond, 0.5 + beyond)
    ]
    drawing.label(places, text, SMALL_MM)
