"""Every flat piece of a fuselage that is cut from sheet."""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from functools import lru_cache
from typing import Final

import numpy as np

from hardkeel.base.values import Point2
from hardkeel.fuselage.cutting import cut_shape
from hardkeel.fuselage.flatwork import flatwork_of
from hardkeel.fuselage.gussets import gussets_of
from hardkeel.fuselage.model import Former, Fuselage
from hardkeel.fuselage.notching import Around, around_of
from hardkeel.fuselage.planking import planks_of
from hardkeel.fuselage.sheeted import blanks_of
from hardkeel.fuselage.sheeting import skins_of
from hardkeel.fuselage.standing import USUAL_FORMER_MM
from hardkeel.geometry.polygons import shapely
from hardkeel.joinery.flat import FlatPiece, Mark, with_shape

_TICK_MM: Final = 3.0
_HAIR_MM: Final = 0.05
_CENTRE_OVER_MM: Final = 4.0  # a centre mark is seen beside the wood


def pieces_of(fuselage: Fuselage, seats: Sequence[Mark] = ()) -> tuple[FlatPiece, ...]:
    """Formers, sides and doublers, crutch, keels and plates, hatch frames, gussets, sheeting.

    Parameters
    ----------
    seats : sequence of Mark
        Lines where wings sit, drawn on the sides.

    Raises
    ------
    BadInput
        When there are fewer than two stations, or a former's own outline crosses itself.
    """
    found: list[FlatPiece] = []
    for _, stop in fuselage.stations:
        if isinstance(stop, Former):
            found += former_pieces(fuselage, stop)
    found += blanks_of(fuselage, seats)
    found += flatwork_of(fuselage)
    found += gussets_of(fuselage)
    for skin in skins_of(fuselage):
        found += skin.panels
    return tuple(found)


def former_pieces(fuselage: Fuselage, former: Former) -> tuple[FlatPiece, ...]:
    """The pieces that a former is cut in: one, or those a crutch or a cut on the centre line leaves.

    One built of sticks is none: it is in the cut list.
    """
    around = around_of(fuselage, former)
    pieces = _former_pieces(former, around)
    planked = planks_of(fuselage)
    edges = dict(planked.ends).get(former.id, ())
    if not edges:
        return pieces
    return _ticked(pieces, edges, dict(planked.reaching)[former.id], around.skins[0])


@lru_cache(maxsize=512)
def _ticked(
    pieces: tuple[FlatPiece, ...],
    edges: tuple[Point2, ...],
    numbers: tuple[int, ...],
    skin: float,
) -> tuple[FlatPiece, ...]:
    """Where planks meet on a former's edge, numbered from the keel: a line inward from the wood's edge."""
    points = np.array(edges)
    runs = np.gradient(points, axis=0)
    size = np.maximum(np.hypot(*runs.T), 1e-9)[:, None]
    inward = np.column_stack([-runs[:, 1], runs[:, 0]]) / size
    lines = np.stack([points + skin * inward, points + (skin + _TICK_MM) * inward], axis=1)
    both = np.stack([lines, lines * (-1.0, 1.0)], axis=1).reshape(-1, 2, 2)
    strings = shapely.linestrings(both)
    words = ("", *(str(one) for one in numbers))
    found = []
    for piece in pieces:
        wood = piece.polygon.buffer(_HAIR_MM)
        shapely.prepare(wood)
        marks = tuple(
            Mark("plank", tuple((float(y), float(z)) for y, z in both[i].tolist()), words[i // 2])
            for i in np.flatnonzero(shapely.contains(wood, strings)).tolist()
        )
        found.append(replace(piece, marks=(*piece.marks, *marks)))
    return tuple(found)


@lru_cache(maxsize=512)
def _former_pieces(former: Former, around: Around) -> tuple[FlatPiece, ...]:
    """What only this former and what passes it decide, so that it is cut anew only when that is another."""
    return tuple(_cut(former, around))


def _cut(former: Former, around: Around) -> Iterator[FlatPiece]:
    if former.sticks is not None:
        return
    # what would break is told where it is looked at, not where it is cut
    shape = cut_shape(former, around, not former.lightened)
    several = len(shape.pieces) > 1
    for number, rings in enumerate(shape.pieces, start=1):
        zs = [z for _, z in rings[0]]
        low, high = min(zs), max(zs)
        ys = [y for y, _ in rings[0]]
        marks: tuple[Mark, ...] = ()
        if min(ys) < 0 < max(ys):
            ends = (0.0, low - _CENTRE_OVER_MM), (0.0, high + _CENTRE_OVER_MM)
            marks = (Mark("centre", ends),)
        if low < 0 < high:
            marks += (Mark("drawn", ((min(ys), 0.0), (max(ys), 0.0)), "datum"),)
        piece = FlatPiece(
            name=f"{former.id} {'abcdefghij'[number - 1]}" if several else former.id,
            kind="former",
            part=former.id,
            outline=rings[0],
            holes=tuple(rings[1:]),
            marks=marks,
            thickness=former.thickness or USUAL_FORMER_MM,
            material=former.material,
            # of sheet its grain lies across, like the part's
            grain="any" if is_ply(former.material) else "u",
        )
        wood = piece.polygon
        made = piece if wood.is_valid else with_shape(piece, wood)
        if made.outline:
            yield made


def is_ply(material: str | None) -> bool:
    """Whether a wood may lie either way: its grains cross, or it has none."""
    return material is not None and ("ply" in material or material.startswith("foam"))
