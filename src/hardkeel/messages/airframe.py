"""The airframe in words: bumps, templates, cut-outs as a builder writes them."""

import re
from collections.abc import Iterable
from typing import TYPE_CHECKING, Final, get_args

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, decimal, format_length, parse_angle, parse_length
from hardkeel.fuselage.fairing import Bump
from hardkeel.fuselage.model import CutOut, CutOutKind, Former, Line, TailPost

if TYPE_CHECKING:
    from hardkeel.fuselage.cutting import Misfit  # polygons load late

LINE_WORDS: Final = {"top": "Top line", "bottom": "Bottom line", "half_width": "Sides"}
METHOD_WORDS: Final = {
    "sheet-sides": "sheet sides",
    "on-side": "on one side lying flat",
    "stick-sides": "stick sides",
    "crutch": "on a crutch",
    "board": "formers on a board",
    "half-shell": "half shell over a keel",
}
FIGURE_WORDS: Final = {
    "top": "top",
    "bottom": "bottom",
    "half_width": "half-width",
    "station": "station",
}
_FITS_MM: Final = 0.4  # a template nearer than this is right: a pencil line is as wide
CUT_OUT_KINDS: Final = get_args(CutOutKind)
_CUT: Final = re.compile(
    r"\s*(?:(?P<name>[\w-]+)\s+)??(?P<kind>battery|tank|hatch|hole)\s+(?P<w>[\d.,/\s-]+?(?:mm|in|\")?)\s*[x×]\s*"
    r"(?P<h>[\d.,/]+(?:-\d+/\d+)?(?:\s*(?:mm|in|\"))?)(?:\s+at\s+(?P<z>[-−]?[\d.,/]+(?:-\d+/\d+)?(?:\s*(?:mm|in|\"))?))?\s*",
    re.IGNORECASE,
)
STARTER_WORDS: Final[
    dict[str, tuple[str, str]]
] = {  # what a kind is called, and what it is good for
    "stick": (
        "Stick fuselage",
        "Longerons, uprights and diagonals over the drawing: the lightest.",
    ),
    "sheet-box": (
        "Sheet sides",
        "Two sheet sides with doublers, sticks behind the wing: quick and sturdy.",
    ),
    "crutch": (
        "Crutch",
        "A flat frame is the datum, formers above and below it: keeps itself true.",
    ),
    "board": (
        "Formers on a board",
        "Round formers on spacers, stringers over them: the shapely one.",
    ),
    "biplane": ("Biplane", "Sheet sides and two wings, the upper one ahead."),
}


def bump_sentence(bump: Bump, unit: LengthUnit) -> str:
    """Where a line leaves the fair curve and which way."""
    name = bump.former.replace("_", " ")
    return (
        f"{LINE_WORDS[bump.line]}: {name} stands {format_length(abs(bump.off), unit)} {_way(bump)}."
    )


def corner_words(former: str, line: Line) -> str:
    """``top line: corner at F2``."""
    return f"{LINE_WORDS[line]}: corner at {former}  ×"


def bump_note(bump: Bump, unit: LengthUnit) -> str:
    """The same in two words for the drawing."""
    return f"{format_length(abs(bump.off), unit)} {_way(bump)}"


def _way(bump: Bump) -> str:
    proud = bump.off < 0 if bump.line == "bottom" else bump.off > 0
    return "proud" if proud else "hollow"


def misfit_sentence(misfit: "Misfit", unit: LengthUnit) -> str:
    """How a template stands against the loft."""
    parts = []
    for amount, where in (
        (misfit.side, "each side"),
        (misfit.top, "at the top"),
        (misfit.bottom, "at the bottom"),
    ):
        if abs(amount) >= _FITS_MM:
            way = "proud" if amount > 0 else "short"
            parts.append(f"{format_length(abs(amount), unit)} {way} {where}")
    if not parts:
        return "The template fits the loft."
    return f"The template stands {', '.join(parts)}: cut from the loft instead."


def caution_sentence(former: Former, cautions: tuple[str, ...]) -> str:
    """What would break."""
    if not cautions:
        return ""
    if "split" in cautions:
        return f"{former.id} falls apart: less cut out, or longerons that sit closer to the edge."
    return f"Less than 3 mm of wood is left beside “{cautions[0]}”: it breaks when it is handled."


CUT_OUT_LIKE: Final[dict[LengthUnit, str]] = {
    "mm": "battery 40 x 32 at -12; tank 30 x 30 at 0",
    "in": 'battery 1-5/8" x 1-1/4" at -1/2"; tank 1.2" x 1.2" at 0',
}


