"""Pure edits of the airframe: formers, tail post, wings, tail; the survey follows each of them."""

import re
from collections.abc import Iterable, Mapping, Sequence
from types import MappingProxyType
from typing import Final

from hardkeel.airframe.bodies import redrawn
from hardkeel.airframe.frame_parts import section_part
from hardkeel.airframe.parts import followed, ledger_renamed
from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2
from hardkeel.edits.named import edit
from hardkeel.fuselage.cutting import former_from_outline
from hardkeel.fuselage.dragging import with_widest
from hardkeel.fuselage.fairing import Bump
from hardkeel.fuselage.loft import former_at
from hardkeel.fuselage.methods import methods_with
from hardkeel.fuselage.model import (
    TAIL_POST,
    CutOut,
    Engine,
    Former,
    Framing,
    Fuselage,
    Line,
    Longeron,
    Member,
    Method,
    Planking,
    Section,
    Squaring,
    Template,
)
from hardkeel.fuselage.naming import free_former_id
from hardkeel.fuselage.planking import planked_between
from hardkeel.fuselage.squaring import BOARD
from hardkeel.paper.model import PrintedSheet
from hardkeel.project.model import Build
from hardkeel.project.soundness import check_build
from hardkeel.schedule.model import Step
from hardkeel.survey.readings import Incidence, Observation, marks_of

_STOP_FIGURES: Final = frozenset({"station", "half_width", "top", "bottom"})


@edit
def with_fuselage(build: Build, fuselage: Fuselage) -> Build:
    """The build with another fuselage, checked, the survey's pins and seats following."""
    return checked(build, build.but(fuselage=fuselage))


@edit
def set_station(build: Build, /, name: str, **figures: float) -> Build:
    """Set figures of a former or the tail post (``station``, ``half_width``, ``top``, ``bottom``), mm.

    Raises
    ------
    BadInput
        When there is no such stop, or its figures do not hang together.
    """
    unknown = set(figures) - _STOP_FIGURES
    if unknown:
        raise BadInput("", f"no figure {sorted(unknown)[0]}")
    fuselage = fuselage_of(build)
    if figures.get("half_width", 0.0) < 0:
        raise BadInput("", "a half-width can't be less than 0")
    if name == TAIL_POST and fuselage.tail_post is not None:
        return with_fuselage(build, fuselage.but(tail_post=fuselage.tail_post.but(**figures)))
    return replaced(build, with_widest(former_of(fuselage, name), figures))


@edit
def add_former(build: Build, station: float) -> Build:
    """Put the former in that the loft wants at a station, mm.

    Raises
    ------
    BadInput
        When the station lies outside, or on one that is there.
    """
    fuselage = fuselage_of(build)
    made = former_at(fuselage, station, free_former_id(fuselage, station))
    return with_fuselage(build, fuselage.but(formers=_sorted([*fuselage.formers, made])))


@edit
def delete_former(build: Build, name: str) -> Build:
    """Take a former out; sections that began or ended there go on to its neighbour.

    Raises
    ------
    BadInput
        When there is none, or it is one of the last two stations.
    """
    fuselage = fuselage_of(build)
    former_of(fuselage, name)
    names = [one for one, _ in fuselage.stations]
    if len(names) <= 2:  # noqa: PLR2004  a fuselage has two ends
        raise BadInput("", "a fuselage needs two stations")
    if fuselage.squaring is not None and any(
        name in _squared(reading) for reading in fuselage.squaring.readings
    ):
        raise BadInput(
            "", f"readings were taken on {name} where the frame is squared: strike them out first"
        )
    i = names.index(name)
    before, after = names[max(i - 1, 0)], names[min(i + 1, len(names) - 1)]
    sections = []
    for section in fuselage.sections:
        start = (after if i == 0 else before) if section.from_ == name else section.from_
        end = (before if i == len(names) - 1 else after) if section.to == name else section.to
        if start != end:
            sections.append(section.but(from_=start, to=end))
    formers = tuple(former for former in fuselage.formers if former.id != name)
    changes: dict[str, object] = {"formers": formers, "sections": tuple(sections)}
    if fuselage.framing is not None:
        changes["framing"] = _members_without(fuselage, name, (before, after), at_front=i == 0)
    return with_fuselage(build, fuselage.but(**changes))


