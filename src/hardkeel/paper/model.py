"""Audit sheets and plans on the desk, as the file holds them.  Lengths in mm, pixels as such."""

from typing import Annotated, Final, Literal

from pydantic import Field

from hardkeel.base.values import Finite, Place, Positive, Size, Text, Value

Direction = Literal["x", "y"]
PairKind = Literal["outline", "spacing", "bent-length"]
TraceKind = Literal[
    "side-top",
    "side-bottom",
    "plan-side",
    "plan-centre",
    "stations",
    "outline",
    "hinge",
    "ribs",
    "free",
]
MapKind = Literal["similar", "axes", "affine", "perspective"]
# a name inside the build's own file, never a way out of it
ImageName = Annotated[str, Field(pattern=r"^plans/[A-Za-z0-9][A-Za-z0-9._-]{0,80}$")]
Pixels = Annotated[int, Field(gt=0, le=200_000)]
PixelPoint = tuple[
    Finite, Finite
]  # of an image: what is usual for places of a model says nothing of it
DEFAULT_SIGMA_MM: Final = 0.3


class Pair(Value):
    """A dimension as the plan says it and as it was measured on the sheet or part.

    Attributes
    ----------
    direction : {"x", "y"}
        On the paper.
    kind : {"outline", "spacing", "bent-length"}
        An outside dimension, one between two lines, or one along a side that will be bent.
    """

    part: Text | None = None
    direction: Direction = "x"
    kind: PairKind = "outline"
    plan: Size
    measured: Size
    sigma: Positive = DEFAULT_SIGMA_MM


class PrintedSheet(Value):
    """A sheet that is audited."""

    id: Text
    pairs: tuple[Pair, ...] = ()


class KnownLength(Value):
    """Two points of the scan (pixels) that are known to be `length` mm apart.

    Attributes
    ----------
    along : {"x", "y"}, optional
        The plan's direction that the line between them has, where that is known.
    """

    a: PixelPoint
    b: PixelPoint
    length: Size
    along: Direction | None = None


class KnownPoint(Value):
    """A point of the scan (pixels) whose place on the plan is known (mm, y up).

    Attributes
    ----------
    of : str, optional
        What it is, where that is known from elsewhere: a former's end, or the sheet that shows it too.  Then its place
        counts from the airframe's datum.
    """

    pixel: PixelPoint
    plan: tuple[Place, Place]
    of: Text | None = None


class SheetLabel(Value):
    """A coded label that lies on the plan: its size is known, its place is not.

    Attributes
    ----------
    corners : tuple of four PixelPoint
        Of its black square, pixels, in turn.
    size : float
        Its side, mm.
    """

    code: Annotated[int, Field(ge=0, lt=100)]
    corners: tuple[PixelPoint, PixelPoint, PixelPoint, PixelPoint]
    size: Size


class Trace(Value):
    """A line clicked off the scan, in pixels, so that a better calibration moves it too.

    Attributes
    ----------
    followed : {"open", "round"}, optional
        Where it lies along the ink, point after point: to its ends, or all round.
    """

    id: Text
    kind: TraceKind = "free"
    pixels: tuple[PixelPoint, ...] = ()
    followed: Literal["open", "round"] | None = None


class Plan(Value):
    """A scan or photo of a plan with what is known of it.

    Attributes
    ----------
    image : str
        Its name inside the build's file: ``plans/….png``.
    photo : bool
        Whether it was taken with a camera: then perspective is corrected.
    origin : PixelPoint
        Where the datum's station and datum line lie, in pixels.
    size : tuple of int
        Of the image, pixels; a lens bends about its middle.
    """

    id: Text
    image: ImageName
    photo: bool = False
    lengths: tuple[KnownLength, ...] = ()
    points: tuple[KnownPoint, ...] = ()
    traces: tuple[Trace, ...] = ()
    origin: PixelPoint | None = None
    size: tuple[Pixels, Pixels] | None = None
    labels: tuple[SheetLabel, ...] = ()
