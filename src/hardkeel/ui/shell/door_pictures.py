"""What lies behind the doors of the first page, drawn: figures being typed, a plan on the desk, a lamp, other models."""

from typing import Final

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QLinearGradient, QPainter, QPen, QPolygonF

from hardkeel.messages import shell as say
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.vial import paint_tube
from hardkeel.ui.widgets.viewport import fit, paint_paper

# a high-wing model from the side, mm: no real one
_BODY: Final = (
    (0, 30),
    (60, 18),
    (220, 12),
    (420, 26),
    (560, 40),
    (560, 52),
    (300, 74),
    (90, 70),
    (0, 58),
)
_FIN: Final = ((470, 32), (495, -50), (548, -50), (560, 40))
_WING: Final = ((130, 14), (150, -2), (215, 0), (310, 17))
_SHEET: Final = 0.62  # of its own width: how tall a sheet is
_TILT: Final = -5.0  # degrees, as a sheet lies on a desk


def _polygon(points: object, at: QPointF, scale: float) -> QPolygonF:
    return QPolygonF([QPointF(at.x() + u * scale, at.y() + v * scale) for u, v in points])  # type: ignore[attr-defined]


def _side(painter: QPainter, theme: Theme, at: QPointF, scale: float) -> None:
    """The model from the side with its upper left at a place."""
    painter.setPen(QPen(theme.colour("ink"), 1.3))
    painter.setBrush(theme.colour("wood"))
    painter.drawPolygon(_polygon(_BODY, at, scale))
    painter.setBrush(theme.colour("wing"))
    painter.drawPolygon(_polygon(_FIN, at, scale))
    painter.drawPolygon(_polygon(_WING, at, scale))


def described(painter: QPainter, box: QRectF, theme: Theme) -> None:
    """A model from above whose figures are being typed."""
    paint_paper(painter, theme, box.toAlignedRect())
    view = fit(box.adjusted(30, 22, -30, -16), (-350, 0, 350, 420))
    ink, act = QPen(theme.colour("ink"), 1.5), QPen(theme.colour("act"), 1.3)
    painter.setPen(ink)
    painter.setBrush(theme.colour("wing"))
    for ring in (
        ((-330, 100), (330, 100), (330, 190), (-330, 190)),
        ((-22, 10), (22, 10), (24, 200), (8, 370), (-8, 370), (-24, 200)),
    ):
        painter.drawPolygon(view.polygon(ring))
    painter.setPen(QPen(theme.colour("ink"), 1.2, Qt.PenStyle.DashLine))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawPolygon(view.polygon(((-110, 350), (110, 350), (110, 405), (-110, 405))))
    painter.setPen(act)
    painter.drawPolyline(view.polygon(((-330, 60), (330, 60))))
    for u in (-330, 330):
        painter.drawPolyline(view.polygon(((u, 40), (u, 92))))
    painter.setFont(theme.font(15, weight=600))
    said = painter.fontMetrics().boundingRect(say.DOOR_SPAN)
    middle = view.point((0, 60))
    ground = QRectF(said).adjusted(-6, -1, 6, 1)
    ground.moveCenter(middle)
    painter.fillRect(ground, theme.colour("paper"))
    painter.drawText(ground, Qt.AlignmentFlag.AlignCenter, say.DOOR_SPAN)


