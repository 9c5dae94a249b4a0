"""``hardkeel mat``: the mat that a cut part is checked on, and what a picture of it is read by."""

import argparse

from hardkeel.export.mat_sheet import mat_files
from hardkeel.messages import mat as say
from hardkeel.storage.atomic import write_atomically


def run(parsed: argparse.Namespace) -> str:
    """Write both."""
    beside = parsed.to.with_suffix(".json")
    pdf, data = mat_files(parsed.paper, pages=tuple(parsed.pages or (1, 1)))
    write_atomically(parsed.to, pdf)
    write_atomically(beside, data)
    return f"{say.written(str(parsed.to), str(beside))}\n"
