"""Glue: which for this joint, how much of it, and what your own bottle says."""

from typing import Final, cast

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import (
    QAbstractSpinBox,
    QCheckBox,
    QComboBox,
    QDoubleSpinBox,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.edits import glue as edits
from hardkeel.glue.choosing import JOINTS, Choice, JointKind, choices
from hardkeel.glue.kinds import KINDS, WARM
from hardkeel.glue.mixing import mix_for, needed_for, weight_ratio
from hardkeel.glue.model import Bottle, GlueKind
from hardkeel.messages import glue as say
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.sub_page import SubPage
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.buttons_card import ButtonsCard
from hardkeel.ui.widgets.card import Card, label
from hardkeel.ui.widgets.card_column import CardColumn
from hardkeel.ui.widgets.doing_card import LinesCard
from hardkeel.ui.widgets.folded_sheet import FoldedSheet

_SHOWS: Final = frozenset({"glue"})
_BEST: Final = 3
_USUAL_AREA: Final = 100.0
_USUAL_RATIO: Final = 45.0


def figure(low: float, high: float, value: float, name: str) -> QDoubleSpinBox:
    """A field for a plain figure."""
    field = QDoubleSpinBox()
    field.setRange(low, high)
    field.setDecimals(1)
    field.setValue(value)
    field.setButtonSymbols(QAbstractSpinBox.ButtonSymbols.NoButtons)
    field.setAccessibleName(name)
    field.setFixedWidth(110)
    return field


class AskedCard(Card):
    """What is asked of the joint beyond its kind."""

    def __init__(self) -> None:
        super().__init__(say.ASKED)
        self.within = figure(0, 10_000, 0, say.THERE_IS)
        self.move_minutes = figure(0, 240, 0, say.MUST_MOVE)
        for field in (self.within, self.move_minutes):
            field.setSpecialValueText(say.ANY)
        self.warm = figure(0, 40, WARM, say.WARM)
        self.sand = QCheckBox(say.MUST_SAND)
        grid = QGridLayout()
        for line, (words, field) in enumerate(
            ((say.THERE_IS, self.within), (say.MUST_MOVE, self.move_minutes), (say.WARM, self.warm))
        ):
            grid.addWidget(label("soft", words, wrap=False), line, 0)
            grid.addWidget(field, line, 1)
        grid.setColumnStretch(2, 1)
        self.column.addLayout(grid)
        self.column.addWidget(self.sand)


class MixCard(Card):
    """How much of the best one."""

    def __init__(self) -> None:
        super().__init__(say.MIX)
        self.answer = label("answer")
        self.area = figure(0.1, 100_000, _USUAL_AREA, say.AREA)
        self.ratio = figure(1, 500, _USUAL_RATIO, say.RATIO)
        self.by = QComboBox()
        self.by.addItem(say.BY_WEIGHT, False)
        self.by.addItem(say.BY_VOLUME, True)
        self.by.setAccessibleName(say.RATIO)
        self.batch = QPushButton(say.NEW_BATCH)
        self.column.addWidget(self.answer)
        grid = QGridLayout()
        grid.addWidget(label("soft", say.AREA, wrap=False), 0, 0)
        grid.addWidget(self.area, 0, 1)
        self.ratio_words = label("soft", say.RATIO, wrap=False)
        grid.addWidget(self.ratio_words, 1, 0)
        grid.addWidget(self.ratio, 1, 1)
        grid.addWidget(self.by, 1, 2)
        grid.setColumnStretch(3, 1)
        self.column.addLayout(grid)
        row = QHBoxLayout()
        row.addWidget(self.batch)
        row.addStretch(1)
        self.column.addLayout(row)


class BottleCard(Card):
    """What the builder's own bottle of the best one says."""

    def __init__(self) -> None:
        super().__init__(say.BY_ITS_SHEET)
        self.open = figure(0, 10_000, 0, say.OPEN)
        self.handle = figure(0, 10_000, 0, say.HANDLE)
        self.cure = figure(0, 1000, 0, say.CURE)
        for field in (self.open, self.handle, self.cure):
            field.setSpecialValueText(say.AS_KIND)
        grid = QGridLayout()
        for line, (words, field) in enumerate(
            ((say.OPEN, self.open), (say.HANDLE, self.handle), (say.CURE, self.cure))
        ):
            grid.addWidget(label("soft", words, wrap=False), line, 0)
            grid.addWidget(field, line, 1)
        grid.setColumnStretch(2, 1)
        self.column.addLayout(grid)


class GluePage(SubPage):
    """The chooser."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, parent)
        self._joint: JointKind = "wide lamination"
        self._kind: GlueKind | None = None
        self.joints = ButtonsCard(say.WHICH, [(joint, say.JOINT_WORDS[joint]) for joint in JOINTS])
        self.asked, self.mix, self.bottle = AskedCard(), MixCard(), BottleCard()
        self.best: list[tuple[QPushButton, QLabel, QLabel]] = []
        surface = self._surface()
        self.schools = LinesCard(say.SCHOOLS)
        column = CardColumn(
            (self.told, self.asked, self.mix, FoldedSheet((self.bottle, self.schools))), theme
        )
        self.themed = (column,)
        self.lie_beside(surface, column)
        self._connect()
        self.refresh_lazily(_SHOWS)
        self.refresh()

    def _surface(self) -> QWidget:
        sheet = QWidget()
        sheet.setObjectName("paper")
        box = QVBoxLayout(sheet)
        box.setContentsMargins(20, 14, 20, 14)
        box.setSpacing(8)
        box.addWidget(self.joints)
        box.addWidget(label("eyebrow", say.BEST))
        for _ in range(_BEST):
            name, under, caution = QPushButton(), label("soft"), label("soft")
            name.setObjectName("choice")
            name.setCheckable(True)
            name.clicked.connect(lambda _on, name=name: self._on_picked(name.property("kind")))
            self.best.append((name, under, caution))
            for widget in (name, under, caution):
                box.addWidget(widget)
        self.others = label("soft")
        box.addWidget(label("eyebrow", say.REST))
        box.addWidget(self.others)
        box.addWidget(label("soft", say.RANGES))
        box.addStretch(1)
        scroll = QScrollArea()
        scroll.setWidget(sheet)
        scroll.setWidgetResizable(True)
        scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        return scroll

    def _connect(self) -> None:
        self.joints.answered.connect(self._on_joint)
        for field in (self.asked.within, self.asked.move_minutes, self.asked.warm):
            field.valueChanged.connect(lambda _value: self.refresh())
        self.asked.sand.toggled.connect(lambda _on: self.refresh())
        for field in (self.mix.area, self.mix.ratio):
            field.valueChanged.connect(lambda _value: self._show_mix())
        self.mix.by.currentIndexChanged.connect(lambda _at: self._show_bottle())
        self.mix.by.currentIndexChanged.connect(lambda _at: self._show_mix())
        self.mix.batch.clicked.connect(self._on_batch)
        for field in (self.bottle.open, self.bottle.handle, self.bottle.cure, self.mix.ratio):
            field.editingFinished.connect(self._on_bottle)

    def focus_work(self) -> None:
        """The joints."""
        self.joints.buttons[self._joint].setFocus()

    # -- showing -----------------------------------------------------------------------------------

    def _found(self) -> tuple[Choice, ...]:
        shelf = self.document.build.glue
        within = self.asked.within.value()
        return choices(
            self._joint,
            minutes=within or None,
            sand=self.asked.sand.isChecked(),
            move=self.asked.move_minutes.value(),
            celsius=self.asked.warm.value(),
            bottles=shelf.bottles if shelf is not None else (),
        )

    @property
    def _by_volume(self) -> bool:
        return bool(self.mix.by.currentData())

    def _own(self) -> Bottle:
        """What the builder's bottle of the glue in hand says; nothing where there is none."""
        shelf = self.document.build.glue
        kind = self.kind
        bottles = shelf.bottles if shelf is not None else ()
        return next((one for one in bottles if one.kind == kind), Bottle(kind=kind))

    @property
    def kind(self) -> GlueKind:
        """The glue in hand: the one picked among the best, or the best."""
        kinds = [one.glue.kind for one in self._found()[:_BEST]]
        return self._kind if self._kind in kinds else kinds[0]

    def refresh(self) -> None:
        """Show the best three, and why not the rest."""
        found = self._found()
        self.joints.show_answer(self._joint)
        for (name, under, caution), one in zip(self.best, found, strict=False):
            name.setText(say.kind_words(one.glue.kind))
            name.setProperty("kind", one.glue.kind)
            name.setToolTip(say.glue_line(one.glue))
            name.setChecked(one.glue.kind == self.kind)
            under.setText(f"{say.choice_why(one)} {say.choice_under(one)}".strip())
            words = say.caution_words(one.glue)
            caution.setText(words)
            caution.setVisible(bool(words))
        self.others.setText("\n".join(say.against_line(one) for one in found[_BEST:]))
        words = say.schools_words(self._joint)
        self.schools.show_lines("", [words] if words else [])
        self._show_bottle()
        self._show_mix()

    def _show_bottle(self) -> None:
        own = self._own()
        self.bottle.eyebrow.setText(f"{say.BY_ITS_SHEET}: {own.kind}")
        ratio = own.by_volume if self._by_volume else own.by_weight
        for field, value in (
            (self.bottle.open, own.open_minutes or 0.0),
            (self.bottle.handle, own.handle_minutes or 0.0),
            (self.bottle.cure, (own.cure_minutes or 0.0) / 60),
            (self.mix.ratio, ratio or _USUAL_RATIO),
        ):
            field.blockSignals(True)
            field.setValue(value)
            field.blockSignals(False)

    def _show_mix(self) -> None:
        glue = KINDS[self.kind]
        for widget in (self.mix.ratio, self.mix.ratio_words, self.mix.by):
            widget.setVisible(glue.two_parts)
        if not glue.two_parts:
            self.mix.answer.setText(say.weigh_words(needed_for(glue, self.mix.area.value())))
            return
        try:
            mix = mix_for(
                glue,
                self.mix.area.value(),
                self.mix.ratio.value(),
                by_volume=self._by_volume,
            )
        except BadInput as fault:
            self.mix.answer.setText(str(fault))
            return
        self.mix.answer.setText(say.mix_words(mix))

    # -- doing -------------------------------------------------------------------------------------

    def _on_joint(self, joint: str) -> None:
        self._joint, self._kind = cast("JointKind", joint), None
        self.refresh()

    def _on_picked(self, kind: str) -> None:
        self._kind = cast("GlueKind", kind)
        self.refresh()

    def _on_bottle(self) -> None:
        was = self._own()
        said = {
            "open_minutes": self.bottle.open.value() or None,
            "handle_minutes": self.bottle.handle.value() or None,
            "cure_minutes": 60 * self.bottle.cure.value() or None,
        }
        key = "by_volume" if self._by_volume else "by_weight"
        ratio = self.mix.ratio.value()
        if KINDS[was.kind].two_parts and ratio != (getattr(was, key) or _USUAL_RATIO):
            said[key] = ratio
        if all(getattr(was, name) == value for name, value in said.items()):
            return
        own = was.but(**said)
        self.apply(say.bottle_edit(own.kind), edits.set_bottle.of(own))

    def _on_batch(self) -> None:
        kind, now = self.kind, self.document.clock()
        ratio = None
        if KINDS[kind].two_parts:
            given = self.mix.ratio.value()
            ratio = weight_ratio(given) if self._by_volume else given
        warm = self.asked.warm.value()
        if self.apply(say.batch_edit(kind), edits.new_batch.of(kind, now, ratio, warm)):
            self.place_wanted.emit("coupons")
