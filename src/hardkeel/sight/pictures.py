"""Photographs as bytes and as arrays: read the way up they were held, told apart from what is none, kept without where and by what.

The one file that knows the image library.
"""

import io
import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any, Final

import numpy as np
from numpy.typing import NDArray

from hardkeel.base.errors import BadInput
from hardkeel.base.late import late
from hardkeel.geometry.rotation import Array

if TYPE_CHECKING:
    from PIL import Image, ImageDraw, ImageFilter, ImageFont, ImageOps
else:
    Image, ImageDraw, ImageFont = late("PIL.Image"), late("PIL.ImageDraw"), late("PIL.ImageFont")
    ImageFilter, ImageOps = late("PIL.ImageFilter"), late("PIL.ImageOps")

__all__ = ["Image", "ImageDraw", "ImageFont"]  # for the one other place that draws

Pixels = NDArray[np.uint8]
MOST_PIXELS: Final = 60_000_000  # more than any phone takes
LEAST_PX: Final = 64  # smaller than this nothing is to be seen
_MOST_BYTES: Final = 80_000_000
_QUALITY: Final = 92
_FILM_DIAGONAL: Final = math.hypot(36.0, 24.0)  # mm: what "35 mm equivalent" is counted against
_FILM_LONG: Final = 36.0  # mm
_EXIF: Final = 0x8769
_FOCAL, _FOCAL_35 = 0x920A, 0xA405
_PLANE_X, _PLANE_UNIT = 0xA20E, 0xA210
_PER_MM: Final = {2: 1 / 25.4, 3: 1 / 10.0, 4: 1.0}  # of the sensor's resolution unit: inch, cm, mm


@dataclass(frozen=True, slots=True)
class Picture:
    """A photo as it goes into a build.

    Attributes
    ----------
    jpeg : bytes
        Turned upright, whole, and with nothing in it but the picture.
    size : (int, int)
        Width and height, pixels.
    focal : float, optional
        Pixels, where the camera told it.
    """

    jpeg: bytes
    size: tuple[int, int]
    focal: float | None


def read_picture(data: bytes, name: str) -> Picture:
    """A JPEG or PNG as a camera wrote it.

    Place, time, maker and serial number in it are left behind.

    Raises
    ------
    BadInput
        When it is no picture, is cut off, or is too large or too small to be one.
    """
    plain, focal, _ = _opened(data, name)
    return Picture(_as_jpeg(plain), (plain.width, plain.height), focal)


@dataclass(frozen=True, slots=True)
class Shades:
    """A photo to look for codes in.

    Attributes
    ----------
    grey : ndarray of uint8
        Shape (h, w), upright.
    focal : float, optional
        Pixels: what the camera wrote as for 35 mm film, of its longer side to the film's.
    """

    grey: NDArray[np.uint8]
    focal: float | None

    @property
    def size(self) -> tuple[int, int]:
        """Width and height, pixels."""
        high, wide = self.grey.shape
        return wide, high


def read_shades(data: bytes, name: str) -> Shades:
    """A JPEG or PNG as a camera wrote it, in grey.

    Raises
    ------
    BadInput
        When it is no picture, is cut off, or is too large or too small to be one.
    """
    plain, _, film = _opened(data, name, grey=True)
    grey = np.asarray(plain if plain.mode == "L" else plain.convert("L"))
    return Shades(grey, max(plain.size) * film / _FILM_LONG if film is not None else None)


@dataclass(frozen=True, slots=True)
class Colours:
    """A photo to tell wood from its ground in: as `Shades`, in red, green and blue, shape (h, w, 3)."""

    pixels: Pixels
    focal: float | None

    @property
    def size(self) -> tuple[int, int]:
        """Width and height, pixels."""
        high, wide = self.pixels.shape[:2]
        return wide, high


def read_colours(data: bytes, name: str) -> Colours:
    """A JPEG or PNG as a camera or a scanner wrote it.

    Raises
    ------
    BadInput
        When it is no picture, is cut off, or is too large or too small to be one.
    """
    plain, _, film = _opened(data, name)
    return Colours(
        np.asarray(plain), max(plain.size) * film / _FILM_LONG if film is not None else None
    )


def _opened(
    data: bytes, name: str, *, grey: bool = False
) -> "tuple[Image.Image, float | None, float | None]":
    """Upright in three colours, or `grey` where the file can be read so (a third of the memory); its focal length in pixels, and as for 35 mm film, where the camera wrote them."""
    if len(data) > _MOST_BYTES:
        raise BadInput(name, f"{len(data) / 1e6:.0f} MB are more than any photo of a model needs")
    try:
        image = Image.open(io.BytesIO(data), formats=("JPEG", "PNG", "MPO"))
    except Exception as fault:
        if type(fault).__name__.startswith("DecompressionBomb"):
            raise BadInput(name, "has far more pixels than any camera") from fault
        raise BadInput(name, "is no photo that can be read: JPEG or PNG is wanted") from fault
    wide, high = image.size
    if min(wide, high) < LEAST_PX:
        raise BadInput(name, f"{wide} × {high} pixels are too few to see anything in")
    if wide * high > MOST_PIXELS:
        raise BadInput(name, f"{wide} × {high} pixels are too many: save it smaller")
    try:
        focal, film = _focal_px(image), _film_of(image)
        if grey:
            image.draft("L", image.size)
        image.load()
        upright = ImageOps.exif_transpose(image)
        plain = upright if grey and upright.mode == "L" else _plain(upright)
    except Exception as fault:
        raise BadInput(name, "is cut off or spoilt: it can't be read to its end") from fault
    return plain, focal, film


