"""What a reading is expected to show, and the one question about a figure that lies far from it."""

from typing import Final

from hardkeel.base.units import LengthUnit, format_angle, format_length

_LESS: Final = "a slip, or from another mark?"


def _told(value: float, unit: LengthUnit, *, angular: bool) -> str:
    return format_angle(value) if angular else format_length(value, unit)


def expect_words(value: float, band: float, unit: LengthUnit, *, angular: bool) -> str:
    """``Expect 954.9 mm ± 4.2 mm.``."""
    told, about = (_told(one, unit, angular=angular) for one in (value, band))
    return f"Expect {told} ± {about}."


def far_question(
    value: float, band: float, typed: float, unit: LengthUnit, *, angular: bool
) -> str:
    """The one question: what was expected, what was typed, and how it is taken all the same."""
    expected, about, given = (_told(one, unit, angular=angular) for one in (value, band, typed))
    return (
        f"Expected {expected} ± {about}, and this says {given}: {_LESS} Enter once more takes it."
    )
