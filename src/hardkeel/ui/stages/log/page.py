"""The Log page: what was done and found, by the builder and by the app, and the hours it took."""

import re
from datetime import datetime
from pathlib import Path
from typing import Final

from PyQt6.QtCore import QModelIndex, QSize, Qt
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QFileDialog,
    QHBoxLayout,
    QHeaderView,
    QLineEdit,
    QPushButton,
    QScrollArea,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QTableView,
    QVBoxLayout,
    QWidget,
)

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, marked, shortest
from hardkeel.edits import truing as edits
from hardkeel.logbook.entries import Entry, EntryKind, local_day, matching, total_hours, with_timed
from hardkeel.messages import log as say
from hardkeel.messages.counting import number_of
from hardkeel.messages.log import KIND_WORDS, KINDS_WORDS, entry_text
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.lazy_refresh import LazyRefresh
from hardkeel.ui.jobs.scans import read_photo
from hardkeel.ui.stages.log.hours import HoursChart
from hardkeel.ui.stages.log.photos import LATEST, PhotosCard
from hardkeel.ui.tabbed.stage_page import StagePage
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.cells import CellsModel, Column, Row
from hardkeel.ui.widgets.tab_order import work_through

# entries and hours, and the names of what they speak of
_SHOWS: Final = frozenset({"log", "sessions", "survey"})
_LONGEST_DAY_H: Final = 24.0
_RIGHT_PX: Final = 340
_PADDING, _LETTERS = 6, 16  # of a cell at each side, in pixels where letters are so tall


_COLUMNS: Final = (Column("", top=True), Column("", top=True), Column("", top=True))


def _when(at: str) -> str:
    moment = datetime.fromisoformat(at)
    return f"{moment:%d %b %Y  %H:%M}"


def _row(entry: Entry, says: str) -> Row:
    kind = KIND_WORDS[entry.kind] + (f", {entry.phase}" if entry.phase else "")
    return Row(
        key=f"{entry.at} {says}",
        cells=(_when(entry.at), kind, says),
        colour="soft",
        tip=f"{says}\n{entry.at}",
        weight=500 if entry.by == "builder" else 400,
        cell_colours={2: "ink"},
    )


class _Wrapped(QStyledItemDelegate):
    """Finds the height of wrapped text for the width that the style's padding leaves it."""

    def sizeHint(self, option: QStyleOptionViewItem, index: QModelIndex) -> QSize:
        """As tall as the text is then."""
        around = 2 * _PADDING * option.fontMetrics.height() // _LETTERS
        option.rect = option.rect.adjusted(0, 0, -around, 0)
        return super().sizeHint(option, index)


