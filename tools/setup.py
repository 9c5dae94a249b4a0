"""Set up .venv for running or developing: ``python3 tools/setup.py run|dev``.

Only the standard library, and any Python 3: this runs before there is anything else.  First all that
the system must have is looked for; what is missing is installed where we may, and named in one line
where we may not, before anything is downloaded.
"""

import ctypes
import importlib.util
import os
import platform
import re
import shutil
import subprocess
import sys
from pathlib import Path

PYTHON_WANTED = (3, 11)
VENV = Path(".venv")
READY = {"run": (".ready-run",), "dev": (".ready-dev", ".ready-run")}

# What Qt's modules and its X11 plugin load from the system, and where Debian-like systems have it;
# with two names, the first that the system knows.  A test reads the libraries themselves and holds
# this table to them.
LIBRARIES: dict[str, tuple[str, ...]] = {
    "libEGL.so.1": ("libegl1",),
    "libGL.so.1": ("libgl1",),
    "libX11-xcb.so.1": ("libx11-xcb1",),
    "libX11.so.6": ("libx11-6",),
    "libbrotlidec.so.1": ("libbrotli1",),
    "libdbus-1.so.3": ("libdbus-1-3",),
    "libfontconfig.so.1": ("libfontconfig1",),
    "libfreetype.so.6": ("libfreetype6",),
    "libglib-2.0.so.0": ("libglib2.0-0t64", "libglib2.0-0"),
    "libgssapi_krb5.so.2": ("libgssapi-krb5-2",),
    "libgthread-2.0.so.0": ("libglib2.0-0t64", "libglib2.0-0"),
    "libxcb-cursor.so.0": ("libxcb-cursor0",),
    "libxcb-icccm.so.4": ("libxcb-icccm4",),
    "libxcb-image.so.0": ("libxcb-image0",),
    "libxcb-keysyms.so.1": ("libxcb-keysyms1",),
    "libxcb-randr.so.0": ("libxcb-randr0",),
    "libxcb-render-util.so.0": ("libxcb-render-util0",),
    "libxcb-render.so.0": ("libxcb-render0",),
    "libxcb-shape.so.0": ("libxcb-shape0",),
    "libxcb-shm.so.0": ("libxcb-shm0",),
    "libxcb-sync.so.1": ("libxcb-sync1",),
    "libxcb-util.so.1": ("libxcb-util1",),
    "libxcb-xfixes.so.0": ("libxcb-xfixes0",),
    "libxcb-xkb.so.1": ("libxcb-xkb1",),
    "libxcb.so.1": ("libxcb1",),
    "libxkbcommon-x11.so.0": ("libxkbcommon-x11-0",),
    "libxkbcommon.so.0": ("libxkbcommon0",),
    "libz.so.1": ("zlib1g",),
    "libzstd.so.1": ("libzstd1",),
}
# what the tests start beside: a screen in memory, and the key to it
COMMANDS = {"Xvfb": ("xvfb",), "xvfb-run": ("xvfb",), "xauth": ("xauth",)}
# what the window is made of: looked through for libraries that the table above does not know
LOOKED_THROUGH = ("Qt6/plugins/platforms/libqxcb.so", "QtWidgets.abi3.so", "QtPdf.abi3.so")


class Missing(Exception):
    """Something that we can't put right; the text is one line."""


def main(kind: str) -> int:
    """Set up; 0 when everything is there."""
    if sys.version_info < PYTHON_WANTED:
        here = platform.python_version()
        sys.stderr.write(f"hardkeel: needs Python 3.11 or newer; python3 here is {here}\n")
        return 1
    try:
        say(f"setting up in {VENV} (the first time this takes about two minutes)")
        provide(wanted_of_the_system(kind))
        fresh = make_venv()
        try:
            install_packages(kind)
        except Missing:
            if fresh:
                shutil.rmtree(VENV, ignore_errors=True)
            raise
        provide(unloadable(), again=True)
    except Missing as fault:
        sys.stderr.write(f"hardkeel: {fault}\n")
        return 1
    for mark in READY[kind]:
        (VENV / mark).touch()
    say("ready")
    return 0


def say(what: str) -> None:
    """Tell what is going on."""
    print(f"hardkeel: {what}", flush=True)


def wanted_of_the_system(kind: str) -> "list[tuple[str, ...]]":
    """What the system lacks: a tuple of possible package names for each."""
    lacking = [names for library, names in LIBRARIES.items() if not loads(library)]
    if not can_make_rooms():
        lacking.append(("python3-venv",))
    if kind == "dev":
        lacking += [names for command, names in COMMANDS.items() if shutil.which(command) is None]
    return sorted(set(lacking))


def can_make_rooms() -> bool:
    """Whether Python came with what makes a .venv; Debian packs it apart."""
    return all(importlib.util.find_spec(name) is not None for name in ("ensurepip", "venv"))


def loads(library: str) -> bool:
    """Whether the system's loader finds a library."""
    try:
        ctypes.CDLL(library)
    except OSError:
        return False
    return True


