"""Pure edits of what a fuselage is framed of, and of what is cut of it."""

from collections.abc import Iterable
from itertools import pairwise
from typing import Final

from hardkeel.airframe.framing import usual_framing
from hardkeel.airframe.parts import ledger_renamed
from hardkeel.base.errors import BadInput
from hardkeel.base.faults import faults_told
from hardkeel.edits.fuselage import fuselage_of, with_fuselage
from hardkeel.edits.named import edit
from hardkeel.fuselage.members import kinds_with, member_kind
from hardkeel.fuselage.methods import any_with
from hardkeel.fuselage.methods.method import free_name
from hardkeel.fuselage.model import (
    Bracing,
    Former,
    Framing,
    Fuselage,
    Member,
    MemberKind,
    Planking,
    TailPost,
)
from hardkeel.fuselage.openings import tray_of
from hardkeel.fuselage.routing import line_of
from hardkeel.joinery.cut_part import Stock
from hardkeel.parts.model import CutPiece
from hardkeel.project.model import Build

_FEWEST_STRINGERS, _MOST_STRINGERS = 3, 80
_BEFORE_MM: Final = 30.0  # where what stands before a former begins
_STICK_MM: Final = 4.0
_BESIDE: Final = 0.3  # of the half width: where a guide begins beside the middle
_OUT_MM: Final = 5.0  # so far outside the skin it ends
_ENDS: Final = 2
Point3 = tuple[float, float, float]
_THINNEST_STICK_MM: Final = 1.5


@edit
def frame_as_usual(build: Build) -> Build:
    """Give the fuselage the members that its kind usually has; its own stay.

    Raises
    ------
    BadInput
        When there is no fuselage to frame.
    """
    fuselage = fuselage_of(build)
    own = fuselage.framed.members
    kinds = {(member.kind, member.from_) for member in own}
    taken = {member.id for member in own}
    usual = [
        member
        for member in usual_framing(build).members
        if (member.kind, member.from_) not in kinds and member.id not in taken
    ]
    framed = _with_members(_with_doublers_drawn(build, usual), (*own, *usual))
    open_ = any_with(fuselage, "sticks")
    if not open_ or fuselage.bracing is not None:
        return framed
    side = min((min(one.section) for one in fuselage.longerons), default=_STICK_MM + 1)
    stick = (max(side - 1, _THINNEST_STICK_MM),) * 2
    return set_bracing(framed, upright=stick, diagonal=stick, pattern="zigzag")


def _with_doublers_drawn(build: Build, usual: list[Member]) -> Build:
    """What was said of doublers that were guessed at goes over to those that are drawn now."""
    names = {
        f"doubler_{member.from_}_{member.to}": member.id
        for member in usual
        if member.kind == "doubler"
    }
    said = build
    if build.ledger is not None:
        said = said.but(ledger=ledger_renamed(build.ledger, names))
    if build.masses:
        masses = (
            mass.but(id=names[mass.id]) if mass.id in names else mass for mass in build.masses
        )
        said = said.but(masses=tuple(masses))
    return said


