"""The airframe on a balance: masses where they sit, the mark, the pack in its bay."""

from dataclasses import dataclass, field
from typing import Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.messages import layout as say
from hardkeel.picture.truing import Stroke
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.viewport import Viewport, fit, paint_paper, section_path

_NEAR: Final = 12.0


@dataclass(frozen=True, slots=True)
class Weighed:
    """A mass at a station, grams and mm; `shape` tells weighed (filled) from estimated (hollow)."""

    id: str
    grams: float
    x: float
    weighed: bool


@dataclass(frozen=True, slots=True)
class BalanceShown:
    """All that is drawn; stations in mm, ``None`` for what is not known."""

    strokes: tuple[Stroke, ...] = ()
    masses: tuple[Weighed, ...] = ()
    target: float | None = None
    balance: float | None = None
    chord: tuple[float, float] | None = None
    pack: float | None = None
    pack_length: float = 60.0
    pack_fits: bool = True
    bay: tuple[float, float] | None = None
    hatches: tuple[tuple[float, float], ...] = ()
    nose: tuple[float, float] | None = None
    chosen: str = ""
    words: dict[str, str] = field(default_factory=dict)


class BalanceDrawing(QWidget):
    """The picture.

    Signals
    -------
    mass_picked : str
    """

    mass_picked = pyqtSignal(str)

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self._shown = BalanceShown()
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(say.BALANCE_DRAWING)

    def show_balance(self, shown: BalanceShown, theme: Theme) -> None:
        """Draw another state."""
        self._shown, self._theme = shown, theme
        self.update()

    def sizeHint(self) -> QSize:
        """Wide and low."""
        return QSize(760, 330)

    def minimumSizeHint(self) -> QSize:
        """Still readable."""
        return QSize(360, 200)

    def _viewport(self) -> Viewport | None:
        points = [p for stroke in self._shown.strokes for p in stroke.points]
        if not points:
            return None
        us = [p[0] for p in points] + [mass.x for mass in self._shown.masses]
        vs = [p[1] for p in points]
        box = QRectF(30, self._theme.px(54), self.width() - 60, self.height() - self._theme.px(140))
        return fit(box, (min(us), min(vs), max(us), max(vs)))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Paint the side view and what pulls on it."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        theme = self._theme
        paint_paper(painter, theme, self.rect())
        viewport = self._viewport()
        if viewport is None:
            painter.setPen(theme.colour("soft"))
            painter.drawText(QRectF(self.rect()), Qt.AlignmentFlag.AlignCenter, say.AIRFRAME_HERE)
            return
        for stroke in self._shown.strokes:
            painter.setPen(QPen(theme.colour("ink" if stroke.role != "former" else "hair"), 1.2))
            painter.setBrush(theme.colour("wood" if stroke.role == "fuselage" else "wing", 0.75))
            if stroke.role == "wanted":
                painter.drawPath(section_path(viewport, stroke.points))
            else:
                painter.drawPolygon(viewport.polygon(stroke.points))
        self._paint_bay(painter, viewport)
        self._paint_masses(painter, viewport)
        self._paint_marks(painter, viewport)

    def _line(self) -> float:
        return self.height() - self._theme.px(58)

    def _paint_bay(self, painter: QPainter, viewport: Viewport) -> None:
        theme, shown = self._theme, self._shown
        middle = viewport.point((0.0, 0.0)).y()
        half = shown.pack_length / 2
        if shown.bay is not None:
            a, b = (
                viewport.point((x, 0.0)).x() for x in (shown.bay[0] - half, shown.bay[1] + half)
            )
            painter.setPen(QPen(theme.colour("act"), 1.2, Qt.PenStyle.DashLine))
            painter.setBrush(theme.colour("act_wash", 0.5))
            painter.drawRect(QRectF(a, middle - 13, b - a, 26))
        for start, end in shown.hatches:
            a, b = (viewport.point((x, 0.0)).x() for x in (start, end))
            painter.setPen(QPen(theme.colour("soft"), 3))
            painter.drawLine(QPointF(a, middle + 17), QPointF(b, middle + 17))
        if shown.pack is not None:
            a, b = (viewport.point((x, 0.0)).x() for x in (shown.pack - half, shown.pack + half))
            colour = theme.colour("act" if shown.pack_fits else "out")
            painter.setPen(QPen(colour, 1.6))
            painter.setBrush(colour)
            painter.drawRect(QRectF(a, middle - 8, b - a, 16))
            painter.setPen(theme.colour("on_act"))
            painter.setFont(theme.font(12, weight=600))
            metrics = painter.fontMetrics()
            wide, tall = metrics.horizontalAdvance("pack") + 6.0, float(metrics.height())
            plate = QRectF((a + b - wide) / 2, middle - tall / 2, wide, tall)
            if wide > b - a or tall > 18:  # noqa: PLR2004  the pack's own height: its name has a plate
                side = max(0.0, (b - a - wide) / 2)
                painter.fillRect(plate.adjusted(-side, 0, side, 0), colour)
            painter.drawText(plate, Qt.AlignmentFlag.AlignCenter, "pack")
        if shown.nose is not None:
            at = viewport.point((shown.nose[0], 0.0))
            painter.setPen(QPen(theme.colour("out"), 1.6))
            painter.setBrush(theme.colour("out"))
            painter.drawRect(QRectF(at.x() - 5, middle - 9, 10, 18))

    def _paint_masses(self, painter: QPainter, viewport: Viewport) -> None:
        theme, shown = self._theme, self._shown
        line = self._line()
        painter.setPen(QPen(theme.colour("ink"), 1.4))
        painter.drawLine(QPointF(16, line), QPointF(self.width() - 16.0, line))
        heaviest = max((mass.grams for mass in shown.masses), default=1.0)
        for mass in shown.masses:
            x = viewport.point((mass.x, 0.0)).x()
            radius = 3.0 + 9.0 * (mass.grams / heaviest) ** 0.5
            picked = mass.id == shown.chosen
            colour = theme.colour("act" if picked else "ink")
            painter.setPen(QPen(colour, 1.6))
            painter.setBrush(colour if mass.weighed else theme.colour("paper"))
            painter.drawEllipse(QPointF(x, line - radius - 1), radius, radius)
            if picked:
                painter.setFont(theme.font(13, weight=600))
                told = f"{mass.id}, {mass.grams:.0f} g"
                width = painter.fontMetrics().horizontalAdvance(told)
                left = min(max(8.0, x - width / 2), self.width() - width - 8.0)
                # under the beam, below the balance's own words: above it the airframe begins
                low = line + theme.px(44)
                painter.setPen(QPen(colour, 1))
                painter.drawLine(QPointF(x, line + 2), QPointF(x, low - theme.px(14)))
                painter.drawText(QPointF(left, low), told)

    def _paint_marks(self, painter: QPainter, viewport: Viewport) -> None:
        theme, shown = self._theme, self._shown
        line = self._line()
        top = self._theme.px(46)
        painter.setFont(theme.font(14, weight=600))
        if shown.chord is not None:
            a, b = (viewport.point((x, 0.0)).x() for x in shown.chord)
            painter.setPen(QPen(theme.colour("soft"), 2))
            painter.drawLine(QPointF(a, top), QPointF(b, top))
            for x in (a, b):
                painter.drawLine(QPointF(x, top - 5), QPointF(x, top + 5))
            width = painter.fontMetrics().horizontalAdvance("mean chord")
            painter.drawText(QPointF(max(6.0, a - width - 8), top + 5), "mean chord")
        if shown.target is not None:
            x = viewport.point((shown.target, 0.0)).x()
            painter.setPen(QPen(theme.colour("act"), 1.6, Qt.PenStyle.DashLine))
            painter.drawLine(QPointF(x, top - 14), QPointF(x, line))
            painter.drawText(QPointF(x + 6, top - 10), shown.words.get("target", "wanted"))
        if shown.balance is not None:
            x = viewport.point((shown.balance, 0.0)).x()
            off = shown.target is not None and abs(shown.balance - shown.target) > 0.5  # noqa: PLR2004  mm
            colour = theme.colour("out" if off else "ink")
            painter.setPen(QPen(colour, 1.6))
            painter.setBrush(colour)
            size = theme.px(13)
            painter.drawPolygon(
                QPolygonF(
                    [
                        QPointF(x, line + 1),
                        QPointF(x - size, line + 1 + 1.5 * size),
                        QPointF(x + size, line + 1 + 1.5 * size),
                    ]
                )
            )
            told = shown.words.get("balance", "")
            width = painter.fontMetrics().horizontalAdvance(told)
            left = x + size + 8 if x + size + 8 + width < self.width() else x - size - 8 - width
            painter.drawText(QPointF(left, line + theme.px(20)), told)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Pick the mass under the pointer."""
        viewport = self._viewport()
        if event is None or viewport is None:
            return
        line, near_px = self._line(), self._theme.scale * _NEAR
        at = event.position()
        near = [
            (abs(viewport.point((m.x, 0.0)).x() - at.x()), m.id)
            for m in self._shown.masses
            if abs(at.y() - line) < 3 * near_px
        ]
        if near and min(near)[0] < near_px:
            self.mass_picked.emit(min(near)[1])
