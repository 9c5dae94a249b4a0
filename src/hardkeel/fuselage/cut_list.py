"""What is cut for a fuselage, stick by stick."""

from collections.abc import Iterator
from typing import Final

from hardkeel.fuselage.loft import Loft, loft_of
from hardkeel.fuselage.members import member_kind
from hardkeel.fuselage.methods import side_at
from hardkeel.fuselage.model import Fuselage, Longeron
from hardkeel.fuselage.planking import planks_of
from hardkeel.fuselage.sheeted import corner_strips_of
from hardkeel.fuselage.sticks import sticks_of
from hardkeel.geometry.spline import arc_lengths
from hardkeel.joinery.cut_part import CutPart

BOTH_SIDES: Final = 2


def cut_list_of(fuselage: Fuselage) -> tuple[CutPart, ...]:
    """Every stick and longeron; quantities multiplied out are all there are.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    loft = loft_of(fuselage)
    return (
        *_sticks(fuselage),
        *_built_formers(fuselage),
        *running_parts(fuselage),
        *_planks(fuselage),
        *(_longeron(loft, longeron) for longeron in fuselage.longerons),
    )


def _sticks(fuselage: Fuselage) -> Iterator[CutPart]:
    numbers: dict[str, int] = {}
    for stick in sticks_of(fuselage):
        number = numbers[stick.kind] = numbers.get(stick.kind, 0) + 1
        yield CutPart(
            f"{stick.kind} {number}",
            stick.kind,
            BOTH_SIDES,
            stick.section,
            stick.length,
            stick.ends,
            fuselage.side_material,
            stick.outline,
            stick.key,
        )


_SQUARE: Final = ((90.0,), (90.0,))


def _built_formers(fuselage: Fuselage) -> Iterator[CutPart]:
    """Formers that are a frame of four sticks; where they butt the cross-pieces go between the uprights.

    Where they lap each is as long as the frame, halved at both ends.
    """
    for former in fuselage.formers:
        if former.sticks is None:
            continue
        wide, deep = former.sticks
        across = 2 * (former.half_width - side_at(fuselage, former.station))
        tall = former.top - fuselage.top_skin - former.bottom - fuselage.bottom_skin
        if former.joint == "butt":
            across -= 2 * wide
        if min(across, tall) <= 0:
            continue
        for kind, length in (("upright", tall), ("cross-piece", across)):
            yield CutPart(
                f"{former.id} {kind}",
                "former-stick",
                2,
                (deep, wide),
                length,
                _SQUARE,
                former.material,
                key=f"{former.id} {kind}",
            )


def running_parts(fuselage: Fuselage) -> tuple[CutPart, ...]:
    """Corner strips, stringers and bearers, each line with the member that it is of."""
    return (*_corner_strips(fuselage), *_running(fuselage))


def _corner_strips(fuselage: Fuselage) -> Iterator[CutPart]:
    members = {member.id: member for member in fuselage.framed.members}
    for strip in corner_strips_of(fuselage):
        member = members[strip.member]
        name = f"{strip.edge} {strip.member} {strip.between[0]}–{strip.between[1]}"
        yield CutPart(
            name,
            "corner-strip",
            BOTH_SIDES,
            member.section or (0.0, 0.0),
            strip.length,
            _SQUARE,
            member.material,
            key=name,
            triangular=member.triangular,
            member=member.id,
        )


def _running(fuselage: Fuselage) -> Iterator[CutPart]:
    """Sticks that run through or over the formers; trimmed in place."""
    for member in fuselage.framed.members:
        run = member_kind(member.kind).length(fuselage, member)
        if member.section is None or run is None or run[0] <= 0:
            continue
        length, both = run
        yield CutPart(
            member.id,
            member.kind,
            both,
            member.section,
            length,
            (),
            member.material,
            key=member.id,
            member=member.id,
        )


def _planks(fuselage: Fuselage) -> Iterator[CutPart]:
    """Strips as they are bought, tapered when they are laid."""
    planking = fuselage.framed.planking
    if planking is None:
        return
    for plank in planks_of(fuselage).planks:
        if plank.side == "port":
            name = f"plank {plank.number}"
            section = (planking.thickness, planking.width)
            yield CutPart(
                name, "plank", BOTH_SIDES, section, plank.length, (), planking.material, key=name
            )


def _longeron(loft: Loft, longeron: Longeron) -> CutPart:
    """A longeron from the first station to the tail post: the developed length of its outer corner."""
    height = loft.edge(lower=longeron.is_lower)
    length = float(arc_lengths((loft.half_width, height), loft.stations)[-1])
    return CutPart(
        f"{longeron.id} longeron",
        "longeron",
        BOTH_SIDES,
        longeron.section,
        length,
        (),
        longeron.material,
        key=f"longeron {longeron.id}",
    )
