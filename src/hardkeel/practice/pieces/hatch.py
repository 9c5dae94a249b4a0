"""A hatch, what lies under it, and the pack that is to go through both."""

import numpy as np

from hardkeel.geometry.hull import Point2
from hardkeel.geometry.rotation import Array
from hardkeel.practice.pieces.piece import Asked, Believed, Look, Piece, Role, Stroke


def hatch(rng: np.random.Generator) -> Piece:
    """From above, at the line of the hatch; unknowns, mm.

    ``long``, ``wide``: the opening larger than drawn; ``inside``: the room between the doublers under it;
    ``pack``, ``thick``: the pack longer and wider than its label says.
    """
    long, wide = float(rng.integers(11, 16) * 10), float(rng.integers(9, 13) * 5)
    inside, thick = wide - 2.0, wide - 6.0
    pack = long - 14.0

    def shows(off: Array) -> Array:
        return np.array([long, wide, inside, pack, thick]) + off

    def is_so(off: Array) -> Array:
        return np.array(
            [
                long - pack + off[0] - off[3],
                wide - thick + off[1] - off[4],
                inside - thick + off[2] - off[4],
            ]
        )

    def drawn(off: Array) -> tuple[Stroke, ...]:
        opening = _box(-(long + off[0]) / 2, -(wide + off[1]) / 2, long + off[0], wide + off[1])
        room = float(inside + off[2])
        walls = tuple(
            Stroke("wood", ((-long, side * room / 2), (long, side * room / 2))) for side in (1, -1)
        )
        body = _box(-(pack + off[3]) / 2, -(thick + off[4]) / 2, pack + off[3], thick + off[4])
        lines: tuple[tuple[Role, tuple[Point2, ...]], ...] = (("wood", opening), ("line", body))
        return (*walls, *(Stroke(role, it) for role, it in lines))

    side = long * 0.42
    return Piece(
        kind="hatch",
        unknowns={"long": 4.0, "wide": 1.2, "inside": 2.2, "pack": 4.0, "thick": 2.0},
        looks=(
            Look("hatch-long", "rule", 0.5, 0.3, ((-long / 2, wide / 2), (long / 2, wide / 2))),
            Look("hatch-wide", "calliper", 0.5, 0.15, ((long / 2, -wide / 2), (long / 2, wide / 2))),
            Look("inside", "calliper", 1.0, 0.2, ((-side, -inside / 2), (-side, inside / 2))),
            Look("pack-long", "rule", 0.5, 0.3, ((-pack / 2, 0.0), (pack / 2, 0.0))),
            Look("pack-thick", "calliper", 0.5, 0.15, ((0.0, -thick / 2), (0.0, thick / 2))),
        ),
        asked=(Asked("length", 4.0, 14.0), Asked("width", 2.0, 6.0), Asked("inside", 2.0, 4.0)),
        shows=shows,
        is_so=is_so,
        stories={
            "nothing": (),
            "short": ("long",),
            "narrow": ("inside",),
            "pack-long": ("pack",),
            "tight": ("inside", "thick"),
        },
        last="narrow",
        believed=Believed(("hatch-long", "hatch-wide"), ({"long": 1.0}, {"wide": 1.0})),
        drawn=drawn,
        one_way={"long": -1, "wide": -1, "inside": -1, "pack": 1, "thick": 1},
    )  # fmt: skip


def _box(left: float, low: float, wide: float, high: float) -> tuple[Point2, ...]:
    right, top = left + wide, low + high
    return ((left, low), (right, low), (right, top), (left, top), (left, low))
