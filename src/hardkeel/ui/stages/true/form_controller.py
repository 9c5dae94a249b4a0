"""The rigging sheet at hand: written as PDF, and typed in afterwards in its own order."""

from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QObject
from PyQt6.QtGui import QAction
from PyQt6.QtWidgets import QFileDialog, QMenu, QPushButton

from hardkeel.base.errors import HardKeelError
from hardkeel.base.late import late
from hardkeel.export.paper_sizes import PAPERS, paper_for
from hardkeel.export.renewing import file_stem
from hardkeel.messages import reading_form as say
from hardkeel.storage.atomic import write_atomically
from hardkeel.ui.document.document import Document
from hardkeel.ui.stages.true.page import TruePage

if TYPE_CHECKING:
    from hardkeel.export import rigging_form
else:
    rigging_form = late("hardkeel.export.rigging_form")


class ReadingFormController(QObject):
    """A button at the list of readings with what can be done with the sheet."""

    def __init__(self, document: Document, page: TruePage) -> None:
        super().__init__(page)
        self._document, self._page = document, page
        self.button = QPushButton(say.SHEET)
        self.button.setObjectName("plain")
        self.button.setToolTip(say.SHEET_TIP)
        menu = QMenu(self.button)
        self.write_action, self.type_action = QAction(say.WRITE, menu), QAction(say.TYPE_IN, menu)
        self.type_action.setCheckable(True)
        menu.addAction(self.write_action)
        menu.addAction(self.type_action)
        menu.aboutToShow.connect(lambda: self.type_action.setChecked(page.entry.on_sheet))
        self.button.setMenu(menu)
        self.write_action.triggered.connect(self._on_write)
        self.type_action.triggered.connect(lambda on: page.entry.follow_sheet(follow=on))
        page.readings.put_in_head(self.button)

    def _on_write(self) -> None:
        name = f"{file_stem(self._document.build.name)}-rigging-sheet.pdf"
        chosen, _ = QFileDialog.getSaveFileName(self._page, say.WHERE, name, say.FILES)
        if chosen:
            self.write(Path(chosen))

    def write(self, path: Path) -> None:
        """Write the sheet there, and say so."""
        build = self._document.build
        try:
            size = PAPERS[paper_for(self._page.unit)]
            sheet = rigging_form.rigging_form_pdf(build, self._page.unit, size)
            write_atomically(path, sheet, versions=0)
        except HardKeelError as fault:
            self._page.next.tell(say.not_written(fault))
            return
        self._page.next.tell(say.written(path.name))
