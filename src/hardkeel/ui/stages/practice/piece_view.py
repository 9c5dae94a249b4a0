"""A piece of work as it lies on the board: in wood, with what was read of it, and how it was when it is over."""

from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.geometry.hull import Point2
from hardkeel.messages import pieces as say
from hardkeel.practice.pieces.piece import Stroke
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.viewport import Viewport, fit, paint_paper

_SIDE, _TOP, _LOW = 34, 20, 34
_STICK: Final = 4.0
_BOARD: Final = 6.0
_END: Final = 5.0  # pixels of a line's end mark
_BADGE: Final = 9


@dataclass(frozen=True, slots=True)
class Read:
    """Where something was read: its numbers, and its line or place, mm."""

    numbers: str
    at: tuple[Point2, ...]


@dataclass(frozen=True, slots=True)
class PiecePicture:
    """What is drawn, mm, v downwards.

    Attributes
    ----------
    wood : tuple of Stroke
        The piece: as drawn, or as it was.
    drawn : tuple of Stroke
        As drawn, in dashes over it; empty before it is over.
    held : tuple of (u, v)
        Where the reading in hand is held.
    note : str
        How many times larger than it is what is off is drawn; empty for none.
    """

    wood: tuple[Stroke, ...]
    drawn: tuple[Stroke, ...]
    read: tuple[Read, ...]
    held: tuple[Point2, ...]
    name: str
    note: str = ""


class PieceView(QWidget):
    """The picture, as large as there is room."""

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self._picture: PiecePicture | None = None
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    @property
    def picture(self) -> PiecePicture | None:
        """What is shown."""
        return self._picture

    def set_theme(self, theme: Theme) -> None:
        """Paint in another theme."""
        self._theme = theme
        self.update()

    def show_picture(self, picture: PiecePicture) -> None:
        """Draw another."""
        self._picture = picture
        numbers = ", ".join(one.numbers for one in picture.read)
        self.setAccessibleName(f"{picture.name}: {numbers}" if numbers else picture.name)
        self.update()

    def sizeHint(self) -> QSize:
        """As large as there is room for."""
        return QSize(740, 320)

    def minimumSizeHint(self) -> QSize:
        """Small enough for large text."""
        return QSize(320, self._theme.px(130))

    def _viewport(self, picture: PiecePicture) -> Viewport:
        strokes = (*picture.wood, *picture.drawn)
        points = [point for one in strokes for point in one.points]
        points += [point for one in picture.read for point in one.at]
        us, vs = [one[0] for one in points], [one[1] for one in points]
        room = QRectF(self.rect()).adjusted(
            _SIDE, self._theme.px(_TOP), -_SIDE, -self._theme.px(_LOW)
        )
        return fit(room, (min(us), min(vs), max(us), max(vs)))  # fmt: skip

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Paint paper, the piece, what was read, the reading in hand."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        paint_paper(painter, self._theme, self.rect())
        picture = self._picture
        if picture is None:
            return
        viewport, theme = self._viewport(picture), self._theme
        for stroke in picture.wood:
            self._paint_stroke(painter, viewport, stroke)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(theme.colour("ink"), 1.2, Qt.PenStyle.DashLine))
        for stroke in picture.drawn:
            painter.drawPolyline(viewport.polygon(stroke.points))
        for one in picture.read:
            self._paint_read(painter, viewport, one)
        if picture.held:
            self._paint_line(painter, viewport, picture.held, 2.6)
        self._paint_note(painter, picture)

    def _paint_stroke(self, painter: QPainter, viewport: Viewport, stroke: Stroke) -> None:
        theme, line = self._theme, viewport.polygon(stroke.points)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        if stroke.role == "board":
            painter.setPen(QPen(theme.colour("hair"), _BOARD))
            painter.drawPolyline(line)
        elif stroke.role == "line":
            painter.setPen(QPen(theme.colour("soft"), 1.4, Qt.PenStyle.DashLine))
            painter.drawPolyline(line)
        elif stroke.points[0] == stroke.points[-1]:
            painter.setPen(QPen(theme.colour("ink"), 1.6))
            painter.setBrush(theme.colour("wood", 0.75))
            painter.drawPolygon(line)
        else:
            painter.setPen(QPen(theme.colour("ink"), _STICK + 2))
            painter.drawPolyline(line)
            painter.setPen(QPen(theme.colour("wood"), _STICK))
            painter.drawPolyline(line)

    def _paint_line(
        self, painter: QPainter, viewport: Viewport, at: tuple[Point2, ...], width: float
    ) -> None:
        painter.setBrush(self._theme.colour("act"))
        painter.setPen(QPen(self._theme.colour("act"), width))
        if len(at) > 1:
            painter.drawPolyline(viewport.polygon(at))
        for one in (at[0], at[-1]):
            painter.drawEllipse(viewport.point(one), _END / 2, _END / 2)

    def _paint_read(self, painter: QPainter, viewport: Viewport, one: Read) -> None:
        theme = self._theme
        self._paint_line(painter, viewport, one.at, 1.0)
        painter.setFont(theme.font(12, weight=600))
        metrics = painter.fontMetrics()
        first, last = viewport.point(one.at[0]), viewport.point(one.at[-1])
        middle = first + (last - first) * 0.38  # two diagonals cross in the middle
        width = metrics.horizontalAdvance(one.numbers) + _BADGE
        box = QRectF(0, 0, width, metrics.height())
        box.moveCenter(middle if len(one.at) > 1 else middle - QPointF(0, metrics.height()))
        painter.setPen(QPen(theme.colour("act"), 1))
        painter.setBrush(theme.colour("paper"))
        painter.drawRoundedRect(box, 4, 4)
        painter.setPen(theme.colour("ink"))
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, one.numbers)

    def _paint_note(self, painter: QPainter, picture: PiecePicture) -> None:
        theme = self._theme
        if not picture.note:
            return
        painter.setFont(theme.font(13))
        y = self.height() - theme.px(_LOW) / 2
        metrics = painter.fontMetrics()
        x = 14.0
        for words, dashed in ((say.AS_WAS, False), (say.AS_DRAWN, True)):
            style = Qt.PenStyle.DashLine if dashed else Qt.PenStyle.SolidLine
            painter.setPen(QPen(theme.colour("ink"), 1.4, style))
            painter.setBrush(theme.colour("wood"))
            if dashed:
                painter.drawLine(QPointF(x, y), QPointF(x + 26, y))
            else:
                painter.drawRect(QRectF(x, y - 5, 26, 10))
            painter.setPen(theme.colour("ink"))
            painter.drawText(QPointF(x + 32, y + metrics.ascent() / 2 - 1), words)
            x += 52 + metrics.horizontalAdvance(words)
        painter.setPen(theme.colour("soft"))
        painter.drawText(QPointF(x, y + metrics.ascent() / 2 - 1), picture.note)
