"""Check a part in the window: a picture dropped, the answer, the ledger, the second hand, an outline without a drawing."""

from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest
import shapely
from PyQt6.QtWidgets import QFileDialog
from pytestqt.qtbot import QtBot
from shapely import affinity

from hardkeel.airframe.checked_parts import checked, hands_apart, kept_of
from hardkeel.airframe.cut_pieces import cut_pieces, piece_named
from hardkeel.base.errors import BadInput
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.fuselage import set_station
from hardkeel.edits.ledger import note_check
from hardkeel.export.mat_sheet import mat_files
from hardkeel.joinery.flat import FlatPiece
from hardkeel.messages.mat import checked_line, hands_line, how_lines, verdict
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
from tests.ui.dropping import drop_on

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


def test_a_dropped_picture_says_what_to_sand_and_the_ledger_keeps_it(
    window: MainWindow, qtbot: QtBot, picture_of_f3: Path
) -> None:
    page = page_of(window)
    page.choose("F3")
    assert "drop it here" in page.view.accessibleDescription()
    assert drop_on(page, picture_of_f3)
    qtbot.waitUntil(lambda: "F3" in window.document.build.listed.checked, timeout=40_000)
    kept = window.document.build.listed.checked["F3"]
    assert max(one for one in kept.by if one is not None) == pytest.approx(0.5, abs=0.15)
    assert kept.tilt == pytest.approx(6, abs=0.5)
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
    assert drop_on(page, tmp_path / "dog.jpg")
    qtbot.waitUntil(lambda: "shows 0 of the mat" in page.told.text(), timeout=20_000)
    assert not window.document.build.listed.checked


def test_what_lies_on_the_mat_becomes_a_formers_outline(
    window: MainWindow, qtbot: QtBot, picture_of_f3: Path
) -> None:
    page = page_of(window)
    desk = window.findChild(CheckController)
    assert desk is not None
    before = piece_named(window.document.build, "F3")
    page.becomes.setCurrentText("F6")
    desk.outline(picture_of_f3)
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


def test_an_outline_is_a_template_where_it_is_wanted(
    window: MainWindow,
    qtbot: QtBot,
    picture_of_f3: Path,
    tmp_path: Path,
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    page = page_of(window)
    desk = window.findChild(CheckController)
    assert desk is not None
    assert page.becomes.findData("stab") >= 0
    page.becomes.setCurrentIndex(page.becomes.findData(""))
    there = tmp_path / "bulkhead.svg"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_a, **_k: (str(there), ""))
    desk.outline(picture_of_f3)
    qtbot.waitUntil(there.exists, timeout=40_000)
    qtbot.waitUntil(lambda: "bulkhead.svg has it" in window.notice.text, timeout=20_000)
    assert not window.document.stack.canUndo()


def test_a_mat_of_several_sheets_is_printed_and_read_as_such(
    window: MainWindow, qtbot: QtBot, tmp_path: Path
) -> None:
    page = page_of(window)
    page.paper.setCurrentText("A4, 2 sheets")
    assert page.mat == ("A4", (2, 1))
    desk = window.findChild(CheckController)
    assert desk is not None
    desk.write(tmp_path / "mat.pdf")
    qtbot.waitUntil((tmp_path / "mat.json").exists, timeout=20_000)
    qtbot.waitUntil(lambda: not window.jobs.writing, timeout=20_000)
    assert len(mat_from((tmp_path / "mat.json").read_bytes(), "mat.json").pages) == 2


def test_the_mat_is_written_with_what_reads_it(
    window: MainWindow, qtbot: QtBot, tmp_path: Path
) -> None:
    page_of(window)
    desk = window.findChild(CheckController)
    assert desk is not None
    desk.write(tmp_path / "mat.pdf")
    qtbot.waitUntil((tmp_path / "mat.json").exists, timeout=20_000)
    qtbot.waitUntil(lambda: not window.jobs.writing, timeout=20_000)
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