def from_a_plan(painter: QPainter, box: QRectF, theme: Theme) -> None:
    """A sheet on a desk, marked."""
    painter.fillRect(box, theme.colour("desk"))
    wide = min(box.width() * 0.86, box.height() * 0.86 / _SHEET)
    painter.save()
    painter.translate(box.center())
    painter.rotate(_TILT)
    sheet = QRectF(-wide / 2, -wide * _SHEET / 2, wide, wide * _SHEET)
    painter.fillRect(sheet.translated(4, 4), theme.colour("hair"))
    painter.fillRect(sheet, theme.colour("paper"))
    painter.setPen(QPen(theme.colour("soft"), 1))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawRect(sheet.adjusted(6, 6, -6, -6))
    at = QPointF(sheet.left() + wide * 0.12, sheet.top() + sheet.height() * 0.5)
    scale = wide * 0.76 / 560
    painter.setPen(QPen(theme.colour("ink"), 1.1))
    for ring in (_BODY, _FIN, _WING):
        painter.drawPolygon(_polygon(ring, at, scale))
    painter.setPen(QPen(theme.colour("act"), 2.0))
    marks = [QPointF(at.x() + u * scale, at.y() + v * scale) for u, v in _BODY[:5]]
    painter.drawPolyline(QPolygonF(marks))
    for one in marks:
        painter.drawEllipse(one, 4.5, 4.5)
    high = sheet.top() + sheet.height() * 0.2
    ends = [QPointF(sheet.left() + wide * share, high) for share in (0.12, 0.5)]
    painter.drawLine(*ends)
    for one in ends:
        painter.drawEllipse(one, 4.5, 4.5)
    painter.setFont(theme.font(13, weight=600))
    painter.drawText(ends[0] + QPointF(10, -6), say.DOOR_LENGTH)
    painter.restore()


def practised(painter: QPainter, box: QRectF, theme: Theme) -> None:
    """Somebody's crooked model under a lamp, from behind."""
    painter.fillRect(box, theme.colour("paper"))
    x, hang = box.center().x(), box.top() + box.height() * 0.08
    light = QLinearGradient(QPointF(x, hang), QPointF(x, box.bottom()))
    light.setColorAt(0.0, theme.colour("fluid", 0.5))
    light.setColorAt(1.0, theme.colour("fluid", 0.05))
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(light)
    spread = box.width() * 0.42
    painter.drawPolygon(
        QPolygonF(
            [QPointF(x - 18, hang + 10), QPointF(x + 18, hang + 10), QPointF(x + spread, box.bottom()), QPointF(x - spread, box.bottom())]
        )
    )  # fmt: skip
    painter.setBrush(theme.colour("ink"))
    painter.drawPolygon(
        QPolygonF([QPointF(x - 9, hang), QPointF(x + 9, hang), QPointF(x + 20, hang + 12), QPointF(x - 20, hang + 12)])
    )  # fmt: skip
    view = fit(box.adjusted(30, box.height() * 0.3, -30, -box.height() * 0.3), (-300, -60, 300, 60))
    painter.setPen(QPen(theme.colour("ink"), 3))
    for line in (((-290, -34), (0, -20), (290, -34)), ((0, -20), (0, -74))):
        painter.drawPolyline(view.polygon(line))
    painter.setBrush(theme.colour("wood"))
    painter.setPen(QPen(theme.colour("ink"), 1.4))
    painter.drawPolygon(view.polygon(((-22, -18), (22, -18), (16, 44), (-16, 44))))
    painter.setPen(QPen(theme.colour("out"), 3.4))
    painter.drawPolyline(view.polygon(((-96, 2), (96, -22))))
    painter.setFont(theme.font(14, weight=600))
    painter.drawText(view.point((112, -6)) + QPointF(0, 12), say.DOOR_HOW_FAR)
    tube = QRectF(0, 0, min(box.width() * 0.5, 180.0), theme.px(15))
    tube.moveCenter(QPointF(x, box.bottom() - box.height() * 0.13))
    paint_tube(painter, tube, theme, 0.0, 0.9, "unsure")


def demos(painter: QPainter, box: QRectF, theme: Theme) -> None:
    """Some models on a shelf, at one scale."""
    paint_paper(painter, theme, box.toAlignedRect())
    scale = min(box.width() / 1250, box.height() / 420)
    rows = ((0.36, ((0.06, 1.2), (0.68, 0.62))), (0.86, ((0.06, 0.8), (0.5, 1.0))))
    for share, models in rows:
        low = box.top() + box.height() * share
        painter.setPen(QPen(theme.colour("hair"), 1.4))
        painter.drawLine(QPointF(box.left() + 12, low), QPointF(box.right() - 12, low))
        for along, size in models:
            at = QPointF(box.left() + box.width() * along, low - 75 * scale * size)
            _side(painter, theme, at, scale * size)
