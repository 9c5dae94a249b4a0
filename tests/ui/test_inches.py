"""Whoever reads inches meets no millimetre: every page of the demo, with a plan on the desk."""

import re
from collections.abc import Iterator

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QAbstractButton, QApplication, QLabel, QLineEdit, QTableView, QWidget

from hardkeel.edits.paper import add_plan
from hardkeel.paper.model import KnownLength, KnownPoint, Plan
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.layout.scan_marks import scan_marks
from tests.ui.test_accessible import PLACES, turned_to

METRIC = re.compile(r"\b(mm|cm)\b")

LEANING_PLAN = Plan(
    id="page one",
    image="plans/none.png",
    points=tuple(
        KnownPoint(pixel=pixel, plan=plan)
        for pixel, plan in (
            ((0.0, 0.0), (0.0, 0.0)),
            ((4000.0, 0.0), (400.0, 0.0)),
            ((0.0, -1000.0), (0.0, 100.0)),
            ((4000.0, -1000.0), (401.5, 100.0)),
        )
    ),
    lengths=(KnownLength(a=(0.0, 0.0), b=(2000.0, 0.0), length=200.0),),
)


def told(root: QWidget) -> Iterator[str]:
    """What is read on it, and what is said of it to whom cannot see."""
    for thing in root.findChildren(QWidget):
        if not thing.isVisible():
            continue
        yield thing.accessibleName()
        yield thing.accessibleDescription()
        if isinstance(thing, QLabel | QAbstractButton | QLineEdit):
            yield thing.text()
        if isinstance(thing, QTableView) and (model := thing.model()) is not None:
            for row in range(model.rowCount()):
                for column in range(model.columnCount()):
                    cell = model.data(model.index(row, column), Qt.ItemDataRole.DisplayRole)
                    yield str(cell or "")


@pytest.mark.parametrize("place", [place for place in PLACES if place != "log"])  # own notes stay
def test_in_inches_no_page_tells_a_length_in_mm(window: MainWindow, place: str) -> None:
    window.document.apply("lay a plan", add_plan.of(LEANING_PLAN))
    page = turned_to(window, place)
    assert any(METRIC.search(text) for text in told(page)), "no length is told at all"
    window.header.unit_button.click()
    QApplication.processEvents()
    assert [text for text in told(window) if METRIC.search(text)] == []


def test_marks_on_a_plan_are_told_in_the_unit_of_the_day() -> None:
    words = [mark.words for mark in scan_marks(LEANING_PLAN, "length", [], "in") if mark.words]
    figures = [figure for text in words for figure in re.findall(r"\d+\.\d+\S?", text)]
    assert any(text.endswith("″ off") for text in words)
    assert all(figure.endswith("″") for figure in figures), figures
    assert any("400, 0" in mark.words for mark in scan_marks(LEANING_PLAN, "length", [], "mm"))
