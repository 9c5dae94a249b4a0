"""Start-up: the command line, or the window."""

import os
import sys
from typing import Final

from hardkeel import __version__

_HELP: Final = """\
hardkeel [FILE]                              open the window
hardkeel demo                                open the window with the demo build
hardkeel true FILE [--json] [--phase PHASE] [--inches]   what is out of true, and by how much
hardkeel audit FILE [--json] [--inches]      why a print does not measure up, and what to do
hardkeel balance FILE [--json] [--inches]    where it balances, where the pack must sit
hardkeel parts FILE [--json] [--inches]      every part, and where the lists disagree
hardkeel export FILE --to DIR [--phase PHASE] [--inches]  write the record (PDF, CSV, build.json)
hardkeel --version

For model aircraft only; makers' sheets and local rules first.
"""


def main() -> int:
    """Run what the arguments ask for; the value is the exit code."""
    arguments = sys.argv[1:]
    if arguments and arguments[0] in ("-h", "--help"):
        sys.stdout.write(_HELP)
        return 0
    if arguments == ["--version"]:
        sys.stdout.write(f"hardkeel {__version__}\n")
        return 0
    from hardkeel.cli.commands import BAD_INPUT, COMMANDS, run_command  # noqa: PLC0415

    if arguments and arguments[0] in COMMANDS:
        try:
            code = run_command(arguments)
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
        return BAD_INPUT
    from hardkeel.ui.app import run_window  # noqa: PLC0415  Qt only where a window is wanted

    return run_window(arguments[0] if arguments else None)


if __name__ == "__main__":
    sys.exit(main())
