"""Every station as it is seen from behind, at full size: its outline, the former in it, the wood that passes."""

from collections.abc import Iterable, Iterator, Sequence
from typing import Final

from hardkeel.base.units import LengthUnit, format_angle, format_length
from hardkeel.base.values import Point2
from hardkeel.export.plan_drawing import SMALL_MM, TEXT_MM, PlanDrawing
from hardkeel.fuselage.cutting import carve, shape_of
from hardkeel.fuselage.fitting import FittedFormer, fitted_formers
from hardkeel.fuselage.model import Former, Fuselage
from hardkeel.fuselage.notching import around_of
from hardkeel.messages import building_plan as say
from hardkeel.messages.frame import stop_words

_BETWEEN_MM: Final = 12.0
_WORDS_MM: Final = 18.0  # under a section
_OVER_MM: Final = 10.0
_COLUMN_MM: Final = 36.0  # what its words need
_BEVEL_DEG: Final = 0.25
_CENTRE_MM: Final = 2.0
_CUT_ROOM_MM: Final = 5.0  # about the cut that shows the bevel of a former's edges


def sections_plans(
    fuselage: Fuselage, unit: LengthUnit, room: tuple[float, float]
) -> tuple[PlanDrawing, ...]:
    """All formers in rows, from the nose, as many to a drawing as a page holds; empty without formers.

    Parameters
    ----------
    room : (float, float)
        What a page has to draw on, mm: across, which is how long a row may be, and up.

    Raises
    ------
    BadInput
        When a former's own outline crosses itself.
    """
    fitted = {one.id: one for one in fitted_formers(fuselage)} if fuselage.formers else {}
    found: list[PlanDrawing] = []
    v = 0.0
    for row in _rows(fuselage.formers, room[0]):
        top = max(former.top for former in row)
        low = min(former.bottom for former in row)
        thick = max(
            (one.thickness or 0.0 for one in row if _is_bevelled(fitted[one.id])),
            default=-_CUT_ROOM_MM,
        )
        tall = top - low + _OVER_MM + _WORDS_MM + thick + _CUT_ROOM_MM
        if not found or -v + tall > room[1]:
            found.append(PlanDrawing(f"sections-{len(found) + 1}" if found else "sections"))
            found[-1].write((0.0, 4.0), say.FROM_BEHIND, size=TEXT_MM, anchor="start")
            v = 0.0
        u, v = 0.0, v - top - _OVER_MM
        drawing = found[-1]
        for former in row:
            half = max(2 * former.half_width, _COLUMN_MM) / 2
            wide = _section(drawing, fuselage, former, (u + half, v))
            _words(drawing, (former, fitted[former.id], wide), (u + half, v + low - 5.0), unit)
            u += 2 * half + _BETWEEN_MM
        drawing.line("CENTRE", [(-4.0, v), (u - _BETWEEN_MM + 4.0, v)])
        v += low - _WORDS_MM - thick - _CUT_ROOM_MM
    return tuple(found)


def _rows(formers: Sequence[Former], room: float) -> Iterable[list[Former]]:
    row: list[Former] = []
    long = 0.0
    for former in formers:
        wide = max(2 * former.half_width, _COLUMN_MM) + _BETWEEN_MM
        if row and long + wide > room:
            yield row
            row, long = [], 0.0
        row.append(former)
        long += wide
    if row:
        yield row


def _section(drawing: PlanDrawing, fuselage: Fuselage, former: Former, at: Point2) -> float:
    """A former at a place, its datum on the row's; how far its wood reaches from the middle, mm."""
    shape = shape_of(fuselage, former)

    def moved(ring: Iterable[Point2]) -> list[Point2]:
        return [(y + at[0], z + at[1]) for y, z in ring]

    drawing.line("OUTLINE", moved(shape.outside), closed=True, open_=True)
    for ring in shape.wood:
        drawing.line("FORMERS", moved(ring), closed=True, open_=True)
    carved = carve(former, around_of(fuselage, former))
    for void in carved.passages:
        if void.sort == "gap" or void.kind == "scallop":
            continue
        stick = void.stick if void.stick is not None else void.shape
        inside = stick.intersection(carved.inner)
        for part in getattr(inside, "geoms", (inside,)):
            if part.geom_type == "Polygon" and not part.is_empty:
                drawing.line("OUTLINE", moved(part.exterior.coords[:-1]), closed=True, wood=True)
    for ring in _corner_stock(fuselage, former, carved.inner.bounds):
        drawing.line("OUTLINE", moved(ring), closed=True, hidden=True)
    low, high = former.bottom - _CENTRE_MM, former.top + _CENTRE_MM
    drawing.line("CENTRE", [(at[0], at[1] + low), (at[0], at[1] + high)])
    return max((abs(y) for ring in shape.wood for y, _ in ring), default=former.half_width)


def _corner_stock(
    fuselage: Fuselage, former: Former, inner: Sequence[float]
) -> Iterator[tuple[Point2, ...]]:
    """Strips in the corners between formers, as they lie: a triangular one with its square corner in the side's."""
    left, low, right, high = inner
    for member in fuselage.framed.members:
        if member.kind != "corner-strip" or member.section is None:
            continue
        first, last = fuselage.span(member)
        if not first <= former.station <= last:
            continue
        across, deep = member.section
        for y, into in ((left, 1), (right, -1)):
            for z, up in ((low, 1), (high, -1)):
                corner = ((y, z), (y + into * across, z))
                far = () if member.triangular else ((y + into * across, z + up * deep),)
                yield (*corner, *far, (y, z + up * deep))


def _words(
    drawing: PlanDrawing,
    what: tuple[Former, FittedFormer, float],
    at: Point2,
    unit: LengthUnit,
) -> None:
    """Its name, how wide and high it is, and how its edges lie: in words, and cut through as seen from above."""
    (u, v), (former, fitted, half) = at, what
    drawing.write((u, v), stop_words(former.id), size=TEXT_MM)
    wide = format_length(2 * former.half_width, unit)
    tall = format_length(former.top - former.bottom, unit)
    lines = [say.wide_and_high(wide, tall)]
    bevel = fitted.edge_bevel
    if _is_bevelled(fitted):
        lines.append(say.bevelled(format_angle(abs(bevel), 1), narrower_aft=bevel > 0))
        if former.thickness is not None:
            middle = v - 3.6 * len(lines) - (_CUT_ROOM_MM + former.thickness) / 2
            ring = [
                (u + y, middle + ahead) for y, ahead in fitted.from_above(half, former.thickness)
            ]
            drawing.line("FORMERS", ring, closed=True, wood=True)
    for number, text in enumerate(lines, start=1):
        drawing.write((u, v - 3.6 * number), text, size=SMALL_MM)


def _is_bevelled(former: FittedFormer) -> bool:
    return abs(former.edge_bevel) > _BEVEL_DEG
