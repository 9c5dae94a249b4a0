"""A tour of the demo: a strip with a sentence a step; everything else goes on as always."""

from collections.abc import Callable

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QWidget

from hardkeel.messages import tour as say
from hardkeel.ui.settings import Settings
from hardkeel.ui.widgets.card import label

Turn = Callable[[str, str], object]


class Tour(QFrame):
    """Hidden until it is begun; it is offered once, and found in the menu afterwards.  It tells of the demo alone: `end` it when another comes.

    Parameters
    ----------
    turn : callable
        Turns the window to a stage and a bench of it.

    Signals
    -------
    own_wanted : (nothing)
        It is over: on to the own model.
    """

    own_wanted = pyqtSignal()

    def __init__(self, settings: Settings, turn: Turn, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._settings, self._turn = settings, turn
        self.number = -1
        self.setObjectName("card")
        self.setProperty("edge", "act")
        self.words = label("heading")
        self.go_on, self.enough = QPushButton(say.GO_ON), QPushButton(say.ENOUGH)
        self.go_on.setObjectName("primary")
        row = QHBoxLayout(self)
        row.setContentsMargins(16, 7, 12, 7)
        row.addWidget(self.words, 1)
        row.addWidget(self.go_on)
        row.addWidget(self.enough)
        self.go_on.clicked.connect(self._on_go_on)
        self.enough.clicked.connect(self.end)
        self.hide()

    def offer(self) -> None:
        """Begin, where nobody has seen it yet."""
        if not self._settings.tour_seen:
            self._settings.tour_seen = True
            self._show(0)

    def forget(self) -> None:
        """It is wanted once more: the demo that comes offers it again."""
        self._settings.tour_seen = False

    def end(self) -> None:
        """Go."""
        self.number = -1
        self.hide()

    def _on_go_on(self) -> None:
        if self.number + 1 < len(say.STOPS):
            self._show(self.number + 1)
        else:
            self.end()
            self.own_wanted.emit()

    def _show(self, number: int) -> None:
        self.number = number
        stop = say.STOPS[number]
        self._turn(stop.stage, stop.place)
        self.words.setText(say.numbered(number, stop))
        self.setAccessibleName(self.words.text())
        last = number + 1 == len(say.STOPS)
        self.go_on.setText(say.TO_MY_MODEL if last else say.GO_ON)
        self.show()
