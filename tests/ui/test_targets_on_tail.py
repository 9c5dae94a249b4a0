"""A tail surface on its board by pictures dropped on *Flat*: heights, twist, undo; the labels' sheet."""

from pathlib import Path

import numpy as np
import pytest
from pytestqt.qtbot import QtBot

from hardkeel.airframe.flat_targets import flat_survey
from hardkeel.sight.pictures import jpeg_of
from hardkeel.sight.printed import Label, with_labels
from hardkeel.tail.model import TailSurface
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.tail.flat_page import FlatPage
from hardkeel.ui.stages.tail.flat_targets import FlatTargets
from tests.unit.fuselage.test_frame_by_targets import camera
from tests.unit.tail.test_flat_by_photos import HEIGHTS, height


def photographed(surface: TailSurface, folder: Path) -> list[Path]:
    rng = np.random.default_rng(6)
    survey = flat_survey(surface)
    labels = []
    for target in survey.targets:
        mark = survey.mark(target.mark)
        assert mark is not None
        x, y, z = mark.at
        if not target.mark.startswith("board"):
            z = height(surface, x, y)
        right, up = np.array([1.0, 0.0, 0.0]), np.array([0.0, 1.0, 0.0])
        labels.append(Label(target.code, np.array([x, y, z]), right, up, 12.0))
    found = []
    for number, place in enumerate(((-420.0, -380.0, 520.0), (-420.0, 380.0, 520.0))):
        lens = camera(place, at=(60.0, 0.0, 0.0))
        bench = np.full((3000, 4000, 3), (150, 120, 90), np.uint8)
        path = folder / f"tail{number}.jpg"
        path.write_bytes(jpeg_of(with_labels(bench, labels, lens, rng), 0.8 * 36))
        found.append(path)
    return found


def test_two_pictures_are_the_heights(window: MainWindow, qtbot: QtBot, tmp_path: Path) -> None:
    window.show_stage("tail")
    stage = window.pages["tail"]
    stage.turn_to("flat")
    page = stage.page("flat")  # type: ignore[attr-defined]
    assert isinstance(page, FlatPage)
    surface = page.surface
    assert surface is not None
    assert "two pictures from both front quarters" in page.targets.lines.text()
    page.photos_dropped.emit(photographed(surface, tmp_path))
    qtbot.waitUntil(lambda: "tail1.jpg" in page.targets.seen.text(), timeout=40_000)
    read = {
        one.at: one.value
        for one in window.document.build.tail[0].flatness
        if one.phase == page.phase
    }
    for place, value in HEIGHTS.items():
        assert read[place] == pytest.approx(value, abs=0.5)  # type: ignore[index]
    assert page.answer.answer.text() == "Twisted."
    window.document.stack.undo()
    assert len(window.document.build.tail[0].flatness) == len(surface.flatness)
    desk = window.findChild(FlatTargets)
    assert desk is not None
    desk.write(tmp_path / "labels.pdf")
    qtbot.waitUntil((tmp_path / "labels.pdf").exists, timeout=20_000)
    qtbot.waitUntil(lambda: not window.jobs.writing, timeout=20_000)
