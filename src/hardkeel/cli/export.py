"""``hardkeel export``: the record as PDF, CSV and build.json, the parts and the formers."""

import argparse

from hardkeel.cli.options import unit_of
from hardkeel.export.bundle import export_record
from hardkeel.export.renewing import Destination
from hardkeel.storage.package import Loaded


def run(loaded: Loaded, parsed: argparse.Namespace) -> str:
    """The files that were written, a line each."""
    build = loaded.build
    to = Destination(parsed.to, parsed.file, parsed.overwrite, parsed.paper)
    written = export_record(
        build, to, parsed.phase or build.phase, unit_of(parsed), loaded.attached()
    )
    return "".join(f"{path}\n" for path in written)
