"""The order of work that a fuselage asks for, from its own members: what after what, and why.

Times are those of the kinds of glue on a warm bench; the builder's own bottle goes before.
"""

from typing import Any, Final

from hardkeel.airframe.framing import limits_of, stiffness_of
from hardkeel.airframe.orders.work import Work
from hardkeel.airframe.parts import parts_of
from hardkeel.fuselage.closing import Closing, End, closings_of, straight_part
from hardkeel.fuselage.members import member_kind, members_with
from hardkeel.fuselage.model import TAIL_POST, Fuselage, Member
from hardkeel.project.model import Build
from hardkeel.schedule.model import Step

STAGE: Final = "frame"
_OVERNIGHT: Final = 720.0
_MINUTES_A_FORMER: Final = 8.0
_MINUTES_A_STICK: Final = 4.0
_MINUTES_A_FITTED: Final = 10.0
# what goes in before the box is closed, by the step that its kind names
_FITTED: Final[dict[str, dict[str, Any]]] = {
    "bearers": {"glue": "slow epoxy", "hands_minutes": 20.0, "hazards": ("epoxy",), "looks": True},
    "gussets": {"glue": "aliphatic", "hands_minutes": 20.0, "looks": True},
    "plates": {"glue": "slow epoxy", "hazards": ("epoxy",), "looks": True},
    "hatch": {"glue": "aliphatic", "hands_minutes": 20.0},
}


def frame_steps(build: Build) -> tuple[Step, ...]:
    """Every step of framing this fuselage, in an order that breaks none of its rules."""
    fuselage = build.fuselage
    if fuselage is None or len(fuselage.stations) < 2:  # noqa: PLR2004  nothing to frame
        return ()
    work = Work(STAGE)
    methods = {section.method for section in fuselage.sections}
    sides, longerons = _listed(build, "side"), _listed(build, "longeron")
    _prepare(work, fuselage, sides)
    if "stick-sides" in methods:
        _stick_sides(work, fuselage, longerons)
    elif "board" not in methods:
        _along_the_sides(work, fuselage, longerons)
    if "crutch" in methods:
        _on_a_crutch(work, fuselage, sides)
        _seats(work, build, ("upper sides",))
    elif "board" in methods:
        _on_the_board(work, fuselage, sides, longerons)
        _seats(work, build, ("sides", "stringers", "formers up"))
    else:
        _boxed(work, build, fuselage, sides)
    _inside(work, fuselage)
    _close(work, fuselage)
    return tuple(work.steps)


def _listed(build: Build, kind: str) -> tuple[str, ...]:
    """Parts of the fuselage of a kind, as the ledger calls them."""
    return tuple(part.id for part in parts_of(build) if part.of == "fuselage" and part.kind == kind)


def _of_kind(fuselage: Fuselage, *kinds: str) -> tuple[Member, ...]:
    return tuple(member for member in fuselage.framed.members if member.kind in kinds)


def _ids(members: tuple[Member, ...]) -> tuple[str, ...]:
    return tuple(member.id for member in members)


def _prepare(work: Work, fuselage: Fuselage, sides: tuple[str, ...]) -> None:
    formers = tuple(former.id for former in fuselage.formers)
    work.add(
        "cut",
        parts=(*formers, *sides),
        hands_minutes=_MINUTES_A_FORMER * len(formers),
        hazards=("blade", "dust"),
    )
    drilled = members_with(fuselage, "drilled")
    if drilled:
        work.add(
            "drill",
            ("cut",),
            about=_ids(drilled),
            parts=_ids(drilled),
            hands_minutes=15.0,
            no_return=True,
            hazards=("drill",),
        )
    work.add("board", hands_minutes=40.0, needs=("board",), looks=True)
    doublers = members_with(fuselage, "doubler")
    if doublers:
        work.add(
            "doublers",
            ("cut", "drill"),
            about=_ids(doublers),
            parts=_ids(doublers),
            glue="slow epoxy",
            hands_minutes=30.0,
            needs=("clamps",),
            no_return=True,
            hazards=("epoxy",),
            looks=True,
        )


