"""A drawing that holds several outlines: none is given unasked."""

from pathlib import Path

import pytest
from ezdxf.filemanagement import new
from PyQt6.QtCore import Qt
from pytestqt.qtbot import QtBot

from hardkeel.fuselage.model import Former
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.theme import make_theme
from hardkeel.ui.widgets.outline_chooser import OutlineChooser, outline_shown
from tests.stages_of import drawings_of, layout_of

LEFT = Qt.MouseButton.LeftButton
WIDTHS = {"F3": 61.0, "F4": 83.0, "F5": 71.0}


@pytest.fixture
def laid(window: MainWindow) -> MainWindow:
    window.show_stage("layout")
    return window


def sheet_of(path: Path, *, lettered: bool) -> Path:
    drawing = new("R2010", units=4)
    space = drawing.modelspace()
    for i, (name, wide) in enumerate(WIDTHS.items()):
        x = 120.0 * i
        space.add_lwpolyline([(x, 0), (x + wide, 0), (x + wide, 90), (x, 90)], close=True)
        if lettered:
            space.add_text(f"{name} 3 mm", height=4).set_placement((x + 10, 40))
    drawing.saveas(path)
    return path


def former(window: MainWindow, name: str) -> Former:
    fuselage = window.document.build.fuselage
    found = fuselage.former(name) if fuselage is not None else None
    assert found is not None
    return found


def asked(qtbot: QtBot, window: MainWindow, path: Path) -> OutlineChooser:
    drawings_of(window).take_outline(path)
    page = layout_of(window)
    qtbot.waitUntil(lambda: page.findChild(OutlineChooser) is not None, timeout=20000)
    made = page.findChild(OutlineChooser)
    assert made is not None
    return made


def test_the_former_in_hand_gets_the_outline_that_is_called_after_it(
    qtbot: QtBot, laid: MainWindow, tmp_path: Path
) -> None:
    before = laid.document.build
    layout_of(laid).airframe.choose_station("F3")
    chooser = asked(qtbot, laid, sheet_of(tmp_path / "formers.dxf", lettered=True))
    assert laid.document.build == before, "not the largest, unasked"
    qtbot.mouseClick(chooser.one, LEFT)
    assert former(laid, "F3").half_width == pytest.approx(30.5, abs=0.01)
    assert former(laid, "F4").half_width != pytest.approx(41.5, abs=0.01)


def test_each_former_gets_its_own_in_one_edit(
    qtbot: QtBot, laid: MainWindow, tmp_path: Path
) -> None:
    before = laid.document.build
    layout_of(laid).airframe.choose_station("F3")
    chooser = asked(qtbot, laid, sheet_of(tmp_path / "formers.dxf", lettered=True))
    assert chooser.each.isVisible()
    qtbot.mouseClick(chooser.each, LEFT)
    for name, wide in WIDTHS.items():
        assert former(laid, name).half_width == pytest.approx(wide / 2, abs=0.01)
    laid.document.stack.undo()
    assert laid.document.build == before


def test_outlines_without_names_are_picked_by_their_picture(
    qtbot: QtBot, laid: MainWindow, tmp_path: Path
) -> None:
    layout_of(laid).airframe.choose_station("F3")
    chooser = asked(qtbot, laid, sheet_of(tmp_path / "formers.dxf", lettered=False))
    assert not chooser.each.isVisible()
    assert not chooser.one.isEnabled(), "none is picked for the builder"
    chooser.choose(1)
    qtbot.mouseClick(chooser.one, LEFT)
    # unnamed ones stand by size: the second is 71 mm wide
    assert former(laid, "F3").half_width == pytest.approx(35.5, abs=0.01)


def test_many_outlines_in_large_text_stay_within_the_window(qtbot: QtBot, laid: MainWindow) -> None:
    laid.resize(1024, 700)
    ring = ((0.0, 0.0), (60.0, 0.0), (60.0, 80.0), (0.0, 80.0))
    shown = [outline_shown(f"F{i}", ring, "mm") for i in range(20)]
    dialog = OutlineChooser("formers.dxf", "F3", shown, make_theme("light", 150), laid)
    dialog.show()
    qtbot.waitExposed(dialog)
    assert dialog.height() <= laid.height()
    assert dialog.width() <= laid.width()
    dialog.close()


def test_formers_that_only_the_sheet_has_stand_where_it_letters_them(
    qtbot: QtBot, laid: MainWindow, tmp_path: Path
) -> None:
    before = laid.document.build
    assert before.fuselage is not None
    a, b = (former(laid, name).station for name in ("F3", "F4"))
    between, moved = (a + b) / 2, b + 1.5
    drawing = new("R2010", units=4)
    for i, text in enumerate((f"F3a at {between:.2f} mm", f"F4 at {moved:.2f} mm")):
        box = [(x + 120 * i, y) for x, y in ((0, 0), (66, 0), (66, 90), (0, 90))]
        drawing.modelspace().add_lwpolyline(box, close=True)
        drawing.modelspace().add_text(text, height=4).set_placement((120 * i + 4, 40))
    drawing.saveas(tmp_path / "formers.dxf")
    layout_of(laid).airframe.choose_station("F3")
    chooser = asked(qtbot, laid, tmp_path / "formers.dxf")
    assert "F3a" in chooser.each.text()
    qtbot.mouseClick(chooser.each, LEFT)
    assert former(laid, "F3a").station == pytest.approx(between, abs=0.01)
    assert former(laid, "F3a").half_width == pytest.approx(33, abs=0.01)
    assert former(laid, "F4").station == b, "what stands elsewhere is told, not moved"
    assert laid.notice.text.startswith("formers.dxf letters F4 at")
    laid.document.stack.undo()
    assert laid.document.build == before
