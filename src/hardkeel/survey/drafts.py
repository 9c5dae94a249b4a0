"""A reading in the making: which tool, which marks so far, what is wanted next."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from types import MappingProxyType
from typing import Any, Final, Literal, cast

from hardkeel.base.errors import BadInput
from hardkeel.base.units import parse_number
from hardkeel.survey.instruments import USED_FOR, typical_sigma
from hardkeel.survey.model import FUSELAGE, Body, Instrument, Role, Survey
from hardkeel.survey.proposing import counted_with, tools_of
from hardkeel.survey.readings import (
    KINDS,
    Incidence,
    Reading,
    Side,
)
from hardkeel.survey.roles import role_of

ReadingKind = Literal[
    "distance", "distance-difference", "height", "incidence", "tilt", "offset", "angle"
]
KIND_ORDER: Final[tuple[ReadingKind, ...]] = (
    "distance",
    "distance-difference",
    "height",
    "incidence",
    "tilt",
    "offset",
    "angle",
)
NO_NAMES: Final[Mapping[str, str]] = MappingProxyType({})
_FRACTION_STEP: Final = 0.05
_CENTRAL: Final = 0.04  # closer to the middle than this share of the half span is the centre


@dataclass(frozen=True, slots=True)
class Draft:
    """A tool in hand and the marks picked so far, in the order in which it is held.

    Attributes
    ----------
    body, side, span_fraction
        For incidence: where the gauge is hung.
    tool : str
        Id of the one in hand where the builder owns several for it; empty for the finest.
    """

    kind: ReadingKind
    marks: tuple[str, ...] = ()
    body: str | None = None
    side: Side = "centre"
    span_fraction: float = 0.0
    tool: str = ""

    @property
    def wants(self) -> str:
        """What to pick next, in a word: ``mark``, ``body``, or nothing when it is complete."""
        marks = KINDS[self.kind].picks
        if not marks:
            return "" if self.body is not None else "body"
        return "mark" if len(self.marks) < marks else ""

    def with_mark(self, survey: Survey, mark: str) -> "Draft":
        """The draft with one mark more.

        Raises
        ------
        BadInput
            When there is no such mark, it is picked already, or none is wanted.
        """
        if survey.mark(mark) is None:
            raise BadInput("", f"there is no mark “{mark}”")
        if mark in self.marks:
            raise BadInput("", "that mark is picked already")
        if self.wants != "mark":
            raise BadInput("", "no further mark is wanted")
        return replace(self, marks=(*self.marks, mark))

    def with_body(self, survey: Survey, body: str, y: float = 0.0) -> "Draft":
        """The draft hung on a body at y mm from the centre plane.

        Raises
        ------
        BadInput
            When there is no such body, or it is the fuselage, or no body is wanted.
        """
        found = survey.body(body)
        if found is None or body == FUSELAGE:
            raise BadInput("", f"an incidence gauge can't be hung on “{body}”")
        if KINDS[self.kind].picks:
            raise BadInput("", "a mark is wanted, not a part")
        share = abs(y - found.origin[1]) / (found.span / 2) if found.span else 0.0
        if share < _CENTRAL:
            return replace(self, body=body, side="centre", span_fraction=0.0)
        fraction = min(1.0, round(share / _FRACTION_STEP) * _FRACTION_STEP)
        side: Side = "starboard" if y > found.origin[1] else "port"
        return replace(self, body=body, side=side, span_fraction=round(fraction, 2))

    def reading(self, value: float = 0.0) -> Reading | None:
        """The reading, once everything is picked."""
        if self.wants:
            return None
        common: dict[str, Any] = {"id": "?", "value": value}
        if self.body is None:
            return cast("Reading", KINDS[self.kind].picked(self.marks, **common))
        return Incidence(**common, body=self.body, side=self.side, span_fraction=self.span_fraction)


def own_tools(survey: Survey, kind: ReadingKind) -> tuple[Instrument, ...]:
    """The builder's tools for a kind of reading, the finest over a usual length first."""
    fit = [tool for tool in tools_of(survey) if USED_FOR[tool.kind] == kind]
    return tuple(sorted(fit, key=typical_sigma))


def own_tool(survey: Survey, draft: Draft) -> Instrument | None:
    """The tool that is in hand: the one chosen, or the finest; ``None`` where the builder owns none."""
    tools = own_tools(survey, draft.kind)
    return next((tool for tool in tools if tool.id == draft.tool), tools[0] if tools else None)


