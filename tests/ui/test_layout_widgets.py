"""The widgets of Lay out on their own: plain values in, signals out."""

import itertools

import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtGui import QColor, QImage, QPainter, QPen
from PyQt6.QtWidgets import QApplication, QLabel, QPushButton
from pytestqt.qtbot import QtBot

from hardkeel.demo.kettlewick import demo_build, demo_fuselage
from hardkeel.parts.model import STATES
from hardkeel.picture.board import Handle, bodies_on_board, lines_of
from hardkeel.picture.truing import keel_strokes
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.layout.audit_chart import AuditChart, Spot
from hardkeel.ui.stages.layout.balance_drawing import BalanceDrawing, BalanceShown, Weighed
from hardkeel.ui.stages.layout.board import BumpNote, DrawingBoard, OnBoard
from hardkeel.ui.stages.layout.chances import Chances
from hardkeel.ui.stages.layout.scan_marks import ScanMark
from hardkeel.ui.stages.layout.scan_view import ScanView
from hardkeel.ui.theme import SCALES, ThemeName, apply_theme, make_theme
from hardkeel.ui.widgets.cells import CellsModel, Column, Row
from hardkeel.ui.widgets.cells_table import CellsTable
from hardkeel.ui.widgets.figures_card import Figure, FiguresCard
from hardkeel.ui.widgets.part_state import paint_state
from tests.stages_of import layout_of
from tests.ui.cutting import is_cut

THEME = make_theme("light")
LEFT = Qt.MouseButton.LeftButton


def colours(image: QImage) -> set[str]:
    return {
        image.pixelColor(x, y).name()
        for x, y in itertools.product(range(image.width()), range(image.height()))
    }


# -- the sheet -------------------------------------------------------------------------------------


@pytest.fixture
def sheet(qtbot: QtBot) -> ScanView:
    """White paper with one upright and one level line, 1000 × 500."""
    image = QImage(1000, 500, QImage.Format.Format_Grayscale8)
    image.fill(QColor(245, 245, 245))
    painter = QPainter(image)
    painter.setPen(QPen(QColor(20, 20, 20), 1))
    painter.drawLine(300, 0, 300, 499)
    painter.drawLine(0, 200, 999, 200)
    painter.end()
    made = ScanView(THEME)
    qtbot.addWidget(made)
    made.resize(500, 300)
    made.show()
    made.show_image(image)
    return made


def test_a_sheet_is_fitted_and_zoomed_about_the_pointer(sheet: ScanView) -> None:
    corners = [sheet.on_widget(0, 0), sheet.on_widget(1000, 500)]
    assert all(sheet.rect().adjusted(-1, -1, 1, 1).contains(c.toPoint()) for c in corners)
    about = QPointF(120.0, 90.0)
    before = sheet.on_scan(about)
    for _ in range(5):
        sheet.zoom_by(1.3, about)
    after = sheet.on_scan(about)
    assert (after.x(), after.y()) == pytest.approx((before.x(), before.y()), abs=1e-6)
    for _ in range(99):
        sheet.zoom_by(2.0)
    widest = sheet.on_widget(1, 0).x() - sheet.on_widget(0, 0).x()
    assert widest <= 12.0 + 1e-6
    sheet.fit_sheet()
    assert sheet.on_widget(0, 0) == corners[0]


@pytest.mark.parametrize(
    ("u", "v", "settled"),
    [(302.0, 400.0, (300.5, None)), (700.0, 198.0, (None, 200.5)), (302.5, 202.5, (300.5, 200.5))],
)
def test_a_click_beside_a_line_settles_on_it(
    qtbot: QtBot, sheet: ScanView, u: float, v: float, settled: tuple[float | None, float | None]
) -> None:
    sheet.look_at(u, v, zoom=4.0)
    with qtbot.waitSignal(sheet.clicked) as seen:
        qtbot.mouseClick(sheet, LEFT, pos=sheet.on_widget(u, v).toPoint())
    for got, wanted in zip(seen.args, settled, strict=True):
        if wanted is not None:
            assert got == pytest.approx(wanted, abs=0.35)


def test_a_click_on_bare_paper_stays_where_it_was(qtbot: QtBot, sheet: ScanView) -> None:
    sheet.look_at(600.0, 400.0, zoom=4.0)
    with qtbot.waitSignal(sheet.clicked) as seen:
        qtbot.mouseClick(sheet, LEFT, pos=sheet.on_widget(600.0, 400.0).toPoint())
    assert seen.args == pytest.approx([600.0, 400.0], abs=0.2)
    sheet.settles = False
    sheet.look_at(302.0, 400.0, zoom=4.0)
    with qtbot.waitSignal(sheet.clicked) as seen:
        qtbot.mouseClick(sheet, LEFT, pos=sheet.on_widget(302.0, 400.0).toPoint())
    assert seen.args[0] == pytest.approx(302.0, abs=0.2)


