"""How far a part is, as a shape: ring, half, three quarters, full, diamond."""

from typing import Final

from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QPainter, QPen, QPolygonF

from hardkeel.parts.model import State
from hardkeel.ui.theme import Theme

_FILLED: Final[dict[State, float]] = {
    "wanted": 0.0,
    "cut": 0.25,
    "cleaned": 0.5,
    "dry-fitted": 0.75,
    "glued": 1.0,
}
_TURN: Final = 16 * 360  # Qt counts sixteenths of a degree
_TOP: Final = 16 * 90


def paint_state(
    painter: QPainter, at: QPointF, state: State, theme: Theme, size: float = 4.5
) -> None:
    """Paint the shape of a state, `size` pixels from middle to edge, unscaled."""
    reach = theme.px(size)
    painter.setPen(QPen(theme.colour("ink"), 1.2))
    painter.setBrush(theme.colour("paper"))
    if state == "trued":
        painter.setBrush(theme.colour("ink"))
        corners = [(0.0, -1.2), (1.2, 0.0), (0.0, 1.2), (-1.2, 0.0)]
        painter.drawPolygon(QPolygonF([at + QPointF(x, y) * reach for x, y in corners]))
        return
    painter.drawEllipse(at, reach, reach)
    painter.setBrush(theme.colour("ink"))
    box = QRectF(at.x() - reach, at.y() - reach, 2 * reach, 2 * reach)
    share = _FILLED[state]
    if share >= 1:
        painter.drawEllipse(at, reach, reach)
    elif share > 0:
        painter.drawPie(box, _TOP, -round(share * _TURN))
