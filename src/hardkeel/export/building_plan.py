"""The building plan: which drawings a build has, and their files."""

from collections.abc import Callable, Sequence
from typing import Final

from hardkeel.airframe.parts import woods_of
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.export.framing import printer_of
from hardkeel.export.paper import Page, templates_pdf
from hardkeel.export.plan_drawing import PlanDrawing
from hardkeel.export.plan_elevation import elevation_plan
from hardkeel.export.plan_list import Listed, list_plans
from hardkeel.export.plan_pages import whole_pages_pdf
from hardkeel.export.plan_props import props_plan
from hardkeel.export.plan_sections import sections_plans
from hardkeel.export.plan_side import STICKS, side_plan
from hardkeel.export.plan_tail import tail_plan
from hardkeel.export.plan_top import board_plan, top_plan
from hardkeel.fuselage.cut_list import cut_list_of
from hardkeel.joinery.cut_part import CutPart
from hardkeel.messages import diary as say
from hardkeel.messages.building_plan import in_list, numbered
from hardkeel.messages.describe import class_words
from hardkeel.messages.prints import title_line
from hardkeel.project.model import Build
from hardkeel.tail.kinds import has
from hardkeel.tail.pieces import cut_list_of_tail

_LISTS: Final = ("sticks", "tail-sticks")
_A4: Final = Page().room


def drawings_of(
    build: Build,
    unit: LengthUnit,
    room: tuple[float, float] = _A4,
    left_out: Callable[[BadInput], object] = lambda _why: None,
) -> tuple[PlanDrawing, ...]:
    """All drawings to build over that a build has; what can't be drawn yet is left out.

    Parameters
    ----------
    room : (float, float)
        What a page has to draw on, mm: sections and lists are laid to it.
    left_out : callable
        Told why something is left out.
    """

    def made(make: Callable[[], Sequence[PlanDrawing | None]]) -> Sequence[PlanDrawing | None]:
        try:
            return make()
        except BadInput as why:
            left_out(why)
            return ()

    found: list[PlanDrawing | None] = []
    fuselage = build.fuselage
    if fuselage is not None and len(fuselage.stations) > 1:
        found += made(lambda: [side_plan(build, unit)])
        found += made(lambda: [top_plan(fuselage, unit)])
        found += made(lambda: [board_plan(fuselage, unit)])
        found += made(lambda: sections_plans(fuselage, unit, room))
        found += made(lambda: [elevation_plan(build, unit)])
    for surface in build.tail:
        found += made(lambda one=surface: [tail_plan(one, build.profiles)])  # type: ignore[misc]
    for surface in build.tail:
        found += made(lambda one=surface: [props_plan(build, one, unit)])  # type: ignore[misc]
    found += made(lambda: list_plans(_of_the_frame(build), unit, room, _LISTS[0]))
    found += made(lambda: list_plans(_of_the_tail(build), unit, room, _LISTS[1]))
    return tuple(one for one in found if one is not None)


def _of_the_frame(build: Build) -> list[Listed]:
    fuselage = build.fuselage
    if fuselage is None or not fuselage.sections:
        return []
    return [
        Listed(part, in_list(part.name, short=part.kind in STICKS), _wood(build, part))
        for part in cut_list_of(fuselage)
    ]


def _of_the_tail(build: Build) -> list[Listed]:
    found: list[Listed] = []
    for surface in build.tail:
        if surface.kind is None:
            continue
        framed = has(surface, "bracing")
        for number, part in enumerate(cut_list_of_tail(surface, build.profiles), start=1):
            name = f"{numbered(part.kind, number)}  {part.name}" if framed else part.name
            found.append(Listed(part, name, _wood(build, part)))
    return found


def _wood(build: Build, part: CutPart) -> str:
    wood = woods_of(build).get(part.material or "")
    return wood.name if wood is not None else part.material or ""


def plan_files(build: Build, unit: LengthUnit, paper: str = "A4") -> dict[str, bytes]:
    """``plan-side.dxf``, ``plan-side.svg`` …, tiled and whole pages, by name; empty where nothing is drawn."""
    files: dict[str, bytes] = {}
    page = Page(paper, printer_of(build))
    drawings = drawings_of(build, unit, page.room)
    for drawing in drawings:
        if drawing.name.startswith(_LISTS):  # words for paper
            continue
        files[f"plan-{drawing.name}.dxf"] = drawing.dxf().encode("utf-8")
        files[f"plan-{drawing.name}.svg"] = drawing.svg().encode("utf-8")
    if drawings:
        title = title_line(build.name or say.UNNAMED, "", 0, class_words(build.model_class))
        files[f"plan-{paper}.pdf"] = templates_pdf(drawings, title, page)
        files["plan.pdf"] = whole_pages_pdf(drawings, title)
    return files
