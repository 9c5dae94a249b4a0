"""Flat pieces laid on sheets so that few sheets are bought: grain kept, pieces apart by a gap.

Each sheet is a grid of square millimetres.  The largest piece goes first, each to the place nearest to the
sheet's end where nothing lies yet, found for all places at once by a convolution of what is taken with the
piece (bottom-left placement: B. S. Baker, E. G. Coffman and R. L. Rivest, "Orthogonal packings in two
dimensions", SIAM Journal on Computing 9 (1980), 846-855; for free shapes on a grid).
"""

import math
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass
from functools import cache
from typing import Final, TypeAlias

import numpy as np
import numpy.typing as npt

from hardkeel.geometry.polygons import BaseGeometry, affinity, shapely
from hardkeel.geometry.rotation import Array
from hardkeel.joinery.cut_part import Stock
from hardkeel.joinery.flat import FlatPiece, Ring

_CELL_MM: Final = 1.0
_SAFE_MM: Final = (
    0.75  # a cell is taken when its middle lies this near to a piece: half its diagonal and a hair
)
_HAIR: Final = 1e-6
_TAKEN: Final = 0.5
_Mask = np.ndarray[tuple[int, int], np.dtype[np.bool_]]
Step = Callable[[int, int], None]


@dataclass(frozen=True, slots=True)
class Placed:
    """A piece on a sheet.

    Attributes
    ----------
    piece : FlatPiece
        As it lies: the second of a pair turned over.
    turn : int
        By how many degrees it is turned: a multiple of 90.
    u, v : float
        Where its turned outline's least corner lies on the sheet, mm.
    """

    piece: FlatPiece
    turn: int
    u: float
    v: float

    @property
    def polygon(self) -> BaseGeometry:
        """Its wood on the sheet."""
        turned = affinity.rotate(self.piece.polygon, self.turn, origin=(0.0, 0.0))
        left, low, _, _ = turned.bounds
        return affinity.translate(turned, self.u - left, self.v - low)

    def moved(self, points: Ring) -> Ring:
        """Points of the piece where they lie on the sheet."""
        return self.move(points)

    @property
    def move(self) -> Callable[[Ring], Ring]:
        """The same for many lines of it."""
        way = math.radians(self.turn)
        c, s = round(math.cos(way)), round(math.sin(way))
        outline = self.piece.outline
        du = self.u - min(c * u - s * v for u, v in outline)
        dv = self.v - min(s * u + c * v for u, v in outline)
        return lambda points: tuple((c * u - s * v + du, s * u + c * v + dv) for u, v in points)


@dataclass(frozen=True, slots=True)
class NestedSheet:
    """A sheet with what is cut from it; grain along its length.

    Attributes
    ----------
    length, width : float
        mm; where pieces are larger than a sheet, of several joined.
    joined : int
        Sheets of the usual size that it is made of.
    own : bool
        It is an off-cut of the builder's own.
    """

    material: str | None
    thickness: float
    length: float
    width: float
    joined: int
    placed: tuple[Placed, ...]
    own: bool = False

    @property
    def used(self) -> float:
        """How much of its length is used; what is behind is an off-cut as wide as the sheet, mm."""
        return max((one.polygon.bounds[2] for one in self.placed), default=0.0)

    @property
    def waste(self) -> float:
        """What is not cut out of it, percent."""
        return 100 * (1 - sum(one.piece.area for one in self.placed) / (self.length * self.width))


@dataclass(frozen=True, slots=True)
class SheetPurchase:
    """Sheets of one wood and thickness to buy.

    Attributes
    ----------
    waste : float
        Percent of what is bought that is in no piece.
    left : float
        Length of the longest whole off-cut, mm.
    """

    material: str | None
    thickness: float
    size: tuple[float, float]
    sheets: int
    waste: float
    left: float


