"""A stop under the hand: figures are kept where they make sense instead of refused."""

from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.fuselage.model import TAIL_POST, Fuselage

_THINNEST_MM: Final = 1.0  # a former dragged over itself, or a station over the next, stops here


def dragged(fuselage: Fuselage, name: str, **figures: float) -> Fuselage:
    """The fuselage with a former's or the tail post's figures as far as a hand can drag them.

    Parameters
    ----------
    figures
        Any of ``station``, ``half_width``, ``top``, ``bottom``, mm.

    Raises
    ------
    BadInput
        When there is no such stop.
    """
    stations = fuselage.stations
    names = [one for one, _ in stations]
    if name not in names:
        raise BadInput("", f'no former "{name}"')
    i = names.index(name)
    stop = stations[i][1]
    kept = dict(figures)
    if "half_width" in kept:
        kept["half_width"] = max(0.0, kept["half_width"])
    if "top" in kept:
        kept["top"] = max(kept["top"], kept.get("bottom", stop.bottom) + _THINNEST_MM)
    if "bottom" in kept:
        kept["bottom"] = min(kept["bottom"], kept.get("top", stop.top) - _THINNEST_MM)
    if "station" in kept:
        low = stations[i - 1][1].station + _THINNEST_MM if i else float("-inf")
        high = stations[i + 1][1].station - _THINNEST_MM if i + 1 < len(stations) else float("inf")
        kept["station"] = min(max(kept["station"], low), high)
    moved = stop.but(**{key: round(value, 1) for key, value in kept.items()})
    if name == TAIL_POST:
        return fuselage.but(tail_post=moved)
    formers = tuple(moved if former.id == name else former for former in fuselage.formers)
    return fuselage.but(formers=formers)
