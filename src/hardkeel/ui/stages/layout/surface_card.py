"""The figures of the wing or tail surface in hand."""

from typing import TYPE_CHECKING, Final

from PyQt6.QtWidgets import QHBoxLayout, QPushButton

from hardkeel.base.units import LengthUnit
from hardkeel.messages import layout as say
from hardkeel.messages.names import body_name, sentence_case
from hardkeel.project.model import Build
from hardkeel.ui.widgets.figures_card import Figure, FiguresCard

if TYPE_CHECKING:
    from hardkeel.balance.model import Wing
    from hardkeel.tail.model import TailSurface

SURFACE_FIGURES: Final = (
    ("span", "span", "length"),
    ("le_x", "leading edge at", "length"),
    ("root_chord", "root chord", "length"),
    ("z", "height", "length"),
    ("tip_chord", "tip chord", "length"),
    ("incidence", "incidence", "angle"),
    ("sweep_le", "tip sweep", "length"),
    ("dihedral", "dihedral", "angle"),
    ("seat_width", "seat width", "length"),
)


class SurfaceCard(FiguresCard):
    """A wing or tail surface, and whether a wing goes above it or it comes off."""

    def __init__(self) -> None:
        super().__init__(say.IN_HAND)
        self.above = QPushButton("A wing above it")
        self.take_off = QPushButton(say.TAKE_IT_OFF)
        row = QHBoxLayout()
        for button in (self.above, self.take_off):
            button.setObjectName("tool")
            row.addWidget(button)
        row.addStretch(1)
        self.column.addLayout(row)

    def show_surface(self, build: Build, body: str, unit: LengthUnit) -> bool:
        """Show the figures of a wing or tail surface; nothing for another body.  Whether it is one."""
        surfaces: dict[str, Wing | TailSurface] = {wing.id: wing for wing in build.wings}
        surfaces |= {tail.id: tail for tail in build.tail}
        found = surfaces.get(body)
        self.setVisible(found is not None)
        if found is None:
            return False
        self.above.setVisible(any(wing.id == body for wing in build.wings))
        figures = tuple(
            Figure(key, words, getattr(found, key), kind)  # type: ignore[arg-type]
            for key, words, kind in SURFACE_FIGURES
        )
        self.show_figures(sentence_case(body_name(build.surveyed, found.id)), figures, unit)
        return True
