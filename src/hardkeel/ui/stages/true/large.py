"""The reading in the hands from two metres: typed, or written by a gauge and taken with the space bar."""

from collections.abc import Callable

from PyQt6.QtCore import QObject, Qt
from PyQt6.QtGui import QShortcut
from PyQt6.QtWidgets import QWidget

from hardkeel.messages import true as say
from hardkeel.messages.gluing import pot_timer
from hardkeel.ui.document.document import Document
from hardkeel.ui.stages.true.cards import NextCard
from hardkeel.ui.stages.true.reading_entry import ReadingEntry
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.arms_length import ArmsLength, LargeShown


class LargeReading(QObject):
    """Shows what is in the hands on the large sheet; one undo stack, one field, whichever is seen.

    Parameters
    ----------
    card : NextCard
        Its field is where the figure goes.
    theme : callable
        The theme of the moment.
    """

    def __init__(
        self,
        document: Document,
        entry: ReadingEntry,
        card: NextCard,
        theme: Callable[[], Theme],
        page: QWidget,
    ) -> None:
        super().__init__(page)
        self._document, self._hands, self._card = document, entry, card
        self._theme, self._page = theme, page
        self._sheet: ArmsLength | None = None
        entry.moved.connect(self._refresh)
        key = QShortcut(Qt.Key.Key_F11, page)
        key.setContext(Qt.ShortcutContext.WidgetWithChildrenShortcut)
        key.activated.connect(self.open_large)

    @property
    def sheet(self) -> ArmsLength:
        """The large sheet, made when it is first wanted."""
        if self._sheet is None:
            self._sheet = ArmsLength(self._theme(), self._page, self._card.field.line)
            self._sheet.gone_on.connect(self._on_gone_on)
            self._sheet.taken_back.connect(self._document.stack.undo)
        return self._sheet

    def open_large(self) -> None:
        """Fill the screen with it."""
        self.sheet.open_large(self._theme(), self._shown())

    def _refresh(self) -> None:
        if self._sheet is not None and self._sheet.isVisible():
            self._sheet.show_large(self._shown())

    def _shown(self) -> LargeShown:
        bench = self._document.build.bench
        timers = bench.timers if bench is not None else ()
        shown = self._hands.shown
        timers = (*timers, *pot_timer(self._document.build))
        if shown is None:
            return LargeShown("", "", timers, self._document.clock)
        unit = "°" if shown.angular else shown.unit
        under = shown.draft_hint or shown.why
        takes = shown.takes and not shown.draft_hint
        caution = say.GAUGE_OFF if self._hands.is_off else ""
        return LargeShown(shown.title, under, timers, self._document.clock, takes, unit, caution)

    def _on_gone_on(self) -> None:
        """The figure is taken; where none is wanted, what is proposed is done."""
        shown = self._hands.shown
        if shown is not None and shown.takes:
            self._card.field.take()
            self.sheet.complain(self._card.complaint)
        elif shown is not None and shown.action:
            self._card.action_pressed.emit()
        self.sheet.setFocus()
