"""Each former as it goes in: its inner width, the bevel of its edges, the spacer it stands on."""

import math
from dataclasses import dataclass

from hardkeel.base.values import Point2
from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.model import Former, Fuselage


@dataclass(frozen=True, slots=True)
class FittedFormer:
    """A former between its sides and over the board, mm and degrees.

    Attributes
    ----------
    edge_bevel : float
        Of its side edges, degrees from square; positive where the sides close in going aft.
    spacer : float or None
        Height of what it stands on; ``None`` where there is no board.
    """

    id: str
    station: float
    inner_half_width: float
    edge_bevel: float
    spacer: float | None

    def from_above(self, half: float, thickness: float) -> tuple[Point2, Point2, Point2, Point2]:
        """A cut through it as it is seen from above, its front up: (to starboard, ahead) of its middle, mm.

        Its ends stand as its edges are bevelled, about its `half` width in the middle of its wood.
        """
        ahead = thickness / 2
        more = ahead * math.tan(math.radians(self.edge_bevel))
        return (
            (-half - more, ahead),
            (half + more, ahead),
            (half - more, -ahead),
            (-half + more, -ahead),
        )


def fitted_formers(fuselage: Fuselage) -> tuple[FittedFormer, ...]:
    """All formers by station.

    Raises
    ------
    BadInput
        When there are fewer than two stations.
    """
    loft = loft_of(fuselage)
    return tuple(
        FittedFormer(
            stop.id,
            stop.station,
            stop.half_width - fuselage.side_thickness,
            -math.degrees(math.atan(float(loft.half_width.slope(stop.station)))),
            _spacer(fuselage, stop),
        )
        for _, stop in fuselage.stations
        if isinstance(stop, Former)
    )


def _spacer(fuselage: Fuselage, former: Former) -> float | None:
    board = fuselage.board
    if board is None:
        return None
    if board.inverted:
        return board.z - (former.top - fuselage.top_skin)
    return former.bottom + fuselage.bottom_skin - board.z
