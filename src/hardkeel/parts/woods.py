"""Woods, ply, foam, carbon and wire: typical figures, how far they scatter, and where each comes from.

Every figure is a starting point.  Balsa sold under one grade varies by a third; the scale and a
bending test tell more than any table, and the builder's own figures take its place.

Sources
-------
Wood Handbook: Forest Products Laboratory, "Wood handbook: wood as an engineering material", General
Technical Report FPL-GTR-282, Madison 2021.  Table 5-1: elastic ratios; 5-3a: strength of woods grown in
the United States, clear and at 12 % moisture; 5-5a: imported woods, balsa among them; 5-6: coefficients
of variation, 22 % for the modulus of elasticity and 16 % for the bending strength; chapter 8: soaked or
steamed wood stretches by 1 to 2 % before it breaks; chapter 12: laminations bent dry to a radius of 100
(hardwoods) to 125 times (softwoods) their thickness, a strain of 0.5 to 0.4 %.
The tables were not at hand on the bench where this was written: hold a figure against them before a
design rests on it.

What is no solid wood comes from data sheets and standards, each named at its group below; such
figures are what several sheets have in common, and the range is what they differ by.
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from types import MappingProxyType
from typing import Final, Literal

from hardkeel.parts.model import OwnWood

G_PER_MM3: Final = 1e-6  # of 1 kg/m³

Measure = Literal["density", "stiffness", "across", "strength", "dry", "soaked"]
Span = tuple[float, float]

# Shear modulus by Young's modulus along the grain: Wood Handbook, table 5-1, mean of G_LR and G_LT (balsa
# 0.054 and 0.037, Sitka spruce 0.064 and 0.061, red and loblolly pine 0.081 to 0.096, basswood 0.056 and 0.046,
# yellow birch for beech 0.074 and 0.068); ply by panel sheets; foam and metal by E / 2(1 + ν); fibres by sheets.
_SHEAR: Final = {
    "balsa-light": 0.0455, "balsa-medium": 0.0455, "balsa-hard": 0.0455, "spruce": 0.0625, "pine": 0.085,
    "basswood": 0.051, "beech": 0.071, "birch-ply": 0.07, "light-ply": 0.08, "foam-white": 0.38, "foam-blue": 0.38,
    "carbon-strip": 0.04, "carbon-cloth": 0.08, "glass-cloth": 0.18, "steel-wire": 0.387, "aluminium": 0.376,
    "brass": 0.37,
}  # fmt: skip
_SHEAR_OTHER: Final = 0.06  # of a wood that is not in the table
_SCATTER_STIFFNESS: Final = 0.22  # Wood Handbook, table 5-6
_SCATTER_STRENGTH: Final = 0.16  # the same
_MOIST: Final = 1.12  # weight at 12 % moisture, of the oven-dry weight that specific gravity counts
# Wood Handbook, table 5-5a: balsa of specific gravity 0.16, clear, at 12 %: GPa, MPa, kg/m³
_BALSA_STIFFNESS, _BALSA_STRENGTH, _BALSA_DENSITY = 3.4, 21.6, 160.0 * _MOIST


@dataclass(frozen=True, slots=True)
class Veneer:
    """Moduli of a ply along and across its own grain, GPa."""

    along: float
    across: float


# Thin birch ply is told with 16.5 and 1.0 GPa flat along and across the face grain for three plies, and 12.7 and 4.8
# for five: Handbook of Finnish Plywood, Finnish Forest Industries Federation 2002, mean moduli in bending; birch
# veneer of 17 and 0.4 gives 16.4 and 1.0, and 13.6 and 3.9.  Poplar: Wood Handbook, table 5-3a (aspen 8.1 to 9.9,
# cottonwood 8.8 to 9.4), table 5-1 for what is left across.
_BIRCH: Final = Veneer(17.0, 0.4)
_POPLAR: Final = Veneer(9.0, 0.4)
_FIVE_FROM_MM: Final = 2.0  # of thickness: thinner ply has three plies
_THREE, _FIVE = 3, 5
# of the thickness: how far from the middle the outermost ply reaches whose grain lies across the faces'
_ACROSS_REACH: Final = {_THREE: 2 / 6, _FIVE: 2 * 0.3}


def plies_of(thickness: float) -> int:
    """How many plies a sheet of light or birch ply has, by its thickness in mm."""
    return _FIVE if thickness >= _FIVE_FROM_MM else _THREE


def _outer_share(plies: int) -> float:
    """Of a solid's second moment, what lies in plies with the faces' grain; equal plies, the faces' first."""
    edges = [i / plies for i in range(plies, 0, -2)]  # from the middle, of half the thickness
    share = 0.0
    for i, edge in enumerate(edges):
        inner = edges[i + 1] if i + 1 < len(edges) else 0.0
        share += (1 if i % 2 == 0 else 0) * (edge**3 - inner**3)
    return share


