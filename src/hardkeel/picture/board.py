"""The airframe's lines for the drawing board: loft curves, stations, and the points to take hold of.

Views as in `picture`: *plan* u = y, v = x would stand the model upright; on the board it lies along
the paper instead, so here *above* is u = x, v = y and *side* is u = x, v = −z; *section* is u = y, v = −z.
"""

from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from hardkeel.fuselage.contours import shoulder_of, widest_of
from hardkeel.fuselage.cutting import shape_of
from hardkeel.fuselage.loft import Loft, loft_of
from hardkeel.fuselage.model import TAIL_POST, Former, Fuselage, Line
from hardkeel.geometry.hull import Point2
from hardkeel.picture.truing import body_ring
from hardkeel.project.model import Build
from hardkeel.survey.model import FUSELAGE
from hardkeel.survey.proposing import is_upright
from hardkeel.survey.roles import LYING, role_of

BoardView = Literal["side", "above", "section"]
Grip = Literal[
    "top",
    "bottom",
    "half_width",
    "station",
    "corner-top",
    "corner-bottom",
    "widest",
    "full-top",
    "full-bottom",
]
_STEPS: Final = 14  # points of a curve between two stations, fewer where there are many stations
_LEAST_STEPS: Final = 5
_POINTS: Final = 160
_TEETH: Final = 121
_TOOTH_SHARE: Final = 0.35


@dataclass(frozen=True, slots=True)
class Curve:
    """A line to draw, mm in its view's axes; `ref` is a stop or a body."""

    view: BoardView
    role: Literal["skin", "stop", "centre", "body", "template", "comb"]
    points: tuple[Point2, ...]
    ref: str = ""
    closed: bool = False


@dataclass(frozen=True, slots=True)
class Handle:
    """A point that can be dragged."""

    view: BoardView
    stop: str
    grip: Grip
    at: Point2


@dataclass(frozen=True, slots=True)
class BoardLines:
    """Everything of a fuselage on the board."""

    curves: tuple[Curve, ...] = ()
    handles: tuple[Handle, ...] = ()


def lines_of(fuselage: Fuselage, chosen: str, *, rough: bool = False) -> BoardLines:
    """Curves and handles; the section is the chosen stop's, `rough` while a hand drags."""
    if len(fuselage.stations) < 2:  # noqa: PLR2004  no loft
        return BoardLines()
    loft = loft_of(fuselage)
    along = _samples(loft)
    top, low, half = (loft.line(line).value(along) for line in _ORDER)
    half = np.maximum(half, 0.0)
    side = [*_zip(along, -top), *_zip(along[::-1], -low[::-1])]
    above = [*_zip(along, -half), *_zip(along[::-1], half[::-1])]
    first, last = float(along[0]), float(along[-1])
    curves = [
        Curve("side", "skin", tuple(side), FUSELAGE, closed=True),
        Curve("above", "skin", tuple(above), FUSELAGE, closed=True),
        Curve("side", "centre", ((first - 15, 0.0), (last + 15, 0.0))),
        Curve("above", "centre", ((first - 15, 0.0), (last + 15, 0.0))),
    ]
    handles: list[Handle] = []
    for name, stop in fuselage.stations:
        x = stop.station
        curves.append(Curve("side", "stop", ((x, -stop.top), (x, -stop.bottom)), name))
        curves.append(Curve("above", "stop", ((x, -stop.half_width), (x, stop.half_width)), name))
        handles += [
            Handle("side", name, "top", (x, -stop.top)),
            Handle("side", name, "bottom", (x, -stop.bottom)),
            Handle("side", name, "station", (x, -(stop.top + stop.bottom) / 2)),
            Handle("above", name, "half_width", (x, -stop.half_width)),
            Handle("above", name, "half_width", (x, stop.half_width)),
        ]
    curves += _section(fuselage, chosen, rough=rough)
    handles += _section_handles(fuselage, chosen)
    return BoardLines(tuple(curves), tuple(handles))


def combs_of(fuselage: Fuselage) -> tuple[Curve, ...]:
    """Teeth along the lines from nose to tail, as long as the line is bent there; their ends joined.

    The longest tooth of a view is a third of the fuselage's height or width.
    """
    if len(fuselage.stations) < 2:  # noqa: PLR2004  no loft
        return ()
    loft = loft_of(fuselage)
    x = np.linspace(loft.stations[0], loft.stations[-1], _TEETH)
    lines: tuple[tuple[BoardView, Line, tuple[float, ...]], ...] = (
        ("side", "top", (-1.0,)),
        ("side", "bottom", (-1.0,)),
        ("above", "half_width", (1.0, -1.0)),
    )
    bent = {line: loft.line(line).bend(x) / (1 + loft.line(line).slope(x) ** 2) ** 1.5
            for _, line, _ in lines}  # fmt: skip
    tall = float(np.max(loft.top.y - loft.bottom.y))
    size = {"side": tall, "above": 2 * float(np.max(loft.half_width.y))}
    most = max(float(np.max(np.abs(one))) for one in bent.values())
    found: list[Curve] = []
    for view, line, hands in lines if most > 0 else ():
        value, slope = loft.line(line).value(x), loft.line(line).slope(x)
        tooth = _TOOTH_SHARE * size[view] * bent[line] / most
        # square to the line, away from where it is hollow
        normal = np.column_stack([slope, -np.ones_like(slope)]) / np.hypot(1, slope)[:, None]
        feet = np.column_stack([x, value])
        tips = feet + tooth[:, None] * normal
        for hand in hands:
            foot, tip = feet * (1.0, hand), tips * (1.0, hand)
            found.append(Curve(view, "comb", tuple(map(tuple, tip.tolist())), line))
            found += [
                Curve(view, "comb", (tuple(a), tuple(b)), line)
                for a, b in zip(foot.tolist(), tip.tolist(), strict=True)
            ]
    return tuple(found)


