"""The keel line: the builder's own airframe from the side, to scale, with each part's state."""

from dataclasses import dataclass, field
from typing import Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QFontMetrics, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.messages import shell as say
from hardkeel.messages.shell import SIDE_VIEW_HERE
from hardkeel.parts.model import State
from hardkeel.picture.truing import Stroke
from hardkeel.survey.model import Verdict
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.part_state import paint_state
from hardkeel.ui.widgets.vial import paint_shape
from hardkeel.ui.widgets.viewport import Viewport, distance_to, fit, section_path

_HEIGHT: Final = 130
_LEFT: Final = 236  # the name and the switches stand here
_SPARED: Final = 0.36  # of the width, for the list of parts
_RIGHT: Final = 190
_NEAR_PX: Final = 7.0


@dataclass(frozen=True, slots=True)
class PartState:
    """A part on the keel line with its state in words."""

    body: str
    name: str
    verdict: Verdict | None
    text: str


@dataclass(frozen=True, slots=True)
class Keel:
    """What the keel line draws: strokes of the side view and states of parts."""

    strokes: tuple[Stroke, ...] = ()
    parts: tuple[PartState, ...] = ()
    states: dict[str, State] = field(default_factory=dict)


class KeelLine(QWidget):
    """The airframe across the top of the window.

    Signals
    -------
    body_picked : str
        A part was clicked.
    stop_picked : str
        A former was clicked.
    """

    body_picked = pyqtSignal(str)
    station_picked = pyqtSignal(str)

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self._keel = Keel()
        self._chosen = ""
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setAccessibleName(say.KEEL_LINE)

    def set_theme(self, theme: Theme) -> None:
        """Paint in another theme."""
        self._theme = theme
        self.updateGeometry()
        self.update()

    def show_keel(self, keel: Keel) -> None:
        """Draw another airframe or other states."""
        self._keel = keel
        self.update()

    def choose_body(self, body: str) -> None:
        """Draw one part as picked."""
        self._chosen = body
        self.update()

    def sizeHint(self) -> QSize:
        """Across the window."""
        return QSize(1000, self._theme.px(_HEIGHT))

    def minimumSizeHint(self) -> QSize:
        """Narrower, but as tall."""
        return QSize(600, self._theme.px(_HEIGHT))

    def _viewport(self) -> Viewport | None:
        points = [point for stroke in self._keel.strokes for point in stroke.points]
        if not points:
            return None
        us, vs = [p[0] for p in points], [p[1] for p in points]
        top, bottom = self._theme.px(9), self._theme.px(22)
        left, right = self._theme.px(_LEFT), self._list_width()
        box = QRectF(left, top, max(self.width() - left - right, 50), self.height() - top - bottom)
        return fit(box, (min(us), min(vs), max(us), max(vs)))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Paint the side view with its states."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        theme = self._theme
        painter.fillRect(self.rect(), theme.colour("paper"))
        painter.setPen(QPen(theme.colour("ink"), 1.2))
        painter.drawLine(0, self.height() - 1, self.width(), self.height() - 1)
        viewport = self._viewport()
        if viewport is None:
            self._paint_empty(painter)
            return
        for stroke in self._keel.strokes:
            if stroke.role == "fuselage":
                painter.setPen(QPen(theme.colour("ink"), 1.6))
                painter.setBrush(theme.colour("wood"))
                painter.drawPolygon(viewport.polygon(stroke.points))
        self._paint_formers(painter, viewport)
        self._paint_bodies(painter, viewport)
        self._paint_states(painter, viewport)

    def _paint_empty(self, painter: QPainter) -> None:
        painter.setPen(QPen(self._theme.colour("hair"), 1.4, Qt.PenStyle.DashLine))
        middle = self.height() / 2
        painter.drawLine(QPointF(self._theme.px(_LEFT), middle), QPointF(self.width() - 60, middle))
        painter.setPen(self._theme.colour("soft"))
        painter.setFont(self._theme.font(14))
        painter.drawText(QPointF(self._theme.px(_LEFT), middle - 8), SIDE_VIEW_HERE)

    def _paint_formers(self, painter: QPainter, viewport: Viewport) -> None:
        theme = self._theme
        painter.setFont(theme.font(12))
        metrics = painter.fontMetrics()
        low = self.height() - theme.px(7)
        last = float("-inf")
        for stroke in self._keel.strokes:
            if stroke.role != "former":
                continue
            line = viewport.polygon(stroke.points)
            chosen = stroke.ref == self._chosen
            painter.setPen(QPen(theme.colour("act" if chosen else "soft"), 2.4 if chosen else 1))
            painter.drawPolyline(line)
            state = self._keel.states.get(stroke.ref)
            if state is not None:
                paint_state(painter, (line.at(0) + line.at(1)) / 2, state, theme)
            width = metrics.horizontalAdvance(stroke.ref)
            x = line.at(0).x() - width / 2
            if x > last + 6:  # crowded names are left out, their ticks stay
                painter.drawText(QPointF(x, low), stroke.ref)
                last = x + width

    def _paint_bodies(self, painter: QPainter, viewport: Viewport) -> None:
        theme = self._theme
        painter.setPen(QPen(theme.colour("soft"), 1.4))
        for stroke in self._keel.strokes:
            if stroke.role == "strut":
                painter.drawPolyline(viewport.polygon(stroke.points))
        states = {part.body: part.verdict for part in self._keel.parts}
        for stroke in self._keel.strokes:
            if stroke.role != "wanted":
                continue
            out = states.get(stroke.ref) == "out"
            chosen = stroke.ref == self._chosen
            colour = theme.colour("out" if out else "act" if chosen else "ink")
            painter.setPen(QPen(colour, 2.6 if out or chosen else 1.6))
            painter.setBrush(theme.colour("wing"))
            painter.drawPath(section_path(viewport, stroke.points))

    def _paint_states(self, painter: QPainter, viewport: Viewport) -> None:
        """Name and state of each part to the right, in the order of the airframe."""
        theme = self._theme
        line = theme.px(16)
        parts = self._keel.parts
        x = self.width() - self._list_width() + 18
        first, pitch = self.rows()
        y = first + line
        if pitch < 2 * line:
            self._paint_states_in_a_line_each(painter, QPointF(x, first), pitch)
            return
        for part in parts:
            colour = theme.colour({"out": "out", "unsure": "act"}.get(part.verdict or "", "ink"))
            paint_shape(painter, QPointF(x, y - line * 0.3), part.verdict, colour, theme.px(9))
            painter.setPen(colour)
            painter.setFont(theme.font(14, weight=600))
            metrics = painter.fontMetrics()
            room = int(self.width() - x - 20)
            painter.drawText(
                QPointF(x + 12, y), metrics.elidedText(part.name, Qt.TextElideMode.ElideRight, room)
            )
            painter.setFont(theme.font(13))
            painter.setPen(theme.colour("out" if part.verdict == "out" else "soft"))
            metrics = painter.fontMetrics()
            text = metrics.elidedText(part.text, Qt.TextElideMode.ElideRight, room)
            painter.drawText(QPointF(x + 12, y + line * 0.92), text)
            y += pitch

    def _list_width(self) -> float:
        """How wide the list of parts is, pixels: what each needs in one line, as far as the drawing can spare it."""
        theme, usual = self._theme, float(self._theme.px(_RIGHT))
        if self.rows()[1] >= 2 * theme.px(16):
            return usual
        names = QFontMetrics(theme.font(13, weight=600))
        texts = QFontMetrics(theme.font(12))
        wanted = max(
            names.horizontalAdvance(part.name) + texts.horizontalAdvance(part.text)
            for part in self._keel.parts
        )
        return min(max(usual, wanted + 60.0), max(usual, _SPARED * self.width()))

    def rows(self) -> tuple[float, float]:
        """Where the list of parts begins, and how far apart its entries are, pixels."""
        line, count = self._theme.px(16), max(1, len(self._keel.parts))
        room = self.height() - 8.0
        pitch = 2.0 * line if 2 * line * count <= room else min(1.25 * line, room / count)
        return (self.height() - pitch * count) / 2, pitch

    def _paint_states_in_a_line_each(self, painter: QPainter, at: QPointF, pitch: float) -> None:
        """More parts than have room for two lines: name and state side by side."""
        theme, x = self._theme, at.x()
        for i, part in enumerate(self._keel.parts):
            y = at.y() + pitch * (i + 0.72)
            colour = theme.colour({"out": "out", "unsure": "act"}.get(part.verdict or "", "ink"))
            paint_shape(painter, QPointF(x, y - pitch * 0.25), part.verdict, colour, theme.px(9))
            painter.setPen(colour)
            painter.setFont(theme.font(13, weight=600))
            room, metrics = int(self.width() - x - 20), painter.fontMetrics()
            name = metrics.elidedText(part.name, Qt.TextElideMode.ElideRight, room)
            painter.drawText(QPointF(x + 12, y), name)
            used = metrics.horizontalAdvance(name) + 8
            painter.setFont(theme.font(12))
            painter.setPen(theme.colour("out" if part.verdict == "out" else "soft"))
            text = painter.fontMetrics().elidedText(
                part.text, Qt.TextElideMode.ElideRight, room - used
            )
            painter.drawText(QPointF(x + 12 + used, y), text)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Pick the part under the pointer, or its name."""
        viewport = self._viewport()
        if event is None or viewport is None:
            return
        at = event.position()
        count = len(self._keel.parts)
        first, pitch = self.rows()
        if at.x() > self.width() - self._list_width() + 10 and count:
            index = int((at.y() - first) // pitch)
            if 0 <= index < count:
                self.body_picked.emit(self._keel.parts[index].body)
            return
        for stroke in reversed(self._keel.strokes):
            if stroke.role == "wanted":
                box = section_path(viewport, stroke.points).boundingRect().adjusted(-6, -6, 6, 6)
                if box.contains(at):
                    self.body_picked.emit(stroke.ref)
                    return
        for stroke in self._keel.strokes:
            if stroke.role == "former":
                line = viewport.polygon(stroke.points)
                if distance_to(at, line) < _NEAR_PX:
                    self.station_picked.emit(stroke.ref)
                    return
