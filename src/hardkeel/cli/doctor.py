"""``hardkeel doctor``: what a bug report wants to know of this machine; it is printed, and sent nowhere."""

import argparse
import os
import platform
import sys
import tempfile
from importlib import import_module, metadata
from pathlib import Path
from typing import Any, Final

import platformdirs

from hardkeel import __version__
from hardkeel.cli.options import as_text

_NAME: Final = "hardkeel"
# distribution, module: what it is built on, as it is imported
_LIBRARIES: Final = (
    ("numpy", "numpy"),
    ("scipy", "scipy"),
    ("pydantic", "pydantic"),
    ("shapely", "shapely"),
    ("ezdxf", "ezdxf"),
    ("reportlab", "reportlab"),
    ("pillow", "PIL"),
    ("opencv-python-headless", "cv2"),
    ("ortools", "ortools"),
    ("spyrrow", "spyrrow"),
    ("icalendar", "icalendar"),
    ("pyserial", "serial"),
    ("PyQt6", "PyQt6.QtWidgets"),
)
_DISPLAY: Final = ("DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM", "XDG_SESSION_TYPE", "LANG")


def run(parsed: argparse.Namespace) -> str:
    """All of it."""
    found = findings()
    if parsed.json:
        return as_text(found)
    lines = [f"Hard Keel {found['version']}, Python {found['python']}, {found['system']}", ""]
    for name, one in found["libraries"].items():
        lines.append(f"  {name:<24}{one['version'] or 'missing':<14}{one['fault']}".rstrip())
    lines.append("")
    for name, value in found["display"].items():
        lines.append(f"  {name:<24}{value or 'not set'}")
    lines.append("")
    for name, state in found["folders"].items():
        lines.append(f"  {name:<24}{state}")
    wrong = found["wrong"]
    lines += ["", "Nothing is wrong that is looked at here." if not wrong else "\n".join(wrong)]
    lines += ["Printed here, sent nowhere. No build and no name of yours is in it."]
    return "\n".join(lines) + "\n"


def findings() -> dict[str, Any]:
    """What is there, as plain values."""
    libraries = {name: _library(name, module) for name, module in _LIBRARIES}
    folders = {
        "state": _writable(platformdirs.user_state_path(_NAME)),
        "settings": _writable(platformdirs.user_config_path(_NAME)),
        "temporary": _writable(Path(tempfile.gettempdir())),
    }
    wrong = [
        f"{name} can't be loaded: {one['fault']}" for name, one in libraries.items() if one["fault"]
    ]
    wrong += [
        f"The {name} folder can't be written to."
        for name, state in folders.items()
        if state == "not writable"
    ]
    return {
        "version": __version__,
        "python": platform.python_version(),
        "system": platform.platform(),
        "encoding": sys.getfilesystemencoding(),
        "libraries": libraries,
        "display": {name: os.environ.get(name, "") for name in _DISPLAY},
        "folders": folders,
        "wrong": wrong,
    }  # fmt: skip


def _library(name: str, module: str) -> dict[str, str]:
    try:
        version = metadata.version(name)
    except metadata.PackageNotFoundError:
        version = ""
    try:
        import_module(module)
    except (ImportError, OSError) as fault:
        told = (str(fault).splitlines() or [type(fault).__name__])[0]
        return {"version": version, "fault": told.replace(str(Path.home()), "~")}
    return {"version": version, "fault": ""}


def _writable(folder: Path) -> str:
    """Of the folder, or of the nearest that is there above it."""
    there = next(one for one in (folder, *folder.parents) if one.is_dir())
    if not os.access(there, os.W_OK):
        return "not writable"
    return "writable" if there == folder else "made when first wanted"
