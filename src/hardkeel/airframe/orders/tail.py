"""The order of work that the tail asks for, from its own wood: what after what."""

from collections.abc import Iterable
from typing import Final

from hardkeel.airframe.orders import frame
from hardkeel.airframe.orders.craft import brought_by
from hardkeel.airframe.orders.work import Work
from hardkeel.airframe.tails import in_a_slot, passing_in
from hardkeel.base.errors import BadInput
from hardkeel.project.model import Build
from hardkeel.schedule.model import Step
from hardkeel.tail.kinds import kind_of
from hardkeel.tail.model import TailSurface, stands_on_fin
from hardkeel.tail.pieces import bare_width
from hardkeel.tail.running import USUAL_TUBE

STAGE: Final = "tail"
_MINUTES_A_COVER: Final = 40.0


def tail_steps(build: Build) -> tuple[Step, ...]:
    """Every step of building the tail, in an order that breaks none of its rules."""
    work = Work(STAGE, frozenset(_frame_ready(build)))
    ready: dict[str, str] = {}
    for surface in build.tail:
        if surface.kind is not None:
            ready[surface.id] = _built(work, surface)
            if build.covering.when == "before":
                ready[surface.id] = _covered(work, surface, (ready[surface.id],), "before")
    _joined(work, build, ready)
    laser = build.fuselage is not None and build.fuselage.framed.cutter_kerf > 0
    return tuple(_with_cautions(step, build.tail, laser=laser) for step in work.steps)


def _with_cautions(step: Step, tail: Iterable[TailSurface], *, laser: bool) -> Step:
    """With what the surface's materials bring where they are cut, and the cutter that ribs are cut by."""
    surface = next((one for one in tail if step.id in (f"{one.id} cut", f"{one.id} tubes")), None)
    if surface is None:
        return step
    tubes = [tube.material or USUAL_TUBE for tube in surface.tubes]
    materials = tubes if step.id.endswith(" tubes") else [*_materials(surface), *tubes]
    brought = [*brought_by(materials)]
    if laser and step.id.endswith(" cut") and surface.kind != "foam":
        brought.append("laser")
    return step.but(hazards=tuple(dict.fromkeys((*step.hazards, *brought))))


def _materials(surface: TailSurface) -> Iterable[str | None]:
    yield from (surface.material, surface.skin_material)
    yield from (spar.material for spar in surface.spars)


def _covered(work: Work, surface: TailSurface, after: tuple[str, ...], when: str) -> str:
    """Covering a surface: by itself with its seat left bare, or as it stands on the model."""
    bare: tuple[str, ...] = ()
    if when == "before" and not surface.upright and bare_width(surface):
        bare = (_bare(work, surface, after),)
    return work.add(
        f"{surface.id} cover",
        (*after, *bare),
        key=f"cover.{when}",
        about=(surface.id,),
        hands_minutes=_MINUTES_A_COVER,
        looks=True,
    )


def _bare(work: Work, surface: TailSurface, after: tuple[str, ...]) -> str:
    return work.add(
        f"{surface.id} bare",
        after,
        key="bare",
        about=(surface.id,),
        hands_minutes=5.0,
        looks=True,
    )


def _built(work: Work, surface: TailSurface) -> str:
    """The steps of one surface alone; the id of the last."""
    part = surface.id
    panel = (f"{part}_panel" if surface.upright else f"{part}_half",)
    last = ""
    for one in kind_of(surface).order(surface):
        last = work.add(
            f"{part} {one.name}",
            tuple(f"{part} {before}" for before in one.after),
            key=f"{surface.kind}.{one.key or one.name}",
            about=(part,),
            parts=panel if one.panel else (),
            looks=one.looks,
            **one.figures,
        )
    if surface.all_moving:
        return work.add(
            f"{part} pivot",
            (last,),
            key="pivot.upright" if surface.upright else "pivot",
            about=(part,),
            hands_minutes=40.0,
            hazards=("drill",),
            looks=True,
        )
    if surface.hinge_at_chord is None:
        return last
    moving = ("rudder" if surface.upright else "elevator",)
    bevel = work.add(
        f"{part} bevel",
        (last,),
        key="bevel",
        about=moving,
        hands_minutes=25.0,
        hazards=("dust",),
        looks=True,
    )
    return work.add(
        f"{part} hinges",
        (bevel,),
        key="hinges",
        about=moving,
        hands_minutes=30.0,
        hazards=("blade",),
        looks=True,
    )