def nested(
    pieces: Iterable[FlatPiece],
    sheet: tuple[float, float],
    gap: float = 2.0,
    step: Step | None = None,
    offcuts: Sequence[Stock] = (),
) -> tuple[NestedSheet, ...]:
    """All pieces, as often as each is wanted, on sheets of their wood.

    Parameters
    ----------
    sheet : (float, float)
        Length and width, mm; the grain runs along the length.
    gap : float
        Least distance between two pieces, mm.
    step : callable, optional
        Told how many pieces lie and how many there are; may raise `GivenUp`.
    offcuts : sequence of Stock
        Sheet that is there already, (thickness, width) and length in mm: filled first.
    """
    wanted = [one for piece in pieces for one in _each(piece)]
    found, wanted = _on_offcuts(wanted, offcuts, gap)
    groups: dict[tuple[str | None, float, int, int], list[FlatPiece]] = {}
    for piece in wanted:
        along, across = _lying_size(piece)
        long = max(1, math.ceil(along / sheet[0] - _HAIR))
        wide = max(1, math.ceil(across / sheet[1] - _HAIR))
        key = (piece.material, piece.thickness, long, wide)
        groups.setdefault(key, []).append(piece)
    total, done = sum(len(group) for group in groups.values()), 0
    for (material, thickness, long, wide), group in sorted(
        groups.items(), key=lambda g: (g[0][0] or "", *g[0][1:])
    ):
        size = (sheet[0] * long, sheet[1] * wide)
        laid = _Laying(size, gap)
        for piece in sorted(group, key=lambda one: -one.area):
            laid.add(piece)
            done += 1
            if step is not None:
                step(done, total)
        found += [
            NestedSheet(material, thickness, *size, long * wide, tuple(one)) for one in laid.sheets
        ]
    return tuple(found)


def _on_offcuts(
    pieces: list[FlatPiece], offcuts: Sequence[Stock], gap: float
) -> tuple[list[NestedSheet], list[FlatPiece]]:
    """What goes on sheet that is there, the smallest first and the largest pieces on it; and what is left."""
    left = sorted(pieces, key=lambda one: -one.area)
    found: list[NestedSheet] = []
    there = [one for one in offcuts for _ in range(one.pieces)]
    for stock in sorted(there, key=lambda one: one.section[1] * one.length):
        thickness, width = stock.section
        laid = _Laying((stock.length, width), gap)
        grid = laid.empty()
        lying: list[Placed] = []
        rest: list[FlatPiece] = []
        for piece in left:
            same = piece.material == stock.material and piece.thickness == thickness
            if not (same and laid.put(piece, grid, lying)):
                rest.append(piece)
        if lying:
            found.append(
                NestedSheet(
                    stock.material, thickness, stock.length, width, 0, tuple(lying), own=True
                )
            )
        left = rest
    return found, left


def sheets_to_buy(
    sheets: Sequence[NestedSheet], size: tuple[float, float]
) -> tuple[SheetPurchase, ...]:
    """How many sheets of each wood and thickness, and what of them is left over."""
    groups: dict[tuple[str | None, float], list[NestedSheet]] = {}
    for one in sheets:
        if not one.own:
            groups.setdefault((one.material, one.thickness), []).append(one)
    found = []
    for (material, thickness), group in groups.items():
        number = sum(one.joined for one in group)
        used = sum(placed.piece.area for one in group for placed in one.placed)
        waste = 100 * (1 - used / (number * size[0] * size[1]))
        left = max(one.length - one.used for one in group)
        found.append(SheetPurchase(material, thickness, size, number, waste, left))
    return tuple(found)


def _each(piece: FlatPiece) -> list[FlatPiece]:
    if not piece.pair:
        return [piece] * piece.quantity
    over = piece.mirrored()
    return [over if i % 2 else piece for i in range(piece.quantity)]


def turns_of(piece: FlatPiece) -> tuple[int, ...]:
    """By how many degrees a piece may be turned on a sheet whose grain runs along its length."""
    return {"u": (0, 180), "v": (90, 270), "any": (0, 90, 180, 270)}[piece.grain]


def _lying_size(piece: FlatPiece) -> tuple[float, float]:
    """Along and across the sheet as it lies with its grain; any way up, the longer side along."""
    along, across = piece.size
    if piece.grain == "v" or (piece.grain == "any" and across > along):
        return across, along
    return along, across


