"""Formers at full size: a PDF to print and cut along, and one DXF drawing each."""

import io
from typing import Final

from hardkeel.base.units import LengthUnit, format_length
from hardkeel.export.paper_sizes import PAPERS
from hardkeel.export.parts import former_dxf
from hardkeel.export.stationery import BOLD, INK, REGULAR, Canvas, mm, register_fonts
from hardkeel.fuselage.cutting import FormerShape, shape_of
from hardkeel.fuselage.model import Former
from hardkeel.project.model import Build

_MARGIN: Final = 15 * mm
_HEAD: Final = 34 * mm
_BAR_MM: Final = 50.0  # measured on the print, it tells whether the printer kept the size
_CUT_PT: Final = 0.5


def former_files(build: Build, unit: LengthUnit, paper: str = "A4") -> dict[str, bytes]:
    """``formers.pdf`` and ``formers/F1.dxf`` …, by name; empty where there are no formers.

    Raises
    ------
    BadInput
        When a former's own outline crosses itself.
    """
    fuselage = build.fuselage
    if fuselage is None or not fuselage.formers:
        return {}
    shapes = [(former, shape_of(fuselage, former)) for former in fuselage.formers]
    found = {"formers.pdf": _pdf(build, shapes, unit, paper)}
    for number, (former, shape) in enumerate(shapes, start=1):
        name = f"formers/{_plain_name(former.id, number)}.dxf"
        if name in found:  # "bay/2" and "bay-2"
            name = f"formers/{_plain_name(former.id, number)}-{number}.dxf"
        found[name] = former_dxf(shape).encode("utf-8")
    return found


def _pdf(
    build: Build, shapes: list[tuple[Former, FormerShape]], unit: LengthUnit, paper: str
) -> bytes:
    register_fonts()
    out = io.BytesIO()
    canvas = Canvas(out, invariant=1)
    canvas.setTitle(f"{build.name or 'Build'}: formers at full size")
    canvas.setAuthor("Hard Keel")
    for former, shape in shapes:
        _page(canvas, build, former, shape, (unit, paper))
        canvas.showPage()
    canvas.save()
    return out.getvalue()


def _page(
    canvas: Canvas,
    build: Build,
    former: Former,
    shape: FormerShape,
    how: tuple[LengthUnit, str],
) -> None:
    unit, paper = how
    ys, zs = [p[0] for p in shape.outside], [p[1] for p in shape.outside]
    wide, tall = (max(ys) - min(ys)) * mm, (max(zs) - min(zs)) * mm
    width = max(PAPERS[paper][0] * mm, wide + 2 * _MARGIN)
    height = max(PAPERS[paper][1] * mm, tall + 2 * _MARGIN + _HEAD)
    canvas.setPageSize((width, height))
    canvas.setFillColor(INK)
    canvas.setStrokeColor(INK)
    canvas.setFont(BOLD, 18)
    canvas.drawString(_MARGIN, height - _MARGIN - 12, f"Former {former.id}")
    canvas.setFont(REGULAR, 9)
    facts = [build.name, f"at {format_length(former.station, unit)}", former.material or ""]
    if former.thickness:
        facts.append(f"{format_length(former.thickness, unit)} thick")
    canvas.drawString(_MARGIN, height - _MARGIN - 26, " · ".join(f for f in facts if f))
    _bar(canvas, _MARGIN, height - _MARGIN - 44, unit)
    # the section's own axes: y to starboard, z up, seen from behind
    left = (width - wide) / 2 - min(ys) * mm
    low = (height - _HEAD - tall) / 2 - min(zs) * mm
    canvas.setLineWidth(_CUT_PT)
    for ring in shape.wood:
        _ring(canvas, [(left + y * mm, low + z * mm) for y, z in ring])
    canvas.setDash(2, 2)
    _ring(canvas, [(left + y * mm, low + z * mm) for y, z in shape.outside])
    canvas.setDash(6, 2)
    canvas.line(left, low + min(zs) * mm - 8, left, low + max(zs) * mm + 8)
    canvas.setDash()


def _bar(canvas: Canvas, x: float, y: float, unit: LengthUnit) -> None:
    length = _BAR_MM * mm
    canvas.setLineWidth(0.8)
    canvas.line(x, y, x + length, y)
    for end in (x, x + length):
        canvas.line(end, y - 4, end, y + 4)
    told = f"{format_length(_BAR_MM, unit)} on the print, or it was scaled. Solid: cut here. Dashed: outside."
    canvas.drawString(x + length + 8, y - 3, told)


def _ring(canvas: Canvas, points: list[tuple[float, float]]) -> None:
    path = canvas.beginPath()
    path.moveTo(*points[0])
    for point in points[1:]:
        path.lineTo(*point)
    path.close()
    canvas.drawPath(path)


def _plain_name(former_id: str, number: int) -> str:
    """A former's name as part of a file name; its number where nothing of it is left."""
    kept = "".join(c if c.isascii() and c.isalnum() else "-" for c in former_id).strip("-")
    return kept[:40] if kept else f"former-{number}"
