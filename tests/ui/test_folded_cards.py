"""Cards that are seldom wanted lie folded under a line that says what they come to."""

from collections.abc import Callable

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QLabel
from pytestqt.qtbot import QtBot

from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.tail import set_figures
from hardkeel.messages import layout as layout_say
from hardkeel.messages import tail as say
from hardkeel.project.model import empty_build
from hardkeel.tail.model import TailSurface
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.layout.marks_card import MarksCard
from hardkeel.ui.stages.tail.sections_page import SectionsPage
from hardkeel.ui.stages.tail.surface_page import SurfacePage
from hardkeel.ui.widgets.doing_card import NowCard
from hardkeel.ui.widgets.figures_card import Figure, FiguresCard
from hardkeel.ui.widgets.fold_line import FoldLine
from tests.stages_of import layout_of

LEFT = Qt.MouseButton.LeftButton


def page_of(window: MainWindow) -> SurfacePage:
    window.show_stage("tail")
    window.pages["tail"].turn_to("surface")
    found = window.pages["tail"].findChild(SurfacePage)
    assert found is not None
    return found


def line_of(page: SurfacePage) -> FoldLine:
    line = page.figures.fold_line
    assert line is not None
    return line


def test_a_line_says_what_lies_under_it_and_a_press_shows_it(
    qtbot: QtBot, make_window: Callable[[], MainWindow]
) -> None:
    window = make_window()
    window.start(demo_build())
    page = page_of(window)
    line, field = line_of(page), page.figures.fields["span"]
    assert line.value.startswith("span 440.0 mm, root chord 120.0 mm")
    assert line.accessibleName() == f"{say.OUTLINE}: {line.value}"
    assert not field.isVisible()
    qtbot.mouseClick(line, LEFT)
    assert field.isVisible()
    field.line.setText("460")
    field.take()
    assert line.value.startswith("span 460.0 mm")
    window.document.stack.undo()
    assert line.value.startswith("span 440.0 mm")
    qtbot.keyClick(line, Qt.Key.Key_Space)
    assert not field.isVisible()
    qtbot.keyClick(line, Qt.Key.Key_Return)
    assert field.isVisible()


def test_a_line_follows_an_edit_that_was_made_elsewhere_and_the_unit(
    make_window: Callable[[], MainWindow],
) -> None:
    window = make_window()
    window.start(demo_build())
    page = page_of(window)
    surface = page.surface
    assert surface is not None
    window.document.apply("wider", set_figures.of(surface.id, span=508.0))
    window.header.unit_button.click()
    assert line_of(page).value.startswith("span 20.000″")


def test_a_sheet_of_lines_is_gone_while_none_of_them_has_anything_to_say(
    make_window: Callable[[], MainWindow],
) -> None:
    window = make_window()
    window.start(demo_build())
    page = page_of(window)
    sheet = page.figures.parentWidget()
    assert sheet is not None
    assert sheet.isVisible()
    window.document.stack.setClean()
    window.start(empty_build())
    assert not page_of(window).figures.isVisible()
    assert not sheet.isVisible()


def test_what_has_to_be_done_first_does_not_lie_folded_away(
    make_window: Callable[[], MainWindow],
) -> None:
    build = demo_build()
    window = make_window()
    window.start(build.but(wings=(), tail=(), survey=None, steps=()))
    window.show_stage("layout")
    layout_of(window).turn_to("airframe")
    card = layout_of(window).findChild(MarksCard)
    assert card is not None
    assert card.put_on.isVisible()
    assert card.put_on.text() == layout_say.PUT_WING_AND_TAIL_ON


def test_what_is_asked_large_is_answered_beneath_it(
    qtbot: QtBot, make_window: Callable[[], MainWindow]
) -> None:
    """A surface of which nobody said how it is built: its answers do not lie folded away, nor is it called flat."""
    window = make_window()
    build = demo_build()
    plain = tuple(
        TailSurface(
            id=one.id, le_x=one.le_x, z=one.z, span=one.span, root_chord=one.root_chord,
            tip_chord=one.tip_chord, upright=one.upright,
        )
        for one in build.tail
    )  # fmt: skip
    window.start(build.but(tail=plain, steps=(), survey=None))
    page = page_of(window)
    assert page.now.answer.text() == say.HOW_BUILT
    answer = page.kinds.buttons["ribbed"]
    assert answer.isVisible()
    for bench in ("order", "controls", "sheets", "sticks"):
        window.pages["tail"].turn_to(bench)
        card = next(one for one in window.pages["tail"].findChildren(NowCard) if one.isVisible())
        assert card.button.text() == say.SHOW_SURFACE
        qtbot.mouseClick(card.button, LEFT)
        assert page.isVisible()
    window.pages["tail"].turn_to("sections")
    sections = window.pages["tail"].findChild(SectionsPage)
    assert sections is not None
    assert not sections.now.isVisible()
    qtbot.mouseClick(window.pages["tail"].tabs["surface"], LEFT)
    qtbot.mouseClick(answer, LEFT)
    assert {one.kind for one in window.document.build.tail} == {"ribbed", None}


def test_a_foreplane_is_no_low_stabilizer(make_window: Callable[[], MainWindow]) -> None:
    window = make_window()
    build = demo_build()
    ahead = tuple(one.but(role="foreplane") if not one.upright else one for one in build.tail)
    window.start(build.but(tail=ahead, steps=(), survey=None))
    assert not page_of(window).arranged.isVisible()
    window.document.stack.setClean()
    window.start(build)
    assert page_of(window).arranged.isVisible()


def test_a_line_leaves_out_what_is_nothing_and_puts_shares_in_order(qtbot: QtBot) -> None:
    card = FiguresCard("Spars")
    qtbot.addWidget(card)
    line = card.fold_under_its_name()
    figures = (
        Figure("at", "top at %", 30.0, "number"), Figure("sheet", "sheeted to", 0.0), Figure("wide", "top wide", 3.0),
        Figure("deep", "top deep", None), Figure("high", "high", 2.0), Figure("long", "long", 9.0),
    )  # fmt: skip
    card.show_figures("", figures, "mm")
    assert line.value == "top at 30 %, top wide 3.0 mm, high 2.0 mm"


def test_a_unit_stays_with_its_figure_where_a_line_breaks(qtbot: QtBot) -> None:
    line = FoldLine("Section")
    qtbot.addWidget(line)
    line.show_value("moment -5 %, elevator 30 %, at 12.0 mm behind 8 steps")
    shown = next(one.text() for one in line.findChildren(QLabel) if one.text() != "Section")
    assert [part for part in shown.split(" ") if part in ("%", "%,", "mm")] == []
    assert "8 steps" in shown  # words may part
    assert line.value == "moment -5 %, elevator 30 %, at 12.0 mm behind 8 steps"
