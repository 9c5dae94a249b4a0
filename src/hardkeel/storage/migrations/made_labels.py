"""Revision 2: names follow from ids; the labels that we had written ourselves before are let go.

What a builder called a mark stays.  Without this a mark of ours would keep its old words, and would
count as one that the builder had set by hand.  The words are those of that time, whatever is said today.
"""

import re
from collections.abc import Mapping
from typing import Final, TypeVar

from hardkeel.project.model import Build
from hardkeel.survey.model import Body, Contact, Instrument, Mark

_WORDS: Final = {"le": "leading edge", "te": "trailing edge", "stab": "stabilizer", "ctr": "centre"}
_SHORT: Final = {"stab": "stabilizer", "mid": "middle", "le": "LE", "te": "TE"}
_MARKS: Final = {
    "nose_foot": "nose underside",
    "longeron_port": "upper longeron port",
    "longeron_starboard": "upper longeron starboard",
}
_INSTRUMENTS: Final = {
    "tape": "tape",
    "line": "line with a sliding mark",
    "trammel": "stick with a ring",
    "height-stand": "height stand",
    "stand-pair": "two equal stands",
    "incidence-gauge": "incidence gauge",
    "level": "level",
    "digital-level": "digital level",
    "water-level": "water level",
    "laser": "centreline laser",
    "square": "square",
    "eye": "the eye from the nose",
}
_SIDES: Final = ("port", "starboard", "centre")
_LONGERON: Final = re.compile(r"(\S+) upper longeron (?:port|starboard)")
_Labelled = TypeVar("_Labelled", Mark, Contact, Instrument)


def without_made_words(build: Build) -> Build:
    """The build with no label that its id already says."""
    survey = build.survey
    if survey is None:
        return build
    changes: dict[str, object] = {
        "marks": tuple(_mark(mark) for mark in survey.marks),
        "bodies": tuple(_body(body) for body in survey.bodies),
    }
    if survey.instruments is not None:
        changes["instruments"] = tuple(
            _unlabelled(tool, _INSTRUMENTS.get(tool.kind, "")) for tool in survey.instruments
        )
    made = {name: value for name, value in changes.items() if value != getattr(survey, name)}
    return build.but(survey=survey.but(**made)) if made else build


def _mark(mark: Mark) -> Mark:
    found = _LONGERON.fullmatch(mark.label or "")
    if found is not None and mark.id.startswith("longeron_"):
        mark = mark.but(former=found[1])
    return _unlabelled(mark, _mark_words(mark))


def _body(body: Body) -> Body:
    if body.seat is None:
        return body
    contacts = tuple(_unlabelled(one, _contact_words(one.id)) for one in body.seat.contacts)
    return (
        body if contacts == body.seat.contacts else body.but(seat=body.seat.but(contacts=contacts))
    )


def _unlabelled(one: _Labelled, words: str) -> _Labelled:
    # letters of either case: LE and TE were small once
    if one.label is None or one.label.casefold() != words.casefold():
        return one
    return type(one)(
        **{name: value for name, value in one if name != "label" and value is not None}
    )


def _mark_words(mark: Mark) -> str:
    """What a mark's id says, and the former that it is at."""
    words = _MARKS.get(mark.id) or _spelled(mark.id, _SHORT)
    return f"{mark.former} {words}" if mark.former else words


def _contact_words(contact_id: str) -> str:
    """What a contact's id says; one that is on neither side is at the foot of something upright."""
    ahead, _, side = contact_id.partition("_")
    if ahead in ("front", "rear"):
        return f"{side} {ahead}" if side else f"{ahead} of the foot"
    return _spelled(contact_id, _WORDS)


def _spelled(identifier: str, known: Mapping[str, str]) -> str:
    words = identifier.replace("-", "_").split("_")
    side = [word for word in words if word in _SIDES]
    rest = [known.get(word, word) for word in words if word not in _SIDES]
    return " ".join([*rest, *side]) or identifier
