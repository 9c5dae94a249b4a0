"""The loft: one natural cubic each for half-width, top and bottom, through formers and tail post."""

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.base.faults import faults_told
from hardkeel.fuselage.contours import area_of, edges_of, shape_enclosing
from hardkeel.fuselage.model import Former, Fuselage, Line, SectionShape
from hardkeel.fuselage.surface import EDGES, corners_of, surface_of
from hardkeel.geometry.polygons import shapely
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.spline import NaturalCubic, arc_lengths

_AS_MUCH: Final = (
    0.005  # of its area: a former with figures of its own encloses as much as the loft
)
_OUTLINE_MM: Final = (
    0.005  # points of an outline taken from the loft that lie closer to a line are left out
)
LINES: Final[tuple[Line, ...]] = ("half_width", "top", "bottom")


@dataclass(frozen=True, slots=True)
class Loft:
    """The shape between the formers.

    Attributes
    ----------
    names : tuple of str
        Formers and tail post by station.
    stations : Array
        Shape (n,), mm.
    upper_edge, lower_edge : NaturalCubic
        Heights at which the sides end: of flat sides under deck and belly, else `top` and `bottom`.
    """

    names: tuple[str, ...]
    stations: Array
    half_width: NaturalCubic
    top: NaturalCubic
    bottom: NaturalCubic
    upper_edge: NaturalCubic
    lower_edge: NaturalCubic

    def line(self, line: Line) -> NaturalCubic:
        """One of the three lines by name."""
        found: NaturalCubic = getattr(self, line)
        return found

    def edge(self, *, lower: bool) -> NaturalCubic:
        """The line along which an upper or a lower longeron runs."""
        return self.lower_edge if lower else self.upper_edge

    def figures(self, station: float) -> dict[str, float]:
        """Half-width (never under 0), bottom and top at a station, mm."""
        found: dict[str, float] = {line: float(self.line(line).value(station)) for line in LINES}
        found["half_width"] = max(0.0, found["half_width"])
        return found

    def developed(self) -> Array:
        """Plan-view arc length of a side from the first station to each, shape (n,), mm."""
        return arc_lengths((self.half_width,), self.stations)


def loft_of(fuselage: Fuselage) -> Loft:
    """The loft of a fuselage.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    stations = fuselage.stations
    if len(stations) < 2:  # noqa: PLR2004  nothing between
        raise BadInput("fuselage.formers", "a loft needs at least two stations")
    figures = tuple(
        (s.station, s.half_width, s.top, s.bottom, *reversed(edges_of(s))) for _, s in stations
    )
    broken = tuple(corners_of([stop for _, stop in stations], line) for line in LINES)
    return _loft(tuple(name for name, _ in stations), figures, broken)


@lru_cache(maxsize=64)
def _loft(
    names: tuple[str, ...],
    figures: tuple[tuple[float, ...], ...],
    broken: tuple[tuple[int, ...], ...],
) -> Loft:
    half_width, top, bottom = broken
    table = np.array(figures)
    table.setflags(write=False)  # shared by everyone who asks for the same figures
    stations = table[:, 0]
    lines = zip((1, 2, 3, 4, 5), (half_width, top, bottom, top, bottom), strict=True)
    return Loft(
        names,
        stations,
        *(NaturalCubic(stations, table[:, column], corners) for column, corners in lines),
    )


def former_at(fuselage: Fuselage, station: float, former_id: str) -> Former:
    """The former that the loft wants at a station, with its neighbours' wood and shape, mm.

    Raises
    ------
    BadInput
        When the station lies before the first or behind the last, or one stands there already.
    """
    loft = loft_of(fuselage)
    first, last = loft.stations[0], loft.stations[-1]
    if not first <= station <= last:
        raise BadInput(
            "station", f"{station:g} lies outside the fuselage, {first:g} to {last:g} mm"
        )
    if np.min(np.abs(loft.stations - station)) < 0.5:  # noqa: PLR2004  mm, no room for two
        raise BadInput("station", f"a former stands at {station:g} already")
    # unrounded: a former close beside another would carry a hundredth far into the loft
    figures = loft.figures(station)
    beside = sorted(fuselage.formers, key=lambda former: abs(former.station - station))[:2]
    kept = _shaped_between(fuselage, station, figures) if figures["bottom"] < figures["top"] else {}
    for key in ("thickness", "material"):
        if beside and getattr(beside[0], key) is not None:
            kept[key] = getattr(beside[0], key)
    with faults_told():  # a line of the loft can swing out of range
        made = Former(
            id=former_id,
            station=station,
            half_width=figures["half_width"],
            bottom=figures["bottom"],
            top=figures["top"],
        )
    return made.but(**kept)


def _shaped_between(
    fuselage: Fuselage, station: float, figures: dict[str, float]
) -> dict[str, object]:
    """What gives a former between others its shape: figures where theirs do, else an outline out of the loft.

    A box's corner and a round section's fullness are those that enclose as much as the loft does there, a deck's and a
    belly's edge is the loft's.
    """
    ahead = [one for one in fuselage.formers if one.station <= station]
    behind = [one for one in fuselage.formers if one.station >= station]
    first = max(ahead or behind, key=lambda one: one.station if ahead else -one.station)
    last = min(behind or ahead, key=lambda one: one.station if behind else -one.station)
    if not any(one.corner or one.section is not None or one.outline for one in (first, last)):
        return {}
    surface = surface_of(fuselage)
    half = surface.half(np.array([station]))[0]
    low, widest, high = (half[i, 1] for i in np.searchsorted(surface.shares, EDGES[1:4]))
    kinds = {
        "drawn" if one.outline else one.section.kind if one.section is not None else "box"
        for one in (first, last)
    }
    area = float(surface.area(np.array([station]))[0])
    if area <= 0:  # the lines meet or cross there
        return {}
    made: dict[str, object] | None = None
    if kinds == {"box"}:
        lacking = 2 * figures["half_width"] * (figures["top"] - figures["bottom"]) - area
        made = {"corner": math.sqrt(max(lacking, 0.0) / (4 - math.pi))}
    if kinds == {"flat-sides"}:
        deck, belly = max(figures["top"] - high, 0.0), max(low - figures["bottom"], 0.0)
        return {"section": SectionShape(kind="flat-sides", deck=float(deck), belly=float(belly))}
    if kinds == {"superellipse"}:
        made = {"section": shape_enclosing(half, float(widest))}
    if made is not None:
        tried = Former(
            id="tried",
            station=station,
            half_width=figures["half_width"],
            bottom=figures["bottom"],
            top=figures["top"],
        ).but(**made)
        if abs(area_of(tried) / area - 1) < _AS_MUCH:
            return made
    walked = shapely.LineString(half).simplify(_OUTLINE_MM)
    starboard = [(round(float(y), 3), round(float(z), 3)) for y, z in walked.coords]
    port = [(-y, z) for y, z in reversed(starboard) if y > 0]
    return {"outline": (*starboard, *port)}
