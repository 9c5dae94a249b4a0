"""The drawing board: side, above and section of the airframe, every former under the hand."""

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QColor,
    QFocusEvent,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QPixmap,
    QPolygonF,
    QResizeEvent,
)
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.messages import layout as say
from hardkeel.picture.board import BoardLines, BoardView, Curve, Handle
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.viewport import Viewport, fit, paint_paper, section_path

_TITLES: Final[dict[BoardView, str]] = {
    "side": "from port",
    "above": "from above",
    "section": "section",
}
_SECTION_SHARE: Final = 0.28
_NEAR: Final = 10.0
_DRAG_FROM_PX: Final = 5.0  # a hand that only picks trembles less than this
_NUDGE_MM: Final = 0.5
_FINE_NUDGE_MM: Final = 0.1


@dataclass(frozen=True, slots=True)
class BumpNote:
    """Where a line leaves the fair curve, to be marked on the board."""

    view: BoardView
    at: tuple[float, float]
    text: str


@dataclass(frozen=True, slots=True)
class OnBoard:
    """All that the board shows; `said` tells what is in hand to who can't see it."""

    lines: BoardLines = field(default_factory=BoardLines)
    bodies: tuple[Curve, ...] = ()
    combs: tuple[Curve, ...] = ()
    bumps: tuple[BumpNote, ...] = ()
    chosen: str = ""
    chosen_body: str = ""
    figure: str = ""
    said: str = ""


