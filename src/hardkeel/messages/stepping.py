"""The order of work that a fuselage asks for, from its own members: what after what, and why.

Times are those of the kinds of glue on a warm bench; the builder's own bottle goes before.
"""

from typing import Final

from hardkeel.airframe.framing import limits_of, stiffness_of
from hardkeel.airframe.parts import parts_of
from hardkeel.fuselage.closing import Closing, closings_of, straight_part
from hardkeel.fuselage.model import PLATES, TAIL_POST, Fuselage, Member
from hardkeel.messages.pulling import steps_of_end
from hardkeel.messages.work import Work
from hardkeel.project.model import Build
from hardkeel.schedule.model import Step

STAGE: Final = "frame"
_OVERNIGHT: Final = 720.0
_MINUTES_A_FORMER: Final = 8.0
_MINUTES_A_STICK: Final = 4.0


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


def _named(ids: tuple[str, ...]) -> str:
    if len(ids) < 2:  # noqa: PLR2004  one needs no list
        return "".join(ids)
    return f"{', '.join(ids[:-1])} and {ids[-1]}"


def _prepare(work: Work, fuselage: Fuselage, sides: tuple[str, ...]) -> None:
    formers = tuple(former.id for former in fuselage.formers)
    work.add(
        "cut",
        "Cut and clean formers, sides and plates; mark centre lines on both faces",
        parts=(*formers, *sides),
        hands_minutes=_MINUTES_A_FORMER * len(formers),
        hazards=("blade", "dust"),
    )
    drilled = _of_kind(fuselage, "rod", "wire", "bearer")
    if drilled:
        work.add(
            "drill",
            f"Drill and cut the holes for {_named(_ids(drilled))} while the parts are flat",
            ("cut",),
            parts=_ids(drilled),
            hands_minutes=15.0,
            no_return=True,
            because="once the sides stand no drill comes square through both of them",
            hazards=("drill",),
        )
    work.add(
        "board",
        "Level the board both ways, draw centre line and stations",
        hands_minutes=40.0,
        needs=("board",),
        hold="level across at both ends, then along: no bubble off",
    )
    doublers = _of_kind(fuselage, "doubler", "tail-doubler")
    if doublers:
        work.add(
            "doublers",
            f"Glue {_named(_ids(doublers))} to both sides under weights",
            ("cut", "drill"),
            parts=_ids(doublers),
            glue="slow epoxy",
            hands_minutes=30.0,
            needs=("clamps",),
            hold="both doublers on the inside? Lay the sides face to face: one port, one starboard",
            no_return=True,
            because="two port sides are two sides to cut again",
            hazards=("epoxy",),
        )


def _along_the_sides(work: Work, fuselage: Fuselage, longerons: tuple[str, ...]) -> None:
    """What is glued along the edges of sheet sides while they lie flat."""
    strips = (*longerons, *_ids(_of_kind(fuselage, "corner-strip")))
    if strips:
        work.add(
            "strips",
            f"Glue {_named(_words(strips))} along both sides",
            ("cut", "doublers"),
            parts=strips,
            glue="aliphatic",
            hands_minutes=10.0 * len(strips),
            needs=("board",),
            hold="on the inside, clear of the formers' slots: one port, one starboard",
        )


def _words(ids: tuple[str, ...]) -> tuple[str, ...]:
    """Ids as they are spoken: ``longeron_upper`` is the upper longeron, ``tail_post`` the tail post."""
    spoken = []
    for one in ids:
        kind, _, which = one.partition("_")
        spoken.append(f"{which} longeron" if kind == "longeron" else one.replace("_", " "))
    return tuple(spoken)


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
        "Pin the longerons down and glue the sticks of the port side",
        ("cut", "board", "doublers"),
        glue="aliphatic",
        hands_minutes=minutes,
        needs=("board",),
        hold="pins beside the wood, film under it",
        hazards=("blade", "pins"),
    )
    work.add(
        "starboard side",
        "Build the starboard side on top of the port side, film between",
        ("port side",),
        parts=(*parts, *longerons, *_ids(_of_kind(fuselage, "corner-strip"))),
        glue="aliphatic",
        hands_minutes=minutes,
        needs=("board",),
        needs_cure=True,
        hold="every longeron over its twin, from nose to tail",
        hazards=("blade", "pins"),
    )


