"""What lies on the drawing board, and how its lines and handles are drawn."""

from dataclasses import dataclass, field

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen, QPolygonF

from hardkeel.picture.board import BoardLines, BoardView, Curve, Handle
from hardkeel.ui.theme import Theme


@dataclass(frozen=True, slots=True)
class BumpNote:
    """Where a line leaves the fair curve, to be marked on the board."""

    view: BoardView
    at: tuple[float, float]
    text: str


@dataclass(frozen=True, slots=True)
class OnBoard:
    """All that the board shows."""

    lines: BoardLines = field(default_factory=BoardLines)
    bodies: tuple[Curve, ...] = ()
    bumps: tuple[BumpNote, ...] = ()
    chosen: str = ""
    chosen_body: str = ""
    figure: str = ""


def pen_curve(painter: QPainter, theme: Theme, curve: Curve, shown: OnBoard) -> None:
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
        case "body":
            picked = curve.ref == shown.chosen_body
            painter.setPen(QPen(theme.colour("act" if picked else "soft"), 1.8 if picked else 1.0))
            painter.setBrush(theme.colour("act_wash" if picked else "wing", 0.6))


def paint_handle(
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


def paint_bump(painter: QPainter, theme: Theme, at: QPointF, bump: BumpNote, width_px: int) -> None:
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


def paint_figure(painter: QPainter, theme: Theme, figure: str, width_px: int) -> None:
    """The figure under the hand, large enough to read from a step back."""
    painter.setFont(theme.font(26, narrow=False, weight=600))
    painter.setPen(theme.colour("act"))
    metrics = painter.fontMetrics()
    at = QPointF(width_px - metrics.horizontalAdvance(figure) - 18.0, metrics.ascent() + 6.0)
    painter.drawText(at, figure)