class DrawingBoard(QWidget):
    """The three views.

    Signals
    -------
    dragging : object, float, float
        A `Handle` is being dragged to a point of its view, mm.
    dropped : object, float, float
        It was let go there.
    nudged : str, str, float
        An arrow key: stop, figure (``top``, ``half_width``, ``station``), mm.
    stop_picked, body_picked : str
    station_wanted : float
        A double click between formers: one is wanted at this station, mm.
    """

    dragging = pyqtSignal(object, float, float)
    dropped = pyqtSignal(object, float, float)
    nudged = pyqtSignal(str, str, float)
    station_picked = pyqtSignal(str)
    station_wanted = pyqtSignal(float)
    body_picked = pyqtSignal(str)

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self._shown = OnBoard()
        self._viewports: dict[BoardView, Viewport] = {}
        self._held: Handle | None = None
        self._moved = False
        self._pressed = self._offset = QPointF()
        self._under: Handle | None = None
        self._ground: QPixmap | None = None
        self._resting: QPixmap | None = None
        self._come_by_key = False
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(say.DRAWING_BOARD)

    def set_theme(self, theme: Theme) -> None:
        """Paint in another theme."""
        self._theme = theme
        self._lay()

    def show_board(self, shown: OnBoard) -> None:
        """Draw another airframe; while something is dragged the views keep their scale."""
        if shown.chosen != self._shown.chosen:
            self._resting = None
        self._shown = shown
        self.setAccessibleDescription(shown.said)
        if self._held is None:
            self._lay()
        self.update()

    def handle_position(self, stop: str, grip: str) -> QPointF | None:
        """Where a handle is painted, for tests and for the keyboard."""
        for handle in self._shown.lines.handles:
            if (handle.stop, handle.grip) == (stop, grip):
                return self._viewports[handle.view].point(handle.at)
        return None

    def sizeHint(self) -> QSize:
        """As large as there is room for."""
        return QSize(760, 560)

    def minimumSizeHint(self) -> QSize:
        """Small enough for 150 % text in a 1280 window."""
        return QSize(380, 300)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Fit the views again."""
        self._lay()

    def _boxes(self) -> dict[BoardView, QRectF]:
        width, height = float(self.width()), float(self.height())
        upper = height * 0.5
        aside = width * _SECTION_SHARE
        return {
            "side": QRectF(0, 0, width, upper),
            "above": QRectF(0, upper, width - aside, height - upper),
            "section": QRectF(width - aside, upper, aside, height - upper),
        }

    def _lay(self) -> None:
        self._viewports, self._ground, self._resting = {}, None, None
        title = self._theme.px(26)
        for view, box in self._boxes().items():
            points = [
                p
                for curve in (*self._shown.lines.curves, *self._shown.bodies)
                if curve.view == view and not (curve.role == "body" and view == "above")
                for p in curve.points
            ]
            if not points:
                continue
            us, vs = [p[0] for p in points], [p[1] for p in points]
            low = self._theme.px(34 if view == "side" else 26)
            inner = box.adjusted(24, title, -24, -low)
            self._viewports[view] = fit(inner, (min(us), min(vs), max(us), max(vs)))
        self.update()

    # -- painting --------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Paint paper, curves, handles and notes."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.drawPixmap(0, 0, self._ground_now())
        moving = [c for c in self._shown.lines.curves if not self._rests(c.ref, c.role)]
        for curve in (*moving, *self._shown.combs):
            self._paint_curve(painter, curve)
        painter.drawPixmap(0, 0, self._resting_now())
        for curve in moving:  # the former in hand lies over its neighbours
            if curve.role == "stop" and curve.view != "section":
                self._paint_curve(painter, curve)
        for handle in self._shown.lines.handles:
            if not self._rests(handle.stop, "stop") or handle in (self._under, self._held):
                self._paint_handle(painter, handle)
        for bump in self._shown.bumps:
            viewport = self._viewports.get(bump.view)
            if viewport is not None:
                _paint_bump(painter, self._theme, viewport.point(bump.at), bump, self.width())
        if self._shown.figure:
            _paint_figure(painter, self._theme, self._shown.figure, self.width())
        if self._come_by_key:
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(self._theme.colour("act"), 2))
            painter.drawRect(self.rect().adjusted(1, 1, -1, -1))

    def _rests(self, ref: str, role: str) -> bool:
        """Whether something stays where it is while the chosen former is dragged."""
        return role == "stop" and ref != self._shown.chosen

    def _ground_now(self) -> QPixmap:
        """Paper and bodies, painted once."""
        if self._ground is None:
            self._ground = self._layer("paper")
            painter = QPainter(self._ground)
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            self._paint_paper(painter)
            for curve in self._shown.bodies:
                self._paint_curve(painter, curve)
            painter.end()
        return self._ground

    def _resting_now(self) -> QPixmap:
        """The other formers with their points and all names, painted once."""
        if self._resting is None:
            self._resting = self._layer("")
            painter = QPainter(self._resting)
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            for curve in self._shown.lines.curves:
                if self._rests(curve.ref, curve.role):
                    self._paint_curve(painter, curve)
            for handle in self._shown.lines.handles:
                if self._rests(handle.stop, "stop"):
                    self._paint_handle(painter, handle)
            self._paint_names(painter)
            painter.end()
        return self._resting

    def _layer(self, colour: str) -> QPixmap:
        ratio = self.devicePixelRatioF()
        layer = QPixmap(self.size() * ratio)
        layer.setDevicePixelRatio(ratio)
        layer.fill(self._theme.colour(colour) if colour else QColor(0, 0, 0, 0))
        return layer

    def _paint_handle(self, painter: QPainter, handle: Handle) -> None:
        viewport = self._viewports.get(handle.view)
        if viewport is not None:
            lit = handle in (self._held, self._under)
            picked = handle.stop == self._shown.chosen
            _paint_handle(
                painter, self._theme, viewport.point(handle.at), handle, lit=lit, picked=picked
            )

    def _paint_paper(self, painter: QPainter) -> None:
        theme = self._theme
        paint_paper(painter, theme, self.rect())
        boxes = self._boxes()
        painter.setPen(QPen(theme.colour("hair"), 1))
        split = boxes["above"].top()
        painter.drawLine(QPointF(10, split), QPointF(self.width() - 10.0, split))
        left = boxes["section"].left()
        painter.drawLine(QPointF(left, split + 8), QPointF(left, self.height() - 8.0))
        painter.setPen(theme.colour("soft"))
        painter.setFont(theme.font(13))
        for view, box in boxes.items():
            words = _TITLES[view]
            if view == "section" and self._shown.chosen:
                words += f" at {self._shown.chosen.replace('_', ' ')}"
            painter.drawText(QPointF(box.left() + 14, box.top() + theme.px(18)), words)

    def _paint_curve(self, painter: QPainter, curve: Curve) -> None:
        viewport = self._viewports.get(curve.view)
        if viewport is None:
            return
        _pen_curve(painter, self._theme, curve, self._shown)
        painter.setClipRect(self._boxes()[curve.view])
        if curve.role == "body" and curve.view == "side":
            painter.drawPath(section_path(viewport, curve.points))
        elif curve.closed:
            painter.drawPolygon(viewport.polygon(curve.points))
        else:
            painter.drawPolyline(viewport.polygon(curve.points))
        painter.setClipping(False)

    def _paint_names(self, painter: QPainter) -> None:
        viewport = self._viewports.get("side")
        if viewport is None:
            return
        theme = self._theme
        low = self._boxes()["side"].bottom() - theme.px(10)
        last = float("-inf")
        for handle in self._shown.lines.handles:
            if handle.grip != "station":
                continue
            picked = handle.stop == self._shown.chosen
            painter.setFont(theme.font(13, weight=600 if picked else 400))
            name = handle.stop.replace("tail_post", "tail post")
            width = painter.fontMetrics().horizontalAdvance(name)
            x = min(viewport.point(handle.at).x() - width / 2, self.width() - width - 6.0)
            if x > last + 5 or picked:
                painter.setPen(theme.colour("act" if picked else "soft"))
                painter.drawText(QPointF(x, low), name)
                last = x + width

    # -- hands -----------------------------------------------------------------------------------

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Drag what is held; else light what could be."""
        if event is None:
            return
        if self._held is not None:
            away = (event.position() - self._pressed).manhattanLength()
            self._moved = self._moved or away >= _DRAG_FROM_PX
            if self._moved:
                viewport = self._viewports[self._held.view]
                self.dragging.emit(self._held, *viewport.back(event.position() + self._offset))
            return
        under = self._handle_at(event.position())
        if under != self._under:
            self._under = under
            self.setCursor(
                Qt.CursorShape.SizeAllCursor if under is not None else Qt.CursorShape.ArrowCursor
            )
            self.update()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Take hold of a point, or pick the former or part under the pointer."""
        if event is None or event.button() != Qt.MouseButton.LeftButton:
            return
        self.setFocus()
        handle = self._handle_at(event.position())
        if handle is not None:
            self._held, self._moved = handle, False
            self._pressed = event.position()
            self._offset = self._viewports[handle.view].point(handle.at) - event.position()
            if handle.stop != self._shown.chosen:
                self.station_picked.emit(handle.stop)
            return
        stop = self._stop_at(event.position())
        body = self._body_at(event.position())
        if stop:
            self.station_picked.emit(stop)
        elif body:
            self.body_picked.emit(body)

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        """Ask for a former where there is none."""
        if event is None or self._handle_at(event.position()) is not None:
            return
        along: tuple[BoardView, BoardView] = ("side", "above")
        for view in along:
            viewport = self._viewports.get(view)
            if viewport is not None and self._boxes()[view].contains(event.position()):
                self.station_wanted.emit(viewport.back(event.position())[0])
                return

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        """Let go."""
        held, self._held = self._held, None
        if event is None or held is None:
            return
        if self._moved:
            at = self._viewports[held.view].back(event.position() + self._offset)
            self.dropped.emit(held, *at)
        self._lay()

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        """Show where Tab has come to; a hand with a mouse knows."""
        by_key = (Qt.FocusReason.TabFocusReason, Qt.FocusReason.BacktabFocusReason)
        self._come_by_key = event is not None and event.reason() in by_key
        super().focusInEvent(event)
        self.update()

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        """Show no frame any more."""
        self._come_by_key = False
        super().focusOutEvent(event)
        self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Keys for the former in hand; Page Up and Page Down take another, with Ctrl another surface.

        Up and down move its top, with Shift its bottom; left and right its width, with Shift its
        station; Ctrl makes the step fine.
        """
        steps: dict[int, tuple[str, str, int]] = {
            Qt.Key.Key_Up: ("top", "bottom", 1),
            Qt.Key.Key_Down: ("top", "bottom", -1),
            Qt.Key.Key_Right: ("half_width", "station", 1),
            Qt.Key.Key_Left: ("half_width", "station", -1),
        }
        if event is not None and event.key() in (Qt.Key.Key_PageUp, Qt.Key.Key_PageDown):
            way = -1 if event.key() == Qt.Key.Key_PageUp else 1
            if event.modifiers() & Qt.KeyboardModifier.ControlModifier:
                self._step_body(way)
            else:
                self._step(way)
            return
        if event is None or not self._shown.chosen or event.key() not in steps:
            super().keyPressEvent(event)
            return
        plain, shifted, sign = steps[event.key()]
        keys = event.modifiers()
        figure = shifted if keys & Qt.KeyboardModifier.ShiftModifier else plain
        step = _FINE_NUDGE_MM if keys & Qt.KeyboardModifier.ControlModifier else _NUDGE_MM
        self.nudged.emit(self._shown.chosen, figure, sign * step)

    def _step(self, way: int) -> None:
        """Take the next former aft or forward in hand."""
        names = [h.stop for h in self._shown.lines.handles if h.grip == "station"]
        if names:
            now = names.index(self._shown.chosen) if self._shown.chosen in names else 0
            self.station_picked.emit(names[min(max(now + way, 0), len(names) - 1)])

    def _step_body(self, way: int) -> None:
        """Pick the next wing or tail surface aft or forward."""
        names = list(dict.fromkeys(curve.ref for curve in self._shown.bodies))
        if names:
            now = self._shown.chosen_body
            at = names.index(now) + way if now in names else (0 if way > 0 else len(names) - 1)
            self.body_picked.emit(names[min(max(at, 0), len(names) - 1)])

    def _handle_at(self, at: QPointF) -> Handle | None:
        def gap(handle: Handle) -> float:
            viewport = self._viewports.get(handle.view)
            if viewport is None:
                return float("inf")
            away = viewport.point(handle.at) - at
            # the ends are what one reaches for: the middle gives way where they are close
            extra = 3.0 if handle.grip == "station" else 0.0
            return float(away.manhattanLength()) + extra

        best = min(self._shown.lines.handles, key=gap, default=None)
        return best if best is not None and gap(best) <= self._theme.scale * _NEAR else None

    def _stop_at(self, at: QPointF) -> str:
        return self._nearest(at, lambda curve: curve.role == "stop" and curve.view != "section")

    def _nearest(self, at: QPointF, wanted: Callable[[Curve], bool]) -> str:
        best, found = self._theme.scale * _NEAR, ""
        for curve in self._shown.lines.curves:
            viewport = self._viewports.get(curve.view)
            if viewport is None or not wanted(curve):
                continue
            box = viewport.polygon(curve.points).boundingRect().adjusted(-6, -14, 6, 14)
            gap = abs(box.center().x() - at.x())
            if box.contains(at) and gap < best:
                best, found = gap, curve.ref
        return found

    def _body_at(self, at: QPointF) -> str:
        for curve in reversed(self._shown.bodies):
            viewport = self._viewports.get(curve.view)
            if viewport is None:
                continue
            shape = viewport.polygon(curve.points)
            near = shape.boundingRect().adjusted(-4, -4, 4, 4)
            if shape.containsPoint(at, Qt.FillRule.OddEvenFill) or (
                curve.view == "side" and near.contains(at)
            ):
                return curve.ref
        return ""


