"""Materials and swaps: the table, two choices for a part, and a laminate."""

from typing import Final

from PyQt6.QtWidgets import QCheckBox, QComboBox, QGridLayout, QHBoxLayout, QPushButton, QWidget

from hardkeel.airframe.parts import balance_wanted, parts_of, woods_of
from hardkeel.balance.balancing import balance_of, nose_cost
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, decimal, parse_number, shortest
from hardkeel.edits import ledger as ledger_edits
from hardkeel.messages import layout as say
from hardkeel.messages.faults import told
from hardkeel.messages.safety import CARBON_CAUTION
from hardkeel.messages.swaps import laminate_sentence, swap_sentences
from hardkeel.messages.woods import sources_text
from hardkeel.parts.model import OwnWood
from hardkeel.parts.swapping import Choice, Figures, Ply, figures_of, laminate_of
from hardkeel.parts.woods import WOODS, Wood
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.cells import CellsModel, Column, Row
from hardkeel.ui.widgets.cells_table import CellsTable
from hardkeel.ui.widgets.fields import QuantityEdit

_DENSITY, _STIFFNESS, _STRENGTH = 1, 3, 5
_FIELDS: Final = {_DENSITY: "density", _STIFFNESS: "stiffness", _STRENGTH: "strength"}
_FIRST: Final = (("light-ply", 3.0), ("balsa-hard", 5.0))
_PLIES: Final = (
    ("birch-ply", 0.4),
    ("carbon-strip", 0.2),
    ("birch-ply", 0.4),
    ("", 0.0),
    ("", 0.0),
)
_PIECE: Final = (("length", 80.0), ("width", 50.0), ("station", 700.0))


