"""The cards on the right of the True page: what next, is it true, what to do at the seat."""

from dataclasses import dataclass
from typing import Final

from PyQt6.QtCore import QStringListModel, Qt, pyqtSignal
from PyQt6.QtWidgets import (
    QButtonGroup,
    QComboBox,
    QCompleter,
    QHBoxLayout,
    QLineEdit,
    QPushButton,
    QWidget,
)

from hardkeel.base.units import LengthUnit
from hardkeel.messages import aiming as say_aiming
from hardkeel.messages import rigging as say_rigging
from hardkeel.messages import true as say
from hardkeel.messages.newcomer import NO_SUCH_TOOL
from hardkeel.survey.judging import Judgement
from hardkeel.survey.model import DATUM, SeatKind, Survey
from hardkeel.survey.roles import main_of, trimming
from hardkeel.ui.widgets.asked import Asked
from hardkeel.ui.widgets.buttons_card import ButtonsCard
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.fields import QuantityEdit
from hardkeel.ui.widgets.flow import FlowLayout

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
        self._asked = Asked(NO_SUCH_TOOL)
        self.column.addWidget(self._asked)
        return group

    def offer_tools(self, kinds: frozenset[str] | None) -> None:
        """Offer those that take these kinds of reading; all of them for ``None``."""
        for button in self._tools.buttons():
            button.setVisible(kinds is None or button.property("kind") in kinds)

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
        self._asked.setVisible(view.takes)
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

    @property
    def complaint(self) -> str:
        """What is wrong with the figure that was just tried; empty where nothing is."""
        if self.field.line.property("wrong"):
            return self.field.told.text()
        return self._hint.text() if self._hint.isVisibleTo(self) else ""

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
    fitted: bool
    kind: SeatKind
    at_corners: bool = False
    ready: bool = True
    at_limit: bool = False


class SeatCard(Card):
    """What to shim, sand or slide at one seat.

    Signals
    -------
    way_picked : str
        ``shims`` or ``sanding``.
    kind_picked : str
        It is another kind of seat.
    done_pressed : (nothing)
        The builder has done it.
    """

    way_picked = pyqtSignal(str)
    kind_picked = pyqtSignal(str)
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
        self.corners = QPushButton(say_rigging.WHERE_IT_RESTS)
        self.corners.setObjectName("tool")
        self.corners.setToolTip(say_rigging.CORNERS_TIP)
        self.kind = QComboBox()
        self.kind.setObjectName("quiet")
        self.kind.setToolTip(say_rigging.SEAT_IS)
        self.kind.setAccessibleName(say_rigging.SEAT_IS)
        for key, words in say_rigging.SEAT_KINDS:
            self.kind.addItem(words, key)
        self.kind.activated.connect(lambda at: self.kind_picked.emit(self.kind.itemData(at)))
        for widget in (self._do, self._then):
            self.column.addWidget(widget)
        self.column.addLayout(row)
        head = QHBoxLayout()
        self.column.removeWidget(self.eyebrow)
        head.addWidget(self.eyebrow, 1)
        head.addWidget(self.kind)
        self.column.insertLayout(0, head)
        foot = QHBoxLayout()  # three buttons in the row above would push the card out of its column
        foot.addWidget(self._caution, 1)
        foot.addWidget(self.corners, 0, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignTop)
        self.column.addLayout(foot)

    def show_seat(self, view: SeatShown) -> None:
        """Show another seat or way."""
        self.set_edge("" if not view.needed else "act" if view.at_limit else "out")
        self.eyebrow.setText(view.title)
        self._do.setText("\n".join(view.do))
        self._do.setVisible(bool(view.do))
        self._then.setText(view.then)
        self._then.setVisible(bool(view.then))
        self._caution.setText(view.caution)
        self._caution.setVisible(bool(view.caution))
        self._done.setVisible(view.needed and view.ready)
        self._done.setToolTip(view.done)
        self.corners.setVisible(view.needed and view.at_corners)
        for way, button in self._ways.items():
            button.setChecked(way == view.way)
            button.setVisible(view.needed and view.ready and not view.fitted)
        self.kind.setCurrentIndex(self.kind.findData(view.kind))


class AimCard(ButtonsCard):
    """What the stabilizer is to be true to; where several seats are out, all of them at once."""

    def __init__(self) -> None:
        super().__init__(say_aiming.AIM, say_aiming.AIMS)
        self.hide()

    def show_build(self, survey: Survey, judgement: Judgement, unit: LengthUnit) -> None:
        """Which is chosen; shown where a seat of the two is out, and no glue is wet."""
        wing, others = main_of(survey, "wing"), trimming(survey)
        there = wing is not None and bool(others)
        self.setVisible(there and judgement.together is not None and judgement.phase != "wet")
        aims = {(survey.aim or {}).get(one.id, DATUM) for one in others}
        aim = say_aiming.AT_WING if wing is not None and aims == {wing.id} else DATUM
        self.show_answer(aim, say_aiming.together_words(survey, judgement, unit))