def laid_inside(
    room: BaseGeometry, pieces: Sequence[FlatPiece], turned: int, gap: float
) -> Iterator[tuple[int, Placed]]:
    """Pieces in a cut-out, the first that fit: each with its number and where it lies in the cut-out's own plane.

    Parameters
    ----------
    room : BaseGeometry
        What of the cut-out is free, mm.
    turned : int
        By how many degrees the plane is turned on its sheet.
    """
    left, low, right, high = room.bounds
    wide, tall = math.floor((right - left) / _CELL_MM), math.floor((high - low) / _CELL_MM)
    if min(wide, tall) < 1:
        return
    inside = affinity.translate(room.buffer(-_SAFE_MM * _CELL_MM), -left, -low)
    laying = _Laying((wide * _CELL_MM, tall * _CELL_MM), gap)
    grid = ~_cells(inside, wide, tall, 0)
    for number, piece in enumerate(pieces):
        lying: list[Placed] = []
        if min(piece.size) <= max(wide, tall) and laying.put(piece, grid, lying, turned):
            one = lying[0]
            yield number, Placed(piece, one.turn, one.u + left, one.v + low)


_Turned: TypeAlias = tuple[
    Ring, tuple[Ring, ...], int
]  # what of a piece makes its cells, and its turn


class _Laying:
    """Sheets of one size, filled one after another."""

    def __init__(self, size: tuple[float, float], gap: float) -> None:
        self._size, self._gap = size, gap
        self._grids: list[_Mask] = []
        self._turned: dict[_Turned, BaseGeometry] = {}
        self._bodies: dict[_Turned, _Mask] = {}
        self._arounds: dict[_Turned, tuple[_Mask, int]] = {}
        self.sheets: list[list[Placed]] = []

    def add(self, piece: FlatPiece) -> None:
        """Lay a piece on the first sheet that has room, on a new one if none has."""
        for grid, sheet in zip(self._grids, self.sheets, strict=True):
            if self.put(piece, grid, sheet):
                return
        grid = self.empty()
        self._grids.append(grid)
        self.sheets.append([])
        if not self.put(piece, grid, self.sheets[-1]):
            # its box is a hair larger than the grid: it has the sheet to itself
            turn = turns_of(piece)[0]
            self.sheets[-1].append(Placed(piece, turn, 0.0, 0.0))
            grid[:] = True

    def empty(self) -> _Mask:
        """The grid of a sheet on which nothing lies."""
        across, along = (math.floor(side / _CELL_MM + _HAIR) for side in self._size[::-1])
        return np.zeros((across, along), dtype=bool)

    def put(self, piece: FlatPiece, grid: _Mask, sheet: list[Placed], turned: int = 0) -> bool:
        """Lay a piece where a grid is free, if it is anywhere, on a plane that is turned against its sheet."""
        found: list[tuple[int, int, int, int]] = []  # where it ends, row, column, turn
        free = grid.size - int(np.count_nonzero(grid))
        seen = _Seen(grid)
        for turn in ((one - turned) % 360 for one in turns_of(piece)):
            body = self._body(piece, turn)
            if np.count_nonzero(body) > free:  # all that is free is less than it
                return False
            place = _place(seen, body)
            if place is not None:
                row, column = place
                found.append((column + body.shape[1], row, column, turn))
        if not found:
            return False
        _, row, column, turn = min(found)
        around, reach = self._around(piece, turn)
        sheet.append(Placed(piece, turn, column * _CELL_MM, row * _CELL_MM))
        _stamp(grid, around, row - reach, column - reach)
        return True

    def _body(self, piece: FlatPiece, turn: int) -> _Mask:
        """The cells of a turned piece."""
        key = (piece.outline, piece.holes, turn)
        if key not in self._bodies:
            shape = self._shape(piece, turn)
            self._bodies[key] = _cells(shape.buffer(_SAFE_MM * _CELL_MM), *_cells_of(shape), 0)
        return self._bodies[key]

    def _around(self, piece: FlatPiece, turn: int) -> tuple[_Mask, int]:
        """The cells of a turned piece with the gap around it, and how far these reach out: only where it is laid."""
        key = (piece.outline, piece.holes, turn)
        if key not in self._arounds:
            shape = self._shape(piece, turn)
            reach = math.ceil((self._gap + 2 * _SAFE_MM) / _CELL_MM)
            grown = shape.buffer(self._gap + 2 * _SAFE_MM * _CELL_MM)
            self._arounds[key] = _cells(grown, *_cells_of(shape), reach), reach
        return self._arounds[key]

    def _shape(self, piece: FlatPiece, turn: int) -> BaseGeometry:
        key = (piece.outline, piece.holes, turn)
        if key not in self._turned:
            turned = affinity.rotate(piece.polygon, turn, origin=(0.0, 0.0))
            left, low, _, _ = turned.bounds
            self._turned[key] = affinity.translate(turned, -left, -low)
        return self._turned[key]