def _along_the_sides(work: Work, fuselage: Fuselage, longerons: tuple[str, ...]) -> None:
    """What is glued along the edges of sheet sides while they lie flat."""
    strips = (*longerons, *_ids(members_with(fuselage, "along the edges")))
    if strips:
        work.add(
            "strips",
            ("cut", "doublers"),
            about=strips,
            parts=strips,
            glue="aliphatic",
            hands_minutes=10.0 * len(strips),
            needs=("board",),
            looks=True,
        )


def _stick_sides(work: Work, fuselage: Fuselage, longerons: tuple[str, ...]) -> None:
    stations = sum(
        1
        for section in fuselage.sections
        if section.method == "stick-sides"
        for name, stop in fuselage.stations
        if _within(fuselage, section.from_, section.to, stop.station)
    )
    minutes = _MINUTES_A_STICK * 2 * stations
    parts = tuple(
        f"sticks_{s.from_}_{s.to}" for s in fuselage.sections if s.method == "stick-sides"
    )
    work.add(
        "port side",
        ("cut", "board", "doublers"),
        glue="aliphatic",
        hands_minutes=minutes,
        needs=("board",),
        hazards=("blade", "pins"),
        looks=True,
    )
    work.add(
        "starboard side",
        ("port side",),
        parts=(*parts, *longerons, *_ids(members_with(fuselage, "along the edges"))),
        glue="aliphatic",
        hands_minutes=minutes,
        needs=("board",),
        needs_cure=True,
        hazards=("blade", "pins"),
        looks=True,
    )


def _within(fuselage: Fuselage, start: str, end: str, station: float) -> bool:
    known = {name: stop.station for name, stop in fuselage.stations}
    return known[start] <= station <= known[end]


def _seats(work: Work, build: Build, after: tuple[str, ...]) -> None:
    if build.wings:
        work.add(
            "seats",
            after,
            parts=tuple(f"{wing.id}_seat" for wing in build.wings),
            glue="aliphatic",
            hands_minutes=20.0,
            no_return=True,
            looks=True,
        )


def _boxed(work: Work, build: Build, fuselage: Fuselage, boxed: tuple[str, ...]) -> None:
    """Formers between two sides: the straight part first, nose and tail last."""
    straight, nose, tail = _parts(fuselage)
    sides = ("doublers", "strips", "port side", "starboard side", "cut")
    work.add("try in", sides, parts=(*nose, *straight, *tail), hands_minutes=30.0, looks=True)
    _seats(work, build, ("try in",))
    _glue_in(
        work, "straight part", straight, ("try in", "seats", "board"), needs_cure=False, more=boxed
    )
    for closing in closings_of(fuselage, limits_of(build), stiffness_of(build)):
        if closing.soaked:
            _soak(work, closing)
    _glue_in(work, "nose", nose, ("straight part", "soak nose"), needs_cure=True)
    closed = tail if fuselage.tail_post is None else (*tail, TAIL_POST)
    _glue_in(work, "tail", closed, ("straight part", "soak tail", "nose"), needs_cure=True)


def steps_of_end(end: End) -> tuple[str, str]:
    """Ids of the steps that soak an end and pull it in."""
    return f"soak {end}", end


def _soak(work: Work, closing: Closing) -> None:
    work.add(
        steps_of_end(closing.end)[0],
        ("straight part",),
        key="soak",
        about=(closing.end,),
        hands_minutes=20.0,
        cure_minutes=_OVERNIGHT,
        needs=("board", "clamps"),
        holds_until="cure",
        needs_cure=True,
        hazards=("steam",),
        looks=True,
    )


def _glue_in(
    work: Work,
    name: str,
    formers: tuple[str, ...],
    after: tuple[str, ...],
    *,
    needs_cure: bool,
    more: tuple[str, ...] = (),
) -> None:
    if not formers:
        return
    key, about = ("pull in", (name, *formers)) if needs_cure else ("glue in", formers)
    work.add(
        name,
        after,
        key=key,
        about=about,
        parts=(*(one for one in formers if one != TAIL_POST), *more),
        glue="aliphatic",
        hands_minutes=_MINUTES_A_FORMER * len(formers) + 10,
        needs=("board", "clamps"),
        needs_cure=needs_cure,
        looks=True,
    )


