"""Following a line of a sheet from one click on it.

The walker goes on straight as long as there is ink ahead, so that dimension lines, lettering and the
centre line are crossed; where the ink ends it turns the corner that lies nearest behind it, or steps
over a fold.  A way that leads nowhere is left and the next branch taken.  It says where it stopped;
whether that is the line which was meant, the builder sees.
"""

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from hardkeel.geometry.rotation import Array
from hardkeel.paper.ink import LEAST_CONTRAST, Ink, turned, unit

_STEP_MM: Final = 0.5
_AHEAD_MM: Final = 1.3  # how far ahead the next step looks
_SPREAD: Final = np.radians(np.arange(-35.0, 35.1, 5.0))
_BEND_COST: Final = 0.0012  # of a step of five degrees, squared, against ink
_SAMPLES_A_MM: Final = 5
_THERE: Final = 0.38  # of the line's own contrast: less is no line
_GOES_ON: Final = 0.7  # of the samples ahead that must be ink
_REACH_MM: Final = 0.75  # across the line, where its middle is looked for
_WIDER: Final = 1.7  # than the line: another one runs across there
_MOST_SHIFT_MM: Final = 0.3
_ARM_MM: Final = 2.6  # a branch is ink for so long at least
_CORNER_MM: Final = 2.2  # behind the end of the ink, where its corner is
_LEAST_TURN: Final = math.radians(25.0)
_MOST_TURN: Final = math.radians(155.0)
_GAP_MM: Final = 1.8  # a fold, a knife's nick, a dash
_BACK_MM: Final = 80.0  # how far a wrong way is taken back
_CLOSED_MM: Final = 0.45
_LONGEST_MM: Final = 6000.0
_CELL_MM: Final = 0.45  # nearer to where it came by before is there again
_BEHIND: Final = 4  # steps of the way behind, that tell where it is going
_JUST_NOW: Final = 12  # steps
_CREEPS: Final = 5
_WHOLE: Final = 0.93  # of a branch's samples that must be ink
_SAME_BRANCH_MM: Final = 1.5
_THIN: Final = 0.72  # of the line's weight: less is another line
_THIN_STEPS: Final = 3
_FIRST_WEIGHTS: Final = 15
_ALL_THIN: Final = 10**9
_MOST_STEPS: Final = 24_000  # all ways together: twelve metres, some ten seconds
_MOST_BRANCHES: Final = 40
_LEAST_LOOP_MM: Final = 8.0


Step = Callable[[int, int], object]


def never(_done: int, _total: int) -> None:
    """For work that nobody stops."""


@dataclass(frozen=True, slots=True)
class Heading:
    """Ways a line may run: along a direction (radians, v downwards) either way, within a limit."""

    along: float
    within: float

    def allows(self, way: float) -> bool:
        """Whether a line running that way is still meant."""
        off = abs(turned(self.along, way))
        return min(off, math.pi - off) <= self.within


@dataclass(frozen=True, slots=True)
class Way:
    """A line that was followed, roughly.

    Attributes
    ----------
    points : Array
        Shape (n, 2), pixels, half a millimetre apart.
    corners : tuple of int
        Where it turns sharply.
    closed : bool
        Whether it came back to where it began (the last point is not the first one again).
    """

    points: Array
    corners: tuple[int, ...]
    closed: bool


def heading_at(ink: Ink, click: tuple[float, float], within: float) -> Heading | None:
    """The way that the line under a click runs, to be kept within radians; ``None`` where there is no line."""
    start = np.array(click, dtype=np.float64)
    if not ink.inside(start):
        return None
    walker = _Walker(ink, start, None, never)
    ways = walker.ways_from(start) if walker.level >= LEAST_CONTRAST else []
    return Heading(ways[0], within) if ways else None


def walk(
    ink: Ink, click: tuple[float, float], heading: Heading | None = None, step: Step = never
) -> Way | None:
    """Follow the line under a click both ways until it closes or ends; ``None`` where there is no line.

    Parameters
    ----------
    click : tuple of float
        Pixels, on the line (settled).
    heading : Heading, optional
        Ways that the line may run; one that is given is open, and followed to where it ends or turns away.
    step : callable
        Called now and then; raises where the work is to be left off.
    """
    start = np.array(click, dtype=np.float64)
    if not ink.inside(start):
        return None
    walker = _Walker(ink, start, heading, step)
    if walker.level < LEAST_CONTRAST:
        return None
    ways = walker.ways_from(start)
    if heading is not None:
        ways = [way for way in ways if heading.allows(way)]
    if not ways:
        return None
    first = walker.go(start, ways[0], closing=heading is None)
    if first.closed:
        return first
    back = [w for w in ways[1:] if abs(turned(ways[0], w)) > math.pi / 2]
    back = back or [ways[0] + math.pi]
    second = walker.go(start, back[0], closing=False)
    points = np.concatenate([second.points[:0:-1], first.points])
    shift = len(second.points) - 1
    corners = sorted(
        [shift - i for i in second.corners] + [shift + i for i in first.corners if i > 0]
    )
    if len(points) < 3:  # noqa: PLR2004  nothing was followed
        return None
    return Way(points, tuple(corners), closed=False)