@dataclass(frozen=True, slots=True)
class Wood:
    """A material.

    Attributes
    ----------
    density : float
        kg/m³.
    stiffness, across : float
        Young's modulus along and across the grain, GPa.
    strength : float
        Bending strength along the grain, MPa.
    bend : tuple of float
        Outer-fibre strain in percent that it takes dry, and soaked or steamed; (0, 0) for what is
        not bent on the bench.
    spans : mapping of str to (float, float)
        By figure, what two pieces of three lie within; ``dry`` and ``soaked`` are the strains of `bend`.
    sources : mapping of str to str
        By figure, where it comes from, with the table or sheet.
    source : str
        The same in two words.
    veneer : Veneer, optional
        Of a ply: what its plies are made of.
    """

    id: str
    name: str
    density: float
    stiffness: float
    across: float
    strength: float
    bend: tuple[float, float]
    spans: Mapping[Measure, Span]
    sources: Mapping[Measure, str]
    source: str
    own: bool = False
    veneer: Veneer | None = None

    def flat(self, thickness: float, *, along: bool = True) -> float:
        """Young's modulus when a sheet of this thickness (mm) is bent flat, GPa, along or across the (face) grain.

        Thin ply is no solid: with n equal plies the outer ones do nearly all of it.  EI = Σ E·(z₂³ − z₁³)/3 ply by
        ply, with the veneer's own moduli (S. P. Timoshenko, "Strength of Materials", part I, beams of two materials).
        """
        if self.veneer is None:
            return self.stiffness if along else self.across
        share = _outer_share(plies_of(thickness))
        faces, others = self.veneer.along, self.veneer.across
        if not along:
            faces, others = others, faces
        return share * faces + (1 - share) * others

    def flat_strength(self, thickness: float, *, along: bool = True) -> float:
        """Outer-fibre stress, as of a solid, at which a sheet bent flat breaks, MPa.

        Across the face grain the outermost ply whose grain lies that way breaks; it reaches less far out.
        """
        if along:
            return self.strength
        if self.veneer is None:
            return self.strength * self.across / self.stiffness
        reach = _ACROSS_REACH[plies_of(thickness)]
        share = self.flat(thickness, along=False) / self.veneer.along
        return min(self.strength, self.strength * share / reach)

    @property
    def shear(self) -> float:
        """Shear modulus along the grain, GPa: the stiffness times a ratio of its own kind."""
        return self.stiffness * _SHEAR.get(self.id, _SHEAR_OTHER)

    @property
    def density_range(self) -> Span:
        """kg/m³ that are no surprise on the scale."""
        return self.spans["density"]


@dataclass(frozen=True, slots=True)
class _Group:
    """Where the figures of a kind of material come from."""

    short: str
    density: str
    stiffness: str
    across: str
    strength: str
    bend: str


