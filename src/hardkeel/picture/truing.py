"""The airframe as plain strokes in three views: what the window paints and the record prints.

Each view has its own two axes in mm: *plan* u = y (starboard right), v = x (aft down); *behind*
u = y, v = −z; *side* (from port) u = x, v = −z.  v grows downwards as on paper.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from hardkeel.base.values import Point
from hardkeel.fuselage.model import Fuselage
from hardkeel.geometry.hull import Point2, convex_hull
from hardkeel.geometry.rotation import Array
from hardkeel.project.model import Build
from hardkeel.survey.judging import Judgement
from hardkeel.survey.model import FUSELAGE, OWN_TARGET, Body, Survey, Verdict, contacts_of
from hardkeel.survey.network import Network
from hardkeel.survey.proposing import is_upright
from hardkeel.survey.readings import (
    AngleAt,
    Distance,
    DistanceDifference,
    Gap,
    Height,
    Incidence,
    Offset,
    Reading,
    Tilt,
)
from hardkeel.survey.roles import LYING, role_of

View = Literal["plan", "behind", "side"]
Role = Literal[
    "fuselage", "former", "centre", "wanted", "estimated", "reading", "mark", "board", "strut"
]
VIEWS: Final[tuple[View, ...]] = ("plan", "behind", "side")
_SEEN_IN: Final[dict[str, View]] = {
    "yaw": "plan",
    "offset": "plan",
    "fin_yaw": "plan",
    "incidence": "side",
    "decalage": "side",
    "fins_toe": "plan",
    "vee_yaw": "plan",
    "vee_incidence_difference": "side",
    "side": "plan",
    "down": "side",
    "gap": "side",
    "stagger": "side",
}
_BOARD_GAP: Final = 12.0  # mm below the lowest point, where the board is drawn


@dataclass(frozen=True, slots=True)
class Stroke:
    """A line to draw.

    Attributes
    ----------
    points : tuple of (u, v)
        mm in the view's axes.
    ref : str
        Body, mark or reading that it belongs to.
    """

    view: View
    role: Role
    points: tuple[Point2, ...]
    ref: str = ""
    closed: bool = False
    verdict: Verdict | None = None


@dataclass(frozen=True, slots=True)
class Picture:
    """All strokes of a build, from back to front."""

    strokes: tuple[Stroke, ...]

    def of(self, view: View) -> tuple[Stroke, ...]:
        """The strokes of one view."""
        return tuple(stroke for stroke in self.strokes if stroke.view == view)

    def bounds(self, view: View) -> tuple[float, float, float, float] | None:
        """Least u, least v, greatest u, greatest v of a view; ``None`` when it is empty."""
        points = [point for stroke in self.of(view) for point in stroke.points]
        if not points:
            return None
        us, vs = [p[0] for p in points], [p[1] for p in points]
        return min(us), min(vs), max(us), max(vs)


def project(view: View, points: Iterable[Sequence[float] | Array]) -> tuple[Point2, ...]:
    """Points (x, y, z) in a view's axes."""
    if view == "plan":
        return tuple((float(p[1]), float(p[0])) for p in points)
    if view == "behind":
        return tuple((float(p[1]), -float(p[2])) for p in points)
    return tuple((float(p[0]), -float(p[2])) for p in points)


def body_verdict(judgement: Judgement, body: str) -> Verdict | None:
    """The worst verdict among a body's checks: out before not known before true.

    One that is out only by another body is not true: it is known once that is put right.
    """
    found = {check.verdict for check in judgement.checks_on(body)}
    if judgement.hangs_on(body):
        found.add("unsure")
    for verdict in ("out", "unsure", "true"):
        if verdict in found:
            return verdict
    return None


def picture_of(build: Build, judgement: Judgement, factor: float) -> Picture:
    """Draw a build as it should stand and, `factor` times exaggerated, as it is believed to stand."""
    survey = build.surveyed
    rings = {b.id: body_ring(survey, b) for b in survey.bodies if b.id != FUSELAGE}
    shown = _Shown(survey, _believed(judgement), factor, rings, judgement.readings)
    strokes: list[Stroke] = []
    if build.fuselage is not None:
        strokes += fuselage_strokes(build.fuselage)
    strokes += strut_strokes(survey)
    for body in survey.bodies:
        if body.id in rings:
            strokes += _body_strokes(survey, body, judgement, rings[body.id], shown.rings[body.id])
    for mark in survey.marks:
        if mark.id.startswith(OWN_TARGET):  # a camera reads it, no hand does
            continue
        # from the side only what lies on the centre line is told apart from its twin
        views = VIEWS if mark.at[1] == 0 else VIEWS[:2]
        at = shown.marks[mark.id]
        strokes += [Stroke(view, "mark", project(view, [at]), mark.id) for view in views]
    for reading in judgement.readings:
        strokes += reading_strokes(reading, shown)
    strokes += _board(strokes)
    return Picture(tuple(strokes))


