"""How much to mix for a joint, by weight or by volume, and what of it is wasted."""

from dataclasses import dataclass
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.glue.kinds import Glue

LEFT_IN_CUP_G: Final = 1.0  # what stays on cup and stick, by experience
LEAST_BATCH_G: Final = 4.0  # less than this no kitchen scale or cup divides well enough
# Density of usual resins and hardeners for models, g/ml, by their data sheets.
RESIN_DENSITY: Final = 1.15
HARDENER_DENSITY: Final = 1.02


@dataclass(frozen=True, slots=True)
class Mix:
    """What to put in the cup.

    Attributes
    ----------
    resin, hardener : float
        Grams, or millilitres where `by_volume`.
    needed, wasted : float
        Grams for the joint; grams that are thrown away.
    """

    resin: float
    hardener: float
    by_volume: bool
    needed: float
    wasted: float


def needed_for(glue: Glue, area_cm2: float) -> float:
    """Grams that a joint takes."""
    return glue.weight * area_cm2


def mix_for(glue: Glue, area_cm2: float, ratio: float, *, by_volume: bool) -> Mix:
    """Resin and hardener for a joint.

    Parameters
    ----------
    ratio : float
        Hardener for 100 of resin, by weight or by volume: a maker's two ratios differ.

    Raises
    ------
    BadInput
        When the area or the ratio is nothing.
    """
    if not area_cm2 > 0:
        raise BadInput("area", "must be more than nothing")
    if not ratio > 0:
        raise BadInput("ratio", "must be more than nothing")
    needed = needed_for(glue, area_cm2)
    grams = max(LEAST_BATCH_G, needed + LEFT_IN_CUP_G)
    if by_volume:
        # 100 ml of resin with `ratio` ml of hardener weigh this much
        whole = 100 * RESIN_DENSITY + ratio * HARDENER_DENSITY
        resin, hardener = 100 * grams / whole, ratio * grams / whole
    else:
        resin = grams * 100 / (100 + ratio)
        hardener = grams - resin
    return Mix(resin, hardener, by_volume, needed, grams - needed)


def weight_ratio(by_volume: float) -> float:
    """A ratio by volume as one by weight, at usual densities: for a look whether a bottle's two ratios belong together."""
    return by_volume * HARDENER_DENSITY / RESIN_DENSITY
