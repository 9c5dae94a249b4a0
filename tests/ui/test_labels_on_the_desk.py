"""A photographed plan with coded labels on it: to scale by one press; and the page that they are printed on."""

from collections.abc import Callable
from pathlib import Path

import numpy as np
import pytest
from pypdf import PdfReader
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QImage
from pytestqt.qtbot import QtBot

from hardkeel.export.desk_labels import CODES, SIDE_MM, desk_labels_pdf
from hardkeel.export.target_sheet import targets_pdf
from hardkeel.sight.codes import codes_in
from hardkeel.ui.jobs.scans import image_from, read_scan
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.layout.label_controller import LabelController
from hardkeel.ui.stages.layout.scan_copies import greys
from tests.labelled import TALL, WIDE, Lying, photograph, seen
from tests.stages_of import layout_of, scans_of
from tests.targeted import bench

FOUR = (
    Lying(90, (-190.0, 130.0), 4.0),
    Lying(91, (185.0, 138.0), -12.0),
    Lying(92, (195.0, -125.0), 31.0),
    Lying(93, (-180.0, -130.0), 97.0),
)


def test_a_photographed_plan_is_to_scale_by_its_labels(
    qtbot: QtBot, make_window: Callable[[], MainWindow], tmp_path: Path
) -> None:
    grey = photograph(FOUR)
    picture = QImage(grey.tobytes(), WIDE, TALL, WIDE, QImage.Format.Format_Grayscale8)
    assert picture.save(str(tmp_path / "plan.jpg"), "JPEG", 92)
    window = make_window()
    window.show_stage("layout")
    layout_of(window).turn_to("paper")
    scans_of(window).lay_scan(tmp_path / "plan.jpg")
    desk = layout_of(window).paper
    qtbot.waitUntil(lambda: desk.sheet.has_image, timeout=30000)
    assert not desk.fit.find_labels.isVisible()
    qtbot.mouseClick(desk.fit.photo, Qt.MouseButton.LeftButton)
    qtbot.mouseClick(desk.fit.find_labels, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: "labels found" in desk.told.text(), timeout=30000)
    assert desk.told.text().startswith("4 labels found")
    fit = desk.calibration()
    assert fit is not None
    a, b = np.array([(-150.0, 20.0)]), np.array([(160.0, 20.0)])
    length = float(np.hypot(*(fit.to_plan(seen(a)) - fit.to_plan(seen(b)))[0]))
    told = float(
        fit.sigma_between(seen(a), seen(b))[0, 0]
    )  # along it, nearly; how it is turned nothing says
    assert length == pytest.approx(310.0, abs=3 * told)
    assert told < 0.6


@pytest.mark.parametrize("paper", ["A4", "Letter"])
def test_the_printed_page_has_six_labels_of_their_size(tmp_path: Path, paper: str) -> None:
    (tmp_path / "labels.pdf").write_bytes(desk_labels_pdf(paper))
    image, _ = image_from(read_scan(tmp_path / "labels.pdf"))
    found = codes_in(greys(image))
    assert [one.code for one in found] == list(CODES)
    per_mm = image.dotsPerMeterX() / 1000
    for one in found:
        sides = np.hypot(*np.diff(np.array([*one.corners, one.corners[0]]), axis=0).T) / per_mm
        assert sides == pytest.approx([SIDE_MM] * 4, abs=0.05)


@pytest.mark.parametrize(("paper", "size"), [("A4", 20.0), ("Letter", 12.0), ("A3", 25.0)])
def test_the_sheet_of_targets_has_all_of_them_in_their_size(
    tmp_path: Path, paper: str, size: float
) -> None:
    survey = bench(0).survey
    (tmp_path / "targets.pdf").write_bytes(targets_pdf(survey, size, paper))
    pages = PdfReader(tmp_path / "targets.pdf").pages
    text = "".join(page.extract_text() for page in pages)
    assert "27  twenty-seven" in text
    image, _ = image_from(read_scan(tmp_path / "targets.pdf"))
    found = codes_in(greys(image))
    codes = [target.code for target in survey.targets]
    assert [one.code for one in found] == codes[: len(found)]
    assert len(found) == len(codes) or len(pages) > 1
    per_mm = image.dotsPerMeterX() / 1000
    for one in found:
        sides = np.hypot(*np.diff(np.array([*one.corners, one.corners[0]]), axis=0).T) / per_mm
        assert sides == pytest.approx([size] * 4, abs=0.06)


def test_a_printer_that_makes_it_too_long_is_allowed_for(tmp_path: Path) -> None:
    (tmp_path / "labels.pdf").write_bytes(desk_labels_pdf("A4", (1.01, 0.99)))
    image, _ = image_from(read_scan(tmp_path / "labels.pdf"))
    per_mm = image.dotsPerMeterX() / 1000
    (u0, v0), (u1, _), (_, v2), _ = codes_in(greys(image))[0].corners
    assert (u1 - u0) / per_mm * 1.01 == pytest.approx(SIDE_MM, abs=0.06)
    assert (v2 - v0) / per_mm * 0.99 == pytest.approx(SIDE_MM, abs=0.06)


def test_the_page_is_written_where_it_is_wanted(
    qtbot: QtBot, make_window: Callable[[], MainWindow], tmp_path: Path
) -> None:
    window = make_window()
    window.show_stage("layout")
    layout_of(window).turn_to("paper")
    found = layout_of(window).findChild(LabelController)
    assert found is not None
    found.write(tmp_path / "labels.pdf")
    qtbot.waitUntil(lambda: "labels.pdf is written" in window.notice.text, timeout=15000)
    assert (tmp_path / "labels.pdf").read_bytes().startswith(b"%PDF")
