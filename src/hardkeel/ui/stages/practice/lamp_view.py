"""Under the lamp: the airframe as it was in wood, as the learner said in dashes, as the readings said dotted."""

from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import (
    QLinearGradient,
    QPainter,
    QPainterPath,
    QPainterPathStroker,
    QPaintEvent,
    QPen,
    QPolygonF,
    QResizeEvent,
)
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.geometry.hull import Point2
from hardkeel.messages import practising as say
from hardkeel.picture.truing import View
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.viewport import Viewport, fit, paint_paper

_TITLES: Final[dict[View, str]] = {
    "behind": "from behind",
    "plan": "from above",
    "side": "from port",
}
_STICK: Final = 6.0  # pixels: a surface seen on its edge
_FLAT: Final = 5.0  # pixels: what is no taller is seen on its edge
_LEGEND: Final = 30
_TOP: Final = 26
_LAMP: Final = 0.6  # of the first box's width, beside its title


@dataclass(frozen=True, slots=True)
class Ghosts:
    """One part in one view: three times the same outline.

    Attributes
    ----------
    was, said, read : tuple of (u, v)
        As it was; as the learner has it; as the readings have it; mm.
    asked : bool
        Whether something was asked of it.
    out : bool
        Whether it was out.
    words, word : str
        How it was, and what the learner said; empty where it is told in another view.
    """

    body: str
    was: tuple[Point2, ...]
    said: tuple[Point2, ...]
    read: tuple[Point2, ...]
    asked: bool
    out: bool
    words: str = ""
    word: str = ""


@dataclass(frozen=True, slots=True)
class Scene:
    """A view with what lies in it.

    Attributes
    ----------
    fuselage : tuple of outlines
        mm in the view's axes.
    strings : tuple of polylines
        Where the reading of the replay is held.
    """

    view: View
    fuselage: tuple[tuple[Point2, ...], ...]
    parts: tuple[Ghosts, ...]
    strings: tuple[tuple[Point2, ...], ...] = ()


