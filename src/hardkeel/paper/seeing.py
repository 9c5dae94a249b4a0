"""A sheet that one can see at any zoom: shrunk by area means, its lines kept dark against the paper around them."""

from itertools import pairwise
from typing import Final

import numpy as np
from numpy.typing import NDArray

Greys = NDArray[np.uint8]

_STRENGTHEN: Final = (
    1.65  # for each halving: a pencil line of a third of a pixel would hardly be seen
)
_WHITE: Final = 246  # what paper would be
_CELLS: Final = 48  # of the paper's map along the longer side
_LEAST_CELL_PX: Final = 16  # a cell must be mostly paper, not one line
_PAPER_QUANTILE: Final = 0.8  # most of a cell is paper, even under lettering
_LOOKED_AT_PX: Final = 1024  # along the longer side, for what the lines are
_MOST_LIFT: Final = 3.0  # of the contrast in the shade
_GRAIN: Final = 2.0  # grey levels that paper is darker in places, once shrunk
_PLAIN: Final = 8  # grey levels to either side of the paper that are no ink


def halved(grey: Greys) -> Greys:
    """A copy half as large, each pixel the mean of four; shape (h // 2, w // 2) of (h, w)."""
    tall, wide = grey.shape[0] // 2, grey.shape[1] // 2
    grey = grey[: 2 * tall, : 2 * wide]
    total = grey[::2, ::2].astype(np.uint16)
    for part in (grey[1::2, ::2], grey[::2, 1::2], grey[1::2, 1::2]):
        total += part
    return ((total + 2) // 4).astype(np.uint8)


def lines_are_light(grey: Greys) -> bool:
    """Whether a sheet is drawn light on dark, as a blueprint is.

    The ground is what most of each patch is (its median); lines are what stands off from their own patch by
    more than grain does, so that a white sheet on a dark table is none.  Most patches must be dark: a chalk
    mark on grey paper turns nothing.
    """
    every = max(1, max(grey.shape) // _LOOKED_AT_PX)
    light = dark = 0.0
    grounds = []
    for row in _patches(grey[::every, ::every]):
        for patch in row:
            ground = float(np.median(patch))
            off = patch.astype(np.float64) - ground
            light += float(np.sum(off[off > _PLAIN]))
            dark -= float(np.sum(off[off < -_PLAIN]))
            grounds.append(ground)
    return light > dark and float(np.median(grounds)) < _WHITE / 2


def paper_of(grey: Greys) -> Greys:
    """The grey of the paper over a sheet, a coarse map of it.

    Parameters
    ----------
    grey : Array
        Shape (h, w), dark on light; a small copy serves as well.

    Returns
    -------
    Array
        Shape (m, n), a cell a patch of the sheet, `_CELLS` along its longer side or fewer.
    """
    cells = np.array(
        [[np.quantile(patch, _PAPER_QUANTILE) for patch in row] for row in _patches(grey)]
    )
    rows, columns = cells.shape
    around = np.pad(cells, 1, mode="edge")
    nine = [
        around[y : y + rows, x : x + columns] for y in range(3) for x in range(3)
    ]  # a cell on a hatched patch is outvoted by its neighbours
    middle: Greys = np.median(np.array(nine), axis=0).round().astype(np.uint8)
    return middle


def _patches(grey: Greys) -> list[list[Greys]]:
    """A sheet cut into patches, row by row, `_CELLS` along its longer side or fewer."""
    tall, wide = grey.shape
    side = max(_LEAST_CELL_PX, -(-max(tall, wide) // _CELLS))
    ys = np.linspace(0, tall, max(1, tall // side) + 1).astype(int)
    xs = np.linspace(0, wide, max(1, wide // side) + 1).astype(int)
    return [[grey[y0:y1, x0:x1] for x0, x1 in pairwise(xs)] for y0, y1 in pairwise(ys)]


def strengthened(grey: Greys, paper: Greys, halvings: int) -> Greys:
    """What is darker than its own paper darkened as much as shrinking has paled it; yellow and shade made lighter.

    Parameters
    ----------
    grey, paper : Array
        Shape (h, w) each: what is seen, and the paper under it.
    halvings : int
        How often it was halved, 0 or more.
    """
    return _table(halvings)[paper, grey]


def _table(halvings: int) -> Greys:
    """What is shown for paper p and grey g, shape (256, 256)."""
    paper = np.arange(256.0)[:, None]
    grey = np.arange(256.0)[None, :]
    # half the way (geometrically) to white: yellow looks like paper, a dark table under the sheet stays dark
    shown = np.sqrt(_WHITE * np.maximum(paper, 1.0))
    lift = np.minimum(shown / np.maximum(paper, 1.0), _MOST_LIFT)
    off = grey - paper
    ink = np.minimum(off + _GRAIN, 0.0)  # what is darker than the paper's own grain
    off = off + ink * (_STRENGTHEN**halvings - 1)
    table: Greys = np.clip(shown + off * lift, 0, 255).astype(np.uint8)
    return table
