"""``hardkeel tail``: ribs, sticks, hinge lines, and what a frame gives for its grams."""

import argparse
from typing import Any

from hardkeel.airframe.tails import (
    clashes_in,
    frame_choices,
    holes_in_sides,
    passing_in,
    tail_mass,
    tail_pieces,
    volumes_of,
)
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, format_length, format_size
from hardkeel.cli.options import as_text, unit_of
from hardkeel.cli.sheets import looked_seconds, sheet_lines, sheets_json
from hardkeel.fuselage.model import Fuselage
from hardkeel.joinery.buying import purchases_of
from hardkeel.messages import flat as say_flat
from hardkeel.messages import tail as say
from hardkeel.messages.frame import ends_words, purchase_sentence
from hardkeel.project.model import Build
from hardkeel.storage.package import Loaded
from hardkeel.tail import telling
from hardkeel.tail.controls import hinge_stations, mismatch_of
from hardkeel.tail.flatness import PHASES, flatness_of
from hardkeel.tail.foam import edge_strips, seal_channel, skins_of
from hardkeel.tail.kinds import has
from hardkeel.tail.model import TailSurface
from hardkeel.tail.pieces import cut_list_of_tail, flat_pieces_of_tail
from hardkeel.tail.ribs import cut_ribs
from hardkeel.tail.stacking import stack_of, trimmed_of

Json = dict[str, Any]


def run(loaded: Loaded, parsed: argparse.Namespace) -> str:
    """What the tail is built from."""
    build = loaded.build
    if not build.tail:
        raise BadInput("tail", "is missing: there is no surface to build")
    seconds = looked_seconds(parsed)
    framed = (build.fuselage or Fuselage()).framed
    if parsed.json:
        told = tail_json(build)
        if seconds is not None:
            told["sheets"] = sheets_json(tail_pieces(build), framed, seconds)
        return as_text(told)
    table = tail_table(build, unit_of(parsed))
    if seconds is not None:
        table += "\n".join(sheet_lines(tail_pieces(build), framed, seconds, unit_of(parsed))) + "\n"
    return table


def tail_json(build: Build) -> Json:
    """The contract's figures, and ours behind them.

    Raises
    ------
    BadInput
        When a figure or a section of a surface is missing, naming the place.
    """
    found: Json = {"ribs": [], "sticks": [], "hinges": [], "surfaces": []}
    for i, surface in enumerate(build.tail):
        if surface.kind is None:
            continue
        place = f"tail[{i}]"
        for name in ("span", "root_chord"):
            if getattr(surface, name) is None and not surface.outline:
                raise BadInput(f"{place}.{name}", "is missing")
        if has(surface, "ribs"):
            found["ribs"] += telling.ribs_json(surface, build.profiles, place)
        found["sticks"] += telling.sticks_json(surface, build.profiles)
        found["hinges"] += telling.hinges_json(surface, build.profiles)
        found["surfaces"].append(_surface_json(build, surface))
    found["touching"] = [
        {
            "parts": list(one.parts),
            "throws": list(one.throws),
            "depth": one.depth,
            "at": list(one.at),
        }
        for one in clashes_in(build)
    ]
    return found


def _surface_json(build: Build, surface: TailSurface) -> Json:
    volumes = volumes_of(build, surface)
    found: Json = {
        "id": surface.id,
        "kind": surface.kind,
        "area": volumes.area,
        "aspect": volumes.aspect,
        "mean_chord": volumes.mean_chord,
        "arm": volumes.arm,
        "volume": volumes.volume,
        "mass": tail_mass(build, surface),
        "pieces": [telling.piece_json(one) for one in flat_pieces_of_tail(surface, build.profiles)],
        "slot": [
            {"hinged": one.hinged, "passes": one.passes, "play": one.play, "over": one.over}
            for one in passing_in(build, surface)
        ],
    }
    if has(surface, "bracing"):
        found["bracing"] = [telling.choice_json(one) for one in frame_choices(build, surface)]
    if has(surface, "ribs") and surface.ribs:
        found["by_hand"] = telling.by_hand_json(surface, build.profiles)
    if surface.tubes and surface.le_x is not None and surface.z is not None:
        found["holes"] = [
            {"id": one.id, "x": one.x, "z": one.z, "diameter": one.diameter, "length": one.length}
            for one in holes_in_sides(build, surface)
        ]
    flat = {phase: flatness_of(surface, phase) for phase in PHASES}
    found["flatness"] = {
        phase: {
            name: {"value": figure.value, "sigma": figure.sigma}
            for name, figure in (
                ("twist", one.twist),
                ("bow", one.bow),
                ("port", one.port),
                ("starboard", one.starboard),
            )
        }
        for phase, one in flat.items()
        if one is not None
    }
    return found


