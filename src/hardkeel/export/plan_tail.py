"""The building plan of a tail surface framed of sticks: both halves, as it is pinned down."""

from typing import Final

from hardkeel.base.values import Point2
from hardkeel.export.plan_drawing import SMALL_MM, PlanDrawing
from hardkeel.export.plan_ribbed import draw_marks, draw_ribbed
from hardkeel.messages import building_plan as say
from hardkeel.messages.names import surface_name
from hardkeel.tail.controls import hinge_cut, hinge_stations
from hardkeel.tail.kinds import has
from hardkeel.tail.lofting import Profiles
from hardkeel.tail.model import Controls, TailSurface
from hardkeel.tail.planform import planform_of
from hardkeel.tail.stick_frame import stick_frame_of

_BEVEL_DEG: Final = 0.5  # less than that no sanding block shows
_UNDER_MM: Final = 4.0


def tail_plan(surface: TailSurface, profiles: Profiles) -> PlanDrawing | None:
    """Both halves (of a fin the one) with hinge line and middle; ``None`` where nobody said how it is built.

    Of a frame all sticks, numbered; of others edges, spars and ribs.

    Across the page the span, the leading edge up.

    Raises
    ------
    BadInput
        When a figure or a section is missing.
    """
    if surface.kind is None:
        return None
    drawing = PlanDrawing(surface.id)
    if has(surface, "bracing"):
        _draw_frame(drawing, surface)
    else:
        draw_ribbed(drawing, surface, profiles)
    planform = planform_of(surface)
    front, rear = -float(planform.le.min()), -float(planform.te.max())
    drawing.line("CENTRE", [(0.0, front + 6), (0.0, rear - 6)])
    low = min(v for line in drawing.lines for _, v in line.points)
    words = say.plan_of(surface_name(surface.id), upright=surface.upright)
    drawing.write((0.0, low - 6), words)
    _draw_hinge(drawing, surface, profiles, low - 6)
    return drawing


def _draw_hinge(drawing: PlanDrawing, surface: TailSurface, profiles: Profiles, v: float) -> None:
    """Cuts across the hinge line under the drawing, the front left: how the moving part's faces are bevelled."""
    controls = surface.controls or Controls()
    cuts = [
        (at, station)
        for at, station in zip(
            ("inner", "middle", "outer"), hinge_stations(surface, profiles), strict=False
        )
        if at != "middle" and max(station.bevel_up, station.bevel_down) >= _BEVEL_DEG
    ]
    for at, station in cuts:
        fixed, moving = station.thickness
        tall = max(fixed, moving)
        v -= _UNDER_MM + tall / 2
        long = max(3 * moving, 18.0)
        ahead, flap = hinge_cut(station, controls.gap, controls.edge, long)
        for ring in (ahead, flap):
            moved = [(x - long / 2, up + v) for x, up in ring]
            drawing.line("STICKS", moved, closed=True, wood=True)
        v -= tall / 2 + 3.0
        drawing.write(
            (0.0, v), say.hinge_cut(at, station.bevel_up, station.bevel_down), size=SMALL_MM
        )


def _draw_frame(drawing: PlanDrawing, surface: TailSurface) -> None:
    planform, frame = planform_of(surface), stick_frame_of(surface)
    hands = (1.0,) if surface.upright else (1.0, -1.0)
    for hand in hands:
        drawing.line("OUTLINE", [_laid(point, hand) for point in planform.ring])
    for piece in frame.pieces:
        for hand in (1.0,) if piece.whole else hands:
            outline = [_laid(point, hand) for point in piece.strip.outline]
            if piece.whole and not surface.upright:
                outline = _whole(piece.strip.outline)
            drawing.line("STICKS", outline, closed=True)
    draw_marks(drawing, surface)
    for number, piece in enumerate(frame.pieces, start=1):
        outline = [_laid(point, 1.0) for point in piece.strip.outline]
        drawing.figures[say.numbered(piece.kind, number)] = piece.strip.length
        drawing.point_out(outline, say.numbered(piece.kind, number))


def _laid(point: Point2, hand: float) -> Point2:
    """(x aft, y out) across the page: port is left, ahead is up."""
    return hand * point[1], -point[0]


def _whole(half: tuple[Point2, ...]) -> list[Point2]:
    """A piece that lies across the middle, of its drawn half."""
    outer = [point for point in half if point[1] > 1e-6]  # noqa: PLR2004  off the middle
    ordered = sorted(outer, key=lambda p: p[0])
    port = [(-y, -x) for x, y in ordered]
    starboard = [(y, -x) for x, y in reversed(ordered)]
    return [*starboard, *port]
