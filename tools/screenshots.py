"""Take one picture of each main view from the demo: ``python tools/screenshots.py docs/screenshots``."""

import os
import sys
import tempfile
import time
from collections.abc import Callable
from datetime import datetime, timedelta, timezone
from pathlib import Path
from tempfile import mkdtemp
from typing import TYPE_CHECKING, cast

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

import numpy as np
from PyQt6.QtCore import QEventLoop, QSettings, QTimer
from PyQt6.QtWidgets import QApplication, QWidget

from hardkeel.airframe.checked_parts import kept_of
from hardkeel.airframe.cut_pieces import piece_named
from hardkeel.airframe.orders.frame import STAGE, frame_steps
from hardkeel.demo.bench import practice_models
from hardkeel.demo.biplane import teasel
from hardkeel.demo.fleet import sallow, withy
from hardkeel.demo.kettlewick import demo_build, demo_fuselage
from hardkeel.demo.plan_page import plan_page
from hardkeel.demo.planked import sorrel
from hardkeel.edits.fuselage import set_station
from hardkeel.edits.ledger import note_check
from hardkeel.edits.paper import add_plan
from hardkeel.edits.practising import have_told, say_of, take_in_practice
from hardkeel.edits.prints import note_print
from hardkeel.edits.sight import take_sighting
from hardkeel.edits.steps import plan_steps, tick
from hardkeel.export.paper import Page
from hardkeel.export.print_set import print_sheets
from hardkeel.paper.model import KnownLength, KnownPoint, Plan, Trace
from hardkeel.paper.prints import Printed
from hardkeel.practice.hidden import hidden_from
from hardkeel.practice.making import exercise_from
from hardkeel.practice.photographing import SIZE, camera_for, seen_from
from hardkeel.practice.strategies import by_list
from hardkeel.project.model import Build
from hardkeel.project.practice import Word
from hardkeel.sight.edges import edges_of
from hardkeel.sight.part_check import Check
from hardkeel.storage.package import save
from hardkeel.ui.settings import Settings
from hardkeel.ui.shell.new_build import NewBuildDialog
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.layout.page import LayoutPage
from hardkeel.ui.stages.true.sight_controller import SightController
from hardkeel.ui.theme import apply_theme, load_fonts, make_theme

if TYPE_CHECKING:
    from hardkeel.ui.stages.practice.stage import PracticeStage
    from hardkeel.ui.stages.practice.told_page import ToldPage

_AT_REST_MS = 500
_ROUNDS = 3
_PLANNED_MS = 9000
_LONGEST_S = 180.0


def main(folder: Path) -> None:
    """Write the pictures into `folder`."""
    app = QApplication(["screenshots"])
    app.setStyle("Fusion")
    app.setCursorFlashTime(0)  # a blinking cursor would make two pictures of one thing
    load_fonts()
    folder.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as place:
        settings = Settings(QSettings(f"{place}/settings.ini", QSettings.Format.IniFormat))
        window = MainWindow(settings, Path(place), _evening)
        window.theme_changed.connect(lambda theme: apply_theme(app, theme))
        window.restyle()
        window.resize(1280, 800)
        window.show()

        def shoot(name: str, widget: QWidget | None = None) -> None:
            for _ in range(_ROUNDS):  # what a job brings may start another
                _rest(_AT_REST_MS)
                _until(lambda: not window.jobs.busy)
            app.processEvents()
            (widget or window).grab().save(str(folder / f"{name}.png"))

        scenes = _scenes(window, settings) | _layout_scenes(window, settings)
        scenes |= _frame_scenes(window)
        scenes |= _tail_scenes(window)
        scenes |= _bench_scenes(window)
        scenes |= _practice_scenes(window)
        for name, scene in scenes.items():
            scene()
            shoot(name)
        dialog = NewBuildDialog(make_theme("light"), "mm", window)
        dialog.show()
        shoot("new-build", dialog)
        dialog.close()
        window.document.stack.setClean()
        window.close()


def _rest(milliseconds: int) -> None:
    """Let the event loop run."""
    rest = QEventLoop()
    QTimer.singleShot(milliseconds, rest.quit)
    rest.exec()


def _until(ready: Callable[[], bool]) -> None:
    """Wait for what is to be seen: a picture of half a page is none."""
    end = time.monotonic() + _LONGEST_S
    while not ready():
        if time.monotonic() > end:
            raise TimeoutError("what was to be seen did not come")
        _rest(50)


def _evening() -> datetime:
    """Always the same Tuesday: two makings of one picture are one picture."""
    return datetime(2026, 10, 6, 18, 50, tzinfo=timezone(timedelta(hours=1)))


def _laid_out(window: MainWindow) -> LayoutPage:
    return cast("LayoutPage", window.pages["layout"])


