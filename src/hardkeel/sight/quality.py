"""How sharp a photograph is and where a lamp is mirrored in it, by its labels: black, white and what is between are known."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from hardkeel.geometry.rotation import Array
from hardkeel.sight.codes import MODULES, CodeSeen, light_at

# of an edge from a tenth to nine tenths: softened by more than a pixel and a quarter, one sigma
BLURRED_PX: Final = 3.2
_GLARED: Final = 0.35  # of white: a black so light is a mirrored lamp, not shadow
_ALONG: Final = np.linspace(0.2, 0.8, 7)  # of a side
# in a smaller one lens and rim run into each other, and black is never black
_LEAST_MODULE_PX: Final = 5.0
_LEAST: Final = 3  # labels: fewer say nothing of a picture
_LEVELS: Final = (0.1, 0.9)


@dataclass(frozen=True, slots=True)
class Quality:
    """Of one photograph.

    Attributes
    ----------
    edge_px : float
        How wide a label's edge is, from a tenth of its light to nine tenths: the middle one of all.
    glared : tuple of int
        Codes of labels whose black is light: a lamp is mirrored there.
    """

    edge_px: float
    glared: tuple[int, ...]

    @property
    def is_blurred(self) -> bool:
        """Whether it was moved, or not in focus."""
        return self.edge_px > BLURRED_PX


def quality_of(grey: NDArray[np.uint8], codes: Sequence[CodeSeen]) -> Quality | None:
    """How good a photograph is; ``None`` where too few labels are seen to say.

    Parameters
    ----------
    grey : ndarray of uint8
        Shape (h, w).
    """
    if len(codes) < _LEAST:
        return None
    widths, glared = [], []
    for one in codes:
        corners = np.array(one.corners)
        middle = corners.mean(axis=0)
        module = one.sides[0] / MODULES  # the shorter way, in a label seen aslant
        if module < _LEAST_MODULE_PX:
            continue
        found = [_edge(grey, corners[i], corners[i - 1], middle, module) for i in range(4)]
        widths += [width for width, _ in found if np.isfinite(width)]
        if float(np.median([black for _, black in found])) > _GLARED:
            glared.append(one.code)
    if not widths:
        return None
    return Quality(float(np.median(widths)), tuple(glared))


def _edge(
    grey: NDArray[np.uint8], a: Array, b: Array, middle: Array, module: float
) -> tuple[float, float]:
    """How wide a side's edge is, pixels, and how light its black is beside its white."""
    run = b - a
    normal = np.array([run[1], -run[0]]) / max(float(np.linalg.norm(run)), 1e-9)
    if normal @ (a - middle) < 0:
        normal = -normal
    across = np.arange(-0.8 * module, 0.8 * module + 0.1, 0.2)
    spots = a + _ALONG[:, None, None] * run + across[None, :, None] * normal - 0.5
    profile = np.median(light_at(grey, spots), axis=0)
    black, white = float(np.median(profile[:3])), float(np.median(profile[-3:]))
    if white - black < 0.02:  # noqa: PLR2004  nothing is seen there
        return float("nan"), black / max(white, 1e-6)
    share = (profile - black) / (white - black)
    low = across[np.argmax(share > _LEVELS[0])]
    high = across[len(share) - 1 - int(np.argmax(share[::-1] < _LEVELS[1]))]
    return float(max(high - low, 0.0)), black / max(white, 1e-6)
