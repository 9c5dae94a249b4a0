"""Angle of no lift and moment of a section, from its mean line: the thin-aerofoil integrals.

H. Glauert, "The elements of aerofoil and airscrew theory", Cambridge 1926, chapter VII: with x = (1 − cos θ)/2,
α₀ = −1/π ∫ (dz/dx)(cos θ − 1) dθ and c_m(¼) = ½ ∫ (dz/dx)(cos 2θ − cos θ) dθ, θ from 0 to π.  The mean line is taken
as straight between its points, for which both are exact.  Real sections lose a tenth or so of it to their boundary
layer.
"""

import math

import numpy as np

from hardkeel.geometry.rotation import Array


def thin_aerofoil(mean_line: Array) -> tuple[float, float]:
    """Angle of no lift against the x axis, degrees, and the moment about the quarter chord.

    Parameters
    ----------
    mean_line : Array
        Shape (n, 2): x from 0 to 1 rising, z up, shares of the chord.
    """
    theta = np.arccos(np.clip(1 - 2 * mean_line[:, 0], -1.0, 1.0))
    slope = np.diff(mean_line[:, 1]) / np.diff(mean_line[:, 0])
    lift = np.diff(np.sin(theta) - theta)
    moment = np.diff(np.sin(2 * theta) / 2 - np.sin(theta))
    no_lift = -float(np.sum(slope * lift)) / math.pi
    return math.degrees(no_lift), float(np.sum(slope * moment)) / 2
