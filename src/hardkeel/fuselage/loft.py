"""The loft: one natural cubic each for half-width, top and bottom, through formers and tail post."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Final, Literal

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.base.faults import faults_told
from hardkeel.fuselage.contours import shape_between
from hardkeel.fuselage.model import Former, Fuselage
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.spline import NaturalCubic, arc_lengths

Line = Literal["half_width", "top", "bottom"]
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
    """

    names: tuple[str, ...]
    stations: Array
    half_width: NaturalCubic
    top: NaturalCubic
    bottom: NaturalCubic

    def line(self, line: Line) -> NaturalCubic:
        """One of the three lines by name."""
        found: NaturalCubic = getattr(self, line)
        return found

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
    figures = tuple((s.station, s.half_width, s.top, s.bottom) for _, s in stations)
    return _loft(tuple(name for name, _ in stations), figures)


@lru_cache(maxsize=64)
def _loft(names: tuple[str, ...], figures: tuple[tuple[float, ...], ...]) -> Loft:
    table = np.array(figures)
    table.setflags(write=False)  # shared by everyone who asks for the same figures
    stations = table[:, 0]
    return Loft(
        names, stations, *(NaturalCubic(stations, table[:, column]) for column in (1, 2, 3))
    )


def former_at(fuselage: Fuselage, station: float, former_id: str) -> Former:
    """The former that the loft wants at a station, with its neighbours' wood and corners, mm.

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
    share = 0.0
    if len(beside) == 2 and beside[0].station != beside[1].station:  # noqa: PLR2004
        share = (station - beside[0].station) / (beside[1].station - beside[0].station)
    corners = [former.corner for former in beside] or [0.0]
    corner = corners[0] + min(1.0, max(0.0, share)) * (corners[-1] - corners[0])
    kept: dict[str, object] = {"corner": corner} if corner else {}
    if beside and figures["bottom"] < figures["top"]:
        shape = shape_between(beside[0], beside[-1], share, figures["bottom"], figures["top"])
        if shape is not None:
            kept["section"] = shape
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
