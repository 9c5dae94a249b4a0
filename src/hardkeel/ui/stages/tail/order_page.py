"""Order: the steps of building the tail."""

from typing import Final

from PyQt6.QtWidgets import QComboBox, QWidget

from hardkeel.airframe.orders.tail import STAGE, tail_steps
from hardkeel.airframe.propping import Prop, props_of
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.edits.steps import set_covering
from hardkeel.messages import order as say_order
from hardkeel.messages import propping as propping_say
from hardkeel.messages import tail as say
from hardkeel.project.model import Build
from hardkeel.schedule.model import Step
from hardkeel.ui.document.document import Document
from hardkeel.ui.stages.tail.tail_page import SHOWS
from hardkeel.ui.tabbed.order_page import OrderPage, StageOrder, StepCard
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import label


def _is_built(build: Build) -> bool:
    return any(surface.kind is not None for surface in build.tail)


_ORDER: Final = StageOrder(STAGE, tail_steps, _is_built, say.HOW_BUILT_FIRST, SHOWS | {"covering"})


_PROPPED: Final = ("tail.props", "tail.seat")


class PropsCard(StepCard):
    """What props a surface while its seat sets: the height of each block, and where it stands."""

    def __init__(self) -> None:
        super().__init__(propping_say.PROPS)
        self.lines = label("soft")
        self.column.addWidget(self.lines)

    def show_step(self, step: Step | None, build: Build, unit: LengthUnit) -> None:
        """Tell of the props of the surface that a step props or seats; of any other nothing."""
        props = props_at(step, build)
        self.setVisible(bool(props))
        self.lines.setText("\n".join(propping_say.prop_lines(props, unit)))


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
        self.props = PropsCard()
        self.covering = QComboBox()
        for when, words in say_order.COVERING.items():
            self.covering.addItem(words, when)
        self.covering.setAccessibleName(say_order.WHEN_COVERED)
        self.covering.activated.connect(lambda _row: self._on_covering())
        super().__init__(document, theme, unit, _ORDER, self.props, parent)
        self.head.insertWidget(self.head.count() - 1, self.covering)

    def refresh(self) -> None:
        """Show the build as it is now."""
        super().refresh()
        self.covering.setVisible(bool(self.steps))
        now = self.covering.findData(self.document.build.covering.when)
        self.covering.setCurrentIndex(now)

    def _on_covering(self) -> None:
        when = self.covering.currentData()
        if when != self.document.build.covering.when and self.apply(
            say_order.COVERING_EDIT, set_covering.of(when)
        ):
            self.tell(say_order.COVERING_ASKS[when])
