"""By feel: sliders turn a part; drawing, vials and tools follow at once.  And back: what a model does, and what it could be."""

from typing import Final

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QResizeEvent
from PyQt6.QtWidgets import (
    QBoxLayout,
    QComboBox,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QScrollArea,
    QSlider,
    QVBoxLayout,
    QWidget,
)

from hardkeel.base.units import LengthUnit, format_angle, format_length
from hardkeel.demo.shipped import shipped_build
from hardkeel.messages import practising as say
from hardkeel.practice.feeling import Feel, feel_of
from hardkeel.practice.symptoms import SYMPTOMS, causes_of, symptom_called
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.stages.practice import feel_shown as shown
from hardkeel.ui.stages.practice.lamp_view import LampView
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.cells import CellsModel, Column
from hardkeel.ui.widgets.cells_table import CellsTable
from hardkeel.ui.widgets.exaggeration import Exaggeration
from hardkeel.ui.widgets.vial import Vial

_SHOWS: Final = frozenset({"survey", "fuselage", "wings", "tail", "flight"})
_STEPS: Final = 60  # each way
_SIDE_BY_SIDE: Final = 660  # narrower, and vials lie over the tools
_MOST_DEG, _MOST_MM = 3.0, 6.0


class FeelPage(SubPage):
    """A model to turn by hand: the builder's own where it can be measured, else the demo's."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._feel: Feel | None = None
        self._turns: dict[tuple[str, str], float] = {}
        self._body = ""
        self.view, self.factor = LampView(theme), Exaggeration()
        self.vials: dict[str, Vial] = {}
        self._vial_rows = QVBoxLayout()
        self._vial_rows.setContentsMargins(10, 2, 10, 4)
        self._vial_rows.setSpacing(0)
        columns = [Column(head, right=i > 0) for i, head in enumerate(say.FEEL_HEADS)]
        self.model = CellsModel(columns, theme, parent=self)
        self.tools = CellsTable(self.model, theme, 0, say.TOOLS_SHOW, (1,))
        self.no_tool = label("soft", say.NO_TOOL_SHOWS)
        self.part = QComboBox()
        self.part.setAccessibleName(say.PART)
        self.sliders: dict[str, QSlider] = {}
        self._grid = QGridLayout()
        self._amounts: dict[str, QLabel] = {}
        self.straight = QPushButton(say.STRAIGHT_AGAIN)
        self.symptom = QComboBox()
        self.symptom.setAccessibleName(say.MY_MODEL)
        self._causes = QVBoxLayout()
        self._cards = CardColumn((self.told, self._turning(), self._other_way()), theme)
        self.lie_beside(self._drawn(), self._cards)
        self.themed = (self.view, self.tools, self._cards)
        self.factor.factor_changed.connect(lambda _factor: self._show())
        self.part.activated.connect(lambda _i: self._show_sliders())
        self.straight.clicked.connect(self._on_straight)
        self.symptom.activated.connect(lambda _i: self._show_causes())
        self._fit_text()
        self.refresh_lazily(_SHOWS)

    def _drawn(self) -> QVBoxLayout:
        self.view.put_in_corner(self.factor)
        rows = QWidget()
        rows.setLayout(self._vial_rows)
        area = QScrollArea()
        area.setWidget(rows)
        area.setWidgetResizable(True)
        area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        beside = QVBoxLayout()
        beside.setContentsMargins(0, 0, 0, 0)
        beside.setSpacing(0)
        beside.addWidget(_headed(say.TOOLS_SHOW))
        self.no_tool.setContentsMargins(12, 0, 12, 0)
        beside.addWidget(self.no_tool)
        beside.addWidget(self.tools, 1)
        beside.addStretch(0)
        checks = QVBoxLayout()
        checks.setContentsMargins(0, 0, 0, 0)
        checks.setSpacing(0)
        checks.addWidget(_headed(say.CHECKS_HEAD))
        checks.addWidget(area, 1)
        self._below = below = QBoxLayout(QBoxLayout.Direction.LeftToRight)
        below.setSpacing(8)
        below.addLayout(checks, 1)
        below.addLayout(beside, 1)
        left = QVBoxLayout()
        left.setContentsMargins(0, 0, 0, 0)
        left.setSpacing(0)
        left.addWidget(self.view, 5)
        left.addLayout(below, 6)
        return left

    def _turning(self) -> Card:
        card = Card(say.TURN_SOMETHING, "act")
        self.straight.setObjectName("tool")
        row = QHBoxLayout()
        row.addWidget(self.part, 1)
        row.addWidget(self.straight)
        card.column.addLayout(row)
        self._grid.setHorizontalSpacing(8)
        self._grid.setVerticalSpacing(2)
        card.column.addLayout(self._grid)
        card.column.addWidget(label("soft", say.TURN_HOW))
        return card

    def _other_way(self) -> Card:
        card = Card(say.OTHER_WAY)
        self.symptom.addItem(say.MY_MODEL, "")
        for one in SYMPTOMS:
            self.symptom.addItem(f"{say.MY_MODEL} {say.SYMPTOMS[one.id]}", one.id)
        self.symptom.setSizeAdjustPolicy(
            QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon
        )
        card.column.addWidget(self.symptom)
        card.column.addLayout(self._causes)
        return card

    # -- showing ---------------------------------------------------------------------------------

    @property
    def feel(self) -> Feel | None:
        """The model in hand; ``None`` before the page was seen."""
        return self._feel

    def focus_work(self) -> None:
        """Put the cursor on the first slider."""
        self.show_anew()
        first = next(iter(self.sliders.values()), None)
        if first is not None:
            first.setFocus()

    def refresh(self) -> None:
        """Take the model on the bench in hand, straight."""
        build = self.document.build
        self._feel = feel_of(build if len(build.surveyed.bodies) > 1 else shipped_build())
        self._turns = {
            key: one
            for key, one in self._turns.items()
            if key[1] in self._feel.turns.get(key[0], ())
        }
        chosen = self.part.currentData()
        self.part.clear()
        for body, name in shown.parts_of(self._feel):
            self.part.addItem(name, body)
        self.part.setCurrentIndex(max(0, self.part.findData(chosen)))
        self._show_sliders()
        self._show_causes()

    def _show_sliders(self) -> None:
        """A slider for each way in which the part in hand can be off."""
        if self._feel is None:
            return
        self._body = self.part.currentData() or ""
        while (item := self._grid.takeAt(0)) is not None:
            widget = item.widget()
            if widget is not None:
                widget.deleteLater()
        self.sliders, self._amounts = {}, {}
        for row, name in enumerate(self._feel.turns.get(self._body, ())):
            slider = QSlider(Qt.Orientation.Horizontal)
            slider.setRange(-_STEPS, _STEPS)
            slider.setMinimumWidth(80)
            slider.setValue(round(self._turns.get((self._body, name), 0.0) / _step(name)))
            slider.setAccessibleName(say.TURN_NAMES[name])
            slider.valueChanged.connect(lambda value, name=name: self._on_slid(name, value))
            amount = label("heading", wrap=False)
            amount.setAlignment(Qt.AlignmentFlag.AlignRight)
            amount.setMinimumWidth(self.theme.across(60))
            self._grid.addWidget(label("soft", say.TURN_NAMES[name]), row, 0)
            self._grid.addWidget(slider, row, 1)
            self._grid.addWidget(amount, row, 2)
            self.sliders[name], self._amounts[name] = slider, amount
        self._show()

    def _on_slid(self, name: str, value: int) -> None:
        self._turns[self._body, name] = value * _step(name)
        self._show()

    def _on_straight(self) -> None:
        self._turns = {}
        self._show_sliders()

    def _show(self) -> None:
        feel = self._feel
        if feel is None:
            return
        for name, words in self._amounts.items():
            amount = self._turns.get((self._body, name), 0.0)
            in_mm = name.startswith("d")
            words.setText(format_length(amount, self.unit) if in_mm else format_angle(amount))
        unknowns = feel.unknowns(self._turns)
        self.view.show_scenes(
            shown.scenes(feel, unknowns, self.factor.factor, self.unit), say.FEEL_LEGEND
        )
        rows = shown.tool_rows(feel, unknowns, self.unit)
        self.model.show_rows(rows, self.theme)
        self.no_tool.setVisible(not rows)
        self.tools.setVisible(bool(rows))
        self._show_vials(feel)

    def _show_vials(self, feel: Feel) -> None:
        values = shown.vials(feel, feel.unknowns(self._turns), self.unit)
        for gone in set(self.vials) - {one.id for one in values}:
            self.vials.pop(gone).deleteLater()
        for number, value in enumerate(values):
            if value.id not in self.vials:
                self.vials[value.id] = Vial(value, self.theme)
                self.vials[value.id].setFocusPolicy(Qt.FocusPolicy.NoFocus)
            vial = self.vials[value.id]
            vial.show_value(value)
            if self._vial_rows.indexOf(vial) != number:
                self._vial_rows.insertWidget(number, vial)
        while self._vial_rows.count() > len(values):
            self._vial_rows.takeAt(len(values))
        self._vial_rows.addStretch(1)

    def _show_causes(self) -> None:
        while (item := self._causes.takeAt(0)) is not None:
            widget = item.widget()
            if widget is not None:
                widget.deleteLater()
        wanted = self.symptom.currentData()
        if self._feel is None or not wanted:
            return
        causes = causes_of(self._feel, symptom_called(wanted))
        for what, first in shown.cause_lines(self._feel, causes, self.unit):
            self._causes.addWidget(label("heading", what))
            self._causes.addWidget(label("soft", first))
        if not causes:
            self._causes.addWidget(label("soft", say.NO_CAUSE))

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self.theme = theme
        for vial in self.vials.values():
            vial.set_theme(theme)
        self._fit_text()
        super().set_theme(theme)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Side by side only where there is room."""
        super().resizeEvent(event)
        self._fit_text()

    def _fit_text(self) -> None:
        """Large letters, and a narrow window, have no room side by side."""
        large = self.width() < self.theme.px(_SIDE_BY_SIDE) + self._cards.width()
        way = QBoxLayout.Direction.TopToBottom if large else QBoxLayout.Direction.LeftToRight
        self._below.setDirection(way)


def _step(name: str) -> float:
    """What a slider's step is: mm or degrees."""
    return (_MOST_MM if name.startswith("d") else _MOST_DEG) / _STEPS


def _headed(words: str) -> QWidget:
    head = label("heading", words, wrap=False)
    head.setContentsMargins(12, 3, 12, 3)
    return head