class LogPage(StagePage):
    """A view of the document's log."""

    def __init__(
        self,
        document: Document,
        theme: Theme,
        unit: LengthUnit,
        parent: QWidget | None = None,
    ) -> None:
        super().__init__(parent)
        self._document = document
        self._unit: LengthUnit = unit
        self._theme = theme
        self.setObjectName("paper")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.note = QLineEdit()
        self.note.setPlaceholderText(say.WRITE_WHAT_YOU_DID)
        self.note.setAccessibleName("what you did, changed or found")
        self.filter = QLineEdit()
        self.filter.setPlaceholderText("find words in the log")
        self.filter.setAccessibleName("find words in the log")
        self.filter.setClearButtonEnabled(True)
        self._kinds: dict[EntryKind, QPushButton] = {}
        self._count = label("soft", wrap=False)
        self.model = CellsModel(_COLUMNS, theme, parent=self)
        self.table = QTableView()
        self.hours = HoursChart(theme)
        self.hours_line = QLineEdit()
        self._hours_told = label("soft")
        self._lay_out()
        self.note.returnPressed.connect(self._on_note)
        self.filter.textChanged.connect(self.refresh)
        self.hours_line.returnPressed.connect(self._on_hours)
        self._lazy = LazyRefresh(self, document, self.refresh, _SHOWS)
        self.refresh()

    def _lay_out(self) -> None:
        left = QVBoxLayout()
        left.setContentsMargins(18, 14, 14, 14)
        left.setSpacing(8)
        left.addWidget(label("title", say.LOG))
        writing = QHBoxLayout()
        writing.addWidget(self.note, 1)
        self.photo = QPushButton(say.PHOTO)
        self.photo.setToolTip(say.PHOTO_TIP)
        self.photo.clicked.connect(self._on_photo_asked)
        writing.addWidget(self.photo)
        left.addLayout(writing)
        row = QHBoxLayout()
        row.addWidget(self.filter, 1)
        for kind, words in KINDS_WORDS.items():
            button = QPushButton(words)
            button.setObjectName("tool")
            button.setCheckable(True)
            button.clicked.connect(self.refresh)
            self._kinds[kind] = button
            row.addWidget(button)
        left.addLayout(row)
        left.addWidget(self._count)
        self._dress_table()
        left.addWidget(self.table, 1)
        outer = QHBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.addLayout(left, 1)
        outer.addWidget(self._beside())
        work_through(self)

    def _beside(self) -> QWidget:
        """The hours, and the last photos."""
        card = Card(say.HOURS_AT_THE_BENCH, "act")
        card.column.addWidget(self.hours)
        self.hours_line.setPlaceholderText(marked(say.HOURS_LIKE))
        self.hours_line.setAccessibleName("hours at the bench")
        card.column.addWidget(label("soft", say.ADD_TIME_TO_TODAY))
        card.column.addWidget(self.hours_line)
        card.column.addWidget(self._hours_told)
        right = QVBoxLayout()
        right.setContentsMargins(0, 14, 14, 14)
        right.addWidget(card)
        self.photos = PhotosCard()
        right.addWidget(self.photos)
        right.addStretch(1)
        inside = QWidget()
        inside.setLayout(right)
        side = QScrollArea()  # two photos and large text are more than a small screen is high
        side.setWidget(inside)
        side.setWidgetResizable(True)
        side.setFixedWidth(_RIGHT_PX)
        side.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        side.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        return side

    def _dress_table(self) -> None:
        table = self.table
        table.setModel(self.model)
        table.setShowGrid(False)
        table.setWordWrap(True)
        table.setItemDelegate(_Wrapped(table))
        table.setSelectionMode(QAbstractItemView.SelectionMode.NoSelection)
        table.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        table.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        table.setAccessibleName(say.LOG_ENTRIES)
        across, down = table.horizontalHeader(), table.verticalHeader()
        if across is not None and down is not None:
            across.hide()
            down.hide()
            across.setSectionResizeMode(QHeaderView.ResizeMode.ResizeToContents)
            across.setSectionResizeMode(2, QHeaderView.ResizeMode.Stretch)
            down.setSectionResizeMode(QHeaderView.ResizeMode.ResizeToContents)

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        self.hours.set_theme(theme)
        self._lazy.renew()

    def refresh(self) -> None:
        """Show the log as it is now, filtered."""
        build = self._document.build
        kinds = frozenset(kind for kind, button in self._kinds.items() if button.isChecked())
        found = matching(build.log, self.filter.text(), kinds, self._told)
        self.model.show_rows([_row(one, self._told(one)) for one in found[::-1]], self._theme)
        total = len(build.log)
        shown = number_of(total, "entry", "entries")
        shown = f"{len(found)} of {shown}" if len(found) != total else shown
        self._count.setText(shown if total else say.NOTHING_WRITTEN_YET)
        self._show_photos()
        sessions = with_timed(build.sessions, build.log)
        self.hours.show_sessions(sessions, total_hours(sessions))

    def _told(self, entry: Entry) -> str:
        return entry_text(self._document.build.surveyed, entry, self._unit)

    def set_unit(self, unit: LengthUnit) -> None:
        """Show lengths in another unit."""
        self._unit = unit
        self._lazy.renew()

    def _on_note(self) -> None:
        text, now = self.note.text(), self._document.clock()
        if text.strip():
            self._document.apply(say.WRITE_NOTE, edits.add_note.of(text, now))
            self.note.clear()

    def _show_photos(self) -> None:
        """The last few, with their days."""
        named = [
            (photo, entry) for entry in reversed(self._document.build.log) for photo in entry.photos
        ]
        self.photos.show_photos(
            [
                (_when(entry.at), self._told(entry), self._document.session.images.read(photo))
                for photo, entry in named[:LATEST]
            ]
        )

    def _on_photo_asked(self) -> None:
        chosen, _ = QFileDialog.getOpenFileName(self, say.WHICH_PHOTO, "", say.PHOTO_FILES)
        if chosen:
            self.add_photo(Path(chosen))

    def add_photo(self, path: Path) -> None:
        """Put a photo in the log, with what is written in the line."""
        try:
            data = read_photo(path)
        except BadInput as fault:
            self._hours_told.setText(str(fault))
            return
        name, text, now = (
            self._document.session.images.add(data, ".jpg", "photos"),
            self.note.text(),
            self._document.clock(),
        )
        self._document.apply(say.ADD_PHOTO, edits.add_note.of(text, now, (name,)))
        self.note.clear()

    def _on_hours(self) -> None:
        try:
            hours, note = parse_hours(self.hours_line.text())
        except BadInput as fault:
            self._hours_told.setText(str(fault))
            return
        day = local_day(self._document.clock())
        self._document.apply(
            say.add_hours_edit(shortest(hours)), edits.log_hours.of(day, hours, note)
        )
        self._hours_told.setText(say.added_today(hours))
        self.hours_line.clear()


def parse_hours(text: str) -> tuple[float, str | None]:
    """``1.5``, ``1h30``, ``90 min`` and an optional note after it.

    Raises
    ------
    BadInput
        With a sentence that says what would be understood.
    """
    match = re.fullmatch(
        r"\s*(?:(?P<h>\d+)\s*h\s*(?P<m>\d{1,2})|(?P<n>\d+(?:[.,]\d+)?)\s*(?P<u>min|h)?)(?:\s+(?P<note>.*))?\s*",
        text,
    )
    if match is None:
        raise BadInput("", marked(say.WRITE_HOURS_LIKE))
    if match["h"] is not None:
        hours = int(match["h"]) + int(match["m"]) / 60
    else:
        hours = float(match["n"].replace(",", ".")) / (60 if match["u"] == "min" else 1)
    if not 0 < hours <= _LONGEST_DAY_H:
        raise BadInput("", say.DAY_HOURS)
    return hours, (match["note"] or "").strip() or None
