"""The order of work that a fuselage asks for, from its own members: what after what, and why.

Times are those of the kinds of glue on a warm bench; the builder's own bottle goes before.
"""

from collections.abc import Iterable
from typing import Any, Final

from hardkeel.airframe.framing import limits_of, stiffness_of
from hardkeel.airframe.orders.craft import brought_by
from hardkeel.airframe.orders.work import Work
from hardkeel.airframe.parts import parts_of
from hardkeel.fuselage.closing import closings_of
from hardkeel.fuselage.contours import has_deck
from hardkeel.fuselage.members import member_kind, members_with
from hardkeel.fuselage.methods import InOrder, method_named
from hardkeel.fuselage.methods.method import MINUTES_A_FORMER, ids
from hardkeel.fuselage.model import METHODS, Fuselage, Method
from hardkeel.fuselage.planking import planked_length, planks_of
from hardkeel.fuselage.standing import beyond_the_board
from hardkeel.joinery.order_step import OrderStep
from hardkeel.project.model import Build
from hardkeel.schedule.model import Step

STAGE: Final = "frame"
_UNSAID: Final[Method] = "sheet-sides"  # of a fuselage nobody has said how it is built
_MINUTES_A_FITTED: Final = 10.0
_MINUTES_AN_EXTENSION: Final = 15.0
_MINUTES_A_STRIP: Final = 12.0
_ONLY_CUT: Final = frozenset({"cut", "drill"})
_OF_OTHERS: Final = frozenset({"key", "rod"})  # a part of its former; drawn out with the rods
_OUT_OF_REACH: Final = frozenset({"guides", "nuts", "bracket", "bearers"})
_CLOSED_TAIL: Final = frozenset({"guides", "bracket"})
_MINUTES_A_PLANK, _PLANKS_AT_ONCE = 5.0, 5  # of a side: what an hour takes, both sides by turns
# what goes in before the box is closed, by the step that its kind names
_FITTED: Final[dict[str, dict[str, Any]]] = {
    "bearers": {"glue": "slow epoxy", "hands_minutes": 20.0, "hazards": ("epoxy",), "looks": True},
    "gussets": {"glue": "aliphatic", "hands_minutes": 20.0, "looks": True},
    "plates": {"glue": "slow epoxy", "hazards": ("epoxy",), "looks": True},
    "guides": {"glue": "thin cyanoacrylate", "looks": True, "no_return": True},
    "bracket": {"glue": "slow epoxy", "hands_minutes": 20.0, "looks": True},
    "hatch": {"glue": "aliphatic", "hands_minutes": 20.0},
    "nose": {
        "glue": "aliphatic",
        "hands_minutes": 40.0,
        "hazards": ("blade", "dust"),
        "looks": True,
    },
}


def frame_steps(build: Build) -> tuple[Step, ...]:
    """Every step of framing this fuselage, in an order that breaks none of its rules."""
    fuselage = build.fuselage
    if fuselage is None or len(fuselage.stations) < 2:  # noqa: PLR2004  nothing to frame
        return ()
    sides = _listed(build, "side")
    order = InOrder(
        fuselage,
        sides,
        _listed(build, "longeron"),
        tuple(f"{wing.id}_seat" for wing in build.wings),
        closings_of(fuselage, limits_of(build), stiffness_of(build)),
    )
    methods = {section.method for section in fuselage.sections} or {_UNSAID}
    known = [method_named(one) for one in METHODS if one in methods]
    work = Work(STAGE)
    _prepare(work, fuselage, sides)
    _add(work, max(known, key=lambda one: one.sides_before).sides(order))
    _add(work, max(known, key=lambda one: one.put_up_before).put_up(order))
    _left_over(work, fuselage)
    _inside(work, fuselage)
    _decks(work, fuselage)
    _close(work, fuselage)
    _canopy(work, fuselage)
    return tuple(_with_cautions(step, fuselage) for step in work.steps)


def _with_cautions(step: Step, fuselage: Fuselage) -> Step:
    """With what the materials bring that are cut or put in by it, and the cutter that some are cut by."""
    materials = _materials(fuselage)
    if step.id == "cut":
        brought = [*brought_by(materials.values())]
        if fuselage.framed.cutter_kerf > 0:
            brought.append("laser")
    else:
        brought = [*brought_by(materials.get(one) for one in (*step.parts, *step.about))]
    return step.but(hazards=tuple(dict.fromkeys((*step.hazards, *brought))))


