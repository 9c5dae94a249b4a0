"""Reading scans, photos and PDF pages from disk, beside the window."""

import signal
import subprocess
import sys
import time
from collections.abc import Callable
from pathlib import Path
from typing import Final

from PyQt6.QtCore import QBuffer, QByteArray, QIODevice, QSize, Qt
from PyQt6.QtGui import QImage, QImageReader, QPainter

from hardkeel.base.errors import BadInput
from hardkeel.messages import shell as say

Step = Callable[[int, int], object]

MOST_DPI: Final = 400  # of a PDF's page: at 150 its hairlines were 0.4 mm out
_LARGEST_MB: Final = 1100  # as Qt counts, four bytes a pixel: 280 million, an A0 sheet at 400 dpi
MOST_PIXELS: Final = 40_000_000  # 600 dpi on A4, 200 dpi on A1; more is read smaller
PHOTO_PX: Final = 1600  # the longer side: enough for a page of the diary
_PHOTO_QUALITY: Final = 85
_LARGE_PX: Final = 3_000_000  # a larger scan is kept as JPEG
_SCAN_QUALITY: Final = 88
PDF_SECONDS: Final = 30  # of reckoning; a plan of a hundred thousand lines takes three
_PDF_PROGRAM: Final = "hardkeel.ui.jobs.pdf_child"
PDF_UNUSABLE: Final = 2  # what it ends with where the file can't be used
_LOOK_S: Final = 0.05
PATTERN: Final = say.SCAN_FILES


def _never(_done: int, _total: int) -> None:
    """For work that nobody stops."""


def pages_of(path: Path, step: Step = _never) -> int:
    """How many pages a PDF has; 1 for an image.

    Parameters
    ----------
    step : callable
        Called now and then; raises where the work is to be left off.

    Raises
    ------
    BadInput
        When it is no PDF.
    GivenUp
        Where it was left off.
    """
    return int(_of_pdf(path, "count", step)) if path.suffix.lower() == ".pdf" else 1


def read_scan(path: Path, page: int = 0, step: Step = _never, seconds: int = PDF_SECONDS) -> bytes:
    """A scan, photo or PDF page as it is kept: grey, its resolution in it.

    Parameters
    ----------
    step : callable
        Called now and then; raises where the work is to be left off.
    seconds : int
        How long a PDF may be reckoned with.

    Raises
    ------
    BadInput
        When it can't be read as such.
    GivenUp
        Where it was left off.
    """
    if path.suffix.lower() == ".pdf":
        return _of_pdf(path, str(page), step, seconds)
    return as_kept(_picture(path))


def _of_pdf(path: Path, wanted: str, step: Step, seconds: int = PDF_SECONDS) -> bytes:
    """What a process of its own makes of a PDF: whatever is in the file, it ends, and takes nothing of ours with it."""
    command = [sys.executable, "-m", _PDF_PROGRAM, str(path), wanted, str(max(1, seconds))]
    with subprocess.Popen(  # noqa: S603  our own program
        command, stdin=subprocess.DEVNULL, stdout=subprocess.PIPE, stderr=subprocess.PIPE
    ) as child:
        try:
            # twice as long on the clock: the machine has other things to do as well
            answer = _answer_of(child, step, time.monotonic() + 2 * seconds)
        finally:
            child.kill()
    if answer is None or child.returncode in (-signal.SIGXCPU, -signal.SIGKILL):
        raise BadInput(path.name, say.too_long_to_draw(seconds))
    made, told = answer
    if child.returncode == 0 and made:
        return made
    said = told.decode(errors="replace") if child.returncode == PDF_UNUSABLE else ""
    raise BadInput(path.name, said or say.NO_PICTURE)


def _answer_of(
    child: subprocess.Popen[bytes], step: Step, until: float
) -> tuple[bytes, bytes] | None:
    """What a process writes, and what it says is wrong; ``None`` where it does not end in time."""
    while time.monotonic() < until:
        step(0, 0)
        try:
            return child.communicate(timeout=_LOOK_S)
        except subprocess.TimeoutExpired:
            continue
    return None


