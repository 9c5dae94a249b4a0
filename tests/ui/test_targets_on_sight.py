"""Targets in the window: laid out, printed, photographs of them dropped, the answer without a click."""

from pathlib import Path

import numpy as np
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QFileDialog, QMenu
from pytestqt.qtbot import QtBot

from hardkeel.demo.kettlewick import demo_build
from hardkeel.picture.truing import picture_of
from hardkeel.practice.hidden import Hidden, hidden_from
from hardkeel.practice.photographing import film_focal
from hardkeel.sight.pictures import jpeg_of
from hardkeel.sight.targets import sighted
from hardkeel.sight.webcam import webcams
from hardkeel.survey.columns import POSE
from hardkeel.survey.model import OWN_TARGET
from hardkeel.survey.readings import Sight
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.true.showing import place_names
from hardkeel.ui.stages.true.sight_page import SightPage
from hardkeel.ui.stages.true.watched_folder import WatchedFolder
from tests.edited import by_hand
from tests.stages_of import stage_of
from tests.targeted import Bench, pictures, seen
from tests.ui.dropping import drop_on

LEFT = Qt.MouseButton.LeftButton
SIZE = (2000, 1500)


@pytest.fixture
def page(window: MainWindow, qtbot: QtBot) -> SightPage:
    """Sight with targets laid out on the demo."""
    window.show_stage("true")
    stage_of(window).turn_to("sight")
    page = stage_of(window).sight
    assert page.targets.lay.isVisibleTo(page)
    qtbot.mouseClick(page.targets.lay, LEFT)
    return page


@pytest.fixture
def files(window: MainWindow, page: SightPage, tmp_path: Path) -> list[Path]:
    """Two photographs of the hidden airframe; its targets large, so that small pictures show them."""
    window.document.apply(
        "large", by_hand(lambda build: build.but(survey=build.surveyed.but(target_size=34.0)))
    )
    build = window.document.build
    assert build.fuselage is not None
    made = Bench(build.surveyed, hidden_from(build.surveyed, build.hidden or {}), build.fuselage)
    found = []
    for number, picture in enumerate(pictures(made, 4, SIZE)[:2], start=1):
        found.append(tmp_path / f"bench {number}.jpg")
        found[-1].write_bytes(jpeg_of(picture, film_focal(SIZE)))
    return found


def test_targets_are_laid_in_one_click_and_taken_back_in_one(
    window: MainWindow, page: SightPage
) -> None:
    survey = window.document.build.surveyed
    assert len(survey.targets) > 20
    assert str(len(survey.targets)) in page.targets.lines.text()
    assert "trailing edge" in page.targets.lines.text(), "the demo's wing has no section"
    assert page.targets.print.isVisibleTo(page)
    assert not page.targets.lay.isVisibleTo(page)
    window.document.stack.undo()
    assert window.document.build.surveyed.targets == ()
    assert page.targets.lay.isVisibleTo(page)


def test_a_new_section_brings_more_targets_and_moves_those_there_are(
    window: MainWindow, page: SightPage
) -> None:
    mark = f"{OWN_TARGET}wing_tip_te_port"
    before = window.document.build.surveyed.mark(mark)
    wings = tuple(one.but(profile="flat-bottomed 12") for one in window.document.build.wings)
    window.document.apply("section", by_hand(lambda build: build.but(wings=wings)))
    after = window.document.build.surveyed.mark(mark)
    assert before is not None
    assert after is not None
    assert after.at[2] > before.at[2]
    assert page.targets.lay.text() == "Lay out 4 more"


def test_dropped_pictures_give_the_answer_without_a_click(
    window: MainWindow, page: SightPage, files: list[Path], qtbot: QtBot
) -> None:
    assert drop_on(page, *files)
    qtbot.waitUntil(lambda: len(window.document.build.surveyed.photos) == 2, timeout=30_000)
    window.jobs.wait()
    build = window.document.build
    seen = [one for one in build.surveyed.readings if isinstance(one, Sight)]
    assert len(seen) > 30
    assert all(one.taken for one in seen)
    assert {one.photo for one in seen} == {one.id for one in build.surveyed.photos}
    assert "used" in page.targets.seen.text()
    assert not page.targets.wrong.isVisibleTo(page)
    assert not page.click.isVisibleTo(page), "nothing is to be clicked"
    assert page.mark == ""
    assert "Targets sit within 0.0" in page.says.lines.text()
    hidden = hidden_from(build.surveyed, build.hidden or {})
    judgement = window.document.judgement
    checks = {one.id: one for one in judgement.checks}
    for rule in judgement.rules:
        off = float(rule.slope @ (hidden.unknowns - judgement.solution.unknowns))
        assert abs(off) < 4.5 * checks[rule.id].sigma, rule.id
    window.document.stack.undo()
    assert window.document.build.surveyed.photos == (), "one step back takes both"


