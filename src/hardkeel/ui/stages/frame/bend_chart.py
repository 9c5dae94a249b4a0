"""Strain along the fuselage, member by member, with the wood's limits drawn in."""

import math
from typing import Final

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.base.units import decimal
from hardkeel.fuselage.bending_forces import BendLine
from hardkeel.messages import frame as say
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.viewport import paint_paper

_LEAST: Final = 0.3  # percent at the top of the chart
_ROOM: Final = 1.15


class BendChart(QWidget):
    """One member's strain as a line, the others faint behind it."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self._theme = theme
        self._lines: tuple[BendLine, ...] = ()
        self._stops: tuple[tuple[str, float], ...] = ()
        self._chosen = ""
        self._place: tuple[float, str] | None = None
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(say.BENDS_HEAD)

    def sizeHint(self) -> QSize:
        """Wide and flat."""
        return QSize(640, self._theme.px(280))

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        self.update()

    def show_lines(
        self,
        lines: tuple[BendLine, ...],
        stations: tuple[tuple[str, float], ...],
        chosen: str,
        place: tuple[float, str] | None,
    ) -> None:
        """Show these; `place` is the station of the tightest bend with its words."""
        self._lines, self._stops, self._chosen, self._place = lines, stations, chosen, place
        self.setAccessibleDescription(place[1] if place is not None else chosen)
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Paper, stations, limits, lines."""
        theme, painter = self._theme, QPainter(self)
        paint_paper(painter, theme, self.rect())
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        line = next((one for one in self._lines if one.member == self._chosen), None)
        painter.setFont(theme.font(13))
        painter.setPen(theme.colour("soft"))
        painter.drawText(QPointF(14, theme.px(20)), f"{say.BENDS_HEAD}: {self._chosen}")
        head = QRectF(14, 4, self.width() - 28, theme.px(22))
        painter.drawText(head, Qt.AlignmentFlag.AlignRight, say.STRAIN)
        if not self._lines or not self._stops:
            return
        left, right = theme.px(46), self.width() - theme.px(20)
        box = QRectF(left, theme.px(34), right - left, self.height() - theme.px(64))
        top = self._top(line)
        a, b = self._stops[0][1], self._stops[-1][1]

        def at(x: float, strain: float) -> QPointF:
            return QPointF(
                box.left() + (x - a) / max(b - a, 1e-9) * box.width(),
                box.bottom() - strain / top * box.height(),
            )

        self._paint_frame(painter, box, at)
        for other in self._lines:
            if other is not line:
                self._paint_line(painter, other, at, theme.px(1) * 0.7, "hair")
        if line is None:
            return
        if line.limits is not None:
            self._paint_limits(painter, line.limits, top, box, at)
        self._paint_line(painter, line, at, 2.4, "ink")
        if self._place is not None:
            x, words = self._place
            near = int(np.argmin(np.abs(line.stations - x)))
            tall = float(np.nan_to_num(line.strain[near]))
            self._paint_place(painter, at(x, tall), words)

    def _top(self, line: BendLine | None) -> float:
        values = [_LEAST]
        for one in self._lines if line is None else (line,):
            values += [float(s) for s in one.strain if not math.isnan(s)]
        if line is not None and line.limits is not None:
            values.append(line.limits[0])
            if max(values) > line.limits[0]:
                values.append(line.limits[1])
        return max(values) * _ROOM

    def _paint_frame(self, painter: QPainter, box: QRectF, at: object) -> None:
        theme = self._theme
        painter.setFont(theme.font(12))
        last = -1e9
        for name, x in self._stops:
            place = at(x, 0.0)  # type: ignore[operator]
            painter.setPen(QPen(theme.colour("hair"), 1))
            painter.drawLine(QPointF(place.x(), box.top()), place)
            wide = painter.fontMetrics().horizontalAdvance(name) + 6
            if place.x() - wide / 2 > last:
                painter.setPen(theme.colour("ink"))
                room = QRectF(place.x() - wide / 2, box.bottom() + 4, wide, theme.px(18))
                painter.drawText(room, Qt.AlignmentFlag.AlignCenter, say.stop_words(name))
                last = place.x() + wide / 2
        painter.setPen(QPen(theme.colour("ink"), 1))
        painter.drawLine(box.bottomLeft(), box.bottomRight())

    def _paint_line(
        self, painter: QPainter, line: BendLine, at: object, weight: float, colour: str
    ) -> None:
        painter.setPen(QPen(self._theme.colour(colour), weight))
        run = QPolygonF()
        for x, strain in zip(line.stations.tolist(), line.strain.tolist(), strict=True):
            if math.isnan(strain):
                painter.drawPolyline(run)
                run = QPolygonF()
            else:
                run.append(at(x, strain))  # type: ignore[operator]
        painter.drawPolyline(run)

    def _paint_limits(
        self,
        painter: QPainter,
        limits: tuple[float, float],
        top: float,
        box: QRectF,
        at: object,
    ) -> None:
        theme = self._theme
        painter.setFont(theme.font(13))
        for limit, words in zip(limits, (say.DRY_LIMIT, say.SOAKED_LIMIT), strict=True):
            if limit > top:
                continue
            y = at(0.0, limit).y()  # type: ignore[operator]
            pen = QPen(theme.colour("out"), 1.2)
            pen.setDashPattern([6, 3])
            painter.setPen(pen)
            painter.drawLine(QPointF(box.left(), y), QPointF(box.right(), y))
            painter.setPen(theme.colour("out"))
            room = QRectF(box.left(), y - theme.px(18), box.width() - 6, theme.px(17))
            painter.drawText(room, Qt.AlignmentFlag.AlignRight, f"{decimal(limit, 2)} % {words}")

    def _paint_place(self, painter: QPainter, place: QPointF, words: str) -> None:
        theme = self._theme
        painter.setBrush(theme.colour("act"))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.drawEllipse(place, 4, 4)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setFont(theme.font(14, weight=600))
        painter.setPen(theme.colour("act"))
        wide = painter.fontMetrics().horizontalAdvance(words) + 8
        x = min(max(place.x() - wide / 2, 4), self.width() - wide - 4)
        painter.drawText(
            QRectF(x, place.y() - theme.px(25), wide, theme.px(20)),
            Qt.AlignmentFlag.AlignCenter,
            words,
        )