def read_photo(path: Path) -> bytes:
    """A photo as a JPEG of no more than `PHOTO_PX`, the way up that it was held, and with nothing of where and by what.

    Raises
    ------
    BadInput
        When it can't be read as such.
    """
    image = _picture(path)
    if max(image.width(), image.height()) > PHOTO_PX:
        image = image.scaled(
            PHOTO_PX,
            PHOTO_PX,
            Qt.AspectRatioMode.KeepAspectRatio,
            Qt.TransformationMode.SmoothTransformation,
        )
    plain = QImage(image.size(), QImage.Format.Format_RGB32)  # a new one: no text goes along
    plain.fill(Qt.GlobalColor.white)
    painter = QPainter(plain)
    painter.drawImage(0, 0, image)
    painter.end()
    data = QByteArray()
    buffer = QBuffer(data)
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    plain.save(buffer, "JPEG", _PHOTO_QUALITY)
    return bytes(data.data())


def as_kept(image: QImage) -> bytes:
    """A scan's grey image as it is kept: a small one as PNG, a large one as JPEG, a tenth of a byte a pixel.

    Of 20 million pixels JPEG takes 2.3 MB and a third of a second, PNG 4.3 MB and two seconds; lines are found in both
    alike.
    """
    large = image.width() * image.height() > _LARGE_PX
    data = QByteArray()
    buffer = QBuffer(data)
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    grey = image.convertToFormat(QImage.Format.Format_Grayscale8)
    grey.save(buffer, "JPEG" if large else "PNG", _SCAN_QUALITY if large else -1)
    return bytes(data.data())


def suffix_of(data: bytes) -> str:
    """What a kept scan's name ends with."""
    return ".jpg" if data.startswith(b"\xff\xd8") else ".png"


def image_from(data: bytes) -> tuple[QImage, QSize]:
    """An image from its bytes, smaller where it is very large, and its own size; null where they are none."""
    held = QByteArray(data)
    buffer = QBuffer(held)
    buffer.open(QIODevice.OpenModeFlag.ReadOnly)
    reader = QImageReader(buffer)
    size = reader.size()
    image = _reduced(reader)
    return image, size if size.isValid() else image.size()


def size_of(data: bytes) -> tuple[int, int] | None:
    """Width and height of a kept image, pixels; ``None`` where it is none."""
    held = QByteArray(data)
    buffer = QBuffer(held)
    buffer.open(QIODevice.OpenModeFlag.ReadOnly)
    size = QImageReader(buffer).size()
    return (size.width(), size.height()) if size.isValid() and not size.isEmpty() else None


def _picture(path: Path) -> QImage:
    reader = QImageReader(str(path))
    reader.setAutoTransform(True)  # a photo knows which way it was held
    size = reader.size()  # asked now: a reader that failed does not know it any more
    image = _reduced(reader)
    if image.isNull():
        if size.width() * size.height() > MOST_PIXELS:
            says = (
                f"{size.width()} × {size.height()} pixels are too many: scan it in grey or coarser"
            )
            raise BadInput(path.name, says)
        raise BadInput(path.name, f"can't be read: {reader.errorString().lower()}")
    return image


def _reduced(reader: QImageReader) -> QImage:
    """What a reader holds, read in no more than `MOST_PIXELS`; its resolution goes with it."""
    QImageReader.setAllocationLimit(_LARGEST_MB)
    size = reader.size()
    if not size.isValid() or size.width() * size.height() <= MOST_PIXELS:
        return reader.read()
    share = (MOST_PIXELS / (size.width() * size.height())) ** 0.5
    small = QSize(max(1, int(size.width() * share)), max(1, int(size.height() * share)))
    reader.setScaledSize(small)
    image = reader.read()
    if not image.isNull():
        image.setDotsPerMeterX(round(image.dotsPerMeterX() * small.width() / size.width()))
        image.setDotsPerMeterY(round(image.dotsPerMeterY() * small.height() / size.height()))
    return image
