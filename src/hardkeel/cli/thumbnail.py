"""``hardkeel thumbnail``: a build from the side, small, as a file manager shows it."""

import argparse
import io
from typing import Final

from hardkeel.base.errors import BadInput
from hardkeel.picture.truing import Stroke, keel_strokes
from hardkeel.sight.pictures import Image, ImageDraw
from hardkeel.storage.atomic import write_atomically
from hardkeel.storage.package import Loaded

_PAPER, _WOOD, _INK, _WING = (251, 248, 239), (232, 214, 168), (31, 42, 51), (11, 93, 107)
_FINER: Final = 4  # drawn so many times larger, for clean edges
_MARGIN: Final = 0.06
_LINE: Final = 0.012  # of the side
_LEAST, _MOST = 16, 2048


def run(loaded: Loaded, parsed: argparse.Namespace) -> str:
    """Draw and write it."""
    size = int(parsed.size or 256)
    if not _LEAST <= size <= _MOST:
        raise BadInput("size", f"{size} is not between {_LEAST} and {_MOST}")
    strokes = keel_strokes(loaded.build)
    write_atomically(parsed.to, _png(strokes, size), versions=0)
    return f"{parsed.to}: {size} × {size}\n"


def _png(strokes: tuple[Stroke, ...], size: int) -> bytes:
    """The picture; bare paper for a build that has no outline yet."""
    side = size * _FINER
    image = Image.new("RGB", (side, side), _PAPER)
    points = [point for one in strokes for point in one.points]
    if points:
        us, vs = [one[0] for one in points], [one[1] for one in points]
        room = side * (1 - 2 * _MARGIN)
        scale = room / max(max(us) - min(us), max(vs) - min(vs), 1.0)
        u0, v0 = (max(us) + min(us)) / 2, (max(vs) + min(vs)) / 2
        draw = ImageDraw.Draw(image)
        for one in strokes:
            line = [
                ((u - u0) * scale + side / 2, (v - v0) * scale + side / 2) for u, v in one.points
            ]
            _draw(draw, one, line, max(1, round(_LINE * side)))
    out = io.BytesIO()
    image.resize((size, size), Image.Resampling.LANCZOS).save(out, "PNG")
    return out.getvalue()  # fmt: skip


def _draw(
    draw: ImageDraw.ImageDraw, stroke: Stroke, line: list[tuple[float, float]], width: int
) -> None:
    if stroke.closed and len(line) > 2:  # noqa: PLR2004  a surface
        fill = _WOOD if stroke.role == "fuselage" else _WING if stroke.ref == "wing" else _PAPER
        draw.polygon(line, fill=fill)
        line = [*line, line[0]]
    draw.line(line, fill=_INK, width=width if stroke.role != "former" else max(1, width // 2))
