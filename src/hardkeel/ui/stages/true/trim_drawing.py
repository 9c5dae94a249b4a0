"""Decalage over balance on the wing's own chord: the line that trims, the neutral point, and where the model stands."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.base.units import shortest
from hardkeel.messages import air as say
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.viewport import paint_paper

_At = Callable[[float, float], QPointF]
_CHORD_SHARE: Final = 0.24  # of the height: the wing's section over the graph
_LEAST_TALL: Final = 3.0  # degrees that the graph shows at least
_STEP_DEGREES: Final = (0.5, 1.0, 2.0, 5.0, 10.0)
_MOST_LINES: Final = 8
_FLOWN: Final = (0.1, 0.8)  # of the drawing: what lies beyond does not set its scale


@dataclass(frozen=True, slots=True)
class TrimCurve:
    """One lift coefficient's line: points (balance as a fraction of the chord, degrees)."""

    words: str
    points: tuple[tuple[float, float], ...]
    chosen: bool


@dataclass(frozen=True, slots=True)
class TrimShown:
    """All that is drawn; fractions of the mean chord and degrees.

    Attributes
    ----------
    outline : tuple of (x, z)
        The wing's section in shares of its chord, nose first, round to the nose.
    stands : tuple of float, optional
        Balance, decalage and twice its sigma, as the model stands.
    at : tuple of float, optional
        Balance and decalage that are tried.
    first : float
        Where the drawing begins; ahead of the wing where a foreplane carries a part.
    """

    outline: tuple[tuple[float, float], ...] = ()
    curves: tuple[TrimCurve, ...] = ()
    neutral: float | None = None
    stands: tuple[float, float, float] | None = None
    at: tuple[float, float] | None = None
    first: float = 0.0


