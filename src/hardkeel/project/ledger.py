"""Which parts an airframe has, and what all of them weigh where."""

import math
from typing import Final

from hardkeel.balance.model import Balance
from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.model import Former, Fuselage, Longeron
from hardkeel.geometry.spline import arc_lengths
from hardkeel.parts.model import Part
from hardkeel.parts.weighing import Weight, weight_of
from hardkeel.parts.woods import Wood, woods_with
from hardkeel.project.airframe import surfaces_of
from hardkeel.project.build import Build
from hardkeel.project.shapes import Fin, Surface

_SHEETED: Final = ("sheet-sides", "crutch", "board")
_DOUBLER: Final = (1.5, "light-ply")
_DEFAULT_FORMER_MM: Final = 3.0
# What an open wing and tail of balsa ribs and spars weighs as a share of the box around it: a first
# guess for balance, until they are on the scale.
_WING_THICKNESS: Final = 0.12
_WING_SOLID: Final = 0.24
_TAIL_THICK_MM: Final = 5.0
_TAIL_SOLID: Final = 0.75


def parts_of(build: Build) -> tuple[Part, ...]:
    """Every part that follows from the airframe, and the builder's own; by place, nose to tail."""
    parts: list[Part] = []
    if build.fuselage is not None and len(build.fuselage.stops) > 1:
        parts += _fuselage_parts(build.fuselage)
    for shape in surfaces_of(build):
        parts += _fin_parts(shape) if isinstance(shape, Fin) else _surface_parts(shape, build)
    known = {part.id for part in parts}
    parts += [part for part in build.listed.own if part.id not in known]
    return tuple(parts)


def woods_of(build: Build) -> dict[str, Wood]:
    """The materials with the builder's own figures."""
    return woods_with(build.listed.woods)


def weights_of(build: Build, parts: tuple[Part, ...]) -> dict[str, Weight]:
    """What each part weighs, by id."""
    woods, weighed = woods_of(build), build.listed.weighed
    return {part.id: weight_of(part, woods, weighed.get(part.id)) for part in parts}


def balance_wanted(build: Build) -> Balance:
    """The balance section, with a quarter to a third of the chord where nothing is said."""
    return build.balance or Balance(target_percent=30.0)


def _fuselage_parts(fuselage: Fuselage) -> list[Part]:
    loft = loft_of(fuselage)
    first, last = float(loft.stations[0]), float(loft.stations[-1])
    parts = [
        _former_part(fuselage, former) for _, former in fuselage.stops if isinstance(former, Former)
    ]
    station = dict(zip(loft.names, loft.stations, strict=True))
    developed = dict(zip(loft.names, loft.developed(), strict=True))
    for i, section in enumerate(fuselage.sections):
        if section.method not in _SHEETED or fuselage.side_thickness <= 0:
            continue
        a, b = station[section.from_], station[section.to]
        tall = [stop.top - stop.bottom for _, stop in fuselage.stops if a <= stop.station <= b]
        length = float(developed[section.to] - developed[section.from_])
        size = (round(length, 1), round(max(tall), 1), fuselage.side_thickness)
        volume = round(length * sum(tall) / len(tall) * fuselage.side_thickness, 1)
        middle = round(float(a + b) / 2, 1)
        number = "" if i == 0 else f" {i + 1}"
        parts.append(
            Part(
                id=f"side{i + 1}",
                name=f"side{number}",
                kind="side",
                hand="pair",
                material=fuselage.side_material,
                grain="along",
                size=size,
                volume=volume,
                x=middle,
            )
        )
        if section.method == "sheet-sides":
            thickness, ply = _DOUBLER
            parts.append(
                Part(
                    id=f"doubler{i + 1}",
                    name=f"doubler{number}",
                    kind="doubler",
                    hand="pair",
                    material=ply,
                    grain="along",
                    size=(round(length * 0.8, 1), round(min(tall), 1), thickness),
                    x=middle,
                )
            )
    parts += [_longeron_part(fuselage, longeron) for longeron in fuselage.longerons]
    for place, skin in (("top", fuselage.top_skin), ("bottom", fuselage.bottom_skin)):
        if skin > 0:
            widths = [2 * stop.half_width for _, stop in fuselage.stops]
            length = last - first
            parts.append(
                Part(
                    id=f"{place}_sheet",
                    name=f"{place} sheeting",
                    kind="sheeting",
                    material=fuselage.side_material,
                    grain="across",
                    size=(round(length, 1), round(max(widths), 1), skin),
                    volume=round(length * sum(widths) / len(widths) * skin, 1),
                    x=round((first + last) / 2, 1),
                )
            )
    return parts


