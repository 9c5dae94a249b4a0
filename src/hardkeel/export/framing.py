"""All templates of a fuselage: paper, DXF and SVG for cutters, and the cut list."""

import csv
import io
import re
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Final

from hardkeel.airframe.framing import build_pieces
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.export.paper import Page, templates_pdf
from hardkeel.export.plates import LAYERS, CutterWay, Plate, nested_plate
from hardkeel.export.reading_form import reading_form_pdf
from hardkeel.export.renewing import Destination, file_stem, renew
from hardkeel.export.sheets import plain
from hardkeel.export.svg import plate_svg
from hardkeel.export.template_pages import template_pages
from hardkeel.fuselage.cut_list import cut_list_of
from hardkeel.fuselage.flatwork import spacers_of
from hardkeel.fuselage.model import Framing, Fuselage
from hardkeel.fuselage.planking import plank_drawings
from hardkeel.joinery.buying import purchases_of
from hardkeel.joinery.cut_part import CutPart
from hardkeel.joinery.flat import FlatPiece
from hardkeel.joinery.nesting import NestedSheet, nested
from hardkeel.paper.audit import audit
from hardkeel.project.model import Build
from hardkeel.storage.dxf import Layer, dxf_text

Step = Callable[[int, int], None]
_COLOURS: Final = {"CUT": 1, "HOLES": 5, "SCORE": 6, "MARKS": 7, "CENTRE": 8, "TEXT": 3}
_HEAD: Final = (
    "part", "kind", "quantity", "material", "across_mm", "deep_mm", "length_mm", "width_mm",
    "angle_a_deg", "angle_b_deg", "grain",
)  # fmt: skip


def write_templates(
    build: Build,
    to: Destination,
    paper: str,
    unit: LengthUnit,
    step: Step | None = None,
) -> list[Path]:
    """Write them into a folder; the paths.

    Raises
    ------
    NotOurs
        When a file of another hand, or of another build, stands where ours would go.
    CannotSave
        When the folder can't be made or written.
    BadInput
        When there is no fuselage to frame.
    GivenUp
        When `step` says so; nothing is written then.
    """
    contents = named_templates(build, paper, unit, step)
    renew(to, f"{file_stem(build.name)}-templates", contents)
    return [to.folder / name for name in contents]


def named_templates(
    build: Build, paper: str, unit: LengthUnit, step: Step | None = None
) -> dict[str, bytes]:
    """`template_files`, each under the build's own name."""
    stem = file_stem(build.name)
    files = template_files(build, paper, unit, step)
    return {f"{stem}-{name}": data for name, data in files.items()}


def template_files(
    build: Build, paper: str, unit: LengthUnit, step: Step | None = None
) -> dict[str, bytes]:
    """``templates-A4.pdf``, ``squaring-sheet-A4.pdf``, ``cut-list.csv``, ``dxf/sheet-1-….dxf``, ``svg/sheet-1-….svg`` by name.

    Raises
    ------
    BadInput
        When there is no fuselage to frame.
    GivenUp
        When `step` says so.
    """
    fuselage = build.fuselage
    if fuselage is None or len(fuselage.stations) < 2:  # noqa: PLR2004  no loft
        raise BadInput("fuselage", "is missing: there is nothing to frame")
    pieces = build_pieces(build)
    page = Page(paper, printer_of(build))
    job = CutJob(
        pieces=pieces,
        parts=cut_list_of(fuselage),
        drawn=paper_pieces(fuselage),
        framed=fuselage.framed,
        title=build.name or "Build",
    )
    found = files_of(job, page, unit, step)
    if fuselage.board is not None and fuselage.formers:
        sheet = reading_form_pdf(fuselage, job.title, page.size, unit)
        found[f"squaring-sheet-{paper}.pdf"] = sheet
    return found