def rings_shown(
    build: Build, judgement: Judgement, factor: float
) -> dict[str, tuple[tuple[Point, ...], list[Array]]]:
    """By body but the fuselage: its edge as wanted, and `factor` times exaggerated as it is believed to stand."""
    return rings_by(build, *_believed(judgement), factor)


def rings_by(
    build: Build, net: Network, unknowns: Array, factor: float
) -> dict[str, tuple[tuple[Point, ...], list[Array]]]:
    """The same by these unknowns, shape (n,), in the network's columns."""
    survey = build.surveyed
    rings = {b.id: body_ring(survey, b) for b in survey.bodies if b.id != FUSELAGE}
    shown = _Shown(survey, (net, unknowns), factor, rings, ())
    return {body: (ring, shown.rings[body]) for body, ring in rings.items()}


def view_of_check(kind: str) -> View:
    """The view in which an error of this kind is seen."""
    return _SEEN_IN.get(kind, "behind")


def _believed(judgement: Judgement) -> tuple[Network, Array]:
    return judgement.net, judgement.solution.unknowns


def keel_strokes(build: Build) -> tuple[Stroke, ...]:
    """The side view as drawn, without anything that was measured: fuselage, formers, bodies."""
    survey = build.surveyed
    strokes = fuselage_strokes(build.fuselage) if build.fuselage is not None else []
    strokes += strut_strokes(survey)
    for body in survey.bodies:
        if body.id != FUSELAGE:
            ring = body_ring(survey, body)
            points = project("side", [ring[i] for i in seen_corners(survey, body, ring, "side")])
            strokes.append(Stroke("side", "wanted", points, body.id, closed=True))
    return tuple(stroke for stroke in strokes if stroke.view == "side")


def strut_strokes(survey: Survey) -> list[Stroke]:
    """Struts as drawn, from their feet to the wing they carry."""
    ends = [
        (contact.foot, contact.at)
        for body in survey.bodies
        for contact in contacts_of(body)
        if contact.foot is not None
    ]
    return [Stroke(view, "strut", project(view, pair)) for pair in ends for view in VIEWS[1:]]


def held_strokes(
    build: Build, judgement: Judgement, factor: float, reading: Reading
) -> tuple[Stroke, ...]:
    """Where a reading that is not yet taken would be held."""
    return tuple(
        reading_strokes(
            reading, _Shown(build.surveyed, _believed(judgement), factor, {}, (reading,))
        )
    )


class _Shown:
    """Marks, edges and gauges with their estimated displacement multiplied, all placed at once.

    Attributes
    ----------
    marks, rings, gauges : dict
        Points as they are shown, by mark, body, and id of an incidence reading.
    """

    def __init__(
        self,
        survey: Survey,
        believed: tuple[Network, Array],
        factor: float,
        rings: dict[str, tuple[Point, ...]],
        readings: Sequence[Reading],
    ) -> None:
        gauges = {r.id: _gauge_ends(survey, r) for r in readings if isinstance(r, Incidence)}
        owned = [(mark.body, mark.at) for mark in survey.marks]
        owned += [(body, point) for body, ring in rings.items() for point in ring]
        owned += [end for ends in gauges.values() for end in ends]
        wanted = np.array([at for _, at in owned], dtype=float).reshape(-1, 3)
        net, unknowns = believed
        placed = net.placer_of(owned).place(unknowns)
        shown = iter(wanted + factor * (placed.airframe - wanted))
        self.marks: dict[str, Array] = {mark.id: next(shown) for mark in survey.marks}
        self.rings = {body: [next(shown) for _ in ring] for body, ring in rings.items()}
        self.gauges = {name: [next(shown) for _ in ends] for name, ends in gauges.items()}


def fuselage_strokes(fuselage: Fuselage) -> list[Stroke]:
    """Outline and formers of the fuselage in all views."""
    stations = [(f.station, f.half_width, f.bottom, f.top) for f in fuselage.formers]
    if fuselage.tail_post is not None:
        post = fuselage.tail_post
        stations.append((post.station, post.half_width, post.bottom, post.top))
    if not stations:
        return []
    stations.sort()
    plan = [(-half, x) for x, half, _, _ in stations] + [
        (half, x) for x, half, _, _ in stations[::-1]
    ]
    side = [(x, -top) for x, _, _, top in stations] + [(x, -low) for x, _, low, _ in stations[::-1]]
    corners = [
        (sign * half, -z) for _, half, low, top in stations for sign in (-1, 1) for z in (low, top)
    ]
    strokes = [
        Stroke("plan", "fuselage", tuple(plan), FUSELAGE, closed=True),
        Stroke("side", "fuselage", tuple(side), FUSELAGE, closed=True),
        Stroke("behind", "fuselage", convex_hull(corners), FUSELAGE, closed=True),
        Stroke("plan", "centre", ((0.0, stations[0][0] - 20), (0.0, stations[-1][0] + 20))),
    ]
    for former in fuselage.formers:
        x = former.station
        strokes.append(Stroke("side", "former", ((x, -former.top), (x, -former.bottom)), former.id))
    return strokes


