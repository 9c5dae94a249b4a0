"""What is written on a building plan."""

from collections.abc import Sequence
from typing import Final

from hardkeel.base.units import LengthUnit, format_size
from hardkeel.messages.names import surface_name

FRONT_AND_FACE: Final = "front; inside up; the second side over the first, its inside down"

ORDER_OF_SIDES: Final = (
    "1  Clear film over the sheet. Pins beside the wood at the crosses, none through it.",
    "2  Longerons first, then the uprights U, then the diagonals D; gussets when these hold.",
    "3  The second side over the first, film between them, so that both are alike.",
)

FROM_ABOVE: Final = "front; from above, starboard up"
ON_THE_BOARD: Final = "front; on the board, right side up; blocks under the formers are so high"
UPSIDE_DOWN: Final = "front; on the board, upside down; blocks under the formers are so high"

MEASURE_THE_BARS: Final = "full size: both bars measure 100 mm"
BETWEEN: Final = "between"
UPPER_EDGE: Final = "upper edge"
LOWER_EDGE: Final = "lower edge"
DATUM: Final = "datum"
FROM_PORT: Final = "front; from port"
FROM_BEHIND: Final = (
    "seen from behind; under it a cut through bevelled edges, seen from above, the front up"
)
STICK_COLUMNS: Final = ("stick", "cut", "wood", "long", "lower or front end", "other end")
STICK_WORDS: Final = (0, 2)  # the columns that hold words
STRIP_COLUMNS: Final = ("from its left end", "lower edge", "upper edge")
_PROPS: Final = "props-"
_SHEETS: Final = {
    "side": "Sides",
    "top": "From above",
    "board": "On the board",
    "sections": "Sections from behind",
    "elevation": "The whole model from the side",
    "sticks": "Sticks to cut",
    "tail-sticks": "Sticks to cut for the tail",
    "strips": "Long strips by their ordinates",
}


def sheet_name(name: str) -> str:
    """What a drawing is called: ``Sides``, ``Stabilizer``, ``Stop blocks for the stabilizer``."""
    if name.startswith(_PROPS):
        return f"Stop blocks for the {surface_name(name.removeprefix(_PROPS))}"
    words = _SHEETS.get(name.rstrip("0123456789").rstrip("-")) or surface_name(name)
    return words[:1].upper() + words[1:]


def spacer_words(height: str) -> str:
    """How high the blocks under a former are."""
    return f"block {height}"


def short_name(part: str) -> str:
    """``upright 4`` is ``U4``."""
    word, _, number = part.partition(" ")
    return f"{word[:1].upper()}{number}"


def numbered(kind: str, number: int) -> str:
    """``cross-stick`` as the third piece is ``C3``."""
    return f"{kind[:1].upper()}{number}"


def plan_of(surface: str, *, upright: bool) -> str:
    """Under a surface."""
    seen = "its foot to the left" if upright else "seen from above, both halves alike"
    return f"{surface[:1].upper()}{surface[1:]}, {seen}; ahead is up"


def from_first(stop: str) -> str:
    """``from F1``."""
    return f"from {stop}"


def station_of(stop: str) -> str:
    """Under which name a station is remembered."""
    return f"station {stop}"


def inside_of_it(name: str) -> str:
    """A doubler, behind the sticks."""
    return f"{name} (dashed: on the inside)"


def seat_of(surface: str, angle: str) -> str:
    """``wing sits here, 2.0° to the datum``."""
    return f"{surface} sits here, {angle} to the datum"


def wide_and_high(wide: str, tall: str) -> str:
    """``33.4 mm wide, 50.6 mm high``."""
    return f"{wide} wide, {tall} high"


def bevelled(angle: str, *, narrower_aft: bool) -> str:
    """Of a former's side edges."""
    return f"edges {angle}, {'rear' if narrower_aft else 'front'} narrower"


def hinge_cut(at: str, up: float, down: float) -> str:
    """Of a cut across the hinge line at the moving part's ``inner`` or ``outer`` end; degrees."""
    faces = (
        f"{up:.0f}° above and below"
        if round(up) == round(down)
        else f"{up:.0f}° above, {down:.0f}° below"
    )
    return f"hinge line cut across at its {at} end, front left: bevelled {faces}"


def surface_at(surface: str, angle: str) -> str:
    """``wing 2.00° to the datum``."""
    return f"{surface} {angle} to the datum"


def chord_words(surface: str, places: Sequence[str]) -> str:
    """Of a root chord that `surface_at` tells: where its ends lie along and over the datum."""
    lead, front, trail, rear = places
    return f"{surface}: leading edge at {lead}, {front} up; trailing edge at {trail}, {rear} up"


def thrust_words(down: str, side: str) -> str:
    """``thrust line, 2.0° down, 1.5° to starboard``."""
    return f"thrust line, {down} down, {side} to starboard"


def balances_at(station: str) -> str:
    """``shall balance at 163.2 mm``."""
    return f"shall balance at {station}"


def in_list(part: str, *, short: bool) -> str:
    """``U4  upright 4`` where the drawing has a short name for it."""
    return f"{short_name(part)}  {part}" if short else part


def half_span(surface: str) -> str:
    """Under which name a surface's half span is remembered."""
    return f"{surface_name(surface)}, half span"


def width_of(former: str) -> str:
    """Under which name a former's width is remembered."""
    return f"width at {former}"


def block_of(former: str) -> str:
    """Under which name what a former stands on is remembered."""
    return f"block under {former}"


def longeron_words(name: str, wood: str, section: tuple[float, float], unit: LengthUnit) -> str:
    """``upper longeron, spruce 5.0 × 5.0 mm``."""
    return f"{name.replace('_', ' ')} longeron, {wood} {format_size(section, unit)}"


def jumps(before: str, behind: str) -> str:
    """``3.0 mm, then 6.0 mm``: an edge jumps there."""
    return f"{before}, then {behind}"


def strip_words(wood: str, drawn: int, turned_over: int) -> str:
    """``balsa medium 3.0 mm; cut 2, 1 of them turned over; edges over a straight line along its lowest points``."""
    told = [wood] if wood else []
    if turned_over:
        told.append(f"cut {drawn + turned_over}, {turned_over} turned over")
    elif drawn > 1:
        told.append(f"cut {drawn}")
    told.append("edges over its lowest line")
    return "; ".join(told)
