"""Revision 1: sides and doublers are called by the ends of their stretch; older ledgers numbered them."""

from typing import Final

from hardkeel.airframe.frame_parts import section_part
from hardkeel.airframe.parts import ledger_renamed
from hardkeel.project.model import Build

_LEDGER_OF_PARTS: Final = ("states", "weighed", "pairs")


def with_parts_by_ends(build: Build) -> Build:
    """A ledger of older files, which numbered sides and doublers, with its parts by their ends."""
    if build.fuselage is None or build.ledger is None:
        return build
    names = {
        f"{kind}{i}": section_part(kind, section)
        for i, section in enumerate(build.fuselage.sections, start=1)
        for kind in ("side", "doubler")
    }
    ledger = build.ledger
    used = {mass.id for mass in build.masses}
    for field in _LEDGER_OF_PARTS:
        used |= getattr(ledger, field).keys()
    if not used & names.keys():
        return build
    masses = tuple(mass.but(id=names.get(mass.id, mass.id)) for mass in build.masses)
    renamed = build.but(masses=masses) if build.masses else build
    return renamed.but(ledger=ledger_renamed(ledger, names))
