"""Cards one under the other, as wide as the text size wants, scrolling where they do not fit."""

from typing import Final

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QScrollArea, QVBoxLayout, QWidget

from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.figures_card import FiguresCard
from hardkeel.ui.widgets.folded_sheet import FoldedSheet

_WIDTH_PX: Final = 412


class CardColumn(QScrollArea):
    """A column of widgets at the side of a page.

    Signals
    -------
    laid : (nothing)
        A card has other fields now.
    """

    laid = pyqtSignal()

    def __init__(
        self, cards: tuple[QWidget, ...], theme: Theme, parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        inside = QWidget()
        column = QVBoxLayout(inside)
        column.setContentsMargins(11, 9, 11, 8)
        column.setSpacing(7)
        for card in cards:
            column.addWidget(card)
            for one in card.cards if isinstance(card, FoldedSheet) else (card,):
                if isinstance(one, FiguresCard):
                    one.laid.connect(self.laid)
        column.addStretch(1)
        self.setWidget(inside)
        self.setWidgetResizable(True)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)  # it follows what has the cursor
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.set_theme(theme)

    def set_theme(self, theme: Theme) -> None:
        """Be as wide as the text size wants."""
        self.setFixedWidth(theme.across(_WIDTH_PX))
