"""The calendar at hand: the plan and what runs, written as iCalendar."""

from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QObject
from PyQt6.QtWidgets import QFileDialog

from hardkeel.base.errors import HardKeelError
from hardkeel.base.late import late
from hardkeel.export.renewing import file_stem
from hardkeel.messages import calendar as say
from hardkeel.schedule.timers import running
from hardkeel.storage.atomic import write_atomically
from hardkeel.ui.document.document import Document
from hardkeel.ui.stages.bench.tonight_page import TonightPage

if TYPE_CHECKING:
    from hardkeel.export import calendar
else:
    calendar = late("hardkeel.export.calendar")


class CalendarController(QObject):
    """Writes the plan that is shown."""

    def __init__(self, document: Document, page: TonightPage) -> None:
        super().__init__(page)
        self._document, self._page = document, page
        page.calendar.clicked.connect(self._on_asked)

    def _on_asked(self) -> None:
        name = f"{file_stem(self._document.build.name)}-bench.ics"
        chosen, _ = QFileDialog.getSaveFileName(self._page, say.WHERE, name, say.FILES)
        if chosen:
            self.write(Path(chosen))

    def write(self, path: Path) -> None:
        """Write it there, and say so."""
        build, plan, now = self._document.build, self._page.plan, self._document.clock()
        if plan is None:
            return
        timers = running(build.bench.timers, now) if build.bench is not None else ()
        try:
            text = calendar.calendar_text(build, plan, timers, now)
            write_atomically(path, text.encode("utf-8"), versions=0)
        except HardKeelError as fault:
            self._page.tell(say.not_written(fault))
            return
        self._page.tell(say.written(path.name))