def _materials(fuselage: Fuselage) -> dict[str, str | None]:
    """What members, longerons and formers are of, by what steps call them."""
    found = {one.id: one.material for one in fuselage.framed.members}
    found |= {f"longeron_{one.id}": one.material for one in fuselage.longerons}
    found |= {one.id: one.material for one in fuselage.formers}
    return {**found, "side": fuselage.side_material}


def _add(work: Work, steps: Iterable[OrderStep]) -> None:
    for one in steps:
        more = {"about": one.about, "parts": one.parts, "looks": one.looks, **one.figures}
        work.add(one.name, one.after, key=one.key, **more)


def _listed(build: Build, kind: str) -> tuple[str, ...]:
    """Parts of the fuselage of a kind, as the ledger calls them."""
    return tuple(part.id for part in parts_of(build) if part.of == "fuselage" and part.kind == kind)


def _prepare(work: Work, fuselage: Fuselage, sides: tuple[str, ...]) -> None:
    formers = tuple(former.id for former in fuselage.formers)
    work.add(
        "cut",
        parts=(*formers, *sides),
        hands_minutes=MINUTES_A_FORMER * len(formers),
        hazards=("blade", "dust"),
    )
    drilled = members_with(fuselage, "drilled")
    if drilled:
        work.add(
            "drill",
            ("cut",),
            about=ids(drilled),
            parts=ids(drilled),
            hands_minutes=15.0,
            no_return=True,
            hazards=("drill",),
            looks=True,
        )
    opened = _with_step(fuselage, "openings")
    if opened:
        work.add(
            "openings",
            ("cut", "drill"),
            about=opened,
            hands_minutes=20.0,
            no_return=True,
            looks=True,
        )
    bolted = _with_step(fuselage, "nuts")
    if fuselage.engine is not None and fuselage.formers:
        bolted = tuple(dict.fromkeys((fuselage.formers[0].id, *bolted)))
    if bolted:
        work.add(
            "nuts",
            ("cut", "drill"),
            about=bolted,
            hands_minutes=30.0,
            glue="slow epoxy",
            no_return=True,
            looks=True,
        )
    over = beyond_the_board(fuselage)
    work.add(
        "board",
        key="board.short" if over else "",
        about=over,
        hands_minutes=40.0 + _MINUTES_AN_EXTENSION * bool(over),
        needs=("board",),
        looks=True,
    )
    doublers = members_with(fuselage, "doubler")
    if doublers:
        work.add(
            "doublers",
            ("cut", "drill"),
            about=ids(doublers),
            parts=ids(doublers),
            glue="slow epoxy",
            hands_minutes=30.0,
            needs=("clamps",),
            no_return=True,
            hazards=("epoxy",),
            looks=True,
        )


def _with_step(fuselage: Fuselage, step: str) -> tuple[str, ...]:
    """Members that a step puts in."""
    return tuple(one.id for one in fuselage.framed.members if member_kind(one.kind).step == step)


def _inside(work: Work, fuselage: Fuselage) -> None:
    """What goes in before the box is closed."""
    boxed = ("straight part", "lower sides", "stringers", "formers up", "other half", "openings")
    for step, figures in _FITTED.items():
        members = _with_step(fuselage, step)
        if members:
            minutes = figures.get("hands_minutes", _MINUTES_A_FITTED * len(members))
            more = {**figures, "hands_minutes": minutes}
            # what runs through bays, and what stands at the post, once the tail is closed
            last = ("tail", "upper sides", "sides", "plates") if step in _CLOSED_TAIL else ()
            work.add(step, (*boxed, *last), about=members, parts=members, **more)
    rods = tuple(one.id for one in fuselage.framed.members if one.kind == "rod")
    if rods:
        work.add(
            "rods out",
            (*boxed, "upper sides", "sides"),
            about=rods,
            hands_minutes=5.0,
            needs_cure=True,
            looks=True,
        )
    wired = members_with(fuselage, "wired")
    if wired:
        work.add("leads", (*boxed, "plates", "guides"), hands_minutes=20.0, looks=True)


