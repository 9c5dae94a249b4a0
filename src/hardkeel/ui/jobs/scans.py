"""Reading scans, photos and PDF pages from disk, beside the window."""

from pathlib import Path
from typing import TYPE_CHECKING, Final

from PyQt6.QtCore import QBuffer, QByteArray, QIODevice, QSize, Qt
from PyQt6.QtGui import QImage, QImageReader, QPainter

from hardkeel.base.errors import BadInput
from hardkeel.base.late import late
from hardkeel.voice import shell as say

if TYPE_CHECKING:
    from PyQt6 import QtPdf
else:
    QtPdf = late("PyQt6.QtPdf")

SCAN_DPI: Final = 150
_LARGEST_MB: Final = 512
MOST_PIXELS: Final = 40_000_000  # 600 dpi on A4, 200 dpi on A1; more is read smaller
PHOTO_PX: Final = 1600  # the longer side: enough for a page of the diary
_PHOTO_QUALITY: Final = 85
_LEAST_PT: Final = 4.0  # a page smaller than a letter of print is no page
_POINTS_PER_INCH: Final = 72.0
PATTERN: Final = say.SCAN_FILES


def pages_of(path: Path) -> int:
    """How many pages a PDF has; 1 for an image.

    Raises
    ------
    BadInput
        When it is no PDF.
    """
    if path.suffix.lower() != ".pdf":
        return 1
    document = QtPdf.QPdfDocument(None)
    if document.load(str(path)) != QtPdf.QPdfDocument.Error.None_:
        raise BadInput(path.name, "can't be read as a PDF")
    count = document.pageCount()
    document.close()
    return count


def read_scan(path: Path, page: int = 0) -> bytes:
    """A scan, photo or PDF page as a grey PNG with its resolution in it.

    Raises
    ------
    BadInput
        When it can't be read as such.
    """
    image = _pdf_page(path, page) if path.suffix.lower() == ".pdf" else _picture(path)
    return as_png(image)


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


def as_png(image: QImage) -> bytes:
    """Grey PNG bytes of an image."""
    data = QByteArray()
    buffer = QBuffer(data)
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    image.convertToFormat(QImage.Format.Format_Grayscale8).save(buffer, "PNG")
    return bytes(data.data())


def image_from(data: bytes) -> tuple[QImage, QSize]:
    """An image from its bytes, smaller where it is very large, and its own size; null where they are none."""
    held = QByteArray(data)
    buffer = QBuffer(held)
    buffer.open(QIODevice.OpenModeFlag.ReadOnly)
    reader = QImageReader(buffer)
    size = reader.size()
    image = _reduced(reader)
    return image, size if size.isValid() else image.size()


def _picture(path: Path) -> QImage:
    reader = QImageReader(str(path))
    reader.setAutoTransform(True)  # a photo knows which way it was held
    image = _reduced(reader)
    if image.isNull():
        size = reader.size()
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


def _pdf_page(path: Path, page: int) -> QImage:
    document = QtPdf.QPdfDocument(None)
    if document.load(str(path)) != QtPdf.QPdfDocument.Error.None_:
        raise BadInput(path.name, "can't be read as a PDF")
    if not 0 <= page < document.pageCount():
        raise BadInput(path.name, f"has no page {page + 1}")
    points = document.pagePointSize(page)
    scale = SCAN_DPI / _POINTS_PER_INCH
    if min(points.width(), points.height()) < _LEAST_PT:
        raise BadInput(
            path.name,
            f"page {page + 1} is {points.width():.3g} by {points.height():.3g} points: nothing is on it",
        )
    pixels = points.width() * points.height() * scale**2
    if pixels > MOST_PIXELS:
        scale *= (MOST_PIXELS / pixels) ** 0.5
    size = QSize(round(points.width() * scale), round(points.height() * scale))
    image = document.render(page, size)
    document.close()
    if image.isNull():
        raise BadInput(path.name, f"page {page + 1} can't be made a picture")
    paper = QImage(image.size(), QImage.Format.Format_RGB32)
    paper.fill(0xFFFFFFFF)
    painter = QPainter(paper)
    painter.drawImage(0, 0, image)
    painter.end()
    dots = round(scale * _POINTS_PER_INCH / 0.0254)
    paper.setDotsPerMeterX(dots)
    paper.setDotsPerMeterY(dots)
    return paper