def _pen_curve(painter: QPainter, theme: Theme, curve: Curve, shown: OnBoard) -> None:
    """Take the pen and brush for a curve."""
    painter.setBrush(Qt.BrushStyle.NoBrush)
    match curve.role:
        case "skin":
            painter.setPen(QPen(theme.colour("ink"), 1.5))
            painter.setBrush(theme.colour("wood" if curve.view != "section" else "wing"))
        case "stop" if curve.view == "section":
            painter.setPen(QPen(theme.colour("ink"), 1.2))
            painter.setBrush(theme.colour("wood"))
        case "stop":
            picked = curve.ref == shown.chosen
            painter.setPen(QPen(theme.colour("act" if picked else "soft"), 2.0 if picked else 1.1))
        case "centre":
            painter.setPen(QPen(theme.colour("act"), 1, Qt.PenStyle.DashDotLine))
        case "template":
            painter.setPen(QPen(theme.colour("out"), 1.6, Qt.PenStyle.DashLine))
        case "comb":
            painter.setPen(QPen(theme.colour("soft"), 0.9))
        case "body":
            picked = curve.ref == shown.chosen_body
            painter.setPen(QPen(theme.colour("act" if picked else "soft"), 1.8 if picked else 1.0))
            painter.setBrush(theme.colour("act_wash" if picked else "wing", 0.6))


