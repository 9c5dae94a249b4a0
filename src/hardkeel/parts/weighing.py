"""What a part weighs by its size, what the scale says, and the density that it implies."""

from collections.abc import Mapping
from dataclasses import dataclass

from hardkeel.parts.model import Part
from hardkeel.parts.woods import G_PER_MM3, Wood


@dataclass(frozen=True, slots=True)
class Weight:
    """Grams for all pieces together.

    Attributes
    ----------
    estimated, least, most : float or None
        By size and the material's typical density, and over its usual range.
    weighed : float or None
    density : float or None
        kg/m³ that the weighed mass implies.
    odd : bool
        Whether that density lies outside the material's range: another wood, or another size.
    """

    estimated: float | None
    least: float | None
    most: float | None
    weighed: float | None
    density: float | None
    odd: bool

    @property
    def best(self) -> float | None:
        """Weighed where it is, else estimated."""
        return self.weighed if self.weighed is not None else self.estimated


def weight_of(part: Part, woods: Mapping[str, Wood], weighed: float | None) -> Weight:
    """The weight of a part; all estimates ``None`` where material or size is not known."""
    wood = woods.get(part.material or "")
    volume = part.volume_mm3 * part.pieces
    density = weighed / volume / G_PER_MM3 if weighed is not None and volume > 0 else None
    if wood is None or volume <= 0:
        return Weight(None, None, None, weighed, density, odd=False)
    least, most = wood.density_range
    return Weight(
        estimated=volume * wood.density * G_PER_MM3,
        least=volume * least * G_PER_MM3,
        most=volume * most * G_PER_MM3,
        weighed=weighed,
        density=density,
        odd=density is not None and not 0.9 * least <= density <= 1.1 * most,
    )
