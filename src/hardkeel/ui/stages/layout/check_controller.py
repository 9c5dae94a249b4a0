"""Parts on the mat: their pictures read beside the window, what they say kept in the ledger, the mat printed."""

from pathlib import Path
from typing import TYPE_CHECKING, cast

from PyQt6.QtCore import QObject
from PyQt6.QtWidgets import QFileDialog

from hardkeel.airframe.checked_parts import kept_of, key_of
from hardkeel.base.errors import BadInput, HardKeelError
from hardkeel.base.late import late
from hardkeel.edits import fuselage as fuselage_edits
from hardkeel.edits import ledger as ledger_edits
from hardkeel.export.paper_sizes import PAPERS
from hardkeel.joinery.flat import FlatPiece
from hardkeel.messages import mat as say
from hardkeel.messages.faults import told
from hardkeel.sight.mat import mat_for
from hardkeel.sight.part_check import Check
from hardkeel.sight.part_photo import PartPhoto, read_part
from hardkeel.ui.document.document import Document
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.stages import Tell
from hardkeel.ui.stages.layout.check_page import CheckPage
from hardkeel.ui.stages.layout.page import LayoutPage

if TYPE_CHECKING:
    from hardkeel.export import framing, mat_sheet
    from hardkeel.storage import atomic
else:
    framing, mat_sheet = late("hardkeel.export.framing"), late("hardkeel.export.mat_sheet")
    atomic = late("hardkeel.storage.atomic")

_READING = "part"


class CheckController(QObject):
    """Carries out what the page asks for; lives as long as it."""

    def __init__(self, document: Document, page: LayoutPage, jobs: Jobs, tell: Tell) -> None:
        super().__init__(page)
        self._document, self._layout, self._jobs, self._tell = document, page, jobs, tell
        self._page: CheckPage | None = None
        self._last: PartPhoto | None = None  # what the outline is taken from
        page.made.connect(self._on_made)
        document.build_opened.connect(self._forget)

    def _on_made(self, _key: str, page: object) -> None:
        if isinstance(page, CheckPage):
            self._page = page
            page.picture_wanted.connect(self._ask)
            page.picture_given.connect(self.read)
            page.mat_wanted.connect(self._on_print)
            page.outline_wanted.connect(self._take_outline)

    def _forget(self) -> None:
        self._last = None

    def _ask(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self._layout, say.WHICH_PICTURE, "", say.PICTURES)
        if name:
            self.read(Path(name))

    def read(self, path: Path) -> None:
        """Hold the piece in hand against a picture, beside the window."""
        page = self._page
        piece = page.chosen_piece if page is not None else None
        if page is None or piece is None:
            return
        paper, scale = page.paper.currentData(), page.scale
        page.tell(say.READING.format(name=path.name))

        def work() -> tuple[PartPhoto, Check]:
            mat = mat_for(paper, PAPERS[paper]).measured(*scale)
            try:
                data = path.read_bytes()
            except OSError as fault:
                raise BadInput(path.name, f"can't be read: {fault.strerror or fault}") from None
            photo = read_part(data, path.name, mat)
            return photo, photo.check(piece)

        self._jobs.start(
            self._document.session,
            _READING,
            work,
            lambda found: self._take(piece, found),
            self._on_failed,
            left=lambda: page.tell(""),
        )

    def _take(self, piece: FlatPiece, found: object) -> None:
        page = self._page
        if page is None:
            return
        photo, check = cast("tuple[PartPhoto, Check]", found)
        self._last = photo
        key = key_of(piece, check)
        if not page.apply(
            say.check_edit(key),
            ledger_edits.note_check.of(key, kept_of(check, self._document.clock())),
        ):
            return
        page.choose(piece.name)
        tilt = photo.on.tilt if photo.on.camera is not None else None
        how = [say.hand_words(mirrored=check.mirrored, doubts=check.doubts)] if check.fits else []
        if check.fits:
            how.append(say.how_words(check.rms, check.sigma, page.unit, tilt))
        page.show_check(key, tuple(how))

    def _on_failed(self, fault: HardKeelError) -> None:
        if self._page is not None:
            why = told(fault, self._page.unit) if isinstance(fault, BadInput) else str(fault)
            self._page.tell(f"{why}.")

    def _take_outline(self) -> None:
        """Give what lies on the mat to a former as its outline; without a picture ask for one first."""
        page = self._page
        if page is None:
            return
        former, thick = page.former.currentText(), page.thick.value or 0.0
        if self._last is None:
            name, _ = QFileDialog.getOpenFileName(self._layout, say.WHICH_PICTURE, "", say.PICTURES)
            if name:
                self.outline(Path(name), former, thick)
            return
        photo = self._last
        self._jobs.start(
            self._document.session,
            _READING,
            lambda: photo.outline(thick),
            lambda rings: self._give(former, rings),
            self._on_failed,
        )

    def outline(self, path: Path, former: str, thick: float) -> None:
        """Take a picture's outline for a former, beside the window."""
        page = self._page
        if page is None:
            return
        paper, scale = page.paper.currentData(), page.scale
        page.tell(say.READING.format(name=path.name))

        def work() -> object:
            mat = mat_for(paper, PAPERS[paper]).measured(*scale)
            return read_part(path.read_bytes(), path.name, mat).outline(thick)

        self._jobs.start(
            self._document.session,
            _READING,
            work,
            lambda rings: self._give(former, rings),
            self._on_failed,
            left=lambda: page.tell(""),
        )

    def _give(self, former: str, rings: object) -> None:
        outline = cast("tuple[tuple[tuple[float, float], ...], ...]", rings)[0]
        if self._page is not None:
            self._page.apply(
                say.outline_edit(former), fuselage_edits.give_outline.of(former, outline)
            )

    def _on_print(self) -> None:
        name, _ = QFileDialog.getSaveFileName(self._layout, say.WHERE_TO, say.FILE, say.PDF_FILES)
        if name:
            self.write(Path(name))

    def write(self, path: Path) -> None:
        """Write the mat beside the window, allowed for what the printer makes of a millimetre."""
        page = self._page
        if page is None:
            return
        paper, correction = page.paper.currentData(), framing.printer_of(self._document.build)
        beside = path.with_suffix(".json")

        def work() -> None:
            pdf, data = mat_sheet.mat_files(paper, correction)
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