def _within(fuselage: Fuselage, start: str, end: str, station: float) -> bool:
    known = {name: stop.station for name, stop in fuselage.stations}
    return known[start] <= station <= known[end]


def _seats(work: Work, build: Build, after: tuple[str, ...]) -> None:
    if build.wings:
        work.add(
            "seats",
            "Fix the wing seats",
            after,
            parts=tuple(f"{wing.id}_seat" for wing in build.wings),
            glue="aliphatic",
            hands_minutes=20.0,
            hold="both seats at one height over the board, both at one angle",
            no_return=True,
            because="a former that does not go in would push the seats apart afterwards",
        )


def _boxed(work: Work, build: Build, fuselage: Fuselage, boxed: tuple[str, ...]) -> None:
    """Formers between two sides: the straight part first, nose and tail last."""
    straight, nose, tail = _parts(fuselage)
    sides = ("doublers", "strips", "port side", "starboard side", "cut")
    work.add(
        "try in",
        "Try every former in between the sides, dry",
        sides,
        parts=(*nose, *straight, *tail),
        hands_minutes=30.0,
        hold="each former home without force; sand it now, not with glue on it",
    )
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


def _soak(work: Work, closing: Closing) -> None:
    work.add(
        steps_of_end(closing.end)[0],
        f"Soak the {closing.end} of the sides, clamp it over the dry formers, leave it overnight",
        ("straight part",),
        hands_minutes=20.0,
        cure_minutes=_OVERNIGHT,
        needs=("board", "clamps"),
        holds_until="cure",
        needs_cure=True,
        hold="film between wet wood and formers; when the clamps are off read how far it springs back",
        hazards=("steam",),
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
    words = _named(_words(formers))
    title = (
        f"Pull the {name} in and glue {words}" if needs_cure else f"Glue {words} between the sides"
    )
    work.add(
        name,
        title,
        after,
        parts=(*(one for one in formers if one != TAIL_POST), *more),
        glue="aliphatic",
        hands_minutes=_MINUTES_A_FORMER * len(formers) + 10,
        needs=("board", "clamps"),
        needs_cure=needs_cure,
        hold="square each former at its top and at its foot; both diagonals of every bay; then glue",
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
        "Pin the crutch flat on the board and glue its cross-pieces",
        ("cut", "board"),
        parts=crutch,
        glue="aliphatic",
        hands_minutes=30.0,
        needs=("board",),
        hold="both diagonals of the crutch alike, its centre line on the board's",
    )
    for name, title, after in (
        ("lower formers", "Square the lower formers on the crutch and glue them", ("crutch",)),
        ("lower sides", "Slot the lower sides to the crutch and glue them", ("lower formers", "doublers", "strips")),
        ("upper formers", "Turn it over; glue the upper formers", ("lower sides",)),
        ("upper sides", "Glue the upper sides", ("upper formers",)),
    ):  # fmt: skip
        work.add(
            name,
            title,
            after,
            parts={"upper formers": formers, "upper sides": sides}.get(name, ()),
            glue="aliphatic",
            hands_minutes=_MINUTES_A_FORMER * len(formers) / 2 + 10,
            needs=("board", "clamps"),
            needs_cure=name == "upper formers",
            hold="square on the crutch, fore and aft and across",
        )


def _on_the_board(
    work: Work, fuselage: Fuselage, sides: tuple[str, ...], longerons: tuple[str, ...]
) -> None:
    split = tuple(former.id for former in fuselage.formers if former.split)
    whole = tuple(former.id for former in fuselage.formers if not former.split)
    wires = _ids(_of_kind(fuselage, "wire"))
    if wires:
        work.add(
            "thread",
            "Wax the wires and thread the formers on them",
            ("drill", "cut"),
            parts=wires,
            hands_minutes=15.0,
            hold="waxed? an unwaxed wire stays for ever",
        )
    work.add(
        "formers up",
        f"Stand {_named(whole)} on their spacers and pin them",
        ("cut", "board", "thread"),
        parts=whole,
        hands_minutes=_MINUTES_A_FORMER * len(whole),
        needs=("board",),
        hold="read both diagonals and the corner heights; move what is off before any glue",
    )
    strips = _of_kind(fuselage, "keel", "stringer", "corner-strip")
    running = (*_ids(strips), *longerons)
    if running:
        work.add(
            "stringers",
            f"Glue {_named(_words(running))}, port and starboard by turns",
            ("formers up", "doublers"),
            parts=(*running, *whole),
            glue="aliphatic",
            hands_minutes=12.0 * len(running),
            needs=("board",),
            hold="one to port, one to starboard: one side alone pulls the frame into a bow",
        )
    if split:
        work.add(
            "tail",
            f"Close the tail: glue the halves of {_named(split)} in the jig",
            ("stringers", "formers up"),
            parts=split,
            glue="aliphatic",
            hands_minutes=20.0,
            needs=("board", "clamps"),
            needs_cure=True,
            hold="both halves meet on the centre line",
        )
    if sides:
        work.add(
            "sides",
            "Sheet the sides, port and starboard by turns",
            ("formers up", "stringers", "tail", "doublers"),
            parts=(*sides, *whole),
            glue="aliphatic",
            hands_minutes=45.0,
            needs=("board", "clamps"),
            hold="diagonals and heights read once more: the sides make it stiff as it then is",
        )


def _inside(work: Work, fuselage: Fuselage) -> None:
    """What goes in before the box is closed."""
    boxed = ("straight part", "lower sides", "stringers", "formers up")
    bearers = _ids(_of_kind(fuselage, "bearer"))
    if bearers:
        work.add(
            "bearers",
            f"Feed {_named(bearers)} through the formers and glue",
            boxed,
            parts=bearers,
            glue="slow epoxy",
            hands_minutes=20.0,
            hold="level across, and along the thrust line that is drawn",
            hazards=("epoxy",),
        )
    gussets = _ids(_of_kind(fuselage, "gusset"))
    if gussets:
        work.add(
            "gussets",
            f"Glue {_named(gussets)} into the corners",
            boxed,
            parts=gussets,
            glue="aliphatic",
            hands_minutes=20.0,
            hold="the bay's diagonals once more: a gusset holds it as it then stands",
        )
    plates = _ids(_of_kind(fuselage, *sorted(PLATES)))
    if plates:
        work.add(
            "plates",
            f"Glue {_named(plates)}",
            boxed,
            parts=plates,
            glue="slow epoxy",
            hands_minutes=10.0 * len(plates),
            hold="level across, at one height on both sides",
            hazards=("epoxy",),
        )
    hatches = _ids(_of_kind(fuselage, "hatch-frame"))
    if hatches:
        work.add(
            "hatch",
            f"Glue {_named(hatches)}; tack its twin to the hatch",
            boxed,
            parts=hatches,
            glue="aliphatic",
            hands_minutes=20.0,
        )


def _close(work: Work, fuselage: Fuselage) -> None:
    framed = tuple(step.id for step in work.steps)
    work.add(
        "access",
        "Try pack, servos, tank and a hand through every hatch",
        framed,
        hands_minutes=20.0,
        hold="the pack slides to its foremost place; a finger reaches every screw",
    )
    work.add(
        "read",
        "Read the whole frame again, cured: heights, diagonals, centre marks",
        ("tail", "upper sides", "sides", "stringers", "straight part"),
        hands_minutes=25.0,
        needs_cure=True,
        hold="the tail is home and stays home when the clamps are off",
    )
    for face, skin in (("top", fuselage.top_skin), ("bottom", fuselage.bottom_skin)):
        if skin > 0:
            work.add(
                f"{face} sheet",
                f"Sheet the {face}, panel by panel from the nose",
                ("access", "read", "plates", "hatch"),
                parts=(f"{face}_sheet",),
                glue="aliphatic",
                hands_minutes=45.0,
                needs=("clamps",),
                no_return=True,
                because=(
                    "it closes the bays, and makes the tail rigid as it then is"
                    if face == "top"
                    else "no twist can be taken out of a closed box"
                ),
                hazards=("blade",),
            )
