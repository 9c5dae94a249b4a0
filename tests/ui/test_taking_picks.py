"""Before a sheet's figures are taken: old and new side by side, and nothing moved in silence."""

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QLabel
from pytestqt.qtbot import QtBot

from hardkeel.edits import paper as paper_edits
from hardkeel.edits.picks import ends_with, takings
from hardkeel.fuselage.model import Fuselage
from hardkeel.paper.model import KnownLength, Plan, Trace
from hardkeel.paper.picking import Picked
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.layout.paper_page import PaperPage
from hardkeel.ui.stages.layout.taking_dialog import TakingDialog
from tests.stages_of import layout_of

LEFT = Qt.MouseButton.LeftButton


def fuselage(window: MainWindow) -> Fuselage:
    found = window.document.build.fuselage
    assert found is not None
    return found


def sheet_of(rows: list[tuple[float, float, float, float]]) -> Plan:
    """A sheet of a pixel a millimetre, with rows of station, half-width, bottom and top picked."""
    traces = (
        Trace(id="stations", kind="stations", pixels=tuple((x, 0.0) for x, *_ in rows)),
        Trace(id="side-top", kind="side-top", pixels=tuple((x, -top) for x, _, _, top in rows)),
        Trace(
            id="side-bottom", kind="side-bottom", pixels=tuple((x, -low) for x, _, low, _ in rows)
        ),
        Trace(
            id="plan-side",
            kind="plan-side",
            pixels=tuple((x, 500 + s * half) for x, half, _, _ in rows for s in (-1, 1)),
        ),
    )
    lengths = (
        KnownLength(a=(0, 0), b=(100, 0), length=100, along="x"),
        KnownLength(a=(0, 0), b=(0, 100), length=100, along="y"),
    )
    return Plan(
        id="half", image="plans/none.png", origin=(0.0, 0.0), lengths=lengths, traces=traces
    )


@pytest.fixture
def desk(window: MainWindow) -> PaperPage:
    window.show_stage("layout")
    layout_of(window).turn_to("paper")
    return layout_of(window).paper


def shown(dialog: TakingDialog) -> str:
    return " ".join(one.text() for one in dialog.findChildren(QLabel))


def front_half(window: MainWindow) -> Plan:
    first, second = fuselage(window).formers[:2]
    between = (first.station + second.station) / 2
    return sheet_of(
        [
            (first.station, first.half_width, first.bottom, first.top),
            (between, 33.0, -21.0, 42.0),
            (second.station, second.half_width + 4, second.bottom, second.top),
        ]
    )


def test_the_half_of_a_model_leaves_its_tail_post_where_it_is(
    qtbot: QtBot, window: MainWindow, desk: PaperPage
) -> None:
    before = fuselage(window)
    window.document.apply("lay a half", paper_edits.add_plan.of(front_half(window)))
    desk.show_plan("half")
    assert desk.picks.last_is == "former", "the tail post is known and stands further aft"
    said = " ".join(one.text() for one in desk.picks.findChildren(QLabel))
    assert "tail post" not in said, "one card does not say both"
    qtbot.mouseClick(desk.picks.take, LEFT)
    dialog = desk.findChild(TakingDialog)
    assert dialog is not None
    assert fuselage(window) == before, "nothing is moved before it was seen"
    words = shown(dialog)
    assert "new" in words
    wide = before.formers[1].half_width
    assert f"{wide:.1f} mm → {wide + 4:.1f} mm" in words
    qtbot.mouseClick(dialog.take, LEFT)
    after = fuselage(window)
    assert after.tail_post == before.tail_post
    assert len(after.formers) == len(before.formers) + 1
    assert after.formers[2].half_width == pytest.approx(wide + 4, abs=0.01)
    assert after.formers[3:] == before.formers[2:]


@pytest.mark.parametrize(("last", "seems"), [("F7", "former"), ("tail_post", "post")])
def test_a_sheet_one_per_cent_short_is_known_by_where_it_ends(
    window: MainWindow, last: str, seems: str
) -> None:
    stop = dict(fuselage(window).stations)[last]
    rows = (Picked(0.0, 20.0, -20.0, 20.0), Picked(0.99 * stop.station, 5.0, 0.0, 20.0))
    assert ends_with(fuselage(window), rows) == seems


def test_going_back_takes_nothing(qtbot: QtBot, window: MainWindow, desk: PaperPage) -> None:
    window.document.apply("lay a half", paper_edits.add_plan.of(front_half(window)))
    desk.show_plan("half")
    before = window.document.build
    qtbot.mouseClick(desk.picks.take, LEFT)
    dialog = desk.findChild(TakingDialog)
    assert dialog is not None
    qtbot.mouseClick(dialog.back, LEFT)
    assert window.document.build == before


def test_what_would_be_taken_is_told_stop_by_stop(window: MainWindow) -> None:
    build = window.document.build
    first = fuselage(window).formers[0]
    rows = (
        Picked(first.station, first.half_width, first.bottom, first.top),
        Picked(first.station + 20, 30.0, -20.0, 40.0),
    )
    found = takings(build, rows, ends="former")
    kinds = {one.stop: one.kind for one in found}
    assert kinds[first.id] == "left"
    assert kinds["tail_post"] == "left"
    assert sorted(kinds.values()).count("added") == 1
    assert [one.now.station for one in found] == sorted(one.now.station for one in found)


def test_a_given_outline_takes_its_clicks_along_and_the_next_former_is_offered(
    qtbot: QtBot, window: MainWindow, desk: PaperPage
) -> None:
    ring = Trace(id="outline", kind="outline", pixels=((0, 0), (60, 0), (60, -80), (0, -80)))
    sheet = front_half(window)
    window.document.apply(
        "lay it", paper_edits.add_plan.of(sheet.but(traces=(*sheet.traces, ring)))
    )
    desk.show_plan("half")
    names = [one.id for one in fuselage(window).formers]
    desk.picks.formers.setCurrentText(names[1])
    qtbot.mouseClick(desk.picks.give, LEFT)
    assert fuselage(window).formers[1].half_width == pytest.approx(30.0, abs=0.01)
    assert desk.plan is not None
    assert all(trace.kind != "outline" for trace in desk.plan.traces)
    assert desk.picks.formers.currentText() == names[2]
    window.document.stack.undo()
    assert fuselage(window).formers[1].outline == ()
    assert any(trace.kind == "outline" for trace in desk.plan.traces), "one step, taken back whole"
