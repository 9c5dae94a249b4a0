"""Kill the window at random moments and look what is left: ``python tools/kill.py COUNT [SEED]``.

A child edits without end and says each edit that has been answered; it is killed (-9) at a random moment.  What is
offered afterwards must be sound and hold every edit but those that were being written at that moment.
"""

import os
import random
import signal
import subprocess
import sys
import tempfile
import time
from pathlib import Path

from hardkeel.project.soundness import check_build
from hardkeel.storage.journal import orphans

_CHILD = """
import os, sys
os.environ["QT_QPA_PLATFORM"] = "offscreen"
os.environ["OPENBLAS_NUM_THREADS"] = "1"
from datetime import UTC, datetime
from pathlib import Path
from PyQt6.QtCore import QSettings, QTimer
from PyQt6.QtWidgets import QApplication
from hardkeel.demo.shipped import shipped_build
from hardkeel.edits.truing import rename
from hardkeel.edits.fuselage import set_station
from hardkeel.ui.settings import Settings
from hardkeel.ui.shell.window import MainWindow
app = QApplication(["kill"])
state = Path(sys.argv[1])
window = MainWindow(Settings(QSettings(str(state / "s.ini"), QSettings.Format.IniFormat)), state, lambda: datetime.now(UTC))
window.show()
window.start(shipped_build())
count = 0
def edit():
    global count
    count += 1
    window.document.apply("rename", rename.of(f"edit {count}"))
    if count % 3 == 0:
        window.document.apply("lift", set_station.of("F4", top=40.0 + count % 7))
    if count % 5 == 0:
        window.save_to(state / "model.keel")
    QTimer.singleShot(0, lambda number=count: QTimer.singleShot(0, lambda: told(number)))
def told(number):
    print(number, flush=True)
timer = QTimer()
timer.timeout.connect(edit)
timer.start(25)
print("going", flush=True)
app.exec()
"""


def main(count: int, seed: int = 0) -> int:
    """Kill so many; the exit code."""
    rng, lost, behind = random.Random(seed), 0, 0
    for number in range(count):
        with tempfile.TemporaryDirectory() as folder:
            child = subprocess.Popen(
                [sys.executable, "-c", _CHILD, folder], stdout=subprocess.PIPE, text=True
            )
            assert child.stdout is not None
            child.stdout.readline()
            time.sleep(rng.uniform(0.0, 0.6))
            os.kill(child.pid, signal.SIGKILL)
            told = [int(line) for line in child.stdout.read().split() if line.isdigit()]
            child.wait()
            sure = told[-1] if told else 0
            left = [one for one in orphans(Path(folder)) if one.build.name.startswith("edit")]
            names = [int(one.build.name.split()[1]) for one in left]
            for one in left:
                check_build(one.build)
            saved = Path(folder) / "model.keel"
            if saved.exists():  # what was saved and not edited since needs no journal
                from hardkeel.storage.package import load  # noqa: PLC0415  only where there is one

                kept = load(saved).build
                check_build(kept)
                names.append(int(kept.name.split()[1]) if kept.name.startswith("edit") else 0)
            best = max(names, default=0)
            if best < sure:
                behind += 1
                if sure - best > 1:
                    lost += 1
                    print(f"{number}: edit {sure} was answered, {best} is left", flush=True)
    print(f"{count} killed: {lost} lost more than what was being written, {behind} the last edit")
    return 1 if lost else 0


if __name__ == "__main__":
    sys.exit(
        main(int(sys.argv[1] if sys.argv[1:] else 300), int(sys.argv[2]) if sys.argv[2:] else 0)
    )
