"""``hardkeel steps``: the order of work of all stages, laid anew from the build."""

import argparse
from typing import Any

from hardkeel.airframe.orders.craft import cautions_of, tools_of
from hardkeel.airframe.orders.whole import lay_anew
from hardkeel.cli.options import as_text
from hardkeel.messages import order as say
from hardkeel.messages.steps import because_of, hold_of, step_title, then_of
from hardkeel.schedule.model import Step
from hardkeel.storage.package import Loaded

Json = dict[str, Any]


def run(loaded: Loaded, parsed: argparse.Namespace) -> str:
    """Every step, in an order that can be worked."""
    steps = lay_anew(loaded.build)
    if parsed.json:
        return as_text({"steps": [step_json(step) for step in steps]})
    return steps_table(steps)


def step_json(step: Step) -> Json:
    """The contract's keys, in words where the file keeps a key."""
    found = step.model_dump(mode="json", exclude_none=True)
    return {
        **found,
        "title": step_title(step),
        "hold": hold_of(step),
        "because": because_of(step),
        "then": then_of(step),
        "hazards": list(cautions_of(step)),
        "tools": list(tools_of(step)),
    }


def steps_table(steps: tuple[Step, ...]) -> str:
    """The same for reading, what is to be seen first and what the hands beware of under each."""
    if not steps:
        return f"{say.NOTHING_TO_LAY}\n"
    lines = []
    for step in steps:
        mark = {"done": "x", "doing": ">", "open": " "}[step.state]
        times = say.times_words(step)
        lines.append(f"[{mark}] {step_title(step)}{f' ({times})' if times else ''}")
        told = (
            hold_of(step),
            because_of(step),
            say.then_words(step),
            say.wait_words(step),
            say.hazard_words(step),
        )
        lines += [f"      {words}" for words in told if words]
    return "\n".join(lines) + "\n"
