"""Photos in the log: the way they were held, nothing of where they were taken, and kept with the build."""

import io
from collections.abc import Callable
from pathlib import Path

import pytest
from PIL import Image
from pypdf import PdfReader

from hardkeel.edits.truing import add_note
from hardkeel.export.diary import DayByDay, diary_pdf
from hardkeel.storage.package import load
from hardkeel.ui.jobs.scans import PHOTO_PX, read_photo
from hardkeel.ui.shell.window import MainWindow
from tests.stages_of import log_of


def photo(path: Path, size: tuple[int, int] = (2400, 1200), orientation: int = 6) -> Path:
    """A photo that was held upright, red at what is its left edge as it lies in the file, taken somewhere."""
    image = Image.new("RGB", size, "white")
    image.paste((200, 20, 20), (0, 0, size[0] // 4, size[1]))
    exif = Image.Exif()
    exif[0x0112] = orientation
    exif[0x010F] = "a maker"
    exif.get_ifd(0x8825)[1] = "N"
    image.save(path, "JPEG", exif=exif, quality=90)
    return path


def test_a_photo_is_turned_made_smaller_and_tells_nothing_of_where(tmp_path: Path) -> None:
    data = read_photo(photo(tmp_path / "p.jpg"))
    made = Image.open(io.BytesIO(data))
    assert made.size == (PHOTO_PX // 2, PHOTO_PX)
    assert dict(made.getexif()) == {}
    assert b"a maker" not in data
    top, bottom = made.getpixel((400, 20)), made.getpixel((400, 1580))
    assert isinstance(top, tuple)
    assert isinstance(bottom, tuple)
    assert top[0] > 150 > top[1]
    assert min(bottom) > 240


def test_a_photo_goes_into_the_log_the_file_and_the_diary(
    window: MainWindow, tmp_path: Path, make_window: Callable[[], MainWindow]
) -> None:
    window.show_stage("log")
    page = log_of(window)
    page.note.setText("Fillet glued")
    page.add_photo(photo(tmp_path / "p.jpg"))
    entry = window.document.build.log[-1]
    assert entry.text == "Fillet glued"
    assert entry.photos[0].startswith("photos/")
    assert page.note.text() == ""
    assert page.photos.isVisible()
    assert "Fillet glued" in page.photos.shown[0][1].text()
    window.save_to(tmp_path / "model.keel")
    loaded = load(tmp_path / "model.keel")
    assert set(loaded.attached()) == set(entry.photos)
    pages = PdfReader(
        io.BytesIO(diary_pdf(loaded.build, DayByDay(loaded.build, "mm"), loaded.attached()))
    ).pages
    assert sum(len(one.images) for one in pages) == 1
    window.document.stack.undo()
    assert not page.photos.isVisible()


def test_what_is_no_photo_is_told_and_nothing_is_written(
    window: MainWindow, tmp_path: Path
) -> None:
    (tmp_path / "broken.jpg").write_bytes(b"no photo at all")
    window.show_stage("log")
    count = len(window.document.build.log)
    log_of(window).add_photo(tmp_path / "broken.jpg")
    assert len(window.document.build.log) == count


@pytest.mark.parametrize("there", [True, False])
def test_a_photo_that_is_not_here_leaves_its_words(window: MainWindow, there: bool) -> None:
    name = "photos/0123456789abcdef0123.jpg"
    now = window.document.clock()
    window.document.apply("x", add_note.of("Covered" if there else "", now, (name,)))
    window.show_stage("log")
    words = log_of(window).photos.shown[0][1].text()
    assert words.endswith("Covered" if there else "A photo")
    assert not log_of(window).photos.shown[0][0].isVisible()
