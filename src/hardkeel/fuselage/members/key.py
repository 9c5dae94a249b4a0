"""Tabs by which one former is keyed into both sides."""

from typing import Final

from hardkeel.fuselage.members.kind import MemberSort

KINDS: Final = (
    MemberSort(
        name="key", needs=("height",), starts={"height": 20.0}, shows=("height",), runs="former"
    ),
)
