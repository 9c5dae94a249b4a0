"""Pure edits of audit sheets and of the plans on the desk."""

from collections.abc import Sequence

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2
from hardkeel.edits.named import edit
from hardkeel.paper.carrying import pairs_of
from hardkeel.paper.model import (
    KnownLength,
    KnownPoint,
    Pair,
    Plan,
    PrintedSheet,
    SheetLabel,
    Trace,
    TraceKind,
)
from hardkeel.project.model import Build
from hardkeel.project.soundness import check_build

# -- audit -----------------------------------------------------------------------------------------


@edit
def put_printed_sheet(build: Build, sheet: PrintedSheet) -> Build:
    """Put an audit sheet in the place of the one with its id, or last."""
    rest = [sheet if one.id == sheet.id else one for one in build.audit]
    if sheet not in rest:
        rest.append(sheet)
    return build.but(audit=tuple(rest))


@edit
def add_pair(build: Build, sheet_id: str, pair: Pair) -> Build:
    """Add a pair to a sheet; a sheet that is not there is made."""
    sheet = next((s for s in build.audit if s.id == sheet_id), PrintedSheet(id=sheet_id))
    return put_printed_sheet(build, sheet.but(pairs=(*sheet.pairs, pair)))


@edit
def carry_lengths(build: Build, plan_id: str, dpi: float) -> Build:
    """Hold a scan's known lengths against the plan's own: dimensions of a sheet of the scan's name; none twice."""
    found = pairs_of(plan_named(build, plan_id), dpi)
    sheet = next((s for s in build.audit if s.id == plan_id), PrintedSheet(id=plan_id))
    new = tuple(one for one in found if one not in sheet.pairs)
    return put_printed_sheet(build, sheet.but(pairs=(*sheet.pairs, *new)))


@edit
def change_pair(build: Build, /, sheet_id: str, number: int, **changes: object) -> Build:
    """Put a figure of a pair right."""
    sheet = _sheet(build, sheet_id)
    pairs = list(sheet.pairs)
    pairs[number] = pairs[number].but(**changes)
    return put_printed_sheet(build, sheet.but(pairs=tuple(pairs)))


@edit
def delete_pair(build: Build, sheet_id: str, number: int) -> Build:
    """Strike a pair out."""
    sheet = _sheet(build, sheet_id)
    pairs = sheet.pairs[:number] + sheet.pairs[number + 1 :]
    return put_printed_sheet(build, sheet.but(pairs=pairs))


def _sheet(build: Build, sheet_id: str) -> PrintedSheet:
    for sheet in build.audit:
        if sheet.id == sheet_id:
            return sheet
    raise BadInput("audit", f'no sheet "{sheet_id}"')


# -- plans -----------------------------------------------------------------------------------------


@edit
def add_plan(build: Build, plan: Plan) -> Build:
    """Lay a scan on the desk."""
    changed: Build = build.but(plans=(*build.plans, plan))
    check_build(changed)
    return changed


@edit
def put_plan(build: Build, plan: Plan) -> Build:
    """Put a plan in the place of the one with its id."""
    return build.but(plans=tuple(plan if one.id == plan.id else one for one in build.plans))


@edit
def add_length(build: Build, plan: Plan, known: KnownLength) -> Build:
    """Note two points whose distance is known."""
    return put_plan(build, plan.but(lengths=(*plan.lengths, known)))


@edit
def add_known_point(build: Build, plan: Plan, known: KnownPoint) -> Build:
    """Note a point whose place on the plan is known."""
    return put_plan(build, plan.but(points=(*plan.points, known)))


@edit
def lay_again(build: Build, plan_id: str) -> Build:
    """Lay the same image once more, nothing known of it: beyond a crease it lies otherwise.

    Raises
    ------
    BadInput
        When there is no such plan.
    """
    plan = plan_named(build, plan_id)
    used = {one.id for one in build.plans}
    number = 2
    while f"{plan_id}, part {number}" in used:
        number += 1
    return add_plan(
        build,
        Plan(id=f"{plan_id}, part {number}", image=plan.image, photo=plan.photo, size=plan.size),
    )


