"""A PDF on a printer, at true size: rendered page by page, so that no dialog fits it to the page."""

from typing import Final

from PyQt6.QtCore import QBuffer, QByteArray, QMarginsF, QRectF, QSize, QSizeF, Qt
from PyQt6.QtGui import QImage, QPageLayout, QPageSize, QPainter
from PyQt6.QtPdf import QPdfDocument
from PyQt6.QtPrintSupport import QPrintDialog, QPrinter, QPrinterInfo
from PyQt6.QtWidgets import QWidget

_MOST_DPI: Final = 600
_POINTS: Final = 72.0


def printer_names() -> list[str]:
    """The printers that are set up here."""
    return list(QPrinterInfo.availablePrinterNames())


def asked(printer: QPrinter, parent: QWidget) -> int:
    """Let the builder say how many and where; the dialog's answer."""
    return QPrintDialog(printer, parent).exec()


def printer_for(name: str) -> QPrinter:
    """A printer by its name, or the usual one; whole sheets, at no more than 600 dpi."""
    printer = QPrinter(QPrinter.PrinterMode.HighResolution)
    if name:
        printer.setPrinterName(name)
    if printer.resolution() > _MOST_DPI:
        printer.setResolution(_MOST_DPI)
    return printer


def _opened(pdf: bytes) -> tuple[QPdfDocument, QBuffer]:
    """The pages of a PDF, with what they are read from, which must live as long."""
    held = QBuffer()
    held.setData(QByteArray(pdf))
    held.open(QBuffer.OpenModeFlag.ReadOnly)
    document = QPdfDocument(None)
    document.load(held)
    return document, held


def picture_of(pdf: bytes, tall: int) -> QImage:
    """The first page of a PDF as it will be printed, on white, so many pixels high."""
    document, _held = _opened(pdf)
    points = document.pagePointSize(0)
    size = QSize(max(1, round(tall * points.width() / points.height())), max(1, tall))
    page = QImage(size, QImage.Format.Format_RGB32)
    page.fill(Qt.GlobalColor.white)
    with QPainter(page) as painter:
        painter.drawImage(0, 0, document.render(0, size))
    return page


def send(pdf: bytes, printer: QPrinter) -> int:
    """Print all pages of a PDF at true size; how many."""
    document, _held = _opened(pdf)
    painter = QPainter()
    for number in range(document.pageCount()):
        points = document.pagePointSize(number)
        size = QPageSize(QSizeF(points), QPageSize.Unit.Point)
        layout = QPageLayout(size, QPageLayout.Orientation.Portrait, QMarginsF())
        layout.setMode(QPageLayout.Mode.FullPageMode)
        printer.setPageLayout(layout)
        if number == 0:
            painter.begin(printer)
        else:
            printer.newPage()
        dots = printer.resolution() / _POINTS
        wide, tall = points.width() * dots, points.height() * dots
        image = document.render(number, QSize(round(wide), round(tall)))
        painter.drawImage(QRectF(0, 0, wide, tall), image)
    painter.end()
    return document.pageCount()
