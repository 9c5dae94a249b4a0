"""Corner heights in words: twist, bow, which corner to flex, and whether one half stands higher."""

from typing import TYPE_CHECKING

from hardkeel.base.units import LengthUnit, format_angle, format_length
from hardkeel.messages.tail import FIN_PLACES, PLACE_WORDS

if TYPE_CHECKING:
    from hardkeel.tail.flatness import Flatness


def flat_answer(flat: "Flatness") -> str:
    """Flat or twisted, in a word or two."""
    if not flat.known:
        return "Not known yet."
    twist = flat.twist
    if flat.twisted:
        return "Twisted."
    if abs(flat.bow.value) - 2 * flat.bow.sigma > 1.0:
        return "Bowed."
    if abs(twist.value) + 2 * twist.sigma <= 1.0:
        return "Flat, to within a degree."
    return "Not decided yet: read the corners again."


def flat_sentence(flat: "Flatness", unit: LengthUnit, *, upright: bool) -> str:
    """The twist, the bow, with their doubt."""
    twist = flat.twist
    side = "top" if upright else "starboard tip"
    way = "leading edge up" if twist.value >= 0 else "leading edge down"
    told = f"The {side} is turned {way} by {format_angle(abs(twist.value))} ± {format_angle(2 * twist.sigma)}"
    if upright:
        return f"{told} against its foot."
    bow = flat.bow
    bent = "up" if bow.value >= 0 else "down"
    return (
        f"{told} against the port tip; the tips stand {bent} by {format_length(abs(bow.value), unit)} "
        f"± {format_length(2 * bow.sigma, unit)}."
    )


def lift_sentence(flat: "Flatness", unit: LengthUnit, *, upright: bool) -> str:
    """Which corner to flex, and how far; empty where it is not known to be twisted."""
    if flat.lift is None or not flat.twisted:
        return ""
    if flat.beyond_sense:
        return f"{format_angle(abs(flat.twist.value))} is more than any frame is twisted: measure its corners again first."
    corner, mm = flat.lift
    words = (FIN_PLACES if upright else PLACE_WORDS)[corner]
    held = "foot" if upright else "other half"
    return (
        f"Hold the {held} down and flex the {words} up by {format_length(mm, unit)} while the glue sets: "
        "a third of that springs back."
    )


def alike_sentence(flat: "Flatness", unit: LengthUnit) -> str:
    """Whether one half is known to stand higher."""
    apart = flat.starboard.value - flat.port.value
    doubt = 2 * (flat.starboard.sigma**2 + flat.port.sigma**2) ** 0.5
    if abs(apart) <= doubt:
        return f"Port and starboard: no difference beyond ± {format_length(doubt, unit)}."
    higher = "starboard" if apart > 0 else "port"
    return f"The {higher} tip stands {format_length(abs(apart), unit)} ± {format_length(doubt, unit)} higher than the other."


def flat_movement(before: "Flatness", after: "Flatness", words: str) -> str:
    """How the twist moved since an earlier phase."""
    moved = after.twist.value - before.twist.value
    doubt = 2 * (after.twist.sigma**2 + before.twist.sigma**2) ** 0.5
    if abs(moved) <= doubt:
        return f"Nothing has moved beyond doubt since {words}."
    way = "leading edge up" if moved > 0 else "leading edge down"
    return f"Since {words} it has turned {way} by {format_angle(abs(moved))}."
