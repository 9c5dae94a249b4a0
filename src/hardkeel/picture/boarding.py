"""A frame set up on its board as wood: what one sees standing over it, and from the side, mm over the board."""

from hardkeel.fuselage.fitting import fitted_formers
from hardkeel.fuselage.flatwork import board_plan_of
from hardkeel.fuselage.members import kinds_with
from hardkeel.fuselage.model import Fuselage
from hardkeel.fuselage.squaring import frame_survey
from hardkeel.fuselage.standing import faces_of
from hardkeel.picture.wood import WoodLabel, WoodLine, WoodPicture, WoodShape, tone_of

_BOARD_MM = 14.0
_BLOCK_MM = 6.0  # a spacer on edge, as thick as it is drawn
_BESIDE_MM = 20.0


def board_from_above(fuselage: Fuselage) -> WoodPicture:
    """Centre line, station lines, formers on edge, wires."""
    plan = board_plan_of(fuselage)
    if plan is None:
        return WoodPicture()
    board = WoodShape("board", plan.outline, grain=0.0, tone="soft", faint=True)
    shapes = [board]
    lines: list[WoodLine] = []
    labels: list[WoodLabel] = []
    formers = {former.station: former for former in fuselage.formers}
    for mark in plan.marks:
        if mark.role == "member":
            middle = sum(u for u, _ in mark.points) / len(mark.points)
            former = min(formers.values(), key=lambda f: abs(f.station - middle))
            shapes.append(
                WoodShape(former.id, mark.points, grain=90.0, tone=tone_of(former.material))
            )
        elif mark.role == "station":
            lines.append(WoodLine("station", mark.points, mark.text))
            low = max(v for _, v in mark.points)
            labels.append(WoodLabel((mark.points[0][0], low + 2), mark.text, ref=mark.text))
        elif mark.role == "centre":
            lines.append(WoodLine("centre", mark.points))
        else:
            lines.append(WoodLine("wire", mark.points, mark.text))
    return WoodPicture(tuple(shapes), tuple(lines), tuple(labels))


def board_from_the_side(fuselage: Fuselage) -> WoodPicture:
    """The board, spacers under the formers with their heights, the wires' height."""
    board = fuselage.board
    if board is None or not fuselage.formers:
        return WoodPicture()
    at = {mark.id: mark.at for mark in frame_survey(fuselage).marks}
    first = min(former.station for former in fuselage.formers) - _BESIDE_MM
    last = max(former.station for former in fuselage.formers) + _BESIDE_MM
    shapes = [
        WoodShape(
            "board", ((first, 0.0), (last, 0.0), (last, _BOARD_MM), (first, _BOARD_MM)), tone="soft"
        )
    ]
    labels: list[WoodLabel] = []
    spacers = {one.id: one.spacer for one in fitted_formers(fuselage)}
    for former in fuselage.formers:
        front, rear = faces_of(fuselage, former)
        low, high = sorted((at[f"{former.id}.bc"][2], at[f"{former.id}.tc"][2]))
        ring = ((front, -low), (rear, -low), (rear, -high), (front, -high))
        shapes.append(WoodShape(former.id, ring, grain=90.0, tone=tone_of(former.material)))
        tall = spacers[former.id] or 0.0
        if tall > 0:
            a, b = former.station - _BLOCK_MM, former.station + _BLOCK_MM
            block = ((a, 0.0), (b, 0.0), (b, -tall), (a, -tall))
            shapes.append(WoodShape(f"spacer {former.id}", block, grain=None, tone="hard"))
        labels.append(WoodLabel((former.station, _BOARD_MM + 1), former.id, ref=former.id))
    lines = []
    for member in fuselage.framed.members:
        if member.kind in kinds_with("threaded"):
            a, b = fuselage.span(member)
            over = board.z - member.z if board.inverted else member.z - board.z
            lines.append(WoodLine("wire", ((a, -over), (b, -over)), member.id))
    return WoodPicture(tuple(shapes), tuple(lines), tuple(labels))
