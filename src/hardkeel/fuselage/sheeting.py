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
from hardkeel.fuselage.wrapping import is_wrapped
from hardkeel.geometry.polygons import BaseGeometry, shapely
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.spline import arc_length_at
from hardkeel.joinery.flat import FlatPiece, Mark, open_ring

Face = Literal["top", "bottom"]
_CRUMB_MM2: Final = 1.0
_STRETCHES: Final = 0.8  # percent: more than thin sheet gives without a kink, by experience


@dataclass(frozen=True, slots=True)
class Skin:
    """One face laid flat.

    Attributes
    ----------
    length : float
        Along the bent line, mm; `widest` across it.
    strain : float
        How much longer or shorter its edges are on the fuselage than as it lies flat, percent, over the worst bay: a
        sheet that is bent two ways does not lie flat.
    """

    face: Face
    length: float
    widest: float
    strain: float
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


def strained_skins_of(fuselage: Fuselage) -> tuple[Skin, ...]:
    """Faces whose sheet would have to stretch by more than it does without kinks.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    if not is_wrapped(fuselage):
        return ()
    return tuple(one for one in skins_of(fuselage) if one.strain > _STRETCHES and one.panels)


def _skin(side: Side, face: Face, thickness: float) -> Skin:
    fuselage, loft = side.fuselage, side.loft
    a, b = float(loft.stations[0]), float(loft.stations[-1])
    x = side.places(a, b)
    line = loft.top if face == "top" else loft.bottom
    t = arc_length_at((line,), loft.stations, x)
    half = _half_widths(side, face, x)
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
    return Skin(face, float(t[-1]), float(2 * half.max()), _strain(side, face, x, t, half), panels)


def _strain(side: Side, face: Face, x: Array, t: Array, half: Array) -> float:
    """The most that any bay's edge differs from its length laid flat, percent."""
    if side.wrap is None:
        return 0.0
    wrapped = side.wrap.at(x)
    edge = wrapped.slant_high if face == "top" else wrapped.slant_low
    flat = np.concatenate([[0.0], np.cumsum(np.hypot(np.diff(t), np.diff(half)))])
    places = np.searchsorted(x, side.loft.stations)
    on, off = np.diff(edge[places]), np.diff(flat[places])
    return float(100 * np.max(np.abs(on / np.maximum(off, 1e-9) - 1)))


def _half_widths(side: Side, face: Face, x: Array) -> Array:
    """Half of a face's width across, from the crown or the keel to the side's edge, mm."""
    wide = side.loft.half_width.value(x)
    if side.wrap is not None:
        wrapped = side.wrap.at(x)
        return wrapped.deck if face == "top" else wrapped.belly
    corner = np.minimum(side.corner(x), wide)
    # flat between the corners, then round them: a quarter circle each
    return np.maximum(wide - corner + np.pi / 2 * corner, 0.0)


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
