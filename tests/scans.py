"""Made-up scans of one or two lines, as a scanner would give them, with the truth beside."""

import io
import math
from dataclasses import dataclass
from functools import cache
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from PIL import Image

from hardkeel.demo.kettlewick import demo_fuselage
from hardkeel.demo.plan_page import PlanPage, plan_page

Paper = Literal["white", "grey", "yellowed", "uneven", "pencil", "blueprint", "jpeg", "lettering"]
PAPERS: tuple[Paper, ...] = (
    "white", "grey", "yellowed", "uneven", "pencil", "blueprint", "jpeg", "lettering",
)  # fmt: skip
MM_PER_INCH = 25.4
_SIZE_MM = 9.0
_GROUND = {"grey": 185.0, "yellowed": 215.0, "uneven": 225.0, "blueprint": 70.0}
_INK = {"pencil": 150.0, "blueprint": 205.0, "grey": 60.0}
_NOISE = {"pencil": 5.0, "grey": 4.0, "blueprint": 5.0}


@dataclass(frozen=True, slots=True)
class Scan:
    """A patch and the line in it.

    Attributes
    ----------
    grey : Array
        Shape (n, n), 0 to 255.
    way : float
        Of the line's normal, radians; its foot is `gap` mm from the middle along it.
    """

    grey: NDArray[np.uint8]
    px_per_mm: float
    way: float
    gap: float

    @property
    def click(self) -> tuple[float, float]:
        """The middle of the patch, pixels, where the hand clicked."""
        size = self.grey.shape[0] / 2
        return size, size


def scan_of(
    rng: np.random.Generator,
    dpi: int,
    width: float,
    paper: Paper,
    off: float,
    beside: float | None = None,
) -> Scan:
    """A line of `width` mm, `off` mm from the middle at a random way; another `beside` it, mm."""
    px_per_mm = dpi / MM_PER_INCH
    n = math.ceil(_SIZE_MM * px_per_mm)
    over = max(2, math.ceil(24 / px_per_mm))  # fine steps in a pixel: under 0.04 mm each
    way = float(rng.uniform(0, math.pi))
    # the hand's click is anywhere in its pixel: the middle of the patch is what is clicked
    fine = (np.arange(n * over) + 0.5) / over / px_per_mm - n / px_per_mm / 2
    x, y = fine[None, :], fine[:, None]
    away = x * math.cos(way) + y * math.sin(way) - off
    along = -x * math.sin(way) + y * math.cos(way)
    ink = _covered(away, width)
    if paper == "pencil":
        grain = rng.normal(size=ink.shape)
        ink = ink * np.clip(0.75 + 0.35 * _smooth(grain, over), 0.0, 1.2)
    if beside is not None:
        ink = np.maximum(ink, _covered(away - beside, width))
    if paper == "lettering":
        ink = np.maximum(ink, _letters(rng, away, along))
    covered = _down(ink, over)
    ground = _GROUND.get(paper, 245.0) + np.zeros_like(covered)
    if paper == "uneven":
        ramp = np.linspace(-1, 1, n)
        ground = ground + 28 * ramp[None, :] - 18 * ramp[:, None] ** 2
    grey = ground + (_INK.get(paper, 40.0) - ground) * covered
    grey = _smooth(grey, 1)  # the scanner's own softness, about half a pixel
    grey = grey + rng.normal(size=grey.shape) * _NOISE.get(paper, 2.5)
    data = np.clip(np.round(grey), 0, 255).astype(np.uint8)
    if paper == "jpeg":
        out = io.BytesIO()
        Image.fromarray(data).save(out, "JPEG", quality=int(rng.integers(45, 80)))
        data = np.array(Image.open(out))
    return Scan(data, px_per_mm, way, off)


def meeting_of(
    rng: np.random.Generator,
    dpi: int,
    width: float,
    arms: Literal["cross", "tee", "corner"],
    away: tuple[float, float],
) -> Scan:
    """Two lines that meet at a place (right, down) from the middle, mm, on white paper."""
    px_per_mm = dpi / MM_PER_INCH
    n = math.ceil(_SIZE_MM * px_per_mm)
    over = max(2, math.ceil(24 / px_per_mm))
    fine = (np.arange(n * over) + 0.5) / over / px_per_mm - n / px_per_mm / 2
    x, y = fine[None, :] - away[0], fine[:, None] - away[1]
    turn = float(rng.uniform(0, math.pi))
    u, v = x * math.cos(turn) + y * math.sin(turn), -x * math.sin(turn) + y * math.cos(turn)
    first, second = _covered(u, width), _covered(v, width)
    if arms != "cross":
        second = second * (u > 0)
    if arms == "corner":
        first = first * (v > 0)
    grey = _smooth(245.0 - 205.0 * _down(np.maximum(first, second), over), 1)
    grey = grey + rng.normal(size=grey.shape) * 2.5
    return Scan(np.clip(np.round(grey), 0, 255).astype(np.uint8), px_per_mm, turn, 0.0)


def _covered(away: NDArray[np.float64], width: float) -> NDArray[np.float64]:
    soft = 0.03  # mm: ink runs into paper
    return np.asarray(1 / (1 + np.exp(np.clip((np.abs(away) - width / 2) / (soft / 2), -50, 50))))


def _letters(
    rng: np.random.Generator, away: NDArray[np.float64], along: NDArray[np.float64]
) -> NDArray[np.float64]:
    """Strokes of letters 2.2 mm tall on the far side of the line, no nearer to it than 1.1 mm."""
    ink = np.zeros(np.broadcast(away, along).shape)
    side = rng.choice([-1.0, 1.0])
    low = rng.uniform(1.1, 1.8)
    for k in range(-3, 4):
        start = k * 1.5 + rng.uniform(-0.2, 0.2)
        lean = rng.uniform(-0.35, 0.35)
        stem = np.abs(along - start - lean * (away * side - low)) - 0.14
        inside = (away * side > low) & (away * side < low + 2.2)
        ink = np.maximum(ink, inside * _covered(np.maximum(stem, 0) + 0.0, 0.06))
        bar = np.abs(away * side - low - rng.uniform(0.2, 2.0)) - 0.12
        across = (along > start) & (along < start + 0.9)
        ink = np.maximum(ink, across * _covered(np.maximum(bar, 0), 0.06))
    return ink


def _smooth(values: NDArray[np.float64], reach: int) -> NDArray[np.float64]:
    kernel = np.array([0.25, 0.5, 0.25])
    for _ in range(reach):
        for axis in (0, 1):
            values = np.apply_along_axis(lambda row: np.convolve(row, kernel, "same"), axis, values)
    return values


def _down(values: NDArray[np.float64], times: int) -> NDArray[np.float64]:
    n = values.shape[0] // times
    return np.asarray(values.reshape(n, times, n, times).mean(axis=(1, 3)))


@cache
def page_of_the_demo(*, photo: bool = False) -> PlanPage:
    """The made-up page of the demo's fuselage, drawn once."""
    return plan_page(demo_fuselage(), "Kettlewick 1280, fuselage", photo=photo)
