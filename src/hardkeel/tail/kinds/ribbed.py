"""Ribs between edges, on spars, with or without skins; sections at root and tip."""

from collections.abc import Iterator
from dataclasses import replace
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.geometry.polygons import shapely
from hardkeel.joinery.cut_part import CutPart
from hardkeel.joinery.flat import FlatPiece, ring_of
from hardkeel.joinery.order_step import OrderStep
from hardkeel.tail.controls import thickness_at_hinge
from hardkeel.tail.foam import skin_pieces
from hardkeel.tail.kinds.kind import Drawn, TailKind
from hardkeel.tail.lofting import Profiles, even_ribs, rib_places
from hardkeel.tail.model import TailSpar, TailSurface, Tube
from hardkeel.tail.planform import planform_of
from hardkeel.tail.ribs import CutRib, cut_ribs, hinge_x, rib_pieces, spar_size, spar_x
from hardkeel.tail.running import lamination_strips, tail_part, template_of, tube_parts
from hardkeel.tail.seen_above import edges_above, tubes_above
from hardkeel.tail.stacking import stack_of

_RIB_EVERY_MM: Final = 40.0
_SPAR_AT: Final = 0.3
_SPAR_MM: Final = (3.0, 3.0)
_HAIR_MM: Final = 1e-6
_PIVOT_MM, _PIN_MM, _PIN_LONG_MM = 4.0, 2.0, 90.0
_PIVOT_REACH: Final = 1.0  # of the half span, both sides together
_PIN_BEHIND, _PIN_FURTHEST = 0.35, 0.75  # of the chord
_OVERNIGHT: Final = 720.0
_SEEN_RIB_MM: Final = 2.5  # a rib on edge is drawn this thick at least


def _usual(_surface: TailSurface) -> dict[str, object]:
    return {
        "root_profile": "thin",
        "leading_edge": (6.0, 8.0),
        "trailing_edge": (10.0, 3.0),
        "hinge_edge": 4.0,
        "spars": (
            TailSpar(id="top", at_chord=_SPAR_AT, section=_SPAR_MM),
            TailSpar(id="bottom", at_chord=_SPAR_AT, section=_SPAR_MM, face="bottom"),
        ),
    }


def _completed(surface: TailSurface) -> TailSurface:
    if surface.all_moving and not surface.tubes:
        surface = surface.but(tubes=_pivoted(surface))
    if surface.ribs:
        return surface
    return surface.but(ribs=even_ribs(surface, max(2, round(surface.half / _RIB_EVERY_MM) + 1)))


def _pivoted(surface: TailSurface) -> tuple[Tube, ...]:
    """A pivot tube through the middle, and behind it the pin that turns it, as far as the second rib."""
    at = surface.pivot_at_chord or 0.0
    behind = min(at + _PIN_BEHIND, _PIN_FURTHEST)
    return (
        Tube(
            id="pivot", at_chord=at, diameter=_PIVOT_MM, length=round(_PIVOT_REACH * surface.half)
        ),
        Tube(id="drive pin", at_chord=behind, diameter=_PIN_MM, length=_PIN_LONG_MM),
    )


def _standing(surface: TailSurface) -> str:
    """On what its ribs stand while they are glued."""
    if surface.feet:
        return "feet"
    return "spar" if any(spar.face == "bottom" for spar in surface.spars) else "strips"


def _order(surface: TailSurface) -> tuple[OrderStep, ...]:
    steps = [
        OrderStep("cut", (), panel=True, figures={"hands_minutes": 60.0, "hazards": ("blade", "dust")}),
        OrderStep("slots", ("cut",), looks=True, figures={"hands_minutes": 25.0, "hazards": ("blade",)}),
        OrderStep(
            _standing(surface), ("slots",), panel=True, looks=not surface.feet,
            figures={"hands_minutes": 20.0, "needs": ("board",), "hazards": ("pins",)},
        ),
        OrderStep(
            "glue", (_standing(surface),), looks=True,
            figures={"hands_minutes": 30.0, "glue": "aliphatic", "needs": ("board",)},
        ),
        OrderStep(
            "flat", ("glue",), looks=True,
            figures={
                "hands_minutes": 10.0,
                "handle_minutes": _OVERNIGHT,  # it lies under weight, and the board with it
                "cure_minutes": _OVERNIGHT,
                "needs": ("board",),
            },
        ),
    ]  # fmt: skip
    if surface.skin or (surface.centre_skin and surface.centre_sheet):
        figures = {"hands_minutes": 40.0, "glue": "aliphatic", "no_return": True}
        steps.append(OrderStep("skin", ("flat",), looks=True, figures=figures))
    return tuple(steps)


def _cut(surface: TailSurface, profiles: Profiles) -> tuple[CutPart, ...]:
    return (
        *_running(surface, profiles),
        *_capstrips(surface, profiles),
        *tube_parts(surface),
        *lamination_strips(surface),
    )


def _flat(surface: TailSurface, profiles: Profiles) -> tuple[FlatPiece, ...]:
    templates: tuple[FlatPiece, ...] = ()
    if len(rib_places(surface)) > 1:
        stack = stack_of(surface, profiles)
        templates = (
            template_of(surface, "root template", stack.root),
            template_of(surface, "tip template", stack.tip),
        )
    return (
        *rib_pieces(surface, profiles),
        *skin_pieces(surface, profiles),
        *_centre_sheets(surface),
        *templates,
    )


