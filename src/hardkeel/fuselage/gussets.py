"""Gussets in the free corners of open bays: the corner's true angle, straight or with a hollow edge."""

from collections.abc import Iterator
from dataclasses import dataclass

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


@dataclass(frozen=True, slots=True)
class GussetPlace:
    """Where a gusset lies on the side as it is pinned down.

    Attributes
    ----------
    name : str
        Of its piece, as `gussets_of` calls it.
    ring : tuple of (s, z)
        Its triangle; a hollow edge is too small in a drawing to tell.
    """

    member: Member
    name: str
    ring: tuple[Point2, ...]


def gusset_places(fuselage: Fuselage) -> Iterator[GussetPlace]:
    """Every gusset's place, in the order of their pieces.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    members = [member for member in fuselage.framed.members if member.kind == "gusset"]
    if not members:
        return
    corners = free_corners_of(fuselage)
    by_bay: dict[tuple[str, str], list[Corner]] = {}
    for corner in corners:
        by_bay.setdefault((corner.before, corner.behind), []).append(corner)
    for member in members:
        for number, corner in enumerate(_filled(fuselage, member, corners), start=1):
            bay = by_bay[corner.before, corner.behind]
            middle = sum(one.at[0] for one in bay) / len(bay)
            height = sum(one.at[1] for one in bay) / len(bay)
            leg = _leg(member, corner)
            s, z = corner.at
            fore = leg if s < middle else -leg
            up = leg if z < height else -leg
            ring = ((s, z), (s + fore, z + leg * corner.slope), (s, z + up))
            yield GussetPlace(member, _name(member, number), ring)


def _name(member: Member, number: int) -> str:
    return f"{member.id} {number}"


def _leg(member: Member, corner: Corner) -> float:
    """How long its legs are: two in one bay do not meet, mm."""
    return min(member.width or 0.0, corner.along / 2, corner.up / 2)


def _filled(fuselage: Fuselage, member: Member, corners: tuple[Corner, ...]) -> Iterator[Corner]:
    """The corners that get a gusset of a member."""
    first, last = fuselage.span(member)
    station = {name: stop.station for name, stop in fuselage.stations}
    for corner in corners:
        if first <= station[corner.before] < last and ring_of(
            gusset_outline(_leg(member, corner), corner.angle, curved=member.curved)
        ):
            yield corner


def _of(fuselage: Fuselage, member: Member, corners: tuple[Corner, ...]) -> Iterator[FlatPiece]:
    for number, corner in enumerate(_filled(fuselage, member, corners), start=1):
        outline = ring_of(gusset_outline(_leg(member, corner), corner.angle, curved=member.curved))
        yield FlatPiece(
            name=_name(member, number),
            kind="gusset",
            part=member.id,
            outline=outline,
            thickness=member.thickness or 0.0,
            material=member.material,
            quantity=2,
            pair=True,
            grain="any",
        )
