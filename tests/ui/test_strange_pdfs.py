"""PDF files that would take the window with them: they end in a process of their own, with a sentence."""

import random
from collections.abc import Callable
from pathlib import Path

import pytest
from pytestqt.qtbot import QtBot

from hardkeel.base.errors import BadInput, GivenUp
from hardkeel.ui.jobs.scans import image_from, pages_of, read_scan
from hardkeel.ui.shell.window import MainWindow
from tests.stages_of import layout_of, scans_of


def pdf_of(path: Path, content: bytes) -> Path:
    """A page of 595 by 842 points with this content."""
    objects = [
        b"<< /Type /Catalog /Pages 2 0 R >>",
        b"<< /Type /Pages /Kids [3 0 R] /Count 1 >>",
        b"<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Contents 4 0 R /Resources << >> >>",
        b"<< /Length %d >>\nstream\n%s\nendstream" % (len(content), content),
    ]
    data, places = b"%PDF-1.4\n", []
    for number, one in enumerate(objects, 1):
        places.append(len(data))
        data += b"%d 0 obj\n%s\nendobj\n" % (number, one)
    start = len(data)
    data += b"xref\n0 %d\n0000000000 65535 f \n" % (len(objects) + 1)
    data += b"".join(b"%010d 00000 n \n" % place for place in places)
    data += b"trailer << /Size %d /Root 1 0 R >>\nstartxref\n%d\n%%%%EOF" % (
        len(objects) + 1,
        start,
    )
    path.write_bytes(data)
    return path


def scribble(strokes: int) -> bytes:
    """Wide curves over the whole page; each is a stroke of its own."""
    rng = random.Random(1)
    figures = [" ".join(f"{rng.uniform(0, 600):.0f}" for _ in range(8)) for _ in range(100)]
    lines = []
    for i in range(strokes):
        x, y, *curve = figures[i % len(figures)].split(" ")
        lines.append(f"{1 + i % 40} w {x} {y} m {' '.join(curve)} c S")
    return "\n".join(lines).encode()


def test_a_page_that_is_sound_is_read(tmp_path: Path) -> None:
    path = pdf_of(tmp_path / "plan.pdf", scribble(20))
    assert pages_of(path) == 1
    image, _ = image_from(read_scan(path))
    assert image.width() == 3306


def test_a_page_of_endless_strokes_is_left_off_in_its_time(tmp_path: Path) -> None:
    path = pdf_of(tmp_path / "endless.pdf", scribble(400_000))
    with pytest.raises(BadInput, match="more than 1 seconds to draw"):
        read_scan(path, seconds=1)


def test_reading_is_left_off_when_the_builder_asks(tmp_path: Path) -> None:
    path = pdf_of(tmp_path / "plan.pdf", scribble(20))
    looked = []

    def step(done: int, total: int) -> None:
        looked.append(done)
        if len(looked) == 2:
            raise GivenUp("stopped")

    with pytest.raises(GivenUp):
        read_scan(path, step=step)
    assert len(looked) == 2


def test_the_notice_offers_to_leave_a_long_page_off(
    qtbot: QtBot, make_window: Callable[[], MainWindow], tmp_path: Path
) -> None:
    window = make_window()
    path = pdf_of(tmp_path / "endless.pdf", scribble(400_000))
    window.show_stage("layout")
    layout_of(window).turn_to("paper")
    scans_of(window).lay_scan(path)
    assert "Reading endless.pdf" in window.notice.text
    leave = next(one for one in window.notice.buttons if one.text() == "Leave it off")
    leave.click()
    qtbot.waitUntil(lambda: not window.jobs.is_running(window.document.session, "scan"))
    assert window.document.build.plans == ()
    assert not window.notice.text
