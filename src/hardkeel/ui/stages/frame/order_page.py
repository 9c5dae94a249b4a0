"""Order: the steps of framing, and how an end is pulled in when its turn comes."""

from typing import Final

from PyQt6.QtWidgets import QHBoxLayout, QWidget

from hardkeel.airframe.framing import limits_of, stiffness_of
from hardkeel.airframe.orders.frame import STAGE, frame_steps
from hardkeel.base.units import LengthUnit
from hardkeel.edits.truing import add_note
from hardkeel.fuselage.closing import Closing, closings_of
from hardkeel.fuselage.methods.boxing import steps_of_end
from hardkeel.messages import frame as frame_say
from hardkeel.messages import pulling as say
from hardkeel.project.model import Build
from hardkeel.schedule.model import Step
from hardkeel.ui.document.document import Document
from hardkeel.ui.stages.frame.frame_page import SHOWS, is_framed
from hardkeel.ui.tabbed.order_page import OrderPage, StageOrder, StepCard
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.card import label
from hardkeel.ui.widgets.doing_card import Doing
from hardkeel.ui.widgets.fields import QuantityEdit

_ORDER: Final = StageOrder(STAGE, frame_steps, is_framed, Doing(frame_say.NOTHING_TO_FRAME), SHOWS)


class PullingCard(StepCard):
    """How an end is pulled in, and what is read when the clamps come off."""

    def __init__(self) -> None:
        super().__init__(say.PULLING)
        self.lines, self.asks = label("soft"), label("soft", say.CLAMPS_OFF, wrap=False)
        self.field = QuantityEdit()
        self.field.line.setAccessibleName(say.CLAMPS_OFF)
        row = QHBoxLayout()
        row.addWidget(self.asks)
        row.addWidget(self.field, 1)
        self.column.addWidget(self.lines)
        self.column.addLayout(row)
        self.column.addWidget(self.field.told)

    def show_step(self, step: Step | None, build: Build, unit: LengthUnit) -> None:
        """Tell of the end that the step soaks or pulls in; of any other nothing."""
        closing = closing_of(step, build)
        self.setVisible(closing is not None)
        if closing is None or build.fuselage is None:
            return
        self.lines.setText("\n".join(say.pulling_lines(closing, build.fuselage, unit)))
        self.field.set_kind(angular=False, unit=unit)
        for widget in (self.asks, self.field):
            widget.setVisible(bool(closing.soaked))


class FrameOrderPage(OrderPage):
    """The order of framing."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        self.pulling = PullingCard()
        super().__init__(document, theme, unit, _ORDER, self.pulling, parent)
        self.pulling.field.value_changed.connect(self._on_sprung)

    def _on_sprung(self, width: float) -> None:
        closing = closing_of(self.picked, self.document.build)
        if closing is None:
            return
        said = say.sprung_sentence(closing, width, self.unit)
        at = self.document.clock()
        if self.apply(say.NOTE_IT, add_note.of(said, at)):
            self.pulling.field.set_value(None)
            self.tell(said)


def closing_of(step: Step | None, build: Build) -> Closing | None:
    """The end that a step soaks or pulls in."""
    if step is None or build.fuselage is None or step.stage != STAGE or not is_framed(build):
        return None
    ends = closings_of(build.fuselage, limits_of(build), stiffness_of(build))
    found = (one for one in ends if step.id in steps_of_end(one.end))
    return next(found, None)
