"""Labels at a surface's corners: printed, their pictures read beside the window, the heights noted."""

from collections.abc import Sequence
from pathlib import Path

from PyQt6.QtCore import QObject
from PyQt6.QtWidgets import QFileDialog

from hardkeel.airframe.flat_targets import SIZE_MM, flat_by_photos, flat_survey
from hardkeel.base.errors import BadInput, HardKeelError
from hardkeel.edits import tail as edits
from hardkeel.export.framing import printer_of
from hardkeel.export.paper_sizes import paper_for
from hardkeel.export.target_sheet import targets_pdf
from hardkeel.messages import sight as sight_say
from hardkeel.messages import targets as say
from hardkeel.messages.names import surface_name
from hardkeel.storage.atomic import write_atomically
from hardkeel.ui.document.document import Document
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.jobs.shots import Heap, read_shots
from hardkeel.ui.stages import Tell
from hardkeel.ui.stages.tail.flat_page import FlatPage

_READING = "photos of the tail"


class FlatTargets(QObject):
    """Carries out what the page asks for of labels; lives as long as it."""

    def __init__(self, document: Document, page: FlatPage, jobs: Jobs, tell: Tell) -> None:
        super().__init__(page)
        self._document, self._page, self._jobs, self._tell = document, page, jobs, tell
        page.targets.print_wanted.connect(self._print)
        page.photos_dropped.connect(self.take)
        document.build_opened.connect(lambda: page.targets.show_seen((), ()))

    def take(self, paths: Sequence[Path]) -> None:
        """Read pictures of the surface in hand, and note the heights that they give, in the phase in hand."""
        page, surface = self._page, self._page.surface
        if surface is None:
            return
        files, name, phase = tuple(paths), surface.id, page.phase
        page.tell(sight_say.READING.format(name=", ".join(path.name for path in files)))

        def lay(found: object) -> None:
            if isinstance(found, Heap):
                self._lay(name, phase, found)

        self._jobs.start(
            self._document.session,
            _READING,
            lambda: read_shots(files, looked_for=True),
            lay,
            self._on_failed,
            left=lambda: page.tell(""),
        )

    def _lay(self, name: str, phase: str, heap: Heap) -> None:
        page = self._page
        surface = next((one for one in self._document.build.tail if one.id == name), None)
        if surface is None:
            return
        faults = list(heap.faults)
        # only what they say is kept: the pictures themselves are of no further use
        taken = tuple(shot.taken_as(f"{i}") for i, shot in enumerate(heap.shots))
        try:
            seen = flat_by_photos(surface, taken, phase)  # type: ignore[arg-type]
        except BadInput as fault:
            self._on_failed(fault)
            return
        words = say.of_surface(upright=surface.upright)
        told = say.told_lines(seen.sighted.survey, seen.sighted.told, words)
        page.targets.show_seen(say.seen_lines(seen.sighted), told)
        page.tell("\n".join(faults))
        if seen.heights:
            page.apply(say.flat_edit(surface_name(name)), edits.take_corners.of(name, seen.heights))

    def _print(self) -> None:
        name, _ = QFileDialog.getSaveFileName(self._page, say.PRINT, say.FLAT_FILE, say.PDF_FILES)
        if name:
            self.write(Path(name))

    def write(self, path: Path) -> None:
        """Write the sheet of labels for the surface in hand beside the window."""
        surface, page = self._page.surface, self._page
        if surface is None:
            return
        paper, correction = paper_for(page.unit), printer_of(self._document.build)

        def work() -> None:
            words = say.of_surface(upright=surface.upright)
            data = targets_pdf(flat_survey(surface), SIZE_MM, paper, correction, words=words)
            write_atomically(path, data)

        count = len(flat_survey(surface).targets)
        self._jobs.start(
            self._document.session,
            "flat targets",
            work,
            lambda _done: self._tell(say.written(path.name, count), well=True),
            self._on_failed,
            writes=True,
        )

    def _on_failed(self, why: HardKeelError) -> None:
        self._page.tell(f"{why}.")
