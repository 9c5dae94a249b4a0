"""A scan on the desk: zoom, pan, a loupe, and everything that was clicked on it."""

from dataclasses import replace
from typing import Final

import numpy as np
from numpy.typing import NDArray
from PyQt6.QtCore import QPointF, QRectF, QSize, QSizeF, Qt, pyqtSignal
from PyQt6.QtGui import (
    QImage,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPainterPath,
    QPainterPathStroker,
    QPaintEvent,
    QPen,
    QPixmap,
    QPolygonF,
    QResizeEvent,
    QWheelEvent,
)
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.messages import layout as say
from hardkeel.paper.line_snapping import (
    LEAST_REACH_MM,
    MOST_REACH_MM,
    USUAL_PX_PER_MM,
    Settled,
    Unsettled,
    snap_to_line,
    window_px,
)
from hardkeel.ui.stages.layout.scan_copies import ScanCopies, greys
from hardkeel.ui.stages.layout.scan_marks import ScanMark
from hardkeel.ui.theme import Theme

_LOUPE_PX: Final = 92.0
_LOUPE_ZOOM: Final = 4.0
_MOST_ZOOM: Final = 12.0
_HAND_PX: Final = 8.0  # screen pixels that a hand misses by
_NUDGES: Final = {
    Qt.Key.Key_Left: (-1.0, 0.0),
    Qt.Key.Key_Right: (1.0, 0.0),
    Qt.Key.Key_Up: (0.0, -1.0),
    Qt.Key.Key_Down: (0.0, 1.0),
}
_FINE: Final = 0.25
_FARTHEST_PX: Final = 2e5
_NEAR_PX: Final = 6.0  # of the widget, from a followed line that is taken with the hand
_PULL_PX: Final = 5  # a shorter pull is a click


