"""``hardkeel frame``: sides, formers, bends, what to cut and what to buy."""

import argparse
from typing import Any

import numpy as np

from hardkeel.airframe.framing import build_pieces, limits_of, stiffness_of
from hardkeel.base.errors import BadInput
from hardkeel.base.units import LengthUnit, format_angle, format_length, format_size
from hardkeel.cli.options import as_text, unit_of
from hardkeel.cli.sheets import looked_seconds, sheet_lines, sheets_json
from hardkeel.fuselage.bending import bends_of
from hardkeel.fuselage.bending_forces import pulls_of
from hardkeel.fuselage.chamfers import leaving_longerons_of, post_chamfer_of
from hardkeel.fuselage.contours import area_of, contour_of, girth_of
from hardkeel.fuselage.curing import judge_frame
from hardkeel.fuselage.cut_list import cut_list_of
from hardkeel.fuselage.fitting import fitted_formers
from hardkeel.fuselage.inside import blank_of
from hardkeel.fuselage.inspecting import findings_of
from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.model import Fuselage
from hardkeel.fuselage.planking import planks_of
from hardkeel.fuselage.sheeted import edge_lengths_of
from hardkeel.fuselage.sheeting import strained_skins_of
from hardkeel.fuselage.squared_telling import squaring_json
from hardkeel.fuselage.sticks import closed_stations
from hardkeel.fuselage.surface import surface_of
from hardkeel.joinery.buying import purchases_of
from hardkeel.joinery.cut_part import CutPart
from hardkeel.joinery.flat import FlatPiece
from hardkeel.messages.findings import finding_sentence, finding_title
from hardkeel.messages.frame import (
    bend_sentence,
    closed_sentence,
    edge_sentence,
    ends_words,
    purchase_sentence,
    strained_sentence,
)
from hardkeel.messages.layout import girth_words
from hardkeel.messages.planking import PLANKING, planking_answer, planking_lines, planking_table
from hardkeel.messages.square import SQUARE, squared_lines
from hardkeel.project.model import Build
from hardkeel.storage.package import Loaded


def run(loaded: Loaded, parsed: argparse.Namespace) -> str:
    """What the fuselage is framed from."""
    build = loaded.build
    if build.fuselage is None:
        raise BadInput("fuselage", "is missing: there is nothing to frame")
    if parsed.json:
        told = frame_json(build, seconds=looked_seconds(parsed))
        if parsed.at is not None:
            told["at"] = section_json(build.fuselage, parsed.at)
        return as_text(told)
    table = frame_table(build, unit_of(parsed), seconds=looked_seconds(parsed))
    return table if parsed.at is None else table + _section_line(build.fuselage, parsed)


def section_json(fuselage: Fuselage, station: float) -> dict[str, Any]:
    """The loft's section at a station: girth and area, its contour as one ring.

    Raises
    ------
    BadInput
        When it lies outside the fuselage.
    """
    surface = surface_of(fuselage)
    first, last = float(surface.stations[0]), float(surface.stations[-1])
    if not first <= station <= last:
        raise BadInput("--at", f"{station:g} lies outside the fuselage, {first:g} to {last:g} mm")
    at = np.array([station])
    half = surface.half(at)[0]
    ring = [*half.tolist(), *(half[-2:0:-1] * (-1.0, 1.0)).tolist()]
    return {
        "station": station,
        "girth": float(surface.girth(at)[0]),
        "area": float(surface.area(at)[0]),
        "contour": ring,
    }


def _section_line(fuselage: Fuselage, parsed: argparse.Namespace) -> str:
    unit, told = unit_of(parsed), section_json(fuselage, parsed.at)
    words = girth_words(told["girth"], told["area"], unit)
    return f"\n{format_length(parsed.at, unit)}: {words}\n"


