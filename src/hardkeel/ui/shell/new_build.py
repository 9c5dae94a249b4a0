"""A new build from a dozen figures, with the airframe drawn while they are typed."""

from typing import TYPE_CHECKING, Final

from pydantic import ValidationError
from PyQt6.QtCore import Qt, QTimer
from PyQt6.QtWidgets import (
    QCheckBox,
    QComboBox,
    QDialog,
    QGridLayout,
    QHBoxLayout,
    QLineEdit,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from hardkeel.airframe.figures import TOOL_CHOICES, Figures, build_from
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.picture.truing import picture_of
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.planning import plan
from hardkeel.ui.theme import Theme, apply_style
from hardkeel.ui.widgets.card import label
from hardkeel.ui.widgets.fields import QuantityEdit
from hardkeel.ui.widgets.three_view import Shown, ThreeView

if TYPE_CHECKING:
    from hardkeel.project.model import Build
from hardkeel.messages import shell as say
from hardkeel.messages.counting import number_of
from hardkeel.messages.names import INSTRUMENT_NAMES

_PAUSE_MS: Final = 120  # a hand that types rests longer between two fields
_FIELDS: Final = (
    (
        say.WING,
        (
            ("wing_span", "span", False),
            ("wing_root", "root chord", False),
            ("wing_tip", "tip chord", False),
            ("wing_le_x", "leading edge aft of the datum", False),
            ("wing_incidence", "incidence", True),
            ("wing_dihedral", "dihedral, each side", True),
        ),
    ),
    (
        say.TAIL,
        (
            ("tail_arm", "arm, quarter chord to quarter chord", False),
            ("stab_span", "stabilizer span", False),
            ("stab_chord", "stabilizer chord", False),
            ("stab_incidence", "stabilizer incidence", True),
            ("fin_height", "fin height", False),
            ("fin_chord", "fin chord", False),
        ),
    ),
)
_CLASSES: Final = (
    ("trainer", "slow trainer: tolerances × 1.5"),
    ("sport", "sport model: the usual tolerances"),
    ("precision", "precision model: tolerances × 0.6"),
)


class NewBuildDialog(QDialog):
    """Asks for the figures; `build` is there once they make sense."""

    def __init__(self, theme: Theme, unit: LengthUnit, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle(say.DESCRIBE_YOUR_MODEL)
        self.resize(min(theme.across(1080), 1240), 700)  # on a screen 1280 wide
        self.build: Build | None = None
        self._unit: LengthUnit = unit
        usual = Figures()
        self.name = QLineEdit(usual.name)
        self.fields: dict[str, QuantityEdit] = {}
        self.tools: dict[str, QCheckBox] = {}
        self.name.setAccessibleName("name of the model")
        self.model_class = QComboBox()
        self.model_class.setAccessibleName("how true it must be")
        for key, words in _CLASSES:
            self.model_class.addItem(words, key)
        self.model_class.setCurrentIndex(1)
        scroll = self._form(theme, usual)
        self._drawing = ThreeView(theme)
        self._told = label("heading")
        self._told.setMargin(10)
        self.take = QPushButton(say.PUT_IT_ON_THE_BENCH)
        self.take.setObjectName("primary")
        self.take.clicked.connect(self.accept)
        right = QVBoxLayout()
        right.addWidget(self._drawing, 1)
        right.addLayout(self._foot())
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(scroll)
        row.addLayout(right, 1)
        self._pause = QTimer(self)
        self._pause.setSingleShot(True)
        self._pause.setInterval(_PAUSE_MS)
        self._pause.timeout.connect(self.refresh)
        self.refresh()
        apply_style(self)

    def _foot(self) -> QHBoxLayout:
        back = QPushButton(say.NOT_NOW)
        back.clicked.connect(self.reject)
        foot = QHBoxLayout()
        foot.setContentsMargins(12, 4, 14, 12)
        foot.addWidget(self._told, 1)
        foot.addWidget(back)
        foot.addWidget(self.take)
        return foot

    def _form(self, theme: Theme, usual: Figures) -> QScrollArea:
        form = QWidget()
        form.setObjectName("paper")
        grid = QGridLayout(form)
        grid.setContentsMargins(18, 14, 18, 14)
        grid.setVerticalSpacing(3)
        grid.setColumnStretch(0, 1)
        self._fill(grid, usual)
        scroll = QScrollArea()
        scroll.setWidget(form)
        scroll.setWidgetResizable(True)
        scroll.setFixedWidth(theme.px(430))
        scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        return scroll

    def _fill(self, grid: QGridLayout, usual: Figures) -> None:
        line = 0

        def heading(text: str) -> None:
            nonlocal line
            grid.addWidget(label("heading", text), line, 0, 1, 2)
            line += 1

        heading(say.NAME)
        grid.addWidget(self.name, line, 0, 1, 2)
        line += 1
        for title, fields in _FIELDS:
            heading(title)
            for key, words, angular in fields:
                field = QuantityEdit(angular=angular, unit=self._unit)
                field.set_value(getattr(usual, key))
                field.line.setAccessibleName(f"{title} {words}")
                field.value_changing.connect(self._on_figure)
                self.fields[key] = field
                said = label("soft", words)
                said.setBuddy(field.line)
                grid.addWidget(said, line, 0, Qt.AlignmentFlag.AlignTop)
                field.setFixedWidth(190)
                grid.addWidget(field, line, 1)
                line += 1
        heading(say.HOW_TRUE)
        grid.addWidget(self.model_class, line, 0, 1, 2)
        line += 1
        heading(say.WHICH_TOOLS)
        for i, tool in enumerate(TOOL_CHOICES):
            box = QCheckBox(tool.label or INSTRUMENT_NAMES[tool.kind])
            box.setChecked(tool.id in usual.tools)
            box.toggled.connect(self._on_figure)
            self.tools[tool.id] = box
            grid.addWidget(box, line + i // 2, i % 2)
        self.model_class.currentIndexChanged.connect(self._on_figure)

    def _on_figure(self, _value: object = None) -> None:
        """What follows from the figures is drawn and planned once the hand rests."""
        self._pause.start()

    def accept(self) -> None:
        """Take name and figures as they stand, typed a moment ago or not."""
        self.refresh()
        if self.build is not None:
            super().accept()

    def _figures(self) -> Figures:
        values: dict[str, object] = {}
        for key, field in self.fields.items():
            value = field.value
            if value is None:
                raise BadInput(field.line.accessibleName(), "is not understood")
            values[key] = value
        values["name"] = self.name.text()
        values["model_class"] = self.model_class.currentData()
        values["tools"] = tuple(tool for tool, box in self.tools.items() if box.isChecked())
        try:
            return Figures.model_validate(values)
        except ValidationError as fault:
            key = str(fault.errors()[0]["loc"][0])
            raise BadInput(self.fields[key].line.accessibleName(), "must be more than 0") from None

    def refresh(self) -> None:
        """Draw what the figures say and how many readings will settle it."""
        self._pause.stop()
        try:
            figures = self._figures()
            build = build_from(figures)
            judgement = judge_survey(build.surveyed, "dry")
        except BadInput as fault:
            self.build = None
            self._told.setText(f"{fault}.")
            self.take.setEnabled(False)
            return
        self.build = build
        self.take.setEnabled(True)
        self._drawing.show_picture(Shown(picture_of(build, judgement, 1.0)))
        count = len(plan(judgement.net, judgement.solution, judgement.rules))
        words = (
            f"{number_of(count, 'reading')} will settle it." if figures.tools else say.TICK_A_TOOL
        )
        self._told.setText(words)