class ScanView(QWidget):
    """The scan.

    Signals
    -------
    clicked : float, float
        A click, in pixels of the scan, settled on the line where that is on.
    nudged : float, float
        Arrow keys, pixels.
    taken_back : (nothing)
        Backspace.
    pulled : float, float, float, float
        A followed line was taken at a point and let go at another, pixels of the scan.
    between : (nothing)
        A click as near to one line as to another; it stays where it was.
    """

    clicked = pyqtSignal(float, float)
    nudged = pyqtSignal(float, float)
    taken_back = pyqtSignal()
    pulled = pyqtSignal(float, float, float, float)
    between = pyqtSignal()

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self._copies = ScanCopies(QImage())
        self._view: tuple[object, QPixmap] | None = None
        self._seen: tuple[tuple[int, int, float], Settled | Unsettled] | None = None
        self._fitted = True
        self.px_per_mm = USUAL_PX_PER_MM
        self._marks: tuple[ScanMark, ...] = ()
        self._zoom = 0.0
        self._corner = QPointF(0, 0)
        self._pointer: QPointF | None = None
        self._panning: QPointF | None = None
        self._pulling: QPointF | None = None  # where a followed line was taken
        self.settles = True
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.CrossCursor)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(say.SCAN_NAME)

    def set_theme(self, theme: Theme) -> None:
        """Paint in another theme."""
        self._theme, self._view = theme, None
        self.update()

    def show_image(self, image: QImage, size: QSize | None = None) -> None:
        """Lay another scan on the desk; `size` is the whole scan's, where the image is a smaller copy."""
        self.show_scan(ScanCopies(image, size))

    def show_scan(self, copies: ScanCopies) -> None:
        """Lay another scan on the desk, fitted to the width."""
        self._copies, self._view, self._seen = copies, None, None
        self.fit_sheet()

    def clear(self) -> None:
        """Take the scan away."""
        self._copies = ScanCopies(QImage())
        self._view = self._seen = None
        self.update()

    def show_marks(self, marks: tuple[ScanMark, ...]) -> None:
        """Draw what was clicked."""
        self._marks = marks
        self.update()

    def greys(self) -> NDArray[np.uint8]:
        """The scan dark on light, shape (h, w); it may be a smaller copy."""
        return greys(self._copies.image)

    @property
    def share(self) -> float:
        """How many of the copy's pixels are one of the scan's."""
        return self._copies.share

    @property
    def _size(self) -> QSize:
        """Of the scan that the clicks count in; the image may be a smaller copy."""
        return self._copies.size

    @property
    def _image(self) -> QImage:
        return self._copies.image

    def bring_into_view(self, u: float, v: float) -> None:
        """Fly on to a point of the scan where it is not seen; a point off the sheet is left alone."""
        at = self.on_widget(u, v)
        inside = QRectF(QPointF(0, 0), QSizeF(self._size)).contains(QPointF(u, v))
        if inside and not self.rect().adjusted(40, 40, -40, -40).contains(at.toPoint()):
            self.look_at(u, v, self._zoom)

    @property
    def has_image(self) -> bool:
        """Whether a scan lies here."""
        return not self._image.isNull()

    def fit_sheet(self) -> None:
        """See the whole sheet."""
        self._fitted = True
        if self._image.isNull() or self.width() < 2:  # noqa: PLR2004  not laid out yet
            self._zoom = 0.0
            return
        zoom = min(self.width() / self._size.width(), self.height() / self._size.height())
        self._zoom = zoom * 0.97
        shown = QPointF(self._size.width() * self._zoom, self._size.height() * self._zoom)
        self._corner = QPointF((self.width() - shown.x()) / 2, (self.height() - shown.y()) / 2)
        self.update()

    def look_at(self, u: float, v: float, zoom: float = 1.0) -> None:
        """Bring a point of the scan to the middle."""
        self._zoom, self._fitted = zoom, False
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
        """Fit a scan that has not been zoomed yet; keep the middle of one that has."""
        if self._fitted or self._zoom <= 0 or event is None:
            self.fit_sheet()
            return
        grown = event.size() - event.oldSize()
        self._corner += QPointF(grown.width() / 2, grown.height() / 2)
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Paint desk, scan, clicks and loupe."""
        painter = QPainter(self)
        painter.fillRect(self.rect(), self._theme.colour("desk"))
        if self._image.isNull():
            return
        painter.drawPixmap(0, 0, self._view_now())
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        for mark in self._marks:
            self._paint_mark(painter, mark)
        if self._pointer is not None and self._panning is None:
            self._paint_loupe(painter, self._pointer)

    def _view_now(self) -> QPixmap:
        """The part of the scan that is seen, painted once for each place and zoom."""
        ratio = self.devicePixelRatioF()
        key = (self._zoom, self._corner.x(), self._corner.y(), self.width(), self.height(), ratio)
        if self._view is None or self._view[0] != key:
            view = QPixmap(self.size() * ratio)
            view.setDevicePixelRatio(ratio)
            view.fill(self._theme.colour("desk"))
            painter = QPainter(view)
            painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
            self._paint_scan(painter, ratio)
            painter.end()
            self._view = (key, view)
        return self._view[1]

    def _paint_scan(self, painter: QPainter, ratio: float) -> None:
        """Paint what is seen of the scan."""
        seen = QRectF(
            self.on_scan(QPointF(0, 0)), self.on_scan(QPointF(self.width(), self.height()))
        ).intersected(QRectF(QPointF(0, 0), QSizeF(self._size)))
        shown, part = self._copies.shown(seen, self._zoom * ratio)
        target = QRectF(self.on_widget(seen.x(), seen.y()), seen.size() * self._zoom)
        painter.drawImage(target, shown, part)

    def _paint_mark(self, painter: QPainter, mark: ScanMark) -> None:
        theme = self._theme
        colour = theme.colour("act" if mark.active or mark.kind in ("length", "point") else "out")
        if mark.kind not in ("length", "point", "origin") and not mark.active:
            colour = theme.colour("fluid_edge")
        spots = [self.on_widget(*point) for point in mark.points]
        if not all(abs(s.x()) < _FARTHEST_PX and abs(s.y()) < _FARTHEST_PX for s in spots):
            return  # a map that hardly holds puts it anywhere: it would be stroked for ever
        if mark.followed is not None:
            self._paint_line(painter, mark)
            return
        if mark.kind == "met":
            self._paint_met(painter, spots)
            return
        if mark.kind == "label":
            painter.setPen(QPen(theme.colour("act"), 2.0))
            painter.drawPolygon(QPolygonF(spots))
            self._paint_words(painter, spots, mark.words)
            return
        painter.setPen(QPen(colour, 1.6))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        if mark.kind == "length" and len(spots) == 2:  # noqa: PLR2004  its two ends
            painter.drawLine(spots[0], spots[1])
        if mark.kind == "outline" and len(spots) > 1:  # corner to corner, as it was clicked
            painter.drawPolyline(QPolygonF(spots))
            painter.setPen(QPen(colour, 1.2, Qt.PenStyle.DashLine))
            painter.drawLine(spots[-1], spots[0])
            painter.setPen(QPen(colour, 1.6))
        for i, spot in enumerate(spots):
            last = mark.active and i == len(spots) - 1
            radius = 5.5 if last else 4.0
            painter.drawEllipse(spot, radius, radius)
            painter.drawLine(spot + QPointF(-radius - 3, 0), spot + QPointF(radius + 3, 0))
            painter.drawLine(spot + QPointF(0, -radius - 3), spot + QPointF(0, radius + 3))
        self._paint_words(painter, spots, mark.words)

    def _paint_words(self, painter: QPainter, spots: list[QPointF], words: str) -> None:
        """Beside a mark's middle, on paper of their own."""
        if not words or not spots:
            return
        at = (spots[0] + spots[-1]) / 2 + QPointF(8, -8)
        painter.setFont(self._theme.font(13, weight=600))
        metrics = painter.fontMetrics()
        box = QRectF(
            at.x() - 3,
            at.y() - metrics.ascent(),
            metrics.horizontalAdvance(words) + 6,
            metrics.height(),
        )
        painter.fillRect(box, self._theme.colour("paper", 0.9))
        painter.drawText(at, words)

    def _paint_line(self, painter: QPainter, mark: ScanMark) -> None:
        """A line along its ink: a broad band that the ink is seen through, pulled where it is in hand."""
        theme, line = self._theme, self._polygon(mark)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        band = theme.colour("act", 0.30) if mark.active else theme.colour("fluid", 0.75)
        pen = QPen(band, 7.0 if mark.active else 4.0)
        pen.setJoinStyle(Qt.PenJoinStyle.RoundJoin)
        pen.setCapStyle(Qt.PenCapStyle.RoundCap)
        painter.setPen(pen)
        painter.drawPolyline(line)
        if mark.active:
            painter.setPen(QPen(theme.colour("act"), 1.3))
            painter.drawPolyline(line)
        if mark.active and mark.followed == "open" and line.count():
            painter.setBrush(theme.colour("paper"))
            for end in (line.first(), line.last()):
                painter.drawEllipse(end, 4.0, 4.0)
        if self._pulling is not None and mark.active and self._pointer is not None:
            painter.setPen(QPen(theme.colour("out"), 1.6, Qt.PenStyle.DashLine))
            painter.drawLine(self._pulling, self._pointer)

    def _paint_met(self, painter: QPainter, spots: list[QPointF]) -> None:
        """Where stations cross the lines: small lozenges."""
        painter.setPen(QPen(self._theme.colour("act"), 1.2))
        painter.setBrush(self._theme.colour("paper"))
        for spot in spots:
            x, y = QPointF(3.6, 0), QPointF(0, 3.6)
            painter.drawPolygon(QPolygonF([spot - x, spot - y, spot + x, spot + y]))

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
        inside = source.intersected(QRectF(QPointF(0, 0), QSizeF(self._size)))
        if not inside.isEmpty():
            shift = (inside.topLeft() - source.topLeft()) * _LOUPE_ZOOM
            share = self._image.width() / self._size.width()
            painter.drawImage(
                QRectF(target.topLeft() + shift, inside.size() * _LOUPE_ZOOM),
                self._image,
                QRectF(inside.topLeft() * share, inside.size() * share),
            )
        painter.setPen(QPen(theme.colour("act"), 1.4))
        middle = target.center()
        found = self._settled(scan) if self.settles else None
        if isinstance(found, Settled):
            middle += QPointF(found.right, found.down) * _LOUPE_ZOOM
        painter.drawLine(QPointF(target.left(), middle.y()), QPointF(target.right(), middle.y()))
        painter.drawLine(QPointF(middle.x(), target.top()), QPointF(middle.x(), target.bottom()))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(theme.colour("ink"), 1.4))
        painter.drawRect(target)

    def _settled(self, scan: QPointF) -> Settled | Unsettled:
        """Where the ink is that a click at a point of the scan means, pixels of the scan from it."""
        key = (round(2 * scan.x()), round(2 * scan.y()), self._zoom)
        if self._seen is None or self._seen[0] != key:
            self._seen = (key, self._looked_for(scan))
        return self._seen[1]

    def _looked_for(self, scan: QPointF) -> Settled | Unsettled:
        share = self.share
        per_mm = self.px_per_mm * share
        hand = _HAND_PX / max(self._zoom, 1e-6) / self.px_per_mm
        reach = min(max(LEAST_REACH_MM, hand), MOST_REACH_MM)
        around = window_px(per_mm, reach)
        x, y = scan.x() * share, scan.y() * share
        grey, box = self._copies.around(QPointF(x, y), around)
        if min(grey.shape) < 3:  # noqa: PLR2004  off the sheet
            return "nothing"
        found = snap_to_line(grey, (x - box.x(), y - box.y()), per_mm, reach)
        if isinstance(found, Settled):
            return replace(found, right=found.right / share, down=found.down / share)
        return found

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
        if not QRectF(QPointF(0, 0), QSizeF(self._size)).contains(scan):
            return
        if self._on_a_line(event.position()):
            self._pulling = event.position()
            return
        self._click(scan)

    def _click(self, scan: QPointF) -> None:
        found = self._settled(scan) if self.settles else None
        if isinstance(found, Settled):
            scan += QPointF(found.right, found.down)
        self.clicked.emit(scan.x(), scan.y())
        if found == "between":
            self.between.emit()

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Move the loupe, or the sheet."""
        if event is None:
            return
        if self._panning is not None:
            self._corner += event.position() - self._panning
            self._panning = event.position()
        self._pointer = event.position()
        on_line = self._pulling is not None or self._on_a_line(event.position())
        self.setCursor(Qt.CursorShape.OpenHandCursor if on_line else Qt.CursorShape.CrossCursor)
        self.update()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        """Let go of the sheet, or of a line."""
        self._panning = None
        taken, self._pulling = self._pulling, None
        if taken is None or event is None:
            return
        start, end = self.on_scan(taken), self.on_scan(event.position())
        if (event.position() - taken).manhattanLength() < _PULL_PX:
            self._click(end)
        else:
            found = self._settled(end) if self.settles else None
            if isinstance(found, Settled):
                end += QPointF(found.right, found.down)
            self.pulled.emit(start.x(), start.y(), end.x(), end.y())
        self.update()

    def _on_a_line(self, at: QPointF) -> bool:
        """Whether a place of the widget lies on the followed line that is in hand."""
        for mark in self._marks:
            if mark.followed is None or not mark.active:
                continue
            line = QPainterPath()
            line.addPolygon(self._polygon(mark))
            stroker = QPainterPathStroker()
            stroker.setWidth(2 * _NEAR_PX)
            if stroker.createStroke(line).contains(at):
                return True
        return False

    def _polygon(self, mark: ScanMark) -> QPolygonF:
        """A followed line as it is painted."""
        spots = [self.on_widget(*point) for point in mark.points]
        return QPolygonF([*spots, spots[0]] if mark.followed == "round" and spots else spots)

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
        least = 0.5 * min(self.width() / self._size.width(), self.height() / self._size.height())
        self._zoom, self._fitted = min(max(self._zoom * factor, least), _MOST_ZOOM), False
        self._corner = at - scan * self._zoom
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
