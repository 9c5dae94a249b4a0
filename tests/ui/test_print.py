"""Templates as a printer gets them: rendered at 300 dpi and measured in pixels."""

from pathlib import Path

import numpy as np
import pytest
from PyQt6 import QtPdf
from PyQt6.QtCore import QSize
from PyQt6.QtGui import QImage

from hardkeel.export.paper import OVERLAP_MM, Page, templates_pdf
from hardkeel.export.paper_sizes import PAPERS
from hardkeel.export.plan_drawing import PlanDrawing, PlanLine

DPI = 300
MM = DPI / 25.4
WIDE = PlanDrawing("rule", [PlanLine("CUT", ((0, 0), (400, 0), (400, 60), (0, 60)), closed=True)])


def pages(pdf: bytes, folder: Path, paper: str) -> list[np.ndarray]:
    """Each page as darkness, rows from the top."""
    (folder / "a.pdf").write_bytes(pdf)
    document = QtPdf.QPdfDocument(None)
    assert document.load(str(folder / "a.pdf")) == QtPdf.QPdfDocument.Error.None_
    found = []
    for number in range(document.pageCount()):
        points = document.pagePointSize(number)
        wide, tall = points.width() * DPI / 72, points.height() * DPI / 72
        assert (wide / MM, tall / MM) == pytest.approx(PAPERS[paper], abs=0.1)
        image = document.render(number, QSize(round(wide), round(tall)))
        paper_white = QImage(image.size(), QImage.Format.Format_Grayscale8)
        paper_white.fill(255)
        ink = image.convertToFormat(QImage.Format.Format_RGBA8888)
        bits = ink.constBits()
        assert bits is not None
        rgba = np.frombuffer(bits.asstring(ink.sizeInBytes()), np.uint8).reshape(
            ink.height(), ink.bytesPerLine() // 4, 4
        )
        rgba = rgba[:, : ink.width()].astype(float)
        light = rgba[..., :3].mean(axis=2) * rgba[..., 3] / 255 + 255 - rgba[..., 3]
        found.append(255 - light)
    return found


def longest_run(dark: np.ndarray) -> tuple[int, int]:
    """The longest stretch of ink."""
    edges = np.flatnonzero(np.diff(np.concatenate([[0], (dark > 60).astype(int), [0]])))
    runs = edges.reshape(-1, 2)
    start, end = max(runs.tolist(), key=lambda run: run[1] - run[0])
    return start, end


def bars(page: np.ndarray) -> tuple[float, float]:
    """Lengths of the bar across and of the bar along the page, mm."""
    foot = page[round(-12 * MM) : round(-8 * MM)]
    row = int(np.argmax((foot > 60).sum(axis=1)))
    a, b = longest_run(foot[row])
    side = page[:, round(-9 * MM) : round(-5 * MM)]
    column = int(np.argmax((side > 60).sum(axis=0)))
    c, d = longest_run(side[:, column])
    return (b - a) / MM, (d - c) / MM


@pytest.mark.parametrize("paper", list(PAPERS))
def test_bars_are_a_hundred_millimetres_both_ways(tmp_path: Path, paper: str) -> None:
    for page in pages(templates_pdf([WIDE], "A build", Page(paper)), tmp_path, paper):
        across, along = bars(page)
        assert across == pytest.approx(100.0, abs=0.1)
        assert along == pytest.approx(100.0, abs=0.1)


def test_a_corrected_drawing_is_true_once_the_printer_has_scaled_it(tmp_path: Path) -> None:
    page = Page("A4", (1.016, 0.99))
    for sheet in pages(templates_pdf([WIDE], "A build", page), tmp_path, "A4"):
        across, along = bars(sheet)
        assert across * 1.016 == pytest.approx(100.0, abs=0.1)
        assert along * 0.99 == pytest.approx(100.0, abs=0.1)


def test_tiles_laid_over_their_crosses_are_the_drawing(tmp_path: Path) -> None:
    """400 mm on A4: the lower edge goes on from tile to tile, and is 400 mm in all."""
    page = Page("A4")
    sheets = pages(templates_pdf([WIDE], "A build", page), tmp_path, "A4")
    assert len(sheets) == 2
    total = 0.0
    for sheet in sheets:
        # turned to take fewer pages, the plate's length runs up the page and its far edge along the margin
        body = sheet[round(33.5 * MM) : round(-19.5 * MM), round(8 * MM) : round(75 * MM)]
        column = int(np.argmax((body > 60).sum(axis=0)))
        start, end = longest_run(body[:, column])
        total += (end - start) / MM
    assert total - OVERLAP_MM == pytest.approx(400.0, abs=0.4)