def test_clicks_beside_the_sheet_and_with_other_buttons_take_nothing(
    qtbot: QtBot, sheet: ScanView
) -> None:
    seen: list[object] = []
    sheet.clicked.connect(lambda *where: seen.append(where))
    sheet.look_at(0.0, 0.0, zoom=1.0)
    qtbot.mouseClick(sheet, LEFT, pos=QPoint(3, 3))
    before = sheet.on_widget(0, 0)
    qtbot.mousePress(sheet, Qt.MouseButton.RightButton, pos=QPoint(300, 200))
    qtbot.mouseMove(sheet, QPoint(310, 205))
    qtbot.mouseMove(sheet, QPoint(340, 225))
    qtbot.mouseRelease(sheet, Qt.MouseButton.RightButton, pos=QPoint(340, 225))
    moved = sheet.on_widget(0, 0) - before
    assert moved.x() > 20
    assert seen == []


def test_a_thin_line_is_still_seen_when_the_whole_sheet_is(sheet: ScanView) -> None:
    sheet.fit_sheet()
    x = round(sheet.on_widget(300.5, 0).x())
    y = round(sheet.on_widget(0, 350).y())
    image = sheet.grab().toImage()
    darkest = min(image.pixelColor(x + dx, y).value() for dx in (-1, 0, 1))
    assert darkest < 150


def test_marks_are_drawn_with_their_words(sheet: ScanView) -> None:
    plain = sheet.grab().toImage()
    sheet.show_marks(
        (
            ScanMark("length", ((100.0, 100.0), (800.0, 100.0)), "700 mm"),
            ScanMark("stations", ((400.0, 300.0),), active=True),
        )
    )
    assert sheet.grab().toImage() != plain


# -- the board -------------------------------------------------------------------------------------


@pytest.fixture
def board(qtbot: QtBot) -> DrawingBoard:
    made = DrawingBoard(THEME)
    qtbot.addWidget(made)
    made.resize(760, 560)
    made.show()
    build = demo_build()
    made.show_board(OnBoard(lines_of(demo_fuselage(), "F3"), bodies_on_board(build), chosen="F3"))
    return made


def test_the_board_tells_what_is_held_and_where_it_is_let_go(
    qtbot: QtBot, board: DrawingBoard
) -> None:
    dragged: list[tuple[Handle, float, float]] = []
    board.dragging.connect(lambda *what: dragged.append(what))
    at = board.handle_position("F3", "top")
    assert at is not None
    qtbot.mousePress(board, LEFT, pos=at.toPoint())
    qtbot.mouseMove(board, at.toPoint() + QPoint(0, -8))
    with qtbot.waitSignal(board.dropped) as seen:
        qtbot.mouseRelease(board, LEFT, pos=at.toPoint() + QPoint(0, -12))
    handle, _, v = seen.args
    assert (handle.stop, handle.grip) == ("F3", "top")
    assert v < handle.at[1]
    assert len(dragged) >= 1


def test_a_press_without_a_move_drops_nothing(qtbot: QtBot, board: DrawingBoard) -> None:
    dropped: list[object] = []
    board.dropped.connect(lambda *what: dropped.append(what))
    at = board.handle_position("F5", "bottom")
    assert at is not None
    with qtbot.waitSignal(board.station_picked) as seen:
        qtbot.mouseClick(board, LEFT, pos=at.toPoint())
    assert seen.args == ["F5"]
    assert dropped == []


def test_a_wing_is_picked_where_it_lies(qtbot: QtBot, board: DrawingBoard) -> None:
    nose = board.handle_position("F3", "half_width")
    assert nose is not None
    with qtbot.waitSignal(board.body_picked) as seen:
        qtbot.mouseClick(board, LEFT, pos=nose.toPoint() + QPoint(40, -60))
    assert seen.args == ["wing"]


def test_a_bump_and_a_figure_under_the_hand_are_painted_in_their_colours(
    board: DrawingBoard,
) -> None:
    lines = lines_of(demo_fuselage(), "F3")
    out = THEME.colour("out").name()
    assert out not in colours(board.grab().toImage())
    board.show_board(
        OnBoard(
            lines,
            bumps=(BumpNote("side", (400.0, -40.0), "2 mm proud"),),
            chosen="F3",
            figure="top 41 mm",
        )
    )
    assert out in colours(board.grab().toImage())


# -- charts and pictures ---------------------------------------------------------------------------


