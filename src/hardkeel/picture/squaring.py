"""A frame on its board as wood, its error enlarged: from above (x, y) and from the side (x, −z), mm."""

from hardkeel.fuselage.model import Fuselage
from hardkeel.fuselage.squaring import Squared
from hardkeel.geometry.hull import Point2
from hardkeel.picture.wood import WoodLabel, WoodLine, WoodPicture, WoodShape, WoodSpot, tone_of
from hardkeel.survey.readings import Reading, marks_of

_OVER_MM = 12.0
_HALF_MM = 2.0  # a former on edge is drawn this thick to either side at least


def frame_from_above(
    fuselage: Fuselage, squared: Squared, enlarged: float, held: Reading | None = None
) -> WoodPicture:
    """Top edges as they stand, what is wanted behind them, the centre line of the board, a reading's string."""
    return _view(fuselage, squared, enlarged, held, 1)


def frame_from_the_side(
    fuselage: Fuselage, squared: Squared, enlarged: float, held: Reading | None = None
) -> WoodPicture:
    """Middles from foot to top, over the board."""
    return _view(fuselage, squared, enlarged, held, 2)


def frame_from_behind(squared: Squared, enlarged: float, chosen: str) -> WoodPicture:
    """Every former's corners as a frame, the one in hand as wood: a twist is seen here."""
    design = {mark.id: mark.at for mark in squared.net.survey.marks}
    now = squared.solution.placed.airframe
    shapes: list[WoodShape] = []
    lines: list[WoodLine] = []
    spots: list[WoodSpot] = []
    for name in squared.formers:
        ring, true = [], []
        for corner in ("bp", "bs", "ts", "tp"):
            mark = f"{name}.{corner}"
            at, row = design[mark], now[squared.net.index[mark]]
            true.append((at[1], -at[2]))
            ring.append(
                (
                    at[1] + enlarged * (float(row[1]) - at[1]),
                    -(at[2] + enlarged * (float(row[2]) - at[2])),
                )
            )
        if name == chosen:
            shapes.insert(0, WoodShape(name, tuple(ring), grain=0.0, faint=True))
            lines.append(WoodLine("station", (*true, true[0])))
            corners = dict(zip(("bp", "bs", "ts", "tp"), ring, strict=True))
            corners |= {"tc": _between(ring[2], ring[3]), "bc": _between(ring[0], ring[1])}
            spots += [WoodSpot(f"{name}.{corner}", at) for corner, at in corners.items()]
        else:
            lines.append(WoodLine("outline", (*ring, ring[0]), name))
    return WoodPicture(tuple(shapes), tuple(lines), spots=tuple(spots))


def _view(
    fuselage: Fuselage, squared: Squared, enlarged: float, held: Reading | None, axis: int
) -> WoodPicture:
    design = {mark.id: mark.at for mark in squared.net.survey.marks}
    now = squared.solution.placed.airframe
    ends = ("tp", "ts") if axis == 1 else ("bc", "tc")
    sign = 1.0 if axis == 1 else -1.0
    formers = {former.id: former for former in fuselage.formers}

    def wanted(mark: str) -> Point2:
        at = design[mark]
        return at[0], sign * at[axis]

    def stands(mark: str) -> Point2:
        at, row = design[mark], now[squared.net.index[mark]]
        u = at[0] + enlarged * (float(row[0]) - at[0])
        return u, sign * (at[axis] + enlarged * (float(row[axis]) - at[axis]))

    shapes: list[WoodShape] = []
    lines: list[WoodLine] = []
    labels: list[WoodLabel] = []
    spots: list[WoodSpot] = []
    out = {check.body for check in squared.checks if check.verdict == "out"}
    for name in squared.formers:
        former = formers[name]
        half = max((former.thickness or 0.0) / 2, _HALF_MM)
        a, b = (stands(f"{name}.{end}") for end in ends)
        ring = ((a[0] - half, a[1]), (a[0] + half, a[1]), (b[0] + half, b[1]), (b[0] - half, b[1]))
        shapes.append(WoodShape(name, ring, grain=90.0, tone=tone_of(former.material)))
        c, d = (wanted(f"{name}.{end}") for end in ends)
        lines.append(WoodLine("station", (c, d)))
        seen = ("tp", "tc", "ts") if axis == 1 else ("bp", "tp")
        places = (a, _between(a, b), b) if axis == 1 else (a, b)
        spots += [WoodSpot(f"{name}.{mark}", at) for mark, at in zip(seen, places, strict=True)]
        low = max(a[1], b[1], c[1], d[1])
        labels.append(WoodLabel(((c[0] + d[0]) / 2, low + 4), name, ref=name, warn=name in out))
    if squared.formers:
        first, last = float(squared.stations[0]), float(squared.stations[-1])
        lines.append(WoodLine("centre", ((first - _OVER_MM, 0.0), (last + _OVER_MM, 0.0))))
    if held is not None:
        held_at = [stands(mark) for mark in marks_of(held) if mark in squared.net.index]
        if len(held_at) > 1:
            lines.append(WoodLine("wire", tuple(held_at)))
        lines += [WoodLine("pin", (place,)) for place in held_at]
    return WoodPicture(tuple(shapes), tuple(lines), tuple(labels), tuple(spots))


def _between(a: Point2, b: Point2) -> Point2:
    return (a[0] + b[0]) / 2, (a[1] + b[1]) / 2
