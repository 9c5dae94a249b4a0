"""The builder's tools as rows: had or not, what each is counted as, and how much doubt that is in wood."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QLinearGradient, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import (
    QCheckBox,
    QGridLayout,
    QPushButton,
    QScrollArea,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from hardkeel.base.units import LengthUnit
from hardkeel.messages import tools as say
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import label
from hardkeel.ui.widgets.fields import QuantityEdit
from hardkeel.ui.widgets.flow import FlowLayout

_PX_PER_MM: Final = 20.0  # a millimetre is about four pixels on a screen: five times as large
_BAR_PX: Final = 112
_FIELD_PX: Final = 104
_INDENT_PX: Final = 26  # past the box to tick


@dataclass(frozen=True, slots=True)
class ToolShown:
    """A tool as its row shows it.

    Attributes
    ----------
    sigma : float
        mm, or degrees where `angular`.
    in_wood : float
        mm of doubt over a usual length.
    more : (words, value, angular), optional
        A figure that its sigma follows from.
    told, action : str
        What its own readings tell, and what can be made of that.
    """

    id: str
    name: str
    had: bool
    sigma: float
    angular: bool
    in_wood: float
    more: tuple[str, float, bool] | None = None
    told: str = ""
    action: str = ""


class DoubtBar(QWidget):
    """An edge and the stripe within which it may lie."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self._theme, self._mm, self._had = theme, 0.0, True
        self.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Fixed)

    def show_doubt(self, mm: float, *, had: bool, theme: Theme) -> None:
        """So many mm to each side."""
        self._mm, self._had, self._theme = mm, had, theme
        self.update()

    def sizeHint(self) -> QSize:
        """As high as a line of text."""
        return QSize(self._theme.across(_BAR_PX), self._theme.px(26))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Paint a stripe that fades outwards."""
        del event
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        middle, tall = self.width() / 2, float(self.height())
        half = min(middle, 2 * self._mm * _PX_PER_MM)  # two sigmas: nearly all of it
        name = "act" if self._had else "soft"
        if half > 0:
            fade = QLinearGradient(middle - half, 0, middle + half, 0)
            for at, share in ((0.0, 0.0), (0.25, 0.35), (0.5, 0.75), (0.75, 0.35), (1.0, 0.0)):
                alpha = share if self._had else share / 2
                fade.setColorAt(at, self._theme.colour(name, alpha))
            painter.fillRect(QRectF(middle - half, 3, 2 * half, tall - 6), fade)
        painter.setPen(QPen(self._theme.colour(name), 1.5))
        painter.drawLine(QPointF(middle, 1), QPointF(middle, tall - 1))
        painter.end()


class _Row:
    """The widgets of one tool."""

    def __init__(self, rows: "ToolRows", tool: str, theme: Theme) -> None:
        self.box = QCheckBox()
        self.sigma = QuantityEdit()
        self.bar = DoubtBar(theme)
        self.more = QuantityEdit()
        self.more_words = label("soft", wrap=False)
        self.told = label("soft")
        self.action = QPushButton()
        self.box.clicked.connect(lambda on: rows.had.emit(tool, on))
        self.sigma.value_changed.connect(lambda value: rows.counted.emit(tool, value))
        self.more.value_changed.connect(lambda value: rows.refined.emit(tool, value))
        self.action.clicked.connect(lambda: rows.acted.emit(tool))


class ToolRows(QScrollArea):
    """All tools, the builder's own first.

    Signals
    -------
    had : str, bool
        A tool is owned, or is not.
    counted, refined : str, float
        Another sigma; another figure that it follows from.
    acted : str
        What its own readings tell is to be used.
    """

    had = pyqtSignal(str, bool)
    counted = pyqtSignal(str, float)
    refined = pyqtSignal(str, float)
    acted = pyqtSignal(str)

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self._theme = theme
        self.rows: dict[str, _Row] = {}
        self._sheet = QWidget()
        self._sheet.setObjectName("paper")
        outer = QVBoxLayout(self._sheet)
        outer.setContentsMargins(20, 16, 20, 16)
        self._grid = QGridLayout()
        self._grid.setHorizontalSpacing(14)
        self._grid.setVerticalSpacing(9)
        self._grid.setColumnStretch(3, 1)
        for i, head in enumerate(say.HEADS):
            self._grid.addWidget(label("eyebrow", head, wrap=i > 1), 0, i)
        outer.addLayout(self._grid)
        outer.addStretch(1)
        self.setWidget(self._sheet)
        self.setWidgetResizable(True)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme

    def show_tools(self, tools: Sequence[ToolShown], unit: LengthUnit) -> None:
        """Show these, in this order."""
        if [tool.id for tool in tools] != list(self.rows):
            self._lay_out(tools)
        for tool in tools:
            self._show_tool(self.rows[tool.id], tool, unit)

    def _lay_out(self, tools: Sequence[ToolShown]) -> None:
        for row in self.rows.values():
            for widget in (
                row.box,
                row.sigma,
                row.bar,
                row.more,
                row.more_words,
                row.told,
                row.action,
            ):
                self._grid.removeWidget(widget)
                widget.deleteLater()
        self.rows = {tool.id: _Row(self, tool.id, self._theme) for tool in tools}
        top = Qt.AlignmentFlag.AlignTop
        for line, row in zip(range(1, 2 * len(tools), 2), self.rows.values(), strict=True):
            row.sigma.setFixedWidth(self._theme.across(_FIELD_PX))
            row.more.setFixedWidth(self._theme.across(_FIELD_PX))
            self._grid.addWidget(row.box, line, 0, top)
            self._grid.addWidget(row.sigma, line, 1, top)
            self._grid.addWidget(row.bar, line, 2, top)
            below = FlowLayout(gap=10)
            below.addWidget(row.more_words)
            below.addWidget(row.more)
            below.addWidget(row.action)
            under = QVBoxLayout()
            under.setSpacing(4)
            under.setContentsMargins(self._theme.px(_INDENT_PX), 0, 0, 0)
            under.addWidget(row.told)
            under.addLayout(below)
            self._grid.addLayout(under, line + 1, 0, 1, 4)

    def _show_tool(self, row: _Row, tool: ToolShown, unit: LengthUnit) -> None:
        row.box.setText(tool.name)
        row.box.setChecked(tool.had)
        row.sigma.set_kind(angular=tool.angular, unit=unit)
        row.sigma.set_value(tool.sigma)
        row.sigma.line.setAccessibleName(f"{tool.name}, {say.HEADS[1]}")
        row.sigma.setEnabled(tool.had)
        row.bar.show_doubt(tool.in_wood, had=tool.had, theme=self._theme)
        for widget in (row.more, row.more_words):
            widget.setVisible(tool.had and tool.more is not None)
        if tool.more is not None:
            words, value, angular = tool.more
            row.more_words.setText(words)
            row.more.set_kind(angular=angular, unit=unit)
            row.more.set_value(value)
            row.more.line.setAccessibleName(f"{tool.name}, {words}")
        row.told.setText(tool.told)
        row.told.setVisible(bool(tool.told))
        row.action.setText(tool.action)
        row.action.setVisible(bool(tool.action))
