"""Decalage, balance and lift trade against one another: move one, and another must give way."""

from collections.abc import Sequence
from dataclasses import replace

from hardkeel.trim.flying import Craft, Trim, trim_of


def flown_at(craft: Craft, balance: float, lift: float) -> Trim:
    """The same craft with another balance point, a fraction of the mean chord, and lift coefficient."""
    flight = craft.flight.but(lift_coefficient=lift, speed=None)
    return trim_of(replace(craft, balance=balance, flight=flight))


def decalage_for(craft: Craft, balance: float, lift: float) -> float | None:
    """The decalage that trims there, degrees; ``None`` where wing, tail or arm are not known."""
    return flown_at(craft, balance, lift).decalage_to_trim


def lift_for(craft: Craft, balance: float, decalage: float) -> float | None:
    """The lift coefficient at which a decalage trims.

    For a fixed balance point the decalage that trims is a straight line over the lift coefficient, level where
    the margin is nothing: there, and where the figures are not known, there is none.
    """
    low, high = decalage_for(craft, balance, _LOW), decalage_for(craft, balance, _HIGH)
    if low is None or high is None:
        return None
    slope = (high - low) / (_HIGH - _LOW)
    if abs(slope) < _LEVEL:
        return None
    return _LOW + (decalage - low) / slope


def trading_curve(
    craft: Craft, lift: float, balances: Sequence[float]
) -> tuple[tuple[float, float], ...]:
    """Points (balance, decalage that trims) at a lift coefficient; empty where it is not known."""
    found = [(one, decalage_for(craft, one, lift)) for one in balances]
    return tuple((x, y) for x, y in found if y is not None)


_LOW, _HIGH = 0.2, 1.0
_LEVEL = 0.05  # degrees for each unit of lift: so level that it would trim anywhere
