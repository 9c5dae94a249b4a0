"""Woods, ply, foam, carbon and wire: typical figures and ranges, and where they come from.

Every figure is a starting point.  Balsa sold under one grade varies by a third; the scale and a
bending test tell more than any table, and the builder's own figures take its place.
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Final

from hardkeel.parts.model import OwnWood

G_PER_MM3: Final = 1e-6  # of 1 kg/m³

# Wood Handbook, FPL-GTR-282 (2021), chapter 5, clear wood at 12 % moisture; balsa scaled with density.
_FPL: Final = "Wood Handbook"
_PLY: Final = "panel data sheets"  # half the plies lie across the face grain
_FOAM: Final = "foam data sheets"
_FIBRE: Final = "fibre data sheets"  # 60 % fibre where pultruded, 50 % as cloth
_METAL: Final = "handbooks"


@dataclass(frozen=True, slots=True)
class Wood:
    """A material.

    Attributes
    ----------
    density, density_range : float, (float, float)
        kg/m³.
    stiffness, across : float
        Young's modulus along and across the grain, GPa.
    strength : float
        Bending strength along the grain, MPa.
    bend : tuple of float
        Outer-fibre strain in percent that it takes dry, and soaked or steamed; (0, 0) for what is
        not bent on the bench.
    """

    id: str
    name: str
    density: float
    density_range: tuple[float, float]
    stiffness: float
    across: float
    strength: float
    bend: tuple[float, float]
    source: str
    own: bool = False


WOODS: Final[tuple[Wood, ...]] = (
    Wood("balsa-light", "balsa, light", 100, (70, 120), 2.0, 0.05, 12, (0.7, 1.6), _FPL),
    Wood("balsa-medium", "balsa, medium", 150, (120, 180), 3.3, 0.08, 20, (0.6, 1.5), _FPL),
    Wood("balsa-hard", "balsa, hard", 220, (180, 300), 5.2, 0.13, 31, (0.5, 1.3), _FPL),
    Wood("spruce", "spruce", 400, (350, 450), 10.5, 0.5, 68, (0.45, 1.1), _FPL),
    Wood("pine", "pine, straight grained", 480, (420, 550), 10.0, 0.5, 75, (0.45, 1.1), _FPL),
    Wood("basswood", "linden", 420, (370, 470), 10.0, 0.4, 60, (0.5, 1.2), _FPL),
    Wood(
        "beech", "beech, hard points and dowel", 690, (640, 740), 12.0, 1.0, 100, (0.5, 1.8), _FPL
    ),
    Wood("birch-ply", "birch ply", 680, (640, 720), 9.5, 6.5, 75, (0.5, 0.9), _PLY),
    Wood("light-ply", "light ply, poplar", 430, (390, 480), 5.0, 3.2, 35, (0.5, 0.9), _PLY),
    Wood("foam-white", "white bead foam", 20, (14, 30), 0.005, 0.005, 0.25, (0, 0), _FOAM),
    Wood("foam-blue", "extruded foam", 33, (28, 45), 0.018, 0.018, 0.5, (0, 0), _FOAM),
    Wood(
        "carbon-strip", "carbon strip, pultruded", 1550, (1480, 1620), 125, 8, 1200, (0, 0), _FIBRE
    ),
    Wood("carbon-cloth", "carbon cloth in epoxy", 1450, (1350, 1550), 50, 50, 450, (0, 0), _FIBRE),
    Wood("glass-cloth", "glass cloth in epoxy", 1750, (1600, 1900), 18, 18, 280, (0, 0), _FIBRE),
    Wood("steel-wire", "spring steel wire", 7850, (7800, 7900), 205, 205, 1600, (0, 0), _METAL),
    Wood("aluminium", "aluminium tube", 2700, (2680, 2800), 69, 69, 240, (0, 0), _METAL),
    Wood("brass", "brass tube", 8500, (8400, 8700), 100, 100, 300, (0, 0), _METAL),
)


def woods_with(own: Mapping[str, OwnWood]) -> dict[str, Wood]:
    """The table by id with the builder's own figures in place."""
    return {wood.id: _with(wood, own[wood.id]) if wood.id in own else wood for wood in WOODS}


def _with(wood: Wood, own: OwnWood) -> Wood:
    return replace(
        wood,
        density=own.density or wood.density,
        density_range=_about(own.density) if own.density else wood.density_range,
        stiffness=own.stiffness or wood.stiffness,
        # the two go together: a stiffer sheet is stiffer across the grain, too
        across=wood.across * (own.stiffness or wood.stiffness) / wood.stiffness,
        strength=own.strength or wood.strength,
        source=own.source or "your own figure",
        own=True,
    )


def _about(density: float) -> tuple[float, float]:
    """What may still be the builder's own stock: a tenth either way."""
    return 0.9 * density, 1.1 * density
