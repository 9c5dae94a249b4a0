"""Which parts an airframe has, and what all of them weigh where."""

from collections.abc import Mapping
from functools import lru_cache
from typing import Final

from hardkeel.airframe.bodies import Shape, surfaces_of
from hardkeel.airframe.frame_parts import member_parts, planking_parts, section_part, stick_parts
from hardkeel.airframe.shapes import Fin, Surface, VeeHalf
from hardkeel.airframe.tail_parts import as_built, built_surfaces
from hardkeel.balance.model import Balance, Mass
from hardkeel.base.errors import BadInput
from hardkeel.fuselage.cutting import shape_of
from hardkeel.fuselage.inside import skins_at
from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.methods import methods_with
from hardkeel.fuselage.model import Former, Fuselage, Longeron
from hardkeel.fuselage.planking import planked_length
from hardkeel.fuselage.sheeted import blanks_of
from hardkeel.fuselage.sheeting import skins_of
from hardkeel.fuselage.wrapping import is_wrapped
from hardkeel.geometry.spline import arc_lengths
from hardkeel.parts.model import Ledger, Part
from hardkeel.parts.weighing import Weight, weight_of
from hardkeel.parts.woods import Wood, woods_with
from hardkeel.project.model import Build

_LEDGER_OF_PARTS: Final = ("states", "weighed", "pairs")  # what the ledger keeps by part
_HAIR: Final = 0.051  # older files hold grams and places to a tenth
_DOUBLER: Final = (1.5, "light-ply")
_DOUBLER_REACH: Final = (
    0.8  # of its stretch: it stops short of the next former, so that the side bends there
)
_DEFAULT_FORMER_MM: Final = 3.0  # the usual former of a sport model, where nothing is said
_PANEL_MIDDLE: Final = 0.42  # of the mean chord: spar and sheeting lie ahead of the middle
_SEAT_MM: Final = 6.0  # a square strip under the root: what a saddle is usually lined with
_TIP_MM: Final = 12.0  # a tip block before it is carved
_USUAL_BALANCE: Final = (
    30.0  # percent of the mean chord: within the quarter to third that plans print
)
# What an open wing and tail of balsa ribs and spars weighs as a share of the box around it: a first
# guess for balance, until they are on the scale.  A wing of 12 % section with sheeted leading edge, ribs
# every 60 mm and two spars fills about a quarter of its box; a tail of 5 mm sticks three quarters.
_WING_THICKNESS: Final = 0.12
_WING_SOLID: Final = 0.24
_TAIL_THICK_MM: Final = 5.0
_TAIL_SOLID: Final = 0.75


def parts_of(build: Build) -> tuple[Part, ...]:
    """Every part that follows from the airframe, and the builder's own; by place, nose to tail."""
    parts: list[Part] = []
    if build.fuselage is not None and len(build.fuselage.stations) > 1:
        parts += _fuselage_parts(build.fuselage.drawn)
    built = built_surfaces(build)
    for shape in surfaces_of(build):
        name, made = _parts_of(shape, build)
        parts += as_built(made, built[name], build) if made and name in built else made
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
    """The balance section, with the usual share of the chord where nothing is said."""
    return build.balance or Balance(target_percent=_USUAL_BALANCE)


