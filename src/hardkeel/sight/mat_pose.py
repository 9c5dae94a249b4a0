"""How a picture lies on its mat: by the corners of its labels, a photograph's camera or a scanner's glass."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from hardkeel.base.errors import BadInput
from hardkeel.geometry.rotation import Array
from hardkeel.geometry.solving import optimize
from hardkeel.sight.codes import CodeSeen
from hardkeel.sight.mat import Mat
from hardkeel.survey.cameras import K1_SIGMA, UNTOLD_FOCAL, UNTOLD_FOCAL_SIGMA, Camera, turned

LEAST_CODES: Final = 4
_FOCAL_SIGMA: Final = 0.05  # of ln f, of what a camera wrote as for 35 mm film; the contract's
_CORNER_PX: Final = 0.15  # one sigma of a corner, paper that lies as paper lies
_FLAT_PX: Final = 0.6  # what a scan's corners leave at most, rms
_LAID_MM, _LAID_RAD = 0.7, 0.006  # how a sheet is put to the next, one sigma
_LOOSE: Final = (
    3.0  # sigmas from which a corner counts less: a label that has come loose, paper that curls
)
_FAR_SHARE: Final = 0.25  # of a label's side: nobody's corner lies so far off


@dataclass(frozen=True)
class OnMat:
    """A picture with its mat.

    Attributes
    ----------
    camera : Camera, optional
        Axes of the mat, mm, z up from the paper; ``None`` of a scan.
    across : Array, optional
        Shape (2, 3), of a scan: pixels = across @ (x, y, 1).
    left_px : float
        What the corners leave, rms.
    focal_sigma : float
        Of the logarithm of the focal length, as it is known in the end.
    codes : tuple of int
        Those it was laid by.
    """

    size: tuple[int, int]
    camera: Camera | None
    across: Array | None
    left_px: float
    focal_sigma: float
    codes: tuple[int, ...]

    def pixels(self, spots: Array) -> Array:
        """Where places on the paper, shape (…, 2), mm, fall: shape (…, 2), pixels."""
        flat = spots.reshape(-1, 2)
        if self.camera is None:
            assert self.across is not None  # noqa: S101  one of them is there
            scanned: Array = flat @ self.across[:, :2].T + self.across[:, 2]
            return scanned.reshape(spots.shape)
        points = np.column_stack([flat, np.zeros(len(flat))])
        return self.camera.project(points, self.size).reshape(spots.shape)

    @property
    def per_mm(self) -> float:
        """Pixels to a millimetre at the middle of the picture's labels, the coarser way."""
        at = self.middle
        ends = at + np.array([[0.0, 0.0], [1.0, 0.0], [0.0, 1.0]])
        spots = self.pixels(ends)
        return float(np.linalg.norm(spots[1:] - spots[0], axis=1).min())

    @property
    def middle(self) -> Array:
        """The place under the camera's axis, or a scan's own middle, shape (2,), mm."""
        if self.camera is None:
            assert self.across is not None  # noqa: S101
            off = np.array(self.size) / 2 - self.across[:, 2]
            return np.asarray(np.linalg.solve(self.across[:, :2], off), dtype=float)
        way = self.camera.rotation[2]
        met: Array = (self.camera.place - way * (self.camera.place[2] / way[2]))[:2]
        return met

    @property
    def tilt(self) -> float | None:
        """Degrees between the camera's axis and straight down; ``None`` of a scan."""
        if self.camera is None:
            return None
        return math.degrees(math.acos(min(1.0, max(-1.0, -float(self.camera.rotation[2, 2])))))

    def spread(self, spots: Array, height: float) -> Array:
        """How far what stands `height` mm over places on the paper is seen from them, shape (m, 2), mm.

        A ray through (p, z) meets the paper at c + (p - c)·h/(h - z), c the camera's foot and h its height.
        """
        if self.camera is None or height <= 0:
            return np.zeros_like(spots)
        foot, high = self.camera.place[:2], float(self.camera.place[2])
        found: Array = (spots - foot) * height / (high - height)
        return found