def paper_pieces(fuselage: Fuselage) -> tuple[FlatPiece, ...]:
    """What is drawn at full size though no cutter cuts it: spacers, planks.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    return (*spacers_of(fuselage), *plank_drawings(fuselage))


@dataclass(frozen=True, slots=True)
class CutJob:
    """What is to be cut, whatever it becomes.

    Attributes
    ----------
    drawn : tuple of FlatPiece
        On paper only: spacers, planks at full size.
    """

    pieces: tuple[FlatPiece, ...]
    parts: tuple[CutPart, ...]
    drawn: tuple[FlatPiece, ...]
    framed: Framing
    title: str


def files_of(
    job: CutJob, page: Page, unit: LengthUnit, step: Step | None = None
) -> dict[str, bytes]:
    """``templates-A4.pdf``, ``cut-list.csv``, ``dxf/…``, ``svg/…`` by name.

    Raises
    ------
    GivenUp
        When `step` says so.
    """
    framed = job.framed
    sheets = nested(job.pieces, framed.sheet, framed.sheet_gap, _share(step, 0, 50))
    plates = template_pages([*job.pieces, *job.drawn], page.room, unit, framed.trim)
    found = {}
    if plates:
        pages = templates_pdf(plates, job.title, page, _share(step, 50, 30))
        found[f"templates-{page.paper}.pdf"] = pages
    found |= {
        "cut-list.csv": cut_list_csv(job.parts, job.pieces, framed).encode("utf-8"),
    }
    way = CutterWay(framed.cutter_kerf, framed.cutter_tag)
    found |= _for_cutters(sheets, way, _share(step, 80, 20))
    return found


def _share(step: Step | None, start: int, share: int) -> Step | None:
    """Progress of one stretch of the work, of a hundred."""
    if step is None:
        return None

    def told(done: int, total: int) -> None:
        step(start + share * done // max(total, 1), 100)

    return told


def _for_cutters(
    sheets: tuple[NestedSheet, ...], way: CutterWay, step: Step | None
) -> dict[str, bytes]:
    """One DXF and one SVG for each sheet of wood."""
    found: dict[str, bytes] = {}
    for number, sheet in enumerate(sheets, start=1):
        wood = f"{sheet.material or 'wood'}-{sheet.thickness:g}"
        name = f"sheet-{number}-{_file_name(wood)}"
        plate = nested_plate(sheet, name, way)
        found[f"dxf/{name}.dxf"] = plate_dxf(plate).encode("utf-8")
        found[f"svg/{name}.svg"] = plate_svg(plate).encode("utf-8")
        if step is not None:
            step(number, len(sheets))
    return found


def plate_dxf(plate: Plate) -> str:
    """A plate as DXF, mm, one layer a role, in the order in which it is cut."""
    layers = (
        Layer(
            name,
            _COLOURS[name],
            tuple(s.points for s in strokes if s.closed),
            tuple(s.points for s in strokes if not s.closed),
        )
        for name, strokes in (*((name, ()) for name in LAYERS), *plate.runs)
    )
    return dxf_text(layers, plate.note)


def printer_of(build: Build) -> tuple[float, float]:
    """How many millimetres the printer makes of one, across and along the page, by the print check.

    The sheet that the builder named tells, where its cause is one of scale; else the printer is trusted.
    """
    named = build.fuselage.framed.printer if build.fuselage is not None else None
    sheet = next((one for one in build.audit if one.id == named), None)
    if sheet is None:
        return 1.0, 1.0
    found = audit(sheet.pairs)
    if found.cause == "scale" and found.factor:
        return found.factor, found.factor
    if found.cause == "scale-xy" and found.factor_x and found.factor_y:
        return found.factor_x, found.factor_y
    return 1.0, 1.0


def cut_list_csv(parts: tuple[CutPart, ...], pieces: tuple[FlatPiece, ...], framed: Framing) -> str:
    """Sticks, then flat pieces, then strips to buy; millimetres and degrees, unrounded to a thousandth."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(_HEAD)
    for part in parts:
        first, last = (
            (" and ".join(f"{angle:.2f}" for angle in end) for end in part.ends)
            if part.ends
            else ("", "")
        )
        writer.writerow(
            (
                plain(part.name), part.kind, part.quantity, plain(part.material or ""),
                f"{part.section[0]:g}", f"{part.section[1]:g}", f"{part.length:.3f}", "",
                first, last, "along",
            )
        )  # fmt: skip
    for piece in pieces:
        along, across = piece.size
        writer.writerow(
            (
                plain(piece.name), piece.kind, piece.quantity, plain(piece.material or ""),
                "", f"{piece.thickness:g}", f"{along:.3f}", f"{across:.3f}", "", "",
                {"u": "along", "v": "across", "any": "any"}[piece.grain],
            )
        )  # fmt: skip
    for one in purchases_of(parts, framed.kerf, framed.stock):
        writer.writerow(
            (
                "to buy", "strip", one.pieces, plain(one.material or ""),
                f"{one.section[0]:g}", f"{one.section[1]:g}", f"{one.stock:g}", "", "", "", "along",
            )
        )  # fmt: skip
    return out.getvalue()


def _file_name(name: str) -> str:
    kept = re.sub(r"[^A-Za-z0-9]+", "-", name).strip("-")
    return kept[:50] or "piece"
