"""Evenings: when the builder is at the bench, what there is of what is scarce, and what would help."""

from datetime import date, datetime
from itertools import islice
from typing import Final

from PyQt6.QtCore import QTime
from PyQt6.QtWidgets import (
    QAbstractSpinBox,
    QCheckBox,
    QGridLayout,
    QScrollArea,
    QSpinBox,
    QTimeEdit,
    QVBoxLayout,
    QWidget,
)

from hardkeel.airframe.orders.at_hand import steps_at_hand
from hardkeel.base.units import LengthUnit
from hardkeel.edits import bench as edits
from hardkeel.messages import bench as say
from hardkeel.schedule.evenings import AHEAD, evenings_of, upcoming, week_of
from hardkeel.schedule.model import Evening, local_time
from hardkeel.schedule.planning import EveningPlan
from hardkeel.schedule.what_if import WhatIf
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.stages.bench.single_dates import SingleDates
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.doing_card import LinesCard

_SHOWS: Final = frozenset({"steps", "bench", "fuselage", "tail"})
_SHOWN: Final = 8
_USUAL: Final = ("board", "clamps", "jig")


class DayRow:
    """One day of a usual week."""

    def __init__(self, weekday: int, page: "WeeksPage") -> None:
        self.box = QCheckBox(say.DAY_NAMES[weekday])
        self.at = QTimeEdit(QTime(19, 0))
        self.at.setDisplayFormat("HH:mm")
        self.at.setAccessibleName(f"{say.DAY_NAMES[weekday]} {say.FROM_CLOCK}")
        self.minutes = QSpinBox()
        self.minutes.setRange(10, 16 * 60)
        self.minutes.setSingleStep(10)
        self.minutes.setValue(120)
        self.minutes.setSuffix(" min")
        for field in (self.at, self.minutes):
            field.setButtonSymbols(QAbstractSpinBox.ButtonSymbols.NoButtons)
            field.setFixedWidth(110)
        self.minutes.setAccessibleName(f"{say.DAY_NAMES[weekday]} {say.FOR_MINUTES}")
        self.box.clicked.connect(lambda _on: page.take_week())
        self.at.editingFinished.connect(page.take_week)
        self.minutes.editingFinished.connect(page.take_week)


class WeeksPage(SubPage):
    """The diary."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self.days: dict[int, DayRow] = {}
        self.scarce: dict[str, QSpinBox] = {}
        surface = QWidget()
        surface.setObjectName("paper")
        box = QVBoxLayout(surface)
        box.setContentsMargins(24, 18, 24, 18)
        self.finish, self.help = label("big"), label("soft")
        box.addWidget(self.finish)
        box.addWidget(self.help)
        box.addWidget(label("heading", say.WEEK))
        box.addWidget(label("soft", say.WEEK_HOW))
        grid = QGridLayout()
        grid.setHorizontalSpacing(18)
        for weekday in range(7):
            row = self.days[weekday] = DayRow(weekday, self)
            grid.addWidget(row.box, weekday, 0)
            grid.addWidget(row.at, weekday, 1)
            grid.addWidget(row.minutes, weekday, 2)
        grid.setColumnStretch(3, 1)
        box.addLayout(grid)
        box.addWidget(label("heading", say.SINGLE_DATE))
        box.addWidget(label("soft", say.SINGLE_HOW))
        self.dates = SingleDates(lambda: self._now)
        self.dates.told.connect(self._on_date)
        box.addWidget(self.dates)
        box.addStretch(1)
        self.next = LinesCard(say.EVENINGS)
        self.things = Card(say.SCARCE)
        self._grid = QGridLayout()
        self.things.column.addLayout(self._grid)
        self.things.column.addWidget(label("soft", say.ONE_PAIR))
        column = CardColumn((self.told, self.next, self.things), theme)
        self.themed = (column,)
        scroll = QScrollArea()
        scroll.setWidget(surface)
        scroll.setWidgetResizable(True)
        self.lie_beside(scroll, column)
        self.refresh_lazily(_SHOWS)
        self.refresh()

    @property
    def _now(self) -> datetime:
        return local_time(self.document.clock().isoformat())

    def refresh(self) -> None:
        """Show the week and what is scarce."""
        bench = self.document.build.bench
        week = {weekday: (clock, minutes) for weekday, clock, minutes in week_of(bench)}
        for weekday, row in self.days.items():
            row.box.setChecked(weekday in week)
            for field in (row.at, row.minutes):
                field.setEnabled(weekday in week)
            if weekday in week:
                clock, minutes = week[weekday]
                row.at.setTime(QTime.fromString(clock, "HH:mm"))
                row.minutes.setValue(minutes)
        coming = upcoming(bench, self._now, _SHOWN)
        self.next.show_lines("", [say.evening_words(one) for one in coming])
        self.dates.show_days(bench.days if bench is not None else {})
        self._show_things()

    def _show_things(self) -> None:
        bench = self.document.build.bench
        counts = bench.resources if bench is not None else {}
        named = {name for step in steps_at_hand(self.document.build) for name in step.needs}
        for name in sorted(named | set(counts) | set(_USUAL) - set(self.scarce)):
            if name in self.scarce:
                continue
            field = QSpinBox()
            field.setRange(0, 50)
            field.setButtonSymbols(QAbstractSpinBox.ButtonSymbols.NoButtons)
            field.setAccessibleName(name)
            field.editingFinished.connect(lambda name=name: self._on_count(name))
            self.scarce[name] = field
            line = self._grid.rowCount()
            self._grid.addWidget(label("soft", name, wrap=False), line, 0)
            self._grid.addWidget(field, line, 1)
        for name, field in self.scarce.items():
            field.setValue(counts.get(name, 1))

    def show_plan(self, plan: EveningPlan) -> None:
        """When it is done with this week and these things: it moves at once with another."""
        self.finish.setText(say.weeks_title(plan))

    def show_what_ifs(self, plan: EveningPlan, found: tuple[WhatIf, ...]) -> None:
        """What would help."""
        self.help.setText("\n".join(say.what_if_lines(plan, found)))

    def focus_work(self) -> None:
        """The first day."""
        self.days[0].box.setFocus()

    def take_week(self) -> None:
        """Plan on the week that is ticked."""
        week = tuple(
            (weekday, row.at.time().toString("HH:mm"), row.minutes.value())
            for weekday, row in self.days.items()
            if row.box.isChecked()
        )
        if not week:
            self.tell(say.NO_DAY)
            self.refresh()
            return
        if week == week_of(self.document.build.bench):
            return
        made = list(islice(evenings_of(week, self._now), AHEAD))
        self.apply(say.EVENINGS_EDIT, edits.set_evenings.of(made))

    def _on_date(self, day: date, evenings: tuple[Evening, ...] | None) -> None:
        now = self._now
        self.apply(say.SINGLE_EDIT, edits.set_day.of(day, evenings, now))

    def _on_count(self, name: str) -> None:
        count = self.scarce[name].value()
        bench = self.document.build.bench
        if count == (bench.resources if bench is not None else {}).get(name, 1):
            return
        self.apply(say.resource_edit(name), edits.set_resource.of(name, count))