def _left_over(work: Work, fuselage: Fuselage) -> None:
    """Members that no step of the method puts in: strips over formers that stand, wires that are drawn out, the rest."""
    put_in = {
        one for step in work.steps for one in (*step.parts, *step.about) if step.id not in _ONLY_CUT
    }
    left = [
        one
        for one in fuselage.framed.members
        if one.id not in put_in and one.kind not in _OF_OTHERS and not member_kind(one.kind).step
    ]
    over = tuple(one.id for one in left if one in members_with(fuselage, "over formers"))
    wires = tuple(one.id for one in left if one in members_with(fuselage, "threaded"))
    others = tuple(one.id for one in left if one.id not in (*over, *wires) and one.kind != "canopy")
    stands = ("tail", "nose", "straight part", "upper sides", "sides", "other half")
    for name, key, about in (("strips over", "stringers", over), ("others", "others", others)):
        if about:
            work.add(
                name,
                stands,
                key=key,
                about=about,
                parts=about,
                glue="aliphatic",
                hands_minutes=_MINUTES_A_STRIP * len(about),
                needs=("clamps",),
                looks=True,
            )
    if wires:
        work.add(
            "wires out",
            (*stands, "strips over"),
            about=wires,
            hands_minutes=_MINUTES_A_FITTED,
            needs_cure=True,
            no_return=True,
            looks=True,
        )


def _canopy(work: Work, fuselage: Fuselage) -> None:
    """Over the closed deck."""
    canopies = tuple(one.id for one in fuselage.framed.members if one.kind == "canopy")
    closed = tuple(step.id for step in work.steps)
    if canopies:
        work.add("canopy", closed, about=canopies, hands_minutes=40.0, looks=True)


def _decks(work: Work, fuselage: Fuselage) -> None:
    """What stands over the sides' edges as pieces of its own."""
    decked = tuple(one.id for one in fuselage.formers if one.deck_apart and has_deck(one))
    if decked:
        work.add(
            "decks",
            ("tail", "upper sides", "sides", "stringers", "straight part", "other strips"),
            about=decked,
            parts=decked,
            glue="aliphatic",
            hands_minutes=MINUTES_A_FORMER * len(decked),
            looks=True,
        )


def _plank(work: Work, fuselage: Fuselage) -> None:
    """A few planks an evening, the next ones on what has set."""
    last: tuple[str, ...] = ("fair", "access", "read", "plates", "hatch")
    numbers = list(dict.fromkeys(plank.number for plank in planks_of(fuselage).planks))
    for start in range(0, len(numbers), _PLANKS_AT_ONCE):
        laid = numbers[start : start + _PLANKS_AT_ONCE]
        last = (
            work.add(
                f"planks {laid[0]}",
                last,
                key="planks",
                about=tuple(str(one) for one in laid),
                parts=("planking",),
                glue="aliphatic",
                hands_minutes=_MINUTES_A_PLANK * 2 * len(laid),
                needs=("clamps",),
                looks=True,
                no_return=True,
                hazards=("blade",),
            ),
        )


def _hidden(fuselage: Fuselage) -> tuple[str, ...]:
    """What lies in the bays that sheet or planks close: guides, nuts, bearers, a bracket."""
    if not (fuselage.top_skin or fuselage.bottom_skin or planked_length(fuselage)):
        return ()
    return tuple(
        one.id for one in fuselage.framed.members if member_kind(one.kind).step in _OUT_OF_REACH
    )


def _close(work: Work, fuselage: Fuselage) -> None:
    framed = tuple(step.id for step in work.steps)
    hidden = _hidden(fuselage)
    work.add(
        "access",
        framed,
        key="access.hidden" if hidden else "",
        about=hidden,
        hands_minutes=20.0,
        looks=True,
    )
    work.add(
        "read",
        (
            "tail",
            "upper sides",
            "sides",
            "stringers",
            "straight part",
            "other half",
            "other strips",
        ),
        hands_minutes=25.0,
        needs_cure=True,
        looks=True,
    )
    work.add("lift", ("read",), hands_minutes=15.0, looks=True, needs_cure=True)
    stations = [stop.station for _, stop in fuselage.stations]
    planked = planked_length(fuselage)
    sheeted = planked < stations[-1] - stations[0] and fuselage.top_skin + fuselage.bottom_skin > 0
    if planked or sheeted:
        work.add("fair", ("lift", "access", *framed), hands_minutes=30.0, looks=True)
    _plank(work, fuselage)
    if not sheeted:
        return
    work.add("panels", ("fair",), hands_minutes=40.0, glue="aliphatic", looks=True)
    for face, skin in (("top", fuselage.top_skin), ("bottom", fuselage.bottom_skin)):
        if skin > 0:
            work.add(
                f"{face} sheet",
                ("panels", "access", "read", "plates", "hatch"),
                parts=(f"{face}_sheet",),
                glue="aliphatic",
                hands_minutes=45.0,
                needs=("clamps",),
                looks=True,
                no_return=True,
                hazards=("blade",),
            )
