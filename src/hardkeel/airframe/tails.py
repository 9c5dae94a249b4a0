"""What a tail surface needs to know of the rest of the build: wing, fuselage, woods, and its neighbours."""

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np

from hardkeel.balance.balancing import mean_chord
from hardkeel.base.errors import BadInput
from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.model import Fuselage
from hardkeel.geometry.polygons import shapely
from hardkeel.joinery.cut_part import CutPart
from hardkeel.joinery.flat import FlatPiece
from hardkeel.parts.woods import G_PER_MM3, Wood, woods_with
from hardkeel.project.model import Build
from hardkeel.tail.clearance import Clash, Plate, clashes_of
from hardkeel.tail.controls import thickness_at_hinge
from hardkeel.tail.foam import TubeHole, tube_holes
from hardkeel.tail.grillage import Choice, choices_of
from hardkeel.tail.kinds import has
from hardkeel.tail.lofting import loft_of_tail
from hardkeel.tail.model import Controls, TailSurface
from hardkeel.tail.passing import Passing, Slot, passing_of
from hardkeel.tail.pieces import cut_list_of_tail, flat_pieces_of_tail, wood_volume
from hardkeel.tail.planform import planform_of
from hardkeel.tail.ribs import hinge_x
from hardkeel.tail.stick_frame import frame_thickness

USUAL_WOOD: Final = "balsa-medium"
FRAME_WOODS: Final = ("balsa-light", "balsa-medium", "balsa-hard", "spruce")
_SLOT_PLAY_MM: Final = 0.5  # a sliding fit, each way
_OPEN_BEHIND_MM: Final = 3.0  # of fuselage behind the slot: less than that is cut away
_FELT_MM: Final = 0.1  # less is a brush of paper
_FOIL: Final = 0.5  # of a slot's height that is left over the section, each way


@dataclass(frozen=True, slots=True)
class Volumes:
    """How much tail there is for the wing.

    Attributes
    ----------
    area, aspect, mean_chord : float
        Of the surface, mm² (both halves; a fin's own), and mm.
    arm : float or None
        From the wing's quarter mean chord to this one's, mm.
    volume : float or None
        Tail volume: area times arm over wing area and mean chord (a fin's over the span).
    """

    area: float
    aspect: float
    mean_chord: float
    arm: float | None
    volume: float | None


def volumes_of(build: Build, surface: TailSurface) -> Volumes:
    """Area, aspect ratio, mean chord and tail volume of a surface.

    Tail volume as in any text of aircraft design: V = S·l / (S_w·c_w), a fin's S·l / (S_w·b_w).

    Raises
    ------
    BadInput
        When a figure is missing.
    """
    planform = planform_of(surface)
    area = planform.area / (2 if surface.upright else 1)
    mean, _, front = planform.mean_chord()
    aspect = planform.half**2 / area if surface.upright else planform.aspect
    if not build.wings or surface.le_x is None:
        return Volumes(area, aspect, mean, None, None)
    wing = build.wings[0]
    wing_area = wing.span * (wing.root_chord + wing.tip_chord) / 2
    chord = mean_chord(wing)
    arm = surface.le_x + front + mean / 4 - (chord.le_x + chord.length / 4)
    by = wing.span if surface.upright else chord.length
    # a plate at a dihedral works by the cosine's square: it meets less of the flow, and leans (the contract's trim by role)
    works = area if surface.upright else area * math.cos(math.radians(surface.dihedral)) ** 2
    return Volumes(area, aspect, mean, arm, works * arm / (wing_area * by))


def wood_of(build: Build, name: str | None) -> Wood:
    """A wood of the build, the usual one where none is named."""
    woods = woods_with(build.listed.woods)
    return woods.get(name or USUAL_WOOD, woods[USUAL_WOOD])


def frame_choices(build: Build, surface: TailSurface) -> tuple[Choice, ...]:
    """A stick frame as it is, its next two bracings, and the next wood either way.

    Raises
    ------
    BadInput
        When a figure is missing.
    """
    woods = [wood_of(build, name) for name in FRAME_WOODS]
    own = wood_of(build, surface.material)
    if own.id not in FRAME_WOODS:
        woods.append(own)
    woods.sort(key=lambda wood: wood.density)
    rows = [(wood.id, wood.density, wood.stiffness, wood.shear) for wood in woods]
    return choices_of(surface.but(material=own.id), rows)


