"""Settling a click on the line that it was meant for.

A hand hits a line of a plan to half a millimetre or so.  Where the line lies is in the scan: its ink is
told from the paper by what lies around it, dark on light or light on dark, and its place is the middle
between its own two edges.  Across a line its place is known, along it nothing is, so that a click
must not be moved that way; where lines meet both are known.
"""

import math
from dataclasses import dataclass, replace
from typing import Any, Final, Literal

import numpy as np
from numpy.typing import NDArray

from hardkeel.geometry.rotation import Array

LEAST_REACH_MM: Final = 0.9  # from a click to a line that it may mean
MOST_REACH_MM: Final = 2.0
USUAL_PX_PER_MM: Final = 6.0  # 150 dpi, where a scan does not say
_ARM_MM: Final = 1.7  # how far a line is followed to either side
_WIDEST_MM: Final = 1.4  # a broader dark thing is no line
_STEP_MM: Final = 0.08
_FINEST_PX_PER_MM: Final = 12.0  # finer scans are averaged down for the search
_LEAST_PX: Final = 5.0  # a coarse scan is looked at so far at least
_WAYS: Final = 48
_CONTINUOUS: Final = 0.25  # quantile along a line: three quarters of it must be there
_NOISE_SIGMAS: Final = 4.0
_LEAST_CONTRAST: Final = 10.0  # grey levels
_SHARE_OF_INK: Final = 0.35  # of the strongest ink around; paler is dirt or what shows through
_ALIKE_MM: Final = 0.16  # two lines this equally far can't be told apart by the hand
_MEETING_DEG: Final = 25.0
_LOOKS: Final = 2
_FOOT: Final = 0.35  # of an arm
_SLANT: Final = (0.12, 1.2)  # radians
_INKED: Final = 0.5  # of a line's own strength, at the place where a click settles
_BLOB_MM: Final = 0.35
_SHARE_MEETING: Final = 0.72  # of the ink of the line it meets; less is what lies between two lines
_PAPER_ROUNDS: Final = 4
_PAPER_SAMPLES: Final = 2500


@dataclass(frozen=True, slots=True)
class Settled:
    """Where the ink is that a click was meant for, pixels from the click.

    Attributes
    ----------
    normal : tuple of float or None
        Unit vector across the line; ``None`` where lines meet.
    """

    right: float
    down: float
    normal: tuple[float, float] | None


Unsettled = Literal["nothing", "between"]  # no line is near; two are equally near


@dataclass(frozen=True, slots=True)
class _Line:
    """A line near a click: x·cos + y·sin = gap, mm from the click."""

    way: float
    gap: float
    strength: float
    whole: bool


def window_px(px_per_mm: float, reach_mm: float) -> int:
    """How many pixels to each side of a click must be handed to `snap_to_line`."""
    return math.ceil(max((reach_mm + _ARM_MM) * px_per_mm, 2 * _LEAST_PX)) + 2


def snap_to_line(
    patch: NDArray[Any],
    click: tuple[float, float],
    px_per_mm: float,
    reach_mm: float = LEAST_REACH_MM,
) -> Settled | Unsettled:
    """Find the line, or the meeting of lines, that a click means.

    Parameters
    ----------
    patch : Array
        Shape (h, w), grey 0 to 255, with `window_px` of the scan around the click where it has them.
    click : tuple of float
        In pixels of the patch; the middle of its first pixel is (0.5, 0.5).
    px_per_mm : float
        Of the scan.
    reach_mm : float
        How far a line may be.
    """
    scale = max(px_per_mm, 1e-3)
    # on a coarse scan, or one that says it is, a few pixels are what a hand can hit
    reach = max(reach_mm, _LEAST_PX / 2 / scale)
    arm = max(_ARM_MM, _LEAST_PX / scale)
    patch, click = _around(patch, click, window_px(scale, reach))
    ink = _ink(np.asarray(patch, dtype=np.float64))
    if ink is None:
        return "nothing"
    contrast, limit = ink
    field = _Field(contrast, click, scale, reach, arm)
    lines = _lines(field, limit, reach)
    if not lines or abs(lines[0].gap) > reach:
        return "nothing"
    nearest = lines[0]
    meeting = _meeting(nearest, lines, reach)
    if meeting is not None:
        x, y = field.met(meeting)
        if field.is_inked(x, y, nearest.strength):
            return Settled(x * scale, y * scale, None)
    elif _is_between(nearest, lines):
        return "between"
    # beside a corner a line's foot may lie beyond where it ends: the nearest one with ink at its foot
    for one in lines:
        if abs(one.gap) > reach:
            continue
        line = field.sharpened(one)
        cos, sin = math.cos(line.way), math.sin(line.way)
        if field.is_inked(line.gap * cos, line.gap * sin, nearest.strength):
            return Settled(line.gap * cos * scale, line.gap * sin * scale, (cos, sin))
    x, y = field.nearest_ink(limit, reach)
    return Settled(x * scale, y * scale, None)


