"""A card of labelled figures to type."""

from dataclasses import dataclass
from typing import Literal

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QGridLayout, QWidget

from hardkeel.base.units import LengthUnit
from hardkeel.ui.widgets.cards import Card, label
from hardkeel.ui.widgets.fields import QuantityEdit

FigureKind = Literal["length", "angle", "grams", "percent", "number"]
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
    """

    figure_changed = pyqtSignal(str, float)

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

    def show_figures(
        self, title: str, figures: tuple[Figure, ...], unit: LengthUnit, said: str = ""
    ) -> None:
        """Show these; fields that stay keep the cursor."""
        self.title.setText(title)
        self.title.setVisible(bool(title))
        self.said.setText(said)
        self.said.setVisible(bool(said))
        if [figure.key for figure in figures] != list(self.fields):
            self._lay(figures, unit)
        for figure in figures:
            field = self.fields[figure.key]
            field.set_kind(angular=figure.kind == "angle", unit=unit)
            if not (field.line.hasFocus() and field.line.isModified()):
                field.set_value(figure.value)
                field.line.setModified(False)

    def _lay(self, figures: tuple[Figure, ...], unit: LengthUnit) -> None:
        for widget in (*self._labels, *self.fields.values()):
            self._grid.removeWidget(widget)
            widget.deleteLater()
        self.fields, self._labels = {}, []
        for i, figure in enumerate(figures):
            field = QuantityEdit(
                angular=figure.kind == "angle", unit=unit, plain=_SUFFIX.get(figure.kind, "")
            )
            field.line.setAccessibleName(figure.words)
            field.line.setMinimumWidth(56)
            field.value_changed.connect(lambda value, key=figure.key: self._on_settled(key, value))
            words = label("soft", figure.words, wrap=False)
            field.line.ensurePolished()
            words.setMinimumHeight(field.line.sizeHint().height())  # on the line of what is typed
            row, column = divmod(i, self._columns)
            self._grid.addWidget(words, row, column * 2, Qt.AlignmentFlag.AlignTop)
            self._grid.addWidget(field, row, column * 2 + 1)
            self._grid.setColumnStretch(column * 2 + 1, 1)
            self.fields[figure.key] = field
            self._labels.append(words)

    def _on_settled(self, key: str, value: float) -> None:
        self.fields[key].line.setModified(False)
        self.figure_changed.emit(key, value)
