"""A strip under the keel line that says what happened and offers the way out; it asks for nothing."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import Qt, QTimer
from PyQt6.QtWidgets import QFrame, QHBoxLayout, QLabel, QPushButton, QWidget

from hardkeel.messages import shell as say

Answer = tuple[str, Callable[[], object]]
_READ_MS: Final = 4000  # what went well is read in so long, and a letter more
_LETTER_MS: Final = 60


@dataclass(frozen=True, slots=True)
class _Said:
    text: str = ""
    answers: tuple[Answer, ...] = ()
    about: str = ""
    well: bool = False


class Notice(QFrame):
    """One sentence with its answers; an offer that something else was said over comes back."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("card")
        self.setProperty("edge", "out")
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(16, 7, 12, 7)
        self._text = QLabel()
        self._text.setWordWrap(True)
        self._text.setTextFormat(Qt.TextFormat.PlainText)
        self._row.addWidget(self._text, 1)
        self._buttons: list[QPushButton] = []
        self._said = self._offer = _Said()
        self._goes = QTimer(self)
        self._goes.setSingleShot(True)
        self._goes.timeout.connect(lambda: self._show(self._offer))
        self.hide()

    @property
    def goes_by_itself(self) -> bool:
        """Whether what it says will be taken away when there was time to read it."""
        return self._goes.isActive()

    @property
    def text(self) -> str:
        """What it says."""
        return self._said.text

    @property
    def buttons(self) -> list[QPushButton]:
        """The answers that it offers."""
        return list(self._buttons)

    def tell(self, text: str, *answers: Answer, about: str = "", well: bool = False) -> None:
        """Say something, or nothing any more; every answer, and “All right”, takes it away first.

        Parameters
        ----------
        about : str
            What it is about, so that `settle` can take it back.
        well : bool
            Something went well: said in ink, and it goes by itself.
        """
        self._show(_Said(text, answers, about, well) if text else self._offer)

    def clear(self) -> None:
        """Another build comes: what went well with the one before goes; what went wrong stays until it is read."""
        if self._said.well:
            self._show(self._offer)

    def offer(self, text: str, *answers: Answer) -> None:
        """Offer something until it is answered, whatever else is said meanwhile; nothing takes it back."""
        shown = self._said is self._offer
        self._offer = _Said(text, answers)
        if shown or not self._said.text:
            self._show(self._offer)

    def settle(self, about: str) -> None:
        """Take back what was said about something that is well now."""
        if self._said.about == about:
            self._show(self._offer)

    def _show(self, said: _Said) -> None:
        same = said.answers == self._said.answers and bool(self._buttons)
        self._said = said
        self._goes.stop()
        if said.well and not said.answers:
            self._goes.start(_READ_MS + _LETTER_MS * len(said.text))
        self._dress("" if said.well else "out")
        self._text.setText(said.text)
        self.setAccessibleName(said.text)  # Qt tells who listens that a name has changed
        self.setVisible(bool(said.text))
        if same:  # what is being pressed stays, while its sentence counts on
            return
        for button in self._buttons:
            self._row.removeWidget(button)
            button.deleteLater()
        self._buttons = []
        no = (say.NOT_NOW if said.answers else say.ALL_RIGHT, lambda: None)
        for words, action in (*said.answers, no):
            button = QPushButton(words)
            button.clicked.connect(lambda _on, action=action: self._answer(action))
            self._row.addWidget(button)
            self._buttons.append(button)

    def _dress(self, edge: str) -> None:
        """With the edge of a warning, or none."""
        style = self.style()
        if self.property("edge") != edge and style is not None:
            self.setProperty("edge", edge)
            style.unpolish(self)
            style.polish(self)

    def _answer(self, action: Callable[[], object]) -> None:
        if self._said is self._offer:
            self._offer = _Said()
        self._show(self._offer)
        action()
