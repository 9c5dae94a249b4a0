"""What formers are called: names that tell the place, and numbers from the nose."""

import re
from string import ascii_lowercase

from hardkeel.fuselage.model import Fuselage


def free_former_id(fuselage: Fuselage, station: float) -> str:
    """An unused name that tells the place: ``F4a`` between F4 and F5, the next number behind the last."""
    used = {former.id for former in fuselage.formers}
    ordered = sorted(fuselage.formers, key=lambda former: former.station)
    ahead = [former for former in ordered if former.station <= station]
    if ahead and len(ahead) < len(ordered):
        stem = re.sub(r"(?<=\d)[a-z]$", "", ahead[-1].id)
        for letter in ascii_lowercase:
            if f"{stem}{letter}" not in used:
                return f"{stem}{letter}"
    number = len(used) + 1
    while f"F{number}" in used:
        number += 1
    return f"F{number}"


def numbered_anew(fuselage: Fuselage) -> dict[str, str]:
    """What formers would be called if they were numbered from the nose: old names to new ones, of those that change."""
    ordered = sorted(fuselage.formers, key=lambda former: former.station)
    wanted = {former.id: f"F{i}" for i, former in enumerate(ordered, 1)}
    return {old: new for old, new in wanted.items() if old != new}