def _scenes(window: MainWindow, settings: Settings) -> dict[str, Callable[[], object]]:
    def turned(place: str) -> Callable[[], object]:
        def scene() -> None:
            window.show_stage("true")
            window.pages["true"].turn_to(place)

        return scene

    def start() -> None:
        """Three builds lately on the bench, and the doors, in the dark."""
        folder = Path(mkdtemp())
        for days, make in ((12, withy), (1, teasel), (0, demo_build)):
            path = folder / f"{days}.keel"
            save(make(), path)
            saved = (_evening() - timedelta(days=days, hours=1)).timestamp()
            os.utime(path, (saved, saved))
            settings.add_recent(path)
        window.document.stack.setClean()
        window.clear_bench()
        settings.theme = "dark"
        window.restyle()
        window.show_stage("true")

    def sight() -> None:
        settings.theme = "light"
        window.restyle()
        window.start(demo_build())
        turned("sight")()
        _photographed(window)

    return {
        "true": lambda: window.start(demo_build()),
        "log": lambda: window.show_stage("log"),
        "true-air": turned("air"),
        "start": start,
        "true-sight": sight,
    }


def _photographed(window: MainWindow) -> None:
    """The stand-in's picture from behind with most of its marks clicked, one of them badly."""
    desk = window.pages["true"].findChild(SightController)
    assert desk is not None
    desk.photograph("behind")
    for _ in range(2):  # drawn, then shown
        rest = QEventLoop()
        window.jobs.wait()
        QTimer.singleShot(_AT_REST_MS, rest.quit)
        rest.exec()
    build = window.document.build
    hidden = hidden_from(build.surveyed, build.hidden or {})
    rng = np.random.default_rng(0)
    camera = camera_for(hidden, "behind", rng)
    seen = seen_from(hidden, build.fuselage, camera)
    for mark in (one for one in seen if not one.startswith("fin_")):
        u, v = (float(one) for one in camera.project(seen[mark][None], SIZE)[0])
        off = 26.0 if mark == "stab_tip_te_starboard" else 0.0
        at = (u + off + float(rng.normal()), v + float(rng.normal()))
        click = take_sighting.of("p1", mark, at, window.document.clock())
        window.document.apply(mark, click)


def _layout_scenes(window: MainWindow, settings: Settings) -> dict[str, Callable[[], object]]:
    def bench(name: str) -> Callable[[], object]:
        def scene() -> None:
            window.show_stage("layout")
            _laid_out(window).turn_to(name)

        return scene

    def board() -> None:
        settings.theme, settings.text_percent = "light", 100
        window.restyle()
        window.start(demo_build())
        window.document.apply("spoil", set_station.of("F6", half_width=17.5))
        bench("airframe")()
        _laid_out(window).airframe.choose_station("F3")

    def paper() -> None:
        bench("paper")()
        _lay_plan(window)

    def check() -> None:
        """F4 with wood left on along its starboard side, and an eyebrow of its hole."""
        bench("check")()
        piece = piece_named(window.document.build, "F4")
        edges = edges_of([np.array(ring) for ring in (piece.outline, *piece.holes)])
        rng = np.random.default_rng(5)
        (u, v), ring = edges.at.T, edges.ring
        off = 0.02 * rng.standard_normal(len(u))
        off += np.where((ring == 0) & (u > 20) & (v > -18) & (v < 14), 0.7, 0.0)
        off -= np.where((ring == 1) & (v > 16), 0.3, 0.0)
        found = Check(
            mirrored=False,
            doubts=frozenset(),
            at=edges.at,
            by=off,
            ring=ring,
            normal=edges.normal,
            sigma=0.02,
        )
        window.document.apply(
            "check F4", note_check.of("F4", kept_of(piece, found, 6.0, _evening()))
        )
        _laid_out(window).page("check").choose("F4")

    return {
        "layout-board": board,
        "layout-check": check,
        "layout-paper": paper,
        "paper": lambda: _printed(window),
    }


def _printed(window: MainWindow) -> None:
    """Sheets that were printed before a former was moved."""
    window.start(withy())
    build = window.document.build
    for sheet in print_sheets(build, "mm", Page("A4")):
        if sheet.key in ("side", "top", "stab", "sticks"):
            made = Printed(
                sheet=sheet.key,
                paper="A4",
                at="2026-10-04T18:50",
                pages=sheet.marks,
                figures=sheet.figures,
            )
            window.document.apply("note", note_print.of(made, tuple(range(1, 99))))
    former = build.fuselage.former("F5") if build.fuselage is not None else None
    if former is not None:
        window.document.apply("move", set_station.of("F5", station=former.station + 2))
    window.show_stage("paper")
    page = window.pages["paper"]
    page.turn_to("side")


