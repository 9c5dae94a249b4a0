"""What an error does in the air, in a builder's words and units."""

from typing import TYPE_CHECKING, Final

from hardkeel.base.units import LengthUnit, decimal, format_angle, format_length
from hardkeel.trim.flying import FELT, OPEN_GAP, SEALED

if TYPE_CHECKING:
    from hardkeel.survey.checking import Check
    from hardkeel.trim.flying import Effect, Trim

NO_FUSELAGE: Final = "The fuselage is not reckoned: it takes some of the margin away. First flights: high, and gently."
WITH_FUSELAGE: Final = "What the fuselage takes is a rule for round bodies and a third of it either way. First flights: high, and gently."
_BY_THEORY: Final = " by thin-aerofoil theory"
_STEADY: Final = (0.05, 0.3)  # static margin: less is nervous, more is heavy in the nose
_STEADY_BARE: Final = 0.10  # the same while the fuselage, which takes some of it, is not reckoned


def effect_sentence(effect: "Effect", unit: LengthUnit) -> str:
    """``trims out with 0.8° ± 0.2° up elevator, 0.6 mm at its edge``."""
    figures = dict(effect.figures)
    value = effect.first
    doubt = format_angle(2 * effect.sigma, 1)
    size = format_angle(abs(value), 1)
    if "elevator" in figures:
        way = "down" if value >= 0 else "up"
        edge = format_length(abs(figures["millimetres"] or 0.0), unit)
        return (
            f"Trims out with {size} ± {doubt} {way} elevator, {edge} at its edge{_really(value)}."
        )
    if "rudder" in figures:
        way = "port" if value >= 0 else "starboard"
        edge = format_length(abs(figures["millimetres"] or 0.0), unit)
        return f"Trims out with {size} ± {doubt} of rudder to {way}, {edge} at its edge{_really(value)}."
    if "roll_rate" in figures:
        way = "starboard" if value >= 0 else "port"
        return f"Rolls to {way} at {size} ± {doubt} a second, hands off."
    way = "port" if value >= 0 else "starboard"
    return f"Flies with its nose {size} ± {doubt} to {way} of where it goes."


def _really(angle: float) -> str:
    """What a real hinge wants instead of the theory's angle; nothing where that is not to be felt."""
    if abs(angle) < FELT:
        return ""
    low, high = (format_angle(abs(angle) / share, 1) for share in reversed(OPEN_GAP))
    return f"{_BY_THEORY}; through an open hinge gap {low} to {high}, sealed {format_angle(abs(angle) / SEALED, 1)}"


def effect_line(effect: "Effect", unit: LengthUnit) -> str:
    """The same in a line under a vial: ``in the air: 0.8° ± 0.2° up elevator, 0.6 mm at its edge``."""
    if abs(effect.first) + 2 * effect.sigma < FELT:
        return "in the air: not to be felt"
    said = effect_sentence(effect, unit).rstrip(".").partition(_BY_THEORY)[0]
    said = said.removeprefix("Trims out with ")
    return f"in the air: {said[:1].lower()}{said[1:]}"


def edge_sentence(effect: "Effect", unit: LengthUnit) -> str:
    """What an error at the edge of the tolerance does: why it is allowed."""
    figures = dict(effect.figures)
    size = format_angle(abs(effect.first), 1)
    if "elevator" in figures or "rudder" in figures:
        edge = format_length(abs(figures["millimetres"] or 0.0), unit)
        surface = "elevator" if "elevator" in figures else "rudder"
        return f"At the edge of what is allowed: {size} of {surface}, {edge}."
    if "roll_rate" in figures:
        return f"At the edge of what is allowed: {size} a second."
    return f"At the edge of what is allowed: {size} of slip."