def test_one_more_is_laid_by_a_mark_of_the_builders_own(
    window: MainWindow,
    page: SightPage,
    tmp_path: Path,
    monkeypatch: pytest.MonkeyPatch,
    qtbot: QtBot,
) -> None:
    before = len(window.document.build.surveyed.targets)
    card = page.by_mark
    card.fold(away=False)
    card.mark.setCurrentIndex(card.mark.findData("fin_top_te"))
    card.way.setCurrentIndex(card.way.findData("flag"))
    qtbot.mouseClick(card.lay, LEFT)
    flags = window.document.build.surveyed.targets[before:]
    assert [one.by.mark for one in flags if one.by is not None] == ["fin_top_te"] * 2
    assert str(before + 2) in page.targets.lines.text()
    qtbot.mouseClick(card.lay, LEFT)
    assert "in this way already" in page.told.text()
    there = tmp_path / "targets.pdf"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_a, **_k: (str(there), ""))
    qtbot.mouseClick(page.targets.print, LEFT)
    qtbot.waitUntil(lambda: there.exists() and not window.jobs.writing, timeout=20_000)


def test_a_webcams_picture_is_taken_like_any_other(
    window: MainWindow,
    page: SightPage,
    files: list[Path],
    monkeypatch: pytest.MonkeyPatch,
    qtbot: QtBot,
) -> None:
    assert not page.webcam.isVisibleTo(page) or webcams()
    there = {str(files[0]): "Bench", str(files[1]): "Lamp"}
    monkeypatch.setattr("hardkeel.ui.stages.true.sight_page.webcams", lambda: there)
    page.refresh()
    assert page.webcam.isVisibleTo(page)
    qtbot.mouseClick(page.webcam, LEFT)
    (menu,) = page.findChildren(QMenu)
    assert [one.text() for one in menu.actions()] == ["Bench", "Lamp"]
    menu.actions()[1].trigger()
    qtbot.waitUntil(lambda: len(window.document.build.surveyed.photos) == 1, timeout=30_000)
    menu.close()
    sightings = window.document.build.surveyed.sightings
    assert len(sightings) > 10
    page.webcam_wanted.emit("/dev/nothing")
    qtbot.waitUntil(lambda: "can't be opened" in window.notice.text, timeout=20_000)


def test_labels_in_another_order_are_found_where_they_sit(
    window: MainWindow, page: SightPage, files: list[Path], qtbot: QtBot
) -> None:
    survey = window.document.build.surveyed
    codes = [one.code for one in survey.targets]
    turned = dict(zip(codes, [*codes[5:], *codes[:5]], strict=True))
    other = tuple(one.but(code=turned[one.code]) for one in survey.targets)
    window.document.apply(
        "another order", by_hand(lambda build: build.but(survey=build.surveyed.but(targets=other)))
    )
    assert drop_on(page, *files)
    assert "0 of 2" in window.notice.text
    qtbot.waitUntil(lambda: len(window.document.build.surveyed.photos) == 2, timeout=40_000)
    now = {one.code: one.mark for one in window.document.build.surveyed.targets}
    was = {one.code: one.mark for one in survey.targets}
    shown = {one.mark for one in window.document.build.surveyed.readings if isinstance(one, Sight)}
    assert len(shown) > 15
    assert all(was[code] == mark for code, mark in now.items() if mark in shown)
    assert page.targets.wrong.text().startswith("The labels sit in another order")
    window.document.stack.undo()
    assert window.document.build.surveyed.targets == other, "one step back takes all of it"


def test_what_can_not_be_used_is_told_and_the_others_are_taken(
    window: MainWindow, page: SightPage, files: list[Path], tmp_path: Path, qtbot: QtBot
) -> None:
    torn = tmp_path / "torn.jpg"
    torn.write_bytes(b"\xff\xd8torn")
    assert drop_on(page, torn, files[0])
    qtbot.waitUntil(lambda: "torn.jpg:" in window.notice.text, timeout=30_000)
    assert len(window.document.build.surveyed.photos) == 1
    assert drop_on(page, files[0])
    qtbot.waitUntil(lambda: "laid down already" in window.notice.text, timeout=30_000)
    assert len(window.document.build.surveyed.photos) == 1
    blank = tmp_path / "blank.jpg"
    blank.write_bytes(jpeg_of(np.full((900, 1200, 3), 120, np.uint8)))
    assert drop_on(page, blank)
    qtbot.waitUntil(lambda: "no target seen" in window.notice.text, timeout=30_000)
    assert page.photo == window.document.build.surveyed.photos[-1].id


def test_the_sheet_is_printed_where_it_is_wanted(
    window: MainWindow,
    page: SightPage,
    tmp_path: Path,
    monkeypatch: pytest.MonkeyPatch,
    qtbot: QtBot,
) -> None:
    there = tmp_path / "targets.pdf"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_a, **_k: (str(there), ""))
    qtbot.mouseClick(page.targets.print, LEFT)
    qtbot.waitUntil(there.exists, timeout=20_000)
    window.jobs.wait()
    assert there.read_bytes().startswith(b"%PDF")


