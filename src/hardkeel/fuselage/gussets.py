"""Gussets in the free corners of open bays: the corner's true angle, straight or with a hollow edge."""

from collections.abc import Iterator

from hardkeel.base.values import Point2
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


def gusset_places(fuselage: Fuselage) -> Iterator[tuple[Member, tuple[Point2, ...]]]:
    """Where they lie on the side as it is pinned down, as triangles of (s, z), each with its member.

    A hollow edge is too small in a drawing to tell.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    members = [member for member in fuselage.framed.members if member.kind == "gusset"]
    if not members:
        return
    station = {name: stop.station for name, stop in fuselage.stations}
    by_bay: dict[tuple[str, str], list[Corner]] = {}
    for corner in free_corners_of(fuselage):
        by_bay.setdefault((corner.before, corner.behind), []).append(corner)
    for member in members:
        first, last = fuselage.span(member)
        for (before, _), corners in by_bay.items():
            if not first <= station[before] < last:
                continue
            middle = sum(corner.at[0] for corner in corners) / len(corners)
            height = sum(corner.at[1] for corner in corners) / len(corners)
            for corner in corners:
                leg = min(member.width or 0.0, corner.along / 2, corner.up / 2)
                s, z = corner.at
                fore = leg if s < middle else -leg
                up = leg if z < height else -leg
                yield member, ((s, z), (s + fore, z + leg * corner.slope), (s, z + up))


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