def trim_lines(trim: "Trim") -> list[str]:
    """Neutral point, margin, speed and the decalage that trims."""
    told = []
    if trim.neutral_point is not None:
        told.append(f"Neutral point at {100 * trim.neutral_point:.0f} % of the mean chord.")
    if trim.margin is not None:
        told.append(_margin_words(trim))
    if trim.lift_coefficient is not None and trim.speed is not None:
        told.append(
            f"At a lift coefficient of {decimal(trim.lift_coefficient, 2)} it flies at {decimal(trim.speed, 1)} m/s."
        )
    now, wanted = trim.craft.decalage, trim.decalage_to_trim
    if wanted is not None:
        as_is = f"; it has {format_angle(now)}" if now is not None else ""
        told.append(f"It trims with a decalage of {format_angle(wanted)}{as_is}.")
    return told or ["Wing, stabilizer and their places are not known yet."]


def _margin_words(trim: "Trim") -> str:
    """The margin without and with the fuselage and a foreplane's wake, judged by the least."""
    least, most = _STEADY
    bare, with_body, margin = trim.margin or 0.0, trim.margin_with_body, trim.least_margin or 0.0
    judged = (
        "it is not stable: move the balance ahead"
        if margin <= 0
        else "lively"
        if margin < (_STEADY_BARE if with_body is None else least)
        else "very steady, heavy in the nose"
        if margin > most
        else "steady"
    )
    takes = 100 * trim.wake_takes
    wake = f", less up to {takes:.0f} % by the foreplane's wake" if takes else ""
    if with_body is None:
        return f"Static margin {100 * bare:.0f} %{wake}: {judged}."
    return (
        f"Static margin {100 * bare:.0f} %, with the fuselage about {100 * with_body:.0f} % "
        f"(it takes {decimal(100 * (bare - with_body), 1)} %){wake}: {judged}."
    )


def fuselage_note(trim: "Trim") -> str:
    """What of the fuselage is reckoned."""
    return NO_FUSELAGE if trim.body_takes is None else WITH_FUSELAGE


FOREPLANE_WAKE: Final = "The foreplane's wake on the wing is reckoned as a limit only: the neutral point lies between the two figures."
VEE_SAFE: Final = (
    "Of a V the neutral point lies some 4 % of the chord further aft than told, on the safe side."
)
BIPLANE_SAFE: Final = "Of two wings one over the other it lies some 4 % of the chord further aft than told, on the safe side."
FINS_MIRRORED: Final = "Each fin is reckoned as if its root stood on a wall: at the ends of a stabilizer it does less than told."


def validity_notes(trim: "Trim") -> list[str]:
    """What this model leaves out of an airframe of this kind, and how far off it then is.

    The figures are those of a vortex lattice of six airframes, in the tests.
    """
    craft = trim.craft
    if trim.neutral_point is None or craft.stab is None:
        return []
    notes = []
    if craft.stab.role == "foreplane":
        notes.append(FOREPLANE_WAKE)
    elif craft.stab.role == "vee":
        notes.append(VEE_SAFE)
    if craft.several_wings:
        notes.append(BIPLANE_SAFE)
    if len(craft.fins) > 1:
        notes.append(FINS_MIRRORED)
    return notes


# the page
RIG: Final = "Rig"
GLUE_MOVED: Final = "What the glue has moved"
IN_THE_AIR: Final = "In the air"
TRIM_DRAWING: Final = "Decalage and balance on the wing's chord"
NOT_KNOWN_YET: Final = "Wing, stabilizer and their places are not known yet."
DECALAGE_AXIS: Final = "decalage that trims"
BALANCE_AXIS: Final = "balance point on the mean chord"
NOT_STABLE: Final = "does not come back by itself"
AS_IT_STANDS: Final = "as it stands"
BUILD_TO_THIS: Final = "Build to this"
TRADE: Final = "Move one, the rest follows"
TRADE_HOW: Final = (
    "Balance and lift take the decalage along; decalage takes the lift, and so the speed."
)
SLIDERS: Final = {"balance": "balance", "decalage": "decalage", "lift": "lift"}
SECTION: Final = "Section and surfaces"
WING_SECTION: Final = "section of the wing"
NO_SECTION: Final = "section not said: figures as typed"
TAIL_FROM_SECTION: Final = "Stabilizer's angle from its section"
ALLOWED: Final = "What the tolerances let through"
NO_LIFT: Final = (
    "Balanced at the neutral point any lift trims at one decalage: move the balance first."
)
FIGURES: Final = {
    "zero_lift": "no lift at",
    "cm0": "moment",
    "tail_zero_lift": "tail no lift at",
    "elevator_fraction": "elevator",
    "rudder_fraction": "rudder",
}
_SECTION_WORDS: Final = {
    "thin": "thin, symmetrical",
    "flat-bottomed": "flat-bottomed",
    "lifting": "undercambered, lifting",
    "0009": "symmetrical, 9 %",
    "0012": "symmetrical, 12 %",
    "2412": "two-surface, little camber",
    "4412": "two-surface, much camber",
}
_STALLS: Final = 1.1  # lift coefficient beyond which a model's wing is not to be counted on


