"""Stringers spread round the girth: how many, how thick, between which formers."""

from typing import Final

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QPushButton

from hardkeel.base.units import LengthUnit
from hardkeel.fuselage.model import Fuselage
from hardkeel.messages import stringers as say
from hardkeel.messages.frame import stop_words
from hardkeel.ui.widgets.card import label
from hardkeel.ui.widgets.figures_card import Figure, FiguresCard

_START: Final = {"around": 12.0, "deep": 3.0, "wide": 3.0}


class StringersCard(FiguresCard):
    """How stringers are spread.

    Signals
    -------
    spread : int, object, str, str
        How many round, (deep, wide) in mm, and the stops between which.
    scallop_changed : float
        How deep the hollows between them are, mm.
    """

    spread = pyqtSignal(int, object, str, str)
    scallop_changed = pyqtSignal(float)

    def __init__(self) -> None:
        super().__init__(say.STRINGERS)
        self._said = dict(_START)
        self._answer, self._why = label("answer"), label("soft")
        self._why.setText(say.SPREAD_WHY)
        self.first, self.last = QComboBox(), QComboBox()
        row = QHBoxLayout()
        for words, box in (("from", self.first), ("to", self.last)):
            box.setAccessibleName(f"stringers {words}")
            row.addWidget(label("soft", words, wrap=False))
            row.addWidget(box, 1)
        self.button = QPushButton(say.SPREAD)
        self.button.setObjectName("tool")
        self.button.clicked.connect(self._on_spread)
        buttons = QHBoxLayout()
        buttons.addWidget(self.button)
        buttons.addStretch(1)
        self.column.insertWidget(1, self._answer)
        self.column.addLayout(row)
        self.column.addWidget(self._why)
        self.column.addLayout(buttons)
        self.figure_changed.connect(self._on_figure)

    def show_stringers(self, fuselage: Fuselage, unit: LengthUnit) -> None:
        """The stringers of a fuselage as they are, or figures to start from."""
        stringers = tuple(one for one in fuselage.framed.members if one.kind == "stringer")
        self._answer.setText(say.stringers_answer(stringers))
        self._answer.setVisible(bool(stringers))
        first = stringers[0] if stringers else None
        if first is not None and first.section is not None:
            self._said["deep"], self._said["wide"] = first.section
            self._said["around"] = float(
                sum(1 if one.angle in (0.0, 180.0) else 2 for one in stringers)
            )
        figures = (
            *(
                Figure(key, say.FIGURES[key], value, "number" if key == "around" else "length")
                for key, value in self._said.items()
            ),
            Figure("scallop", say.FIGURES["scallop"], fuselage.framed.scallop),
        )
        self.show_figures("", figures, unit)
        self.fields["scallop"].line.setToolTip(say.SCALLOP_TIP)
        names = [one.id for one in sorted(fuselage.formers, key=lambda one: one.station)]
        ends = (
            (self.first, first.from_ if first is not None else None, 0),
            (self.last, first.to if first is not None else None, -1),
        )
        for box, named, place in ends:
            chosen = named or (names[place] if names else "")
            box.clear()
            for name in names:
                box.addItem(stop_words(name), name)
            box.setCurrentIndex(max(box.findData(chosen), 0))
        self.button.setEnabled(len(names) > 1)

    def _on_figure(self, key: str, value: float) -> None:
        if key == "scallop":
            self.scallop_changed.emit(value)
        else:
            self._said[key] = value

    def _on_spread(self) -> None:
        section = self._said["deep"], self._said["wide"]
        first, last = self.first.currentData(), self.last.currentData()
        self.spread.emit(round(self._said["around"]), section, first, last)
