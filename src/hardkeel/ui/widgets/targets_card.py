"""Printed targets beside what they are stuck on: how many, how to take them, what the last pictures told."""

from collections.abc import Sequence

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QPushButton

from hardkeel.messages import targets as targets_say
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.flow import FlowLayout


class TargetsCard(Card):
    """Printed targets: how many, how to take them, what the last pictures told.

    Signals
    -------
    lay_wanted, print_wanted, watch_wanted, drop_wanted : (nothing)
        Give the airframe targets; print their sheet; watch a folder for pictures, or no more; take them away.
    """

    lay_wanted = pyqtSignal()
    print_wanted = pyqtSignal()
    watch_wanted = pyqtSignal()
    drop_wanted = pyqtSignal()

    def __init__(self) -> None:
        super().__init__(targets_say.CARD)
        self.lines, self.seen, self.wrong = label("soft"), label("soft"), label("heading")
        self.watched = label("soft")
        self.lay, self.print = QPushButton(targets_say.LAY), QPushButton(targets_say.PRINT)
        self.watch, self.drop = QPushButton(targets_say.WATCH), QPushButton(targets_say.DROP)
        row = FlowLayout(gap=4)
        for button, wanted in (
            (self.lay, self.lay_wanted),
            (self.print, self.print_wanted),
            (self.watch, self.watch_wanted),
            (self.drop, self.drop_wanted),
        ):
            button.setObjectName("tool")
            button.clicked.connect(wanted)
            row.addWidget(button)
        for widget in (self.lines, self.watched, self.seen, self.wrong):
            self.column.addWidget(widget)
        self.column.addLayout(row)
        self.show_seen((), ())
        self.show_watched("")

    def show_laid(self, lines: Sequence[str], more: int, *, there: bool) -> None:
        """Whether there are any, how many more there could be, and what is to be known of them."""
        self.lines.setText("\n".join(lines))
        self.lay.setText(targets_say.lay_more(more) if there else targets_say.LAY)
        self.lay.setVisible(more > 0)
        self.print.setVisible(there)
        self.watch.setVisible(there)
        self.drop.setVisible(there)

    def show_watched(self, folder: str) -> None:
        """Which folder is watched; an empty name: none."""
        self.watched.setText(targets_say.watching(folder) if folder else "")
        self.watched.setVisible(bool(folder))
        self.watch.setText(targets_say.WATCH_NO_MORE if folder else targets_say.WATCH)

    def show_seen(self, seen: Sequence[str], wrong: Sequence[str]) -> None:
        """What the last pictures showed, and what of it is not used."""
        for widget, lines in ((self.seen, seen), (self.wrong, wrong)):
            widget.setText("\n".join(lines))
            widget.setVisible(bool(lines))
