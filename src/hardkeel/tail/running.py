"""What runs along a surface and is cut to length: tubes, strips of a laminated tip, and how a part is called."""

from typing import Final

from hardkeel.geometry.hull import Point2
from hardkeel.joinery.cut_part import CutPart
from hardkeel.joinery.flat import FlatPiece, Mark, ring_of
from hardkeel.tail.laminating import lamination_of
from hardkeel.tail.model import TailSurface
from hardkeel.tail.stick_frame import frame_thickness

USUAL_TUBE: Final = "carbon-strip"
_SQUARE: Final = ((90.0,), (90.0,))
_TEMPLATE_MM: Final = 1.5  # ply that a stack is sanded between, a core is cut along
MATERIAL_OF_TEMPLATES: Final = "birch-ply"


def tube_parts(surface: TailSurface) -> list[CutPart]:
    """Joiners and tube spars."""
    return [
        CutPart(
            f"{surface.id} {tube.id}",
            "tube",
            1,
            (tube.diameter, tube.diameter),
            tube.length,
            _SQUARE,
            tube.material or USUAL_TUBE,
            key=f"{surface.id} {tube.id}",
            member=surface.id,
        )
        for tube in surface.tubes
    ]


def lamination_strips(surface: TailSurface) -> list[CutPart]:
    """Strips of a laminated tip; none where it has another."""
    made = lamination_of(surface)
    if made is None:
        return []
    sides = 1 if surface.upright else 2
    size = (frame_thickness(surface), made.strip)
    return [tail_part(surface, "tip strip", "lamination", made.layers * sides, size, made.length)]


def tail_part(
    surface: TailSurface,
    words: str,
    kind: str,
    quantity: int,
    section: tuple[float, float],
    length: float,
) -> CutPart:
    """A part of a surface, of its own wood."""
    name = f"{surface.id} {words}"
    return CutPart(
        name, kind, quantity, section, length, (), surface.material, key=name, member=surface.id
    )


def template_of(surface: TailSurface, words: str, ring: tuple[Point2, ...]) -> FlatPiece:
    """A ply template with its chord line."""
    return FlatPiece(
        name=f"{surface.id} {words}",
        kind="template",
        part=surface.id,
        outline=ring_of(ring),
        marks=(Mark("centre", ((0.0, 0.0), (max(x for x, _ in ring), 0.0)), "chord line"),),
        thickness=_TEMPLATE_MM,
        material=MATERIAL_OF_TEMPLATES,
        grain="u",
    )
