"""Letters of single lines, for cutters and pens, which know no typeface: our own, on a grid of 4 by 6."""

import math
from collections.abc import Iterator
from typing import Final

from hardkeel.base.values import Point2

_TALL: Final = 6.0
_STEP: Final = 5.6  # from one letter to the next
_NARROW: Final = 3.2  # of a space
# each line as its points, two figures each: across 0 to 4, up 0 to 6
_GLYPHS: Final[dict[str, str]] = {
    "A": "00 26 40|12 32", "B": "00 06 36 45 44 33 03|33 42 41 30 00", "C": "45 36 16 05 01 10 30 41",
    "D": "00 06 26 44 42 20 00", "E": "46 06 00 40|03 33", "F": "46 06 00|03 33",
    "G": "45 36 16 05 01 10 30 41 43 23", "H": "00 06|40 46|03 43", "I": "20 26|10 30|16 36",
    "J": "46 41 30 10 01", "K": "00 06|46 03 40", "L": "06 00 40", "M": "00 06 23 46 40",
    "N": "00 06 40 46", "O": "10 01 05 16 36 45 41 30 10", "P": "00 06 36 45 44 33 03",
    "Q": "10 01 05 16 36 45 41 30 10|22 40", "R": "00 06 36 45 44 33 03|23 40",
    "S": "45 36 16 05 04 13 33 42 41 30 10 01", "T": "06 46|26 20", "U": "06 01 10 30 41 46",
    "V": "06 20 46", "W": "06 10 23 30 46", "X": "00 46|06 40", "Y": "06 23 46|23 20",
    "Z": "06 46 00 40", "0": "10 01 05 16 36 45 41 30 10|01 45", "1": "15 26 20|10 30",
    "2": "05 16 36 45 44 00 40", "3": "05 16 36 45 44 33 42 41 30 10 01|33 23", "4": "30 36 02 42",
    "5": "46 06 03 33 42 41 30 10 01", "6": "45 36 16 05 01 10 30 41 42 33 03", "7": "06 46 10",
    "8": "13 04 05 16 36 45 44 33 13 02 01 10 30 41 42 33", "9": "01 10 30 41 45 36 16 05 04 13 43",
    "-": "13 33", ".": "20 21", ",": "21 10", "/": "00 46", "(": "36 24 22 30", ")": "16 24 22 10",
    "+": "13 33|22 24", "_": "00 40", "?": "05 16 36 45 44 23 22|20 21", ":": "21 22|24 25",
}  # fmt: skip


def wide_of(text: str, size: float) -> float:
    """How wide a text is, mm, where its letters are `size` mm high."""
    return sum(_NARROW if letter == " " else _STEP for letter in text) * size / _TALL


def strokes_of(
    text: str, at: Point2, size: float, turn: float = 0.0
) -> Iterator[tuple[Point2, ...]]:
    """A text as lines, its middle at a place, turned by degrees; what has no letter here is a question mark."""
    scale = size / _TALL
    way = math.radians(turn)
    cos, sin = math.cos(way), math.sin(way)
    right = -wide_of(text, size) / 2
    for letter in text.upper():
        if letter == " ":
            right += _NARROW * scale
            continue
        for line in _GLYPHS.get(letter, _GLYPHS["?"]).split("|"):
            points = [(float(pair[0]), float(pair[1])) for pair in line.split()]
            laid = [(right + u * scale, (v - _TALL / 2) * scale) for u, v in points]
            yield tuple((at[0] + u * cos - v * sin, at[1] + u * sin + v * cos) for u, v in laid)
        right += _STEP * scale
