"""Check a part in the window: a picture dropped, the answer, the ledger, the second hand, an outline without a drawing."""

from pathlib import Path

import numpy as np
import pytest
import shapely
from PyQt6.QtCore import QMimeData, QPointF, Qt, QUrl
from PyQt6.QtGui import QDropEvent
from pytestqt.qtbot import QtBot
from shapely import affinity

from hardkeel.airframe.checked_parts import check_from, hands_apart, kept_of
from hardkeel.airframe.cut_pieces import cut_pieces, piece_named
from hardkeel.base.errors import BadInput
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.fuselage import set_station
from hardkeel.edits.ledger import note_check
from hardkeel.export.mat_sheet import mat_files
from hardkeel.joinery.flat import FlatPiece
from hardkeel.parts.model import OTHER_HAND
from hardkeel.project.model import Build
from hardkeel.sight.codes import codes_in
from hardkeel.sight.edges import edges_of
from hardkeel.sight.mat import mat_for
from hardkeel.sight.part_check import Check
from hardkeel.sight.part_faults import faults_of
from hardkeel.sight.part_photo import mat_from
from hardkeel.sight.pictures import jpeg_of
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.ui.jobs.scans import image_from, read_scan
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.layout.check_controller import CheckController
from hardkeel.ui.stages.layout.check_page import CheckPage
from hardkeel.ui.stages.layout.scan_copies import greys
from tests.conftest import StepClock
from tests.matted import Lying, faulted, lying_at, photographed, tilted
from tests.stages_of import layout_of

MAT = mat_for("A4", (210.0, 297.0))


@pytest.fixture(scope="module")
def picture_of_f3(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """F3 with half a millimetre left on one side, on its mat."""
    piece = piece_named(demo_build(), "F3")
    wood = faulted(shapely.Polygon(piece.outline, piece.holes), 0.5, (22.5, -15, 60, 15))
    return shot(lying_at(wood, piece.thickness, (105, 153), turn=6), tmp_path_factory)


def shot(lying: Lying, factory: pytest.TempPathFactory) -> Path:
    eye = tilted(6, 430, (105, 150), focal=1900.0, size=(2200, 1650))
    pixels = photographed(MAT.model_dump(mode="json"), MAT.inside, lying, eye)
    path = factory.mktemp("shots") / "part.jpg"
    path.write_bytes(jpeg_of(pixels, 1900 / 2200 * 36))
    return path


def page_of(window: MainWindow) -> CheckPage:
    window.show_stage("layout")
    stage = layout_of(window)
    stage.turn_to("check")
    page = stage.page("check")
    assert isinstance(page, CheckPage)
    return page


def drop(page: CheckPage, path: Path) -> None:
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(path))])
    none = Qt.MouseButton.NoButton, Qt.KeyboardModifier.NoModifier
    page.dropEvent(QDropEvent(QPointF(60, 60), Qt.DropAction.CopyAction, data, *none))


def test_a_dropped_picture_says_what_to_sand_and_the_ledger_keeps_it(
    window: MainWindow, qtbot: QtBot, picture_of_f3: Path
) -> None:
    page = page_of(window)
    page.choose("F3")
    assert "drop it here" in page.view.accessibleDescription()
    drop(page, picture_of_f3)
    qtbot.waitUntil(lambda: "F3" in window.document.build.listed.checked, timeout=40_000)
    kept = window.document.build.listed.checked["F3"]
    assert kept.worst == pytest.approx(0.5, abs=0.1)
    assert "sand 0.5 mm off the starboard edge" in page.view.accessibleDescription()
    again = build_from_text(text_of(window.document.build))
    assert again.listed.checked["F3"] == kept
    window.document.stack.undo()
    assert not window.document.build.listed.checked
    assert "drop it here" in page.view.accessibleDescription()


def test_a_picture_of_something_else_is_told_and_nothing_is_lost(
    window: MainWindow, qtbot: QtBot, tmp_path: Path
) -> None:
    page = page_of(window)
    page.choose("F4")
    (tmp_path / "dog.jpg").write_bytes(jpeg_of(np.full((400, 600, 3), 90, dtype=np.uint8)))
    drop(page, tmp_path / "dog.jpg")
    qtbot.waitUntil(lambda: "shows 0 of the mat" in page.told.text(), timeout=20_000)
    assert not window.document.build.listed.checked