_FREE_BEND: Final = (
    "dry: Wood Handbook, chapter 12, what laminators bend dry, up to the strain at which clear wood "
    "breaks; soaked: chapter 8, stretch of soaked or steamed wood, less for what is unseen"
)
_SOLID: Final = _Group(
    "Wood Handbook",
    "Wood Handbook, table 5-3a, specific gravity times 1.12 for 12 % moisture",
    "Wood Handbook, table 5-3a; range by table 5-6",
    "Wood Handbook, table 5-1, mean of the radial and the tangential ratio",
    "Wood Handbook, table 5-3a; range by table 5-6",
    _FREE_BEND,
)
_BALSA: Final = _Group(
    "Wood Handbook",
    "grades as balsa is sold",
    "Wood Handbook, table 5-5a, in proportion to density; range by density and table 5-6",
    "Wood Handbook, table 5-1, mean of the radial and the tangential ratio",
    "Wood Handbook, table 5-5a, in proportion to density; range by density and table 5-6",
    _FREE_BEND,
)
_PLY_SHEETS: Final = (
    "makers' data sheets for plywood of 1 to 6 mm; half the plies lie across the face grain"
)
_PLY: Final = _Group(
    "panel data sheets", _PLY_SHEETS, _PLY_SHEETS, _PLY_SHEETS, _PLY_SHEETS,
    "dry: smallest radii in the same sheets; soaked: by experience, half as much again",
)  # fmt: skip
# mostly glued for use indoors: hot water opens it, so that soaked it takes no more than dry
_LIGHT_PLY: Final = replace(
    _PLY,
    bend="dry: smallest radii in the same sheets; soaked: no more, its interior glue lets go in hot water",
)
_BEAD: Final = "EN 13163, classes 70 to 150 of expanded polystyrene, and makers' sheets"
_BEAD_FOAM: Final = _Group("foam data sheets", _BEAD, _BEAD, _BEAD, _BEAD, "not bent on the bench")
_EXTRUDED: Final = "EN 13164, classes 200 to 500 of extruded polystyrene, and makers' sheets"
_BLUE_FOAM: Final = _Group(
    "foam data sheets", _EXTRUDED, _EXTRUDED, _EXTRUDED, _EXTRUDED, "not bent on the bench"
)
_FIBRE_SHEETS: Final = (
    "makers' data sheets: 60 % fibre by volume where pultruded, 50 % as cloth laid by hand"
)
_FIBRE: Final = _Group(
    "fibre data sheets", _FIBRE_SHEETS, _FIBRE_SHEETS, _FIBRE_SHEETS, _FIBRE_SHEETS,
    "not bent on the bench",
)  # fmt: skip


def _metal(sheet: str) -> _Group:
    return _Group("handbooks", sheet, sheet, sheet, sheet, "bent to stay, not sprung")


_WIRE: Final = _metal("EN 10270-1, patented drawn spring wire of 1 to 4 mm")
_ALUMINIUM: Final = _metal("EN 755-2, alloys of the 6000 kind, T6; strength where it yields")
_BRASS: Final = _metal("EN 12449, copper-zinc tube, half hard; strength where it yields")


def _wood(  # noqa: PLR0913  a row of the table
    wood_id: str,
    name: str,
    group: _Group,
    *,
    density: tuple[float, float, float],
    stiffness: tuple[float, float, float],
    across: float,
    strength: tuple[float, float, float],
    dry: tuple[float, float, float] = (0, 0, 0),
    soaked: tuple[float, float, float] = (0, 0, 0),
    veneer: Veneer | None = None,
) -> Wood:
    """A row: each figure as its low, its typical and its high value."""
    given: dict[Measure, tuple[float, float, float]] = {
        "density": density,
        "stiffness": stiffness,
        "across": tuple(across * one / stiffness[1] for one in stiffness),  # type: ignore[dict-item]
        "strength": strength,
        "dry": dry,
        "soaked": soaked,
    }
    told: dict[Measure, str] = {
        "density": group.density,
        "stiffness": group.stiffness,
        "across": group.across,
        "strength": group.strength,
        "dry": group.bend,
        "soaked": group.bend,
    }
    return Wood(
        wood_id,
        name,
        density[1],
        stiffness[1],
        across,
        strength[1],
        (dry[1], soaked[1]),
        MappingProxyType({key: (low, high) for key, (low, _, high) in given.items()}),
        MappingProxyType(told),
        group.short,
        veneer=veneer,
    )


