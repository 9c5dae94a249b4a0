"""Everything that is cut for a surface: sticks, and flat pieces for sheet."""

from collections.abc import Mapping
from functools import lru_cache
from types import MappingProxyType
from typing import Final

from hardkeel.geometry.polygons import shapely
from hardkeel.joinery.cut_part import CutPart
from hardkeel.joinery.flat import FlatPiece, Mark, ring_of
from hardkeel.tail.controls import hinge_places
from hardkeel.tail.kinds.kind import kind_of
from hardkeel.tail.laminating import lamination_of
from hardkeel.tail.lofting import Profiles, rib_places
from hardkeel.tail.model import TailSurface
from hardkeel.tail.planform import planform_of
from hardkeel.tail.ribs import hinge_x, spar_x

_FORM_MM: Final = 12.0  # board that a tip is bent around
_TEMPLATE_MM: Final = 1.5  # ply that a stack is sanded between, a core is cut along
_SQUARE: Final = ((90.0,), (90.0,))
_EDGES_OF_FOAM: Final = "balsa-medium"
MATERIAL_OF_TEMPLATES: Final = "birch-ply"


def cut_list_of_tail(surface: TailSurface, profiles: Profiles) -> tuple[CutPart, ...]:
    """Every stick, spar, edge and tube of a surface; quantities multiplied out are all of it.

    Raises
    ------
    BadInput
        When a figure or a section is missing.
    """
    return kind_of(surface).cut(surface, profiles) if surface.kind is not None else ()


def flat_pieces_of_tail(surface: TailSurface, profiles: Profiles) -> tuple[FlatPiece, ...]:
    """Ribs, gussets, skins, templates and forms of a surface.

    Raises
    ------
    BadInput
        When a figure or a section is missing.
    """
    texts = tuple(
        (n, profiles[n]) for n in (surface.root_profile, surface.tip_profile) if n and n in profiles
    )
    return _flat(surface.but(flatness=()), texts)


@lru_cache(maxsize=32)
def _flat(surface: TailSurface, texts: tuple[tuple[str, str], ...]) -> tuple[FlatPiece, ...]:
    profiles = dict(texts)
    pieces: list[FlatPiece] = []
    if surface.kind is not None:
        pieces += kind_of(surface).flat(surface, profiles)
    lamination = lamination_of(surface)
    if lamination is not None:
        pieces.append(
            FlatPiece(
                name=f"{surface.id} form",
                kind="form",
                part=surface.id,
                outline=ring_of(lamination.form),
                thickness=_FORM_MM,
                material=None,
                grain="any",
            )
        )
    return tuple(pieces)


def drawn_whole(surface: TailSurface) -> FlatPiece:
    """The outline of one half with what is drawn on it: hinge line, hinges, horn, spars, and the bare strip."""
    planform = planform_of(surface)
    marks = [
        Mark("centre", ((float(planform.leading(0.0)), 0.0), (float(planform.trailing(0.0)), 0.0)))
    ]
    if surface.hinge_at_chord is not None:
        ends = [(hinge_x(surface, y) or 0.0, y) for y in (0.0, planform.half)]
        inside = shapely.LineString(ends).intersection(shapely.Polygon(planform.ring).buffer(1e-6))
        points = tuple((float(x), float(y)) for x, y in shapely.get_coordinates(inside))
        if len(points) > 1:
            marks.append(Mark("member", points, "hinge line"))
        for y in hinge_places(surface):
            x = hinge_x(surface, y) or 0.0
            marks.append(Mark("drawn", ((x - 8.0, y), (x + 8.0, y)), "hinge"))
        if surface.controls is not None:
            y = abs(surface.controls.linkage.y)
            x = hinge_x(surface, y) or 0.0
            marks.append(Mark("drawn", ((x, y), (x + 14.0, y)), "horn"))
    for spar in surface.spars:
        out = max(rib_places(surface), default=planform.half)
        ends = [(spar_x(surface, spar.at_chord, y), y) for y in (0.0, out)]
        marks.append(Mark("member", tuple(ends), f"{spar.id} spar"))
    bare = bare_width(surface)
    if bare:
        lead, trail = float(planform.leading(bare)), float(planform.trailing(bare))
        marks.append(
            Mark("seat", ((lead, bare), (trail, bare)), "bare wood from here in, both faces")
        )
    return FlatPiece(
        name=f"{surface.id} outline",
        kind="outline",
        part=surface.id,
        outline=planform.ring,
        marks=tuple(marks),
        quantity=1,
    )


def bare_width(surface: TailSurface) -> float:
    """How far from the middle the covering stays off, mm: half the seat, so that glue finds wood."""
    return 0.0 if surface.upright or surface.seat_width is None else surface.seat_width / 2


def wood_volume(surface: TailSurface, profiles: Profiles) -> Mapping[str | None, float]:
    """mm³ of each material in a surface, templates and forms left out.

    Raises
    ------
    BadInput
        When a figure or a section is missing.
    """
    return _wood_volume(surface, tuple(profiles.items()))


@lru_cache(maxsize=8)  # each edit of whatever else asks for the same again
def _wood_volume(
    surface: TailSurface, texts: tuple[tuple[str, str], ...]
) -> Mapping[str | None, float]:
    profiles = dict(texts)
    found: dict[str | None, float] = {}

    def add(material: str | None, volume: float) -> None:
        found[material] = found.get(material, 0.0) + volume

    if surface.kind is None:
        return MappingProxyType(found)
    kind = kind_of(surface)
    for material, volume in kind.core(surface, profiles).items():
        add(material, volume)
    for part in kind.cut(surface, profiles) if kind.weighs_cut else ():
        share = (
            0.25 if part.kind == "tube" else 1.0
        )  # a tube is hollow: wall a twelfth of its diameter
        add(
            part.material,
            share * part.section[0] * part.section[1] * part.length * part.quantity,
        )
    for piece in flat_pieces_of_tail(surface, profiles):
        if piece.kind not in ("template", "form"):
            add(piece.material, piece.area * piece.thickness * piece.quantity)
    return MappingProxyType(found)
