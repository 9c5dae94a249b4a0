"""DXF drawings by ezdxf, read and written; nothing here knows what the lines are for."""

import io
import math
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import TYPE_CHECKING, Final, Literal, cast

from hardkeel.base.errors import BadInput
from hardkeel.base.late import late
from hardkeel.base.values import Point2

if TYPE_CHECKING:
    import ezdxf.disassemble as parts
    import ezdxf.filemanagement as files
    import ezdxf.path as paths
    from ezdxf import enums, recover
    from ezdxf.document import Drawing
    from ezdxf.entities.dxfentity import DXFEntity
    from ezdxf.entities.mtext import MText
    from ezdxf.entities.text import Text
    from ezdxf.lldxf import const
else:
    enums = late("ezdxf.enums")
    files, recover = late("ezdxf.filemanagement"), late("ezdxf.recover")
    paths, parts, const = late("ezdxf.path"), late("ezdxf.disassemble"), late("ezdxf.lldxf.const")

_FLAT_MM: Final = 0.02  # how far a chord may leave its arc
_LARGEST_FILE: Final = 64 * 1024 * 1024
_MOST_ENTITIES: Final = 40_000
_FARTHEST_MM: Final = 100_000.0  # a plan far from its origin, but no other country
# $INSUNITS → mm; unitless drawings are taken for millimetres
_UNITS: Final = {0: 1.0, 1: 25.4, 2: 304.8, 4: 1.0, 5: 10.0, 6: 1000.0}
_MM: Final = 4


@dataclass(frozen=True, slots=True)
class DrawnText:
    """Words in a drawing; letters `size` mm high, turned by degrees; `anchor` what of them lies at the place."""

    text: str
    at: Point2
    size: float
    turn: float = 0.0
    anchor: Literal["start", "middle", "end"] = "middle"


@dataclass(frozen=True, slots=True)
class Layer:
    """Lines on a layer of their own, mm, `rings` closed and `lines` open; `colour` by DXF's index."""

    name: str
    colour: int
    rings: tuple[tuple[Point2, ...], ...]
    lines: tuple[tuple[Point2, ...], ...] = ()
    words: tuple[DrawnText, ...] = ()


def dxf_text(layers: Iterable[Layer], note: str = "") -> str:
    """A drawing in millimetres, as text; a `note` of one line stands at its head, as a comment."""
    drawing = files.new("R2010", units=_MM)
    space = drawing.modelspace()
    for layer in layers:
        if layer.name not in drawing.layers:
            drawing.layers.add(layer.name, color=layer.colour)
        for ring in layer.rings:
            space.add_lwpolyline(ring, close=True, dxfattribs={"layer": layer.name})
        for line in layer.lines:
            space.add_lwpolyline(line, dxfattribs={"layer": layer.name})
        for word in layer.words:
            attributes = {"layer": layer.name, "height": word.size, "rotation": word.turn}
            made = space.add_text(word.text, dxfattribs=attributes)
            align = enums.TextEntityAlignment
            ways = {
                "start": align.MIDDLE_LEFT,
                "middle": align.MIDDLE_CENTER,
                "end": align.MIDDLE_RIGHT,
            }
            made.set_placement(word.at, align=ways[word.anchor])
    out = io.StringIO()
    drawing.write(out)
    said = "".join(letter if letter.isprintable() else " " for letter in note)
    return (f"999\n{said}\n" if said else "") + out.getvalue()


@dataclass(frozen=True, slots=True)
class Stroke:
    """A line of a drawing, flattened, mm; `block` is the name of the block it came in, empty where in none."""

    layer: str
    block: str
    points: list[Point2]


@dataclass(frozen=True, slots=True)
class Lettering:
    """A text in a drawing and where it begins, mm."""

    text: str
    at: Point2


def drawn_in(
    path: Path, step: Callable[[int, int], object] = lambda _done, _total: None
) -> Iterator[Stroke | Lettering]:
    """Every line and every text that is to be seen in a drawing.

    Polylines, circles, arcs, ellipses and splines, those in blocks too; what lies on a layer that is
    off or frozen is left out.

    Parameters
    ----------
    step : callable
        Told how many lines have been read of about how many; raises where the work is to be left off.

    Raises
    ------
    BadInput
        When the file is no DXF drawing, holds more than a drawing of formers would, or figures that are none.
    """
    step(0, 0)
    drawing = _read(path)
    factor = _UNITS.get(drawing.units, 1.0)
    hidden = {
        layer.dxf.name.casefold() for layer in drawing.layers if layer.is_off() or layer.is_frozen()
    }
    shown = [one for one in drawing.modelspace() if not _is_hidden(one, hidden)]
    # before anything is drawn out: a block may be laid in rows and columns, in blocks, in itself
    count = _Counted(drawing, path.name).of(shown)
    if count > _MOST_ENTITIES:
        raise BadInput(path.name, f"holds {count:,} lines and more: too many for outlines")
    for number, entity in enumerate(parts.recursive_decompose(shown)):
        step(number, count)
        if _is_hidden(entity, hidden):
            continue
        lettering = _lettering(entity, factor)
        if lettering is not None:
            yield lettering
            continue
        points = _flattened(entity, factor, path.name)
        if len(points) > 1:
            source = entity.source_block_reference
            block = str(source.dxf.get("name", "")) if source is not None else ""
            yield Stroke(str(entity.dxf.layer), block, points)


