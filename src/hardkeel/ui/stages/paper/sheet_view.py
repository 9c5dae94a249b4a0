"""The very sheet on the table: its drawings with their pages, nearer by the wheel, moved by dragging."""

import math
from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING, Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QImage,
    QMouseEvent,
    QPainter,
    QPainterPath,
    QPaintEvent,
    QPen,
    QResizeEvent,
    QTransform,
    QWheelEvent,
)
from PyQt6.QtWidgets import QSizePolicy, QWidget

from hardkeel.messages import prints as say
from hardkeel.ui.theme import Theme, make_theme

if TYPE_CHECKING:
    from hardkeel.ui.stages.paper.shown import Board, BoardPage

_BETWEEN_MM: Final = 25.0
_EDGE_PX: Final = 18
_LEAST_WORD_PX: Final = 5.0
_TYPE: Final = 1.35  # of a capital's height, the size of its type
_NEARER: Final = 1.2
_NEAREST: Final = 16.0
_DRAG_PX: Final = 4


class SheetView(QWidget):
    """Drawings at one scale, each with the frames of its pages; what is out of date is washed.

    Signals
    -------
    page_picked : int
        A page was clicked.
    """

    page_picked = pyqtSignal(int)

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.theme = theme
        self.setMinimumHeight(220)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(say.THE_SHEET)
        self.setToolTip(say.NEARER)
        self._boards: tuple[Board, ...] = ()
        self._laid: list[
            tuple[Board, QPointF]
        ] = []  # with where its lower left corner lies, mm, v down
        self._reach = QRectF()
        self._scale, self._shift = 1.0, QPointF()
        self._held: QPointF | None = None
        self._moved = False
        self._picked: frozenset[int] = frozenset()
        self._page: QImage | None = None

    def sizeHint(self) -> QSize:
        """A table."""
        return QSize(820, 480)

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme; paper stays paper."""
        self.theme = theme
        self.update()

    def show_boards(self, boards: "Sequence[Board]", *, stay: bool = False) -> None:
        """Lay drawings on the table, the whole of them seen unless the view shall `stay`."""
        self._page = None
        self._boards = tuple(boards)
        before = QRectF(self._reach)
        self._lay()
        if not stay or self._reach != before:  # another drawing, or the pages of another build
            self.fit()
        self.update()

    def pick(self, pages: frozenset[int]) -> None:
        """Frame the pages that will be printed."""
        self._picked = pages
        self.update()

    def show_page(self, page: QImage | None) -> None:
        """Show a page as the printer gets it, over the drawing; ``None`` takes it away, and so does a click."""
        self._page = page
        self.update()

    @property
    def shows_page(self) -> bool:
        """Whether a page lies over the drawing."""
        return self._page is not None

    def fit(self) -> None:
        """See all of it."""
        room = QRectF(self.rect()).adjusted(_EDGE_PX, _EDGE_PX, -_EDGE_PX, -_EDGE_PX)
        if self._reach.isEmpty() or room.isEmpty():
            return
        self._scale = min(room.width() / self._reach.width(), room.height() / self._reach.height())
        self._shift = room.center() - self._scale * self._reach.center()

    def place_of(self, number: int) -> QPointF | None:
        """Where on the widget the middle of a page lies."""
        for board, corner in self._laid:
            for page in board.pages:
                if page.number == number:
                    return self._on_widget(self._frame(board, corner, page)).center()
        return None

    # -- laying ------------------------------------------------------------------------------------

    def _lay(self) -> None:
        """Drawings in rows, so that the whole is about as wide as the widget is."""
        sizes = [(b.bounds[2] - b.bounds[0], b.bounds[3] - b.bounds[1]) for b in self._boards]
        aspect = max(self.width(), 1) / max(self.height(), 1)
        area = sum((w + _BETWEEN_MM) * (h + _BETWEEN_MM) for w, h in sizes)
        wide = max([math.sqrt(area * aspect), *(w for w, _ in sizes)], default=0.0)
        self._laid, u, v, deep = [], 0.0, 0.0, 0.0
        reach = QRectF()
        for board, (w, h) in zip(self._boards, sizes, strict=True):
            if u and u + w > wide:
                u, v, deep = 0.0, v + deep + _BETWEEN_MM, 0.0
            self._laid.append((board, QPointF(u, v + h)))
            reach = reach.united(QRectF(u, v, w, h))
            u, deep = u + w + _BETWEEN_MM, max(deep, h)
        self._reach = reach

    @staticmethod
    def _frame(board: "Board", corner: QPointF, page: "BoardPage") -> QRectF:
        """A page on the table, mm."""
        left, low = page.at[0] - board.bounds[0], page.at[1] - board.bounds[1]
        return QRectF(
            corner.x() + left, corner.y() - low - page.size[1], page.size[0], page.size[1]
        )

    def _on_widget(self, rect: QRectF) -> QRectF:
        return QRectF(
            self._shift + self._scale * rect.topLeft(),
            self._shift + self._scale * rect.bottomRight(),
        )

    # -- painting ----------------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """The table and what lies on it."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), self.theme.colour("desk"))
        if self._page is not None:
            at = QRectF(self._page.rect())
            at.moveCenter(QRectF(self.rect()).center())
            painter.drawImage(at.topLeft(), self._page)
            painter.setPen(QPen(self.theme.colour("hair"), 1.0))
            painter.drawRect(at)
            return
        printed = make_theme("light", round(100 * self.theme.scale))
        if not self._laid:
            painter.setPen(self.theme.colour("soft"))
            painter.setFont(self.theme.font(16))
            painter.drawText(
                self.rect(), Qt.AlignmentFlag.AlignCenter, self.accessibleDescription()
            )
            return
        for board, corner in self._laid:
            frames = [
                (page, self._on_widget(self._frame(board, corner, page))) for page in board.pages
            ]
            for page, frame in frames:
                painter.fillRect(frame, printed.colour("act_wash" if page.stale else "field"))
            painter.save()
            whole = QPainterPath()
            for _, frame in frames:
                whole.addRect(frame)
            painter.setClipPath(whole)
            self._paint_board(painter, board, corner, printed)
            painter.restore()
            self._paint_frames(painter, frames, printed)

    def _paint_board(
        self, painter: QPainter, board: "Board", corner: QPointF, printed: Theme
    ) -> None:
        origin = self._shift + self._scale * corner
        scale = self._scale
        to_widget = QTransform(
            scale,
            0,
            0,
            -scale,
            origin.x() - scale * board.bounds[0],
            origin.y() + scale * board.bounds[1],
        )
        for line in board.lines:
            path = QPainterPath(to_widget.map(QPointF(*line.points[0])))
            for point in line.points[1:]:
                path.lineTo(to_widget.map(QPointF(*point)))
            pen = QPen(printed.colour("ink"), max(line.weight * scale, 0.7))
            if line.dashes and scale * line.dashes[-1] > 1:
                wide = pen.widthF()
                pen.setDashPattern([max(one * scale / wide, 1.0) for one in line.dashes])
            if line.wood:
                painter.fillPath(path, printed.colour("wood"))
            painter.strokePath(path, pen)
        painter.setPen(printed.colour("ink"))
        for words in (row for block in board.words for row in block.rows):
            pixels = words.size * _TYPE * scale
            if pixels < _LEAST_WORD_PX:
                continue
            font = printed.font(12)
            font.setPixelSize(max(1, round(pixels)))
            painter.save()
            painter.translate(to_widget.map(QPointF(*words.at)))
            painter.rotate(-words.turn)
            painter.setFont(font)
            box = QRectF(-400, -pixels, 800, 2 * pixels)
            align = Qt.AlignmentFlag.AlignCenter
            if words.anchor != "middle":
                box = QRectF(0, -pixels, 800, 2 * pixels)
                align = Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignLeft
                if words.anchor == "end":
                    box.moveRight(0)
                    align = Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignRight
            painter.drawText(box, align, words.text)
            painter.restore()

    def _paint_frames(
        self, painter: QPainter, frames: "Sequence[tuple[BoardPage, QRectF]]", printed: Theme
    ) -> None:
        """Page frames with their numbers; the ones to be printed strongly."""
        many = self._pages > 1
        for page, frame in sorted(frames, key=lambda one: one[0].number in self._picked):
            on = page.number in self._picked and many
            painter.setPen(QPen(printed.colour("act" if on else "hair"), 2.0 if on else 1.0))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(frame)
        if not many:
            return
        painter.setFont(printed.font(14, weight=600))
        for page, frame in frames:
            spot = QRectF(frame.left() + 4, frame.top() + 4, printed.px(26), printed.px(22))
            on = page.number in self._picked
            painter.fillRect(spot, printed.colour("act" if on else "desk"))
            painter.setPen(printed.colour("on_act" if on else "soft"))
            painter.drawText(spot, Qt.AlignmentFlag.AlignCenter, str(page.number))

    @property
    def _pages(self) -> int:
        return sum(len(board.pages) for board in self._boards)

    # -- hands -------------------------------------------------------------------------------------

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """All of it is seen again."""
        self._lay()
        self.fit()

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        """Nearer, or farther off, about the hand."""
        if event is None or not self._laid:
            return
        factor = _NEARER ** (event.angleDelta().y() / 120)
        scale = min(max(self._scale * factor, 0.02), _NEAREST)
        at = event.position()
        self._shift = at - (at - self._shift) * (scale / self._scale)
        self._scale = scale
        self.update()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Take the sheet by the hand."""
        if self._page is None and event is not None and event.button() == Qt.MouseButton.LeftButton:
            self._held, self._moved = event.position(), False

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Move it."""
        if event is None or self._held is None:
            return
        by = event.position() - self._held
        if self._moved or by.manhattanLength() > _DRAG_PX:
            self._moved = True
            self._shift += by
            self._held = event.position()
            self.update()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        """A click that moved nothing picks a page; where one lies over the drawing it takes that away."""
        if self._page is not None:
            self.show_page(None)
            return
        held, self._held = self._held, None
        if event is None or held is None or self._moved:
            return
        for number in self._under(event.position()):
            self.page_picked.emit(number)
            return

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        """All of it again."""
        self.fit()
        self.update()

    def _under(self, at: QPointF) -> Iterator[int]:
        for board, corner in self._laid:
            for page in board.pages:
                if self._on_widget(self._frame(board, corner, page)).contains(at):
                    yield page.number
