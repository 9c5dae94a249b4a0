"""Swaps and laminates in sentences."""

from hardkeel.base.units import LengthUnit, decimal, format_length, shortest
from hardkeel.parts.swapping import Figures, Laminate

_ALIKE = 0.05  # less of a difference than wood of one board has


def swap_sentences(
    names: tuple[str, str], found: tuple[Figures, Figures], nose: float | None
) -> tuple[str, str]:
    """What taking the second in place of the first does; then the figures."""
    first, second = found
    grams = second.mass - first.mass
    heavier = "heavier" if grams > 0 else "lighter"
    weight = (
        "as heavy" if abs(grams) < _ALIKE * first.mass else f"{decimal(abs(grams), 1)} g {heavier}"
    )
    told = f"{names[1].capitalize()} is {weight}, {_times(second.flat / first.flat)} bent flat."
    more = (
        f"{decimal(first.mass, 1)} g and {decimal(second.mass, 1)} g. Bent on edge {_times(second.edge / first.edge)}; "
        f"breaks at {_times(second.breaks_flat / first.breaks_flat, 'the load', 'the load')}."
    )
    if nose is not None and abs(nose) >= 0.05:  # noqa: PLR2004  a twentieth of a gram
        way = "more" if nose > 0 else "less"
        more += f" There it wants {decimal(abs(nose), 1)} g {way} in the nose."
    return told, more


def laminate_sentence(made: Laminate, unit: LengthUnit) -> str:
    """Thickness, mass, and EI both ways."""
    return (
        f"{format_length(made.thickness, unit, 2)} thick, {decimal(made.mass, 1)} g without glue; "
        f"EI {shortest(made.flat / 1e6, 3)} N·m² flat, {shortest(made.edge / 1e6, 3)} N·m² on edge."
    )


def _times(ratio: float, stiffer: str = "as stiff", softer: str = "as stiff") -> str:
    if abs(ratio - 1) < _ALIKE:
        return "as stiff" if stiffer == "as stiff" else "the same load"
    figure = decimal(ratio, 1) if ratio < 10 else f"{ratio:.0f}"  # noqa: PLR2004  sensible digits
    return f"{figure} times {stiffer if ratio > 1 else softer}"
