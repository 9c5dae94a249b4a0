"""A stop under the hand: figures are kept where they make sense instead of refused."""

from collections.abc import Mapping
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.fuselage.contours import fullness_through, widest_of
from hardkeel.fuselage.model import Former, Fuselage, SectionShape

_PLAIN: Final = frozenset({"station", "half_width", "top", "bottom"})
_THINNEST_MM: Final = 1.0  # a former dragged over itself, or a station over the next, stops here


def dragged(fuselage: Fuselage, name: str, **figures: float) -> Fuselage:
    """The fuselage with a former's or the tail post's figures as far as a hand can drag them.

    Parameters
    ----------
    figures
        Any of ``station``, ``half_width``, ``top``, ``bottom``, mm; of a former ``widest``, and ``full_y`` with ``full_z``:
        a point that its contour is to pass through.

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
    plain = {key: round(value, 1) for key, value in kept.items() if key in _PLAIN}
    if not isinstance(stop, Former):
        return fuselage.but(tail_post=stop.but(**plain))
    moved = reshaped(with_widest(stop, plain), kept)
    formers = tuple(moved if former.id == name else former for former in fuselage.formers)
    return fuselage.but(formers=formers)


def with_widest(former: Former, figures: Mapping[str, float]) -> Former:
    """A former with other figures, its widest line at the same share of its height."""
    changed = former.but(**figures)
    shape = former.section
    if shape is None or shape.widest is None or former.top <= former.bottom:
        return changed
    share = (shape.widest - former.bottom) / (former.top - former.bottom)
    widest = round(changed.bottom + share * (changed.top - changed.bottom), 2)
    return changed.but(section=shape.but(widest=widest))


def reshaped(former: Former, figures: Mapping[str, float]) -> Former:
    """A former whose contour passes through a point, or is widest at a height, as far as a hand can drag it."""
    shape = former.section
    if shape is None:
        return former
    if "widest" in figures:
        lowest, highest = former.bottom + _THINNEST_MM, former.top - _THINNEST_MM
        widest = min(max(figures["widest"], lowest), highest)
        shape = shape.but(widest=round(widest, 1))
    if "full_z" in figures:
        above = figures["full_z"] > widest_of(former)
        at = figures["full_y"], figures["full_z"]
        if shape.kind == "flat-sides":
            return former.but(section=_with_rise(former, shape, figures["full_z"], above=above))
        full = round(fullness_through(former, at, above=above), 2)
        shape = shape.but(top=full) if above else shape.but(bottom=full)
    return former.but(section=shape)


def _with_rise(former: Former, shape: SectionShape, edge: float, *, above: bool) -> SectionShape:
    """Flat sides that end at a height, above or below."""
    tall = former.top - former.bottom
    if above:
        return shape.but(deck=round(min(max(former.top - edge, 0.0), tall - shape.belly), 1))
    return shape.but(belly=round(min(max(edge - former.bottom, 0.0), tall - shape.deck), 1))
