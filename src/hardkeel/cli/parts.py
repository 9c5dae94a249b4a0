"""``hardkeel parts``: every part, and where the three lists disagree."""

import argparse
from typing import Any

from hardkeel.airframe.parts import parts_of, weights_of
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, format_size
from hardkeel.cli.options import as_text, unit_of
from hardkeel.messages.counting import number_of
from hardkeel.messages.parts import difference_sentence, hand_words, pair_sentence, wood_sentence
from hardkeel.parts.handing import wrong_pairs
from hardkeel.parts.lists import compare, wood_differences
from hardkeel.parts.model import Part
from hardkeel.parts.weighing import Weight
from hardkeel.project.model import Build
from hardkeel.storage.package import Loaded


def run(loaded: Loaded, parsed: argparse.Namespace) -> str:
    """Every part with its state and weight."""
    build = loaded.build
    if not parts_of(build):
        raise BadInput("fuselage", "is missing, and wings too: there are no parts to list")
    return as_text(parts_json(build)) if parsed.json else parts_table(build, unit_of(parsed))


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
        "woods": [
            {
                "name": one.name,
                "list": one.listed_in,
                "drawing": list(one.drawn),
                "listed": list(one.listed),
                "say": wood_sentence(one),
            }
            for one in wood_differences(parts, ledger.printed, ledger.box)
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
        f"{build.name or 'Unnamed build'}: {number_of(len(parts), 'part')}, {number_of(sum(p.pieces for p in parts), 'piece')}",
        "",
    ]
    for part in parts:
        size = format_size(part.size, unit)
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
