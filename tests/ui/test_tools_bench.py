"""The tools bench: owned, counted, learned from, and read in what they show."""

from datetime import UTC, datetime

import pytest
from PyQt6.QtCore import Qt
from pytestqt.qtbot import QtBot

from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.tooling import set_tools
from hardkeel.edits.truing import take_reading
from hardkeel.survey.model import Instrument
from hardkeel.survey.readings import Tilt, sigma_of
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.true.tools_page import ToolsPage
from tests.stages_of import stage_of, true_of

NOW = datetime(2026, 11, 20, 19, tzinfo=UTC)
LEFT = Qt.MouseButton.LeftButton


@pytest.fixture
def tools(window: MainWindow) -> ToolsPage:
    window.start(demo_build())
    window.show_stage("true")
    stage_of(window).turn_to("tools")
    return stage_of(window).tools


def test_a_tool_that_is_ticked_is_owned_and_undone(tools: ToolsPage, qtbot: QtBot) -> None:
    document = tools.document
    assert not tools.rows.rows["water"].sigma.isEnabled()
    qtbot.mouseClick(tools.rows.rows["water"].box, LEFT)
    assert "water-level" in {tool.kind for tool in document.build.surveyed.instruments or ()}
    assert tools.rows.rows["water"].sigma.isEnabled()
    assert document.stack.undoText() == "own the water level"
    document.stack.undo()
    assert not tools.rows.rows["water"].box.isChecked()


def test_another_figure_counts_for_what_is_read_next_and_nothing_is_no_figure(
    tools: ToolsPage, qtbot: QtBot
) -> None:
    field = tools.rows.rows["tape"].sigma
    field.line.setText("0.8")
    qtbot.keyClick(field.line, Qt.Key.Key_Return)
    owned = {tool.id: tool for tool in tools.document.build.surveyed.instruments or ()}
    assert owned["tape"].sigma == 0.8
    field.line.setText("0")
    qtbot.keyClick(field.line, Qt.Key.Key_Return)
    assert tools.told.text() == "Tape: it must be more than nothing"
    assert field.value == 0.8


def test_how_far_off_the_eye_stands_says_what_it_is_worth(tools: ToolsPage, qtbot: QtBot) -> None:
    row = tools.rows.rows["eye"]
    qtbot.mouseClick(row.box, LEFT)
    before = row.sigma.value
    row.more.line.setText("3000")
    qtbot.keyClick(row.more.line, Qt.Key.Key_Return)
    assert before == pytest.approx(0.25)
    assert row.sigma.value == pytest.approx(0.5)


def test_repeats_say_what_the_tape_is_worth_and_one_click_counts_it_so(
    tools: ToolsPage, qtbot: QtBot
) -> None:
    document = tools.document
    taped = [one for one in document.build.surveyed.figures if one.instrument == "tape"][:5]
    for one in taped:
        for off in (0.1, -0.1):
            again = one.but(value=one.value + off)
            document.apply("take", take_reading.of(again, NOW))
    row = tools.rows.rows["tape"]
    assert "from 15 readings at 5 places (counted as 0.50 mm)" in row.told.text()
    assert tools.worth.answer.text() == "Tape: ±0.10 mm, better than counted"
    qtbot.mouseClick(row.action, LEFT)
    counted = {sigma_of(r) for r in document.build.surveyed.readings if r.instrument == "tape"}
    assert counted == {0.25}
    assert document.stack.undoText() == "count the tape anew"


def test_a_level_turned_end_for_end_has_its_error_taken_off(tools: ToolsPage, qtbot: QtBot) -> None:
    document = tools.document
    laid = [one for one in document.build.surveyed.readings if isinstance(one, Tilt)][:2]
    for one in laid:
        back = one.but(from_=one.to, to=one.from_, value=-one.value + 0.8)
        document.apply("take", take_reading.of(back, NOW))
    row = tools.rows.rows["level"]
    assert row.told.text().startswith("shows 0.40° too much whichever way it lies")
    assert tools.worth.answer.text() == "Level is out of true by 0.40°"
    qtbot.mouseClick(row.action, LEFT)
    turned = document.build.surveyed.readings[-1]
    assert turned.value == pytest.approx(-laid[1].value + 0.4)
    assert row.action.isHidden()


def test_what_a_hose_shows_is_typed_in_millimetres(window: MainWindow, qtbot: QtBot) -> None:
    hose = Instrument(id="hose", kind="water-level")
    window.start(set_tools(demo_build(), (hose,)))
    window.show_stage("true")
    card, entry = true_of(window).next, true_of(window).entry
    card.tool_picked.emit("tilt")
    entry.add_mark("wing_tip_le_port")
    entry.add_mark("wing_tip_le_starboard")
    card.field.line.setText("6")
    qtbot.keyClick(card.field.line, Qt.Key.Key_Return)
    assert "and this says 6.0 mm" in card.complaint  # the wing is known to stand more nearly level
    qtbot.keyClick(card.field.line, Qt.Key.Key_Return)
    taken = window.document.build.surveyed.figures[-1]
    assert taken.instrument == "hose"
    assert 0 < taken.value < 0.5
    model = true_of(window).readings.table.model()
    assert model is not None
    shown = [
        [str(model.index(row, column).data()) for column in (1, 2)]
        for row in range(model.rowCount())
    ]
    assert ["wing tip LE, starboard over port", "6.0 mm"] in shown


def test_the_same_tool_button_again_takes_the_next_tool_in_hand(window: MainWindow) -> None:
    levels = (Instrument(id="a", kind="level"), Instrument(id="b", kind="digital-level"))
    window.start(set_tools(demo_build(), levels))
    window.show_stage("true")
    card = true_of(window).next
    card.tool_picked.emit("tilt")
    assert card.eyebrow.text().endswith("digital level")
    card.tool_picked.emit("tilt")
    assert card.eyebrow.text().endswith("· level") or card.eyebrow.text().endswith(" level")
    assert "digital" not in card.eyebrow.text()
