"""Sections: read from two-column coordinate files, and those that come with the app.

A section is given in shares of its chord: x from 0 at the nose to 1 at the trailing edge, z up.
"""

import re
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.geometry.rotation import Array

_NUMBER: Final = re.compile(r"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eEdD][-+]?\d+)?")
_DECIMAL_COMMAS: Final = re.compile(
    r"(?:[-+]?\d+\s+)?[-+]?\d*,\d+(?:\s+[-+]?\d*,\d+)+"  # parted by blanks, each with its comma
)
_COMMENT: Final = ("#", "!", "//")
_COLUMNS: Final = 2
_LINES_OVER: Final = 3
_LARGEST: Final = 1e6
_LEAST_POINTS: Final = 5
_MOST_POINTS: Final = 20_000
_STEP_BACK: Final = 2e-4  # of the chord: a nose may turn this far within one surface
_CROSSED: Final = 2e-3  # of the chord: a cusped trailing edge may cross by this much
_APART: Final = 0.02  # of the chord: surfaces that end this far apart do not belong together
_SPIKE: Final = 0.02  # of the chord off what its neighbours say
_THICKEST: Final = 0.9


@dataclass(frozen=True)
class Section:
    """Upper and lower surface, straight between their points.

    Attributes
    ----------
    upper, lower : Array
        Shape (n, 2), shares of the chord, from the nose aft, x rising.
    """

    name: str
    upper: Array
    lower: Array

    def heights(self, at: Array | float) -> tuple[Array, Array]:
        """Upper and lower surface at shares of the chord, in the shape of `at`."""
        return (
            np.asarray(np.interp(at, self.upper[:, 0], self.upper[:, 1])),
            np.asarray(np.interp(at, self.lower[:, 0], self.lower[:, 1])),
        )

    @property
    def places(self) -> Array:
        """Every share of the chord at which a surface has a point."""
        return np.union1d(self.upper[:, 0], self.lower[:, 0])

    @property
    def mean_line(self) -> Array:
        """Half way between upper and lower surface, shape (n, 2)."""
        at = self.places
        upper, lower = self.heights(at)
        return np.column_stack([at, (upper + lower) / 2])

    @property
    def thickness(self) -> float:
        """The greatest height difference at one x, as a share of the chord."""
        upper, lower = self.heights(self.places)
        return float(np.max(upper - lower))

    def scaled(self, factor: float) -> "Section":
        """The same with its heights scaled."""
        size = np.array([1.0, factor])
        return Section(self.name, self.upper * size, self.lower * size)


@lru_cache(maxsize=64)
def read_section(text: str, name: str) -> Section:
    """A section from the text of a coordinate file, in either order.

    One loop from the trailing edge over the top (or under, or from the nose); or upper then lower
    surface, each from the nose aft, with or without the line of their counts.

    Raises
    ------
    BadInput
        Naming the file and the line, or the points, where it can't be right.
    """
    points = _rows(text, name)
    counts = _counts(points)
    if counts is not None:
        points = points[1:]
    if len(points) < _LEAST_POINTS:
        raise BadInput(name, f"holds {len(points)} points; a section needs {_LEAST_POINTS}")
    xy = np.array(points)
    xy = _to_shares(xy, name)
    first, second = _halves(xy, counts, name)
    upper, lower = _sided(first, second, name)
    return _checked(Section(name, upper, lower))


def _rows(text: str, name: str) -> list[tuple[float, float]]:
    """Points of a file: two columns, or x with both heights; behind a column that counts the rows, or before one of noughts.

    A name, an author and a date may stand over the figures, nothing between them.
    """
    found: list[tuple[float, ...]] = []
    words = stopped = 0
    rows = text.lstrip("\ufeff").replace("\x1a", "").splitlines()
    cut = [_cells(raw) for raw in rows]
    last = {max((i for i, cells in enumerate(cut, start=1) if cells), default=0)}
    columns = _columns(cut)
    for number, cells in enumerate(cut, start=1):
        if not cells:
            continue
        figures = _are_figures(cells)
        if not found and (not figures or len(cells) != columns) and words < _LINES_OVER:
            words += 1
            continue
        if not figures or (len(cells) != columns and number in last):
            stopped = stopped or number  # a note may stand under the figures
            continue
        if stopped:
            raise BadInput(f"{name} line {stopped}", f"is not {_NUMBERS[columns]} figures")
        if len(cells) != columns:
            raise BadInput(
                f"{name} line {number}", f"has {len(cells)} figures instead of {_NUMBERS[columns]}"
            )
        row = tuple(float(cell.lower().replace("d", "e")) for cell in cells)
        if not np.all(np.isfinite(row)) or max(abs(one) for one in row) > _LARGEST:
            raise BadInput(f"{name} line {number}", "has a figure that is out of all measure")
        found.append(row)
        if len(found) > _MOST_POINTS:
            raise BadInput(name, f"holds more than {_MOST_POINTS:,} points")
    if not found:
        raise BadInput(name, "holds no two columns of figures")
    return _points(found, name)


