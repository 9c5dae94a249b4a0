"""Sheets that were printed: noted, so that a change tells which pages are out of date."""

from collections.abc import Collection

from hardkeel.edits.named import edit
from hardkeel.paper.prints import Printed, noted
from hardkeel.project.model import Build


@edit
def note_print(build: Build, made: Printed, numbers: Collection[int]) -> Build:
    """Note that pages of a sheet were printed, counted from 1; its others stay as they lie."""
    before = next((one for one in build.prints if one.sheet == made.sheet), None)
    others = tuple(one for one in build.prints if one.sheet != made.sheet)
    return build.but(prints=(*others, noted(before, made, numbers)))


@edit
def forget_print(build: Build, sheet: str) -> Build:
    """A sheet's print is lost or spoiled: it counts as never printed."""
    return build.but(prints=tuple(one for one in build.prints if one.sheet != sheet))
