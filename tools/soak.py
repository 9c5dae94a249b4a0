"""Run the properties with new examples and the studies with their long draws: ``python tools/soak.py MINUTES``.

`make test` takes the same few examples each time.  Here the studies are drawn long once (``HARDKEEL_DRAWS``), then
Hypothesis draws at random, round after round; what it finds is printed with the line that makes an ``@example``.
"""

import os
import subprocess
import sys
import time
from pathlib import Path


def main(minutes: float) -> int:
    """Go round until the time is over or something is found; the exit code."""
    end, rounds = time.monotonic() + minutes * 60, 0
    told = _run(
        _files("draws("), {"HARDKEEL_DRAWS": "long", "HARDKEEL_FINGERS": "900"}, "--timeout=900"
    )
    if told is None:
        return 1
    print(f"long draws: {told}", flush=True)
    while time.monotonic() < end:
        rounds += 1
        found = _run(_files("@given"), {"HARDKEEL_HYPOTHESIS": "soak"}, "-m", "property")
        if found is None:
            print(f"found in round {rounds}")
            return 1
        print(f"round {rounds}: {found}", flush=True)
    print(f"nothing found in {rounds} rounds")
    return 0


def _files(word: str) -> list[str]:
    return sorted(str(one) for one in Path("tests").rglob("test_*.py") if word in one.read_text())


def _run(files: list[str], environment: dict[str, str], *more: str) -> str | None:
    """The last line of a run; ``None`` where something was found, which is printed."""
    done = subprocess.run(
        [sys.executable, "-m", "pytest", "-q", "-n", "auto", *more, *files],
        env={**os.environ, **environment},
        capture_output=True,
        text=True,
        check=False,
    )
    if done.returncode:
        print(done.stdout + done.stderr)
        return None
    return done.stdout.strip().splitlines()[-1]


if __name__ == "__main__":
    sys.exit(main(float(sys.argv[1] if sys.argv[1:] else 20)))
