"""The motor: down and side thrust, its propeller, and where its bolts go."""

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QPushButton

from hardkeel.base.units import LengthUnit
from hardkeel.fuselage.engine import thrust_of
from hardkeel.fuselage.model import Fuselage
from hardkeel.messages import engine as say
from hardkeel.ui.widgets.figures_card import Figure, FiguresCard


class EngineCard(FiguresCard):
    """The figures of the motor, or a button that puts one on.

    Signals
    -------
    put_on, taken_off : (nothing)
        The builder has one, or has none.
    """

    put_on = pyqtSignal()
    taken_off = pyqtSignal()

    def __init__(self) -> None:
        super().__init__(say.MOTOR)
        self._on = QPushButton(say.PUT_ON)
        self._off = QPushButton(say.TAKE_OFF)
        for button, signal in ((self._on, self.put_on), (self._off, self.taken_off)):
            button.setObjectName("tool")
            button.clicked.connect(signal)
            self.column.addWidget(button, 0, Qt.AlignmentFlag.AlignLeft)

    def show_fuselage(self, fuselage: Fuselage, unit: LengthUnit) -> None:
        """The motor of a fuselage."""
        engine, line = fuselage.engine, thrust_of(fuselage)
        self._on.setVisible(engine is None)
        self._off.setVisible(engine is not None)
        if engine is None or line is None:
            self.show_figures("", (), unit)
            return
        values = {"across": engine.bolts[0], "up": engine.bolts[1]}
        figures = tuple(
            Figure(
                key,
                words,
                values[key] if key in values else getattr(engine, key),
                "angle" if key in say.ANGLES else "length",
            )
            for key, words in say.FIGURES.items()
        )
        self.show_figures("", figures, unit, say.bolts_words(engine, line, unit))
