"""Pure edits of the builder's glue: own bottles, batches, coupons."""

from collections.abc import Callable
from datetime import datetime, timedelta

from hardkeel.base.errors import BadInput
from hardkeel.edits.named import edit
from hardkeel.glue.kinds import KINDS
from hardkeel.glue.model import Batch, Bottle, Broke, Coupon, GlueKind, Preparation, Shelf
from hardkeel.project.model import Build


def _shelf(build: Build) -> Shelf:
    return build.glue or Shelf()


@edit
def set_bottle(build: Build, bottle: Bottle) -> Build:
    """What the builder's own bottle of a kind says."""
    shelf = _shelf(build)
    others = tuple(one for one in shelf.bottles if one.kind != bottle.kind)
    return build.but(glue=shelf.but(bottles=(*others, bottle)))


@edit
def new_batch(
    build: Build,
    kind: GlueKind,
    now: datetime,
    ratio: float | None = None,
    temperature: float | None = None,
) -> Build:
    """Mix a batch, or open a bottle: what is glued from now on with this kind is tied to it."""
    shelf = _shelf(build)
    used = {one.id for one in shelf.batches}
    number = 1
    while f"batch {number}" in used:
        number += 1
    made = Batch(
        id=f"batch {number}",
        kind=kind,
        mixed=now.isoformat(timespec="seconds"),
        ratio=ratio,
        temperature=temperature,
    )
    return build.but(glue=shelf.but(batches=(*shelf.batches, made)))


@edit
def break_coupon(
    build: Build,
    batch: str,
    broke: Broke,
    now: datetime,
    age_hours: float | None = None,
    prepared: Preparation | None = None,
) -> Build:
    """Write down how a coupon of a batch broke.

    Raises
    ------
    BadInput
        When there is no such batch.
    """
    shelf, found = _shelf(build), _batch(build, batch)
    mixed = datetime.fromisoformat(found.mixed)
    age = age_hours if age_hours is not None else max(0.0, (now - mixed).total_seconds() / 3600)
    coupon = Coupon(
        at=now.isoformat(timespec="seconds"), broke=broke, age_hours=age, prepared=prepared
    )
    changed = found.but(coupons=(*found.coupons, coupon))
    batches = tuple(changed if one.id == batch else one for one in shelf.batches)
    return build.but(glue=shelf.but(batches=batches))


@edit
def glued(build: Build, step_id: str, glue: str | None, now: datetime) -> Build:
    """Tie a step to the batch in use of its glue; nothing where there is none, or it has long set in its cup."""
    shelf = build.glue
    last = (
        next((one for one in reversed(shelf.batches) if one.kind == glue), None) if shelf else None
    )
    if last is None or not _can_be_used(last, now):
        return build
    return tie_joint(build, last.id, step_id)


@edit
def tie_joint(build: Build, batch: str, step_id: str) -> Build:
    """A step was glued with this batch, and with no other.

    Raises
    ------
    BadInput
        When there is no such batch.
    """
    _batch(build, batch)
    return _with_joints(
        build,
        lambda one: (
            *(j for j in one.joints if j != step_id),
            *((step_id,) if one.id == batch else ()),
        ),
    )


@edit
def unglued(build: Build, step_id: str) -> Build:
    """A step is open again: it hangs on no batch."""
    return _with_joints(build, lambda one: tuple(j for j in one.joints if j != step_id))


def _with_joints(build: Build, joints: Callable[[Batch], tuple[str, ...]]) -> Build:
    shelf = build.glue
    if shelf is None:
        return build
    batches = tuple(one.but(joints=joints(one)) for one in shelf.batches)
    return build if batches == shelf.batches else build.but(glue=shelf.but(batches=batches))


def _can_be_used(batch: Batch, now: datetime) -> bool:
    """What is mixed is glued with until it may be handled; what comes out of a bottle as long as that lasts."""
    if not KINDS[batch.kind].two_parts:
        return True
    until = datetime.fromisoformat(batch.mixed) + timedelta(minutes=KINDS[batch.kind].handle[1])
    if (until.tzinfo is None) != (now.tzinfo is None):
        until, now = until.replace(tzinfo=None), now.replace(tzinfo=None)
    return now <= until


def _batch(build: Build, batch: str) -> Batch:
    found = next((one for one in _shelf(build).batches if one.id == batch), None)
    if found is None:
        raise BadInput("glue.batches", f'no batch "{batch}"')
    return found
