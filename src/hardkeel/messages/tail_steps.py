"""The order of work that the tail asks for, from its own wood: what after what, and why."""

from typing import Final

from hardkeel.airframe.tails import in_a_slot, passing_in
from hardkeel.base.errors import BadInput
from hardkeel.messages.names import surface_name
from hardkeel.messages.work import Work
from hardkeel.project.model import Build
from hardkeel.schedule.model import Step
from hardkeel.tail.model import TailSurface
from hardkeel.tail.pieces import bare_width

STAGE: Final = "tail"
_OVERNIGHT: Final = 720.0


def tail_steps(build: Build) -> tuple[Step, ...]:
    """Every step of building the tail, in an order that breaks none of its rules."""
    work = Work(STAGE, frozenset(_frame_ready(build)))
    ready: dict[str, str] = {}
    for surface in build.tail:
        if surface.kind is not None:
            ready[surface.id] = _built(work, surface)
    _joined(work, build, ready)
    return tuple(work.steps)


def _built(work: Work, surface: TailSurface) -> str:
    """The steps of one surface alone; the id of the last."""
    name, part = surface_name(surface.id), surface.id

    def step(key: str, title: str, after: tuple[str, ...], **more: object) -> str:
        return work.add(f"{part} {key}", title, tuple(f"{part} {one}" for one in after), **more)

    panel = (f"{part}_panel" if surface.upright else f"{part}_half",)
    if surface.kind == "stick":
        step(
            "cut",
            f"Cut the sticks of the {name}, both halves at one setting",
            (),
            parts=panel,
            hands_minutes=40.0,
            hazards=("blade",),
        )
        step(
            "pin",
            f"Pin the {name} over its drawing, dry; pins beside the wood",
            ("cut",),
            parts=panel,
            hands_minutes=25.0,
            hazards=("pins",),
            needs=("board",),
            hold="look along it: flex it true before any glue",
        )
        step(
            "glue",
            f"Glue the {name}'s joints, one side of the drawing after the other",
            ("pin",),
            hands_minutes=25.0,
            glue="aliphatic",
            needs=("board",),
            hold="read the corners while it is dry",
        )
        step(
            "flat",
            f"Read the {name}'s corners, flex what is twisted, dry it flat under weight",
            ("glue",),
            hands_minutes=10.0,
            handle_minutes=_OVERNIGHT,  # it lies under weight, and the board with it
            cure_minutes=_OVERNIGHT,
            needs=("board",),
            no_return=True,
            because="once it is dry it keeps the twist that it has",
        )
    elif surface.kind == "ribbed":
        step(
            "cut",
            f"Cut the ribs of the {name}",
            (),
            parts=panel,
            hands_minutes=60.0,
            hazards=("blade", "dust"),
        )
        step(
            "slots",
            f"Slot the {name}'s edges and try every rib in",
            ("cut",),
            hands_minutes=25.0,
            hold="a rib slides in by its own weight: dampen it where it is loose, pinch it where it is tight",
            hazards=("blade",),
        )
        step(
            "feet",
            f"Stand the {name}'s ribs on their feet, chord lines level",
            ("slots",),
            parts=panel,
            hands_minutes=20.0,
            needs=("board",),
            hazards=("pins",),
        )
        step(
            "glue",
            f"Glue the {name}'s edges and spars to its ribs",
            ("feet",),
            hands_minutes=30.0,
            glue="aliphatic",
            needs=("board",),
            hold="the spar touches the floor of every notch",
        )
        step(
            "flat",
            f"Read the {name}'s corners, flex what is twisted, let it dry",
            ("glue",),
            hands_minutes=10.0,
            handle_minutes=_OVERNIGHT,  # it lies under weight, and the board with it
            cure_minutes=_OVERNIGHT,
            needs=("board",),
        )
        if surface.skin:
            step(
                "skin",
                f"Glue the {name}'s skins on",
                ("flat",),
                hands_minutes=40.0,
                glue="aliphatic",
                hold="hinge points, horn and tube seats are in place",
                no_return=True,
                because="the skin closes the frame and keeps whatever twist it has then",
            )
    else:
        step(
            "cut",
            f"Cut the {name}'s foam along its templates",
            (),
            parts=panel,
            hands_minutes=40.0,
            hazards=("foam", "blade"),
        )
        if surface.tubes:
            step(
                "tubes",
                f"Let the {name}'s tubes in, level with each other and square to the fin",
                ("cut",),
                hands_minutes=20.0,
                glue="slow epoxy",
                hazards=("epoxy",),
                no_return=True,
                because="a tube that is glued askew turns both halves with it",
                hold="a rod through both holes reads level both ways round",
            )
        if surface.skin:
            step(
                "skin",
                f"Glue the {name}'s skins on, in its own cut-offs as a cradle",
                ("cut", "tubes"),
                hands_minutes=40.0,
                glue="slow epoxy",
                hazards=("epoxy",),
                no_return=True,
                because="the skin keeps whatever twist the cradle has",
                hold="only a glue that foam stands; the cradle lies flat",
            )
        step(
            "edges",
            f"Glue the {name}'s edges and tip blocks on, sand them to the section",
            ("cut", "skin"),
            hands_minutes=40.0,
            glue="aliphatic",
            hazards=("dust", "blade"),
        )
        step(
            "flat",
            f"Read the {name}'s corners on the board",
            ("edges",),
            hands_minutes=10.0,
            needs=("board",),
        )
    last = next(key for key in ("skin", "flat") if any(s.id == f"{part} {key}" for s in work.steps))
    if surface.kind == "foam":
        last = "flat"
    if surface.hinge_at_chord is None:
        return f"{part} {last}"
    moving = "rudder" if surface.upright else "elevator"
    step(
        "bevel",
        f"Taper the {moving}'s edge and bevel its hinge face",
        (last,),
        hands_minutes=25.0,
        hazards=("dust",),
        hold="the throw that is wanted, up and down, with the gap closed",
    )
    step(
        "hinges",
        f"Slot for the {moving}'s hinges and try them dry",
        ("bevel",),
        hands_minutes=30.0,
        hazards=("blade",),
        hold="it swings freely by its own weight, all hinges on one line",
    )
    return f"{part} hinges"


