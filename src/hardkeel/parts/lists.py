"""The three lists that disagree: the drawing, the printed list, the box."""

import csv
import io
import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.parts.model import Listed, Part

_MOST_LINES: Final = 2000
_FILLER: Final = frozenset({"the", "of", "a", "pcs", "off", "part", "former"})
_HEADS: Final = {
    "name": ("name", "part", "item", "description", "what"),
    "quantity": ("quantity", "qty", "count", "number", "no", "pcs", "off"),
    "material": ("material", "wood", "stock"),
}


@dataclass(frozen=True, slots=True)
class Difference:
    """A part on which the lists disagree: how many pieces each names (0: none)."""

    name: str
    drawing: int
    printed: int | None
    box: int | None


def read_list(text: str) -> tuple[Listed, ...]:
    """A parts list pasted as CSV (comma, semicolon or tab), with or without a heading line.

    Without a heading the first column is the name and the first whole number the quantity.

    Raises
    ------
    BadInput
        Naming the line that can't be read.
    """
    lines = [line for line in text.splitlines() if line.strip()]
    if len(lines) > _MOST_LINES:
        raise BadInput("list", f"has more than {_MOST_LINES} lines")
    if not lines:
        return ()
    mark = max(("\t", ";", ","), key=lines[0].count)
    rows = [
        [cell.strip() for cell in row]
        for row in csv.reader(io.StringIO("\n".join(lines)), delimiter=mark)
    ]
    columns = _columns(rows[0])
    found = []
    for number, row in enumerate(rows, start=1):
        if number == 1 and columns is not None:
            continue
        found.append(_line(row, columns, number))
    return tuple(found)


def _columns(head: list[str]) -> dict[str, int] | None:
    words = [cell.casefold().rstrip(".") for cell in head]
    found = {
        field: i for field, names in _HEADS.items() for i, word in enumerate(words) if word in names
    }
    return found if "name" in found else None


def _line(row: list[str], columns: dict[str, int] | None, number: int) -> Listed:
    if columns is None:
        name = row[0]
        counts = [cell for cell in row[1:] if re.fullmatch(r"\d{1,4}", cell)]
        quantity = counts[0] if counts else "1"
        material = None
    else:
        cells = {field: row[i] if i < len(row) else "" for field, i in columns.items()}
        name, quantity = cells["name"], cells.get("quantity") or "1"
        material = cells.get("material") or None
    if not name:
        raise BadInput(f"line {number}", "has no name")
    if not re.fullmatch(r"\d{1,4}", quantity):
        raise BadInput(f"line {number}", f"“{quantity}” is not a quantity")
    return Listed(name=name, quantity=int(quantity), material=material)


def compare(
    parts: Sequence[Part], printed: Sequence[Listed], box: Sequence[Listed]
) -> tuple[Difference, ...]:
    """Where the lists disagree, in the order of the drawing; an empty list is not compared."""
    drawn = _counted((part.name, part.pieces) for part in parts)
    lists = [
        _counted((one.name, one.quantity) for one in rows) if rows else None
        for rows in (printed, box)
    ]
    names = {
        key: name
        for rows in (box, printed)
        for key, (name, _) in _counted((o.name, o.quantity) for o in rows).items()
    }
    names |= {key: name for key, (name, _) in drawn.items()}
    order = [*drawn, *(key for key in names if key not in drawn)]
    out = []
    for key in order:
        on_paper, in_box = (None if one is None else one.get(key, ("", 0))[1] for one in lists)
        drawing = drawn.get(key, ("", 0))[1]
        if any(count is not None and count != drawing for count in (on_paper, in_box)):
            out.append(Difference(names[key], drawing, on_paper, in_box))
    return tuple(out)


def _counted(rows: Iterable[tuple[str, int]]) -> dict[str, tuple[str, int]]:
    found: dict[str, tuple[str, int]] = {}
    for name, count in rows:
        key = name_key(name)
        before = found.get(key, (name, 0))
        found[key] = (before[0], before[1] + count)
    return found


def name_key(name: str) -> str:
    """What two spellings of one part share: words without filler, case, order or plural."""
    words = [w for w in re.findall(r"[a-z0-9]+", name.casefold()) if w not in _FILLER]
    return " ".join(sorted(w.rstrip("s") or w for w in words)) or name.casefold()
