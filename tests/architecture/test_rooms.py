"""The house's rules, enforced: no Qt below the interface, small modules, everything shipped."""

import ast
import subprocess
import sys
from pathlib import Path

import pytest

import hardkeel

SOURCE = Path(hardkeel.__file__).parent
MOST_LINES = 400
CORE = sorted(
    ".".join(("hardkeel", *path.relative_to(SOURCE).with_suffix("").parts)).removesuffix(
        ".__init__"
    )
    for path in SOURCE.rglob("*.py")
    if path.relative_to(SOURCE).parts[0] not in ("ui", "__main__.py")
)

BLOCKED = """
import importlib, sys
sys.modules["PyQt6"] = None
for name in sys.argv[1:]:
    importlib.import_module(name)
"""


def test_no_core_module_needs_qt() -> None:
    assert len(CORE) > 40
    done = subprocess.run(
        [sys.executable, "-c", BLOCKED, *CORE], capture_output=True, text=True, check=False
    )
    assert done.returncode == 0, done.stderr


def test_the_command_line_runs_where_there_is_no_qt(tmp_path: Path) -> None:
    code = (
        "import sys; sys.modules['PyQt6'] = None; sys.argv = ['hardkeel', 'true', sys.argv[1]];"
        "from hardkeel.__main__ import main; sys.exit(main())"
    )
    done = subprocess.run(
        [sys.executable, "-c", code, str(tmp_path / "none.keel")],
        capture_output=True,
        text=True,
        check=False,
    )
    assert done.returncode == 2
    assert done.stderr == "hardkeel: no file none.keel\n"


@pytest.mark.parametrize(
    "path", sorted(SOURCE.rglob("*.py")), ids=lambda p: str(p.relative_to(SOURCE))
)
def test_modules_stay_small_and_say_what_they_are(path: Path) -> None:
    text = path.read_text(encoding="utf-8")
    assert len(text.splitlines()) <= MOST_LINES
    assert ast.get_docstring(ast.parse(text))


def test_fonts_their_licence_and_the_style_sheet_are_shipped() -> None:
    resources = SOURCE / "resources"
    assert len(list((resources / "fonts").glob("*.ttf"))) == 6
    assert "SIL Open Font License" in (resources / "fonts" / "OFL.txt").read_text(encoding="utf-8")
    assert (resources / "style.qss").exists()


def test_help_and_version_need_nothing() -> None:
    for argument, words in (("--help", "hardkeel true FILE"), ("--version", hardkeel.__version__)):
        done = subprocess.run(
            [sys.executable, "-m", "hardkeel", argument],
            capture_output=True,
            text=True,
            check=False,
        )
        assert done.returncode == 0
        assert words in done.stdout


@pytest.mark.parametrize("arguments", [["--nonsense"], ["a", "b"], ["frame", "x.keel"]])
def test_what_is_not_understood_is_exit_2(arguments: list[str]) -> None:
    done = subprocess.run(
        [sys.executable, "-m", "hardkeel", *arguments], capture_output=True, text=True, check=False
    )
    assert (done.returncode, done.stdout, done.stderr.count("\n")) == (2, "", 1)


def test_heavy_libraries_are_not_loaded_before_they_are_needed() -> None:
    code = (
        "import sys; import hardkeel.ui.app;"
        "heavy = {'shapely', 'ezdxf', 'reportlab', 'PIL', 'scipy', 'PyQt6.QtPdf', 'hardkeel.demo.kettlewick'};"
        "print(sorted(heavy & set(sys.modules)))"
    )
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert done.stdout.strip() == "[]"