def _paint_handle(
    painter: QPainter, theme: Theme, at: QPointF, handle: Handle, *, lit: bool, picked: bool
) -> None:
    """A point to take hold of: round, a diamond for a station, a square in the section."""
    painter.setPen(QPen(theme.colour("act"), 1.8 if lit or picked else 1.1))
    painter.setBrush(theme.colour("act" if lit else "paper"))
    size = 5.5 if lit else 4.0 if picked else 2.6
    if handle.grip == "station":
        size = 4.5 if lit or picked else 0.0
        diamond = [(0, -size), (size, 0), (0, size), (-size, 0)]
        painter.drawPolygon(QPolygonF([at + QPointF(x, y) for x, y in diamond]))
    elif handle.view == "section":
        painter.drawRect(QRectF(at.x() - size, at.y() - size, 2 * size, 2 * size))
    else:
        painter.drawEllipse(at, size, size)


def _paint_bump(
    painter: QPainter, theme: Theme, at: QPointF, bump: BumpNote, width_px: int
) -> None:
    """Ring a place that leaves the fair curve, and say by how much."""
    painter.setPen(QPen(theme.colour("out"), 2))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawEllipse(at, 9.0, 9.0)
    painter.setFont(theme.font(13, weight=600))
    metrics = painter.fontMetrics()
    width = metrics.horizontalAdvance(bump.text)
    x = min(at.x() + 14, width_px - width - 8.0)
    y = at.y() + (metrics.ascent() + 10 if bump.view == "above" else -10.0)
    ground = QRectF(x - 3, y - metrics.ascent(), width + 6, metrics.height())
    painter.fillRect(ground, theme.colour("paper", 0.85))
    painter.drawText(QPointF(x, y), bump.text)


def _paint_figure(painter: QPainter, theme: Theme, figure: str, width_px: int) -> None:
    """The figure under the hand, large enough to read from a step back."""
    painter.setFont(theme.font(26, narrow=False, weight=600))
    painter.setPen(theme.colour("act"))
    metrics = painter.fontMetrics()
    at = QPointF(width_px - metrics.horizontalAdvance(figure) - 18.0, metrics.ascent() + 6.0)
    painter.drawText(at, figure)
