"""What every value of a build is made of: checked, frozen, and giving back keys it does not know.

These are frozen pydantic models rather than dataclasses, against the house's habit, for one reason:
a file may hold keys that we do not know and must give back (`extra="allow"` does that at every
level), and the same definition then checks a file and a builder's entry alike.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Annotated, Final, Literal, Self

from pydantic import BaseModel, ConfigDict, Field

from hardkeel.base.errors import BadInput
from hardkeel.base.faults import faults_told


@dataclass(frozen=True, slots=True)
class Usual:
    """Between what a figure of this meaning lies on nearly all models; one beyond is possible and asked about.

    It stands beside the type of a figure (`Annotated[Size, Usual(0.2, 40)]`); of several the last counts.

    Attributes
    ----------
    least, most : float
        In the unit that the figure is kept in.
    unit : str
        That unit, as it is written behind a figure.
    """

    least: float
    most: float
    unit: Literal["mm", "°", "g", "%"] = "mm"


# No figure of a model reaches a thousand kilometres; without a bound 1e308 passes every check and
# overflows in the first square.
LARGEST_FIGURE: Final = 1e9
# nor is one smaller than this there: 1e-300 is more than nothing and vanishes in the first square
SMALLEST_FIGURE: Final = 1e-6
Finite = Annotated[float, Field(allow_inf_nan=False, ge=-LARGEST_FIGURE, le=LARGEST_FIGURE)]
Positive = Annotated[float, Field(allow_inf_nan=False, gt=SMALLEST_FIGURE, le=LARGEST_FIGURE)]
NotNegative = Annotated[float, Field(allow_inf_nan=False, ge=0, le=LARGEST_FIGURE)]
Text = Annotated[str, Field(min_length=1, pattern=r"\S")]
# No model is twenty metres long: a place or a size beyond that is a slip, and the adjustment would
# spend its steps on it.
LONGEST_MODEL_MM: Final = 20_000.0
Place = Annotated[
    float,
    Field(allow_inf_nan=False, ge=-LONGEST_MODEL_MM, le=LONGEST_MODEL_MM),
    Usual(-4000, 6000),
]
THINNEST_MM: Final = 1e-3  # a thousandth: foil is ten times as thick
Size = Annotated[
    float, Field(allow_inf_nan=False, gt=THINNEST_MM, le=LONGEST_MODEL_MM), Usual(0.05, 6000)
]
SizeOrZero = Annotated[float, Field(allow_inf_nan=False, ge=0, le=LONGEST_MODEL_MM), Usual(0, 6000)]
Slope = Annotated[float, Field(allow_inf_nan=False, ge=-60, le=60)]  # incidence, dihedral: degrees

# What the figures of an airframe mean, with what is usual: from a foam glider of half a metre to a
# model of six metres; the largest sheets and sticks that are sold for models.
Station = Annotated[Place, Usual(-700, 5000)]  # from the datum aft
Upward = Annotated[Place, Usual(-900, 900)]
HalfWidth = Annotated[SizeOrZero, Usual(0, 300)]
Thickness = Annotated[Size, Usual(0.2, 40)]  # of sheet, cap, frame
Skin = Annotated[SizeOrZero, Usual(0, 12)]
Stick = Annotated[Size, Usual(0.4, 60)]  # a side of its section
SmallGap = Annotated[SizeOrZero, Usual(0, 60)]
Incidence = Annotated[Slope, Usual(-15, 15, "°")]
Dihedral = Annotated[Slope, Usual(-25, 25, "°")]
Span = Annotated[Size, Usual(80, 7000)]
Chord = Annotated[Size, Usual(15, 1500)]
ChordOrZero = Annotated[SizeOrZero, Usual(0, 1500)]
Sweep = Annotated[Place, Usual(-900, 900)]
Point = tuple[Place, Place, Place]
Point2 = tuple[Place, Place]


class Value(BaseModel):
    """A frozen value that keeps the keys it does not know."""

    model_config = ConfigDict(
        frozen=True,
        extra="allow",
        strict=True,
        populate_by_name=True,
        serialize_by_alias=True,
        defer_build=True,  # a kind of value is made ready when the first of it is met
    )

    def but(self, **changes: object) -> Self:
        """Return a copy with these fields changed and checked again.

        Raises
        ------
        BadInput
            Naming the field that can't have its new value.
        """
        # in their own order, not the set's: a file's unknown keys stay where they stood
        given = self.model_fields_set
        kept = {name: getattr(self, name) for name in type(self).model_fields if name in given}
        kept.update(self.model_extra or {})
        kept.update(changes)
        with faults_told():
            return type(self)(**kept)


def unique_ids(place: str, ids: Iterable[str], *, taken: Iterable[str] = ()) -> set[str]:
    """Return the ids as a set, with those `taken` already.

    Raises
    ------
    BadInput
        Naming the second of two that are the same: ``survey.marks[3].id``.
    """
    seen = set(taken)
    for i, one in enumerate(ids):
        if one in seen:
            raise BadInput(f"{place}[{i}].id", f'"{one}" is used twice')
        seen.add(one)
    return seen
