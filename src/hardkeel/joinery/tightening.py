"""Pieces laid tighter than the grid lays them, by an open engine for strips of free shapes.

What is laid by `nesting` is taken sheet size by sheet size: small pieces go into large cut-outs, the rest on a strip as
wide as the sheet, which is cut into sheets; the better of both layings is kept.
"""

import json
import sys
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from subprocess import DEVNULL, PIPE, Popen, TimeoutExpired
from typing import Final

from hardkeel.geometry.polygons import affinity, shapely
from hardkeel.joinery.flat import FlatPiece
from hardkeel.joinery.nesting import NestedSheet, Placed, laid_inside, turns_of

LOOKED_SECONDS: Final = 5.0  # for one strip: beyond it little is found
_FEW: Final = 4  # pieces that are laid as well in half a second
_FEW_SECONDS: Final = 0.5
_EXPLORED: Final = 0.7  # of the time; in the rest it is pressed together
_SMOOTH_MM: Final = 0.03
_HAIR_MM: Final = 0.03
_EDGE_MM: Final = 0.07
_SEED: Final = 7
_LOOK_SECONDS: Final = 0.08
_LEAST_HOLE_MM2: Final = 400.0
Seen = Callable[[tuple[NestedSheet, ...]], None]
Step = Callable[[int, int], None]


@dataclass(frozen=True, slots=True)
class _Bundle:
    """A piece, with what lies in its cut-outs as it lies unturned."""

    piece: FlatPiece
    inside: tuple[Placed, ...] = ()

    def lying(self, turn: int, shift: tuple[float, float], width: float) -> Iterator[Placed]:
        """All of it turned about its own origin, then shifted, and off a sheet's edges by what was rounded."""
        turned = affinity.rotate(self.piece.polygon, turn, origin=(0.0, 0.0))
        left, low, _, high = turned.bounds
        u = shift[0] + max(-(left + shift[0]), 0.0)
        v = shift[1] + max(-(low + shift[1]), 0.0)
        v -= max(high + v - width, 0.0)
        yield Placed(self.piece, turn % 360, left + u, low + v)
        for one in self.inside:
            left, low, _, _ = affinity.rotate(one.polygon, turn, origin=(0.0, 0.0)).bounds
            yield Placed(one.piece, (one.turn + turn) % 360, left + u, low + v)


def tightened(
    sheets: Sequence[NestedSheet],
    gap: float,
    seconds: float | None = None,
    *,
    seen: Seen | None = None,
    step: Step | None = None,
) -> tuple[NestedSheet, ...]:
    """The same pieces on no more sheets and on no more of their length.

    Parameters
    ----------
    sheets : sequence of NestedSheet
        As `nesting.nested` lays them.
    gap : float
        Least distance between two pieces, mm.
    seconds : float, optional
        For one strip; without it as long as anything worth it is found.
    seen : callable, optional
        Shown all sheets whenever some became better.
    step : callable, optional
        Told how many strips are done and how many there are, often; may raise `GivenUp`.
    """
    time = LOOKED_SECONDS if seconds is None else seconds
    groups: dict[tuple[str | None, float, bool], list[NestedSheet]] = {}
    for one in sheets:
        groups.setdefault((one.material, one.thickness, one.own), []).append(one)
    found = dict(groups)
    for done, (key, group) in enumerate(groups.items()):

        def tick(done: int = done) -> None:
            if step is not None:
                step(done, len(groups))

        tick()
        better = group if group[0].own else _laid(group, gap, time, tick)
        if _cost(better) < _cost(group):
            found[key] = better
            if seen is not None:
                seen(tuple(one for each in found.values() for one in each))
    return tuple(one for each in found.values() for one in each)


def density_of(sheets: Sequence[NestedSheet]) -> float:
    """How much of the length that is used is wood of pieces, percent."""
    used = sum(one.used * one.width for one in sheets)
    wood = sum(placed.piece.area for one in sheets for placed in one.placed)
    return 100 * wood / used if used else 0.0


def _cost(sheets: Sequence[NestedSheet]) -> tuple[int, float]:
    return sum(one.joined for one in sheets), round(sum(one.used * one.width for one in sheets), 1)


def _laid(
    group: list[NestedSheet], gap: float, seconds: float, tick: Callable[[], None]
) -> list[NestedSheet]:
    """All pieces of a wood, laid anew; as they were where the engine finds nothing."""
    lying = [(placed.piece, i) for i, sheet in enumerate(group) for placed in sheet.placed]
    if len(lying) < 2:  # noqa: PLR2004  one lies in its corner already
        return group
    sizes = [(one.length, one.width, one.joined) for one in group]
    bundles = _bundled([piece for piece, _ in lying], gap)
    found: list[NestedSheet] = []
    for size in sorted(set(sizes), reverse=True):
        mine = [one for number, one in bundles if sizes[lying[number][1]] == size]
        like = group[sizes.index(size)]
        laid = _strip(mine, like, gap, seconds, tick) if mine else []
        if laid is None:
            return group
        found += laid
    return found


