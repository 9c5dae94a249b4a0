"""Frame: a large drawing under the pointer, pieces on sheets, strips to buy."""

import numpy as np
import pytest
from PyQt6.QtCore import QEvent, QPointF, Qt
from PyQt6.QtGui import QMouseEvent
from PyQt6.QtWidgets import QApplication
from pytest_benchmark.fixture import BenchmarkFixture
from pytestqt.qtbot import QtBot

from hardkeel.airframe.framing import build_pieces
from hardkeel.demo.kettlewick import demo_build
from hardkeel.demo.planked import sorrel
from hardkeel.edits.framing import spread_stringers
from hardkeel.edits.fuselage import set_station
from hardkeel.fuselage.cut_list import cut_list_of
from hardkeel.fuselage.dragging import dragged
from hardkeel.fuselage.inspecting import findings_of
from hardkeel.fuselage.model import Bracing, Former, Fuselage, Longeron, Section
from hardkeel.fuselage.pieces import pieces_of
from hardkeel.fuselage.planking import planks_of
from hardkeel.joinery.buying import packing
from hardkeel.joinery.nesting import nested
from hardkeel.picture.board import lines_of
from hardkeel.picture.frame_in_space import in_space
from hardkeel.picture.framing import laid_flat
from hardkeel.picture.in_space import Eye
from hardkeel.project.model import Build
from hardkeel.ui.theme import make_theme
from hardkeel.ui.widgets.round_view import RoundView, Seen
from hardkeel.ui.widgets.wood_board import WoodBoard


def large_frame() -> Build:
    """Thirty formers of one open section, crossed: some two hundred sticks on both sides."""
    x = np.linspace(0, 1450, 30)
    formers = tuple(
        Former(
            id=f"F{i + 1}",
            station=float(a),
            half_width=float(30 + 25 * np.sin(np.pi * (0.2 + 0.7 * a / 1450))),
            bottom=-50.0 + 0.02 * float(a),
            top=60.0 - 0.02 * float(a),
            lightened=True,
        )
        for i, a in enumerate(x)
    )
    return Build(
        fuselage=Fuselage(
            side_thickness=0.0,
            side_material="balsa-medium",
            formers=formers,
            sections=(
                Section.model_validate({"from": "F1", "to": "F30", "method": "stick-sides"}),
            ),
            longerons=(
                Longeron(id="upper", section=(6.0, 6.0)),
                Longeron(id="lower", section=(6.0, 6.0)),
            ),
            bracing=Bracing(upright=(5.0, 5.0), diagonal=(5.0, 5.0), pattern="crossed"),
        )
    )


def test_pointing_along_two_hundred_sticks(benchmark: BenchmarkFixture, qtbot: QtBot) -> None:
    """A pointer's move and the repaint that it asks for; 16 ms are 60 a second."""
    build = large_frame()
    assert build.fuselage is not None
    assert sum(part.quantity for part in cut_list_of(build.fuselage)) > 170
    board = WoodBoard(make_theme("light"), "frame")
    qtbot.addWidget(board)
    board.resize(740, 300)
    board.show_picture(laid_flat(build))
    board.show()
    qtbot.waitExposed(board)
    places = iter(range(10**9))

    def point() -> None:
        at = QPointF(20 + 7 * (next(places) % 100), 150)
        none = Qt.MouseButton.NoButton
        event = QMouseEvent(
            QEvent.Type.MouseMove, at, at, none, none, Qt.KeyboardModifier.NoModifier
        )
        QApplication.sendEvent(board, event)
        board.repaint()

    benchmark(point)


def test_an_edit_redraws_thirty_formers_and_two_hundred_sticks(benchmark: BenchmarkFixture) -> None:
    """The picture of a frame never seen before: sticks cut anew, blanks rolled out."""
    build, tops = large_frame(), iter(np.linspace(40, 70, 10**5))
    benchmark(lambda: laid_flat(set_station(build, "F9", top=float(next(tops)))))


def test_findings_of_thirty_formers_after_an_edit(benchmark: BenchmarkFixture) -> None:
    build, tops = large_frame(), iter(np.linspace(40, 70, 10**5))

    def look() -> None:
        changed = set_station(build, "F9", top=float(next(tops))).fuselage
        assert changed is not None
        findings_of(changed)

    look()
    benchmark(look)


def test_an_oval_of_twenty_four_stringers_recomputes_after_a_drag(
    benchmark: BenchmarkFixture,
) -> None:
    """Section, all pieces, cut list and planks of a fuselage never seen before."""
    build = spread_stringers(sorrel(), 24, first="F1", last="F12", section=(3.0, 3.0))
    fuselage, widths = build.fuselage, iter(np.linspace(58, 68, 10**5))
    assert fuselage is not None

    def recompute() -> None:
        moved = dragged(fuselage, "F5", half_width=float(next(widths)))
        lines_of(moved, "F5", rough=True)
        pieces_of(moved)
        cut_list_of(moved)
        planks_of(moved)

    recompute()
    benchmark.pedantic(recompute, rounds=20)


def test_a_thousand_faces_turned(benchmark: BenchmarkFixture, qtbot: QtBot) -> None:
    """One frame of the planked oval while a hand turns it."""
    view = RoundView(make_theme("light"))
    qtbot.addWidget(view)
    view.resize(740, 640)
    view.show_space(Seen(in_space(sorrel())))
    view.show_skin("closed")
    view.show()
    view.repaint()
    turns = iter(np.linspace(0, 3600, 10**5))

    def turn() -> None:
        view._resting = False  # noqa: SLF001  as under a hand
        view.look_from(Eye(float(next(turns)), 20.0))
        view.repaint()

    turn()
    benchmark.pedantic(turn, rounds=60)


def test_the_demos_pieces_nested(benchmark: BenchmarkFixture) -> None:
    pieces = build_pieces(demo_build())
    benchmark.pedantic(lambda: nested(pieces, (1000.0, 100.0)), rounds=3)


@pytest.mark.parametrize(
    "span", [(30.0, 120.0), (60.0, 250.0), (100.0, 600.0), (200.0, 460.0)], ids=lambda s: f"{s[0]:.0f}-{s[1]:.0f}"
)  # fmt: skip
def test_strips_for_a_hundred_and_fifty_sticks(
    benchmark: BenchmarkFixture, span: tuple[float, float]
) -> None:
    """Ten lists; how many of them are proven is told beside the time."""
    lists = [np.random.default_rng(seed).uniform(*span, 150).tolist() for seed in range(10)]
    numbers = iter(range(10**9))
    proven: list[bool] = []

    def pack() -> None:
        strips, bound = packing(lists[next(numbers) % 10], 915.0, 0.6)
        proven.append(len(strips) == bound)

    benchmark.pedantic(pack, rounds=10)
    benchmark.extra_info["proven"] = f"{sum(proven)} of {len(proven)}"
    print(f"\n{span}: {sum(proven)} of {len(proven)} proven")  # noqa: T201
