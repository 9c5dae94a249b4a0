"""What stands in space of a build: formers, sticks, longerons, members, skin; wings and tail about it."""

from collections.abc import Iterator
from functools import lru_cache
from itertools import pairwise
from typing import Final

import numpy as np

from hardkeel.fuselage.contours import bare
from hardkeel.fuselage.cutting import shape_of
from hardkeel.fuselage.flatwork import flatwork_of
from hardkeel.fuselage.fronting import nose_layers
from hardkeel.fuselage.inside import inside_skins, skins_at
from hardkeel.fuselage.loft import Loft, loft_of
from hardkeel.fuselage.methods import side_at
from hardkeel.fuselage.model import Fuselage
from hardkeel.fuselage.notching import stringer_hands
from hardkeel.fuselage.planking import planks_of
from hardkeel.fuselage.running import longeron_corner, lying, seats_on
from hardkeel.fuselage.squaring import Squared
from hardkeel.fuselage.standing import faces_of
from hardkeel.fuselage.sticks import sticks_of
from hardkeel.fuselage.surface import Surface, surface_of
from hardkeel.geometry.polygons import shapely
from hardkeel.geometry.rotation import Array
from hardkeel.joinery.flat import FlatPiece
from hardkeel.picture.in_space import Face, Moves, Space, bar, facing_out, prism
from hardkeel.picture.truing import body_ring, rings_shown
from hardkeel.picture.wood import tone_of
from hardkeel.project.model import Build
from hardkeel.survey.judging import Judgement
from hardkeel.survey.model import FUSELAGE

_ALONG: Final = np.array((1.0, 0.0, 0.0))
_ACROSS: Final = np.array((0.0, 1.0, 0.0))
_SKIN_SHARES: Final = np.array((0.0, 0.25, 0.5, 0.75, 1.0, 1.25, 1.5, 1.75, 2.0))
_CORNER_DEGREES: Final = 25.0
_BETWEEN: Final = 2  # places of a stick between two formers, where it is bent
_SMOOTH_MM: Final = 0.15  # of a former's outline, too little to be seen
_CRUMB_MM2: Final = 1.0


def in_space(build: Build) -> Space:
    """A build's framed fuselage with its skin, and its other bodies as they are wanted.

    Raises
    ------
    BadInput
        When a former's outline crosses itself.
    """
    space = Space()
    fuselage = build.fuselage
    if fuselage is not None and len(fuselage.stations) > 1:
        space.faces += _framed(fuselage.drawn)
    space.faces += surfaces_in_space(build)
    return space


def surfaces_in_space(build: Build) -> Iterator[Face]:
    """Wings and tail as flat faces, behind or before the fuselage as they lie."""
    survey = build.surveyed
    for body in survey.bodies:
        if body.id != FUSELAGE:
            ring = np.array(body_ring(survey, body), dtype=float)
            yield Face(body.id, (ring,), None, 0, layer="surface")


def trued_in_space(build: Build, judgement: Judgement, factor: float) -> tuple[Space, Space]:
    """The airframe as it is believed to stand, its error enlarged; and the lines of what is wanted.

    Raises
    ------
    BadInput
        As `in_space`.
    """
    rings = rings_shown(build, judgement, factor)
    space, wanted = in_space(build), Space()
    space.faces = [face for face in space.faces if face.layer != "surface"]
    for body, (ring, now) in rings.items():
        space.faces.append(Face(body, (np.array(now),), None, 0, layer="surface"))
        wanted.lines.append((body, np.array([*ring, ring[0]], dtype=float)))
    return space, wanted


def moves_of(fuselage: Fuselage, squared: Squared, enlarged: float) -> Moves | None:
    """How a frame stands away from its drawing, so many times enlarged; ``None`` where nothing was read."""
    if not squared.formers or not squared.readings:
        return None
    board = fuselage.board
    hand = -1.0 if board is not None and board.inverted else 1.0
    design = {mark.id: mark.at for mark in squared.net.survey.marks}
    now = squared.solution.placed.airframe
    boxes, corners = [], []
    for name in squared.formers:
        former = fuselage.former(name)
        if former is None:
            return None
        boxes.append((former.half_width, former.bottom, former.top))
        found = []
        for corner in ("bp", "bs", "ts", "tp"):
            mark = f"{name}.{corner}"
            by = np.array(now[squared.net.index[mark]]) - np.array(design[mark])
            found.append(enlarged * by * (1.0, hand, hand))
        corners.append(found)
    return Moves(np.array(squared.stations, dtype=float), np.array(boxes), np.array(corners))


