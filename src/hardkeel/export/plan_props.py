"""Stop blocks at full size: what props a tail surface and the fuselage while the seat's glue sets."""

from typing import Final

from hardkeel.airframe.propping import props_of
from hardkeel.base.units import LengthUnit, format_length
from hardkeel.export.plan_drawing import SMALL_MM, TEXT_MM, PlanDrawing
from hardkeel.messages import propping as say
from hardkeel.project.model import Build
from hardkeel.tail.model import TailSurface

_WIDE_MM: Final = 36.0
_BETWEEN_MM: Final = 14.0
_FOOT_MM: Final = 6.0


def props_plan(build: Build, surface: TailSurface, unit: LengthUnit) -> PlanDrawing | None:
    """The blocks of one surface side by side on the bench line, each with its height and where it stands.

    Raises
    ------
    BadInput
        When a figure or a section is missing.
    """
    props = props_of(build, surface)
    if not props:
        return None
    drawing = PlanDrawing(f"props-{surface.id}")
    u = 0.0
    for prop in props:
        ring = [(u, 0.0), (u + _WIDE_MM, 0.0), (u + _WIDE_MM, prop.height), (u, prop.height)]
        drawing.line("STICKS", ring, closed=True, open_=True)
        middle = u + _WIDE_MM / 2
        drawing.line("CENTRE", [(middle, 2.0), (middle, prop.height - 2.0)])
        drawing.write((middle, -_FOOT_MM), say.prop_title(prop), size=SMALL_MM)
        drawing.write((middle, -_FOOT_MM - 4.0), format_length(prop.height, unit), size=TEXT_MM)
        drawing.write((middle, -_FOOT_MM - 8.5), say.prop_place(prop, unit), size=SMALL_MM)
        drawing.figures[say.prop_title(prop)] = prop.height
        u += _WIDE_MM + _BETWEEN_MM
    drawing.line("OUTLINE", [(-8.0, 0.0), (u - _BETWEEN_MM + 8.0, 0.0)])
    drawing.write((0.0, -_FOOT_MM - 15.0), say.BENCH_LINE, size=SMALL_MM, anchor="start")
    return drawing
