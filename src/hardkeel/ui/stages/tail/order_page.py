"""Order: the steps of building the tail."""

from typing import Final

from PyQt6.QtWidgets import QComboBox, QWidget

from hardkeel.airframe.orders.tail import STAGE, tail_steps
from hardkeel.airframe.propping import Prop, props_of
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.edits.ledger import weigh_surface
from hardkeel.edits.steps import set_covering
from hardkeel.messages import order as say_order
from hardkeel.messages import propping as propping_say
from hardkeel.messages import tail as say
from hardkeel.project.model import Build
from hardkeel.schedule.model import Step
from hardkeel.ui.document.document import Document
from hardkeel.ui.stages.tail.tail_page import SAY_HOW_BUILT, SHOWS
from hardkeel.ui.tabbed.order_page import OrderPage, StageOrder, StepCard
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import label
from hardkeel.ui.widgets.fields import QuantityEdit


def _is_built(build: Build) -> bool:
    return any(surface.kind is not None for surface in build.tail)


_ORDER: Final = StageOrder(
    STAGE,
    tail_steps,
    _is_built,
    SAY_HOW_BUILT,
    SHOWS | {"covering", "masses"},
)


_PROPPED: Final = ("tail.props", "tail.seat")
_COVERED: Final = "tail.cover"


class TailStepCard(StepCard):
    """What props a surface while its seat sets, block by block; what it weighs once it is covered."""

    def __init__(self) -> None:
        super().__init__(propping_say.PROPS)
        self.lines = label("soft")
        self.asks, self.weight = label("soft", say.WEIGHS_COVERED), QuantityEdit(plain="g")
        self.weight.line.setAccessibleName(say.WEIGHS_COVERED)
        for widget in (self.lines, self.asks, self.weight):
            self.column.addWidget(widget)

    def show_step(self, step: Step | None, build: Build, unit: LengthUnit) -> None:
        """Tell of the surface that a step props, seats or covers; of any other step nothing."""
        props = props_at(step, build)
        covers = step is not None and step.key.startswith(_COVERED)
        self.setVisible(bool(props) or covers)
        self.eyebrow.setText(say.COVERED if covers else propping_say.PROPS)
        self.lines.setText("\n".join(propping_say.prop_lines(props, unit)))
        self.lines.setVisible(bool(props))
        for widget in (self.asks, self.weight):
            widget.setVisible(covers)
        if covers and step is not None:
            known = {mass.id: mass.mass for mass in build.masses if mass.weighed}
            self.weight.set_value(known.get(step.about[0]))


def props_at(step: Step | None, build: Build) -> tuple[Prop, ...]:
    """The props that a step sets or leans on."""
    if step is None or not step.key.startswith(_PROPPED):
        return ()
    surface = next((one for one in build.tail if one.id in step.about), None)
    try:
        return props_of(build, surface) if surface is not None else ()
    except BadInput:  # its page says what is missing
        return ()


class TailOrderPage(OrderPage):
    """The order of building the tail."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        self.props = TailStepCard()
        self.props.weight.value_changed.connect(self._on_weight)
        self.covering = QComboBox()
        for when, words in say_order.COVERING.items():
            self.covering.addItem(words, when)
        self.covering.setAccessibleName(say_order.WHEN_COVERED)
        self.covering.activated.connect(lambda _row: self._on_covering())
        super().__init__(document, theme, unit, _ORDER, self.props, parent)
        self.head.addWidget(self.covering)

    def refresh(self) -> None:
        """Show the build as it is now."""
        super().refresh()
        self.covering.setVisible(bool(self.steps))
        now = self.covering.findData(self.document.build.covering.when)
        self.covering.setCurrentIndex(now)

    def _on_weight(self, grams: float) -> None:
        step = self.picked
        if step is not None:
            self.apply(say.WEIGHS_COVERED, weigh_surface.of(step.about[0], grams))

    def _on_covering(self) -> None:
        when = self.covering.currentData()
        if when != self.document.build.covering.when and self.apply(
            say_order.COVERING_EDIT, set_covering.of(when)
        ):
            self.tell(say_order.COVERING_ASKS[when])
