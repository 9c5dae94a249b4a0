"""The set-up of a stranger's machine: what it looks for, and what it says where it may not."""

import importlib.util
from pathlib import Path
from types import ModuleType

import pytest
from elftools.elf.dynamic import DynamicSection
from elftools.elf.elffile import ELFFile

ROOT = Path(__file__).parents[2]
# the C library's own, without which no Python starts, and gcc's, on which apt itself rests
ALWAYS_THERE = {
    "ld-linux-x86-64.so.2", "ld-linux-aarch64.so.1", "libc.so.6", "libdl.so.2", "libgcc_s.so.1",
    "libm.so.6", "libpthread.so.0", "libresolv.so.2", "librt.so.1", "libstdc++.so.6",
}  # fmt: skip


@pytest.fixture
def setup(monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> ModuleType:
    """The script, in an empty clone, for a user without sudo on a machine that lacks two things."""
    spec = importlib.util.spec_from_file_location("setup_script", ROOT / "tools" / "setup.py")
    assert spec is not None
    assert spec.loader is not None
    module = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(module)
    monkeypatch.chdir(tmp_path)
    (tmp_path / "requirements").mkdir()
    (tmp_path / "requirements" / "run.lock").write_text("numpy==1.0 \\\n    --hash=sha256:0\n")
    monkeypatch.setattr(module, "loads", lambda library: library != "libxcb-cursor.so.0")
    monkeypatch.setattr(module, "as_root", lambda: None)
    monkeypatch.setattr(module, "can_make_rooms", lambda: False)
    return module


def needed_from_outside(start: list[Path], own: dict[str, Path]) -> set[str]:
    """The libraries that these need, and those of their own that they bring, by name."""
    outside: set[str] = set()
    seen: set[Path] = set()
    while start:
        file = start.pop()
        if file in seen:
            continue
        seen.add(file)
        with file.open("rb") as opened:
            for section in ELFFile(opened).iter_sections():
                if not isinstance(section, DynamicSection):
                    continue
                for tag in section.iter_tags("DT_NEEDED"):
                    name = str(getattr(tag, "needed"))  # noqa: B009  made up at run time
                    if name in own:
                        start.append(own[name])
                    else:
                        outside.add(name)
    return outside


def test_the_table_names_every_library_that_qt_needs(setup: ModuleType) -> None:
    found = importlib.util.find_spec("PyQt6")
    assert found is not None
    assert found.origin is not None
    qt = Path(found.origin).parent
    own = {file.name: file for file in [*qt.glob("*.so"), *(qt / "Qt6" / "lib").glob("*.so*")]}
    start = [qt / name for name in setup.LOOKED_THROUGH]
    # what the window imports, so that a new Qt module is looked through too
    used = {
        line.split()[1].removeprefix("PyQt6.")
        for file in (ROOT / "src").rglob("*.py")
        for line in file.read_text().splitlines()
        if line.strip().startswith("from PyQt6.")
    }
    start += [qt / f"{name}.abi3.so" for name in used]
    assert needed_from_outside(start, own) - ALWAYS_THERE == set(setup.LIBRARIES)


def test_without_sudo_one_line_names_all_and_nothing_is_made(
    setup: ModuleType, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setattr(setup, "pip", lambda *a, of: pytest.fail("something was downloaded"))
    assert setup.main("run") == 1
    told = capsys.readouterr().err
    assert told.count("\n") == 1
    assert "administrator" in told
    assert told.rstrip().endswith("libxcb-cursor0 python3-venv")
    assert not Path(".venv").exists()


def test_the_tests_need_a_screen_and_its_key(
    setup: ModuleType, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(setup.shutil, "which", lambda name: None)
    wanted = setup.wanted_of_the_system("dev")
    assert ("xauth",) in wanted
    assert ("xvfb",) in wanted
    assert ("xauth",) not in setup.wanted_of_the_system("run")


def test_a_newer_name_of_a_package_is_taken_where_the_system_knows_it(
    setup: ModuleType, monkeypatch: pytest.MonkeyPatch
) -> None:
    names = setup.LIBRARIES["libglib-2.0.so.0"]
    monkeypatch.setattr(setup, "run", lambda command: command[-1] == "libglib2.0-0t64")
    assert setup.best_name(names) == "libglib2.0-0t64"
    monkeypatch.setattr(setup, "run", lambda command: False)
    assert setup.best_name(names) == "libglib2.0-0"


def test_a_room_without_pip_is_made_anew(
    setup: ModuleType, monkeypatch: pytest.MonkeyPatch
) -> None:
    made: list[list[str]] = []

    def run(command: list[str]) -> bool:
        if command[1:3] == ["-m", "venv"]:
            made.append(command)
        return command[1:3] != ["-m", "pip"]

    monkeypatch.setattr(setup, "run", run)
    python = Path(".venv/bin/python")
    python.parent.mkdir(parents=True)
    python.write_text("")
    assert setup.make_venv()
    assert made
    assert not python.exists()


def test_when_packages_do_not_come_no_half_made_room_and_no_mark_is_left(
    setup: ModuleType, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    def make_half(command: list[str]) -> bool:
        Path(".venv/bin").mkdir(parents=True)
        return True

    def pip(*arguments: str, of: int) -> None:
        assert of == 1
        raise setup.Missing("Python's packages could not be installed: no network")

    monkeypatch.setattr(setup, "provide", lambda lacking: None)
    monkeypatch.setattr(setup, "run", make_half)
    monkeypatch.setattr(setup, "pip", pip)
    assert setup.main("run") == 1
    assert "no network" in capsys.readouterr().err
    assert not Path(".venv").exists()
