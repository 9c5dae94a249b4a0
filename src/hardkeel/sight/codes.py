"""Coded square labels in a picture, by OpenCV's dictionary DICT_4X4_100: the one file that names it.

A corner is where two sides meet, each a line fitted to the black square's edge, which is found where the grey is half
way between black and the white rim: a few hundredths of a pixel, where the detector's own corners are off by 0.13 to 0.33.
"""

import math
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from hardkeel.base.values import Point2
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.solving import ndimage
from hardkeel.sight.opencv import cv2

MODULES: Final = 6  # black rim and all, along a side
_ALONG: Final = np.linspace(0.12, 0.88, 33)  # of a side; nearer to its ends the other side shows
_REACH_SHARE: Final = 0.5  # of a module, to each side of an edge
_GREY: Final = 128
_CLEAR: Final = 0.05  # of full light
_LEVELS: Final = np.arange(256) / 255.0
_STRAIGHT: Final = 0.04045  # below it a level is straight to its light
# from grey levels to light (IEC 61966-2-1)
LIGHT: Final = np.where(_LEVELS <= _STRAIGHT, _LEVELS / 12.92, ((_LEVELS + 0.055) / 1.055) ** 2.4)
_LEAST_SIDE_PX: Final = 9.0
_LEAST_ROUND_PX: Final = 48.0  # of a label's four sides together
_SMALL_PX, _LARGE_PX = 12.0, 160.0  # of what is looked at again
_MARGIN_SHARE, _MARGIN_PX = 0.5, 8.0  # round it: its white rim
_HAIR: Final = 1e-9
_SEED: Final = 7
_SAMPLES, _SURE = 400, 0.999
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

    @property
    def middle(self) -> Point2:
        """Where the diagonals cross: a square's middle in any perspective."""
        a, b, c, d = (np.array(one) for one in self.corners)
        ways = np.column_stack([c - a, b - d])
        if abs(float(np.linalg.det(ways))) < _HAIR:
            u, v = np.mean(self.corners, axis=0)
        else:
            u, v = a + np.linalg.solve(ways, b - a)[0] * (c - a)
        return float(u), float(v)

    @property
    def sides(self) -> tuple[float, float]:
        """The shortest and the longest side, pixels."""
        found = [math.dist(self.corners[i], self.corners[(i + 1) % 4]) for i in range(4)]
        return min(found), max(found)


def grey_of(pixels: NDArray[np.uint8]) -> NDArray[np.uint8]:
    """Red, green and blue, shape (h, w, 3), as one grey (ITU-R BT.601), shape (h, w)."""
    return np.asarray(
        cv2.cvtColor(np.ascontiguousarray(pixels), cv2.COLOR_RGB2GRAY), dtype=np.uint8
    )


def codes_in(grey: NDArray[np.uint8]) -> tuple[CodeSeen, ...]:
    """All labels in a picture, shape (h, w), dark on light; one that is there twice is found twice.

    What looks like a label and could not be read is looked at again at twice its size: small ones are read so.
    """
    detector = cv2.aruco.ArucoDetector(_dictionary(), _careful(grey.shape))
    picture = np.ascontiguousarray(grey)
    found, codes, unread = detector.detectMarkers(picture)
    rough = [
        (int(code), np.asarray(corners, dtype=float).reshape(4, 2) + 0.5)
        for corners, code in zip(found, np.ravel(codes) if len(found) else (), strict=True)
    ]
    rough += _read_larger(
        detector, picture, [np.asarray(one, dtype=float).reshape(4, 2) for one in unread], rough
    )
    seen = []
    for code, corners in rough:
        # once more from what was found: the detector may lie two pixels off on a large clean label
        fine = _sharpened(grey, _sharpened(grey, corners))
        spots = tuple((float(u), float(v)) for u, v in fine)
        seen.append(CodeSeen(code, spots))  # type: ignore[arg-type]
    return tuple(sorted(seen, key=lambda one: (one.code, one.corners)))


def _careful(shape: tuple[int, ...]) -> "cv2.aruco.DetectorParameters":
    """More pixels to a module, and only the middle of each: small labels aslant are read so."""
    careful = cv2.aruco.DetectorParameters()
    careful.perspectiveRemovePixelPerCell = 10
    careful.perspectiveRemoveIgnoredMarginPerCell = 0.33
    # by default nothing under 0.03 of the picture's longer side is looked at: 30 pixels of a telephone's
    careful.minMarkerPerimeterRate = _LEAST_ROUND_PX / max(shape)
    return careful


