"""What pydantic found wrong, in one clause of ours, and where, in the file's own terms."""

import json
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from typing import Any, Final

from pydantic import ValidationError

from hardkeel.base.errors import BadInput

_ORIGINS: Final = {
    "list": "a list",
    "dict": "an object",
    "str": "text",
    "int": "a number",
    "float": "a number",
    "bool": "true or false",
    "NoneType": "nothing",
}


@contextmanager
def faults_told() -> Iterator[None]:
    """Turn the fault of a value made in this block into ours.

    Raises
    ------
    BadInput
        Naming the first field that can't be as given.
    """
    try:
        yield
    except ValidationError as fault:
        first = fault.errors(include_url=False)[0]
        raise BadInput(place_name(first["loc"]), clause_of(first)) from None


def place_name(location: Sequence[int | str]) -> str:
    """``("survey", "readings", 4, "to")`` as ``survey.readings[4].to``."""
    text = ""
    for part in location:
        text += f"[{part}]" if isinstance(part, int) else f".{part}" if text else part
    return text or "build.json"


def clause_of(error: Any) -> str:
    """One clause for a fault that pydantic found; its own words where we have none."""
    kind, given, context = error["type"], error.get("input"), error.get("ctx", {})
    if kind in ("string_too_short", "string_pattern_mismatch") and str(given).strip():
        return f"{_quoted(given)} is not of the right form"
    if kind == "greater_than" and isinstance(given, int | float) and given <= 0 < context["gt"] < 1:
        context = {**context, "gt": 0}  # what is nothing or less is told as that, not by our bound
    template = _FAULTS.get(kind)
    if template is None:
        return str(error["msg"])
    return template.format(
        kind=_kind(given),
        given=_quoted(given),
        count=context.get("max_length") or context.get("min_length"),
        **{
            "tag": "",
            "actual_length": "",
            "expected": "",
            "error": "",
            **context,
            "expected_tags": str(context.get("expected_tags", "")).replace("'", ""),
        },
    )


_FAULTS: Final = {
    "missing": "is missing",
    "finite_number": "must be a finite number",
    "float_type": "must be a number, not {kind}",
    "float_parsing": "must be a number, not {kind}",
    "int_type": "must be a whole number, not {kind}",
    "greater_than": "must be more than {gt:g}, not {given}",
    "greater_than_equal": "must be at least {ge:g}, not {given}",
    "less_than": "must be less than {lt:g}, not {given}",
    "less_than_equal": "must be at most {le:g}, not {given}",
    "string_type": "must be text, not {kind}",
    "string_too_short": "must not be empty",
    "string_pattern_mismatch": "must not be empty",
    "bool_type": "must be true or false, not {kind}",
    "bool_parsing": "must be true or false, not {kind}",
    "literal_error": "must be {expected}, not {given}",
    "tuple_type": "must be a list, not {kind}",
    "list_type": "must be a list, not {kind}",
    "too_long": "must hold at most {count} values, not {actual_length}",
    "too_short": "must hold at least {count} values, not {actual_length}",
    "union_tag_not_found": "has no kind",
    "union_tag_invalid": 'kind "{tag}" is not one of {expected_tags}',
    "model_type": "must be an object in braces, not {kind}",
    "model_attributes_type": "must be an object in braces, not {kind}",
    "dict_type": "must be an object in braces, not {kind}",
    "value_error": "{given} can't be read ({error})",
}


def _kind(given: object) -> str:
    return _ORIGINS.get(type(given).__name__, type(given).__name__)


def _quoted(given: object) -> str:
    return json.dumps(given, ensure_ascii=False, default=str)
