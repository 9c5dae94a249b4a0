"""Practice with its benches: the courses, the exercise, how it was, pieces on the board, a kit's order, a model to turn by hand."""

from typing import Final

from PyQt6.QtWidgets import QWidget

from hardkeel.base.units import LengthUnit
from hardkeel.messages import pieces
from hardkeel.messages import practising as say
from hardkeel.ui.document.document import Change, Document
from hardkeel.ui.tabbed.stage_page import TabbedStage, TabList
from hardkeel.ui.theme import Theme

_BENCHES: Final = TabList(
    "hardkeel.ui.stages.practice",
    (
        ("courses", say.WHAT_TO_DO, "CoursesPage"),
        ("exercise", say.EXERCISE, "ExercisePage"),
        ("told", say.HOW_IT_WAS, "ToldPage"),
        ("board", pieces.ON_BOARD, "BoardPage"),
        ("kit", say.KIT, "KitPage"),
        ("feel", say.BY_FEEL, "FeelPage"),
    ),
    "Ctrl+Alt",
)


class PracticeStage(TabbedStage):
    """The stage; what is shown first follows the exercise on the bench."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, _BENCHES, parent)
        document.build_changed.connect(self._on_build_changed)

    def choose_body(self, body: str) -> None:
        """Read on a part that was picked on the keel line."""
        self.take_in_hand(body)

    def _on_build_changed(self, change: Change) -> None:
        """Another build came, or the learner's word was given or taken back: be where that is seen."""
        section = self._document.build.practice
        turned = section is not None and section.told != (self.now == "told")
        at_it = self.now in ("exercise", "told")
        if not change.parts or ("practice" in change.parts and at_it and turned):
            self._go(self._fitting())

    def _go(self, place: str) -> None:
        if self.isVisible():
            self.turn_to(place)
        else:
            self._now = place

    def _fitting(self) -> str:
        section = self._document.build.practice
        if section is None:
            return "courses"
        return "told" if section.told else "exercise"
