"""Plan, rear and side views as the working surface: strings, marks and parts can be pointed at."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QBrush,
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

from hardkeel.geometry.hull import Point2
from hardkeel.messages import kit as say
from hardkeel.picture.truing import VIEWS, Picture, Stroke, View
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.viewport import Viewport, distance_to, fit, paint_paper

_TITLES: Final[dict[View, str]] = {
    "plan": "from above",
    "behind": "from behind",
    "side": "from port",
}
_PLAN_SHARE: Final = 0.66
_NEAR: Final = 9.0  # pixels at 100 % text within which something is pointed at
_PADDING: Final = 26.0
_STRAY: Final = 2.0  # an arrow key leads rather straight on than near by
_ARROWS: Final = {
    Qt.Key.Key_Left: QPointF(-1, 0),
    Qt.Key.Key_Right: QPointF(1, 0),
    Qt.Key.Key_Up: QPointF(0, -1),
    Qt.Key.Key_Down: QPointF(0, 1),
}


@dataclass(frozen=True, slots=True)
class Callout:
    """Words beside a body in a view: ``3.9 mm high``."""

    view: View
    body: str
    text: str


@dataclass(frozen=True, slots=True)
class Shown:
    """All that the views show.

    Attributes
    ----------
    held : tuple of Stroke
        The reading to take now, which is not in the picture yet.
    doubtful : frozenset of str
        Readings that are set aside.
    names : dict of str to str
        Names of marks, to show when they are pointed at.
    """

    picture: Picture
    held: tuple[Stroke, ...] = ()
    callouts: tuple[Callout, ...] = ()
    doubtful: frozenset[str] = frozenset()
    names: dict[str, str] | None = None


@dataclass(frozen=True, slots=True)
class _Look:
    """How a stroke is drawn: colours of the palette with their opacity, pixels, and its fill if it has one."""

    line: str
    width: float = 1.0
    style: Qt.PenStyle = Qt.PenStyle.SolidLine
    ink: float = 1.0
    fill: str = ""
    depth: float = 1.0


_STILL: Final = frozenset({"fuselage", "former", "centre", "strut"})  # and lie under all else
_STEPS: Final = 64  # of a view's length: a drawing keeps its scale while an estimate moves a little
_LOOKS: Final = {
    "fuselage": _Look("ink", 1.3, fill="wood"),
    "former": _Look("hair"),
    "board": _Look("soft"),
    "strut": _Look("soft", 1.4),
    "centre": _Look("act", style=Qt.PenStyle.DashDotLine),
    "wanted": _Look("soft", style=Qt.PenStyle.DashLine),
    "estimated": _Look("ink", 1.5, fill="wing", depth=0.78),
    "estimated chosen": _Look("ink", 2.2, fill="act_wash", depth=0.55),
    "out": _Look("out", 2.2, fill="wing", depth=0.78),
    "out chosen": _Look("out", 2.2, fill="act_wash", depth=0.55),
    "reading": _Look("soft", ink=0.45),
    "reading lit": _Look("act", 2.6),
    "reading doubtful": _Look("out", 1.6, Qt.PenStyle.DashLine),
    "mark": _Look("act", 1.2, fill="paper"),
    "mark under": _Look("act", 1.2, fill="act"),
    "mark picked": _Look("act", 2.2, fill="act"),
}


def _in_steps(
    bounds: tuple[float, float, float, float] | None,
) -> tuple[float, float, float, float] | None:
    """Bounds in mm let out to whole steps."""
    if bounds is None:
        return None
    left, top, right, bottom = bounds
    longest = max(right - left, bottom - top, 1.0)
    step = 2.0 ** math.floor(math.log2(longest / _STEPS))
    return (
        math.floor(left / step) * step,
        math.floor(top / step) * step,
        math.ceil(right / step) * step,
        math.ceil(bottom / step) * step,
    )


class ThreeView(QWidget):
    """The three views.

    Arrow keys walk over the marks of the view from above, Page Up and Page Down through all of them,
    those that lie one above the other too; Enter picks one.

    Signals
    -------
    mark_picked : str
        A mark was clicked, or picked by key.
    body_picked : str, float
        A body was clicked, with y in mm where it was.
    reading_pointed : str
        The pointer is on this reading's string; empty when it has left.
    reading_picked : str
        A reading's string was clicked.
    place_picked : str, float, float
        While places are wanted: a view, and where in it, mm in its own axes.
    """

    mark_picked = pyqtSignal(str)
    body_picked = pyqtSignal(str, float)
    reading_pointed = pyqtSignal(str)
    reading_picked = pyqtSignal(str)
    place_picked = pyqtSignal(str, float, float)

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self._dresses: dict[str, tuple[QPen, QBrush]] = {}
        self._shown = Shown(Picture(()))
        self._viewports: dict[View, Viewport] = {}
        self._laid: object = None
        self._ground: QPixmap | None = None
        self._lit = ""
        self._picked_marks: tuple[str, ...] = ()
        self._chosen_body = ""
        self._under = ""
        self._wants = ""
        self._places: tuple[tuple[View, Point2], ...] = ()
        self.setMouseTracking(True)
        self.setFocusPolicy(
            Qt.FocusPolicy.TabFocus
        )  # a click must not take the cursor from a figure
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(say.THREE_VIEWS)

    def set_theme(self, theme: Theme) -> None:
        """Paint in another theme."""
        self._theme = theme
        self._dresses = {}
        self._lay()

    def show_picture(self, shown: Shown) -> None:
        """Draw another estimate."""
        self._shown = shown
        self._lay()

    def light_reading(self, reading: str) -> None:
        """Light the string of a reading; an empty id lights none."""
        if reading != self._lit:
            self._lit = reading
            self.update()

    def choose_body(self, body: str) -> None:
        """Draw one body as the picked one."""
        self._chosen_body = body
        self.update()

    def show_picked_marks(self, marks: Sequence[str]) -> None:
        """Ring the marks of a reading in the making."""
        self._picked_marks = tuple(marks)
        self.update()

    def show_places(self, places: tuple[tuple[View, Point2], ...]) -> None:
        """Cross where a body is held: views, and points in their own axes, mm."""
        if places != self._places:
            self._places = places
            self.update()

    def want(self, what: str) -> None:
        """While a reading is put together: take ``mark`` or ``body`` from clicks, and no strings; or any ``place``."""
        self._wants = what

    def mark_position(self, mark: str, view: View = "plan") -> QPointF | None:
        """Where a mark is painted, for tests and for the keyboard."""
        for stroke in self._shown.picture.of(view):
            if stroke.role == "mark" and stroke.ref == mark and view in self._viewports:
                return self._viewports[view].point(stroke.points[0])
        return None

    def place_of(self, view: View, u: float, v: float) -> QPointF:
        """Where a point of a view is painted."""
        return self._viewports[view].point((u, v))

    def sizeHint(self) -> QSize:
        """As large as there is room for."""
        return QSize(760, 470)

    def minimumSizeHint(self) -> QSize:
        """Small enough for 150 % text in a 1280 window."""
        return QSize(380, 240)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Fit the views again."""
        self._lay()

    def _lay(self) -> None:
        width, height = float(self.width()), float(self.height())
        split = height * _PLAN_SHARE
        boxes: dict[View, QRectF] = {
            "plan": QRectF(0, 0, width, split),
            "behind": QRectF(0, split, width / 2, height - split),
            "side": QRectF(width / 2, split, width / 2, height - split),
        }
        self._viewports = {}
        title = self._theme.px(18)
        for view in VIEWS:
            bounds = _in_steps(self._shown.picture.bounds(view))
            if bounds is not None:
                lower = self._theme.px(30) if view == "side" else 8
                box = boxes[view].adjusted(
                    _PADDING, title, -_PADDING, -8 if view == "plan" else -lower
                )
                self._viewports[view] = fit(box, bounds)
        self._keep_ground()
        self.update()

    def _keep_ground(self) -> None:
        """Forget what lies still, unless it is drawn as before."""
        still = tuple(one for one in self._shown.picture.strokes if one.role in _STILL)
        laid = (self.size(), self._theme, self._viewports, still)
        if laid != self._laid:
            self._laid, self._ground = laid, None

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Paint paper, views and callouts."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.drawPixmap(0, 0, self._ground_now())
        for view, viewport in self._viewports.items():
            for stroke in self._shown.picture.of(view):
                if stroke.role not in _STILL:
                    self._paint_stroke(painter, viewport, stroke)
            for stroke in self._shown.held:
                if stroke.view == view:
                    self._paint_held(painter, viewport, stroke)
        self._paint_places(painter)
        for callout in self._shown.callouts:
            self._paint_callout(painter, callout)
        self._paint_names(painter)
        if self.hasFocus():
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(self._theme.colour("act"), 2))
            painter.drawRect(self.rect().adjusted(1, 1, -1, -1))

    def _ground_now(self) -> QPixmap:
        """Paper and fuselage, which no reading moves, painted once."""
        ratio = self.devicePixelRatioF()
        if self._ground is None or self._ground.devicePixelRatio() != ratio:
            self._ground = QPixmap(self.size() * ratio)
            self._ground.setDevicePixelRatio(ratio)
            painter = QPainter(self._ground)
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            self._paint_paper(painter)
            for stroke in self._shown.picture.strokes:
                if stroke.role in _STILL and stroke.view in self._viewports:
                    self._paint_stroke(painter, self._viewports[stroke.view], stroke)
            painter.end()
        return self._ground

    def _paint_paper(self, painter: QPainter) -> None:
        theme = self._theme
        paint_paper(painter, theme, self.rect())
        split = round(self.height() * _PLAN_SHARE)
        painter.setPen(QPen(theme.colour("hair"), 1))
        painter.drawLine(10, split, self.width() - 10, split)
        painter.setPen(theme.colour("soft"))
        painter.setFont(theme.font(13))
        rise = theme.px(17)
        painter.drawText(14, rise, _TITLES["plan"])
        painter.drawText(14, split + rise, _TITLES["behind"])
        painter.drawText(self.width() // 2 + 14, split + rise, _TITLES["side"])

    def _paint_stroke(self, painter: QPainter, viewport: Viewport, stroke: Stroke) -> None:
        pen, brush = self._dress(stroke)
        painter.setPen(pen)
        painter.setBrush(brush)
        if stroke.role == "mark":
            large = stroke.ref in self._picked_marks or stroke.ref == self._under
            radius = 5.5 if large else 2.6
            painter.drawEllipse(viewport.point(stroke.points[0]), radius, radius)
        elif stroke.closed:
            painter.drawPolygon(viewport.polygon(stroke.points))
        else:
            painter.drawPolyline(viewport.polygon(stroke.points))

    def _dress(self, stroke: Stroke) -> tuple[QPen, QBrush]:
        """Pen and brush of a stroke; made once for a theme, for a picture has some hundred strokes."""
        manner = self._manner(stroke)
        if manner not in self._dresses:
            colour, look = self._theme.colour, _LOOKS[manner]
            brush = QBrush(Qt.BrushStyle.NoBrush)
            if look.fill:
                brush = QBrush(colour(look.fill, look.depth))
            self._dresses[manner] = QPen(colour(look.line, look.ink), look.width, look.style), brush
        return self._dresses[manner]

    def _manner(self, stroke: Stroke) -> str:
        """Which of `_LOOKS` a stroke has."""
        ref = stroke.ref
        match stroke.role:
            case "estimated":
                out = "out" if stroke.verdict == "out" else "estimated"
                return f"{out} chosen" if ref == self._chosen_body else out
            case "reading":
                if ref == self._lit:
                    return "reading lit"
                return "reading doubtful" if ref in self._shown.doubtful else "reading"
            case "mark":
                if ref in self._picked_marks:
                    return "mark picked"
                return "mark under" if ref == self._under else "mark"
            case role:
                return role

    def _paint_held(self, painter: QPainter, viewport: Viewport, stroke: Stroke) -> None:
        theme = self._theme
        shape = viewport.polygon(stroke.points)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(theme.colour("act"), 2.6))
        painter.drawPolyline(shape)
        for i in range(shape.count()):
            painter.setBrush(theme.colour("act") if i == 0 else theme.colour("paper"))
            painter.drawEllipse(shape.at(i), 5.0, 5.0)

    def _paint_places(self, painter: QPainter) -> None:
        """Where a body is held: a cross on its corner, as a builder marks a hole."""
        painter.setPen(QPen(self._theme.colour("act"), 1.6))
        size = self._theme.px(4)
        for view, place in self._places:
            if view in self._viewports:
                at = self._viewports[view].point(place)
                for way in (QPointF(size, size), QPointF(size, -size)):
                    painter.drawLine(at - way, at + way)

    def _paint_callout(self, painter: QPainter, callout: Callout) -> None:
        viewport = self._viewports.get(callout.view)
        rings = [
            s
            for s in self._shown.picture.of(callout.view)
            if s.role == "estimated" and s.ref == callout.body
        ]
        if viewport is None or not rings:
            return
        shape = viewport.polygon(rings[0].points).boundingRect()
        theme = self._theme
        painter.setFont(theme.font(13, weight=600))
        painter.setPen(theme.colour("out"))
        metrics = painter.fontMetrics()
        width = metrics.horizontalAdvance(callout.text)
        x = min(shape.right() + 8, viewport.box.right() + _PADDING - width - 4)
        x = max(x, 4.0)  # its beginning is not cut off on a narrow page
        y = shape.top() + metrics.ascent() / 2 if x > shape.right() else shape.top() - 8
        ground = QRectF(x - 3, y - metrics.ascent(), width + 6, metrics.height())
        painter.fillRect(ground, theme.colour("paper", 0.85))
        painter.drawText(QPointF(x, y), callout.text)

    def _paint_names(self, painter: QPainter) -> None:
        names = self._shown.names or {}
        theme = self._theme
        painter.setFont(theme.font(13, weight=500))
        metrics = painter.fontMetrics()
        for mark in {self._under, *self._picked_marks} - {""}:
            at = self.mark_position(mark)
            if at is None or mark not in names:
                continue
            width = metrics.horizontalAdvance(names[mark]) + 10
            x = min(max(at.x() - width / 2, 4.0), self.width() - width - 4.0)
            y = at.y() - metrics.height() - 10 if at.y() > metrics.height() * 2 else at.y() + 10
            box = QRectF(x, y, width, metrics.height() + 4)
            painter.setPen(QPen(theme.colour("act"), 1))
            painter.setBrush(theme.colour("paper"))
            painter.drawRect(box)
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, names[mark])

    # -- by keyboard -----------------------------------------------------------------------------

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Arrows walk from mark to mark, Enter or Space picks the one walked to."""
        if event is None:
            return
        key = Qt.Key(event.key())
        if key in _ARROWS:
            self._walk(_ARROWS[key])
        elif key in (Qt.Key.Key_PageUp, Qt.Key.Key_PageDown):
            self._leaf(1 if key == Qt.Key.Key_PageDown else -1)
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space) and self._under:
            at = self.mark_position(self._under)
            body = self._body_at(at) if at is not None and self._wants == "body" else None
            if body is not None:
                self.body_picked.emit(*body)
            elif self._wants != "body":
                self.mark_picked.emit(self._under)
        else:
            super().keyPressEvent(event)

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        """Begin at the mark that is farthest ahead."""
        super().focusInEvent(event)
        if not self._under:
            self._walk(_ARROWS[Qt.Key.Key_Right])

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        """Leave no mark lit behind."""
        super().focusOutEvent(event)
        self._point_at("")

    def _walk(self, way: QPointF) -> None:
        """Go to the next mark that way; from nowhere, to the one that all others lie behind."""
        marks = self._marks_seen()
        here = marks.get(self._under)

        def cost(at: QPointF) -> float:
            along = at if here is None else at - here
            ahead = QPointF.dotProduct(along, way)
            aside = abs(along.x() * way.y() - along.y() * way.x())
            return ahead + (0.0 if here is None else _STRAY * aside)

        onward = {
            mark: cost(at)
            for mark, at in marks.items()
            if here is None or QPointF.dotProduct(at - here, way) > 1
        }
        if onward:
            self._point_at(min(onward, key=onward.__getitem__))

    def _leaf(self, step: int) -> None:
        """Go to the next mark of the list, or the one before."""
        marks = list(self._marks_seen())
        if marks:
            here = marks.index(self._under) if self._under in marks else -1
            self._point_at(marks[(here + step) % len(marks)])

    def _marks_seen(self) -> dict[str, QPointF]:
        viewport = self._viewports.get("plan")
        if viewport is None:
            return {}
        strokes = self._shown.picture.of("plan")
        return {s.ref: viewport.point(s.points[0]) for s in strokes if s.role == "mark"}

    def _point_at(self, mark: str) -> None:
        """Show and say the name of a mark; an empty id shows none."""
        if mark != self._under:
            self._under = mark
            self.setAccessibleDescription((self._shown.names or {}).get(mark, ""))
            self.update()

    # -- by pointer ------------------------------------------------------------------------------

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Name what is pointed at."""
        if event is None:
            return
        at = event.position()
        mark = "" if self._wants == "body" else self._mark_at(at)
        reading = "" if mark or self._wants else self._reading_at(at)
        self._point_at(mark)
        if reading != self._lit:
            self.light_reading(reading)
            self.reading_pointed.emit(reading)
        pointing = bool(mark or reading)
        self.setCursor(
            Qt.CursorShape.PointingHandCursor if pointing else Qt.CursorShape.ArrowCursor
        )

    def leaveEvent(self, event: object) -> None:
        """Forget what was pointed at."""
        self._point_at("")
        self.light_reading("")
        self.reading_pointed.emit("")

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Pick the mark, string or part under the pointer."""
        if event is None:
            return
        at = event.position()
        if self._wants == "place":
            self._pick_place(at)
            return
        mark = "" if self._wants == "body" else self._mark_at(at)
        reading = "" if self._wants else self._reading_at(at)
        body = self._body_at(at)
        if mark:
            self.mark_picked.emit(mark)
        elif reading:
            self.reading_picked.emit(reading)
        elif body is not None:
            self.body_picked.emit(*body)

    def _pick_place(self, at: QPointF) -> None:
        """Where in which view: of two that lie under the pointer the one whose box holds it."""
        for view, viewport in self._viewports.items():
            if viewport.box.contains(at):
                self.place_picked.emit(view, *viewport.back(at))
                return

    def _mark_at(self, at: QPointF) -> str:
        best, found = self._theme.scale * _NEAR, ""
        for view, viewport in self._viewports.items():
            for stroke in self._shown.picture.of(view):
                if stroke.role == "mark":
                    gap = (viewport.point(stroke.points[0]) - at).manhattanLength()
                    if gap < best:
                        best, found = gap, stroke.ref
        return found

    def _reading_at(self, at: QPointF) -> str:
        best, found = self._theme.scale * _NEAR / 2, ""
        for view, viewport in self._viewports.items():
            for stroke in self._shown.picture.of(view):
                if stroke.role == "reading":
                    gap = distance_to(at, viewport.polygon(stroke.points))
                    if gap < best:
                        best, found = gap, stroke.ref
        return found

    def _body_at(self, at: QPointF) -> tuple[str, float] | None:
        for view, viewport in self._viewports.items():
            for stroke in reversed(self._shown.picture.of(view)):
                if stroke.role != "estimated":
                    continue
                if QPolygonF(viewport.polygon(stroke.points)).containsPoint(
                    at, Qt.FillRule.OddEvenFill
                ):
                    u, _ = viewport.back(at)
                    return stroke.ref, (0.0 if view == "side" else u)
        return None
