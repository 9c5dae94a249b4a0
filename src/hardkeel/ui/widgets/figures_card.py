"""A card of labelled figures to type."""

from dataclasses import dataclass
from typing import Literal

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QResizeEvent
from PyQt6.QtWidgets import QGridLayout, QWidget

from hardkeel.base.units import LengthUnit
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.fields import QuantityEdit

FigureKind = Literal["length", "angle", "grams", "percent", "number"]
_LEAST = "000.0"  # what a field can show whole
_TOLD = 3  # figures on the line of a folded card
_SUFFIX = {"grams": "g", "percent": "%", "number": " "}


@dataclass(frozen=True, slots=True)
class Figure:
    """One figure of a card."""

    key: str
    words: str
    value: float | None
    kind: FigureKind = "length"


class FiguresCard(Card):
    """Figures in two columns; Enter settles one.

    Signals
    -------
    figure_changed : str, float
        Key and value: mm, degrees, grams or percent.
    laid : (nothing)
        There are other fields now; Tab has to be led through them anew.
    """

    figure_changed = pyqtSignal(str, float)
    laid = pyqtSignal()

    def __init__(self, eyebrow: str, columns: int = 2, parent: QWidget | None = None) -> None:
        super().__init__(eyebrow, parent=parent)
        self._columns = columns
        self.title = label("title")
        self.said = label("soft")
        self._grid = QGridLayout()
        self._grid.setHorizontalSpacing(10)
        self._grid.setVerticalSpacing(2)
        self.column.addWidget(self.title)
        self.column.addLayout(self._grid)
        self.column.addWidget(self.said)
        self.fields: dict[str, QuantityEdit] = {}
        self._labels: list[QWidget] = []
        self._laid = columns
        self._shown: tuple[tuple[Figure, ...], LengthUnit] = ((), "mm")

    def show_figures(
        self, title: str, figures: tuple[Figure, ...], unit: LengthUnit, said: str = ""
    ) -> None:
        """Show these; fields that stay keep the cursor."""
        self.title.setText(title)
        self.title.setVisible(bool(title))
        self.said.setText(said)
        self.said.setVisible(bool(said))
        self._shown = (figures, unit)
        if [figure.key for figure in figures] != list(self.fields):
            self._lay(figures, unit)
        for figure in figures:
            field = self.fields[figure.key]
            field.set_kind(angular=figure.kind == "angle", unit=unit)
            if not (field.line.hasFocus() and field.line.isModified()):
                field.set_value(figure.value)
                field.line.setModified(False)
        self.comes_to(self._first_of(figures))
        wide = self._field_width()
        for field in self.fields.values():
            field.line.setMinimumWidth(wide)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Go over to one column where two would be cut."""
        super().resizeEvent(event)
        figures, unit = self._shown
        if figures and self._fitting(figures) != self._laid and not self._is_typed_in():
            self._lay(figures, unit)
            self.show_figures(self.title.text(), figures, unit, self.said.text())

    def _first_of(self, figures: tuple[Figure, ...]) -> str:
        """The first few that are there and more than nothing, as they stand in their fields."""
        told = []
        for figure in figures:
            if figure.value:
                value = self.fields[figure.key].words_of(figure.value)
                words = figure.words.removesuffix(" %")
                told.append(f"{words} {value}{' %' if words != figure.words else ''}")
        return ", ".join(told[:_TOLD])

    def _is_typed_in(self) -> bool:
        return any(f.line.hasFocus() and f.line.isModified() for f in self.fields.values())

    def _fitting(self, figures: tuple[Figure, ...]) -> int:
        """How many columns have room."""
        metrics, count = self.fontMetrics(), self._columns
        needed = 0
        for column in range(count):
            names = [figure.words for figure in figures[column::count]]
            needed += max((metrics.horizontalAdvance(name) for name in names), default=0)
            needed += self._field_width() + metrics.horizontalAdvance("mm") + 24
        margins = self.column.contentsMargins()
        return count if self.width() - margins.left() - margins.right() >= needed else 1

    def _field_width(self) -> int:
        """What the longest figure of this card needs, pixels."""
        metrics = self.fontMetrics()
        texts = [_LEAST, *(field.line.text() for field in self.fields.values())]
        return max(metrics.horizontalAdvance(text) for text in texts) + 16

    def _lay(self, figures: tuple[Figure, ...], unit: LengthUnit) -> None:
        self._laid = self._fitting(figures) if self.isVisible() else self._columns
        for widget in (*self._labels, *self.fields.values()):
            self._grid.removeWidget(widget)
            widget.hide()
            widget.deleteLater()
        self.fields, self._labels = {}, []
        for i, figure in enumerate(figures):
            field = QuantityEdit(
                angular=figure.kind == "angle", unit=unit, plain=_SUFFIX.get(figure.kind, "")
            )
            field.line.setAccessibleName(figure.words)
            field.line.setMinimumWidth(self._field_width())
            field.value_changed.connect(lambda value, key=figure.key: self._on_settled(key, value))
            words = label("soft", figure.words, wrap=False)
            words.setBuddy(field.line)
            field.line.ensurePolished()
            words.setMinimumHeight(field.line.sizeHint().height())  # on the line of what is typed
            row, column = divmod(i, self._laid)
            self._grid.addWidget(words, row, column * 2, Qt.AlignmentFlag.AlignTop)
            self._grid.addWidget(field, row, column * 2 + 1)
            self._grid.setColumnStretch(column * 2 + 1, 1)
            self.fields[figure.key] = field
            self._labels.append(words)
        self.laid.emit()

    def _on_settled(self, key: str, value: float) -> None:
        self.fields[key].line.setModified(False)
        self.figure_changed.emit(key, value)
