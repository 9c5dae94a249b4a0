"""Scans for the paper desk: asked for, read beside the window, laid down and given their image."""

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QObject, QSize
from PyQt6.QtGui import QImage
from PyQt6.QtWidgets import QFileDialog, QInputDialog

from hardkeel.base.errors import BadInput
from hardkeel.base.late import late
from hardkeel.edits import paper as paper_edits
from hardkeel.paper.model import Plan
from hardkeel.ui.document.document import Document
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.jobs.scans import PATTERN, image_from, pages_of, read_scan
from hardkeel.ui.stages.layout.page import LayoutPage
from hardkeel.voice import layout as say

if TYPE_CHECKING:
    from hardkeel.demo import kettlewick, plan_page
else:
    kettlewick, plan_page = late("hardkeel.demo.kettlewick"), late("hardkeel.demo.plan_page")

SAMPLE = "made-up plan page"


class ScanDesk(QObject):
    """Carries out what the paper desk asks for; lives as long as the page.

    Parameters
    ----------
    tell : callable
        Says a sentence to the builder.
    """

    def __init__(
        self,
        document: Document,
        page: LayoutPage,
        jobs: Jobs,
        tell: Callable[[str], object],
    ) -> None:
        super().__init__(page)
        self._document, self._page = document, page
        self._jobs, self._tell = jobs, tell
        page.made.connect(self._on_made)

    def _on_made(self, key: str, _page: object) -> None:
        if key != "paper":
            return
        paper = self._page.paper
        paper.scan_wanted.connect(self.open_scan)
        paper.sample_wanted.connect(self.lay_sample)
        paper.stirred.connect(self.show_image)
        paper.taken.connect(lambda: self._page.turn_to("airframe"))
        paper.left_as_they_were.connect(lambda names: self._tell(say.left_as_they_were(names)))
        self.show_image()

    def open_scan(self) -> None:
        """Ask for a scan and lay it on the desk."""
        name, _ = QFileDialog.getOpenFileName(self._page, say.OPEN_WHICH_SCAN, "", PATTERN)
        if not name:
            return
        path = Path(name)
        page = 0
        try:
            count = pages_of(path)
        except BadInput as fault:
            self._tell(f"{fault}.")
            return
        if count > 1:
            asked, sure = QInputDialog.getInt(
                self._page, say.WHICH_PAGE, f"{path.name} has {count} pages.", 1, 1, count
            )
            if not sure:
                return
            page = asked - 1
        self.lay_scan(path, page)

    def lay_scan(self, path: Path, page: int = 0) -> None:
        """Read a scan beside the window and lay it on the desk."""
        self._tell(say.reading_scan(path.name))
        self._jobs.start(
            self._document.session,
            "scan",
            lambda: read_scan(path, page),
            lambda data: self._lay(path.stem, data),
            lambda why: self._tell(say.not_opened(why)),
            left=lambda: self._tell(say.came_too_late(path.stem)),
        )

    def lay_sample(self) -> None:
        """Draw the made-up page of the demo's fuselage and lay it on the desk."""
        self._tell(say.DRAWING_THE_PAGE)
        self._jobs.start(
            self._document.session,
            "scan",
            _sample_png,
            lambda data: self._lay(SAMPLE, data),
            lambda why: self._tell(say.not_drawn(why)),
            left=lambda: self._tell(say.came_too_late(SAMPLE)),
        )

    def _lay(self, stem: str, data: object) -> None:
        if not isinstance(data, bytes):
            return
        self._tell("")
        used = {plan.id for plan in self._document.build.plans}
        name, number = stem, 2
        while name in used:
            name, number = f"{stem} {number}", number + 1
        try:
            plan = Plan(id=name, image=self._document.session.images.add(data))
            self._document.apply(f"lay {name} on the desk", lambda b: paper_edits.add_plan(b, plan))
        except BadInput as fault:
            self._tell(f"{fault}.")
            return
        self._page.paper.show_plan(name)

    def show_image(self) -> None:
        """Give the desk the image that it wants."""
        name = self._page.paper.image_wanted
        if not name:
            return
        data = self._document.session.images.read(name)
        image, size = image_from(data) if data is not None else (QImage(), QSize())
        if image.isNull():
            self._tell(say.scan_is_gone(name))
            return
        self._page.paper.show_image(name, image, size)


def _sample_png() -> bytes:
    return plan_page.plan_page(kettlewick.demo_fuselage(), "Kettlewick 1280, fuselage").png
