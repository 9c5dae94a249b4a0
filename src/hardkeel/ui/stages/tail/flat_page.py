"""Flat: corner heights over the board, what they say of twist and bow, which corner to flex and how far."""

from typing import Final

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, format_length
from hardkeel.edits import tail as edits
from hardkeel.messages import flat as say_flat
from hardkeel.messages import tail as say
from hardkeel.messages import targets as targets_say
from hardkeel.messages.asking import far_question
from hardkeel.messages.faults import told
from hardkeel.picture.tail import corners_picture
from hardkeel.picture.wood import WoodPicture
from hardkeel.tail.flatness import (
    PHASES,
    Flatness,
    Phase,
    corner_places,
    expected_corner,
    flatness_of,
)
from hardkeel.tail.model import BoardPlace, TailSurface
from hardkeel.ui.document.document import Document
from hardkeel.ui.stages.tail.tail_page import TailSubPage
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.asked_twice import AskedTwice
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.cells import CellsModel, Column, Row
from hardkeel.ui.widgets.cells_table import CellsTable
from hardkeel.ui.widgets.doing_card import LinesCard
from hardkeel.ui.widgets.dropped import PictureDrop
from hardkeel.ui.widgets.fields import QuantityEdit
from hardkeel.ui.widgets.targets_card import TargetsCard
from hardkeel.ui.widgets.wood_board import WoodBoard

_SHOWS: Final = frozenset({"tail", "profiles"})
# the reach of a hand round the board: one half, then the other, the middle last
_ORDER: Final[tuple[BoardPlace, ...]] = (
    "starboard_le", "starboard_te", "port_te", "port_le", "mid_le", "mid_te",
)  # fmt: skip


class CornerCard(Card):
    """The one corner to read, with its field."""

    def __init__(self) -> None:
        super().__init__(say.READ_CORNERS, "act")
        self.title = label("title")
        self.field = QuantityEdit(large=True)
        self.column.addWidget(self.title)
        self.column.addWidget(self.field)
        self.column.addWidget(self.field.told)
        self.column.addWidget(label("soft", say.READ_CORNERS_WHY))


