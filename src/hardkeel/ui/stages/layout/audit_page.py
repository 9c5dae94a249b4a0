"""The print check: pairs of plan and measured dimensions, and why they differ."""

from typing import Final

from PyQt6.QtWidgets import (
    QComboBox,
    QGridLayout,
    QLineEdit,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, format_length, parse_length
from hardkeel.edits import paper as paper_edits
from hardkeel.messages import layout as say
from hardkeel.messages.faults import told
from hardkeel.messages.paper import (
    CAUSE_NAMES,
    cure_sentence,
    doubt_sentence,
    finding_sentence,
    why_sentence,
)
from hardkeel.paper.audit import Finding, audit
from hardkeel.paper.model import Pair, PrintedSheet
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.stages.layout.audit_chart import AuditChart, Spot
from hardkeel.ui.stages.layout.chances import Chances
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.cells import CellsModel, Column, Row
from hardkeel.ui.widgets.cells_table import CellsTable

_KINDS: Final = (("outline", "outside"), ("spacing", "spacing"), ("bent-length", "bent length"))
_DIRECTIONS: Final = (("x", "along"), ("y", "across"))
_KIND_WORDS: Final = dict(_KINDS)
_DIRECTION_WORDS: Final = dict(_DIRECTIONS)
_PLAN, _MEASURED = 3, 4
_FIRST_SHEET: Final = "plan sheet"


class AuditPage(SubPage):
    """A sheet's pairs with its verdict."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._sheet_id, self._row = "", -1
        self.sheets = QComboBox()
        self.sheets.setAccessibleName("sheet")
        self.sheets.setEditable(True)
        name = self.sheets.lineEdit()
        if name is not None:
            name.setAccessibleName("name of the sheet")
        self.chart = AuditChart(theme)
        heads = ("part", "kind", "paper", "plan", "measured", "off", "left")
        columns = [
            Column(head, right=i >= _PLAN, typed=head in ("part", "plan", "measured"))
            for i, head in enumerate(heads)
        ]
        self.model = CellsModel(columns, theme, self._edit_cell, self)
        self.table = CellsTable(self.model, theme, 0, say.PAIRS_TABLE, (2, 1))
        self.part, self.plan_line, self.measured = QLineEdit(), QLineEdit(), QLineEdit()
        self.kind, self.direction = QComboBox(), QComboBox()
        self.kind.setAccessibleName("kind of dimension")
        self.direction.setAccessibleName("direction on the paper")
        self.add = QPushButton(say.TAKE_IT)
        self._verdict = Card(say.IS_THE_PRINT_RIGHT, "act")
        self._says, self._cure = label("big"), label("heading")
        self._why, self._doubt = label("soft"), label("warn")
        self._entry = Card(say.ANOTHER_DIMENSION)
        self._chances = Card(say.HOW_LIKELY)
        self.chances = Chances(theme)
        self._known: tuple[str, ...] = ()
        self._lay_out()
        self._connect()
        self.refresh()

    def _lay_out(self) -> None:
        self.add.setObjectName("primary")
        for box, choices in ((self.kind, _KINDS), (self.direction, _DIRECTIONS)):
            for key, words in choices:
                box.addItem(words, key)
        for line, words in (
            (self.part, "part"),
            (self.plan_line, "plan says"),
            (self.measured, "I measure"),
        ):
            line.setPlaceholderText(words)
            line.setAccessibleName(words)
        grid = QGridLayout()
        grid.addWidget(self.part, 0, 0)
        grid.addWidget(self.kind, 0, 1)
        grid.addWidget(self.direction, 0, 2)
        grid.addWidget(self.plan_line, 1, 0)
        grid.addWidget(self.measured, 1, 1)
        grid.addWidget(self.add, 1, 2)
        self._entry.column.addLayout(grid)
        for widget in (self._says, self._cure, self._why, self._doubt):
            self._verdict.column.addWidget(widget)
        self._chances.column.addWidget(self.chances)
        which = Card(say.SHEET)
        which.column.addWidget(self.sheets)
        self._cards = CardColumn(
            (self.told, self._verdict, self._entry, self._chances, which), self.theme
        )
        left = QVBoxLayout()
        left.setContentsMargins(0, 0, 0, 0)
        left.setSpacing(0)
        left.addWidget(self.chart, 3)
        left.addWidget(self.table, 2)
        self.lie_beside(left, self._cards)
        self.themed = (self.table, self._cards)

    def _connect(self) -> None:
        self.add.clicked.connect(self._on_add)
        for line in (self.part, self.plan_line, self.measured):
            line.returnPressed.connect(self._on_add)
        self.table.row_picked.connect(self._on_row)
        self.table.struck.connect(self._on_struck)
        self.sheets.activated.connect(self._on_sheet)
        editor = self.sheets.lineEdit()
        if editor is not None:
            editor.returnPressed.connect(self._on_sheet)
        self.refresh_lazily()

    @property
    def sheet(self) -> PrintedSheet:
        """The sheet shown; an empty one where there is none."""
        sheets = self.document.build.audit
        found = next((sheet for sheet in sheets if sheet.id == self._sheet_id), None)
        if found is not None:
            return found
        if self._sheet_id:
            return PrintedSheet(id=self._sheet_id)
        return sheets[-1] if sheets else PrintedSheet(id=_FIRST_SHEET)  # the newest

    @property
    def verdict(self) -> str:
        """What is said of the sheet."""
        return self._says.text()

    def focus_work(self) -> None:
        """Put the cursor where the hands are."""
        self.part.setFocus()

    def refresh(self) -> None:
        """Show the document as it is now."""
        names = [one.id for one in self.document.build.audit]
        came = [one for one in names if one not in self._known]
        if self._known and len(came) == 1:  # the paper desk has brought its lengths over
            self._sheet_id = came[0]
        self._known = tuple(names)
        sheet = self.sheet
        self.sheets.clear()
        self.sheets.addItems(names if sheet.id in names else [*names, sheet.id])
        self.sheets.setCurrentText(sheet.id)
        found = audit(sheet.pairs)
        self._show_verdict(sheet, found)
        self.model.show_rows(
            [self._row_of(i, pair, found) for i, pair in enumerate(sheet.pairs)], self.theme
        )
        self.chart.show_spots(self._spots(sheet, found), self.unit, self.theme, self._row)
        rows = tuple(
            (CAUSE_NAMES[cause], chance, cause == found.leading)
            for cause, chance in found.probabilities.items()
        )
        self.chances.show_chances(rows if sheet.pairs else (), self.theme)

    def _show_verdict(self, sheet: PrintedSheet, found: Finding) -> None:
        if not sheet.pairs:
            self._says.setText(say.MEASURE_FIRST)
            self._cure.setText(say.SIX_OR_EIGHT_WILL_DO)
            self._why.setText("")
            self._doubt.setText("")
        else:
            self._says.setText(finding_sentence(found, self.unit))
            self._cure.setText(cure_sentence(found, self.unit))
            self._why.setText(why_sentence(found.next) if found.next else "")
            self._doubt.setText(doubt_sentence(sheet, found, self.unit))
        self._verdict.set_edge("out" if found.cause not in ("right", "undecided") else "act")
        for widget in (self._why, self._doubt):
            widget.setVisible(bool(widget.text()))

    def _row_of(self, number: int, pair: Pair, found: Finding) -> Row:
        left = pair.measured - found.fitted[number]
        cells = (
            pair.part or "",
            _KIND_WORDS[pair.kind],
            _DIRECTION_WORDS[pair.direction],
            format_length(pair.plan, self.unit),
            format_length(pair.measured, self.unit),
            format_length(pair.measured - pair.plan, self.unit),
            format_length(left, self.unit),
        )
        wrong = number == found.wrong
        return Row(str(number), cells, "out" if wrong else "ink", weight=600 if wrong else 400)

    def _spots(self, sheet: PrintedSheet, found: Finding) -> tuple[Spot, ...]:
        return tuple(
            Spot(
                pair.plan,
                pair.measured - pair.plan,
                found.fitted[i] - pair.plan,
                pair.sigma,
                pair.kind,
                pair.direction == "y",
                i == found.wrong,
                pair.part or "",
            )
            for i, pair in enumerate(sheet.pairs)
        )

    def _on_add(self) -> None:
        wanted = ((self.plan_line, "what the plan says"), (self.measured, "what you measure"))
        values = []
        for line, words in wanted:
            if not line.text().strip():
                line.setFocus()
                self.tell(say.type_a(words))
                return
            try:
                values.append(parse_length(line.text(), self.unit).mm)
            except BadInput as fault:
                self.tell(told(fault, self.unit))
                return
        if min(values) <= 0:
            self.tell(say.DIMENSION_TOO_SMALL)
            return
        pair = Pair(
            part=self.part.text().strip() or None,
            kind=self.kind.currentData(),
            direction=self.direction.currentData(),
            plan=values[0],
            measured=values[1],
        )
        name = self.sheet.id
        if self.apply(say.TAKE_DIMENSION, paper_edits.add_pair.of(name, pair)):
            self._sheet_id = name
            for line in (self.plan_line, self.measured):
                line.clear()
            self.part.setFocus()
            self.part.selectAll()

    def _edit_cell(self, key: str, column: int, text: str) -> bool:
        name, number = self.sheet.id, int(key)
        if column == 0:
            changes: dict[str, object] = {"part": text or None}
        else:
            try:
                value = parse_length(text, self.unit).mm
            except BadInput as fault:
                self.tell(told(fault, self.unit))
                return False
            if value <= 0:
                self.tell(say.DIMENSION_TOO_SMALL)
                return False
            changes = {"plan" if column == _PLAN else "measured": value}
        return self.apply(say.CHANGE_DIMENSION, paper_edits.change_pair.of(name, number, **changes))

    def _on_struck(self, row: int) -> None:
        name = self.sheet.id
        self.apply(say.STRIKE_DIMENSION_OUT, paper_edits.delete_pair.of(name, row))

    def _on_row(self, row: int) -> None:
        self._row = row
        sheet = self.sheet
        self.chart.show_spots(self._spots(sheet, audit(sheet.pairs)), self.unit, self.theme, row)

    def _on_sheet(self) -> None:
        self._sheet_id = self.sheets.currentText().strip() or _FIRST_SHEET
        self._row = -1
        self.refresh()