def test_a_wrong_pair_is_painted_in_the_warning_colour(qtbot: QtBot) -> None:
    chart = AuditChart(THEME)
    qtbot.addWidget(chart)
    chart.resize(500, 300)
    fine = Spot(100.0, 1.0, 1.0, 0.3, "outline", across=False, wrong=False, name="F2")
    spots = (fine, Spot(200.0, 5.0, 2.0, 0.3, "spacing", across=True, wrong=True, name="F3"))
    out = THEME.colour("out").name()
    chart.show_spots(
        (fine, Spot(300.0, 3.0, 3.0, 0.3, "bent-length", across=False, wrong=False, name="s")),
        "mm",
        THEME,
    )
    assert out not in colours(chart.grab().toImage())
    chart.show_spots(spots, "in", THEME, chosen=0)
    assert out in colours(chart.grab().toImage())
    chart.show_spots((), "mm", THEME)
    chart.grab()


@pytest.mark.parametrize("off", [0.0, 1e-6, 4000.0])
def test_a_chart_of_one_pair_of_any_size_can_be_painted(qtbot: QtBot, off: float) -> None:
    chart = AuditChart(THEME)
    qtbot.addWidget(chart)
    chart.resize(400, 220)
    spot = Spot(
        0.5 if off < 1 else 9000.0, off, 0.0, 0.3, "outline", across=False, wrong=False, name=""
    )
    chart.show_spots((spot,), "mm", THEME)
    assert THEME.colour("ink").name() in colours(chart.grab().toImage())


def test_the_mass_under_the_pointer_is_picked(qtbot: QtBot) -> None:
    view = BalanceDrawing(THEME)
    qtbot.addWidget(view)
    view.resize(700, 330)
    view.show()
    masses = (
        Weighed("motor", 90.0, -8.0, weighed=True),
        Weighed("tail", 20.0, 880.0, weighed=False),
    )
    view.show_balance(
        BalanceShown(
            strokes=keel_strokes(demo_build()), masses=masses, target=250.0, balance=231.0,
            chord=(190.0, 380.0), pack=120.0, bay=(60.0, 150.0), nose=(-20.0, 12.0),
            words={"target": "wanted 250", "balance": "231 mm"},
        ),
        THEME,
    )  # fmt: skip
    y = view.height() - THEME.px(58) - 6
    picked: list[str] = []
    view.mass_picked.connect(picked.append)
    for x in range(0, view.width(), 4):
        qtbot.mouseClick(view, LEFT, pos=QPoint(x, y))
    assert list(dict.fromkeys(picked)) == ["motor", "tail"]
    assert THEME.colour("out").name() in colours(view.grab().toImage())  # it is off the mark


def test_the_leading_cause_has_the_longest_bar(qtbot: QtBot) -> None:
    bars = Chances(THEME)
    qtbot.addWidget(bars)
    bars.show_chances((("right", 0.1, False), ("scale", 0.9, True)), THEME)
    bars.resize(400, bars.sizeHint().height())
    image = bars.grab().toImage()
    act, soft = THEME.colour("act").name(), THEME.colour("soft").name()
    half = image.height() // 2

    def width_of(colour: str, rows: range) -> int:
        return max(
            sum(image.pixelColor(x, y).name() == colour for x in range(image.width())) for y in rows
        )

    assert width_of(act, range(half, image.height())) > 3 * width_of(soft, range(half))


@pytest.mark.parametrize("state", STATES)
def test_every_state_has_a_shape_of_its_own(state: str, qapp: QApplication) -> None:
    def picture(which: str) -> QImage:
        image = QImage(24, 24, QImage.Format.Format_RGB32)
        image.fill(QColor("white"))
        painter = QPainter(image)
        paint_state(painter, QPointF(12, 12), which, THEME, 8.0)  # type: ignore[arg-type]
        painter.end()
        return image

    mine = picture(state)
    assert all(picture(other) != mine for other in STATES if other != state)


# -- cards and tables ------------------------------------------------------------------------------


