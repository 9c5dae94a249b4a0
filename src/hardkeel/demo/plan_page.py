"""A made-up plan page of the demo's fuselage, drawn by code, with flaws that are known exactly.

It is what a builder gets who has a sheet scanned at the copy shop: printed a little too long and a
little too flat, laid on the glass askew.  The same page serves as photograph for tests.
"""

import io
import math
from dataclasses import dataclass
from importlib import resources
from typing import Final

import numpy as np

from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.model import Fuselage
from hardkeel.geometry.rotation import Array
from hardkeel.sight.pictures import Image, ImageDraw, ImageFont

DPI: Final = 150
LONG: Final = 1.012  # printed this much too long
FLAT: Final = 0.994  # and this much too flat
ASKEW_DEG: Final = 0.4
_OVERDRAWN: Final = 2  # drawn larger and shrunk, so that lines are soft as in a scan
_INK: Final = 45
_PAPER: Final = 244
_MARGIN_MM: Final = 45.0
_PLAN_DROP_MM: Final = 150.0  # the view from above lies this far under the datum line


@dataclass(frozen=True, slots=True)
class PlanPage:
    """The page.

    Attributes
    ----------
    png : bytes
        Grey, 150 dpi.
    to_pixel : Array
        Shape (3, 3): true plan mm (x aft, y up, from the datum) to pixels.
    centre_y : float
        Where the centre line of the view from above lies, plan mm.
    crosses : tuple of (x, y)
        Register crosses, plan mm; their places are printed beside them.
    """

    png: bytes
    to_pixel: Array
    centre_y: float
    crosses: tuple[tuple[float, float], ...]

    def pixel(self, x: float, y: float) -> tuple[float, float]:
        """Where a point of the plan lies in the scan."""
        u, v, w = self.to_pixel @ np.array([x, y, 1.0])
        return float(u / w), float(v / w)


def plan_page(fuselage: Fuselage, title: str, *, photo: bool = False) -> PlanPage:
    """Draw the page of a fuselage; `photo` leans the camera instead of stretching the print."""
    stations = [stop for _, stop in fuselage.stations]
    first, last = stations[0].station, stations[-1].station
    tallest = max(stop.top for stop in stations)
    widest = max(stop.half_width for stop in stations)
    centre = min(stop.bottom for stop in stations) - _PLAN_DROP_MM + 60.0
    left, top = first - _MARGIN_MM, tallest + _MARGIN_MM
    size = (last - first + 2 * _MARGIN_MM, top - centre + widest + _MARGIN_MM)
    crosses = tuple(
        (round(x / 50) * 50.0, round(y / 10) * 10.0)
        for x in (first + 50, (first + last) / 2, last - 50)
        for y in (tallest + 25, centre - widest - 20)
    )
    drawn = _draw(fuselage, title, (left, top), size, centre, crosses)
    fine = DPI * _OVERDRAWN / 25.4
    to_drawing = np.array([[fine, 0.0, -left * fine], [0.0, -fine, top * fine], [0.0, 0.0, 1.0]])
    flaw = _photo_flaw(size) if photo else _print_flaw()
    to_pixel, shape = _framed(flaw @ np.diag([0.5, 0.5, 1.0]), to_drawing, drawn.size)
    back = np.linalg.inv(to_pixel @ np.linalg.inv(to_drawing))
    back /= back[2, 2]
    made = drawn.transform(
        shape,
        Image.Transform.PERSPECTIVE,
        tuple(back.ravel()[:8]),
        Image.Resampling.BICUBIC,
        fillcolor=_PAPER,
    )
    out = io.BytesIO()
    made.quantize(16).save(out, "PNG", dpi=(DPI, DPI), optimize=True)
    return PlanPage(out.getvalue(), to_pixel, centre, crosses)