def usual_ends(fuselage: Fuselage, kind: MemberKind) -> tuple[str, str]:
    """Between which stops a new member of a kind is likely to go: a guide aft, an opening over its tray, else the nose."""
    names = [name for name, _ in fuselage.stations]
    trays = {"servo": "servo-tray", "strap": "battery-tray"}
    tray = next((one for one in fuselage.framed.members if one.kind == trays.get(kind)), None)
    if tray is not None:
        return tray.from_ or names[0], tray.to or names[-1]
    if kind == "guide":
        return names[max(len(names) // 2 - 1, 0)], names[max(len(names) - 2, 1)]
    if kind == "tail-bracket":
        return names[-2], names[-1]
    return names[0], names[min(2, len(names) - 1)]


@edit
def add_member(build: Build, kind: MemberKind, first: str, last: str) -> Build:
    """Put a member in between two stops, with figures to start from.

    Raises
    ------
    BadInput
        When the stops are not there, or not in this order.
    """
    fuselage = fuselage_of(build)
    stations = dict(fuselage.stations)
    for name in (first, last):
        if name not in stations:
            raise BadInput("", f'no former "{name}"')
    figures: dict[str, object] = {
        "id": _free_name(fuselage, kind),
        "kind": kind,
        "from": first,
        "to": last,
        **member_kind(kind).starts,
    }
    runs = member_kind(kind).runs
    if runs == "place":
        figures["station"] = round((stations[first].station + stations[last].station) / 2, 1)
    if kind in kinds_with("opening"):
        tray = tray_of(fuselage, Member.model_validate(figures))
        figures["z"] = tray.z if tray is not None else 0.0
    if runs == "former" and "station" in member_kind(kind).needs:
        figures["station"] = round(stations[first].station - _BEFORE_MM, 1)
    if runs == "route":
        figures["route"] = _first_route(stations[first], stations[last])
        figures.pop("from")
        figures.pop("to")
    if runs in ("former", "to"):
        figures.pop("to" if runs == "former" else "from")
    return _with_members(build, (*fuselage.framed.members, Member.model_validate(figures)))


def _first_route(first: Former | TailPost, last: Former | TailPost) -> tuple[Point3, ...]:
    """From beside the middle of one stop out through the starboard side at another."""
    a, b = ((one.bottom + one.top) / 2 for one in (first, last))
    return (
        (round(first.station, 1), round(first.half_width * _BESIDE, 1), round(a, 1)),
        (round(last.station, 1), round(last.half_width + _OUT_MM, 1), round(b, 1)),
    )


@edit
def add_place(build: Build, member_id: str) -> Build:
    """Give a guide one more place to run through, in the middle of its longest stretch, where it lies now.

    Raises
    ------
    BadInput
        When there is no such guide.
    """
    member = _guide(build, member_id)
    lengths = [b[0] - a[0] for a, b in pairwise(member.route)]
    at = lengths.index(max(lengths))
    x = round((member.route[at][0] + member.route[at + 1][0]) / 2, 1)
    across, up = line_of(member)
    place = (x, round(float(across.value(x)), 1), round(float(up.value(x)), 1))
    return set_member(
        build, member_id, route=(*member.route[: at + 1], place, *member.route[at + 1 :])
    )


@edit
def set_place(build: Build, member_id: str, number: int, axis: int, value: float) -> Build:
    """Move one of a guide's places, counted from the nose, along an axis.

    Raises
    ------
    BadInput
        When there is no such guide or place, or it would lie before the one ahead of it.
    """
    member = _guide(build, member_id)
    if not 0 <= number < len(member.route):
        raise BadInput("", f"{member_id} has no place {number + 1}")
    places = [list(place) for place in member.route]
    places[number][axis] = value
    return set_member(build, member_id, route=tuple(map(tuple, places)))


@edit
def take_place(build: Build, member_id: str) -> Build:
    """Take the last place between a guide's ends out again.

    Raises
    ------
    BadInput
        When there is no such guide, or none between its ends.
    """
    member = _guide(build, member_id)
    if len(member.route) <= _ENDS:
        raise BadInput("", f"{member_id} has nothing but its ends")
    return set_member(build, member_id, route=(*member.route[:-2], member.route[-1]))


def _guide(build: Build, member_id: str) -> Member:
    found = next(
        (one for one in fuselage_of(build).framed.members if one.id == member_id and one.route),
        None,
    )
    if found is None:
        raise BadInput("", f'no guide "{member_id}"')
    return found


@edit
def spread_stringers(
    build: Build,
    around: int,
    *,
    first: str,
    last: str,
    section: tuple[float, float],
    material: str | None = None,
) -> Build:
    """Lay stringers at equal distances round the girth, in the place of those that are there.

    Parameters
    ----------
    around : int
        How many all round: one on the crown, and where the number is even one on the keel line, unless a keel lies there.
    section : (float, float)
        Deep and wide, mm.

    Raises
    ------
    BadInput
        When there are fewer than three, or the stops are not there.
    """
    fuselage = fuselage_of(build)
    if not _FEWEST_STRINGERS <= around <= _MOST_STRINGERS:
        raise BadInput(
            "stringers", f"from {_FEWEST_STRINGERS} to {_MOST_STRINGERS} go round, not {around}"
        )
    known = {name for name, _ in fuselage.stations}
    for name in (first, last):
        if name not in known:
            raise BadInput("", f'no former "{name}"')
    kept = [one for one in fuselage.framed.members if one.kind != "stringer"]
    taken = {one.id for one in kept}
    keel = any(one.kind == "keel" and one.y == 0 for one in kept)
    angles = [i * 360 / around for i in range(around // 2 + 1)]
    if keel:
        angles = [one for one in angles if one < 180]  # noqa: PLR2004  the keel's own place
    made = [
        Member.model_validate(
            {
                "id": free_name(f"stringer {number}", taken),
                "kind": "stringer",
                "from": first,
                "to": last,
                "section": section,
                "angle": round(angle, 3),
                "by_girth": True,
                "material": material,
            }
        )
        for number, angle in enumerate(angles, start=1)
    ]
    return _with_members(build, (*kept, *made))


@edit
def set_member(build: Build, /, name: str, **figures: object) -> Build:
    """Set figures of a member.

    Raises
    ------
    BadInput
        When there is none, or it does not hang together any more.
    """
    members = fuselage_of(build).framed.members
    if all(member.id != name for member in members):
        raise BadInput("", f'no member "{name}"')
    return _with_members(build, tuple(m.but(**figures) if m.id == name else m for m in members))


@edit
def delete_member(build: Build, name: str) -> Build:
    """Take a member out."""
    members = fuselage_of(build).framed.members
    return _with_members(build, tuple(member for member in members if member.id != name))


@edit
def set_framing(build: Build, /, **figures: object) -> Build:
    """Set ``web``, ``kerf``, ``sheet``, ``sheet_gap`` or ``sheeting``."""
    fuselage = fuselage_of(build)
    return with_fuselage(build, fuselage.but(framing=fuselage.framed.but(**figures)))


@edit
def set_planking(build: Build, /, **figures: object) -> Build:
    """Plank the fuselage, or set ``width``, ``thickness``, ``keel_width``, ``material``, ``from_`` or ``to`` of its planks.

    Raises
    ------
    BadInput
        When there are fewer than two formers to plank, or a figure makes no sense.
    """
    fuselage = fuselage_of(build)
    ordered = sorted(fuselage.formers, key=lambda one: one.station)
    if len(ordered) < 2:  # noqa: PLR2004  a plank has a length
        raise BadInput("", "planks want two formers at least")
    now = fuselage.framed.planking
    if now is None:
        ends = {"from": ordered[0].id, "to": ordered[-1].id}
        now = Planking.model_validate({"material": "balsa-medium", **ends})
    with faults_told():
        said = {{"from_": "from"}.get(key, key): value for key, value in figures.items()}
        made = Planking.model_validate({**now.model_dump(by_alias=True), **said})
    return set_framing(build, planking=made)


@edit
def take_planking_off(build: Build) -> Build:
    """No planks any more."""
    return set_framing(build, planking=None)


@edit
def set_rack(build: Build, rack: Iterable[Stock]) -> Build:
    """Say which strips lie in the rack."""
    return set_framing(build, stock=tuple(rack))


@edit
def set_offcuts(build: Build, offcuts: Iterable[Stock]) -> Build:
    """Say which pieces of sheet lie there: thick and wide, and how long, mm."""
    return set_framing(build, offcuts=tuple(offcuts))


@edit
def set_bracing(build: Build, /, **figures: object) -> Build:
    """Set ``upright`` and ``diagonal`` sections (across, as seen in side view; mm) and the ``pattern``."""
    fuselage = fuselage_of(build)
    bracing = (fuselage.bracing or Bracing()).but(**figures)
    return with_fuselage(build, fuselage.but(bracing=bracing))


@edit
def set_member_wood(build: Build, bent: str, material: str) -> Build:
    """Make the sides (``side``) or a longeron (``upper longeron …``) of another wood."""
    fuselage = fuselage_of(build)
    if bent == "side":
        return with_fuselage(build, fuselage.but(side_material=material))
    longerons = tuple(
        one.but(material=material) if bent.startswith(f"{one.id} longeron") else one
        for one in fuselage.longerons
    )
    return with_fuselage(build, fuselage.but(longerons=longerons))


@edit
def set_former(build: Build, /, name: str, **figures: object) -> Build:
    """Say whether a former is ``split``, of ``sticks`` (wide, deep; mm), and how those ``joint``.

    Raises
    ------
    BadInput
        When there is no such former.
    """
    fuselage = fuselage_of(build)
    if fuselage.former(name) is None:
        raise BadInput("", f'no former "{name}"')
    changed: tuple[Former, ...] = tuple(
        former.but(**figures) if former.id == name else former for former in fuselage.formers
    )
    return with_fuselage(build, fuselage.but(formers=changed))


@edit
def note_cut(build: Build, key: str, pieces: int, length: float) -> Build:
    """Note how many sticks of one line are cut, and how long they were made, mm."""
    cut = dict(build.listed.cut)
    if pieces > 0:
        cut[key] = CutPiece(pieces=pieces, length=length)
    else:
        cut.pop(key, None)
    return build.but(ledger=build.listed.but(cut=cut))


def _with_members(build: Build, members: tuple[Member, ...]) -> Build:
    fuselage = fuselage_of(build)
    framing: Framing = fuselage.framed.but(members=members)
    return with_fuselage(build, fuselage.but(framing=framing))


def _free_name(fuselage: Fuselage, kind: str) -> str:
    used = {member.id for member in fuselage.framed.members} | {f.id for f in fuselage.formers}
    plain = kind.replace("-", " ")
    if plain not in used:
        return plain
    number = 2
    while f"{plain} {number}" in used:
        number += 1
    return f"{plain} {number}"
