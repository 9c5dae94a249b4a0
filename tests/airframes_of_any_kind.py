"""Fifteen kinds of model, each from its description: made up, of no real aircraft."""

from collections.abc import Callable
from typing import Final

from hardkeel.airframe.figures import Figures, build_from, proposed
from hardkeel.project.model import Build


def _made(figures: Figures, **more: object) -> Callable[[], Build]:
    return lambda: build_from(figures.model_copy(update={"engine": True, "down": 2.0, **more}))


def _all_moving(build: Build) -> Build:
    """Its stabilizer turns as a whole, about its quarter chord."""
    tail = tuple(
        one.but(pivot_at_chord=0.25) if one.duty == "stabilizer" else one for one in build.tail
    )
    return build.but(tail=tail)


ANY: Final[dict[str, Callable[[], Build]]] = {
    "sheet fuselage": _made(Figures()),
    "stick fuselage": _made(Figures(fuselage="stick")),
    "crutch fuselage": _made(Figures(fuselage="crutch")),
    "board fuselage": _made(Figures(fuselage="board")),
    "low tail": _made(proposed("low"), side=1.5),
    "tee tail": _made(proposed("tee"), engine=False),
    "two fins": _made(proposed("twin")),
    "vee tail": _made(proposed("vee"), engine=False),
    "foreplane": _made(proposed("foreplane"), side=-1.0),
    "all-moving tail": lambda: _all_moving(_made(Figures(name="Moving"))()),
    "biplane": _made(proposed("biplane")),
    "parasol": _made(Figures(wing_place="parasol")),
    "two panels": _made(Figures(wings="tube", wing_place="shoulder")),
    "polyhedral": _made(Figures(breaks=((0.5, 8.0), (0.8, 14.0)), wing_dihedral=1.0), engine=False),
    "panels that come off": _made(
        Figures(wing_span=1800, tail_arm=760, breaks=((0.55, 8.0),), comes_off=True), engine=False
    ),
}