def _balsa(
    wood_id: str,
    name: str,
    density: tuple[float, float, float],
    dry: tuple[float, float, float],
    soaked: tuple[float, float, float],
) -> Wood:
    """A grade of balsa: stiffness and strength in proportion to its density."""
    low, typical, high = (one / _BALSA_DENSITY for one in density)
    return _wood(
        wood_id,
        name,
        _BALSA,
        density=density,
        stiffness=(
            round(_BALSA_STIFFNESS * low * (1 - _SCATTER_STIFFNESS), 1),
            round(_BALSA_STIFFNESS * typical, 1),
            round(_BALSA_STIFFNESS * high * (1 + _SCATTER_STIFFNESS), 1),
        ),
        across=round(_BALSA_STIFFNESS * typical * 0.03, 2),  # 0.015 and 0.046
        strength=(
            round(_BALSA_STRENGTH * low * (1 - _SCATTER_STRENGTH)),
            round(_BALSA_STRENGTH * typical),
            round(_BALSA_STRENGTH * high * (1 + _SCATTER_STRENGTH)),
        ),
        dry=dry,
        soaked=soaked,
    )


def _clear(typical: float, scatter: float) -> tuple[float, float, float]:
    """A mean of the handbook with its coefficient of variation either way."""
    return round(typical * (1 - scatter), 1), typical, round(typical * (1 + scatter), 1)


def _solid(
    wood_id: str,
    name: str,
    density: tuple[float, float, float],
    means: tuple[float, float, float],
    dry: tuple[float, float, float],
    soaked: tuple[float, float, float],
) -> Wood:
    """A wood of table 5-3a; `means` are stiffness (GPa), what of it is left across, strength (MPa)."""
    stiffness, across, strength = means
    return _wood(
        wood_id,
        name,
        _SOLID,
        density=density,
        stiffness=_clear(stiffness, _SCATTER_STIFFNESS),
        across=round(stiffness * across, 2),
        strength=_clear(strength, _SCATTER_STRENGTH),
        dry=dry,
        soaked=soaked,
    )