def tail_table(build: Build, unit: LengthUnit) -> str:
    """The same for reading."""
    lines: list[str] = []
    for surface in build.tail:
        if surface.kind is None:
            lines += [f"{say.surface_title(surface)}: {say.kind_words(surface)}", ""]
            continue
        lines += [
            f"{say.surface_title(surface)}, of {say.kind_words(surface)}, {say.grams(tail_mass(build, surface))}"
        ]
        lines.append(f"  {say.volume_sentence(surface, volumes_of(build, surface))}")
        lines += [f"  {one}" for one in _built(build, surface, unit)]
        lines += [f"  {one}" for one in _moving(build, surface, unit)]
        lines.append("")
    clashes = clashes_in(build)
    lines += say.clash_sentences(clashes, unit) or [say.MOVES_FREE]
    return "\n".join(lines) + "\n"


def _built(build: Build, surface: TailSurface, unit: LengthUnit) -> list[str]:
    parts = cut_list_of_tail(surface, build.profiles)
    told = [
        f"{part.quantity} × {part.name}  {format_size(part.section, unit)}  "
        f"{format_length(part.length, unit)}  {ends_words(part)}".rstrip()
        for part in parts
    ]
    told += [purchase_sentence(one, unit) for one in purchases_of(parts)]
    if has(surface, "bracing"):
        told += [say.pinch_sentence(one, unit) for one in frame_choices(build, surface)]
    if has(surface, "ribs") and surface.ribs:
        told += [
            f"rib at {format_length(rib.lofted.y, unit)}: chord {format_length(rib.lofted.chord, unit)}, "
            f"thickness {format_length(rib.lofted.thickness, unit)}"
            for rib in cut_ribs(surface, build.profiles)
            if not rib.half
        ]
        told += say.stack_sentences(stack_of(surface, build.profiles), unit)
        told.append(say.trimmed_sentence(trimmed_of(surface, build.profiles), unit))
    if has(surface, "core"):
        told += [say.skin_sentence(one, unit) for one in skins_of(surface, build.profiles)]
        told += [say.strip_sentence(one, unit) for one in edge_strips(surface, build.profiles)]
        channel = seal_channel(surface)
        told += [say.seal_sentence(channel, unit)] if channel is not None else []
    if surface.tubes and surface.le_x is not None and surface.z is not None:
        told += [say.tube_sentence(one, unit) for one in holes_in_sides(build, surface)]
    return told


def _moving(build: Build, surface: TailSurface, unit: LengthUnit) -> list[str]:
    stations = hinge_stations(surface, build.profiles)
    told = [say.hinge_sentence(stations[0], unit, upright=surface.upright)] if stations else []
    told += [
        one for one in [say.mismatch_sentence(mismatch_of(surface, build.profiles), unit)] if one
    ]
    ways = passing_in(build, surface)
    told += [say.passing_sentence(ways, unit)] if ways else []
    for phase in PHASES:
        flat = flatness_of(surface, phase)
        if flat is not None:
            sentence = say_flat.flat_sentence(flat, unit, upright=surface.upright)
            told.append(f"{say.FLAT_PHASES[phase]}: {say_flat.flat_answer(flat)} {sentence}")
    return told