def cutouts_text(cutouts: tuple[CutOut, ...], unit: LengthUnit) -> str:
    """Cut-outs as they are written in the field: ``battery 40 x 32 at -12``."""

    def figure(mm: float) -> str:
        return f"{mm:g}" if unit == "mm" else f'{mm / 25.4:.3f}"'

    return "; ".join(
        f"{cut.kind} {figure(cut.width)} x {figure(cut.height)} at {figure(cut.z)}"
        for cut in cutouts
    )


def read_cutouts(text: str, unit: LengthUnit) -> tuple[CutOut, ...]:
    """Cut-outs from such a text.

    Raises
    ------
    BadInput
        Naming the one that is not understood.
    """
    found: list[CutOut] = []
    for part in (piece for piece in text.split(";") if piece.strip()):
        match = _CUT.fullmatch(part)
        if match is None:
            like = CUT_OUT_LIKE[unit].partition(";")[0]
            if not {word.lower() for word in part.split()} & set(CUT_OUT_KINDS):
                like += f"; it is a {', '.join(CUT_OUT_KINDS[:-1])} or {CUT_OUT_KINDS[-1]}"
            raise BadInput("", f"“{part.strip()}”: write it like {like}")
        width, height = (parse_length(match[key], unit).mm for key in ("w", "h"))
        z = parse_length(match["z"], unit).mm if match["z"] else 0.0
        kind = match["kind"].lower()
        number = sum(cut.kind == kind for cut in found) + 1
        name = kind if number == 1 else f"{kind}{number}"
        if min(width, height) <= 0:
            raise BadInput("", f"“{part.strip()}”: a hole needs a size")
        found.append(CutOut(id=name, kind=kind, width=width, height=height, z=z))  # type: ignore[arg-type]
    return tuple(found)


ROUND_FIGURES: Final = {
    "widest": "the widest line",
    "full_top": "the fullness above",
    "full_bottom": "the fullness below",
    "deck": "the deck",
    "belly": "the belly",
    "deck_radius": "the radius of the deck",
    "belly_radius": "the radius of the belly",
}


def dragged_words(stop: Former | TailPost, key: str, unit: LengthUnit) -> str:
    """A figure of a stop while it is dragged: ``top 42.0 mm``, ``fullness 2.4``."""
    if key in FIGURE_WORDS:
        return f"{FIGURE_WORDS[key]} {format_length(getattr(stop, key), unit)}"
    shape = stop.section if isinstance(stop, Former) else None
    if shape is None:
        return ""
    if shape.kind == "flat-sides":
        deck, belly = (format_length(one, unit) for one in (shape.deck, shape.belly))
        return f"deck {deck}, belly {belly}" if key == "full_z" else ""
    if key == "widest" and shape.widest is not None:
        return f"widest at {format_length(shape.widest, unit)}"
    return (
        f"fullness {decimal(shape.top, 2)} above, {decimal(shape.bottom, 2)} below"
        if key == "full_z"
        else ""
    )


def dragged_names(figures: Iterable[str]) -> str:
    """What was dragged, for undo: ``top and half-width``, ``fullness``."""
    names = [FIGURE_WORDS.get(key) or ROUND_FIGURES.get(key) or "fullness" for key in figures]
    return " and ".join(dict.fromkeys(names))


def read_part(
    text: str, unit: LengthUnit
) -> tuple[str, tuple[float, float, float], tuple[float, float, float]]:
    """A part's name, place, and length, width and angle from ``step, 300, 0, -60, 200, 90, 2``.

    Raises
    ------
    BadInput
        When it is not a name, five lengths, and an angle or nothing.
    """
    between = r";|,\s" if re.search(r";|,\s", text) else ","
    parts = [part.strip() for part in re.split(between, text)]
    if len(parts) not in (6, 7) or not parts[0]:
        raise BadInput("", f"“{text.strip()}”: write it like step, 300, 0, -60, 200, 90, 2")
    x, y, z, long, wide = (parse_length(part, unit).mm for part in parts[1:6])
    angle = parse_angle(parts[6]) if len(parts) > 6 else 0.0  # noqa: PLR2004
    return parts[0], (x, y, z), (long, wide, angle)


def read_mark(text: str, unit: LengthUnit) -> tuple[str, tuple[float, float, float]]:
    """A mark's name and place from ``hatch corner, 120, 10, 44``.

    Raises
    ------
    BadInput
        When it is not a name and three lengths.
    """
    # with a space behind it a comma parts figures, without one it may stand for a decimal point
    between = r";|,\s" if re.search(r";|,\s", text) else ","
    parts = [part.strip() for part in re.split(between, text)]
    if len(parts) != 4 or not parts[0]:  # noqa: PLR2004  name, x, y, z
        raise BadInput("", f"“{text.strip()}”: write it like hatch corner, 120, 10, 44")
    x, y, z = (parse_length(part, unit).mm for part in parts[1:])
    return parts[0], (x, y, z)
