"""Pieces on their own: models by the book, contrast, sizes, log, dialogs, gauges."""

import numpy as np
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QColor
from PyQt6.QtWidgets import QApplication, QLabel, QPushButton
from pytestqt.modeltest import ModelTester
from pytestqt.qtbot import QtBot

from hardkeel.base.errors import BadInput
from hardkeel.gauges.protocol import GAUGE_KINDS
from hardkeel.project.model import Build
from hardkeel.ui.settings import Settings
from hardkeel.ui.shell import new_build
from hardkeel.ui.shell.new_build import NewBuildDialog
from hardkeel.ui.shell.questions import AboutDialog, ReportDialog
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.log.page import parse_hours
from hardkeel.ui.stages.true.gauge_dock import PlaceMenu
from hardkeel.ui.theme import PALETTES, SCALES, ThemeName, apply_theme, make_theme
from hardkeel.ui.widgets.cells import CellsModel, Column, Row
from hardkeel.ui.widgets.vial import Vial, VialValue
from tests.stages_of import gauges_of, log_of, true_of
from tests.ui.cutting import is_cut


def luminance(colour: str) -> float:
    parts = np.array([QColor(colour).redF(), QColor(colour).greenF(), QColor(colour).blueF()])
    linear = np.where(parts <= 0.03928, parts / 12.92, ((parts + 0.055) / 1.055) ** 2.4)
    return float(linear @ [0.2126, 0.7152, 0.0722])


@pytest.mark.parametrize("name", ["light", "dark"])
@pytest.mark.parametrize(
    ("ink", "ground"),
    [("ink", "paper"), ("ink", "desk"), ("ink", "field"), ("soft", "paper"), ("soft", "desk"), ("soft", "field"),
     ("act", "paper"), ("act", "field"), ("act", "act_wash"), ("out", "paper"), ("out", "field"), ("out", "desk"),
     ("on_act", "act"), ("ink", "wood")],
)  # fmt: skip
def test_text_stands_out_by_four_and_a_half_to_one(name: ThemeName, ink: str, ground: str) -> None:
    palette = PALETTES[name]
    bright, dark = sorted(
        (luminance(getattr(palette, ink)), luminance(getattr(palette, ground))), reverse=True
    )
    assert (bright + 0.05) / (dark + 0.05) >= 4.5


def test_models_keep_the_rules_of_qt(window: MainWindow, qtmodeltester: ModelTester) -> None:
    theme = make_theme("light")
    model = CellsModel(
        (Column("a"), Column("b", typed=True)), theme, lambda _key, _col, _text: True
    )
    model.show_rows(tuple(Row(f"r{i}", ("what", "1"), struck=i == 2) for i in range(4)), theme)
    qtmodeltester.check(model)
    qtmodeltester.check(log_of(window).model)


def test_a_row_struck_out_strikes_nothing_else_out(window: MainWindow) -> None:
    theme = make_theme("light")
    model = CellsModel((Column("a"),), theme)
    model.show_rows((Row("r1", ("kept, not used",), struck=True),), theme)
    assert model.data(model.index(0, 0), Qt.ItemDataRole.FontRole).strikeOut()  # type: ignore[attr-defined]
    assert not theme.font(14).strikeOut()


@pytest.mark.parametrize("percent", SCALES)
@pytest.mark.parametrize("theme", ["light", "dark"])
def test_no_label_is_cut_at_any_text_size(
    window: MainWindow, settings: Settings, percent: int, theme: ThemeName, qapp: QApplication
) -> None:
    settings.theme, settings.text_percent = theme, percent
    window.theme_changed.connect(lambda made: apply_theme(qapp, made))
    window.restyle()
    for _ in range(5):
        qapp.processEvents()
    try:
        for stage in ("true", "log"):
            window.show_stage(stage)
            qapp.processEvents()
            cut = [
                label.text()
                for label in window.findChildren(QLabel)
                if label.isVisible() and is_cut(label)
            ]
            assert cut == []
            short = [
                b.text()
                for b in window.findChildren(QPushButton)
                if b.isVisible() and b.width() < b.minimumSizeHint().width() - 2
            ]
            assert short == []
    finally:
        apply_theme(qapp, make_theme("light"))


def test_a_vial_is_picked_by_keyboard(qtbot: QtBot) -> None:
    value = VialValue(
        "stab_roll", "Stabilizer level", 1.2, 0.1, "out", "0.62°", "out", "Stabilizer level is out."
    )
    vial = Vial(value, make_theme("light"))
    qtbot.addWidget(vial)
    with qtbot.waitSignal(vial.picked) as seen:
        qtbot.keyClick(vial, Qt.Key.Key_Return)
    assert seen.args == ["stab_roll"]
    assert vial.accessibleName() == "Stabilizer level is out."


def test_notes_hours_and_filter_of_the_log(qtbot: QtBot, window: MainWindow) -> None:
    window.show_stage("log")
    total = log_of(window).model.rowCount()
    qtbot.keyClicks(log_of(window).note, "Opened the tube hole by a millimetre")
    qtbot.keyClick(log_of(window).note, Qt.Key.Key_Return)
    assert log_of(window).model.rowCount() == total + 1
    assert log_of(window).model.index(0, 2).data() == "Opened the tube hole by a millimetre"
    qtbot.keyClicks(log_of(window).filter, "tube")
    assert log_of(window).model.rowCount() == 1
    qtbot.keyClicks(log_of(window).hours_line, "1h30 tail")
    qtbot.keyClick(log_of(window).hours_line, Qt.Key.Key_Return)
    assert window.document.build.sessions[-1].hours == 1.5
    assert window.document.stack.undoText() == "add 1.5 h"
    qtbot.keyClicks(log_of(window).hours_line, "long")
    qtbot.keyClick(log_of(window).hours_line, Qt.Key.Key_Return)
    assert window.document.build.sessions[-1].hours == 1.5