class LampView(QWidget):
    """The scenes side by side, with a legend beneath."""

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self._corner: QWidget | None = None
        self._scenes: tuple[Scene, ...] = ()
        self._legend: tuple[str, ...] = say.LEGEND
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def set_theme(self, theme: Theme) -> None:
        """Paint in another theme."""
        self._theme = theme
        self._place_corner()
        self.update()

    def show_scenes(self, scenes: tuple[Scene, ...], legend: tuple[str, ...] = say.LEGEND) -> None:
        """Draw others; the legend names what is in wood, in dashes and dotted, as far as it goes."""
        self._scenes, self._legend = scenes, legend
        words = [
            f"{part.words}; {part.word}" for scene in scenes for part in scene.parts if part.words
        ]
        self.setAccessibleName(f"{say.HOW_IT_WAS}: {'. '.join(words)}")
        self.update()

    def put_in_corner(self, widget: QWidget) -> None:
        """Lay something over the lower right corner, beside the legend."""
        self._corner = widget
        widget.setParent(self)
        self._place_corner()

    def _place_corner(self) -> None:
        if self._corner is not None:
            size = self._corner.sizeHint()
            self._corner.setGeometry(
                self.width() - size.width() - 14,
                self.height() - size.height() - 2,
                size.width(),
                size.height(),
            )

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Keep what lies in the corner there."""
        super().resizeEvent(event)
        self._place_corner()

    def sizeHint(self) -> QSize:
        """As large as there is room for."""
        return QSize(740, 320)

    def minimumSizeHint(self) -> QSize:
        """Small enough for large text."""
        return QSize(380, self._theme.px(120))

    def boxes(self) -> list[QRectF]:
        """Where each scene is drawn: the first wider than the others."""
        shares = [1.5] + [1.0] * (len(self._scenes) - 1)
        total, x = sum(shares), 0.0
        found = []
        for share in shares[: len(self._scenes)]:
            width = self.width() * share / total
            found.append(QRectF(x, 0.0, width, float(self.height())))
            x += width
        return found

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Paint paper, lamp, scenes and legend."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        paint_paper(painter, self._theme, self.rect())
        boxes = self.boxes()
        if boxes:
            self._paint_lamp(painter, boxes[0])
        for scene, box in zip(self._scenes, boxes, strict=True):
            self._paint_scene(painter, scene, box)
        self._paint_legend(painter)

    def _paint_lamp(self, painter: QPainter, box: QRectF) -> None:
        """A lamp over the bench: this is not your model."""
        theme, x = self._theme, box.left() + _LAMP * box.width()
        hang, tall, wide = theme.px(10), theme.px(16), theme.px(22)
        bottom = box.height() - theme.px(_LEGEND)
        light = QLinearGradient(QPointF(x, hang + tall), QPointF(x, bottom))
        light.setColorAt(0.0, theme.colour("fluid", 0.42))
        light.setColorAt(1.0, theme.colour("fluid", 0.0))
        spread = min(box.width() * 0.48, theme.px(230))
        cone = QPolygonF(
            [
                QPointF(x - wide, hang + tall),
                QPointF(x + wide, hang + tall),
                QPointF(x + spread, bottom),
                QPointF(x - spread, bottom),
            ]
        )
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(light)
        painter.drawPolygon(cone)
        painter.setBrush(theme.colour("ink"))
        painter.drawPolygon(
            QPolygonF(
                [
                    QPointF(x - wide * 0.45, hang),
                    QPointF(x + wide * 0.45, hang),
                    QPointF(x + wide, hang + tall),
                    QPointF(x - wide, hang + tall),
                ]
            )
        )
        painter.setPen(QPen(theme.colour("ink"), 2))
        painter.drawLine(QPointF(x, 0), QPointF(x, hang))

    def _viewport(self, scene: Scene, box: QRectF) -> Viewport | None:
        points = [p for part in scene.parts for ring in (part.was, part.said) for p in ring]
        points += [p for outline in scene.fuselage for p in outline]
        if not points:
            return None
        us, vs = [p[0] for p in points], [p[1] for p in points]
        top, low = self._theme.px(_TOP), self._theme.px(_LEGEND + 8)
        room = box.adjusted(22, top, -22, -low)
        return fit(room, (min(us), min(vs), max(us), max(vs)))

    def _paint_scene(self, painter: QPainter, scene: Scene, box: QRectF) -> None:
        theme = self._theme
        painter.setPen(theme.colour("soft"))
        painter.setFont(theme.font(13))
        painter.drawText(QPointF(box.left() + 14, theme.px(17)), _TITLES[scene.view])
        viewport = self._viewport(scene, box)
        if viewport is None:
            return
        for outline in scene.fuselage:
            painter.setPen(QPen(theme.colour("hair"), 1.2))
            painter.setBrush(theme.colour("paper", 0.6))
            painter.drawPolygon(viewport.polygon(outline))
        for part in sorted(scene.parts, key=lambda one: one.asked):
            self._paint_part(painter, viewport, part)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(theme.colour("act"), 2.4))
        for string in scene.strings:
            painter.drawPolyline(viewport.polygon(string))
        self._paint_words(painter, viewport, scene, box)

    def _paint_part(self, painter: QPainter, viewport: Viewport, part: Ghosts) -> None:
        theme = self._theme
        shape = viewport.polygon(part.was)
        outline = _as_wood(shape)
        painter.setBrush(theme.colour("wood", 1.0 if part.asked else 0.5))
        edge = "out" if part.out else "ink" if part.asked else "hair"
        painter.setPen(QPen(theme.colour(edge), 1.8 if part.asked else 1.0))
        painter.drawPath(outline)
        if not part.asked:
            return
        painter.setBrush(Qt.BrushStyle.NoBrush)
        if part.read:
            painter.setPen(QPen(theme.colour("ink"), 1.1, Qt.PenStyle.DotLine))
            painter.drawPath(_as_line(viewport.polygon(part.read)))
        painter.setPen(QPen(theme.colour("act"), 2.2, Qt.PenStyle.DashLine))
        painter.drawPath(_as_line(viewport.polygon(part.said)))

    def _paint_words(
        self, painter: QPainter, viewport: Viewport, scene: Scene, box: QRectF
    ) -> None:
        """How each part was and what was said of it, beside it; one under the other where they would meet."""
        theme = self._theme
        told = [part for part in scene.parts if part.words]
        painter.setFont(theme.font(13, weight=600))
        metrics = painter.fontMetrics()
        line = float(metrics.height())
        low = box.bottom() - theme.px(_LEGEND) - 2 * line
        y = 0.0
        placed = [(viewport.polygon(part.was).boundingRect(), part) for part in told]
        for shape, part in sorted(placed, key=lambda one: one[0].center().y()):
            lines = 2 if part.word else 1
            width = max(metrics.horizontalAdvance(one) for one in (part.words, part.word))
            x = min(shape.right() + 8, box.right() - width - 8)
            x = max(x, box.left() + 8)
            wanted = shape.top() - lines * line - 4 if x < shape.right() else shape.top()
            y = min(max(wanted, y, theme.px(_TOP)), low)
            ground = QRectF(x - 3, y, width + 6, lines * line)
            painter.fillRect(ground, theme.colour("paper", 0.8))
            painter.setPen(theme.colour("out" if part.out else "ink"))
            painter.drawText(QPointF(x, y + metrics.ascent()), part.words)
            painter.setPen(theme.colour("act"))
            painter.drawText(QPointF(x, y + line + metrics.ascent()), part.word)
            y += lines * line + 4

    def _paint_legend(self, painter: QPainter) -> None:
        theme = self._theme
        painter.setFont(theme.font(13, weight=500))
        metrics = painter.fontMetrics()
        y = self.height() - theme.px(_LEGEND) / 2
        x = 14.0
        looks = (
            ("ink", Qt.PenStyle.SolidLine, 1.6),
            ("act", Qt.PenStyle.DashLine, 2.2),
            ("ink", Qt.PenStyle.DotLine, 1.1),
        )
        end = self._corner.x() if self._corner is not None else self.width()
        for words, (colour, style, width) in zip(self._legend, looks, strict=False):
            if x + 32 + metrics.horizontalAdvance(words) > end:
                break
            painter.setPen(QPen(theme.colour(colour), width, style))
            painter.setBrush(theme.colour("wood"))
            if style == Qt.PenStyle.SolidLine:
                painter.drawRect(QRectF(x, y - 5, 26, 10))
            else:
                painter.drawLine(QPointF(x, y), QPointF(x + 26, y))
            painter.setPen(theme.colour("act" if colour == "act" else "ink"))
            painter.drawText(QPointF(x + 32, y + metrics.ascent() / 2 - 1), words)
            x += 32 + metrics.horizontalAdvance(words) + 20


def _as_wood(shape: QPolygonF) -> QPainterPath:
    """An outline as it is cut; one seen on its edge as a stick."""
    path = _as_line(shape)
    if not _is_flat(shape):
        return path
    stroker = QPainterPathStroker()
    stroker.setWidth(_STICK)
    stroker.setCapStyle(Qt.PenCapStyle.FlatCap)
    return stroker.createStroke(path).simplified()


def _as_line(shape: QPolygonF) -> QPainterPath:
    """An outline closed; one seen on its edge from end to end."""
    path = QPainterPath()
    if _is_flat(shape):
        first, last = _ends(shape)
        path.moveTo(first)
        path.lineTo(last)
        return path
    path.addPolygon(shape)
    path.closeSubpath()
    return path


def _ends(shape: QPolygonF) -> tuple[QPointF, QPointF]:
    """The two points that lie farthest apart, by the longer way of its box."""
    box = shape.boundingRect()
    across = box.width() >= box.height()
    points = [shape.at(i) for i in range(shape.count())]
    points.sort(key=lambda one: one.x() if across else one.y())
    return points[0], points[-1]


def _is_flat(shape: QPolygonF) -> bool:
    """Whether its points lie on a line, by some pixels."""
    if shape.count() < 3:  # noqa: PLR2004  a line
        return True
    first, last = _ends(shape)
    run = last - first
    length = max((run.x() ** 2 + run.y() ** 2) ** 0.5, 1e-9)
    off = [
        abs((shape.at(i).x() - first.x()) * run.y() - (shape.at(i).y() - first.y()) * run.x())
        / length
        for i in range(shape.count())
    ]
    return bool(max(off) <= _FLAT)
