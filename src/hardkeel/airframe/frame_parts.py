"""The parts that framing brings: doublers, crutch, plates, strips, sticks."""

from functools import lru_cache
from typing import TYPE_CHECKING

from hardkeel.base.values import LARGEST_FIGURE
from hardkeel.fuselage.cut_list import BOTH_SIDES, running_parts
from hardkeel.fuselage.flatwork import flatwork_of
from hardkeel.fuselage.gussets import gussets_of
from hardkeel.fuselage.methods import sections_with
from hardkeel.fuselage.model import Fuselage, Section
from hardkeel.fuselage.planking import planked_between, planks_of
from hardkeel.fuselage.sheeted import doublers_of
from hardkeel.fuselage.sticks import sticks_of
from hardkeel.geometry.polygons import shapely
from hardkeel.parts.model import Part

if TYPE_CHECKING:
    from hardkeel.joinery.flat import FlatPiece


def section_part(kind: str, section: Section) -> str:
    """The id of a section's part: by its ends, so that another section's coming or going leaves it."""
    return f"{kind}_{section.from_}_{section.to}"


@lru_cache(maxsize=16)
def member_parts(fuselage: Fuselage) -> tuple[Part, ...]:
    """What is drawn as members: flat ones by their outlines, running ones by their length."""
    members = {member.id: member for member in fuselage.framed.members}
    found: list[Part] = []
    flat: dict[str, list[FlatPiece]] = {}
    for piece in (*doublers_of(fuselage), *flatwork_of(fuselage), *gussets_of(fuselage)):
        flat.setdefault(piece.part, []).append(piece)
    for name, pieces in flat.items():
        first = pieces[0]
        member = members[name]
        a, b = fuselage.span(member) if member.station is None else (member.station,) * 2
        volume = sum(piece.area * piece.thickness for piece in pieces)
        if first.pair:
            volume /= len(pieces)
        found.append(
            Part(
                id=name,
                name=member.id.replace("_", " "),
                kind="doubler" if member.kind == "tail-doubler" else member.kind,
                hand="pair" if first.pair else "none",
                material=member.material,
                grain="along",
                quantity=len(pieces) if first.pair else first.quantity,
                size=(*first.size, first.thickness),
                volume=min(volume, LARGEST_FIGURE),
                x=(a + b) / 2,
            )
        )
    lengths: dict[str, float] = {}
    pieces_of_kind: dict[str, int] = {}
    for part in running_parts(fuselage):
        lengths[part.member] = lengths.get(part.member, 0.0) + part.length * part.quantity
        pieces_of_kind[part.member] = pieces_of_kind.get(part.member, 0) + part.quantity
    for name, length in lengths.items():
        member = members[name]
        small, large = member.section or (0.0, 0.0)
        each = length / pieces_of_kind[name]
        volume = each * small * large * (0.5 if member.triangular else 1.0)
        a, b = fuselage.span(member)
        found.append(
            Part(
                id=name,
                name=member.id.replace("_", " "),
                kind=member.kind,
                material=member.material,
                grain="along",
                quantity=pieces_of_kind[name],
                size=(each, large, small),
                volume=min(volume, LARGEST_FIGURE),
                x=(a + b) / 2,
            )
        )
    return tuple(found)


def planking_parts(fuselage: Fuselage) -> list[Part]:
    """The planks of both sides together, as they lie."""
    planking = fuselage.framed.planking
    planks = planks_of(fuselage).planks
    if planking is None or not planks:
        return []
    formers = planked_between(fuselage)
    volume = sum(plank.area for plank in planks) * planking.thickness
    return [
        Part(
            id="planking",
            name="planking",
            kind="planks",
            material=planking.material,
            grain="along",
            size=(sum(plank.length for plank in planks), planking.width, planking.thickness),
            volume=min(volume, LARGEST_FIGURE),
            x=(formers[0].station + formers[-1].station) / 2,
        )
    ]


def stick_parts(fuselage: Fuselage) -> list[Part]:
    """The sticks of each open section together: uprights and diagonals of both sides."""
    found: list[Part] = []
    stations = dict(fuselage.stations)
    if fuselage.bracing is None:
        return found
    for section in sections_with(fuselage, "sticks"):
        sticks = [one for one in sticks_of(fuselage) if one.section_from == section.from_]
        volume = sum(
            shapely.Polygon(one.outline).area * one.section[0] * BOTH_SIDES for one in sticks
        )
        if volume <= 0:
            continue
        deep = max(one.section for one in sticks)
        found.append(
            Part(
                id=section_part("sticks", section),
                name="uprights and diagonals",
                kind="sticks",
                material=fuselage.side_material,
                grain="along",
                size=(sum(one.length for one in sticks) * BOTH_SIDES, deep[1], deep[0]),
                volume=min(volume, LARGEST_FIGURE),
                x=(stations[section.from_].station + stations[section.to].station) / 2,
            )
        )
    return found
