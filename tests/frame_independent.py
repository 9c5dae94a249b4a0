"""A second implementation of the contract's fuselage section, written apart and by other means.

scipy's splines and quadrature, curvature by dense sampling, bays cut by half-planes one after another
in plain Python; nothing of `hardkeel.fuselage` but the values themselves.
"""

import math
from itertools import pairwise
from typing import Any

import numpy as np
from scipy.integrate import quad
from scipy.interpolate import CubicSpline

from hardkeel.fuselage.model import Former, Fuselage

Point = tuple[float, float]


class Lines:
    """The three lines of a fuselage and lengths along them."""

    def __init__(self, fuselage: Fuselage) -> None:
        self.names = [name for name, _ in fuselage.stations]
        self.x = np.array([stop.station for _, stop in fuselage.stations])
        self.of = {
            line: CubicSpline(
                self.x, [getattr(stop, line) for _, stop in fuselage.stations], bc_type="natural"
            )
            if len(self.x) > 2
            else np.poly1d(np.polyfit(self.x, [getattr(s, line) for _, s in fuselage.stations], 1))
            for line in ("half_width", "top", "bottom")
        }

    def slope(self, line: str, x: float) -> float:
        found = self.of[line]
        return float(found.deriv()(x) if isinstance(found, np.poly1d) else found(x, 1))

    def length(self, lines: tuple[str, ...], a: float, b: float) -> float:
        knots = [x for x in self.x if a < x < b]
        places = [a, *knots, b]
        return math.fsum(
            quad(
                lambda x: math.sqrt(1 + sum(self.slope(n, x) ** 2 for n in lines)),
                p,
                q,
                epsabs=1e-10,
            )[0]
            for p, q in pairwise(places)
        )

    def radius(self, line: str, a: float, b: float) -> tuple[float, float]:
        """Greatest curvature between two stations and where, by looking at very many places."""
        at = np.linspace(a, b, 40_001)
        found = self.of[line]
        if isinstance(found, np.poly1d):
            return 0.0, a
        bend = np.abs(found(at, 2)) / (1 + found(at, 1) ** 2) ** 1.5
        i = int(np.argmax(bend))
        return float(bend[i]), float(at[i])


def cut_by(ring: list[Point], a: Point, b: Point) -> list[Point]:
    """What of a polygon lies to the left of the line from a to b (Sutherland and Hodgman)."""

    def side(p: Point) -> float:
        return (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0])

    out: list[Point] = []
    for p, q in zip(ring, [*ring[1:], ring[0]], strict=True):
        one, other = side(p), side(q)
        if one >= 0:
            out.append(p)
        if (one > 0 > other) or (one < 0 < other):
            t = one / (one - other)
            out.append((p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1])))
    return out


def shifted(points: list[Point], inward: float) -> list[tuple[Point, Point]]:
    """Each piece of a polyline moved square to itself, as two points."""
    out = []
    for (x0, z0), (x1, z1) in pairwise(points):
        size = math.hypot(x1 - x0, z1 - z0)
        nx, nz = -(z1 - z0) / size * inward, (x1 - x0) / size * inward
        out.append(((x0 + nx, z0 + nz), (x1 + nx, z1 + nz)))
    return out


def height(pieces: list[tuple[Point, Point]], stations: list[float], x: float) -> float:
    """The inside edge over a place: the innermost meeting of neighbours decides which piece it is."""
    breaks = []
    for (a, b), (c, d) in pairwise(pieces):
        matrix = np.array([[b[0] - a[0], -(d[0] - c[0])], [b[1] - a[1], -(d[1] - c[1])]])
        if abs(np.linalg.det(matrix)) < 1e-9:
            breaks.append(b[0])
            continue
        t, _ = np.linalg.solve(matrix, [c[0] - a[0], c[1] - a[1]])
        breaks.append(a[0] + t * (b[0] - a[0]))
    i = sum(1 for one in breaks if one < x)
    (x0, z0), (x1, z1) = pieces[i]
    return z0 + (x - x0) / (x1 - x0) * (z1 - z0)


