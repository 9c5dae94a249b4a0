"""What ``audit``, ``balance`` and ``parts`` print, as JSON with unrounded numbers or as a table."""

from typing import Any

from hardkeel.balance.balancing import Balanced, balance_of
from hardkeel.balance.model import Balance
from hardkeel.base.units import LengthUnit, format_length
from hardkeel.paper.audit import Finding, audit
from hardkeel.paper.model import Sheet
from hardkeel.parts.handing import wrong_pairs
from hardkeel.parts.lists import compare
from hardkeel.parts.model import Part
from hardkeel.parts.weighing import Weight
from hardkeel.project.build import Build
from hardkeel.project.ledger import parts_of, weights_of
from hardkeel.voice.balance import balance_sentence, bay_sentence, hatch_sentence
from hardkeel.voice.paper import (
    cure_sentence,
    finding_sentence,
    why_sentence,
    wrong_pair_sentence,
)
from hardkeel.voice.parts import difference_sentence, hand_words, pair_sentence


def audit_json(build: Build) -> dict[str, Any]:
    """All sheets, as in the contract."""
    return {"sheets": [_sheet_json(sheet, audit(sheet.pairs)) for sheet in build.audit]}


def _sheet_json(sheet: Sheet, found: Finding) -> dict[str, Any]:
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
        doubt = wrong_pair_sentence(sheet, found, unit)
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


def balance_json(build: Build) -> dict[str, Any]:
    """The contract's figures and where the pack is put."""
    found = balance_of(build.masses, build.wings, build.balance or Balance())
    return {
        "mass": found.mass,
        "mean_chord": found.chord.length if found.chord else None,
        "mean_chord_le_x": found.chord.le_x if found.chord else None,
        "target_x": found.target_x,
        "battery_x": found.battery_x,
        "battery_fits": found.battery_fits,
        "battery_at": found.placed_x,
        "x": found.x,
        "percent": found.percent,
        "nose_weight": found.nose_weight,
    }


def balance_table(build: Build, unit: LengthUnit) -> str:
    """The answer, then the figures."""
    wanted = build.balance or Balance()
    found: Balanced = balance_of(build.masses, build.wings, wanted)
    lines = [
        f"{build.name or 'Unnamed build'}: {balance_sentence(found, wanted, unit)}",
        f"  {bay_sentence(found, wanted, unit)} {hatch_sentence(wanted)}".rstrip(),
        "",
        f"  all-up mass    {found.mass:8.0f} g",
        f"  balance point  {format_length(found.x, unit):>10}"
        + (f"  {found.percent:.1f} % of the mean chord" if found.percent is not None else ""),
        f"  wanted         {format_length(found.target_x, unit):>10}",
    ]
    if found.chord is not None:
        lines.append(
            f"  mean chord     {format_length(found.chord.length, unit):>10}"
            f"  from {format_length(found.chord.le_x, unit)}"
        )
    return "\n".join(lines) + "\n"


def parts_json(build: Build) -> dict[str, Any]:
    """Every part with its state and weight; differences of the lists; pairs of one hand."""
    parts = parts_of(build)
    weights = weights_of(build, parts)
    ledger = build.listed
    return {
        "parts": [_part_json(part, weights[part.id], build) for part in parts],
        "differences": [
            {
                "name": one.name,
                "drawing": one.drawing,
                "printed": one.printed,
                "box": one.box,
                "say": difference_sentence(one),
            }
            for one in compare(parts, ledger.printed, ledger.box)
        ],
        "wrong_pairs": [part.id for part in wrong_pairs(parts, ledger)],
    }


def _part_json(part: Part, weight: Weight, build: Build) -> dict[str, Any]:
    return {
        "id": part.id,
        "name": part.name,
        "kind": part.kind,
        "of": part.of,
        "hand": part.hand,
        "material": part.material,
        "grain": part.grain,
        "quantity": part.quantity,
        "pieces": part.pieces,
        "size": list(part.size),
        "x": part.x,
        "state": build.listed.states.get(part.id, "wanted"),
        "estimated": weight.estimated,
        "weighed": weight.weighed,
        "density": weight.density,
    }


def parts_table(build: Build, unit: LengthUnit) -> str:
    """Parts by line, then what the lists disagree on."""
    parts = parts_of(build)
    weights = weights_of(build, parts)
    lines = [
        f"{build.name or 'Unnamed build'}: {len(parts)} parts, {sum(p.pieces for p in parts)} pieces",
        "",
    ]
    for part in parts:
        size = " × ".join(format_length(side, unit).split(" ")[0].rstrip("″") for side in part.size)
        best = weights[part.id].best
        grams = f"{best:.1f} g" if best is not None else "–"
        state = build.listed.states.get(part.id, "wanted")
        lines.append(
            f"  {part.name:<22}{part.pieces:>3} {hand_words(part):<12}{part.material or '–':<14}"
            f"{size:>22}{grams:>10}  {state}"
        )
    ledger = build.listed
    told = [difference_sentence(one) for one in compare(parts, ledger.printed, ledger.box)]
    told += [pair_sentence(part) for part in wrong_pairs(parts, ledger)]
    if told:
        lines += ["", "Look into", *(f"  {text}" for text in told)]
    return "\n".join(lines) + "\n"
