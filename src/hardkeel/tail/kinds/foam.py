"""A core of foam, of sheet or cut between templates, with wooden edges, tubes and skins."""

from collections.abc import Iterator
from dataclasses import replace
from typing import Final

from hardkeel.geometry.polygons import shapely
from hardkeel.joinery.cut_part import CutPart
from hardkeel.joinery.flat import FlatPiece
from hardkeel.joinery.order_step import OrderStep
from hardkeel.tail.foam import core_of, core_volume, edge_strips, skin_pieces
from hardkeel.tail.kinds.kind import Drawn, TailKind
from hardkeel.tail.lofting import Profiles
from hardkeel.tail.model import TailSurface, Tube
from hardkeel.tail.planform import planform_of
from hardkeel.tail.running import tail_part, template_of, tube_parts
from hardkeel.tail.seen_above import edges_above, pieces_above, tubes_above

_FOAM: Final = "foam-white"
_EDGES: Final = "balsa-medium"
_TUBE_AT: Final = 0.3
_TUBE_MM: Final = 6.0


def _usual(surface: TailSurface) -> dict[str, object]:
    tube = Tube(id="main tube", at_chord=_TUBE_AT, diameter=_TUBE_MM, length=round(surface.half))
    return {
        "thickness": 6.0,
        "skin_material": _EDGES,
        "leading_edge": (5.0, 6.0),
        "trailing_edge": (6.0, 6.0),
        "hinge_edge": 5.0,
        "tubes": () if surface.upright else (tube,),
    }


def _order(surface: TailSurface) -> tuple[OrderStep, ...]:
    steps = [
        OrderStep("cut", (), panel=True, figures={"hands_minutes": 40.0, "hazards": ("foam", "blade")})
    ]  # fmt: skip
    glued = {"glue": "slow epoxy", "hazards": ("epoxy",), "no_return": True}
    if surface.tubes:
        steps.append(
            OrderStep("tubes", ("cut",), looks=True, figures={"hands_minutes": 20.0, **glued})
        )
    if surface.skin:
        steps.append(
            OrderStep(
                "skin", ("cut", "tubes"), looks=True, figures={"hands_minutes": 40.0, **glued}
            )
        )
    edges = {"hands_minutes": 40.0, "glue": "aliphatic", "hazards": ("dust", "blade")}
    steps.append(OrderStep("edges", ("cut", "skin"), figures=edges))
    steps.append(
        OrderStep("flat", ("edges",), figures={"hands_minutes": 10.0, "needs": ("board",)})
    )
    return tuple(steps)


def _cut(surface: TailSurface, profiles: Profiles) -> tuple[CutPart, ...]:
    return (*_strips(surface, profiles), *tube_parts(surface))


def _strips(surface: TailSurface, profiles: Profiles) -> list[CutPart]:
    sides = 1 if surface.upright else 2
    parts = [
        tail_part(surface, one.name, "edge", sides, (one.section[1], one.section[0]), one.length)
        for one in edge_strips(surface, profiles)
    ]
    # edges are of wood, whatever the core is
    return [replace(part, material=surface.skin_material or _EDGES) for part in parts]


def _flat(surface: TailSurface, profiles: Profiles) -> tuple[FlatPiece, ...]:
    core = core_of(surface, profiles)
    templates: tuple[FlatPiece, ...] = ()
    if core is not None:
        templates = (
            template_of(surface, "root core template", core.root),
            template_of(surface, "tip core template", core.tip),
        )
    return (*skin_pieces(surface, profiles), *templates)


def _core(surface: TailSurface, profiles: Profiles) -> dict[str | None, float]:
    return {surface.material or _FOAM: core_volume(surface, profiles)}


def _drawn(surface: TailSurface, _profiles: Profiles) -> Iterator[Drawn]:
    ring = tuple((y, x) for x, y in planform_of(surface).ring)
    yield Drawn(surface.id, ring, surface.skin_material if surface.skin else _FOAM)
    tip = surface.tip
    end = surface.half - (tip.length if tip is not None else 0.0)
    yield from edges_above(surface, end, surface.skin_material)
    if tip is not None:
        block = shapely.Polygon(planform_of(surface).ring).intersection(
            shapely.box(-1e4, end, 1e4, 1e4)
        )
        yield from pieces_above(f"{surface.id} tip block", block, 90.0, surface.skin_material)
    yield from tubes_above(surface)


KIND: Final = TailKind(
    name="foam",
    wood=_FOAM,
    has=frozenset({"even", "section", "core", "skin", "tubes", "stock heights"}),
    usual=_usual,
    order=_order,
    cut=_cut,
    flat=_flat,
    core=_core,
    drawn=_drawn,
    lofted=lambda surface: surface.root_profile is not None,
)
