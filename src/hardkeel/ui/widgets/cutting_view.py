"""One stick at a time, as long as the window: its length, its angles, the jig, and Enter for cut."""

from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.geometry.hull import Point2
from hardkeel.picture.wood import Tone, WoodShape
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.viewport import Viewport
from hardkeel.ui.widgets.wood import paint_wood, shape_path

_SIDE_PX: Final = 60
_TALLEST_PX: Final = 104
_MM_PER_INCH: Final = 25.4
_END_MM: Final = 16.0  # of each end, drawn at its true size
_ARC_PX: Final = 26.0
_ARM_PX: Final = 12.0
_SQUARE: Final = 89.95


@dataclass(frozen=True, slots=True)
class StickShown:
    """A stick in words and figures.

    Attributes
    ----------
    outline : tuple of (u, v)
        Along the stick from its front or lower end, mm, v down.
    angles : (tuple of float, tuple of float)
        Degrees of each end's faces; `angle_words` say them.
    """

    title: str
    about: str
    outline: tuple[Point2, ...]
    length: str
    angles: tuple[tuple[float, ...], tuple[float, ...]]
    angle_words: tuple[str, str]
    jig: str
    following: str
    warning: str = ""
    tone: Tone = "soft"
    cut: bool = False

    @property
    def jig_lines(self) -> tuple[str, ...]:
        """How the jig is set, and what else is cut so."""
        return tuple(text for text in (self.jig, self.following) if text)


