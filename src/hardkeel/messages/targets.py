"""Printed targets in words: what stands on their sheet, what photographs told."""

from typing import TYPE_CHECKING, Final

from hardkeel.messages.counting import number_of
from hardkeel.messages.names import mark_name
from hardkeel.survey.model import Survey

if TYPE_CHECKING:
    from collections.abc import Sequence

    from hardkeel.sight.targets import Sighted, Told

TITLE: Final = "Targets"
HOW_TO_LAY_THEM: Final = (
    "Print at full size, cut along the outer line. Middle of the square on the mark, hairlines on its lines; flat, edges down.",
    "Four photographs from two metres, the camera at 40 to 45° over the model, from both rear and both front quarters.",
)
BARS: Final = "both bars measure 100 mm, or the targets are of another size, too"
_ONES: Final = (
    "nought", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve",
    "thirteen", "fourteen", "fifteen", "sixteen", "seventeen", "eighteen", "nineteen",
)  # fmt: skip
_TENS: Final = (
    "", "", "twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety",
)  # fmt: skip


def title_words(size: float) -> str:
    """``Targets, 20 mm``."""
    return f"{TITLE}, {size:g} mm"


def number_words(code: int) -> str:
    """``27  twenty-seven``: a figure that is read upside down is told by its word."""
    tens, ones = divmod(code, 10)
    spelled = (
        _ONES[code] if code < len(_ONES) else _TENS[tens] + (f"-{_ONES[ones]}" if ones else "")
    )
    return f"{code}  {spelled}"


def labelled(survey: Survey) -> list[tuple[int, str]]:
    """The codes of a survey's targets with their marks in words, in the codes' order."""
    targets = sorted(survey.targets, key=lambda one: one.code)
    return [(one.code, mark_name(survey, one.mark)) for one in targets]


def written(name: str, count: int) -> str:
    """``targets.pdf: 32 targets of 20 mm``."""
    return f"{name} is written: {number_of(count, 'target')}. Print it at full size."


def told_lines(survey: Survey, told: "Sequence[Told]") -> list[str]:
    """What is told and not used, a sentence each."""
    marks = {one.code: mark_name(survey, one.mark) for one in survey.targets}
    lines = []
    for one in told:
        number = f"target {one.code}" if one.code is not None else ""
        at = f" ({marks[one.code]})" if one.code in marks else ""
        lines.append(
            {
                "twice": f"{one.photo}: {number} is seen twice: used in neither place.",
                "no target": f"{one.photo}: {number} is no target of this build.",
                "few": f"{one.photo}: fewer than five targets that can be used: the photo is not used.",
                "wrong": f"{number[:1].upper()}{number[1:]}{at} does not lie where it should in most photos that see it: "
                "swapped with another, or moved? None of its sightings is used.",
            }[one.what]
        )
    return lines


def seen_lines(sighted: "Sighted") -> list[str]:
    """How many targets each photograph shows, and how many of them are used."""
    return [
        f"{name}: {number_of(len(found), 'target')} seen, {sum(one.reading is not None for one in found)} used."
        for name, found in sighted.found.items()
    ]
