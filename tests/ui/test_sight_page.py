"""Sight as a builder uses it: the demo's picture taken, clicked, nudged, and what it says."""

import io
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from PIL import Image
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtGui import QWheelEvent
from pytestqt.qtbot import QtBot

from hardkeel.base.errors import BadInput
from hardkeel.edits.sight import add_photo, take_sighting
from hardkeel.edits.truing import set_phase
from hardkeel.picture.photo import Pixel
from hardkeel.picture.truing import picture_of
from hardkeel.practice import photographing
from hardkeel.practice.hidden import hidden_from
from hardkeel.practice.photographing import camera_for, seen_from
from hardkeel.sight.snapping import Snap
from hardkeel.storage.format import build_from_text, text_of
from hardkeel.storage.package import load
from hardkeel.survey.adjusting import PHOTOS_PLACE
from hardkeel.survey.cameras import Camera
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.true import sight_controller
from hardkeel.ui.stages.true.sight_controller import SightController
from hardkeel.ui.stages.true.sight_page import SightPage
from hardkeel.ui.stages.true.sight_shown import view_of
from tests.edited import by_hand
from tests.stages_of import stage_of, true_of

LEFT, RIGHT = Qt.MouseButton.LeftButton, Qt.MouseButton.RightButton
SIZE = (1200, 900)


@pytest.fixture
def page(window: MainWindow) -> SightPage:
    window.show_stage("true")
    stage_of(window).turn_to("sight")
    return stage_of(window).sight


@pytest.fixture
def camera(window: MainWindow, monkeypatch: pytest.MonkeyPatch) -> Camera:
    """The stand-in's, with a picture small enough for a test."""
    for module in (photographing, sight_controller):
        monkeypatch.setattr(module, "SIZE", SIZE)
    monkeypatch.setattr(
        sight_controller, "camera_for", lambda h, place, rng: camera_for(h, place, rng, SIZE)
    )
    plain = photographing.picture_of
    monkeypatch.setattr(
        sight_controller, "picture_of", lambda h, f, c, rng: plain(h, f, c, rng, SIZE)
    )
    build = window.document.build
    hidden = hidden_from(build.surveyed, build.hidden or {})
    return camera_for(hidden, "behind", np.random.default_rng(0), SIZE)


@pytest.fixture
def taken(window: MainWindow, page: SightPage, camera: Camera, qtbot: QtBot) -> SightPage:
    """The demo photographed."""
    qtbot.mouseClick(page.sample, LEFT)
    qtbot.waitUntil(lambda: page.photo == "p1", timeout=20_000)
    qtbot.waitUntil(lambda: page.view.scale < 1.0, timeout=20_000)
    window.jobs.wait()
    qtbot.wait(50)
    return page


def truth(window: MainWindow, camera: Camera) -> dict[str, tuple[float, float]]:
    build = window.document.build
    hidden = hidden_from(build.surveyed, build.hidden or {})
    seen = seen_from(hidden, build.fuselage, camera)
    return {
        mark: (float(u), float(v))
        for mark, at in seen.items()
        for u, v in camera.project(at[None], SIZE)
    }


def click(page: SightPage, at: tuple[float, float], qtbot: QtBot, **more: Any) -> None:
    qtbot.mouseClick(page.view, LEFT, pos=page.view.to_screen(at).toPoint(), **more)
    qtbot.waitUntil(lambda: not page.document.uncommitted, timeout=20_000)


def test_before_there_is_a_photo_it_says_what_to_do(page: SightPage) -> None:
    assert page.nothing.isVisible()
    assert page.sample.isVisible()
    assert not page.click.isVisible()
    assert "fills the picture" in page.how.lines.text()


def test_the_answer_is_there_after_a_dozen_clicks(
    window: MainWindow, taken: SightPage, camera: Camera, qtbot: QtBot
) -> None:
    where = truth(window, camera)
    clicks = 2  # the bench, and the picture
    while clicks < 12:
        mark = taken.mark
        if mark not in where:
            qtbot.keyClick(taken.view, Qt.Key.Key_N)
            assert taken.mark != mark
            continue
        click(taken, where[mark], qtbot)
        clicks += 1
        assert window.document.build.surveyed.sightings[-1].mark == mark
        used = "p1" in window.document.judgement.solution.cameras
        assert used == (clicks - 2 >= 5)
        over = taken.view.shown.over
        assert bool(over.wanted) == used
        assert bool(over.estimated) == (clicks - 2 > 5)
    assert "Stabilizer out of true" in taken.says.answer.text()
    assert "Clicks sit within" in taken.says.lines.text()
    check = window.document.judgement.check("stab_roll_to_wing")
    assert check is not None
    assert check.verdict == "out"
    assert abs(check.value - 0.90) < 4 * check.sigma


