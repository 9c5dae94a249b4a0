"""What the bench shows, from the plan's figures."""

from collections.abc import Collection, Sequence
from datetime import datetime, timedelta
from typing import Final

from hardkeel.messages import bench as say
from hardkeel.messages.plan import minutes_words
from hardkeel.messages.steps import step_title
from hardkeel.schedule.model import BenchTime, local_time
from hardkeel.schedule.planning import EveningPlan, Planned
from hardkeel.schedule.tonight import Tonight
from hardkeel.ui.stages.bench.evening_view import EveningRow, RowState
from hardkeel.ui.stages.bench.weeks_strip import Strip, StripSpan


def evening_rows(tonight: Tonight, doing: Collection[str] = ()) -> tuple[EveningRow, ...]:
    """What lies, what is being done, and the steps that are still to come."""
    return (
        *(_row(one, "lies") for one in tonight.lying),
        *(_row(one, "doing" if one.step.id in doing else "") for one in tonight.steps),
    )


def _row(one: Planned, state: RowState) -> EveningRow:
    return EveningRow(
        one.step.id,
        step_title(one.step),
        say.lies_under(one) if state == "lies" else say.step_under(one),
        say.begun_word(one)
        if state == "doing"
        else minutes_words((one.end - one.start).total_seconds() / 60),
        one.start,
        one.end,
        bool(one.step.glue),
        state,
    )


def strip_of(
    plan: EveningPlan, tonight: tuple[datetime, datetime], bench: BenchTime, most: int
) -> Strip:
    """The evenings that the plan reaches, tonight first."""
    spans = {0: tonight}
    for one in plan.steps:
        spans.setdefault(one.evening, (one.start, one.end))
        start, end = spans[one.evening]
        if one.evening:
            spans[one.evening] = (min(start, one.start), max(end, one.end))
    for i, evening in enumerate(bench.evenings):
        if i in spans or i < max(spans):
            start = local_time(evening.start)
            spans[i] = (start, start + timedelta(minutes=evening.minutes))
    shown = sorted(spans.items())[:most]
    last = shown[-1][1][1] if shown else tonight[1]
    chain = critical_chain(plan.steps)
    hands = tuple(
        StripSpan(one.start, one.end, one.step.id in chain)
        for one in plan.steps
        if one.start <= last
    )
    glue = tuple(
        StripSpan(one.end, one.cure)
        for one in plan.steps
        if one.cure - one.end >= timedelta(hours=1) and one.start <= last
    )
    evenings = tuple(
        (start, end, f"{say.DAY_LETTERS[start.weekday()]} {start.day}") for _, (start, end) in shown
    )
    names = sorted({name for one in plan.steps for name in one.step.needs})[:_HELD]
    held = tuple(
        lane
        for name in names
        for lane in _lanes(
            name,
            [
                StripSpan(one.start, one.cure if one.step.holds_until == "cure" else one.handle)
                for one in plan.steps
                for _ in range(one.step.needs.count(name))
                if one.start <= last
            ],
        )
    )
    return Strip(evenings, hands, glue, held, say.weeks_title(plan))


def _lanes(name: str, spans: Sequence[StripSpan]) -> list[tuple[str, tuple[StripSpan, ...]]]:
    """One lane for each of a thing that is held at once: ``board 1``, ``board 2``."""
    lanes: list[list[StripSpan]] = []
    for span in sorted(spans, key=lambda one: one.start):
        free = next((lane for lane in lanes if lane[-1].end <= span.start), None)
        if free is None:
            lanes.append([span])
        else:
            free.append(span)
    several = len(lanes) > 1
    return [(f"{name} {i}" if several else name, tuple(lane)) for i, lane in enumerate(lanes, 1)]


_HELD: Final = 2


def critical_chain(steps: Sequence[Planned]) -> frozenset[str]:
    """The steps that the finish hangs on: from the last back, each time the one that was waited for to the last."""
    if not steps:
        return frozenset()
    by_id = {one.step.id: one for one in steps}
    at: Planned | None = max(steps, key=lambda one: one.end)
    chain: set[str] = set()
    while at is not None and at.step.id not in chain:
        chain.add(at.step.id)
        here = at
        waits = [by_id[name] for name in here.step.after if name in by_id]
        bound = [(one.cure if here.step.needs_cure else one.handle, one) for one in waits]
        at = max(bound, key=lambda pair: pair[0])[1] if bound else None
    return frozenset(chain)
