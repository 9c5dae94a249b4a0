"""Figures that are possible and beyond what is usual: nearly always a slip of the hand, or inches for millimetres."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cache
from typing import Any, get_args

from pydantic.fields import FieldInfo

from hardkeel.base.values import Usual, Value
from hardkeel.project.model import Build, empty_build


@dataclass(frozen=True, slots=True)
class Oddity:
    """A figure to be asked about.

    Attributes
    ----------
    owner : str
        Id of what it is a figure of, ``F3``; where that has none, the section that it stands in.
    field : str
        Its name in the file.
    value : float
        In the unit of `usual`.
    usual : Usual
        Between what it would be usual.
    """

    owner: str
    field: str
    value: float
    usual: Usual


def oddities(before: Build, after: Build) -> tuple[Oddity, ...]:
    """Figures of `after` beyond what is usual that `before` has not at the same place."""
    if before is after:
        return ()
    return tuple(_of_value(before, after, ""))


def oddities_in(build: Build) -> tuple[Oddity, ...]:
    """All of a build."""
    return oddities(empty_build(), build)


def _of_value(before: Value | None, after: Value, owner: str) -> Iterator[Oddity]:
    owner = getattr(after, "id", "") or owner
    for name in after.model_fields_set & type(after).model_fields.keys():
        now = getattr(after, name)
        was = getattr(before, name, None) if type(before) is type(after) else None
        if now is was:
            continue
        usual = _usual(type(after)).get(name)
        if usual is not None:
            known = set(_numbers(was))
            for value in _numbers(now):
                if not usual.least <= value <= usual.most and value not in known:
                    yield Oddity(owner, name, value, usual)
        else:
            yield from _within(was, now, owner or name)


def _within(was: Any, now: Any, owner: str) -> Iterator[Oddity]:
    if isinstance(now, Value):
        yield from _of_value(was if isinstance(was, Value) else None, now, owner)
    elif isinstance(now, tuple):
        before = was if isinstance(was, tuple) else ()
        named = {one.id: one for one in before if hasattr(one, "id")}
        for i, one in enumerate(now):
            if isinstance(one, Value):
                earlier = (
                    named.get(one.id)
                    if hasattr(one, "id")
                    else before[i]
                    if i < len(before)
                    else None
                )
                if earlier is not one:
                    yield from _of_value(earlier, one, owner)


def _numbers(value: Any) -> Iterator[float]:
    if isinstance(value, int | float) and not isinstance(value, bool):
        yield float(value)
    elif isinstance(value, tuple):
        for one in value:
            yield from _numbers(one)


@cache
def _usual(kind: type[Value]) -> Mapping[str, Usual]:
    """What is usual of each figure of a kind of value."""
    found = {}
    for name, field in kind.model_fields.items():
        usual = _last(field.metadata) or _in(field.annotation)
        if usual is not None:
            found[name] = usual
    return found


def _in(annotation: Any) -> Usual | None:
    """What stands beside a type, or beside one that it is made of."""
    own = _last(getattr(annotation, "__metadata__", ()))
    if own is not None:
        return own
    return next((found for part in get_args(annotation) if (found := _in(part))), None)


def _last(metadata: Any) -> Usual | None:
    found = None
    for one in metadata:
        if isinstance(one, Usual):
            found = one
        elif isinstance(one, FieldInfo):
            found = _last(one.metadata) or found
    return found
