"""The table of commands that need no display, and how one is run; everything else opens the window."""

import argparse
import gc
import sys
from collections.abc import Sequence
from dataclasses import dataclass
from importlib import import_module
from pathlib import Path
from typing import TYPE_CHECKING, Final, NoReturn, cast

from hardkeel.base.errors import BadInput, CannotSave, NotOurs
from hardkeel.base.late import late
from hardkeel.cli.options import (
    ANY_ORDER,
    AT,
    BARS,
    COURSE,
    GRADE,
    HIDDEN_IN,
    INCHES,
    JSON,
    LAST,
    LIMIT,
    LIST,
    MAT,
    OF_FRAME,
    OUTLINE,
    OVERWRITE,
    PAGES,
    PAPER,
    PHASE,
    PHOTO,
    PHOTOS,
    PIECE,
    PIXELS,
    REVEAL,
    SAVE,
    SECONDS,
    SEED,
    SHEET,
    SHEETS,
    SIZE,
    THICKNESS,
    TO,
    TO_KEEL,
    TO_PDF,
    TO_PNG,
    Option,
)

if TYPE_CHECKING:
    from hardkeel.messages import unusual as messages
    from hardkeel.project import unusual
    from hardkeel.storage import package
else:  # help and a slip of the keys need no build
    package, unusual = late("hardkeel.storage.package"), late("hardkeel.project.unusual")
    messages = late("hardkeel.messages.unusual")

DONE: Final = 0
BAD_INPUT: Final = 2
_WIDE: Final = 45  # of what is typed, in the page of help


@dataclass(frozen=True, slots=True)
class Command:
    """A command: ``hardkeel NAME FILE``; its module in this room has ``run(loaded, parsed)``, which gives the text.

    Attributes
    ----------
    of_build : bool
        It takes a build's file; of one that takes none the module has ``run(parsed)``.
    """

    name: str
    says: str
    options: tuple[Option, ...]
    of_build: bool = True

    @property
    def usage(self) -> str:
        """How it is typed."""
        file = ("FILE",) if self.of_build else ()
        return " ".join(("hardkeel", self.name, *file, *(one.usage for one in self.options)))

    def run(self, parsed: argparse.Namespace) -> tuple[str, str]:
        """Run it; what it imports is loaded now, and of the others nothing.

        Returns
        -------
        text, told : str
            The answer, and what is to be looked at in the file itself: figures that hardly any model has.

        Raises
        ------
        BadInput, CannotSave
            One sentence for the terminal.
        """
        module = import_module(f"hardkeel.cli.{self.name}")
        gc.enable()  # from here on there is garbage; see __main__
        if not self.of_build:
            return cast("str", module.run(parsed)), ""
        loaded = package.load(parsed.file)
        text = cast("str", module.run(loaded, parsed))
        found = unusual.oddities_in(loaded.build)
        return text, messages.looked_at(found) if found else ""


COMMANDS: Final = {
    command.name: command
    for command in (
        Command("true", "what is out of true, and by how much", (JSON, PHASE, INCHES)),
        Command(
            "sight",
            "what photographs of its printed targets tell",
            (PHOTOS, JSON, PHASE, INCHES, SAVE, OF_FRAME, ANY_ORDER),
        ),
        Command(
            "targets", "printed targets to stick on it", (TO_PDF, SIZE, PAPER, INCHES, OF_FRAME)
        ),
        Command("mat", "a mat to check cut parts on", (TO_PDF, PAPER, PAGES), of_build=False),
        Command(
            "part",
            "where a cut part on its mat is proud or short",
            (PHOTO, MAT, PIECE, BARS, OUTLINE, THICKNESS, SAVE, JSON, INCHES),
        ),
        Command(
            "frame", "what to cut, how it bends, what to buy", (JSON, INCHES, SHEETS, SECONDS, AT)
        ),
        Command("tail", "ribs, sticks and hinges of the tail", (JSON, INCHES, SHEETS, SECONDS)),
        Command("trim", "what an error does in the air", (JSON, PHASE, INCHES)),
        Command("audit", "why a print does not measure up, and what to do", (JSON, INCHES)),
        Command("balance", "where it balances, where the pack must sit", (JSON, INCHES)),
        Command("steps", "the order of work of all stages, laid anew", (JSON,)),
        Command("plan", "the steps over your evenings, and when it is done", (JSON, LIMIT)),
        Command("parts", "every part, and where the lists disagree", (JSON, INCHES)),
        Command(
            "practice",
            "exercises: a crooked model that is nobody's, its truth sealed",
            (
                SEED,
                COURSE,
                LAST,
                GRADE,
                HIDDEN_IN,
                TO_KEEL,
                SHEET,
                LIST,
                REVEAL,
                PAPER,
                JSON,
                INCHES,
            ),
            of_build=False,
        ),
        Command("thumbnail", "a small picture of it, for file managers", (TO_PNG, PIXELS)),
        Command(
            "doctor", "what a bug report wants to know of this machine", (JSON,), of_build=False
        ),
        Command("export", "write record, parts and formers", (TO, PHASE, INCHES, PAPER, OVERWRITE)),
    )
}


def help_text() -> str:
    """The page of help."""
    lines = [
        ("hardkeel [FILE]", "open the window"),
        ("hardkeel demo", "open the window with the demo build"),
        *((command.usage, command.says) for command in COMMANDS.values()),
    ]
    rows = [
        f"{typed:<{_WIDE}}{says}" if len(typed) < _WIDE else f"{typed}   {says}"
        for typed, says in lines
    ]
    return "\n".join((*rows, *_WISHES, "hardkeel --version", "", _CAUTION)) + "\n"


_WISHES: Final = (
    f"{'hardkeel --install-desktop':<{_WIDE}}into your own menu, with file type, man page, completion",
    f"{'hardkeel --remove-desktop':<{_WIDE}}and out of it",
    f"{'hardkeel --man, --completion':<{_WIDE}}print the man page, or what bash completes",
)
_CAUTION: Final = "For model aircraft only; makers' sheets and local rules first."


class _OneLineParser(argparse.ArgumentParser):
    """Says what is wrong with the arguments in one line instead of a page of usage."""

    def error(self, message: str) -> NoReturn:
        self.exit(BAD_INPUT, f"hardkeel: {message} (hardkeel --help says more)\n")


def run_command(arguments: Sequence[str]) -> int:
    """Run one of `COMMANDS`; the exit code is 0, or 2 for bad input or usage."""
    parsed = _parser().parse_args(arguments)
    try:
        text, told = COMMANDS[parsed.command].run(parsed)
    except (BadInput, CannotSave) as fault:
        hint = " (--overwrite writes over it)" if isinstance(fault, NotOurs) else ""
        print(f"hardkeel: {fault}{hint}", file=sys.stderr)
        return BAD_INPUT
    sys.stdout.write(text)
    if told:
        print(f"hardkeel: {told}", file=sys.stderr)
    return DONE


def _parser() -> argparse.ArgumentParser:
    parser = _OneLineParser(prog="hardkeel")
    commands = parser.add_subparsers(required=True, metavar="COMMAND", dest="command")
    for command in COMMANDS.values():
        one = commands.add_parser(command.name, help=command.says)
        if command.of_build:
            one.add_argument(
                "file", type=Path, metavar="FILE", help="a .keel file or a bare build.json"
            )
        for option in command.options:
            one.add_argument(option.flag, help=option.says, **option.how)
    return parser
