"""Measured minus plan against the plan's dimension, with what the cause makes of it."""

import math
from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.base.units import LengthUnit, format_length
from hardkeel.messages import layout as say
from hardkeel.ui.theme import Theme

_LEGEND: Final = (
    ("outline", "outside", False),
    ("spacing", "spacing", False),
    ("bent-length", "bent", False),
    ("outline", "hollow: across", True),
)
_STEPS: Final = (0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000)


@dataclass(frozen=True, slots=True)
class Spot:
    """A pair: its plan dimension, what it is off, what the cause makes of it, mm."""

    plan: float
    off: float
    fitted: float
    sigma: float
    kind: str
    across: bool
    wrong: bool
    name: str


class AuditChart(QWidget):
    """The pairs of a sheet.

    Circles are outside dimensions, squares spacings, triangles bent lengths; filled along the paper,
    hollow across it.  A dash beside each is what the cause expects.
    """

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self._spots: tuple[Spot, ...] = ()
        self._unit: LengthUnit = "mm"
        self._chosen = -1
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(say.CHART_NAME)

    def show_spots(
        self, spots: tuple[Spot, ...], unit: LengthUnit, theme: Theme, chosen: int = -1
    ) -> None:
        """Show another sheet."""
        self._spots, self._unit, self._theme, self._chosen = spots, unit, theme, chosen
        self.update()

    def sizeHint(self) -> QSize:
        """Wider than tall."""
        return QSize(700, 330)

    def minimumSizeHint(self) -> QSize:
        """Still readable."""
        return QSize(320, 180)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Paint axes, expectations and pairs."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        theme = self._theme
        painter.fillRect(self.rect(), theme.colour("paper"))
        painter.setFont(theme.font(13))
        if not self._spots:
            painter.setPen(theme.colour("soft"))
            painter.drawText(QRectF(self.rect()), Qt.AlignmentFlag.AlignCenter, say.PAIRS_HERE)
            return
        left, low = theme.px(64), theme.px(36)
        box = QRectF(
            left, theme.px(30), self.width() - left - 20, self.height() - low - theme.px(30)
        )
        widest = max(spot.plan for spot in self._spots) * 1.06
        values = [v for s in self._spots for v in (s.off - s.sigma, s.off + s.sigma, s.fitted, 0.0)]
        bottom, top = min(values), max(values)
        pad = max((top - bottom) * 0.12, 0.3)
        bottom, top = bottom - pad, top + pad

        def at(plan: float, off: float) -> QPointF:
            x = box.left() + box.width() * plan / widest
            return QPointF(x, box.bottom() - box.height() * (off - bottom) / (top - bottom))

        self._paint_axes(painter, box, (widest, bottom, top))
        self._paint_legend(painter)
        order = sorted(self._spots, key=lambda spot: spot.plan)
        painter.setPen(QPen(theme.colour("act"), 2.4))
        for spot in order:
            middle = at(spot.plan, spot.fitted)
            painter.drawLine(middle - QPointF(13, 0), middle + QPointF(13, 0))
        for i, spot in enumerate(self._spots):
            self._paint_spot(painter, spot, at, chosen=i == self._chosen)

    def _paint_axes(
        self, painter: QPainter, box: QRectF, reach: tuple[float, float, float]
    ) -> None:
        theme, (widest, bottom, top) = self._theme, reach
        painter.setPen(theme.colour("soft"))
        painter.drawText(QPointF(8, theme.px(18)), "measured minus plan")
        words = "plan dimension"
        width = painter.fontMetrics().horizontalAdvance(words)
        painter.drawText(QPointF(box.right() - width, self.height() - 5.0), words)
        for value in _ticks(bottom, top, 5):
            y = box.bottom() - box.height() * (value - bottom) / (top - bottom)
            zero = abs(value) < 1e-9  # noqa: PLR2004  the line of a right sheet
            painter.setPen(QPen(theme.colour("ink" if zero else "grid"), 1))
            painter.drawLine(QPointF(box.left(), y), QPointF(box.right(), y))
            painter.setPen(theme.colour("soft"))
            told = format_length(value, self._unit)
            painter.drawText(
                QRectF(0, y - theme.px(10), box.left() - 8, theme.px(20)),
                Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter,
                told,
            )
        for value in _ticks(0, widest, 6):
            x = box.left() + box.width() * value / widest
            painter.setPen(QPen(theme.colour("hair"), 1))
            painter.drawLine(QPointF(x, box.bottom()), QPointF(x, box.bottom() + 4))
            painter.setPen(theme.colour("soft"))
            told = format_length(value, self._unit, 0)
            half = painter.fontMetrics().horizontalAdvance(told) / 2 + 2
            middle = min(x, self.width() - half)
            painter.drawText(
                QRectF(middle - half, box.bottom() + 4, 2 * half, self._theme.px(18)),
                Qt.AlignmentFlag.AlignCenter,
                told,
            )

    def _shape(
        self,
        painter: QPainter,
        at: QPointF,
        kind: str,
        colour: QColor,
        *,
        across: bool,
        size: float = 5.5,
    ) -> None:
        """Round for outside, square for spacings, a triangle for bent lengths; hollow for across."""
        painter.setPen(QPen(colour, 1.6))
        painter.setBrush(self._theme.colour("paper") if across else colour)
        if kind == "outline":
            painter.drawEllipse(at, size, size)
        elif kind == "spacing":
            painter.drawRect(QRectF(at.x() - size, at.y() - size, 2 * size, 2 * size))
        else:
            corners = [(0, -size * 1.2), (size * 1.1, size * 0.8), (-size * 1.1, size * 0.8)]
            painter.drawPolygon(QPolygonF([at + QPointF(x, y) for x, y in corners]))

    def _paint_legend(self, painter: QPainter) -> None:
        theme = self._theme
        colour = theme.colour("soft")
        x, y = self.width() - 12.0, float(theme.px(14))
        metrics = painter.fontMetrics()
        for kind, words, across in _LEGEND[::-1]:
            x -= metrics.horizontalAdvance(words)
            painter.setPen(colour)
            painter.drawText(QPointF(x, y + metrics.ascent() / 2 - 2), words)
            x -= theme.px(13)
            self._shape(painter, QPointF(x, y), kind, colour, across=across, size=4.5)
            x -= theme.px(20)

    def _paint_spot(self, painter: QPainter, spot: Spot, at: object, *, chosen: bool) -> None:
        theme = self._theme
        place = at(spot.plan, spot.off)  # type: ignore[operator]
        up = at(spot.plan, spot.off + spot.sigma)  # type: ignore[operator]
        colour = theme.colour("out" if spot.wrong else "ink")
        painter.setPen(QPen(colour, 1))
        reach = place.y() - up.y()
        painter.drawLine(
            QPointF(place.x(), place.y() - reach), QPointF(place.x(), place.y() + reach)
        )
        size = 7.5 if chosen else 5.5
        self._shape(painter, place, spot.kind, colour, across=spot.across, size=size)
        if spot.wrong or chosen:
            painter.setPen(colour)
            painter.drawText(place + QPointF(10, -9), spot.name)


def _ticks(low: float, high: float, wanted: int) -> list[float]:
    step = next((s for s in _STEPS if (high - low) / s <= wanted), _STEPS[-1])
    first = math.ceil(low / step)
    return [round(k * step, 6) for k in range(first, math.floor(high / step) + 1)]
