"""Spoil files of all demos at random and let every command read them: ``python tools/spoil.py COUNT [SEED]``.

Each must end with 0 or 2 and a sentence, within five seconds and 500 MB.  What does not is kept and printed.
"""

import contextlib
import io
import json
import os
import random
import resource
import signal
import sys
import tempfile
import time
from collections import Counter
from copy import deepcopy
from datetime import UTC, datetime
from pathlib import Path
from typing import TYPE_CHECKING, Any

import numpy as np

from hardkeel.airframe.orders.at_hand import steps_at_hand
from hardkeel.cli.commands import COMMANDS, run_command
from hardkeel.demo.fleet import DEMOS
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.bench import start_timer
from hardkeel.edits.glue import break_coupon, new_batch
from hardkeel.edits.paper import add_plan
from hardkeel.edits.sight import add_photo, take_sighting
from hardkeel.edits.steps import lay_all
from hardkeel.paper.model import KnownLength, Plan, Trace
from hardkeel.practice.hidden import hidden_from
from hardkeel.practice.photographing import SIZE, camera_for, seen_from
from hardkeel.project.model import Build
from hardkeel.storage.format import text_of

if TYPE_CHECKING:
    from collections.abc import Callable

_SECONDS, _MEGABYTES = 5, 500
_NOW = datetime(2026, 10, 6, 19, 0, tzinfo=UTC)
_WRONG: tuple[Any, ...] = (
    None, True, "", "x", " ", 0, -1, 1, 1e-300, 1e300, -1e9, 1e9, 3.5, [], {}, [1], [[1, 2]], {"a": 1},
    "nan", float("inf"), "F4", "fuselage", "2026-13-45", "../../x", "stab", 10**400, "é" * 400,
)  # fmt: skip


def full(build: Build) -> Build:
    """A demo with photos, sightings, timers, coupons, plans and steps in it."""
    with contextlib.suppress(Exception):
        build = lay_all(build, steps_at_hand(build))
    build = start_timer(build, "own", "pot", 30.0, _NOW)
    build = new_batch(build, "slow epoxy", _NOW, 1.0, 20.0)
    shelf = build.glue
    if shelf is not None:
        build = break_coupon(build, shelf.batches[-1].id, "wood", _NOW)
    plan = Plan(
        id="p", image="plans/p.png",
        known=(KnownLength(a=(0, 0), b=(100, 0), length=50.0),),
        traces=(Trace(id="t", kind="stations", pixels=((1.0, 2.0), (30.0, 2.0))),),
    )  # fmt: skip
    build = add_plan(build, plan)
    if build.hidden and build.survey is not None:
        hidden = hidden_from(build.surveyed, build.hidden)
        camera = camera_for(hidden, "behind", np.random.default_rng(0))
        build = add_photo(build, "photos/p1.jpg", SIZE, None, _NOW)
        for mark, at in list(seen_from(hidden, build.fuselage, camera).items())[:8]:
            u, v = (float(one) for one in camera.project(at[None], SIZE)[0])
            build = take_sighting(build, build.surveyed.photos[-1].id, mark, (u, v), _NOW)
    return build


def places(data: Any, way: tuple[Any, ...] = ()) -> list[tuple[Any, ...]]:
    """Every place of a file."""
    found = [way] if way else []
    items = (
        data.items()
        if isinstance(data, dict)
        else enumerate(data)
        if isinstance(data, list)
        else ()
    )
    for key, value in items:
        found += places(value, (*way, key))
    return found


