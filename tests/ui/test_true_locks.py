"""A locked part that was pushed, followed on the page: named, unlocked, and trued again."""

from collections.abc import Callable, Mapping

from PyQt6.QtCore import Qt
from pytestqt.qtbot import QtBot

from hardkeel.demo.biplane import TRUTH, teasel
from hardkeel.messages.locks import BEFORE_IT_MOVED
from hardkeel.messages.next_steps import NextStep
from hardkeel.practice.hidden import hidden_from
from hardkeel.survey.model import FUSELAGE
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages.true.page import TruePage
from tests.conftest import StepClock
from tests.stages_of import true_of

_MOST = 160


class Rigger:
    """Reads exactly what the card asks for, and presses its button."""

    def __init__(self, qtbot: QtBot, window: MainWindow, clock: StepClock) -> None:
        self.qtbot, self.window, self.clock = qtbot, window, clock
        self.page: TruePage = true_of(window)
        self.given: dict[str, Mapping[str, float]] = {"bench": TRUTH["bench"]}
        self.locked: list[str] = []

    @property
    def step(self) -> NextStep:
        """What the card says."""
        step = self.page.entry.step
        assert step is not None
        return step

    def press(self) -> None:
        """The card's button."""
        self.qtbot.mouseClick(self.page.next._action, Qt.MouseButton.LeftButton)  # noqa: SLF001

    def go_on(self, until: Callable[[NextStep], bool]) -> None:
        """Read and press until the card says that."""
        for _ in range(_MOST):
            self._never_two_orders()
            if until(self.step):
                return
            if self.page.next.field.isVisible():
                self._read()
                continue
            self.locked += [self.step.body or ""] if self.step.kind == "lock" else []
            self.press()
            if self.locked == ["wing"]:  # an elbow, once it is locked
                self.given["wing"] = {"roll": 1.1}
        raise AssertionError(self.step)

    def _read(self) -> None:
        target = self.page.entry.target
        assert target is not None
        shown = hidden_from(self.window.document.build.surveyed, self.given).show(target)
        self.page.next.field.line.setText(f"{shown:.2f}")
        self.qtbot.keyClick(self.page.next.field.line, Qt.Key.Key_Return)

    def _never_two_orders(self) -> None:
        """What is to be glued never stands over a correction of something else."""
        if self.step.kind == "lock" and self.page.seat.isVisible():
            said = self.page.seat._do.text()  # noqa: SLF001
            assert "Leave it" in said or "limit" in self.step.why


def test_a_pushed_wing_is_named_and_trued_again(
    qtbot: QtBot, window: MainWindow, clock: StepClock
) -> None:
    window.start(teasel())
    rigger = Rigger(qtbot, window, clock)
    page = rigger.page
    qtbot.mouseClick(page.rig.stages[FUSELAGE], Qt.MouseButton.LeftButton)
    rigger.go_on(lambda step: step.kind == "moved")
    assert rigger.step.title.startswith("The wing has moved since it was locked")
    assert "tip up by" in rigger.step.why  # the way it was pushed
    assert page.rig.stages["wing"].accessibleName().startswith("Wing: moved since")
    old = {row.id for row in page._rows if row.note == BEFORE_IT_MOVED}  # noqa: SLF001
    assert len(old) > 5
    assert page.next._action.text() == "unlock"  # noqa: SLF001
    rigger.press()
    after = window.document.build.surveyed
    assert "wing" not in after.locked
    assert page.entry.stage == "wing"
    assert {one.id for one in after.readings if one.ignored} == old
    rigger.go_on(lambda step: step.kind == "correct")  # read anew: it is out as it now stands
    assert rigger.step.body == "wing"
    assert page.seat.isVisible()
    assert "Sand" in page.seat._do.text() or "Put" in page.seat._do.text()  # noqa: SLF001
