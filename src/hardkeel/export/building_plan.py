"""The building plan: which drawings a build has, and their files."""

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.export.framing import printer_of
from hardkeel.export.paper import Page, templates_pdf
from hardkeel.export.plan_drawing import PlanDrawing
from hardkeel.export.plan_pages import whole_pages_pdf
from hardkeel.export.plan_side import side_plan
from hardkeel.export.plan_tail import tail_plan
from hardkeel.export.plan_top import board_plan, top_plan
from hardkeel.messages import diary as say
from hardkeel.project.model import Build


def drawings_of(build: Build, unit: LengthUnit) -> tuple[PlanDrawing, ...]:
    """All drawings to build over that a build has; what can't be drawn yet is left out."""
    found: list[PlanDrawing | None] = []
    if build.fuselage is not None and len(build.fuselage.stations) > 1:
        found += [made(build.fuselage, unit) for made in (side_plan, top_plan, board_plan)]
    for surface in build.tail:
        try:
            found.append(tail_plan(surface))
        except BadInput:  # a figure is missing: its page says which
            continue
    return tuple(one for one in found if one is not None)


def plan_files(build: Build, unit: LengthUnit, paper: str = "A4") -> dict[str, bytes]:
    """``plan-side.dxf``, ``plan-side.svg`` …, tiled and whole pages, by name; empty where nothing is drawn."""
    files: dict[str, bytes] = {}
    drawings = drawings_of(build, unit)
    for drawing in drawings:
        files[f"plan-{drawing.name}.dxf"] = drawing.dxf().encode("utf-8")
        files[f"plan-{drawing.name}.svg"] = drawing.svg().encode("utf-8")
    if drawings:
        title = build.name or say.UNNAMED
        page = Page(paper, printer_of(build))
        files[f"plan-{paper}.pdf"] = templates_pdf(drawings, title, page)
        files["plan.pdf"] = whole_pages_pdf(drawings, title)
    return files
