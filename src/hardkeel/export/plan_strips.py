"""Long narrow pieces by their ordinates: marked off on the wood with a rule, instead of many sheets stuck together."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.base.units import LengthUnit, format_length
from hardkeel.export.plan_drawing import LETTER, SMALL_MM, TEXT_MM, PlanDrawing
from hardkeel.geometry.polygons import shapely
from hardkeel.joinery.alike import gathered
from hardkeel.joinery.flat import FlatPiece
from hardkeel.messages import building_plan as say
from hardkeel.messages.sheets import names_words

_EVERY_MM: Final = 50.0
_NARROW: Final = 0.16  # of its length: what is broader is cut by its template
_LONG_MM: Final = 460.0  # more than two pages in a row
_HAIR_MM: Final = 0.01
_STEP_MM: Final = 0.3  # a notch's
_ROW_MM: Final = 4.6
_COLUMN_MM: Final = 26.0
_BETWEEN_MM: Final = 10.0
_HEAD_MM: Final = 14.0


@dataclass(frozen=True, slots=True)
class Ordinate:
    """At a distance from a piece's left end, mm: its edges over its lowest line just before and just behind there."""

    along: float
    before: tuple[float, float]
    behind: tuple[float, float]

    @property
    def is_step(self) -> bool:
        """Whether an edge jumps there."""
        pairs = zip(self.before, self.behind, strict=True)
        return any(abs(a - b) > _STEP_MM for a, b in pairs)


def is_strip(piece: FlatPiece) -> bool:
    """Whether a piece is long and narrow, as it is drawn."""
    along, across = piece.size
    return along > _LONG_MM and across < _NARROW * along


def ordinates_of(piece: FlatPiece) -> tuple[Ordinate, ...]:
    """Every 50 mm, at both ends, and where an edge jumps."""
    left, low, right, high = piece.bounds
    edge = shapely.Polygon(piece.outline)

    def edges_at(u: float) -> tuple[float, float]:
        line = shapely.LineString([(u, low - 1), (u, high + 1)])
        _, bottom, _, top = edge.intersection(line).bounds
        return float(bottom - low), float(top - low)

    corners = np.array([u for u, _ in piece.outline])
    places = sorted({*np.arange(left, right, _EVERY_MM).tolist(), right, *corners.tolist()})
    found = []
    for u in places:
        before = edges_at(min(max(u - _HAIR_MM, left + _HAIR_MM / 2), right - _HAIR_MM / 2))
        behind = edges_at(min(max(u + _HAIR_MM, left + _HAIR_MM / 2), right - _HAIR_MM / 2))
        one = Ordinate(u - left, before, behind)
        regular = abs((u - left) / _EVERY_MM - round((u - left) / _EVERY_MM)) < 1e-9  # noqa: PLR2004  a hair
        if regular or u == right or one.is_step:
            found.append(one)
    return tuple(found)


def strips_plans(
    pieces: Sequence[FlatPiece], unit: LengthUnit, room: tuple[float, float]
) -> tuple[PlanDrawing, ...]:
    """Tables of all long narrow pieces, as many to a drawing as a page holds; empty without any.

    Parameters
    ----------
    room : (float, float)
        What a page has to draw on, mm.
    """
    found: list[PlanDrawing] = []
    wide = 3 * _COLUMN_MM
    u, deepest = 0.0, 0.0
    v = 0.0
    for title, rows in _tables([piece for piece in pieces if is_strip(piece)], unit, room[1]):
        tall = _HEAD_MM + _ROW_MM * (len(rows) + 1)
        if u and u + wide > room[0]:
            u, v, deepest = 0.0, v - deepest - _BETWEEN_MM, 0.0
        if not found or -v + tall > room[1]:
            found.append(PlanDrawing(f"strips-{len(found) + 1}" if found else "strips"))
            u, v, deepest = 0.0, 0.0, 0.0
        _table(found[-1], title, rows, (u, v))
        u, deepest = u + wide + _BETWEEN_MM, max(deepest, tall)
    return tuple(found)


def _tables(
    pieces: Sequence[FlatPiece], unit: LengthUnit, tall: float
) -> Iterator[tuple[tuple[str, str], list[tuple[str, ...]]]]:
    """Each piece's rows, parted where they are more than a page holds."""
    most = max(1, int((tall - _HEAD_MM) // _ROW_MM) - 1)
    for alike in gathered(pieces):
        rows = []
        for one in ordinates_of(alike.piece):
            figures = [
                format_length(a, unit)
                if abs(a - b) <= _STEP_MM
                else say.jumps(format_length(a, unit), format_length(b, unit))
                for a, b in zip(one.before, one.behind, strict=True)
            ]
            rows.append((format_length(one.along, unit), *figures))
        name = names_words([name.replace("_", " ") for name in alike.names])
        wood = (alike.piece.material or "").replace("-", " ")
        thick = format_length(alike.piece.thickness, unit) if alike.piece.thickness else ""
        under = say.strip_words(
            " ".join(x for x in (wood, thick) if x), alike.drawn, alike.turned_over
        )
        for start in range(0, len(rows), most):
            yield (name, under), rows[start : start + most]


def _table(
    drawing: PlanDrawing,
    title: tuple[str, str],
    rows: Sequence[Sequence[str]],
    at: tuple[float, float],
) -> None:
    left, top = at
    drawing.write((left, top - TEXT_MM), title[0], size=TEXT_MM, anchor="start")
    drawing.write((left, top - TEXT_MM - 4.0), title[1], size=SMALL_MM, anchor="start")
    for number, row in enumerate((say.STRIP_COLUMNS, *rows)):
        v = top - _HEAD_MM - _ROW_MM * number
        for i, text in enumerate(row):
            size = SMALL_MM
            # what is too wide for its column stands in smaller letters
            room = (_COLUMN_MM - 2.0) / max(len(text) * LETTER, 1e-9)
            drawing.write(
                (left + _COLUMN_MM * (i + 1) - 2.0, v), text, size=min(size, room), anchor="end"
            )
        foot = v - _ROW_MM / 2
        drawing.line("DIMENSIONS", [(left, foot), (left + 3 * _COLUMN_MM - 2.0, foot)])
