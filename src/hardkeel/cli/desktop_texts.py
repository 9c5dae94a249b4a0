"""What a desktop is told of the program: its entry, the type of its files, its man page, what the shell completes."""

from typing import Final
from xml.sax.saxutils import escape

from hardkeel import __version__
from hardkeel.cli.commands import COMMANDS, Command

NAME: Final = "Hard Keel"
SUMMARY: Final = "Set up model aircraft true"
MIME: Final = "application/x-hardkeel"
COMPONENT: Final = "local.hardkeel.HardKeel"  # no domain is ours
_ABOUT: Final = (
    "Lay out a model aircraft, frame it, and set it up so that wing, fuselage, fin and stabilizer align true.",
    "Readings of tape, level, gauge or camera are adjusted together; what is out, how sure that is, and what to do at the seat is said in millimetres.",
    "Models only: makers' sheets and local rules come first. Nothing is sent anywhere.",
)
_CAUTION: Final = "For model aircraft only; makers' sheets and local rules first."


def desktop_entry(command: str) -> str:
    """The entry of the menu.

    Parameters
    ----------
    command : str
        What starts the program, as a shell would be told.
    """
    return f"""[Desktop Entry]
Type=Application
Version=1.4
Name={NAME}
GenericName=Model aircraft bench
Comment={SUMMARY}
Exec={command} %f
Icon={COMPONENT}
Terminal=false
Categories=Education;Engineering;
Keywords=model;aircraft;incidence;decalage;former;balsa;
MimeType={MIME};
StartupWMClass=hardkeel
Actions=demo;

[Desktop Action demo]
Name=The demo build
Exec={command} demo
"""


def mime_package() -> str:
    """What a `.keel` file is."""
    return f"""<?xml version="1.0" encoding="UTF-8"?>
<mime-info xmlns="http://www.freedesktop.org/standards/shared-mime-info">
  <mime-type type="{MIME}">
    <comment>{NAME} build</comment>
    <sub-class-of type="application/zip"/>
    <icon name="{COMPONENT}"/>
    <glob pattern="*.keel"/>
  </mime-type>
</mime-info>
"""


def thumbnailer(command: str) -> str:
    """What draws a small picture of a `.keel` file."""
    return f"""[Thumbnailer Entry]
Exec={command} thumbnail %i --to %o --size %s
MimeType={MIME};
"""


def metainfo() -> str:
    """What a software centre says of it."""
    paragraphs = "\n".join(f"    <p>{escape(one)}</p>" for one in _ABOUT)
    return f"""<?xml version="1.0" encoding="UTF-8"?>
<component type="desktop-application">
  <id>{COMPONENT}</id>
  <metadata_license>CC0-1.0</metadata_license>
  <project_license>GPL-3.0-or-later</project_license>
  <name>{NAME}</name>
  <summary>{SUMMARY}</summary>
  <developer id="local.hardkeel"><name>The Hard Keel founders</name></developer>
  <description>
{paragraphs}
  </description>
  <launchable type="desktop-id">{COMPONENT}.desktop</launchable>
  <provides>
    <binary>hardkeel</binary>
    <mediatype>{MIME}</mediatype>
  </provides>
  <content_rating type="oars-1.1"/>
  <releases>
    <release version="{__version__}" date="2026-12-01"/>
  </releases>
</component>
"""


def man_page() -> str:
    """The page of the manual, section 1, in man's macros."""
    parts = [
        f'.TH HARDKEEL 1 "" "hardkeel {__version__}" "User Commands"',
        ".SH NAME",
        "hardkeel \\- set up model aircraft true",
        ".SH SYNOPSIS",
        *(f".br\n{_roff(one)}" for one in _SYNOPSIS),
        ".SH DESCRIPTION",
        *(f"{_roff(one)}\n.PP" for one in _ABOUT),
        "Without a command the window opens; F1 in it opens the manual.",
        ".SH COMMANDS",
        *(part for command in COMMANDS.values() for part in _roff_of(command)),
        ".SH EXIT STATUS",
        "0 where it was done, 2 for bad input, with one sentence that names the place.",
        ".SH CAUTION",
        _roff(_CAUTION),
    ]
    return "\n".join(parts) + "\n"


_SYNOPSIS: Final = (
    "hardkeel [FILE]",
    "hardkeel demo",
    "hardkeel COMMAND [FILE] [OPTION]...",
    "hardkeel --install-desktop | --remove-desktop | --man | --completion | --version | --help",
)


def _roff(text: str) -> str:
    """With what man reads as its own escaped."""
    told = text.replace("\\", "\\e").replace("-", "\\-").replace("…", "...").replace("’", "'")
    return f"\\&{told}" if told.startswith((".", "'")) else told


def _roff_of(command: Command) -> list[str]:
    lines = [
        ".TP",
        f".B {_roff(command.usage)}",
        _roff(f"{command.says[:1].upper()}{command.says[1:]}."),
    ]
    for option in command.options:
        lines += [".RS", ".TP", f".B {_roff(option.usage)}", _roff(option.says), ".RE"]
    return lines  # fmt: skip


def completion() -> str:
    """What bash completes: commands, their options, and files."""
    cases = "\n".join(
        f'    {one.name}) words="{" ".join(it.flag for it in one.options if it.flag.startswith("-"))}" ;;'
        for one in COMMANDS.values()
    )
    first = " ".join(
        ("demo", *COMMANDS, "--install-desktop", "--remove-desktop", "--man", "--completion", "--version", "--help")
    )  # fmt: skip
    return f"""# bash completion of hardkeel
_hardkeel() {{
  local now="${{COMP_WORDS[COMP_CWORD]}}" words=""
  if [ "$COMP_CWORD" -eq 1 ]; then
    words="{first}"
  else
    case "${{COMP_WORDS[1]}}" in
{cases}
    esac
  fi
  COMPREPLY=( $(compgen -W "$words" -- "$now") $(compgen -f -- "$now") )
}}
complete -o filenames -F _hardkeel hardkeel
"""
