"""Paper: the sheets as they are printed, what is out of date, and the printer's own scale."""

from pathlib import Path

import pytest
from pypdf import PdfReader
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtPrintSupport import QPrinter
from pytestqt.qtbot import QtBot

from hardkeel.demo.fleet import withy
from hardkeel.demo.kettlewick import demo_build as kettlewick
from hardkeel.edits.fuselage import set_station
from hardkeel.messages.shell import LEAVE_IT_OFF
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.paper.controller import PaperController
from hardkeel.ui.stages.paper.page import PaperPage
from hardkeel.ui.stages.paper.printing import Sending, printer_for

LEFT = Qt.MouseButton.LeftButton


@pytest.fixture
def page(qtbot: QtBot, window: MainWindow) -> PaperPage:
    window.start(withy())
    window.show_stage("paper")
    found = window.pages["paper"]
    assert isinstance(found, PaperPage)
    qtbot.waitUntil(lambda: len(found.sheets.rows) > 3, timeout=30000)
    return found


def controller(page: PaperPage) -> PaperController:
    found = page.findChild(PaperController)
    assert found is not None
    return found


def state(page: PaperPage, key: str) -> str:
    return next(row.shown.state for row in page.sheets.rows if row.shown.key == key)


def write(qtbot: QtBot, page: PaperPage, path: Path, key: str) -> None:
    page.choose(key)
    held = controller(page)
    job = held.job(key, page.pages)
    assert job is not None
    held.write(path, job, "pdf")
    qtbot.waitUntil(lambda: state(page, key) == "still right", timeout=30000)


def into_a_file(path: Path) -> QPrinter:
    """A printer that writes what it would print."""
    printer = printer_for("")
    printer.setOutputFormat(QPrinter.OutputFormat.PdfFormat)
    printer.setOutputFileName(str(path))
    printer.setResolution(50)
    return printer


def move_f4(window: MainWindow) -> None:
    build = window.document.build
    former = build.fuselage.former("F4") if build.fuselage is not None else None
    assert former is not None
    window.document.apply("move", set_station.of("F4", station=former.station + 2))


def test_what_changes_after_a_print_is_to_be_printed_again(
    qtbot: QtBot, window: MainWindow, page: PaperPage, tmp_path: Path
) -> None:
    assert state(page, "side") == "not printed yet"
    write(qtbot, page, tmp_path / "side.pdf", "side")
    count = len(PdfReader(tmp_path / "side.pdf").pages)
    assert count > 1
    assert "print 1" in PdfReader(tmp_path / "side.pdf").pages[0].extract_text()
    move_f4(window)
    qtbot.waitUntil(lambda: state(page, "side").startswith("out of date"), timeout=30000)
    assert 0 < len(page.pages) < count
    assert "F4 went 2.0 mm aft" in page.now.why.text()
    assert page.now.button.text().endswith("(Enter)")
    # a click on a page leaves it out, or takes it along
    spot = page.view.place_of(next(n for n in range(1, count + 1) if n not in page.pages))
    assert spot is not None
    before = page.pages
    qtbot.mouseClick(page.view, LEFT, pos=QPoint(round(spot.x()), round(spot.y())))
    assert len(page.pages) == len(before) + 1
    window.document.stack.undo()
    qtbot.waitUntil(lambda: state(page, "side") == "still right", timeout=30000)


def test_success_is_said_quietly_and_not_over_another_model(
    qtbot: QtBot, window: MainWindow, page: PaperPage, tmp_path: Path
) -> None:
    write(qtbot, page, tmp_path / "fin.pdf", "fin")
    assert window.notice.text.startswith("fin.pdf is written")
    assert window.notice.property("edge") == ""
    assert window.notice.goes_by_itself
    window.start(withy())
    assert not window.notice.text
    window.notice.tell("It went wrong.")
    assert window.notice.property("edge") == "out"
    assert not window.notice.goes_by_itself


def test_bars_that_were_measured_make_the_next_print_true(
    qtbot: QtBot, window: MainWindow, page: PaperPage, tmp_path: Path
) -> None:
    held = controller(page)
    page.card.bars.fold(away=False)
    page.card.across.line.setText("100.5")
    page.card.across.take()
    assert held.correction == pytest.approx((1.005, 1.0))
    # printed so, what is left over comes on top
    page.card.across.line.setText("99.8")
    page.card.across.take()
    assert held.correction == pytest.approx((1.005 * 0.998, 1.0))
    page.card.printer_picked.emit("the other one")
    assert held.correction == (1.0, 1.0), "each printer has its own"