def provide(lacking: "list[tuple[str, ...]]", *, again: bool = False) -> None:
    """Install what is lacking, or name all of it in one line; `again` looks whether that helped."""
    if not lacking:
        return
    root = as_root()
    if shutil.which("apt-get") is None or root is None:
        all_names = " ".join(sorted({best_name(names) for names in lacking}))
        what = "packages" if shutil.which("apt-get") else "packages (their Debian names)"
        raise Missing(
            f"ask an administrator to install these system {what}, then try again: {all_names}"
        )
    say("looking up system packages")
    run([*root, "apt-get", "-qq", "update"])
    names = sorted({best_name(names) for names in lacking})
    say(f"installing {len(names)} system packages: {' '.join(names)}")
    quiet = [*root, "env", "DEBIAN_FRONTEND=noninteractive", "apt-get", "-qq", "install", "-y"]
    if not run([*quiet, "--no-install-recommends", *names]):
        raise Missing(f"these system packages could not be installed: {' '.join(names)}")
    if again and unloadable():
        raise Missing("Qt's libraries are installed and still can't be loaded; ldd says more")


def as_root() -> "list[str] | None":
    """What to put before a command that needs an administrator; None where we may not."""
    if os.geteuid() == 0:
        return []
    if shutil.which("sudo") and run(["sudo", "-n", "true"]):
        return ["sudo", "-n"]
    return None


def best_name(names: "tuple[str, ...]") -> str:
    """The first name that this system's package lists know; the last where they know none."""
    known = [name for name in names if run(["apt-cache", "show", name])] if names[1:] else []
    return (known or [names[-1]])[0]


def make_venv() -> bool:
    """Make .venv where it is missing or can't be used; whether it was made."""
    python = VENV / "bin" / "python"
    if python.exists() and run([str(python), "-m", "pip", "--version"]):
        return False
    say("making a room for Python's packages")
    shutil.rmtree(VENV, ignore_errors=True)
    if not run([sys.executable, "-m", "venv", str(VENV)]):
        shutil.rmtree(VENV, ignore_errors=True)
        raise Missing("python3 -m venv failed; is python3-venv whole?")
    return True


def install_packages(kind: str) -> None:
    """Install what the lock file fixes, then ourselves."""
    lock = Path("requirements") / f"{kind}.lock"
    count = len(re.findall(r"^[A-Za-z0-9].*==", lock.read_text(encoding="utf-8"), re.MULTILINE))
    say(f"fetching {count} Python packages")
    pip("install", "--require-hashes", "-r", str(lock), of=count)
    # the run set-up brings no build tools; pip fetches the one pinned back end for this step
    here = ["--no-build-isolation"] if (VENV / READY["dev"][0]).exists() or kind == "dev" else []
    say("installing Hard Keel itself")
    pip("install", "-q", "--no-deps", *here, "-e", ".", of=1)


def pip(*arguments: str, of: int) -> None:
    """Run pip; each package that it takes up is told."""
    command = [str(VENV / "bin" / "python"), "-m", "pip", *arguments]
    environment = {**os.environ, "PIP_DISABLE_PIP_VERSION_CHECK": "1", "PYTHONUNBUFFERED": "1"}
    seen, last = 0, ""
    with subprocess.Popen(
        [*command, "--progress-bar", "off"],
        env=environment,
        stdout=subprocess.PIPE,
        stderr=subprocess.STDOUT,
        text=True,
    ) as process:
        for line in process.stdout or ():
            if line.startswith(("ERROR", "error:")):
                last = last or line.strip()
            taken = re.match(
                r"(?:Collecting|Processing|Requirement already satisfied:) (?:\S*/)?(\S+)", line
            )
            if taken:
                seen += 1
                print(f"  {seen} of {of}: {taken[1].replace('==', ' ')}", flush=True)
            elif line.startswith("Installing collected"):
                say("unpacking them")
    if process.returncode:
        raise Missing(f"Python's packages could not be installed: {last or 'pip failed'}")


def unloadable() -> "list[tuple[str, ...]]":
    """Packages for the libraries that Qt still does not find, read off the loader itself."""
    [qt] = VENV.glob("lib/python*/site-packages/PyQt6")
    gone: set[str] = set()
    for name in LOOKED_THROUGH:
        told = subprocess.run(
            ["ldd", str(qt / name)], capture_output=True, text=True, check=False
        ).stdout
        gone |= set(re.findall(r"^\s*(\S+) => not found", told, re.MULTILINE))
    unknown = sorted(gone - set(LIBRARIES))
    if unknown:
        raise Missing(f"Qt needs these libraries, which this system lacks: {' '.join(unknown)}")
    return sorted({LIBRARIES[name] for name in gone})


def run(command: "list[str]") -> bool:
    """Whether a command does what it should, quietly."""
    try:
        return subprocess.run(command, capture_output=True, check=False).returncode == 0
    except OSError:
        return False


if __name__ == "__main__":
    sys.exit(main(sys.argv[1] if sys.argv[1:] else "run"))
