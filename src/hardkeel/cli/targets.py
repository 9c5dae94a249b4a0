"""``hardkeel targets``: printed targets to stick on the model."""

import argparse

from hardkeel.base.errors import BadInput
from hardkeel.cli.options import unit_of
from hardkeel.export.framing import printer_of
from hardkeel.export.target_sheet import UNNAMED, USUAL, targets_pdf
from hardkeel.fuselage.squaring import measured_survey
from hardkeel.messages import targets as say
from hardkeel.storage.atomic import write_atomically
from hardkeel.storage.package import Loaded


def run(loaded: Loaded, parsed: argparse.Namespace) -> str:
    """Write the sheet."""
    survey = loaded.build.surveyed
    if parsed.frame:
        fuselage = loaded.build.fuselage
        if fuselage is None:
            raise BadInput("fuselage", "is missing: there is no frame to stick a target on")
        survey = measured_survey(fuselage)
    size = parsed.size if parsed.size is not None else survey.target_size or USUAL
    where = {} if parsed.frame else say.where_lines(loaded.build, unit_of(parsed))
    words = say.of_frame() if parsed.frame else None
    printer = printer_of(loaded.build)
    data = targets_pdf(survey, size, parsed.paper, printer, words=words, where=where)
    write_atomically(parsed.to, data)
    return f"{say.written(str(parsed.to), len(survey.targets) or UNNAMED)}\n"
