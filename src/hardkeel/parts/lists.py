"""The three lists that disagree: the drawing, the printed list, the box."""

import csv
import io
import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final, Literal

from hardkeel.base.errors import BadInput
from hardkeel.base.faults import faults_told
from hardkeel.base.units import parse_length
from hardkeel.parts.model import Listed, Part
from hardkeel.parts.worded import read_worded, same_wood, thickness_in, wood_in

_MOST_LINES: Final = 2000
_FILLER: Final = frozenset({"the", "of", "a", "pcs", "off", "part", "former"})
_HEADS: Final = {
    "name": ("name", "part", "item", "description", "what"),
    "quantity": ("quantity", "qty", "count", "number", "no", "pcs", "off"),
    "material": ("material", "wood", "stock"),
    "thickness": ("thickness", "thick", "t"),
}


_MARKS: Final = ("\t", ";", ",")
_POST_KEY: Final = "post tail"
_SAME_MM: Final = 0.15  # a sheet is sold no finer
_FORMER_KEY: Final = re.compile(r"f(\d{1,3})")


@dataclass(frozen=True, slots=True)
class Difference:
    """A part on which the lists disagree: how many pieces each names (0: none)."""

    name: str
    drawing: int
    printed: int | None
    box: int | None


def read_list(text: str) -> tuple[Listed, ...]:
    """A parts list pasted as CSV (comma, semicolon or tab), with or without a heading line, or in words.

    Without a heading the first column is the name and the first whole number the quantity.  Lines without a separator
    are read as words: ``2 x F3 light ply 3 mm``.

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
    mark = max(_MARKS, key=lines[0].count)
    if not any(line.count(mark) for line in lines):
        return tuple(_worded(line, f"line {number}") for number, line in enumerate(lines, start=1))
    rows = [
        [cell.strip() for cell in row]
        for row in csv.reader(io.StringIO("\n".join(lines)), delimiter=mark)
    ]
    columns = _columns(rows[0])
    found = []
    for number, row in enumerate(rows, start=1):
        if number == 1 and columns is not None:
            continue
        alone = columns is None and len(row) == 1
        place = f"line {number}"
        found.append(_worded(row[0], place) if alone else _line(row, columns, number))
    return tuple(found)


def _worded(line: str, place: str) -> Listed:
    said = read_worded(line, place)
    with faults_told():
        return Listed(
            name=said.name,
            quantity=said.quantity,
            material=said.material,
            thickness=said.thickness,
        )


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
        material = next((wood for cell in row[1:] if (wood := wood_in(cell))), None)
        thick = next((mm for cell in row[1:] if (mm := thickness_in(cell))), None)
    else:
        cells = {field: row[i] if i < len(row) else "" for field, i in columns.items()}
        name, quantity = cells["name"], cells.get("quantity") or "1"
        material = cells.get("material") or None
        thick = _thickness(cells.get("thickness", ""), number)
    if not name:
        raise BadInput(f"line {number}", "has no name")
    if not re.fullmatch(r"\d{1,4}", quantity):
        raise BadInput(f"line {number}", f"“{quantity}” is not a quantity")
    return Listed(name=name, quantity=int(quantity), material=material, thickness=thick)


def _thickness(cell: str, number: int) -> float | None:
    """Of a cell under a heading: mm, or with its unit."""
    if not cell:
        return None
    try:
        return parse_length(cell.replace(",", "."), "mm").mm or None
    except BadInput as fault:
        raise BadInput(f"line {number}", f"thickness: {fault.fault}") from None


@dataclass(frozen=True, slots=True)
class WoodDifference:
    """A part that a list has of another wood or thickness than the drawing.

    Attributes
    ----------
    listed_in : {"printed", "box"}
    drawn, listed : (str or None, float or None)
        Wood and thickness in mm; what the list does not say is as drawn.
    """

    name: str
    listed_in: Literal["printed", "box"]
    drawn: tuple[str | None, float]
    listed: tuple[str | None, float]


def wood_differences(
    parts: Sequence[Part], printed: Sequence[Listed], box: Sequence[Listed]
) -> tuple[WoodDifference, ...]:
    """Where a list's wood or thickness is another than the drawing's, in the order of the lists."""
    drawn = {name_key(part.name): part for part in parts}
    out = []
    lists: tuple[tuple[Literal["printed", "box"], Sequence[Listed]], ...] = (
        ("printed", printed),
        ("box", box),
    )
    for where, rows in lists:
        for row in rows:
            part = drawn.get(name_key(row.name))
            if part is None:
                continue
            thick = part.size[2]
            other = (
                row.material is not None
                and part.material is not None
                and not same_wood(row.material, part.material)
            )
            thicker = (
                row.thickness is not None and thick > 0 and abs(row.thickness - thick) > _SAME_MM
            )
            if other or thicker:
                said = (row.material or part.material, row.thickness or thick)
                out.append(WoodDifference(part.name, where, (part.material, thick), said))
    return tuple(out)


def post_called(parts: Sequence[Part], rows: Sequence[Listed]) -> str | None:
    """What a list calls the tail post, where it counts it as its last former: F9 of a drawing with eight and a post."""
    keys = {name_key(part.name) for part in parts}
    formers = [int(m[1]) for key in keys if (m := _FORMER_KEY.fullmatch(key))]
    named = {name_key(row.name): row.name for row in rows}
    if not formers or _POST_KEY not in keys or _POST_KEY in named:
        return None
    return named.get(f"f{max(formers) + 1}")


def compare(
    parts: Sequence[Part], printed: Sequence[Listed], box: Sequence[Listed]
) -> tuple[Difference, ...]:
    """Where the lists disagree, in the order of the drawing; an empty list is not compared."""
    drawn = _counted((part.name, part.pieces) for part in parts)
    printed, box = (_with_post(parts, rows) for rows in (printed, box))
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


def _with_post(parts: Sequence[Part], rows: Sequence[Listed]) -> tuple[Listed, ...]:
    """A list whose last former is the drawing's tail post, under that name."""
    last = post_called(parts, rows)
    return tuple(row.but(name="tail post") if row.name == last else row for row in rows)


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
