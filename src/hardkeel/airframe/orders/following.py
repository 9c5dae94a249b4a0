"""Laid steps follow the airframe: what a new member asks for comes in, what nothing asks for any more goes.

Only where the airframe's make changes; a figure that is dragged asks for no other steps.  What was ticked or begun,
what the builder set of a step, cut or added stays.
"""

from collections.abc import Sequence

from hardkeel.airframe.orders.whole import as_they_were, asked_for
from hardkeel.base.errors import BadInput
from hardkeel.project.model import Build
from hardkeel.schedule.model import OWN, Step
from hardkeel.schedule.ordering import ordered
from hardkeel.tail.model import TailSurface, stands_on_fin


def followed(before: Build, after: Build) -> Build:
    """The build after an edit, its laid steps as it asks for them now."""
    if not before.steps or after.steps != before.steps or make_of(before) == make_of(after):
        return after
    known = {step.id: step for step in before.steps}
    was = {step.id for step in as_they_were(asked_for(before), known)}
    now = {step.id: step for step in as_they_were(asked_for(after), known)}
    stages = {step.stage for step in after.steps}
    laid = {step.id for step in after.steps}
    kept = [
        now[step.id] if step.id in now and step.stage != OWN else step
        for step in after.steps
        if step.id in now or step.id not in was or step.state != "open" or step.stage == OWN
    ]
    # one that was asked for and is not laid was cut by the builder
    new = [
        step
        for step in now.values()
        if step.id not in laid and step.id not in was and step.stage in stages
    ]
    found = _put_in(kept, new)
    there = {step.id for step in found}
    bound = [step.but(after=tuple(one for one in step.after if one in there)) for step in found]
    try:
        return after.but(steps=ordered(bound))
    except (
        BadInput
    ):  # the builder moved some against it: the list stays as it is until it is made anew
        return after


def _put_in(kept: Sequence[Step], new: Sequence[Step]) -> list[Step]:
    """New steps behind the last of those that they wait for, or before the first that waits for them."""
    found = list(kept)
    for step in new:
        behind = [i for i, one in enumerate(found) if one.id in step.after]
        ahead = [i for i, one in enumerate(found) if step.id in one.after]
        at = behind[-1] + 1 if behind else ahead[0] if ahead else len(found)
        found.insert(at, step)
    return found


def make_of(build: Build) -> tuple[object, ...]:
    """What of an airframe decides which steps it asks for; places and sizes do not."""
    fuselage = build.fuselage
    frame: tuple[object, ...] = ()
    if fuselage is not None:
        board, framed = fuselage.board, fuselage.framed
        frame = (
            tuple((one.id, one.split, one.deck_apart, one.material) for one in fuselage.formers),
            fuselage.sections,
            fuselage.tail_post is None,
            tuple((one.id, one.material) for one in fuselage.longerons),
            tuple((one.id, one.kind, one.from_, one.to, one.material) for one in framed.members),
            (
                fuselage.top_skin > 0,
                fuselage.bottom_skin > 0,
                framed.planking,
                framed.cutter_kerf > 0,
            ),
            board and (board.tacked, board.length),
            fuselage.engine is None,
        )
    fins = [one for one in build.tail if one.upright]
    tail = tuple((_make_of(one), [stands_on_fin(one, fin) for fin in fins]) for one in build.tail)
    bodies = tuple((one.id, one.role, one.label) for one in build.surveyed.bodies)
    return frame, tail, bodies, tuple(wing.id for wing in build.wings), build.covering


def _make_of(one: TailSurface) -> tuple[object, ...]:
    placed = one.le_x is None, one.z is None
    moves = one.hinge_at_chord is None, one.pivot_at_chord is None
    built = one.feet > 0, one.skin > 0, one.centre_skin > 0 and one.centre_sheet > 0, one.seat_width
    wood = (
        one.material,
        one.skin_material,
        one.tubes,
        tuple((s.face, s.material) for s in one.spars),
    )
    return (one.id, one.kind, one.upright, placed, moves, built, wood)