class FlatPage(TailSubPage):
    """The surface on its board, its corners to click; the list of readings under it.

    Signals
    -------
    photos_dropped : list of Path
        Pictures that were dropped on the page.
    """

    photos_dropped = pyqtSignal(list)

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._target: BoardPlace | None = None
        self.phase: Phase = "dry"
        self._asked = AskedTwice()
        self.board = WoodBoard(theme, say.ON_THE_BOARD, height=300)
        self.model = CellsModel(
            [Column(one, right=i > 0) for i, one in enumerate(say.CORNER_HEADS)], theme, parent=self
        )
        self.table = CellsTable(self.model, theme, 0, say.READ_CORNERS)
        self.phases: dict[str, QPushButton] = {}
        self.corner = CornerCard()
        self.answer = LinesCard(say.FLAT)
        self.flex = LinesCard(say.FLEX)
        self.targets = TargetsCard()
        self.targets.eyebrow.setText(targets_say.FRAME_CARD)
        self.targets.show_laid((targets_say.FLAT_HOW,), 0, there=True)
        self.targets.watch.hide()
        self.targets.drop.hide()
        PictureDrop(self).dropped.connect(self.photos_dropped)
        self._lay_out()
        self._connect()
        self.refresh_lazily(_SHOWS)
        self.refresh()

    def _lay_out(self) -> None:
        head = QHBoxLayout()
        head.setContentsMargins(14, 6, 14, 4)
        for key in PHASES:
            button = QPushButton(say.FLAT_PHASES[key])
            button.setObjectName("plain")
            button.setCheckable(True)
            button.clicked.connect(lambda _on, key=key: self._on_phase(key))
            self.phases[key] = button
            head.addWidget(button)
        head.addStretch(1)
        work = QVBoxLayout()
        work.setContentsMargins(0, 0, 0, 0)
        work.setSpacing(0)
        work.addWidget(self.row)
        work.addWidget(self.board, 3)
        work.addLayout(head)
        work.addWidget(self.table, 2)
        cards = (self.told, self.answer, self.flex, self.corner, self.targets)
        self._cards = CardColumn(cards, self.theme)
        self.lie_beside(work, self._cards)
        self.themed = (self.board, self.table, self._cards)

    def _connect(self) -> None:
        self.board.spot_picked.connect(self._on_spot)
        self.corner.field.value_changed.connect(self._on_value)
        self.table.started.connect(self._on_row)
        self.table.struck.connect(self._on_struck)

    @property
    def target(self) -> BoardPlace | None:
        """The corner that is asked for."""
        return self._target

    def focus_work(self) -> None:
        """Put the cursor where the hands are."""
        self.corner.field.setFocus()

    def choose(self, ref: str) -> None:
        """Another surface has other corners."""
        if ref != self.chosen:
            self._target = None
        super().choose(ref)

    def refresh(self) -> None:
        """Show the build as it is now."""
        self.show_row()
        surface = self.surface
        for key, button in self.phases.items():
            button.setChecked(key == self.phase)
        for card in (self.answer, self.flex, self.corner, self.targets):
            card.setVisible(surface is not None)
        if surface is None:
            self.board.show_picture(WoodPicture(), "", say.NO_TAIL)
            return
        try:
            self._show(surface)
        except BadInput as fault:
            self.tell(told(fault, self.unit))

    def _show(self, surface: TailSurface) -> None:
        read = {one.at: one for one in surface.flatness if one.phase == self.phase}
        places = [place for place in _ORDER if place in corner_places(surface)]
        open_ = [place for place in places if place not in read]
        target: BoardPlace = (open_ or places)[0]
        if self._target is not None and self._target in places:
            target = self._target
        self._target = target
        words = say.FIN_PLACES if surface.upright else say.PLACE_WORDS
        self.corner.title.setText(words[target][:1].upper() + words[target][1:])
        self.corner.field.line.setAccessibleName(words[target])
        self.corner.field.set_kind(angular=False, unit=self.unit)
        self.board.show_picture(
            corners_picture(surface, self.document.build.profiles, read, target).called(
                words.__getitem__
            )
        )
        flat = flatness_of(surface, self.phase)
        self._show_answer(surface, flat)
        residuals = dict(zip(read, flat.residuals, strict=False)) if flat is not None else {}
        rows = []
        for place in places:
            value = read[place].value if place in read else None
            rows.append(
                Row(
                    place,
                    (
                        words[place],
                        "" if value is None else format_length(value, self.unit),
                        ""
                        if value is None
                        else format_length(residuals.get(place, 0.0), self.unit),
                    ),
                    "ink" if value is not None else "soft",
                    weight=600 if place == target else 400,
                    struck=False,
                    cell_colours={},
                )
            )
        self.model.show_rows(rows, self.theme)

    def _show_answer(self, surface: TailSurface, flat: Flatness | None) -> None:
        if flat is None:
            self.answer.set_edge("")
            self.answer.show_lines(say.NOT_READ, ())
            self.flex.show_lines("", ())
            return
        self.answer.set_edge("out" if flat.twisted else "")
        lines = (
            [say_flat.flat_sentence(flat, self.unit, upright=surface.upright)]
            if flat.known
            else [say.NEEDS_CORNERS]
        )
        if flat.known and not surface.upright:
            lines.append(say_flat.alike_sentence(flat, self.unit))
        before = self._before(surface)
        if before is not None and flat.known:
            lines.append(say_flat.flat_movement(before[1], flat, say.FLAT_PHASES[before[0]]))
        if self.phase == "cured":
            lines.append(say.GOES_ON_IN_TRUE)
        self.answer.show_lines(say_flat.flat_answer(flat), lines)
        lift = (
            say_flat.lift_sentence(flat, self.unit, upright=surface.upright) if flat.known else ""
        )
        self.flex.show_lines("", [lift] if lift else ())

    def _before(self, surface: TailSurface) -> tuple[Phase, Flatness] | None:
        """The last phase before this one that is known."""
        for phase in reversed(PHASES[: PHASES.index(self.phase)]):
            flat = flatness_of(surface, phase)
            if flat is not None and flat.known:
                return phase, flat
        return None

    # -- what the hands do -------------------------------------------------------------------------

    def _on_phase(self, key: str) -> None:
        self.phase, self._target = key, None  # type: ignore[assignment]
        self.refresh()
        self.focus_work()

    def _on_spot(self, place: str) -> None:
        self._target = place  # type: ignore[assignment]
        self.refresh()
        self.focus_work()

    def _on_row(self, number: int) -> None:
        row = self.model.row(number)
        if row is not None:
            self._on_spot(row.key)

    def _on_struck(self, number: int) -> None:
        row, surface = self.model.row(number), self.surface
        if row is not None and surface is not None:
            place: BoardPlace = row.key  # type: ignore[assignment]
            self.apply(
                say.struck_corner(place),
                edits.strike_corner.of(surface.id, place, self.phase),
            )

    def _on_value(self, value: float) -> None:
        surface, place = self.surface, self._target
        if surface is None or place is None:
            return
        expected = expected_corner(surface, self.phase, place)
        if self._asked.wants_asking(place, value, sensible=expected.holds(value)):
            self.tell(far_question(expected.value, expected.band, value, self.unit, angular=False))
            return
        self._target = None
        if self.apply(
            say.read_edit(place),
            edits.read_corner.of(surface.id, place, value, self.phase),
        ):
            self.corner.field.set_value(None)
            self.focus_work()
        else:
            self._target = place
