"""What a cutter does first: marks, then what lies inside, and a piece's own outline last."""

import io
from xml.etree import ElementTree as ET

import numpy as np
from ezdxf.filemanagement import read
from shapely import Point, Polygon

from hardkeel.export.framing import plate_dxf
from hardkeel.export.plates import Plate, Stroke
from hardkeel.export.svg import plate_svg


def square(u: float, v: float, side: float) -> tuple[tuple[float, float], ...]:
    return ((u, v), (u + side, v), (u + side, v + side), (u, v + side))


# a big piece with a hole, in which a small one lies that has a hole itself; and one beside
PLATE = Plate(
    "sheet",
    (
        Stroke("CUT", square(0, 0, 100)),
        Stroke("HOLES", square(10, 10, 60)),
        Stroke("CENTRE", ((0.0, 50.0), (100.0, 50.0)), closed=False),
        Stroke("CUT", square(20, 20, 30)),
        Stroke("HOLES", square(25, 25, 5)),
        Stroke("CUT", square(120, 0, 20)),
        Stroke("HOLES", square(125, 5, 4)),
    ),
)


def _in_order(rings: list[np.ndarray]) -> None:
    shapes = [Polygon(ring) for ring in rings]
    for i, one in enumerate(shapes):
        for later in shapes[i + 1 :]:
            assert not one.contains(Point(later.exterior.coords[0]))


def test_each_ring_is_cut_after_all_that_lies_within_it() -> None:
    drawing = read(io.StringIO(plate_dxf(PLATE)))
    found = list(drawing.modelspace().query("LWPOLYLINE"))
    assert found[0].dxf.layer == "CENTRE"
    cut = [e for e in found if e.dxf.layer in ("CUT", "HOLES")]
    assert len(cut) == 6
    _in_order([np.array(e.get_points("xy")) for e in cut])
    # a piece is done before the next one is begun
    assert [e.dxf.layer for e in cut] == ["HOLES", "CUT", "HOLES", "CUT", "HOLES", "CUT"]


def test_an_svg_is_drawn_in_the_same_order() -> None:
    root = ET.fromstring(plate_svg(PLATE))  # noqa: S314  our own
    space = "{http://www.w3.org/2000/svg}"
    groups = [g for g in root.iter(f"{space}g") if g.get("class") in ("CUT", "HOLES")]
    rings = []
    for group in groups:
        for path in group.iter(f"{space}path"):
            numbers = [
                float(n)
                for n in (path.get("d") or "")
                .replace("M", "")
                .replace("L", "")
                .replace("Z", "")
                .split()
            ]
            rings.append(np.array(numbers).reshape(-1, 2))
    assert len(rings) == 6
    _in_order(rings)
    assert len({g.get("id") for g in root.iter(f"{space}g")}) == len(list(root.iter(f"{space}g")))