def _plain(image: "Image.Image") -> "Image.Image":
    """Three colours of eight bits, whatever it was: grey of sixteen bits, printer's inks, a palette, clear parts."""
    if image.mode.startswith("I") or image.mode == "F":
        grey = np.asarray(image, dtype=float)
        top = 65535.0 if grey.max() > 255 else 255.0  # noqa: PLR2004  of one byte
        return Image.fromarray((grey / top * 255).clip(0, 255).astype(np.uint8)).convert("RGB")
    if image.mode in ("RGBA", "LA", "P", "PA"):
        clear = image.convert("RGBA")
        paper = Image.new("RGBA", clear.size, (255, 255, 255, 255))
        return Image.alpha_composite(paper, clear).convert("RGB")
    return image.convert("RGB")


def _focal_px(image: "Image.Image") -> float | None:
    """Focal length in pixels of the whole picture, by what the camera wrote."""
    exif = image.getexif()
    more = exif.get_ifd(_EXIF)
    film = _number(more.get(_FOCAL_35))
    if film:
        return film / _FILM_DIAGONAL * math.hypot(*image.size)
    focal, per_unit = _number(more.get(_FOCAL)), _number(more.get(_PLANE_X))
    per_mm = _PER_MM.get(int(_number(more.get(_PLANE_UNIT)) or 2))
    if focal and per_unit and per_mm:
        return focal * per_unit * per_mm
    return None


def _film_of(image: "Image.Image") -> float | None:
    """The focal length as for 35 mm film, mm."""
    return _number(image.getexif().get_ifd(_EXIF).get(_FOCAL_35))


def _number(value: Any) -> float | None:
    try:
        number = float(value)
    except (TypeError, ValueError, ZeroDivisionError):
        return None
    return number if math.isfinite(number) and number > 0 else None


def _as_jpeg(image: "Image.Image") -> bytes:
    out = io.BytesIO()
    bare = Image.fromarray(np.asarray(image))  # a new one: no comment, profile or note goes along
    bare.save(out, "JPEG", quality=_QUALITY, subsampling=0)
    return out.getvalue()


def pixels_of(data: bytes) -> Pixels:
    """A kept picture's pixels, shape (h, w, 3).

    Raises
    ------
    BadInput
        When it can't be read.
    """
    try:
        return np.asarray(Image.open(io.BytesIO(data)).convert("RGB"))
    except Exception as fault:
        raise BadInput("photo", "can't be read") from fault


def shrunk(data: bytes, longer: int) -> bytes:
    """A kept picture with no more than so many pixels on its longer side; the same where it has none more."""
    image = Image.open(io.BytesIO(data))
    if max(image.size) <= longer:
        return data
    share = longer / max(image.size)
    size = (max(1, round(image.width * share)), max(1, round(image.height * share)))
    return _as_jpeg(image.convert("RGB").resize(size, Image.Resampling.LANCZOS))


def jpeg_of(pixels: Pixels, focal_35: float | None = None) -> bytes:
    """Pixels, shape (h, w, 3), as a camera would write them: with its focal length, if that is given."""
    out = io.BytesIO()
    image = Image.fromarray(pixels)
    exif = Image.Exif()
    if focal_35 is not None:
        exif.get_ifd(_EXIF)[_FOCAL_35] = round(focal_35)
    image.save(out, "JPEG", quality=_QUALITY, subsampling=0, exif=exif)
    return out.getvalue()


Colour = tuple[int, int, int]
_OVER: Final = 2  # drawn so many times larger, and shrunk


def painted(
    shapes: Sequence[tuple[Array, Colour]], size: tuple[int, int], ground: Colour, blur: float
) -> NDArray[np.float32]:
    """Filled shapes one over the other, as seen by a lens that is a little soft.

    Parameters
    ----------
    shapes : sequence of (Array, colour)
        Corners, shape (k, 2), pixels from the upper left corner of the picture.
    blur : float
        Pixels, one sigma.

    Returns
    -------
    ndarray of float32
        Shape (h, w, 3), 0 to 255.
    """
    wide, high = size
    image = Image.new("RGB", (wide * _OVER, high * _OVER), ground)
    draw = ImageDraw.Draw(image)
    for corners, colour in shapes:
        # the library counts from the middle of the first pixel
        draw.polygon([(x, y) for x, y in (corners * _OVER - 0.5).tolist()], fill=colour)
    soft = image.reduce(_OVER).filter(ImageFilter.GaussianBlur(blur))
    return np.array(soft, dtype=np.float32)
