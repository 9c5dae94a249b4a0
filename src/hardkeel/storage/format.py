"""The text of a ``build.json``: read, migrated, checked; or one clear sentence that says what is wrong."""

import json
import re
from typing import TYPE_CHECKING, Any, Final

from pydantic import ValidationError

from hardkeel.base.errors import BadInput
from hardkeel.base.faults import clause_of, place_name
from hardkeel.base.late import late
from hardkeel.project.model import FORMAT, FORMAT_NAME, FORMAT_VERSION, Build
from hardkeel.project.soundness import check_build
from hardkeel.storage.migrations import REVISION, brought_up
from hardkeel.survey.readings import DEFAULT_SIGMA

if TYPE_CHECKING:
    from hardkeel.practice import sealing
else:
    sealing = late("hardkeel.practice.sealing")

Json = dict[str, Any]
# a build with everything has some thousands; 64 MB of empty braces would take gigabytes
_MOST_VALUES: Final = 1_000_000
_REVISION: Final = "revision"  # our own key: which of our own changes a file knows


def build_from_text(text: str | bytes) -> Build:
    """Read and check a whole build.

    Raises
    ------
    BadInput
        With the place and the fault of the first thing that is wrong.
    """
    return build_from_data(_parse(text))


def build_from_data(data: object) -> Build:
    """Check plain data as `build_from_text` checks a file.

    Raises
    ------
    BadInput
        With the place and the fault of the first thing that is wrong.
    """
    if not isinstance(data, dict):
        raise BadInput("build.json", "must hold one object in braces")
    migrated = _migrated(data)
    revision = migrated.pop(_REVISION, 0)
    if not isinstance(revision, int) or isinstance(revision, bool):
        raise BadInput(_REVISION, f"must be a whole number, not {json.dumps(revision)}")
    try:
        build = Build.model_validate_json(json.dumps(migrated))
    except ValidationError as fault:
        raise _told(fault) from None
    except (ValueError, RecursionError):
        raise BadInput("build.json", "is nested too deeply to be read") from None
    build = brought_up(build, revision)
    check_build(build)
    if build.practice is not None:
        sealing.check_seal(build.practice)
    return build


def text_of(build: Build, *, profiles: bool = True) -> str:
    """The build as the text of a ``build.json``: indented, keys in a stable order.

    Parameters
    ----------
    profiles : bool
        With the text of its coordinate files; a file on disk has them as files of their own.
    """
    data = build.model_dump(mode="json", by_alias=True, exclude_unset=True)
    if not profiles:
        data.pop("profiles", None)
    rest = {key: value for key, value in data.items() if key not in ("format", _REVISION)}
    data = {"format": FORMAT, _REVISION: REVISION, **rest}
    return json.dumps(data, indent=1, ensure_ascii=False, allow_nan=False) + "\n"


def _parse(text: str | bytes) -> object:
    try:
        decoded = text.decode("utf-8-sig") if isinstance(text, bytes) else text
        if sum(map(decoded.count, ",{[")) > _MOST_VALUES:
            raise BadInput("build.json", f"holds more than {_MOST_VALUES:,} values")
        return json.loads(decoded, object_pairs_hook=_no_twins, parse_int=_number)
    except UnicodeDecodeError as fault:
        raise BadInput("build.json", f"is not UTF-8 text (byte {fault.start})") from None
    except json.JSONDecodeError as fault:
        what = fault.msg[:1].lower() + fault.msg[1:]
        raise BadInput(f"build.json line {fault.lineno}", f"is not sound JSON: {what}") from None
    except RecursionError:
        raise BadInput("build.json", "is nested too deeply to be read") from None


def _number(text: str) -> int | float:
    """An integer, or infinity for one that no float could hold (it is then told as not finite)."""
    try:
        number = int(text)
        float(number)
    except (ValueError, OverflowError):
        return float("inf")
    return number


def _no_twins(pairs: list[tuple[str, Any]]) -> Json:
    found: Json = {}
    for key, value in pairs:
        if key in found:
            raise BadInput("build.json", f'the key "{key}" stands twice in one object')
        found[key] = value
    return found


def is_newer(data: object) -> bool:
    """Whether a newer version of the program than this one has written it."""
    found = data.get("format") if isinstance(data, dict) else None
    match = re.fullmatch(rf"{FORMAT_NAME}/(\d{{1,6}})", found) if isinstance(found, str) else None
    return match is not None and int(match[1]) > FORMAT_VERSION


def _migrated(data: Json) -> Json:
    """Bring an older format up to this one, in memory only.

    There is no older format yet; when there is, its step is added here with a test.
    """
    found = data.get("format")
    if found is None:
        raise BadInput("format", f'is missing; a build says "format": "{FORMAT}"')
    match = re.fullmatch(rf"{FORMAT_NAME}/(\d{{1,6}})", found) if isinstance(found, str) else None
    if match is None:
        raise BadInput("format", f"{json.dumps(found)} is not a Hard Keel format")
    version = int(match[1])
    if version > FORMAT_VERSION:
        raise BadInput(
            "format", f'"{found}" was written by a newer Hard Keel than this one ({FORMAT})'
        )
    if version < 1:
        raise BadInput("format", f'"{found}" never existed')
    return dict(data)


def _told(fault: ValidationError) -> BadInput:
    first = fault.errors(include_url=False)[0]
    path = list(first["loc"])
    # pydantic puts the kind that it chose in the path, behind the reading's number
    location = [
        part
        for i, part in enumerate(path)
        if not (path[max(i - 2, 0)] == "readings" and part in DEFAULT_SIGMA)
    ]
    return BadInput(place_name(location), clause_of(first))
