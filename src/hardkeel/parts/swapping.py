"""Mass and stiffness of a strip or plate, of a laminate, and what a swap of one for another does."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.parts.woods import G_PER_MM3, Wood

_NMM2_PER_GPA_MM4: Final = 1e3
MOST_PLIES: Final = 20


@dataclass(frozen=True, slots=True)
class Choice:
    """A rectangular piece: mm, `along` whether its grain runs along its length."""

    material: str
    length: float
    width: float
    thickness: float
    along: bool = True


@dataclass(frozen=True, slots=True)
class Figures:
    """What a piece weighs and resists.

    Attributes
    ----------
    mass : float
        Grams.
    flat, edge : float
        EI bent over its thickness and over its width, N·mm².
    breaks_flat, breaks_edge : float
        Bending moment at which the outer fibre reaches the material's strength, N·mm.
    """

    mass: float
    flat: float
    edge: float
    breaks_flat: float
    breaks_edge: float


@dataclass(frozen=True, slots=True)
class Ply:
    """A layer of a laminate, from one face to the other; thickness in mm."""

    material: str
    thickness: float
    along: bool = True


@dataclass(frozen=True, slots=True)
class Laminate:
    """A strip of a laminate.

    Attributes
    ----------
    thickness : float
        mm.
    neutral : float
        Height of the neutral axis over the first face, mm.
    flat, edge : float
        EI bent over its thickness and over its width, N·mm².
    mass : float
        Grams, glue not counted.
    """

    thickness: float
    neutral: float
    flat: float
    edge: float
    mass: float


def figures_of(choice: Choice, woods: Mapping[str, Wood]) -> Figures:
    """Mass, EI and breaking moment of a piece: I = b h³/12, M = σ b h²/6.

    Raises
    ------
    BadInput
        For a material that is not in the table or a size that is not above zero.
    """
    wood = _wood(choice.material, woods)
    length, width, thick = choice.length, choice.width, choice.thickness
    if min(length, width, thick) <= 0:
        raise BadInput("size", "must be more than 0")
    modulus = (wood.stiffness if choice.along else wood.across) * _NMM2_PER_GPA_MM4
    flat = wood.flat(thick, along=choice.along) * _NMM2_PER_GPA_MM4
    strength = wood.strength * (1.0 if choice.along else wood.across / wood.stiffness)
    return Figures(
        mass=length * width * thick * wood.density * G_PER_MM3,
        flat=flat * width * thick**3 / 12,
        edge=modulus * thick * width**3 / 12,
        breaks_flat=wood.flat_strength(thick, along=choice.along) * width * thick**2 / 6,
        breaks_edge=strength * thick * width**2 / 6,
    )


def laminate_of(
    plies: Sequence[Ply], width: float, length: float, woods: Mapping[str, Wood]
) -> Laminate:
    """A laminate by the transformed section: each ply about the common neutral axis.

    EI = Σ (E₀ b t³/12 + E b t d²), E₀ of a ply sheet bent flat by itself; S. Timoshenko, "Strength of Materials", part I, 3rd ed. 1955,
    "beams of two materials".

    Raises
    ------
    BadInput
        For no plies, too many, an unknown material, or a size that is not above zero.
    """
    if not 0 < len(plies) <= MOST_PLIES:
        raise BadInput("plies", f"a laminate has 1 to {MOST_PLIES} plies")
    if min([width, length, *(ply.thickness for ply in plies)]) <= 0:
        raise BadInput("plies", "every thickness, width and length must be more than 0")
    rows = []
    height = 0.0
    for ply in plies:
        wood = _wood(ply.material, woods)
        modulus = (wood.stiffness if ply.along else wood.across) * _NMM2_PER_GPA_MM4
        bent = wood.flat(ply.thickness, along=ply.along) * _NMM2_PER_GPA_MM4
        rows.append((modulus, ply.thickness, height + ply.thickness / 2, wood.density, bent))
        height += ply.thickness
    stiff = sum(e * t for e, t, *_ in rows)
    neutral = sum(e * t * z for e, t, z, *_ in rows) / stiff
    return Laminate(
        thickness=height,
        neutral=neutral,
        flat=sum(
            width * (bent * t**3 / 12 + e * t * (z - neutral) ** 2) for e, t, z, _, bent in rows
        ),
        edge=stiff * width**3 / 12,
        mass=sum(t * density for _, t, _, density, _ in rows) * width * length * G_PER_MM3,
    )


def _wood(material: str, woods: Mapping[str, Wood]) -> Wood:
    wood = woods.get(material)
    if wood is None:
        raise BadInput("material", f'"{material}" is not in the table')
    return wood
