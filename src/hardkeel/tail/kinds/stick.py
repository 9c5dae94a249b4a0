"""A flat frame of sticks: edges, cross-sticks and diagonals, gussets in its corners."""

import math
from collections.abc import Iterator
from typing import Final

from hardkeel.joinery.cut_part import CutPart
from hardkeel.joinery.flat import FlatPiece
from hardkeel.joinery.order_step import OrderStep
from hardkeel.tail.kinds.kind import Drawn, TailKind
from hardkeel.tail.lofting import Profiles
from hardkeel.tail.model import TailBracing, TailSurface
from hardkeel.tail.running import lamination_strips
from hardkeel.tail.stick_frame import frame_cut_list, stick_frame_of

_CENTRE_MM: Final = 40.0
_CENTRE_OF_A_FIN_MM: Final = 10.0
_OVERNIGHT: Final = 720.0


def _usual(surface: TailSurface) -> dict[str, object]:
    return {
        "leading_edge": (8.0, 5.0),
        "trailing_edge": (8.0, 5.0),
        "thickness": 5.0,
        "bracing": TailBracing(pattern="zigzag"),
        "centre": _CENTRE_OF_A_FIN_MM if surface.upright else _CENTRE_MM,
    }


def _order(surface: TailSurface) -> tuple[OrderStep, ...]:
    key = "cut.upright" if surface.upright else ""  # it has no halves
    return (
        OrderStep("cut", (), key=key, panel=True, figures={"hands_minutes": 40.0, "hazards": ("blade",)}),
        OrderStep(
            "pin", ("cut",), panel=True, looks=True,
            figures={"hands_minutes": 25.0, "hazards": ("pins",), "needs": ("board",)},
        ),
        OrderStep(
            "glue", ("pin",), looks=True,
            figures={"hands_minutes": 25.0, "glue": "aliphatic", "needs": ("board",)},
        ),
        OrderStep(
            "flat", ("glue",), looks=True,
            figures={
                "hands_minutes": 10.0,
                "handle_minutes": _OVERNIGHT,  # it lies under weight, and the board with it
                "cure_minutes": _OVERNIGHT,
                "needs": ("board",),
                "no_return": True,
            },
        ),
    )  # fmt: skip


def _cut(surface: TailSurface, _profiles: Profiles) -> tuple[CutPart, ...]:
    laminated = surface.tip is not None and surface.tip.shape == "laminated"
    parts = [part for part in frame_cut_list(surface) if not (laminated and part.kind == "tip")]
    return (*parts, *lamination_strips(surface))


def _flat(surface: TailSurface, _profiles: Profiles) -> tuple[FlatPiece, ...]:
    return tuple(stick_frame_of(surface).gussets)


def _core(surface: TailSurface, _profiles: Profiles) -> dict[str | None, float]:
    frame = stick_frame_of(surface)
    return {surface.material: frame.area * frame.thickness}


def _drawn(surface: TailSurface, _profiles: Profiles) -> Iterator[Drawn]:
    frame = stick_frame_of(surface)
    for corner in frame.corners:
        ring = tuple((y, x) for x, y in (corner.at, corner.across, corner.along))
        yield Drawn(f"{surface.id} gussets", ring, surface.material, 45.0)
    for piece in frame.pieces:
        ring = tuple((y, x) for x, y in piece.strip.outline)
        (x0, y0), (x1, y1) = piece.ends_at
        grain = math.degrees(math.atan2(x1 - x0, y1 - y0))
        yield Drawn(piece.key, ring, surface.material, grain)


KIND: Final = TailKind(
    name="stick",
    wood="balsa-medium",
    has=frozenset({"bracing", "even"}),
    usual=_usual,
    order=_order,
    cut=_cut,
    flat=_flat,
    core=_core,
    weighs_cut=False,
    drawn=_drawn,
    lofted=lambda _surface: False,
)
