"""Start-up: the command line, or the window."""

import gc
import os
import sys
from typing import TYPE_CHECKING, Final

from hardkeel import __version__
from hardkeel.base.errors import CannotSave
from hardkeel.base.late import late

if TYPE_CHECKING:
    from hardkeel.cli import commands, desktop
    from hardkeel.ui import app
else:  # --version needs none of it, and Qt is for the window alone
    commands, app = late("hardkeel.cli.commands"), late("hardkeel.ui.app")
    desktop = late("hardkeel.cli.desktop")


WISHES: Final = ("--install-desktop", "--remove-desktop", "--man", "--completion")


def wish(wanted: str) -> int:
    """Do one of `WISHES`; the exit code."""
    try:
        sys.stdout.write(desktop.run(wanted))
    except CannotSave as fault:
        sys.stderr.write(f"hardkeel: {fault}\n")
        return commands.BAD_INPUT
    return 0


def main() -> int:
    """Run what the arguments ask for; the value is the exit code."""
    # A survey's matrices are some dozen wide: threads for them would be started, and wait, for nothing.
    # It is read when numpy is, which nothing here has done yet.
    os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
    # While modules are read nothing of them is garbage: looking for it only costs a tenth of the start.
    gc.disable()
    arguments = sys.argv[1:]
    if arguments == ["--version"]:
        sys.stdout.write(f"hardkeel {__version__}\n")
        return 0
    if arguments and arguments[0] in ("-h", "--help"):
        sys.stdout.write(commands.help_text())
        return 0
    if len(arguments) == 1 and arguments[0] in WISHES:
        return wish(arguments[0])
    if arguments and arguments[0] in commands.COMMANDS:
        try:
            code = commands.run_command(arguments)
            sys.stdout.flush()
        except BrokenPipeError:
            # the reader of our output has gone (`hardkeel true FILE | head`): no fault of ours
            os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
            return 0
        return code
    if len(arguments) > 1 or (arguments and arguments[0].startswith("-")):
        sys.stderr.write(
            f"hardkeel: not understood: {' '.join(arguments)[:200]} (hardkeel --help says more)\n"
        )
        return commands.BAD_INPUT
    return app.run_window(arguments[0] if arguments else None)


if __name__ == "__main__":
    sys.exit(main())