def _read_larger(
    detector: "cv2.aruco.ArucoDetector",
    picture: NDArray[np.uint8],
    unread: list[Array],
    known: list[tuple[int, Array]],
) -> list[tuple[int, Array]]:
    """What is read of quadrilaterals that could not be, at twice their size; what is known already is left out."""
    high, wide = picture.shape
    found: list[tuple[int, Array]] = []
    for quad in unread:
        low, top = quad.min(axis=0), quad.max(axis=0)
        if not _SMALL_PX <= float((top - low).max()) <= _LARGE_PX or _is_there(quad, known):
            continue
        edge = np.maximum(_MARGIN_SHARE * (top - low), _MARGIN_PX)
        u0, v0 = (int(one) for one in np.maximum(low - edge, 0))
        u1, v1 = (int(one) for one in np.minimum(top + edge + 1, (wide, high)))
        crop = picture[v0:v1, u0:u1]
        if min(crop.shape) < _SMALL_PX:
            continue
        larger = cv2.resize(crop, None, fx=2, fy=2, interpolation=cv2.INTER_CUBIC)
        corners, codes, _ = detector.detectMarkers(larger)
        for one, code in zip(corners, np.ravel(codes) if len(corners) else (), strict=True):
            spots = (np.asarray(one, dtype=float).reshape(4, 2) + 0.5) / 2 + (u0, v0)
            if not _is_there(spots, [*known, *found]):
                found.append((int(code), spots))
    return found


def _is_there(quad: Array, known: list[tuple[int, Array]]) -> bool:
    middle, reach = quad.mean(axis=0), float(np.ptp(quad, axis=0).max()) / 2
    return any(float(np.abs(one.mean(axis=0) - middle).max()) < reach for _, one in known)


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
    rows = light_at(grey, spots)
    inside, outside = np.median(rows[:, :5], axis=1), np.median(rows[:, -5:], axis=1)
    half = (inside + outside) / 2
    clear = outside - inside > _CLEAR  # between black and the rim
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


def light_at(grey: NDArray[np.uint8], spots: Array) -> Array:
    """Light at places (u, v) between pixels' middles, 0 to 1: a pixel gathers light, so levels are turned into it first."""
    high, wide = grey.shape
    flat = spots.reshape(-1, 2)
    u0, v0 = (max(int(one) - 1, 0) for one in np.floor(flat.min(axis=0)))
    u1 = min(int(flat[:, 0].max()) + 3, wide)
    v1 = min(int(flat[:, 1].max()) + 3, high)
    if u1 <= u0 or v1 <= v0:
        return np.zeros(spots.shape[:-1])
    light = LIGHT[grey[v0:v1, u0:u1]]
    found: Array = ndimage.map_coordinates(
        light, [spots[..., 1] - v0, spots[..., 0] - u0], order=1, mode="nearest"
    )
    return found


def _line_through(places: Array) -> tuple[Array, Array]:
    """A point of the line that leaves least, and its normal."""
    centre = places.mean(axis=0)
    way = np.linalg.svd(places - centre, full_matrices=False)[2][0]
    return centre, np.array([way[1], -way[0]])


@dataclass(frozen=True)
class Pose:
    """A camera by most of what it sees.

    Attributes
    ----------
    place : Array
        Shape (3,), mm.
    agree : ndarray of bool
        Shape (m,): which of the points fall near enough where they were seen.
    """

    place: Array
    agree: NDArray[np.bool_]


def pose_by_samples(
    points: Array, pixels: Array, focal: float, size: tuple[int, int], within: float
) -> Pose | None:
    """A camera of a known focal length by random samples of points; ``None`` where there is none.

    Parameters
    ----------
    points, pixels : Array
        Shape (m, 3), mm, and (m, 2).
    within : float
        How far a point may fall from where it was seen to agree, pixels.
    """
    lens = np.array([[focal, 0.0, size[0] / 2], [0.0, focal, size[1] / 2], [0.0, 0.0, 1.0]])
    cv2.setRNGSeed(_SEED)
    try:
        good, turn, shift, _ = cv2.solvePnPRansac(
            points.astype(np.float64), pixels.astype(np.float64), lens, None,
            iterationsCount=_SAMPLES, reprojectionError=within, confidence=_SURE, flags=cv2.SOLVEPNP_SQPNP,
        )  # fmt: skip
    except cv2.error:
        return None
    if not good:
        return None
    rotation, _ = cv2.Rodrigues(turn)
    away = points @ rotation.T + shift.ravel()
    before = away[:, 2] > 1.0
    fallen = np.full(pixels.shape, np.inf)
    fallen[before] = away[before, :2] / away[before, 2:] * focal + np.array(size) / 2
    agree = np.hypot(*(fallen - pixels).T) <= within
    place = np.asarray(-rotation.T @ shift.ravel(), dtype=float)
    return Pose(place, np.asarray(agree))


def label_before(seen: CodeSeen, side: float, focal: float, size: tuple[int, int]) -> Array:
    """Where a label's middle stands before the camera, shape (3,), mm: x to the right, y down, z away.

    Parameters
    ----------
    side : float
        Of the black square, mm.
    """
    lens = np.array([[focal, 0.0, size[0] / 2], [0.0, focal, size[1] / 2], [0.0, 0.0, 1.0]])
    half = side / 2
    square = np.array([[-half, half, 0], [half, half, 0], [half, -half, 0], [-half, -half, 0]])
    _, _, shift = cv2.solvePnP(
        square, np.array(seen.corners, dtype=np.float64), lens, None, flags=cv2.SOLVEPNP_IPPE_SQUARE
    )
    return np.asarray(shift, dtype=float).ravel()
