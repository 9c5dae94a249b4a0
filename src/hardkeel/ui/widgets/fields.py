"""Fields for lengths and angles that say what they understood, or what they did not."""

from PyQt6.QtCore import QEvent, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QKeySequence
from PyQt6.QtWidgets import QHBoxLayout, QLabel, QLineEdit, QVBoxLayout, QWidget

from hardkeel.base.errors import BadInput
from hardkeel.base.units import (
    LengthUnit,
    format_angle,
    format_length,
    marked,
    nearest_fraction,
    parse_angle,
    parse_length,
    parse_number,
)
from hardkeel.messages import kit as say


class _Line(QLineEdit):
    """A line that keeps undo for itself only while it has something of its own to undo."""

    def event(self, event: QEvent | None) -> bool:
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.ShortcutOverride:
            undo = event.matches(QKeySequence.StandardKey.Undo) and not self.isUndoAvailable()
            redo = event.matches(QKeySequence.StandardKey.Redo) and not self.isRedoAvailable()
            if undo or redo:
                event.ignore()
                return False
        return super().event(event)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """A key that is held down takes one figure, not ten."""
        enters = event is not None and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter)
        if event is None or not enters or not event.isAutoRepeat():
            super().keyPressEvent(event)


def parse_length_or_none(text: str, unit: LengthUnit) -> float | None:
    """What a text means, mm; ``None`` where it means nothing."""
    try:
        return parse_length(text, unit).mm
    except BadInput:
        return None