@lru_cache(maxsize=4)
def _framed(fuselage: Fuselage) -> tuple[Face, ...]:
    """Everything of a fuselage; kept while nothing of it changes."""
    made = _Framed(fuselage)
    return (
        *made.formers(),
        *made.longerons(),
        *made.sticks(),
        *made.stringers(),
        *made.flat_members(),
        *made.noses(),
        *made.sheet(),
        *made.planks(),
    )


class _Framed:
    def __init__(self, fuselage: Fuselage) -> None:
        self._fuselage = fuselage
        self._loft: Loft = loft_of(fuselage)
        self._surface: Surface = surface_of(fuselage)
        self._stations = self._loft.stations
        self._formers = sorted(fuselage.formers, key=lambda one: one.station)

    def _bay(self, x: float) -> int:
        """Twice the number of the stop ahead of a place, and one more."""
        return 2 * int(np.searchsorted(self._stations, x, side="right")) - 1

    def _at(self, station: float) -> int:
        return 2 * int(np.searchsorted(self._stations, station))

    def formers(self) -> Iterator[Face]:
        for former in self._formers:
            shape = shape_of(self._fuselage, former)
            for rings in shape.pieces:
                outline, *holes = (_smooth(ring) for ring in rings)
                yield from prism(
                    former.id,
                    outline,
                    holes,
                    faces_of(self._fuselage, former),
                    0,
                    self._at(former.station),
                    tone=tone_of(former.material),
                    grain=_ACROSS,
                )

    def _places(self, first: float, last: float) -> tuple[Array, list[int]]:
        """Stations of a stick, a few between two stops, and the bays of its stretches."""
        knots = [first, *(x for x in self._stations if first < x < last), last]
        pieces = [np.linspace(a, b, _BETWEEN + 1)[:-1] for a, b in pairwise(knots)]
        x = np.concatenate([*pieces, [last]])
        return x, [self._bay(float((a + b) / 2)) for a, b in pairwise(x)]

    def longerons(self) -> Iterator[Face]:
        x, bays = self._places(float(self._stations[0]), float(self._stations[-1]))
        for longeron in self._fuselage.longerons:
            across, deep = longeron.section
            y, z = self._corner_line(longeron.id, x)
            up = deep if longeron.is_lower else -deep
            for hand in (-1, 1):
                inner = np.maximum(y - across, 0.0)
                corners = np.stack(
                    [
                        np.column_stack([x, hand * one, other])
                        for one, other in ((y, z), (inner, z), (inner, z + up), (y, z + up))
                    ],
                    axis=1,
                )
                yield from bar(
                    f"longeron {longeron.id}",
                    corners,
                    bays,
                    hand=hand,
                    tone=tone_of(longeron.material),
                )

    def _corner_line(self, name: str, x: Array) -> tuple[Array, Array]:
        """A longeron's outer corner along the fuselage, half-width and height."""
        fuselage = self._fuselage
        longeron = next(one for one in fuselage.longerons if one.id == name)
        skin = fuselage.bottom_skin if longeron.is_lower else -fuselage.top_skin
        half = np.array([side_at(fuselage, float(at)) for at in x])
        y = np.maximum(self._loft.half_width.value(x) - half, 0.0)
        z = self._loft.edge(lower=longeron.is_lower).value(x) + skin
        round_ones = [
            (one, longeron_corner(longeron, inside_skins(fuselage, one)))
            for one in self._formers
            if one.section is not None or one.outline or one.corner
        ]
        there = [(one.station, at) for one, at in round_ones if at is not None]
        if len(there) == len(self._formers) > 1:
            at = [station for station, _ in there]
            y = np.interp(x, at, [place[0] for _, place in there])
            z = np.interp(x, at, [place[1] for _, place in there])
        return y, z

    def sticks(self) -> Iterator[Face]:
        developed = self._loft.developed()
        thin = self._fuselage.side_material
        for stick in sticks_of(self._fuselage):
            ring = np.array(stick.outline)
            x = np.interp(ring[:, 0], developed, self._stations)
            outer = self._loft.half_width.value(x)
            inner = np.maximum(outer - stick.section[0], 0.0)
            bay = self._bay(float(x.mean()))
            for hand in (-1, 1):
                faces = [np.column_stack([x, hand * y, ring[:, 1]]) for y in (outer, inner)]
                middle = np.vstack(faces).mean(axis=0)
                along = faces[0][np.argmax(ring[:, 1])] - faces[0][np.argmin(ring[:, 1])]
                along /= max(float(np.linalg.norm(along)), 1e-9)
                more = {"hand": hand, "tone": tone_of(thin), "grain": along}
                for face in faces:
                    yield facing_out(stick.key, face, middle, bay, **more)
                for k in range(len(ring)):
                    m = (k + 1) % len(ring)
                    quad = np.array([faces[0][k], faces[0][m], faces[1][m], faces[1][k]])
                    yield facing_out(stick.key, quad, middle, bay, **more)

    def stringers(self) -> Iterator[Face]:
        for member in self._fuselage.framed.members:
            if member.kind != "stringer" or member.section is None:
                continue
            deep, wide = member.section
            first, last = self._fuselage.span(member)
            under = [one for one in self._formers if first <= one.station <= last]
            for hand in stringer_hands(member):
                rows = []
                for former in under:
                    skins = skins_at(self._fuselage, former)
                    seats = seats_on(bare(former), skins, (lying(member),), hand)
                    if seats.there[0]:
                        rows.append(
                            _section_at(former.station, seats.at[0], seats.out[0], deep, wide)
                        )
                if len(rows) > 1:
                    bays = [self._bay(float((a[0, 0] + b[0, 0]) / 2)) for a, b in pairwise(rows)]
                    side = 0 if member.angle in (0.0, 180.0) else hand
                    tone = tone_of(member.material)
                    yield from bar(member.id, np.array(rows), bays, hand=side, tone=tone)

    def flat_members(self) -> Iterator[Face]:
        members = {one.id: one for one in self._fuselage.framed.members}
        for piece in flatwork_of(self._fuselage):
            member = members.get(piece.part)
            if member is None or piece.kind in ("hatch-frame", "nose-block"):
                continue
            half = piece.thickness / 2
            if piece.kind == "keel":
                sides = (-abs(member.y), abs(member.y)) if member.y else (0.0,)
                for y in sides:
                    yield from self._cut(piece, 1, (y - half, y + half), int(np.sign(y)))
            else:
                yield from self._cut(piece, 2, (member.z - half, member.z + half), 0)

    def noses(self) -> Iterator[Face]:
        """Nose blocks and rings, layer by layer, before everything else."""
        for member in self._fuselage.framed.members:
            if member.kind != "nose-block":
                continue
            for number, layer in enumerate(reversed(nose_layers(self._fuselage, member)), start=1):
                for part in shapely.get_parts(layer.wood):
                    yield from prism(
                        member.id,
                        _smooth(part.exterior.coords),
                        [_smooth(hole.coords) for hole in part.interiors],
                        (layer.front, layer.rear),
                        0,
                        -number,
                        tone=tone_of(member.material),
                        grain=_ACROSS,
                    )

    def _cut(
        self, piece: FlatPiece, axis: int, thick: tuple[float, float], hand: int
    ) -> Iterator[Face]:
        """A piece that lies along the fuselage, cut at its stops."""
        left, low, right, high = piece.bounds
        knots = [left, *(x for x in self._stations if left < x < right), right]
        for a, b in pairwise(knots):
            part = piece.polygon.intersection(shapely.box(a, low - 1, b, high + 1))
            for one in shapely.get_parts(part):
                if one.geom_type == "Polygon" and one.area > _CRUMB_MM2:
                    yield from prism(
                        piece.part,
                        np.array(one.exterior.coords)[:-1],
                        [np.array(hole.coords)[:-1] for hole in one.interiors],
                        thick,
                        axis,
                        self._bay((a + b) / 2),
                        hand=hand,
                        tone=tone_of(piece.material),
                        grain=_ALONG,
                    )

    def sheet(self) -> Iterator[Face]:
        """Skin between the stops, where no planks lie."""
        if planks_of(self._fuselage).planks or not self._is_sheeted():
            return
        surface = self._surface
        shares = self._skin_shares()
        points = surface.half(self._stations)
        rows = [
            np.column_stack([np.interp(shares, surface.shares, row[:, i]) for i in (0, 1)])
            for row in points
        ]
        tone = tone_of(self._fuselage.side_material)
        for i, (one, other) in enumerate(pairwise(rows)):
            a, b = self._stations[i], self._stations[i + 1]
            middle = np.array(((a + b) / 2, 0.0, (one[:, 1].mean() + other[:, 1].mean()) / 2))
            for k in range(len(shares) - 1):
                for hand in (-1, 1):
                    quad = np.array(
                        [
                            (a, hand * one[k, 0], one[k, 1]),
                            (b, hand * other[k, 0], other[k, 1]),
                            (b, hand * other[k + 1, 0], other[k + 1, 1]),
                            (a, hand * one[k + 1, 0], one[k + 1, 1]),
                        ]
                    )
                    yield facing_out(
                        "skin",
                        quad,
                        middle,
                        2 * i + 1,
                        hand=hand,
                        tone=tone,
                        grain=_ALONG,
                        layer="skin",
                    )

    def _is_sheeted(self) -> bool:
        f = self._fuselage
        return max(f.side_thickness, f.top_skin, f.bottom_skin) > 0

    def _skin_shares(self) -> Array:
        """Parameters at which the skin is drawn: the corners of every section, a few between them where it is round."""
        surface = self._surface
        run = np.diff(surface.points, axis=1)
        angles = np.degrees(np.arctan2(run[..., 1], run[..., 0]))
        bent = np.abs((np.diff(angles, axis=1) + 180.0) % 360.0 - 180.0) > _CORNER_DEGREES
        corners = surface.shares[1:-1][bent.any(axis=0)]
        is_round = any(one.section is not None or one.corner for one in self._formers)
        return np.unique([0.0, 2.0, *corners, *(_SKIN_SHARES if is_round else ())])

    def planks(self) -> Iterator[Face]:
        """Each plank from former to former; one that runs out ends in a point."""
        planked = planks_of(self._fuselage)
        if not planked.planks or self._fuselage.framed.planking is None:
            return
        ends, reaching = dict(planked.ends), dict(planked.reaching)
        station = {one.id: one.station for one in self._formers}
        tone = tone_of(self._fuselage.framed.planking.material)
        for name, other in pairwise(planked.formers):
            bay = self._at(station[name]) + 1
            here, there = np.array(ends[name]), np.array(ends[other])
            middle = np.array(
                (
                    (station[name] + station[other]) / 2,
                    0.0,
                    (here[:, 1].mean() + there[:, 1].mean()) / 2,
                )
            )
            for number in sorted({*reaching[name], *reaching[other]}):
                quad = [
                    (station[name], *_edge(here, reaching[name], number, 0)),
                    (station[other], *_edge(there, reaching[other], number, 0)),
                    (station[other], *_edge(there, reaching[other], number, 1)),
                    (station[name], *_edge(here, reaching[name], number, 1)),
                ]
                for hand in (-1, 1):
                    ring = np.array(quad) * (1.0, hand, 1.0)
                    yield facing_out(
                        f"{'P' if hand < 0 else 'S'}{number}",
                        ring,
                        middle,
                        bay,
                        hand=hand,
                        tone=tone,
                        grain=_ALONG,
                        layer="skin",
                    )


def _edge(points: Array, numbers: tuple[int, ...], number: int, upper: int) -> Array:
    """Where a plank's lower or upper edge lies; of one that does not reach, where the next ones close."""
    before = sum(one < number for one in numbers)
    at = before + (upper if number in numbers else 0)
    return np.asarray(points[min(at, len(points) - 1)])


def _section_at(x: float, middle: Array, away: Array, deep: float, wide: float) -> Array:
    """The four corners of a stringer where it lies on a former."""
    along = np.array((-away[1], away[0]))
    ring = [
        middle - wide / 2 * along,
        middle + wide / 2 * along,
        middle + wide / 2 * along - deep * away,
        middle - wide / 2 * along - deep * away,
    ]
    return np.array([(x, *point) for point in ring])


def _smooth(ring: object) -> Array:
    line = shapely.Polygon(ring).simplify(_SMOOTH_MM)
    return np.array(line.exterior.coords)[:-1]


def named(fuselage: Fuselage) -> tuple[tuple[str, Array, str], ...]:
    """The formers' names, the places beneath them at which they stand, and their ids."""
    return tuple(
        (one.id, np.array((one.station, 0.0, one.bottom)), one.id)
        for one in sorted(fuselage.formers, key=lambda former: former.station)
    )