def test_clicks_need_not_wait_for_what_the_one_before_says(
    window: MainWindow, taken: SightPage, camera: Camera, qtbot: QtBot
) -> None:
    where = truth(window, camera)
    asked = []
    for _ in range(4):
        while taken.mark not in where:
            qtbot.keyClick(taken.view, Qt.Key.Key_N)
        asked.append(taken.mark)
        qtbot.mouseClick(taken.view, LEFT, pos=taken.view.to_screen(where[taken.mark]).toPoint())
        assert window.document.uncommitted  # what it says comes later
        assert len(taken.view.shown.ticks) == len(asked)  # where it was clicked is seen at once
    assert [one.mark for one in window.document.build.surveyed.sightings] == asked
    assert len(set(asked)) == 4
    assert "Reckoning" in taken.says.answer.text()
    qtbot.waitUntil(lambda: not window.document.uncommitted, timeout=20_000)
    assert {one.mark for one in window.document.judgement.sightings} == set(asked)
    assert "Reckoning" not in taken.says.answer.text()
    for _ in range(4):
        window.document.stack.undo()
    qtbot.waitUntil(lambda: not window.document.uncommitted, timeout=20_000)
    assert window.document.build.surveyed.sightings == ()
    assert window.document.judgement.sightings == ()


def test_a_pin_is_snapped_to_and_shift_takes_the_click_as_it_is(
    window: MainWindow, taken: SightPage, camera: Camera, qtbot: QtBot
) -> None:
    assert taken.mark == "nose_pin"
    u, v = truth(window, camera)["nose_pin"]
    click(taken, (u + 1.5, v), qtbot)
    sight = window.document.build.surveyed.sightings[-1]
    assert abs(sight.value[0] - u) < 0.7
    assert sight.sigma is not None
    assert 0.25 <= sight.sigma < 0.6  # the snap's own
    window.document.stack.undo()
    assert not window.document.build.surveyed.sightings
    click(taken, (u + 1.5, v), qtbot, modifier=Qt.KeyboardModifier.ShiftModifier)
    assert window.document.build.surveyed.sightings[-1].sigma is None
    window.document.stack.undo()
    taken.click.snapping.setChecked(False)
    click(taken, (u + 1.5, v), qtbot)
    assert window.document.build.surveyed.sightings[-1].sigma is None


def test_a_click_is_picked_nudged_and_taken_away_by_keys(
    window: MainWindow, taken: SightPage, camera: Camera, qtbot: QtBot
) -> None:
    at = truth(window, camera)["nose_pin"]
    click(taken, at, qtbot)
    sight = window.document.build.surveyed.sightings[-1]
    click(taken, sight.value, qtbot)
    assert taken.click.title.text().startswith("Nose pin")
    qtbot.keyClick(taken.view, Qt.Key.Key_Right)
    qtbot.keyClick(taken.view, Qt.Key.Key_Down, Qt.KeyboardModifier.ControlModifier)
    moved = window.document.build.surveyed.sightings[-1]
    assert moved.value == pytest.approx((sight.value[0] + 1.0, sight.value[1] + 0.1))
    window.document.stack.undo()  # a nudge is one step, however often the key was pressed
    assert window.document.build.surveyed.sightings[-1].value == sight.value
    qtbot.keyClick(taken.view, Qt.Key.Key_Escape)
    assert taken.click.title.text() != "Nose pin"
    click(taken, sight.value, qtbot)
    qtbot.keyClick(taken.view, Qt.Key.Key_Delete)
    assert not window.document.build.surveyed.sightings


def test_enter_takes_what_is_under_the_loupe_so_that_no_mouse_is_needed(
    window: MainWindow, taken: SightPage, camera: Camera, qtbot: QtBot
) -> None:
    at = truth(window, camera)["nose_pin"]
    taken.view.point_at((round(at[0]) - 20.0, float(round(at[1]))))
    taken.view.setFocus()
    qtbot.keyClick(taken.view, Qt.Key.Key_Right)
    qtbot.keyClick(taken.view, Qt.Key.Key_Return)
    assert len(window.document.build.surveyed.sightings) == 1
    assert abs(window.document.build.surveyed.sightings[0].value[0] - at[0]) < 0.7