def _former_part(fuselage: Fuselage, former: Former) -> Part:
    wide = max(2 * (former.half_width - fuselage.side_thickness), 0.0)
    tall = max(former.top - former.bottom - fuselage.top_skin - fuselage.bottom_skin, 0.0)
    thick = former.thickness or _DEFAULT_FORMER_MM
    holes = sum(
        hole.width * hole.height * (math.pi / 4 if hole.kind == "tank" else 1.0)
        for hole in former.cutouts
    )
    return Part(
        id=former.id,
        name=f"former {former.id}",
        kind="former",
        material=former.material,
        grain="across",
        size=(round(tall, 1), round(wide, 1), thick),
        volume=round(max(wide * tall - holes, 0.0) * thick, 1),
        x=former.station,
    )


def _longeron_part(fuselage: Fuselage, longeron: Longeron) -> Part:
    loft = loft_of(fuselage)
    height = loft.bottom if longeron.id == "lower" else loft.top
    length = float(arc_lengths((loft.half_width, height), loft.stations)[-1])
    return Part(
        id=f"longeron_{longeron.id}",
        name=f"{longeron.id} longeron",
        kind="longeron",
        material=longeron.material,
        grain="along",
        quantity=2,
        size=(round(length, 1), longeron.section[1], longeron.section[0]),
        x=round(float(loft.stations[0] + loft.stations[-1]) / 2, 1),
    )


def _surface_parts(shape: Surface, build: Build) -> list[Part]:
    is_wing = shape.id in {wing.id for wing in build.wings}
    mean = (shape.root + shape.tip) / 2
    half = shape.span / 2
    thick = _WING_THICKNESS * mean if is_wing else _TAIL_THICK_MM
    solid = _WING_SOLID if is_wing else _TAIL_SOLID
    name = {"stab": "stabilizer"}.get(shape.id, shape.id.replace("_", " "))
    seat = Part(
        id=f"{shape.id}_seat",
        name=f"{name} seat",
        kind="seat",
        hand="pair",
        material="balsa-hard",
        grain="along",
        size=(round(shape.root, 1), 6.0, 6.0),
        x=round(shape.le_x + shape.root / 2, 1),
        of=shape.id,
    )
    return [
        Part(
            id=f"{shape.id}_half",
            name=f"{name} half",
            kind="panel",
            hand="pair",
            material="balsa-light",
            size=(round(half, 1), round(mean, 1), round(thick, 1)),
            volume=round(half * mean * thick * solid, 1),
            x=round(shape.le_x + shape.sweep / 2 + 0.42 * mean, 1),
            of=shape.id,
        ),
        Part(
            id=f"{shape.id}_tip",
            name=f"{name} tip",
            kind="tip",
            hand="pair",
            material="balsa-light",
            size=(round(shape.tip, 1), 12.0, round(thick, 1)),
            x=round(shape.le_x + shape.sweep + shape.tip / 2, 1),
            of=shape.id,
        ),
        seat,
    ]


def _fin_parts(shape: Fin) -> list[Part]:
    mean = (shape.root + shape.tip) / 2
    return [
        Part(
            id=f"{shape.id}_panel",
            name=shape.id.replace("_", " "),
            kind="panel",
            material="balsa-light",
            size=(round(shape.height, 1), round(mean, 1), _TAIL_THICK_MM),
            volume=round(shape.height * mean * _TAIL_THICK_MM * _TAIL_SOLID, 1),
            x=round(shape.le_x + shape.sweep / 2 + mean / 2, 1),
            of=shape.id,
        )
    ]