def _print_flaw() -> Array:
    turn = math.radians(ASKEW_DEG)
    turned = np.array([[math.cos(turn), -math.sin(turn)], [math.sin(turn), math.cos(turn)]])
    flaw = np.eye(3)
    flaw[:2, :2] = turned @ np.diag([LONG, FLAT])
    return flaw


def _photo_flaw(size: tuple[float, float]) -> Array:
    """A camera that leans: the far end of the sheet about a tenth smaller."""
    pixel = DPI / 25.4
    lean = np.eye(3)
    lean[2, 0] = 0.10 / (size[0] * pixel)
    lean[2, 1] = -0.06 / (size[1] * pixel)
    return lean


def _framed(flaw: Array, to_drawing: Array, size: tuple[int, int]) -> tuple[Array, tuple[int, int]]:
    """The map shifted so that the whole sheet lies in the scan, and the scan's size."""
    width, height = size
    corners = flaw @ np.array([[0, width, width, 0], [0, 0, height, height], [1, 1, 1, 1]])
    spots = corners[:2] / corners[2]
    low = spots.min(axis=1)
    shift = np.eye(3)
    shift[:2, 2] = -low + 4
    high = spots.max(axis=1) - low + 8
    return shift @ flaw @ to_drawing, (math.ceil(high[0]), math.ceil(high[1]))


def _draw(
    fuselage: Fuselage,
    title: str,
    corner: tuple[float, float],
    size: tuple[float, float],
    centre: float,
    crosses: tuple[tuple[float, float], ...],
) -> "Image.Image":
    fine = DPI * _OVERDRAWN / 25.4
    image = Image.new("L", (round(size[0] * fine), round(size[1] * fine)), _PAPER)
    pen = ImageDraw.Draw(image)
    text = _font(3.4 * fine)

    def at(x: float, y: float) -> tuple[float, float]:
        return (x - corner[0]) * fine, (corner[1] - y) * fine

    def line(points: list[tuple[float, float]], width_mm: float = 0.35) -> None:
        pen.line([at(x, y) for x, y in points], _INK, max(1, round(width_mm * fine)), joint="curve")

    def words(x: float, y: float, told: str, font: "ImageFont.FreeTypeFont" = text) -> None:
        pen.text(at(x, y), told, fill=_INK, font=font, anchor="mm")

    loft = loft_of(fuselage)
    first, last = float(loft.stations[0]), float(loft.stations[-1])
    along = np.linspace(first, last, 400)
    for curve, sign, base in (
        (loft.top, 1, 0.0),
        (loft.bottom, 1, 0.0),
        (loft.half_width, 1, centre),
        (loft.half_width, -1, centre),
    ):
        heights = curve.value(along)
        line([(float(x), base + sign * float(h)) for x, h in zip(along, heights, strict=True)])
    line([(first - 20, 0.0), (last + 20, 0.0)], 0.18)
    line([(first - 20, centre), (last + 20, centre)], 0.18)
    line([(0.0, -8.0), (0.0, 8.0)], 0.18)
    for name, stop in fuselage.stations:
        x = stop.station
        line([(x, stop.bottom), (x, stop.top)], 0.25)
        line([(x, centre - stop.half_width), (x, centre + stop.half_width)], 0.25)
        words(x + 5, stop.top + 5, name.replace("tail_post", "tail post"))
    for x, y in crosses:
        line([(x - 4, y), (x + 4, y)], 0.2)
        line([(x, y - 4), (x, y + 4)], 0.2)
        words(x + 16, y - 4, f"{x:.0f} , {y:.0f}")
    words((first + last) / 2 + 90, corner[1] - 12, title, _font(6.5 * fine))
    words(first + 90, corner[1] - 14, "from port and from above, mm from the datum")
    return image


def _font(pixels: float) -> "ImageFont.FreeTypeFont":
    face = (resources.files("hardkeel.resources") / "fonts" / "Barlow-Regular.ttf").read_bytes()
    return ImageFont.truetype(io.BytesIO(face), round(pixels))
