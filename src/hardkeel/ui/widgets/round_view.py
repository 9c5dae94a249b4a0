"""The airframe in space, turned by hand: orthographic, far faces first, wood when it rests."""

from dataclasses import dataclass, field, replace
from typing import TYPE_CHECKING, Final, Literal, cast

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import (
    QColor,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPainterPath,
    QPaintEvent,
    QPen,
    QPixmap,
    QPolygonF,
    QResizeEvent,
)
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.geometry.rotation import Array
from hardkeel.messages import in_the_round as say
from hardkeel.picture.in_space import Drawn, Eye, Layer, Space
from hardkeel.survey.model import Verdict
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.viewport import Viewport, fit, paint_paper
from hardkeel.ui.widgets.wood import tone_colour, wood_brush

if TYPE_CHECKING:
    from hardkeel.picture.wood import Tone

Skin = Literal["closed", "open", "bare"]
SKINS: Final[tuple[Skin, ...]] = ("closed", "open", "bare")
_STANDARD: Final = {"plan": Eye(0.0, 90.0), "side": Eye(0.0, 0.0), "rear": Eye(-90.0, 0.0)}
_DEGREES_A_PX: Final = 0.4
_STEP: Final = 5.0
_REST_MS: Final = 160
_LENS_TIMES: Final = 4.0
_LENS_SHARE: Final = 0.19  # of the height
_SMALL_SHARE: Final = 0.24  # of the height, for the small drawings
_SHADES: Final = 12  # kept apart while it is turned
_SHADE: Final = 0.30  # how much darker a face is that is seen aslant
_SURFACE: Final = 0.55


@dataclass(frozen=True, slots=True)
class Seen:
    """All that is shown.

    Attributes
    ----------
    wanted : Space, optional
        What it should be, dashed.
    names : tuple of (text, (3,) Array, ref)
        Words beneath places.
    verdicts : dict
        Of bodies.
    whole : bool
        Wings and tail are what is looked at: the paper shows all of them, and they cover what lies behind.
    """

    space: Space = field(default_factory=Space)
    wanted: Space | None = None
    names: tuple[tuple[str, Array, str], ...] = ()
    verdicts: dict[str, Verdict] = field(default_factory=dict)
    chosen: str = ""
    whole: bool = False


