"""Every kind of model on every bench of the window: each has something to show, and nothing is told amiss."""

from collections.abc import Callable

import pytest
from PyQt6.QtWidgets import QLabel, QWidget

from hardkeel.edits.framing import frame_as_usual
from hardkeel.edits.tail import set_built
from hardkeel.ui.shell.window import MainWindow
from tests.airframes_of_any_kind import ANY
from tests.draws import draws
from tests.heartbeat import Place, places_of, settle, turn
from tests.stages_of import true_of

# what no builder should ever read
_NEVER = ("None", "nan", "Traceback", "{", "_outer_", "vee_", "no attribute")


def told(widget: QWidget) -> list[str]:
    """Every visible sentence."""
    return [
        label.text()
        for label in widget.findChildren(QLabel)
        if label.isVisibleTo(widget) and label.text()
    ]


# the others with the long draws
SOME = ("vee tail", "foreplane", "panels that come off")


@pytest.mark.parametrize("kind", draws(SOME, tuple(ANY)))
def test_a_model_of_this_kind_is_at_home_on_every_bench(
    make_window: Callable[[], MainWindow], kind: str
) -> None:
    build = frame_as_usual(ANY[kind]())
    for surface in build.tail:
        build = set_built(build, surface.id, "stick")
    window = make_window()
    window.start(build)
    for place in places_of(window):
        turn(window, place)
        settle(20)
        page = window.pages[place.stage]
        for text in told(page):
            assert not [word for word in _NEVER if word in text], f"{place}: {text}"
    turn(window, Place("true", "rig"))
    page = true_of(window)
    assert page.entry.target is not None
    assert page.next.field.isVisible()