_NUMBERS: Final = {2: "two", 3: "three", 4: "four"}


def _columns(cut: list[list[str]]) -> int:
    """How many figures most rows hold; two where that is no count of columns that is known."""
    counts = [len(cells) for cells in cut if cells and _are_figures(cells)]
    most = max(set(counts), key=counts.count, default=_COLUMNS)
    return most if most in _NUMBERS else _COLUMNS


def _are_figures(cells: list[str]) -> bool:
    return all(_NUMBER.fullmatch(cell) for cell in cells)


def _points(rows: list[tuple[float, ...]], name: str) -> list[tuple[float, float]]:
    """Rows as points: the column that counts them off, x with upper and lower height as a loop over the top."""
    table = np.array(rows)
    numbered = len(table) > 1 and bool(np.all(np.diff(table[:, 0]) == 1.0))
    if table.shape[1] > _COLUMNS and numbered:
        table = table[:, 1:]
    elif table.shape[1] > _COLUMNS and np.ptp(table[:, -1]) == 0.0:
        table = table[:, :-1]  # points in space, all in one plane
    if table.shape[1] == _COLUMNS:
        return [(float(x), float(z)) for x, z in table]
    if table.shape[1] > _COLUMNS + 1:
        raise BadInput(name, "holds four columns, of which the first counts no rows")
    x, one, other = table[np.argsort(table[:, 0], kind="stable")].T
    if len(np.unique(x)) < len(x):
        raise BadInput(name, "holds three columns with an x that stands there twice")
    upper, lower = np.maximum(one, other), np.minimum(one, other)
    if not (np.array_equal(upper, one) or np.array_equal(upper, other)):
        raise BadInput(
            name, "holds x and two heights, of which now one and now the other is the greater"
        )
    over = list(zip(x[::-1].tolist(), upper[::-1].tolist(), strict=True))
    return over + list(zip(x.tolist(), lower.tolist(), strict=True))


def _cells(raw: str) -> list[str]:
    line = "" if raw.lstrip().startswith("%") else raw.strip()
    for mark in _COMMENT:
        line = line.split(mark)[0]
    if ";" in line or _DECIMAL_COMMAS.fullmatch(line.strip()):  # then a comma is a decimal point
        return [cell.replace(",", ".") for cell in re.split(r"[\s;]+", line) if cell]
    return [cell for cell in re.split(r"[\s,]+", line) if cell]


def _counts(points: list[tuple[float, float]]) -> tuple[int, int] | None:
    """Counts of upper and lower points, where the first line is that."""
    a, b = points[0]
    whole = a == int(a) and b == int(b) and min(a, b) >= 2  # noqa: PLR2004  two points make a line
    if whole and int(a + b) == len(points) - 1:
        return int(a), int(b)
    return None


def _to_shares(xy: Array, name: str) -> Array:
    least, most = float(xy[:, 0].min()), float(xy[:, 0].max())
    chord = most - least
    if chord <= 0:
        raise BadInput(name, "has all its points at one x")
    counted = float(xy[0].min()) >= 2 and chord > 2 and float(np.median(xy[:, 0])) <= 1.5  # noqa: PLR2004
    if counted:
        a, b = xy[0]
        raise BadInput(
            name, f"says {a:g} and {b:g} points, but {len(xy) - 1} follow: some are missing"
        )
    if np.ptp(xy[:, 1]) > _THICKEST * chord:
        raise BadInput(name, "is nearly as thick as it is long: columns or scales are mixed")
    return np.column_stack([(xy[:, 0] - least) / chord, xy[:, 1] / chord])


