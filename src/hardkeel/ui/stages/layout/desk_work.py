"""What Lay out wants of the disk: scans, outlines, templates, lists; long work beside the window."""

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING, cast

from PyQt6.QtCore import QObject, QSize
from PyQt6.QtGui import QImage
from PyQt6.QtWidgets import QFileDialog, QInputDialog, QWidget

from hardkeel.base.errors import BadInput, CannotSave
from hardkeel.base.units import format_length
from hardkeel.edits import fuselage as drawing_edits
from hardkeel.edits import paper as paper_edits
from hardkeel.paper.model import Plan
from hardkeel.storage.atomic import write_atomically
from hardkeel.storage.attaching import Images
from hardkeel.ui.document.document import Document
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.jobs.scans import PATTERN, image_from, pages_of, read_scan
from hardkeel.ui.stages.layout.page import LayoutPage

if TYPE_CHECKING:
    from hardkeel.ui.stages.layout.parts_page import PartsPage

SAMPLE = "made-up plan page"


class DeskWork(QObject):
    """Carries out what the benches of Lay out ask for.

    Parameters
    ----------
    tell : callable
        Says a sentence to the builder.
    """

    def __init__(
        self,
        document: Document,
        page: LayoutPage,
        images: Images,
        jobs: Jobs,
        tell: Callable[[str], object],
        parent: QWidget,
    ) -> None:
        super().__init__(parent)
        self._document, self._page, self._images = document, page, images
        self._jobs, self._tell, self._window = jobs, tell, parent
        page.made.connect(self._on_made)

    def _on_made(self, key: str, page: object) -> None:
        if key == "paper":
            paper = self._page.paper
            paper.scan_wanted.connect(self.open_scan)
            paper.sample_wanted.connect(self.lay_sample)
            paper.stirred.connect(self.show_image)
            paper.taken.connect(lambda: self._page.turn_to("airframe"))
            paper.left_as_they_were.connect(
                lambda names: self._tell(f"Not picked, and left as they were: {names}.")
            )
            self.show_image()
        elif key == "airframe":
            self._page.airframe.former_wanted.connect(self.write_former)
            self._page.airframe.outline_wanted.connect(self.bring_outline)
        elif key == "parts":
            cast("PartsPage", page).csv_wanted.connect(self.write_parts)

    # -- paper -----------------------------------------------------------------------------------

    def open_scan(self) -> None:
        """Ask for a scan and lay it on the desk."""
        name, _ = QFileDialog.getOpenFileName(self._window, "Open a scan or photo", "", PATTERN)
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
                self._window, "Which page?", f"{path.name} has {count} pages.", 1, 1, count
            )
            if not sure:
                return
            page = asked - 1
        self.lay_scan(path, page)

    def lay_scan(self, path: Path, page: int = 0) -> None:
        """Read a scan beside the window and lay it on the desk."""
        self._tell(f"Reading {path.name} …")
        session = self._document.session
        self._jobs.start(
            "scan",
            lambda: read_scan(path, page),
            lambda data: self._lay(path.stem, data, session),
            lambda why: self._tell(f"Not opened: {why}."),
        )

    def lay_sample(self) -> None:
        """Draw the made-up page of the demo's fuselage and lay it on the desk."""
        self._tell("Drawing the page …")
        session = self._document.session
        self._jobs.start(
            "scan",
            _sample_png,
            lambda data: self._lay(SAMPLE, data, session),
            lambda why: self._tell(f"Not drawn: {why}."),
        )

    def _lay(self, stem: str, data: object, session: int) -> None:
        if not isinstance(data, bytes):
            return
        if session != self._document.session:
            self._tell(f"{stem} came when another build lay on the bench: open it again there.")
            return
        self._tell("")
        used = {plan.id for plan in self._document.build.plans}
        name, number = stem, 2
        while name in used:
            name, number = f"{stem} {number}", number + 1
        try:
            plan = Plan(id=name, image=self._images.add(data))
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
        data = self._images.read(name)
        image, size = image_from(data) if data is not None else (QImage(), QSize())
        if image.isNull():
            self._tell(f"The scan {name} is not in this build's file any more; open it again.")
            return
        self._page.paper.show_image(name, image, size)

    # -- formers and parts -----------------------------------------------------------------------

    def bring_outline(self) -> None:
        """Ask for a drawing and give its largest closed line to the former in hand."""
        name, _ = QFileDialog.getOpenFileName(
            self._window, "Outline from a drawing", "", "Drawings (*.dxf)"
        )
        if name:
            self.take_outline(Path(name))

    def take_outline(self, path: Path) -> None:
        """Give the former in hand the largest closed line of a drawing."""
        from hardkeel.storage.outlines import read_outlines  # noqa: PLC0415  and drawings

        fuselage = self._document.build.fuselage
        stop = self._page.airframe.stop
        former = fuselage.former(stop) if fuselage is not None else None
        if former is None:
            self._tell("Take a former in hand first.")
            return
        try:
            outline = read_outlines(path)[0]
            self._document.apply(
                f"outline of {former.id} from {path.name}",
                lambda b: drawing_edits.give_outline(b, former.id, outline.ring),
            )
        except BadInput as fault:
            self._tell(f"{fault}.")
            return
        if outline.gap:
            gap = format_length(outline.gap, self._page.unit, 2)
            self._tell(f"Ends up to {gap} apart were joined in {path.name}: look at the outline.")

    def write_former(self, name: str) -> None:
        """Ask where, and write a former's cut line."""
        place, _ = QFileDialog.getSaveFileName(
            self._window, f"Write {name}", f"{name}.dxf", "Drawings (*.dxf)"
        )
        if place:
            self.write_former_to(name, Path(place))

    def write_former_to(self, name: str, path: Path) -> None:
        """Write a former's cut line as a drawing."""
        from hardkeel.export.parts import former_dxf  # noqa: PLC0415  drawings load late
        from hardkeel.fuselage.cutting import shape_of  # noqa: PLC0415

        fuselage = self._document.build.fuselage
        former = fuselage.former(name) if fuselage is not None else None
        if fuselage is None or former is None:
            return
        self._write(path, former_dxf(shape_of(fuselage, former)))

    def write_parts(self) -> None:
        """Ask where, and write the parts list."""
        place, _ = QFileDialog.getSaveFileName(
            self._window, "Write the parts list", "parts.csv", "Lists (*.csv)"
        )
        if place:
            from hardkeel.export.parts import parts_csv  # noqa: PLC0415  with the drawing library

            self._write(Path(place), parts_csv(self._document.build))

    def _write(self, path: Path, text: str) -> None:
        try:
            write_atomically(path, text.encode("utf-8"), versions=0)
        except CannotSave as fault:
            self._tell(f"Not written: {fault}.")
            return
        self._tell(f"Written to {path}.")


def _sample_png() -> bytes:
    from hardkeel.demo.kettlewick import demo_fuselage  # noqa: PLC0415  only for the sample
    from hardkeel.demo.plan_page import plan_page  # noqa: PLC0415  the drawing library loads late

    return plan_page(demo_fuselage(), "Kettlewick 1280, fuselage").png
