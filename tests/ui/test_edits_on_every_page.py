"""Two edits on every page of every demo: done, undone, without a word from Qt; how long they keep it busy is measured by `make bench`."""

from collections.abc import Callable
from typing import Final

import pytest

from hardkeel.demo.fleet import DEMOS
from hardkeel.demo.kettlewick import demo_build
from hardkeel.project.model import Build
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages import STAGES
from tests.heartbeat import edits_for, places_of, settle, turn

MAKERS: Final[dict[str, Callable[[], Build]]] = {
    "kettlewick": demo_build,
    **{demo.name.split()[0].lower(): demo.make for demo in DEMOS},
}


@pytest.mark.parametrize("stage", [stage.key for stage in STAGES])
@pytest.mark.parametrize("demo", MAKERS)
def test_an_edit_is_done_and_undone_on_the_page_that_shows_it(
    make_window: Callable[[], MainWindow], demo: str, stage: str
) -> None:
    window = make_window()
    window.start(MAKERS[demo]())
    for place in places_of(window):
        if place.stage != stage:
            continue
        turn(window, place)
        settle(10)
        before = window.document.build
        for what, edit in edits_for(before, place):
            if edit(before) == before:  # a demo has the figure already
                continue
            window.document.apply(what, edit)
            settle(10)
            assert window.document.stack.undoText() == what
            assert window.document.build != before, (place, what)
            window.document.stack.undo()
            settle(10)
            assert window.document.build == before, (place, what)