def tail_mass(build: Build, surface: TailSurface) -> float:
    """Grams of wood, foam and tubes in a surface; glue and covering are not counted.

    Raises
    ------
    BadInput
        When a figure or a section is missing.
    """
    volumes = wood_volume(surface, build.profiles)
    return sum(v * wood_of(build, name).density * G_PER_MM3 for name, v in volumes.items())


def half_width_at(build: Build, x: float) -> float:
    """Half the fuselage's width at a station, mm; 0 without a fuselage, or beyond its ends."""
    fuselage = build.fuselage
    if fuselage is None or len(fuselage.stations) < 2:  # noqa: PLR2004  no loft
        return 0.0
    loft = loft_of(fuselage)
    if not float(loft.stations[0]) <= x <= float(loft.stations[-1]):
        return 0.0
    return float(loft.figures(x)["half_width"])


def in_a_slot(build: Build, surface: TailSurface) -> bool:
    """Whether a surface goes through the fuselage, rather than lying on it."""
    fuselage = build.fuselage
    if surface.upright or surface.le_x is None or surface.z is None or fuselage is None:
        return False
    if len(fuselage.stations) < 2:  # noqa: PLR2004  no loft
        return False
    loft = loft_of(fuselage)
    x = surface.le_x + 0.3 * (surface.root_chord or 0.0)
    if not float(loft.stations[0]) <= x <= float(loft.stations[-1]):
        return False
    figures = loft.figures(x)
    thick = thickness_of(build, surface, 0.0)
    return (
        figures["bottom"] + 1.0 < surface.z - thick / 2
        and surface.z + thick / 2 < figures["top"] - 1.0
    )


def slot_of(build: Build, surface: TailSurface) -> Slot | None:
    """The opening that a surface goes through, as large as its fixed part with a sliding fit; else ``None``."""
    if not in_a_slot(build, surface) or surface.le_x is None:
        return None
    fuselage = build.fuselage or Fuselage()
    planform = planform_of(surface)
    width = half_width_at(build, surface.le_x + float(planform.chord(0.0)) / 3)
    rear = (
        hinge_x(surface, 0.0)
        if surface.hinge_at_chord is not None
        else float(planform.trailing(0.0))
    )
    rear = (rear or 0.0) + _SLOT_PLAY_MM
    end = max(stop.station for _, stop in fuselage.stations) - surface.le_x
    if end - rear < _OPEN_BEHIND_MM:
        rear = math.inf
    front = float(planform.leading(width)) - _SLOT_PLAY_MM
    height = thickness_of(build, surface, 0.0) + 2 * _FOIL
    return Slot(min(front, -_SLOT_PLAY_MM), rear, height, 2 * max(width, 1.0))


def thickness_of(build: Build, surface: TailSurface, y: float) -> float:
    """Greatest thickness at y, mm; a flat frame's where no section is known."""
    try:
        if surface.root_profile is not None and (surface.kind is None or has(surface, "section")):
            return loft_of_tail(surface, build.profiles).rib(min(y, surface.half)).thickness
    except BadInput:
        pass
    return frame_thickness(surface)


def passing_in(build: Build, surface: TailSurface) -> tuple[Passing, ...]:
    """Whether it passes its slot with none, one or both elevators hinged; nothing without a slot.

    Raises
    ------
    BadInput
        When a figure is missing.
    """
    slot = slot_of(build, surface)
    if slot is None:
        return ()
    ys = np.linspace(0.0, surface.half, 25)
    thick = np.array([thickness_of(build, surface, float(y)) for y in ys])
    return passing_of(surface, slot, lambda y: float(np.interp(y, ys, thick)))


