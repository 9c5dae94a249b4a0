"""The bench as a builder uses it: tonight answered at once, worked through by keys, timers that outlive the window."""

import re
from collections.abc import Callable
from datetime import timedelta
from pathlib import Path
from typing import cast

import pytest
from PyQt6.QtCore import QDate, QPointF, Qt, QTimer
from PyQt6.QtGui import QDragEnterEvent, QDragLeaveEvent, QDragMoveEvent, QDropEvent
from PyQt6.QtWidgets import QApplication, QDialog
from pytestqt.qtbot import QtBot

from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.bench import start_timer
from hardkeel.edits.steps import tick
from hardkeel.edits.truing import set_gluing, set_mixed, set_phase
from hardkeel.messages.steps import title_of
from hardkeel.project.model import empty_build
from hardkeel.schedule.model import local_time
from hardkeel.schedule.timers import running
from hardkeel.storage.package import save
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.bench.coupons_page import CouponsPage
from hardkeel.ui.stages.bench.glue_page import GluePage
from hardkeel.ui.stages.bench.otherwise import as_mime
from hardkeel.ui.stages.bench.tonight_page import TonightPage
from hardkeel.ui.stages.bench.weeks_page import WeeksPage
from tests.conftest import StepClock
from tests.stages_of import bench_of

LEFT = Qt.MouseButton.LeftButton


@pytest.fixture
def tonight(window: MainWindow, qtbot: QtBot) -> TonightPage:
    window.show_stage("bench")
    page = cast("TonightPage", bench_of(window).page("tonight"))
    qtbot.waitUntil(lambda: bool(page.evening.boxes()), timeout=20_000)
    return page


def done(window: MainWindow) -> set[str]:
    return {step.id for step in window.document.build.steps if step.state == "done"}


def test_two_hours_tonight_are_answered_when_the_page_opens(tonight: TonightPage) -> None:
    assert re.search(r" until \d\d:\d\d, ", tonight.title.text())
    assert "two hours" in tonight.title.text() or "1 h 5" in tonight.title.text()
    assert tonight.weeks.text().startswith("Done ")
    assert tonight.step.answer.text()
    assert tonight.step.button.text() == "Begin (Enter)"
    assert "first pull the tail in" in tonight.waits.lines.text()


def test_another_time_is_another_evening(tonight: TonightPage, qtbot: QtBot) -> None:
    before = tonight.evening.accessibleName()
    tonight.time.setValue(30)
    qtbot.waitUntil(lambda: tonight.evening.accessibleName() != before, timeout=20_000)
    assert tonight.title.text().endswith(" min")
    assert tonight.minutes <= 30


def test_the_evening_is_worked_through_from_arms_length_without_the_mouse(
    window: MainWindow, tonight: TonightPage, qtbot: QtBot
) -> None:
    tonight.evening.setFocus()
    qtbot.keyClick(tonight.evening, Qt.Key.Key_F11)
    large = tonight.findChild(type(tonight.large_sheet()))
    assert large is not None
    assert large.isVisible()
    first = large.title.text()
    qtbot.keyClick(large, Qt.Key.Key_Space)
    assert [title_of(step) for step in window.document.build.steps if step.state == "doing"] == [
        first
    ]
    assert large.under.text().startswith("Begun")
    before = done(window)
    qtbot.keyClick(large, Qt.Key.Key_Space)
    assert len(done(window) - before) == 1
    assert large.title.text() != first
    deed = window.document.build.log[-1].step
    assert deed is not None
    assert title_of(deed) == first
    qtbot.keyClick(large, Qt.Key.Key_Backspace)
    assert done(window) == before
    qtbot.keyClick(large, Qt.Key.Key_R)  # silent where there is no voice
    qtbot.keyClick(large, Qt.Key.Key_Escape)
    assert not large.isVisible()


def test_a_tick_moves_the_parts_on_starts_timers_and_is_one_step_to_undo(
    window: MainWindow, tonight: TonightPage, qtbot: QtBot
) -> None:
    glue = next(
        row.id
        for row in tonight.rows
        if row.glue and row.id in ("hatch", "plates", "stab glue", "fin glue")
    )
    laid = window.document.build.steps
    tonight.evening.picked.emit(glue)
    tonight.go_on()
    tonight.go_on()
    build = window.document.build
    assert glue in done(window)
    assert build.bench is not None
    assert {one.step for one in running(build.bench.timers, window.document.clock())} == {glue}
    assert tonight.timers.left.text()
    window.document.stack.undo()
    window.document.stack.undo()
    assert window.document.build.steps == laid


