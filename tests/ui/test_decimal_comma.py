"""Where the reader's language has a decimal comma, no page writes a point; and what it writes it reads."""

import re
from collections.abc import Callable, Iterator

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import (
    QAbstractButton,
    QAbstractSpinBox,
    QComboBox,
    QLabel,
    QLineEdit,
    QTableView,
    QWidget,
)
from pytestqt.qtbot import QtBot

from hardkeel.base.errors import BadInput
from hardkeel.base.units import (
    decimal,
    format_angle,
    format_length,
    parse_angle,
    parse_length,
    shortest,
    write_decimals_with,
)  # fmt: skip
from hardkeel.demo.kettlewick import demo_build
from hardkeel.export.parts import parts_csv, parts_rows
from hardkeel.messages.faults import told
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.tail.surface_page import SurfacePage
from hardkeel.ui.widgets.fields import QuantityEdit
from hardkeel.ui.widgets.fold_line import FoldLine
from tests.heartbeat import places_of, turn
from tests.ui.painted_texts import all_painted

POINT = re.compile(r"\d\.\d")
# texts of a file, a version, and lists in which a comma stands between figures
LEFT = re.compile(r"Hard Keel \d|socket://|\.keel|Took \d+ readings")


@pytest.fixture
def _comma() -> Iterator[None]:
    write_decimals_with(",")
    try:
        yield
    finally:
        write_decimals_with(".")


def texts_of(widget: QWidget) -> list[str]:
    found = [widget.accessibleName(), widget.toolTip()]
    if isinstance(widget.parent(), QAbstractSpinBox):
        return []  # it follows the locale by itself
    if isinstance(widget, QLabel | QAbstractButton | QLineEdit):
        found.append(widget.text())
    elif isinstance(widget, QComboBox):
        found += [widget.itemText(i) for i in range(widget.count())]
    elif isinstance(widget, QTableView) and (model := widget.model()) is not None:
        found += [
            str(model.data(model.index(row, column), Qt.ItemDataRole.DisplayRole) or "")
            for row in range(model.rowCount())
            for column in range(model.columnCount())
        ]
    return found


@pytest.mark.usefixtures("_comma")
def test_no_page_writes_a_point_where_a_comma_is_written(
    make_window: Callable[[], MainWindow], qtbot: QtBot
) -> None:
    window = make_window()
    window.start(demo_build())
    wrong: dict[str, str] = {}
    commas = 0
    for place in places_of(window):
        turn(window, place)
        qtbot.waitUntil(lambda: not window.jobs.busy, timeout=30_000)
        for line in window.pages[place.stage].findChildren(FoldLine):
            line.setChecked(True)
        seen = [
            text
            for one in window.findChildren(QWidget)
            if one.isVisible()
            for text in texts_of(one)
        ]
        with all_painted() as painted:
            window.grab()
        for text in (*seen, *painted):
            commas += bool(re.search(r"\d,\d", text))
            if POINT.search(text) and not LEFT.search(text):
                wrong.setdefault(text[:90], str(place))
    assert wrong == {}
    assert commas > 300


@pytest.mark.usefixtures("_comma")
def test_a_field_reads_what_it_writes(make_window: Callable[[], MainWindow]) -> None:
    window = make_window()
    window.start(demo_build())
    window.show_stage("tail")
    page = window.pages["tail"].findChild(SurfacePage)
    assert page is not None
    field = page.figures.fields["span"]
    assert field.line.text() == "440,0"
    field.line.setText("441,5")
    field.take()
    assert page.surface is not None
    assert page.surface.span == pytest.approx(441.5)
    window.document.stack.undo()
    plain = QuantityEdit(plain="g")
    for grams, shown in ((168.0, "168"), (30.5, "30,5")):
        plain.set_value(grams)
        assert plain.line.text() == shown
        assert plain.value == grams


@pytest.mark.usefixtures("_comma")
def test_figures_are_written_with_the_mark_and_read_again() -> None:
    assert format_length(231.46, "mm") == "231,5 mm"
    assert format_length(25.4, "in") == "1,000″"
    assert format_angle(0.204, signed=True) == "+0,20°"
    assert format_angle(-0.001, signed=True) == "0,00°"
    assert decimal(-1.25, 1, signed=True) == "-1,2"
    assert shortest(0.25) == "0,25"
    assert parse_length(format_length(231.5, "mm"), "mm").mm == pytest.approx(231.5)
    assert parse_angle("1,25") == pytest.approx(1.25)
    assert told(BadInput("", "12.5 mm is too much")) == "12,5 mm is too much"


def test_a_point_is_written_else() -> None:
    write_decimals_with("٫")  # what is not understood is not written either
    assert format_length(231.46, "mm") == "231.5 mm"


@pytest.mark.usefixtures("_comma")
def test_paper_has_the_comma_and_a_table_for_programs_the_point() -> None:
    build = demo_build()
    for row in parts_rows(build, "mm")[1:]:
        assert not any(POINT.search(cell) for cell in row)
    table = parts_csv(build)
    write_decimals_with(".")
    assert parts_csv(build) == table
