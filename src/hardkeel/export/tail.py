"""All templates of the tail: paper, DXF and SVG for cutters, and the cut list."""

from pathlib import Path

from hardkeel.airframe.tails import tail_cut_list, tail_pieces
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.export.framing import CutJob, Step, files_of, printer_of
from hardkeel.export.paper import Page
from hardkeel.export.renewing import Destination, file_stem, renew
from hardkeel.fuselage.model import Fuselage
from hardkeel.project.model import Build


def tail_files(
    build: Build, paper: str, unit: LengthUnit, step: Step | None = None
) -> dict[str, bytes]:
    """``tail-templates-A4.pdf``, ``tail-cut-list.csv``, ``tail-dxf/…``, ``tail-svg/…`` by name.

    Ribs, gussets, skins, templates and forms are nested; the surfaces themselves are in the building plan.

    Raises
    ------
    BadInput
        When no surface says how it is built, or a section is missing.
    GivenUp
        When `step` says so.
    """
    if all(surface.kind is None for surface in build.tail):
        raise BadInput("tail", "says of no surface how it is built: there is nothing to cut")
    job = CutJob(
        pieces=tail_pieces(build),
        parts=tail_cut_list(build),
        drawn=(),
        framed=(build.fuselage or Fuselage()).framed,
        title=build.name or "Build",
    )
    files = files_of(job, Page(paper, printer_of(build)), unit, step)
    return {f"tail-{name}": data for name, data in files.items()}


def write_tail(
    build: Build, to: Destination, paper: str, unit: LengthUnit, step: Step | None = None
) -> list[Path]:
    """Write them into a folder; the paths.

    Raises
    ------
    NotOurs, CannotSave, BadInput, GivenUp
        As `hardkeel.export.framing.write_templates`.
    """
    stem = file_stem(build.name)
    contents = {
        f"{stem}-{name}": data for name, data in tail_files(build, paper, unit, step).items()
    }
    renew(to, f"{stem}-tail", contents)
    return [to.folder / name for name in contents]
