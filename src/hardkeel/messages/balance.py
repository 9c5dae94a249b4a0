"""Balance in sentences: where the pack sits, what the nose wants, which hatch it passes."""

from collections.abc import Callable
from typing import Final

from hardkeel.balance.balancing import Balanced, WayIn, hatch_for
from hardkeel.balance.model import Balance, Hatch
from hardkeel.base.units import LengthUnit, format_length


def balance_sentence(found: Balanced, wanted: Balance, unit: LengthUnit = "mm") -> str:
    """The answer with its number."""
    target = format_length(found.target_x, unit, 0)
    if found.nose_weight is None:
        side = "forward" if found.x > found.target_x else "aft"
        off = format_length(abs(found.x - found.target_x), unit)
        return f"It balances {off} {'behind' if side == 'forward' else 'ahead of'} the mark: move something heavy {side}."
    if found.nose_weight > 0:
        return f"Add {found.nose_weight:.0f} g in the nose; then it balances at {target}."
    if found.placed_x is not None and wanted.battery is not None:
        return f"Put the middle of the {wanted.battery.id} at {format_length(found.placed_x, unit, 0)}."
    return f"It balances at {target} as it is."


def bay_sentence(found: Balanced, wanted: Balance, unit: LengthUnit = "mm") -> str:
    """Whether the pack's place is inside its bay."""
    pack = wanted.battery
    if pack is None or found.battery_x is None or found.placed_x is None:
        return "No pack yet: give its mass and its bay."
    if found.battery_fits:
        return "That is inside its bay." if pack.between else "Its bay is not given yet."
    over = format_length(abs(found.battery_x - found.placed_x), unit, 0)
    way = "forward" if found.battery_x < found.placed_x else "aft"
    return f"It would have to go {over} further {way} than its bay allows."


def hatch_sentence(
    wanted: Balance, deep: Callable[[Hatch], float | None] = lambda _hatch: None
) -> str:
    """Through which hatch the pack goes, and how."""
    pack = wanted.battery
    if pack is None or not wanted.hatches:
        return ""
    if pack.size is None:
        return "Give the pack's size, and it is checked against the hatch."
    passed = hatch_for(pack, wanted.hatches, deep)
    if passed is None:
        return "It passes no hatch, however it is turned: make one longer or wider."
    hatch, way = passed
    told = f"It goes in through the {hatch.id}, {_WAYS_IN[way]}."
    if way == "end first" and deep(hatch) is None:
        told += " How deep it is under it is not known."
    return told


_WAYS_IN: Final[dict[WayIn, str]] = {
    "flat": "flat",
    "on edge": "turned on its edge",
    "end first": "end first",
    "nose first, aslant": "nose first and aslant, under the deck ahead",
    "turned crosswise": "turned crosswise: it must lie so, or turn inside",
}