def _frame_scenes(window: MainWindow) -> dict[str, Callable[[], object]]:
    def bench(name: str, stop: str = "") -> Callable[[], object]:
        def scene() -> None:
            window.show_stage("frame")
            window.pages["frame"].turn_to(name)
            if stop:
                window.pages["frame"].choose_station(stop)

        return scene

    def opened(make: Callable[[], Build], name: str) -> Callable[[], object]:
        def scene() -> None:
            window.document.stack.setClean()
            window.start(make())
            bench(name)()

        return scene

    def begun() -> Build:
        build = demo_build()
        build = plan_steps(build, frame_steps(build), STAGE)
        for step in build.steps[:4]:
            build = tick(build, step.id, window.document.clock())
        return build

    return {
        "frame-round": opened(sorrel, "round"),
        "frame-sheets": opened(demo_build, "sheets"),
        "frame-formers": bench("formers", "F3"),
        "frame-square": opened(sallow, "square"),
        "frame-order": opened(begun, "order"),
    }


def _tail_scenes(window: MainWindow) -> dict[str, Callable[[], object]]:
    def opened(make: Callable[[], Build], name: str) -> Callable[[], object]:
        def scene() -> None:
            window.document.stack.setClean()
            window.start(make())
            window.show_stage("tail")
            window.pages["tail"].turn_to(name)

        return scene

    return {
        "tail-sticks": opened(demo_build, "surface"),
    }


def _bench_scenes(window: MainWindow) -> dict[str, Callable[[], object]]:
    def tonight() -> None:
        window.document.stack.setClean()
        window.start(demo_build())
        window.show_stage("bench")
        window.pages["bench"].turn_to("tonight")
        rest = QEventLoop()
        QTimer.singleShot(
            _PLANNED_MS, rest.quit
        )  # until the plan is proven and what would help is known
        rest.exec()

    def glue() -> None:
        window.pages["bench"].turn_to("glue")

    return {"bench-tonight": tonight, "bench-glue": glue}


def _practice_scenes(window: MainWindow) -> dict[str, Callable[[], object]]:
    """An exercise gone through by somebody who missed half of it."""

    def told() -> None:
        window.document.stack.setClean()
        exercise = next(
            made
            for seed in range(200)
            if (made := exercise_from(practice_models(), seed, 2)).truth.story == "tipped"
            and len(made.section.asked) > 3
        )
        build = exercise.build
        best = by_list(exercise).readings
        places = (*best[: len(best) * 2 // 3], *best[:4])
        for number, place in enumerate(places):
            build = take_in_practice(build, exercise.read(place, number))
        for number, rule in enumerate(exercise.asked):
            off = exercise.value_of(rule.id) - rule.target
            if number == 0:
                word = Word(out=True, off=1.4 * rule.tolerance)
            else:
                word = Word(out=exercise.is_out(rule.id), off=0.7 * off or None)
            build = say_of(build, rule.id, word)
        window.start(have_told(build), again=True)
        stage = window.pages["practice"]
        stage.turn_to("told")
        page = cast("ToldPage", cast("PracticeStage", stage).page("told"))
        _until(lambda: page.went is not None)
        page.next.click()

    return {"practice": told}


def _lay_plan(window: MainWindow) -> None:
    """The made-up page on the desk, half picked, zoomed in on the nose."""
    page = plan_page(demo_fuselage(), "Kettlewick 1280, fuselage")
    stations = [stop for _, stop in demo_fuselage().stations]
    plan = Plan(
        id="made-up plan page",
        image=window.document.session.images.add(page.png),
        points=tuple(
            KnownPoint(pixel=page.pixel(*cross), plan=cross) for cross in page.crosses[:4]
        ),
        lengths=(
            KnownLength(a=page.pixel(50, 70), b=page.pixel(900, 70), length=850.0, along="x"),
        ),
        origin=page.pixel(0, 0),
        traces=(
            Trace(
                id="stations",
                kind="stations",
                pixels=tuple(page.pixel(stop.station, 8.0) for stop in stations),
            ),
            Trace(
                id="side-top",
                kind="side-top",
                pixels=tuple(page.pixel(stop.station, stop.top) for stop in stations[:5]),
            ),
        ),
    )
    window.document.apply("lay", add_plan.of(plan))
    _laid_out(window).paper.show_plan(plan.id)
    while not _laid_out(window).paper.sheet.has_image:  # it is opened beside the window
        QApplication.processEvents(QEventLoop.ProcessEventsFlag.WaitForMoreEvents)
    _laid_out(window).paper.use("side-top")
    _laid_out(window).paper.sheet.look_at(*page.pixel(215, 0), zoom=0.24)


if __name__ == "__main__":
    main(Path(sys.argv[1]))
