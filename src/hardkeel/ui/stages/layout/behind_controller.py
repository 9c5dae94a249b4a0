"""Watches over what wing and tail rest on while the fuselage is changed."""

from collections.abc import Callable

from PyQt6.QtCore import QObject

from hardkeel.airframe.standing import Rest, left_behind, rests_of, surfaces
from hardkeel.base.units import LengthUnit
from hardkeel.edits.named import Edit
from hardkeel.edits.surfaces import set_tail, set_wing
from hardkeel.messages import following as say
from hardkeel.ui.document.document import Document
from hardkeel.ui.stages.layout.behind_card import BehindCard


class BehindController(QObject):
    """Remembers how each surface rested when the build was opened, or when the builder last set its height.

    Parameters
    ----------
    apply : callable
        Applies an edit to the document under its name for undo.
    """

    def __init__(
        self, document: Document, card: BehindCard, apply: Callable[[str, Edit], bool]
    ) -> None:
        super().__init__(card)
        self._document, self._card, self._apply = document, card, apply
        self._unit: LengthUnit = "mm"
        self._rested: dict[str, Rest] = {}
        self._heights: dict[str, float | None] = {}
        document.build_opened.connect(self._on_opened)
        card.taken.connect(self._on_taken)
        card.left.connect(self._on_left)

    def show(self, unit: LengthUnit) -> None:
        """Name what rests no more as it did; what the builder set rests as he wants it."""
        self._unit, build = unit, self._document.build
        now = rests_of(build)
        heights = {one.id: one.z for one in surfaces(build)}
        for name, z in heights.items():
            if name in now and (name not in self._rested or self._heights.get(name) != z):
                self._rested[name] = now[name]
        self._heights = heights
        self._card.show_behind(left_behind(build, self._rested), unit)

    def _on_opened(self) -> None:
        self._rested, self._heights = {}, {}
        self.show(self._unit)

    def _on_taken(self) -> None:
        build = self._document.build
        for one in left_behind(build, self._rested)[:1]:
            edit = set_wing if any(wing.id == one.surface for wing in build.wings) else set_tail
            z = next(each.z for each in surfaces(build) if each.id == one.surface) or 0.0
            self._apply(say.offer_edit(one), edit.of(one.surface, z=round(z + one.by, 1)))

    def _on_left(self) -> None:
        for one in left_behind(self._document.build, self._rested)[:1]:
            self._rested[one.surface] = Rest(one.on, one.over)
            self.show(self._unit)
