"""What a truing record says of the work that is left: how much, and the evenings it is planned on."""

from datetime import datetime
from typing import Final

from hardkeel.airframe.orders.at_hand import steps_at_hand
from hardkeel.base.errors import BadInput
from hardkeel.export.stationery import Flowable, KeepTogether, Paragraph, Styles, safe
from hardkeel.messages.diary import to_go_words
from hardkeel.messages.plan import LEFT_TO_DO, day_words, finish_words, planned_line
from hardkeel.project.model import Build
from hardkeel.schedule.evenings import upcoming
from hardkeel.schedule.model import local_time
from hardkeel.schedule.pace import to_go
from hardkeel.schedule.planning import EveningPlan, list_evenings
from hardkeel.schedule.timers import underway

_EVENINGS: Final = 6


def plan_story(build: Build, styles: Styles) -> list[Flowable]:
    """A heading, how much is left, and its evenings; nothing where no steps were laid out or all are done."""
    if not build.steps:
        return []
    try:
        steps = steps_at_hand(build)
    except BadInput:
        return []
    left = to_go_words(to_go(steps))
    if not left:
        return []
    plan = _plan(build)
    told = f"{finish_words(plan)} {left}" if plan is not None else left
    lines = [Paragraph(safe(told), styles.text)]
    for evening in sorted({one.evening for one in plan.steps})[:_EVENINGS] if plan else ():
        tonight = [one for one in plan.steps if one.evening == evening] if plan else []
        lines.append(Paragraph(safe(day_words(tonight[0].start)), styles.answer))
        lines += [Paragraph(safe(planned_line(one)), styles.text) for one in tonight]
    heading = Paragraph(LEFT_TO_DO, styles.heading)
    return [KeepTogether([heading, *lines[:2]]), *lines[2:]]


def _plan(build: Build) -> EveningPlan | None:
    """The list over the evenings that come after what was last written down: the paper knows no other clock."""
    bench = build.bench
    if bench is None or not bench.evenings:
        return None
    written = [one.at for one in build.log]
    last = max((local_time(at) for at in written), default=datetime.min)  # noqa: DTZ901  local
    try:
        steps = underway(steps_at_hand(build), bench.timers)
        return list_evenings(steps, bench.but(evenings=tuple(upcoming(bench, last))))
    except BadInput:
        return None
