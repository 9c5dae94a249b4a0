"""Run the property tests with new examples, round after round: ``python tools/soak.py MINUTES``.

`make test` takes the same examples each time; here Hypothesis draws at random, and what it finds is
printed with the line that makes an ``@example`` of it.
"""

import os
import subprocess
import sys
import time
from pathlib import Path


def main(minutes: float) -> int:
    """Go round until the time is over or something is found; the exit code."""
    files = sorted(
        str(file) for file in Path("tests").rglob("test_*.py") if "@given" in file.read_text()
    )
    end, rounds = time.monotonic() + minutes * 60, 0
    environment = {**os.environ, "HARDKEEL_HYPOTHESIS": "soak"}
    while time.monotonic() < end:
        rounds += 1
        done = subprocess.run(
            [sys.executable, "-m", "pytest", "-q", "-n", "auto", "-m", "property", *files],
            env=environment,
            capture_output=True,
            text=True,
            check=False,
        )
        if done.returncode:
            print(done.stdout + done.stderr)
            print(f"found in round {rounds}")
            return 1
        print(f"round {rounds}: {done.stdout.strip().splitlines()[-1]}", flush=True)
    print(f"nothing found in {rounds} rounds")
    return 0


if __name__ == "__main__":
    sys.exit(main(float(sys.argv[1] if sys.argv[1:] else 20)))
