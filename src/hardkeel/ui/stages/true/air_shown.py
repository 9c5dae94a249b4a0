"""What the page *In the air* shows, as plain values made from the build and its judgement.  No widgets here."""

import math
from typing import Final

from hardkeel.airframe.flights import build_trim, craft_of
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit
from hardkeel.messages import air as say
from hardkeel.messages.names import check_name
from hardkeel.project.model import Build
from hardkeel.survey.judging import Judgement
from hardkeel.tail.lofting import section_named
from hardkeel.tail.own_sections import own_names
from hardkeel.trim.flying import Craft, Trim, effect_of
from hardkeel.trim.model import LIFT_COEFFICIENT
from hardkeel.trim.trading import decalage_for

_USUAL_BALANCE: Final = 0.3  # of the mean chord, where none is known yet
_PLAIN: Final = "2412"  # drawn where the wing has no section of its own


def craft_now(build: Build, judgement: Judgement) -> Craft:
    """What flies, with the decalage as it was read."""
    check = judgement.check("decalage")
    read = check is not None and judgement.measured and check.sigma <= check.tolerance
    return craft_of(build, check.value if check is not None and read else None)


def starting(craft: Craft) -> tuple[float, float, float] | None:
    """Balance, decalage that trims and lift as the build wants them; ``None`` where too little is known."""
    balance = craft.balance if craft.balance is not None else _USUAL_BALANCE
    lift = build_lift(craft)
    decalage = decalage_for(craft, balance, lift)
    return (balance, decalage, lift) if decalage is not None else None


def build_lift(craft: Craft) -> float:
    """The wanted lift coefficient."""
    return craft.flight.lift_coefficient or LIFT_COEFFICIENT


def standing(craft: Craft, judgement: Judgement) -> tuple[float, float, float] | None:
    """Balance, decalage and twice its sigma, as the model stands or is drawn."""
    if craft.balance is None or craft.decalage is None:
        return None
    check = judgement.check("decalage")
    read = check is not None and judgement.measured and check.sigma <= check.tolerance
    return craft.balance, craft.decalage, 2 * check.sigma if check is not None and read else 0.0


def section_outline(build: Build) -> tuple[tuple[float, float], ...]:
    """The wing's section, once round."""
    name = next((wing.profile for wing in build.wings if wing.profile), None)
    try:
        section = section_named(name or _PLAIN, build.profiles, "")
    except BadInput:
        section = section_named(_PLAIN, {}, "")
    rings = [*section.upper.tolist(), *section.lower[::-1].tolist()]
    return tuple((float(x), float(z)) for x, z in rings)


def section_names(build: Build) -> tuple[tuple[str, str], ...]:
    """Sections to choose from: none, those that come with the app, those of the build's own files."""
    own = [(name, say.own_section_words(name)) for name in own_names() if name != "plate"]
    given = [(name, name) for name in sorted(build.profiles)]
    return (("", say.NO_SECTION), *own, *given)


def allowed_lines(build: Build, judgement: Judgement, unit: LengthUnit) -> list[str]:
    """What each tolerance lets through, and so why it is what it is."""
    trim = build_trim(build)
    lines = []
    for check in judgement.checks:
        edge = effect_of(trim, check, check.tolerance, 0.0)
        if edge is not None:
            lines.append(say.allowed_line(check_name(build.surveyed, check), check, edge, unit))
    return lines or [say.NOT_KNOWN_YET]


def first_balance(trim: Trim, balance: float) -> float:
    """Where the drawing of balance points begins: at the wing's nose, or ahead of it where the neutral point lies there."""
    foremost = min(balance, trim.neutral_point if trim.neutral_point is not None else balance)
    return 0.0 if foremost >= 0 else math.floor((foremost - _AHEAD) * 10) / 10


_AHEAD: Final = 0.2  # of the chord to spare
