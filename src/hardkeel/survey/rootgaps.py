"""Gaps between a panel's root and the fuselage side: what pushing in or swinging closes, what is covered, what is filled.

A gap is read with a feeler or a drill's shank at the leading edge, the spar and the trailing edge.  Pushing the panel
in takes the narrowest off all of them.  A gap wider aft means a panel whose tip stands forward (a root face turned by
the angle of the wedge); swinging it aft closes the wedge and turns the whole surface by half of that angle, since the
other panel stays.
"""

import math
from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from hardkeel.survey.checking import Check
from hardkeel.survey.model import Body, GapPlace, PanelSide

SIDES: Final[tuple[PanelSide, ...]] = ("port", "starboard")
PLACES: Final[tuple[GapPlace, ...]] = ("le", "spar", "te")
# Shares of the root chord where they are read; most spars lie at the thickest place.
PLACE_SHARE: Final[dict[GapPlace, float]] = {"le": 0.0, "spar": 0.3, "te": 1.0}
# mm, by experience: covering bridges the first, a strip of soft sheet or filler the second; the spar's joint
# carries load, and thick glue does not.
COVERED_MM: Final = 0.4
STRIP_MM: Final = 1.5
SPAR_MM: Final = 0.2
_EVEN_MM: Final = 0.2  # closer than two gaps can be read

Cure = Literal["none", "push", "swing", "fill", "ask"]


@dataclass(frozen=True, slots=True)
class RootGaps:
    """One side's gaps and their cure.

    Attributes
    ----------
    push : float
        mm that the panel can be pushed in.
    wedge : float
        Degrees; positive is wider aft: the tip stands forward.
    cure : str
        ``none``: it is closed; ``push``: that closes it; ``swing`` the panel too: that also squares it; ``fill``:
        swinging would put it out of square; ``ask``: squareness is not known yet.
    left : mapping of str to float
        mm left at each place that was read, after pushing in and, where that is the cure, swinging.
    """

    side: PanelSide
    push: float
    wedge: float
    cure: Cure
    left: dict[GapPlace, float]

    @property
    def packing(self) -> float:
        """Mm of hard wood wanted at the spar; 0 where glue alone will do."""
        left = self.left.get("spar", 0.0)
        return left if left > SPAR_MM else 0.0


def root_gaps(body: Body, square: Check | None) -> tuple[RootGaps, ...]:
    """Port and starboard, where anything was read.

    Parameters
    ----------
    square : Check, optional
        The check of the body's yaw.
    """
    gaps = body.seat.gaps if body.seat is not None else ()
    found = []
    for side in SIDES:
        read: dict[GapPlace, float] = {gap.at: gap.mm for gap in gaps if gap.side == side}
        if read:
            found.append(_one_side(body, side, read, square))
    return tuple(found)


def _one_side(
    body: Body, side: PanelSide, read: dict[GapPlace, float], square: Check | None
) -> RootGaps:
    push = min(read.values())
    left = {place: mm - push for place, mm in read.items()}
    wedge = wedge_of(body, read)
    if max(left.values()) <= _EVEN_MM:
        cure: Cure = "push" if push > _EVEN_MM else "none"
        return RootGaps(side, push, wedge, cure, left)
    cure = _of_wedge(side, wedge, square)
    if cure == "swing":
        left = dict.fromkeys(read, 0.0)
    return RootGaps(side, push, wedge, cure, left)


def wedge_of(body: Body, read: dict[GapPlace, float]) -> float:
    """Degrees by which the root face is turned from the fuselage side: the line through the gaps, least squares."""
    if len(read) < 2 or not body.chord:  # noqa: PLR2004  two make a line
        return 0.0
    at = np.array([PLACE_SHARE[place] * body.chord for place in read])
    slope = np.polyfit(at, np.array(list(read.values())), 1)[0]
    return math.degrees(math.atan(float(slope)))


def _of_wedge(side: PanelSide, wedge: float, square: Check | None) -> Cure:
    if square is None or square.verdict == "unsure":
        return "ask"
    if square.verdict == "true":
        return "fill"
    # yaw is positive with the starboard tip forward
    turned = (wedge if side == "starboard" else -wedge) / 2
    return "swing" if abs(square.error - turned) < abs(square.error) else "fill"