def _joined(work: Work, build: Build, ready: dict[str, str]) -> None:
    """On the fuselage: each on what it stands on, what stays bare, what can't be hinged before."""
    # one of which nobody said how it is built is glued on all the same, once it is placed
    surfaces = [one for one in seating_order(build.tail) if one.id in ready or one.le_x is not None]
    seated: list[str] = []
    for surface in surfaces:
        under = tuple(seat for seat in seated if seat != f"{surface.id} seat")
        if surface.upright:
            _stood_up(work, build, surface, _own(ready, surface), under)
        else:
            _laid_on(work, build, surface, _own(ready, surface), under)
        seated.append(f"{surface.id} seat")
    if build.covering.when == "after":
        for surface in surfaces:
            _covered(work, surface, tuple(seated), "after")
    moving = [one for one in surfaces if one.hinge_at_chord is not None]
    if moving:
        last = work.add(
            "hinge all",
            (*(f"{s.id} seat" for s in moving), *(f"{s.id} cover" for s in surfaces)),
            hands_minutes=30.0,
            glue="thin cyanoacrylate",
            hazards=("cyanoacrylate",),
            no_return=True,
            looks=True,
        )
        work.add("throws", (last,), hands_minutes=15.0, looks=True)


def _own(ready: dict[str, str], surface: TailSurface) -> tuple[str, ...]:
    """The last step of a surface by itself, where it has any."""
    return (ready[surface.id],) if surface.id in ready else ()


def seating_order(tail: Iterable[TailSurface]) -> list[TailSurface]:
    """Each behind what it stands on: fins on what lies under them, a stabilizer that sits on a fin last."""
    surfaces = list(tail)
    fins = [one for one in surfaces if one.upright]
    return sorted(
        surfaces,
        key=lambda one: 1 if one.upright else 2 * any(stands_on_fin(one, fin) for fin in fins),
    )


def _laid_on(
    work: Work, build: Build, surface: TailSurface, own: tuple[str, ...], under: tuple[str, ...]
) -> None:
    if bare_width(surface) and build.covering.when == "after":
        _bare(work, surface, own)
    props = work.add(
        f"{surface.id} props",
        (*own, *under, f"{surface.id} bare", *_frame_ready(build)),
        key="props",
        about=(surface.id,),
        hands_minutes=20.0,
        looks=True,
    )
    bare_half_first, why = _slot_rule(build, surface)
    on_fin = any(one.upright and stands_on_fin(surface, one) for one in build.tail)
    slot = "slot" if in_a_slot(build, surface) else "fin" if on_fin else "saddle"
    work.add(
        f"{surface.id} seat",
        (*own, *under, f"{surface.id} bare", props, *_frame_ready(build)),
        key=f"seat.{slot}.bare half" if bare_half_first else f"seat.{slot}",
        about=(surface.id,),
        why=why,
        parts=(f"{surface.id}_half",),
        hands_minutes=20.0,
        glue="slow epoxy",
        hazards=("epoxy",),
        no_return=True,
        looks=True,
    )


def _stood_up(
    work: Work, build: Build, surface: TailSurface, own: tuple[str, ...], under: tuple[str, ...]
) -> None:
    on_stabilizer = any(not one.upright and not stands_on_fin(one, surface) for one in build.tail)
    work.add(
        f"{surface.id} seat",
        (*own, *under, *_frame_ready(build)),
        key="seat.upright",
        about=(surface.id,),
        why="glued already" if on_stabilizer and under else "",
        parts=(f"{surface.id}_panel",),
        hands_minutes=15.0,
        glue="slow epoxy",
        hazards=("epoxy",),
        no_return=True,
        looks=True,
    )


def _slot_rule(build: Build, surface: TailSurface) -> tuple[bool, str]:
    """Whether the bare half goes through first, and why as a key."""
    try:
        ways = {one.hinged: one for one in passing_in(build, surface)}
    except BadInput:
        return False, ""
    if not ways or surface.hinge_at_chord is None or ways["both"].passes:
        return False, ""
    return (True, "bare half") if ways["none"].passes else (False, "slot opened")


def _frame_ready(build: Build) -> tuple[str, ...]:
    """Steps of the fuselage that come before anything is seated on it, whether they were laid yet or not."""
    names = {step.id for step in build.steps if step.stage == frame.STAGE}
    if not names:
        try:
            names = {step.id for step in frame.frame_steps(build)}
        except BadInput:  # its page says what is missing
            return ()
    return tuple(one for one in ("read", "lift") if one in names)