def holes_in_sides(build: Build, surface: TailSurface) -> tuple[TubeHole, ...]:
    """Where a surface's tubes pass the fuselage sides, airframe x and z, mm.

    Raises
    ------
    BadInput
        When a section is missing, or the surface has no place.
    """
    if surface.le_x is None or surface.z is None:
        raise BadInput(f"tail {surface.id}.le_x", "is missing: a hole needs a place")
    wide = half_width_at(build, surface.le_x + (surface.root_chord or 0.0) / 3)
    turn = math.radians(surface.incidence)
    found = []
    middle = (surface.root_chord or 0.0) / 2
    for hole in tube_holes(surface, build.profiles, wide):
        aft = hole.x - middle
        x = surface.le_x + middle + aft * math.cos(turn) + hole.z * math.sin(turn)
        z = surface.z - aft * math.sin(turn) + hole.z * math.cos(turn)
        found.append(TubeHole(hole.id, x, z, hole.diameter, hole.length, hole.inside))
    return tuple(found)


def tail_pieces(build: Build) -> tuple[FlatPiece, ...]:
    """Every flat piece of all surfaces that say how they are built.

    Raises
    ------
    BadInput
        When a figure or a section is missing.
    """
    found: list[FlatPiece] = []
    for surface in build.tail:
        if surface.kind is not None:
            found += flat_pieces_of_tail(surface, build.profiles)
    return tuple(found)


def tail_cut_list(build: Build) -> tuple[CutPart, ...]:
    """Every stick, spar, edge and tube of all surfaces.

    Raises
    ------
    BadInput
        When a figure or a section is missing.
    """
    found: list[CutPart] = []
    for surface in build.tail:
        if surface.kind is not None:
            found += cut_list_of_tail(surface, build.profiles)
    return tuple(found)


def rudder_of(build: Build) -> TailSurface | None:
    """The fin that has a rudder hung on it; ``None`` where there is none."""
    return next((one for one in build.tail if one.upright and one.hinge_at_chord is not None), None)


def clashes_in(build: Build) -> tuple[Clash, ...]:
    """What touches when rudder and elevators move, against fins, each other, the joiner and the fuselage.

    Raises
    ------
    BadInput
        When a figure is missing.
    """
    return _clashes(build.tail, build.fuselage, tuple(build.profiles.items()))


@lru_cache(maxsize=8)
def _clashes(
    tail: tuple[TailSurface, ...], fuselage: Fuselage | None, texts: tuple[tuple[str, str], ...]
) -> tuple[Clash, ...]:
    profiles = dict(texts)
    plates: list[Plate] = []
    for surface in tail:
        if (
            surface.le_x is not None
            and surface.z is not None
            and surface.span
            and surface.root_chord
        ):
            plates += _plates(surface, profiles)
    plates += _sides(fuselage, tail)
    return tuple(
        one for one in clashes_of(plates) if one.depth >= _FELT_MM and not _are_joined(one)
    )


def _are_joined(clash: Clash) -> bool:
    """Parts of one surface: its hinge is bevelled for the throw, its joiner sits in its elevators."""
    one, other = clash.parts
    return one.split()[0] == other.split()[0]


