"""The builder's own strips as they are written in a field: ``2 of 5 x 5 x 610 balsa-medium``."""

import re
from collections.abc import Sequence
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, parse_length
from hardkeel.joinery.cut_part import Stock

_SIZE: Final = r"[\d.,/\- ]+?(?:mm|in|\")?"
_ROW: Final = re.compile(
    rf"\s*(?P<n>\d+)\s*(?:of|×|x)?\s+(?P<a>{_SIZE})\s*[x×]\s*(?P<b>{_SIZE})\s*[x×]\s*(?P<l>[\d.,/]+(?:\s*(?:mm|in|\"))?)"
    r"(?:\s+(?P<wood>[a-z][a-z-]*))?\s*",
    re.IGNORECASE,
)
_HOW: Final = "write it like 2 of 5 x 5 x 610 balsa-medium"


def rack_text(rack: Sequence[Stock], unit: LengthUnit) -> str:
    """Strips as they are written."""

    def figure(mm: float) -> str:
        return f"{mm:g}" if unit == "mm" else f"{mm / 25.4:.3f}"

    return "; ".join(
        f"{one.pieces} of {figure(one.section[0])} x {figure(one.section[1])} x {figure(one.length)}"
        + (f" {one.material}" if one.material else "")
        for one in rack
    )


def read_rack(text: str, unit: LengthUnit) -> tuple[Stock, ...]:
    """Strips from such a text.

    Raises
    ------
    BadInput
        Naming the one that is not understood.
    """
    found: list[Stock] = []
    for row in (piece for piece in text.split(";") if piece.strip()):
        match = _ROW.fullmatch(row)
        if match is None:
            raise BadInput("", f"“{row.strip()}”: {_HOW}")
        a, b, length = (parse_length(match[key], unit).mm for key in ("a", "b", "l"))
        pieces = int(match["n"])
        if min(a, b, length) <= 0 or not 1 <= pieces <= _MOST:
            raise BadInput("", f"“{row.strip()}”: a strip needs sizes, and 1 to {_MOST} of it")
        wood = match["wood"]
        found.append(
            Stock(
                section=(a, b),
                length=length,
                pieces=pieces,
                material=wood.lower() if wood else None,
            )
        )
    return tuple(found)


_MOST: Final = 1000