def test_arrow_keys_go_through_the_evening_and_enter_begins(
    window: MainWindow, tonight: TonightPage, qtbot: QtBot
) -> None:
    first = tonight.step.answer.text()
    tonight.evening.setFocus()
    qtbot.keyClick(tonight.evening, Qt.Key.Key_Down)
    second = tonight.step.answer.text()
    assert second != first
    qtbot.keyClick(tonight.evening, Qt.Key.Key_Return)
    assert [title_of(step) for step in window.document.build.steps if step.state == "doing"] == [
        second
    ]


def test_the_evening_ends_by_the_clock_also_after_the_second_step(
    window: MainWindow, tonight: TonightPage, qtbot: QtBot
) -> None:
    now = [local_time("2026-10-06T19:36")]
    window.document.clock = lambda: now[0].astimezone()  # noqa: PLW0108  the hour moves
    tonight.time.setValue(150)
    said = " until 22:06, "
    qtbot.waitUntil(lambda: said in tonight.title.text(), timeout=20_000)
    assert tonight.title.text().endswith("2 h 30")
    for minutes in (40, 50):  # begun, and done so much later: 21:06
        tonight.go_on()
        now[0] += timedelta(minutes=minutes)
        tonight.go_on()
        qtbot.waitUntil(
            lambda: tonight.rows[0].start >= now[0] or bool(tonight.rows[0].state), timeout=20_000
        )
    qtbot.waitUntil(lambda: tonight.title.text() == "Tuesday until 22:06, one hour", timeout=20_000)
    assert tonight.time.value() == 60
    now[0] = local_time("2026-10-06T22:10")
    tonight.look_at_clock()
    qtbot.waitUntil(lambda: tonight.title.text().endswith("the time is over"), timeout=20_000)


def test_the_plan_moves_with_the_clock_unasked(
    window: MainWindow, tonight: TonightPage, qtbot: QtBot
) -> None:
    now = [local_time("2026-10-06T20:00")]
    window.document.clock = lambda: now[0].astimezone()  # noqa: PLW0108  the hour moves
    tonight.time.setValue(121)
    qtbot.waitUntil(lambda: "22:01" in tonight.title.text(), timeout=20_000)
    now[0] += timedelta(minutes=7)
    tonight.look_at_clock()
    qtbot.waitUntil(lambda: tonight.rows[0].start == now[0], timeout=20_000)
    assert tonight.title.text() == "Tuesday until 22:01, 1 h 54"


def test_a_step_that_is_begun_is_marked_and_another_beside_it_is_asked_about(
    window: MainWindow, tonight: TonightPage, qtbot: QtBot
) -> None:
    first, second = tonight.rows[0], tonight.rows[1]
    tonight.go_on()
    qtbot.waitUntil(lambda: tonight.rows[0].state == "doing", timeout=20_000)
    assert tonight.rows[0].id == first.id
    assert tonight.rows[0].length.startswith("begun at ")
    tonight.evening.picked.emit(second.id)
    assert tonight.step.button.text() == "Begin (Enter)"
    tonight.go_on()
    assert tonight.told.text().startswith("You are at another: ")
    assert [one.id for one in window.document.build.steps if one.state == "doing"] == [first.id]
    tonight.go_on()
    assert {one.id for one in window.document.build.steps if one.state == "doing"} == {
        first.id,
        second.id,
    }


def test_what_was_glued_lies_in_the_evening_until_it_may_be_handled(
    window: MainWindow, tonight: TonightPage, qtbot: QtBot
) -> None:
    glue = next(row.id for row in tonight.rows if row.glue)
    tonight.evening.picked.emit(glue)
    tonight.go_on()
    tonight.go_on()
    qtbot.waitUntil(
        lambda: any(row.id == glue and row.state == "lies" for row in tonight.rows), timeout=20_000
    )
    row = next(row for row in tonight.rows if row.id == glue)
    assert row.under.startswith("Done; lies until ")
    middle = tonight.evening.boxes()[glue].center().toPoint()
    chosen = tonight.step.answer.text()
    qtbot.mouseClick(tonight.evening, LEFT, pos=middle)
    assert tonight.step.answer.text() == chosen  # it is done: there is nothing to begin


def test_a_step_begun_before_its_turn_is_asked_about_once(
    window: MainWindow, tonight: TonightPage, qtbot: QtBot
) -> None:
    tonight.time.setValue(400)  # long enough for a step and what waits for it
    steps, _ = tonight.steps_now()
    after = {step.id: set(step.after) for step in steps}

    def waiting() -> str:
        ids = {row.id for row in tonight.rows}
        return next((one for one in ids if after[one] & ids), "")

    qtbot.waitUntil(lambda: bool(waiting()), timeout=20_000)
    later = waiting()
    tonight.evening.picked.emit(later)
    tonight.go_on()
    assert tonight.told.text().startswith("Not yet: first ")
    assert all(step.state != "doing" for step in window.document.build.steps)
    tonight.go_on()
    assert [step.id for step in window.document.build.steps if step.state == "doing"] == [later]


