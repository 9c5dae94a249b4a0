"""A sheet of an invented cabin model as builders have them: scanned, photographed, creased in two, blueprinted, as a PDF."""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from itertools import pairwise
from pathlib import Path
from typing import Final

import numpy as np
from numpy.typing import NDArray
from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QColor, QImage, QPainter, QPen, QPolygonF
from reportlab.pdfgen.canvas import Canvas

from tests.inked import superellipse

Points = NDArray[np.float64]
STATIONS: Final = (
    0.0,
    42.0,
    84.0,
    112.0,
    168.0,
    214.0,
    262.0,
    312.0,
    380.0,
)  # the last one the post
SIZE: Final = (440.0, 326.0)
CROSSES: Final = (  # register crosses, mm of the plan
    (-20.0, 52.0), (110.0, 58.0), (190.0, 50.0), (-20.0, -60.0), (140.0, -50.0), (408.0, -112.0),
    (-22.0, -236.0), (190.0, -140.0), (408.0, -236.0), (408.0, 22.0),
)  # fmt: skip
_CENTRE: Final = -88.0  # of the view from above, under the datum line
_CORNER: Final = (-30.0, 66.0)  # the sheet's upper left corner, mm of the plan
_FOOT, _ROOF = (72.0, 26.0), (112.0, 48.0)  # of the windscreen


def top(x: Points) -> Points:
    """Height of the top line: cowl, windscreen, roof, and a curve down to the post."""
    x = np.asarray(x, dtype=float)
    cowl = 22.0 + x / _FOOT[0] * (_FOOT[1] - 22.0)
    screen = _FOOT[1] + (x - _FOOT[0]) / (_ROOF[0] - _FOOT[0]) * (_ROOF[1] - _FOOT[1])
    t = np.clip((x - 168.0) / (380.0 - 168.0), 0.0, 1.0)
    back = 48.0 - 34.0 * t**1.6
    return np.asarray(np.where(x < _FOOT[0], cowl, np.where(x < _ROOF[0], screen, back)))


def bottom(x: Points) -> Points:
    """Height of the bottom line."""
    t = np.asarray(x, dtype=float) / 380.0
    return -22.0 - 14.0 * np.sin(math.pi * np.clip(t * 1.25, 0, 1)) + 27.0 * t**2


def half_width(x: Points) -> Points:
    """Half the fuselage's breadth."""
    t = np.asarray(x, dtype=float) / 380.0
    return 15.0 + 11.0 * np.sin(math.pi * np.clip(t * 1.1 + 0.12, 0, 1)) - 8.5 * t


def power(number: int) -> float:
    """How boxy a former is: those of the cabin more than the tail's."""
    return (3.0, 3.4, 4.5, 5.0, 4.0, 3.0, 2.5, 2.2)[number]


def outline(number: int, *, at: tuple[float, float] = (0.0, 0.0)) -> Points:
    """A former's outline about a place, mm, y up."""
    x = np.array(STATIONS[number])
    high = float(top(x) - bottom(x)) / 2
    ring = superellipse(0.0, 0.0, float(half_width(x)), high, power(number))
    return np.asarray(ring * (1, -1) + np.array(at))


