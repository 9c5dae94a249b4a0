"""A newcomer adds a stage by one package and one line in `STAGES`; tried on a copy of the house."""

import os
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[2]
PACKAGE = '''"""Spare: a stage with nothing on it yet."""

from hardkeel.ui.tabbed.stage_page import StagePage
from hardkeel.ui.stages import StageContext


def make(context: StageContext) -> StagePage:
    """An empty page."""
    return StagePage()
'''
LINE = '    Stage("spare", "Spare", "hardkeel.ui.stages.spare", lambda _build, _judged: "nothing yet"),\n'
LOOK = """
import os
import sys
from pathlib import Path
from PyQt6.QtCore import QSettings
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QLabel, QPushButton
import hardkeel
from hardkeel.demo.kettlewick import demo_build
from hardkeel.ui.app import now
from hardkeel.ui.settings import Settings
from hardkeel.ui.shell.window import MainWindow
from hardkeel.ui.stages import STAGES

home = Path(sys.argv[1])
assert Path(hardkeel.__file__).is_relative_to(home), "not the copy"
app = QApplication([])
settings = Settings(QSettings(str(home / "settings.ini"), QSettings.Format.IniFormat))
window = MainWindow(settings, home / "state", now)
window.show()
window.start(demo_build())
button = next(b for b in window.rail.findChildren(QPushButton) if b.text() == "Spare")
assert button.shortcut().toString() == f"Ctrl+{len(STAGES)}"
button.click()
assert window.stage == "spare" and window.pages["spare"].isVisible()
assert any(l.text() == "nothing yet" for l in window.rail.findChildren(QLabel))
window.header.unit_button.click()
window.restyle()
window.document.stack.setClean()
window.close()
# PyQt ends a process that still has its widgets badly now and then; the program itself lets its window go first
os._exit(0)
"""


@pytest.mark.slow
@pytest.mark.timeout(150)  # three processes
def test_an_empty_stage_is_one_package_and_one_line(tmp_path: Path) -> None:
    shutil.copytree(
        ROOT / "src", tmp_path / "src", ignore=shutil.ignore_patterns("__pycache__", "*.egg-info")
    )
    shutil.copy(ROOT / "pyproject.toml", tmp_path)
    stages = tmp_path / "src/hardkeel/ui/stages"
    (stages / "spare").mkdir()
    (stages / "spare/__init__.py").write_text(PACKAGE)
    register = (stages / "__init__.py").read_text()
    *_, last = (
        line for line in register.splitlines(keepends=True) if line.startswith("    Stage(")
    )
    (stages / "__init__.py").write_text(register.replace(last, last + LINE))

    environment = os.environ | {
        "PYTHONPATH": str(tmp_path / "src"),
        "QT_QPA_PLATFORM": "offscreen",
        "PYTHONDONTWRITEBYTECODE": "1",
    }
    looked = subprocess.run(
        [sys.executable, "-c", LOOK, str(tmp_path)],
        check=False, env=environment, capture_output=True, text=True, timeout=50,
    )  # fmt: skip
    assert looked.returncode == 0, looked.stderr

    nosy = PACKAGE.replace(
        "\n\ndef make", "\nfrom hardkeel.ui.stages.log.page import LogPage  # noqa\n\n\ndef make", 1
    )
    assert layers_hold(tmp_path, environment)
    (stages / "spare/__init__.py").write_text(nosy)
    assert not layers_hold(tmp_path, environment), "one stage may know another"


def layers_hold(folder: Path, environment: dict[str, str]) -> bool:
    lint = shutil.which("lint-imports", path=str(Path(sys.executable).parent))
    if lint is None:
        pytest.fail("import-linter is not installed")
    done = subprocess.run(
        [lint, "--no-cache"],
        check=False,
        cwd=folder,
        env=environment,
        capture_output=True,
        text=True,
        timeout=50,
    )
    assert "Contracts:" in done.stdout, done.stdout + done.stderr
    return done.returncode == 0
