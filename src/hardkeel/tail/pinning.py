"""Where a frame is pinned to its board."""

import math
from functools import lru_cache
from typing import Final

from hardkeel.geometry.hull import Point2
from hardkeel.geometry.polygons import shapely
from hardkeel.tail.stick_frame import StickFrame

_PIN_BESIDE: Final = (0.6, 1.6)  # mm from the wood to a pin's middle


@lru_cache(maxsize=8)  # each showing of a page asks for the same again
def pins_of(frame: StickFrame, every: float = 45.0) -> tuple[Point2, ...]:
    """Where pins stand: beside the wood on either side of each stick, never through it; of one half."""
    wood = shapely.union_all([shapely.Polygon(p.strip.outline) for p in frame.pieces])
    shapely.prepare(wood)
    found: list[Point2] = []
    for piece in frame.pieces:
        (x0, y0), (x1, y1) = piece.ends_at
        size = math.hypot(x1 - x0, y1 - y0)
        if piece.kind in ("centre", "root") or size < 2 * every / 3:
            continue
        shape = shapely.Polygon(piece.strip.outline)
        boundary = shape.exterior.buffer(0).exterior if shape.exterior.is_empty else shape.exterior
        count = max(2, round(boundary.length / (2 * every)) * 2)
        out = shape.buffer(1.0, join_style="mitre").exterior
        for i in range(count):
            point = out.interpolate((i + 0.5) / count, normalized=True)
            near = wood.distance(point)
            if _PIN_BESIDE[0] <= near <= _PIN_BESIDE[1] and all(
                math.dist((point.x, point.y), p) > every / 3 for p in found
            ):
                found.append((float(point.x), float(point.y)))
    return tuple(found)