def test_a_mis_click_is_named_and_true_leads_back_to_it(
    window: MainWindow, taken: SightPage, camera: Camera, qtbot: QtBot
) -> None:
    document = window.document
    where = truth(window, camera)
    for mark, (u, v) in where.items():
        off = 60.0 if mark == "stab_tip_te_port" else 0.0
        sighted = take_sighting.of("p1", mark, (u + off, v), document.clock())
        document.apply("sight", sighted)
    assert "The click on stabilizer tip TE port in p1 lies" in taken.wrong.lines.text()
    survey = document.build.surveyed
    kept = tuple(one for one in survey.readings if one.id != "r20")
    document.apply("without", by_hand(lambda b: b.but(survey=b.surveyed.but(readings=kept))))
    stage = stage_of(window)
    stage.turn_to("rig")
    rig = true_of(window)
    assert rig.entry.step is not None
    assert rig.entry.step.kind == "sight"
    rig.next.action_pressed.emit()
    assert taken.isVisible()


def test_the_photo_goes_nearer_and_is_moved(taken: SightPage, qtbot: QtBot) -> None:
    view = taken.view
    before = view.scale
    middle = QPointF(view.width() / 3, view.height() / 2)
    held = view.to_photo(middle)
    wheel = QWheelEvent(
        middle, view.mapToGlobal(middle), QPoint(), QPoint(0, 120), Qt.MouseButton.NoButton,
        Qt.KeyboardModifier.NoModifier, Qt.ScrollPhase.NoScrollPhase, False,
    )  # fmt: skip
    for _ in range(4):
        view.wheelEvent(wheel)
    assert view.scale > 2 * before
    assert view.to_photo(middle) == pytest.approx(held, abs=1e-6)
    qtbot.mousePress(view, RIGHT, pos=QPoint(100, 100))
    qtbot.mouseMove(view, QPoint(160, 100))
    qtbot.mouseRelease(view, RIGHT, pos=QPoint(160, 100))
    assert view.to_photo(middle + QPointF(60, 0)) == pytest.approx(held, abs=1.0)
    view.grab()


def test_a_photo_is_opened_kept_smaller_saved_and_taken_away(
    window: MainWindow, page: SightPage, tmp_path: Path, qtbot: QtBot
) -> None:
    desk = stage_of(window).findChild(SightController)
    assert desk is not None
    out = io.BytesIO()
    Image.new("RGB", (2000, 1500), "tan").save(out, "JPEG")
    path = tmp_path / "mine.jpg"
    path.write_bytes(out.getvalue())
    desk.open_photo(path)
    qtbot.waitUntil(lambda: page.photo == "p1", timeout=20_000)
    window.jobs.wait()
    photo = window.document.build.surveyed.photos[0]
    assert photo.size == (2000, 1500)
    assert photo.original is not None
    qtbot.mouseClick(page.smaller, LEFT)
    small = window.document.build.surveyed.photos[0]
    assert small.image != photo.image
    assert small.size == photo.size
    window.save_to(tmp_path / "m.keel")
    loaded = load(tmp_path / "m.keel")
    assert loaded.build.surveyed.photos == (small,)
    assert small.image in loaded.attached()
    qtbot.mouseClick(page.drop, LEFT)
    assert window.document.build.surveyed.photos == ()
    assert page.nothing.isVisible()
    window.document.stack.undo()
    assert page.photo == "p1"


def test_what_is_no_photo_is_told_and_nothing_is_laid_down(
    window: MainWindow, page: SightPage, tmp_path: Path, qtbot: QtBot
) -> None:
    desk = stage_of(window).findChild(SightController)
    assert desk is not None
    path = tmp_path / "letter.jpg"
    path.write_bytes(b"dear builder")
    before = window.document.build
    desk.open_photo(path)
    window.jobs.wait()
    qtbot.wait(50)
    assert window.document.build is before
    assert page.photo == ""


def test_a_picture_that_is_not_here_is_told_and_its_clicks_count(
    window: MainWindow, page: SightPage, qtbot: QtBot
) -> None:
    document, now = window.document, window.document.clock()
    document.apply("p", add_photo.of("photos/gone.jpg", SIZE, None, now))
    assert "The picture itself is not here" in page.told.text()