def test_a_card_of_figures_keeps_what_is_being_typed(qtbot: QtBot) -> None:
    card = FiguresCard("Figures")
    qtbot.addWidget(card)
    card.show()
    rows = (
        Figure("a", "a", 10.0),
        Figure("g", "grams", 5.0, "grams"),
        Figure("d", "angle", 2.0, "angle"),
    )
    card.show_figures("Title", rows, "mm", "said")
    line = card.fields["a"].line
    card.activateWindow()
    line.setFocus()
    qtbot.waitUntil(line.hasFocus)
    line.selectAll()
    qtbot.keyClicks(line, "12")
    card.show_figures("Title", (Figure("a", "a", 99.0), *rows[1:]), "mm")
    assert line.text() == "12"  # the document changed meanwhile: the hand wins
    with qtbot.waitSignal(card.figure_changed) as seen:
        qtbot.keyClick(line, Qt.Key.Key_Return)
    assert seen.args == ["a", 12.0]
    with qtbot.waitSignal(card.figure_changed) as seen:
        card.fields["g"].line.setText("7,5 g")
        qtbot.keyClick(card.fields["g"].line, Qt.Key.Key_Return)
    assert seen.args == ["g", 7.5]
    card.show_figures("Title", rows, "in")
    assert card.fields["g"].line.text() == "5"
    assert card.fields["d"].line.text() == "2.00"


def make_table(qtbot: QtBot) -> tuple[CellsTable, CellsModel, list[tuple[str, int, str]]]:
    edits: list[tuple[str, int, str]] = []

    def edit(key: str, column: int, text: str) -> bool:
        edits.append((key, column, text))
        return text != "no"

    model = CellsModel(
        [Column("name"), Column("figure", right=True, typed=True), Column("more words here")],
        THEME,
        edit,
    )
    rows = [Row(f"k{i}", (f"row {i}", f"{i}", "something long to say")) for i in range(5)]
    model.show_rows(rows, THEME)
    table = CellsTable(model, THEME, 0, "a table", gives_way=(2,))
    qtbot.addWidget(table)
    table.resize(600, 200)
    table.show()
    return table, model, edits


def test_a_table_hands_on_what_is_typed_and_refuses_what_is_refused(qtbot: QtBot) -> None:
    _table, model, edits = make_table(qtbot)
    assert model.setData(model.index(1, 1), " 7 ")
    assert not model.setData(model.index(1, 1), "no")
    assert model.setData(model.index(1, 1), "1")  # as it is: nothing to do
    assert edits == [("k1", 1, "7"), ("k1", 1, "no")]
    assert not model.flags(model.index(0, 0)) & Qt.ItemFlag.ItemIsEditable


def test_a_table_keeps_its_place_when_its_rows_are_the_same(qtbot: QtBot) -> None:
    table, model, _ = make_table(qtbot)
    table.setCurrentIndex(model.index(3, 0))
    model.show_rows([Row(f"k{i}", (f"row {i}", "9", "x")) for i in range(5)], THEME)
    assert table.currentIndex().row() == 3
    model.show_rows([Row("other", ("a", "b", "c"))], THEME)
    assert model.rowCount() == 1
    assert model.number_of("k3") == -1


def test_keys_start_and_strike_a_row(qtbot: QtBot) -> None:
    table, model, _ = make_table(qtbot)
    table.setCurrentIndex(model.index(2, 0))
    for key, signal in (
        (Qt.Key.Key_Return, table.started),
        (Qt.Key.Key_Space, table.started),
        (Qt.Key.Key_Delete, table.struck),
    ):
        with qtbot.waitSignal(signal) as seen:
            qtbot.keyClick(table, key)
        assert seen.args == [2]


def test_the_least_telling_column_gives_way_first(qtbot: QtBot) -> None:
    table, _model, _ = make_table(qtbot)
    assert not table.isColumnHidden(2)
    table.resize(160, 200)
    assert table.isColumnHidden(2)
    assert not table.isColumnHidden(1)
    table.resize(600, 200)
    assert not table.isColumnHidden(2)


# -- the pages at every size -----------------------------------------------------------------------


@pytest.mark.parametrize("percent", SCALES)
@pytest.mark.parametrize("theme", ["light", "dark"])
def test_no_label_of_lay_out_is_cut_at_any_text_size(
    window: MainWindow, percent: int, theme: ThemeName, qapp: QApplication
) -> None:
    window.theme_changed.connect(lambda made: apply_theme(qapp, made))
    if theme == "dark":
        window.header.theme_button.click()
    window.menu.scale_wanted.emit(percent)
    window.show_stage("layout")
    try:
        for bench in layout_of(window).tabs:
            layout_of(window).turn_to(bench)
            window.resize(1280, 800)
            for _ in range(6):
                qapp.processEvents()
            assert window.width() == 1280, bench
            page = layout_of(window).page(bench)
            labels = [one for one in page.findChildren(QLabel) if one.isVisible()]
            assert [one.text() for one in labels if is_cut(one)] == [], bench
            buttons = [b for b in page.findChildren(QPushButton) if b.isVisible()]
            cut = [b.text() for b in buttons if b.width() < b.minimumSizeHint().width() - 2]
            assert cut == [], bench
    finally:
        apply_theme(qapp, make_theme("light"))
