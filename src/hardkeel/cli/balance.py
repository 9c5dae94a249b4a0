"""``hardkeel balance``: where it balances and where the pack must sit."""

import argparse
from typing import Any

from hardkeel.airframe.hatches import depth_under
from hardkeel.balance.balancing import Balanced, balance_of
from hardkeel.balance.model import Balance
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, format_length
from hardkeel.cli.options import as_text, unit_of
from hardkeel.messages.balance import balance_sentence, bay_sentence, hatch_sentence
from hardkeel.project.model import Build
from hardkeel.storage.package import Loaded


def run(loaded: Loaded, parsed: argparse.Namespace) -> str:
    """The answer and its figures."""
    build = loaded.build
    if build.balance is None:
        raise BadInput("balance", "is missing: there is nothing to balance to")
    return as_text(balance_json(build)) if parsed.json else balance_table(build, unit_of(parsed))


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
        f"  {bay_sentence(found, wanted, unit)} {hatch_sentence(wanted, depth_under(build.fuselage))}".rstrip(),
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
