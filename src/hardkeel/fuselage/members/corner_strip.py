"""Strips in the corners between side and sheeting, from former to former."""

from typing import Final

from hardkeel.fuselage.members.kind import MemberSort

KINDS: Final = (
    MemberSort(
        name="corner-strip",
        needs=("section",),
        starts={"section": (6.0, 6.0), "gap": 0.5, "material": "balsa-medium"},
        shows=("across", "deep", "gap"),
        traits=frozenset({"on the sides", "along the edges", "over formers", "triangular"}),
    ),
)
