"""Describing a model: what it is, and what its figures come to."""

from collections.abc import Mapping
from typing import Final

from hardkeel.airframe.figures import Figures, FuselageName, ModelKind, WingPlace
from hardkeel.base.units import LengthUnit, format_angle, format_length
from hardkeel.messages.counting import number_of

WHAT_IS_IT: Final = "What is it?"
KINDS: Final[Mapping[ModelKind, str]] = {
    "low": "stabilizer low",
    "tee": "on the fin",
    "vee": "V-tail",
    "twin": "two fins",
    "foreplane": "foreplane",
    "biplane": "two wings",
}
WING, TAIL, FUSELAGE, NOSE, RIGOUR, TOOLS = (
    "Wing",
    "Tail",
    "Fuselage",
    "Motor",
    "How true",
    "Your tools",
)
PLACES: Final[Mapping[WingPlace, str]] = {
    "high": "on top",
    "shoulder": "shoulder",
    "mid": "middle",
    "low": "below",
    "parasol": "over it on a cabane",
}
MADE: Final = {"one": "in one piece", "tube": "two panels on a tube"}
BUILT: Final[Mapping[FuselageName, str]] = {
    "sheet-box": "sheet sides",
    "stick": "sticks",
    "crutch": "crutch",
    "board": "on a board",
}
BREAKS: Final = ("no break", "one break each side", "two breaks each side")
COMES_OFF: Final = "the panels outside the break come off"
MOTOR: Final = "a motor, its thrust line set too"
FIGURES: Final = {
    "wing_span": "span",
    "wing_root": "root chord",
    "wing_tip": "tip chord",
    "wing_le_x": "LE aft of datum",
    "wing_incidence": "incidence",
    "wing_dihedral": "dihedral",
    "parasol": "over the top",
    "break_1": "break at",
    "rise_1": "rises then",
    "swept_1": "runs aft then",
    "break_2": "second at",
    "rise_2": "rises then",
    "swept_2": "runs aft then",
    "tail_arm": "arm",
    "stab_span": "span",
    "stab_chord": "chord",
    "stab_incidence": "incidence",
    "fin_height": "fin height",
    "fin_chord": "fin chord",
    "length": "length",
    "depth": "depth",
    "width": "width",
    "down": "down",
    "side": "to starboard",
}
SPOKEN: Final = {
    "wing_le_x": "leading edge aft of the datum",
    "wing_dihedral": "dihedral, each side",
    "break_1": "break, from the middle",
    "rise_1": "dihedral beyond the break",
    "break_2": "second break, from the middle",
    "rise_2": "dihedral beyond the second break",
    "swept_1": "how far aft the leading edge runs beyond the break",
    "swept_2": "how far aft the leading edge runs beyond the second break",
    "tail_arm": "arm, quarter chord to quarter chord",
    "down": "down thrust",
    "side": "side thrust to starboard",
}
CLASSES: Final = {
    "trainer": "slow trainer: tolerances × 1.5",
    "sport": "sport model: the usual tolerances",
    "precision": "precision model: tolerances × 0.6",
}


def wing_words(figures: Figures, unit: LengthUnit) -> str:
    """``1200 × 200 mm, on top, 3.00°``."""
    size = f"{_plain(figures.wing_span, unit)} × {format_length(figures.wing_root, unit, 0)}"
    place = "one over the other" if figures.wings == "two" else PLACES[figures.wing_place]
    broken = f", {number_of(len(figures.breaks), 'break')}" if figures.breaks else ""
    off = ", tips off" if figures.comes_off and figures.breaks else ""
    return f"{size}, {place}, {format_angle(figures.wing_dihedral, 1)}{broken}{off}"


def tail_words(figures: Figures, unit: LengthUnit) -> str:
    """``420 × 115 mm, arm 560 mm``."""
    size = f"{_plain(figures.stab_span, unit)} × {format_length(figures.stab_chord, unit, 0)}"
    return f"{size}, arm {format_length(figures.tail_arm, unit, 0)}"


def fuselage_words(figures: Figures, length: float, depth: float, unit: LengthUnit) -> str:
    """``sheet sides, 860 mm long, 82 mm deep``."""
    built = BUILT[figures.fuselage]
    long = f"{format_length(length, unit, 0)} long"
    return f"{built}, {long}, {format_length(depth, unit, 0)} deep"


def nose_words(figures: Figures) -> str:
    """``no motor``, or its thrust."""
    if not figures.engine:
        return "no motor"
    pushes = " pusher," if figures.tail == "foreplane" else ""
    return f"motor,{pushes} {format_angle(figures.down, 1)} down, {format_angle(figures.side, 1)} to starboard"


def rigour_words(figures: Figures) -> str:
    """``sport model``."""
    return class_words(figures.model_class)


def class_words(model_class: str | None) -> str:
    """``sport model``; empty where nobody said."""
    return CLASSES[model_class].partition(":")[0] if model_class else ""


def tools_words(figures: Figures) -> str:
    """``5 tools``."""
    return number_of(len(figures.tools), "tool")


def told_words(readings: int, first: str) -> str:
    """How many readings will settle it, and the first."""
    return f"{number_of(readings, 'reading')} will settle it. First: {first}." if first else ""


def _plain(mm: float, unit: LengthUnit) -> str:
    """A length without its unit, where the next one says it."""
    return format_length(mm, unit, 0).replace(" mm", "")
