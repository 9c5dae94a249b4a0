"""Tail: a ribbed stabilizer recomputed and painted, the bracing dragged, its stiffness reckoned."""

import numpy as np
from pytest_benchmark.fixture import BenchmarkFixture
from pytestqt.qtbot import QtBot

from hardkeel.airframe.tails import frame_choices
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.tail import surface_of
from hardkeel.picture.tail import flat_picture_of, rib_gallery
from hardkeel.tail.model import TailBracing, TailSpar, TailSurface
from hardkeel.tail.ribs import cut_ribs
from hardkeel.ui.theme import make_theme
from hardkeel.ui.widgets.wood_board import WoodBoard


def ribbed(root: float) -> TailSurface:
    """480 mm, 13 ribs, two spars, a hinge line."""
    return TailSurface(
        id="stab",
        kind="ribbed",
        span=480.0,
        root_chord=root,
        tip_chord=90.0,
        sweep_le=12.0,
        root_profile="lifting",
        ribs=tuple(20.0 * i for i in range(13)),
        spars=(
            TailSpar(id="top", at_chord=0.3, section=(3.0, 3.0)),
            TailSpar(id="bottom", at_chord=0.3, section=(3.0, 3.0), face="bottom"),
        ),
        leading_edge=(6.0, 8.0),
        trailing_edge=(10.0, 3.0),
        hinge_at_chord=0.65,
        hinge_edge=4.0,
    )


def test_a_ribbed_stabilizer_recomputes_and_redraws(
    benchmark: BenchmarkFixture, qtbot: QtBot
) -> None:
    """Thirteen ribs never seen before, gallery and surface, both painted; 50 ms are wanted."""
    boards = [WoodBoard(make_theme("light"), "surface"), WoodBoard(make_theme("light"), "ribs")]
    for board in boards:
        qtbot.addWidget(board)
        board.resize(740, 380)
        board.show()
        qtbot.waitExposed(board)
    roots = iter(np.linspace(110, 150, 10**5))

    def redraw() -> None:
        surface = ribbed(float(next(roots)))
        boards[0].show_picture(flat_picture_of(surface, {}))
        boards[1].show_picture(rib_gallery(cut_ribs(surface, {}), "soft"))
        for board in boards:
            board.repaint()

    benchmark(redraw)


def test_a_drag_of_the_bracings_pitch(benchmark: BenchmarkFixture, qtbot: QtBot) -> None:
    """A frame never seen before, drawn and painted; 16 ms are 60 a second."""
    board = WoodBoard(make_theme("light"), "surface")
    qtbot.addWidget(board)
    board.resize(740, 600)
    board.show()
    qtbot.waitExposed(board)
    surface = surface_of(demo_build(), "stab")
    pitches = iter(np.linspace(30, 90, 10**5))

    def drag() -> None:
        bracing = (surface.bracing or TailBracing()).but(pitch=float(next(pitches)))
        board.show_picture(flat_picture_of(surface.but(bracing=bracing), {}, None, 1.9, pins=False))
        board.repaint()

    benchmark(drag)


def test_the_stiffness_of_five_choices(benchmark: BenchmarkFixture) -> None:
    """What follows a drag; 100 ms are wanted."""
    build = demo_build()
    surface = surface_of(build, "stab")
    pitches = iter(np.linspace(30, 90, 10**5))

    def reckon() -> None:
        bracing = (surface.bracing or TailBracing()).but(pitch=float(next(pitches)))
        frame_choices(build, surface.but(bracing=bracing))

    benchmark(reckon)
