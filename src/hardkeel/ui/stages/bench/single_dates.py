"""Single dates that are other than the week: a holiday, a free Saturday."""

from collections.abc import Callable, Mapping, Sequence
from datetime import date, datetime

from PyQt6.QtCore import QDate, QTime, pyqtSignal
from PyQt6.QtWidgets import (
    QAbstractSpinBox,
    QDateEdit,
    QHBoxLayout,
    QPushButton,
    QSpinBox,
    QTimeEdit,
    QVBoxLayout,
    QWidget,
)

from hardkeel.messages import bench as say
from hardkeel.schedule.model import Evening
from hardkeel.ui.widgets.card import label


class SingleDates(QWidget):
    """A date, what it is instead, and those that are told already.

    Signals
    -------
    told : object, object
        A date, and its evenings: none for a day away from the bench, ``None`` for one as in any week.
    """

    told = pyqtSignal(object, object)

    def __init__(self, now: Callable[[], datetime]) -> None:
        super().__init__()
        self._now = now
        self.day = QDateEdit()
        self.day.setDisplayFormat("ddd d MMM yyyy")
        self.day.setCalendarPopup(True)
        self.day.setAccessibleName(say.SINGLE_DATE)
        self.at = QTimeEdit(QTime(10, 0))
        self.at.setDisplayFormat("HH:mm")
        self.at.setAccessibleName(say.FROM_CLOCK)
        self.minutes = QSpinBox()
        self.minutes.setRange(10, 16 * 60)
        self.minutes.setSingleStep(10)
        self.minutes.setValue(240)
        self.minutes.setSuffix(" min")
        self.minutes.setAccessibleName(say.FOR_MINUTES)
        for field in (self.at, self.minutes):
            field.setButtonSymbols(QAbstractSpinBox.ButtonSymbols.NoButtons)
            field.setFixedWidth(110)
        self.away, self.there = QPushButton(say.AWAY), QPushButton(say.AT_THE_BENCH)
        self.away.clicked.connect(lambda: self.told.emit(self._date, ()))
        self.there.clicked.connect(lambda: self.told.emit(self._date, (self._evening(),)))
        away, there = QHBoxLayout(), QHBoxLayout()
        early: tuple[QWidget, ...] = (self.day, self.away)
        for widget in early:
            away.addWidget(widget)
        late: tuple[QWidget, ...] = (self.at, self.minutes, self.there)
        for widget in late:
            there.addWidget(widget)
        away.addStretch(1)
        there.addStretch(1)
        self._listed = QVBoxLayout()
        self.forget: dict[str, QPushButton] = {}
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.addLayout(away)
        box.addLayout(there)
        box.addLayout(self._listed)

    @property
    def _date(self) -> date:
        chosen = self.day.date()
        return date(chosen.year(), chosen.month(), chosen.day())

    def _evening(self) -> Evening:
        start = f"{self._date.isoformat()}T{self.at.time().toString('HH:mm')}"
        return Evening(start=start, minutes=self.minutes.value())

    def show_days(self, days: Mapping[str, Sequence[Evening]]) -> None:
        """Those that are still to come, each with a button that makes it as any other."""
        today = self._now().date()
        self.day.setMinimumDate(QDate(today.year, today.month, today.day))
        while (item := self._listed.takeAt(0)) is not None:
            if (line := item.widget()) is not None:
                line.deleteLater()
        self.forget = {}
        for day, evenings in days.items():
            if date.fromisoformat(day) < today:
                continue
            line = QWidget()
            row = QHBoxLayout(line)
            row.setContentsMargins(0, 0, 0, 0)
            row.addWidget(
                label("soft", say.date_words(date.fromisoformat(day), evenings), wrap=False)
            )
            button = self.forget[day] = QPushButton(say.AS_ANY)
            button.setObjectName("plain")
            button.clicked.connect(
                lambda _on, day=day: self.told.emit(date.fromisoformat(day), None)
            )
            row.addWidget(button)
            row.addStretch(1)
            self._listed.addWidget(line)
