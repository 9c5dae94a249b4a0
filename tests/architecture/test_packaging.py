"""Packages and desktop files agree with the program: names, commands, what Qt needs of the system."""

import configparser
import importlib.util
import re
import shutil
import subprocess
import sys
from pathlib import Path
from xml.etree import ElementTree as ET

import pytest

from hardkeel.cli import desktop_texts as texts
from hardkeel.cli.commands import COMMANDS
from hardkeel.cli.desktop import data_home, files_of, install, remove

ROOT = Path(__file__).parents[2]
CONTROL = (ROOT / "packaging" / "debian" / "control").read_text(encoding="utf-8")
FLATPAK = (ROOT / "packaging" / "flatpak" / f"{texts.COMPONENT}.yaml").read_text(encoding="utf-8")
XDG_MIME = "{http://www.freedesktop.org/standards/shared-mime-info}"


def _ini(text: str) -> configparser.ConfigParser:
    found = configparser.ConfigParser(interpolation=None)
    found.optionxform = str  # type: ignore[assignment,method-assign]
    found.read_string(text)
    return found


def test_the_menu_starts_the_program_on_a_file_and_on_the_demo() -> None:
    entry = _ini(texts.desktop_entry("/opt/a b/hardkeel"))
    main = entry["Desktop Entry"]
    assert main["Exec"] == "/opt/a b/hardkeel %f"
    assert main["MimeType"] == f"{texts.MIME};"
    assert entry["Desktop Action demo"]["Exec"].endswith(" demo")
    assert main["Actions"] == "demo;"
    assert main["Icon"] == texts.COMPONENT  # a Flatpak lets out only what is called after it


def test_a_keel_file_has_its_type_and_its_picture() -> None:
    tree = ET.fromstring(texts.mime_package())  # noqa: S314  our own
    kind = tree.find(f"{XDG_MIME}mime-type")
    assert kind is not None
    assert kind.get("type") == texts.MIME
    glob = kind.find(f"{XDG_MIME}glob")
    assert glob is not None
    assert glob.get("pattern") == "*.keel"
    drawn = _ini(texts.thumbnailer("hardkeel"))["Thumbnailer Entry"]
    assert drawn["Exec"] == "hardkeel thumbnail %i --to %o --size %s"
    assert {"--to", "--size"} == {one.flag for one in COMMANDS["thumbnail"].options}


def test_what_a_software_centre_reads_names_the_same_things() -> None:
    tree = ET.fromstring(texts.metainfo())  # noqa: S314  our own
    assert tree.findtext("id") == texts.COMPONENT
    assert tree.findtext("launchable") == f"{texts.COMPONENT}.desktop"
    assert tree.findtext("provides/mediatype") == texts.MIME
    icon = files_of("hardkeel")[f"icons/hicolor/scalable/apps/{texts.COMPONENT}.svg"]
    assert ET.fromstring(icon).get("viewBox") == "0 0 128 128"  # noqa: S314  our own


def test_the_man_page_and_the_shell_know_every_command_and_option() -> None:
    page, shell = texts.man_page(), texts.completion()
    for command in COMMANDS.values():
        assert f"hardkeel {command.name}" in page
        (words,) = re.findall(rf'^    {command.name}\) words="(.*)" ;;$', shell, re.MULTILINE)
        assert words.split() == [
            one.flag for one in command.options if one.flag.startswith("-")
        ]  # fmt: skip
        for option in command.options:
            assert option.flag.replace("-", "\\-") in page or option.flag in ("photo", "photos")


def test_the_shell_completes_what_was_begun(tmp_path: Path) -> None:
    bash = shutil.which("bash")
    if bash is None:
        pytest.skip("no bash")
    script = tmp_path / "completion"
    script.write_text(texts.completion(), encoding="utf-8")
    asked = f"source {script}; COMP_WORDS=(hardkeel doc); COMP_CWORD=1; _hardkeel; echo ${{COMPREPLY[@]}}"
    told = subprocess.run([bash, "-c", asked], capture_output=True, text=True, check=True, cwd=tmp_path)  # fmt: skip
    assert told.stdout.split() == ["doctor"]


def test_it_goes_into_the_menu_and_out_of_it_again(tmp_path: Path) -> None:
    other = tmp_path / "applications" / "other.desktop"
    other.parent.mkdir(parents=True)
    other.write_text("mine")
    written = install(tmp_path, "hardkeel")
    assert len(written) == len(files_of("hardkeel"))
    assert all(one.is_file() for one in written)
    assert install(tmp_path, "hardkeel") == written  # once more is no fault
    assert sorted(remove(tmp_path)) == sorted(written)
    assert not any(one.exists() for one in written)
    assert remove(tmp_path) == []
    assert other.read_text() == "mine"


def test_the_command_line_does_it_where_the_desktop_says(tmp_path: Path) -> None:
    def run(*arguments: str) -> subprocess.CompletedProcess[str]:
        return subprocess.run(
            [sys.executable, "-m", "hardkeel", *arguments],
            capture_output=True,
            text=True,
            check=False,
            env={"XDG_DATA_HOME": str(tmp_path), "PATH": "/usr/bin:/bin", "HOME": str(tmp_path)},
        )

    assert run("--install-desktop").returncode == 0
    entry = tmp_path / "applications" / f"{texts.COMPONENT}.desktop"
    assert " -m hardkeel %f" in entry.read_text(encoding="utf-8")
    assert run("--remove-desktop").returncode == 0
    assert not entry.exists()
    assert run("--man").stdout.startswith(".TH HARDKEEL 1")
    (tmp_path / "blocked").write_text("a file where a folder is wanted")
    blocked = subprocess.run(
        [sys.executable, "-m", "hardkeel", "--install-desktop"],
        capture_output=True,
        text=True,
        check=False,
        env={"XDG_DATA_HOME": str(tmp_path / "blocked")},
    )
    assert blocked.returncode == 2
    assert blocked.stderr.startswith("hardkeel: ")
    assert len(blocked.stderr.splitlines()) == 1


def test_the_data_home_is_that_of_the_desktops_rules(tmp_path: Path) -> None:
    assert data_home({"XDG_DATA_HOME": str(tmp_path)}) == tmp_path
    assert data_home({"XDG_DATA_HOME": "not/absolute"}) == Path.home() / ".local" / "share"
    assert data_home({}) == Path.home() / ".local" / "share"


def test_the_debian_package_wants_what_qt_wants() -> None:
    spec = importlib.util.spec_from_file_location("setup_script", ROOT / "tools" / "setup.py")
    assert spec is not None
    assert spec.loader is not None
    setup = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(setup)
    (wanted,) = re.findall(r"^Depends: (.*(?:\n .*)*)", CONTROL, re.MULTILINE)
    told = {one.strip() for one in wanted.split(",")}
    assert {" | ".join(names) for names in setup.LIBRARIES.values()} <= told
    rules = ROOT / "packaging" / "debian" / "rules"
    assert rules.stat().st_mode & 0o111
    assert "--install-desktop" in rules.read_text(encoding="utf-8")


def test_the_flatpak_is_called_as_the_menu_calls_it() -> None:
    assert f"id: {texts.COMPONENT}\n" in FLATPAK
    assert "command: hardkeel\n" in FLATPAK
    for path in re.findall(r"-r (\S+)", FLATPAK):
        assert (ROOT / path).is_file()
