"""Airframes to start from, scaled by span and length."""

from dataclasses import dataclass
from typing import Final

from hardkeel.airframe.figures import (
    NOSE_SHARE,
    SHORTEST_NOSE_MM,
    Figures,
    FuselageName,
    build_from,
)
from hardkeel.base.errors import BadInput
from hardkeel.project.model import Build

_SHORTEST_SHARE: Final = 0.45  # of the span: shorter, wing and tail would run into each other
_LONGEST_SHARE: Final = 1.6  # longer, the nose is drawn out beyond any kind that is built here
# Tails in proportion to the span.  With the arm that the length leaves they give a tail volume of 0.65 to
# 0.81 and a fin volume of 0.031 to 0.035 (with both wings of the biplane counted, 0.39 and 0.018): on the
# steady side of what sport models have, for a first flight forgives a tail too large, not one too small.
_TAIL_CHORD: Final = 0.092
_STAB_SPAN: Final = 0.345
_FIN_HEIGHT: Final = 0.115
_FIN_CHORD: Final = 0.1
_BEHIND_QUARTER: Final = (
    0.75  # of the stabilizer's chord lies aft of its quarter: the length ends there
)


@dataclass(frozen=True, slots=True)
class Starter:
    """A kind of airframe.

    Attributes
    ----------
    length : float
        Usual length as a share of the span.
    """

    id: str
    fuselage: FuselageName
    length: float = 0.77
    chord: float = 0.16
    taper: float = 0.88
    dihedral: float = 3.0
    incidence: float = 1.5
    two_wings: bool = False


STARTERS: Final[tuple[Starter, ...]] = (
    Starter("stick", "stick", 0.80, 0.15, 0.9, 5.0, 2.0),
    Starter("sheet-box", "sheet-box"),
    Starter("crutch", "crutch", 0.78, 0.16, 0.7, 2.0, 1.0),
    Starter("board", "board", 0.76, 0.165, 0.65, 2.5, 1.0),
    Starter("biplane", "sheet-box", 0.86, 0.15, 1.0, 1.5, 1.0, two_wings=True),
)  # fmt: skip


def starter(starter_id: str) -> Starter:
    """The starter with this id.

    Raises
    ------
    BadInput
        When there is none.
    """
    for one in STARTERS:
        if one.id == starter_id:
            return one
    raise BadInput("starter", f'there is no "{starter_id}"')


def start_from(
    starter_id: str,
    span: float,
    length: float,
    name: str = "My model",
) -> Build:
    """An airframe of a kind with this span and length over all, mm.

    Raises
    ------
    BadInput
        When span and length do not make a model.
    """
    kind = starter(starter_id)
    if not span > 0 or not length > 0:
        raise BadInput("span and length", "must be more than 0")
    if not _SHORTEST_SHARE * span <= length <= _LONGEST_SHARE * span:
        raise BadInput(
            "length",
            f"{length:g} does not go with a span of {span:g}: between "
            f"{_SHORTEST_SHARE * span:.0f} and {_LONGEST_SHARE * span:.0f}",
        )
    root, stab_chord = kind.chord * span, _TAIL_CHORD * span
    nose = max(NOSE_SHARE * span, SHORTEST_NOSE_MM)  # so that the first former stands at 0
    arm = length - nose - root / 4 - _BEHIND_QUARTER * stab_chord
    figures = Figures(
        name=name,
        fuselage=kind.fuselage,
        wings="two" if kind.two_wings else "one",
        wing_span=round(span, 1),
        wing_root=round(root, 1),
        wing_tip=round(root * kind.taper, 1),
        wing_le_x=round(nose, 1),
        wing_incidence=kind.incidence,
        wing_dihedral=kind.dihedral,
        tail_arm=round(arm, 1),
        stab_span=round(_STAB_SPAN * span, 1),
        stab_chord=round(stab_chord, 1),
        fin_height=round(_FIN_HEIGHT * span, 1),
        fin_chord=round(_FIN_CHORD * span, 1),
    )
    return build_from(figures)
