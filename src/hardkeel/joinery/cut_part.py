"""A line of a cut list, and strips that lie in the rack."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated

from pydantic import Field

from hardkeel.base.values import Point2, Size, Value


@dataclass(frozen=True, slots=True)
class CutPart:
    """A line of the cut list.

    Attributes
    ----------
    kind : str
        ``upright``, ``diagonal``, ``cross-piece``, ``corner-strip``, ``stringer``, ``bearer``, ``plank`` or
        ``longeron``.
    quantity : int
        Of both sides together.
    section : (float, float)
        Across the side, and as seen in the drawing, mm.
    ends : tuple of tuple of float
        Angles of the cuts, degrees; empty for what is trimmed in place.
    outline : tuple of (s, z)
        Of a stick of the drawing, as it lies in it; empty for others.
    key : str
        What it is remembered by, once it is cut.
    triangular : bool
        Half a square, cut corner to corner.
    member : str
        The member that it is of, where it is of one.
    """

    name: str
    kind: str
    quantity: int
    section: tuple[float, float]
    length: float
    ends: tuple[tuple[float, ...], ...]
    material: str | None
    outline: tuple[Point2, ...] = ()
    key: str = ""
    triangular: bool = False
    member: str = ""


def is_fitted(end: Sequence[float]) -> bool:
    """Whether an end lies against a curve: it has more faces than a pointed one, and no angle to set a jig to."""
    return len(end) > 2  # noqa: PLR2004  the faces of a pointed end


class Stock(Value):
    """Strips that lie in the builder's own rack, mm."""

    section: tuple[Size, Size]
    length: Size
    pieces: Annotated[int, Field(ge=1, le=1000)] = 1
    material: str | None = None
