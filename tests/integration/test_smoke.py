"""The program as a user starts it: in a real X server, killed, and started again."""

import os
import shutil
import signal
import subprocess
import sys
from pathlib import Path

import pytest

from hardkeel.storage.journal import orphans

pytestmark = [pytest.mark.slow, pytest.mark.timeout(120)]

DRIVE = """
import sys
from PyQt6.QtCore import QTimer
from PyQt6.QtGui import QGuiApplication
from hardkeel.edits.ledger import set_balance
from hardkeel.ui import app

def work(window):
    # something that would be lost: an untouched demo can be had again
    if sys.argv[1] == "stay":
        window.document.apply("weigh", set_balance.of(target_percent=31.0))
    QTimer.singleShot(500, lambda: look(window))

def look(window):
    print(QGuiApplication.platformName(), window.document.build.name, window.notice.text, flush=True)
    if sys.argv[1] == "stop":
        window.document.stack.setClean()
        window.close()

install = app.install_fault_hook

def install_and_look(window):
    install(window)
    QTimer.singleShot(1500, lambda: work(window))

app.install_fault_hook = install_and_look
sys.exit(app.run_window(sys.argv[2] if len(sys.argv) > 2 else None))
"""


@pytest.mark.skipif(shutil.which("xvfb-run") is None, reason="needs xvfb")
def test_the_window_opens_on_a_real_display_survives_a_kill_and_offers_the_work(
    tmp_path: Path,
) -> None:
    environment = {
        **os.environ,
        "QT_QPA_PLATFORM": "xcb",
        "XDG_STATE_HOME": str(tmp_path),
        "XDG_CONFIG_HOME": str(tmp_path),
    }
    command = ["xvfb-run", "-a", "-s", "-screen 0 1280x800x24", sys.executable, "-c", DRIVE]

    first = subprocess.Popen(
        [*command, "stay", "demo"],
        env=environment,
        stdout=subprocess.PIPE,
        text=True,
        start_new_session=True,
    )
    try:
        assert first.stdout is not None
        assert first.stdout.readline().startswith("xcb Kettlewick 1280")
    finally:
        os.killpg(first.pid, signal.SIGKILL)
        first.communicate()
    left = orphans(tmp_path / "hardkeel")
    assert [rescued.build.name for rescued in left] == ["Kettlewick 1280"]

    second = subprocess.run(
        [*command, "stop"], env=environment, capture_output=True, text=True, timeout=60, check=False
    )
    assert second.returncode == 0, second.stderr
    assert "Kettlewick 1280 had changes" in second.stdout


@pytest.mark.parametrize(
    ("display", "told"),
    [(None, "there is no display"), (":917", "the display :917 does not answer")],
)
def test_without_a_display_one_line_says_so(tmp_path: Path, display: str | None, told: str) -> None:
    environment = {
        key: value
        for key, value in os.environ.items()
        if key not in ("DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM")
    }
    environment |= {"DISPLAY": display} if display else {}
    environment |= {"XDG_STATE_HOME": str(tmp_path), "XDG_CONFIG_HOME": str(tmp_path)}
    done = subprocess.run(
        [sys.executable, "-m", "hardkeel", "demo"],
        env=environment, capture_output=True, text=True, timeout=60, check=False,
    )  # fmt: skip
    assert (done.returncode, done.stdout) == (1, "")
    assert done.stderr.count("\n") == 1
    assert told in done.stderr
