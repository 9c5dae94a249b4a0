"""Which flat pieces are alike, so that one drawing serves all of them: as drawn, turned round, or turned over."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.geometry.polygons import BaseGeometry, affinity, shapely
from hardkeel.joinery.flat import FlatPiece

_SAME_MM: Final = 0.05  # along the whole edge: less than a pencil's line
_TURNS: Final = (0, 90, 180, 270)


@dataclass(frozen=True, slots=True)
class Alike:
    """Pieces that one drawing serves.

    Attributes
    ----------
    piece : FlatPiece
        The one that is drawn.
    names : tuple of str
        Of all of them.
    drawn, turned_over : int
        How many are cut as drawn, and how many turned over; where both sides are alike all as drawn.
    """

    piece: FlatPiece
    names: tuple[str, ...]
    drawn: int
    turned_over: int

    @property
    def count(self) -> int:
        """How many are cut of it."""
        return self.drawn + self.turned_over


def gathered(pieces: Iterable[FlatPiece]) -> tuple[Alike, ...]:
    """Pieces by their shape and wood, in the order in which each shape comes first.

    What has words drawn on it (stations, planks) is alike with nothing but itself.
    """
    groups: list[list[tuple[FlatPiece, bool]]] = []
    by_size: dict[tuple[object, ...], list[int]] = {}
    for piece in pieces:
        size = (
            piece.kind,
            piece.material,
            round(piece.thickness, 3),
            len(piece.holes),
            round(piece.area / 2.0),
        )
        # a figure on the edge of its cell has its like in the next
        near = [(*size[:-1], size[-1] + step) for step in (-1, 0, 1)]
        for number in (n for key in near for n in by_size.get(key, ())):
            over = _is_turned_over(groups[number][0][0], piece)
            if over is not None:
                groups[number].append((piece, over))
                break
        else:
            by_size.setdefault(size, []).append(len(groups))
            groups.append([(piece, False)])
    return tuple(_alike(group) for group in groups)


def _alike(group: Sequence[tuple[FlatPiece, bool]]) -> Alike:
    first = group[0][0]
    drawn = over = 0
    for piece, turned in group:
        as_drawn = piece.quantity - piece.quantity // 2 if piece.pair else piece.quantity
        other = piece.quantity - as_drawn
        drawn += other if turned else as_drawn
        over += as_drawn if turned else other
    if over and _matches(first.polygon, _over(first.polygon)):
        drawn, over = drawn + over, 0
    return Alike(first, tuple(piece.name for piece, _ in group), drawn, over)


def _is_turned_over(one: FlatPiece, other: FlatPiece) -> bool | None:
    """Whether another piece is this one turned over; ``None`` where it is not this one at all."""
    if any(mark.text for piece in (one, other) for mark in piece.marks):
        return None
    if len(one.marks) != len(other.marks) or abs(one.area - other.area) > _slack(one.polygon):
        return None
    shape = one.polygon
    if _matches(shape, other.polygon):
        return False
    return True if _matches(shape, _over(other.polygon)) else None


def _slack(shape: BaseGeometry) -> float:
    return _SAME_MM * float(shape.length)


def _over(shape: BaseGeometry) -> BaseGeometry:
    return affinity.scale(shape, -1.0, 1.0, origin=(0.0, 0.0))


def _matches(one: BaseGeometry, other: BaseGeometry) -> bool:
    """Whether a shape covers another once it is turned by quarters."""
    return any(_same(one, affinity.rotate(other, turn, origin=(0.0, 0.0))) for turn in _TURNS)


def _same(one: BaseGeometry, other: BaseGeometry) -> bool:
    a, b = np.array(one.bounds), np.array(other.bounds)
    if np.abs((a[2:] - a[:2]) - (b[2:] - b[:2])).max() > _SAME_MM:
        return False
    moved = affinity.translate(other, a[0] - b[0], a[1] - b[1])
    return float(shapely.symmetric_difference(one, moved).area) <= _slack(one)
