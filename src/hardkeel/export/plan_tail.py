"""The building plan of a tail surface framed of sticks: both halves, as it is pinned down."""

from hardkeel.base.values import Point2
from hardkeel.export.plan_drawing import PlanDrawing
from hardkeel.messages import building_plan as say
from hardkeel.messages.names import surface_name
from hardkeel.tail.kinds import has
from hardkeel.tail.model import TailSurface
from hardkeel.tail.planform import planform_of
from hardkeel.tail.stick_frame import stick_frame_of


def tail_plan(surface: TailSurface) -> PlanDrawing | None:
    """All sticks of both halves (of a fin of the one), numbered, with hinge line and middle; ``None`` for other kinds.

    Across the page the span, the leading edge up.

    Raises
    ------
    BadInput
        As `stick_frame_of`.
    """
    if not has(surface, "bracing"):
        return None
    drawing = PlanDrawing(surface.id)
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
    for number, piece in enumerate(frame.pieces, start=1):
        outline = [_laid(point, 1.0) for point in piece.strip.outline]
        drawing.point_out(outline, say.numbered(piece.kind, number))
    if surface.hinge_at_chord is not None:
        for hand in hands:
            line = [
                (float(planform.leading(y) + surface.hinge_at_chord * planform.chord(y)), float(y))
                for y in (0.0, 0.98 * planform.half)
            ]
            drawing.line("CENTRE", [_laid(point, hand) for point in line])
    front, rear = -float(planform.le.min()), -float(planform.te.max())
    drawing.line("CENTRE", [(0.0, front + 6), (0.0, rear - 6)])
    drawing.write((0.0, rear - 11), say.plan_of(surface_name(surface.id)))
    return drawing


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