@lru_cache(maxsize=4)  # a drag, an edit and what it is held against ask for the same again
def _fuselage_parts(fuselage: Fuselage) -> tuple[Part, ...]:
    loft = loft_of(fuselage)
    first, last = float(loft.stations[0]), float(loft.stations[-1])
    parts = [
        _former_part(fuselage, former)
        for _, former in fuselage.stations
        if isinstance(former, Former)
    ]
    station = dict(zip(loft.names, loft.stations, strict=True))
    developed = dict(zip(loft.names, loft.developed(), strict=True))
    sheet = _sheet_areas(fuselage)
    for i, section in enumerate(fuselage.sections):
        if section.method not in methods_with("sheet") or fuselage.side_thickness <= 0:
            continue
        a, b = station[section.from_], station[section.to]
        tall = [stop.top - stop.bottom for _, stop in fuselage.stations if a <= stop.station <= b]
        length = float(developed[section.to] - developed[section.from_])
        size = (length, max(tall), fuselage.side_thickness)
        area = length * sum(tall) / len(tall)
        if sheet is not None:
            area = sheet.get(section_part("side", section), 0.0)
        if area <= 0:
            continue  # it is planked
        volume = area * fuselage.side_thickness
        middle = float(a + b) / 2
        number = "" if i == 0 else f" {i + 1}"
        parts.append(
            Part(
                id=section_part("side", section),
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
        if section.method in methods_with("doubled") and not _is_doubled(fuselage, a, b):
            thickness, ply = _DOUBLER
            parts.append(
                Part(
                    id=section_part("doubler", section),
                    name=f"doubler{number}",
                    kind="doubler",
                    hand="pair",
                    material=ply,
                    grain="along",
                    size=(length * _DOUBLER_REACH, min(tall), thickness),
                    x=middle,
                )
            )
    parts += [_longeron_part(fuselage, longeron) for longeron in fuselage.longerons]
    parts += member_parts(fuselage)
    parts += stick_parts(fuselage)
    parts += planking_parts(fuselage)
    covered = planked_length(fuselage)
    for place, skin in (("top", fuselage.top_skin), ("bottom", fuselage.bottom_skin)):
        length = last - first - covered
        if skin > 0 and length > 0:
            widths = [2 * stop.half_width for _, stop in fuselage.stations]
            area = length * sum(widths) / len(widths)
            if sheet is not None:
                area = sheet.get(f"{place}_sheet", 0.0)
            parts.append(
                Part(
                    id=f"{place}_sheet",
                    name=f"{place} sheeting",
                    kind="sheeting",
                    material=fuselage.side_material,
                    grain="across",
                    size=(length, max(widths), skin),
                    volume=area * skin,
                    x=(first + last) / 2,
                )
            )
    return tuple(parts)


def _sheet_areas(fuselage: Fuselage) -> dict[str, float] | None:
    """What is cut of each part of sheet, mm²; ``None`` where plain boxes are sheeted, whose area is told at once."""
    if not is_wrapped(fuselage) and fuselage.framed.planking is None:
        return None
    found: dict[str, float] = {}
    pieces = [*blanks_of(fuselage), *(one for skin in skins_of(fuselage) for one in skin.panels)]
    for piece in pieces:
        found[piece.part] = found.get(piece.part, 0.0) + float(piece.polygon.area)
    return found


def _is_doubled(fuselage: Fuselage, a: float, b: float) -> bool:
    """Whether doublers are drawn between two stations: then none is guessed at."""
    spans = [fuselage.span(one) for one in fuselage.framed.members if one.kind == "doubler"]
    return any(first < b and last > a for first, last in spans)


def ledger_renamed(ledger: Ledger, names: Mapping[str, str]) -> Ledger:
    """The ledger with what it says of some parts under their new ids."""
    return ledger.but(
        **{
            field: {names.get(key, key): value for key, value in getattr(ledger, field).items()}
            for field in _LEDGER_OF_PARTS
            if getattr(ledger, field)
        }
    )


def followed(before: Build, after: Build, anew: frozenset[str] = frozenset()) -> Build:
    """`after` with masses and ledger following its parts.

    A mass that stands for a part takes the part's new weight and place, each as long as it still is
    what the part had given it: what the builder weighed or moved stays.  What is said of a part that
    is gone goes with it, so that it does not wait for a namesake.

    Parameters
    ----------
    anew : set of str
        Parts whose mass is taken over whatever it was: they came from the scale just now.
    """
    if not after.masses and after.ledger is None:
        return after
    was = {part.id: part for part in parts_of(before)}
    now = {part.id: part for part in parts_of(after)}
    gone = was.keys() - now.keys()
    if after.ledger is not None and gone:
        kept = {
            field: {k: v for k, v in getattr(after.ledger, field).items() if k not in gone}
            for field in _LEDGER_OF_PARTS
        }
        changed = {k: v for k, v in kept.items() if v != getattr(after.ledger, k)}
        after = after.but(ledger=after.ledger.but(**changed)) if changed else after
    if not after.masses:
        return after
    weighed_was = weights_of(before, tuple(was.values()))
    weighed_now = weights_of(after, tuple(now.values()))
    masses: list[Mass] = []
    for mass in after.masses:
        part, then = now.get(mass.id), was.get(mass.id)
        if part is None or (then is None and mass.id not in anew):
            if mass.id not in gone:
                masses.append(mass)
            continue
        best = weighed_now[part.id].best
        changes: dict[str, object] = {}
        follows = mass.id in anew or _near(mass.mass, weighed_was[part.id].best)
        if best is not None and follows and mass.mass != best:
            changes |= {"mass": best, "weighed": weighed_now[part.id].weighed is not None}
        if part.x is not None and then is not None and _near(mass.x, then.x) and mass.x != part.x:
            changes["x"] = part.x
        masses.append(mass.but(**changes) if changes else mass)
    return after.but(masses=tuple(masses)) if tuple(masses) != after.masses else after


def _near(a: float, b: float | None) -> bool:
    """Whether a figure is the part's own; older files hold it to a tenth."""
    return b is not None and abs(a - b) <= _HAIR


def _wood_area(fuselage: Fuselage, former: Former) -> float:
    """What is left of a former in its own plane, mm²; the box around it where it can't be cut."""
    try:
        return shape_of(fuselage, former).area
    except BadInput:
        return 2 * former.half_width * (former.top - former.bottom)


def _former_part(fuselage: Fuselage, former: Former) -> Part:
    side, top, bottom = skins_at(fuselage, former)
    wide = max(2 * (former.half_width - side), 0.0)
    tall = max(former.top - former.bottom - top - bottom, 0.0)
    thick = former.thickness or _DEFAULT_FORMER_MM
    return Part(
        id=former.id,
        name=f"former {former.id}",
        kind="former",
        material=former.material,
        grain="across",
        size=(tall, wide, thick),
        volume=_wood_area(fuselage, former) * thick,
        x=former.station,
    )


def _longeron_part(fuselage: Fuselage, longeron: Longeron) -> Part:
    loft = loft_of(fuselage)
    height = loft.edge(lower=longeron.is_lower)
    length = float(arc_lengths((loft.half_width, height), loft.stations)[-1])
    return Part(
        id=f"longeron_{longeron.id}",
        name=f"{longeron.id} longeron",
        kind="longeron",
        material=longeron.material,
        grain="along",
        quantity=2,
        size=(length, longeron.section[1], longeron.section[0]),
        x=float(loft.stations[0] + loft.stations[-1]) / 2,
    )


def _parts_of(shape: Shape, build: Build) -> tuple[str, list[Part]]:
    """The parts of a surface, and what it is called; a V is made as one."""
    match shape:
        case Fin():
            return shape.id, _fin_parts(shape)
        case VeeHalf():
            return shape.of, _surface_parts(shape.whole, build) if shape.starboard else []
        case Surface():
            return shape.id, _surface_parts(shape, build)


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
        size=(shape.root, _SEAT_MM, _SEAT_MM),
        x=shape.le_x + shape.root / 2,
        of=shape.id,
    )
    return [
        Part(
            id=f"{shape.id}_half",
            name=f"{name} half",
            kind="panel",
            hand="pair",
            material="balsa-light",
            size=(half, mean, thick),
            volume=half * mean * thick * solid,
            x=shape.le_x + shape.aft(half / 2) + _PANEL_MIDDLE * mean,
            of=shape.id,
        ),
        Part(
            id=f"{shape.id}_tip",
            name=f"{name} tip",
            kind="tip",
            hand="pair",
            material="balsa-light",
            size=(shape.tip, _TIP_MM, thick),
            x=shape.le_x + shape.aft(half) + shape.tip / 2,
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
            size=(shape.height, mean, _TAIL_THICK_MM),
            volume=shape.height * mean * _TAIL_THICK_MM * _TAIL_SOLID,
            x=shape.le_x + shape.sweep / 2 + mean / 2,
            of=shape.id,
        )
    ]
