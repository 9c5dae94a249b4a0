"""Doublers on the inner faces of the sides, at the nose and at the tail."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Final

from hardkeel.base.late import late
from hardkeel.fuselage.members.kind import MemberSort, Seen
from hardkeel.fuselage.model import Member, MemberKind
from hardkeel.geometry.polygons import BaseGeometry, shapely

if TYPE_CHECKING:
    import numpy as np

    from hardkeel.fuselage.sheeted import Side
else:  # to know a kind needs none of it
    np = late("numpy")


def _takes(member: Member, inner: BaseGeometry) -> Iterator[BaseGeometry]:
    left, low, right, high = inner.bounds
    thick = member.thickness or 0.0
    if high - low > 2 * member.inset:
        a, b = low + member.inset, high - member.inset
        yield shapely.box(left, a, left + thick, b)
        yield shapely.box(right - thick, a, right, b)


def _aside(side: "Side", member: Member) -> Iterator[Seen]:
    a, b = side.fuselage.span(member)
    x = side.places(a, max(b - member.short, a + 1))
    low, high = side.bottom(x) + member.inset, side.top(x) - member.inset
    ring = (*zip(x, -high, strict=True), *reversed([*zip(x, -low, strict=True)]))
    yield Seen(member.id, ring, member.material, faint=True)


def _above(side: "Side", member: Member) -> Iterator[Seen]:
    a, b = side.fuselage.span(member)
    x = side.places(a, max(b - member.short, a + 1))
    outer = np.maximum(side.loft.half_width.value(x) - side.fuselage.side_thickness, 0.0)
    inner = np.maximum(outer - (member.thickness or 0.0), 0.0)
    for hand in (-1, 1):
        ring = (
            *zip(x, hand * outer, strict=True),
            *reversed([*zip(x, hand * inner, strict=True)]),
        )
        yield Seen(member.id, ring, member.material)


def _kind(name: MemberKind) -> MemberSort:
    return MemberSort(
        name=name,
        needs=("thickness",),
        starts={"thickness": 1.5, "inset": 6.0, "material": "light-ply"},
        shows=("thickness", "inset", "short"),
        traits=frozenset({"doubler", "on the sides"}),
        passes=True,
        takes=_takes,
        aside=_aside,
        above=_above,
    )


KINDS: Final = (_kind("doubler"), _kind("tail-doubler"))
