"""The sheets of a build in a list: each drawn small, its name, how its last print stands."""

from typing import TYPE_CHECKING, Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QPainter, QPaintEvent, QPen, QPixmap
from PyQt6.QtWidgets import QAbstractButton, QButtonGroup, QVBoxLayout, QWidget

from hardkeel.messages import prints as say
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card
from hardkeel.ui.widgets.viewport import fit

if TYPE_CHECKING:
    from collections.abc import Sequence

    from hardkeel.ui.stages.paper.shown import SheetShown

_TALL, _SMALL_WIDE = 36, 58
_SPOT: Final = 5.0


class SheetRow(QAbstractButton):
    """One sheet."""

    def __init__(self, number: int, shown: "SheetShown", theme: Theme) -> None:
        super().__init__()
        self.shown, self.theme, self.number = shown, theme, number
        self.setCheckable(True)
        self._small: QPixmap | None = None
        self.setText(f"{number}  {shown.name}")
        self.setAccessibleName(f"{shown.name}: {shown.state}")

    def sizeHint(self) -> QSize:
        """As tall as two lines."""
        return QSize(self.theme.px(240), self.theme.px(_TALL))

    def minimumSizeHint(self) -> QSize:
        """A name may be cut short."""
        return QSize(self.theme.px(120), self.theme.px(_TALL))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """The sheet small, its name, its state."""
        theme = self.theme
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self.isChecked():
            painter.fillRect(self.rect(), theme.colour("act_wash"))
        if self.hasFocus():
            painter.setPen(QPen(theme.colour("act"), 1.0))
            painter.drawRect(QRectF(self.rect()).adjusted(0.5, 0.5, -0.5, -0.5))
        tall = self.height()
        small = QRectF(4, 4, theme.px(_SMALL_WIDE), tall - 8)
        self._paint_small(painter, small)
        left = small.right() + 10
        text = QRectF(left, 2, self.width() - left - 4, tall / 2 - 1)
        painter.setPen(theme.colour("ink"))
        painter.setFont(theme.font(15, weight=600))
        name = painter.fontMetrics().elidedText(
            self.text(), Qt.TextElideMode.ElideRight, int(text.width())
        )
        painter.drawText(text, Qt.AlignmentFlag.AlignVCenter, name)
        spot = QPointF(left + _SPOT, tall * 0.73)
        self._paint_state(painter, spot)
        stale = self.shown.standing.printed is not None and not self.shown.standing.is_right
        painter.setPen(theme.colour("act" if stale else "soft"))
        painter.setFont(theme.font(14, weight=600 if stale else 400))
        state = QRectF(
            left + 3 * _SPOT + 2, tall / 2, self.width() - left - 3 * _SPOT - 4, tall / 2 - 2
        )
        told = painter.fontMetrics().elidedText(
            self.shown.state, Qt.TextElideMode.ElideRight, int(state.width())
        )
        painter.drawText(state, Qt.AlignmentFlag.AlignVCenter, told)

    def _paint_state(self, painter: QPainter, at: QPointF) -> None:
        """Open: not printed; half: some of it is out of date; full: still right."""
        theme, standing = self.theme, self.shown.standing
        colour = theme.colour("soft" if standing.printed is None or standing.is_right else "act")
        painter.setPen(QPen(colour, 1.4))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawEllipse(at, _SPOT, _SPOT)
        painter.setBrush(colour)
        box = QRectF(at.x() - _SPOT, at.y() - _SPOT, 2 * _SPOT, 2 * _SPOT)
        if standing.printed is not None and standing.is_right:
            painter.drawEllipse(at, _SPOT, _SPOT)
        elif standing.printed is not None:
            painter.drawPie(box, 90 * 16, 180 * 16)

    def _paint_small(self, painter: QPainter, box: QRectF) -> None:
        """The first drawing, as lines; kept, for it has thousands of points."""
        if box.toRect().isEmpty():
            return  # squeezed for a moment, while the page is laid out anew
        if self._small is None or self._small.size() != box.size().toSize():
            self._small = QPixmap(box.size().toSize())
            self._small.fill(self.theme.colour("field"))
            with QPainter(self._small) as inside:
                inside.setRenderHint(QPainter.RenderHint.Antialiasing)
                inside.setPen(QPen(self.theme.colour("ink"), 0.7))
                board = self.shown.boards[0]
                points = [point for line in board.lines for point in line.points]
                us, vs = [p[0] for p in points], [-p[1] for p in points]
                room = QRectF(3, 3, box.width() - 6, box.height() - 6)
                view = fit(room, (min(us), min(vs), max(us), max(vs)))
                for line in board.lines:
                    inside.drawPolyline(view.polygon(tuple((u, -v) for u, v in line.points)))
        painter.drawPixmap(box.topLeft(), self._small)
        painter.setPen(QPen(self.theme.colour("hair"), 1.0))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(box)


class SheetsCard(Card):
    """All sheets; one is on the table.

    Signals
    -------
    picked : str
        The key of a sheet that was picked.
    """

    picked = pyqtSignal(str)

    def __init__(self, theme: Theme) -> None:
        super().__init__(f"{say.SHEETS}, {say.SINCE}")
        self.theme = theme
        self.rows: list[SheetRow] = []
        self._group = QButtonGroup(self)
        self._list = QWidget()
        self._box = QVBoxLayout(self._list)
        self._box.setContentsMargins(0, 0, 0, 0)
        self._box.setSpacing(0)
        self.column.addWidget(self._list)

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self.theme = theme
        self.show_sheets([row.shown for row in self.rows], self.chosen)

    @property
    def chosen(self) -> str:
        """The key of the sheet on the table; empty for none."""
        return next((row.shown.key for row in self.rows if row.isChecked()), "")

    def show_sheets(self, sheets: "Sequence[SheetShown]", chosen: str) -> None:
        """List them."""
        focused = any(row.hasFocus() for row in self.rows)
        for row in self.rows:
            self._group.removeButton(row)
            self._box.removeWidget(row)
            row.hide()
            row.deleteLater()
        self.rows = []
        for number, shown in enumerate(sheets, start=1):
            row = SheetRow(number, shown, self.theme)
            row.setChecked(shown.key == chosen)
            row.clicked.connect(lambda _on, key=shown.key: self.picked.emit(key))
            self._group.addButton(row)
            self._box.addWidget(row)
            self.rows.append(row)
            if focused and shown.key == chosen:
                row.setFocus()
