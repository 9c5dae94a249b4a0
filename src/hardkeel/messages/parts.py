"""Parts, lists and pairs in sentences."""

from collections.abc import Sequence
from typing import Final

from hardkeel.base.units import LengthUnit, decimal, format_length
from hardkeel.messages.names import sentence_case
from hardkeel.parts.lists import (
    Difference,
    WoodDifference,
    compare,
    post_called,
    wood_differences,
)
from hardkeel.parts.model import Listed, Part, State
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


def wood_sentence(one: WoodDifference, unit: LengthUnit = "mm") -> str:
    """``F3: the printed list says light ply 3.0 mm, the drawing birch ply 2.0 mm.``."""
    where = "the printed list says" if one.listed_in == "printed" else "in the box it is"

    def told(wood: tuple[str | None, float]) -> str:
        name = (wood[0] or "").replace("-", " ")
        return f"{name} {format_length(wood[1], unit)}".strip()

    return f"{sentence_case(one.name)}: {where} {told(one.listed)}, the drawing says {told(one.drawn)}."


def post_sentence(name: str) -> str:
    """That a list's last former is the tail post."""
    return f"{name} of the list is taken for the tail post: the drawing has no such former, and the list no post."


def lists_told(
    parts: Sequence[Part],
    printed: Sequence[Listed],
    box: Sequence[Listed],
    unit: LengthUnit = "mm",
) -> list[str]:
    """All that the lists disagree on, sentence by sentence."""
    told = [difference_sentence(one) for one in compare(parts, printed, box)]
    told += [wood_sentence(one, unit) for one in wood_differences(parts, printed, box)]
    posts = {post_called(parts, rows) for rows in (printed, box)}
    return told + [post_sentence(name) for name in sorted(n for n in posts if n)]


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
        return "" if weight.estimated is None else f"{decimal(weight.estimated, 1)} g by its size"
    if weight.density is None or weight.estimated is None:
        return f"{decimal(weight.weighed, 1)} g weighed"
    text = f"{weight.density:.0f} kg/m³ by the scale"
    return f"{text}: another wood, or another size" if weight.odd else text
