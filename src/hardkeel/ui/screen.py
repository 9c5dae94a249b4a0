"""Whether a window can be opened at all.

Qt ends the process with a page of its own where it finds no display or a library of its X11 plugin is
missing, so both are looked at before it is asked.
"""

import ctypes
from collections.abc import Mapping
from pathlib import Path
from typing import Final

from PyQt6.QtCore import QLibraryInfo

from hardkeel.messages import shell as say

_X11: Final = "libxcb.so.1"


def why_no_window(environment: Mapping[str, str]) -> str | None:
    """One line that says why no window can be opened; ``None`` where one can.

    Parameters
    ----------
    environment : mapping of str to str
        The process's environment: ``DISPLAY``, ``WAYLAND_DISPLAY``, ``QT_QPA_PLATFORM`` …
    """
    if environment.get("QT_QPA_PLATFORM", "xcb").partition(":")[0] not in ("", "xcb"):
        return None  # the user has chosen, offscreen for one
    if _wayland_is_there(environment):
        return None
    lacking = _lacking()
    if lacking:
        return say.no_window(lacking)
    if not _answers(environment.get("DISPLAY", "")):
        return (
            "there is no display to open a window on; hardkeel --help names what needs none"
            if not environment.get("DISPLAY")
            else f"the display {environment['DISPLAY']} does not answer"
        )
    return None


def _wayland_is_there(environment: Mapping[str, str]) -> bool:
    name, folder = environment.get("WAYLAND_DISPLAY"), environment.get("XDG_RUNTIME_DIR", "")
    return bool(name) and Path(folder, name or "").is_socket()


def _lacking() -> str:
    plugins = Path(QLibraryInfo.path(QLibraryInfo.LibraryPath.PluginsPath))
    try:
        ctypes.CDLL(str(plugins / "platforms" / "libqxcb.so"))
    except OSError as fault:
        return str(fault).partition(": cannot open")[0] + " is missing"
    return ""


def _answers(display: str) -> bool:
    if not display:
        return False
    xcb = ctypes.CDLL(_X11)
    xcb.xcb_connect.restype = ctypes.c_void_p
    xcb.xcb_connection_has_error.argtypes = [ctypes.c_void_p]
    connection = xcb.xcb_connect(display.encode(), None)
    # a connection that is good stays open: a bare X server starts anew when its last client leaves, and
    # would refuse Qt, which comes right after us
    return bool(xcb.xcb_connection_has_error(connection) == 0)