class _Walker:
    """Walks along one line of a sheet."""

    def __init__(self, ink: Ink, start: Array, heading: Heading | None, step: Step) -> None:
        self._ink, self._heading, self._told = ink, heading, step
        self._mm = ink.px_per_mm
        self._across = np.arange(-_REACH_MM, _REACH_MM + 0.01, 0.06) * self._mm
        self.level, self._width = self._line_at(start)
        self._weights: list[float] = []
        self._walked = 0

    def _line_at(self, start: Array) -> tuple[float, float]:
        """Contrast of the line under a point, and how broad it is (pixels)."""
        around = (
            start
            + np.stack(np.meshgrid([-0.1, 0.0, 0.1], [-0.1, 0.0, 0.1]), axis=-1).reshape(-1, 2)
            * self._mm
        )
        level = float(np.max(self._ink.contrast(around, start)))
        if level < LEAST_CONTRAST:
            return level, 0.0
        ways = np.arange(24) * math.pi / 24
        across = start + self._across[None, :, None] * unit(ways)[:, None, :]
        inked = self._ink.contrast(across, start) > level / 2
        widths = [_run_at_middle(row) for row in inked]
        step = 0.06 * self._mm
        return level, max(1.0, float(min(widths)) * step)

    # -- looking ---------------------------------------------------------------------------------

    def _strength(self, points: Array, around: Array) -> Array:
        """How much of the line's ink lies at points near a place, 0 to 1."""
        return np.clip(self._ink.contrast(points, around) / self.level, 0.0, 1.0)

    def _rays(self, start: Array, ways: Array, length: float, near: float = 0.0) -> Array:
        """The ink along rays, (k, m): k ways, samples a fifth of a millimetre apart; lengths in mm."""
        reach = np.arange(near, length + 0.01, 1 / _SAMPLES_A_MM) * self._mm
        return self._strength(start + reach[None, :, None] * unit(ways)[:, None, :], start)

    def ways_from(self, start: Array) -> list[float]:
        """Ways that lines run from a point, the one with most ink first."""
        ways = np.radians(np.arange(0.0, 360.0, 5.0))
        ink = self._rays(start, ways, _ARM_MM, near=0.3)
        score = ink.mean(axis=1)
        found: list[float] = []
        for k in np.argsort(-score):
            inked = float(np.mean(ink[k] > _THERE))
            apart = all(abs(turned(float(ways[k]), one)) > _LEAST_TURN for one in found)
            if inked >= _GOES_ON and apart:
                found.append(float(ways[k]))
        return found

    def _ahead(self, at: Array, way: float) -> float | None:
        """The way the line goes on within what a curve bends in a step; ``None`` where its ink ends."""
        ways = way + _SPREAD
        ink = self._rays(at, ways, _AHEAD_MM, near=0.2)
        score = ink.mean(axis=1) - _BEND_COST * (np.arange(len(ways)) - len(ways) // 2) ** 2
        best = int(np.argmax(score))
        if float(np.mean(ink[best] > _THERE)) < _GOES_ON:
            return None
        shift = 0.0
        if 0 < best < len(ways) - 1:
            low, mid, high = score[best - 1 : best + 2]
            bend = low - 2 * mid + high
            shift = 0.5 * (low - high) / bend if bend < -1e-9 else 0.0  # noqa: PLR2004
        return float(ways[best] + np.clip(shift, -0.5, 0.5) * (_SPREAD[1] - _SPREAD[0]))

    def _centred(self, at: Array, way: float) -> Array:
        """A point moved to the middle of the line across its way; left where another line runs there."""
        normal = unit(way + math.pi / 2)
        inked = self._strength(at + self._across[:, None] * normal, at) > 0.5  # noqa: PLR2004  half the ink
        low, high = _run_near_middle(inked)
        if low > high:
            return at
        step = 0.06 * self._mm
        if (high - low + 1) * step > _WIDER * self._width + step:
            return at
        shift = float(self._across[low] + self._across[high]) / 2
        most = _MOST_SHIFT_MM * self._mm
        return np.asarray(at + float(np.clip(shift, -most, most)) * normal)

    def _over_a_gap(self, at: Array, way: float) -> Array | None:
        """Where the line goes on straight beyond a fold."""
        ways = way + np.radians([-6.0, -3.0, 0.0, 3.0, 6.0])
        length = _GAP_MM + _ARM_MM
        ink = self._rays(at, ways, length) > _THERE
        for gap in range(1, int(_GAP_MM * _SAMPLES_A_MM) + 1):
            beyond = ink[:, gap : gap + int(_ARM_MM * _SAMPLES_A_MM)]
            whole = beyond.mean(axis=1)
            best = int(np.argmax(whole))
            if whole[best] > 0.9 and beyond[best, 0]:  # noqa: PLR2004  ink all along
                on = (gap + 1) / _SAMPLES_A_MM * self._mm
                return np.asarray(at + unit(float(ways[best])) * on)
        return None

    # -- walking ---------------------------------------------------------------------------------

    def go(self, start: Array, way: float, *, closing: bool) -> Way:
        """Follow a line from a point on it one way."""
        path, corners = _Path(start, _CELL_MM * self._mm), list[int]()
        tried: list[tuple[Array, float]] = []
        best = Way(start[None], (), closed=False)
        thin_from = 0  # before it, a thinner line that goes on is taken for the line itself
        for _ in range(_MOST_BRANCHES):
            if self._walked > _MOST_STEPS:
                break
            ended = self._straight(path, way, start if closing else None, thin_from)
            if ended == "home":
                return Way(np.array(path.points), tuple(corners), closed=True)
            if len(path) > len(best.points):
                best = Way(np.array(path.points), tuple(corners), closed=False)
            turn = next(self._turns(path, tried, _CORNER_MM), None)
            if turn is None and ended == "thin":
                way, thin_from = path.way(else_=way), len(path) + _ALL_THIN
                continue
            beyond = (
                self._over_a_gap(path.points[-1], path.way(else_=way)) if turn is None else None
            )
            if beyond is not None and not path.been(beyond, _CELL_MM * self._mm):
                way = path.way(else_=way)
                path.add(beyond)
                continue
            if turn is None and closing:
                turn = next(self._turns(path, tried, _BACK_MM), None)
            if turn is None:
                break
            i, way = turn
            tried.append((path.points[i], way))
            path.back_to(i)
            corners = [*(c for c in corners if c < i - 2), i]
        return best

    def _straight(self, path: "_Path", way: float, home: Array | None, thin_from: int) -> str:
        """Walk on until the line ends, thins, or the way is shut; or it came ``home``."""
        step = _STEP_MM * self._mm
        begun, thin = len(path), 0
        while len(path) < _LONGEST_MM / _STEP_MM:
            at = path.points[-1]
            self._told(len(path), 0)
            self._walked += 1
            onward = self._ahead(at, way)
            if onward is None:
                self._to_the_end(path, way)
                return "end"
            if self._heading is not None and not self._heading.allows(onward):
                return "turned"
            new = self._centred(at + step * unit(onward), onward)
            if not self._ink.inside(new):
                return "edge"
            if home is not None and self._is_home(path, new, home):
                return "home"
            if path.been(new, _CELL_MM * self._mm):
                return "been"
            path.add(new)
            thin = thin + 1 if self._is_thin(new, onward) else 0
            if thin > _THIN_STEPS and len(path) > thin_from:
                path.back_to(len(path) - 1 - thin)
                return "thin"
            back = min(len(path) - begun, _BEHIND)
            way = onward
            if back >= 2:  # noqa: PLR2004  a chord, which lags behind on a curve
                chord = path.way()
                way = chord + 0.5 * turned(chord, onward)
        return "long"

    def _is_thin(self, at: Array, way: float) -> bool:
        """Whether the line there is thinner than where the walk began, and thus another one."""
        weight = self._weight(at, way)
        if len(self._weights) < _FIRST_WEIGHTS:
            self._weights.append(weight)
        return weight < _THIN * float(np.median(self._weights))

    def _weight(self, at: Array, way: float) -> float:
        """How much ink lies across a line, its breadth in pixels where it is all black."""
        near = np.abs(self._across) <= self._width / 2 + 0.15 * self._mm
        spots = at + self._across[near, None] * unit(way + math.pi / 2)
        return float(self._strength(spots, at).sum()) * 0.06 * self._mm

    def _to_the_end(self, path: "_Path", way: float) -> None:
        """Creep on to where the ink ends, by a fifth of a step: there its corner is."""
        on = unit(way) * _STEP_MM / _CREEPS * self._mm
        for _ in range(4 * _CREEPS):
            new = path.points[-1] + on
            if not self._ink.inside(new) or float(self._strength(new[None], new)[0]) < _THERE:
                return
            path.add(new)

    def _is_home(self, path: "_Path", new: Array, home: Array) -> bool:
        if len(path) * _STEP_MM < _LEAST_LOOP_MM:
            return False
        return math.dist(new, home) <= (_CLOSED_MM + _STEP_MM / 2) * self._mm

    def _turns(
        self, path: "_Path", tried: list[tuple[Array, float]], back: float
    ) -> Iterator[tuple[int, float]]:
        """Branches off the way behind: number of the point, and the way it goes.

        Those as heavy as the line come first, of them the nearest; then thinner ones.
        """
        thinner: list[tuple[int, float]] = []
        gone, i = 0.0, len(path) - 1
        both = np.radians(np.arange(25.0, 156.0, 5.0))
        while i > 0 and gone <= back * self._mm:
            at = path.points[i]
            ways = path.way(i) + np.concatenate([both, -both])
            ink = self._rays(at, ways, _ARM_MM, near=0.2)
            for k in np.argsort(-ink.mean(axis=1)):
                way = float(ways[k])
                if float(np.mean(ink[k] > _THERE)) < _WHOLE:
                    break
                if not self._is_open(path, i, way, tried):
                    continue
                there = at + unit(way) * 2.0 * self._mm
                if self._is_thin(self._centred(there, way), way):
                    thinner.append((i, way))
                else:
                    yield i, way
            gone += math.dist(at, path.points[i - 1])
            i -= 1
        if self._heading is not None:
            yield from thinner  # an outline that ends at a thinner line is half of one, and ends there

    def _is_open(self, path: "_Path", i: int, way: float, tried: list[tuple[Array, float]]) -> bool:
        """Whether a branch may be meant and was neither walked nor tried yet."""
        at = path.points[i]
        if self._heading is not None and not self._heading.allows(way):
            return False
        if any(
            math.dist(at, spot) < _SAME_BRANCH_MM * self._mm and abs(turned(way, one)) < _LEAST_TURN
            for spot, one in tried
        ):
            return False
        return not path.been(at + unit(way) * 2.0 * self._mm, self._mm, i + 1)


class _Path:
    """The way walked so far, and where it came by."""

    def __init__(self, start: Array, cell: float) -> None:
        self.points = [start]
        self._cell = cell
        self._cells: dict[tuple[int, int], list[int]] = {self._key(start): [0]}

    def __len__(self) -> int:
        return len(self.points)

    def _key(self, at: Array) -> tuple[int, int]:
        return int(at[0] // self._cell), int(at[1] // self._cell)

    def add(self, at: Array) -> None:
        """Go on to a point."""
        self._cells.setdefault(self._key(at), []).append(len(self.points))
        self.points.append(at)

    def back_to(self, number: int) -> None:
        """Take back what lies behind a point."""
        while len(self.points) > number + 1:
            self._cells[self._key(self.points.pop())].pop()

    def been(self, at: Array, within: float, before: int | None = None) -> bool:
        """Whether it came by a place, but for just now; `before` counts the points that are looked at."""
        last = (len(self.points) if before is None else before) - _JUST_NOW
        x, y = self._key(at)
        reach = math.ceil(within / self._cell)
        for i in range(x - reach, x + reach + 1):
            for j in range(y - reach, y + reach + 1):
                for number in self._cells.get((i, j), ()):
                    if number < last and math.dist(self.points[number], at) < within:
                        return True
        return False

    def way(self, number: int | None = None, else_: float = 0.0) -> float:
        """The way it was going over the last millimetres before a point, the last one where none is told."""
        at = len(self.points) - 1 if number is None else number
        run = self.points[at] - self.points[max(0, at - _BEHIND)]
        return math.atan2(run[1], run[0]) if at > 0 else else_


def _run_at_middle(inked: NDArray[np.bool_]) -> int:
    """How many samples around the middle one are ink."""
    low, high = _run_near_middle(inked)
    return max(1, high - low + 1)


def _run_near_middle(inked: NDArray[np.bool_]) -> tuple[int, int]:
    """First and last sample of the run of ink nearest to the middle; (1, 0) where there is none."""
    on = np.flatnonzero(inked)
    if not len(on):
        return 1, 0
    middle = len(inked) // 2
    at = int(on[np.argmin(np.abs(on - middle))])
    low = high = at
    while low > 0 and inked[low - 1]:
        low -= 1
    while high + 1 < len(inked) and inked[high + 1]:
        high += 1
    return low, high
