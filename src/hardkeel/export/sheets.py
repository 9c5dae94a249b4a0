"""Readings as CSV: millimetres and degrees, one line each, with how they fit."""

import csv
import io

from hardkeel.messages.names import reading_name
from hardkeel.messages.sight import sighted_name
from hardkeel.project.model import Build
from hardkeel.survey.judging import Judgement
from hardkeel.survey.readings import ANGULAR, sigma_of

COLUMNS = (
    "id",
    "phase",
    "kind",
    "what",
    "value",
    "unit",
    "sigma",
    "residual",
    "redundancy",
    "w",
    "noticed_from",
    "used",
    "instrument",
    "taken",
    "simulated",
)


def readings_csv(build: Build, judgement: Judgement) -> str:
    """The readings of a judgement as CSV text with a heading line."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(COLUMNS)
    for reading, fit in zip(judgement.readings, judgement.fits, strict=True):
        writer.writerow(
            (
                reading.id,
                reading.phase or "",
                reading.kind,
                plain(reading_name(build.surveyed, reading)),
                f"{reading.value:g}",
                "deg" if reading.kind in ANGULAR else "mm",
                f"{sigma_of(reading):g}",
                f"{fit.residual:.4f}",
                f"{fit.redundancy:.4f}",
                f"{fit.w:.3f}",
                f"{fit.noticed_from:.3f}",
                "yes" if fit.used else "no",
                plain(reading.instrument or ""),
                reading.taken or "",
                "yes" if reading.simulated else "no",
            )
        )
    for sight, seen in zip(judgement.sightings, judgement.sight_fits, strict=True):
        writer.writerow(
            (
                sight.id,
                sight.phase or "",
                sight.kind,
                plain(sighted_name(build.surveyed, sight)),
                f"{sight.value[0]:g} {sight.value[1]:g}",
                "px",
                f"{sigma_of(sight):g}",
                *(
                    "" if figure is None else f"{figure:.{digits}f}"
                    for figure, digits in (
                        (seen.residual, 4),
                        (seen.redundancy, 4),
                        (seen.w, 3),
                        (seen.noticed_from, 3),
                    )
                ),
                "yes" if seen.used else "no",
                "",
                sight.taken or "",
                "yes" if sight.simulated else "no",
            )
        )
    return out.getvalue()


def plain(text: str) -> str:
    """Text that a spreadsheet will not take for a formula."""
    return f"'{text}" if text[:1] in ("=", "+", "-", "@") else text
