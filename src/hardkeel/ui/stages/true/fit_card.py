"""Above the verdicts: whether the readings fit together at all, and what they were found to share."""

from collections.abc import Sequence
from typing import Final

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QPushButton

from hardkeel.messages import sharing as say
from hardkeel.ui.widgets.card import Card, label

_MOST: Final = 3  # findings shown; the rest stands under Tools


class FitCard(Card):
    """Shown where there is something to say.

    Signals
    -------
    seek_asked : (nothing)
        What the readings share is to be sought.
    """

    seek_asked = pyqtSignal()

    def __init__(self) -> None:
        super().__init__(say.FOUND)
        self.seek = QPushButton(say.SEEK)
        self.seek.clicked.connect(self.seek_asked)
        self.fit = label("text")
        self.found = label("text")
        self.column.addWidget(self.fit)
        self.column.addWidget(self.found)
        self.column.addWidget(self.seek)

    def show_fit(self, fit: str, found: Sequence[str], *, sought: bool) -> None:
        """Say both, or be gone.

        Parameters
        ----------
        sought : bool
            Whether shared errors are sought already.
        """
        self.seek.setVisible(bool(fit) and not sought)
        self.setVisible(bool(fit or found))
        self.set_edge("out" if fit else "act")
        self.eyebrow.setText(say.DO_NOT_FIT if fit else say.FOUND)
        self.fit.setText(fit)
        self.fit.setVisible(bool(fit))
        more = [say.and_more(len(found) - _MOST)] if len(found) > _MOST else []
        self.found.setText("\n".join([*found[:_MOST], *more]))
        self.found.setVisible(bool(found))
