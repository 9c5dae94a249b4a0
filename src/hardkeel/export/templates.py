"""Formers at full size: one DXF drawing each, and pages to cut along where no templates hold them."""

from hardkeel.base.units import LengthUnit
from hardkeel.export.framing import printer_of
from hardkeel.export.paper import Page, templates_pdf
from hardkeel.export.parts import former_dxf
from hardkeel.export.template_pages import template_pages
from hardkeel.fuselage.cutting import shape_of
from hardkeel.fuselage.pieces import former_pieces
from hardkeel.project.model import Build


def former_files(build: Build, unit: LengthUnit, paper: str = "A4") -> dict[str, bytes]:
    """``formers/F1.dxf`` …, by name, and ``formers.pdf`` of a fuselage that is not framed; empty without formers.

    Of a framed one the formers lie on the pages of its templates, with everything else.

    Raises
    ------
    BadInput
        When a former's own outline crosses itself.
    """
    fuselage = build.fuselage
    if fuselage is None or not fuselage.formers:
        return {}
    found: dict[str, bytes] = {}
    if fuselage.framing is None:
        page = Page(paper, printer_of(build))
        pieces = [one for former in fuselage.formers for one in former_pieces(fuselage, former)]
        drawings = template_pages(pieces, page.room, unit)
        if drawings:
            found["formers.pdf"] = templates_pdf(drawings, build.name or "Build", page)
    for number, former in enumerate(fuselage.formers, start=1):
        name = f"formers/{_plain_name(former.id, number)}.dxf"
        if name in found:  # "bay/2" and "bay-2"
            name = f"formers/{_plain_name(former.id, number)}-{number}.dxf"
        found[name] = former_dxf(shape_of(fuselage, former)).encode("utf-8")
    return found


def _plain_name(former_id: str, number: int) -> str:
    """A former's name as part of a file name; its number where nothing of it is left."""
    kept = "".join(c if c.isascii() and c.isalnum() else "-" for c in former_id).strip("-")
    return kept[:40] if kept else f"former-{number}"
