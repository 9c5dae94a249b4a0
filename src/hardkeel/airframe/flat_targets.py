"""Is a tail surface flat on its board, by photographs: labels at its corners and on the board beside it.

Their codes are the same for every surface, so that nothing has to be laid out: what the pictures give is the heights of
the corners, with their doubt, as a rule would have given them.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Final

import numpy as np

from hardkeel.sight.targets import USUAL_PLACE, Sighted, Taken, sighted
from hardkeel.survey.adjusting import Solution
from hardkeel.survey.model import FUSELAGE, Mark, Survey, Target
from hardkeel.survey.network import network_of
from hardkeel.survey.outliers import set_aside
from hardkeel.survey.priors import Shared
from hardkeel.tail.flatness import PRIORS, Phase, corner_mark, corner_places, halves_of, joins_of
from hardkeel.tail.model import FlatReading, TailSurface

if TYPE_CHECKING:
    from hardkeel.survey.readings import Observation

SIZE_MM: Final = 12.0
_FIRST_CODE: Final = 60
_INSET_MM: Final = 9.0  # from an edge to the middle of a label that lies whole on the wood
_BESIDE_MM: Final = 30.0  # from the surface to a label on the board
_LEAST_SIGMA: Final = 0.05


@dataclass(frozen=True, slots=True)
class FlatSeen:
    """What pictures say of a surface on its board."""

    heights: tuple[FlatReading, ...]
    sighted: Sighted


def flat_survey(surface: TailSurface) -> Survey:
    """Its halves as they are adjusted for flatness, its labels and the board's.

    Raises
    ------
    BadInput
        When the surface has no outline.
    """
    survey = halves_of(surface)
    marks, targets = list(survey.marks), []
    code = _FIRST_CODE
    xs = [x for x, _ in corner_places(surface).values()]
    front, rear = min(xs) - _BESIDE_MM, max(xs) + _BESIDE_MM
    half = float(corner_places(surface)["starboard_le"][1])
    ends = (0.0, half) if surface.upright else (-half, 0.0, half)
    for y in ends:
        for x in (front, rear):
            name = f"board.{round(x)}.{round(y)}"
            marks.append(Mark(id=name, body=FUSELAGE, at=(float(round(x)), float(round(y)), 0.0)))
            targets.append(Target(code=code, mark=name, normal=(0.0, 0.0, 1.0)))
            code += 1
    for place, (x, y) in corner_places(surface).items():
        inward = _INSET_MM if place.endswith("_le") else -_INSET_MM
        corner = corner_mark(place)
        body = corner.partition(".")[0]
        marks.append(Mark(id=place, body=body, at=(x + inward, y, 0.0)))
        targets.append(Target(code=code, mark=place, normal=(0.0, 0.0, 1.0)))
        code += 1
    return survey.but(
        marks=tuple(marks),
        targets=tuple(targets),
        target_size=SIZE_MM,
        shared=Shared(target=USUAL_PLACE),
    )


def flat_by_photos(surface: TailSurface, photos: Sequence[Taken], phase: Phase) -> FlatSeen:
    """Heights of the corners by photographs; none where no photograph shows enough.

    Raises
    ------
    BadInput
        When the surface has no outline.
    """
    seen = sighted(flat_survey(surface), photos)
    if not seen.photos:
        return FlatSeen((), seen)
    taken: tuple[Observation, ...] = (*seen.survey.readings, *joins_of(surface))
    net = network_of(seen.survey, None, PRIORS)
    solution, held, _, _ = set_aside(net, taken)
    used = {one.mark for one in held if one.kind == "sight" and one.photo in solution.cameras}
    found = []
    for place in corner_places(surface):
        if place not in used:
            continue
        value, sigma = _height(solution, net.index[corner_mark(place)])
        found.append(FlatReading(at=place, value=round(value, 2), phase=phase, sigma=sigma))
    return FlatSeen(tuple(found), seen)


def _height(solution: Solution, row: int) -> tuple[float, float]:
    """Of a placed mark over the board, and its sigma, mm."""
    slope = np.asarray(solution.placed.airframe_moves[row][2])
    spread = float(slope @ solution.covariance @ slope)
    return float(solution.placed.airframe[row][2]), max(spread**0.5, _LEAST_SIGMA)
