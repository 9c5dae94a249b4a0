"""Order of work: a kit's steps chosen one after the other; what was closed too early turns up when it is wanted."""

from typing import Final

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QFontMetrics, QResizeEvent
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QScrollArea, QSizePolicy, QVBoxLayout, QWidget

from hardkeel.base.units import LengthUnit
from hardkeel.messages import practising as say
from hardkeel.messages.steps import step_title
from hardkeel.practice.kit import Kit, Late, all_late, found_late
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.cells import CellsModel, Column, Row
from hardkeel.ui.widgets.cells_table import CellsTable

_SIDES: Final = 34  # pixels that the style sheet keeps beside a choice's words
_NOTHING: Final = frozenset({"nothing of a build"})


class StepButton(QPushButton):
    """A step as a choice; a long title goes on to a second line."""

    def __init__(self, title: str) -> None:
        super().__init__(title)
        self._title = title
        self.setObjectName("choice")
        self.setAccessibleName(title)
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Break the title where its line is full."""
        super().resizeEvent(event)
        text = _broken(self._title, self.fontMetrics(), self.width() - _SIDES)
        if text != self.text():
            self.setText(text)


def _broken(text: str, metrics: QFontMetrics, room: int) -> str:
    """A text in lines no longer than the room, as far as its words allow."""
    lines = [""]
    for word in text.split():
        longer = f"{lines[-1]} {word}".strip()
        if lines[-1] and metrics.horizontalAdvance(longer) > room:
            lines.append(word)
        else:
            lines[-1] = longer
    return "\n".join(lines)


class KitPage(SubPage):
    """What is still to do as buttons, what is done as a list, and what turned up.

    Signals
    -------
    kit_wanted : (nothing)
        Another one.
    ordered : (nothing)
        Every step was chosen.
    """

    kit_wanted = pyqtSignal()
    ordered = pyqtSignal()

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self.kit: Kit | None = None
        self.seed = 0
        self._chosen: list[str] = []
        self._told_over = False
        self.buttons: dict[str, QPushButton] = {}
        self.answer = label("big", say.LAYING_OUT)
        self._offered = QVBoxLayout()
        self._offered.setSpacing(4)
        self.model = CellsModel((Column(""), Column("")), theme, parent=self)
        self.done = CellsTable(self.model, theme, 1, say.KIT_CHOSEN)
        across = self.done.horizontalHeader()
        if across is not None:
            across.hide()
        self.back = QPushButton(say.TAKE_BACK)
        self.back.clicked.connect(self._on_back)
        self.another = QPushButton(say.ANOTHER_KIT)
        self.another.clicked.connect(self.kit_wanted)
        self.turned_up = Card(say.TURNED_UP, "act")
        self._what, self._why = label("answer"), label("soft")
        self.as_it_goes = Card(say.AS_IT_GOES)
        self._order = label("soft")
        self._lay_out()
        self.themed = (self.done, self._cards)
        self.refresh_lazily(_NOTHING)

    def _lay_out(self) -> None:
        for card, lines in (
            (self.turned_up, (self._what, self._why)),
            (self.as_it_goes, (self._order,)),
        ):
            for line in lines:
                card.column.addWidget(line)
        buttons = Card(say.KIT)
        row = QHBoxLayout()
        row.addWidget(self.another)
        row.addWidget(self.back)
        row.addStretch(1)
        buttons.column.addWidget(label("soft", say.KIT_WHY))
        buttons.column.addLayout(row)
        self._cards = CardColumn(
            (self.told, self.turned_up, buttons, self.as_it_goes), theme=self.theme
        )
        paper = QWidget()
        paper.setObjectName("paper")
        paper.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        box = QVBoxLayout(paper)
        box.setContentsMargins(28, 20, 28, 10)
        box.addWidget(self.answer)
        both = QHBoxLayout()
        both.setSpacing(24)
        self._left = QWidget()
        left, right = QVBoxLayout(self._left), QVBoxLayout()
        left.setContentsMargins(0, 0, 0, 0)
        left.addWidget(label("heading", say.KIT_OFFERED))
        inner = QWidget()
        inner.setLayout(self._offered)
        area = QScrollArea()
        area.setWidget(inner)
        area.setWidgetResizable(True)
        area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        left.addWidget(area, 1)
        right.addWidget(label("heading", say.KIT_CHOSEN))
        right.addWidget(self.done, 1)
        both.addWidget(self._left, 1)
        both.addLayout(right, 1)
        box.addLayout(both, 1)
        self.lie_beside(paper, self._cards)

    @property
    def late(self) -> tuple[Late, ...]:
        """What turned up so far."""
        return all_late(self.kit, self._chosen) if self.kit is not None else ()

    def focus_work(self) -> None:
        """Put the cursor on the first step."""
        first = next(iter(self.buttons.values()), None)
        if first is not None:
            first.setFocus()

    def show_kit(self, kit: Kit, seed: int) -> None:
        """Lay out another one."""
        self.kit, self.seed, self._chosen, self._told_over = kit, seed, [], False
        self.refresh()
        self.focus_work()

    def refresh(self) -> None:
        """Show how far it is."""
        kit = self.kit
        self.back.setEnabled(bool(self._chosen) and not self._told_over)
        if kit is None:
            return
        self._show_offered(kit)
        late = {one.step.id: one for one in self.late}
        rows = [
            Row(
                one,
                (str(number), step_title(kit.step(one))),
                colour="act" if one in late else "ink",
                weight=600 if one in late else 400,
                tip=say.late_title(late[one]) if one in late else "",
                typed=False,
                cell_colours={0: "soft"},
            )
            for number, one in enumerate(self._chosen, start=1)
        ]
        self.model.show_rows(rows, self.theme)
        left = len(kit.steps) - len(self._chosen)
        self.answer.setText(say.kit_answer(kit, self.late, left))
        found = found_late(kit, self._chosen[:-1], self._chosen[-1]) if self._chosen else None
        self.turned_up.setVisible(found is not None)
        if found is not None:
            self._what.setText(say.late_title(found))
            self._why.setText(say.late_why(found))
        self._left.setVisible(bool(left))
        self.as_it_goes.setVisible(not left)
        lines = [f"{i}  {step_title(one)}" for i, one in enumerate(kit.steps, start=1)]
        self._order.setText("\n".join(lines))

    def _show_offered(self, kit: Kit) -> None:
        left = [one for one in kit.offered if one not in self._chosen]
        if left == list(self.buttons):
            return
        for button in self.buttons.values():
            self._offered.removeWidget(button)
            button.deleteLater()
        while self._offered.count():
            self._offered.takeAt(0)
        self.buttons = {}
        for one in left:
            button = StepButton(step_title(kit.step(one)))
            button.clicked.connect(lambda _on, one=one: self._on_chosen(one))
            self.buttons[one] = button
            self._offered.addWidget(button)
        self._offered.addStretch(1)

    def _on_chosen(self, step: str) -> None:
        self._chosen.append(step)
        self.refresh()
        self.focus_work()
        if self.kit is not None and len(self._chosen) == len(self.kit.steps):
            self._told_over = True
            self.back.setEnabled(False)
            self.another.setFocus()
            self.ordered.emit()

    def _on_back(self) -> None:
        if self._chosen and not self._told_over:
            self._chosen.pop()
            self.refresh()
            self.focus_work()
