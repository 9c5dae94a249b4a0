"""Order: the steps of building the tail."""

from typing import Final

from PyQt6.QtWidgets import QWidget

from hardkeel.airframe.orders.tail import STAGE, tail_steps
from hardkeel.base.units import LengthUnit
from hardkeel.messages import tail as say
from hardkeel.project.model import Build
from hardkeel.ui.document.document import Document
from hardkeel.ui.stages.tail.tail_page import SHOWS
from hardkeel.ui.tabbed.order_page import OrderPage, StageOrder
from hardkeel.ui.theme import Theme


def _is_built(build: Build) -> bool:
    return any(surface.kind is not None for surface in build.tail)


_ORDER: Final = StageOrder(STAGE, tail_steps, _is_built, say.HOW_BUILT_FIRST, SHOWS)


class TailOrderPage(OrderPage):
    """The order of building the tail."""

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        super().__init__(document, theme, unit, _ORDER, None, parent)
