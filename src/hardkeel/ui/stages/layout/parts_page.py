"""The parts ledger: every part with its state and weight, the lists that disagree, the handed pairs."""

from typing import TYPE_CHECKING, Final

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import (
    QComboBox,
    QHBoxLayout,
    QLineEdit,
    QPlainTextEdit,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from hardkeel.airframe.parts import parts_of, weights_of
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, decimal, format_length, format_size, parse_number
from hardkeel.edits import ledger as ledger_edits
from hardkeel.edits.named import in_turn
from hardkeel.messages import layout as say
from hardkeel.messages.counting import number_of
from hardkeel.messages.faults import told
from hardkeel.messages.names import sentence_case
from hardkeel.messages.parts import (
    STATE_WORDS,
    hand_words,
    lists_told,
    pair_question,
    pair_sentence,
    weight_sentence,
)
from hardkeel.parts.handing import wrong_pairs
from hardkeel.parts.model import STATES, Part, State
from hardkeel.parts.woods import woods_with
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.cells import CellsModel, Column, Row
from hardkeel.ui.widgets.cells_table import CellsTable

if TYPE_CHECKING:
    from hardkeel.parts.weighing import Weight

_WEIGHED: Final = 5
_SHAPES: Final = {
    "wanted": "○",
    "cut": "◔",
    "cleaned": "◑",
    "dry-fitted": "◕",
    "glued": "●",
    "trued": "◆",
}
_MOST_TOLD: Final = 7


class PartsPage(SubPage):
    """The ledger.

    Signals
    -------
    body_chosen : str
        The body that the picked part belongs to.
    csv_wanted : (nothing)
        Write the list.
    """

    body_chosen = pyqtSignal(str)
    csv_wanted = pyqtSignal()

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._parts: tuple[Part, ...] = ()
        self._weights: dict[str, Weight] = {}
        self._part, self._asked = "", ""
        self._wanted: State | None = None
        heads = ("part", "pieces", "wood", "size", "by size", "weighed", "state")
        columns = [
            Column(
                head,
                right=head in ("pieces", "size", "by size", "weighed"),
                typed=head == "weighed",
            )
            for head in heads
        ]
        self.model = CellsModel(columns, theme, self._edit_cell, self)
        self.table = CellsTable(self.model, theme, 0, say.PARTS, (3, 4, 2))
        self._hand = Card(say.IN_HAND, "act")
        self._name, self._about = label("title"), label("soft")
        self.state = QComboBox()
        self.state.setAccessibleName("state of the parts picked")
        self.forward = QPushButton()
        self._question = Card("A pair", "out")
        self._asks = label("heading")
        self.answers = tuple(QPushButton(words) for words in ("none", "one", "both"))
        self._lists = Card(say.WHERE_THE_LISTS_DISAGREE)
        self._told = label("soft")
        self.paste = QPlainTextEdit()
        self.take_printed = QPushButton(say.IT_IS_THE_PRINTED_LIST)
        self.take_box = QPushButton(say.IT_IS_THE_BOX)
        self.filter = QLineEdit()
        self._sum = label("heading", wrap=False)
        self._lay_out()
        self._connect()
        self.refresh()

    def _lay_out(self) -> None:
        for state in STATES:
            self.state.addItem(f"{_SHAPES[state]}  {STATE_WORDS[state]}", state)
        self.forward.setObjectName("primary")
        column = self._hand.column
        column.addWidget(self._name)
        column.addWidget(self._about)
        row = QHBoxLayout()
        row.addWidget(self.state, 1)
        row.addWidget(self.forward)
        column.addLayout(row)
        self._question.column.addWidget(self._asks)
        answers = QHBoxLayout()
        for button in self.answers:
            answers.addWidget(button)
        answers.addStretch(1)
        self._question.column.addLayout(answers)
        self.paste.setPlaceholderText(say.PASTE_A_LIST_HERE)
        self.paste.setAccessibleName("paste a parts list")
        self.paste.setMaximumHeight(self.theme.px(74))
        self._lists.column.addWidget(self._told)
        self._lists.column.addWidget(self.paste)
        take = QHBoxLayout()
        for button in (self.take_printed, self.take_box):
            button.setObjectName("tool")
            take.addWidget(button)
        take.addStretch(1)
        self._lists.column.addLayout(take)
        self._cards = CardColumn((self.told, self._question, self._hand, self._lists), self.theme)
        self._lay_out_table()

    def _lay_out_table(self) -> None:
        left = QVBoxLayout()
        left.setContentsMargins(14, 8, 0, 0)
        head = QHBoxLayout()
        head.setSpacing(8)
        self.filter.setPlaceholderText("find a part")
        self.filter.setAccessibleName("find a part")
        self.filter.setClearButtonEnabled(True)
        self.filter.setMaximumWidth(self.theme.px(220))
        write = QPushButton(say.WRITE_THE_LIST)
        write.setObjectName("tool")
        write.clicked.connect(self.csv_wanted)
        head.addWidget(self._sum)
        head.addStretch(1)
        head.addWidget(self.filter)
        head.addWidget(write)
        left.addLayout(head)
        left.addWidget(self.table, 1)
        self.lie_beside(left, self._cards)
        self.themed = (self.table, self._cards)

    def _connect(self) -> None:
        self.table.row_picked.connect(self._on_row)
        self.table.started.connect(self._on_started)
        self.state.activated.connect(lambda _row: self._set_state(self.state.currentData()))
        self.forward.clicked.connect(self._on_forward)
        for facing, button in enumerate(self.answers):
            button.clicked.connect(lambda _on, facing=facing: self._on_answer(facing))
        self.take_printed.clicked.connect(lambda: self._on_list("printed"))
        self.take_box.clicked.connect(lambda: self._on_list("box"))
        self.filter.textChanged.connect(self.refresh)
        self.refresh_lazily()

    # -- showing ---------------------------------------------------------------------------------

    @property
    def question(self) -> str:
        """The question that stands, empty where none does."""
        return self._asks.text() if self._asked else ""

    def choose(self, part_id: str) -> None:
        """Take a part in hand."""
        self._part = part_id
        self.refresh()
        row = self.model.number_of(part_id)
        if row >= 0:
            self.table.setCurrentIndex(self.model.index(row, 0))

    def focus_work(self) -> None:
        """Put the cursor where the hands are."""
        self.table.setFocus()

    def refresh(self) -> None:
        """Show the document as it is now."""
        build = self.document.build
        self._parts = parts_of(build)
        self._weights = weights_of(build, self._parts)
        words = self.filter.text().casefold().split()
        shown = [
            p
            for p in self._parts
            if all(w in f"{p.name} {self._wood(p)}".casefold() for w in words)
        ]
        self.model.show_rows([self._row(part) for part in shown], self.theme)
        grams = sum(w.best or 0.0 for w in self._weights.values())
        count = sum(part.pieces for part in self._parts)
        self._sum.setText(
            f"{number_of(len(self._parts), 'part')}, {number_of(count, 'piece')}, {grams:.0f} g"
            if self._parts
            else say.NO_PARTS_YET
        )
        if not any(part.id == self._part for part in self._parts):
            self._part = self._first_open()
        self._show_hand()
        self._show_question()
        self._show_lists()

    def _first_open(self) -> str:
        states = self.document.build.listed.states
        for part in self._parts:
            if states.get(part.id, "wanted") not in ("glued", "trued"):
                return part.id
        return self._parts[0].id if self._parts else ""

    def _row(self, part: Part) -> Row:
        weight = self._weights[part.id]
        state = self.document.build.listed.states.get(part.id, "wanted")
        size = format_size(part.size, self.unit)
        hands = f" {hand_words(part)}" if part.hand != "none" else ""
        colours = {2: "soft", 3: "soft", 4: "soft"}
        if weight.odd:
            colours[_WEIGHED] = "out"
        bad = self.document.build.listed.pairs.get(part.id) == "same"
        cells = (
            sentence_case(part.name),
            f"{part.pieces}{hands}",
            self._wood(part) or "–",
            size,
            "–" if weight.estimated is None else f"{decimal(weight.estimated, 1)} g",
            "" if weight.weighed is None else f"{decimal(weight.weighed, 1)} g",
            "two of one hand" if bad else f"{_SHAPES[state]}  {STATE_WORDS[state]}",
        )
        tip = weight_sentence(weight)
        return Row(part.id, cells, "out" if bad else "ink", tip, cell_colours=colours)

    def _wood(self, part: Part) -> str:
        """What the wood is called; a name that is not in the table stands as it is."""
        material = part.material or ""
        wood = woods_with(self.document.build.listed.woods).get(material)
        return wood.name if wood is not None else material

    def _show_hand(self) -> None:
        part = self._found()
        self._hand.setVisible(part is not None)
        if part is None:
            return
        state = self.document.build.listed.states.get(part.id, "wanted")
        number = STATES.index(state)
        self.state.setCurrentIndex(number)
        self._name.setText(sentence_case(part.name))
        grain = {"along": "grain along", "across": "grain across", "any": ""}[part.grain]
        station = f"at {format_length(part.x, self.unit, 0)}" if part.x is not None else ""
        facts = [
            hand_words(part),
            self._wood(part),
            format_size(part.size, self.unit),
            grain,
            station,
        ]
        facts.append(weight_sentence(self._weights[part.id]))
        self._about.setText(" · ".join(fact for fact in facts if fact))
        more = number + 1 < len(STATES)
        self.forward.setVisible(more)
        if more:
            self.forward.setText(say.it_is(STATE_WORDS[STATES[number + 1]]))

    def _show_question(self) -> None:
        part = next((p for p in self._parts if p.id == self._asked), None)
        wrong = wrong_pairs(self._parts, self.document.build.listed)
        self._question.setVisible(part is not None or bool(wrong))
        asking = part is not None
        for button in self.answers:
            button.setVisible(asking)
        if part is not None:
            self._asks.setText(pair_question(part))
        elif wrong:
            self._asks.setText(pair_sentence(wrong[0]))

    def _show_lists(self) -> None:
        ledger = self.document.build.listed
        found = lists_told(self._parts, ledger.printed, ledger.box, self.unit)
        if not ledger.printed and not ledger.box:
            self._told.setText(say.WHAT_TO_PASTE)
        elif not found:
            self._told.setText(say.ALL_LISTS_AGREE)
        else:
            told = found[:_MOST_TOLD]
            if len(found) > _MOST_TOLD:
                told.append(f"… and {len(found) - _MOST_TOLD} more.")
            self._told.setText("\n".join(told))

    def _found(self) -> Part | None:
        return next((part for part in self._parts if part.id == self._part), None)

    # -- doing -----------------------------------------------------------------------------------

    def _on_row(self, row: int) -> None:
        shown = self.model.row(row)
        if shown is not None and shown.key != self._part:
            self._part, self._asked = shown.key, ""
            self._show_hand()
            self._show_question()
            part = self._found()
            if part is not None:
                self.body_chosen.emit(part.of)

    def _on_started(self, row: int) -> None:
        shown = self.model.row(row)
        if shown is not None:
            self._part = shown.key
            self._on_forward()

    def _on_forward(self) -> None:
        state = self.document.build.listed.states.get(self._part, "wanted")
        number = STATES.index(state)
        if number + 1 < len(STATES):
            self._set_state(STATES[number + 1])

    def _set_state(self, state: State) -> None:
        part = self._found()
        if part is None:
            return
        try:
            self.document.apply(
                say.state_edit(part.name, STATE_WORDS[state]),
                ledger_edits.set_state.of(part.id, state),
            )
        except ledger_edits.AskFirst as ask:
            self._asked, self._wanted = ask.part, state
            self.refresh()
        except BadInput as fault:
            self.tell(told(fault, self.unit))

    def _on_answer(self, facing: int) -> None:
        part, state = self._asked, self._wanted
        self._asked = ""
        if facing != 1:
            self.apply(say.TWO_OF_ONE_HAND, ledger_edits.answer_pair.of(part, "same"))
        elif state is not None:
            self.apply(
                say.pair_held_edit(STATE_WORDS[state]),
                in_turn.of(
                    ledger_edits.answer_pair.of(part, "mirrored"),
                    ledger_edits.set_state.of(part, state),
                ),
            )
        self.refresh()

    def _edit_cell(self, key: str, _column: int, text: str) -> bool:
        try:
            grams = parse_number(text) if text else None
        except BadInput as fault:
            self.tell(told(fault, self.unit))
            return False
        name = next(part.name for part in self._parts if part.id == key)
        return self.apply(say.weigh_edit(name), ledger_edits.weigh.of(key, grams))

    def _on_list(self, which: str) -> None:
        text = self.paste.toPlainText()
        edit = ledger_edits.paste_printed if which == "printed" else ledger_edits.count_box
        words = "printed list" if which == "printed" else "box"
        if self.apply(say.take_list_edit(words), edit.of(text)):
            self.paste.clear()
