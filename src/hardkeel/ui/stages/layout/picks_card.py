"""What was picked off a sheet, what is still wanted, and handing it to the airframe."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QCheckBox, QComboBox, QHBoxLayout, QPushButton

from hardkeel.base.units import LengthUnit
from hardkeel.edits.picks import Ends
from hardkeel.messages import layout as say
from hardkeel.messages import paper as paper_say
from hardkeel.messages.paper import picks_words
from hardkeel.paper.model import Plan
from hardkeel.paper.picking import Picked
from hardkeel.ui.widgets.card import Card, label

_CORNERS = 3  # of the least outline, a triangle


class PicksCard(Card):
    """Stations and outline as they were clicked.

    Signals
    -------
    take_pressed : (nothing)
        The picks shall be the airframe's figures.
    outline_given : str
        The traced outline is this one's: a key of `takers_of`.
    """

    take_pressed = pyqtSignal()
    outline_given = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__(say.PICKED)
        self.take = QPushButton(say.MAKE_THESE_THE_FIGURES)
        self.take.setObjectName("primary")
        self.ends = QComboBox()  # what the last station is
        self.ends.setAccessibleName(paper_say.ENDS_NAME)
        for key, words in paper_say.ENDS_WORDS.items():
            self.ends.addItem(words, key)
        self.ends.activated.connect(self._on_ends)
        self._ends_said = False
        self.formers = QComboBox()
        self.formers.setAccessibleName(paper_say.WHOSE_OUTLINE)
        self.give = QPushButton("gets the outline")
        self.half = QCheckBox(paper_say.HALF_OF_IT)
        self.half.clicked.connect(self._on_half)
        self._half_said = False
        self._traced: object = None
        self._says = label("soft")
        self.column.addWidget(self._says)
        self.column.addWidget(self.ends)
        self.column.addWidget(self.take)
        row = QHBoxLayout()
        row.addWidget(self.formers)
        row.addWidget(self.give, 1)
        self.column.addWidget(self.half)
        self.column.addLayout(row)
        self.take.clicked.connect(self.take_pressed)
        self.formers.currentIndexChanged.connect(lambda row: self.give.setEnabled(row >= 0))
        self.give.clicked.connect(lambda: self.outline_given.emit(str(self.formers.currentData())))

    def _on_ends(self, _index: int) -> None:
        self._ends_said = True

    def _on_half(self) -> None:
        self._half_said = True

    @property
    def is_half(self) -> bool | None:
        """Whether half an outline was picked; ``None`` where the builder did not say."""
        return self.half.isChecked() if self._half_said else None

    @property
    def former(self) -> str:
        """The former that gets the outline; empty where a surface or a section does."""
        return self.formers.currentText() if self._is_former(self.formers.currentIndex()) else ""

    def _is_former(self, row: int) -> bool:
        return str(self.formers.itemData(row)).startswith("former ")

    def forget_ends(self) -> None:
        """Another sheet: what its last station is was not said yet."""
        self._ends_said = False

    def offer_next(self, former: str) -> None:
        """Offer the outline that is traced next to the former after that one; after the last to nobody, until it is said."""
        place = self.formers.findText(former) + 1
        self.formers.setCurrentIndex(place if self._is_former(place) else -1)

    def show_ends(self, likely: Ends) -> None:
        """Show what the last station seems to be, until the builder says it."""
        if not self._ends_said:
            self.ends.setCurrentIndex(self.ends.findData(likely))

    @property
    def last_is(self) -> Ends:
        """What the last station is."""
        return "former" if self.ends.currentData() == "former" else "post"

    def show_half(self, traced: object, *, likely: bool) -> None:
        """Show whether what was traced is half an outline: as it looks, until the builder says it."""
        if traced != self._traced:
            self._traced, self._half_said = traced, False
        self.half.setVisible(traced is not None)
        if not self._half_said:
            self.half.setChecked(likely)

    def show_picks(
        self, plan: Plan, rows: tuple[Picked, ...], takers: dict[str, str], unit: LengthUnit
    ) -> None:
        """Show what was picked off a plan; `takers` could get an outline, their words by their keys."""
        self.ends.setVisible(len(rows) > 1)
        self._says.setText(picks_words(plan, rows, unit))
        traced = next((len(t.pixels) for t in plan.traces if t.kind == "outline"), 0)
        for widget in (self.formers, self.give):
            widget.setVisible(traced >= _CORNERS and bool(takers))
        if list(takers) != [self.formers.itemData(i) for i in range(self.formers.count())]:
            self.formers.clear()
            for key, words in takers.items():
                self.formers.addItem(words, key)
        whole = all(None not in (row.half_width, row.bottom, row.top) for row in rows)
        self.take.setEnabled(whole and len(rows) > 1)