WOODS: Final[tuple[Wood, ...]] = (
    _balsa("balsa-light", "balsa, light", (70, 100, 120), (0.4, 0.6, 0.8), (1.0, 1.6, 2.0)),
    _balsa("balsa-medium", "balsa, medium", (120, 150, 180), (0.4, 0.6, 0.8), (1.0, 1.5, 2.0)),
    _balsa("balsa-hard", "balsa, hard", (180, 220, 300), (0.4, 0.5, 0.7), (1.0, 1.3, 1.8)),
    # white spruce: specific gravity 0.36, 9.6 GPa and 65 MPa (Sitka, a tenth heavier: 10.8 and 70); ratios 0.043, 0.078
    _solid("spruce", "spruce", (350, 400, 450), (9.6, 0.06, 65), (0.4, 0.45, 0.65), (0.9, 1.1, 1.6)),
    # between ponderosa (8.9, 65) and loblolly (12.3, 88); ratios of red and loblolly pine, 0.044 to 0.113
    _solid("pine", "pine, straight grained", (420, 480, 550), (10.0, 0.08, 75), (0.4, 0.45, 0.7), (0.9, 1.1, 1.6)),
    # American basswood 10.1 GPa and 60 MPa; ratios 0.027, 0.066
    _solid("basswood", "linden", (370, 420, 470), (10.0, 0.047, 60), (0.4, 0.5, 0.6), (1.0, 1.2, 1.7)),
    # American beech 11.9 GPa and 103 MPa; ratios of yellow birch, 0.050 and 0.078: beech is not in table 5-1
    _solid("beech", "beech, hard points and dowel", (640, 690, 740), (12.0, 0.064, 100), (0.4, 0.5, 0.8), (1.2, 1.8, 2.0)),
    _wood("birch-ply", "birch ply", _PLY, density=(640, 680, 720), stiffness=(8.5, 9.5, 11), across=6.5,
          strength=(60, 75, 90), dry=(0.35, 0.5, 0.6), soaked=(0.6, 0.9, 1.1), veneer=_BIRCH),
    _wood("light-ply", "light ply, poplar", _LIGHT_PLY, density=(390, 430, 480), stiffness=(4.2, 5.0, 6.0), across=3.2,
          strength=(28, 35, 45), dry=(0.35, 0.5, 0.6), soaked=(0.35, 0.5, 0.6), veneer=_POPLAR),
    _wood("foam-white", "white bead foam", _BEAD_FOAM, density=(14, 20, 30), stiffness=(0.003, 0.005, 0.008),
          across=0.005, strength=(0.15, 0.25, 0.4)),
    _wood("foam-blue", "extruded foam", _BLUE_FOAM, density=(28, 33, 45), stiffness=(0.01, 0.018, 0.025),
          across=0.018, strength=(0.3, 0.5, 0.8)),
    _wood("carbon-strip", "carbon strip, pultruded", _FIBRE, density=(1480, 1550, 1620), stiffness=(115, 125, 140),
          across=8, strength=(900, 1200, 1700)),
    _wood("carbon-cloth", "carbon cloth in epoxy", _FIBRE, density=(1350, 1450, 1550), stiffness=(42, 50, 60),
          across=50, strength=(350, 450, 600)),
    _wood("glass-cloth", "glass cloth in epoxy", _FIBRE, density=(1600, 1750, 1900), stiffness=(14, 18, 22),
          across=18, strength=(220, 280, 350)),
    _wood("steel-wire", "spring steel wire", _WIRE, density=(7800, 7850, 7900), stiffness=(200, 205, 210),
          across=205, strength=(1400, 1600, 2100)),
    _wood("aluminium", "aluminium tube", _ALUMINIUM, density=(2680, 2700, 2800), stiffness=(68, 69, 71),
          across=69, strength=(160, 240, 270)),
    _wood("brass", "brass tube", _BRASS, density=(8400, 8500, 8700), stiffness=(97, 100, 110),
          across=100, strength=(200, 300, 400)),
)  # fmt: skip


def woods_with(own: Mapping[str, OwnWood]) -> dict[str, Wood]:
    """The table by id with the builder's own figures in place."""
    return {wood.id: _with(wood, own[wood.id]) if wood.id in own else wood for wood in WOODS}


def _with(wood: Wood, own: OwnWood) -> Wood:
    given: dict[Measure, float | None] = {
        "density": own.density,
        "stiffness": own.stiffness,
        # the two go together: a stiffer sheet is stiffer across the grain, too
        "across": own.stiffness and wood.across * own.stiffness / wood.stiffness,
        "strength": own.strength,
    }
    mine = {name: value for name, value in given.items() if value}
    told = own.source or "your own figure"
    return replace(
        wood,
        density=mine.get("density", wood.density),
        stiffness=mine.get("stiffness", wood.stiffness),
        across=mine.get("across", wood.across),
        strength=mine.get("strength", wood.strength),
        spans=MappingProxyType({**wood.spans, **{n: _about(v) for n, v in mine.items()}}),
        sources=MappingProxyType({**wood.sources, **dict.fromkeys(mine, told)}),
        source=told,
        own=True,
        # what the builder bent and measured goes before any sum over plies
        veneer=None if own.stiffness else wood.veneer,
    )


def _about(figure: float) -> Span:
    """What may still be the builder's own stock: a tenth either way."""
    return 0.9 * figure, 1.1 * figure