def own_section_words(name: str) -> str:
    """What a builder calls a section that comes with the app."""
    return _SECTION_WORDS.get(name, name)


def neutral_words(neutral: float) -> str:
    """``neutral point 48 %``."""
    return f"neutral point {100 * neutral:.0f} %"


def lift_words(lift: float) -> str:
    """``lift 0.50``."""
    return f"lift {decimal(lift, 2)}"


def slider_words(balance: float, decalage: float, lift: float) -> dict[str, str]:
    """Figures behind the sliders."""
    return {
        "balance": f"{100 * balance:.0f} %",
        "decalage": format_angle(decalage, 1),
        "lift": decimal(lift, 2),
    }


def trade_answer(trim: "Trim", decalage: float, *, tried: bool) -> str:
    """The answer of the page in a line."""
    size = format_angle(decalage, 1)
    now = trim.craft.decalage
    if tried or now is None:
        return f"Trims at {size} of decalage."
    off = now - decalage
    if abs(off) < 0.05:  # noqa: PLR2004  what is shown is to a tenth
        return f"Trims as it stands, at {size} of decalage."
    way = "more" if off > 0 else "less"
    return f"Trims at {size} of decalage; it has {format_angle(abs(off), 1)} {way}."


def trade_lines(trim: "Trim") -> list[str]:
    """Margin, speed, and what to mind."""
    told = [one for one in trim_lines(trim) if not one.startswith("It trims")]
    if trim.lift_coefficient is not None and trim.lift_coefficient > _STALLS:
        told.append("So much lift is at the edge of what a model's wing gives: it stalls there.")
    return told


def too_far(lift: float) -> str:
    """Why a slider stops."""
    if lift > 1.0:
        return "More decalage would want more lift than the wing gives: it would stall."
    return "Less decalage would leave it no lift to fly on: it would dive."


def section_said(name: str) -> str:
    """Where the section's figures come from."""
    if not name:
        return "Symmetrical 0°, flat-bottomed about −4°, undercambered −6° and beyond."
    return "From its mean line, by the thin-aerofoil integrals; real ones give a tenth less."


def allowed_line(name: str, check: "Check", edge: "Effect", unit: LengthUnit) -> str:
    """``Decalage ±0.5°: 0.8° of elevator, 0.5 mm.``."""
    limit = (
        format_length(check.tolerance, unit)
        if check.unit == "mm"
        else format_angle(check.tolerance, 1)
    )
    done = edge_sentence(edge, unit).removeprefix("At the edge of what is allowed: ")
    if abs(edge.first) < FELT / 2:
        done = "not to be felt."
    return f"{name} ±{limit}: {done}"


def keep_edit(decalage: float) -> str:
    """The step's name for undo."""
    return f"build to {format_angle(decalage, 1)} of decalage"


def figure_edit(key: str) -> str:
    """The step's name for undo."""
    return f"set {FIGURES.get(key, key)}"


def section_edit(name: str) -> str:
    """The step's name for undo."""
    return f"wing section {own_section_words(name)}" if name else "no wing section"
