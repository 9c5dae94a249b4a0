"""A page of a PDF made a picture, in a process of its own: what a strange file does there ends with it.

``python -m hardkeel.ui.jobs.pdf_child FILE PAGE SECONDS`` writes a grey PNG, or with ``count`` for the page
how many there are.  It ends with 2 and one clause on stderr where the file can't be used.
"""

import os
import resource
import sys
from pathlib import Path
from typing import Final

os.environ["QT_QPA_PLATFORM"] = "offscreen"

from PyQt6.QtCore import QSize
from PyQt6.QtGui import QGuiApplication, QImage, QPainter
from PyQt6.QtPdf import QPdfDocument

from hardkeel.base.errors import BadInput
from hardkeel.ui.jobs.scans import MOST_DPI, MOST_PIXELS, PDF_UNUSABLE, as_kept

COUNT: Final = "count"
_MOST_BYTES: Final = 2 * 1024**3  # a page of forty million pixels needs a quarter of it
_LEAST_PT: Final = 4.0  # a page smaller than a letter of print is no page
_POINTS_PER_INCH: Final = 72.0


def main(arguments: list[str]) -> int:
    """Do what the arguments ask for; the value is the exit code."""
    path, wanted, seconds = Path(arguments[0]), arguments[1], int(arguments[2])
    # not the address space: the PDF library reserves far more of it than it ever fills
    resource.setrlimit(resource.RLIMIT_DATA, (_MOST_BYTES, _MOST_BYTES))
    resource.setrlimit(resource.RLIMIT_CPU, (seconds, seconds + 1))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    application = QGuiApplication([])
    try:
        document = _opened(path)
        if wanted == COUNT:
            sys.stdout.write(str(document.pageCount()))
        else:
            sys.stdout.buffer.write(as_kept(_page(document, path.name, int(wanted))))
    except BadInput as fault:
        sys.stderr.write(fault.fault)
        return PDF_UNUSABLE
    finally:
        application.quit()
    return 0


def _opened(path: Path) -> QPdfDocument:
    document = QPdfDocument(None)
    if document.load(str(path)) != QPdfDocument.Error.None_:
        raise BadInput(path.name, "can't be read as a PDF")
    return document


def _page(document: QPdfDocument, name: str, page: int) -> QImage:
    if not 0 <= page < document.pageCount():
        raise BadInput(name, f"has no page {page + 1}")
    points = document.pagePointSize(page)
    scale = MOST_DPI / _POINTS_PER_INCH
    if min(points.width(), points.height()) < _LEAST_PT:
        raise BadInput(
            name,
            f"page {page + 1} is {points.width():.3g} by {points.height():.3g} points: nothing is on it",
        )
    pixels = points.width() * points.height() * scale**2
    if pixels > MOST_PIXELS:
        scale *= (MOST_PIXELS / pixels) ** 0.5
    size = QSize(round(points.width() * scale), round(points.height() * scale))
    image = document.render(page, size)
    if image.isNull():
        raise BadInput(name, f"page {page + 1} can't be made a picture")
    paper = QImage(image.size(), QImage.Format.Format_RGB32)
    paper.fill(0xFFFFFFFF)
    painter = QPainter(paper)
    painter.drawImage(0, 0, image)
    painter.end()
    dots = round(scale * _POINTS_PER_INCH / 0.0254)
    paper.setDotsPerMeterX(dots)
    paper.setDotsPerMeterY(dots)
    return paper


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
