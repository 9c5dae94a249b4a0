"""The planking: its strips, where it begins and ends, what it comes to."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QCheckBox, QComboBox, QHBoxLayout, QPushButton, QWidget

from hardkeel.base.units import LengthUnit
from hardkeel.fuselage.bending import Limits
from hardkeel.fuselage.model import Fuselage
from hardkeel.fuselage.planking import planks_of
from hardkeel.messages import planking as say
from hardkeel.ui.widgets.card import label
from hardkeel.ui.widgets.figures_card import Figure, FiguresCard


class PlankingCard(FiguresCard):
    """Figures of the planking, or a button that planks the fuselage.

    Signals
    -------
    wanted, unwanted : (nothing)
        It is to be planked; it is not.
    full_size_wanted : bool
        Each plank is to be among the templates.
    end_chosen : str, str
        ``from_`` or ``to``, and a former.
    """

    full_size_wanted = pyqtSignal(bool)
    wanted = pyqtSignal()
    unwanted = pyqtSignal()
    end_chosen = pyqtSignal(str, str)

    def __init__(self) -> None:
        super().__init__(say.PLANKING)
        self._answer, self._lines = label("answer"), label("soft")
        self._on, self._off = QPushButton(say.PLANK_IT), QPushButton(say.NO_PLANKS)
        self._ends = {"from_": QComboBox(), "to": QComboBox()}
        self._row = QWidget()
        ends = QHBoxLayout(self._row)
        ends.setContentsMargins(0, 0, 0, 0)
        for key, words in (("from_", "from"), ("to", "to")):
            box = self._ends[key]
            box.setAccessibleName(f"planking {words}")
            box.activated.connect(
                lambda at, key=key: self.end_chosen.emit(key, self._ends[key].itemText(at))
            )
            ends.addWidget(label("soft", words, wrap=False))
            ends.addWidget(box, 1)
        for button, signal in ((self._on, self.wanted), (self._off, self.unwanted)):
            button.setObjectName("tool")
            button.clicked.connect(signal)
        buttons = QHBoxLayout()
        for button in (self._on, self._off):
            buttons.addWidget(button)
        buttons.addStretch(1)
        self.column.insertWidget(1, self._answer)
        self.column.addWidget(self._row)
        self.column.addWidget(self._lines)
        self.full_size = QCheckBox(say.FULL_SIZE)
        self.full_size.setToolTip(say.FULL_SIZE_TIP)
        self.full_size.clicked.connect(self.full_size_wanted)
        self.column.addWidget(self.full_size)
        self.column.addLayout(buttons)

    def show_planking(self, fuselage: Fuselage, limits: Limits, unit: LengthUnit) -> None:
        """The planking of a fuselage.

        Raises
        ------
        BadInput
            When its keel leaves nothing to plank.
        """
        planking = fuselage.framed.planking
        self.full_size.setChecked(planking is not None and planking.full_size)
        for widget in (self._answer, self._off, self.full_size):
            widget.setVisible(planking is not None)
        self._row.setVisible(planking is not None)
        self._on.setVisible(planking is None)
        if planking is None:
            self.show_figures("", (), unit)
            self._lines.setText(say.NONE_YET)
            return
        names = [one.id for one in sorted(fuselage.formers, key=lambda one: one.station)]
        for key, chosen in (("from_", planking.from_), ("to", planking.to)):
            box = self._ends[key]
            box.clear()
            box.addItems(names)
            box.setCurrentText(chosen)
        figures = tuple(
            Figure(key, words, getattr(planking, key)) for key, words in say.FIGURES.items()
        )
        self.show_figures("", figures, unit)
        planked = planks_of(fuselage)
        self._answer.setText(say.planking_answer(planked, planking, unit))
        self._lines.setText("\n".join(say.planking_lines(planked, planking, limits, unit)))