def _lettering(entity: "DXFEntity", factor: float) -> Lettering | None:
    """What a text says; ``None`` of anything else, and of a text that says nothing or stands nowhere."""
    if entity.dxftype() == "MTEXT":
        text = cast("MText", entity).plain_text()
    elif entity.dxftype() in ("TEXT", "ATTRIB"):
        text = cast("Text", entity).plain_text()
    else:
        return None
    at = entity.dxf.get("insert")
    said = " ".join(str(text).split())
    if at is None or not said or not _is_finite(entity):
        return None
    return Lettering(said, (at.x * factor, at.y * factor))


def _flattened(entity: "DXFEntity", factor: float, name: str) -> list[Point2]:
    """An entity as a line of points, mm; none for text, dimensions and the like.

    Raises
    ------
    BadInput
        Where it lies beyond any model, or at no place at all.
    """
    if not _is_finite(entity):
        raise BadInput(name, f"has a {entity.dxftype().lower()} whose figures are no numbers")
    if entity.dxftype() == "CIRCLE" and not entity.dxf.hasattr("extrusion"):
        return _round(entity, factor, name)
    try:
        made = paths.make_path(entity)
    except TypeError:
        return []
    except (ValueError, ArithmeticError):
        raise BadInput(name, f"has a {entity.dxftype().lower()} that can't be drawn") from None
    for corner in made.control_vertices():
        if not max(abs(corner.x), abs(corner.y)) * factor <= _FARTHEST_MM:  # nan too
            raise BadInput(
                name, f"has a {entity.dxftype().lower()} more than {_FARTHEST_MM / 1000:g} m away"
            )
    return [(p.x * factor, p.y * factor) for p in made.flattening(_FLAT_MM / factor)]


def _round(circle: "DXFEntity", factor: float, name: str) -> list[Point2]:
    """A circle that lies flat, as a line of points; drawings hold thousands of holes."""
    x, y, radius = (
        circle.dxf.center.x * factor,
        circle.dxf.center.y * factor,
        circle.dxf.radius * factor,
    )
    if not max(abs(x), abs(y)) + radius <= _FARTHEST_MM:
        raise BadInput(name, f"has a circle more than {_FARTHEST_MM / 1000:g} m away")
    if radius <= 0:
        return []
    sag = min(_FLAT_MM / 4 / radius, 1.0)  # so that its area is its own to a thousandth
    count = max(8, math.ceil(math.pi / math.acos(1 - sag)))
    return [(x + radius * c, y + radius * s) for c, s in _unit_circle(count)]


@lru_cache(maxsize=256)
def _unit_circle(count: int) -> tuple[Point2, ...]:
    step = 2 * math.pi / count
    points = tuple((math.cos(i * step), math.sin(i * step)) for i in range(count))
    return (*points, points[0])


def _is_finite(entity: "DXFEntity") -> bool:
    """Whether all figures of an entity are numbers."""
    for value in entity.dxfattribs().values():
        figures = (
            tuple(value) if isinstance(value, Iterable) and not isinstance(value, str) else (value,)
        )
        if any(isinstance(one, float) and not math.isfinite(one) for one in figures):
            return False
    return True


class _Counted:
    """How many entities a drawing comes to, its blocks laid out; nothing is laid out for it.

    Raises
    ------
    BadInput
        Where a block lies in itself.
    """

    def __init__(self, drawing: "Drawing", name: str) -> None:
        self._drawing, self._name = drawing, name
        self._known: dict[str, int] = {}
        self._within: list[str] = []

    def of(self, entities: Iterable["DXFEntity"]) -> int:
        """Of these, no further than it matters."""
        total = 0
        for entity in entities:
            total += self._laid(entity) if entity.dxftype() == "INSERT" else 1
            if total > _MOST_ENTITIES:
                break
        return total

    def _laid(self, insert: "DXFEntity") -> int:
        rows, columns = (int(insert.dxf.get(one, 1)) for one in ("row_count", "column_count"))
        return max(1, rows) * max(1, columns) * self._block(str(insert.dxf.get("name", "")))

    def _block(self, name: str) -> int:
        key = name.casefold()
        if key in self._within:
            raise BadInput(self._name, f"holds a block that lies in itself: {name}")
        if key not in self._known:
            self._within.append(key)
            self._known[key] = (
                self.of(self._drawing.blocks[name]) if name in self._drawing.blocks else 0
            )
            self._within.pop()
        return self._known[key]


def _read(path: Path) -> "Drawing":
    try:
        if path.stat().st_size > _LARGEST_FILE:
            raise BadInput(path.name, "is too large for a former's outline")
        try:
            drawing = files.readfile(str(path))  # half the time, where the file is sound
        except (const.DXFError, ValueError, IndexError, KeyError, OSError):
            drawing, _audit = recover.readfile(str(path))
    except OSError as fault:
        raise BadInput(path.name, f"can't be read: {fault.strerror or fault}") from None
    except (const.DXFError, ValueError, IndexError, KeyError):
        raise BadInput(path.name, "is not a DXF drawing") from None
    return drawing


def _is_hidden(entity: "DXFEntity", hidden: set[str]) -> bool:
    layer = str(entity.dxf.get("layer", "0")).casefold()
    return layer in hidden or bool(entity.dxf.get("invisible", 0))
