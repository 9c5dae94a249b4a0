"""What props a tail surface while its seat sets, in words."""

from collections.abc import Sequence
from typing import Final

from hardkeel.airframe.propping import CLEAR_MM, Prop
from hardkeel.base.units import LengthUnit, format_length
from hardkeel.messages.names import sentence_case, surface_name

PROPS: Final = "Props, from the bench up"
BENCH_LINE: Final = "bench; each block stands on this line, its top under the face that rests on it; two of a pair alike"
_BLOCKS: Final = {"front": "fuselage, ahead", "rear": "fuselage, aft"}
_HANDS: Final = {-1: "port", 0: "", 1: "starboard"}


def prop_title(prop: Prop) -> str:
    """``stabilizer, port``, ``fuselage, ahead``."""
    if prop.under in _BLOCKS:
        return _BLOCKS[prop.under]
    name = surface_name(prop.under)
    hand = _HANDS[prop.hand]
    return f"{name}, {hand}" if hand else name


def prop_place(prop: Prop, unit: LengthUnit) -> str:
    """Where it stands: ``station 812 mm, 190 mm out``."""
    x, y = prop.at
    told = f"station {format_length(x, unit)}"
    return f"{told}, {format_length(abs(y), unit)} out" if y else told


def prop_lines(props: Sequence[Prop], unit: LengthUnit) -> list[str]:
    """Each with its height, and how to set them."""
    if not props:
        return []
    clear = format_length(CLEAR_MM, unit)
    return [
        *(
            f"{sentence_case(prop_title(prop))}: {format_length(prop.height, unit)}, at {prop_place(prop, unit)}."
            for prop in props
        ),
        (
            f"The fuselage level on its datum, its lowest point {clear} over the bench. Weights inboard, over the seat: at "
            "the tips they bend what should stay straight. The blocks are a sheet of the plan."
        ),
    ]