def body_ring(survey: Survey, body: Body) -> tuple[Point, ...]:
    """A body's edge: its outline, else the hull of its marks, else a rectangle of its figures."""
    if body.outline:
        return body.outline
    marks = [
        mark.at
        for mark in survey.marks
        if mark.body == body.id and not mark.id.startswith(OWN_TARGET)
    ]
    if len(marks) > 2:  # noqa: PLR2004  enough to enclose something
        upright = is_upright(survey, body)
        keyed = {((p[0], p[2]) if upright else (p[0], p[1])): p for p in marks}
        return tuple(keyed[corner] for corner in convex_hull(keyed))
    x, y, z = body.origin
    half, chord = (body.span or 200.0) / 2, (body.chord or 60.0) / 2
    return (
        (x - chord, y - half, z),
        (x - chord, y + half, z),
        (x + chord, y + half, z),
        (x + chord, y - half, z),
    )


def seen_corners(survey: Survey, body: Body, ring: tuple[Point, ...], view: View) -> list[int]:
    """Which corners draw a body: a lying surface is seen from the side as its root chord."""
    if view == "side" and role_of(body) in LYING and not is_upright(survey, body):
        rows = [i for i, point in enumerate(ring) if point[1] == body.origin[1]]
        if rows:
            return rows
    return list(range(len(ring)))


def _body_strokes(
    survey: Survey,
    body: Body,
    judgement: Judgement,
    ring: tuple[Point, ...],
    now: Sequence[Array],
) -> list[Stroke]:
    verdict = body_verdict(judgement, body.id)
    strokes = []
    for view in VIEWS:
        rows = seen_corners(survey, body, ring, view)
        wanted = project(view, [ring[i] for i in rows])
        shown = project(view, [now[i] for i in rows])
        strokes.append(Stroke(view, "wanted", wanted, body.id, closed=True))
        strokes.append(Stroke(view, "estimated", shown, body.id, closed=True, verdict=verdict))
    return strokes


def reading_strokes(reading: Reading, shown: _Shown) -> list[Stroke]:
    """Where a reading is held: strings, plumb lines, straight edges, gauges."""
    where = shown.marks

    def line(view: View, *points: Sequence[float] | Array) -> Stroke:
        return Stroke(view, "reading", project(view, points), reading.id)

    match reading:
        case Distance() | Gap():
            a, b = where[reading.from_], where[reading.to]
            return [line(_best_view(a, b), a, b)]
        case DistanceDifference():
            a, b = (where[end] for end in reading.to)
            return [line("plan", a, where[reading.from_], b)]
        case Height():
            top = where[reading.mark]
            return [line("behind", top, (top[0], top[1], top[2] - 60.0))]
        case Tilt():
            return [line("behind", where[reading.from_], where[reading.to])]
        case Offset() if reading.along is not None:
            a, b = (where[end] for end in reading.along)
            return [
                line("plan", a, b),
                line("plan", where[reading.mark], _foot(where[reading.mark], a, b)),
            ]
        case Offset():
            at = where[reading.mark]
            return [line("plan", (at[0], 0.0, at[2]), at)]
        case AngleAt():
            points = [where[reading.from_], where[reading.at], where[reading.to]]
            return [line("behind", *points)]
        case Incidence():
            ends = shown.gauges[reading.id]
            return [line(view, *ends) for view in ("plan", "side")] if ends else []


def _foot(at: Array, a: Array, b: Array) -> Array:
    """The point of the string's upright plane that lies square to a mark."""
    run = (b - a)[:2]
    share = float((at - a)[:2] @ run) / max(float(run @ run), 1e-9)
    foot = at.copy()
    foot[:2] = a[:2] + share * run
    return foot


def _gauge_ends(survey: Survey, reading: Incidence) -> list[tuple[str, Point]]:
    """Where an incidence gauge touches its body, leading and trailing edge."""
    body = survey.body(reading.body)
    if body is None:
        return []
    sign = {"port": -1.0, "starboard": 1.0, "centre": 0.0}[reading.side]
    y = sign * reading.span_fraction * (body.span or 0.0) / 2
    ring = body_ring(survey, body) if body.id != FUSELAGE else ()
    xs = [point[0] for point in ring] or [0.0, 60.0]
    z = body.origin[2]
    return [(body.id, (min(xs), y, z)), (body.id, (max(xs), y, z))]


def _best_view(a: Array, b: Array) -> View:
    """A string is drawn where it is seen longest, and from above when there is little in it."""
    reach = np.abs(a - b)
    return "side" if reach[2] > 2 * reach[1] and reach[2] > 0.5 * reach[0] else "plan"


def _board(strokes: list[Stroke]) -> list[Stroke]:
    boards = []
    for view in ("behind", "side"):
        points = [
            p
            for s in strokes
            if s.view == view and s.role in ("fuselage", "wanted")
            for p in s.points
        ]
        if points:
            low = max(p[1] for p in points) + _BOARD_GAP
            left, right = min(p[0] for p in points), max(p[0] for p in points)
            boards.append(Stroke(view, "board", ((left, low), (right, low))))
    return boards
