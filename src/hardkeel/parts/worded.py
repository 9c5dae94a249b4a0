"""Lines of a parts list written as words: ``2 x F3 light ply 3 mm``, ``longeron spruce 6 mm x4``."""

import re
from dataclasses import dataclass
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.base.units import parse_length

_TIMES: Final = r"(?:x|×|\*|off\b|pcs\.?|pieces?\b|of\b)"
_FIRST: Final = re.compile(rf"(?P<n>\d{{1,4}})\s*{_TIMES}?\s+(?P<rest>[^\W\d].*)", re.IGNORECASE)
_LAST: Final = re.compile(
    rf"(?P<rest>.*\S)\s*(?:[x×*]\s*(?P<n>\d{{1,4}})|\s(?P<m>\d{{1,4}})\s*{_TIMES})", re.IGNORECASE
)
_ONLY_A_NUMBER: Final = re.compile(r"(?P<rest>.*[^\W\d]\S*)\s+(?P<n>\d{1,4})")
_THICK: Final = re.compile(
    r"(?<![\w.,/])(?P<figure>\d+(?:[.,]\d+)?\s*mm|\d+/\d+\s*(?:\"|″|''|in\b|inch\b)|0?\.\d+\s*(?:\"|″|in\b))",
    re.IGNORECASE,
)
_WOODS: Final = (
    "light ply", "birch ply", "ply", "plywood", "hard balsa", "medium balsa", "light balsa", "balsa", "spruce", "pine",
    "basswood", "beech", "carbon", "foam", "wire",
)  # fmt: skip
_MOST_WORDS: Final = 5  # of a name; more is a sentence that nobody called a part


@dataclass(frozen=True, slots=True)
class Worded:
    """What such a line says; ``None`` where it says nothing of it."""

    name: str
    quantity: int
    material: str | None
    thickness: float | None


def read_worded(line: str, place: str) -> Worded:
    """Understand a line, or refuse it.

    Parameters
    ----------
    place : str
        Of the line, for what is told of it.

    Raises
    ------
    BadInput
        Where its count can't be told from its name, or too much is left over for a name.
    """
    rest = " ".join(line.split())
    thickness = thickness_in(rest)
    if thickness is not None:
        rest = " ".join(_THICK.sub(" ", rest, count=1).split())
    rest, quantity = _counted(rest, place)
    material = wood_in(rest)
    if material is not None:
        rest = re.sub(rf"\b{material}\b", " ", rest, count=1, flags=re.IGNORECASE)
    name = " ".join(rest.strip(" ,;:-").split())
    if not name or len(name.split()) > _MOST_WORDS:
        raise BadInput(place, f"“{line.strip()}”: write it as name; count; wood; thickness")
    return Worded(name, quantity, material, thickness)


def _counted(text: str, place: str) -> tuple[str, int]:
    found = _FIRST.fullmatch(text)
    if found is not None:
        return found["rest"], int(found["n"])
    found = _LAST.fullmatch(text)
    if found is not None:
        return found["rest"], int(found["n"] or found["m"])
    found = _ONLY_A_NUMBER.fullmatch(text)
    if found is not None:
        count, rest = found["n"], found["rest"]
        raise BadInput(
            place,
            f"is {count} the count of “{rest}” or of its name? Write {count} x {rest}, or {text} x 1",
        )
    return text, 1


def thickness_in(text: str) -> float | None:
    """A thickness that is written somewhere, mm."""
    found = _THICK.search(text)
    if found is None:
        return None
    try:
        return parse_length(found["figure"].replace(",", ".").replace("''", "″"), "mm").mm
    except BadInput:
        return None


def wood_in(text: str) -> str | None:
    """A wood that is named somewhere, as it stands there."""
    for wood in _WOODS:
        found = re.search(rf"\b{wood}\b", text, re.IGNORECASE)
        if found is not None:
            return found[0].lower()
    return None


def same_wood(one: str, other: str) -> bool:
    """Whether two names may mean one wood: ``balsa`` is any balsa, ``plywood`` any ply."""
    first, second = (
        {"ply" if word == "plywood" else word for word in re.findall(r"[a-z]+", text.casefold())}
        for text in (one, other)
    )
    return first <= second or second <= first
