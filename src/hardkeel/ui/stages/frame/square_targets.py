"""Targets on a frame that is squared: laid out, printed, their pictures read beside the window."""

from collections.abc import Sequence
from pathlib import Path

from PyQt6.QtCore import QObject
from PyQt6.QtWidgets import QFileDialog

from hardkeel.airframe.frame_targets import SIZE_MM, frame_targets, laid_frame
from hardkeel.base.errors import BadInput, HardKeelError
from hardkeel.edits import squaring as edits
from hardkeel.export.framing import printer_of
from hardkeel.export.paper_sizes import paper_for
from hardkeel.export.target_sheet import targets_pdf
from hardkeel.fuselage.model import Fuselage, Squaring
from hardkeel.fuselage.squaring import measured_survey
from hardkeel.messages import sight as sight_say
from hardkeel.messages import targets as say
from hardkeel.sight.targets import sighted
from hardkeel.storage.atomic import write_atomically
from hardkeel.ui.document.document import Document
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.jobs.shots import Heap, read_shots
from hardkeel.ui.stages import Tell
from hardkeel.ui.stages.frame.square_page import SquarePage

_READING = "photos of the frame"


class SquareTargets(QObject):
    """Carries out what the page asks for of targets; lives as long as it."""

    def __init__(self, document: Document, page: SquarePage, jobs: Jobs, tell: Tell) -> None:
        super().__init__(page)
        self._document, self._page, self._jobs, self._tell = document, page, jobs, tell
        card = page.targets
        card.lay_wanted.connect(
            lambda: page.apply(say.FRAME_LAY_EDIT, edits.lay_square_targets.of())
        )
        card.drop_wanted.connect(
            lambda: page.apply(say.FRAME_DROP_EDIT, edits.drop_square_targets.of())
        )
        card.print_wanted.connect(self._print)
        page.photos_dropped.connect(self.take)
        page.refreshed.connect(self._show)
        document.build_opened.connect(lambda: card.show_seen((), ()))
        self._show()

    def _show(self) -> None:
        """How many there are and could be; no card without a board."""
        fuselage, card = self._document.build.fuselage, self._page.targets
        card.setVisible(fuselage is not None and fuselage.board is not None)
        if fuselage is None or fuselage.board is None:
            return
        squaring = fuselage.squaring or Squaring()
        try:
            more = len(frame_targets(fuselage))
        except BadInput:  # no former yet
            more = 0
        count = len(squaring.targets)
        lines = say.frame_lines(count, squaring.target_size or SIZE_MM, len(squaring.photos))
        card.show_laid(lines, more, there=count > 0)
        card.watch.hide()

    def take(self, paths: Sequence[Path]) -> None:
        """Read pictures beside the window and lay down what they show."""
        fuselage = self._document.build.fuselage
        if fuselage is None or not (fuselage.squaring or Squaring()).targets:
            self._page.tell(say.FRAME_NONE)
            return
        self._page.tell(sight_say.READING.format(name=", ".join(path.name for path in paths)))
        files = tuple(paths)
        self._jobs.start(
            self._document.session,
            _READING,
            lambda: read_shots(files, looked_for=True),
            self._lay,
            self._on_failed,
            left=lambda: self._page.tell(""),
        )

    def _lay(self, heap: object) -> None:
        fuselage, page = self._document.build.fuselage, self._page
        if fuselage is None or not isinstance(heap, Heap):
            return
        squaring = fuselage.squaring or Squaring()
        here = {one.original for one in squaring.photos}
        faults = [*heap.faults, *(say.already(s.name) for s in heap.shots if s.original in here)]
        images = self._document.session.images
        taken = tuple(
            shot.taken_as(images.add(shot.picture.jpeg, ".jpg", "photos"))
            for shot in heap.shots
            if shot.original not in here
        )
        page.tell("\n".join(faults))
        if not taken:
            return
        phase = self._document.build.phase or "dry"
        survey = measured_survey(fuselage)
        seen = sighted(survey, taken, phase)
        page.targets.show_seen(
            say.seen_lines(seen), say.told_lines(seen.survey, seen.told, say.of_frame())
        )
        if seen.photos:
            now = self._document.clock()
            page.apply(say.FRAME_TAKE_EDIT, edits.take_square_photos.of(taken, phase, now))

    def _print(self) -> None:
        name, _ = QFileDialog.getSaveFileName(self._page, say.PRINT, say.FRAME_FILE, say.PDF_FILES)
        if name:
            self.write(Path(name))

    def write(self, path: Path) -> None:
        """Write the sheet beside the window."""
        build = self._document.build
        fuselage: Fuselage | None = build.fuselage
        if fuselage is None or fuselage.board is None:
            return
        survey, paper = laid_frame(fuselage), paper_for(self._page.unit)
        size, correction = survey.target_size or SIZE_MM, printer_of(build)
        self._jobs.start(
            self._document.session,
            "frame targets",
            lambda: write_atomically(
                path, targets_pdf(survey, size, paper, correction, words=say.of_frame())
            ),
            lambda _done: self._tell(say.written(path.name, len(survey.targets)), well=True),
            self._on_failed,
            writes=True,
        )

    def _on_failed(self, why: HardKeelError) -> None:
        self._page.tell(f"{why}.")
