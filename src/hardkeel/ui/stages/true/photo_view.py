"""The photo as a working surface: clicks with a loupe, snapped and nudged, the airframe over it as hairlines."""

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import (
    QColor,
    QImage,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPainterPath,
    QPaintEvent,
    QPen,
    QPixmap,
    QPolygonF,
    QResizeEvent,
    QWheelEvent,
)
from PyQt6.QtWidgets import QWidget

from hardkeel.messages import sight as say
from hardkeel.picture.photo import OverPhoto, Pixel
from hardkeel.sight.snapping import Snap
from hardkeel.ui.theme import Theme

_RESTS_MS: Final = 25
_HAND_PX: Final = 5.5  # pixels of the screen
_LEAST_REACH, _MOST_REACH = 4.0, 11.0
_LOUPE_PX: Final = 84.0  # its radius
_LOUPE_TIMES: Final = 6.0  # a pixel of the photo in it
_PICK_PX: Final = 7.0
_NUDGE: Final = 1.0
_FINE: Final = 0.1
_COARSE: Final = 20.0
_MOST: Final = 40.0  # times nearer
_STEP: Final = 1.25
_OFF_TIMES: Final = 10.0  # a residual is drawn so many times
_VERDICT_COLOURS: Final = {"true": "true", "out": "out", "unsure": "act", None: "act"}
_KEYS: Final = {
    Qt.Key.Key_Left: (-1.0, 0.0),
    Qt.Key.Key_Right: (1.0, 0.0),
    Qt.Key.Key_Up: (0.0, -1.0),
    Qt.Key.Key_Down: (0.0, 1.0),
}


@dataclass(frozen=True, slots=True)
class Tick:
    """A click that was taken.

    Attributes
    ----------
    off : (float, float), optional
        Value less prediction, pixels.
    bad : bool
        It is set aside.
    """

    id: str
    name: str
    at: Pixel
    off: Pixel | None = None
    bad: bool = False


@dataclass(frozen=True, slots=True)
class OnPhoto:
    """Everything over the photo.

    Attributes
    ----------
    expected : (u, v), optional
        Where the mark to click is believed to be.
    """

    ticks: tuple[Tick, ...] = ()
    over: OverPhoto = field(default_factory=OverPhoto)
    expected: Pixel | None = None
    chosen: str = ""


