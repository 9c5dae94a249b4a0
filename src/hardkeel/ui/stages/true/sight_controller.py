"""Photos for Sight: asked for, read beside the window, kept in the build, given to the page."""

from collections.abc import Sequence
from pathlib import Path

import numpy as np
from PyQt6.QtCore import QObject, QTimer
from PyQt6.QtGui import QImage
from PyQt6.QtWidgets import QFileDialog

from hardkeel.base.errors import BadInput, GivenUp, HardKeelError
from hardkeel.edits import sight as edits
from hardkeel.export.framing import printer_of
from hardkeel.export.paper_sizes import paper_for
from hardkeel.export.target_sheet import USUAL, targets_pdf
from hardkeel.messages import shell
from hardkeel.messages import sight as say
from hardkeel.messages import targets as targets_say
from hardkeel.practice.photographing import SIZE, camera_for, film_focal, picture_of
from hardkeel.practice.standing import hidden_of
from hardkeel.project.model import Build
from hardkeel.sight.assigning import Assigned, reordered
from hardkeel.sight.pictures import jpeg_of, pixels_of, shrunk
from hardkeel.sight.targets import sighted
from hardkeel.sight.viewpoints import Place, place_named
from hardkeel.sight.webcam import picture_from
from hardkeel.storage.atomic import write_atomically
from hardkeel.survey.cameras import LEAST_MARKS
from hardkeel.ui.document.document import Document
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.jobs.progress import Progress
from hardkeel.ui.jobs.shots import Heap, Shot, in_order, read_shots, shot_of
from hardkeel.ui.stages import Tell
from hardkeel.ui.stages.true.sight_page import SightPage
from hardkeel.ui.stages.true.stage import TrueStage
from hardkeel.ui.stages.true.watched_folder import WatchedFolder

_SMALL_PX = 1600
_READING = "photos"
_LOOK_MS = 150


