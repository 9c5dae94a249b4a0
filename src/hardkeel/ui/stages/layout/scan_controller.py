"""Scans for the paper desk: asked for, read beside the window, laid down and given their image."""

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING, cast

from PyQt6.QtCore import QObject
from PyQt6.QtWidgets import QFileDialog, QInputDialog

from hardkeel.base.errors import BadInput, GivenUp
from hardkeel.base.late import late
from hardkeel.edits import paper as paper_edits
from hardkeel.messages import layout as say
from hardkeel.messages import shell
from hardkeel.paper.model import Plan
from hardkeel.ui.document.document import Document
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.jobs.progress import Progress
from hardkeel.ui.jobs.scans import (
    PATTERN,
    Step,
    image_from,
    pages_of,
    read_scan,
    size_of,
    suffix_of,
)
from hardkeel.ui.stages import Tell
from hardkeel.ui.stages.layout.page import LayoutPage
from hardkeel.ui.stages.layout.scan_copies import ScanCopies

if TYPE_CHECKING:
    from hardkeel.demo import kettlewick, plan_page
else:
    kettlewick, plan_page = late("hardkeel.demo.kettlewick"), late("hardkeel.demo.plan_page")

SAMPLE = "made-up plan page"


class ScanController(QObject):
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
        tell: Tell,
    ) -> None:
        super().__init__(page)
        self._document, self._page = document, page
        self._jobs, self._tell = jobs, tell
        self._opening = ""  # name of the image that is being opened
        page.made.connect(self._on_made)
        document.build_opened.connect(self._on_another_build)

    def _on_another_build(self) -> None:
        self._opening = ""

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
        self._begin(
            path.name,
            lambda step: pages_of(path, step),
            lambda count: self._choose_page(path, cast("int", count)),
        )

    def _choose_page(self, path: Path, count: int) -> None:
        """Ask which page of several, and lay it on the desk."""
        self._tell("")
        if count == 1:
            self.lay_scan(path)
            return
        asked, sure = QInputDialog.getInt(
            self._page, say.WHICH_PAGE, f"{path.name} has {count} pages.", 1, 1, count
        )
        if sure:
            self.lay_scan(path, asked - 1)

    def lay_scan(self, path: Path, page: int = 0) -> None:
        """Read a scan beside the window and lay it on the desk."""
        self._begin(
            path.name,
            lambda step: read_scan(path, page, step),
            lambda data: self._lay(path.stem, data),
        )

    def _begin(
        self, name: str, work: Callable[[Step], object], done: Callable[[object], object]
    ) -> None:
        """Read something of a file beside the window, and offer to leave it off."""
        progress = Progress()
        self._tell(say.reading_scan(name), (shell.LEAVE_IT_OFF, progress.stop))
        self._jobs.start(
            self._document.session,
            "scan",
            lambda: work(progress.step),
            done,
            lambda why: self._tell("" if isinstance(why, GivenUp) else say.not_opened(why)),
            stop=progress.stop,
            left=lambda: self._tell(say.came_too_late(Path(name).stem)),
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
            image = self._document.session.images.add(data, suffix_of(data))
            plan = Plan(id=name, image=image, size=size_of(data))
            self._document.apply(say.lay_on_desk_edit(name), paper_edits.add_plan.of(plan))
        except BadInput as fault:
            self._tell(f"{fault}.")
            return
        self._page.paper.show_plan(name)

    def show_image(self) -> None:
        """Give the desk the image that it wants, opened beside the window."""
        name = self._page.paper.image_wanted
        if not name or name == self._opening:
            return
        data = self._document.session.images.read(name)
        if data is None:
            self._tell(say.scan_is_gone(name))
            return
        self._opening = name
        self._page.paper.sheet.clear()  # no other sheet lies under this one's clicks
        self._jobs.start(
            self._document.session,
            "scan to be shown",
            lambda: ScanCopies(*image_from(data)),
            lambda copies: self._show(name, copies),
            lambda why: self._tell(say.not_opened(why)),
        )

    def _show(self, name: str, copies: object) -> None:
        self._opening = ""
        if not isinstance(copies, ScanCopies) or copies.image.isNull():
            self._tell(say.scan_is_gone(name))
        elif name == self._page.paper.image_wanted:
            self._page.paper.show_scan(name, copies)
        else:
            self.show_image()  # another sheet was laid on the desk meanwhile


def _sample_png() -> bytes:
    return plan_page.plan_page(kettlewick.demo_fuselage(), "Kettlewick 1280, fuselage").png
