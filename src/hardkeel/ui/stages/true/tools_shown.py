"""What the rows of tools show, from the survey's figures."""

import math

from hardkeel.airframe.figures import TOOL_CHOICES
from hardkeel.base.units import LengthUnit
from hardkeel.messages import tools as say
from hardkeel.messages.sharing import PRIORS, prior_text
from hardkeel.survey.instruments import (
    DIGITAL_STEP,
    EYE_AWAY_MM,
    TYPICAL_MM,
    USED_FOR,
    Learned,
    ZeroError,
    shown_sigma,
    shows_degrees,
    typical_sigma,
)
from hardkeel.survey.model import Instrument, Survey
from hardkeel.survey.proposing import tools_of
from hardkeel.survey.readings import ANGULAR
from hardkeel.ui.stages.true.tool_rows import ToolShown


def all_tools(survey: Survey) -> tuple[Instrument, ...]:
    """The builder's own in the order in which they are usually named, and of the rest one of each kind."""
    own = tools_of(survey)
    order = {tool.kind: i for i, tool in enumerate(TOOL_CHOICES)}
    had, taken = {tool.kind for tool in own}, {tool.id for tool in own}
    rest = [
        tool if tool.id not in taken else tool.but(id=f"{tool.id} 2")
        for tool in TOOL_CHOICES
        if tool.kind not in had
    ]
    return tuple(sorted((*own, *rest), key=lambda tool: order[tool.kind]))


def tool_shown(
    tool: Instrument,
    *,
    had: bool,
    learned: Learned | None,
    zero: ZeroError | None,
    unit: LengthUnit,
) -> ToolShown:
    """One tool's row."""
    typical = typical_sigma(tool)
    angular = USED_FOR[tool.kind] in ANGULAR
    lines, action = [], ""
    if learned is not None:
        lines.append(say.learned_words(learned, unit))
        action = say.COUNT_SO if learned.differs else ""
    if zero is not None:
        lines.append(say.zero_words(zero))
        action = say.TAKE_OFF if zero.sure else action
    more = None
    if tool.kind == "eye":
        more = (say.FROM, tool.distance or EYE_AWAY_MM, False)
    elif tool.kind == "digital-level":
        more = (say.STEP, tool.resolution or DIGITAL_STEP, True)
    return ToolShown(
        id=tool.id,
        name=say.tool_words(tool),
        had=had,
        sigma=shown_sigma(tool),
        angular=shows_degrees(tool),
        in_wood=TYPICAL_MM * math.sin(math.radians(typical)) if angular else typical,
        more=more,
        told="\n".join(lines),
        action=action,
    )


def priors_shown(survey: Survey) -> dict[str, float] | None:
    """How much readings may share, as it is shown; ``None`` where nothing is supposed."""
    shared = survey.shared
    if shared is None:
        return None
    return {key: prior_text(shared, key) for key, *_ in PRIORS}
