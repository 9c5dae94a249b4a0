"""Photos for Sight: asked for, read beside the window, kept in the build, given to the page."""

import hashlib
from collections.abc import Callable
from pathlib import Path
from typing import cast

import numpy as np
from PyQt6.QtCore import QObject
from PyQt6.QtGui import QImage
from PyQt6.QtWidgets import QFileDialog

from hardkeel.base.errors import BadInput, HardKeelError
from hardkeel.edits import sight as edits
from hardkeel.messages import sight as say
from hardkeel.practice.hidden import hidden_from
from hardkeel.practice.photographing import SIZE, camera_for, film_focal, picture_of
from hardkeel.project.model import Build
from hardkeel.sight.pictures import Picture, jpeg_of, pixels_of, read_picture, shrunk
from hardkeel.sight.viewpoints import Place, place_named
from hardkeel.ui.document.document import Document
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.stages.true.sight_page import SightPage
from hardkeel.ui.stages.true.stage import TrueStage

_SMALL_PX = 1600


class SightController(QObject):
    """Carries out what Sight asks for; lives as long as the stage."""

    def __init__(
        self,
        document: Document,
        stage: TrueStage,
        jobs: Jobs,
        tell: Callable[[str], object],
    ) -> None:
        super().__init__(stage)
        self._document, self._stage = document, stage
        self._jobs, self._tell = jobs, tell
        self._page: SightPage | None = None
        stage.made.connect(self._on_made)

    def _on_made(self, page: object) -> None:
        if isinstance(page, SightPage):
            self._page = page
            page.photo_wanted.connect(self._ask)
            page.sample_wanted.connect(lambda place: self.photograph(place_named(place)))
            page.smaller_wanted.connect(self._shrink)
            page.image_wanted.connect(self._show)
            if page.photo:
                self._show(page.photo)

    def _ask(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self._stage, say.OPEN_WHICH, "", say.PHOTO_FILES)
        if name:
            self.open_photo(Path(name))

    def open_photo(self, path: Path) -> None:
        """Read a photo beside the window and lay it down."""
        self._tell(say.READING.format(name=path.name))
        self._jobs.start(
            self._document.session,
            "photo",
            lambda: _read(path),
            self._lay,
            self._on_failed,
            left=lambda: self._tell(""),
        )

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
        if not isinstance(found, tuple):
            return
        picture, original = cast("tuple[Picture, str]", found)
        image = self._document.session.images.add(picture.jpeg, ".jpg", "photos")
        now = self._document.clock()
        try:
            self._document.apply(
                say.PHOTO_EDIT,
                edits.add_photo.of(image, picture.size, picture.focal, now, original=original),
            )
        except BadInput as fault:
            self._tell(f"{fault}.")
            return
        self._tell("")
        if self._page is not None:
            self._page.take_photo(self._document.build.surveyed.photos[-1].id)
            self._page.focus_work()

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


def _read(path: Path) -> tuple[Picture, str]:
    try:
        data = path.read_bytes()
    except OSError as fault:
        raise BadInput(path.name, f"can't be read: {fault.strerror or fault}") from fault
    return read_picture(data, path.name), hashlib.sha256(data).hexdigest()


def _sample(build: Build, place: Place, seed: int) -> tuple[Picture, str]:
    rng = np.random.default_rng(seed)
    hidden = hidden_from(build.surveyed, build.hidden or {})
    camera = camera_for(hidden, place, rng)
    data = jpeg_of(picture_of(hidden, build.fuselage, camera, rng), film_focal(SIZE))
    return read_picture(data, say.SAMPLE), hashlib.sha256(data).hexdigest()
