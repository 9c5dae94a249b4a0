"""Gussets in the free corners of open bays: the corner's true angle, straight or with a hollow edge."""

from collections.abc import Iterator

from hardkeel.fuselage.model import Fuselage, Member
from hardkeel.fuselage.sticks import Corner, free_corners_of
from hardkeel.joinery.flat import FlatPiece, ring_of
from hardkeel.joinery.gusset import gusset_outline


def gussets_of(fuselage: Fuselage) -> tuple[FlatPiece, ...]:
    """One piece for each free corner, to be cut once for each side; alike on both, for they show.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    members = [member for member in fuselage.framed.members if member.kind == "gusset"]
    if not members:
        return ()
    corners = free_corners_of(fuselage)
    return tuple(piece for member in members for piece in _of(fuselage, member, corners))


def _of(fuselage: Fuselage, member: Member, corners: tuple[Corner, ...]) -> Iterator[FlatPiece]:
    first, last = fuselage.span(member)
    station = {name: stop.station for name, stop in fuselage.stations}
    leg = member.width or 0.0
    number = 0
    for corner in corners:
        if not first <= station[corner.before] < last:
            continue
        reach = min(leg, corner.along / 2, corner.up / 2)  # two in one bay do not meet
        outline = ring_of(gusset_outline(reach, corner.angle, curved=member.curved))
        if not outline:
            continue
        number += 1
        yield FlatPiece(
            name=f"{member.id} {number}",
            kind="gusset",
            part=member.id,
            outline=outline,
            thickness=member.thickness or 0.0,
            material=member.material,
            quantity=2,
            pair=True,
            grain="any",
        )
