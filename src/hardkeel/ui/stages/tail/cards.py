"""Cards beside Tail's benches: what the pinch says, what else the frame could be, sliders that are dragged."""

from collections.abc import Sequence
from typing import TYPE_CHECKING, Final

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QLabel, QPushButton, QSlider

from hardkeel.base.units import LengthUnit, format_length
from hardkeel.messages import tail as say
from hardkeel.tail.grillage import Choice
from hardkeel.ui.widgets.buttons_card import ButtonsCard
from hardkeel.ui.widgets.card import Card, label

if TYPE_CHECKING:
    from hardkeel.tail.model import Pattern

PITCHES: Final = (25, 110)  # mm
_COLUMNS: Final = 4


class PinchCard(Card):
    """How much the tip gives, large, its mass beside it; pitch and wood to drag.

    Signals
    -------
    pitch_dragged, wood_dragged : int
        While a slider is moved: mm, and the number of the wood.
    let_go : (nothing)
        A slider was let go: what is shown is meant.
    """

    pitch_dragged = pyqtSignal(int)
    wood_dragged = pyqtSignal(int)
    let_go = pyqtSignal()

    def __init__(self) -> None:
        super().__init__(say.PINCH, "act")
        self.give, self.mass = label("big", wrap=False), label("big", wrap=False)
        self.about = label("soft")
        row = QHBoxLayout()
        row.addWidget(self.give)
        row.addStretch(1)
        row.addWidget(self.mass)
        self.column.addLayout(row)
        self.column.addWidget(self.about)
        self.pitch = QSlider(Qt.Orientation.Horizontal)
        self.wood = QSlider(Qt.Orientation.Horizontal)
        self.pitch.setRange(*PITCHES)
        self.pitch.setAccessibleName("pitch of the bracing")
        self.wood.setAccessibleName("wood of the frame")
        self.wood.setPageStep(1)
        self._pitch_words, self._wood_words = label("soft", wrap=False), label("soft", wrap=False)
        grid = QGridLayout()
        grid.setHorizontalSpacing(10)
        for i, (words, slider) in enumerate(
            ((self._pitch_words, self.pitch), (self._wood_words, self.wood))
        ):
            grid.addWidget(words, i, 0)
            grid.addWidget(slider, i, 1)
        grid.setColumnStretch(1, 1)
        self.column.addLayout(grid)
        self._setting = False
        self.pitch.valueChanged.connect(self._on_pitch)
        self.wood.valueChanged.connect(self._on_wood)
        for slider in (self.pitch, self.wood):
            slider.sliderReleased.connect(self.let_go)

    def show_woods(self, count: int) -> None:
        """How many woods there are to choose among."""
        self.wood.setRange(0, max(count - 1, 0))

    def show_choice(
        self, choice: Choice | None, pitch: float, wood: int, unit: LengthUnit, named: str
    ) -> None:
        """Show a frame's give and mass with both sliders where they stand for it."""
        self._setting = True
        self.pitch.setValue(round(pitch))
        self.wood.setValue(wood)
        self._setting = False
        self._pitch_words.setText(f"bays of {format_length(pitch, unit)}")
        self._wood_words.setText(named)
        if choice is None:
            self.give.setText("…")
            return
        self.give.setText(say.give_words(choice.twist.give, unit))
        self.mass.setText(say.grams(choice.mass))
        self.about.setText(say.PINCH_WHY)

    def _on_pitch(self, value: int) -> None:
        if not self._setting:
            self.pitch_dragged.emit(value)
            if not self.pitch.isSliderDown():
                self.let_go.emit()

    def _on_wood(self, value: int) -> None:
        if not self._setting:
            self.wood_dragged.emit(value)
            if not self.wood.isSliderDown():
                self.let_go.emit()


class ChoicesCard(Card):
    """The next two bracings and the next woods, with what each buys; a press takes one.

    Signals
    -------
    taken : str, str
        Pattern and material.
    """

    taken = pyqtSignal(str, str)

    def __init__(self) -> None:
        super().__init__(say.NEXT_CHOICES)
        self._grid = QGridLayout()
        self._grid.setHorizontalSpacing(12)
        self._grid.setVerticalSpacing(3)
        self.column.addLayout(self._grid)
        self._rows: list[list[QLabel | QPushButton]] = []
        self.buttons: list[QPushButton] = []
        self._choices: tuple[Choice, ...] = ()

    def show_choices(self, choices: Sequence[Choice], unit: LengthUnit) -> None:
        """The first is the frame as it is."""
        self._choices = tuple(choices)
        while len(self._rows) < len(choices):
            self._add_row()
        for row in self._rows[len(choices) :]:
            for widget in row:
                widget.hide()
        for i, (row, choice) in enumerate(zip(self._rows, choices, strict=False)):
            words = say.choice_row(choice, choices[0], unit)
            for widget, text in zip(row, words, strict=True):
                widget.setText(text)
                widget.show()
            row[0].setEnabled(i > 0)

    def _add_row(self) -> None:
        number = len(self._rows)
        button = QPushButton()
        button.setObjectName("tool")
        button.clicked.connect(lambda _on, number=number: self._on_taken(number))
        row: list[QLabel | QPushButton] = [
            button,
            *(label("soft", wrap=False) for _ in range(_COLUMNS - 1)),
        ]
        for column, widget in enumerate(row):
            self._grid.addWidget(widget, number, column)
        self._grid.setColumnStretch(_COLUMNS - 1, 1)
        self._rows.append(row)
        self.buttons.append(button)

    def _on_taken(self, number: int) -> None:
        choice = self._choices[number]
        pattern: Pattern = choice.pattern
        self.taken.emit(pattern, choice.material)


_BRACED: Final = ("none", "ladder", "zigzag", "crossed")


class FrameCards:
    """What only a frame of flat sticks has: how it gives, what else it could be, how it is braced and joined."""

    def __init__(self) -> None:
        self.pinch, self.choices = PinchCard(), ChoicesCard()
        self.bracing = ButtonsCard(say.BRACING, [(one, say.PATTERN_WORDS[one]) for one in _BRACED])
        self.joints = ButtonsCard(say.JOINTS, list(say.JOINT_WORDS.items()))
        self.gussets = ButtonsCard(say.GUSSET_EDGES, list(say.GUSSET_WORDS.items()))
        self.stiff = ButtonsCard(say.STIFF, list(say.STIFF_WORDS.items()))
