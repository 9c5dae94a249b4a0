"""The gauges at hand: plugged in or not, zeroed or not, and what they show."""

from typing import Final

from PyQt6.QtCore import QPointF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QPainter, QPaintEvent
from PyQt6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from hardkeel.survey.model import Verdict
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.vial import paint_shape

_SHAPES: Final[dict[str, Verdict]] = {"live": "true", "lost": "out", "silent": "out"}
_COLOURS: Final = {"live": "act", "lost": "out", "silent": "out"}
_WORDS: Final = {"": "plug in", "lost": "unplugged", "silent": "no answer", "waiting": "asking…"}


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


class GaugeRow(QWidget):
    """One gauge.

    Signals
    -------
    plug_toggled, zero_pressed : (nothing)
        Its name, or its zero button, was pressed.
    """

    plug_toggled = pyqtSignal()
    zero_pressed = pyqtSignal()

    def __init__(self, name: str, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._theme = theme
        self._state = ""
        self._dot = _Dot(theme)
        self.plug = QPushButton(name)
        self.plug.setObjectName("plain")
        self.plug.setToolTip(f"Plug the {name} gauge in or out")
        self.shown = QLabel()
        self.shown.setObjectName("soft")
        self.zero = QPushButton("zero")
        self.zero.setObjectName("plain")
        self.zero.setToolTip("Hold it on the datum first; until then all it shows is off")
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
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(0)
        layout.addLayout(top)
        layout.addLayout(low)
        self.plug.clicked.connect(self.plug_toggled)
        self.zero.clicked.connect(self.zero_pressed)
        self.show_state("", "", zeroed=False)

    @property
    def state(self) -> str:
        """``live``, ``lost``, ``silent``, ``waiting``, or empty when it is not plugged in."""
        return self._state

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        self._dot.show_state(self._state, theme)

    def show_state(self, state: str, value: str, *, zeroed: bool) -> None:
        """Show the gauge's state and what it reads."""
        self._state = state
        self._dot.show_state(state, self._theme)
        words = value if state == "live" else _WORDS.get(state, "")
        self.shown.setText(words)
        self.shown.setVisible(bool(state))
        self.zero.setVisible(state == "live")
        self.zero.setText("zeroed" if zeroed else "zero")
        note = "" if zeroed or state != "live" else ", not zeroed on the datum"
        self.setAccessibleName(f"{self.plug.text()} gauge: {words}{note}")


class GaugeDock(QWidget):
    """All gauges.

    Signals
    -------
    plug_toggled, zero_pressed : str
        For a kind of gauge.
    """

    plug_toggled = pyqtSignal(str)
    zero_pressed = pyqtSignal(str)

    def __init__(self, kinds: tuple[str, ...], theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(10, 0, 2, 8)
        layout.setSpacing(3)
        heading = QLabel("Gauges, plug in:")
        heading.setObjectName("soft")
        layout.addWidget(heading, 0, Qt.AlignmentFlag.AlignLeft)
        self._rows: dict[str, GaugeRow] = {}
        for kind in kinds:
            row = GaugeRow(kind, theme)
            row.plug_toggled.connect(lambda kind=kind: self.plug_toggled.emit(kind))
            row.zero_pressed.connect(lambda kind=kind: self.zero_pressed.emit(kind))
            self._rows[kind] = row
            layout.addWidget(row)

    def row(self, kind: str) -> GaugeRow:
        """The row of a kind of gauge."""
        return self._rows[kind]

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        for row in self._rows.values():
            row.set_theme(theme)
