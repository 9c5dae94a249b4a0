"""Where printed targets are worth most on an airframe: marks of their own on its faces, and which code sits on which.

Leading and trailing edges of lying surfaces at roots and tips, both faces of fins, deck and sides of the fuselage.  A
label lies on the surface: its mark is on the face, as high over the chord line as the section has it.  Where no section
is drawn nobody knows that height, and labels at both edges would tell an incidence that is not so: such a surface has
them along its trailing edge alone, which tell how it is turned and leans, not its incidence.
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from hardkeel.airframe.bodies import surfaces_of
from hardkeel.airframe.shapes import Fin, Surface, VeeHalf
from hardkeel.airframe.tails import thickness_of
from hardkeel.airframe.target_ways import following
from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point
from hardkeel.fuselage.loft import loft_of
from hardkeel.project.model import Build
from hardkeel.survey.model import FUSELAGE, OWN_TARGET, Mark, Survey, Target
from hardkeel.tail.kinds import has
from hardkeel.tail.lofting import loft_of_tail, section_named

SIZES_MM: Final = (25.0, 20.0, 15.0, 12.0)  # the nearer a model is taken from, the smaller
_LARGE_MM: Final = 2000.0  # wider than that a model is not all in a picture from two metres
_RIM: Final = 8 / 6  # of the black square, with its white rim
_EDGE_MM: Final = 2.0  # of the label from an edge of the wood
_ASIDE_MM: Final = 12.0  # from the fuselage's side, at a root
_DECK: Final = (0.05, 0.14, 0.48, 0.58, 0.68, 0.78)  # of the length, where nothing lies over it
_SIDES: Final = (0.1, 0.5, 0.68)
_MOST_ON_DECK: Final = 4
_FIN_HIGH, _FIN_LOW = 0.85, 0.35  # of a fin's height
_LEAST_CHORDS: Final = 2.4  # labels along a chord that carries two


@dataclass(frozen=True, slots=True)
class Proposed:
    """Marks with a target each.

    Attributes
    ----------
    size : float
        The side of the black square, mm.
    """

    marks: tuple[Mark, ...]
    targets: tuple[Target, ...]
    size: float


@dataclass(frozen=True, slots=True)
class Place:
    """Where the middle of a target's square is measured to on its face, mm.

    Attributes
    ----------
    across : float
        `from_` where: in from the tip, out from the fuselage's middle, under the top, or the station.
    along : float
        `to` where: behind the leading edge, before the trailing edge or the hinge line; 0 on the centre line and half
        way up a side.
    """

    from_: Literal["tip", "middle", "top", "station"]
    across: float
    to: Literal["leading edge", "trailing edge", "hinge line", "centre line", "half way up"]
    along: float = 0.0


@dataclass(frozen=True, slots=True)
class _Spot:
    name: str
    body: str
    at: Point
    normal: Point
    place: Place


def places_of(build: Build) -> dict[int, Place]:
    """Where each target sits, by its code; those alone that still lie where they were proposed."""
    spots = {f"{OWN_TARGET}{one.name}": one for one in _spots(build, size_for(build))}
    there = {mark.id: mark.at for mark in build.surveyed.marks}
    return {
        one.code: spots[one.mark].place
        for one in build.surveyed.targets
        if one.mark in spots and spots[one.mark].at == there[one.mark]
    }


def proposed(build: Build) -> Proposed:
    """Targets for an airframe, numbered from 0; those that it has already keep their numbers and their size.

    They are as large as lets every lying surface carry them at both edges, where one of the usual sizes does.
    """
    survey = build.surveyed
    size = size_for(build)
    bodies = {body.id for body in survey.bodies} | {FUSELAGE}
    there = {mark.id for mark in survey.marks}
    used = {target.code for target in survey.targets}
    free = (code for code in range(100) if code not in used)
    marks, targets = [], []
    for spot in _spots(build, size):
        name = f"{OWN_TARGET}{spot.name}"
        if name in there or spot.body not in bodies:
            continue
        code = next(free, None)
        if code is None:
            break
        marks.append(Mark(id=name, body=spot.body, at=spot.at))
        targets.append(Target(code=code, mark=name, normal=spot.normal))
    return Proposed(tuple(marks), tuple(targets), size)


def size_for(build: Build) -> float:
    """The side of the black square, mm: that of the targets there are, else what the surfaces have room for."""
    there = build.surveyed.target_size
    if there is not None and build.surveyed.targets:
        return there
    widest = max(
        (2 * max(one.inner, 0.0) for one in surfaces_of(build) if isinstance(one, Surface)),
        default=0.0,
    )
    sizes = SIZES_MM if widest > _LARGE_MM else SIZES_MM[1:]
    return max(sizes, key=lambda size: (sum(1 for _ in _on_surfaces(build, size)), size))


def without_section(build: Build) -> tuple[str, ...]:
    """Lying surfaces whose faces nobody knows: no section is drawn of them."""
    return tuple(
        shape.id
        for shape in surfaces_of(build)
        if isinstance(shape, Surface) and _over_chord(build, shape, shape.inner, 0.5) is None
    )


def followed(before: Build, after: Build) -> Build:
    """The build after an edit, its targets where the airframe has its faces now."""
    survey = after.surveyed
    if not survey.targets:
        return after
    drawn = _drawn(before) != _drawn(after)
    moved = following(along_with(before, after, survey) if drawn else survey)
    return after if moved == survey else after.but(survey=moved)


def _drawn(build: Build) -> tuple[object, ...]:
    """What of an airframe says where its faces are."""
    return build.fuselage, build.wings, build.tail, build.profiles


def along_with(before: Build, after: Build, survey: Survey) -> Survey:
    """A survey whose targets follow the airframe: those that still lie where the old one had them lie where the new one has.

    A target whose mark went with its surface goes too.
    """
    size = size_for(after)
    was = {f"{OWN_TARGET}{one.name}": one for one in _spots(before, size)}
    now = {f"{OWN_TARGET}{one.name}": one for one in _spots(after, size)}
    moved = {
        mark.id: now[mark.id]
        for mark in survey.marks
        if mark.id in was and mark.id in now and mark.at == was[mark.id].at != now[mark.id].at
    }
    marks = tuple(
        mark.but(at=moved[mark.id].at) if mark.id in moved else mark for mark in survey.marks
    )
    there = {mark.id for mark in marks}
    targets = tuple(
        one.but(normal=moved[one.mark].normal) if one.mark in moved else one
        for one in survey.targets
        if one.mark in there
    )
    return survey.but(marks=marks, targets=targets)


def _spots(build: Build, size: float) -> Iterator[_Spot]:
    yield from _on_surfaces(build, size)
    for shape in surfaces_of(build):
        if isinstance(shape, Fin):
            yield from _on_fin(build, shape)
    yield from _on_fuselage(build, size)


def _on_surfaces(build: Build, size: float) -> Iterator[_Spot]:
    for shape in surfaces_of(build):
        if isinstance(shape, Surface):
            yield from _on_surface(build, shape, size)
        elif isinstance(shape, VeeHalf):
            yield from _on_half(build, shape, size)


def _on_surface(build: Build, shape: Surface, size: float) -> Iterator[_Spot]:
    """Both edges at root and tip of both halves; of one whose panels come off the part that stays on."""
    label = size * _RIM
    tip = shape.inner - label / 2 - _EDGE_MM
    root = min(shape.seat_width / 2 + label / 2 + _ASIDE_MM, tip)
    for hand, side in (("port", -1.0), ("starboard", 1.0)):
        for place, y in (("root", root), ("tip", tip)):
            for edge, share, to in _edges(build, shape.id, shape.chord(y), label):
                known = _over_chord(build, shape, y, share)
                if known is None and edge == "le":
                    continue
                over = known or 0.0
                x, out, z = shape.point(side * y, share)
                lean = math.radians(shape.dihedral)
                normal = (0.0, -side * math.sin(lean), math.cos(lean))
                at = (x, out + over * normal[1], z + over * normal[2])
                found = Place(
                    *_from(shape, y, place), *_to(build, shape.id, to, share, shape.chord(y))
                )
                yield _Spot(
                    f"{shape.id}_{place}_{edge}_{hand}", shape.id, _rounded(at), normal, found
                )


def _from(shape: Surface, y: float, place: str) -> tuple[Literal["tip", "middle"], float]:
    """The tip, where that is what one sees; the middle of the fuselage at a root and where outer panels come off."""
    if place == "tip" and shape.inner == shape.span / 2:
        return "tip", shape.inner - y
    return "middle", y


_To = Literal["leading edge", "trailing edge", "hinge line"]


def _to(build: Build, surface: str, to: _To, share: float, chord: float) -> tuple[_To, float]:
    """How far before or behind an edge."""
    return to, (share if to == "leading edge" else _end(build, surface) - share) * chord


def _end(build: Build, surface: str) -> float:
    """Of the chord, where what does not move ends."""
    tail = next((one for one in build.tail if one.id == surface), None)
    return tail.hinge_at_chord if tail is not None and tail.hinge_at_chord is not None else 1.0


def _edges(
    build: Build, surface: str, chord: float, label: float
) -> Iterator[tuple[str, float, _To]]:
    """Shares of the chord for a label at the leading edge and one at the end of what does not move."""
    end = _end(build, surface)
    rear_edge: _To = "trailing edge" if end == 1.0 else "hinge line"
    front, rear = (label / 2 + _EDGE_MM) / chord, end - (label / 2 + _EDGE_MM) / chord
    if chord * end < _LEAST_CHORDS * label:
        yield "te", end / 2, rear_edge  # the one that there is room for
        return
    yield "le", front, "leading edge"
    yield "te", rear, rear_edge


def _over_chord(build: Build, shape: Surface, y: float, share: float) -> float | None:
    """How far the upper face lies over the chord line, mm; ``None`` where nothing says."""
    chord = shape.chord(y)
    try:
        tail = next((one for one in build.tail if one.id == shape.id), None)
        if tail is not None:
            if tail.root_profile is not None and (tail.kind is None or has(tail, "section")):
                rib = loft_of_tail(tail, build.profiles).rib(min(y, tail.half))
                return float(rib.heights(share * rib.chord)[0])
            return thickness_of(build, tail, y) / 2 if tail.kind is not None else None
        wing = next((one for one in build.wings if one.id == shape.id), None)
        if wing is not None and wing.profile is not None:
            section = section_named(wing.profile, build.profiles, f"wings {wing.id}")
            return chord * float(section.heights(np.array([share]))[0][0])
    except BadInput:  # a section that is not there
        return None
    return None


def _on_half(build: Build, half: VeeHalf, size: float) -> Iterator[_Spot]:
    """A half of a V: both edges at root and tip, out of its upper face."""
    label = size * _RIM
    hand, side = ("starboard", 1.0) if half.starboard else ("port", -1.0)
    lean = math.radians(half.dihedral)
    normal = (0.0, -side * math.sin(lean), math.cos(lean))
    tail = next(one for one in build.tail if one.id == half.of)
    tip = half.half - label / 2 - _EDGE_MM
    for place, out in (
        ("root", min(half.seat_width / 2 + label / 2 + _ASIDE_MM, tip)),
        ("tip", tip),
    ):
        chord = half.root + out / half.half * (half.tip - half.root)
        over = thickness_of(build, tail, out) / 2
        for edge, share, to in _edges(build, half.of, chord, label):
            x, y, z = half.at(out, share)
            at = (x, y + over * normal[1], z + over * normal[2])
            from_: Literal["tip", "middle"] = "tip" if place == "tip" else "middle"
            across = half.half - out if place == "tip" else out
            found = Place(from_, across, *_to(build, half.of, to, share, chord))
            yield _Spot(f"{half.of}_{place}_{edge}_{hand}", half.id, _rounded(at), normal, found)


def _on_fin(build: Build, fin: Fin) -> Iterator[_Spot]:
    """Both faces, two high up and one low."""
    tail = next((one for one in build.tail if one.id == fin.id), None)
    hinge = tail.hinge_at_chord if tail is not None and tail.hinge_at_chord is not None else 1.0
    half = thickness_of(build, tail, 0.0) / 2 if tail is not None and tail.kind is not None else 0.0
    for hand, side in (("port", -1.0), ("starboard", 1.0)):
        normal = (0.0, side, 0.0)
        for name, up, share in (
            ("top_front", _FIN_HIGH, 0.25 * hinge),
            ("top_rear", _FIN_HIGH, 0.75 * hinge),
            ("low", _FIN_LOW, 0.4 * hinge),
        ):
            chord = fin.root + up * (fin.tip - fin.root)
            at = (
                fin.le_x + up * fin.sweep + share * chord,
                fin.y + side * half,
                fin.z + up * fin.height,
            )
            found = Place("top", (1 - up) * fin.height, "leading edge", share * chord)
            yield _Spot(f"{fin.id}_{name}_{hand}", fin.id, _rounded(at), normal, found)


def _on_fuselage(build: Build, size: float) -> Iterator[_Spot]:
    """The deck where it is free and broad enough, and both sides."""
    fuselage = build.fuselage
    if fuselage is None or len(fuselage.stations) < 2:  # noqa: PLR2004  no loft
        return
    loft = loft_of(fuselage)
    first, last = float(loft.stations[0]), float(loft.stations[-1])
    label = size * _RIM
    covered = [
        (shape.le_x - label, shape.le_x + shape.root + label, shape.z)
        for shape in surfaces_of(build)
        if isinstance(shape, Surface | Fin)
    ]
    laid = 0
    for share in _DECK:
        x = first + share * (last - first)
        figures = loft.figures(x)
        under = any(a < x < b and z > figures["top"] - label for a, b, z in covered)
        if under or 2 * figures["half_width"] < label or laid == _MOST_ON_DECK:
            continue
        laid += 1
        at = (x, 0.0, float(figures["top"]))
        found = Place("station", x, "centre line")
        yield _Spot(f"deck_{laid}", FUSELAGE, _rounded(at), (0.0, 0.0, 1.0), found)
    for number, share in enumerate(_SIDES, start=1):
        x = first + share * (last - first)
        figures = loft.figures(x)
        if figures["top"] - figures["bottom"] < label:
            continue
        for hand, side in (("port", -1.0), ("starboard", 1.0)):
            at = (
                x,
                side * float(figures["half_width"]),
                float(figures["top"] + figures["bottom"]) / 2,
            )
            found = Place("station", x, "half way up")
            yield _Spot(f"side_{number}_{hand}", FUSELAGE, _rounded(at), (0.0, side, 0.0), found)


def _rounded(at: Point) -> Point:
    x, y, z = (round(one, 2) for one in at)
    return x, y, z