def frame_json(build: Build, *, seconds: float | None = None) -> dict[str, Any]:
    """The contract's figures.

    Parameters
    ----------
    sheets : bool
        Nest the flat pieces, too.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    fuselage = build.fuselage or Fuselage()
    loft, parts = loft_of(fuselage), cut_list_of(fuselage)
    developed, framed = loft.developed(), fuselage.framed
    limits = limits_of(build)
    found = {
        "sides": {
            "plan_length": float(loft.stations[-1] - loft.stations[0]),
            "developed_length": float(developed[-1]),
            "stations": [
                {"id": name, "station": float(x), "developed": float(s)}
                for name, x, s in zip(loft.names, loft.stations, developed, strict=True)
            ],
        },
        "formers": [
            {
                "id": one.id,
                "station": one.station,
                "inner_half_width": one.inner_half_width,
                "edge_bevel": one.edge_bevel,
                "spacer": one.spacer,
            }
            for one in fitted_formers(fuselage)
        ],
        "bends": [
            {
                "member": bend.member,
                "smallest_radius": bend.radius,
                "at_station": bend.at_station,
                "strain_percent": bend.strain,
                "verdict": bend.verdict,
            }
            for bend in bends_of(fuselage, limits)
        ],
        "cut_list": [_cut_json(part) for part in parts],
        "closed": [
            {"station": name, "lacking": lacking} for name, lacking in closed_stations(fuselage)
        ],
        "buy": [
            {
                "section": list(one.section),
                "material": one.material,
                "stock_length": one.stock,
                "pieces": one.pieces,
                "at_least": one.at_least,
                "waste_percent": one.waste,
                "scarfed": one.joined,
                "cuts": [list(strip) for strip in one.cuts],
                "own": [{"length": length, "cuts": list(cuts)} for length, cuts in one.own],
            }
            for one in purchases_of(parts, framed.kerf, framed.stock)
        ],
        "findings": [
            {
                "former": one.former,
                "kind": one.kind,
                "ref": one.ref,
                "other": one.other,
                "figure": one.figure,
                "left": dict(one.left),
                "at": one.at,
            }
            for one in findings_of(fuselage)
        ],
    }
    found["loft"] = [
        {
            "id": one.id,
            "station": one.station,
            "girth": girth_of(one),
            "area": area_of(one),
            "contour": [list(point) for point in contour_of(one)],
        }
        for one in sorted(fuselage.formers, key=lambda former: former.station)
    ]
    if fuselage.squaring is not None:
        found["squaring"] = squaring_json(fuselage)
    return found if fuselage.framing is None else found | _framed_json(build, seconds)


def _blank_json(fuselage: Fuselage, piece: FlatPiece) -> dict[str, Any]:
    """Of a former the wood before notches: the contour less its skins."""
    former = fuselage.former(piece.part) if piece.kind == "former" else None
    return (
        {} if former is None else {"blank": [list(point) for point in blank_of(fuselage, former)]}
    )


def _framed_json(build: Build, seconds: float | None) -> dict[str, Any]:
    """What a build with our own ``framing`` has beside the contract's figures."""
    fuselage = build.fuselage or Fuselage()
    framed, pieces = fuselage.framed, build_pieces(build)
    post = post_chamfer_of(fuselage)
    laid = {} if seconds is None else {"sheets": sheets_json(pieces, framed, seconds)}
    return laid | {
        "pieces": [
            {
                "name": one.name,
                "kind": one.kind,
                "part": one.part,
                "material": one.material,
                "thickness": one.thickness,
                "quantity": one.quantity,
                "pair": one.pair,
                "outline": [list(point) for point in one.outline],
                "holes": [[list(point) for point in hole] for hole in one.holes],
                **_blank_json(fuselage, one),
            }
            for one in pieces
        ],
        "planks": [
            {
                "id": one.id,
                "side": one.side,
                "widths": dict(one.widths),
                "bevels": dict(one.bevels),
                "length": one.length,
                "edgewise_strain_percent": one.edgewise,
                "at_station": one.at,
            }
            for one in planks_of(fuselage).planks
        ],
        "pulls": [
            {"stop": one.stop, "station": one.station, "force": one.force}
            for one in pulls_of(fuselage, stiffness_of(build))
        ],
        "edges": [
            {"from": one.from_, "to": one.to, "top": one.top, "bottom": one.bottom}
            for one in edge_lengths_of(fuselage)
        ],
        "tail_post": None
        if post is None
        else {"sides": post.sides, "top": post.top, "bottom": post.bottom},
        "leaving": [
            {
                "longeron": one.longeron,
                "stop": one.stop,
                "in_plan": one.in_plan,
                "in_side": one.in_side,
                "swing": one.mitre,
                "tilt": one.bevel,
                "notch": one.notch,
            }
            for one in leaving_longerons_of(fuselage)
        ],
    }


