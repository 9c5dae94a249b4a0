"""Coupons: the batches of late, how their test strips broke, and which joints hang on them."""

from typing import Final

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QLayout, QPushButton, QScrollArea, QVBoxLayout, QWidget

from hardkeel.base.units import LengthUnit
from hardkeel.edits import glue as edits
from hardkeel.glue.coupons import verdict_on
from hardkeel.glue.model import Batch
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.freshness import Freshness
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.kit.card import Card, label
from hardkeel.ui.kit.card_column import CardColumn
from hardkeel.ui.kit.doing_card import LinesCard
from hardkeel.ui.theme import Theme, wear
from hardkeel.voice import glue as say

_SHOWS: Final = frozenset({"glue", "steps"})


class BatchCard(Card):
    """One batch.

    Signals
    -------
    broken : str, str
        Its id, and how a coupon of it broke.
    """

    broken = pyqtSignal(str, str)

    def __init__(self, batch: Batch, joints: list[str]) -> None:
        verdict = verdict_on(batch)
        super().__init__(say.batch_title(batch), "out" if verdict.verdict == "bad" else "")
        self.said = label("answer", say.verdict_words(verdict))
        self.joints = label("soft", say.named_joints(joints))
        self.column.addWidget(self.said)
        self.column.addWidget(self.joints)
        row = QHBoxLayout()
        self.buttons: dict[str, QPushButton] = {}
        for broke, words in say.BROKE:
            button = self.buttons[broke] = QPushButton(words)
            button.clicked.connect(lambda _on, broke=broke: self.broken.emit(batch.id, broke))
            row.addWidget(button)
        row.addStretch(1)
        self.column.addLayout(row)


class CouponsPage(SubPage):
    """The batches."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self.batches: dict[str, BatchCard] = {}
        self._sheet = QWidget()
        self._sheet.setObjectName("paper")
        box = QVBoxLayout(self._sheet)
        box.setContentsMargins(20, 14, 20, 14)
        self.nothing = label("heading", say.NO_BATCH)
        box.addWidget(label("big", say.BATCHES))
        box.addWidget(self.nothing)
        self._list = QVBoxLayout()
        box.addLayout(self._list)
        box.addStretch(1)
        scroll = QScrollArea()
        scroll.setWidget(self._sheet)
        scroll.setWidgetResizable(True)
        self.how = LinesCard(say.COUPONS)
        self.how.show_lines("", [say.HOW_TO])
        column = CardColumn((self.told, self.how), theme)
        self.dressed = (column,)
        self.lie_beside(scroll, column)
        Freshness(self, document, self.refresh, _SHOWS)
        self.refresh()

    def refresh(self) -> None:
        """Show the batches, the last one first."""
        _emptied(self._list)
        self.batches = {}
        shelf = self.document.build.glue
        titles = {step.id: step.title or step.id for step in self.document.build.steps}
        for batch in reversed(shelf.batches if shelf is not None else ()):
            joints = [titles.get(one, one) for one in batch.joints]
            card = self.batches[batch.id] = BatchCard(batch, joints)
            card.broken.connect(self._on_broken)
            self._list.addWidget(card)
        self.nothing.setVisible(not self.batches)
        wear(self._sheet)

    def _on_broken(self, batch: str, broke: str) -> None:
        now = self.document.clock()
        kinds = {key: key for key, _ in say.BROKE}
        self.apply(say.COUPON_EDIT, lambda b: edits.break_coupon(b, batch, kinds[broke], now))  # type: ignore[index]


def _emptied(layout: QLayout) -> None:
    while (item := layout.takeAt(0)) is not None:
        widget = item.widget()
        if widget is not None:
            widget.deleteLater()