class RoundView(QWidget):
    """The view that turns.

    Signals
    -------
    picked : str
        A piece was pointed at.
    turned : object
        It is looked at from another `Eye`.
    skin_changed : str
        The space bar showed more or less.
    """

    picked = pyqtSignal(str)
    turned = pyqtSignal(object)
    skin_changed = pyqtSignal(str)

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self._seen = Seen()
        self._eye = self._last = Eye()
        self._skin: Skin = "open"
        self._drawn: list[Drawn] = []
        self._paths: list[tuple[Drawn, QPainterPath]] = []
        self._view: Viewport | None = None
        self._small: QPixmap | None = None
        self._boxes: dict[str, QRectF] = {}
        self._pressed: QPointF | None = None
        self._dragged = False
        self._rest = QTimer(self)
        self._rest.setSingleShot(True)
        self._rest.setInterval(_REST_MS)
        self._rest.timeout.connect(self._on_rest)
        self._resting = True
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(say.IN_THE_ROUND)

    @property
    def eye(self) -> Eye:
        """Where it is looked at from."""
        return self._eye

    @property
    def skin(self) -> Skin:
        """How much of the skin is shown."""
        return self._skin

    def show_space(self, seen: Seen) -> None:
        """Show another airframe, from where it is looked at now."""
        if seen.space is not self._seen.space or seen.wanted is not self._seen.wanted:
            self._small = None
        self._seen = seen
        self._forget()

    def choose(self, ref: str) -> None:
        """Light a piece up."""
        if ref != self._seen.chosen:
            self._seen = replace(self._seen, chosen=ref)
            self._small = None
            self.update()

    def look_from(self, eye: Eye) -> None:
        """Turn it."""
        up = min(max(eye.up, -90.0), 90.0)
        self._eye = Eye((eye.round + 180.0) % 360.0 - 180.0, up)
        if self._eye not in _STANDARD.values():
            self._last = self._eye
        self.setAccessibleDescription(say.looked_from(self._eye.round, self._eye.up))
        self._forget()
        self.turned.emit(self._eye)

    def show_skin(self, skin: Skin) -> None:
        """Show the skin, the inside of its far half, or none."""
        if skin != self._skin:
            self._skin = skin
            self._small = None
            self._forget()
            self.skin_changed.emit(skin)

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme, self._small = theme, None
        self._forget()

    def sizeHint(self) -> QSize:
        """As large as there is room for."""
        return QSize(760, 560)

    def minimumSizeHint(self) -> QSize:
        """Small enough for 150 % text in a 1280 window."""
        return QSize(320, 260)

    def place_of(self, ref: str) -> QPointF | None:
        """A pixel of a piece where nothing lies before it, for tests."""
        self._lay()
        for drawn, path in reversed(self._paths):
            if drawn.ref != ref:
                continue
            middle = path.boundingRect().center()
            ring = path.toFillPolygon()
            near = (ring.at(i) + (middle - ring.at(i)) * 0.2 for i in range(ring.count()))
            for at in (middle, *near):
                if path.contains(at) and self._ref_at(at) == ref:
                    return at
        return None

    # -- laying out ------------------------------------------------------------------------------

    def _forget(self) -> None:
        self._view, self._drawn, self._paths = None, [], []
        self.update()

    def _layers(self) -> frozenset[Layer]:
        found: set[Layer] = {"frame", "surface"}
        if self._skin != "bare":
            found.add("skin")
        return frozenset(found)

    def _seen_from(self, eye: Eye) -> list[Drawn]:
        drawn = self._seen.space.seen_from(eye, self._layers(), open_=self._skin == "open")
        if not any(one.layer == "frame" for one in drawn):  # a skin is all there is
            layers: frozenset[Layer] = frozenset({"frame", "skin", "surface"})
            drawn = self._seen.space.seen_from(eye, layers, open_=False)
        return drawn

    def _framed(self, drawn: list[Drawn]) -> list[Drawn]:
        """What is to fill the paper: the frame, where its surfaces are not what is looked at."""
        framed = [one for one in drawn if one.layer != "surface"]
        return framed if framed and not self._seen.whole else drawn

    def _work_box(self) -> QRectF:
        theme = self._theme
        low = self.height() * _SMALL_SHARE
        return QRectF(24, theme.px(30), self.width() - 48.0, self.height() - low - theme.px(62))

    def _lay(self) -> None:
        if self._view is not None:
            return
        if not self._resting:
            self._view = fit(self._work_box(), self._turning_bounds())
            return
        self._drawn = self._seen_from(self._eye)
        self._view = fit(self._work_box(), _bounds(self._framed(self._drawn)))
        self._paths = [(one, _path(self._view, one)) for one in self._drawn]

    def _turning_bounds(self) -> tuple[float, float, float, float]:
        """What is to fill the paper while it is turned."""
        packed = self._seen.space.packed
        right, up, _ = self._eye.axes
        points = packed.points if self._seen.whole else packed.framed
        if not len(points):
            return 0.0, 0.0, 1.0, 1.0
        flat = points @ np.column_stack([right, -up])
        (left, top), (most, low) = flat.min(axis=0), flat.max(axis=0)
        return float(left), float(top), float(most), float(low)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Fit anew."""
        super().resizeEvent(event)
        self._small = None
        self._forget()

    # -- painting --------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """The airframe as it is turned; wood, lens and small drawings when it rests."""
        self._lay()
        painter = QPainter(self)
        paint_paper(painter, self._theme, self.rect())
        if self._view is None or not self._seen.space.faces:
            return
        painter.setRenderHint(QPainter.RenderHint.Antialiasing, on=self._resting)
        if self._resting:
            self._paint_faces(painter)
        else:
            self._paint_turning(painter, self._view)
        self._paint_wanted(painter, self._view)
        self._paint_names(painter, self._view)
        if self._resting:
            self._paint_lens(painter, self._view)
        painter.drawPixmap(0, 0, self._small_now())
        self._paint_words(painter)
        if self.hasFocus():
            painter.setRenderHint(QPainter.RenderHint.Antialiasing, on=False)
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(self._theme.colour("act"), 1))
            painter.drawRect(self.rect().adjusted(0, 0, -1, -1))

    def _paint_faces(self, painter: QPainter) -> None:
        """As wood, where it rests."""
        theme, chosen = self._theme, self._seen.chosen
        line, faint, lit = self._pens()
        for one, path in self._paths:
            if one.layer == "surface":
                self._dress_surface(painter, one.ref)
                painter.drawPath(path)
                continue
            skin = one.layer == "skin"
            painter.setPen(lit if one.ref == chosen else faint if skin else line)
            painter.setBrush(wood_brush(theme, one.tone, one.grain))
            painter.drawPath(path)
            painter.fillPath(path, QColor(0, 0, 0, round(255 * _SHADE * (1 - one.shade))))
            if one.ref == chosen:
                painter.fillPath(path, theme.colour("act", 0.45))

    def _paint_turning(self, painter: QPainter, view: Viewport) -> None:
        """In plain colours, while it is turned: no more is done for a face than must be."""
        space, chosen = self._seen.space, self._seen.chosen
        flat, order, shades = space.turned_to(self._eye, self._layers(), open_=self._skin == "open")
        u0, v0, scale = view.u0, view.v0, view.scale
        points = _points(flat * scale + (u0, v0))
        line, faint, _ = self._pens()
        colours: dict[tuple[Tone, int], QColor] = {}
        faces, spans, aslant = space.faces, space.packed.spans, shades.tolist()
        for i in order.tolist():
            face = faces[i]
            (a, b), *holes = spans[i]
            if face.ref == chosen or face.layer == "surface":
                self._dress(painter, face.ref, face.layer)
            else:
                painter.setPen(faint if face.layer == "skin" else line)
                key = face.tone, round(_SHADES * aslant[i])
                if key not in colours:
                    darker = 100 + round(40 * (1 - key[1] / _SHADES))
                    colours[key] = tone_colour(self._theme, face.tone).darker(darker)
                painter.setBrush(colours[key])
            if not holes:
                painter.drawPolygon(points.mid(a, b - a))
                continue
            path = QPainterPath()
            path.setFillRule(Qt.FillRule.OddEvenFill)
            for start, end in spans[i]:
                path.addPolygon(points.mid(start, end - start))
                path.closeSubpath()
            painter.drawPath(path)

    def _dress(self, painter: QPainter, ref: str, layer: Layer) -> None:
        """Pen and brush of what is in hand, and of wings and tail."""
        if layer == "surface":
            self._dress_surface(painter, ref)
        else:
            painter.setPen(self._pens()[2])
            painter.setBrush(self._theme.colour("act", 0.75))

    def _pens(self) -> tuple[QPen, QPen, QPen]:
        """For wood, for a skin's seams, for what is in hand; as fine in the lens as without it."""
        theme = self._theme
        pens = (
            QPen(theme.colour("ink"), 0.9),
            QPen(theme.colour("ink", 0.22), 0.7),
            QPen(theme.colour("act"), 1.8),
        )
        for pen in pens:
            pen.setCosmetic(True)
        return pens

    def _dress_surface(self, painter: QPainter, ref: str) -> None:
        theme = self._theme
        verdict = self._seen.verdicts.get(ref)
        lit = ref == self._seen.chosen
        colour = "out" if verdict == "out" else "act" if lit else "ink"
        pen = QPen(theme.colour(colour), 1.8 if lit or verdict == "out" else 0.9)
        pen.setCosmetic(True)
        if not self._seen.whole:
            pen.setStyle(Qt.PenStyle.DashLine)
            painter.setBrush(Qt.BrushStyle.NoBrush)
        else:
            painter.setBrush(theme.colour("wing", _SURFACE))
        painter.setPen(pen)

    def _paint_wanted(self, painter: QPainter, view: Viewport) -> None:
        if self._seen.wanted is None:
            return
        pen = QPen(self._theme.colour("act"), 1.1, Qt.PenStyle.DashLine)
        painter.setPen(pen)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for _, line in self._seen.wanted.flat_lines(self._eye):
            painter.drawPolyline(_polygon(view, line))

    def _paint_names(self, painter: QPainter, view: Viewport) -> None:
        theme = self._theme
        right, up, _ = self._eye.axes
        painter.setFont(theme.font(13))
        metrics = painter.fontMetrics()
        taken: list[QRectF] = []
        for text, at, ref in self._seen.names:
            place = view.point((float(at @ right), -float(at @ up)))
            wide = metrics.horizontalAdvance(text)
            box = QRectF(place.x() - wide / 2, place.y() + 8, wide, metrics.height())
            if any(box.adjusted(-4, 0, 4, 0).intersects(one) for one in taken):
                continue
            taken.append(box)
            lit = ref == self._seen.chosen
            painter.setFont(theme.font(13, weight=600 if lit else 400))
            painter.setPen(QPen(theme.colour("act" if lit else "soft"), 1))
            painter.drawLine(place, QPointF(place.x(), place.y() + 7))
            painter.drawText(box.adjusted(-8, 0, 8, 0), Qt.AlignmentFlag.AlignCenter, text)

    def _paint_lens(self, painter: QPainter, view: Viewport) -> None:
        """The part in hand four times as large, in a ring at the upper left."""
        middle = self._seen.space.middle_of(self._seen.chosen) if self._seen.chosen else None
        drawn = [path for one, path in self._paths if one.ref == self._seen.chosen]
        if middle is None or not drawn or self._seen.chosen in self._seen.verdicts:
            return
        theme = self._theme
        radius = _LENS_SHARE * self.height()
        right, up, _ = self._eye.axes
        at = view.point((float(middle @ right), -float(middle @ up)))
        extent = max(path.boundingRect().height() for path in drawn)
        at = QPointF(at.x(), at.y() - min(extent / 2, radius))  # its head, where it meets others
        away = self._free_corner(radius)
        ring = QPainterPath()
        ring.addEllipse(away, radius, radius)
        painter.save()
        painter.setPen(QPen(theme.colour("act"), 1.0))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawEllipse(at, radius / _LENS_TIMES, radius / _LENS_TIMES)
        painter.drawLine(at, away)
        painter.fillPath(ring, theme.colour("paper"))
        painter.setClipPath(ring)
        painter.translate(away)
        painter.scale(_LENS_TIMES, _LENS_TIMES)
        painter.translate(-at)
        self._paint_faces(painter)
        painter.restore()
        painter.setPen(QPen(theme.colour("act"), 2.2))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawPath(ring)
        painter.setFont(theme.font(13))
        painter.setPen(theme.colour("soft"))
        painter.drawText(
            QPointF(away.x() - radius, away.y() + radius + theme.px(16)), say.MAGNIFIED
        )

    def _free_corner(self, radius: float) -> QPointF:
        """Where a ring covers the least of what is drawn."""
        box = self._work_box()
        rests = [path.boundingRect() for one, path in self._paths if one.layer != "surface"]
        found = []
        for u in (box.left() + radius, box.right() - radius):
            for v in (box.top() + radius, box.bottom() - radius):
                ring = QRectF(u - radius, v - radius, 2 * radius, 2 * radius)
                found.append((sum(ring.intersects(one) for one in rests), v, u))
        _, v, u = min(found)
        return QPointF(u, v)

    def _small_now(self) -> QPixmap:
        """Plan, side and rear, painted once."""
        if self._small is None:
            ratio = self.devicePixelRatioF()
            self._small = QPixmap(self.size() * ratio)
            self._small.setDevicePixelRatio(ratio)
            self._small.fill(QColor(0, 0, 0, 0))
            painter = QPainter(self._small)
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            self._paint_small(painter)
            painter.end()
        return self._small

    def _paint_small(self, painter: QPainter) -> None:
        theme = self._theme
        tall = self.height() * _SMALL_SHARE
        top, head = self.height() - tall, theme.px(20)
        wide = (self.width() - 48.0 - 24.0) / 2.6
        painter.setPen(QPen(theme.colour("hair"), 1))
        painter.drawLine(QPointF(16, top - 6), QPointF(self.width() - 16.0, top - 6))
        at = 24.0
        for name, share in (("plan", 1.0), ("side", 1.0), ("rear", 0.6)):
            box = QRectF(at, top + head, wide * share, tall - head - 10)
            at += wide * share + 12
            self._boxes[name] = box
            painter.setPen(QPen(theme.colour("hair"), 1))
            painter.setBrush(theme.colour("field"))
            painter.drawRect(box)
            painter.setFont(theme.font(13, weight=600))
            painter.setPen(theme.colour("ink"))
            painter.drawText(QPointF(box.left(), box.top() - 6), say.VIEWS[name])
            drawn = self._framed(self._seen_from(_STANDARD[name]))
            view = fit(box.adjusted(6, 6, -6, -6), _bounds(drawn))
            for one in drawn:
                if one.layer == "surface":
                    self._dress_surface(painter, one.ref)
                    painter.drawPath(_path(view, one))
                    continue
                faint = one.layer == "skin"
                painter.setPen(QPen(theme.colour("ink", 0.15 if faint else 1.0), 0.5))
                lit = one.ref == self._seen.chosen
                colour = theme.colour("act") if lit else tone_colour(theme, one.tone)
                painter.setBrush(colour)
                painter.drawPath(_path(view, one))

    def _paint_words(self, painter: QPainter) -> None:
        theme = self._theme
        painter.setFont(theme.font(13))
        painter.setPen(theme.colour("soft"))
        painter.drawText(QPointF(14, theme.px(18)), say.looked_from(self._eye.round, self._eye.up))
        if self._seen.wanted is not None:
            wide = painter.fontMetrics().horizontalAdvance(say.AS_WANTED)
            painter.drawText(QPointF(self.width() - wide - 14.0, theme.px(18)), say.AS_WANTED)

    # -- hands -----------------------------------------------------------------------------------

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Take hold of it, or of one of the small drawings."""
        if event is None or event.button() != Qt.MouseButton.LeftButton:
            return
        self.setFocus()
        self._pressed, self._dragged = event.position(), False

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Turn it."""
        if event is None or self._pressed is None:
            return
        by = event.position() - self._pressed
        if not self._dragged and by.manhattanLength() < 4:  # noqa: PLR2004  a hand that only points trembles
            return
        self._dragged, self._resting = True, False
        self._pressed = event.position()
        eye = self._eye
        self.look_from(Eye(eye.round - by.x() * _DEGREES_A_PX, eye.up + by.y() * _DEGREES_A_PX))

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        """Let it go; a click takes what is under it in hand."""
        if event is None or self._pressed is None:
            return
        self._pressed = None
        if self._dragged:
            self._rest.start()
            return
        standard = next(
            (name for name, box in self._boxes.items() if box.contains(event.position())), ""
        )
        if standard:
            self.look_from(_STANDARD[standard])
            return
        ref = self._ref_at(event.position())
        if ref:
            self.picked.emit(ref)

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        """Plan, side, rear, and back to where it was."""
        eyes = [*_STANDARD.values()]
        if self._eye in eyes:
            at = eyes.index(self._eye) + 1
            self.look_from(eyes[at] if at < len(eyes) else self._last)
        else:
            self.look_from(eyes[0])

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Arrows turn it, space shows more or less."""
        if event is None:
            return
        steps = {
            Qt.Key.Key_Left: (_STEP, 0.0),
            Qt.Key.Key_Right: (-_STEP, 0.0),
            Qt.Key.Key_Up: (0.0, _STEP),
            Qt.Key.Key_Down: (0.0, -_STEP),
        }
        by = steps.get(Qt.Key(event.key()))
        if by is not None:
            self._resting = False
            self._rest.start()
            self.look_from(Eye(self._eye.round + by[0], self._eye.up + by[1]))
        elif event.key() == Qt.Key.Key_Space:
            self.show_skin(SKINS[(SKINS.index(self._skin) + 1) % len(SKINS)])
        else:
            super().keyPressEvent(event)

    def _on_rest(self) -> None:
        self._resting = True
        self._forget()

    def _ref_at(self, at: QPointF) -> str:
        self._resting = True
        self._lay()
        for one, path in reversed(self._paths):
            if path.contains(at):
                return one.ref
        return ""


def _bounds(drawn: list[Drawn]) -> tuple[float, float, float, float]:
    rings = [one.rings[0] for one in drawn]
    if not rings:
        return 0.0, 0.0, 1.0, 1.0
    low = [ring.min(axis=0) for ring in rings]
    high = [ring.max(axis=0) for ring in rings]
    return (
        float(min(one[0] for one in low)),
        float(min(one[1] for one in low)),
        float(max(one[0] for one in high)),
        float(max(one[1] for one in high)),
    )


def _points(at: Array) -> QPolygonF:
    """Pixels, shape (n, 2), as one polygon of which each face takes its part: no object for each point."""
    points = QPolygonF([QPointF()] * len(at))
    room = points.data()
    if len(at):
        room.setsize(at.size * at.itemsize)
        np.frombuffer(cast("memoryview", room), dtype=np.float64)[:] = at.ravel()
    return points


def _polygon(view: Viewport, ring: Array) -> QPolygonF:
    u0, v0, scale = view.u0, view.v0, view.scale
    return QPolygonF([QPointF(u0 + scale * u, v0 + scale * v) for u, v in ring.tolist()])


def _path(view: Viewport, one: Drawn) -> QPainterPath:
    path = QPainterPath()
    path.setFillRule(Qt.FillRule.OddEvenFill)
    for ring in one.rings:
        path.addPolygon(_polygon(view, ring))
        path.closeSubpath()
    return path
