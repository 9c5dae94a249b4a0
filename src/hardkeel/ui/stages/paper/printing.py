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


class Sending:
    """Pages on their way to a printer at true size, one at a time, so that the window lives and it can be left off."""

    def __init__(self, pdf: bytes, printer: QPrinter) -> None:
        self._document, self._held = _opened(pdf)
        self._printer, self._painter = printer, QPainter()
        self.done, self.count = 0, self._document.pageCount()
        self.left_off = False

    def leave_off(self) -> None:
        """Send no more; taken up before the next page."""
        self.left_off = True

    def step(self) -> bool:
        """Send the next page; whether the printer took it."""
        points = self._document.pagePointSize(self.done)
        size = QPageSize(QSizeF(points), QPageSize.Unit.Point)
        layout = QPageLayout(size, QPageLayout.Orientation.Portrait, QMarginsF())
        layout.setMode(QPageLayout.Mode.FullPageMode)
        self._printer.setPageLayout(layout)
        taken = self._printer.newPage() if self.done else self._painter.begin(self._printer)
        if not taken:
            return False
        dots = self._printer.resolution() / _POINTS
        wide, tall = points.width() * dots, points.height() * dots
        image = self._document.render(self.done, QSize(round(wide), round(tall)))
        self._painter.drawImage(QRectF(0, 0, wide, tall), image)
        self.done += 1
        if self.done == self.count:
            self._painter.end()
        return True

    def stop(self) -> None:
        """Leave the rest off."""
        self._printer.abort()
        self._painter.end()
