"""DXF drawings by ezdxf, read and written; nothing here knows what the lines are for."""

import io
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING, Final

from hardkeel.base.errors import BadInput
from hardkeel.base.late import late
from hardkeel.base.values import Point2

if TYPE_CHECKING:
    import ezdxf.disassemble as parts
    import ezdxf.filemanagement as files
    import ezdxf.path as paths
    from ezdxf import recover
    from ezdxf.document import Drawing
    from ezdxf.entities.dxfentity import DXFEntity
    from ezdxf.lldxf import const
else:
    files, recover = late("ezdxf.filemanagement"), late("ezdxf.recover")
    paths, parts, const = late("ezdxf.path"), late("ezdxf.disassemble"), late("ezdxf.lldxf.const")

_FLAT_MM: Final = 0.02  # how far a chord may leave its arc
_LARGEST_FILE: Final = 64 * 1024 * 1024
# $INSUNITS → mm; unitless drawings are taken for millimetres
_UNITS: Final = {0: 1.0, 1: 25.4, 2: 304.8, 4: 1.0, 5: 10.0, 6: 1000.0}
_MM: Final = 4


@dataclass(frozen=True, slots=True)
class Layer:
    """Lines on a layer of their own, mm, `rings` closed and `lines` open; `colour` by DXF's index."""

    name: str
    colour: int
    rings: tuple[tuple[Point2, ...], ...]
    lines: tuple[tuple[Point2, ...], ...] = ()


def dxf_text(layers: Iterable[Layer]) -> str:
    """A drawing in millimetres, as text."""
    drawing = files.new("R2010", units=_MM)
    space = drawing.modelspace()
    for layer in layers:
        drawing.layers.add(layer.name, color=layer.colour)
        for ring in layer.rings:
            space.add_lwpolyline(ring, close=True, dxfattribs={"layer": layer.name})
        for line in layer.lines:
            space.add_lwpolyline(line, dxfattribs={"layer": layer.name})
    out = io.StringIO()
    drawing.write(out)
    return out.getvalue()


def lines_of(path: Path) -> Iterator[tuple[str, list[Point2]]]:
    """Every line that is to be seen in a drawing, flattened, with its layer, mm.

    Polylines, circles, arcs, ellipses and splines, those in blocks too; what lies on a layer that is
    off or frozen is left out.

    Raises
    ------
    BadInput
        When the file is no DXF drawing.
    """
    drawing = _read(path)
    factor = _UNITS.get(drawing.units, 1.0)
    hidden = {
        layer.dxf.name.casefold() for layer in drawing.layers if layer.is_off() or layer.is_frozen()
    }
    shown = [one for one in drawing.modelspace() if not _is_hidden(one, hidden)]
    for entity in parts.recursive_decompose(shown):
        if _is_hidden(entity, hidden):
            continue
        try:
            made = paths.make_path(entity)
        except TypeError:
            continue  # text, dimensions and the like
        points = [(p.x * factor, p.y * factor) for p in made.flattening(_FLAT_MM / factor)]
        if len(points) > 1:
            yield str(entity.dxf.layer), points


def _read(path: Path) -> "Drawing":
    try:
        if path.stat().st_size > _LARGEST_FILE:
            raise BadInput(path.name, "is too large for a former's outline")
        drawing, _audit = recover.readfile(str(path))
    except OSError as fault:
        raise BadInput(path.name, f"can't be read: {fault.strerror or fault}") from None
    except (const.DXFError, ValueError, IndexError, KeyError):
        raise BadInput(path.name, "is not a DXF drawing") from None
    return drawing


def _is_hidden(entity: "DXFEntity", hidden: set[str]) -> bool:
    layer = str(entity.dxf.get("layer", "0")).casefold()
    return layer in hidden or bool(entity.dxf.get("invisible", 0))
