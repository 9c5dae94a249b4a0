"""How a tail can be arranged: stabilizer low or on the fin, as a V, two fins; each way leads to each other."""

from typing import Final, Literal

from hardkeel.base.errors import BadInput
from hardkeel.survey.model import role_by_id
from hardkeel.tail.model import TailSurface, stands_on_fin

Arrangement = Literal["usual", "t", "v", "twin"]
_V_DEGREES: Final = 35.0  # to either side: what V tails of models have
_UNDER_FIN_MM: Final = 6.0
_ARRANGED: Final = ("stabilizer", "vee")
# a fin in proportion to its stabilizer: height of the span, chord of the chord
_FIN_TALL: Final = 0.36
_FIN_DEEP: Final = 1.05
_FIN_TAPER: Final = 0.6
_FIN_SWEEP: Final = 0.35


def arranged(tail: tuple[TailSurface, ...], way: Arrangement) -> tuple[TailSurface, ...]:
    """The same tail another way; a fin that is wanted and was taken away is made anew in proportion.

    Raises
    ------
    BadInput
        When there is no stabilizer to arrange.
    """
    lying = next((one for one in tail if one.duty in _ARRANGED), None)
    fins = [one for one in tail if one.duty == "fin"]
    if lying is None:
        raise BadInput("", "there is no stabilizer to arrange")
    rest = tuple(one for one in tail if one is not lying and one not in fins)
    taken = {one.id for one in rest}
    if way == "v":
        name = _renamed(lying, "vee", taken)
        return (lying.but(id=name, dihedral=_V_DEGREES, role="vee"), *rest)
    flat = _laid_flat(lying, taken)
    fin = fins[0].but(y=0.0) if fins else _fin_for(flat)
    if way == "t":
        return (_on_top(flat, fin), _foremost(fin, lying, fins, flat), *rest)
    if stands_on_fin(flat, fin):
        flat = flat.but(z=round((fin.z or 0.0) - _UNDER_FIN_MM, 1))
    if way == "usual":
        return (flat, _foremost(fin, lying, fins, flat), *rest)
    out = round(flat.half, 1)
    place = {
        "le_x": round((flat.le_x or 0.0) + flat.sweep_le, 1),
        "z": round((flat.z or 0.0) + _UNDER_FIN_MM, 1),
    }
    pair = (fin.but(y=-out, **place), fin.but(id="fin_starboard", y=out, **place))
    return (flat, *pair, *rest)


def wanting(tail: tuple[TailSurface, ...]) -> tuple[str, ...]:
    """What a tail lacks to fly: something that trims, and something that keeps it straight."""
    duties = {one.duty for one in tail}
    lying = () if duties & {"stabilizer", "vee", "foreplane"} else ("stab",)
    return lying if duties & {"fin", "vee"} else (*lying, "fin")


def arrangement(tail: tuple[TailSurface, ...]) -> Arrangement:
    """How a tail is arranged now."""
    lying = next((one for one in tail if one.duty in _ARRANGED), None)
    fins = [one for one in tail if one.duty == "fin"]
    if lying is not None and lying.duty == "vee":
        return "v"
    if len(fins) > 1:
        return "twin"
    on_fin = lying is not None and any(stands_on_fin(lying, one) for one in fins)
    return "t" if on_fin else "usual"


def _on_top(flat: TailSurface, fin: TailSurface) -> TailSurface:
    """A stabilizer on top of a fin, their rear edges one over the other."""
    if fin.z is None:
        return flat
    back = (fin.le_x or 0.0) + fin.sweep_le + fin.tip_size
    return flat.but(z=round(fin.z + fin.half, 1), le_x=round(back - (flat.root_chord or 0.0), 1))


def _foremost(
    fin: TailSurface, lying: TailSurface, fins: list[TailSurface], flat: TailSurface
) -> TailSurface:
    """One of two fins goes back to the middle, over the stabilizer's end; a single one stays."""
    if len(fins) < 2 or lying.duty == "vee":  # noqa: PLR2004  a single one
        return fin
    end = (flat.le_x or 0.0) + (flat.root_chord or 0.0)
    return fin.but(le_x=round(end - (fin.root_chord or 0.0), 1))


def _renamed(surface: TailSurface, name: str, taken: set[str]) -> str:
    """Our own ids follow what a surface becomes; the builder's stay."""
    return name if surface.id in ("stab", "vee") and name not in taken else surface.id


def _laid_flat(lying: TailSurface, taken: set[str]) -> TailSurface:
    """As a stabilizer, flat where it was a V."""
    name = _renamed(lying, "stab", taken)
    flat = 0.0 if lying.duty == "vee" or lying.dihedral == _V_DEGREES else lying.dihedral
    role = None if role_by_id(name) == "stabilizer" else "stabilizer"
    return lying.but(id=name, dihedral=flat, role=role)


def _fin_for(lying: TailSurface) -> TailSurface:
    """A fin in proportion to a stabilizer, its rear edge over that of the stabilizer."""
    chord = _FIN_DEEP * (lying.root_chord or 0.0)
    end = (lying.le_x or 0.0) + (lying.root_chord or 0.0)
    return TailSurface(
        id="fin",
        span=round(2 * _FIN_TALL * (lying.span or 0.0), 1),
        root_chord=round(chord, 1),
        tip_chord=round(_FIN_TAPER * chord, 1),
        sweep_le=round(_FIN_SWEEP * chord, 1),
        le_x=round(end - chord, 1),
        z=round((lying.z or 0.0) + _UNDER_FIN_MM, 1),
        upright=True,
    )