def _plates(surface: TailSurface, profiles: dict[str, str]) -> list[Plate]:
    """The fixed part, the moving part of each half, and the joiner."""
    origin = (surface.le_x or 0.0, surface.y, surface.z or 0.0)
    tilt = math.radians(surface.dihedral)
    whole = shapely.Polygon(planform_of(surface).ring)
    hinge = hinge_x(surface, 0.0)
    thick = (
        thickness_at_hinge(surface, profiles, 0.0)
        if hinge is not None
        else frame_thickness(surface)
    )
    hands = (1,) if surface.upright else (1, -1)
    controls = surface.controls or Controls()
    found: list[Plate] = []
    for hand in hands:
        across = (
            (0.0, 0.0, 1.0) if surface.upright else (0.0, hand * math.cos(tilt), math.sin(tilt))
        )
        words = (
            surface.id if surface.upright else f"{surface.id} {'starboard' if hand > 0 else 'port'}"
        )
        if hinge is None:
            found.append(Plate(words, _ring(whole), origin, (1.0, 0.0, 0.0), across, thick))
            continue
        tip = hinge_x(surface, surface.half) or hinge
        gap = controls.gap / 2
        far = 1e4
        ahead = shapely.Polygon(
            [(hinge - gap, -1e-9), (tip - gap, surface.half), (-far, surface.half), (-far, -1e-9)]
        )
        fixed = whole.intersection(ahead)
        moving = whole.difference(
            shapely.Polygon(
                [
                    (hinge + gap, -1e-9),
                    (tip + gap, surface.half + 1),
                    (-far, surface.half + 1),
                    (-far, -1e-9),
                ]
            )
        ).intersection(shapely.box(-far, controls.inner, far, far))
        found.append(Plate(words, _ring(fixed), origin, (1.0, 0.0, 0.0), across, thick))
        if moving.is_empty:
            continue
        ends = tuple(_at(origin, across, x, y) for x, y in ((hinge, 0.0), (tip, surface.half)))
        # turned by the right hand about a line that goes out to starboard its edge comes up; port the other way
        up, down = (
            (controls.up, -controls.down)
            if surface.upright or hand < 0
            else (-controls.up, controls.down)
        )
        name = f"{words} {'rudder' if surface.upright else 'elevator'}"
        found.append(
            Plate(
                name,
                _ring(moving),
                origin,
                (1.0, 0.0, 0.0),
                across,
                controls.thickness or thick,
                (ends[0], ends[1]),
                (up, 0.0, down),
            )
        )
    if (
        hinge is not None
        and not surface.upright
        and controls.joiner != "none"
        and controls.inner > 0
    ):
        found.append(_joiner(surface, controls, origin, hinge))
    return found


def _joiner(
    surface: TailSurface, controls: Controls, origin: tuple[float, float, float], hinge: float
) -> Plate:
    front = hinge + controls.gap / 2 + 1.0
    ring = tuple(
        (front + x, y)
        for x, y in (
            (0.0, -controls.inner),
            (controls.joiner_size, -controls.inner),
            (controls.joiner_size, controls.inner),
            (0.0, controls.inner),
        )
    )
    ends = (_at(origin, (0.0, 1.0, 0.0), hinge, 0.0), _at(origin, (0.0, 1.0, 0.0), hinge, 1.0))
    return Plate(
        f"{surface.id} joiner",
        ring,
        origin,
        (1.0, 0.0, 0.0),
        (0.0, 1.0, 0.0),
        controls.joiner_size,
        ends,
        (-controls.up, 0.0, controls.down),
    )


def _ring(shape: object) -> tuple[tuple[float, float], ...]:
    parts = [one for one in shapely.get_parts(shape) if one.geom_type == "Polygon"]
    whole = max(parts, key=lambda one: float(one.area))
    return tuple((float(x), float(y)) for x, y in whole.simplify(0.05).exterior.coords[:-1])


def _at(
    origin: tuple[float, float, float], across: tuple[float, float, float], x: float, y: float
) -> tuple[float, float, float]:
    return (origin[0] + x + 0.0 * y, origin[1] + y * across[1], origin[2] + y * across[2])


def _sides(fuselage: Fuselage | None, tail: tuple[TailSurface, ...]) -> list[Plate]:
    """The fuselage sides beside the tail, as upright plates between the formers."""
    if fuselage is None or len(fuselage.stations) < 2 or fuselage.side_thickness <= 0:  # noqa: PLR2004
        return []
    starts = [one.le_x for one in tail if one.le_x is not None]
    if not starts:
        return []
    loft = loft_of(fuselage)
    first, last = max(min(starts), float(loft.stations[0])), float(loft.stations[-1])
    if last - first < 1:
        return []
    xs = np.linspace(first, last, 12)
    figures = [loft.figures(float(x)) for x in xs]
    ring = [(float(x), f["bottom"]) for x, f in zip(xs, figures, strict=True)]
    ring += [(float(x), f["top"]) for x, f in zip(xs, figures, strict=True)][::-1]
    half = float(np.mean([f["half_width"] for f in figures]))
    thick = max(fuselage.side_thickness, 1.0)
    return [
        Plate(
            f"fuselage {words} side",
            tuple(ring),
            (0.0, hand * (half - thick / 2), 0.0),
            (1.0, 0.0, 0.0),
            (0.0, 0.0, 1.0),
            thick,
        )
        for words, hand in (("starboard", 1), ("port", -1))
    ]