def test_three_timers_survive_a_closed_window_and_say_what_went_off(
    make_window: Callable[[], MainWindow], tmp_path: Path, clock: StepClock, qtbot: QtBot
) -> None:
    build = demo_build()
    for minutes, title in ((5.0, "pot life"), (20.0, "hatch"), (720.0, "plates")):
        build = start_timer(build, "own", title, minutes, clock())
    save(build, tmp_path / "model.keel")
    clock.moment += timedelta(hours=1)
    window = make_window()
    window.open_path(tmp_path / "model.keel")
    window.show_stage("bench")
    page = cast("TonightPage", bench_of(window).page("tonight"))
    assert "pot life is up" in page.timers.late.text()
    assert "hatch is up" in page.timers.late.text()
    assert page.timers.left.text().startswith(("10 h", "11 h"))
    qtbot.mouseClick(page.timers.read, LEFT)
    assert not page.timers.late.isVisible()
    assert window.document.build.bench is not None
    assert [one.told for one in window.document.build.bench.timers] == [True, True, False]


def test_a_timer_rings_once_when_it_goes_off_whatever_page_is_seen(
    window: MainWindow, tonight: TonightPage, clock: StepClock
) -> None:
    rung: list[str] = []
    watch = bench_of(window).watch
    watch.rang.connect(rung.append)
    tonight.timers.minutes.setValue(10)
    tonight.timers.start.click()
    window.show_stage("true")
    watch.look()
    assert rung == []
    clock.moment += timedelta(minutes=11)
    watch.look()
    watch.look()
    assert rung == ["own 1"]


def test_a_timer_that_was_started_after_the_clock_was_put_back_rings(
    window: MainWindow, tonight: TonightPage, clock: StepClock
) -> None:
    rung: list[str] = []
    watch = bench_of(window).watch
    watch.rang.connect(rung.append)
    watch.look()
    clock.moment -= timedelta(hours=1)
    tonight.timers.minutes.setValue(10)
    tonight.timers.start.click()
    clock.moment += timedelta(minutes=11)
    watch.look()
    assert rung == ["own 1"]


def test_another_week_and_another_board_are_the_builders(
    window: MainWindow, tonight: TonightPage, qtbot: QtBot
) -> None:
    bench_of(window).turn_to("weeks")
    page = cast("WeeksPage", bench_of(window).page("weeks"))
    before = page.finish.text()
    assert before.startswith("Done ")
    qtbot.mouseClick(page.days[0].box, LEFT)
    qtbot.waitUntil(lambda: page.finish.text() != before, timeout=20_000)
    bench = window.document.build.bench
    assert bench is not None
    assert len({one.start[11:] for one in bench.evenings}) >= 1
    assert page.days[0].box.isChecked()
    page.scarce["board"].setValue(2)
    page.scarce["board"].editingFinished.emit()
    assert window.document.build.bench is not None
    assert window.document.build.bench.resources["board"] == 2
    # a free date and one away are single: the week stays as it is
    week = [row.box.isChecked() for row in page.days.values()]
    page.dates.day.setDate(QDate(2026, 10, 11))
    qtbot.mouseClick(page.dates.there, LEFT)
    assert "Sun 11 Oct 10:00, 4 h" in page.next.lines.text()
    page.dates.day.setDate(QDate(2026, 10, 8))
    qtbot.mouseClick(page.dates.away, LEFT)
    assert "Thu 8 Oct" not in page.next.lines.text()
    assert [row.box.isChecked() for row in page.days.values()] == week
    assert list(page.dates.forget) == ["2026-10-08", "2026-10-11"]
    qtbot.mouseClick(page.dates.forget["2026-10-08"], LEFT)
    assert "Thu 8 Oct" in page.next.lines.text()
    for row in page.days.values():
        if row.box.isChecked():
            qtbot.mouseClick(row.box, LEFT)
    assert page.told.text().startswith("One day in the week at least")


def test_a_build_with_nothing_to_do_says_so(make_window: Callable[[], MainWindow]) -> None:
    window = make_window()
    window.show_stage("bench")
    page = cast("TonightPage", bench_of(window).page("tonight"))
    assert page.line.text().startswith("There are no steps yet")
    assert page.step.button.text() == "Describe your model"


