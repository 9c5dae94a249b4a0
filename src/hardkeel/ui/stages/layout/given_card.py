"""What a former's outline off the sheet has changed: before and after over each other, and how high it stands."""

from typing import Final

from PyQt6.QtCore import QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QHBoxLayout, QSizePolicy, QWidget

from hardkeel.base.units import LengthUnit
from hardkeel.base.values import Point2
from hardkeel.fuselage.contours import contour_of
from hardkeel.fuselage.model import Former
from hardkeel.messages import paper as say
from hardkeel.picture.wood import down
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.fields import QuantityEdit
from hardkeel.ui.widgets.viewport import fit

_HIGH_PX: Final = 150
_RIM_PX: Final = 8


class TwoOutlines(QWidget):
    """What it was, dashed, and what it is, drawn whole."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self._theme = theme
        self._was: tuple[Point2, ...] = ()
        self._is: tuple[Point2, ...] = ()
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def set_theme(self, theme: Theme) -> None:
        """Paint in another theme."""
        self._theme = theme
        self.updateGeometry()
        self.update()

    def show_outlines(self, was: tuple[Point2, ...], now: tuple[Point2, ...]) -> None:
        """Rings in mm, up positive."""
        self._was, self._is = down(was), down(now)
        self.update()

    def sizeHint(self) -> QSize:
        """As wide as the card."""
        return QSize(self._theme.across(240), self._theme.px(_HIGH_PX))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Both at one scale, where they stand."""
        points = (*self._was, *self._is)
        if not points:
            return
        us, vs = [p[0] for p in points], [p[1] for p in points]
        rim = _RIM_PX
        box = QRectF(self.rect()).adjusted(rim, rim, -rim, -rim)
        view = fit(box, (min(us), min(vs), max(us), max(vs)))
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(self._theme.colour("ink"), 1.6))
        painter.setBrush(self._theme.colour("wood"))
        painter.drawPolygon(view.polygon(self._is))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(self._theme.colour("act"), 1.4, Qt.PenStyle.DashLine))
        painter.drawPolygon(view.polygon(self._was))


class GivenCard(Card):
    """The former that got an outline last.

    Signals
    -------
    stood : str, float
        The former, and how high its foot stands, mm over the datum.
    """

    stood = pyqtSignal(str, float)

    def __init__(self, theme: Theme, unit: LengthUnit) -> None:
        super().__init__(say.GOT_ITS_OUTLINE)
        self._after: Former | None = None
        self.says = label("heading")
        self.drawing = TwoOutlines(theme)
        self.foot = QuantityEdit(unit=unit)
        self.foot.line.setAccessibleName(say.FOOT_AT)
        self.foot.value_changed.connect(lambda value: self.stood.emit(self.former, value))
        words = label("soft", say.FOOT_AT)
        row = QHBoxLayout()
        row.addWidget(words, 1)
        row.addWidget(self.foot, 1)
        for widget in (self.says, self.drawing):
            self.column.addWidget(widget)
        self.column.addLayout(row)
        self.column.addWidget(label("soft", say.FOOT_WHY))
        self.hide()

    @property
    def former(self) -> str:
        """The former that is shown; empty for none."""
        return self._after.id if self._after is not None else ""

    def hide_unless(self, former: Former | None) -> None:
        """What it says holds only while the former is as it was left: not after an undo."""
        if former is None or former != self._after:
            self._after = None
            self.hide()

    def show_given(self, before: Former, after: Former, unit: LengthUnit) -> None:
        """What it was and what it is."""
        self._after = after
        self.says.setText(say.outline_change(before, after, unit))
        self.drawing.show_outlines(contour_of(before), contour_of(after))
        self.drawing.setAccessibleName(self.says.text())
        self.foot.set_kind(angular=False, unit=unit)
        self.foot.set_value(after.bottom)
        self.show()
