"""Photos as cameras write them: turned, stripped, or refused in a sentence."""

import io
import struct
import zlib
from typing import Any

import numpy as np
import pytest
from PIL import Image

from hardkeel.base.errors import BadInput
from hardkeel.sight.pictures import jpeg_of, pixels_of, read_picture, shrunk


def encoded(image: Image.Image, kind: str = "JPEG", **more: Any) -> bytes:
    out = io.BytesIO()
    image.save(out, kind, **more)
    return out.getvalue()


def with_red_left(size: tuple[int, int] = (400, 200), mode: str = "RGB") -> Image.Image:
    image = Image.new("RGB", size, "white")
    image.paste((210, 20, 20), (0, 0, size[0] // 4, size[1]))
    return image.convert(mode)


@pytest.mark.parametrize(
    ("orientation", "size", "red"),
    [(1, (400, 200), (20, 100)), (3, (400, 200), (380, 100)), (6, (200, 400), (100, 20)), (8, (200, 400), (100, 380))],
)  # fmt: skip
def test_a_photo_is_turned_as_it_was_held(
    orientation: int, size: tuple[int, int], red: tuple[int, int]
) -> None:
    exif = Image.Exif()
    exif[0x0112] = orientation
    picture = read_picture(encoded(with_red_left(), exif=exif), "p.jpg")
    assert picture.size == size
    pixels = pixels_of(picture.jpeg)
    assert pixels.shape == (size[1], size[0], 3)
    r, g, _ = pixels[red[1], red[0]]
    assert r > 150 > g


def test_nothing_of_where_by_what_and_when_is_kept() -> None:
    exif = Image.Exif()
    exif[0x010F], exif[0x0110], exif[0x0132] = "a maker", "a model", "2026:10:03 19:00:00"
    exif.get_ifd(0x8769)[0xA431] = "serial 1234"
    exif.get_ifd(0x8825)[1] = "N"
    picture = read_picture(encoded(with_red_left(), exif=exif, comment=b"my shed"), "p.jpg")
    made = Image.open(io.BytesIO(picture.jpeg))
    assert dict(made.getexif()) == {}
    for told in (b"a maker", b"a model", b"serial", b"my shed", b"2026"):
        assert told not in picture.jpeg


def test_the_focal_length_is_that_of_the_whole_picture() -> None:
    size = (400, 300)
    exif = Image.Exif()
    exif.get_ifd(0x8769)[0xA405] = 26
    told = read_picture(encoded(with_red_left(size), exif=exif), "p.jpg")
    # 43.27 mm is the diagonal of 35 mm film, 500 pixels that of the picture
    assert told.focal == pytest.approx(26 / 43.2666 * 500, rel=1e-4)
    plain = Image.Exif()
    plain.get_ifd(0x8769)[0x920A] = 4.2
    plain.get_ifd(0x8769)[0xA20E] = 100.0
    plain.get_ifd(0x8769)[0xA210] = 4
    assert read_picture(encoded(with_red_left(size), exif=plain), "p.jpg").focal == pytest.approx(
        420
    )
    assert read_picture(encoded(with_red_left(size)), "p.jpg").focal is None


@pytest.mark.parametrize("mode", ["CMYK", "L", "P", "RGBA"])
def test_other_colours_are_read_as_what_they_are(mode: str) -> None:
    kind = "JPEG" if mode in ("CMYK", "L") else "PNG"
    pixels = pixels_of(read_picture(encoded(with_red_left(mode=mode), kind), "p").jpeg)
    assert pixels.shape == (200, 400, 3)
    assert pixels[100, 350].min() > 240
    left = pixels[100, 20].astype(int)
    assert left[0] - left[1] > 100 if mode != "L" else abs(left[0] - left[1]) < 5


def test_sixteen_bits_become_eight() -> None:
    grey = np.linspace(0, 65535, 200 * 100).reshape(100, 200).astype(np.uint16)
    pixels = pixels_of(read_picture(encoded(Image.fromarray(grey), "PNG"), "p").jpeg)
    assert abs(int(pixels[99, 199, 0]) - 255) < 4
    assert abs(int(pixels[50, 0, 0]) - 127) < 6


def png_of(wide: int, high: int) -> bytes:
    """The head of a PNG that says it is so large, and little behind it."""

    def chunk(name: bytes, data: bytes) -> bytes:
        return (
            struct.pack(">I", len(data)) + name + data + struct.pack(">I", zlib.crc32(name + data))
        )

    head = struct.pack(">IIBBBBB", wide, high, 8, 2, 0, 0, 0)
    return (
        b"\x89PNG\r\n\x1a\n"
        + chunk(b"IHDR", head)
        + chunk(b"IDAT", zlib.compress(b"\0" * 100))
        + chunk(b"IEND", b"")
    )


@pytest.mark.parametrize(
    ("data", "said"),
    [
        (b"", "is no photo that can be read"),
        (b"GIF89a" + b"\0" * 50, "is no photo that can be read"),
        (b"no picture at all", "is no photo that can be read"),
        (encoded(with_red_left())[:900], "is cut off or spoilt"),
        (encoded(with_red_left(), "PNG")[:300], "is cut off or spoilt"),
        (png_of(60_000, 60_000), "far more pixels than any camera"),
        (png_of(9000, 9000), "9000 × 9000 pixels are too many"),
        (png_of(0, 0), "p.jpg"),
        (encoded(Image.new("RGB", (20, 20))), "20 × 20 pixels are too few"),
    ],
)
def test_what_is_no_photo_is_refused_in_one_sentence(data: bytes, said: str) -> None:
    with pytest.raises(BadInput) as told:
        read_picture(data, "p.jpg")
    assert said in str(told.value)
    assert str(told.value).startswith("p.jpg")
    assert "\n" not in str(told.value)


def test_a_photo_is_kept_smaller_on_request_and_never_larger() -> None:
    data = read_picture(encoded(with_red_left((400, 200))), "p.jpg").jpeg
    assert pixels_of(shrunk(data, 100)).shape == (50, 100, 3)
    assert shrunk(data, 400) is data


def test_what_the_stand_in_writes_is_read_with_its_focal_length() -> None:
    pixels = np.full((300, 400, 3), 120, dtype=np.uint8)
    picture = read_picture(jpeg_of(pixels, 28.0), "p.jpg")
    assert picture.focal == pytest.approx(28 / 43.2666 * 500, rel=1e-4)
    assert read_picture(jpeg_of(pixels), "p.jpg").focal is None
