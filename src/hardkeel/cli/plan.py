"""``hardkeel plan``: the open steps over the builder's evenings."""

import argparse
from datetime import datetime
from typing import Any

from hardkeel.airframe.orders.whole import lay_anew
from hardkeel.base.errors import BadInput
from hardkeel.cli.options import as_text
from hardkeel.messages import plan as say
from hardkeel.messages.steps import step_title
from hardkeel.project.model import Build
from hardkeel.schedule.evenings import dated
from hardkeel.schedule.planning import LIMIT_S, EveningPlan, plan_evenings
from hardkeel.schedule.timers import underway
from hardkeel.storage.package import Loaded

Json = dict[str, Any]


def run(loaded: Loaded, parsed: argparse.Namespace) -> str:
    """When what is done."""
    plan = _plan(loaded.build, LIMIT_S if parsed.limit is None else parsed.limit)
    return as_text(plan_json(plan)) if parsed.json else plan_table(plan)


def _plan(build: Build, limit: float) -> EveningPlan:
    if not limit > 0:
        raise BadInput("--limit", "must be more than nothing")
    bench, steps = build.bench, build.steps or lay_anew(build)
    if bench is None:
        return plan_evenings(steps, None, limit)
    return plan_evenings(underway(steps, bench.timers), dated(bench), limit)


def plan_json(plan: EveningPlan) -> Json:
    """The contract's figures."""
    return {
        "steps": [
            {
                "id": one.step.id,
                "evening": one.evening,
                "start": _local(one.start),
                "end": _local(one.end),
                "handle": _local(one.handle),
                "cure": _local(one.cure),
            }
            for one in plan.steps
        ],
        "finish": _local(plan.finish) if plan.finish is not None else None,
        "evenings_used": plan.evenings_used,
        "more_evenings": plan.more_evenings,
        "proven": plan.proven,
        "impossible": [{"id": one.step.id, "why": say.why_words(one)} for one in plan.impossible],
    }


def _local(moment: datetime) -> str:
    return moment.isoformat(timespec="minutes")


def plan_table(plan: EveningPlan) -> str:
    """The same for reading."""
    lines = [say.finish_words(plan), say.proof_words(plan)]
    evening = -1
    for one in plan.steps:
        if one.evening != evening:
            evening = one.evening
            lines += ["", say.day_words(one.start)]
        lines.append(f"  {say.planned_line(one)}")
    if plan.impossible:
        lines += ["", say.CAN_NOT]
        lines += [f"  {step_title(one.step)}: {say.why_words(one)}" for one in plan.impossible]
    return "\n".join(line for line in lines) + "\n"
