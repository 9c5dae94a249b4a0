"""Questions that a newcomer asks stand answered where they arise."""

from collections.abc import Callable

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QLabel, QWidget
from pytestqt.qtbot import QtBot

from hardkeel.demo.kettlewick import demo_build
from hardkeel.messages import newcomer
from hardkeel.messages.newcomer import Question
from hardkeel.survey.model import Instrument
from hardkeel.survey.proposing import candidates_of
from hardkeel.ui.shell.new_build import NewBuildDialog
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.theme import make_theme
from hardkeel.ui.widgets.asked import Asked
from tests.stages_of import true_of

LEFT = Qt.MouseButton.LeftButton


def answers(qtbot: QtBot, where: QWidget, question: Question) -> bool:
    """Press the question, and say whether its answer is seen."""
    asked = next(one for one in where.findChildren(Asked) if one.line.text() == question.asked)
    said = next(one for one in asked.findChildren(QLabel) if one.text() == question.answer)
    assert asked.isVisible()
    assert not said.isVisible()
    qtbot.mouseClick(asked.line, LEFT)
    return said.isVisible()


def test_each_is_answered_where_it_is_asked(
    qtbot: QtBot, make_window: Callable[[], MainWindow]
) -> None:
    window = make_window()
    assert answers(qtbot, window.blank, newcomer.WHO_SEES)
    dialog = NewBuildDialog(make_theme("light"), "mm", window)
    try:
        dialog.show()
        assert answers(qtbot, dialog, newcomer.WHERE_FROM)
    finally:
        dialog.reject()
    window.start(demo_build())
    window.show_stage("true")
    assert answers(qtbot, true_of(window).next, newcomer.NO_SUCH_TOOL)
    assert answers(qtbot, true_of(window).checks, newcomer.HOW_READ)


def test_only_tools_that_are_ticked_are_asked_for() -> None:
    """As the answer says."""
    survey = demo_build().surveyed
    all_kinds = {one.kind for one in candidates_of(survey)}
    with_tape = survey.but(instruments=(Instrument(id="mine", kind="tape"),))
    kinds = {one.kind for one in candidates_of(with_tape)}
    assert kinds == {"distance"}
    assert kinds < all_kinds
