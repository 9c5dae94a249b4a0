"""Photographs of a sheet on which coded labels lie, as a telephone over it sees them, with the truth beside."""

import math
from dataclasses import dataclass
from functools import cache

import numpy as np
from numpy.typing import NDArray

from hardkeel.sight.codes import MODULES, bits_of

WIDE, TALL, K1 = 3000, 2250, 0.05
FOCAL = 0.8 * WIDE
_OVER = 4


@dataclass(frozen=True, slots=True)
class Lying:
    """A label on the sheet: code, middle (mm), turn (degrees), side of its black square (mm)."""

    code: int
    at: tuple[float, float]
    turn: float
    size: float = 25.0


def seen(points: NDArray[np.float64]) -> NDArray[np.float64]:
    """Where the telephone sees places of the sheet (mm, y up): leaning, lens and all."""
    a, b = math.radians(7.0), math.radians(-5.0)
    lean = np.array([[1, 0, 0], [0, math.cos(a), -math.sin(a)], [0, math.sin(a), math.cos(a)]])
    roll = np.array([[math.cos(b), 0, math.sin(b)], [0, 1, 0], [-math.sin(b), 0, math.cos(b)]])
    flat = points * (1.0, -1.0)
    placed = np.column_stack([flat, np.zeros(len(flat))]) @ (lean @ roll).T + (0.0, 0.0, 420.0)
    x = placed[:, :2] / placed[:, 2:]
    bent = x * (1 + K1 * (x**2).sum(axis=1))[:, None]
    return np.asarray(bent * FOCAL + (WIDE / 2, TALL / 2))


def corners_of(label: Lying) -> NDArray[np.float64]:
    """The black square's corners on the sheet, mm, its upper left first, clockwise as seen."""
    half = label.size / 2
    square = np.array([(-half, half), (half, half), (half, -half), (-half, -half)])
    turn = math.radians(label.turn)
    back = np.array([[math.cos(turn), -math.sin(turn)], [math.sin(turn), math.cos(turn)]])
    return np.asarray(square @ back.T + np.array(label.at))


@cache
def photograph(labels: tuple[Lying, ...], noise: float = 3.0) -> NDArray[np.uint8]:
    """The picture, grey: each pixel's middle and its neighbours' are looked up on the sheet."""
    grey = np.full((TALL, WIDE), 215.0)
    for label in labels:
        spots = seen(corners_of(label))
        low = np.floor(spots.min(axis=0) - 40).astype(int)
        high = np.ceil(spots.max(axis=0) + 40).astype(int)
        u = np.arange(low[0] * _OVER, high[0] * _OVER) / _OVER + 0.5 / _OVER
        v = np.arange(low[1] * _OVER, high[1] * _OVER) / _OVER + 0.5 / _OVER
        grid = np.stack(np.meshgrid(u, v), axis=-1).reshape(-1, 2)
        place = _on_sheet(grid)
        turn = math.radians(label.turn)
        back = np.array([[math.cos(turn), math.sin(turn)], [-math.sin(turn), math.cos(turn)]])
        own = (place - np.array(label.at)) @ back.T / label.size + 0.5
        cell = np.floor(np.column_stack([own[:, 0], 1 - own[:, 1]]) * MODULES).astype(int)
        inside = ((cell >= 0) & (cell < MODULES)).all(axis=1)
        rim = (np.abs(own - 0.5) < 0.5 + 1 / MODULES).all(axis=1)
        bits = bits_of(label.code)
        shade = np.where(rim, 245.0, 215.0)
        shade[inside] = np.where(bits[cell[inside, 1], cell[inside, 0]], 35.0, 245.0)
        light = ((shade / 255 + 0.055) / 1.055) ** 2.4  # a pixel gathers light, not grey levels
        mixed = light.reshape(len(v) // _OVER, _OVER, len(u) // _OVER, _OVER).mean(axis=(1, 3))
        made = (1.055 * mixed ** (1 / 2.4) - 0.055) * 255
        grey[low[1] : high[1], low[0] : high[0]] = made
    rng = np.random.default_rng(4)
    return np.clip(np.round(grey + rng.normal(size=grey.shape) * noise), 0, 255).astype(np.uint8)


def _on_sheet(pixels: NDArray[np.float64]) -> NDArray[np.float64]:
    """Where on the sheet pixels look, by Newton's steps on `seen`."""
    place = (pixels - (WIDE / 2, TALL / 2)) * (420.0 / FOCAL) * (1.0, -1.0)
    for _ in range(3):
        off = seen(place) - pixels
        step = 0.01
        here = seen(place)
        du = (seen(place + np.array([step, 0.0])) - here) / step
        dv = (seen(place + np.array([0.0, step])) - here) / step
        det = du[:, 0] * dv[:, 1] - du[:, 1] * dv[:, 0]
        dx = (off[:, 0] * dv[:, 1] - off[:, 1] * dv[:, 0]) / det
        dy = (du[:, 0] * off[:, 1] - du[:, 1] * off[:, 0]) / det
        place = place - np.column_stack([dx, dy])
    return np.asarray(place)