def lay_on(mat: Mat, seen: Sequence[CodeSeen], size: tuple[int, int], focal: float | None) -> OnMat:
    """Lay a picture on its mat by the labels that are seen.

    Without a focal length and without perspective it is a scan.

    Parameters
    ----------
    size : (int, int)
        Of the picture, pixels.
    focal : float, optional
        Pixels, as the camera wrote it.

    Raises
    ------
    BadInput
        When fewer than four labels of the mat are seen, or they lie as no paper does.
    """
    spots, pixels, codes = _corners(mat, seen)
    if len(codes) < LEAST_CODES:
        raise BadInput(
            "", f"shows {len(codes)} of the mat's {len(mat.codes)} labels: four at least are needed"
        )
    across, left = _affine(spots, pixels)
    if focal is None and left <= _FLAT_PX:
        return OnMat(size, None, across, left, 0.0, codes)
    start = _start(spots, pixels, size, focal)
    sheets = np.repeat([_sheet(mat, code) for code in codes], 4)
    camera, left, sigma = _fitted((spots, sheets), pixels, size, (start, focal))
    side = float(np.linalg.norm(np.diff(pixels[:2], axis=0)))
    if left > _FAR_SHARE * side:
        raise BadInput("", "does not show this mat: its labels lie elsewhere")
    return OnMat(size, camera, None, left, sigma, codes)


def _corners(mat: Mat, seen: Sequence[CodeSeen]) -> tuple[Array, Array, tuple[int, ...]]:
    """Corners on the mat and in the picture, shape (4n, 2) each; a code that is there twice is left out."""
    known = {one.code: one for one in mat.codes}
    count = [one.code for one in seen]
    used = [one for one in seen if one.code in known and count.count(one.code) == 1]
    spots = [corner for one in used for corner in known[one.code].corners]
    pixels = [corner for one in used for corner in one.corners]
    return (
        np.array(spots, dtype=float).reshape(-1, 2),
        np.array(pixels, dtype=float).reshape(-1, 2),
        tuple(one.code for one in used),
    )


def _sheet(mat: Mat, code: int) -> int:
    """Which sheet of the mat a label is on."""
    x0, y0, x1, y1 = next(one.box for one in mat.codes if one.code == code)
    return mat.page_of(((x0 + x1) / 2, (y0 + y1) / 2))


def _put(spots: Array, sheets: Array, moves: Array) -> Array:
    """Places where the sheets lie: each but the first seen shifted and turned a little about its labels' middle."""
    found = spots.copy()
    for number, move in zip(np.unique(sheets)[1:], moves.reshape(-1, 3), strict=True):
        mine = sheets == number
        middle = spots[mine].mean(axis=0)
        x, y = (spots[mine] - middle).T
        c, s = math.cos(move[2]), math.sin(move[2])
        found[mine] = middle + move[:2] + np.column_stack([c * x - s * y, s * x + c * y])
    return found


def _affine(spots: Array, pixels: Array) -> tuple[Array, float]:
    """Pixels = A @ (x, y, 1), and what that leaves, rms."""
    rows = np.column_stack([spots, np.ones(len(spots))])
    found: Array = np.asarray(np.linalg.lstsq(rows, pixels, rcond=None)[0].T, dtype=float)
    off = rows @ found.T - pixels
    return found, float(np.sqrt(np.mean(np.sum(off**2, axis=1))))


def _homography(spots: Array, pixels: Array) -> Array:
    """By the direct linear transform, both sides about their middles (R. Hartley, PAMI 19 (1997) 580)."""

    def about(points: Array) -> tuple[Array, Array]:
        middle = points.mean(axis=0)
        scale = math.sqrt(2) / max(float(np.linalg.norm(points - middle, axis=1).mean()), 1e-9)
        turn = np.array([[scale, 0, -scale * middle[0]], [0, scale, -scale * middle[1]], [0, 0, 1]])
        return turn, (points - middle) * scale

    from_, a = about(spots)
    to, b = about(pixels)
    rows = []
    for (x, y), (u, v) in zip(a.tolist(), b.tolist(), strict=True):
        rows.append([-x, -y, -1, 0, 0, 0, u * x, u * y, u])
        rows.append([0, 0, 0, -x, -y, -1, v * x, v * y, v])
    flat = np.linalg.svd(np.array(rows))[2][-1].reshape(3, 3)
    found: Array = np.linalg.inv(to) @ flat @ from_
    return found