def test_what_lies_on_the_mat_becomes_a_formers_outline(
    window: MainWindow, qtbot: QtBot, picture_of_f3: Path
) -> None:
    page = page_of(window)
    desk = window.findChild(CheckController)
    assert desk is not None
    before = piece_named(window.document.build, "F3")
    desk.outline(picture_of_f3, "F6", 3.0)
    qtbot.waitUntil(window.document.stack.canUndo, timeout=40_000)
    fuselage = window.document.build.fuselage
    assert fuselage is not None
    former = fuselage.former("F6")
    assert former is not None
    assert former.outline is not None
    wide = 2 * former.half_width
    x0, _, x1, _ = affinity.rotate(shapely.Polygon(before.outline), 6).bounds
    assert wide == pytest.approx(x1 - x0 + 0.25, abs=0.6)  # as it lies, with what was left on
    assert page.told.text() == ""


def test_the_mat_is_written_with_what_reads_it(
    window: MainWindow, qtbot: QtBot, tmp_path: Path
) -> None:
    page_of(window)
    desk = window.findChild(CheckController)
    assert desk is not None
    desk.write(tmp_path / "mat.pdf")
    qtbot.waitUntil((tmp_path / "mat.json").exists, timeout=20_000)
    assert (tmp_path / "mat.pdf").read_bytes().startswith(b"%PDF")


@pytest.mark.parametrize(("paper", "tall"), [("A4", 297.0), ("Letter", 279.4), ("A3", 420.0)])
def test_the_printed_mat_has_its_labels_where_its_file_says(
    tmp_path: Path, paper: str, tall: float
) -> None:
    pdf, data = mat_files(paper)
    (tmp_path / "mat.pdf").write_bytes(pdf)
    image, _ = image_from(read_scan(tmp_path / "mat.pdf"))
    per_mm = image.dotsPerMeterX() / 1000
    wanted = {one.code: one.corners for one in mat_from(data, "mat.json").codes}
    found = codes_in(greys(image))
    assert {one.code for one in found} == set(wanted)
    for one in found:
        spots = [(u / per_mm, tall - v / per_mm) for u, v in one.corners]
        assert np.array(spots) == pytest.approx(np.array(wanted[one.code]), abs=0.12)


# -- the ledger, without a window ------------------------------------------------------------------


def checked(piece: FlatPiece, by: float, within: tuple[float, float], *, mirrored: bool) -> Check:
    """A check that says so much is left on where u lies within."""
    edges = edges_of([np.array(ring) for ring in (piece.outline, *piece.holes)])
    off = np.where((edges.at[:, 0] > within[0]) & (edges.at[:, 0] < within[1]), by, 0.0)
    return Check(True, mirrored, frozenset(), edges.at, off, edges.ring, edges.normal, 0.02)


def pair_of(build: Build) -> FlatPiece:
    return next(piece for piece in cut_pieces(build) if piece.pair)


def test_two_hands_of_a_pair_are_held_against_each_other(clock: StepClock) -> None:
    build = demo_build()
    piece = pair_of(build)
    one = checked(piece, 0.0, (0, 1), mirrored=False)
    other = checked(piece, 0.6, (40.0, 80.0), mirrored=True)
    build = note_check(build, piece.name, kept_of(one, clock()))
    assert hands_apart(build, piece) is None
    build = note_check(build, piece.name + OTHER_HAND, kept_of(other, clock()))
    apart = hands_apart(build, piece)
    assert apart is not None
    told = faults_of(apart, piece)
    assert {round(fault.by, 1) for fault in told} == {0.6}
    assert all(fault.span is not None for fault in told)


def test_what_was_found_of_a_part_drawn_anew_is_not_said_of_it(clock: StepClock) -> None:
    build = demo_build()
    piece = piece_named(build, "F4")
    kept = kept_of(checked(piece, 0.3, (0, 40), mirrored=False), clock())
    assert check_from(piece, kept) is not None
    drawn_anew = piece_named(set_station(build, "F4", half_width=33.0), "F4")
    assert check_from(drawn_anew, kept) is None
    with pytest.raises(BadInput, match='no piece "F44"'):
        piece_named(build, "F44")
