"""A frame squared by targets in the window: laid out, pictures dropped, the answer; by the command, too."""

import json
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from pytestqt.qtbot import QtBot

from hardkeel.airframe.frame_targets import laid_frame
from hardkeel.cli.commands import run_command
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.squaring import lay_square_targets, set_on_board
from hardkeel.sight.pictures import jpeg_of
from hardkeel.sight.printed import Label, with_labels
from hardkeel.storage.package import load, save
from hardkeel.survey.model import Survey
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.frame.square_page import SquarePage
from hardkeel.ui.stages.frame.square_targets import SquareTargets
from tests.stages_of import frame_of
from tests.unit.fuselage.test_frame_by_targets import camera, crooked

ROLLED = {"F5": (0.0, 2.5, 0.0)}
SIZE = (4000, 3000)


def photographed(survey: Survey, folder: Path) -> list[Path]:
    """Two pictures from starboard quarters of the demo's frame with F5 rolled."""
    rng = np.random.default_rng(4)
    where = crooked(survey, ROLLED)
    found = []
    for number, x in enumerate((-250.0, 1150.0)):
        labels = []
        for target in survey.targets:
            normal = np.array(survey.normal_of(target))
            right = np.array([1.0, 0.0, 0.0])
            up = np.cross(normal, right)
            labels.append(Label(target.code, where[target.mark], right, up, 16.0))
        lens = camera((x, 620.0, 760.0), at=(450.0, 0.0, 60.0))
        bench = np.full((SIZE[1], SIZE[0], 3), (150, 120, 90), np.uint8)
        path = folder / f"frame{number}.jpg"
        path.write_bytes(jpeg_of(with_labels(bench, labels, lens, rng), 0.8 * 36))
        found.append(path)
    return found


def test_pictures_of_the_frame_say_which_former_is_off(
    window: MainWindow, qtbot: QtBot, tmp_path: Path
) -> None:
    window.start(set_on_board(demo_build()))
    window.show_stage("frame")
    stage = frame_of(window)
    stage.turn_to("square")
    page = stage.page("square")
    assert isinstance(page, SquarePage)
    assert "two pictures say" in page.targets.lines.text()
    page.targets.lay.click()
    fuselage = window.document.build.fuselage
    assert fuselage is not None
    assert "29 targets of 12 mm" in page.targets.lines.text()
    paths = photographed(laid_frame(fuselage), tmp_path)
    page.photos_dropped.emit(paths)
    qtbot.waitUntil(lambda: "2 pictures taken" in page.targets.lines.text(), timeout=40_000)
    squared = page.squared
    assert squared is not None
    value, sigma = squared.unknown("F5", "roll")
    assert value == pytest.approx(2.5, abs=4.5 * sigma)
    assert [check.id for check in squared.checks if check.verdict == "out"] == ["F5_roll"]
    # once more the same: told, not taken
    page.photos_dropped.emit(paths[:1])
    qtbot.waitUntil(lambda: "not taken twice" in page.told.text(), timeout=40_000)
    desk = window.findChild(SquareTargets)
    assert desk is not None
    desk.write(tmp_path / "tabs.pdf")
    qtbot.waitUntil((tmp_path / "tabs.pdf").exists, timeout=20_000)
    qtbot.waitUntil(lambda: not window.jobs.writing, timeout=20_000)


def test_the_command_says_the_same_and_keeps_the_pictures(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    plain = lay_square_targets(set_on_board(demo_build()))
    assert plain.fuselage is not None
    paths = photographed(laid_frame(plain.fuselage), tmp_path)
    save(plain, tmp_path / "frame.keel")
    kept = tmp_path / "kept.keel"
    line = ["sight", str(tmp_path / "frame.keel"), *map(str, paths), "--frame", "--json"]
    assert run_command([*line, "--save", str(kept)]) == 0
    told: Any = json.loads(capsys.readouterr().out)
    f5 = next(one for one in told["formers"] if one["id"] == "F5")
    assert f5["roll"] == pytest.approx(2.5, abs=4.5 * f5["sigma"]["roll"])
    assert set(told["found"]) == {"frame0.jpg", "frame1.jpg"}
    again = load(kept)
    assert again.build.fuselage is not None
    photos = again.build.fuselage.squaring.photos  # type: ignore[union-attr]
    assert len(photos) == 2
    # saved once more, they are still there
    save(again.build, tmp_path / "anew.keel", attached=again.attached(), others=again.others)
    assert {one.image for one in photos} <= set(load(tmp_path / "anew.keel").attached())
    assert run_command(["targets", str(kept), "--frame", "--to", str(tmp_path / "t.pdf")]) == 0