def _capstrips(surface: TailSurface, profiles: Profiles) -> list[CutPart]:
    """Strips over and under every rib that is not sheeted, as long as its wood between the edges."""
    if surface.capstrip is None or surface.skin:
        return []
    wide, thick = surface.capstrip
    found = []
    sides = 1 if surface.upright else 2
    number = 0
    for rib in cut_ribs(surface, profiles):
        number += not rib.half
        y = rib.lofted.y
        if rib.half or not rib.fixed or (y < surface.centre_sheet and surface.centre_skin):
            continue
        reach = [x for ring in (*rib.fixed, *rib.moving) for x, _ in ring]
        hands = 1 if y < _HAIR_MM else sides
        words = f"capstrips of rib {number}"
        found.append(
            tail_part(surface, words, "capstrip", 2 * hands, (thick, wide), max(reach) - min(reach))
        )
    return found


def _centre_sheets(surface: TailSurface) -> list[FlatPiece]:
    """Sheet over and under the middle, from edge stock to edge stock, both halves in one."""
    reach = min(surface.centre_sheet, surface.half)
    if not surface.centre_skin or surface.skin or reach <= 0:
        return []
    planform = planform_of(surface)
    front = surface.leading_edge[0] if surface.leading_edge is not None else 0.0
    rear = surface.trailing_edge[0] if surface.trailing_edge is not None else 0.0
    ys = [0.0, *(float(y) for y in planform.ys if 0 < y < reach), reach]
    lead = [(float(planform.leading(y)) + front, y) for y in ys]
    trail = [(float(planform.trailing(y)) - rear, y) for y in ys]
    half = [*lead, *reversed(trail)]
    whole = half if surface.upright else [*half, *((x, -y) for x, y in [*trail, *reversed(lead)])]
    outline = ring_of(whole)
    if not outline:
        return []
    return [
        FlatPiece(
            name=f"{surface.id} centre sheet",
            kind="skin",
            part=surface.id,
            outline=outline,
            thickness=surface.centre_skin,
            material=surface.skin_material or surface.material,
            quantity=2,
            grain="v",
        )
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
        found.append(tail_part(surface, words, "edge", sides, (stock[1], stock[0]), length))
    for spar in surface.spars:
        reach = [
            y for y in places if spar_x(surface, spar.at_chord, y) - float(planform.leading(y)) > 0
        ]
        y = reach[-1]
        run = spar_x(surface, spar.at_chord, y) - spar_x(surface, spar.at_chord, 0.0)
        wide, deep = spar_size(spar, 0.0)
        part = tail_part(
            surface, f"{spar.id} spar", "spar", sides, (deep, wide), (y**2 + run**2) ** 0.5
        )
        found.append(replace(part, material=spar.material or surface.material))
    if surface.hinge_at_chord is not None and surface.hinge_edge is not None:
        high = max(thickness_at_hinge(surface, profiles, y) for y in places)
        for words in ("fixed hinge edge", "moving hinge edge"):
            run = (hinge_x(surface, end) or 0.0) - (hinge_x(surface, 0.0) or 0.0)
            size = (high, surface.hinge_edge)
            found.append(tail_part(surface, words, "edge", sides, size, (end**2 + run**2) ** 0.5))
    return found


def _drawn(surface: TailSurface, profiles: Profiles) -> Iterator[Drawn]:
    places = rib_places(surface)
    end = places[-1] if places else surface.half
    yield from edges_above(surface, end, surface.material)
    for number, rib in enumerate(cut_ribs(surface, profiles), start=1):
        yield from _on_edge(surface, rib, number)
    for spar in surface.spars:
        if spar.face == "bottom":
            continue
        a, b = (spar_x(surface, spar.at_chord, y) for y in (0.0, end))
        w0, w1 = (spar_size(spar, y / surface.half)[0] / 2 for y in (0.0, end))
        ring = ((0.0, a - w0), (end, b - w1), (end, b + w1), (0.0, a + w0))
        yield Drawn(f"{surface.id} {spar.id} spar", ring, spar.material or surface.material)
    yield from tubes_above(surface)


def _on_edge(surface: TailSurface, rib: CutRib, number: int) -> Iterator[Drawn]:
    thick = max(surface.rib_thickness, _SEEN_RIB_MM) / 2
    lead, y = rib.lofted.le_x, rib.lofted.y
    low = max(y - thick, 0.0) if not surface.upright else y
    for ring in (*rib.fixed, *rib.moving):
        xs = [x for x, _ in ring]
        a, b = lead + min(xs), lead + max(xs)
        shape = ((low, a), (y + thick, a), (y + thick, b), (low, b))
        yield Drawn(f"rib {number}", shape, surface.material, 90.0)


KIND: Final = TailKind(
    name="ribbed",
    wood="balsa-medium",
    has=frozenset({"section", "ribs", "skin", "tubes", "stock heights", "washout"}),
    usual=_usual,
    completed=_completed,
    order=_order,
    cut=_cut,
    flat=_flat,
    core=lambda _surface, _profiles: {},
    drawn=_drawn,
    lofted=lambda _surface: True,
)
