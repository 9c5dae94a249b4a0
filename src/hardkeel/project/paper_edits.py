"""Pure edits of audit sheets, plans, ledger, masses and balance."""

from collections.abc import Callable
from typing import Final

from hardkeel.balance.model import Balance, Battery, Mass
from hardkeel.base.errors import BadInput
from hardkeel.paper.model import KnownLength, KnownPoint, Pair, Plan, Sheet, Trace, TraceKind
from hardkeel.parts.handing import question_for
from hardkeel.parts.lists import read_list
from hardkeel.parts.model import Ledger, OwnWood, PairAnswer, State
from hardkeel.project.build import Build
from hardkeel.project.drawing_edits import with_fuselage
from hardkeel.project.ledger import parts_of, weights_of
from hardkeel.project.soundness import check_build

SWAPPED_KINDS: Final = ("former", "side")
BuildEdit = Callable[[Build], Build]


class AskFirst(BadInput):
    """A pair must be held against each other before it goes further.

    Attributes
    ----------
    part : str
        Which pair.
    """

    def __init__(self, part: str) -> None:
        self.part = part
        super().__init__("", f"hold both hands of {part} against each other first")


# -- audit -----------------------------------------------------------------------------------------


def put_sheet(build: Build, sheet: Sheet) -> Build:
    """Put an audit sheet in the place of the one with its id, or last."""
    rest = [sheet if one.id == sheet.id else one for one in build.audit]
    if sheet not in rest:
        rest.append(sheet)
    return build.but(audit=tuple(rest))  # type: ignore[no-any-return]


def add_pair(build: Build, sheet_id: str, pair: Pair) -> Build:
    """Add a pair to a sheet; a sheet that is not there is made."""
    sheet = next((s for s in build.audit if s.id == sheet_id), Sheet(id=sheet_id))
    return put_sheet(build, sheet.but(pairs=(*sheet.pairs, pair)))


def change_pair(build: Build, sheet_id: str, number: int, **changes: object) -> Build:
    """Put a figure of a pair right."""
    sheet = _sheet(build, sheet_id)
    pairs = list(sheet.pairs)
    pairs[number] = pairs[number].but(**changes)
    return put_sheet(build, sheet.but(pairs=tuple(pairs)))


def delete_pair(build: Build, sheet_id: str, number: int) -> Build:
    """Strike a pair out."""
    sheet = _sheet(build, sheet_id)
    pairs = sheet.pairs[:number] + sheet.pairs[number + 1 :]
    return put_sheet(build, sheet.but(pairs=pairs))


def _sheet(build: Build, sheet_id: str) -> Sheet:
    for sheet in build.audit:
        if sheet.id == sheet_id:
            return sheet
    raise BadInput("audit", f'no sheet "{sheet_id}"')


# -- plans -----------------------------------------------------------------------------------------


def add_plan(build: Build, plan: Plan) -> Build:
    """Lay a scan on the desk."""
    changed: Build = build.but(plans=(*build.plans, plan))
    check_build(changed)
    return changed


def put_plan(build: Build, plan: Plan) -> Build:
    """Put a plan in the place of the one with its id."""
    return build.but(  # type: ignore[no-any-return]
        plans=tuple(plan if one.id == plan.id else one for one in build.plans)
    )


def add_length(build: Build, plan: Plan, known: KnownLength) -> Build:
    """Note two points whose distance is known."""
    return put_plan(build, plan.but(lengths=(*plan.lengths, known)))


def add_known_point(build: Build, plan: Plan, known: KnownPoint) -> Build:
    """Note a point whose place on the plan is known."""
    return put_plan(build, plan.but(points=(*plan.points, known)))


def pick(build: Build, plan: Plan, kind: TraceKind, pixel: tuple[float, float]) -> Build:
    """Click one more point along a line of a plan."""
    traces = list(plan.traces)
    for i, trace in enumerate(traces):
        if trace.kind == kind:
            traces[i] = trace.but(pixels=(*trace.pixels, pixel))
            break
    else:
        traces.append(Trace(id=kind, kind=kind, pixels=(pixel,)))
    return put_plan(build, plan.but(traces=tuple(traces)))


def move_last_pick(build: Build, plan: Plan, kind: TraceKind, du: float, dv: float) -> Build:
    """Nudge the point clicked last, pixels."""
    traces = list(plan.traces)
    for i, trace in enumerate(traces):
        if trace.kind == kind and trace.pixels:
            u, v = trace.pixels[-1]
            traces[i] = trace.but(pixels=(*trace.pixels[:-1], (u + du, v + dv)))
            return put_plan(build, plan.but(traces=tuple(traces)))
    raise BadInput("", "nothing was clicked along this line yet")


def drop_last_pick(build: Build, plan: Plan, kind: TraceKind) -> Build:
    """Take the last point of a line back."""
    traces = [
        trace.but(pixels=trace.pixels[:-1]) if trace.kind == kind else trace
        for trace in plan.traces
    ]
    return put_plan(build, plan.but(traces=tuple(trace for trace in traces if trace.pixels)))


# -- ledger ----------------------------------------------------------------------------------------


def _with_ledger(build: Build, **changes: object) -> Build:
    return build.but(ledger=build.listed.but(**changes))  # type: ignore[no-any-return]


