"""When nothing is next: all that is open lies at the edge, or another tool would see more."""

from collections.abc import Sequence
from typing import Final, Literal

from hardkeel.survey.adjusting import Solution
from hardkeel.survey.candidates import available_in, candidate_pool
from hardkeel.survey.checking import Check, CheckRule
from hardkeel.survey.model import Instrument, InstrumentKind
from hardkeel.survey.network import Network
from hardkeel.survey.proposing import EVERY_TOOL, candidates_of, tools_of
from hardkeel.survey.ranking import rank, undecided
from hardkeel.survey.readings import Reading

Why = Literal[InstrumentKind, "edge", "none", ""]

# the eye is at hand already, and where it would do it is no finer than what stands on the bench
_ALL: Final = (
    *EVERY_TOOL,
    Instrument(id="square", kind="square"),
    Instrument(id="stands", kind="stand-pair"),
    Instrument(id="digital", kind="digital-level"),
    Instrument(id="water", kind="water-level"),
    Instrument(id="trammel", kind="trammel"),
)


def why_nothing(
    net: Network,
    solution: Solution,
    taken: Sequence[Reading],
    rules: Sequence[CheckRule],
    checks: Sequence[Check],
) -> Why:
    """Why no reading is next: ``edge``, the tool that would sharpen the first open check most, or ``none``.

    Empty where every check is decided.
    """
    open_ = undecided(checks)
    if not open_:
        return "edge" if any(check.edge for check in checks) else ""
    rule = next(one for one in rules if one.id == open_[0].id)
    had = {tool.kind for tool in tools_of(net.survey)}
    best: Why = "none"
    least = open_[0].sigma
    for tool in _ALL:
        if tool.kind in had:
            continue
        pool = candidate_pool(net, candidates_of(net.survey.but(instruments=(tool,))))
        for one in rank(available_in(pool, solution, taken), solution, rule, 1):
            if one.sigma_after < least:
                best, least = tool.kind, one.sigma_after
    return best
