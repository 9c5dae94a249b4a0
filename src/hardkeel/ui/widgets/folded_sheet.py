"""Cards that are seldom wanted as lines on one sheet, each with what it comes to; a press opens one."""

from PyQt6.QtCore import QEvent, QObject
from PyQt6.QtWidgets import QFrame, QVBoxLayout, QWidget

from hardkeel.ui.widgets.card import Card


class FoldedSheet(QFrame):
    """A sheet of folded cards; gone while none of them has anything to say."""

    def __init__(self, cards: tuple[Card, ...], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("card")
        self.cards = cards
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 2, 0, 2)
        box.setSpacing(0)
        for card in cards:
            card.setObjectName("folded")
            card.fold_under_its_name()
            box.addWidget(card)
            card.installEventFilter(self)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """Come and go with the cards."""
        told = (QEvent.Type.ShowToParent, QEvent.Type.HideToParent)
        if event is not None and event.type() in told:
            self.setVisible(any(not card.isHidden() for card in self.cards))
        return super().eventFilter(watched, event)