def _members_without(
    fuselage: Fuselage, name: str, beside: tuple[str, str], *, at_front: bool
) -> Framing:
    """Members that began or ended at a former go on to its neighbour; what was only there goes with it."""
    before, after = beside
    names = [one for one, _ in fuselage.stations]
    at_rear = name == names[-1]
    kept: list[Member] = []
    for member in fuselage.framed.members:
        if member.kind == "key" and member.from_ == name:
            continue
        start = (after if at_front else before) if member.from_ == name else member.from_
        end = (before if at_rear else after) if member.to == name else member.to
        if start is not None and start == end:
            continue
        moved = (start, end) != (member.from_, member.to)
        kept.append(member.but(from_=start, to=end) if moved else member)
    return fuselage.framed.but(members=tuple(kept), planking=_planking_without(fuselage, name))


def _planking_without(fuselage: Fuselage, name: str) -> Planking | None:
    """Planks that began or ended at a former begin or end at the next one inside; none where that is the same."""
    planking = fuselage.framed.planking
    if planking is None or name not in (planking.from_, planking.to):
        return planking
    inside = [one.id for one in planked_between(fuselage) if one.id != name]
    if len(inside) < 2:  # noqa: PLR2004  a plank has a length
        return None
    return planking.but(from_=inside[0], to=inside[-1])


@edit
def rename_former(build: Build, name: str, new: str) -> Build:
    """Give a former another name; its state, weight, mass and audit pairs go along.

    Raises
    ------
    BadInput
        When the name is empty or taken.
    """
    fuselage = fuselage_of(build)
    former_of(fuselage, name)
    new = new.strip()
    if not new:
        raise BadInput("", "a former needs a name")
    changed = tuple(f.but(id=new) if f.id == name else f for f in fuselage.formers)
    sections = tuple(
        s.but(from_=new if s.from_ == name else s.from_, to=new if s.to == name else s.to)
        for s in fuselage.sections
    )
    names = {name: new} | {
        section_part(kind, old): section_part(kind, now)
        for old, now in zip(fuselage.sections, sections, strict=True)
        for kind in ("side", "doubler", "sticks")
    }
    renamed = build
    if build.masses:
        renamed = renamed.but(
            masses=tuple(mass.but(id=names.get(mass.id, mass.id)) for mass in build.masses)
        )
    if build.ledger is not None:
        renamed = renamed.but(ledger=ledger_renamed(build.ledger, names))
    if build.audit:
        renamed = renamed.but(audit=tuple(_pairs_renamed(one, name, new) for one in build.audit))
    if build.steps:
        renamed = renamed.but(steps=tuple(_step_renamed(step, names) for step in build.steps))
    changes: dict[str, object] = {"formers": changed, "sections": sections}
    if fuselage.framing is not None:
        members = tuple(
            member.but(
                from_=new if member.from_ == name else member.from_,
                to=new if member.to == name else member.to,
            )
            if name in (member.from_, member.to)
            else member
            for member in fuselage.framed.members
        )
        framed = fuselage.framed
        planking = framed.planking
        if planking is not None and name in (planking.from_, planking.to):
            planking = planking.but(
                from_=new if planking.from_ == name else planking.from_,
                to=new if planking.to == name else planking.to,
            )
        changes["framing"] = framed.but(members=members, planking=planking)
    if fuselage.squaring is not None:
        changes["squaring"] = _squaring_renamed(fuselage.squaring, name, new)
    drawn = redrawn(build, renamed.but(fuselage=fuselage.but(**changes)))
    check_build(drawn)
    return drawn


