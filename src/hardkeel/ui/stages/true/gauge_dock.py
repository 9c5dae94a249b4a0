"""The gauges at hand: plugged in or not, zeroed or not, and what they show."""

from typing import Final

from PyQt6.QtCore import QPointF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QAction, QPainter, QPaintEvent
from PyQt6.QtWidgets import (
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QMenu,
    QPushButton,
    QVBoxLayout,
    QWidget,
    QWidgetAction,
)

from hardkeel.messages import true as say
from hardkeel.survey.model import Verdict
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.vial import paint_shape

_SHAPES: Final[dict[str, Verdict]] = {
    "live": "true",
    "lost": "out",
    "silent": "out",
    "other": "out",
    "odd": "out",
    "unit": "out",
}
_COLOURS: Final = {"live": "act"} | dict.fromkeys(("lost", "silent", "other", "odd", "unit"), "out")
_WORDS: Final = {
    "": "plug in",
    "lost": "unplugged",
    "silent": "no answer",
    "odd": "no reading",
    "waiting": "asking…",
}
SIMULATED: Final = "simulated"  # stands where an address would


class _Dot(QWidget):
    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self._theme, self._state = theme, ""
        self.setFixedSize(QSize(14, 16))

    def show_state(self, state: str, theme: Theme) -> None:
        self._state, self._theme = state, theme
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        colour = self._theme.colour(_COLOURS.get(self._state, "soft"))
        paint_shape(painter, QPointF(6, self.height() / 2), _SHAPES.get(self._state), colour, 9)


class PlaceMenu(QMenu):
    """Asks where the gauge is plugged in.

    Signals
    -------
    place_picked : str
        An address, or `SIMULATED`.
    """

    place_picked = pyqtSignal(str)

    def __init__(
        self, places: tuple[tuple[str, str], ...], address: str, parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        for where, words in places:
            if where == SIMULATED and not self.isEmpty():
                self.addSeparator()
            action = QAction(words.replace("&", "&&"), self)
            action.triggered.connect(lambda _on, where=where: self.place_picked.emit(where))
            self.addAction(action)
        self.addSeparator()
        self.address = QLineEdit(address)
        self.address.setPlaceholderText("another address")
        self.address.setAccessibleName(say.ANOTHER_ADDRESS)
        self.address.setToolTip(say.ADDRESS_TIP)
        self.address.setMinimumWidth(
            self.fontMetrics().horizontalAdvance("socket://host:port") + 60
        )
        self.address.returnPressed.connect(self._on_return)
        field = QWidgetAction(self)
        field.setDefaultWidget(self.address)
        self.addAction(field)

    def _on_return(self) -> None:
        where = self.address.text().strip()
        if where:
            self.place_picked.emit(where)
            self.close()


class GaugeRow(QWidget):
    """One gauge.

    Signals
    -------
    plug_toggled, zero_pressed : (nothing)
        Its name, or its zero button, was pressed.
    place_picked : str
        Where to plug it in: an address, or `SIMULATED`.
    """

    plug_toggled = pyqtSignal()
    zero_pressed = pyqtSignal()
    place_picked = pyqtSignal(str)

    def __init__(self, name: str, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self._state = ""
        self._dot = _Dot(theme)
        self.plug = QPushButton(name)
        self.plug.setObjectName("plain")
        self.plug.setToolTip(say.plug_tip(name))
        self.shown = QLabel()
        self.shown.setObjectName("soft")
        self.shown.setWordWrap(True)
        self.zero = QPushButton("zero")
        self.zero.setObjectName("plain")
        self.zero.setToolTip(say.ZERO_TIP)
        self.zero.setFocusPolicy(
            Qt.FocusPolicy.TabFocus
        )  # a click leaves the keyboard with the value
        top = QHBoxLayout()
        top.setSpacing(2)
        top.addWidget(self._dot)
        top.addWidget(self.plug)
        top.addStretch(1)
        low = QHBoxLayout()
        low.setContentsMargins(6, 0, 0, 2)
        low.setSpacing(2)
        low.addWidget(self.shown, 1)
        low.addWidget(self.zero)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addLayout(top)
        box.addLayout(low)
        self.plug.clicked.connect(self.plug_toggled)
        self.zero.clicked.connect(self.zero_pressed)
        self.show_state("", "", zeroed=False)

    @property
    def state(self) -> str:
        """A link's state, ``waiting``, or empty when it is not plugged in."""
        return self._state

    def ask_where(self, places: tuple[tuple[str, str], ...], address: str) -> PlaceMenu:
        """Ask where it is plugged in.

        Parameters
        ----------
        places : tuple of (address, words)
            What is offered, in this order.
        address : str
            What stands in the field for another address.
        """
        menu = PlaceMenu(places, address, self)
        menu.place_picked.connect(self.place_picked)
        menu.popup(self.plug.mapToGlobal(self.plug.rect().topRight()))
        return menu

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        self._dot.show_state(self._state, theme)

    def show_state(self, state: str, value: str, *, zeroed: bool) -> None:
        """Show the gauge's state and what it reads, or what it is where it is another one."""
        self._state = state
        self._dot.show_state(state, self._theme)
        words = value if state in ("live", "other", "unit") else _WORDS.get(state, "")
        self.shown.setText(words)
        self.shown.setVisible(bool(state))
        self.zero.setVisible(state == "live")
        self.zero.setText("zeroed" if zeroed else "zero")
        note = "" if zeroed or state != "live" else ", not zeroed on the datum"
        told = words.replace("\n", ", ")
        self.setAccessibleName(f"{self.plug.text()} gauge: {told}{note}")


class GaugeDock(QWidget):
    """All gauges.

    Signals
    -------
    plug_toggled, zero_pressed : str
        For a kind of gauge.
    place_picked : str, str
        A kind of gauge, and where to plug it in.
    """

    plug_toggled = pyqtSignal(str)
    zero_pressed = pyqtSignal(str)
    place_picked = pyqtSignal(str, str)

    def __init__(self, kinds: tuple[str, ...], theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        box = QVBoxLayout(self)
        box.setContentsMargins(10, 0, 2, 8)
        box.setSpacing(3)
        heading = QLabel(say.GAUGES_PLUG_IN)
        heading.setObjectName("soft")
        box.addWidget(heading, 0, Qt.AlignmentFlag.AlignLeft)
        self._rows: dict[str, GaugeRow] = {}
        for kind in kinds:
            row = GaugeRow(kind, theme)
            row.plug_toggled.connect(lambda kind=kind: self.plug_toggled.emit(kind))
            row.zero_pressed.connect(lambda kind=kind: self.zero_pressed.emit(kind))
            row.place_picked.connect(lambda where, kind=kind: self.place_picked.emit(kind, where))
            self._rows[kind] = row
            box.addWidget(row)

    def row(self, kind: str) -> GaugeRow:
        """The row of a kind of gauge."""
        return self._rows[kind]

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        for row in self._rows.values():
            row.set_theme(theme)