def test_another_paper_lays_the_sheets_out_anew(qtbot: QtBot, page: PaperPage) -> None:
    def pages() -> int:
        return next(r.shown.standing.pages for r in page.sheets.rows if r.shown.key == "side")

    assert pages() > 1
    qtbot.mouseClick(page.card.buttons["roll 610"], LEFT)
    qtbot.waitUntil(lambda: pages() == 1, timeout=30000)
    page.choose("side")
    assert page.under.text().startswith("One page of roll 610.")


def test_a_printer_is_given_whole_pages_at_true_size(
    qtbot: QtBot, page: PaperPage, tmp_path: Path
) -> None:
    write(qtbot, page, tmp_path / "fin.pdf", "fin")
    printer = into_a_file(tmp_path / "out.pdf")
    pdf = (tmp_path / "fin.pdf").read_bytes()
    sending = Sending(pdf, printer)
    while sending.done < sending.count:
        assert sending.step()
    for was, now in zip(
        PdfReader(tmp_path / "fin.pdf").pages, PdfReader(tmp_path / "out.pdf").pages, strict=True
    ):
        for side in ("width", "height"):
            assert float(getattr(now.mediabox, side)) == pytest.approx(
                float(getattr(was.mediabox, side)), abs=1.0
            )


def test_a_build_without_a_fuselage_says_what_is_wanting(
    qtbot: QtBot, window: MainWindow, page: PaperPage
) -> None:
    window.start(withy().but(fuselage=None, tail=(), wings=()))
    window.show_stage("paper")
    assert not page.sheets.rows, "the other build's"

    def said() -> str:
        return page.view.accessibleDescription()

    qtbot.waitUntil(lambda: said().startswith("Nothing to print yet"), timeout=30000)
    assert not page.now.isVisible()


def test_ctrl_p_turns_to_the_sheet_of_what_is_shown(qtbot: QtBot, window: MainWindow) -> None:
    window.start(withy())
    window.show_stage("tail")
    tail = window.pages["tail"]
    tail.choose_body("fin")
    window.show_print()
    page = window.pages["paper"]
    assert isinstance(page, PaperPage)
    qtbot.waitUntil(lambda: len(page.sheets.rows) > 3, timeout=30000)
    assert page.chosen == "fin"
    # a former in hand: the pages that it lies on
    window.show_stage("frame")
    window.pages["frame"].turn_to("formers")
    window.pages["frame"].choose_station("F2")
    window.show_print()
    assert page.chosen == "pieces"
    assert page.pages
    held = controller(page)
    sheet = next(one for one in held.sheets if one.key == "pieces")
    laid = [one for one in sheet.pages if one.number in page.pages]
    assert any("F2" in words.text.split("\n")[0] for one in laid for words in one.drawn.words)


def test_a_page_is_looked_at_as_the_printer_gets_it(qtbot: QtBot, page: PaperPage) -> None:
    page.choose("fin")
    drawn = page.view.grab().toImage()
    qtbot.mouseClick(page.look, LEFT)
    qtbot.waitUntil(lambda: page.view.shows_page)
    shown = page.view.grab().toImage()
    assert shown != drawn
    # as tall as there is room, and white
    middle = shown.width() // 2
    tall = sum(shown.pixelColor(middle, v).lightness() > 250 for v in range(shown.height()))
    assert tall > 0.8 * page.view.height()
    qtbot.mouseClick(page.view, LEFT)
    qtbot.waitUntil(lambda: not page.view.shows_page)
    assert page.pages, "that click picked no page"


def test_what_can_not_be_drawn_is_said_with_its_reason(
    qtbot: QtBot, window: MainWindow, page: PaperPage
) -> None:
    assert not page.left_out.isVisible()
    build = withy()
    assert build.fuselage is not None
    bow_tie = ((-20.0, -20.0), (20.0, 20.0), (20.0, -20.0), (-20.0, 20.0))
    formers = tuple(
        one.but(outline=bow_tie, sticks=None) if one.id == "F2" else one
        for one in build.fuselage.formers
    )
    window.start(build.but(fuselage=build.fuselage.but(formers=formers)))
    window.show_stage("paper")
    qtbot.waitUntil(page.left_out.isVisible, timeout=30000)
    assert "F2" in page.left_out.text()
    assert page.left_out.text().count("\n") < 3, "each reason once"
    assert any(row.shown.key == "stab" for row in page.sheets.rows)


