"""The demo as it ships: made once by `kettlewick`, kept as a file, so that it opens without being made anew.

A test holds the file against what the code makes; ``python -m tests.golden.make_golden`` writes it.
"""

from importlib import resources

from hardkeel.project.model import Build
from hardkeel.storage.format import build_from_text


def shipped_build() -> Build:
    """The demo as it opens."""
    return build_from_text((resources.files("hardkeel.resources") / "kettlewick.json").read_bytes())
