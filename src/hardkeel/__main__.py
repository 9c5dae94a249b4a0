"""Start-up: the command line, or the window."""

import os
import sys

from hardkeel import __version__


def main() -> int:
    """Run what the arguments ask for; the value is the exit code."""
    arguments = sys.argv[1:]
    if arguments == ["--version"]:
        sys.stdout.write(f"hardkeel {__version__}\n")
        return 0
    from hardkeel.cli.commands import (  # noqa: PLC0415  --version needs none of it
        BAD_INPUT,
        COMMANDS,
        help_text,
        run_command,
    )

    if arguments and arguments[0] in ("-h", "--help"):
        sys.stdout.write(help_text())
        return 0
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