def _joined(work: Work, build: Build, ready: dict[str, str]) -> None:
    """On the fuselage: which goes first, what stays bare, what can't be hinged before."""
    lying = [s for s in build.tail if s.id in ready and not s.upright]
    standing = [s for s in build.tail if s.id in ready and s.upright]
    seated: list[str] = []
    for surface in lying:
        name = surface_name(surface.id)
        if bare_width(surface):
            work.add(
                f"{surface.id} bare",
                f"Mark the strip of the {name} that stays bare, on both faces",
                (ready[surface.id],),
                hands_minutes=5.0,
                hold="half the seat to either side of the middle",
            )
        hinged, because = _slot_rule(build, surface)
        after = (ready[surface.id], f"{surface.id} bare", *_frame_ready(build))
        work.add(
            f"{surface.id} seat",
            f"Glue the {name} {'through its slot' if in_a_slot(build, surface) else 'to its seat'}{hinged}",
            after,
            parts=(f"{surface.id}_half",),
            hands_minutes=20.0,
            glue="slow epoxy",
            hazards=("epoxy",),
            hold="it reads level with the wing and square to the keel line, on True",
            no_return=True,
            because=because or "its incidence and squareness can't be changed afterwards",
        )
        seated.append(f"{surface.id} seat")
    for surface in standing:
        name = surface_name(surface.id)
        why = "the fin is set square to a stabilizer that is glued already" if seated else ""
        work.add(
            f"{surface.id} seat",
            f"Glue the {name} on, square to the stabilizer",
            (ready[surface.id], *seated, *_frame_ready(build)),
            parts=(f"{surface.id}_panel",),
            hands_minutes=15.0,
            glue="slow epoxy",
            hazards=("epoxy",),
            hold="square to the stabilizer and in line with the keel line, on True",
            no_return=True,
            because=why or "it can't be moved afterwards",
        )
        seated.append(f"{surface.id} seat")
    moving = [s for s in (*lying, *standing) if s.hinge_at_chord is not None]
    if moving:
        last = work.add(
            "hinge all",
            "Cover, then glue the hinges and set the horns",
            tuple(f"{s.id} seat" for s in moving),
            hands_minutes=60.0,
            glue="thin cyanoacrylate",
            hazards=("cyanoacrylate", "iron"),
            hold="the joint is bare wood, the hinge line is clean",
            no_return=True,
            because="a hinge that is glued comes out only with its slot",
        )
        work.add(
            "throws",
            "Set the throws and look that nothing touches",
            (last,),
            hands_minutes=15.0,
            hold="full elevator both ways with full rudder both ways",
        )


def _slot_rule(build: Build, surface: TailSurface) -> tuple[str, str]:
    """What the slot lets through, as words for the title and the reason."""
    try:
        ways = {one.hinged: one for one in passing_in(build, surface)}
    except BadInput:
        return "", ""
    if not ways or surface.hinge_at_chord is None:
        return "", ""
    if ways["both"].passes:
        return "", ""
    if ways["none"].passes:
        return ", bare half first", "with both elevators hinged it does not pass its slot"
    return "", "its slot must be opened to the rear first: it does not pass as it is"


def _frame_ready(build: Build) -> tuple[str, ...]:
    """Steps of the fuselage that come before anything is seated on it."""
    names = {step.id for step in build.steps if step.stage == "frame"}
    return tuple(one for one in ("read",) if one in names)
