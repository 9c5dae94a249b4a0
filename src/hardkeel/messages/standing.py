"""How far each stage is, in a word or two, for the rail."""

from hardkeel.base.units import decimal
from hardkeel.logbook.entries import total_hours, with_timed
from hardkeel.messages.counting import number_of
from hardkeel.messages.practising import TRY_ONE, how_far
from hardkeel.practice import standing
from hardkeel.project.model import Build
from hardkeel.survey.judging import Judgement


def how_far_laid_out(build: Build, _judgement: Judgement) -> str:
    """How many stations the fuselage has."""
    stations = build.fuselage.stations if build.fuselage is not None else ()
    return f"{len(stations)} stations" if stations else "nothing yet"


def how_far_framed(build: Build, _judgement: Judgement) -> str:
    """How many sticks are cut, or before that how many members are drawn."""
    cut = sum(one.pieces for one in build.listed.cut.values())
    if cut:
        return f"{cut} cut"
    members = len(build.fuselage.framed.members) if build.fuselage is not None else 0
    return number_of(members, "member") if members else "nothing yet"


def how_far_tailed(build: Build, _judgement: Judgement) -> str:
    """How many surfaces say how they are built."""
    if not build.tail:
        return "nothing yet"
    said = sum(surface.kind is not None for surface in build.tail)
    return f"{said} of {len(build.tail)} drawn" if said else number_of(len(build.tail), "surface")


def how_far_trued(_build: Build, judgement: Judgement) -> str:
    """How many checks are out, and how many open."""
    if not judgement.checks:
        return "nothing yet"
    out = sum(check.verdict == "out" for check in judgement.checks)
    unsure = sum(check.verdict == "unsure" for check in judgement.checks)
    return f"{out} out, {unsure} open" if out + unsure else "all true"


def how_far_planned(build: Build, _judgement: Judgement) -> str:
    """How many steps are done; nothing where none was laid."""
    done = sum(step.state == "done" for step in build.steps)
    return f"{done} of {number_of(len(build.steps), 'step')}" if build.steps else "tonight"


def how_far_logged(build: Build, _judgement: Judgement) -> str:
    """The hours at the bench, or before there are any, how many entries."""
    hours = total_hours(with_timed(build.sessions, build.log))
    return f"{decimal(hours, 1)} h" if hours else number_of(len(build.log), "entry", "entries")


def how_far_printed(build: Build, _judgement: Judgement) -> str:
    """How many sheets were printed."""
    return f"{len(build.prints)} printed" if build.prints else "nothing yet"


def how_far_practised(build: Build, judgement: Judgement) -> str:
    """The minutes of the exercise on the bench, or how it went."""
    if build.practice is None:
        return TRY_ONE
    return how_far(
        build.practice, standing.minutes_spent(build), standing.right_in(build, judgement)
    )