class QuantityEdit(QWidget):
    """A line for one length or angle with its understanding beneath.

    Signals
    -------
    value_changing : float
        While typing, whenever the text makes sense; mm or degrees.
    value_changed : float
        On Enter, when the text makes sense.
    given_up : (nothing)
        On Escape.
    """

    value_changing = pyqtSignal(float)
    value_changed = pyqtSignal(float)
    given_up = pyqtSignal()

    def __init__(
        self,
        parent: QWidget | None = None,
        *,
        angular: bool = False,
        unit: LengthUnit = "mm",
        large: bool = False,
        plain: str = "",
        digits: int = 1,
    ) -> None:
        super().__init__(parent)
        self._angular, self._digits = angular, digits
        self._plain = plain  # the unit of a figure that is neither length nor angle: g, %
        self._unit: LengthUnit = unit
        # what was set, and the rounded text that stands for it: untouched, it means the whole figure
        self._set: tuple[str, float] | None = None
        self.line = _Line()
        if large:
            self.line.setObjectName("reading")
        self._suffix = QLabel()
        self._suffix.setObjectName("heading" if large else "soft")
        self._suffix.setMinimumWidth(self._suffix.fontMetrics().horizontalAdvance("mm") + 4)
        self._told = QLabel(" ")
        self._told.setObjectName("soft")
        self._told.setWordWrap(True)
        self._told.hide()
        row = QHBoxLayout()
        row.setContentsMargins(0, 0, 0, 0)
        self._flag = QLabel()
        self._flag.setObjectName("flag")
        self._flag.hide()
        row.addWidget(self.line, 1)
        row.addWidget(self._flag)
        row.addWidget(self._suffix)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        box.addLayout(row)
        if not large:
            box.addWidget(self._told)
        self.setFocusProxy(self.line)
        self.line.textEdited.connect(self._on_text_edited)
        self.line.returnPressed.connect(self.take)
        self._show_suffix()

    @property
    def told(self) -> QLabel:
        """What was understood; a large field leaves it to its card to place this."""
        return self._told

    def set_kind(self, *, angular: bool, unit: LengthUnit) -> None:
        """Take lengths or angles from now on, and in this unit where none is typed."""
        if (angular, unit) != (self._angular, self._unit):
            self._keep_typed(unit if angular == self._angular else None)
            self._set = None  # the same digits now mean something else
        self._angular, self._unit = angular, unit
        self._show_suffix()

    def _keep_typed(self, unit: LengthUnit | None) -> None:
        """A figure that is typed and not taken yet goes on meaning what it meant: its unit is put behind it."""
        text = self.line.text().strip()
        typed = bool(text) and (self._set is None or self._set[0] != text)
        if unit is None or unit == self._unit or self._angular or self._plain or not typed:
            return
        was, now = (parse_length_or_none(text, one) for one in (self._unit, unit))
        if was is not None and was != now:
            self.line.setText(f"{text} {self._unit}")

    def set_flag(self, text: str) -> None:
        """A word of warning beside the figure, as large as it; empty for none."""
        self._flag.setText(text)
        self._flag.setVisible(bool(text))

    @property
    def flag(self) -> str:
        """The word of warning beside the figure."""
        return self._flag.text()

    def set_value(self, value: float | None) -> None:
        """Show a value; ``None`` empties the field."""
        if value is None:
            self._set = None
            self.line.clear()
        else:
            text = self._shown(value).split(" ")[0].rstrip("°″").replace("−", "-")
            self._set = (text, value)
            self.line.setText(text)
        self._tell(self._beside(value), wrong=False)

    def show_usual(self, value: float) -> None:
        """What an empty field stands for, in pale figures."""
        text = self._shown(value).split(" ")[0].rstrip("°″")
        self.line.setPlaceholderText(text)

    def _beside(self, value: float | None) -> str:
        """In inches a length has its nearest 64th beside it: that is what a rule shows."""
        if value is None or self._plain or self._angular or self._unit == "mm":
            return " "
        return f"≈ {nearest_fraction(value)}″"

    def words_of(self, value: float) -> str:
        """A value as this field shows it, with its unit."""
        unit = self._plain.strip()
        return f"{self._shown(value)} {unit}" if unit else self._shown(value)

    def _shown(self, value: float) -> str:
        if self._plain:
            return marked(f"{value:.1f}".removesuffix(".0"))
        return (
            format_angle(value) if self._angular else format_length(value, self._unit, self._digits)
        )

    @property
    def value(self) -> float | None:
        """What the text means, mm or degrees; ``None`` where it means nothing."""
        try:
            return self._understood()[0]
        except BadInput:
            return None

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Escape gives up."""
        if event is not None and event.matches(QKeySequence.StandardKey.Cancel):
            self.given_up.emit()
        else:
            super().keyPressEvent(event)

    def _understood(self) -> tuple[float, str]:
        text = self.line.text()
        exact = self._set[1] if self._set is not None and self._set[0] == text else None
        if self._plain:
            number = parse_number(text)
            return number if exact is None else exact, " "
        if self._angular:
            angle = parse_angle(text)
            return angle if exact is None else exact, format_angle(angle)
        length = parse_length(text, self._unit)
        return length.mm if exact is None else exact, length.as_text

    def _on_text_edited(self, text: str) -> None:
        if not text.strip():
            self._tell(" ", wrong=False)
            return
        try:
            value, told = self._understood()
        except BadInput as fault:
            self._tell(str(fault), wrong=True)
            return
        self._tell(told, wrong=False)
        self.value_changing.emit(value)

    def take(self) -> None:
        """Take what stands there, as Enter does; say what is wrong with it where it means nothing."""
        try:
            value, told = self._understood()
        except BadInput as fault:
            self._tell(
                str(fault) if self.line.text().strip() else say.TYPE_WHAT_YOU_READ, wrong=True
            )
            return
        self._tell(told, wrong=False)
        self.value_changed.emit(value)

    def _tell(self, text: str, *, wrong: bool) -> None:
        self._told.setText(text)
        self._told.setVisible(bool(text.strip()))
        self._told.setObjectName("warn" if wrong else "soft")
        self.line.setProperty("wrong", wrong)
        for widget in (self._told, self.line):
            style = widget.style()
            if style is not None:
                style.unpolish(widget)
                style.polish(widget)

    def _show_suffix(self) -> None:
        if self._plain:
            self._suffix.setText(self._plain)
            return
        self._suffix.setText("°" if self._angular else "mm" if self._unit == "mm" else "in")
