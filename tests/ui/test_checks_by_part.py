"""Checks by part, parts in the header, inches with their 64ths: nothing cut, the worst first."""

from collections.abc import Callable
from functools import partial

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication, QCompleter, QLabel
from pytestqt.qtbot import QtBot

from hardkeel.airframe.starters import start_from
from hardkeel.base.units import format_area
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits import surfaces as surface_edits
from hardkeel.ui.settings import Settings
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.theme import apply_theme, make_theme
from tests.stages_of import layout_of, true_of
from tests.ui.cutting import is_cut

MakeWindow = Callable[[], MainWindow]


def is_whole(label: QLabel) -> bool:
    return not label.isVisible() or not is_cut(label)


def test_what_is_out_stands_first_and_unfolded_the_rest_in_a_line_each(window: MainWindow) -> None:
    checks = true_of(window).checks
    for body, unfolded in (("stab", True), ("wing", False), ("fin", False)):
        line = checks.line(body)
        assert line is not None
        assert line.isVisible()
        assert ("unfolded" in line.accessibleName()) is unfolded
    level, incidence = checks.vial("stab_roll"), checks.vial("wing_incidence")
    assert level is not None
    assert incidence is not None
    assert level.isVisible()
    assert not incidence.isVisible()
    stab, wing = checks.line("stab"), checks.line("wing")
    assert stab is not None
    assert wing is not None
    assert stab.y() < wing.y()


def test_a_part_unfolds_by_click_by_key_and_when_it_is_picked(
    qtbot: QtBot, window: MainWindow
) -> None:
    checks = true_of(window).checks
    wing, fin = checks.line("wing"), checks.line("fin")
    incidence, upright = checks.vial("wing_incidence"), checks.vial("fin_lean_to_stab")
    assert wing is not None
    assert fin is not None
    assert incidence is not None
    assert upright is not None
    qtbot.mouseClick(wing, Qt.MouseButton.LeftButton)
    assert incidence.isVisible()
    qtbot.keyClick(wing, Qt.Key.Key_Space)
    assert not incidence.isVisible()
    window.header.body_picked.emit("fin")
    assert upright.isVisible()
    # an edit leaves folded what the builder folded
    window.document.apply("edit", surface_edits.set_tail.of("stab", incidence=0.2))
    assert upright.isVisible()
    assert not incidence.isVisible()


@pytest.mark.parametrize("percent", [100, 150])
def test_five_parts_have_room_at_the_top(
    make_window: MakeWindow, settings: Settings, percent: int
) -> None:
    settings.text_percent = percent
    window = make_window()
    window.restyle()
    build = start_from("biplane", 1000, 820)
    window.start(surface_edits.add_wing_above(build))
    keel = window.header.keel
    first, pitch = keel.rows()
    assert first >= 0
    assert first + 5 * pitch <= keel.height()
    assert pitch >= 0.9 * keel.fontMetrics().height()


def test_names_that_are_offered_are_kept_in_one_completer(window: MainWindow) -> None:
    for span in (1200.0, 1250.0, 1280.0):
        window.document.apply("edit", surface_edits.set_wing.of("wing", span=span))
    assert len(true_of(window).next.findChildren(QCompleter)) == 1
    completer = true_of(window).next.place.completer()
    assert completer is not None
    model = completer.model()
    assert model is not None
    assert model.rowCount() > 10


def test_inches_have_their_nearest_64th_and_areas_are_square_inches(window: MainWindow) -> None:
    assert format_area(6451.6, "in") == "10.00 in²"
    assert format_area(6451.6, "mm") == "64.5 cm²"
    window.show_stage("layout")
    page = layout_of(window).airframe
    page.choose_station("F3")
    field = page.former.fields["station"]
    assert not field.told.isVisible()
    window.header.unit_button.click()
    assert field.told.isVisible()
    assert field.told.text() == "≈ 6-43/64″"


@pytest.mark.parametrize("percent", [100, 125, 150])
@pytest.mark.parametrize("unit", ["mm", "in"])
def test_no_figure_on_the_board_is_cut(
    qtbot: QtBot, make_window: MakeWindow, settings: Settings, percent: int, unit: str
) -> None:
    settings.text_percent, settings.unit = percent, unit  # type: ignore[assignment]
    window = make_window()
    theme = make_theme("light", percent)
    app = QApplication.instance()
    assert isinstance(app, QApplication)
    apply_theme(app, theme)
    window.restyle()
    window.start(demo_build())
    window.show_stage("layout")
    page = layout_of(window).airframe
    try:
        for show, what in ((page.choose_station, "F3"), (page.choose_body, "wing")):
            show(what)
            qtbot.wait(20)
            card = page.former if page.former.isVisible() else page.surface
            assert card.fields
            for field in card.fields.values():
                line = field.line
                wanted = line.fontMetrics().horizontalAdvance(line.text())
                assert line.width() >= wanted + 12, (field.line.accessibleName(), line.text())
                told = field.told
                qtbot.waitUntil(partial(is_whole, told))
    finally:
        apply_theme(app, make_theme("light"))