def _parts(fuselage: Fuselage) -> tuple[tuple[str, ...], tuple[str, ...], tuple[str, ...]]:
    """Formers where the sides lie as good as parallel, those ahead, those behind."""
    ids = tuple(former.id for former in fuselage.formers)
    glued = tuple(former.id for former in straight_part(fuselage))
    order = tuple(name for name, _ in fuselage.stations if name in ids)
    first, last = order.index(glued[0]), order.index(glued[-1])
    return glued, order[:first], order[last + 1 :]


def _on_a_crutch(work: Work, fuselage: Fuselage, sides: tuple[str, ...]) -> None:
    crutch = _ids(_of_kind(fuselage, "crutch"))
    formers = tuple(former.id for former in fuselage.formers)
    work.add(
        "crutch",
        ("cut", "board"),
        parts=crutch,
        glue="aliphatic",
        hands_minutes=30.0,
        needs=("board",),
        looks=True,
    )
    for name, after in (
        ("lower formers", ("crutch",)),
        ("lower sides", ("lower formers", "doublers", "strips")),
        ("upper formers", ("lower sides",)),
        ("upper sides", ("upper formers",)),
    ):
        work.add(
            name,
            after,
            parts={"upper formers": formers, "upper sides": sides}.get(name, ()),
            glue="aliphatic",
            hands_minutes=_MINUTES_A_FORMER * len(formers) / 2 + 10,
            needs=("board", "clamps"),
            needs_cure=name == "upper formers",
            looks=True,
        )


def _on_the_board(
    work: Work, fuselage: Fuselage, sides: tuple[str, ...], longerons: tuple[str, ...]
) -> None:
    split = tuple(former.id for former in fuselage.formers if former.split)
    whole = tuple(former.id for former in fuselage.formers if not former.split)
    wires = _ids(members_with(fuselage, "threaded"))
    if wires:
        work.add("thread", ("drill", "cut"), parts=wires, hands_minutes=15.0, looks=True)
    work.add(
        "formers up",
        ("cut", "board", "thread"),
        about=whole,
        parts=whole,
        hands_minutes=_MINUTES_A_FORMER * len(whole),
        needs=("board",),
        looks=True,
    )
    strips = members_with(fuselage, "over formers")
    running = (*_ids(strips), *longerons)
    if running:
        work.add(
            "stringers",
            ("formers up", "doublers"),
            about=running,
            parts=(*running, *whole),
            glue="aliphatic",
            hands_minutes=12.0 * len(running),
            needs=("board",),
            looks=True,
        )
    if split:
        work.add(
            "tail",
            ("stringers", "formers up"),
            key="close tail",
            about=split,
            parts=split,
            glue="aliphatic",
            hands_minutes=20.0,
            needs=("board", "clamps"),
            needs_cure=True,
            looks=True,
        )
    if sides:
        work.add(
            "sides",
            ("formers up", "stringers", "tail", "doublers"),
            parts=(*sides, *whole),
            glue="aliphatic",
            hands_minutes=45.0,
            needs=("board", "clamps"),
            looks=True,
        )


def _inside(work: Work, fuselage: Fuselage) -> None:
    """What goes in before the box is closed."""
    boxed = ("straight part", "lower sides", "stringers", "formers up")
    for step, figures in _FITTED.items():
        members = tuple(
            one.id for one in fuselage.framed.members if member_kind(one.kind).step == step
        )
        if members:
            minutes = figures.get("hands_minutes", _MINUTES_A_FITTED * len(members))
            more = {**figures, "hands_minutes": minutes}
            work.add(step, boxed, about=members, parts=members, **more)


def _close(work: Work, fuselage: Fuselage) -> None:
    framed = tuple(step.id for step in work.steps)
    work.add("access", framed, hands_minutes=20.0, looks=True)
    work.add(
        "read",
        ("tail", "upper sides", "sides", "stringers", "straight part"),
        hands_minutes=25.0,
        needs_cure=True,
        looks=True,
    )
    for face, skin in (("top", fuselage.top_skin), ("bottom", fuselage.bottom_skin)):
        if skin > 0:
            work.add(
                f"{face} sheet",
                ("access", "read", "plates", "hatch"),
                parts=(f"{face}_sheet",),
                glue="aliphatic",
                hands_minutes=45.0,
                needs=("clamps",),
                no_return=True,
                hazards=("blade",),
            )