def _cells_of(shape: BaseGeometry) -> tuple[int, int]:
    """Over how many cells a shape reaches that begins at the origin."""
    _, _, right, high = shape.bounds
    wide, tall = (max(1, math.ceil(side / _CELL_MM - _HAIR)) for side in (right, high))
    return wide, tall


def _cells(shape: BaseGeometry, wide: int, tall: int, reach: int) -> _Mask:
    """Which cells' middles lie in a shape, rows from low to high."""
    us = (np.arange(-reach, wide + reach) + 0.5) * _CELL_MM
    vs = (np.arange(-reach, tall + reach) + 0.5) * _CELL_MM
    grid_u, grid_v = np.meshgrid(us, vs)
    shapely.prepare(shape)
    return np.asarray(shapely.contains_xy(shape, grid_u, grid_v), dtype=bool)


class _Seen:
    """A grid with its spectrum, which all turns of a piece are held against."""

    def __init__(self, grid: _Mask) -> None:
        self.grid = grid
        lying = np.flatnonzero(grid.any(axis=0))
        self.end = int(lying[-1]) + 1 if len(lying) else 0
        self._spectra: dict[tuple[int, int], npt.NDArray[np.complexfloating]] = {}

    def overlaps(self, body: _Mask, until: int) -> Array:
        """How many taken cells a body covers at each place where it lies whole before a column.

        A correlation by the convolution theorem: as large as the grid, for a place that does not reach over its edge
        is not reached by what wraps around.
        """
        grid = self.grid[:, :until]
        size = (_fast(grid.shape[0]), _fast(until))
        if size not in self._spectra:
            self._spectra[size] = np.fft.rfft2(grid.astype(np.float32), size)
        product = self._spectra[size] * np.fft.rfft2(body.astype(np.float32), size).conj()
        found = np.fft.irfft2(product, size)
        rows, columns = (g - b + 1 for g, b in zip(grid.shape, body.shape, strict=True))
        return np.asarray(found[:rows, :columns])


def _place(seen: _Seen, body: _Mask) -> tuple[int, int] | None:
    """The free place nearest to the sheet's end, row and column."""
    grid = seen.grid
    rows, columns = grid.shape[0] - body.shape[0], grid.shape[1] - body.shape[1]
    if rows < 0 or columns < 0:
        return None
    if not seen.end:
        return 0, 0
    # behind what lies there is room at once: no need to look further; to the same columns for both of its ways,
    # so that one spectrum serves them
    until = min(grid.shape[1], seen.end + max(body.shape))
    taken = seen.overlaps(body, until)
    free = np.argwhere((taken < _TAKEN).T)  # columns first: nearest to the end
    if not len(free):
        return None
    column, row = free[0]
    return int(row), int(column)


@cache
def _fast(side: int) -> int:
    """The next number whose prime factors are 2, 3 and 5: a transform of that many is quick."""
    while True:
        rest = side
        for prime in (2, 3, 5):
            while rest % prime == 0:
                rest //= prime
        if rest == 1:
            return side
        side += 1


def _stamp(grid: _Mask, mask: _Mask, row: int, column: int) -> None:
    """Mark cells as taken, what reaches over the sheet's edge left off."""
    top, left = max(row, 0), max(column, 0)
    bottom = min(row + mask.shape[0], grid.shape[0])
    right = min(column + mask.shape[1], grid.shape[1])
    grid[top:bottom, left:right] |= mask[top - row : bottom - row, left - column : right - column]
