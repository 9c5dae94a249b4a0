"""Cards beside the evening: the step in hand, what runs, what must wait."""

from collections.abc import Mapping, Sequence
from typing import Final

from PyQt6.QtCore import QTimer, pyqtSignal
from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QLineEdit, QPushButton, QSpinBox

from hardkeel.messages import bench as say
from hardkeel.schedule.model import Timer
from hardkeel.schedule.timers import gone_off, running
from hardkeel.ui.document.document import Clock
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.doing_card import LinesCard
from hardkeel.ui.widgets.flow import FlowLayout

_SECOND_MS: Final = 1000
_THEN: Final = 4


class LayOutCard(LinesCard):
    """What to lay out, and where a tool lies.

    Signals
    -------
    placed : str, str
        A tool, and where it lies.
    """

    placed = pyqtSignal(str, str)

    def __init__(self) -> None:
        super().__init__(say.LAY_OUT)
        self.tool, self.place = QComboBox(), QLineEdit()
        self.tool.setAccessibleName(say.WHICH_TOOL)
        self.place.setAccessibleName(say.WHERE_IT_LIES)
        self.place.setPlaceholderText(say.WHERE_IT_LIES)
        self._places: dict[str, str] = {}
        row = QHBoxLayout()
        row.addWidget(self.tool)
        row.addWidget(self.place, 1)
        self.column.addLayout(row)
        self.tool.activated.connect(lambda _row: self._show_place())
        self.place.editingFinished.connect(self._on_place)

    def show_tools(self, tools: Sequence[str], places: Mapping[str, str]) -> None:
        """Which tools there are tonight, and where they lie; the one in hand stays so."""
        now = self.tool.currentText()
        self._places = dict(places)
        self.tool.clear()
        self.tool.addItems(list(tools))
        self.tool.setCurrentIndex(max(self.tool.findText(now), 0))
        for widget in (self.tool, self.place):
            widget.setVisible(bool(tools))
        self._show_place()

    def _show_place(self) -> None:
        self.place.setText(self._places.get(self.tool.currentText(), ""))
        self.place.setModified(False)

    def _on_place(self) -> None:
        if self.place.isModified() and self.tool.currentText():
            self.place.setModified(False)
            self.placed.emit(self.tool.currentText(), self.place.text())


class StepInHand(Card):
    """The step that is picked, with the one thing to press.

    Signals
    -------
    pressed : (nothing)
        Begin it, or it is done.
    """

    pressed = pyqtSignal()

    def __init__(self) -> None:
        super().__init__(say.NOW, "act")
        self.answer, self.why, self.caution = label("answer"), label("soft"), label("soft")
        self.button = QPushButton()
        self.button.setObjectName("primary")
        self.button.clicked.connect(self.pressed)
        for widget in (self.answer, self.why, self.caution, self.button):
            self.column.addWidget(widget)
        self.hide()  # until there is one

    def show_step(self, title: str, why: str, caution: str, button: str) -> None:
        """Show another; without a title there is none, and no empty card."""
        self.setVisible(bool(title))
        for widget, text in ((self.answer, title), (self.why, why), (self.caution, caution)):
            widget.setText(text)
            widget.setVisible(bool(text))
        self.button.setText(button)
        self.button.setVisible(bool(button))


class TimersCard(Card):
    """The next timer, large; those after it; what went off.

    Signals
    -------
    started : float
        An egg timer of so many minutes.
    told : (nothing)
        What went off was read.
    wanted_large : (nothing)
        Arm's length.
    struck : str
        A timer is not needed; its id.
    """

    started = pyqtSignal(float)
    told = pyqtSignal()
    wanted_large = pyqtSignal()
    struck = pyqtSignal(str)

    def __init__(self, clock: Clock) -> None:
        super().__init__(say.RUNNING, "act")
        self._clock = clock
        self._timers: tuple[Timer, ...] = ()
        self._own: frozenset[str] = frozenset()
        self.left, self.what = label("big"), label("soft")
        self.then, self.late, self.wet = label("soft"), label("warn"), label("soft")
        self.read = QPushButton(say.ALL_RIGHT)
        self.read.clicked.connect(self.told)
        self.strike = QPushButton(say.NOT_NEEDED)
        self.strike.setObjectName("plain")
        self.strike.setToolTip(say.NOT_NEEDED_TIP)
        self.strike.clicked.connect(self._on_strike)
        self.large = QPushButton(say.ARMS_LENGTH)
        self.large.setObjectName("plain")
        self.large.clicked.connect(self.wanted_large)
        self.minutes = QSpinBox()
        self.minutes.setRange(1, 24 * 60)
        self.minutes.setValue(10)
        self.minutes.setButtonSymbols(QSpinBox.ButtonSymbols.NoButtons)
        self.minutes.setAccessibleName(say.OWN_TIMER)
        self.start = QPushButton(say.START)
        self.start.clicked.connect(lambda: self.started.emit(float(self.minutes.value())))
        for widget in (self.left, self.what, self.wet, self.then, self.late, self.read):
            self.column.addWidget(widget)
        row = FlowLayout(gap=8)
        row.addWidget(label("soft", say.OWN_TIMER, wrap=False))
        row.addWidget(self.minutes)
        row.addWidget(self.start)
        row.addWidget(self.strike)
        row.addWidget(self.large)
        self.column.addLayout(row)
        self._tick = QTimer(self)
        self._tick.setInterval(_SECOND_MS)
        self._tick.timeout.connect(self.show_time)

    def show_timers(
        self, timers: tuple[Timer, ...], elsewhere: tuple[Timer, ...] = (), wet: str = ""
    ) -> None:
        """Show these, those that another stage started, and what is to be read while the glue can be worked."""
        self._timers = (*timers, *elsewhere)
        self._own = frozenset(one.id for one in timers)
        self.wet.setText(wet)
        self.wet.setVisible(bool(wet))
        self.show_time()

    def _on_strike(self) -> None:
        left = running(self._timers, self._clock())
        if left:
            self.struck.emit(left[0].id)

    def show_time(self) -> None:
        """How long there is."""
        now = self._clock()
        left = running(self._timers, now)
        self.strike.setVisible(bool(left) and left[0].id in self._own)
        late = gone_off(self._timers, now)
        self.left.setText(say.countdown(left[0].left(now)) if left else "")
        self.left.setVisible(bool(left))
        self.what.setText(say.waits_for(left[0]) if left else say.NO_TIMER)
        lines = [say.then_line(one, now) for one in left[1 : 1 + _THEN]]
        self.then.setText("\n".join(lines))
        self.then.setVisible(bool(lines))
        self.late.setText("\n".join(say.went_off(one) for one in late))
        self.late.setVisible(bool(late))
        self.read.setVisible(bool(late))
        if left and not self._tick.isActive():
            self._tick.start()
        elif not left:
            self._tick.stop()