def test_the_best_glue_for_a_joint_is_told_with_what_speaks_against_the_rest(
    window: MainWindow, qtbot: QtBot
) -> None:
    window.show_stage("bench")
    bench_of(window).turn_to("glue")
    page = cast("GluePage", bench_of(window).page("glue"))
    assert page.best[0][0].text() == "Slow epoxy"
    assert "gloves" in page.best[0][2].text()
    assert "Aliphatic: sets before it is in place" in page.others.text()
    qtbot.mouseClick(page.joints.buttons["hinge"], LEFT)
    assert page.best[0][0].text() == "Thin cyanoacrylate"
    assert page.mix.answer.text().startswith("About 0.5 g")
    qtbot.mouseClick(page.joints.buttons["foam"], LEFT)
    page.asked.sand.setChecked(True)
    assert page.best[0][0].text() == "Polyurethane"
    page.best[1][0].click()
    assert page.kind == "slow epoxy"
    page.mix.area.setValue(400)
    assert page.mix.answer.text().startswith("6.2 g of resin and 2.8 g of hardener")


def test_the_builders_bottle_goes_before_its_kind(window: MainWindow) -> None:
    window.show_stage("bench")
    bench_of(window).turn_to("glue")
    page = cast("GluePage", bench_of(window).page("glue"))
    page.bottle.handle.setValue(300)
    page.bottle.handle.editingFinished.emit()
    assert "about 5 h to handle" in page.best[0][1].text()
    assert window.document.stack.undoText() == "your own slow epoxy"
    page.bottle.handle.editingFinished.emit()
    assert window.document.stack.count() == 1
    page.mix.ratio.setValue(52)
    page.mix.ratio.editingFinished.emit()
    page.mix.by.setCurrentIndex(1)
    assert page.mix.ratio.value() == 45
    page.mix.ratio.setValue(60)
    page.mix.ratio.editingFinished.emit()
    page.mix.batch.click()
    shelf = window.document.build.glue
    assert shelf is not None
    own = shelf.bottles[0]
    assert (own.by_weight, own.by_volume, own.handle_minutes) == (52, 60, 300)
    assert shelf.batches[0].ratio == pytest.approx(60 * 1.02 / 1.15)


def test_a_failed_coupon_names_what_was_glued_with_its_batch(
    window: MainWindow, tonight: TonightPage, clock: StepClock, qtbot: QtBot
) -> None:
    bench_of(window).turn_to("glue")
    glue = cast("GluePage", bench_of(window).page("glue"))
    glue.mix.batch.click()
    assert bench_of(window).now == "coupons"
    page = cast("CouponsPage", bench_of(window).page("coupons"))
    bench_of(window).turn_to("tonight")
    window.document.apply("tick", tick.of("plates", window.document.clock(), anyway=True))
    bench_of(window).turn_to("coupons")
    card = page.batches["batch 1"]
    assert "Glue undercarriage plate" in card.joints.text()
    assert card.said.text() == "No coupon broken yet."
    assert card.wait.text().startswith("Judge them from ")
    qtbot.mouseClick(card.buttons["joint"], LEFT)  # the glue is not through: asked about once
    assert page.told.text().startswith("It is through on ")
    assert page.batches["batch 1"].said.text() == "No coupon broken yet."
    clock.moment += timedelta(days=3)
    page.refresh()
    card = page.batches["batch 1"]
    assert card.wait.isHidden()
    qtbot.mouseClick(card.buttons["joint"], LEFT)
    assert "the joint let go" in page.batches["batch 1"].said.text()
    assert page.batches["batch 1"].property("edge") == "out"


@pytest.mark.parametrize("place", ["tonight", "weeks", "glue", "coupons"])
def test_large_text_keeps_the_window_as_it_is(window: MainWindow, place: str, qtbot: QtBot) -> None:
    window.menu.scale_wanted.emit(150)
    window.show_stage("bench")
    bench_of(window).turn_to(place)
    window.resize(1280, 800)
    qtbot.wait(50)
    assert (window.width(), window.height()) == (1280, 800)


def test_the_pot_life_of_the_tail_runs_on_the_bench_with_what_to_read_again(
    window: MainWindow, tonight: TonightPage, clock: StepClock
) -> None:
    document = window.document
    document.apply("wet", set_phase.of("wet"))
    document.apply("glue", set_gluing.of("wing"))
    document.apply("mix", set_mixed.of(30.0, clock()))
    assert tonight.timers.what.text() == "until the glue is past working: wing"
    assert tonight.timers.wet.text().startswith("While it can be worked")