def _around(
    patch: NDArray[Any], click: tuple[float, float], reach: int
) -> tuple[NDArray[Any], tuple[float, float]]:
    """What lies around the click, and the click in it, pixels."""
    u, v = (max(0, int(at) - reach) for at in click)
    cut = patch[v : int(click[1]) + reach + 1, u : int(click[0]) + reach + 1]
    return cut, (click[0] - u, click[1] - v)


def _ink(grey: Array) -> tuple[Array, float] | None:
    """How much each pixel differs from the paper around it, and from where on that is ink.

    The paper is a plane, so that uneven light and a yellowed edge go with it; it is fitted again and
    again to what lies near it.  Ink is what differs from it to one side, whichever has more of it.
    """
    every = max(1, math.isqrt(grey.size // _PAPER_SAMPLES))
    some = grey[::every, ::every]
    rows, columns = np.mgrid[0 : some.shape[0], 0 : some.shape[1]] * float(every)
    design = np.column_stack([np.ones(some.size), columns.ravel(), rows.ravel()])
    flat = some.ravel()
    plane = np.array([np.median(flat), 0.0, 0.0])
    off, near = flat - plane[0], np.ones(len(flat), dtype=bool)
    for _ in range(_PAPER_ROUNDS):
        spread = 1.4826 * float(np.median(np.abs(off - np.median(off)))) + 1.0
        near = np.abs(off - np.median(off)) < 2.5 * spread
        plane = np.linalg.lstsq(design[near], flat[near], rcond=None)[0]
        off = flat - design @ plane
    noise = 1.4826 * float(np.median(np.abs(off[near]))) + 0.5
    dark, light = float(np.quantile(-off, 0.985)), float(np.quantile(off, 0.985))
    strongest = max(dark, light)
    if strongest < max(_LEAST_CONTRAST, _NOISE_SIGMAS * noise / 2):
        return None
    across, down = np.arange(grey.shape[1]), np.arange(grey.shape[0])
    paper = plane[0] + plane[1] * across[None, :] + plane[2] * down[:, None]
    # noise is left in on both sides of the paper, so that it levels out along a line
    contrast = grey - paper if light > dark else paper - grey
    return contrast, max(_LEAST_CONTRAST * _SHARE_OF_INK, noise, _SHARE_OF_INK * strongest)


class _Field:
    """The ink around a click, looked at along every way."""

    def __init__(
        self,
        contrast: Array,
        click: tuple[float, float],
        px_per_mm: float,
        reach: float,
        arm: float,
    ) -> None:
        self._fine, self._click, self._scale = contrast, click, px_per_mm
        self._arm, self._reach = arm, reach
        shrink = max(1, round(px_per_mm / _FINEST_PX_PER_MM))
        self._coarse = _averaged(contrast, shrink)
        self._coarse_click = (click[0] / shrink, click[1] / shrink)
        self._coarse_scale = px_per_mm / shrink
        self.step = max(_STEP_MM, 0.35 / self._coarse_scale)

    def look(self) -> tuple[Array, Array, Array]:
        """Ways (k,), gaps (j,) in mm, and the ink along each line (k, i, j) at points along it."""
        ways = np.arange(_WAYS) * math.pi / _WAYS
        # beyond the reach by half the broadest line, so that its other edge is seen
        beyond = self._reach + _WIDEST_MM / 2
        gaps = np.arange(-beyond, beyond + self.step / 2, self.step)
        along = np.linspace(-self._arm, self._arm, 2 * max(6, round(self._arm / 0.16)) + 1)
        return ways, gaps, self._sampled(ways, along, gaps, coarse=True)

    def sharpened(self, line: _Line) -> _Line:
        """A line put right on the scan's own pixels: the middle between its two edges."""
        turn = math.pi / _WAYS
        ways = line.way + np.linspace(-turn, turn, 9)
        step = min(self.step, 0.3 / self._scale)
        reach = _WIDEST_MM / 2 + 2 * self.step
        gaps = line.gap + np.arange(-reach, reach + step / 2, step)
        along = np.linspace(-self._arm, self._arm, 33)
        ink = self._sampled(ways, along, gaps, coarse=False)
        if not line.whole:
            ink = _stronger_half(ink, along)
        # seen end on a line has the steepest edges
        best = int(np.argmax(np.sum(np.diff(ink.mean(axis=1), axis=1) ** 2, axis=1)))
        profiles = np.median(ink, axis=1)
        middle = _middle(gaps, profiles[best], line.gap)
        return _Line(float(ways[best]), middle, line.strength, line.whole)

    def met(self, lines: tuple[_Line, _Line]) -> tuple[float, float]:
        """Where two lines meet, mm from the click.

        Seen from the click a line that ends at the other is there on a part of its arm only; seen from
        where they meet it fills one half.  So the look is taken again from there.
        """
        x, y = _crossing(*lines)
        for _ in range(_LOOKS):
            u, v = self._click
            there = _Field(
                self._fine,
                (u + x * self._scale, v + y * self._scale),
                self._scale,
                self._reach,
                self._arm,
            )
            seen = [
                there.sharpened(
                    _Line(
                        line.way,
                        line.gap - x * math.cos(line.way) - y * math.sin(line.way),
                        line.strength,
                        line.whole,
                    )
                )
                for line in lines
            ]
            dx, dy = _crossing(seen[0], seen[1])
            if math.hypot(dx, dy) > self._reach:
                break
            x, y = x + dx, y + dy
            lines = (
                replace(seen[0], gap=seen[0].gap + _along(seen[0], x - dx, y - dy)),
                replace(seen[1], gap=seen[1].gap + _along(seen[1], x - dx, y - dy)),
            )
        return x, y

    def is_inked(self, x: float, y: float, strength: float) -> bool:
        """Whether there is ink at a place, mm from the click, as on the line itself."""
        around = np.array([-0.06, 0.0, 0.06])
        u, v = np.meshgrid(around + x, around + y)
        return float(np.mean(self._at(u, v))) > _INKED * strength

    def nearest_ink(self, limit: float, reach: float) -> tuple[float, float]:
        """The middle of the ink that lies nearest to the click, mm from it."""
        side = np.arange(-reach, reach + self.step / 2, self.step)
        u, v = np.meshgrid(side, side)
        ink = self._at(u, v)
        away = np.where(ink > limit, np.hypot(u, v), np.inf)
        at = np.unravel_index(int(np.argmin(away)), away.shape)
        near = np.hypot(u - u[at], v - v[at]) <= _BLOB_MM
        weight = np.where(near, np.maximum(ink, 0.0), 0.0)
        total = max(float(weight.sum()), 1e-9)
        return float((weight * u).sum()) / total, float((weight * v).sum()) / total

    def _at(self, x: Array, y: Array) -> Array:
        """The ink at places, mm from the click."""
        u0, v0 = self._click
        return _bilinear(self._fine, u0 + x * self._scale - 0.5, v0 + y * self._scale - 0.5)

    def _sampled(self, ways: Array, along: Array, gaps: Array, *, coarse: bool) -> Array:
        image = self._coarse if coarse else self._fine
        u0, v0 = self._coarse_click if coarse else self._click
        scale = self._coarse_scale if coarse else self._scale
        cos, sin = np.cos(ways)[:, None, None], np.sin(ways)[:, None, None]
        t, g = along[None, :, None], gaps[None, None, :]
        return _bilinear(
            image, u0 + (g * cos - t * sin) * scale - 0.5, v0 + (g * sin + t * cos) * scale - 0.5
        )


def _lines(field: _Field, limit: float, reach: float) -> list[_Line]:
    """The lines around, the nearest first; those that run through before those that end here.

    Those beyond the reach come last: they are not meant, but they tell what the others are.
    """
    ways, gaps, ink = field.look()
    found: list[_Line] = []
    # a line that ends need not begin at the click's foot: the outer part of an arm tells
    count = round((1 - _FOOT) * ink.shape[1] / 2)
    through = _lower_quarter(ink)
    found += _peaks(ways, gaps, through, limit, whole=True)
    halves = np.maximum(_lower_quarter(ink[:, :count]), _lower_quarter(ink[:, -count:]))
    ending = _peaks(ways, gaps, halves, limit, whole=False)
    found += [one for one in ending if not any(_is_same(one, other) for other in found)]
    found = [one for one in found if not _is_smear(one, found)]
    return sorted(found, key=lambda line: (abs(line.gap) > reach, not line.whole, abs(line.gap)))


def _is_smear(line: _Line, lines: list[_Line]) -> bool:
    """Whether it is what stronger lines leave along a way that goes slantwise over them."""
    return any(
        other.strength * _SHARE_MEETING > line.strength
        and _SLANT[0] < _turn(line, other) < _SLANT[1]
        for other in lines
    )


def _lower_quarter(ink: Array) -> Array:
    """The ink that three quarters of each line have at least, (k, j) from (k, i, j)."""
    rank = int(_CONTINUOUS * (ink.shape[1] - 1))
    return np.asarray(np.partition(ink, rank, axis=1)[:, rank])


def _peaks(ways: Array, gaps: Array, ink: Array, limit: float, *, whole: bool) -> list[_Line]:
    """Ridges of the ink over ways (k,) and gaps (j,): the strongest first, each once."""
    left = ink.copy()
    found: list[_Line] = []
    for _ in range(8):
        k, _j = np.unravel_index(int(np.argmax(left)), left.shape)
        peak = float(left[k].max())
        if peak < limit:
            break
        j = int(np.argmax(left[k]))
        low, high = _run(left[k], j, peak / 2)
        width = gaps[high] - gaps[low]
        line = _Line(float(ways[k]), float((gaps[low] + gaps[high]) / 2), peak, whole)
        if width <= _WIDEST_MM and not any(_is_same(line, other) for other in found):
            found.append(line)
        _blot(left, ways, gaps, (line.way, float(gaps[low]), float(gaps[high])))
    return found


def _blot(left: Array, ways: Array, gaps: Array, line: tuple[float, float, float]) -> None:
    """Take a ridge out: what lies near it in gap, over the ways that are nearly its own."""
    way, low, high = line
    turn = np.abs((ways - way + math.pi / 2) % math.pi - math.pi / 2)
    flipped = np.abs(ways - way) > math.pi / 2
    margin = (gaps[1] - gaps[0]) + np.tan(np.minimum(turn, 0.6)) * _ARM_MM * 0.6
    for k in np.flatnonzero(turn < math.radians(_MEETING_DEG)):
        a, b = (-high, -low) if flipped[k] else (low, high)
        left[k, (gaps >= a - margin[k]) & (gaps <= b + margin[k])] = 0.0


def _run(profile: Array, at: int, level: float) -> tuple[int, int]:
    low = high = at
    while low > 0 and profile[low - 1] >= level:
        low -= 1
    while high + 1 < len(profile) and profile[high + 1] >= level:
        high += 1
    return low, high


def _is_same(a: _Line, b: _Line) -> bool:
    """Whether two are the same line seen along slightly other ways."""
    turn = _turn(a, b)
    gap = b.gap if abs(a.way - b.way) <= math.pi / 2 else -b.gap
    return turn < math.radians(_MEETING_DEG) and abs(a.gap - gap) < 0.3 + turn


def _meeting(nearest: _Line, lines: list[_Line], reach: float) -> tuple[_Line, _Line] | None:
    """The nearest line and another that it meets within reach of the click."""
    # what lies between two lines side by side looks like a third that ends at them
    alongside = any(
        other.whole and _turn(nearest, other) < math.radians(_MEETING_DEG) for other in lines[1:]
    )
    for other in sorted(lines[1:], key=lambda line: -line.strength):
        if alongside and not other.whole:
            continue
        turn = _turn(nearest, other)
        if turn < math.radians(_MEETING_DEG) or other.strength < _SHARE_MEETING * nearest.strength:
            continue
        x, y = _crossing(nearest, other)
        if math.hypot(x, y) <= reach:
            return nearest, other
    return None


def _turn(a: _Line, b: _Line) -> float:
    """The angle between two lines, radians, up to a right angle."""
    return abs((b.way - a.way + math.pi / 2) % math.pi - math.pi / 2)


def _crossing(a: _Line, b: _Line) -> tuple[float, float]:
    rows = np.array([[math.cos(line.way), math.sin(line.way)] for line in (a, b)])
    x, y = np.linalg.solve(rows, np.array([a.gap, b.gap]))
    return float(x), float(y)


def _along(line: _Line, x: float, y: float) -> float:
    """How far a point lies along a line's normal, mm."""
    return x * math.cos(line.way) + y * math.sin(line.way)


def _is_between(nearest: _Line, lines: list[_Line]) -> bool:
    """Whether another line runs alongside, on the other side and as near."""
    for other in lines[1:]:
        turn = _turn(nearest, other)
        if other.whole == nearest.whole and turn < math.radians(_MEETING_DEG):
            gap = other.gap if abs(other.way - nearest.way) <= math.pi / 2 else -other.gap
            if gap * nearest.gap < 0 and abs(abs(gap) - abs(nearest.gap)) < _ALIKE_MM:
                return True
    return False


def _middle(gaps: Array, profile: Array, about: float) -> float:
    """The middle between a line's two edges, each where its ink is half as strong; mm."""
    near = np.abs(gaps - about) < _WIDEST_MM / 2
    top = int(np.argmax(np.where(near, profile, -1.0)))
    half = float(profile[top]) / 2
    low, high = _run(profile, top, half)
    left = gaps[low]
    if low > 0:
        rise = profile[low] - profile[low - 1]
        left -= (profile[low] - half) / max(rise, 1e-9) * (gaps[low] - gaps[low - 1])
    right = gaps[high]
    if high + 1 < len(gaps):
        fall = profile[high] - profile[high + 1]
        right += (profile[high] - half) / max(fall, 1e-9) * (gaps[high + 1] - gaps[high])
    return float((left + right) / 2)


def _stronger_half(ink: Array, along: Array) -> Array:
    count = len(along) // 2 + 1
    first, second = ink[:, :count], ink[:, -count:]
    return first if first.sum() >= second.sum() else second


def _averaged(image: Array, times: int) -> Array:
    if times == 1:
        return image
    h, w = (size // times * times for size in image.shape)
    blocks = image[:h, :w].reshape(h // times, times, w // times, times)
    return np.asarray(blocks.mean(axis=(1, 3)))


def _bilinear(image: Array, u: Array, v: Array) -> Array:
    """The image between its pixels' middles; beyond its edge as at the edge."""
    h, w = image.shape
    u, v = np.clip(u, 0.0, w - 1.001), np.clip(v, 0.0, h - 1.001)
    x, y = u.astype(np.intp), v.astype(np.intp)
    fu, fv = u - x, v - y
    flat = image.ravel()
    at = y * w + x
    upper = flat[at] * (1 - fu) + flat[at + 1] * fu
    lower = flat[at + w] * (1 - fu) + flat[at + w + 1] * fu
    return np.asarray(upper * (1 - fv) + lower * fv)
