"""The cards on the right of the True page: what next, is it true, what to do at the seat."""

from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import QStringListModel, Qt, pyqtSignal
from PyQt6.QtWidgets import (
    QButtonGroup,
    QCompleter,
    QHBoxLayout,
    QLineEdit,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from hardkeel.base.units import LengthUnit
from hardkeel.ui.kit.card import Card, label
from hardkeel.ui.kit.fields import QuantityEdit
from hardkeel.ui.kit.flow import FlowLayout
from hardkeel.ui.kit.vial import GroupLine, Vial, VialGroup
from hardkeel.ui.theme import Theme
from hardkeel.voice import true as say

_TOOLS: Final = (
    ("distance", "tape"),
    ("distance-difference", "line"),
    ("height", "height"),
    ("incidence", "gauge"),
    ("tilt", "level"),
    ("offset", "laser"),
    ("angle", "square"),
)


@dataclass(frozen=True, slots=True)
class NextShown:
    """What the next card shows.

    Attributes
    ----------
    takes : bool
        Whether a value is to be typed.
    draft_hint : str
        While a reading is put together: what to pick next.
    action : str
        Words of the button where no value is wanted; empty for none.
    """

    eyebrow: str
    title: str
    why: str
    edge: str = "act"
    takes: bool = False
    angular: bool = False
    unit: LengthUnit = "mm"
    draft_hint: str = ""
    tool: str = ""
    action: str = ""


class NextCard(Card):
    """The single answer to "what next?", with the field for the value being taken.

    Signals
    -------
    value_taken : float
        Enter in the value field; mm or degrees.
    tool_picked : str
        Another tool was taken in hand; a kind of reading.
    place_typed : str
        Words for the next mark or body of a reading in the making.
    given_up : (nothing)
        Escape.
    action_pressed : (nothing)
        The button.
    """

    value_taken = pyqtSignal(float)
    tool_picked = pyqtSignal(str)
    place_typed = pyqtSignal(str)
    given_up = pyqtSignal()
    action_pressed = pyqtSignal()

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(say.NEXT_READING, "act", parent)
        self._title = label("title")
        self._why = label("soft")
        self.field = QuantityEdit(large=True)
        self.place = QLineEdit()
        self.place.setPlaceholderText("click it in the drawing, or type its name")
        self.place.setAccessibleName("place of the reading")
        self._places = QStringListModel(self)
        completer = QCompleter(self._places, self)
        completer.setCaseSensitivity(Qt.CaseSensitivity.CaseInsensitive)
        completer.setFilterMode(Qt.MatchFlag.MatchContains)
        self.place.setCompleter(completer)
        self._hint = label("soft")
        self._action = QPushButton()
        self._action.setObjectName("primary")
        row = QHBoxLayout()
        row.setSpacing(12)
        row.addWidget(self.field, 6)
        row.addWidget(self.field.told, 5)
        self.column.addWidget(self._title)
        self.column.addWidget(self.place)
        self.column.addLayout(row)
        self.column.addWidget(self._why)
        self.column.addWidget(self._hint)
        self.column.addWidget(self._action)
        self._tools = self._tool_row()
        self.field.value_changed.connect(self.value_taken)
        self.field.given_up.connect(self.given_up)
        self.place.returnPressed.connect(self._on_place_return)
        self._action.clicked.connect(self.action_pressed)

    def _tool_row(self) -> QButtonGroup:
        group = QButtonGroup(self)
        tools = QWidget()
        flow = FlowLayout(tools, gap=2)
        for i, (kind, name) in enumerate(_TOOLS, start=1):
            button = QPushButton(name)
            button.setObjectName("tool")
            button.setCheckable(True)
            button.setToolTip(say.tool_tip(name, i))
            button.setShortcut(f"Alt+{i}")
            button.setProperty("kind", kind)
            button.clicked.connect(lambda _on, kind=kind: self.tool_picked.emit(kind))
            group.addButton(button)
            flow.addWidget(button)
        group.setExclusive(False)
        self.column.addWidget(tools)
        return group

    def set_places(self, names: list[str]) -> None:
        """Offer these names while a mark is typed."""
        if names != self._places.stringList():
            self._places.setStringList(names)

    def show_next(self, view: NextShown) -> None:
        """Show another step."""
        self.set_edge(view.edge)
        self.eyebrow.setText(view.eyebrow)
        self._title.setText(view.title)
        self.field.line.setAccessibleName(view.title)
        self._why.setText(view.why)
        self._why.setVisible(bool(view.why))
        self.place.setVisible(bool(view.draft_hint))
        self._hint.setText(view.draft_hint)
        self._hint.setVisible(bool(view.draft_hint))
        self.field.setVisible(view.takes and not view.draft_hint)
        if not view.takes or view.draft_hint:
            self.field.told.hide()
        self.field.set_kind(angular=view.angular, unit=view.unit)
        self._action.setVisible(bool(view.action))
        self._action.setText(view.action)
        for button in self._tools.buttons():
            button.setChecked(button.property("kind") == view.tool)

    def tell(self, text: str) -> None:
        """Say something about what was just tried."""
        self._hint.setText(text)
        self._hint.setVisible(bool(text))

    def focus_entry(self) -> None:
        """Put the cursor where the hands are."""
        if not self.place.isHidden():
            self.place.clear()
            self.place.setFocus()
        elif not self.field.isHidden():
            self.field.setFocus()

    def _on_place_return(self) -> None:
        text = self.place.text()
        self.place.clear()
        if text.strip():
            self.place_typed.emit(text)


class ChecksCard(Card):
    """All checks as vials, and the picked one in words.

    Signals
    -------
    check_picked : str
        A vial was picked.
    tolerance_changed : str, float
        Another tolerance was typed for a check; mm or degrees.
    laid : (nothing)
        Checks came, went or changed places.
    """

    laid = pyqtSignal()
    check_picked = pyqtSignal(str)
    tolerance_changed = pyqtSignal(str, float)

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(say.TRUE, parent=parent)
        self._theme = theme
        self._vials: dict[str, Vial] = {}
        self._lines: dict[str, GroupLine] = {}
        self._groups: tuple[VialGroup, ...] = ()
        self._order: list[tuple[str, tuple[str, ...]]] = []
        self._by_hand: dict[str, bool] = {}  # what the builder folded or unfolded
        self._rows = QVBoxLayout()
        self._rows.setSpacing(0)
        self.column.addLayout(self._rows)
        self._empty = label("soft", say.NOTHING_TO_CHECK_YET)
        self.column.addWidget(self._empty)
        self._detail = label("heading")
        self._air = label("soft")
        self._limit = QuantityEdit()
        self._limit.line.setMaximumWidth(90)
        limit_row = QHBoxLayout()
        limit_row.addWidget(label("soft", "allowed ±", wrap=False), 0, Qt.AlignmentFlag.AlignTop)
        limit_row.addWidget(self._limit)
        self._foot = QWidget()
        foot = QVBoxLayout(self._foot)
        foot.setContentsMargins(0, 6, 0, 0)
        foot.setSpacing(3)
        foot.addWidget(self._detail)
        foot.addWidget(self._air)
        foot.addLayout(limit_row)
        self._foot.hide()
        self.column.addWidget(self._foot)
        self._chosen = ""
        self._limit.value_changed.connect(
            lambda value: self.tolerance_changed.emit(self._chosen, value)
        )

    def vial(self, check: str) -> Vial | None:
        """The vial of a check."""
        return self._vials.get(check)

    def line(self, body: str) -> GroupLine | None:
        """The line of a part."""
        return self._lines.get(body)

    def set_theme(self, theme: Theme) -> None:
        """Dress in another theme."""
        self._theme = theme
        for vial in self._vials.values():
            vial.set_theme(theme)
        for line in self._lines.values():
            line.set_theme(theme)

    def show_groups(self, groups: tuple[VialGroup, ...]) -> None:
        """Show the checks by part, the first unfolded; what stays is only updated and keeps the focus."""
        self._groups = groups
        order = [(group.body, tuple(value.id for value in group.vials)) for group in groups]
        if order != self._order:
            self._order = order
            self._lay(groups)
            self.laid.emit()
        for group in groups:
            for value in group.vials:
                self._vials[value.id].show_value(value)
        self._fold()
        self._empty.setVisible(not groups)

    def unfold(self, body: str) -> None:
        """Show the checks of a part."""
        self._by_hand[body] = True
        self._fold()

    def _lay(self, groups: tuple[VialGroup, ...]) -> None:
        """Put lines and vials in this order; those that are there already are kept."""
        wanted = {value.id: value for group in groups for value in group.vials}
        for known, ids in (
            (self._vials, set(wanted)),
            (self._lines, {group.body for group in groups}),
        ):
            for key in [key for key in known if key not in ids]:
                gone: QWidget = known.pop(key)
                self._rows.removeWidget(gone)
                gone.deleteLater()
        for group in groups:
            if group.body not in self._lines:
                line = self._lines[group.body] = GroupLine(group, self._theme)
                line.toggled.connect(self._on_toggled)
            self._rows.removeWidget(self._lines[group.body])
            self._rows.addWidget(self._lines[group.body])
            for value in group.vials:
                if value.id not in self._vials:
                    vial = self._vials[value.id] = Vial(value, self._theme)
                    vial.picked.connect(self.check_picked)
                self._rows.removeWidget(self._vials[value.id])
                self._rows.addWidget(self._vials[value.id])

    def _fold(self) -> None:
        for i, group in enumerate(self._groups):
            unfolded = self._by_hand.get(group.body, i == 0)
            self._lines[group.body].show_group(group, unfolded=unfolded)
            for value in group.vials:
                self._vials[value.id].setVisible(unfolded)

    def _on_toggled(self, body: str) -> None:
        first = bool(self._groups) and self._groups[0].body == body
        self._by_hand[body] = not self._by_hand.get(body, first)
        self._fold()

    def show_detail(
        self,
        check: str,
        detail: str,
        air: str,
        limit: float | None,
        *,
        angular: bool,
        unit: LengthUnit,
    ) -> None:
        """Put one check in words; an empty id closes the detail."""
        changed = check != self._chosen
        self._chosen = check
        for name, vial in self._vials.items():
            vial.set_chosen(chosen=name == check)
        self._foot.setVisible(bool(check))
        self._detail.setText(detail)
        self._air.setText(air)
        self._limit.set_kind(angular=angular, unit=unit)
        if changed or not self._limit.line.hasFocus():
            self._limit.set_value(limit)


@dataclass(frozen=True, slots=True)
class SeatShown:
    """What the seat card shows of one body."""

    title: str
    do: tuple[str, ...]
    then: str
    caution: str
    way: str
    needed: bool
    done: str


class SeatCard(Card):
    """What to shim, sand or slide at one seat.

    Signals
    -------
    way_picked : str
        ``shims`` or ``sanding``.
    done_pressed : (nothing)
        The builder has done it.
    """

    way_picked = pyqtSignal(str)
    done_pressed = pyqtSignal()

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(say.SEAT, parent=parent)
        self._do = label("answer")
        self._then = label("soft")
        self._caution = label("soft")
        self._ways = {}
        row = QHBoxLayout()
        row.setSpacing(4)
        for way, words in (("sanding", "only sanding"), ("shims", "only shims")):
            button = QPushButton(words)
            button.setObjectName("plain")
            button.setCheckable(True)
            button.clicked.connect(lambda _on, way=way: self.way_picked.emit(way))
            self._ways[way] = button
            row.addWidget(button)
        row.addStretch(1)
        self._done = QPushButton(say.DONE_MEASURE_AGAIN)
        self._done.clicked.connect(self.done_pressed)
        row.addWidget(self._done)
        for widget in (self._do, self._then):
            self.column.addWidget(widget)
        self.column.addLayout(row)
        self.column.addWidget(self._caution)

    def show_seat(self, view: SeatShown) -> None:
        """Show another seat or way."""
        self.set_edge("out" if view.needed else "")
        self.eyebrow.setText(view.title)
        self._do.setText("\n".join(view.do))
        self._do.setVisible(bool(view.do))
        self._then.setText(view.then)
        self._then.setVisible(bool(view.then))
        self._caution.setText(view.caution)
        self._caution.setVisible(bool(view.caution))
        self._done.setVisible(view.needed)
        self._done.setToolTip(view.done)
        for way, button in self._ways.items():
            button.setChecked(way == view.way)
            button.setVisible(view.needed)