def test_what_is_noted_is_what_was_sent(
    qtbot: QtBot, window: MainWindow, page: PaperPage, tmp_path: Path
) -> None:
    held = controller(page)
    page.choose("side")
    job = held.job("side", page.pages)
    assert job is not None
    held.send(job, into_a_file(tmp_path / "side.pdf"))
    move_f4(window)  # while it is under way
    qtbot.waitUntil(lambda: bool(window.document.build.prints), timeout=60000)
    (noted,) = window.document.build.prints
    assert noted.figures == job.sheet.figures
    assert noted.pages == job.sheet.marks
    assert len(PdfReader(tmp_path / "side.pdf").pages) == len(job.pages)
    qtbot.waitUntil(lambda: state(page, "side").startswith("out of date"), timeout=30000)


def test_printing_is_left_off_and_none_of_it_is_noted(
    qtbot: QtBot,
    window: MainWindow,
    page: PaperPage,
    tmp_path: Path,
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    """Left off while the first page goes."""
    held = controller(page)
    job = held.job("side", frozenset({1, 2, 3}))
    assert job is not None
    assert len(job.pages) > 1
    step = Sending.step

    def stopped(sending: Sending) -> bool:
        sending.leave_off()
        return step(sending)

    monkeypatch.setattr(Sending, "step", stopped)
    held.send(job, into_a_file(tmp_path / "side.pdf"))
    qtbot.waitUntil(lambda: window.notice.text.startswith("Left off after 1 page"), timeout=30000)
    assert not window.document.build.prints


def test_a_button_stays_while_the_sentence_beside_it_counts_on(window: MainWindow) -> None:
    heard: list[str] = []

    def leave_off() -> None:
        heard.append("off")

    window.notice.tell("Page 1 of 2", (LEAVE_IT_OFF, leave_off))
    button = window.notice.buttons[0]
    assert button.text() == LEAVE_IT_OFF
    window.notice.tell("Page 2 of 2", (LEAVE_IT_OFF, leave_off))
    assert window.notice.buttons[0] is button, "a press that began on page 1 is not lost"
    button.click()
    assert heard == ["off"]
    window.notice.tell("Something else")
    assert window.notice.buttons[0] is not button


@pytest.mark.qt_log_ignore("QPainter::begin")
def test_a_printer_that_takes_nothing_is_told_and_not_noted(
    qtbot: QtBot, window: MainWindow, page: PaperPage, tmp_path: Path
) -> None:
    held = controller(page)
    page.choose("fin")
    job = held.job("fin", page.pages)
    assert job is not None
    held.send(job, into_a_file(tmp_path / "no such folder" / "fin.pdf"))
    qtbot.waitUntil(lambda: "none is noted as printed" in window.notice.text, timeout=30000)
    assert not window.document.build.prints


def test_another_builds_sheets_are_not_printed_nor_noted_in_it(
    qtbot: QtBot, window: MainWindow, page: PaperPage, tmp_path: Path
) -> None:
    held = controller(page)
    job = held.job("side", page.pages)
    assert job is not None
    window.start(kettlewick())
    window.show_stage("paper")
    assert held.job("side", frozenset()) is None, "they are laid out anew first"
    held.send(job, into_a_file(tmp_path / "side.pdf"))
    qtbot.waitUntil(lambda: "sent to" in window.notice.text, timeout=60000)
    assert not window.document.build.prints


def test_each_drawing_of_a_sheet_has_its_own_file(
    qtbot: QtBot, window: MainWindow, page: PaperPage, tmp_path: Path
) -> None:
    held = controller(page)
    window.start(kettlewick())
    window.show_stage("paper")
    qtbot.waitUntil(lambda: len(held.sheets) > 3, timeout=60000)
    several = next(one for one in held.sheets if len(one.drawn) > 1)
    job = held.job(several.key, frozenset())
    assert job is not None
    out = tmp_path / "out"
    out.mkdir()
    held.write(out / "a.dxf", job, "dxf")
    wanted = ["a.dxf", *(f"a-{n}.dxf" for n in range(2, len(several.drawn) + 1))]
    qtbot.waitUntil(lambda: "is written" in window.notice.text, timeout=30000)
    assert sorted(one.name for one in out.iterdir()) == sorted(wanted)
    assert len({one.read_bytes() for one in out.iterdir()}) == len(wanted)


@pytest.mark.parametrize("high", [0, 6, 8, 9, 36])
def test_a_row_that_is_squeezed_for_a_moment_is_painted_all_the_same(
    page: PaperPage, high: int
) -> None:
    """The monkey found it: a page laid out anew gives its rows no height at first."""
    row = page.sheets.rows[0]
    row.setFixedHeight(high)
    assert not row.grab().isNull() or high == 0
