"""A scan on the desk: zoom, pan, a loupe, and everything that was clicked on it."""

import math
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray
from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QImage,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QResizeEvent,
    QWheelEvent,
    qRgb,
)
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.paper.picking import ink_in
from hardkeel.ui.theme import Theme

_LOUPE_PX: Final = 92.0
_LOUPE_ZOOM: Final = 4.0
_MOST_ZOOM: Final = 12.0
_REACH: Final = 4
_LOOKS: Final = 8
_CENTRED: Final = 0.3  # pixels; nearer than this the middle is found
_NUDGES: Final = {
    Qt.Key.Key_Left: (-1.0, 0.0),
    Qt.Key.Key_Right: (1.0, 0.0),
    Qt.Key.Key_Up: (0.0, -1.0),
    Qt.Key.Key_Down: (0.0, 1.0),
}
_FINE: Final = 0.25
_STRENGTHEN: Final = 2.6
_PAPER: Final = 246


@dataclass(frozen=True, slots=True)
class SheetMark:
    """Points clicked on the scan, pixels; `kind` decides how they are drawn."""

    kind: str
    points: tuple[tuple[float, float], ...]
    words: str = ""
    active: bool = False


class PlanSheet(QWidget):
    """The scan.

    Signals
    -------
    clicked : float, float
        A click, in pixels of the scan, settled on the line where that is on.
    nudged : float, float
        Arrow keys, pixels.
    taken_back : (nothing)
        Backspace.
    """

    clicked = pyqtSignal(float, float)
    nudged = pyqtSignal(float, float)
    taken_back = pyqtSignal()

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self._image = QImage()
        self._small = QImage()
        self._marks: tuple[SheetMark, ...] = ()
        self._zoom = 0.0
        self._corner = QPointF(0, 0)
        self._pointer: QPointF | None = None
        self._panning: QPointF | None = None
        self.settles = True
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.CrossCursor)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName("Scan of the plan: click points, arrow keys nudge the last one")

    def set_theme(self, theme: Theme) -> None:
        """Paint in another theme."""
        self._theme = theme
        self.update()

    def show_image(self, image: QImage) -> None:
        """Lay another scan on the desk, fitted to the width."""
        self._image = image.convertToFormat(QImage.Format.Format_Grayscale8)
        self._small = QImage()
        self.fit_sheet()

    def show_marks(self, marks: tuple[SheetMark, ...]) -> None:
        """Draw what was clicked."""
        self._marks = marks
        self.update()

    @property
    def has_image(self) -> bool:
        """Whether a scan lies here."""
        return not self._image.isNull()

    def fit_sheet(self) -> None:
        """See the whole sheet."""
        if self._image.isNull() or self.width() < 2:  # noqa: PLR2004  not laid out yet
            self._zoom = 0.0
            return
        zoom = min(self.width() / self._image.width(), self.height() / self._image.height())
        self._zoom = zoom * 0.97
        shown = QPointF(self._image.width() * self._zoom, self._image.height() * self._zoom)
        self._corner = QPointF((self.width() - shown.x()) / 2, (self.height() - shown.y()) / 2)
        self._small = QImage()
        self.update()

    def look_at(self, u: float, v: float, zoom: float = 1.0) -> None:
        """Bring a point of the scan to the middle."""
        self._zoom = zoom
        self._corner = QPointF(self.width() / 2 - u * zoom, self.height() / 2 - v * zoom)
        self.update()

    def on_widget(self, u: float, v: float) -> QPointF:
        """Where a point of the scan is painted."""
        return self._corner + QPointF(u, v) * self._zoom

    def on_scan(self, at: QPointF) -> QPointF:
        """The point of the scan under a pixel of the widget; a pixel's middle counts as half."""
        return (at - self._corner) / max(self._zoom, 1e-9)

    def sizeHint(self) -> QSize:
        """As large as there is room for."""
        return QSize(760, 560)

    def minimumSizeHint(self) -> QSize:
        """Small enough for 150 % text in a 1280 window."""
        return QSize(360, 280)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Fit a scan that has not been zoomed yet."""
        self.fit_sheet()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Paint desk, scan, clicks and loupe."""
        painter = QPainter(self)
        painter.fillRect(self.rect(), self._theme.colour("desk"))
        if self._image.isNull():
            return
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        self._paint_scan(painter)
        for mark in self._marks:
            self._paint_mark(painter, mark)
        if self._pointer is not None and self._panning is None:
            self._paint_loupe(painter, self._pointer)

    def _paint_scan(self, painter: QPainter) -> None:
        if self._zoom < 1:
            # a shrunk copy is kept: thin lines would vanish in quick scaling, and it is slow
            if self._small.isNull():
                size = QSize(
                    max(1, round(self._image.width() * self._zoom)),
                    max(1, round(self._image.height() * self._zoom)),
                )
                self._small = self._image.scaled(
                    size,
                    Qt.AspectRatioMode.IgnoreAspectRatio,
                    Qt.TransformationMode.SmoothTransformation,
                )
                self._small = _strengthened(self._small)
            painter.drawImage(self._corner, self._small)
            return
        seen = QRectF(
            self.on_scan(QPointF(0, 0)), self.on_scan(QPointF(self.width(), self.height()))
        )
        seen = seen.intersected(QRectF(self._image.rect()))
        target = QRectF(self.on_widget(seen.x(), seen.y()), seen.size() * self._zoom)
        painter.drawImage(target, self._image, seen)

    def _paint_mark(self, painter: QPainter, mark: SheetMark) -> None:
        theme = self._theme
        colour = theme.colour("act" if mark.active or mark.kind in ("length", "point") else "out")
        if mark.kind not in ("length", "point", "origin") and not mark.active:
            colour = theme.colour("fluid_edge")
        spots = [self.on_widget(*point) for point in mark.points]
        painter.setPen(QPen(colour, 1.6))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        if mark.kind == "length" and len(spots) == 2:  # noqa: PLR2004  its two ends
            painter.drawLine(spots[0], spots[1])
        for i, spot in enumerate(spots):
            last = mark.active and i == len(spots) - 1
            radius = 5.5 if last else 4.0
            painter.drawEllipse(spot, radius, radius)
            painter.drawLine(spot + QPointF(-radius - 3, 0), spot + QPointF(radius + 3, 0))
            painter.drawLine(spot + QPointF(0, -radius - 3), spot + QPointF(0, radius + 3))
        if mark.words and spots:
            at = (spots[0] + spots[-1]) / 2 + QPointF(8, -8)
            painter.setFont(theme.font(13, weight=600))
            metrics = painter.fontMetrics()
            box = QRectF(
                at.x() - 3,
                at.y() - metrics.ascent(),
                metrics.horizontalAdvance(mark.words) + 6,
                metrics.height(),
            )
            painter.fillRect(box, theme.colour("paper", 0.9))
            painter.drawText(at, mark.words)

    def _paint_loupe(self, painter: QPainter, at: QPointF) -> None:
        theme = self._theme
        scan = self.on_scan(at)
        reach = _LOUPE_PX / _LOUPE_ZOOM
        source = QRectF(scan.x() - reach, scan.y() - reach, 2 * reach, 2 * reach)
        right = at.x() < self.width() / 2
        x = self.width() - 2 * _LOUPE_PX - 14 if right else 14.0
        target = QRectF(x, 14.0, 2 * _LOUPE_PX, 2 * _LOUPE_PX)
        painter.fillRect(target, theme.colour("desk"))
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform, False)
        inside = source.intersected(QRectF(self._image.rect()))
        if not inside.isEmpty():
            shift = (inside.topLeft() - source.topLeft()) * _LOUPE_ZOOM
            painter.drawImage(
                QRectF(target.topLeft() + shift, inside.size() * _LOUPE_ZOOM), self._image, inside
            )
        painter.setPen(QPen(theme.colour("act"), 1.4))
        middle = target.center()
        if self.settles:
            du, dv = self._settled(scan)
            middle += QPointF(du, dv) * _LOUPE_ZOOM
        painter.drawLine(QPointF(target.left(), middle.y()), QPointF(target.right(), middle.y()))
        painter.drawLine(QPointF(middle.x(), target.top()), QPointF(middle.x(), target.bottom()))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(theme.colour("ink"), 1.4))
        painter.drawRect(target)

    def _settled(self, scan: QPointF) -> tuple[float, float]:
        """How far the ink near a point lies from it, pixels: across a line, or to a crossing's middle.

        At a crossing the look is taken anew from where the ink was found: the first one sees more of
        one arm than of the other.
        """
        x, y = int(scan.x()), int(scan.y())
        best: QPointF | None = None
        least = float("inf")
        for _ in range(_LOOKS):
            ink = ink_in(self._patch(x, y)) if self._inside(x, y) else None
            if ink is None:
                break
            off = QPointF(x + 0.5 + ink.right, y + 0.5 + ink.down) - scan
            if ink.normal is not None and best is None:
                gap = off.x() * ink.normal[0] + off.y() * ink.normal[1]
                return gap * ink.normal[0], gap * ink.normal[1]
            if abs(ink.right) + abs(ink.down) < least:
                best, least = off, abs(ink.right) + abs(ink.down)
            move = [
                int(math.copysign(1, d)) if abs(d) > _CENTRED else 0 for d in (ink.right, ink.down)
            ]
            if move == [0, 0]:
                break
            x, y = x + move[0], y + move[1]
        return (best.x(), best.y()) if best is not None else (0.0, 0.0)

    def _patch(self, x: int, y: int) -> NDArray[np.uint8]:
        size = 2 * _REACH + 1
        patch = self._image.copy(x - _REACH, y - _REACH, size, size)
        bits = patch.constBits()
        rows = np.frombuffer(bytes(bits.asarray(patch.sizeInBytes())), dtype=np.uint8)
        return rows.reshape(size, patch.bytesPerLine())[:, :size]

    def _inside(self, x: int, y: int) -> bool:
        inner = self._image.rect().adjusted(_REACH, _REACH, -_REACH, -_REACH)
        return bool(inner.contains(x, y))

    # -- hands -----------------------------------------------------------------------------------

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Click a point; the other buttons pan."""
        if event is None or self._image.isNull():
            return
        self.setFocus()
        if event.button() != Qt.MouseButton.LeftButton:
            self._panning = event.position()
            return
        scan = self.on_scan(event.position())
        if not QRectF(self._image.rect()).contains(scan):
            return
        if self.settles:
            du, dv = self._settled(scan)
            # a line clicked anywhere across it counts where its ink is darkest
            if abs(du) + abs(dv) > 0:
                scan += QPointF(du, dv)
        self.clicked.emit(scan.x(), scan.y())

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Move the loupe, or the sheet."""
        if event is None:
            return
        if self._panning is not None:
            self._corner += event.position() - self._panning
            self._panning = event.position()
        self._pointer = event.position()
        self.update()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        """Let go of the sheet."""
        self._panning = None

    def leaveEvent(self, event: object) -> None:
        """Put the loupe away."""
        self._pointer = None
        self.update()

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        """Zoom about the pointer."""
        if event is not None and not self._image.isNull():
            self.zoom_by(1.25 ** (event.angleDelta().y() / 120), event.position())

    def zoom_by(self, factor: float, about: QPointF | None = None) -> None:
        """Zoom about a point of the widget, its middle where none is given."""
        at = about if about is not None else QPointF(self.width() / 2, self.height() / 2)
        scan = self.on_scan(at)
        least = 0.5 * min(self.width() / self._image.width(), self.height() / self._image.height())
        self._zoom = min(max(self._zoom * factor, least), _MOST_ZOOM)
        self._corner = at - scan * self._zoom
        self._small = QImage()
        self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Arrows nudge (Ctrl: a quarter pixel), Backspace takes back, plus and minus zoom."""
        if event is None:
            return
        if event.key() in _NUDGES:
            du, dv = _NUDGES[Qt.Key(event.key())]
            step = _FINE if event.modifiers() & Qt.KeyboardModifier.ControlModifier else 1.0
            self.nudged.emit(du * step, dv * step)
        elif event.key() == Qt.Key.Key_Backspace:
            self.taken_back.emit()
        elif event.text() in ("+", "-"):
            self.zoom_by(1.25 if event.text() == "+" else 0.8)
        elif event.text() == "0":
            self.fit_sheet()
        else:
            super().keyPressEvent(event)


def _strengthened(image: QImage) -> QImage:
    """Darken what is not paper: a pencil line shrunk to a third of a pixel would hardly be seen."""
    dark = image.convertToFormat(QImage.Format.Format_Grayscale8)
    if not dark.reinterpretAsFormat(QImage.Format.Format_Indexed8):
        return image
    greys = [max(0, round(_PAPER - (_PAPER - grey) * _STRENGTHEN)) for grey in range(256)]
    dark.setColorTable([qRgb(grey, grey, grey) for grey in (min(255, g) for g in greys)])
    return dark
