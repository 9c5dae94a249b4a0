"""A new build from a dozen figures, with the airframe drawn while they are typed."""

from collections.abc import Iterable, Sequence
from itertools import pairwise
from typing import TYPE_CHECKING, Final

from pydantic import ValidationError
from PyQt6.QtCore import Qt, QTimer
from PyQt6.QtWidgets import (
    QCheckBox,
    QComboBox,
    QDialog,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from hardkeel.airframe.figures import TOOL_CHOICES, Figures, build_from, proposed
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, marked
from hardkeel.picture.truing import picture_of
from hardkeel.survey.judging import Judgement, judge_survey
from hardkeel.survey.planning import plan
from hardkeel.ui.shell.kind_picker import FuselagePicker, KindPicker
from hardkeel.ui.theme import Theme, apply_style
from hardkeel.ui.widgets.asked import Asked
from hardkeel.ui.widgets.card import label
from hardkeel.ui.widgets.fields import QuantityEdit
from hardkeel.ui.widgets.folded import Folded
from hardkeel.ui.widgets.three_view import Shown, ThreeView

if TYPE_CHECKING:
    from hardkeel.project.model import Build
from hardkeel.messages import describe as say
from hardkeel.messages.faults import told
from hardkeel.messages.names import INSTRUMENT_NAMES, reading_name
from hardkeel.messages.newcomer import WHERE_FROM
from hardkeel.messages.shell import (
    DESCRIBE_YOUR_MODEL,
    NAME,
    NOT_NOW,
    PUT_IT_ON_THE_BENCH,
    TICK_A_TOOL,
)

_PAUSE_MS: Final = 120  # a hand that types rests longer between two fields
_REST_MS: Final = 350  # and longer still when it is done: the plan takes as long as a key is held
_WING: Final = (
    "wing_span", "wing_root", "wing_tip", "wing_le_x", "wing_incidence", "wing_dihedral", "parasol",
    "break_1", "rise_1", "swept_1", "break_2", "rise_2", "swept_2",
)  # fmt: skip
_TAIL: Final = ("tail_arm", "stab_span", "stab_chord", "stab_incidence", "fin_height", "fin_chord")
_FUSELAGE: Final = ("length", "depth", "width")
_NOSE: Final = ("down", "side")
_ANGLES: Final = frozenset(
    {"wing_incidence", "wing_dihedral", "stab_incidence", "rise_1", "rise_2", "down", "side"}
)
# in proportion, or straight on, where nothing is typed
_FREE: Final = frozenset({*_FUSELAGE, "swept_1", "swept_2"})
_OF_A_BREAK: Final = ("break", "rise", "swept")
_USUAL_BREAKS: Final = (0.6, 0.85)  # of the half span
_STEEPER: Final = 6.0  # degrees that a panel rises more than the one inside it, until it is said


class NewBuildDialog(QDialog):
    """Asks what the model is and for its figures; `build` is there once they make sense.

    It is drawn as soon as the hand rests between two figures, and what to measure is planned once it rests longer.
    """

    def __init__(self, theme: Theme, unit: LengthUnit, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle(DESCRIBE_YOUR_MODEL)
        self.resize(min(theme.across(1100), 1240), 740)  # on a screen 1280 by 800
        self.build: Build | None = None
        self._unit: LengthUnit = unit
        self.fields: dict[str, QuantityEdit] = {}
        self.tools: dict[str, QCheckBox] = {}
        self._said: dict[str, QLabel] = {}
        self._keys: dict[Folded, tuple[str, ...]] = {}
        self._typed: set[str] = set()
        self.kinds = KindPicker(say.KINDS, theme)
        self.kinds.picked.connect(self._on_kind)
        self.name = QLineEdit(Figures().name)
        self.name.setAccessibleName("name of the model")
        self.place = self._choice(say.PLACES.items(), "where the wing sits")
        self.made = self._choice(say.MADE.items(), "how the wing is made")
        self.breaks = self._choice(enumerate(say.BREAKS), "breaks of the wing")
        self.comes_off = QCheckBox(say.COMES_OFF)
        self.comes_off.toggled.connect(self._on_figure)
        self.built = FuselagePicker(say.BUILT, theme)
        self.built.picked.connect(self._on_figure)
        self.model_class = self._choice(
            ((key, marked(words)) for key, words in say.CLASSES.items()), "how true it must be"
        )
        self.model_class.setCurrentIndex(1)
        self.motor = QCheckBox(say.MOTOR)
        self.motor.toggled.connect(self._on_figure)
        self._groups = self._folded(theme)
        self._lay_out(theme)
        self._judged: Judgement | None = None
        self._pause, self._rest = QTimer(self), QTimer(self)
        for timer, pause, answer in (
            (self._pause, _PAUSE_MS, self.refresh),
            (self._rest, _REST_MS, self._plan),
        ):
            timer.setSingleShot(True)
            timer.setInterval(pause)
            timer.timeout.connect(answer)
        self._propose()
        self.refresh()
        apply_style(self)

    # -- how it is laid out --------------------------------------------------------------------------

    def _lay_out(self, theme: Theme) -> None:
        self._drawing = ThreeView(theme)
        self._told = label("heading")
        self._told.setMargin(10)
        self.take = QPushButton(PUT_IT_ON_THE_BENCH)
        self.take.setObjectName("primary")
        self.take.clicked.connect(self.accept)
        right = QVBoxLayout()
        right.addWidget(self._drawing, 1)
        right.addLayout(self._foot())
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(self._form(theme))
        row.addLayout(right, 1)

    def _choice(self, words: Iterable[tuple[object, str]], name: str) -> QComboBox:
        box = QComboBox()
        box.setAccessibleName(name)
        for key, text in words:
            box.addItem(text, key)
        box.currentIndexChanged.connect(self._on_figure)
        return box

    def _foot(self) -> QHBoxLayout:
        back = QPushButton(NOT_NOW)
        back.clicked.connect(self.reject)
        foot = QHBoxLayout()
        foot.setContentsMargins(12, 4, 14, 12)
        foot.addWidget(self._told, 1)
        foot.addWidget(back)
        foot.addWidget(self.take)
        return foot

    def _form(self, theme: Theme) -> QScrollArea:
        form = QWidget()
        form.setObjectName("paper")
        column = QVBoxLayout(form)
        column.setContentsMargins(16, 12, 16, 12)
        column.setSpacing(2)
        column.addWidget(label("heading", NAME))
        column.addWidget(self.name)
        column.addWidget(label("heading", say.WHAT_IS_IT))
        column.addWidget(self.kinds)
        column.addWidget(Asked(WHERE_FROM))
        for group in self._groups.values():
            column.addWidget(group)
        column.addStretch(1)
        scroll = QScrollArea()
        scroll.setWidget(form)
        scroll.setWidgetResizable(True)
        scroll.setFixedWidth(theme.px(440))
        scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        return scroll

    def _folded(self, theme: Theme) -> dict[str, Folded]:
        """The groups of fields, one unfolded at a time, so that none pushes another out of the window."""
        wide = theme.px(112)
        groups: dict[str, Folded] = {}
        for name, keys, first in (
            (say.WING, _WING, (self.place, self.made, self.breaks, self.comes_off)),
            (say.TAIL, _TAIL, ()),
            (say.FUSELAGE, _FUSELAGE, (self.built,)),
            (say.NOSE, _NOSE, (self.motor,)),
        ):
            group = groups[name] = Folded(name)
            self._keys[group] = keys
            for widget in first:
                group.put_across(widget)
            group.begin_pairs()
            for key in keys:
                self._put(group, key, wide)
        rigour = groups[say.RIGOUR] = Folded(say.RIGOUR)
        rigour.put_across(self.model_class)
        groups[say.TOOLS] = self._tool_boxes()
        for name, group in groups.items():
            group.opened.connect(lambda name=name: self._fold_others(name))
        groups[say.WING].fold(away=False)
        return groups

    def _tool_boxes(self) -> Folded:
        group, usual = Folded(say.TOOLS), Figures()
        for i, tool in enumerate(TOOL_CHOICES):
            box = QCheckBox(tool.label or INSTRUMENT_NAMES[tool.kind])
            box.setChecked(tool.id in usual.tools)
            box.toggled.connect(self._on_figure)
            self.tools[tool.id] = box
            group.grid.addWidget(box, i // 2, i % 2)
        return group

    def _put(self, group: Folded, key: str, wide: int) -> None:
        field = QuantityEdit(angular=key in _ANGLES, unit=self._unit)
        words = say.FIGURES[key]
        field.line.setAccessibleName(f"{group.line.text()} {say.SPOKEN.get(key, words)}")
        field.value_changing.connect(self._on_figure)
        field.line.textEdited.connect(lambda _text, key=key: self._on_typed(key))
        field.setFixedWidth(wide)
        self.fields[key], self._said[key] = field, label("soft", words)
        self._said[key].setContentsMargins(0, 5, 0, 0)  # on the line of what is typed
        self._said[key].setBuddy(field.line)

    def _show_rows(self, group: Folded, keys: Sequence[str]) -> None:
        """These fields of a group, close together; the others are not asked."""
        for key in self._keys[group]:
            for widget in (self._said[key], self.fields[key]):
                group.grid.removeWidget(widget)
                widget.setVisible(key in keys)
        for number, key in enumerate(keys):
            group.put_pair(number, self._said[key], self.fields[key])

    def _fold_others(self, name: str) -> None:
        for other, group in getattr(self, "_groups", {}).items():
            if other != name:
                group.fold(away=True)

    # -- what is typed -------------------------------------------------------------------------------

    def _on_figure(self, _value: object = None) -> None:
        """What follows from the figures is drawn and planned once the hand rests."""
        if hasattr(self, "_pause"):
            self._pause.start()

    def _on_typed(self, key: str) -> None:
        self._typed.add(key)
        if key in _FREE:
            self._on_figure()  # emptied, it is in proportion again

    def _on_kind(self, _kind: str) -> None:
        self._propose()
        self._on_figure()

    def _propose(self) -> None:
        """What such a model usually has, in every field that nobody typed in."""
        usual = proposed(self.kinds.kind)
        for key in (*_WING[:7], *_TAIL, *_NOSE):
            if key not in self._typed:
                self.fields[key].set_value(getattr(usual, key))
        self.breaks.setCurrentIndex(len(usual.breaks))
        rises = usual.wing_dihedral
        for number, share in enumerate(_USUAL_BREAKS, start=1):
            broken = usual.breaks[number - 1] if number <= len(usual.breaks) else None
            rises = broken[1] if broken is not None else rises + _STEEPER
            at = (broken[0] if broken is not None else share) * usual.wing_span / 2
            for key, value in ((f"break_{number}", at), (f"rise_{number}", rises)):
                if key not in self._typed:
                    self.fields[key].set_value(value)
        self.motor.setChecked(usual.engine)

    def accept(self) -> None:
        """Take name and figures as they stand, typed a moment ago or not."""
        self.refresh()
        if self.build is not None:
            super().accept()

    def _value(self, key: str) -> float | None:
        field = self.fields[key]
        if key in _FREE and not field.line.text().strip():
            return None
        if field.value is None:
            raise BadInput(field.line.accessibleName(), "is not understood")
        return field.value

    def _figures(self) -> Figures:
        values: dict[str, object] = {
            key: self._value(key) for key in (*_WING[:7], *_TAIL, *_FUSELAGE, *_NOSE)
        }
        usual = proposed(self.kinds.kind)
        half = float(str(values["wing_span"])) / 2
        count = int(self.breaks.currentData())
        values |= {
            "name": self.name.text(),
            "tail": usual.tail,
            "wings": usual.wings if usual.wings == "two" else self.made.currentData(),
            "wing_place": self.place.currentData(),
            "breaks": tuple(
                ((self._value(f"break_{n}") or 0.0) / half, self._value(f"rise_{n}") or 0.0)
                for n in range(1, count + 1)
            ),
            "swept": tuple(self._value(f"swept_{n}") for n in range(1, count + 1)),
            "comes_off": self.comes_off.isChecked(),
            "fuselage": self.built.kind,
            "engine": self.motor.isChecked(),
            "model_class": self.model_class.currentData(),
            "tools": tuple(tool for tool, box in self.tools.items() if box.isChecked()),
        }
        try:
            return Figures.model_validate(values)
        except ValidationError as fault:
            key = str(fault.errors()[0]["loc"][0])
            raise BadInput(self.fields[key].line.accessibleName(), "must be more than 0") from None

    def refresh(self) -> None:
        """Draw what the figures say; how many readings will settle it follows."""
        self._pause.stop()
        self._rest.stop()
        self._show_what_is_asked()
        try:
            figures = self._figures()
            build = build_from(figures)
            judgement = judge_survey(build.surveyed, "dry")
        except BadInput as fault:
            self.build = None
            self._told.setText(f"{told(fault, self._unit)}.")
            self.take.setEnabled(False)
            return
        if self.build is None:  # what was wrong is not any more
            self._told.clear()
        self.build = build
        self.take.setEnabled(True)
        self._show_values(build, figures)
        self._drawing.show_picture(Shown(picture_of(build, judgement, 1.0)))
        self._judged = judgement if figures.tools else None
        if figures.tools:
            self._rest.start()
        else:
            self._told.setText(TICK_A_TOOL)

    def _plan(self) -> None:
        """How many readings will settle it, and the first."""
        judged = self._judged
        if judged is None:
            return
        readings = plan(judged.net, judged.solution, judged.rules)
        first = reading_name(judged.net.survey, readings[0]) if readings else ""
        self._told.setText(say.told_words(len(readings), first))

    def _show_what_is_asked(self) -> None:
        """Only the fields that mean something for this kind."""
        kind, groups = self.kinds.kind, self._groups
        for box in (self.place, self.made):
            box.setVisible(kind != "biplane")
        parasol = kind != "biplane" and self.place.currentData() == "parasol"
        self.comes_off.setVisible(self.breaks.currentData() > 0)
        count = int(self.breaks.currentData())
        # two breaks stand side by side, each in its column
        breaks = tuple(f"{what}_{n}" for what in _OF_A_BREAK for n in range(1, count + 1))
        wing = (*_WING[:6], *breaks, *(_WING[6:7] if parasol else ()))
        self._show_rows(groups[say.WING], wing)
        self._show_rows(groups[say.TAIL], _TAIL[:4] if kind == "vee" else _TAIL)
        self._show_rows(groups[say.FUSELAGE], _FUSELAGE)
        self._show_rows(groups[say.NOSE], _NOSE if self.motor.isChecked() else ())

    def _show_values(self, build: "Build", figures: Figures) -> None:
        """Each group's values in its line, and what is in proportion in its fields."""
        unit, fuselage = self._unit, build.fuselage
        stations = [stop for _, stop in fuselage.stations] if fuselage is not None else []
        length = stations[-1].station - stations[0].station
        depth = max(one.top - one.bottom for one in stations)
        width = 2 * max(one.half_width for one in stations)
        for key, value in (("length", length), ("depth", depth), ("width", width)):
            if getattr(figures, key) is None:
                self.fields[key].show_usual(value)
        wing = build.wings[0]
        edges = (*(one.y for one in wing.breaks), wing.span / 2)
        for number, (inner, outer) in enumerate(pairwise(edges)):
            self.fields[f"swept_{number + 1}"].show_usual(wing.aft(outer) - wing.aft(inner))
        self._groups[say.WING].show_values(say.wing_words(figures, unit))
        self._groups[say.TAIL].show_values(say.tail_words(figures, unit))
        self._groups[say.FUSELAGE].show_values(say.fuselage_words(figures, length, depth, unit))
        self._groups[say.NOSE].show_values(say.nose_words(figures))
        self._groups[say.RIGOUR].show_values(say.rigour_words(figures))
        self._groups[say.TOOLS].show_values(say.tools_words(figures))