class PhotoView(QWidget):
    """The photo.

    Signals
    -------
    clicked : float, float, float
        A mark lies at (u, v) pixels, found with that sigma; 0 for a plain click.
    picked : str
        A click that was taken; its id, empty for none.
    moved : float, float
        The picked click by so many pixels.
    struck, skipped : (nothing)
        The picked click away; the mark to click can't be seen.
    crowded : (nothing)
        Two marks lie where it was clicked.
    """

    crowded = pyqtSignal()
    clicked = pyqtSignal(float, float, float)
    picked = pyqtSignal(str)
    moved = pyqtSignal(float, float)
    struck = pyqtSignal()
    skipped = pyqtSignal()

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self._image = QImage()
        self._size = (1, 1)
        self._on = OnPhoto()
        self._snap: Callable[[Pixel, float], Snap | None] = lambda _at, _reach: None
        self._found: Snap | None = None
        self._times = 1.0  # nearer than the whole
        self._middle: Pixel = (0.5, 0.5)
        self._cursor: Pixel | None = None
        self._dragged: QPointF | None = None
        self._ground = QPixmap()
        self._looking = QTimer(self)
        self._looking.setSingleShot(True)
        self._looking.setInterval(_RESTS_MS)
        self._looking.timeout.connect(self._look)
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMinimumSize(320, 240)
        self.setAccessibleName(say.SIGHT)

    # -- what is shown ---------------------------------------------------------------------------

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        self._ground = QPixmap()
        self.update()

    def show_photo(self, image: QImage, size: tuple[int, int]) -> None:
        """Show another photo; `size` is that of the whole picture, whatever the image was shrunk to."""
        self._image, self._size = image, size
        self._times, self._middle = 1.0, (size[0] / 2, size[1] / 2)
        self._cursor = self._found = None
        self._ground = QPixmap()
        self.update()

    def show_on(self, on: OnPhoto) -> None:
        """Show what lies over it."""
        self._on = on
        self.update()

    @property
    def shown(self) -> OnPhoto:
        """What lies over it."""
        return self._on

    def snap_by(self, snap: Callable[[Pixel, float], Snap | None]) -> None:
        """Find what a click means by this: from where, and how far off it may be, both in pixels of the photo."""
        self._snap = snap

    def sizeHint(self) -> QSize:
        """As much as there is."""
        return QSize(900, 620)

    # -- where things are ------------------------------------------------------------------------

    @property
    def scale(self) -> float:
        """Pixels of the screen for one of the photo."""
        wide, high = self._size
        return min(self.width() / wide, self.height() / high) * self._times

    @property
    def reach(self) -> float:
        """How far a hand is off on the screen, in pixels of the photo: less the nearer it is looked at."""
        return float(min(max(_HAND_PX / self.scale, _LEAST_REACH), _MOST_REACH))

    def to_screen(self, at: Pixel) -> QPointF:
        """Where a pixel of the photo is on the screen."""
        scale = self.scale
        return QPointF(
            self.width() / 2 + (at[0] - self._middle[0]) * scale,
            self.height() / 2 + (at[1] - self._middle[1]) * scale,
        )

    def to_photo(self, at: QPointF) -> Pixel:
        """Which pixel of the photo lies there."""
        scale = self.scale
        return (
            self._middle[0] + (at.x() - self.width() / 2) / scale,
            self._middle[1] + (at.y() - self.height() / 2) / scale,
        )

    def _inside(self, at: Pixel) -> bool:
        return 0 <= at[0] <= self._size[0] and 0 <= at[1] <= self._size[1]

    # -- painting --------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Photo, airframe, clicks, loupe."""
        del event
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self._image.isNull():
            painter.fillRect(self.rect(), self._theme.colour("paper"))
            painter.end()
            return
        if self._ground.size() != self.size() * self.devicePixelRatioF():
            self._lay_ground()
        painter.drawPixmap(0, 0, self._ground)
        self._paint_over(painter)
        for tick in self._on.ticks:
            self._paint_tick(painter, tick)
        if self._on.expected is not None:
            at = self.to_screen(self._on.expected)
            painter.setBrush(Qt.BrushStyle.NoBrush)
            for colour, width in ((QColor(0, 0, 0, 150), 4.5), (QColor("white"), 2.0)):
                painter.setPen(QPen(colour, width, Qt.PenStyle.DashLine))
                painter.drawEllipse(at, 15, 15)
        if self._cursor is not None and self._inside(self._cursor):
            self._paint_loupe(painter, self._cursor)
        painter.end()

    def _lay_ground(self) -> None:
        """The photo as it lies now, kept: the pointer moves more often than the photo."""
        ratio = self.devicePixelRatioF()
        self._ground = QPixmap(self.size() * ratio)
        self._ground.setDevicePixelRatio(ratio)
        self._ground.fill(self._theme.colour("paper"))
        painter = QPainter(self._ground)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        corner = self.to_screen((0.0, 0.0))
        scale = self.scale
        box = QRectF(corner.x(), corner.y(), self._size[0] * scale, self._size[1] * scale)
        painter.drawImage(box, self._image)
        painter.end()

    def _paint_over(self, painter: QPainter) -> None:
        painter.setBrush(Qt.BrushStyle.NoBrush)
        over = self._on.over
        for line in over.hull:
            self._paint_line(painter, line, QColor("white"), 0.9, closed=False)
        for outline in over.wanted:
            self._paint_line(painter, outline.points, QColor("white"), 1.3, closed=True)
        for outline in over.estimated:
            colour = self._theme.colour(_VERDICT_COLOURS[outline.verdict])
            self._paint_line(painter, outline.points, colour, 2.0, closed=True)

    def _paint_line(
        self,
        painter: QPainter,
        points: tuple[Pixel, ...],
        colour: QColor,
        width: float,
        *,
        closed: bool,
    ) -> None:
        polygon = QPolygonF([self.to_screen(at) for at in points])
        for pen in (QPen(QColor(0, 0, 0, 130), width + 2), QPen(colour, width)):
            painter.setPen(pen)
            if closed:
                painter.drawPolygon(polygon)
            else:
                painter.drawPolyline(polygon)

    def _paint_tick(self, painter: QPainter, tick: Tick) -> None:
        at = self.to_screen(tick.at)
        colour = self._theme.colour("out") if tick.bad else QColor("white")
        chosen = tick.id == self._on.chosen
        reach = 9.0 if chosen else 6.0
        for pen in (QPen(QColor(0, 0, 0, 180), 4.0), QPen(colour, 2.4 if chosen else 1.6)):
            painter.setPen(pen)
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawEllipse(at, reach, reach)
            painter.drawLine(at + QPointF(-3, 0), at + QPointF(3, 0))
            painter.drawLine(at + QPointF(0, -3), at + QPointF(0, 3))
            if tick.off is not None:
                way = QPointF(*tick.off) * (self.scale * _OFF_TIMES)
                painter.drawLine(at, at - way)
        if chosen or tick.bad:
            self._paint_name(painter, at, tick.name)

    def _paint_name(self, painter: QPainter, at: QPointF, name: str) -> None:
        painter.setFont(self._theme.font(14, weight=600))
        wide = painter.fontMetrics().horizontalAdvance(name) + 14
        high = painter.fontMetrics().height() + 6
        left = min(max(4.0, at.x() + 14), self.width() - wide - 4.0)
        box = QRectF(left, min(max(4.0, at.y() - high - 8), self.height() - high - 4.0), wide, high)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(0, 0, 0, 170))
        painter.drawRoundedRect(box, 3, 3)
        painter.setPen(QColor("white"))
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, name)

    def _paint_loupe(self, painter: QPainter, at: Pixel) -> None:
        """What lies about the pointer, large; what a click would take is ringed in it."""
        here = self.to_screen(at)
        radius = self._theme.px(_LOUPE_PX)
        side = -1 if here.x() > self.width() - 2.4 * radius else 1
        up = 1 if here.y() < 2.4 * radius else -1
        middle = here + QPointF(side * radius * 1.25, up * radius * 1.25)
        painter.save()
        path = QPainterPath()
        path.addEllipse(middle, radius, radius)
        painter.setClipPath(path)
        painter.fillRect(path.boundingRect(), QColor(30, 30, 30))
        reach = radius / _LOUPE_TIMES
        shrunk = self._image.width() / self._size[0]
        source = QRectF(
            (at[0] - reach) * shrunk,
            (at[1] - reach) * shrunk,
            2 * reach * shrunk,
            2 * reach * shrunk,
        )
        painter.drawImage(path.boundingRect(), self._image, source)
        for pen in (QPen(QColor(0, 0, 0, 140), 3), QPen(QColor("white"), 1)):
            painter.setPen(pen)
            for way in (QPointF(1, 0), QPointF(-1, 0), QPointF(0, 1), QPointF(0, -1)):
                painter.drawLine(middle + way * 6, middle + way * radius)
        if self._found is not None and self._found.kind != "crowd":
            spot = middle + QPointF(
                (self._found.at[0] - at[0]) * _LOUPE_TIMES,
                (self._found.at[1] - at[1]) * _LOUPE_TIMES,
            )
            painter.setPen(QPen(self._theme.colour("fluid"), 3))
            painter.drawEllipse(spot, 9, 9)
            painter.drawLine(spot + QPointF(-4, 0), spot + QPointF(4, 0))
            painter.drawLine(spot + QPointF(0, -4), spot + QPointF(0, 4))
        painter.restore()
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(self._theme.colour("ink"), 2.5))
        painter.drawEllipse(middle, radius, radius)

    # -- hands -----------------------------------------------------------------------------------

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """The photo lies anew."""
        super().resizeEvent(event)
        self._ground = QPixmap()

    def point_at(self, at: Pixel) -> None:
        """Hold the loupe there, and look what a click would take."""
        self._cursor = at
        self._found = self._snap(at, self.reach) if self._inside(at) else None
        self.update()

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """The loupe goes along; with the right button down the photo does."""
        if event is None or self._image.isNull():
            return
        if self._dragged is not None:
            away = event.position() - self._dragged
            scale = self.scale
            self._middle = (
                self._middle[0] - away.x() / scale,
                self._middle[1] - away.y() / scale,
            )
            self._dragged = event.position()
            self._ground = QPixmap()
            self.update()
            return
        self._cursor, self._found = self.to_photo(event.position()), None
        self._looking.start()  # what a click would take is looked for once the hand rests
        self.update()

    def _look(self) -> None:
        if self._cursor is not None:
            self.point_at(self._cursor)

    def leaveEvent(self, event: object) -> None:
        """The loupe is laid down."""
        del event
        self._cursor = self._found = None
        self.update()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Take a mark, or pick a click that was taken."""
        if event is None or self._image.isNull():
            return
        if event.button() in (Qt.MouseButton.RightButton, Qt.MouseButton.MiddleButton):
            self._dragged = event.position()
            return
        held = self._tick_at(event.position())
        if held:
            self.picked.emit(held)
            return
        at = self.to_photo(event.position())
        plain = bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier)
        self.point_at(at)
        self._take(at, plain=plain)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        """The photo stays where it is."""
        del event
        self._dragged = None

    def _take(self, at: Pixel, *, plain: bool) -> None:
        if not self._inside(at):
            return
        found = None if plain else self._found
        if found is not None and found.kind == "crowd":
            self.crowded.emit()
        elif found is not None:
            self.clicked.emit(*found.at, found.sigma)
        else:
            self.clicked.emit(*at, 0.0)

    def _tick_at(self, at: QPointF) -> str:
        near = [
            ((self.to_screen(tick.at) - at).manhattanLength(), tick.id) for tick in self._on.ticks
        ]
        least = min(near, default=(_PICK_PX + 1, ""))
        if self._on.expected is not None:
            # the mark to click may lie close to one that was clicked
            away = (self.to_screen(self._on.expected) - at).manhattanLength()
            if away < least[0] + _PICK_PX:
                return ""
        return least[1] if least[0] <= _PICK_PX else ""

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        """Nearer, about the pointer."""
        if event is None or self._image.isNull():
            return
        before = self.to_photo(event.position())
        self._times *= _STEP if event.angleDelta().y() > 0 else 1 / _STEP
        self._times = min(max(1.0, self._times), _MOST)
        after = self.to_photo(event.position())
        self._middle = (
            self._middle[0] + before[0] - after[0],
            self._middle[1] + before[1] - after[1],
        )
        if self._times <= 1.0:
            self._middle = (self._size[0] / 2, self._size[1] / 2)
        self._ground = QPixmap()
        self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Arrows nudge the picked click, or lead the loupe; Enter takes what is under it."""
        if event is None:
            return
        key = Qt.Key(event.key())
        way = _KEYS.get(key)
        if way is not None and not self._image.isNull():
            fine = bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)
            if self._on.chosen:
                step = _FINE if fine else _NUDGE
                self.moved.emit(way[0] * step, way[1] * step)
                return
            step = _NUDGE if fine else _COARSE
            start = self._cursor or self._on.expected or (self._size[0] / 2, self._size[1] / 2)
            self.point_at((start[0] + way[0] * step, start[1] + way[1] * step))
            return
        match key:
            case Qt.Key.Key_Return | Qt.Key.Key_Enter if self._cursor is not None:
                plain = bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier)
                self._take(self._cursor, plain=plain)
            case Qt.Key.Key_Delete | Qt.Key.Key_Backspace:
                self.struck.emit()
            case Qt.Key.Key_Escape:
                self.picked.emit("")
            case Qt.Key.Key_N:
                self.skipped.emit()
            case _:
                super().keyPressEvent(event)
