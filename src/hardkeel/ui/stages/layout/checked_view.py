"""A checked part drawn on its mat: wood as wood, what is proud or gone along its edges many times as large."""

from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QFontMetrics, QPainter, QPainterPath, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.geometry.hull import Point2
from hardkeel.messages import mat as say
from hardkeel.picture.wood import Tone, WoodShape, down
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.viewport import Viewport, fit
from hardkeel.ui.widgets.wood import paint_wood, shape_path

_GROUND: Final = {"light": "#A9D4DC", "dark": "#1F4650"}
_ROOM_PX: Final = 64
_CALL_PX: Final = 34
_END_PX: Final = 11
_FAR_MM: Final = 4.0
_TURN: Final = (
    0.9  # the cosine between two places' outward ways, from which a corner lies between them
)


@dataclass(frozen=True, slots=True)
class EdgePlace:
    """A place on a drawn edge: where, its way out of the wood, wood left on, mm; ``None`` where it was not seen."""

    at: Point2
    out: Point2
    by: float | None
    ring: int


@dataclass(frozen=True, slots=True)
class Call:
    """A figure that stands at a place, and the marks that its stretch lies between."""

    at: Point2
    out: Point2
    text: str
    ends: tuple[Point2, ...]
    proud: bool


@dataclass(frozen=True, slots=True)
class CheckedShown:
    """A part with what was found; v up, mm."""

    rings: tuple[tuple[Point2, ...], ...]
    tone: Tone
    places: tuple[EdgePlace, ...] = ()
    calls: tuple[Call, ...] = ()
    limit: float = 0.1


class CheckedView(QWidget):
    """Draws the part in hand."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self._theme = theme
        self._shown: CheckedShown | None = None
        self._times = 10
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(say.VIEW)

    def sizeHint(self) -> QSize:
        """Most of a page."""
        return QSize(640, self._theme.px(420))

    def minimumSizeHint(self) -> QSize:
        """Enough for a part with its figures."""
        return QSize(320, self._theme.px(220))

    def show_part(self, shown: CheckedShown | None, words: str) -> None:
        """Show a part; the words are what it shows, for who can't see it."""
        self._shown = shown
        self.setAccessibleDescription(words)
        self.update()

    def show_times(self, times: int) -> None:
        """How many times as large what is off is drawn."""
        self._times = times
        self.update()

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        self.updateGeometry()
        self.update()

    # -- painting ----------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """The mat, the wood, what is off, its figures."""
        theme, painter = self._theme, QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), QColor(_GROUND[theme.name]))
        shown = self._shown
        if shown is not None:
            room = float(theme.px(_ROOM_PX))
            box = QRectF(self.rect()).adjusted(room, room * 0.8, -room, -room)
            us = [u for u, _ in shown.rings[0]]
            vs = [-v for _, v in shown.rings[0]]
            view = fit(box, (min(us), min(vs), max(us), max(vs)))
            outline, *holes = (down(ring) for ring in shown.rings)
            wood = WoodShape("", outline, tuple(holes), grain=90.0, tone=shown.tone)
            paint_wood(painter, theme, wood, shape_path(view, wood))
            self._paint_off(painter, view, shown)
            for call in shown.calls:
                self._paint_call(painter, view, call)
            if shown.places:
                self._paint_key(painter)
        painter.end()

    def _paint_off(self, painter: QPainter, view: Viewport, shown: CheckedShown) -> None:
        """Bands between where each edge is drawn and where it is, so many times as far away."""
        for ring in {one.ring for one in shown.places}:
            mine = [one for one in shown.places if one.ring == ring]
            for a, b in zip(mine, (*mine[1:], mine[0]), strict=True):
                if a.by is None or b.by is None or _is_corner(a, b):
                    continue
                mean = (a.by + b.by) / 2
                corners = [
                    view.point((a.at[0], -a.at[1])),
                    view.point((b.at[0], -b.at[1])),
                    self._moved(view, b),
                    self._moved(view, a),
                ]
                colour = self._colour(mean, shown.limit)
                painter.setPen(QPen(colour, 0.7))  # else the bands' seams show
                painter.setBrush(colour)
                painter.drawPolygon(QPolygonF(corners))
        painter.setBrush(Qt.BrushStyle.NoBrush)

    def _moved(self, view: Viewport, place: EdgePlace) -> QPointF:
        off = (place.by or 0.0) * self._times
        return view.point((place.at[0] + off * place.out[0], -(place.at[1] + off * place.out[1])))

    def _colour(self, by: float, limit: float) -> QColor:
        if abs(by) < limit:
            return self._theme.colour("soft")
        return self._theme.colour("out" if by > 0 else "act")

    def _paint_call(self, painter: QPainter, view: Viewport, call: Call) -> None:
        theme = self._theme
        colour = theme.colour("out" if call.proud else "act")
        painter.setPen(QPen(colour, 1.6))
        for end in call.ends:
            at = view.point((end[0], -end[1]))
            out = QPointF(call.out[0], -call.out[1]) * _END_PX
            painter.drawLine(at - out, at + out)
        at = view.point((call.at[0], -call.at[1]))
        far = at + QPointF(call.out[0], -call.out[1]) * theme.px(_CALL_PX)
        font = theme.font(17, weight=600)
        painter.setFont(font)
        metrics = QFontMetrics(font)
        wide, tall = metrics.horizontalAdvance(call.text) + 12, metrics.height() + 4
        box = QRectF(far.x() - wide / 2, far.y() - tall / 2, wide, tall)
        box.moveLeft(min(max(box.left(), 4.0), self.width() - wide - 4.0))
        box.moveTop(min(max(box.top(), 4.0), self.height() - tall - 4.0))
        painter.drawLine(at, box.center())
        path = QPainterPath()
        path.addRoundedRect(box, 3, 3)
        painter.fillPath(path, theme.colour("paper"))
        painter.drawPath(path)
        painter.setPen(colour)
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, call.text)

    def _paint_key(self, painter: QPainter) -> None:
        """What the colours mean."""
        theme = self._theme
        painter.setFont(theme.font(14))
        x, y = 14.0, self.height() - theme.px(18)
        for name, words in (("ink", say.DRAWN), ("out", say.PROUD), ("act", say.SHORT)):
            painter.setPen(QPen(theme.colour(name), 3.0 if name != "ink" else 1.2))
            painter.drawLine(QPointF(x, y), QPointF(x + 18, y))
            painter.setPen(theme.colour("ink"))
            painter.drawText(QPointF(x + 24, y + theme.px(5)), words)
            x += 40 + painter.fontMetrics().horizontalAdvance(words)


def _is_corner(a: EdgePlace, b: EdgePlace) -> bool:
    """Whether the edge turns between two places, or one that was not seen lies between them."""
    apart = float(((a.at[0] - b.at[0]) ** 2 + (a.at[1] - b.at[1]) ** 2) ** 0.5)
    alike = a.out[0] * b.out[0] + a.out[1] * b.out[1]
    return apart > _FAR_MM or alike < _TURN
