"""``hardkeel audit``: why a print does not measure up."""

import argparse
from typing import Any

from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, format_length
from hardkeel.cli.options import as_text, unit_of
from hardkeel.messages.paper import (
    cure_sentence,
    doubt_sentence,
    finding_sentence,
    why_sentence,
)
from hardkeel.paper.audit import Finding, audit
from hardkeel.paper.model import PrintedSheet
from hardkeel.project.model import Build
from hardkeel.storage.package import Loaded


def run(loaded: Loaded, parsed: argparse.Namespace) -> str:
    """The pairs of each sheet, and what they come to."""
    build = loaded.build
    if not build.audit:
        raise BadInput("audit", "is missing: there are no pairs to audit")
    return as_text(audit_json(build)) if parsed.json else audit_table(build, unit_of(parsed))


def audit_json(build: Build) -> dict[str, Any]:
    """All sheets, as in the contract."""
    return {"sheets": [_sheet_json(sheet, audit(sheet.pairs)) for sheet in build.audit]}


def _sheet_json(sheet: PrintedSheet, found: Finding) -> dict[str, Any]:
    further = found.next
    return {
        "id": sheet.id,
        "cause": found.cause,
        "probability": found.probability,
        "factor": found.factor,
        "factor_sigma": found.factor_sigma,
        "factor_x": found.factor_x,
        "factor_y": found.factor_y,
        "constant": found.constant,
        "part": found.part,
        "say": f"{finding_sentence(found)} {cure_sentence(found)}",
        "next": None
        if further is None
        else {
            "direction": further.direction,
            "kind": further.kind,
            "part": further.part,
            "why": why_sentence(further),
        },
        "probabilities": dict(found.probabilities),
        "doubtful_pair": found.wrong,
    }


def audit_table(build: Build, unit: LengthUnit) -> str:
    """Each sheet with its cause, what to do, and its pairs."""
    lines: list[str] = []
    for sheet in build.audit:
        found = audit(sheet.pairs)
        lines += [f"{sheet.id}: {finding_sentence(found, unit)}", f"  {cure_sentence(found, unit)}"]
        if found.next is not None:
            lines.append(f"  {why_sentence(found.next)}")
        doubt = doubt_sentence(sheet, found, unit)
        if doubt:
            lines.append(f"  {doubt}")
        for pair, fitted in zip(sheet.pairs, found.fitted, strict=True):
            lines.append(
                f"    {pair.part or '':<17}{pair.kind:<13}{pair.direction}"
                f"{format_length(pair.plan, unit):>12}{format_length(pair.measured, unit):>12}"
                f"{format_length(pair.measured - pair.plan, unit):>11}"
                f"{format_length(pair.measured - fitted, unit):>10} left"
            )
        lines.append("")
    return "\n".join(lines)