def _step_renamed(step: Step, names: Mapping[str, str]) -> Step:
    """Its parts, what it is about, and the names in the builder's own words."""

    def told(text: str) -> str:
        for old, new in names.items():
            text = re.sub(rf"(?<!\w){re.escape(old)}(?!\w)", new.replace("\\", r"\\"), text)
        return text

    ids = {
        key: tuple(names.get(one, one) for one in given)
        for key in ("parts", "about")
        if (given := getattr(step, key))
    }
    words = {key: told(own) for key in ("title", "hold", "because") if (own := getattr(step, key))}
    changed = step.but(**ids, **words)
    return step if changed == step else changed


def _squared(reading: Observation) -> set[str]:
    """The formers that a reading of the frame touches."""
    owners = {part for mark in marks_of(reading) for part in mark.rpartition(".")[::2]}
    return owners | ({reading.body} if isinstance(reading, Incidence) else set())


def _squaring_renamed(squaring: Squaring, old: str, new: str) -> Squaring:
    """Readings and tolerances of a frame with a former under its new name."""

    def mark(name: str) -> str:
        body, _, corner = name.rpartition(".")
        if body == old:
            return f"{new}.{corner}"
        return f"{body}.{new}" if body == BOARD and corner == old else name

    def renamed(reading: Observation) -> Observation:
        if isinstance(reading, Incidence):
            return reading.but(body=new) if reading.body == old else reading
        fields: dict[str, object] = {}
        for field in ("from_", "to", "at", "mark"):
            value = getattr(reading, field, None)
            if isinstance(value, str):
                fields[field] = mark(value)
            elif value is not None:
                fields[field] = tuple(mark(one) for one in value)
        return reading.but(**fields)

    tolerances = {
        f"{new}{key.removeprefix(old)}" if key.startswith(f"{old}_") else key: value
        for key, value in (squaring.tolerances or {}).items()
    }
    return squaring.but(
        readings=tuple(renamed(reading) for reading in squaring.readings),
        targets=tuple(one.but(mark=mark(one.mark)) for one in squaring.targets),
        tolerances=tolerances or None,
    )


def _pairs_renamed(sheet: PrintedSheet, old: str, new: str) -> PrintedSheet:
    return sheet.but(
        pairs=tuple(pair.but(part=new) if pair.part == old else pair for pair in sheet.pairs)
    )


@edit
def fair(build: Build, bump: Bump) -> Build:
    """Put a station on the fair curve."""
    return set_station(build, bump.former, **{bump.line: bump.fair})


@edit
def set_line_corner(build: Build, stop: str, line: Line, *, on: bool) -> Build:
    """Say that a line has a corner at a former, or that it goes through.

    Raises
    ------
    BadInput
        When there is no such former, or it stands first: a line begins there.
    """
    fuselage = fuselage_of(build)
    former = former_of(fuselage, stop)
    if on and fuselage.stations[0][0] == stop:
        raise BadInput("", f"{stop} stands first: the lines begin there, they have no corner")
    rest = tuple(one for one in former.line_corners if one != line)
    return replaced(build, former.but(line_corners=(*rest, line) if on else rest))


@edit
def set_engine(build: Build, /, **figures: float) -> Build:
    """Set figures of the motor: ``down``, ``side``, ``z``, ``reach``, ``disc``, ``across``, ``up``; without one it is put on."""
    fuselage = fuselage_of(build)
    engine = fuselage.engine or Engine()
    across, up = figures.pop("across", engine.bolts[0]), figures.pop("up", engine.bolts[1])
    changed = engine.but(bolts=(across, up), **figures)
    return with_fuselage(build, fuselage.but(engine=changed))


@edit
def take_engine_off(build: Build) -> Build:
    """Take the motor off; its thrust line is set no more.

    Raises
    ------
    BadInput
        When readings were taken on it.
    """
    return with_fuselage(build, fuselage_of(build).but(engine=None))