def test_what_might_be_otherwise_is_dragged_over_the_evenings_and_the_finish_moves(
    window: MainWindow, tonight: TonightPage, qtbot: QtBot
) -> None:
    document = window.document
    was = tonight.weeks.text()
    chips = {chip.one.kind: chip.one for chip in tonight.otherwise.chips}
    assert {"evening", "resource", "glue"} <= set(chips)
    strip, data = tonight.strip, as_mime(chips["evening"])
    where = QPointF(4.0, 10.0)
    what = (Qt.DropAction.CopyAction, data, LEFT, Qt.KeyboardModifier.NoModifier)
    before, day = document.build, strip.day_at(where.x())
    assert day is not None
    strip.dragEnterEvent(QDragEnterEvent(where.toPoint(), *what))
    strip.dragMoveEvent(QDragMoveEvent(where.toPoint(), *what))
    qtbot.waitUntil(
        lambda: tonight.weeks.text().startswith(f"An evening on {day:%a} {day.day} Oct would "),
        timeout=20_000,
    )
    assert document.build is before
    strip.dragLeaveEvent(QDragLeaveEvent())
    assert tonight.weeks.text() == was
    assert document.build is before
    strip.dropEvent(QDropEvent(where, *what))
    assert document.build.bench is not None
    assert document.stack.undoText() == "another evening"
    assert day.isoformat() in document.build.bench.days  # one date, not one in every week
    document.stack.undo()
    assert document.build == before


def test_a_chip_that_is_pressed_is_wondered_about_and_taken_when_pressed_again(
    window: MainWindow, tonight: TonightPage, qtbot: QtBot
) -> None:
    chip = next(chip for chip in tonight.otherwise.chips if chip.one.kind == "glue")
    assert chip.text() == "a faster glue"
    before = window.document.build
    qtbot.mouseClick(chip, LEFT)
    qtbot.waitUntil(
        lambda: tonight.weeks.text().startswith("A 30-minute epoxy instead"), timeout=20_000
    )
    assert window.document.build is before
    qtbot.mouseClick(chip, LEFT)
    glues: set[str | None] = {
        one.glue for one in window.document.build.steps if one.state == "open"
    }
    assert "30-minute epoxy" in glues
    assert "slow epoxy" not in glues
    qtbot.waitUntil(
        lambda: "glue" not in {chip.one.kind for chip in tonight.otherwise.chips}, timeout=20_000
    )


def test_a_timer_that_is_not_needed_is_struck_out(
    window: MainWindow, tonight: TonightPage, qtbot: QtBot
) -> None:
    assert not tonight.timers.strike.isVisible()
    qtbot.mouseClick(tonight.timers.start, LEFT)
    assert tonight.timers.strike.isVisible()
    qtbot.mouseClick(tonight.timers.strike, LEFT)
    assert window.document.build.bench is not None
    assert window.document.build.bench.timers == ()
    assert tonight.timers.what.text() == "no glue is running"


def test_tools_are_laid_out_and_where_they_lie_is_remembered(
    window: MainWindow, tonight: TonightPage
) -> None:
    card = tonight.lay_out
    assert card.lines.text().startswith("Tools: ")
    assert card.tool.count() > 2
    card.tool.setCurrentIndex(1)
    card.tool.activated.emit(1)
    name = card.tool.currentText()
    card.place.setText("left drawer")
    card.place.setModified(True)
    card.place.editingFinished.emit()
    assert window.document.build.bench is not None
    assert window.document.build.bench.places == {name: "left drawer"}
    tonight.look_at_clock()


def test_no_card_stands_empty_before_there_is_a_plan(window: MainWindow) -> None:
    page = cast("TonightPage", bench_of(window).page("tonight"))
    page.show_nothing("")
    assert page.step.isHidden()
    assert page.lay_out.isHidden()


def test_an_evening_without_a_model_leads_to_describing_one(
    make_window: Callable[[], MainWindow], qtbot: QtBot
) -> None:
    window = make_window()
    window.start(empty_build())
    window.show_stage("bench")
    page = cast("TonightPage", bench_of(window).page("tonight"))
    assert page.step.button.isVisible()
    asked: list[bool] = []
    bench_of(window).description_wanted.connect(lambda: asked.append(True))
    seen: list[str] = []

    def close() -> None:
        dialog = QApplication.activeModalWidget()
        seen.append(type(dialog).__name__)
        if isinstance(dialog, QDialog):
            dialog.reject()

    QTimer.singleShot(0, close)
    qtbot.mouseClick(page.step.button, LEFT)
    qtbot.waitUntil(lambda: bool(seen), timeout=5_000)
    assert asked == [True]
    assert seen == ["NewBuildDialog"]
