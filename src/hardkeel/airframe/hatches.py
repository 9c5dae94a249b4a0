"""What is free under a hatch: from the skin that it opens to the tray or the skin across from it."""

import re
from collections.abc import Callable
from typing import Final

import numpy as np

from hardkeel.balance.model import Hatch
from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.members import members_with
from hardkeel.fuselage.model import Fuselage

_LOOKED_AT: Final = 9
_FROM_BELOW: Final = frozenset({"belly", "bottom", "lower", "under", "underside", "below"})


def depth_under(fuselage: Fuselage | None) -> Callable[[Hatch], float | None]:
    """For a hatch how deep it is under it at the least, mm; ``None`` where no fuselage says.

    One that is called after the belly opens the bottom, others the top.
    """

    def depth(hatch: Hatch) -> float | None:
        if fuselage is None or len(fuselage.stations) < 2:  # noqa: PLR2004  no loft
            return None
        loft = loft_of(fuselage)
        first, last = hatch.between
        if not loft.stations[0] <= first < last <= loft.stations[-1]:
            return None
        x = np.linspace(first, last, _LOOKED_AT)
        low = np.asarray(loft.bottom.value(x)) + fuselage.bottom_skin
        high = np.asarray(loft.top.value(x)) - fuselage.top_skin
        below = bool(_FROM_BELOW & set(re.split(r"[^a-z]+", hatch.id.casefold())))
        for plate in members_with(fuselage, "plate"):
            begins, ends = fuselage.span(plate)
            over = (x >= begins) & (x <= ends)
            half = (plate.thickness or 0.0) / 2
            if below:
                high = np.where(over, np.minimum(high, plate.z - half), high)
            else:
                low = np.where(over, np.maximum(low, plate.z + half), low)
        return max(float(np.min(high - low)), 0.0)

    return depth
