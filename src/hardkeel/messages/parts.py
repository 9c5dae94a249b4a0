"""Parts, lists and pairs in sentences."""

from typing import Final

from hardkeel.messages.names import sentence_case
from hardkeel.parts.lists import Difference
from hardkeel.parts.model import Part, State
from hardkeel.parts.weighing import Weight

_HANDS: Final = {"port": "port", "starboard": "starboard", "pair": "both hands", "none": ""}
STATE_WORDS: Final[dict[State, str]] = {
    "wanted": "wanted",
    "cut": "cut",
    "cleaned": "cleaned",
    "dry-fitted": "dry-fitted",
    "glued": "glued",
    "trued": "trued",
}


def hand_words(part: Part) -> str:
    """Which hand, or both."""
    return _HANDS[part.hand]


def difference_sentence(one: Difference) -> str:
    """What the lists say of a part on which they disagree."""
    name = sentence_case(one.name)
    if one.drawing == 0:
        where = " and ".join(
            w for w, n in (("the printed list", one.printed), ("the box", one.box)) if n
        )
        return f"{name}: in {where}, but the drawing does not know it."
    if one.printed == 0:
        box = "" if one.box is None else ", but in the box" if one.box else ", nor in the box"
        return f"{name}: drawn, not on the printed list{box}."
    if one.box == 0:
        return f"{name}: not in the box; {one.drawing} wanted."
    if one.box is not None and one.box != one.drawing:
        way = "too few" if one.box < one.drawing else "too many"
        return f"{name}: {one.box} in the box, {one.drawing} drawn: {way}."
    return f"{name}: the printed list says {one.printed}, the drawing {one.drawing}."


def pair_question(part: Part) -> str:
    """The question that catches two of one hand."""
    return (
        f"Before glue: lay both {part.name}s on the bench, noses to the left, tops away from you. "
        "How many show the face that will be outside?"
    )


def pair_sentence(part: Part) -> str:
    """What to say of a pair that is two of one hand."""
    return f"{sentence_case(part.name)}: both are the same hand. Make one anew, mirrored, before anything is glued to it."


def weight_sentence(weight: Weight) -> str:
    """What the scale says against the estimate."""
    if weight.weighed is None:
        return "" if weight.estimated is None else f"{weight.estimated:.1f} g by its size"
    if weight.density is None or weight.estimated is None:
        return f"{weight.weighed:.1f} g weighed"
    text = f"{weight.density:.0f} kg/m³ by the scale"
    return f"{text}: another wood, or another size" if weight.odd else text