def test_a_watched_folder_gives_what_comes_in_once_it_is_whole(
    window: MainWindow,
    page: SightPage,
    files: list[Path],
    tmp_path: Path,
    monkeypatch: pytest.MonkeyPatch,
    qtbot: QtBot,
) -> None:
    folder = tmp_path / "from the telephone"
    folder.mkdir()
    (folder / "old.jpg").write_bytes(files[1].read_bytes())
    monkeypatch.setattr(QFileDialog, "getExistingDirectory", lambda *_a, **_k: str(folder))
    qtbot.mouseClick(page.targets.watch, LEFT)
    assert "from the telephone" in page.targets.watched.text()
    watched = stage_of(window).findChild(WatchedFolder)
    assert watched is not None
    taken: list[list[Path]] = []
    watched.arrived.connect(taken.append)

    def look() -> None:
        watched.look()
        window.jobs.wait()
        qtbot.wait(20)

    look()
    data = files[0].read_bytes()
    (folder / "new.jpg").write_bytes(data[:2000])
    (folder / "notes.txt").write_text("not a picture")
    look()
    (folder / "new.jpg").write_bytes(data)
    look()
    assert taken == [], "it may still grow"
    look()
    assert taken == [[folder / "new.jpg"]]
    qtbot.waitUntil(lambda: len(window.document.build.surveyed.photos) == 1, timeout=30_000)
    look()
    assert len(taken) == 1
    qtbot.mouseClick(page.targets.watch, LEFT)
    assert watched.folder is None
    assert not page.targets.watched.isVisibleTo(page)


def test_a_folder_that_goes_is_told_and_a_new_build_is_not_given_the_old_ones_pictures(
    window: MainWindow, page: SightPage, tmp_path: Path, qtbot: QtBot
) -> None:
    watched = stage_of(window).findChild(WatchedFolder)
    assert watched is not None
    watched.watch(tmp_path / "gone")
    qtbot.waitUntil(lambda: "can't be watched" in window.notice.text, timeout=20_000)
    assert watched.folder is None
    watched.watch(tmp_path)
    window.start(window.document.build.but(name="another"))
    assert watched.folder is None


def test_pictures_dropped_while_others_are_read_are_read_after_them(
    window: MainWindow, page: SightPage, files: list[Path], qtbot: QtBot
) -> None:
    assert drop_on(page, files[0])
    assert drop_on(page, files[1])
    qtbot.waitUntil(lambda: len(window.document.build.surveyed.photos) == 2, timeout=30_000)


def test_a_part_that_was_touched_between_the_pictures_is_said(
    window: MainWindow, page: SightPage, qtbot: QtBot
) -> None:
    build = window.document.build
    survey = build.surveyed.but(readings=(), photos=(), gluing=None, locked=())
    hidden = hidden_from(build.surveyed, build.hidden or {})
    unknowns = hidden.unknowns.copy()
    unknowns[hidden.net.columns.start["stab"] + POSE.index("yaw")] += 1.0
    assert build.fuselage is not None
    before, after = (
        seen(Bench(survey, one, build.fuselage), 5)
        for one in (hidden, Hidden(hidden.net, unknowns))
    )
    given = sighted(survey, [*before[:2], *after[2:]], build.phase).survey
    window.document.apply("pictures", by_hand(lambda one: one.but(survey=given)))
    qtbot.waitUntil(lambda: page.touched.isVisibleTo(page), timeout=20_000)
    assert page.touched.answer.text().startswith("The stabilizer stood otherwise in p3 and p4")
    assert "stabilizer" not in page.wrong.lines.text(), "said once is enough"
    window.document.stack.undo()
    qtbot.waitUntil(lambda: not page.touched.isVisibleTo(page), timeout=20_000)


def test_hands_do_not_see_the_marks_that_are_there_for_targets(
    window: MainWindow, page: SightPage, qtbot: QtBot
) -> None:
    build = window.document.build
    names = place_names(build, None)
    assert names
    assert not any("target" in one for one in names)
    picture = picture_of(build, window.document.judgement, 1.0)
    drawn = {one.ref for one in picture.strokes if one.role == "mark"}
    assert drawn
    assert not any(one.startswith(OWN_TARGET) for one in drawn)
    qtbot.mouseClick(page.targets.drop, LEFT)
    assert window.document.build.surveyed == demo_build().surveyed.but(
        shared=window.document.build.surveyed.shared
    )


def test_targets_that_photos_show_are_not_taken_away(
    window: MainWindow, page: SightPage, files: list[Path], qtbot: QtBot
) -> None:
    assert drop_on(page, files[0])
    qtbot.waitUntil(lambda: len(window.document.build.surveyed.photos) == 1, timeout=30_000)
    before = window.document.build
    qtbot.mouseClick(page.targets.drop, LEFT)
    assert window.document.build == before
    assert "take the photos away first" in page.told.text()