def stick_list(fuselage: Fuselage) -> list[dict[str, Any]]:
    """Lengths and angles of every stick of one side."""
    lines, bracing = Lines(fuselage), fuselage.bracing
    out: list[dict[str, Any]] = []
    if bracing is None:
        return out
    by_name = dict(fuselage.stations)
    upper_depth = next((one.section[1] for one in fuselage.longerons if not one.is_lower), 0.0)
    lower_depth = next((one.section[1] for one in fuselage.longerons if one.is_lower), 0.0)
    for section in fuselage.sections:
        if section.method != "stick-sides":
            continue
        i, j = lines.names.index(section.from_), lines.names.index(section.to)
        names = lines.names[i : j + 1]
        s = [lines.length(("half_width",), float(lines.x[0]), float(x)) for x in lines.x[i : j + 1]]
        high = shifted(
            [(a, by_name[n].top - fuselage.top_skin) for a, n in zip(s, names, strict=True)],
            -upper_depth,
        )
        low = shifted(
            [(a, by_name[n].bottom + fuselage.bottom_skin) for a, n in zip(s, names, strict=True)],
            lower_depth,
        )
        width = bracing.upright[1] if bracing.upright else 0.0
        faces = [(a - width / 2, a + width / 2) for a in s]
        faces[0], faces[-1] = (s[0], s[0] + width), (s[-1] - width, s[-1])
        if bracing.upright:
            for a, b in faces:
                zs = [height(low, s, a), height(low, s, b), height(high, s, a), height(high, s, b)]
                out.append(
                    {
                        "kind": "upright",
                        "length": max(zs[2:]) - min(zs[:2]),
                        "a": [math.degrees(math.atan2(b - a, abs(zs[1] - zs[0])))],
                        "b": [math.degrees(math.atan2(b - a, abs(zs[3] - zs[2])))],
                    }
                )
        if not bracing.diagonal or bracing.pattern == "none":
            continue
        for n, ((_, a), (b, _)) in enumerate(pairwise(faces)):
            if b - a <= 1e-6:
                continue
            ways = (True, False) if bracing.pattern == "crossed" else (n % 2 == 0,)
            out += [diagonal(low, high, s, (a, b), bracing.diagonal[1], up) for up in ways]
    return out


def diagonal(
    low: list[tuple[Point, Point]],
    high: list[tuple[Point, Point]],
    s: list[float],
    bay: tuple[float, float],
    width: float,
    up: bool,
) -> dict[str, Any]:
    a, b = bay
    start = (a, height(low if up else high, s, a))
    end = (b, height(high if up else low, s, b))
    size = math.dist(start, end)
    ux, uz = (end[0] - start[0]) / size, (end[1] - start[1]) / size
    nx, nz = -uz * width / 2, ux * width / 2
    far = size + 10 * width
    strip = [
        (start[0] - far * ux - nx, start[1] - far * uz - nz),
        (end[0] + far * ux - nx, end[1] + far * uz - nz),
        (end[0] + far * ux + nx, end[1] + far * uz + nz),
        (start[0] - far * ux + nx, start[1] - far * uz + nz),
    ]
    walls = {
        "front": ((a, start[1] + 1e3), (a, start[1] - 1e3)),
        "rear": ((b, -1e3), (b, 1e3)),
        "low": ((a, height(low, s, a)), (b, height(low, s, b))),
        "high": ((b, height(high, s, b)), (a, height(high, s, a))),
    }
    ring = strip
    for p, q in walls.values():
        ring = cut_by(ring, p, q)
    reach = [(x - start[0]) * ux + (z - start[1]) * uz for x, z in ring]
    middle = (max(reach) + min(reach)) / 2
    ends: tuple[list[float], list[float]] = ([], [])
    for i, (p, q) in enumerate(zip(ring, [*ring[1:], ring[0]], strict=True)):
        long = math.dist(p, q)
        if long < 1e-6:
            continue
        angle = math.degrees(
            math.acos(min(1.0, abs((q[0] - p[0]) * ux + (q[1] - p[1]) * uz) / long))
        )
        if angle < 1e-3:
            continue
        ends[(reach[i] + reach[(i + 1) % len(reach)]) / 2 > middle].append(angle)
    return {"kind": "diagonal", "length": max(reach) - min(reach), "a": ends[0], "b": ends[1]}


def frame(fuselage: Fuselage) -> dict[str, Any]:
    """The figures of the contract."""
    lines = Lines(fuselage)
    first, last = float(lines.x[0]), float(lines.x[-1])
    board = fuselage.board
    formers = []
    for _, stop in fuselage.stations:
        if not isinstance(stop, Former):
            continue
        spacer = None
        if board is not None and board.inverted:
            spacer = board.z - stop.top + fuselage.top_skin
        elif board is not None:
            spacer = stop.bottom + fuselage.bottom_skin - board.z
        bevel = math.degrees(math.atan2(-lines.slope("half_width", stop.station), 1.0))
        formers.append((stop.id, stop.half_width - fuselage.side_thickness, bevel, spacer))
    by_name = dict(fuselage.stations)
    tight = [
        lines.radius("half_width", by_name[one.from_].station, by_name[one.to].station)
        for one in fuselage.sections
        if one.method == "sheet-sides"
    ]
    return {
        "developed": [lines.length(("half_width",), first, float(x)) for x in lines.x],
        "formers": formers,
        "side": max(tight) if tight else None,
        "sticks": stick_list(fuselage),
        "longerons": {
            one.id: lines.length(("half_width", "bottom" if one.is_lower else "top"), first, last)
            for one in fuselage.longerons
        },
    }
