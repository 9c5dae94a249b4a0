"""Does a fuselage hang together?  What no single value can know."""

from itertools import pairwise

from hardkeel.base.errors import BadInput
from hardkeel.base.values import unique_ids
from hardkeel.fuselage.members.kind import member_kind
from hardkeel.fuselage.model import TAIL_POST, Former, Fuselage, Member, TailPost
from hardkeel.fuselage.planking import planked_between

_FEWEST_PLACES = 2
CLOSEST_MM = 1e-6  # stations nearer to each other than this are the same place


def check_fuselage(fuselage: Fuselage, place: str = "fuselage") -> None:
    """Raise on the first thing that does not fit.

    Raises
    ------
    BadInput
        Naming the place, as ``fuselage.formers[2].top: is not above its bottom``.
    """
    unique_ids(f"{place}.formers", (one.id for one in fuselage.formers), taken={TAIL_POST})
    for i, former in enumerate(fuselage.formers):
        _check_stop(former, f"{place}.formers[{i}]")
        unique_ids(f"{place}.formers[{i}].cutouts", (hole.id for hole in former.cutouts))
    if fuselage.tail_post is not None:
        _check_stop(fuselage.tail_post, f"{place}.tail_post")
    _check_stations(fuselage, place)
    _check_sections(fuselage, place)


def _check_sections(fuselage: Fuselage, place: str) -> None:
    for i, section in enumerate(fuselage.sections):
        for field, name in (("from", section.from_), ("to", section.to)):
            known = fuselage.former(name) is not None or (
                name == TAIL_POST and fuselage.tail_post is not None
            )
            if not known:
                raise BadInput(f"{place}.sections[{i}].{field}", f'no former "{name}"')
        if section.from_ == section.to:
            raise BadInput(
                f"{place}.sections[{i}].to", f'is "{section.to}", where it begins: it has no length'
            )
    unique_ids(f"{place}.longerons", (longeron.id for longeron in fuselage.longerons))
    unique_ids(f"{place}.framing.members", (member.id for member in fuselage.framed.members))
    planked_between(fuselage)
    for i, member in enumerate(fuselage.framed.members):
        _check_member(fuselage, member, f"{place}.framing.members[{i}]")


def _check_member(fuselage: Fuselage, member: Member, place: str) -> None:
    kind = member_kind(member.kind)
    known = {name: stop.station for name, stop in fuselage.stations}
    for field, name in (("from", member.from_), ("to", member.to)):
        if name is not None and name not in known:
            raise BadInput(f"{place}.{field}", f'no former "{name}"')
    for field in kind.needs:
        if getattr(member, field) is None:
            raise BadInput(f"{place}.{field}", f"is missing: a {member.kind} needs it")
    if kind.runs == "former" and (member.from_ is None or fuselage.former(member.from_) is None):
        raise BadInput(f"{place}.from", f"is missing: a {member.kind} names its former")
    if kind.runs == "route":
        _check_route(member, place)
    if kind.runs == "span" and known:
        first, last = fuselage.span(member)
        if last <= first:
            raise BadInput(f"{place}.to", f"{member.to} does not stand behind {member.from_}")


def _check_route(member: Member, place: str) -> None:
    if len(member.route) < _FEWEST_PLACES:
        raise BadInput(f"{place}.route", "needs two places at the least, (x, y, z) each")
    for i, (before, after) in enumerate(pairwise(member.route), start=1):
        if after[0] - before[0] <= CLOSEST_MM:
            raise BadInput(f"{place}.route[{i}]", "does not lie behind the place before it")


def _check_stop(stop: Former | TailPost, place: str) -> None:
    if not stop.top > stop.bottom:
        raise BadInput(f"{place}.top", f"{stop.top:g} is not above its bottom, {stop.bottom:g}")


def _check_stations(fuselage: Fuselage, place: str) -> None:
    where = {former.id: i for i, former in enumerate(fuselage.formers)}
    stations = fuselage.stations
    for (before, a), (name, b) in pairwise(stations):
        if b.station - a.station <= CLOSEST_MM:
            at = f"{place}.formers[{where[name]}]" if name in where else f"{place}.tail_post"
            raise BadInput(f"{at}.station", f"{b.station:g} is where {before} stands already")
