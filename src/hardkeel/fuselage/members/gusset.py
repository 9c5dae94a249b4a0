"""Gussets in the corners where formers meet the sides, between two stations."""

from typing import Final

from hardkeel.fuselage.members.kind import MemberSort

KINDS: Final = (
    MemberSort(
        name="gusset",
        needs=("width", "thickness"),
        starts={"width": 12.0, "thickness": 1.5, "material": "light-ply"},
        shows=("width", "thickness"),
        traits=frozenset({"curved"}),
        step="gussets",
    ),
)