@edit
def set_skins(build: Build, /, **figures: float) -> Build:
    """Set ``side_thickness``, ``top_skin`` or ``bottom_skin``, mm."""
    for name, value in figures.items():
        if value < 0:
            raise BadInput("", f"{name.replace('_', ' ')} can't be less than 0")
    return with_fuselage(build, fuselage_of(build).but(**figures))


@edit
def give_outline(build: Build, name: str, ring: Sequence[Point2]) -> Build:
    """Give a former an outline of its own, laid on its bottom and centred, mm.

    Raises
    ------
    BadInput
        When there is no such former, or the outline closes around nothing.
    """
    former = former_of(fuselage_of(build), name)
    low = min((z for _, z in ring), default=0.0)
    made = former_from_outline(
        name, former.station, [(y, z - low + former.bottom) for y, z in ring]
    )
    return replaced(
        build,
        former.but(
            half_width=made.half_width, top=made.top, bottom=made.bottom, outline=made.outline
        ),
    )


@edit
def stand_former(build: Build, name: str, bottom: float) -> Build:
    """Stand a former so high with its foot, whole: its outline goes along; what is cut out of it stays where it is, mm.

    Raises
    ------
    BadInput
        When there is no such former.
    """
    former = former_of(fuselage_of(build), name)
    up = bottom - former.bottom
    return replaced(
        build,
        former.but(
            bottom=bottom,
            top=former.top + up,
            outline=tuple((y, z + up) for y, z in former.outline),
        ),
    )


@edit
def give_outlines(
    build: Build,
    rings: Mapping[str, Sequence[Point2]],
    stations: Mapping[str, float] = MappingProxyType({}),
) -> Build:
    """Give several formers each an outline of its own, as `give_outline` does, by the formers' names.

    Parameters
    ----------
    stations : mapping of str to float
        Where formers stand that are not there yet, mm; they are put in first, as the loft wants them.

    Raises
    ------
    BadInput
        As `give_outline` and `add_former`; then none is given.
    """
    for name, station in stations.items():
        fuselage = fuselage_of(build)
        made = former_at(fuselage, station, name)
        build = with_fuselage(build, fuselage.but(formers=_sorted([*fuselage.formers, made])))
    for name, ring in rings.items():
        build = give_outline(build, name, ring)
    return build


@edit
def set_method(build: Build, start: str, end: str, method: Method) -> Build:
    """Say how the stretch from one stop to another is built; what it overlaps gives way.

    What meets and is built alike becomes one: set former by former it is one side, crutch or board all the same.  Sheet
    sides may be two sheets that butt there: set over several bays they stay two.

    Raises
    ------
    BadInput
        When the two are not stops in this order.
    """
    fuselage = fuselage_of(build)
    names = [name for name, _ in fuselage.stations]
    if start not in names or end not in names or names.index(start) >= names.index(end):
        raise BadInput("", "a section runs from one station to a later one")
    a, b = names.index(start), names.index(end)
    kept: list[Section] = []
    for section in fuselage.sections:
        p, q = names.index(section.from_), names.index(section.to)
        for low, high in ((p, min(q, a)), (max(p, b), q)):
            if low < high:
                kept.append(section.but(from_=names[low], to=names[high]))
    kept.append(Section(from_=start, to=end, method=method))
    kept.sort(key=lambda section: names.index(section.from_))
    bay = (start, end) if b - a == 1 else ()
    return with_fuselage(build, fuselage.but(sections=tuple(_joined(kept, bay))))


def _joined(sections: Iterable[Section], bay: tuple[str, ...]) -> list[Section]:
    """Sections of one method that meet as one; those of sheets only at the ends of a bay that was set by itself."""
    found: list[Section] = []
    apart = methods_with("flat")
    for section in sections:
        meets = bool(found) and found[-1].to == section.from_
        alike = meets and found[-1].method == section.method
        if alike and (section.method not in apart or section.from_ in bay):
            found[-1] = found[-1].but(to=section.to)
        else:
            found.append(section)
    return found