@pytest.mark.parametrize(
    ("text", "hours", "note"),
    [
        ("1.5", 1.5, None),
        ("1,5 h", 1.5, None),
        ("1h30", 1.5, None),
        ("90 min sanding", 1.5, "sanding"),
        ("2h05 fin", 2 + 5 / 60, "fin"),
    ],
)
def test_hours_are_understood(text: str, hours: float, note: str | None) -> None:
    found, words = parse_hours(text)
    assert found == pytest.approx(hours)
    assert words == note


@pytest.mark.parametrize("text", ["", "0", "25", "all evening"])
def test_hours_that_make_no_sense_are_told(text: str) -> None:
    with pytest.raises(BadInput):
        parse_hours(text)


def built(dialog: NewBuildDialog) -> Build:
    assert dialog.build is not None
    return dialog.build


def test_a_new_build_follows_its_figures_and_refuses_nonsense(qtbot: QtBot) -> None:
    dialog = NewBuildDialog(make_theme("light"), "mm")
    qtbot.addWidget(dialog)
    dialog.show()
    span = dialog.fields["wing_span"].line
    span.clear()
    qtbot.keyClicks(span, "60 in")
    qtbot.waitUntil(lambda: built(dialog).wings[0].span > 1500)
    assert built(dialog).wings[0].span == pytest.approx(1524)
    arm = dialog.fields["tail_arm"].line
    arm.clear()
    qtbot.keyClicks(arm, "10")
    qtbot.waitUntil(lambda: dialog.build is None)
    assert not dialog.take.isEnabled()
    dialog.accept()
    assert not dialog.result()
    arm.clear()
    qtbot.keyClicks(arm, "600")
    for box in dialog.tools.values():
        box.setChecked(False)
    dialog.accept()  # as typed a moment ago
    assert built(dialog).surveyed.instruments == ()


def test_a_name_is_typed_without_anything_being_planned(
    qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    dialog = NewBuildDialog(make_theme("light"), "mm")
    qtbot.addWidget(dialog)
    planned: list[object] = []

    def plan(*given: object) -> tuple[()]:
        planned.append(given)
        return ()

    monkeypatch.setattr(new_build, "plan", plan)
    qtbot.keyClicks(dialog.name, "Sedge")
    qtbot.wait(200)
    assert not planned
    dialog.refresh()
    qtbot.waitUntil(lambda: len(planned) == 1)
    dialog.accept()
    assert built(dialog).name.endswith("Sedge")


def test_about_carries_the_safety_word_and_the_report_can_be_copied(
    qtbot: QtBot, qapp: QApplication
) -> None:
    about = AboutDialog()
    qtbot.addWidget(about)
    assert any("model aircraft only" in label.text() for label in about.findChildren(QLabel))
    report = ReportDialog("what happened")
    qtbot.addWidget(report)
    next(b for b in report.findChildren(QPushButton) if b.text().startswith("Copy")).click()
    clipboard = qapp.clipboard()
    assert clipboard is not None
    assert clipboard.text() == "what happened"


def test_a_gauge_is_plugged_in_zeroed_read_and_pulled(qtbot: QtBot, window: MainWindow) -> None:
    row = true_of(window).dock.row("tape")
    row.plug.click()
    menu = QApplication.activePopupWidget()
    assert isinstance(menu, PlaceMenu)
    menu.actions()[0].trigger()
    menu.close()
    qtbot.waitUntil(lambda: row.state == "live", timeout=10000)
    row.zero.click()
    qtbot.waitUntil(lambda: row.zero.text() == "zeroed", timeout=5000)
    target = true_of(window).entry.target
    assert target is not None
    field = true_of(window).next.field
    qtbot.waitUntil(field.line.hasSelectedText, timeout=10000)
    qtbot.waitUntil(lambda: field.value is not None and abs(field.value - 955) < 5, timeout=10000)
    qtbot.wait(1200)  # at rest
    qtbot.keyClick(field.line, Qt.Key.Key_Return)
    assert not window.document.judgement.outliers
    parts = (row.plug, row.zero, row.shown)
    assert [part.text() for part in parts if part.width() < part.minimumSizeHint().width()] == []
    row.plug.click()
    assert row.state == ""


def test_a_dead_gauge_never_holds_the_window(qtbot: QtBot, window: MainWindow) -> None:
    gauges_of(window).desk.plug("level", "/dev/no-such-port")
    row = true_of(window).dock.row("level")
    qtbot.waitUntil(lambda: row.state == "lost", timeout=10000)
    for kind in GAUGE_KINDS:
        gauges_of(window).desk.unplug(kind)


def test_settings_keep_only_what_makes_sense(settings: Settings) -> None:
    settings.unit, settings.theme, settings.text_percent = "in", "dark", 150
    assert (settings.unit, settings.theme, settings.text_percent) == ("in", "dark", 150)
    settings.text_percent = 9000
    assert settings.text_percent == 100
