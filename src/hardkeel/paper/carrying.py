"""What a scan's known lengths say of its print: each a dimension as the plan has it and as the scanner saw it."""

import math
from typing import Final

from hardkeel.base.units import MM_PER_INCH
from hardkeel.paper.model import Direction, Pair, Plan

# what they are called on the sheet: a scanner's own scale is in them
SCANNED: Final = "as scanned"


def pairs_of(plan: Plan, dpi: float) -> tuple[Pair, ...]:
    """The lengths of a flat scan as dimensions of its sheet; none for a photo, which has no scale of its own.

    Parameters
    ----------
    dpi : float
        Pixels an inch, as the scanner says.
    """
    if plan.photo:
        return ()
    pairs = []
    for known in plan.lengths:
        across, down = (abs(known.b[i] - known.a[i]) for i in (0, 1))
        direction: Direction = known.along or ("x" if across >= down else "y")
        measured = math.hypot(across, down) * MM_PER_INCH / dpi
        pairs.append(
            Pair(
                part=SCANNED,
                kind="spacing",
                direction=direction,
                plan=known.length,
                measured=measured,
            )
        )
    return tuple(pairs)