@edit
def set_longeron(build: Build, longeron_id: str, section: tuple[float, float]) -> Build:
    """Set a longeron's section (across the side, as seen from the side), mm."""
    if min(section) <= 0:
        raise BadInput("", "a longeron's section must be more than 0")
    fuselage = fuselage_of(build)
    made = Longeron(id=longeron_id, section=section, material="spruce")
    found = [
        one.but(section=section) if one.id == longeron_id else one for one in fuselage.longerons
    ]
    if all(one.id != longeron_id for one in found):
        found.append(made)
    return with_fuselage(build, fuselage.but(longerons=tuple(found)))


@edit
def set_all_longerons(build: Build, section: tuple[float, float]) -> Build:
    """Set the section of all longerons, mm; an upper and a lower one where there is none."""
    names = [one.id for one in fuselage_of(build).longerons] or ["upper", "lower"]
    for longeron_id in names:
        build = set_longeron(build, longeron_id, section)
    return build


@edit
def take_longerons_out(build: Build) -> Build:
    """No longerons any more: a planked or stringered fuselage has none."""
    return with_fuselage(build, fuselage_of(build).but(longerons=()))


@edit
def set_wood(build: Build, /, name: str, **figures: float) -> Build:
    """Set a former's ``thickness`` or ``corner`` radius, mm."""
    for key, value in figures.items():
        if value < 0 or (key == "thickness" and value == 0):
            raise BadInput("", f"a {key} of {value:g} can't be cut")
    return replaced(build, former_of(fuselage_of(build), name).but(**figures))


@edit
def lay_out(build: Build, made: Build) -> Build:
    """Put an airframe on the bench where there is none yet, keeping log, hours, plans and readings."""
    laid = build.but(
        name=build.name or made.name,
        phase=build.phase or made.phase,
        fuselage=made.fuselage,
        wings=build.wings or made.wings,
        tail=build.tail or made.tail,
    )
    if build.survey is None:
        laid = laid.but(survey=made.survey)
    return checked(build, laid)


@edit
def set_cutouts(build: Build, name: str, cutouts: Iterable[CutOut], *, lightened: bool) -> Build:
    """Say what is cut out of a former."""
    former = former_of(fuselage_of(build), name)
    return replaced(build, former.but(cutouts=tuple(cutouts), lightened=lightened))


@edit
def set_template(build: Build, name: str, template: Template | None) -> Build:
    """Note what was measured on a former's template."""
    return replaced(build, former_of(fuselage_of(build), name).but(template=template))


def checked(before: Build, after: Build) -> Build:
    """`after` with survey, masses and ledger following, checked."""
    drawn = redrawn(before, after)
    check_build(drawn)
    return followed(before, drawn)


def fuselage_of(build: Build) -> Fuselage:
    """The fuselage.

    Raises
    ------
    BadInput
        When there is none.
    """
    if build.fuselage is None:
        raise BadInput("", "there is no fuselage yet")
    return build.fuselage


def former_of(fuselage: Fuselage, name: str) -> Former:
    """The former of that name.

    Raises
    ------
    BadInput
        When there is none.
    """
    former = fuselage.former(name)
    if former is None:
        raise BadInput("", f'no former "{name}"')
    return former


@edit
def replaced(build: Build, changed: Former) -> Build:
    """The build with another former in the place of the one of its name."""
    fuselage = fuselage_of(build)
    formers = [changed if former.id == changed.id else former for former in fuselage.formers]
    return with_fuselage(build, fuselage.but(formers=_sorted(formers)))


def _sorted(formers: Iterable[Former]) -> tuple[Former, ...]:
    return tuple(sorted(formers, key=lambda former: former.station))
