"""Coded labels on a photographed plan: printed, and found beside the window."""

from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QObject
from PyQt6.QtWidgets import QFileDialog

from hardkeel.base.errors import HardKeelError
from hardkeel.base.late import late
from hardkeel.edits import paper as paper_edits
from hardkeel.export.paper_sizes import paper_for
from hardkeel.messages import desk_labels as say
from hardkeel.paper.model import SheetLabel
from hardkeel.ui.document.document import Document
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.stages import Tell
from hardkeel.ui.stages.layout.page import LayoutPage

if TYPE_CHECKING:
    from hardkeel.export import desk_labels, framing
    from hardkeel.sight import codes
else:
    framing = late("hardkeel.export.framing")
    desk_labels, codes = late("hardkeel.export.desk_labels"), late("hardkeel.sight.codes")


class LabelController(QObject):
    """Carries out what is wished of labels; lives as long as the page."""

    def __init__(self, document: Document, page: LayoutPage, jobs: Jobs, tell: Tell) -> None:
        super().__init__(page)
        self._document, self._page, self._jobs, self._tell = document, page, jobs, tell
        page.made.connect(self._on_made)

    def _on_made(self, key: str, _page: object) -> None:
        if key == "paper":
            self._page.paper.fit.labels_wanted.connect(self.find)
            self._page.paper.fit.print_wanted.connect(self._on_print)

    def find(self) -> None:
        """Look for labels on the sheet on the desk, and note them."""
        paper = self._page.paper
        plan = paper.plan
        if plan is None or not paper.sheet.has_image:
            return
        grey, share = paper.sheet.greys(), paper.sheet.share
        paper.tell(say.LOOKING)

        def work() -> tuple[SheetLabel, ...]:
            return tuple(
                SheetLabel(
                    code=one.code,
                    corners=tuple((u / share, v / share) for u, v in one.corners),  # type: ignore[arg-type]
                    size=desk_labels.SIDE_MM,
                )
                for one in codes.codes_in(grey)
                if one.code in desk_labels.CODES
            )

        self._jobs.start(
            self._document.session,
            "labels",
            work,
            lambda found: self._take(plan.id, found),
            lambda why: paper.tell(str(why)),
        )

    def _take(self, plan_id: str, found: object) -> None:
        paper = self._page.paper
        if not isinstance(found, tuple):
            return
        if found:
            paper.apply(say.NOTE_ITS_LABELS, paper_edits.put_labels.of(plan_id, found))
        paper.tell(say.labels_told(len(found)))

    def _on_print(self) -> None:
        name, _ = QFileDialog.getSaveFileName(
            self._page, say.PRINT_LABELS, say.LABELS_FILE, say.PDF_FILES
        )
        if name:
            self.write(Path(name))

    def write(self, path: Path) -> None:
        """Write the page of labels beside the window, on the paper of who measures so."""
        paper = paper_for(self._page.paper.unit)
        correction = framing.printer_of(self._document.build)

        def failed(why: HardKeelError) -> None:
            self._tell(str(why))

        self._jobs.start(
            self._document.session,
            "labels to print",
            lambda: path.write_bytes(desk_labels.desk_labels_pdf(paper, correction)),
            lambda _count: self._tell(say.written(path.name), well=True),
            failed,
            writes=True,
        )
