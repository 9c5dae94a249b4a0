"""What a fuselage takes of the steadiness: it pushes its nose further the way it points.

R. R. Gilruth and M. D. White, "Analysis and prediction of longitudinal stability of airplanes", NACA Report 711 (1941):
dC_m/dα = K·w²·L/(S·c) per radian, w the greatest width, L the length, K by where along the fuselage the wing's quarter
root chord lies, as tabled in C. D. Perkins and R. E. Hage, "Airplane performance, stability and control", Wiley 1949,
chapter 5.  The table is from memory; it holds for bodies about as high as wide, and a third either way is usual.
"""

from dataclasses import dataclass
from typing import Final

import numpy as np

_WING_AT: Final = (0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7)
_FACTOR: Final = (0.115, 0.172, 0.344, 0.487, 0.688, 0.888, 1.146)


@dataclass(frozen=True, slots=True)
class Body:
    """A fuselage as the rule wants it.

    Attributes
    ----------
    width, length : float
        mm: the greatest width, and from the first station to the last.
    wing_at : float
        Where along it the wing's quarter root chord lies, as a share from the nose.
    """

    width: float
    length: float
    wing_at: float

    @property
    def factor(self) -> float:
        """K per radian; the table's ends beyond it."""
        return float(np.interp(self.wing_at, _WING_AT, _FACTOR))

    def moves_neutral_point(self, area: float, chord: float, slope: float) -> float:
        """How far ahead it brings the neutral point, as a share of the mean chord.

        Parameters
        ----------
        area, chord : float
            The wing's, mm² and mm.
        slope : float
            Lift slope of the whole craft, per radian.
        """
        return self.factor * self.width**2 * self.length / (area * chord * slope)
