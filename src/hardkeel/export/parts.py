"""The parts list as CSV and PDF, and a former as DXF."""

import csv
import io
from typing import Final

from hardkeel.airframe.parts import parts_of, weights_of
from hardkeel.base.units import LengthUnit, decimal, format_size
from hardkeel.export.sheets import plain
from hardkeel.fuselage.cutting import FormerShape
from hardkeel.messages.parts import hand_words, lists_told, pair_sentence
from hardkeel.parts.handing import wrong_pairs
from hardkeel.project.model import Build
from hardkeel.storage.dxf import Layer, dxf_text

COLUMNS: Final = (
    "id",
    "name",
    "of",
    "hand",
    "pieces",
    "material",
    "grain",
    "length_mm",
    "width_mm",
    "thickness_mm",
    "station_mm",
    "state",
    "estimated_g",
    "weighed_g",
)


def parts_csv(build: Build) -> str:
    """Every part, one line each, millimetres and grams."""
    parts = parts_of(build)
    weights, states = weights_of(build, parts), build.listed.states
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(COLUMNS)
    for part in parts:
        weight = weights[part.id]
        writer.writerow(
            (
                plain(part.id),
                plain(part.name),
                plain(part.of),
                hand_words(part),
                part.pieces,
                plain(part.material or ""),
                part.grain,
                *(f"{round(side, 1):g}" for side in part.size),
                "" if part.x is None else f"{round(part.x, 1):g}",
                states.get(part.id, "wanted"),
                "" if weight.estimated is None else f"{weight.estimated:.2f}",
                "" if weight.weighed is None else f"{weight.weighed:.2f}",
            )
        )
    return out.getvalue()


def parts_rows(build: Build, unit: LengthUnit) -> list[list[str]]:
    """The same for paper: name, pieces, wood, size, weight, state."""
    parts = parts_of(build)
    weights = weights_of(build, parts)
    rows = [["Part", "Pieces", "Wood", "Grain", "Size", "Weight", "State"]]
    for part in parts:
        best = weights[part.id].best
        size = format_size(part.size, unit)
        pieces = f"{part.pieces}" + (", both hands" if part.hand == "pair" else "")
        rows.append(
            [
                part.name,
                pieces,
                part.material or "–",
                "" if part.grain == "any" else part.grain,
                size,
                "–" if best is None else f"{decimal(best, 1)} g",
                build.listed.states.get(part.id, "wanted"),
            ]
        )
    return rows


def parts_notes(build: Build) -> list[str]:
    """Where the lists disagree, and pairs of one hand."""
    parts, ledger = parts_of(build), build.listed
    told = lists_told(parts, ledger.printed, ledger.box)
    return told + [pair_sentence(part) for part in wrong_pairs(parts, ledger)]


def former_dxf(shape: FormerShape) -> str:
    """A former's cut line as DXF, mm: layer CUT for the wood, OUTSIDE for the finished section."""
    return dxf_text((Layer("CUT", 7, shape.wood), Layer("OUTSIDE", 8, (shape.outside,))))