def place_of(number: int) -> tuple[float, float]:
    """Where a former's section is drawn, mm of the plan."""
    return 20.0 + 90.0 * (number % 4), -150.0 - 62.0 * (number // 4)


@dataclass(frozen=True)
class Sheet:
    """A drawn sheet and the truth about it.

    Attributes
    ----------
    to_pixel : callable
        Plan mm, shape (n, 2), y up, to pixels of the picture.
    """

    to_pixel: Callable[[Points], Points]
    shape: tuple[int, int]
    dpi: int
    light_lines: bool = False
    shade: float = 0.0
    paper: tuple[int, int] = (228, 50)

    def pixel(self, x: float, y: float) -> tuple[float, float]:
        """Where a point of the plan lies."""
        u, v = self.to_pixel(np.array([[x, y]]))[0]
        return float(u), float(v)

    def draw(self) -> QImage:
        """The picture."""
        wide, tall = self.shape
        image = QImage(wide, tall, QImage.Format.Format_Grayscale8)
        ground, ink = self.paper
        image.fill(QColor(ground, ground, ground))
        painter = QPainter(image)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        for points, width in lines():
            pen = QPen(QColor(ink, ink, ink), width * self.dpi / 25.4)
            pen.setCapStyle(Qt.PenCapStyle.FlatCap)
            pen.setJoinStyle(Qt.PenJoinStyle.MiterJoin)
            painter.setPen(pen)
            spots = self.to_pixel(_dense(points))
            painter.drawPolyline(QPolygonF([QPointF(u, v) for u, v in spots.tolist()]))
        painter.end()
        grey = np.frombuffer(
            bytes(image.constBits().asarray(image.sizeInBytes())),
            np.uint8,
        ).reshape(tall, image.bytesPerLine())[:, :wide]
        rng = np.random.default_rng(3)
        noise = rng.normal(size=(tall, wide // 4 + 1)).astype(np.float32) * 3
        rough = grey.astype(np.float32) + np.repeat(noise, 4, axis=1)[:, :wide]
        if self.shade:
            rough -= self.shade * np.linspace(0, 1, wide, dtype=np.float32)[None, :]
        data = np.clip(np.round(rough), 0, 255).astype(np.uint8)
        made = QImage(data.tobytes(), wide, tall, wide, QImage.Format.Format_Grayscale8).copy()
        made.setDotsPerMeterX(round(self.dpi / 0.0254))
        made.setDotsPerMeterY(round(self.dpi / 0.0254))
        return made

    def save(self, path: Path) -> Path:
        """Write the picture."""
        assert self.draw().save(str(path))
        return path


def lines() -> list[tuple[Points, float]]:
    """Everything drawn, plan mm with y up, and how broad."""
    x = np.linspace(0.0, 380.0, 761)
    corners = np.unique(np.concatenate([x, [_FOOT[0], _ROOF[0]]]))
    out: list[tuple[Points, float]] = [
        (np.column_stack([corners, top(corners)]), 0.4),
        (np.column_stack([x, bottom(x)]), 0.4),
        (np.column_stack([x, _CENTRE + half_width(x)]), 0.4),
        (np.column_stack([x, _CENTRE - half_width(x)]), 0.4),
        (np.array([(-16.0, 0.0), (398.0, 0.0)]), 0.18),
        (np.array([(-16.0, _CENTRE), (398.0, _CENTRE)]), 0.18),
        (np.array([(0.0, -60.0), (0.0, 40.0)]), 0.18),
        (np.array([(200.0, 58.0), (400.0, 58.0)]), 0.18),  # a scale bar, and one upright
        (np.array([(200.0, 54.0), (200.0, 62.0)]), 0.25),
        (np.array([(400.0, 54.0), (400.0, 62.0)]), 0.25),
        (np.array([(402.0, -100.0), (402.0, 0.0)]), 0.18),
        (np.array([(398.0, -100.0), (406.0, -100.0)]), 0.25),
        (np.array([(398.0, 0.0), (406.0, 0.0)]), 0.25),
    ]
    for s in STATIONS:
        t, b, w = (float(f(np.array(s))) for f in (top, bottom, half_width))
        out.append((np.array([(s, b), (s, t)]), 0.25))
        out.append((np.array([(s, _CENTRE - w), (s, _CENTRE + w)]), 0.25))
        out += _letters(s + 3.0, t + 4.0)
    for x0, y0 in CROSSES:
        out.append((np.array([(x0 - 4, y0), (x0 + 4, y0)]), 0.2))
        out.append((np.array([(x0, y0 - 4), (x0, y0 + 4)]), 0.2))
    for k in range(8):
        y, z = place_of(k)
        ring = outline(k, at=(y, z))
        out.append((np.concatenate([ring, ring[:2]]), 0.4))
        high = float(np.ptp(ring[:, 1])) / 2
        out.append((np.array([(y, z - high - 4), (y, z + high + 4)]), 0.18))
        out.append((np.array([(y - 30, z), (y + 30, z)]), 0.18))
        out += _letters(y + 4, z + 3)
    return out


def _letters(x: float, y: float) -> list[tuple[Points, float]]:
    out = []
    for k in range(2):
        left = x + 2.2 * k
        out.append((np.array([(left, y), (left, y + 2.4)]), 0.3))
        out.append((np.array([(left, y + 2.4), (left + 1.3, y + 2.4)]), 0.3))
        out.append((np.array([(left, y + 1.2), (left + 1.0, y + 1.2)]), 0.3))
    return out


def _dense(points: Points) -> Points:
    out = [points[:1]]
    for a, b in pairwise(points):
        count = max(1, math.ceil(math.dist(a, b) / 4.0))
        out.append(a + (b - a) * (np.arange(1, count + 1) / count)[:, None])
    return np.concatenate(out)


def scan(dpi: int = 300, long: float = 1.012, wide: float = 1.004, askew: float = 0.7) -> Sheet:
    """From a copy shop's scanner: a little too long and wide, not quite straight, yellowed."""
    scale = dpi / 25.4
    turn = math.radians(askew)
    turned = np.array([[math.cos(turn), -math.sin(turn)], [math.sin(turn), math.cos(turn)]])

    def to_pixel(points: Points) -> Points:
        flat = (np.asarray(points) - _CORNER) * (long, -wide)
        return np.asarray((flat @ turned.T + (6.0, 2.0)) * scale)

    shape = (round((SIZE[0] * long + 8) * scale), round((SIZE[1] * wide + 10) * scale))
    return Sheet(to_pixel, shape, dpi)


def blueprint(dpi: int = 300) -> Sheet:
    """Light lines on dark."""
    return replace(scan(dpi, 1.006, 0.995, -0.4), light_lines=True, paper=(62, 200))


def photograph(wide: int = 4600, k1: float = 0.06, shade: float = 70.0) -> Sheet:
    """With a telephone held a little askew over the sheet; its lens bends straight lines, a lamp stands on the left."""
    tall = round(wide * 0.75)
    focal = 0.85 * wide
    a, b = math.radians(5.0), math.radians(-4.0)
    lean = np.array([[1, 0, 0], [0, math.cos(a), -math.sin(a)], [0, math.sin(a), math.cos(a)]])
    roll = np.array([[math.cos(b), 0, math.sin(b)], [0, 1, 0], [-math.sin(b), 0, math.cos(b)]])
    away = focal * SIZE[0] * 1.12 / wide

    def to_pixel(points: Points) -> Points:
        flat = (np.asarray(points) - _CORNER) * (1.0, -1.0) - np.array(SIZE) / 2
        placed = np.column_stack([flat, np.zeros(len(flat))]) @ (lean @ roll).T + (0, 0, away)
        x, y = placed[:, 0] / placed[:, 2], placed[:, 1] / placed[:, 2]
        bent = 1 + k1 * (x**2 + y**2)
        return np.column_stack([wide / 2 + focal * x * bent, tall / 2 + focal * y * bent])

    return Sheet(to_pixel, (wide, tall), round(focal / away * 25.4), shade=shade)


def half_of(sheet: Sheet, low: float, high: float, *, askew: float, dpi: int = 300) -> Sheet:
    """One of two pieces of a sheet that was cut across, scanned by itself: from one station to another, mm."""
    scale = dpi / 25.4
    turn = math.radians(askew)
    turned = np.array([[math.cos(turn), -math.sin(turn)], [math.sin(turn), math.cos(turn)]])

    def to_pixel(points: Points) -> Points:
        flat = (np.asarray(points) - (low, _CORNER[1])) * (1.004, -1.002)
        return np.asarray((flat @ turned.T + (4.0, 6.0)) * scale)

    return replace(
        sheet,
        to_pixel=to_pixel,
        shape=(round((high - low + 10) * scale), round((SIZE[1] + 12) * scale)),
        dpi=dpi,
    )


def of_pdf(scale: float = 0.97, dpi: int = 400) -> Sheet:
    """As `vector_pdf` is read: its lines, printed at a wrong scale."""
    per_mm = dpi / 25.4 * scale

    def to_pixel(points: Points) -> Points:
        return np.asarray((np.asarray(points) - _CORNER) * (per_mm, -per_mm))

    return Sheet(to_pixel, (round(SIZE[0] * per_mm), round(SIZE[1] * per_mm)), dpi)


def vector_pdf(path: Path, scale: float = 0.97) -> Path:
    """The sheet as a PDF of lines, printed at a scale."""
    mm = 72 / 25.4 * scale
    canvas = Canvas(str(path), pagesize=(SIZE[0] * mm, SIZE[1] * mm))
    for points, width in lines():
        canvas.setLineWidth(width * mm)
        flat = (points - (_CORNER[0], _CORNER[1] - SIZE[1])) * mm
        drawn = canvas.beginPath()
        drawn.moveTo(*flat[0])
        for x, y in flat[1:]:
            drawn.lineTo(float(x), float(y))
        canvas.drawPath(drawn)
    canvas.showPage()
    canvas.save()
    return path
