"""What lies on ribs and beside them, in words: their places, capstrips, a sheeted centre, doublers, the tip's section."""

from typing import TYPE_CHECKING, Final

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, format_length, parse_length, shortest

if TYPE_CHECKING:
    from collections.abc import Sequence

    from hardkeel.tail.ribs import StockHeights

ON_THE_RIBS: Final = "On and beside the ribs"
PLACES: Final = "ribs at"
PLACES_TIP: Final = (
    "From the middle out: bays need not be alike. 0, 20, 40, 80, 120 puts them closer at the root"
)
TIP_SECTION: Final = "section of the tip"
AS_THE_ROOT: Final = "as the root"
FIGURES: Final = {
    "cap_wide": "capstrips wide",
    "cap_thick": "thick",
    "centre_sheet": "sheeted to",
    "centre_skin": "with sheet",
    "doubled_ribs": "ribs doubled",
    "doubler": "doubler",
}
_EDGES: Final = {"leading_edge": "Leading edge", "trailing_edge": "Trailing edge"}


def places_text(places: "Sequence[float]", unit: LengthUnit) -> str:
    """``0, 40, 80``."""
    return ", ".join(f"{mm:g}" if unit == "mm" else f"{mm / 25.4:.3f}" for mm in places)


def read_places(text: str, unit: LengthUnit) -> tuple[float, ...]:
    """Places of ribs from such a text, mm.

    Raises
    ------
    BadInput
        Naming the one that is not understood, or when fewer than two are given.
    """
    found = sorted(
        round(parse_length(one.strip(), unit).mm, 3)
        for one in text.replace(";", ",").split(",")
        if one.strip()
    )
    if len(found) < 2:  # noqa: PLR2004  root and tip
        raise BadInput("", "a surface needs a rib at its root and one at its tip")
    if found[0] < 0:
        raise BadInput(
            "", f"{shortest(found[0])} lies beyond the middle: the other half is its mirror image"
        )
    return tuple(found)


def stock_sentence(one: "StockHeights", unit: LengthUnit) -> str:
    """``Leading edge: 9.4 mm high at the root, 6.1 mm at the tip.``."""
    root, tip = format_length(one.root, unit), format_length(one.tip, unit)
    return f"{_EDGES[one.edge]}: {root} high at the root, {tip} at the tip, where ribs meet it."


def ribs_edit(key: str) -> str:
    """The step's name for undo."""
    return f"set {FIGURES.get(key, key)}"
