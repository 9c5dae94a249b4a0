"""Woods in words: what a figure of one lies within, and the table or sheet that it comes from."""

from typing import Final

from hardkeel.base.units import shortest
from hardkeel.parts.woods import Measure, Wood

_FIGURES: Final[dict[Measure, tuple[str, str]]] = {  # what a figure is called, and its unit
    "density": ("density", "kg/m³"),
    "stiffness": ("stiffness along", "GPa"),
    "across": ("across", "GPa"),
    "strength": ("bending strength", "MPa"),
    "dry": ("bends dry", "%"),
    "soaked": ("soaked", "%"),
}


def sources_text(wood: Wood) -> str:
    """A line for each figure: what two pieces of three lie within, and where that is from."""
    lines: list[str] = []
    for measure, (name, unit) in _FIGURES.items():
        low, high = wood.spans[measure]
        if high <= 0:
            continue  # what is not bent on the bench
        lines.append(f"{name} {_digits(low)} to {_digits(high)} {unit}: {wood.sources[measure]}")
    return "\n".join(lines)


def _digits(figure: float) -> str:
    """Three that count, and thousands in full: ``0.058``, ``12.8``, ``7800``."""
    return f"{figure:.0f}" if figure >= 100 else shortest(figure, 3)  # noqa: PLR2004  three digits
