"""A scan dark on light, its smaller copies and how light its paper is: all that showing it needs, made beside the window."""

import math
from typing import Final

import numpy as np
from numpy.typing import NDArray
from PyQt6.QtCore import QPointF, QRect, QRectF, QSize, QSizeF
from PyQt6.QtGui import QImage, QPainter

from hardkeel.paper.seeing import halved, lines_are_light, paper_of, strengthened

_MAP_FROM_PX: Final = 768  # the longer side of the copy that the paper's map is made from
_LEAST_LEVEL_PX: Final = 64  # a smaller copy of the scan is not worth keeping


class ScanCopies:
    """One scan, ready to be looked at.

    Parameters
    ----------
    image : QImage
        The scan, or a smaller copy of it.
    size : QSize, optional
        Of the whole scan: clicks count in its pixels.
    """

    def __init__(self, image: QImage, size: QSize | None = None) -> None:
        self.dots_per_metre = image.dotsPerMeterX()
        self.image = image.convertToFormat(QImage.Format.Format_Grayscale8)
        if not self.image.isNull() and lines_are_light(greys(self.image)):
            self.image.invertPixels()  # a blueprint is read dark on light as well
        self.size = size if size is not None and size.isValid() else image.size()
        self._levels = [self.image]  # and copies half as large each
        self._paper = self._paper_map()
        if not self.image.isNull():
            self._level(99)  # all of them now: nobody waits for one later

    @property
    def share(self) -> float:
        """How many of the image's pixels are one of the scan's."""
        return self.image.width() / max(1, self.size.width())

    def shown(self, part: QRectF, zoom: float) -> tuple[QImage, QRectF]:
        """What is seen of a part of the scan: from the copy that is just fine enough, for thin lines vanish where much is left out.

        Parameters
        ----------
        part : QRectF
            In pixels of the scan.
        zoom : float
            Screen pixels for one of the scan's.

        Returns
        -------
        tuple of QImage and QRectF
            A picture, and where in it the part lies.
        """
        wanted = zoom / self.share  # screen pixels for a pixel of our image
        level = self._level(max(0, math.floor(math.log2(1 / wanted)))) if wanted < 1 else 0
        image = self._levels[level]
        share = image.width() / self.size.width()  # of a pixel of the scan
        source = QRectF(part.topLeft() * share, part.size() * share)
        box = source.toAlignedRect().intersected(image.rect())
        piece = image.copy(box)
        across = self._paper.width() / image.width()
        along = self._paper.height() / image.height()
        below = QRectF(
            box.x() * across, box.y() * along, box.width() * across, box.height() * along
        )
        paper = _piece_of(self._paper, below, piece.size())
        halvings = level + max(0, round(math.log2(1 / self.share)))
        made = grey_image(strengthened(greys(piece), greys(paper), halvings))
        return made, source.translated(-QPointF(box.topLeft()))

    def around(self, point: QPointF, reach: int) -> tuple[NDArray[np.uint8], QRect]:
        """The pixels of the image around a point of it, and which they are."""
        box = QRect(int(point.x()) - reach, int(point.y()) - reach, 2 * reach + 1, 2 * reach + 1)
        box = box.intersected(self.image.rect())
        if box.isEmpty():
            return np.zeros((0, 0), dtype=np.uint8), box
        return greys(self.image.copy(box)), box

    def _paper_map(self) -> QImage:
        """How light the paper is over the sheet, from a small copy of it."""
        if self.image.isNull():
            return QImage()
        longer = max(self.image.width(), self.image.height())
        level = self._level(max(0, math.floor(math.log2(longer / _MAP_FROM_PX))))
        return grey_image(paper_of(greys(self._levels[level])))

    def _level(self, wanted: int) -> int:
        """The number of the copy that is 2**wanted times smaller, or the smallest worth keeping."""
        while len(self._levels) <= wanted:
            last = self._levels[-1]
            if min(last.width(), last.height()) < 2 * _LEAST_LEVEL_PX:
                break
            self._levels.append(grey_image(halved(greys(last))))
        return min(wanted, len(self._levels) - 1)


def greys(image: QImage) -> NDArray[np.uint8]:
    """The pixels of a grey image, shape (h, w)."""
    if image.isNull():
        return np.zeros((0, 0), dtype=np.uint8)
    bits = image.constBits()
    data = np.frombuffer(bytes(bits.asarray(image.sizeInBytes())), dtype=np.uint8)
    return data.reshape(image.height(), image.bytesPerLine())[:, : image.width()]


def grey_image(grey: NDArray[np.uint8]) -> QImage:
    """The image of greys, shape (h, w)."""
    tall, wide = grey.shape
    return QImage(grey.tobytes(), wide, tall, wide, QImage.Format.Format_Grayscale8).copy()


def _piece_of(image: QImage, part: QRectF, size: QSize) -> QImage:
    """A part of an image, drawn out smoothly to a size."""
    piece = QImage(size, QImage.Format.Format_Grayscale8)
    painter = QPainter(piece)
    painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
    painter.drawImage(QRectF(QPointF(0, 0), QSizeF(size)), image, part)
    painter.end()
    return piece
