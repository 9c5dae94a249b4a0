"""Everything that is cut for a surface: sticks, and flat pieces for sheet."""

from collections.abc import Mapping
from dataclasses import replace
from functools import lru_cache
from types import MappingProxyType
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.geometry.polygons import shapely
from hardkeel.joinery.cut_part import CutPart
from hardkeel.joinery.flat import FlatPiece, Mark, ring_of
from hardkeel.tail.controls import hinge_places, thickness_at_hinge
from hardkeel.tail.foam import core_of, core_volume, edge_strips, skin_pieces
from hardkeel.tail.laminating import lamination_of
from hardkeel.tail.lofting import Profiles, rib_places
from hardkeel.tail.model import TailSurface
from hardkeel.tail.planform import planform_of
from hardkeel.tail.ribs import hinge_x, rib_pieces, spar_size, spar_x
from hardkeel.tail.stacking import stack_of
from hardkeel.tail.stick_frame import frame_cut_list, frame_thickness, stick_frame_of

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
    if surface.kind == "stick":
        laminated = surface.tip is not None and surface.tip.shape == "laminated"
        parts = [part for part in frame_cut_list(surface) if not (laminated and part.kind == "tip")]
        return (*parts, *_laminations(surface))
    if surface.kind == "ribbed":
        return (*_running(surface, profiles), *_tubes(surface), *_laminations(surface))
    if surface.kind == "foam":
        return (*_foam_strips(surface, profiles), *_tubes(surface))
    return ()


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
    if surface.kind == "stick":
        pieces += stick_frame_of(surface).gussets
    if surface.kind == "ribbed":
        pieces += rib_pieces(surface, profiles)
    if surface.kind in ("ribbed", "foam"):
        pieces += skin_pieces(surface, profiles)
        pieces += _templates(surface, profiles)
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


def _templates(surface: TailSurface, profiles: Profiles) -> list[FlatPiece]:
    rings: list[tuple[str, tuple[tuple[float, float], ...]]] = []
    if surface.kind == "ribbed" and len(rib_places(surface)) > 1:
        stack = stack_of(surface, profiles)
        rings = [("root template", stack.root), ("tip template", stack.tip)]
    if surface.kind == "foam":
        core = core_of(surface, profiles)
        if core is not None:
            rings = [("root core template", core.root), ("tip core template", core.tip)]
    return [
        FlatPiece(
            name=f"{surface.id} {words}",
            kind="template",
            part=surface.id,
            outline=ring_of(ring),
            marks=(Mark("centre", ((0.0, 0.0), (max(x for x, _ in ring), 0.0)), "chord line"),),
            thickness=_TEMPLATE_MM,
            material=MATERIAL_OF_TEMPLATES,
            grain="u",
        )
        for words, ring in rings
    ]


def _running(surface: TailSurface, profiles: Profiles) -> list[CutPart]:
    """Edges and spars of a ribbed surface, from the middle to the last rib that they pass.

    Hinge edges are as high as the highest rib at the hinge line: they are sanded down to the others.
    """
    planform = planform_of(surface)
    places = rib_places(surface)
    if not places:
        return []
    end, sides = places[-1], 1 if surface.upright else 2
    if end <= 0:
        raise BadInput(f"tail {surface.id}.span", "is too small: no rib stands beside the middle")
    found = []
    edges = (
        ("leading edge", surface.leading_edge, planform.leading),
        ("trailing edge", surface.trailing_edge, planform.trailing),
    )
    for words, stock, line in edges:
        if stock is None:
            continue
        ys = sorted({0.0, *(float(y) for y in planform.ys if y < end), end})
        length = float(shapely.LineString([(float(line(y)), y) for y in ys]).length)
        found.append(_part(surface, words, "edge", sides, (stock[1], stock[0]), length))
    for spar in surface.spars:
        reach = [
            y for y in places if spar_x(surface, spar.at_chord, y) - float(planform.leading(y)) > 0
        ]
        y = reach[-1]
        run = spar_x(surface, spar.at_chord, y) - spar_x(surface, spar.at_chord, 0.0)
        wide, deep = spar_size(spar, 0.0)
        part = _part(
            surface, f"{spar.id} spar", "spar", sides, (deep, wide), (y**2 + run**2) ** 0.5
        )
        found.append(replace(part, material=spar.material or surface.material))
    if surface.hinge_at_chord is not None and surface.hinge_edge is not None:
        high = max(thickness_at_hinge(surface, profiles, y) for y in places)
        for words in ("fixed hinge edge", "moving hinge edge"):
            run = (hinge_x(surface, end) or 0.0) - (hinge_x(surface, 0.0) or 0.0)
            size = (high, surface.hinge_edge)
            found.append(_part(surface, words, "edge", sides, size, (end**2 + run**2) ** 0.5))
    return found


def _tubes(surface: TailSurface) -> list[CutPart]:
    return [
        CutPart(
            f"{surface.id} {tube.id}",
            "tube",
            1,
            (tube.diameter, tube.diameter),
            tube.length,
            _SQUARE,
            tube.material or "carbon-strip",
            key=f"{surface.id} {tube.id}",
            member=surface.id,
        )
        for tube in surface.tubes
    ]


def _laminations(surface: TailSurface) -> list[CutPart]:
    made = lamination_of(surface)
    if made is None:
        return []
    sides = 1 if surface.upright else 2
    size = (frame_thickness(surface), made.strip)
    return [_part(surface, "tip strip", "lamination", made.layers * sides, size, made.length)]


def _foam_strips(surface: TailSurface, profiles: Profiles) -> list[CutPart]:
    sides = 1 if surface.upright else 2
    parts = [
        _part(surface, one.name, "edge", sides, (one.section[1], one.section[0]), one.length)
        for one in edge_strips(surface, profiles)
    ]
    # edges are of wood, whatever the core is
    return [replace(part, material=surface.skin_material or _EDGES_OF_FOAM) for part in parts]


def _part(
    surface: TailSurface,
    words: str,
    kind: str,
    quantity: int,
    section: tuple[float, float],
    length: float,
) -> CutPart:
    name = f"{surface.id} {words}"
    return CutPart(
        name, kind, quantity, section, length, (), surface.material, key=name, member=surface.id
    )


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

    if surface.kind == "stick":
        frame = stick_frame_of(surface)
        add(surface.material, frame.area * frame.thickness)
    elif surface.kind == "foam":
        add(
            "foam-white" if surface.material is None else surface.material,
            core_volume(surface, profiles),
        )
    for part in () if surface.kind == "stick" else cut_list_of_tail(surface, profiles):
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
