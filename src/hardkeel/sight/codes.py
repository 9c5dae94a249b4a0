"""Coded square labels in a picture, by OpenCV's dictionary DICT_4X4_100: the one file that names it.

A corner is where two sides meet, each a line fitted to the black square's edge, which is found where the grey is half
way between black and the white rim: a few hundredths of a pixel, where the detector's own corners are off by 0.13 to 0.33.
"""

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING, Final

import numpy as np
from numpy.typing import NDArray

from hardkeel.base.late import late
from hardkeel.base.values import Point2
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.solving import ndimage

if TYPE_CHECKING:
    import cv2
else:
    cv2 = late("cv2")

MODULES: Final = 6  # black rim and all, along a side
_ALONG: Final = np.linspace(0.12, 0.88, 33)  # of a side; nearer to its ends the other side shows
_REACH_SHARE: Final = 0.5  # of a module, to each side of an edge
_GREY: Final = 128
_LEAST_SIDE_PX: Final = 14.0
_FAR_PX, _FAR_SHARE = (
    2.5,
    0.25,
)  # pixels or of a module: a fitted corner lies so near to the detector's


@dataclass(frozen=True, slots=True)
class CodeSeen:
    """A label in a picture.

    Attributes
    ----------
    corners : tuple of four (u, v)
        Of the black square, pixels, (0, 0) the corner of the first one; the label's own upper left first, clockwise.
    """

    code: int
    corners: tuple[Point2, Point2, Point2, Point2]


def codes_in(grey: NDArray[np.uint8]) -> tuple[CodeSeen, ...]:
    """All labels in a picture, shape (h, w), dark on light."""
    detector = cv2.aruco.ArucoDetector(_dictionary(), cv2.aruco.DetectorParameters())
    found, codes, _ = detector.detectMarkers(np.ascontiguousarray(grey))
    seen = []
    for corners, code in zip(found, np.ravel(codes) if len(found) else (), strict=True):
        rough = np.asarray(corners, dtype=float).reshape(4, 2) + 0.5
        # once more from what was found: the detector may lie two pixels off on a large clean label
        fine = _sharpened(grey, _sharpened(grey, rough))
        spots = tuple((float(u), float(v)) for u, v in fine)
        seen.append(CodeSeen(int(code), spots))  # type: ignore[arg-type]
    return tuple(sorted(seen, key=lambda one: one.code))


def bits_of(code: int) -> NDArray[np.bool_]:
    """Which modules of a label are black, shape (6, 6), its black rim with it.

    Raises
    ------
    ValueError
        When there is no such code, 0 to 99.
    """
    if not 0 <= code < 100:  # noqa: PLR2004  of the dictionary
        raise ValueError(f"there is no code {code}")
    drawn: NDArray[np.uint8] = np.asarray(
        cv2.aruco.generateImageMarker(_dictionary(), code, MODULES), dtype=np.uint8
    )
    return np.asarray(drawn < _GREY, dtype=np.bool_)


def _dictionary() -> "cv2.aruco.Dictionary":
    return cv2.aruco.getPredefinedDictionary(cv2.aruco.DICT_4X4_100)


def _sharpened(grey: NDArray[np.uint8], rough: Array) -> Array:
    """Corners where the sides' fitted lines meet; the rough ones where a side can't be seen."""
    lines = [_side(grey, rough[i], rough[(i + 1) % 4], rough.mean(axis=0)) for i in range(4)]
    fine = rough.copy()
    for i in range(4):
        before, after = lines[i - 1], lines[i]
        if before is None or after is None:
            continue
        rows = np.array([before[1], after[1]])
        if abs(np.linalg.det(rows)) < 0.2:  # noqa: PLR2004  sides nearly along each other
            continue
        met = np.linalg.solve(rows, [before[1] @ before[0], after[1] @ after[0]])
        far = max(_FAR_PX, _FAR_SHARE * math.dist(rough[i], rough[i - 1]) / MODULES)
        if math.dist(met, rough[i]) < far:
            fine[i] = met
    return fine


def _side(grey: NDArray[np.uint8], a: Array, b: Array, middle: Array) -> tuple[Array, Array] | None:
    """A point of a side's line and its normal, out of the square."""
    run = b - a
    long = float(np.hypot(*run))
    if long < _LEAST_SIDE_PX:
        return None
    normal = np.array([run[1], -run[0]]) / long
    if normal @ (a - middle) < 0:
        normal = -normal
    reach = max(2.0, _REACH_SHARE * long / MODULES)
    across = np.arange(-reach, reach + 0.05, 0.1)
    spots = a + _ALONG[:, None, None] * run + across[None, :, None] * normal - 0.5
    rows = ndimage.map_coordinates(
        grey, [spots[..., 1], spots[..., 0]], output=np.float64, order=1, mode="nearest"
    )
    inside, outside = np.median(rows[:, :5], axis=1), np.median(rows[:, -5:], axis=1)
    half = (inside + outside) / 2
    clear = outside - inside > 25  # noqa: PLR2004  grey levels between black and the rim
    edges = []
    for row, level, good in zip(rows, half, clear, strict=True):
        over = np.flatnonzero((row[:-1] < level) & (row[1:] >= level))
        if not good or len(over) != 1:
            edges.append(np.nan)
            continue
        i = int(over[0])
        edges.append(across[i] + (level - row[i]) / (row[i + 1] - row[i]) * 0.1)
    off = np.array(edges)
    known = np.isfinite(off)
    if known.sum() < len(_ALONG) // 3:
        return None
    places = (a + _ALONG[:, None] * run + off[:, None] * normal)[known]
    centre, square = _line_through(places)
    left = np.abs((places - centre) @ square)
    return _line_through(places[left <= max(3 * float(np.median(left)), 0.05)])


def _line_through(places: Array) -> tuple[Array, Array]:
    """A point of the line that leaves least, and its normal."""
    centre = places.mean(axis=0)
    way = np.linalg.svd(places - centre, full_matrices=False)[2][0]
    return centre, np.array([way[1], -way[0]])
