"""Pure edits of the builder's glue: own bottles, batches, coupons."""

from datetime import datetime

from hardkeel.base.errors import BadInput
from hardkeel.build.model import Build
from hardkeel.glue.model import Batch, Bottle, Broke, Coupon, GlueKind, Shelf


def _shelf(build: Build) -> Shelf:
    return build.glue or Shelf()


def set_bottle(build: Build, bottle: Bottle) -> Build:
    """What the builder's own bottle of a kind says."""
    shelf = _shelf(build)
    others = tuple(one for one in shelf.bottles if one.kind != bottle.kind)
    return build.but(glue=shelf.but(bottles=(*others, bottle)))


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


def break_coupon(
    build: Build, batch: str, broke: Broke, now: datetime, age_hours: float | None = None
) -> Build:
    """Write down how a coupon of a batch broke.

    Raises
    ------
    BadInput
        When there is no such batch.
    """
    shelf = _shelf(build)
    found = next((one for one in shelf.batches if one.id == batch), None)
    if found is None:
        raise BadInput("glue.batches", f'no batch "{batch}"')
    mixed = datetime.fromisoformat(found.mixed)
    age = age_hours if age_hours is not None else max(0.0, (now - mixed).total_seconds() / 3600)
    coupon = Coupon(at=now.isoformat(timespec="seconds"), broke=broke, age_hours=age)
    changed = found.but(coupons=(*found.coupons, coupon))
    batches = tuple(changed if one.id == batch else one for one in shelf.batches)
    return build.but(glue=shelf.but(batches=batches))


def glued(build: Build, step_id: str, glue: str | None) -> Build:
    """Tie a step to the batch in use of its glue; nothing where there is none."""
    shelf = build.glue
    last = (
        next((one for one in reversed(shelf.batches) if one.kind == glue), None) if shelf else None
    )
    if shelf is None or last is None or step_id in last.joints:
        return build
    tied = last.but(joints=(*last.joints, step_id))
    batches = tuple(tied if one.id == last.id else one for one in shelf.batches)
    return build.but(glue=shelf.but(batches=batches))