class CuttingView(QWidget):
    """Draws the stick in hand.

    Signals
    -------
    cut : (nothing)
        Enter or Space: it is cut.
    back : (nothing)
        Backspace: the one before was not.
    onward : int
        Left or right: look at another, cut or not.
    """

    cut = pyqtSignal()
    back = pyqtSignal()
    onward = pyqtSignal(int)

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self._theme = theme
        self._stick: StickShown | None = None
        self._nothing = ""
        self._true_size = False
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName("the stick in hand")

    def sizeHint(self) -> QSize:
        """As tall as a stick with its figures."""
        return QSize(640, self._theme.px(260))

    def minimumSizeHint(self) -> QSize:
        """No less than title, stick and figures need."""
        return QSize(320, self._theme.px(225))

    @property
    def stick(self) -> StickShown | None:
        """The stick in hand."""
        return self._stick

    def show_stick(self, stick: StickShown | None, nothing: str = "") -> None:
        """Show a stick, or say why there is none."""
        self._stick, self._nothing = stick, nothing
        said = (
            nothing
            if stick is None
            else f"{stick.title}, {stick.length}, {' and '.join(stick.angle_words)}"
        )
        self.setAccessibleDescription(said)
        self.update()

    def show_true_size(self, *, on: bool) -> None:
        """Draw both ends as large as they are, the middle left out."""
        self._true_size = on
        self.update()

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        self.updateGeometry()
        self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Enter cuts, Backspace takes back, arrows look on."""
        key = Qt.Key(event.key()) if event is not None else Qt.Key.Key_unknown
        if key in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self.cut.emit()
        elif key == Qt.Key.Key_Backspace:
            self.back.emit()
        elif key in (Qt.Key.Key_Left, Qt.Key.Key_Right):
            self.onward.emit(1 if key == Qt.Key.Key_Right else -1)
        else:
            super().keyPressEvent(event)

    # -- painting ----------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Title, dimension, stick, angles, jig."""
        theme, painter = self._theme, QPainter(self)
        painter.fillRect(self.rect(), theme.colour("paper"))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(theme.colour("hair"))
        painter.drawLine(0, 0, self.width(), 0)
        stick = self._stick
        if stick is None:
            painter.setFont(theme.font(17, narrow=False, weight=600))
            painter.setPen(theme.colour("ink"))
            painter.drawText(
                self.rect().adjusted(20, 20, -20, -20), _CENTRED | _WRAP, self._nothing
            )
        else:
            self._paint_stick(painter, stick)
        if self.hasFocus():
            painter.setRenderHint(QPainter.RenderHint.Antialiasing, on=False)
            painter.setPen(QPen(theme.colour("act"), 1))
            painter.drawRect(self.rect().adjusted(0, 0, -1, -1))

    def _paint_stick(self, painter: QPainter, stick: StickShown) -> None:
        theme, wide = self._theme, self.width()
        y = theme.px(8)
        y = self._words(painter, stick.title, y, (18, 600), "ink", narrow=False)
        y = self._words(painter, stick.about, y, (14, 400), "soft")
        if stick.warning:
            y = self._words(painter, stick.warning, y, (14, 500), "out")
        figures = theme.px(58) + self._jig_above(painter, stick)
        box = QRectF(_SIDE_PX, y + theme.px(66), wide - 2 * _SIDE_PX, 0)
        box.setBottom(max(self.height() - figures - theme.px(6), box.top() + 24))
        if self._true_size:
            self._paint_ends(painter, stick, box)
        else:
            view = _placed(stick.outline, box)
            self._paint_dimension(painter, stick, view)
            self._paint_outline(painter, stick, view)
        self._paint_figures(painter, stick, self.height() - figures)

    def _words(
        self,
        painter: QPainter,
        text: str,
        y: int,
        font: tuple[int, int],
        colour: str,
        *,
        narrow: bool = True,
    ) -> int:
        size, weight = font
        painter.setFont(self._theme.font(size, narrow=narrow, weight=weight))
        painter.setPen(self._theme.colour(colour))
        tall = painter.fontMetrics().height()
        room = QRectF(18, y, self.width() - 36, tall)
        shown = painter.fontMetrics().elidedText(
            text, Qt.TextElideMode.ElideRight, int(room.width())
        )
        painter.drawText(room, Qt.AlignmentFlag.AlignLeft, shown)
        return y + tall

    def _paint_dimension(self, painter: QPainter, stick: StickShown, view: Viewport) -> None:
        theme = self._theme
        us = [p[0] for p in stick.outline]
        vs = [p[1] for p in stick.outline]
        left, right = view.point((min(us), 0)).x(), view.point((max(us), 0)).x()
        y = view.point((0, min(vs))).y() - theme.px(20)
        painter.setFont(theme.font(26, narrow=False, weight=600))
        metrics = painter.fontMetrics()
        room, tall = metrics.horizontalAdvance(stick.length) + 20, metrics.height()
        middle = (left + right) / 2
        painter.setPen(QPen(theme.colour("ink"), 1.1))
        for place in (left, right):
            painter.drawLine(QPointF(place, y - 6), QPointF(place, y + 6))
        if right - left > room + 4 * _ARM_PX:
            painter.drawLine(QPointF(left, y), QPointF(middle - room / 2, y))
            painter.drawLine(QPointF(middle + room / 2, y), QPointF(right, y))
        else:  # no room between its arms: over the line
            painter.drawLine(QPointF(left, y), QPointF(right, y))
            y -= tall / 2 + 4
        painter.drawText(
            QRectF(middle - room / 2, y - tall / 2, room, tall), _CENTRED, stick.length
        )

    def _paint_outline(self, painter: QPainter, stick: StickShown, view: Viewport) -> None:
        shape = WoodShape("", stick.outline, tone=stick.tone)
        path = shape_path(view, shape)
        paint_wood(painter, self._theme, shape, path)
        painter.setPen(QPen(self._theme.colour("act"), 2.2))
        painter.drawPath(path)
        self._paint_arcs(painter, stick, view)

    def _paint_arcs(self, painter: QPainter, stick: StickShown, view: Viewport) -> None:
        """At each end the angle between the long edge and the cut, in its sharp corner."""
        polygon = view.polygon(stick.outline)
        box = polygon.boundingRect()
        for at_left, faces in ((True, stick.angles[0]), (False, stick.angles[1])):
            if not faces or min(faces) >= _SQUARE:
                continue
            tip = box.left() if at_left else box.right()
            corner = min(
                (polygon.at(i) for i in range(polygon.count())), key=lambda p: abs(p.x() - tip)
            )
            if len(faces) > 1:
                continue  # a point has its two faces said beside it
            is_low = corner.y() > box.center().y()
            start = (
                (0 if is_low else 360 - faces[0])
                if at_left
                else (180 - faces[0] if is_low else 180)
            )
            radius = min(_ARC_PX * self._theme.scale, box.height() * 0.8)
            painter.setPen(QPen(self._theme.colour("act"), 1.8))
            ring = QRectF(corner.x() - radius, corner.y() - radius, 2 * radius, 2 * radius)
            painter.drawArc(ring, round(start * 16), round(faces[0] * 16))

    def _paint_ends(self, painter: QPainter, stick: StickShown, box: QRectF) -> None:
        """Both ends as large as on the bench, by what the screen says of itself."""
        scale = self.logicalDpiX() / _MM_PER_INCH
        screen = self.screen()
        if screen is not None and screen.physicalDotsPerInch() > 0:
            scale = screen.physicalDotsPerInch() / _MM_PER_INCH
        us = [p[0] for p in stick.outline]
        v = sum(p[1] for p in stick.outline) / len(stick.outline)
        for from_left, end in ((True, min(us)), (False, max(us))):
            u0 = box.left() - scale * end if from_left else box.right() - scale * end
            view = Viewport(box, scale, u0, box.center().y() - scale * v)
            painter.save()
            reach = scale * _END_MM
            left = box.left() - 4 if from_left else box.right() - reach
            painter.setClipRect(QRectF(left, box.top() - 40, reach + 4, box.height() + 80))
            self._paint_outline(painter, stick, view)
            painter.restore()
        painter.setFont(self._theme.font(26, narrow=False, weight=600))
        painter.setPen(self._theme.colour("ink"))
        painter.drawText(box.adjusted(0, -20, 0, 20), _CENTRED, f"– {stick.length} –")

    def _reach(self, painter: QPainter, stick: StickShown) -> int:
        """How far the figures of the angles reach in from either side, pixels."""
        painter.setFont(self._theme.font(28, narrow=False, weight=600))
        return max(painter.fontMetrics().horizontalAdvance(t) for t in stick.angle_words) + 30

    def _jig_above(self, painter: QPainter, stick: StickShown) -> int:
        """How high the jig's words stand over the angles, pixels; 0 where they have room between them."""
        between = self.width() - 2 * self._reach(painter, stick)
        painter.setFont(self._theme.font(14))
        metrics = painter.fontMetrics()
        if between >= max(metrics.horizontalAdvance(text) for text in (*stick.jig_lines, "")):
            return 0
        across = QRectF(18, 0, self.width() - 36, self.height())
        return int(painter.boundingRect(across, _WRAPPED, "\n".join(stick.jig_lines)).height())

    def _paint_figures(self, painter: QPainter, stick: StickShown, y: int) -> None:
        theme, wide = self._theme, self.width()
        above, reach = self._jig_above(painter, stick), self._reach(painter, stick)
        painter.setPen(theme.colour("act"))
        tall = painter.fontMetrics().height()
        for text, side in zip(stick.angle_words, (_LEFT, _RIGHT), strict=True):
            painter.drawText(QRectF(18, y + above, wide - 36, tall), side, text)
        painter.setFont(theme.font(14))
        painter.setPen(theme.colour("soft"))
        room = QRectF(18, y, wide - 36, above)
        if not above:
            room = QRectF(reach, y - 4, wide - 2 * reach, self.height() - y + 2)
        painter.drawText(room, _WRAPPED, "\n".join(stick.jig_lines))


_CENTRED: Final = Qt.AlignmentFlag.AlignCenter
_WRAPPED: Final = (
    int(Qt.AlignmentFlag.AlignHCenter)
    | int(Qt.AlignmentFlag.AlignTop)
    | int(Qt.TextFlag.TextWordWrap)
)
_LEFT: Final = Qt.AlignmentFlag.AlignLeft
_RIGHT: Final = Qt.AlignmentFlag.AlignRight
_WRAP: Final = Qt.TextFlag.TextWordWrap


def _placed(outline: tuple[Point2, ...], box: QRectF) -> Viewport:
    """As long as the box, but no taller than a hand draws."""
    us, vs = [p[0] for p in outline], [p[1] for p in outline]
    wide, tall = max(max(us) - min(us), 1e-3), max(max(vs) - min(vs), 1e-3)
    scale = min(box.width() / wide, min(box.height(), _TALLEST_PX) / tall)
    middle = box.center()
    return Viewport(
        box,
        scale,
        middle.x() - scale * (min(us) + max(us)) / 2,
        middle.y() - scale * (min(vs) + max(vs)) / 2,
    )
