"""The demo builds beside the Kettlewick, one for each way of framing; all made up, made when one is opened."""

from collections.abc import Callable
from dataclasses import dataclass
from functools import cache
from typing import Final

from hardkeel.airframe.starters import start_from
from hardkeel.demo.biplane import NAME, teasel
from hardkeel.demo.boarded import squared_in_part
from hardkeel.demo.laid import with_order
from hardkeel.demo.other_shapes import GLIDER, PUSHER, VEE, bracken, tansy, yarrow
from hardkeel.demo.planked import PLANKED, sorrel
from hardkeel.demo.tails import of_foam, that_lifts, with_bent_tips
from hardkeel.edits import framing as edits
from hardkeel.fuselage.cut_list import cut_list_of
from hardkeel.joinery.cut_part import Stock
from hardkeel.project.model import Build


@dataclass(frozen=True, slots=True)
class Demo:
    """A demo build: what it is called, what it shows, how it is made, and the page on which it has most to show."""

    name: str
    framed: str
    make: Callable[[], Build]
    opens: tuple[str, str] = ("true", "rig")


@cache
@with_order
def withy() -> Build:
    """A stick fuselage for indoor light: longerons, uprights, zigzag bracing, formers of sticks aft."""
    build = edits.frame_as_usual(start_from("stick", 820.0, 640.0, "Withy 820"))
    build = edits.set_former(build, "F3", sticks=(9.0, 3.0), joint="butt")
    for name in ("F4", "F5"):
        build = edits.set_former(build, name, sticks=(8.0, 3.0), joint="lap")
    build = edits.set_framing(
        build,
        kerf=0.6,
        stock=(Stock(section=(4.0, 4.0), length=480.0, pieces=2, material="balsa-medium"),),
    )
    build = edits.add_member(build, "gusset", "F4", "F8")
    build = edits.set_member(build, "gusset", width=9.0, curved=True)
    return _some_cut(with_bent_tips(build), 6)


@cache
@with_order
def marram() -> Build:
    """A round fuselage on a crutch, with bearers for an engine and wing dowels."""
    build = edits.frame_as_usual(start_from("crutch", 1450.0, 1130.0, "Marram 1450"))
    build = edits.add_member(build, "bearer", "F1", "F3")
    build = edits.set_member(build, "bearer", station=-60.0, section=(12.0, 10.0), y=15.0, z=13.0)
    build = edits.add_member(build, "dowel-plate", "F4", "F5")
    build = edits.set_member(build, "dowel plate", z=30.0, width=60.0)
    return edits.set_framing(that_lifts(build), sheet=(1000.0, 100.0))


@cache
@with_order
def sallow() -> Build:
    """Formers on a board: keel, stringers, wires that hold them in line, a tail that is closed last."""
    build = edits.frame_as_usual(start_from("board", 1120.0, 850.0, "Sallow 1120"))
    for name in ("F8", "F9"):
        build = edits.set_former(build, name, split=True)
    return squared_in_part(edits.set_framing(of_foam(build), sheeting="along"))


def _some_cut(build: Build, lines: int) -> Build:
    """The first lines of the cut list cut, as if the builder had begun."""
    if build.fuselage is None:
        return build
    for part in cut_list_of(build.fuselage)[:lines]:
        build = edits.note_cut(build, part.key, part.quantity, part.length)
    return build


DEMOS: Final = (
    Demo("Withy 820", "stick sides", withy, ("frame", "sticks")),
    Demo("Marram 1450", "on a crutch", marram, ("frame", "members")),
    Demo("Sallow 1120", "formers on a board", sallow, ("frame", "square")),
    Demo(NAME, "a biplane to rig", teasel),
)
# of other shapes; what all demos are walked through in tests these need not be once more
OTHER_SHAPES: Final = (
    Demo(GLIDER, "a glider with its stabilizer on the fin", bracken),
    Demo(PUSHER, "a pusher with a foreplane", yarrow, ("true", "air")),
    Demo(VEE, "a V-tail and its motor", tansy),
    Demo(PLANKED, "an oval, planked on a keel", sorrel, ("frame", "members")),
)