def _start(spots: Array, pixels: Array, size: tuple[int, int], focal: float | None) -> Camera:
    """A camera near enough, from the homography; its focal length as told, else by what perspective says of it."""
    flat = _homography(spots, pixels - np.array(size) / 2)
    a, b = flat[:, 0], flat[:, 1]
    if focal is None:
        # of columns K·r1 and K·r2: they stand square to each other and are alike long
        cross, long = a[0] * b[0] + a[1] * b[1], a[2] * b[2]
        other, far = a[:2] @ a[:2] - b[:2] @ b[:2], a[2] ** 2 - b[2] ** 2
        square = -(cross * long + other * far) / max(long**2 + far**2, 1e-30)
        usual = UNTOLD_FOCAL * max(size)
        focal = math.sqrt(square) if usual / 4 < math.sqrt(max(square, 0)) < usual * 4 else usual
    inverse = np.diag([1 / focal, 1 / focal, 1.0]) @ flat
    inverse /= math.sqrt(
        float(np.linalg.norm(inverse[:, 0])) * float(np.linalg.norm(inverse[:, 1]))
    )
    if inverse[2, 2] < 0:
        inverse = -inverse
    first = inverse[:, 0] / np.linalg.norm(inverse[:, 0])
    second = inverse[:, 1] - first * (first @ inverse[:, 1])
    second /= np.linalg.norm(second)
    rotation = np.column_stack([first, second, np.cross(first, second)])
    return Camera(-rotation.T @ inverse[:, 2], rotation, math.log(focal), 0.0)


def _fitted(
    laid: tuple[Array, Array],
    pixels: Array,
    size: tuple[int, int],
    begun: tuple[Camera, float | None],
) -> tuple[Camera, float, float]:
    """The camera that leaves least, the rms of that, and the sigma of ln f; with it how the sheets were put together."""
    start, told = begun
    spots, sheets = laid
    more = len(np.unique(sheets)) - 1
    put = np.tile([_LAID_MM, _LAID_MM, _LAID_RAD], more)
    ln_focal = math.log(told) if told is not None else math.log(UNTOLD_FOCAL * max(size))
    sigma = _FOCAL_SIGMA if told is not None else UNTOLD_FOCAL_SIGMA
    flat = np.zeros(len(spots))
    reach = float(np.linalg.norm(start.place))

    def camera_of(x: Array) -> Camera:
        turn, _ = turned(x[3:6])
        return Camera(
            start.place + x[:3] * reach, turn @ start.rotation, float(start.log_focal + x[6]), x[7]
        )

    def left(x: Array) -> Array:
        camera = camera_of(x)
        points = np.column_stack([_put(spots, sheets, x[8:] * put), flat])
        off = np.nan_to_num(camera.project(points, size) - pixels, nan=1e4).ravel() / _CORNER_PX
        priors = [(camera.log_focal - ln_focal) / sigma, camera.k1 / K1_SIGMA]
        return np.concatenate([off, priors, x[8:]])

    # what is far out counts less, priors never: the soft loss leaves small figures as they are
    best = optimize.least_squares(
        left, np.zeros(8 + 3 * more), loss="soft_l1", f_scale=_LOOSE, max_nfev=200
    )
    off = left(best.x)[: pixels.size] * _CORNER_PX
    rms = float(np.sqrt(np.mean(off**2) * 2))
    doubt = max(1.0, rms / math.sqrt(2) / _CORNER_PX)
    cofactor = np.linalg.pinv(best.jac.T @ best.jac)
    return camera_of(best.x), rms, float(math.sqrt(max(cofactor[6, 6], 0.0)) * doubt)
