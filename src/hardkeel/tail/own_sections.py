"""Sections that come with the app: the four-digit family, and a few shapes of our own."""

import re
from collections.abc import Callable
from functools import lru_cache
from typing import Final

import numpy as np

from hardkeel.geometry.rotation import Array
from hardkeel.tail.sections import Section

_POINTS: Final = 161  # along each surface: straight pieces stay within 0.005 mm at 150 mm of chord
_FOUR_DIGITS: Final = re.compile(r"four-digit ?(\d)(\d)(\d\d)|(\d)(\d)(\d\d)")
_OWN: Final = re.compile(r"(plate|flat-bottomed|thin|lifting)(?: (\d+(?:\.\d+)?))?")
_USUAL: Final = {"plate": 5.0, "flat-bottomed": 10.0, "thin": 7.0, "lifting": 11.0}


def own_names() -> tuple[str, ...]:
    """What is offered; a number behind a name is its thickness in percent of the chord."""
    return ("plate", "thin", "flat-bottomed", "lifting", "0009", "0012", "2412", "4412")


@lru_cache(maxsize=64)
def own_section(name: str) -> Section | None:
    """A section that comes with the app; ``None`` for a name that is none of them.

    ``0009`` is of the four-digit family; ``plate 4`` is a flat plate with rounded edges of 4 % thickness.
    """
    digits = _FOUR_DIGITS.fullmatch(name)
    if digits is not None:
        camber, place, tenths = (int(one) for one in digits.groups() if one is not None)
        if not tenths or (camber and not place):
            return None
        return _four_digit(name, camber / 100, place / 10, tenths / 100)
    own = _OWN.fullmatch(name)
    if own is None:
        return None
    kind = own[1]
    thick = float(own[2] or _USUAL[kind]) / 100
    if not 0.005 <= thick <= 0.3:  # noqa: PLR2004  half a percent to thirty
        return None
    return _MADE[kind](name, thick)


def _places() -> Array:
    """Close together at the nose, where the line turns."""
    return np.asarray((1 - np.cos(np.linspace(0, np.pi, _POINTS))) / 2)


def _thickness(x: Array, thick: float, *, closed: bool) -> Array:
    """Half thickness of the four-digit family.

    E. N. Jacobs, K. E. Ward and R. M. Pinkerton, "The characteristics of 78 related airfoil sections
    from tests in the variable-density wind tunnel", NACA Report 460 (1933); −0.1036 closes the edge.
    """
    last = -0.1036 if closed else -0.1015
    rows = 0.2969 * np.sqrt(x) - 0.1260 * x - 0.3516 * x**2 + 0.2843 * x**3 + last * x**4
    return np.asarray(5 * thick * rows)


def _four_digit(name: str, camber: float, place: float, thick: float) -> Section:
    """Thickness laid square to the mean line (the same report)."""
    x = _places()
    half = _thickness(x, thick, closed=False)
    if not camber:
        return Section(name, np.column_stack([x, half]), np.column_stack([x, -half]))
    ahead = x < place
    line = np.where(
        ahead,
        camber / place**2 * (2 * place * x - x**2),
        camber / (1 - place) ** 2 * (1 - 2 * place + 2 * place * x - x**2),
    )
    slope = np.where(
        ahead, 2 * camber / place**2 * (place - x), 2 * camber / (1 - place) ** 2 * (place - x)
    )
    turn = np.arctan(slope)
    upper = np.column_stack([x - half * np.sin(turn), line + half * np.cos(turn)])
    lower = np.column_stack([x + half * np.sin(turn), line - half * np.cos(turn)])
    return _to_chord(name, upper, lower)


def _to_chord(name: str, upper: Array, lower: Array) -> Section:
    """Scaled so that x runs from 0 to 1; a nose that turns under belongs to the lower surface."""
    nose = int(np.argmin(upper[:, 0]))
    lower = np.vstack([upper[1 : nose + 1][::-1], lower]) if nose else lower
    upper = upper[nose:]
    least, most = upper[0, 0], max(upper[-1, 0], lower[-1, 0])
    size = most - least
    for line in (upper, lower):
        line[:, 0] = (line[:, 0] - least) / size
        line[:, 1] /= size
    lower = lower[np.concatenate([[True], np.diff(np.maximum.accumulate(lower[:, 0])) > 0])]
    return Section(name, upper, lower)


def _plate(name: str, thick: float) -> Section:
    """Flat, with half-round edges."""
    radius = thick / 2
    turn = np.linspace(0, np.pi / 2, 41)
    nose_x, rise = radius * (1 - np.cos(turn)), radius * np.sin(turn)
    x = np.concatenate([nose_x, 1 - nose_x[::-1]])
    z = np.concatenate([rise, rise[::-1]])
    return Section(name, np.column_stack([x, z]), np.column_stack([x, -z]))


def _flat_bottomed(name: str, thick: float) -> Section:
    """Flat below from 5 % aft, highest at a third, a nose that starts a little over the board."""
    x = _places()
    lift = 0.25 * thick * np.clip(1 - x / 0.05, 0, None) ** 2
    over = _thickness(x, thick, closed=True)
    upper = lift + over / float(np.max(over)) * thick
    return Section(name, np.column_stack([x, upper]), np.column_stack([x, lift]))


def _thin(name: str, thick: float) -> Section:
    """Symmetrical, thickest at 30 %, with a closed edge."""
    x = _places()
    half = _thickness(x, thick, closed=True)
    return Section(name, np.column_stack([x, half]), np.column_stack([x, -half]))


def _lifting(name: str, thick: float) -> Section:
    """A little hollow camber ahead, nearly flat below: for a stabilizer that carries."""
    x = _places()
    half = _thickness(x, thick, closed=True)
    line = 0.55 * thick * (1 - (2 * np.clip(x, 0, 1) ** 0.75 - 1) ** 2)
    return _to_chord(name, np.column_stack([x, line + half]), np.column_stack([x, line - half]))


_MADE: Final[dict[str, Callable[[str, float], Section]]] = {
    "plate": _plate,
    "flat-bottomed": _flat_bottomed,
    "thin": _thin,
    "lifting": _lifting,
}