def _halves(xy: Array, counts: tuple[int, int] | None, name: str) -> tuple[Array, Array]:
    """Two surfaces, each from the nose aft, in the order of the file."""
    if counts is not None:
        return _rising(xy[: counts[0]], name), _rising(xy[counts[0] :], name)
    steps = np.diff(xy[:, 0])
    leaps = np.flatnonzero(steps < -0.5)  # noqa: PLR2004  from the trailing edge back to the nose
    if len(leaps) == 1 and np.all(steps[: leaps[0]] >= -_STEP_BACK):
        cut = int(leaps[0]) + 1
        return _rising(xy[:cut], name), _rising(xy[cut:], name)
    if xy[0, 0] < 0.5:  # noqa: PLR2004  a loop that begins at the nose
        cut = int(np.argmax(xy[:, 0])) + 1
        return _rising(xy[:cut], name), _rising(xy[cut - 1 :][::-1], name)
    nose = int(np.argmin(xy[:, 0]))
    if nose in (0, len(xy) - 1):
        raise BadInput(name, "holds one surface only: the other is missing")
    twin = nose
    while twin + 1 < len(xy) and xy[twin + 1, 0] == xy[nose, 0]:
        twin += 1  # a nose that is given twice, or is blunt
    return _rising(xy[: nose + 1][::-1], name), _rising(xy[twin:], name)


def _rising(part: Array, name: str) -> Array:
    """A surface whose x rises from nose to trailing edge; steps back within a hair are levelled."""
    if len(part) < 2:  # noqa: PLR2004  no line
        raise BadInput(name, "holds one surface only: the other is missing")
    back = np.flatnonzero(np.diff(part[:, 0]) < -_STEP_BACK)
    if len(back):
        x, z = part[int(back[0]) + 1]
        raise BadInput(
            name,
            f"has points out of order: x goes back at {x:.4g}, {z:.4g} (in shares of the chord)",
        )
    x = np.maximum.accumulate(part[:, 0])
    # of points at one x the outer two count: the first and the last of a blunt end
    kept = np.ones(len(x), dtype=bool)
    for i in range(1, len(x) - 1):
        kept[i] = not (x[i] == x[i - 1] and x[i] == x[i + 1])
    return np.column_stack([x, part[:, 1]])[kept]


def _sided(first: Array, second: Array, name: str) -> tuple[Array, Array]:
    """Which of two surfaces is the upper one."""
    at = np.linspace(0.02, 0.98, 97)
    one = np.interp(at, first[:, 0], first[:, 1])
    other = np.interp(at, second[:, 0], second[:, 1])
    gap = one - other
    if np.mean(gap) < 0:
        first, second, gap = second, first, -gap
    if np.min(gap) < -_CROSSED:
        where = float(at[int(np.argmin(gap))])
        raise BadInput(
            name,
            f"has surfaces that cross at {100 * where:.0f} % of the chord: points are out of order",
        )
    return first, second


def _checked(section: Section) -> Section:
    name = section.name
    for surface, words in ((section.upper, "upper"), (section.lower, "lower")):
        end = float(surface[-1, 0])
        if end < 1 - _APART:
            raise BadInput(
                name, f"has an {words} surface that ends at {100 * end:.0f} % of the chord"
            )
        if float(surface[0, 0]) > _APART:
            raise BadInput(
                name,
                f"has an {words} surface that begins at {100 * surface[0, 0]:.0f} % of the chord",
            )
        _refuse_spike(surface, words, name)
    if section.thickness < 1e-3:  # noqa: PLR2004  of the chord
        raise BadInput(name, "has no thickness: both surfaces are one line")
    return section


def _refuse_spike(surface: Array, words: str, name: str) -> None:
    """A slip of the pen: a point off the line of two neighbours on either side."""
    x, z = surface[:, 0], surface[:, 1]
    for i in range(2, len(x) - 2):
        if not 0.05 < x[i] < 0.97 or x[i + 2] - x[i - 2] > 0.4:  # noqa: PLR2004  too far apart to tell
            continue
        near = [i - 2, i - 1, i + 1, i + 2]
        if len(set(x[near])) < 4 or x[i] in x[near]:  # noqa: PLR2004  a step is no spike
            continue
        wanted = float(np.polyval(np.polyfit(x[near] - x[i], z[near], 2), 0.0))
        calm = float(np.ptp(z[near])) + float(np.ptp(x[near])) * 0.2
        if abs(z[i] - wanted) > max(_SPIKE, calm):
            raise BadInput(
                name,
                f"has a point off the line of its neighbours: {x[i]:.4g}, {z[i]:.4g} on the {words} surface",
            )