def _cut_json(part: CutPart) -> dict[str, Any]:
    told: list[float | list[float] | None] = [
        end[0] if len(end) == 1 else list(end) for end in part.ends
    ]
    first, last = told or (None, None)
    return {
        "part": part.name,
        "kind": part.kind,
        "quantity": part.quantity,
        "section": list(part.section),
        "length": part.length,
        "angle_a": first,
        "angle_b": last,
        "material": part.material,
    }


def frame_table(build: Build, unit: LengthUnit, *, seconds: float | None = None) -> str:
    """Sides and formers, bends, the cut list, the wood to buy."""
    fuselage = build.fuselage or Fuselage()
    loft, parts = loft_of(fuselage), cut_list_of(fuselage)
    developed = float(loft.developed()[-1])
    plan = float(loft.stations[-1] - loft.stations[0])
    limits, framed = limits_of(build), fuselage.framed
    name, side = build.name or "Unnamed build", format_length(developed, unit)
    lines = [
        f"{name}: sides {side} long, {format_length(developed - plan, unit)} more than drawn",
        "",
        "  former      station   inside half    bevel      spacer",
    ]
    for one in fitted_formers(fuselage):
        spacer = format_length(one.spacer, unit) if one.spacer is not None else "–"
        lines.append(
            f"  {one.id:<8}{format_length(one.station, unit):>12}"
            f"{format_length(one.inner_half_width, unit):>14}{format_angle(one.edge_bevel, 1):>9}{spacer:>12}"
        )
    lines += ["", *(f"  {bend_sentence(bend, unit)}" for bend in bends_of(fuselage, limits)), ""]
    for part in parts:
        size = format_size(part.section, unit)
        lines.append(
            f"  {part.quantity} {part.name:<18}{size:>16}{format_length(part.length, unit):>12}"
            f"  {ends_words(part)}".rstrip()
        )
    planking = framed.planking
    if planking is not None:
        planked = planks_of(fuselage)
        lines += ["", f"{PLANKING}: {planking_answer(planked, planking, unit)}"]
        lines += [f"  {text}" for text in planking_lines(planked, planking, limits, unit)]
        lines += planking_table(planked, unit)
    shut = [closed_sentence(name, lack, unit) for name, lack in closed_stations(fuselage)]
    shut += [
        f"{one.former}: {finding_title(one)} {finding_sentence(one, unit, framed.web)}"
        for one in findings_of(fuselage)
    ]
    shut += [edge_sentence(one, unit) for one in edge_lengths_of(fuselage)]
    shut += [strained_sentence(one) for one in strained_skins_of(fuselage)]
    if shut:
        lines += ["", "Look into", *(f"  {text}" for text in shut)]
    if fuselage.squaring is not None:
        told = squared_lines(judge_frame(fuselage), unit)
        lines += ["", SQUARE, *(f"  {text}" for text in told)]
    bought = purchases_of(parts, framed.kerf, framed.stock)
    lines += ["", "Buy", *(f"  {purchase_sentence(one, unit)}" for one in bought)]
    if fuselage.framing is not None and seconds is not None:
        lines += sheet_lines(build_pieces(build), framed, seconds, unit)
    return "\n".join(lines) + "\n"