def check_of(piece: FlatPiece, by: float, within: tuple[float, float], *, mirrored: bool) -> Check:
    """A check that says so much is left on where u lies within."""
    edges = edges_of([np.array(ring) for ring in (piece.outline, *piece.holes)])
    off = np.where((edges.at[:, 0] > within[0]) & (edges.at[:, 0] < within[1]), by, 0.0)
    return Check(mirrored, frozenset(), edges.at, off, edges.ring, edges.normal, 0.02)


def pair_of(build: Build) -> FlatPiece:
    return next(piece for piece in cut_pieces(build) if piece.pair)


def test_two_hands_of_a_pair_are_held_against_each_other(clock: StepClock) -> None:
    build = demo_build()
    piece = pair_of(build)
    one = check_of(piece, 0.0, (0, 1), mirrored=False)
    other = check_of(piece, 0.6, (40.0, 80.0), mirrored=True)
    build = note_check(build, piece.name, kept_of(piece, one, 8.0, clock()))
    assert hands_apart(build, piece) is None
    build = note_check(build, piece.name + OTHER_HAND, kept_of(piece, other, 8.0, clock()))
    apart = hands_apart(build, piece)
    assert apart is not None
    assert {round(fault.by, 1) for fault in apart} == {0.6}
    assert all(fault.span is not None for fault in apart)
    assert "the other has 0.6 mm more wood" in hands_line(piece.name, apart, "mm")


@pytest.mark.parametrize("half_width", [33.0, 30.1])
def test_what_was_found_of_a_part_drawn_anew_is_not_said_of_it(
    clock: StepClock, half_width: float
) -> None:
    build = demo_build()
    piece = piece_named(build, "F4")
    assert piece.size[0] / 2 != half_width
    kept = kept_of(piece, check_of(piece, 0.3, (0, 40), mirrored=False), 8.0, clock())
    build = note_check(build, "F4", kept)
    found = checked(build, piece, "F4")
    assert found is not None
    assert found.check is not None
    anew = set_station(build, "F4", half_width=half_width)
    again = checked(anew, piece_named(anew, "F4"), "F4")
    assert again is not None
    assert again.check is None
    assert "drawn anew since" in checked_line(again, "mm")


def test_the_list_and_the_answer_say_the_same_of_one_splinter(clock: StepClock) -> None:
    """Two places out of three hundred are no fault: neither here nor there."""
    build = demo_build()
    piece = piece_named(build, "F4")
    plain = check_of(piece, 0.0, (0, 1), mirrored=False)
    by = plain.by.copy()
    by[40:42] = 0.4
    found = replace(plain, by=by)
    build = note_check(build, "F4", kept_of(piece, found, None, clock()))
    one = checked(build, piece, "F4")
    assert one is not None
    assert "as drawn" in checked_line(one, "mm")
    assert "is as it is drawn" in verdict(piece, found, one.faults, "mm")
    assert any("Taken for a scan" in line for line in how_lines(found, None, "mm"))


def test_as_drawn_is_said_of_no_more_than_was_seen_and_no_finer_than_it_is_known() -> None:
    piece = piece_named(demo_build(), "F4")
    whole = check_of(piece, 0.0, (0, 1), mirrored=False)
    assert verdict(piece, whole, (), "mm") == "F4 is as it is drawn, to within 0.10 mm."
    by = whole.by.copy()
    by[: len(by) // 4] = np.nan
    half = replace(whole, by=by, sigma=0.1)
    said = verdict(piece, half, (), "mm")
    assert said == "F4 is as it is drawn where it is seen, 75 % of its edge, to within 0.30 mm."


def test_what_is_off_by_more_than_was_looked_at_is_said_so() -> None:
    piece = piece_named(demo_build(), "F4")
    found = check_of(piece, 4.0, (20.0, 60.0), mirrored=False)
    aside = [one for one in faults_of(found, piece) if one.edge == "the starboard edge"]
    assert "sand 4.0 mm or more off the starboard edge" in verdict(piece, found, aside, "mm")


def test_a_name_that_no_piece_has_is_refused_with_some_that_they_have() -> None:
    with pytest.raises(BadInput, match='no piece "F44"; there are F1'):
        piece_named(demo_build(), "F44")