def bodies_on_board(build: Build) -> tuple[Curve, ...]:
    """Wings and tail where they stand, from the side and from above."""
    survey = build.surveyed
    curves: list[Curve] = []
    for body in survey.bodies:
        if body.id == FUSELAGE:
            continue
        ring = body_ring(survey, body)
        upright = is_upright(survey, body) or role_of(body) not in LYING
        rows = [p for p in ring if upright or p[1] == body.origin[1]] or list(ring)
        curves.append(
            Curve("side", "body", tuple((p[0], -p[2]) for p in rows), body.id, closed=True)
        )
        curves.append(
            Curve("above", "body", tuple((p[0], p[1]) for p in ring), body.id, closed=True)
        )
    return tuple(curves)


_ORDER: Final[tuple[Line, Line, Line]] = ("top", "bottom", "half_width")


def _samples(loft: Loft) -> np.ndarray[tuple[int], np.dtype[np.float64]]:
    steps = min(_STEPS, max(_LEAST_STEPS, _POINTS // len(loft.stations)))
    pieces = [
        np.linspace(a, b, steps, endpoint=False)
        for a, b in zip(loft.stations[:-1], loft.stations[1:], strict=True)
    ]
    return np.concatenate([*pieces, loft.stations[-1:]])


def _zip(us: np.ndarray[tuple[int], np.dtype[np.float64]], vs: object) -> list[Point2]:
    return list(zip(us.tolist(), np.asarray(vs).tolist(), strict=True))


def _section(fuselage: Fuselage, chosen: str, *, rough: bool) -> list[Curve]:
    stop = dict(fuselage.stations).get(chosen)
    if stop is None:
        return []
    if isinstance(stop, Former):
        shape = shape_of(fuselage, stop, rough=rough)
        curves = [Curve("section", "skin", _flip(shape.outside), chosen, closed=True)]
        curves += [
            Curve("section", "stop", _flip(ring), chosen, closed=True) for ring in shape.wood
        ]
        if stop.template is not None:
            t = stop.template
            curves.append(
                Curve(
                    "section", "template", _box(t.half_width, t.bottom, t.top), chosen, closed=True
                )
            )
        return curves
    box = _box(stop.half_width, stop.bottom, stop.top)
    return [Curve("section", "skin", box, TAIL_POST, closed=True)]


def _section_handles(fuselage: Fuselage, chosen: str) -> list[Handle]:
    stop = dict(fuselage.stations).get(chosen)
    if stop is None:
        return []
    corners: tuple[tuple[Grip, float], ...] = (
        ("corner-top", stop.top),
        ("corner-bottom", stop.bottom),
    )
    found = [
        Handle("section", chosen, grip, (sign * stop.half_width, -z))
        for grip, z in corners
        for sign in (-1, 1)
    ]
    if isinstance(stop, Former) and stop.section is not None:
        rounds: tuple[tuple[Grip, Point2], ...] = (
            ("widest", (stop.half_width, widest_of(stop))),
            ("full-top", shoulder_of(stop, above=True)),
            ("full-bottom", shoulder_of(stop, above=False)),
        )
        found += [
            Handle("section", chosen, grip, (sign * y, -z))
            for grip, (y, z) in rounds
            for sign in (-1, 1)
        ]
    return found


def figures_of_drag(handle: Handle, at: Point2) -> dict[str, float]:
    """Which figures a handle dragged to a point of its view means, mm."""
    u, v = at
    match handle.grip:
        case "top" | "bottom":
            return {handle.grip: -v}
        case "half_width":
            return {"half_width": abs(v)}
        case "station":
            return {"station": u}
        case "corner-top":
            return {"half_width": abs(u), "top": -v}
        case "corner-bottom":
            return {"half_width": abs(u), "bottom": -v}
        case "widest":
            return {"half_width": abs(u), "widest": -v}
        case "full-top" | "full-bottom":
            return {"full_y": abs(u), "full_z": -v}


def _flip(ring: tuple[Point2, ...]) -> tuple[Point2, ...]:
    return tuple((y, -z) for y, z in ring)


def _box(half: float, low: float, high: float) -> tuple[Point2, ...]:
    return ((-half, -low), (half, -low), (half, -high), (-half, -high))
