"""A drawing of wood, to scale, in which every piece can be pointed at and picked; it can be looked at from nearer."""

from typing import Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
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
from PyQt6.QtWidgets import QScrollArea, QSizePolicy, QWidget

from hardkeel.picture.wood import WoodLabel, WoodPicture, WoodShape, WoodSpot
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.viewport import Viewport, fit, paint_paper
from hardkeel.ui.widgets.wood import paint_pin, paint_wood, shape_path, text_box

_MARGIN_PX: Final = 18
_HEAD_PX: Final = 26
_NEARER: Final = 1.25  # a notch of the wheel, or a press of + or -
_NEAREST: Final = 24.0
_NEAR_PX: Final = 9  # nearer than this a spot is meant
_PLAIN_LINES: Final = {
    "station": 0.7,
    "outline": 1.0,
    "centre": 0.8,
    "seat": 1.2,
    "wire": 1.4,
    "seam": 0.5,
}
_BY_KEY: Final = {"+": _NEARER, "-": 1 / _NEARER, "0": 0.0}
_DASHES: Final[dict[str, list[float]]] = {"centre": [8, 3, 2, 3], "seat": [6, 3], "station": [1, 3]}


class WoodBoard(QWidget):
    """One view.

    Parameters
    ----------
    title : str
        What is looked at, and from where.

    Signals
    -------
    picked : str
        A piece was clicked, or gone to by an arrow key: its ref.
    pointed : str
        A piece is pointed at; empty where none is.
    spot_picked : str
        A place that can be pointed at by itself was clicked.
    """

    picked = pyqtSignal(str)
    pointed = pyqtSignal(str)
    spot_picked = pyqtSignal(str)

    def __init__(self, theme: Theme, title: str, *, height: int = 150) -> None:
        super().__init__()
        self._theme, self._title, self._height = theme, title, height
        self._note = ""
        self._picture = WoodPicture()
        self._chosen = self._under = ""
        self._near: WoodSpot | None = None
        self._ground: QPixmap | None = None
        self._view: Viewport | None = None
        self._whole: Viewport | None = None
        self._nearer = 1.0  # times as large as the whole
        self._aside = QPointF()  # and pushed by pixels
        self._dragged: QPointF | None = None
        self._paths: list[tuple[WoodShape, QPainterPath]] = []
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(title)

    def sizeHint(self) -> QSize:
        """Wide and flat, as a fuselage is."""
        return QSize(640, self._height)

    def minimumSizeHint(self) -> QSize:
        """Small: the drawing shrinks with its room."""
        return QSize(160, min(90, self._height))

    @property
    def chosen(self) -> str:
        """The piece in hand."""
        return self._chosen

    def show_picture(self, picture: WoodPicture, chosen: str = "", note: str = "") -> None:
        """Show another picture; `note` stands at the right of its head."""
        if picture != self._picture or note != self._note:
            if picture.bounds != self._picture.bounds:
                self._nearer, self._aside = 1.0, QPointF()
            self._picture, self._note, self._near = picture, note, None
            self._forget()
        self.choose(chosen)

    def choose(self, ref: str) -> None:
        """Light a piece up."""
        if ref != self._chosen:
            self._chosen = ref
            self.update()
        self.setAccessibleDescription(f"{ref} {self._note}".strip())

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        self._forget()

    def set_title(self, title: str) -> None:
        """What is looked at."""
        if title != self._title:
            self._title = title
            self.setAccessibleName(title)
            self._forget()

    def place_of(self, ref: str) -> QPointF | None:
        """A pixel inside a piece, where it is drawn."""
        self._lay()
        for shape, path in self._paths:
            if shape.ref == ref:
                inside = path.toFillPolygon()
                middle = path.boundingRect().center()
                if path.contains(middle):
                    return middle
                # a piece that is hollow in the middle: just inside one of its corners
                for i in range(inside.count()):
                    near = inside.at(i) + (middle - inside.at(i)) * 0.05
                    if path.contains(near):
                        return QPointF(near)
        return None

    def spot_at(self, ref: str) -> QPointF | None:
        """The pixel of a spot."""
        self._lay()
        view = self._view
        found = next((spot for spot in self._picture.spots if spot.ref == ref), None)
        return view.point(found.at) if view is not None and found is not None else None

    def _forget(self) -> None:
        self._ground, self._view, self._paths = None, None, []
        self.update()

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Lay out anew."""
        super().resizeEvent(event)
        self._forget()

    def _lay(self) -> None:
        if self._view is not None:
            return
        bounds = self._picture.bounds
        head, margin = self._theme.px(_HEAD_PX), _MARGIN_PX
        below = self._theme.px(18) if any(x.side == "below" for x in self._picture.labels) else 0
        box = QRectF(
            margin,
            head,
            max(self.width() - 2 * margin, 10),
            max(self.height() - head - below - 8, 10),
        )
        self._whole = fit(box, bounds or (0.0, 0.0, 1.0, 1.0))
        self._view = self._whole.nearer(self._nearer, box.center()).moved(self._aside)
        self._paths = [(shape, shape_path(self._view, shape)) for shape in self._picture.shapes]

    @property
    def nearness(self) -> float:
        """How many times as large as the whole of it is shown."""
        return self._nearer

    def look_nearer(self, times: float, at: QPointF) -> None:
        """Look from nearer, or from farther, at what is under a pixel; at last all of it is seen."""
        self._lay()
        view, whole = self._view, self._whole
        if view is None or whole is None or self._picture.bounds is None:
            return
        wanted = min(self._nearer * times, _NEAREST)
        if wanted <= 1.0:
            self._nearer, self._aside = 1.0, QPointF()
        else:
            seen = view.nearer(wanted / self._nearer, at)
            straight = whole.nearer(wanted, whole.box.center())
            self._nearer = wanted
            self._aside = QPointF(seen.u0 - straight.u0, seen.v0 - straight.v0)
        self._forget()

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        """Nearer and farther at the pointer; with Ctrl where the wheel moves the page."""
        if event is None:
            return
        up = event.angleDelta().y()
        if self._scrolls and not event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            event.ignore()
            return
        if up == 0 or (up < 0 and self._nearer <= 1.0) or self._picture.bounds is None:
            event.ignore()
            return
        self.look_nearer(_NEARER if up > 0 else 1 / _NEARER, event.position())
        event.accept()

    @property
    def _scrolls(self) -> bool:
        """Whether the wheel moves the page that it lies on."""
        above = self.parentWidget()
        while above is not None and not isinstance(above, QScrollArea):
            above = above.parentWidget()
        return above is not None

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        """All of it."""
        self.look_nearer(0.0, QPointF())

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        """It is let go."""
        self._dragged = None

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """The ground once, what is in hand over it each time."""
        self._lay()
        if self._ground is None:
            self._ground = self._painted()
        painter = QPainter(self)
        painter.drawPixmap(0, 0, self._ground)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        for ref, weight in ((self._under, 1.8), (self._chosen, 2.4)):
            if ref:
                painter.setPen(QPen(self._theme.colour("act"), weight))
                for shape, path in self._paths:
                    if shape.ref == ref:
                        painter.drawPath(path)
                for line in self._picture.lines:
                    if line.ref == ref and len(line.points) > 1 and self._view is not None:
                        painter.drawPolyline(self._view.polygon(line.points))
        if self._near is not None and self._view is not None:
            painter.setPen(QPen(self._theme.colour("act"), 2.0))
            painter.drawEllipse(self._view.point(self._near.at), 6.0, 6.0)
        if self.hasFocus():
            painter.setRenderHint(QPainter.RenderHint.Antialiasing, on=False)
            painter.setPen(QPen(self._theme.colour("act"), 1))
            painter.drawRect(self.rect().adjusted(0, 0, -1, -1))

    def _painted(self) -> QPixmap:
        ratio = self.devicePixelRatioF()
        ground = QPixmap(self.size() * ratio)
        ground.setDevicePixelRatio(ratio)
        painter = QPainter(ground)
        paint_paper(painter, self._theme, self.rect())
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        for shape, path in self._paths:
            paint_wood(painter, self._theme, shape, path)
        self._paint_lines(painter)
        self._paint_words(painter)
        painter.end()
        return ground

    def _paint_lines(self, painter: QPainter) -> None:
        view = self._view
        if view is None:
            return
        for line in self._picture.lines:
            if line.role == "pin":
                paint_pin(painter, self._theme, view.point(line.points[0]))
                continue
            colour = self._theme.colour("ink" if line.role == "outline" else "soft")
            pen = QPen(colour, _PLAIN_LINES[line.role])
            if line.role in _DASHES:
                pen.setDashPattern(_DASHES[line.role])
            painter.setPen(pen)
            painter.drawPolyline(view.polygon(line.points))
        painter.setPen(QPen(self._theme.colour("ink"), 1.0))
        painter.setBrush(self._theme.colour("paper"))
        for spot in self._picture.spots:
            painter.drawEllipse(view.point(spot.at), 2.4, 2.4)
        painter.setBrush(Qt.BrushStyle.NoBrush)

    def _paint_words(self, painter: QPainter) -> None:
        view = self._view
        if view is None:
            return
        theme = self._theme
        painter.setFont(theme.font(13))
        painter.setPen(theme.colour("soft"))
        head = QRectF(14, 5, self.width() - 28, theme.px(_HEAD_PX) - 6)
        flags = Qt.AlignmentFlag
        painter.drawText(head, flags.AlignLeft | flags.AlignVCenter, self._title)
        metrics = painter.fontMetrics()
        left = int(head.width()) - metrics.horizontalAdvance(self._title) - 16
        note = metrics.elidedText(self._note, Qt.TextElideMode.ElideRight, max(left, 0))
        painter.drawText(head, flags.AlignRight | flags.AlignVCenter, note)
        painter.setFont(theme.font(12))
        painter.setPen(theme.colour("ink"))
        taken: list[QRectF] = []
        for label in self._picture.labels:
            box = self._room(painter, view, label)
            if label.within and box.width() > label.within * view.scale:
                continue
            if any(box.intersects(other) for other in taken):
                continue  # the piece says its name when it is pointed at
            taken.append(box)
            painter.setPen(theme.colour("out" if label.warn else "ink"))
            painter.drawText(box, flags.AlignCenter, label.text)
            if label.warn:
                self._paint_warning(painter, box)

    def _paint_warning(self, painter: QPainter, box: QRectF) -> None:
        """A triangle beside a name."""
        size = self._theme.px(9)
        x, y = box.left() - size - 1, box.center().y() + size / 2 - 1
        triangle = QPolygonF([QPointF(x, y), QPointF(x + size, y), QPointF(x + size / 2, y - size)])
        painter.setBrush(self._theme.colour("out"))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.drawPolygon(triangle)
        painter.setBrush(Qt.BrushStyle.NoBrush)

    def _room(self, painter: QPainter, view: Viewport, label: WoodLabel) -> QRectF:
        box = text_box(painter, view.point(label.at), label.text, label.side)
        if self._nearer <= 1.0:  # looked at from nearer, what lies outside stays there
            box.moveLeft(min(max(box.left(), 2.0), self.width() - box.width() - 2))
        return box

    def _at(self, point: QPointF) -> str:
        self._lay()
        found = [s.ref for s, path in self._paths if s.ref and path.contains(point)]
        return found[-1] if found else ""

    def _spot(self, point: QPointF) -> WoodSpot | None:
        """The nearest spot, where one is near enough to be meant."""
        self._lay()
        view = self._view
        if view is None or not self._picture.spots:
            return None
        away = [(view.point(s.at) - point).manhattanLength() for s in self._picture.spots]
        best = min(range(len(away)), key=away.__getitem__)
        return self._picture.spots[best] if away[best] <= _NEAR_PX else None

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Light up what is pointed at, and say its name."""
        if event is None:
            return
        if self._dragged is not None and event.buttons() & Qt.MouseButton.LeftButton:
            self._aside += event.position() - self._dragged
            self._dragged = event.position()
            self._forget()
            return
        near = self._spot(event.position())
        under = "" if near is not None else self._at(event.position())
        if under != self._under or near != self._near:
            self._under, self._near = under, near
            self.setToolTip(under if near is None else near.words or near.ref)
            self.pointed.emit(under)
            self.update()

    def leaveEvent(self, event: object) -> None:
        """Nothing is pointed at any more."""
        if self._under or self._near is not None:
            self._under, self._near = "", None
            self.pointed.emit("")
            self.update()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Pick what is clicked."""
        if event is None:
            return
        self._dragged = event.position() if self._nearer > 1.0 else None
        near = self._spot(event.position())
        if near is not None:
            self.spot_picked.emit(near.ref)
            return
        ref = self._at(event.position())
        if ref:
            self.choose(ref)
            self.picked.emit(ref)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Left and right go from piece to piece; + and - go nearer and farther, 0 shows all of it."""
        times = _BY_KEY.get(event.text(), None) if event is not None else None
        if times is not None:
            self.look_nearer(times, QPointF(self.rect().center()))
            return
        step = (
            {Qt.Key.Key_Right: 1, Qt.Key.Key_Left: -1}.get(Qt.Key(event.key()), 0)
            if event is not None
            else 0
        )
        refs = list(dict.fromkeys(s.ref for s in self._picture.shapes if s.ref))
        if not step or not refs:
            super().keyPressEvent(event)
            return
        at = refs.index(self._chosen) + step if self._chosen in refs else 0
        ref = refs[at % len(refs)]
        self.choose(ref)
        self.picked.emit(ref)