class WoodsPage(SubPage):
    """The table with a bench for swaps."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        heads = (
            "material",
            "kg/m³",
            "range",
            "GPa along",
            "across",
            "MPa bent",
            "bends dry / wet",
            "where from",
        )
        columns = [
            Column(head, right=0 < i < 7, typed=i in _FIELDS)  # noqa: PLR2004  the last is words
            for i, head in enumerate(heads)
        ]
        self.model = CellsModel(columns, theme, self._edit_cell, self)
        self.table = CellsTable(self.model, theme, 7, say.MATERIALS, (6, 2, 4, 7))
        self.piece = {key: QuantityEdit(unit=unit) for key, _ in _PIECE}
        self.choices = tuple(
            (QComboBox(), QuantityEdit(unit=unit), QCheckBox("along")) for _ in _FIRST
        )
        self.plies = tuple((QComboBox(), QuantityEdit(unit=unit)) for _ in _PLIES)
        self.part = QComboBox()
        self.part.setAccessibleName("part to swap the wood of")
        self.part.activated.connect(self._on_part)
        self.swap = QPushButton(say.MAKE_THE_SWAP)
        self.swap.clicked.connect(self._on_swap)
        self._swap, self._told = Card(say.SWAP_ONE_WOOD, "act"), label("answer")
        self._more = label("soft")
        self._laminate, self._made = Card(say.LAMINATE), label("heading")
        self._caution = label("soft", CARBON_CAUTION)
        self._lay_out()
        self.refresh_lazily()
        self.refresh()

    def _lay_out(self) -> None:
        grid = QGridLayout()
        grid.setVerticalSpacing(2)
        for column, (key, value) in enumerate(_PIECE):
            field = self.piece[key]
            field.set_value(value)
            field.line.setAccessibleName(key)
            field.value_changing.connect(self._show_swap)
            grid.addWidget(label("soft", key, wrap=False), 0, column)
            grid.addWidget(field, 1, column)
        self._swap.column.addWidget(self.part)
        self._swap.column.addLayout(grid)
        chosen = zip(self.choices, _FIRST, strict=True)
        for i, ((box, thickness, along), (material, thick)) in enumerate(chosen, start=1):
            _fill(box, material)
            box.setAccessibleName(f"wood {i}")
            thickness.line.setAccessibleName(f"thickness of wood {i}")
            along.setAccessibleName(f"grain of wood {i} along the length")
            thickness.set_value(thick)
            along.setChecked(True)
            along.setToolTip(say.GRAIN_ALONG)
            row = QHBoxLayout()
            row.addWidget(box, 3)
            row.addWidget(thickness, 2)
            row.addWidget(along)
            self._swap.column.addLayout(row)
            box.activated.connect(self._show_swap)
            thickness.value_changing.connect(self._show_swap)
            along.toggled.connect(self._show_swap)
        self._swap.column.addWidget(self._told)
        self._swap.column.addWidget(self._more)
        self.swap.setObjectName("primary")
        self._swap.column.addWidget(self.swap)
        self._lay_out_laminate()
        self._cards = CardColumn((self.told, self._swap, self._laminate), self.theme)
        self.lie_beside(self.table, self._cards, left_px=14)
        self.themed = (self.table, self._cards)

    def _lay_out_laminate(self) -> None:
        layers = QGridLayout()
        layers.setVerticalSpacing(2)
        for i, ((box, thickness), (material, thick)) in enumerate(
            zip(self.plies, _PLIES, strict=True)
        ):
            box.addItem("–", "")
            box.setAccessibleName(f"layer {i + 1}")
            thickness.line.setAccessibleName(f"thickness of layer {i + 1}")
            _fill(box, material)
            thickness.set_value(thick or None)
            layers.addWidget(box, i, 0)
            layers.addWidget(thickness, i, 1)
            box.activated.connect(self._show_laminate)
            thickness.value_changing.connect(self._show_laminate)
        layers.setColumnStretch(0, 3)
        layers.setColumnStretch(1, 2)
        self._laminate.column.addLayout(layers)
        self._laminate.column.addWidget(self._made)
        self._laminate.column.addWidget(self._caution)

    def set_unit(self, unit: LengthUnit) -> None:
        """Show lengths in another unit."""
        fields = [*self.piece.values(), *(c[1] for c in self.choices), *(p[1] for p in self.plies)]
        for field in fields:
            value = field.value
            field.set_kind(angular=False, unit=unit)
            field.set_value(value)
        super().set_unit(unit)

    @property
    def said(self) -> str:
        """What the swap does, in words."""
        return f"{self._told.text()} {self._more.text()}"

    def focus_work(self) -> None:
        """Put the cursor where the hands are."""
        self.table.setFocus()

    def refresh(self) -> None:
        """Show the document as it is now."""
        woods = woods_of(self.document.build)
        self.model.show_rows([_row(woods[wood.id]) for wood in WOODS], self.theme)
        self._show_parts()
        self._show_swap()
        self._show_laminate()

    def _show_parts(self) -> None:
        parts = [part for part in parts_of(self.document.build) if min(part.size) > 0]
        chosen = self.part.currentData()
        self.part.clear()
        self.part.addItem("a piece of these sizes", "")
        for part in parts:
            self.part.addItem(part.name, part.id)
        self.part.setCurrentIndex(max(self.part.findData(chosen), 0))

    def _on_part(self) -> None:
        """Take the sizes, place and wood of a part."""
        found = [p for p in parts_of(self.document.build) if p.id == self.part.currentData()]
        if not found:
            return
        part = found[0]
        length, width, thickness = part.size
        self.piece["length"].set_value(length)
        self.piece["width"].set_value(width)
        self.piece["station"].set_value(part.x)
        box, field, along = self.choices[0]
        field.set_value(thickness)
        along.setChecked(part.grain != "across")
        if part.material is not None and box.findData(part.material) >= 0:
            box.setCurrentIndex(box.findData(part.material))
        self._show_swap()
        self._show_laminate()

    def _on_swap(self) -> None:
        part = self.part.currentData()
        box, thickness, _ = self.choices[1]
        wood, thick = box.currentData(), thickness.value
        if thick is None:
            return
        name = self.part.currentText()
        done = self.apply(
            say.make_of_edit(name, box.currentText()),
            ledger_edits.swap_wood.of(part, wood, thick),
        )
        if done:
            self._on_part()

    def _show_swap(self) -> None:
        kinds = {part.id: part.kind for part in parts_of(self.document.build)}
        self.swap.setVisible(kinds.get(self.part.currentData()) in ledger_edits.SWAPPED_KINDS)
        values = {key: field.value for key, field in self.piece.items()}
        length, width, station = (values[key] for key, _ in _PIECE)
        found: list[Figures] = []
        names = []
        woods = woods_of(self.document.build)
        for box, thickness, along in self.choices:
            thick = thickness.value
            if length is None or width is None or thick is None:
                return
            choice = Choice(box.currentData(), length, width, thick, along.isChecked())
            try:
                found.append(figures_of(choice, woods))
            except BadInput as fault:
                self._told.setText(str(fault))
                return
            names.append(woods[choice.material].name)
        cost = self._nose(found[1].mass - found[0].mass, station)
        told, more = swap_sentences((names[0], names[1]), (found[0], found[1]), cost)
        self._told.setText(told)
        self._more.setText(more)

    def _nose(self, extra: float, station: float | None) -> float | None:
        build = self.document.build
        wanted = balance_wanted(build)
        nose = wanted.nose_weight_x
        if nose is None and build.fuselage is not None and build.fuselage.stations:
            nose = build.fuselage.stations[0][1].station
        if nose is None or station is None:
            return None
        try:
            target = balance_of(build.masses, build.wings, wanted).target_x
        except BadInput:
            return None
        return nose_cost(extra, station, target, nose)

    def _show_laminate(self) -> None:
        plies = [
            Ply(box.currentData(), thickness.value or 0.0)
            for box, thickness in self.plies
            if box.currentData()
        ]
        width, length = self.piece["width"].value, self.piece["length"].value
        if width is None or length is None:
            return
        try:
            made = laminate_of(plies, width, length, woods_of(self.document.build))
        except BadInput as fault:
            self._made.setText(f"{fault.fault[:1].upper()}{fault.fault[1:]}.")
            return
        self._made.setText(laminate_sentence(made, self.unit))
        fibres = any(ply.material.startswith(("carbon", "glass")) for ply in plies)
        self._caution.setVisible(fibres)

    def _edit_cell(self, key: str, column: int, text: str) -> bool:
        before = self.document.build.listed.woods.get(key, OwnWood())
        field = _FIELDS[column]
        try:
            value = parse_number(text) if text else None
        except BadInput as fault:
            self.tell(told(fault, self.unit))
            return False
        if value is not None and value <= 0:
            self.tell(say.too_small(field))
            return False
        own = before.but(**{field: value})
        empty = own.density is None and own.stiffness is None and own.strength is None
        name = next(wood.name for wood in WOODS if wood.id == key)
        return self.apply(
            say.set_figure_edit(field, name),
            ledger_edits.set_wood.of(key, None if empty else own),
        )


def _fill(box: QComboBox, chosen: str) -> None:
    for wood in WOODS:
        box.addItem(wood.name, wood.id)
    if chosen:
        box.setCurrentIndex(box.findData(chosen))


def _row(wood: Wood) -> Row:
    low, high = wood.density_range
    bends = f"{decimal(wood.bend[0], 1)} / {decimal(wood.bend[1], 1)} %" if wood.bend[0] else "no"
    cells = (
        wood.name,
        f"{wood.density:.0f}",
        f"{low:.0f}–{high:.0f}",
        shortest(wood.stiffness),
        shortest(wood.across),
        shortest(wood.strength),
        bends,
        wood.source,
    )
    colours = {2: "soft", 7: "soft"}
    return Row(
        wood.id, cells, "act" if wood.own else "ink", sources_text(wood), cell_colours=colours
    )
