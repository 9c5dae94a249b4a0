"""Sheeting over and under a fuselage, panel by panel from the nose, laid out flat.

The drawing is (t, w): along the bent line from the first station, across from the centre line, mm.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from hardkeel.fuselage.model import Fuselage
from hardkeel.fuselage.planking import planked_between
from hardkeel.fuselage.sheeted import Side
from hardkeel.geometry.polygons import BaseGeometry, shapely
from hardkeel.geometry.spline import arc_length_at
from hardkeel.joinery.flat import FlatPiece, Mark, open_ring

Face = Literal["top", "bottom"]
_CRUMB_MM2: Final = 1.0


@dataclass(frozen=True, slots=True)
class Skin:
    """One face laid flat.

    Attributes
    ----------
    length : float
        Along the bent line, mm; `widest` across it.
    """

    face: Face
    length: float
    widest: float
    panels: tuple[FlatPiece, ...]


def skins_of(fuselage: Fuselage) -> tuple[Skin, ...]:
    """Top and bottom, where they are sheeted.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    side = Side(fuselage)
    faces: tuple[tuple[Face, float], ...] = (
        ("top", fuselage.top_skin),
        ("bottom", fuselage.bottom_skin),
    )
    return tuple(_skin(side, face, thick) for face, thick in faces if thick > 0)


def _skin(side: Side, face: Face, thickness: float) -> Skin:
    fuselage, loft = side.fuselage, side.loft
    a, b = float(loft.stations[0]), float(loft.stations[-1])
    x = side.places(a, b)
    line = loft.top if face == "top" else loft.bottom
    t = arc_length_at((line,), loft.stations, x)
    corner = np.minimum(side.corner(x), loft.half_width.value(x))
    # flat between the corners, then round them: a quarter circle each
    half = np.maximum(loft.half_width.value(x) - corner + np.pi / 2 * corner, 0.0)
    whole = shapely.Polygon(
        [
            *zip(t.tolist(), (-half).tolist(), strict=True),
            *zip(t[::-1].tolist(), half[::-1].tolist(), strict=True),
        ]
    ).buffer(0)
    planked = planked_between(fuselage)
    if planked:  # there planks lie, and no sheet
        ends = np.array([planked[0].station, planked[-1].station])
        first, last = arc_length_at((line,), loft.stations, ends).tolist()
        _, low, _, high = whole.bounds
        whole = whole.difference(shapely.box(first, low - 1, last, high + 1))
    stations = [(name, float(arc_length_at((line,), loft.stations, np.array([stop.station]))[0]))
                for name, stop in fuselage.stations]  # fmt: skip
    panels = tuple(
        FlatPiece(
            name=f"{face} panel {number}",
            kind="sheeting",
            part=f"{face}_sheet",
            outline=open_ring(one.exterior.coords),
            marks=tuple(_station_marks(one, stations)),
            thickness=thickness,
            material=fuselage.side_material,
            grain="v" if fuselage.framed.sheeting == "across" else "u",
        )
        for number, one in enumerate(_panels(whole, fuselage), start=1)
    )
    return Skin(face, float(t[-1]), float(2 * half.max()), panels)


def _panels(whole: BaseGeometry, fuselage: Fuselage) -> Iterator[BaseGeometry]:
    """Edge to edge from the nose: as wide as a sheet, as long as one."""
    length, width = fuselage.framed.sheet
    across = fuselage.framed.sheeting == "across"
    steps = (width, length) if across else (length, width)
    if whole.is_empty:
        return
    left, low, right, high = whole.bounds
    tall = high - low
    # strips along lie on both sides of the centre line alike
    rows = max(1, int(np.ceil(tall / steps[1] - 1e-9)))
    start = -rows * steps[1] / 2 if rows > 1 else low
    columns = max(1, int(np.ceil((right - left) / steps[0] - 1e-9)))
    for i in range(columns):
        for j in range(rows):
            box = shapely.box(
                left + i * steps[0],
                start + j * steps[1],
                left + (i + 1) * steps[0],
                start + (j + 1) * steps[1],
            )
            for part in shapely.get_parts(whole.intersection(box)):
                if part.geom_type == "Polygon" and part.area > _CRUMB_MM2:
                    yield part


def _station_marks(panel: BaseGeometry, stations: list[tuple[str, float]]) -> Iterator[Mark]:
    left, low, right, high = panel.bounds
    for name, t in stations:
        if left < t < right:
            inside = panel.intersection(shapely.LineString([(t, low - 1), (t, high + 1)]))
            if not inside.is_empty:
                _, a, _, b = inside.bounds
                yield Mark("station", ((t, a), (t, b)), name)
