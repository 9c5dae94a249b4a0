"""Parts on the mat: their pictures read beside the window, what they say kept in the ledger, the mat printed."""

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING, cast

from PyQt6.QtCore import QObject
from PyQt6.QtWidgets import QFileDialog

from hardkeel.airframe.checked_parts import kept_of, key_of
from hardkeel.base.errors import BadInput, HardKeelError
from hardkeel.base.late import late
from hardkeel.edits import ledger as ledger_edits
from hardkeel.edits.outlines import give_taken
from hardkeel.export.paper_sizes import PAPERS
from hardkeel.joinery.flat import FlatPiece
from hardkeel.messages import mat as say
from hardkeel.messages.faults import told
from hardkeel.sight.mat import mat_for
from hardkeel.sight.part_photo import PartPhoto, read_part
from hardkeel.storage.given import bytes_of
from hardkeel.ui.document.document import Document
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.stages import Tell
from hardkeel.ui.stages.layout.check_page import CheckPage
from hardkeel.ui.stages.layout.page import LayoutPage

if TYPE_CHECKING:
    from hardkeel.base.values import Point2
    from hardkeel.export import framing, mat_sheet, outline_file
    from hardkeel.sight.part_check import Check
    from hardkeel.storage import atomic
else:
    framing, mat_sheet = late("hardkeel.export.framing"), late("hardkeel.export.mat_sheet")
    outline_file = late("hardkeel.export.outline_file")
    atomic = late("hardkeel.storage.atomic")

_READING = "part"


class CheckController(QObject):
    """Carries out what the page asks for; lives as long as it."""

    def __init__(self, document: Document, page: LayoutPage, jobs: Jobs, tell: Tell) -> None:
        super().__init__(page)
        self._document, self._layout, self._jobs, self._tell = document, page, jobs, tell
        self._page: CheckPage | None = None
        page.made.connect(self._on_made)

    def _on_made(self, _key: str, page: object) -> None:
        if isinstance(page, CheckPage):
            self._page = page
            page.picture_wanted.connect(lambda: self._ask(self.read))
            page.pictures_given.connect(lambda paths: self.read(paths[0]))
            page.mat_wanted.connect(self._on_print)
            page.outline_wanted.connect(lambda: self._ask(self.outline))

    def _ask(self, then: Callable[[Path], None]) -> None:
        name, _ = QFileDialog.getOpenFileName(self._layout, say.WHICH_PICTURE, "", say.PICTURES)
        if name:
            then(Path(name))

    def read(self, path: Path) -> None:
        """Hold the piece in hand against a picture, beside the window."""
        page = self._page
        if page is None:
            return
        piece = page.chosen_piece
        if piece is None:
            page.tell(say.NO_PIECES)
            return

        def work(photo: PartPhoto) -> object:
            return photo.check(piece), photo.on.tilt

        self._start(path, work, lambda found: self._take(piece, found))

    def outline(self, path: Path) -> None:
        """Take the outline of what lies in a picture for the former in hand, beside the window."""
        page = self._page
        if page is None:
            return
        name, thick = page.becomes.currentData(), page.thick.value or 0.0
        self._start(path, lambda photo: photo.outline(thick), lambda rings: self._give(name, rings))

    def _start(
        self,
        path: Path,
        work: Callable[[PartPhoto], object],
        done: Callable[[object], object],
    ) -> None:
        """Read a picture of the mat, and do something with it."""
        page = self._page
        if page is None:
            return
        (paper, pages), scale = page.mat, page.scale
        page.tell(say.READING.format(name=path.name))

        def job() -> object:
            mat = mat_for(paper, PAPERS[paper], pages).measured(*scale)
            return work(read_part(bytes_of(path), path.name, mat))

        self._jobs.start(
            self._document.session,
            _READING,
            job,
            done,
            self._on_failed,
            left=lambda: page.tell(""),
        )

    def _take(self, piece: FlatPiece, found: object) -> None:
        page = self._page
        if page is None:
            return
        check, tilt = cast("tuple[Check, float | None]", found)
        key = key_of(piece, check)
        kept = kept_of(piece, check, tilt, self._document.clock())
        if page.apply(say.check_edit(key), ledger_edits.note_check.of(key, kept)):
            page.show_check(key)

    def _give(self, name: str, rings: object) -> None:
        """An outline for the former or the surface of this name; for none, to a file."""
        outline = cast("tuple[tuple[Point2, ...], ...]", rings)
        page = self._page
        if page is None:
            return
        if not name:
            self._write_outline(outline)
        elif page.apply(say.outline_edit(name), give_taken.of(name, outline[0])):
            self._tell(say.taken_words(outline, page.unit), well=True)

    def _write_outline(self, rings: "tuple[tuple[Point2, ...], ...]") -> None:
        name, _ = QFileDialog.getSaveFileName(
            self._layout, say.WHERE_TO, say.OUTLINE_FILE, say.OUTLINE_FILES
        )
        page, path = self._page, Path(name)
        if not name or page is None:
            return
        words = say.taken_words(rings, page.unit)
        self._jobs.start(
            self._document.session,
            "outline",
            lambda: atomic.write_atomically(path, outline_file.outline_file(rings, path)),
            lambda _done: self._tell(f"{words} {say.outline_written(path.name)}", well=True),
            self._on_failed,
            writes=True,
        )

    def _on_failed(self, fault: HardKeelError) -> None:
        if self._page is not None:
            why = told(fault, self._page.unit) if isinstance(fault, BadInput) else str(fault)
            self._page.tell(f"{why}.")

    def _on_print(self) -> None:
        name, _ = QFileDialog.getSaveFileName(self._layout, say.WHERE_TO, say.FILE, say.PDF_FILES)
        if name:
            self.write(Path(name))

    def write(self, path: Path) -> None:
        """Write the mat beside the window, allowed for what the printer makes of a millimetre."""
        page = self._page
        if page is None:
            return
        (paper, pages), correction = page.mat, framing.printer_of(self._document.build)
        beside = path.with_suffix(".json")

        def work() -> None:
            pdf, data = mat_sheet.mat_files(paper, correction, pages)
            atomic.write_atomically(path, pdf)
            atomic.write_atomically(beside, data)

        self._jobs.start(
            self._document.session,
            "mat",
            work,
            lambda _done: self._tell(say.written(path.name, beside.name), well=True),
            self._on_failed,
            writes=True,
        )