def spoilt(text: str, rng: random.Random) -> str:
    """A text with one to three things wrong."""
    if rng.random() < 0.15:  # as text
        at, kind = rng.randrange(len(text)), rng.randrange(3)
        if kind == 0:
            return text[:at]
        if kind == 1:
            return text[:at] + rng.choice('{}[]",:\\\x00é9') + text[at + 1 :]
        return text[:at] + text[rng.randrange(len(text)) :]
    data = json.loads(text)
    for _ in range(rng.randint(1, 3)):
        *way, last = rng.choice(places(data))
        held = data
        with contextlib.suppress(KeyError, IndexError, TypeError):
            for step in way:
                held = held[step]
            old, kind = held[last], rng.randrange(5)
            if kind == 0:
                del held[last]
            elif kind == 1 and isinstance(held, list):
                held.insert(rng.randrange(len(held) + 1), old)
            elif kind == 2 and isinstance(old, int | float) and not isinstance(old, bool):
                held[last] = old * rng.choice([-1, 0, 1e-9, 10, 25.4, 1e3, 1e6])
            elif kind == 3:
                *other_way, other = rng.choice(places(data))
                source = data
                for step in other_way:
                    source = source[step]
                held[last] = deepcopy(source[other])  # a tree holds nothing twice, and not itself
            else:
                held[last] = deepcopy(rng.choice(_WRONG))
    return json.dumps(data)


def tried(command: list[str]) -> str:
    """What went wrong with a command in a process of its own; empty for nothing."""
    reader, writer = os.pipe()
    began = time.monotonic()
    child = os.fork()
    if not child:
        os.close(reader)
        resource.setrlimit(resource.RLIMIT_CPU, (4 * _SECONDS, 4 * _SECONDS))
        out, err = io.StringIO(), io.StringIO()
        code: object = "no code"
        with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
            try:
                code = run_command(command)
            except SystemExit as end:
                code = end.code
            except BaseException as fault:
                code = f"{type(fault).__name__}: {fault}"
        peak = resource.getrusage(resource.RUSAGE_SELF)
        told = [
            code,
            len(err.getvalue().splitlines()),
            peak.ru_maxrss // 1024,
            peak.ru_utime + peak.ru_stime,
        ]
        os.write(writer, json.dumps(told, default=str).encode()[:4000])
        os._exit(0)
    os.close(writer)
    data = b""
    while chunk := os.read(reader, 4096):
        data += chunk
    os.close(reader)
    _, status = os.waitpid(child, 0)
    if not data:
        return (
            f"died ({signal.strsignal(os.WTERMSIG(status)) if os.WIFSIGNALED(status) else status})"
        )
    code, lines, megabytes, seconds = json.loads(data)
    if code not in (0, 2):
        return f"ended with {code}"
    if code == 2 and lines != 1:
        return f"{lines} lines on stderr"
    if megabytes > _MEGABYTES:
        return f"{megabytes} MB"
    if seconds > _SECONDS:
        return f"{seconds:.1f} s of reckoning, {time.monotonic() - began:.1f} s"
    return ""


def main(count: int, seed: int = 0) -> int:
    """Spoil and try; the exit code."""
    rng = random.Random(seed)
    makers: list[Callable[[], Build]] = [demo_build, *(demo.make for demo in DEMOS)]
    texts = [text_of(full(make())) for make in makers]
    commands = [name for name in COMMANDS if name != "export"]
    with tempfile.TemporaryDirectory() as folder:
        for name in commands:  # what is read late is read once, in the parent
            path = Path(folder) / "whole.json"
            path.write_text(texts[0])
            with (
                contextlib.redirect_stdout(io.StringIO()),
                contextlib.redirect_stderr(io.StringIO()),
            ):
                run_command(
                    [name, str(path), "--json", *(["--limit", "1"] if name == "plan" else [])]
                )
        found: Counter[str] = Counter()
        for number in range(count):
            text = spoilt(rng.choice(texts), rng)
            path = Path(folder) / f"{number}.json"
            path.write_text(text, encoding="utf-8", errors="surrogatepass")
            name = commands[number % len(commands)]
            more = ["--limit", "1"] if name == "plan" else []
            wrong = tried([name, str(path), *(["--json"] if rng.random() < 0.5 else []), *more])
            if wrong:
                kept = Path(tempfile.gettempdir()) / f"spoilt-{seed}-{number}.json"
                kept.write_bytes(path.read_bytes())
                print(f"{name} {kept}: {wrong}", flush=True)
                found[wrong[:40]] += 1
            path.unlink()
    print(f"{count} files, {sum(found.values())} found")
    return 1 if found else 0


if __name__ == "__main__":
    sys.exit(
        main(int(sys.argv[1] if sys.argv[1:] else 5000), int(sys.argv[2]) if sys.argv[2:] else 0)
    )
