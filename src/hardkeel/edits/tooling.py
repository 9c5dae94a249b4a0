"""Pure edits of the builder's tools: which there are, and what each is counted as.

A reading keeps the sigma that it was taken with; only `count_as` changes that of readings already taken, because it
is their own scatter that says so.
"""

from collections.abc import Iterable

from hardkeel.base.errors import BadInput
from hardkeel.edits.named import edit
from hardkeel.edits.truing import with_survey
from hardkeel.project.model import Build
from hardkeel.survey.instruments import ZeroError
from hardkeel.survey.model import Instrument, Survey
from hardkeel.survey.priors import USUAL_SHARED, Shared, SquaredTo
from hardkeel.survey.proposing import counted_with, tools_of
from hardkeel.survey.readings import Sight, Tilt


@edit
def set_tools(build: Build, tools: Iterable[Instrument]) -> Build:
    """Say which tools the builder owns."""
    return with_survey(build, build.surveyed.but(instruments=tuple(tools)))


@edit
def set_shared(build: Build, key: str, value: float) -> Build:
    """Say how much of one kind readings may share, 1 sigma as the file keeps it; 0: nothing of it.

    Raises
    ------
    BadInput
        When it is negative or no figure.
    """
    shared = (build.surveyed.shared or Shared()).but(**{key: value})
    return with_survey(_squared_with(build, shared), build.surveyed.but(shared=shared))


@edit
def suppose_shared(build: Build, *, usual: bool) -> Build:
    """Suppose that readings share what is usual, or nothing at all."""
    shared = USUAL_SHARED if usual else None
    return with_survey(_squared_with(build, shared), build.surveyed.but(shared=shared))


def _squared_with(build: Build, shared: Shared | None) -> Build:
    """What is said of the airframe's readings goes for those of the frame on its board."""
    fuselage = build.fuselage
    if fuselage is None or fuselage.squaring is None:
        return build
    return build.but(fuselage=fuselage.but(squaring=fuselage.squaring.but(shared=shared)))


@edit
def set_squared_to(build: Build, to: SquaredTo) -> Build:
    """Say what stabilizer and fin are set square to where the tail bends."""
    return with_survey(build, build.surveyed.but(squared_to=to))


@edit
def change_tool(build: Build, tool: Instrument) -> Build:
    """Put a tool in the place of the one with its id, counted in another way: what is read from now on has it.

    Raises
    ------
    BadInput
        When the builder has none of that id.
    """
    return with_survey(build, _with_tool(build.surveyed, tool))


@edit
def count_as(build: Build, tool_id: str, sigma: float) -> Build:
    """Count a tool as its repeats tell, mm or degrees as it shows them, and so with all that was read with it.

    Raises
    ------
    BadInput
        When the builder has none of that id.
    """
    survey = build.surveyed
    tool = _tool(survey, tool_id).but(sigma=sigma)
    changed = _with_tool(survey, tool)
    readings = tuple(
        counted_with(survey, tool, one)
        if one.instrument == tool_id and not isinstance(one, Sight)
        else one
        for one in survey.readings
    )
    return with_survey(build, changed.but(readings=readings))


@edit
def take_off_zero(build: Build, zero: ZeroError) -> Build:
    """Take a level's own error off every tilt that was read with it.

    Incidences by gravity are left: on datum and panel it is in both, and falls out.
    """
    survey = build.surveyed
    readings = tuple(
        one.but(value=one.value - zero.error)
        if isinstance(one, Tilt) and one.instrument == zero.tool
        else one
        for one in survey.readings
    )
    return with_survey(build, survey.but(readings=readings))


def _tool(survey: Survey, tool_id: str) -> Instrument:
    found = next((tool for tool in tools_of(survey) if tool.id == tool_id), None)
    if found is None:
        raise BadInput("survey.instruments", f'no tool "{tool_id}"')
    return found


def _with_tool(survey: Survey, tool: Instrument) -> Survey:
    _tool(survey, tool.id)
    tools = tuple(tool if one.id == tool.id else one for one in tools_of(survey))
    return survey.but(instruments=tools)
