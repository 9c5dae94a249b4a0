"""Balance: where it hangs, where the pack must sit, what the nose wants."""

from typing import Final

from PyQt6.QtWidgets import QHBoxLayout, QLineEdit, QPushButton, QVBoxLayout, QWidget

from hardkeel.airframe.hatches import depth_under
from hardkeel.airframe.parts import balance_wanted
from hardkeel.balance.balancing import Balanced, balance_of
from hardkeel.balance.model import Balance, Battery, Hatch, Mass
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, decimal, format_length, parse_length, parse_number
from hardkeel.edits import ledger as ledger_edits
from hardkeel.edits.named import Edit
from hardkeel.messages import layout as say
from hardkeel.messages.balance import balance_sentence, bay_sentence, hatch_sentence
from hardkeel.messages.faults import told
from hardkeel.messages.safety import PACK_CAUTION
from hardkeel.picture.truing import keel_strokes
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.stages.layout.balance_drawing import BalanceDrawing, BalanceShown, Weighed
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.cells import CellsModel, Column, Row
from hardkeel.ui.widgets.cells_table import CellsTable
from hardkeel.ui.widgets.figures_card import Figure, FiguresCard

_MASS, _STATION = 1, 2
_PACK_PX_MM: Final = 60.0


class BalancePage(SubPage):
    """Masses and the answer."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._chosen = ""
        self.drawing = BalanceDrawing(theme)
        columns = [
            Column("mass", typed=False),
            Column("grams", right=True, typed=True),
            Column("station", right=True, typed=True),
            Column("how known"),
        ]
        self.model = CellsModel(columns, theme, self._edit_cell, self)
        self.table = CellsTable(self.model, theme, 0, say.MASSES)
        self._answer = Card(say.BALANCE, "act")
        self._says, self._bay = label("big"), label("heading")
        self._facts = label("soft")
        self.wanted = FiguresCard(say.WANTED)
        self.pack = FiguresCard(say.PACK_AND_HATCH)
        self.bring = QPushButton(say.COUNT_THE_PARTS_IN)
        self.name, self.grams, self.station = QLineEdit(), QLineEdit(), QLineEdit()
        self.add = QPushButton(say.PUT_IT_IN)
        self._lay_out()
        self._connect()
        self.refresh()

    def _lay_out(self) -> None:
        for widget in (self._says, self._bay, self._facts):
            self._answer.column.addWidget(widget)
        for button in (self.bring, self.add):
            button.setObjectName("tool")
        for line, words in ((self.name, "what"), (self.grams, "grams"), (self.station, "station")):
            line.setPlaceholderText({"grams": "g", "station": "at"}.get(words, words))
            line.setAccessibleName(words)
        entry = QHBoxLayout()
        entry.setSpacing(6)
        entry.setContentsMargins(14, 4, 10, 4)
        entry.addWidget(self.name, 2)
        entry.addWidget(self.grams, 1)
        entry.addWidget(self.station, 1)
        entry.addWidget(self.add)
        entry.addWidget(self.bring)
        left = QVBoxLayout()
        left.setContentsMargins(0, 0, 0, 0)
        left.setSpacing(0)
        left.addWidget(self.drawing, 3)
        left.addLayout(entry)
        left.addWidget(self.table, 2)
        self._cards = CardColumn((self.told, self._answer, self.wanted, self.pack), self.theme)
        self.lie_beside(left, self._cards)
        self.themed = (self.table, self._cards)

    def _connect(self) -> None:
        self.drawing.mass_picked.connect(self._on_mass_picked)
        self.table.row_picked.connect(self._on_row)
        self.table.struck.connect(self._on_struck)
        self.wanted.figure_changed.connect(self._on_wanted)
        self.pack.figure_changed.connect(self._on_pack)
        self.bring.clicked.connect(
            lambda: self.apply(say.COUNT_PARTS_IN, ledger_edits.bring_parts_in.of())
        )
        self.add.clicked.connect(self._on_add)
        for line in (self.name, self.grams, self.station):
            line.returnPressed.connect(self._on_add)
        self.refresh_lazily()

    @property
    def answer(self) -> str:
        """What is said."""
        return self._says.text()

    def focus_work(self) -> None:
        """Put the cursor where the hands are."""
        self.table.setFocus()

    def refresh(self) -> None:
        """Show the document as it is now."""
        build = self.document.build
        wanted = balance_wanted(build)
        found = self._found()
        self._show_answer(found, wanted)
        self._show_fields(wanted)
        self.model.show_rows([self._row(mass) for mass in build.masses], self.theme)
        self.drawing.show_balance(self._shown(found, wanted), self.theme)

    def _found(self) -> Balanced | str:
        build = self.document.build
        try:
            return balance_of(build.masses, build.wings, balance_wanted(build))
        except BadInput as fault:
            return fault.fault

    def _show_answer(self, found: Balanced | str, wanted: Balance) -> None:
        if isinstance(found, str):
            self._says.setText(say.NOTHING_HANGS_YET)
            self._bay.setText(say.COUNT_OR_PUT_IN)
            self._facts.setText(f"{found[:1].upper()}{found[1:]}.")
            self._answer.set_edge("act")
            return
        self._says.setText(balance_sentence(found, wanted, self.unit))
        self._bay.setText(
            f"{bay_sentence(found, wanted, self.unit)} "
            f"{hatch_sentence(wanted, depth_under(self.document.build.fuselage))}".strip()
        )
        chord = format_length(found.chord.length, self.unit) if found.chord is not None else ""
        guessed = sum(not mass.weighed for mass in self.document.build.masses)
        self._facts.setText(say.balance_facts(found.mass, chord, guessed))
        wrong = found.nose_weight is None or found.nose_weight > 0 or found.battery_fits is False
        self._answer.set_edge("out" if wrong else "act")

    def _show_fields(self, wanted: Balance) -> None:
        percent = wanted.target_percent if wanted.target_x is None else None
        self.wanted.show_figures(
            "",
            (
                Figure("target_percent", "of mean chord", percent, "percent"),
                Figure("target_x", "or at station", wanted.target_x),
                Figure("nose_weight_x", "nose weight at", wanted.nose_weight_x),
            ),
            self.unit,
        )
        pack = wanted.battery
        between = pack.bay if pack is not None and pack.bay else (None, None)
        size = pack.size if pack is not None and pack.size else (None, None, None)
        hatch = wanted.hatches[0] if wanted.hatches else None
        self.pack.show_figures(
            "",
            (
                Figure("mass", "pack", pack.mass if pack else None, "grams"),
                Figure("length", "long", size[0]),
                Figure("front", "bay from", between[0]),
                Figure("width", "wide", size[1]),
                Figure("rear", "bay to", between[1]),
                Figure("height", "high", size[2]),
                Figure("hatch_front", "hatch from", hatch.between[0] if hatch else None),
                Figure("hatch_width", "hatch wide", hatch.width if hatch else None),
                Figure("hatch_rear", "hatch to", hatch.between[1] if hatch else None),
            ),
            self.unit,
            PACK_CAUTION,
        )

    def _row(self, mass: Mass) -> Row:
        known = "weighed" if mass.weighed else "estimated"
        name = mass.id.replace("_", " ")
        cells = (name, f"{decimal(mass.mass, 1)} g", format_length(mass.x, self.unit), known)
        return Row(mass.id, cells, cell_colours={3: "soft"})

    def _shown(self, found: Balanced | str, wanted: Balance) -> BalanceShown:
        build = self.document.build
        masses = tuple(Weighed(m.id, m.mass, m.x, m.weighed) for m in build.masses)
        strokes = keel_strokes(build)
        if isinstance(found, str):
            return BalanceShown(strokes, masses)
        pack = wanted.battery
        chord = found.chord
        words = {"target": f"wanted {format_length(found.target_x, self.unit, 0)}"}
        words["balance"] = format_length(found.x, self.unit)
        if found.percent is not None:
            words["target"] += f", {_percent(found)} %"
            words["balance"] += f", {decimal(found.percent, 1)} % of the mean chord"
        nose = None
        if found.nose_weight and wanted.nose_weight_x is not None:
            nose = (wanted.nose_weight_x, found.nose_weight)
        return BalanceShown(
            strokes=strokes,
            masses=masses,
            target=found.target_x,
            balance=found.x,
            chord=(chord.le_x, chord.le_x + chord.length) if chord else None,
            pack=found.placed_x,
            pack_length=pack.size[0] if pack and pack.size else _PACK_PX_MM,
            pack_fits=found.battery_fits is not False,
            bay=pack.bay if pack else None,
            hatches=tuple(hatch.between for hatch in wanted.hatches),
            nose=nose,
            chosen=self._chosen,
            words=words,
        )

    # -- doing -----------------------------------------------------------------------------------

    def _on_mass_picked(self, mass: str) -> None:
        row = self.model.number_of(mass)
        self.table.setCurrentIndex(self.model.index(row, 0))

    def _on_row(self, row: int) -> None:
        shown = self.model.row(row)
        self._chosen = shown.key if shown is not None else ""
        self.drawing.show_balance(
            self._shown(self._found(), balance_wanted(self.document.build)), self.theme
        )

    def _on_struck(self, row: int) -> None:
        shown = self.model.row(row)
        if shown is not None:
            self.apply(say.take_out_edit(shown.key), ledger_edits.delete_mass.of(shown.key))

    def _on_add(self) -> None:
        name = self.name.text().strip()
        if not name:
            self.name.setFocus()
            self.tell(say.SAY_WHAT_IT_IS)
            return
        try:
            grams = parse_number(self.grams.text())
            x = parse_length(self.station.text(), self.unit).mm
        except BadInput as fault:
            self.tell(told(fault, self.unit))
            return
        if grams < 0:
            self.tell(say.MASS_TOO_SMALL)
            return
        mass = Mass(id=name, mass=grams, x=x, weighed=True)
        if self.apply(say.put_in_edit(name), ledger_edits.put_mass.of(mass)):
            for line in (self.name, self.grams, self.station):
                line.clear()
            self.name.setFocus()

    def _edit_cell(self, key: str, column: int, text: str) -> bool:
        mass = next(one for one in self.document.build.masses if one.id == key)
        try:
            if column == _MASS:
                changed = mass.but(mass=parse_number(text), weighed=True)
            else:
                changed = mass.but(x=parse_length(text, self.unit).mm)
        except (BadInput, ValueError) as fault:
            self.tell(str(fault) if isinstance(fault, BadInput) else say.MASS_TOO_SMALL)
            return False
        return self.apply(say.change_edit(key), ledger_edits.put_mass.of(changed))

    def _on_wanted(self, key: str, value: float) -> None:
        changes: dict[str, object] = {key: value}
        if key == "target_percent":
            changes["target_x"] = None
        self._try("set what is wanted", ledger_edits.set_balance.of(**changes))

    def _on_pack(self, key: str, value: float) -> None:
        wanted = balance_wanted(self.document.build)
        if key.startswith("hatch"):
            old = (
                wanted.hatches[0]
                if wanted.hatches
                else Hatch(id="hatch", between=(0.0, 120.0), width=45.0)
            )
            front, rear = old.between
            made = {
                "hatch_front": old.but(between=(value, max(rear, value + 1))),
                "hatch_rear": old.but(between=(min(front, value - 1), value)),
            }.get(key)
            if made is None:
                made = old.but(width=max(value, 1.0))
            self._try("set the hatch", ledger_edits.set_balance.of(hatches=(made,)))
            return
        pack = wanted.battery or Battery(mass=150.0)
        if key == "mass":
            changes: dict[str, object] = {"mass": value}
        elif key in ("front", "rear"):
            self._try("set the bay", ledger_edits.set_bay.of(key, value))
            return
        else:
            size = list(pack.size or (100.0, 35.0, 25.0))
            size[("length", "width", "height").index(key)] = value
            self._try("set the pack", ledger_edits.set_pack_size.of(tuple(size)))
            return
        self._try("set the pack", ledger_edits.set_pack.of(**changes))

    def _try(self, name: str, edit: Edit) -> None:
        try:
            self.apply(name, edit)
        except ValueError:
            self.tell(say.NO_SENSE_HERE)
            self.refresh()


def _percent(found: Balanced) -> str:
    if found.chord is None:
        return ""
    return f"{(found.target_x - found.chord.le_x) / found.chord.length * 100:.0f}"
