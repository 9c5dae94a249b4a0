"""One sheet side pinned flat to the board, formers glued upright on it, the second side on top of them."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Final

from hardkeel.base.late import late
from hardkeel.fuselage.methods.method import BuildingMethod, InOrder
from hardkeel.fuselage.methods.sheet_sides import strips, usual
from hardkeel.joinery.order_step import OrderStep

if TYPE_CHECKING:
    from hardkeel.fuselage.methods import boxing
else:  # to know a method needs none of it
    boxing = late("hardkeel.fuselage.methods.boxing")


def _put_up(order: InOrder) -> Iterator[OrderStep]:
    return boxing.boxed(order, boxing.on_its_side)


METHOD: Final = BuildingMethod(
    name="on-side",
    traits=frozenset({"sheet", "flat", "doubled"}),
    put_up_before=1,
    sides=strips,
    put_up=_put_up,
    usual=usual,
)