@edit
def place_by(build: Build, plan_id: str, known: Sequence[KnownPoint]) -> Build:
    """Place a sheet by points known from elsewhere; those it had of elsewhere before give way.

    Raises
    ------
    BadInput
        When there is no such plan.
    """
    plan = plan_named(build, plan_id)
    own = tuple(point for point in plan.points if point.of is None)
    if own and plan.origin is None:
        own = ()  # their own zero is nowhere: they would contradict the datum's
    return put_plan(build, plan.but(points=(*own, *known)))


@edit
def put_labels(build: Build, plan_id: str, labels: Sequence[SheetLabel]) -> Build:
    """Note the coded labels that lie on a photographed plan.

    Raises
    ------
    BadInput
        When there is no such plan.
    """
    plan = plan_named(build, plan_id)
    return put_plan(build, plan.but(labels=tuple(labels), photo=True))


@edit
def pick(build: Build, plan: Plan, kind: TraceKind, pixel: tuple[float, float]) -> Build:
    """Click one more point along a line of a plan."""
    traces = list(plan.traces)
    for i, trace in enumerate(traces):
        if trace.kind == kind and trace.followed is None:
            traces[i] = trace.but(pixels=(*trace.pixels, pixel))
            break
    else:
        made = Trace(id=_free_id(plan, kind), kind=kind, pixels=(pixel,))
        traces.append(made)
    return put_plan(build, plan.but(traces=tuple(traces)))


@edit
def put_followed(
    build: Build,
    plan_id: str,
    kind: TraceKind,
    pixels: Sequence[Point2],
    *,
    closed: bool,
    instead_of: str | None = None,
) -> Build:
    """Note a line that was followed along its ink.

    Parameters
    ----------
    pixels : sequence of Point2
        Point after point.
    closed : bool
        Whether it goes all round.
    instead_of : str, optional
        Id of the trace whose place it takes.

    Raises
    ------
    BadInput
        When there is no such plan.
    """
    plan = plan_named(build, plan_id)
    made = Trace(
        id=instead_of or _free_id(plan, kind),
        kind=kind,
        pixels=tuple(pixels),
        followed="round" if closed else "open",
    )
    if instead_of is not None:
        traces = tuple(made if trace.id == instead_of else trace for trace in plan.traces)
    else:
        traces = (*plan.traces, made)
    return put_plan(build, plan.but(traces=traces))


def _free_id(plan: Plan, kind: TraceKind) -> str:
    """An id for one more trace of a kind: the kind itself, numbered from the second one on."""
    used = {trace.id for trace in plan.traces}
    name, number = str(kind), 2
    while name in used:
        name, number = f"{kind} {number}", number + 1
    return name


@edit
def move_last_pick(build: Build, plan: Plan, kind: TraceKind, du: float, dv: float) -> Build:
    """Nudge the point clicked last, pixels."""
    traces = list(plan.traces)
    for i, trace in enumerate(traces):
        if trace.kind == kind and trace.pixels and trace.followed is None:
            u, v = trace.pixels[-1]
            traces[i] = trace.but(pixels=(*trace.pixels[:-1], (u + du, v + dv)))
            return put_plan(build, plan.but(traces=tuple(traces)))
    raise BadInput("", "nothing was clicked along this line yet")


@edit
def drop_last_pick(build: Build, plan: Plan, kind: TraceKind) -> Build:
    """Take the last point of a line back; one that was followed, all of it."""
    mine = [trace for trace in plan.traces if trace.kind == kind and trace.pixels]
    last = mine[-1] if mine else None
    traces = [
        trace.but(pixels=() if trace.followed else trace.pixels[:-1]) if trace is last else trace
        for trace in plan.traces
    ]
    return put_plan(build, plan.but(traces=tuple(trace for trace in traces if trace.pixels)))


@edit
def clear_trace(build: Build, plan_id: str, kind: TraceKind) -> Build:
    """Wipe off every click along a line of a plan.

    Raises
    ------
    BadInput
        When there is no such plan.
    """
    plan = plan_named(build, plan_id)
    return put_plan(build, plan.but(traces=tuple(t for t in plan.traces if t.kind != kind)))


def plan_named(build: Build, plan_id: str) -> Plan:
    """The plan with an id.

    Raises
    ------
    BadInput
        When there is none.
    """
    for plan in build.plans:
        if plan.id == plan_id:
            return plan
    raise BadInput("plans", f'no plan "{plan_id}"')