def set_state(build: Build, part_id: str, state: State) -> Build:
    """Say how far a part is.

    Raises
    ------
    AskFirst
        When it is a handed pair that is about to be glued and was not held against each other.
    """
    part = next((one for one in parts_of(build) if one.id == part_id), None)
    if part is None:
        raise BadInput("", f'no part "{part_id}"')
    ledger: Ledger = build.listed
    if question_for(part, ledger, state) is not None:
        raise AskFirst(part_id)
    return _with_ledger(build, states={**ledger.states, part_id: state})


def answer_pair(build: Build, part_id: str, answer: PairAnswer) -> Build:
    """Note what holding a pair against each other showed."""
    return _with_ledger(build, pairs={**build.listed.pairs, part_id: answer})


def weigh(build: Build, part_id: str, grams: float | None) -> Build:
    """Note what the scale says of all pieces of a part; a mass for it follows."""
    weighed = {name: mass for name, mass in build.listed.weighed.items() if name != part_id}
    if grams is not None:
        if not grams > 0:
            raise BadInput("", "a weight must be more than 0")
        weighed[part_id] = grams
    return _followed(_with_ledger(build, weighed=weighed))


def paste_printed(build: Build, text: str) -> Build:
    """Take a printed list pasted as CSV.

    Raises
    ------
    BadInput
        Naming the line that can't be read.
    """
    return _with_ledger(build, printed=read_list(text))


def count_box(build: Build, text: str) -> Build:
    """Take what lies in the box, as CSV.

    Raises
    ------
    BadInput
        Naming the line that can't be read.
    """
    return _with_ledger(build, box=read_list(text))


def set_wood(build: Build, material: str, own: OwnWood | None) -> Build:
    """Put the builder's own figure in the table's place, or take it back."""
    woods = {name: wood for name, wood in build.listed.woods.items() if name != material}
    if own is not None:
        woods[material] = own
    return _followed(_with_ledger(build, woods=woods))


# -- masses and balance ----------------------------------------------------------------------------


def bring_parts_in(build: Build) -> Build:
    """Let every part with a weight and a place count in the balance."""
    parts = parts_of(build)
    weights = weights_of(build, parts)
    own = {part.id for part in parts}
    kept = [mass for mass in build.masses if mass.id not in own]
    for part in parts:
        best = weights[part.id].best
        if best and part.x is not None:
            weighed = weights[part.id].weighed is not None
            kept.append(Mass(id=part.id, mass=round(best, 2), x=part.x, weighed=weighed))
    return _balanced(build.but(masses=tuple(kept)))


def put_mass(build: Build, mass: Mass) -> Build:
    """Put a mass in the place of the one with its id, or last."""
    rest = [mass if one.id == mass.id else one for one in build.masses]
    if mass not in rest:
        rest.append(mass)
    return _balanced(build.but(masses=tuple(rest)))


def delete_mass(build: Build, mass_id: str) -> Build:
    """Take a mass out."""
    return _balanced(build.but(masses=tuple(m for m in build.masses if m.id != mass_id)))


def set_balance(build: Build, **changes: object) -> Build:
    """Set what is wanted: ``target_percent``, ``target_x``, ``nose_weight_x``, ``hatches``."""
    wanted = build.balance or Balance(target_percent=30.0)
    return _balanced(build.but(balance=wanted.but(**changes)))


def set_pack(build: Build, **changes: object) -> Build:
    """Set the pack's ``mass``, ``between`` or ``size``."""
    wanted = build.balance or Balance(target_percent=30.0)
    pack = wanted.battery or Battery(id="pack", mass=150.0)
    return set_balance(build, battery=pack.but(**changes))


def swap_wood(build: Build, part_id: str, material: str, thickness: float) -> Build:
    """Make a part of another wood, mm thick; its mass in the balance follows.

    Raises
    ------
    BadInput
        When the part's wood is not drawn but guessed, as a wing's.
    """
    fuselage = build.fuselage
    part = next((one for one in parts_of(build) if one.id == part_id), None)
    if fuselage is None or part is None or part.kind not in SWAPPED_KINDS:
        raise BadInput("", "the wood of that part is not drawn here")
    if not thickness > 0:
        raise BadInput("", "a thickness must be more than 0")
    if part.kind == "side":
        changed = fuselage.but(side_material=material, side_thickness=thickness)
    else:
        former = fuselage.former(part_id)
        if former is None:
            raise BadInput("", f'no former "{part_id}"')
        made = former.but(material=material, thickness=thickness)
        changed = fuselage.but(
            formers=tuple(made if one.id == part_id else one for one in fuselage.formers)
        )
    weighed = {name: g for name, g in build.listed.weighed.items() if name != part_id}
    drawn = with_fuselage(build, changed)
    if weighed != build.listed.weighed:  # what was on the scale was the old one
        drawn = _with_ledger(drawn, weighed=weighed)
    return _followed(drawn)


def _balanced(build: Build) -> Build:
    check_build(build)
    return build


def _followed(build: Build) -> Build:
    """Masses that stand for parts take the parts' new weights."""
    parts = {part.id: part for part in parts_of(build)}
    weights = weights_of(build, tuple(parts.values()))
    masses = []
    for mass in build.masses:
        best = weights[mass.id].best if mass.id in weights else None
        if best is None:
            masses.append(mass)
            continue
        weighed = weights[mass.id].weighed is not None
        masses.append(mass.but(mass=round(best, 2), weighed=weighed))
    return build.but(masses=tuple(masses)) if build.masses else build