class SightController(QObject):
    """Carries out what Sight asks for; lives as long as the stage."""

    def __init__(
        self,
        document: Document,
        stage: TrueStage,
        jobs: Jobs,
        tell: Tell,
    ) -> None:
        super().__init__(stage)
        self._document, self._stage = document, stage
        self._jobs, self._tell = jobs, tell
        self._page: SightPage | None = None
        self._waiting: list[Path] = []  # photos to read when those at hand are read
        self._faults: list[str] = []
        self._progress: Progress | None = None
        self._said = -1
        self._look = QTimer(self)
        self._look.setInterval(_LOOK_MS)
        self._look.timeout.connect(self._show_progress)
        self.watched = WatchedFolder(document, jobs, self)
        self.watched.arrived.connect(self.open_photos)
        self.watched.lost.connect(self._on_lost)
        document.build_opened.connect(self._on_opened)
        stage.made.connect(self._on_made)

    def _on_made(self, page: object) -> None:
        if isinstance(page, SightPage):
            self._page = page
            page.photo_wanted.connect(self._ask)
            page.photos_dropped.connect(self.open_photos)
            page.targets.print_wanted.connect(self._print_targets)
            page.targets.watch_wanted.connect(self._watch)
            page.sample_wanted.connect(lambda place: self.photograph(place_named(place)))
            page.webcam_wanted.connect(self.take_by)
            page.smaller_wanted.connect(self._shrink)
            page.image_wanted.connect(self._show)
            if page.photo:
                self._show(page.photo)

    def _ask(self) -> None:
        names, _ = QFileDialog.getOpenFileNames(self._stage, say.OPEN_WHICH, "", say.PHOTO_FILES)
        self.open_photos([Path(name) for name in names])

    def open_photo(self, path: Path) -> None:
        """Read a photo beside the window and lay it down."""
        self.open_photos([path])

    def open_photos(self, paths: Sequence[Path]) -> None:
        """Read photos beside the window, look for targets in them, and lay them down."""
        self._waiting += paths
        self._read_next()

    def _read_next(self) -> None:
        """Read all that wait; what comes in the meantime is read after them."""
        if not self._waiting or self._jobs.is_running(self._document.session, _READING):
            return
        paths, self._waiting = tuple(self._waiting), []
        survey = self._document.build.surveyed
        progress = self._progress = Progress()
        self._said = -1
        self._show_progress(len(paths))
        self._look.start()

        def work() -> Heap:
            heap = read_shots(paths, looked_for=bool(survey.targets), progress=progress)
            return in_order(heap, survey)

        self._jobs.start(
            self._document.session,
            _READING,
            work,
            self._on_read,
            self._on_unread,
            stop=progress.stop,
            left=self._leave,
        )

    def _show_progress(self, total: int = 0) -> None:
        """How many are read, said when there is one more."""
        progress = self._progress
        if progress is not None and progress.done != self._said:
            self._said = progress.done
            words = say.reading_words(progress.done, progress.total or total)
            self._tell(words, (shell.LEAVE_IT_OFF, progress.stop))

    def _leave(self) -> None:
        """Nothing is read any more."""
        self._look.stop()
        self._progress = None
        self._tell("")

    def _on_read(self, found: object) -> None:
        self._leave()
        self._lay(found)
        self._read_next()

    def _on_unread(self, fault: HardKeelError) -> None:
        self._leave()
        if not isinstance(fault, GivenUp):  # the builder knows
            self._on_failed(fault)
        self._read_next()

    def _on_opened(self) -> None:
        """Another build: photos for the one before are not its own."""
        self._waiting, self._faults = [], []
        self._show_watched()

    def _watch(self) -> None:
        """Watch a folder, or no more."""
        if self.watched.folder is not None:
            self.watched.leave()
        else:
            name = QFileDialog.getExistingDirectory(self._stage, targets_say.WATCH_WHICH)
            if name:
                self.watched.watch(Path(name))
        self._show_watched()

    def _on_lost(self, why: str) -> None:
        self._tell(f"{why}.")
        self._show_watched()

    def _show_watched(self) -> None:
        folder = self.watched.folder
        if self._page is not None:
            self._page.targets.show_watched(folder.name if folder is not None else "")

    def _print_targets(self) -> None:
        """Write the sheet of targets where it is wanted."""
        build = self._document.build
        name, _ = QFileDialog.getSaveFileName(
            self._stage, targets_say.PRINT, targets_say.FILE, targets_say.PDF_FILES
        )
        if not name:
            return
        survey, path = build.surveyed, Path(name)
        unit = self._stage.unit
        where = targets_say.where_lines(build, unit)
        size, paper = survey.target_size or USUAL, paper_for(unit)
        self._jobs.start(
            self._document.session,
            "targets",
            lambda: write_atomically(
                path, targets_pdf(survey, size, paper, printer_of(build), where=where)
            ),
            lambda _done: self._tell(targets_say.written(path.name, len(survey.targets))),
            self._on_failed,
        )

    def take_by(self, device: str) -> None:
        """Let a webcam take a picture, and lay it down as one from a file."""
        build = self._document.build
        name = f"{say.BY_WEBCAM} {len(build.surveyed.photos) + 1}"
        self._tell(say.TAKING)

        def work() -> Heap:
            shot = shot_of(picture_from(device), name, looked_for=bool(build.surveyed.targets))
            return in_order(Heap((shot,)), build.surveyed)

        self._jobs.start(self._document.session, "photo", work, self._lay, self._on_failed)

    def photograph(self, place: Place) -> None:
        """Let the stand-in camera take the hidden airframe's picture."""
        self._tell(say.DRAWING)
        build = self._document.build
        seed = len(build.surveyed.photos)
        self._jobs.start(
            self._document.session,
            "photo",
            lambda: _sample(build, place, seed),
            self._lay,
            self._on_failed,
            left=lambda: self._tell(""),
        )

    def _on_failed(self, fault: HardKeelError) -> None:
        self._tell(f"{fault}.")

    def _lay(self, found: object) -> None:
        assert isinstance(found, Heap)  # noqa: S101  it is what was asked for
        heap = found
        here = {one.original for one in self._document.build.surveyed.photos}
        fresh = [one for one in heap.shots if one.original not in here]
        again = [one.name for one in heap.shots if one.original in here]
        marked = [one for one in fresh if len(one.codes) >= LEAST_MARKS]
        faults = [*heap.faults, *map(targets_say.already, again)]
        if self._document.build.surveyed.targets:
            faults += [
                targets_say.too_few(one.name, len(one.codes)) for one in fresh if one not in marked
            ]
        self._tell("")
        if marked:
            faults += self._lay_targets(marked, heap.order)
        for one in fresh:
            if one not in marked:
                faults += self._lay_clicked(one)
        self._faults += faults
        if self._faults and not self._waiting:  # else the next reading would take it away
            self._tell("\n".join(self._faults))
            self._faults = []

    def _lay_targets(self, shots: Sequence["Shot"], order: Assigned | None) -> list[str]:
        """Photographs that show targets: nothing is to be clicked; what was wrong with them."""
        images = self._document.session.images
        taken = tuple(one.taken_as(images.add(one.picture.jpeg, ".jpg", "photos")) for one in shots)
        build = self._document.build
        survey = build.surveyed if order is None else reordered(build.surveyed, order)
        seen = sighted(survey, taken, build.phase)
        now = self._document.clock()
        try:
            self._document.apply(
                targets_say.TAKE_EDIT, edits.take_targets.of(taken, now, order=order)
            )
        except BadInput as fault:
            return [f"{fault}."]
        if self._page is not None:
            told = [
                *targets_say.order_lines(order, build.surveyed),
                *targets_say.told_lines(survey, seen.told),
            ]
            self._page.targets.show_seen(targets_say.seen_lines(seen), told)
            if seen.photos:
                self._page.take_photo(self._document.build.surveyed.photos[-1].id)
                self._page.focus_work()
        return []

    def _lay_clicked(self, one: "Shot") -> list[str]:
        """A photograph whose marks are to be clicked; what was wrong with it."""
        picture, original = one.picture, one.original
        image = self._document.session.images.add(picture.jpeg, ".jpg", "photos")
        now = self._document.clock()
        try:
            self._document.apply(
                say.PHOTO_EDIT,
                edits.add_photo.of(image, picture.size, picture.focal, now, original=original),
            )
        except BadInput as fault:
            return [f"{fault}."]
        if self._page is not None:
            self._page.take_photo(self._document.build.surveyed.photos[-1].id)
            self._page.focus_work()
        return []

    def _shrink(self) -> None:
        """Keep the photo in hand smaller; its pixels stay those of the whole picture."""
        page = self._page
        held = self._document.build.surveyed.photo(page.photo) if page is not None else None
        data = self._document.session.images.read(held.image) if held is not None else None
        if held is None or data is None:
            return
        small = shrunk(data, _SMALL_PX)
        if small == data:
            return
        image, photo = self._document.session.images.add(small, ".jpg", "photos"), held.id
        self._document.apply(say.SMALLER_EDIT, edits.replace_image.of(photo, image))
        self._show(photo)

    def _show(self, photo: str) -> None:
        held = self._document.build.surveyed.photo(photo)
        data = self._document.session.images.read(held.image) if held is not None else None
        if data is None:
            if self._page is not None:
                self._page.tell(say.NOT_HERE)
            return
        image_data = data
        self._jobs.start(
            self._document.session,
            "photo shown",
            lambda: pixels_of(image_data),
            lambda pixels: self._give(photo, pixels),
            self._on_failed,
        )

    def _give(self, photo: str, pixels: object) -> None:
        if self._page is None or not isinstance(pixels, np.ndarray):
            return
        whole = np.ascontiguousarray(pixels, dtype=np.uint8)
        high, wide = whole.shape[:2]
        image = QImage(whole.tobytes(), wide, high, 3 * wide, QImage.Format.Format_RGB888).copy()
        self._page.show_image(photo, image, whole)


def _sample(build: Build, place: Place, seed: int) -> Heap:
    rng = np.random.default_rng(seed)
    hidden = hidden_of(build)
    camera = camera_for(hidden, place, rng)
    data = jpeg_of(picture_of(hidden, build.fuselage, camera, rng), film_focal(SIZE))
    name = f"{say.SAMPLE} {seed + 1}"
    return Heap((shot_of(data, name, looked_for=bool(build.surveyed.targets)),))
