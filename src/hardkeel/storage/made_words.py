"""Files from before names followed from ids: the labels that we had written ourselves are let go.

What a builder called a mark stays.  Without this a mark of ours would keep its old words, and would
count as one that the builder had set by hand.
"""

import re
from typing import Final, TypeVar

from hardkeel.messages.names import INSTRUMENT_NAMES, contact_words, mark_words
from hardkeel.project.model import Build
from hardkeel.survey.model import Body, Contact, Instrument, Mark

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
            _unlabelled(tool, INSTRUMENT_NAMES[tool.kind]) for tool in survey.instruments
        )
    made = {name: value for name, value in changes.items() if value != getattr(survey, name)}
    return build.but(survey=survey.but(**made)) if made else build


def _mark(mark: Mark) -> Mark:
    found = _LONGERON.fullmatch(mark.label or "")
    if found is not None and mark.id.startswith("longeron_"):
        mark = mark.but(former=found[1])
    return _unlabelled(mark, mark_words(mark))


def _body(body: Body) -> Body:
    if body.seat is None:
        return body
    contacts = tuple(_unlabelled(one, contact_words(one.id)) for one in body.seat.contacts)
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