def _strip(
    left: list[_Bundle], like: NestedSheet, gap: float, seconds: float, tick: Callable[[], None]
) -> list[NestedSheet] | None:
    """Sheets of one size, cut from a strip one after another; ``None`` where the engine finds nothing."""
    found: list[NestedSheet] = []
    while left:
        time = seconds if len(left) > _FEW else min(_FEW_SECONDS, seconds)
        strip = _solved(left, like.width, gap, time, tick)
        if strip is None:
            return None
        first = [i for i, lying in strip.items() if _reach(lying) <= like.length + _HAIR_MM]
        if not first:
            return None
        found.append(replace(like, placed=tuple(one for i in first for one in strip[i])))
        left = [one for i, one in enumerate(left) if i not in set(first)]
    return found


def _reach(lying: Sequence[Placed]) -> float:
    return max(float(one.polygon.bounds[2]) for one in lying)


def _bundled(pieces: Sequence[FlatPiece], gap: float) -> list[tuple[int, _Bundle]]:
    """Pieces by number, with small ones in their large cut-outs; those that hold some lie in none themselves."""
    order = sorted(range(len(pieces)), key=lambda i: -pieces[i].area)
    taken: set[int] = set()
    holding: dict[int, list[Placed]] = {}
    for i in order:
        holder = pieces[i]
        if i in taken:
            continue
        for hole in holder.holes:
            room = shapely.Polygon(hole).buffer(-gap)
            if room.area < _LEAST_HOLE_MM2:
                continue
            fits = [
                j
                for j in order
                if j != i and j not in taken and j not in holding and _may_lie(pieces[j], holder)
            ]
            for j, placed in laid_inside(room, [pieces[j] for j in fits], _own_turn(holder), gap):
                taken.add(fits[j])
                holding.setdefault(i, []).append(placed)
    return [(i, _Bundle(pieces[i], tuple(holding.get(i, ())))) for i in order if i not in taken]


def _may_lie(piece: FlatPiece, holder: FlatPiece) -> bool:
    """Whether a piece's grain is known where its holder's is."""
    return piece.area < holder.area and (piece.grain == "any" or holder.grain != "any")


def _own_turn(holder: FlatPiece) -> int:
    """By how much a holder that lies unturned is turned on the sheet, beside a half turn."""
    return turns_of(holder)[0]


def _solved(
    bundles: Sequence[_Bundle],
    width: float,
    gap: float,
    seconds: float,
    tick: Callable[[], None],
) -> dict[int, tuple[Placed, ...]] | None:
    """Where each bundle lies on a strip; ``None`` where the engine can't lay them."""
    # the engine keeps its distance to the strip's edges, too; outlines are grown by a hair
    edge = gap + _SMOOTH_MM + _HAIR_MM
    asked = {
        "items": [
            {"rim": _rim(one.piece), "turns": [float(turn) for turn in _fitting(one.piece, width)]}
            for one in bundles
        ],
        "width": width + 2 * edge,
        "gap": gap,
        "seed": _SEED,
        "exploring": _EXPLORED * seconds,
        "pressing": (1 - _EXPLORED) * seconds,
    }
    placed = _answer(asked, tick)
    if placed is None or len(placed) != len(bundles):
        return None
    found = {
        int(i): tuple(bundles[int(i)].lying(round(turn) % 360, (u - edge, v - edge), width))
        for i, turn, u, v in placed
    }
    return found if _sound(found, width) else None


def _answer(
    asked: dict[str, object], tick: Callable[[], None]
) -> list[tuple[float, float, float, float]] | None:
    """What the engine says, in a process that ends when it is no longer waited for; ``None`` where it gives up."""
    with Popen(
        [sys.executable, "-m", "hardkeel.joinery.strip_child"],
        stdin=PIPE,
        stdout=PIPE,
        stderr=DEVNULL,
        text=True,
    ) as child:
        try:
            told: str | None = json.dumps(asked)
            out = ""
            while True:
                try:
                    out, _ = child.communicate(told, timeout=_LOOK_SECONDS)
                    break
                except TimeoutExpired:
                    told = None  # it is on its way
                    tick()
        except BaseException:
            child.kill()
            raise
    try:
        found: list[tuple[float, float, float, float]] = json.loads(out)
    except ValueError:
        return None
    return found


def _fitting(piece: FlatPiece, width: float) -> list[int]:
    """The turns in which a piece is no higher than the strip: it looks for room in all that it is given."""
    along, across = piece.size
    return [
        turn
        for turn in turns_of(piece)
        if (across if turn % 180 == 0 else along) <= width + _HAIR_MM
    ]


def _rim(piece: FlatPiece) -> list[tuple[float, float]]:
    """A piece's outline with few points, nowhere inside of it."""
    grown = shapely.Polygon(piece.outline).buffer(_SMOOTH_MM, join_style="mitre")
    smooth = grown.simplify(_SMOOTH_MM)
    return [(float(u), float(v)) for u, v in smooth.exterior.coords[:-1]]


def _sound(found: dict[int, tuple[Placed, ...]], width: float) -> bool:
    bounds = [one.polygon.bounds for lying in found.values() for one in lying]
    low, high = min(min(b[0], b[1]) for b in bounds), max(b[3] for b in bounds)
    return bool(low >= -_EDGE_MM and high <= width + _EDGE_MM)