class TrimDrawing(QWidget):
    """The picture; the tried point is dragged along the chord.

    Signals
    -------
    balance_dragged : float
        Another balance point is tried, a fraction of the chord.
    """

    balance_dragged = pyqtSignal(float)

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self._shown = TrimShown()
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(say.TRIM_DRAWING)
        self.setCursor(Qt.CursorShape.SizeHorCursor)

    def show_trim(self, shown: TrimShown) -> None:
        """Draw another state."""
        self._shown = shown
        self.update()

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        self.update()

    def sizeHint(self) -> QSize:
        """Wide, with room for the graph."""
        return QSize(720, 520)

    def minimumSizeHint(self) -> QSize:
        """Still readable."""
        return QSize(320, 260)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Take the point there."""
        self._drag(event)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Drag it along."""
        self._drag(event)

    def _drag(self, event: QMouseEvent | None) -> None:
        if event is None or self._shown.at is None:
            return
        left, wide = self._left(), self._wide()
        self.balance_dragged.emit(self._shown.first + (event.position().x() - left) / wide)

    # -- where things are ------------------------------------------------------------------------

    def _left(self) -> float:
        return float(self._theme.px(58))

    def _wide(self) -> float:
        return max(self.width() - self._left() - self._theme.px(28), 1.0)

    def _x(self, share: float) -> float:
        return self._left() + (share - self._shown.first) * self._wide()

    def _graph(self) -> QRectF:
        top = self.height() * _CHORD_SHARE + self._theme.px(44)
        return QRectF(self._left(), top, self._wide(), self.height() - top - self._theme.px(40))

    def _range(self) -> tuple[float, float]:
        shown = self._shown
        told = [
            y
            for curve in shown.curves
            for x, y in curve.points
            if _FLOWN[0] <= x - shown.first <= _FLOWN[1]
        ]
        if shown.stands is not None:
            told += [shown.stands[1] - shown.stands[2], shown.stands[1] + shown.stands[2]]
        if shown.at is not None:
            told.append(shown.at[1])
        if not told:
            return -_LEAST_TALL / 2, _LEAST_TALL / 2
        low, high = min(told), max(told)
        spare = max(_LEAST_TALL - (high - low), 0.1 * (high - low)) / 2
        return low - spare, high + spare

    # -- painting --------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """The section over its chord, and the graph under it on the same scale."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        paint_paper(painter, self._theme, self.rect())
        shown = self._shown
        if not shown.curves:
            painter.setPen(self._theme.colour("soft"))
            painter.setFont(self._theme.font(15))
            painter.drawText(QRectF(self.rect()), Qt.AlignmentFlag.AlignCenter, say.NOT_KNOWN_YET)
            return
        graph = self._graph()
        low, high = self._range()

        def at(balance: float, degrees: float) -> QPointF:
            share = (degrees - low) / (high - low)
            return QPointF(self._x(balance), graph.bottom() - share * graph.height())

        self._paint_scale(painter, graph, (low, high), at)
        self._paint_beyond(painter, graph)
        self._paint_section(painter)
        painter.save()
        painter.setClipRect(graph)
        for curve in shown.curves:
            painter.setPen(
                QPen(
                    self._theme.colour("act" if curve.chosen else "soft"),
                    2.4 if curve.chosen else 1.0,
                )
            )
            painter.drawPolyline(QPolygonF([at(x, y) for x, y in curve.points]))
        painter.restore()
        self._paint_curve_names(painter, graph, at)
        self._paint_points(painter, graph, at)

    def _paint_scale(
        self, painter: QPainter, graph: QRectF, span: tuple[float, float], at: _At
    ) -> None:
        theme = self._theme
        low, high = span
        step = next(
            (s for s in _STEP_DEGREES if (high - low) / s <= _MOST_LINES), _STEP_DEGREES[-1]
        )
        painter.setFont(theme.font(13))
        degrees = step * (int(low / step) - 1)
        while degrees <= high:
            if degrees >= low:
                y = at(0, degrees).y()
                painter.setPen(QPen(theme.colour("hair"), 1))
                painter.drawLine(QPointF(graph.left(), y), QPointF(graph.right(), y))
                painter.setPen(theme.colour("soft"))
                box = QRectF(0, y - theme.px(9), graph.left() - theme.px(6), theme.px(18))
                right = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
                painter.drawText(box, right, f"{shortest(degrees)}°".replace("-", "−"))
            degrees += step
        begin = round(100 * self._shown.first)
        for percent in range(begin, begin + 101, 10):
            x = self._x(percent / 100)
            painter.setPen(QPen(theme.colour("hair"), 1))
            painter.drawLine(QPointF(x, graph.bottom()), QPointF(x, graph.bottom() + 4))
            if percent % 20 == 0:
                painter.setPen(theme.colour("soft"))
                box = QRectF(x - 40, graph.bottom() + 5, 80, theme.px(18))
                painter.drawText(
                    box, Qt.AlignmentFlag.AlignHCenter, f"{percent} %".replace("-", "−")
                )
        painter.setPen(theme.colour("soft"))
        painter.drawText(QPointF(graph.left() + 4, graph.top() - theme.px(6)), say.DECALAGE_AXIS)
        foot = QRectF(graph.left(), graph.bottom() + theme.px(20), graph.width(), theme.px(18))
        painter.drawText(foot, Qt.AlignmentFlag.AlignRight, say.BALANCE_AXIS)

    def _paint_beyond(self, painter: QPainter, graph: QRectF) -> None:
        """Aft of the neutral point it does not come back by itself."""
        theme, neutral = self._theme, self._shown.neutral
        if neutral is None:
            return
        x = min(max(self._x(neutral), graph.left()), graph.right())
        beyond = QRectF(x, graph.top(), graph.right() - x, graph.height())
        painter.fillRect(beyond, theme.colour("hair", 0.3))
        top = self.height() * _CHORD_SHARE + theme.px(14)
        painter.setPen(QPen(theme.colour("ink"), 1.6))
        painter.drawLine(QPointF(x, top), QPointF(x, graph.bottom()))
        painter.setFont(theme.font(13, weight=600))
        metrics = painter.fontMetrics()
        words = say.neutral_words(neutral)
        wide = metrics.horizontalAdvance(words)
        left = min(x + 5, self.width() - wide - 4.0)
        painter.drawText(QPointF(left, top + metrics.ascent()), words)
        if beyond.width() > metrics.horizontalAdvance(say.NOT_STABLE) + 10:
            painter.drawText(QPointF(x + 6, graph.bottom() - 8), say.NOT_STABLE)

    def _paint_section(self, painter: QPainter) -> None:
        theme, shown = self._theme, self._shown
        middle = self.height() * _CHORD_SHARE * 0.55
        points = [QPointF(self._x(x), middle - z * self._wide()) for x, z in shown.outline]
        painter.setPen(QPen(theme.colour("ink"), 1.6))
        painter.setBrush(theme.colour("wing"))
        painter.drawPolygon(QPolygonF(points))
        painter.setPen(QPen(theme.colour("soft"), 1, Qt.PenStyle.DashDotLine))
        painter.drawLine(QPointF(self._x(0), middle), QPointF(self._x(1), middle))
        if shown.at is None:
            return
        x = self._x(shown.at[0])
        foot = middle + self._theme.px(26)
        painter.setPen(QPen(theme.colour("act"), 2))
        painter.setBrush(theme.colour("act"))
        size = theme.px(8)
        painter.drawPolygon(
            QPolygonF(
                [
                    QPointF(x, foot - size),
                    QPointF(x - size, foot + size),
                    QPointF(x + size, foot + size),
                ]
            )
        )

    def _paint_curve_names(self, painter: QPainter, graph: QRectF, at: _At) -> None:
        theme = self._theme
        for curve in self._shown.curves:
            room = graph.top() + theme.px(18)
            inside = [(x, y) for x, y in curve.points if room <= at(x, y).y() <= graph.bottom()]
            if not inside:
                continue
            where = at(*inside[0])
            painter.setFont(theme.font(13, weight=600 if curve.chosen else 400))
            painter.setPen(theme.colour("act" if curve.chosen else "soft"))
            painter.drawText(where + QPointF(6, -5), curve.words)

    def _paint_points(self, painter: QPainter, graph: QRectF, at: _At) -> None:
        theme, shown = self._theme, self._shown
        if shown.stands is not None:
            balance, decalage, doubt = shown.stands
            where = at(balance, decalage)
            painter.setPen(QPen(theme.colour("ink"), 1.6))
            painter.setBrush(theme.colour("fluid", 0.9))
            half = max(abs(at(balance, decalage + doubt).y() - where.y()), theme.px(7))
            wide = theme.px(7)
            painter.drawRoundedRect(
                QRectF(where.x() - wide, where.y() - half, 2 * wide, 2 * half), wide, wide
            )
            painter.setFont(theme.font(13, weight=600))
            metrics = painter.fontMetrics()
            plate = QRectF(
                where.x() + wide + 4,
                where.y() - metrics.height(),
                metrics.horizontalAdvance(say.AS_IT_STANDS) + 4.0,
                metrics.height(),
            )
            painter.fillRect(plate, theme.colour("paper", 0.85))
            painter.drawText(plate, Qt.AlignmentFlag.AlignCenter, say.AS_IT_STANDS)
        if shown.at is not None:
            where = at(*shown.at)
            painter.setPen(QPen(theme.colour("act"), 1.2, Qt.PenStyle.DashLine))
            painter.drawLine(QPointF(where.x(), graph.top()), QPointF(where.x(), graph.bottom()))
            painter.drawLine(QPointF(graph.left(), where.y()), where)
            painter.setPen(QPen(theme.colour("paper"), 2))
            painter.setBrush(theme.colour("act"))
            painter.drawEllipse(where, theme.px(7), theme.px(7))