def with_own_tool(survey: Survey, draft: Draft) -> Reading | None:
    """The reading of a complete draft, with its tool and what that makes of it."""
    bare, tool = draft.reading(), own_tool(survey, draft)
    if bare is None or tool is None:
        return bare
    return counted_with(survey, tool, bare.but(instrument=tool.id))


def other_tool(survey: Survey, draft: Draft) -> Draft:
    """The same draft with the builder's next tool for it in hand."""
    ids = [tool.id for tool in own_tools(survey, draft.kind)]
    held = own_tool(survey, draft)
    if held is None:
        return draft
    return replace(draft, tool=ids[(ids.index(held.id) + 1) % len(ids)])


def find_mark(survey: Survey, text: str, names: Mapping[str, str] = NO_NAMES) -> str:
    """The mark that a builder's words mean: its id, its name, or words that fit only one.

    Parameters
    ----------
    names : mapping of str to str
        What marks are called where they are shown, by id.

    Raises
    ------
    BadInput
        When no mark fits, or several do.
    """
    wanted = text.strip().casefold()
    for mark in survey.marks:
        if wanted and wanted in (
            mark.id.casefold(),
            names.get(mark.id, mark.label or "").casefold(),
        ):
            return mark.id
    words = wanted.replace("_", " ").split()
    called = {
        mark.id: f"{mark.id} {names.get(mark.id, mark.label or '')}".casefold().replace("_", " ")
        for mark in survey.marks
    }
    strange = [w for w in words if not any(w in name for name in called.values())]
    if strange and survey.marks:
        raise BadInput("", f"no mark has “{strange[0]}” in its name")
    fitting = [one for one, name in called.items() if words and all(w in name for w in words)]
    if len(fitting) == 1:
        return fitting[0]
    if not fitting:
        raise BadInput("", f"no mark is called “{text.strip()}”")
    raise BadInput(
        "", f"“{text.strip()}” fits {len(fitting)} marks; add port or starboard, le or te"
    )


def find_body(survey: Survey, text: str) -> tuple[str, float]:
    """The body and the y in words like ``wing port 0.5``; the middle without side and share.

    Raises
    ------
    BadInput
        When a word is not understood, no body fits, or the share is not between 0 and 1.
    """
    words = text.strip().casefold().replace("_", " ").split()
    side = next((w for w in words if w in _SIDES), "centre")
    rest = [w for w in words if w != side]
    shares = [w for w in rest if w[0].isdigit() or w[0] in ".,"]
    share = _share(shares[0]) if shares else 0.0
    named = " ".join(w for w in rest if w not in shares[:1])
    body = _body_called(survey, named)
    if body is None:
        raise BadInput("", f"“{named or text.strip()}” is no part; write it like wing port 0.5")
    if side == "centre" and share:
        raise BadInput("", "a share of the half span needs port or starboard before it")
    return body.id, body.origin[1] + _SIDES[side] * share * (body.span or 0.0) / 2


_SIDES: Final = {"port": -1.0, "starboard": 1.0, "centre": 0.0}
_ALSO_CALLED: Final[dict[Role, tuple[str, ...]]] = {
    "stabilizer": ("stabilizer", "tailplane"),
    "foreplane": ("foreplane", "canard"),
    "thrust": ("engine", "motor"),
}
_LEAST_LETTERS: Final = 3


def _body_called(survey: Survey, name: str) -> Body | None:
    """The body of this name, or the only one that so begins."""
    begun: list[Body] = []
    for body in survey.bodies:
        if body.id == FUSELAGE:
            continue
        names = [body.id, body.label or "", *_ALSO_CALLED.get(role_of(body) or "wing", ())]
        plain = [one.casefold().replace("_", " ") for one in names if one]
        if name in plain:
            return body
        if len(name) >= _LEAST_LETTERS and any(one.startswith(name) for one in plain):
            begun.append(body)
    return begun[0] if len(begun) == 1 else None


def _share(text: str) -> float:
    """A share of the half span: ``0.5``, ``0,5``, ``1/2``, ``50%``."""
    top, slash, bottom = text.partition("/")
    try:
        if slash:
            share = parse_number(top) / parse_number(bottom)
        else:
            share = parse_number(text) / (100 if text.endswith("%") else 1)
    except (BadInput, ZeroDivisionError):
        share = -1.0
    if not 0 <= share <= 1:
        raise BadInput("", f"{text} is not a share of the half span between 0 and 1")
    return share