@pytest.mark.parametrize("text", [100, 150])
def test_large_text_and_both_units_keep_the_window_as_it_is(
    window: MainWindow, taken: SightPage, text: int, qtbot: QtBot
) -> None:
    window.menu.scale_wanted.emit(text)
    taken.set_unit("in")
    window.resize(1280, 800)
    qtbot.wait(50)
    assert (window.width(), window.height()) == (1280, 800)


def test_the_map_rings_the_mark_to_click_where_it_can_be_seen(
    window: MainWindow, taken: SightPage
) -> None:
    build = window.document.build
    for mark in build.surveyed.marks:
        view = view_of(build, mark.id)
        drawn = picture_of(build, window.document.judgement, 1.0).of(view)
        assert mark.id in {one.ref for one in drawn if one.role == "mark"}, mark.id


def test_the_photos_of_a_phase_are_shown_in_it(
    window: MainWindow, taken: SightPage, camera: Camera, qtbot: QtBot
) -> None:
    click(taken, truth(window, camera)["nose_pin"], qtbot)
    document = window.document
    document.apply("wet", set_phase.of("wet"))
    assert taken.photo == ""
    assert taken.nothing.isVisible()
    document.apply("dry", set_phase.of("dry"))
    assert taken.photo == "p1"


def test_a_click_that_no_camera_can_have_seen_with_the_others_is_told_and_not_taken(
    window: MainWindow, taken: SightPage, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    before = window.document.build

    def refuse(*_args: object, **_more: object) -> None:
        raise BadInput(PHOTOS_PLACE, "no camera")

    monkeypatch.setattr(window.document, "apply", refuse)
    click(taken, (600.0, 300.0), qtbot)
    assert window.document.build is before
    assert taken.told.text().startswith("That click does not go with the others")
    assert "is it the nose pin" in taken.told.text()


def test_what_cannot_be_seen_is_remembered_and_can_be_looked_for_again(
    window: MainWindow, taken: SightPage, qtbot: QtBot
) -> None:
    first = taken.mark
    qtbot.keyClick(taken.view, Qt.Key.Key_N)
    assert taken.mark != first
    photo = window.document.build.surveyed.photo("p1")
    assert photo is not None
    assert photo.unseen == (first,)
    kept = build_from_text(text_of(window.document.build)).surveyed.photo("p1")
    assert kept == photo  # it is in the file
    window.show_stage("log")
    window.show_stage("true")
    assert taken.mark != first
    assert taken.click.again.text() == "1 can't be seen: look again"
    qtbot.mouseClick(taken.click.again, LEFT)
    assert taken.mark == first
    assert taken.click.again.isHidden()
    window.document.stack.undo()
    assert taken.mark != first


def test_a_click_on_nothing_is_left_where_it_is_and_said(
    window: MainWindow, taken: SightPage, qtbot: QtBot
) -> None:
    wall = (SIZE[0] / 2, 12.0)
    click(taken, wall, qtbot)
    sight = window.document.build.surveyed.sightings[-1]
    assert sight.sigma is None
    assert abs(sight.value[0] - wall[0]) < 1
    assert taken.told.text().startswith("Left where you clicked")


def test_two_marks_under_one_click_ask_to_come_nearer(
    window: MainWindow, taken: SightPage, qtbot: QtBot
) -> None:
    reaches = []

    def crowd(at: Pixel, reach: float) -> Snap:
        reaches.append(reach)
        return Snap(at, "crowd" if reach > 4.5 else "pin", 0.3)

    taken.view.snap_by(crowd)
    middle = QPointF(taken.view.width() / 2, taken.view.height() / 2)
    at = taken.view.to_photo(middle)
    click(taken, at, qtbot)
    assert not window.document.build.surveyed.sightings
    assert taken.told.text().startswith("Two marks lie there")
    for _ in range(6):
        wheel = QWheelEvent(
            middle, middle, QPoint(), QPoint(0, 120), Qt.MouseButton.NoButton,
            Qt.KeyboardModifier.NoModifier, Qt.ScrollPhase.NoScrollPhase, False,
        )  # fmt: skip
        taken.view.wheelEvent(wheel)
    click(taken, at, qtbot)
    assert reaches[-1] < reaches[0]
    assert len(window.document.build.surveyed.sightings) == 1
