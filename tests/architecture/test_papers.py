"""The project's papers are true: links lead somewhere, commands exist, rooms say what they are."""

import ast
import re
import subprocess
import sys
from pathlib import Path

import pytest

import hardkeel
from hardkeel.base.values import Value
from hardkeel.cli.commands import COMMANDS, Command
from hardkeel.parts.model import STATES
from hardkeel.project.model import Build

ROOT = Path(__file__).parents[2]
SOURCE = Path(hardkeel.__file__).parent
README = (ROOT / "README.md").read_text(encoding="utf-8")
TYPED = (ROOT / "docs" / "commands.md").read_text(encoding="utf-8")
PAPERS = (
    ROOT / "README.md",
    *sorted((ROOT / "docs").glob("*.md")),
    *sorted((ROOT / "docs" / "manual").glob("*.md")),
)
FORMAT = (ROOT / "docs" / "format.md").read_text(encoding="utf-8")
PICTURES = sorted((ROOT / "docs" / "screenshots").glob("*.png"))
MOST_PICTURES = 19
SHOWN = 5  # in the README, with a line each
ROOMS = sorted(path.parent for path in SOURCE.glob("*/__init__.py") if path.parent.name != "ui")


def test_every_link_of_the_papers_leads_somewhere() -> None:
    for paper in PAPERS:
        for target in re.findall(r"\]\(([^)#]+)\)", paper.read_text(encoding="utf-8")):
            assert (paper.parent / target).exists(), (paper.name, target)


def test_every_picture_is_shown_and_there_are_not_too_many() -> None:
    assert 0 < len(PICTURES) <= MOST_PICTURES
    for picture in PICTURES:
        assert f"docs/screenshots/{picture.name}" in README
    assert README.count("![") == SHOWN


@pytest.mark.parametrize("picture", PICTURES, ids=lambda p: p.stem)
def test_pictures_are_of_the_size_that_they_should_be(picture: Path) -> None:
    head = picture.read_bytes()[:24]
    width, height = (int.from_bytes(head[i : i + 4], "big") for i in (16, 20))
    if picture.stem != "new-build":  # a dialog
        assert (width, height) == (1280, 800)


@pytest.mark.parametrize("command", COMMANDS.values(), ids=lambda command: command.name)
def test_every_command_is_in_help_and_in_the_papers(command: Command) -> None:
    help_text = subprocess.run(
        [sys.executable, "-m", "hardkeel", "--help"], capture_output=True, text=True, check=True
    ).stdout
    assert command.usage in help_text
    assert command.says in help_text
    taken = "FILE" if command.of_build else ""
    assert f"hardkeel {command.name} {taken}" in TYPED
    for option in command.options:
        told = option.flag if option.flag.startswith("-") else option.usage
        assert told in TYPED, f"{told} of {command.name}"
    assert (SOURCE / "cli" / f"{command.name}.py").exists()


@pytest.mark.parametrize("room", ROOMS, ids=lambda room: room.name)
def test_every_room_says_what_lives_there(room: Path) -> None:
    doc = ast.get_docstring(ast.parse((room / "__init__.py").read_text(encoding="utf-8")))
    assert doc
    if room.name not in ("resources", "cli", "demo"):
        assert "ives here" in doc
        assert "mports" in doc
    assert room.name in (ROOT / "docs" / "architecture.md").read_text(encoding="utf-8")


def _own_keys() -> set[str]:
    """Keys of the file that the contract does not know."""
    return {
        "name", "model_class", "phase", "log", "sessions", "ledger", "plans", "seat_width",
        "corner", "cutouts", "lightened", "outline", "template", "upright", "hatches", "size",
    }  # fmt: skip


def test_every_key_of_our_own_is_written_down() -> None:
    for key in _own_keys():
        assert re.search(rf"[`.]{key}[`\b]", FORMAT), key
    for state in (STATES[0], STATES[-1]):
        assert state in FORMAT


def test_keys_of_our_own_are_really_there() -> None:
    found: set[str] = set()
    todo: list[type[Value]] = [Build]
    while todo:
        kind = todo.pop()
        for name, field in kind.model_fields.items():
            found.add(field.alias or name)
            todo += [inner for inner in _models_in(field.annotation) if inner is not kind]
    assert _own_keys() <= found


def _models_in(annotation: object) -> list[type[Value]]:
    if isinstance(annotation, type) and issubclass(annotation, Value):
        return [annotation]
    return [kind for part in getattr(annotation, "__args__", ()) for kind in _models_in(part)]


def test_nothing_names_this_machine_or_a_registrys_host() -> None:
    words = re.compile(r"/root/|/work/|pypi\.org|pythonhosted|registry\.npmjs|deb\.debian")
    listed = subprocess.run(
        ["git", "ls-files"], cwd=ROOT, capture_output=True, text=True, check=False
    ).stdout.split()
    for name in listed:
        path = ROOT / name
        if path.suffix in (".png", ".ttf", ".wav") or path == Path(__file__) or not path.is_file():
            continue
        found = words.search(path.read_text(encoding="utf-8"))
        assert found is None, (name, found)
