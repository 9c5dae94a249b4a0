"""The commands that need no display; everything else opens the window."""

import argparse
import json
import sys
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import Final, NoReturn

from hardkeel.base.errors import BadInput, CannotSave
from hardkeel.base.units import LengthUnit
from hardkeel.cli.layout import (
    audit_json,
    audit_table,
    balance_json,
    balance_table,
    parts_json,
    parts_table,
)
from hardkeel.cli.table import true_table
from hardkeel.project.ledger import parts_of
from hardkeel.storage.package import load
from hardkeel.survey.judging import judge_survey
from hardkeel.survey.model import PHASES
from hardkeel.survey.telling import as_json

DONE: Final = 0
BAD_INPUT: Final = 2
_FILE_HELP: Final = "a .keel file or a bare build.json"
COMMANDS: Final = ("true", "audit", "balance", "parts", "export")


class _OneLineParser(argparse.ArgumentParser):
    """Says what is wrong with the arguments in one line instead of a page of usage."""

    def error(self, message: str) -> NoReturn:
        self.exit(BAD_INPUT, f"hardkeel: {message} (hardkeel --help says more)\n")


def run_command(arguments: Sequence[str]) -> int:
    """Run one of `COMMANDS`; the exit code is 0, or 2 for bad input or usage."""
    parsed = _parser().parse_args(arguments)
    command: Callable[[argparse.Namespace], str] = parsed.run
    try:
        text = command(parsed)
    except (BadInput, CannotSave) as fault:
        print(f"hardkeel: {fault}", file=sys.stderr)
        return BAD_INPUT
    sys.stdout.write(text)
    return DONE


def _parser() -> argparse.ArgumentParser:
    parser = _OneLineParser(prog="hardkeel")
    commands = parser.add_subparsers(required=True, metavar="COMMAND")

    true = commands.add_parser("true", help="adjust the survey and say what is out of true")
    true.add_argument("file", type=Path, metavar="FILE", help=_FILE_HELP)
    true.add_argument("--json", action="store_true", help="print unrounded numbers as JSON")
    true.add_argument("--phase", choices=PHASES, help="use the readings of this phase alone")
    true.add_argument("--inches", action="store_true", help="lengths of the table in inches")
    true.set_defaults(run=_true)

    for name, run, words in (
        ("audit", _audit, "find out why a print does not measure up"),
        ("balance", _balance, "where it balances and where the pack must sit"),
        ("parts", _parts, "every part, and where the three lists disagree"),
    ):
        command = commands.add_parser(name, help=words)
        command.add_argument("file", type=Path, metavar="FILE", help=_FILE_HELP)
        command.add_argument("--json", action="store_true", help="print unrounded numbers as JSON")
        command.add_argument("--inches", action="store_true", help="lengths of the table in inches")
        command.set_defaults(run=run)

    export = commands.add_parser("export", help="write the record: PDF, CSV and build.json")
    export.add_argument("file", type=Path, metavar="FILE", help=_FILE_HELP)
    export.add_argument("--to", type=Path, required=True, metavar="DIR", help="made where missing")
    export.add_argument("--phase", choices=PHASES, help="record this phase alone")
    export.add_argument("--inches", action="store_true", help="lengths in inches")
    export.set_defaults(run=_export)
    return parser


def _unit(parsed: argparse.Namespace) -> LengthUnit:
    return "in" if parsed.inches else "mm"


def _true(parsed: argparse.Namespace) -> str:
    build = load(parsed.file).build
    if build.survey is None:
        raise BadInput("survey", "is missing: there are no readings to adjust")
    judgement = judge_survey(build.survey, parsed.phase)
    if parsed.json:
        return _as_text(as_json(judgement))
    return true_table(build, judgement, _unit(parsed))


def _audit(parsed: argparse.Namespace) -> str:
    build = load(parsed.file).build
    if not build.audit:
        raise BadInput("audit", "is missing: there are no pairs to audit")
    if parsed.json:
        return _as_text(audit_json(build))
    return audit_table(build, _unit(parsed))


def _balance(parsed: argparse.Namespace) -> str:
    build = load(parsed.file).build
    if build.balance is None:
        raise BadInput("balance", "is missing: there is nothing to balance to")
    if parsed.json:
        return _as_text(balance_json(build))
    return balance_table(build, _unit(parsed))


def _parts(parsed: argparse.Namespace) -> str:
    build = load(parsed.file).build
    if not parts_of(build):
        raise BadInput("fuselage", "is missing, and wings too: there are no parts to list")
    if parsed.json:
        return _as_text(parts_json(build))
    return parts_table(build, _unit(parsed))


def _as_text(data: object) -> str:
    return json.dumps(data, indent=1, allow_nan=False) + "\n"


def _export(parsed: argparse.Namespace) -> str:
    from hardkeel.export.bundle import export_record  # noqa: PLC0415  the PDF library loads late

    loaded = load(parsed.file)
    build, attached = loaded.build, loaded.attached()
    phase = parsed.phase or build.phase
    written = export_record(build, parsed.to, phase, _unit(parsed), attached)
    return "".join(f"{path}\n" for path in written)
