"""Sheets with drawn lines whose places are known exactly: outlines, what crosses them, and the paper they lie on."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageDraw, ImageFilter

Ring = NDArray[np.float64]
_OVER = 4


@dataclass(slots=True)
class Drawing:
    """Lines in millimetres, v downwards, from the sheet's corner."""

    size: tuple[float, float]
    lines: list[tuple[Ring, float, float]] = field(default_factory=list)

    def line(
        self, points: Sequence[tuple[float, float]] | Ring, width: float = 0.35, ink: float = 1.0
    ) -> None:
        self.lines.append((np.asarray(points, dtype=float), width, ink))

    def ring(self, points: Ring, width: float = 0.35) -> None:
        self.line(np.concatenate([points, points[:2]]), width)

    def words(self, x: float, y: float, tall: float = 2.5) -> None:
        """Strokes as of lettering, from a place on."""
        for k in range(6):
            left = x + k * 0.8 * tall
            self.line([(left, y), (left + 0.2, y - tall)], 0.3)
            self.line([(left, y - tall / 2), (left + 0.5 * tall, y - tall / 2)], 0.3)


def scanned(
    drawing: Drawing,
    dpi: int,
    *,
    paper: float = 240.0,
    ink: float = 45.0,
    noise: float = 3.0,
    shade: float = 0.0,
) -> NDArray[np.uint8]:
    """A drawing as a scanner gives it."""
    scale = dpi / 25.4
    wide, tall = (math.ceil(one * scale) for one in drawing.size)
    image = Image.new("L", (wide * _OVER, tall * _OVER), 0)
    pen = ImageDraw.Draw(image)
    fine = scale * _OVER
    for points, width, strength in drawing.lines:
        # a pixel's middle lies half a pixel from its corner
        spots = [(x * fine - 0.5, y * fine - 0.5) for x, y in points]
        pen.line(spots, round(255 * strength), max(1, round(width * fine)), joint="curve")
    small = image.resize((wide, tall), Image.Resampling.BOX).filter(ImageFilter.GaussianBlur(0.6))
    inked = np.asarray(small, dtype=float) / 255
    rng = np.random.default_rng(1)
    ground = np.full(inked.shape, paper)
    ground -= shade * np.linspace(0, 1, wide)[None, :] * np.linspace(0.3, 1, tall)[:, None]
    grey = ground + (ink - ground) * inked + rng.normal(size=inked.shape) * noise
    return np.clip(np.round(grey), 0, 255).astype(np.uint8)


def superellipse(x: float, y: float, half: float, high: float, power: float = 2.0) -> Ring:
    """A ring about a place, half as wide and high as told."""
    t = np.linspace(0, 2 * math.pi, 721)[:-1]
    c, s = np.cos(t), np.sin(t)
    return np.column_stack(
        [
            x + half * np.sign(c) * np.abs(c) ** (2 / power),
            y + high * np.sign(s) * np.abs(s) ** (2 / power),
        ]
    )


def rounded_box(x: float, y: float, half: float, high: float, radius: float = 0.0) -> Ring:
    """A box about a place, its corners rounded."""
    if radius <= 0:
        return np.array(
            [(x - half, y - high), (x + half, y - high), (x + half, y + high), (x - half, y + high)]
        )
    out = [
        (
            x + sx * (half - radius) + radius * math.cos(t),
            y + sy * (high - radius) + radius * math.sin(t),
        )
        for sx, sy, begin in ((1, 1, 0.0), (-1, 1, 90.0), (-1, -1, 180.0), (1, -1, 270.0))
        for t in np.radians(np.linspace(begin, begin + 90, 19))
    ]
    return np.array(out)


def away_from(points: Ring, ring: Ring, *, closed: bool = True) -> Ring:
    """How far points lie from a line, the nearest way."""
    ends = np.concatenate([ring, ring[:1]]) if closed else ring
    a, b = ends[:-1], ends[1:]
    run = b - a
    rel = points[:, None, :] - a[None]
    t = np.clip((rel * run).sum(axis=2) / np.maximum((run**2).sum(axis=1), 1e-12), 0, 1)
    return np.asarray(np.sqrt(((rel - t[..., None] * run) ** 2).sum(axis=2)).min(axis=1))
