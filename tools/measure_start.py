"""How long from the command to the first painted page, and how much memory: printed by ``make bench``."""

import os
import shutil
import statistics
import subprocess
import sys
import tempfile
import time

CHILD = """
import gc, os, sys, time
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")  # as __main__ does
gc.disable()
from PyQt6.QtCore import QEvent, QObject, QTimer
from hardkeel.ui import app

install = app.install_fault_hook

class Watch(QObject):
    def eventFilter(self, thing, event):
        if event.type() == QEvent.Type.Paint:
            thing.removeEventFilter(self)
            QTimer.singleShot(0, self.tell)
        return False

    def tell(self):
        took = time.time() - float(sys.argv[1])
        with open("/proc/self/status") as status:
            rss = next(line for line in status if line.startswith("VmRSS")).split()[1]
        print(f"{took:.3f} {int(rss) / 1024:.0f}", flush=True)
        window.document.stack.setClean()
        window.close()

def hook(made):
    global window, watch
    install(made)
    window, watch = made, Watch()
    made.pages['true'].rigging.drawing.installEventFilter(watch)

app.install_fault_hook = hook
sys.exit(app.run_window("demo"))
"""


_LONGEST_S = 60  # a start that takes longer is stuck: better told than waited for


def main(rounds: int = 5) -> None:
    """Start the demo a few times; the first round warms the disk cache and is not counted."""
    display = ["xvfb-run", "-a", "-s", "-screen 0 1280x800x24"] if shutil.which("xvfb-run") else []
    figures: list[tuple[float, float]] = []
    with tempfile.TemporaryDirectory() as home:
        environment = {**os.environ, "XDG_STATE_HOME": home, "XDG_CONFIG_HOME": home}
        environment["QT_QPA_PLATFORM"] = "xcb" if display else "offscreen"
        # a builder's machine keeps what it has compiled; without that every start compiles all anew
        environment.pop("PYTHONDONTWRITEBYTECODE", None)
        for _ in range(rounds + 1):
            # the X server is no part of us: its start is kept out by taking the time inside the shell
            script = [
                sys.executable,
                "-c",
                "import subprocess,sys,time;subprocess.run([sys.executable,'-c',sys.argv[1],str(time.time())],check=True)",
                CHILD,
            ]
            done = subprocess.run(
                [*display, *script],
                env=environment,
                capture_output=True,
                text=True,
                check=True,
                timeout=_LONGEST_S,
            )
            took, memory = done.stdout.split()
            figures.append((float(took), float(memory)))
            time.sleep(0.2)
    starts = [took for took, _ in figures[1:]]
    print(
        f"start to first painted page: median {statistics.median(starts):.2f} s, worst {max(starts):.2f} s of {rounds}"
    )
    print(f"resident memory then: {max(memory for _, memory in figures):.0f} MB")


if __name__ == "__main__":
    main()
