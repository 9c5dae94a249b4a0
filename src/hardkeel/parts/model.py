"""Parts and the ledger, as the file holds them: mm, grams, kg/m³, GPa, MPa."""

from typing import Annotated, Final, Literal

from pydantic import Field

from hardkeel.base.values import NotNegative, Positive, Text, Value

State = Literal["wanted", "cut", "cleaned", "dry-fitted", "glued", "trued"]
STATES: Final[tuple[State, ...]] = ("wanted", "cut", "cleaned", "dry-fitted", "glued", "trued")
Hand = Literal["port", "starboard", "pair", "none"]
Grain = Literal["along", "across", "any"]
PairAnswer = Literal["mirrored", "same"]
OTHER_HAND: Final = ", other hand"
Count = Annotated[int, Field(ge=0, le=10000)]


class Part(Value):
    """One line of the ledger.

    Attributes
    ----------
    hand : {"port", "starboard", "pair", "none"}
        ``pair`` is one of each: two parts that are mirror images.
    size : tuple of float
        Length, width, thickness, mm.
    volume : float, optional
        mm³ of one piece, where it is not the product of its size.
    x : float, optional
        Station of its middle, mm.
    of : str
        The body that it belongs to.
    """

    id: Text
    name: Text
    kind: Text
    hand: Hand = "none"
    material: str | None = None
    grain: Grain = "any"
    quantity: Count = 1
    size: tuple[NotNegative, NotNegative, NotNegative] = (0.0, 0.0, 0.0)
    volume: NotNegative | None = None
    x: float | None = None
    of: str = "fuselage"

    @property
    def pieces(self) -> int:
        """How many pieces of wood lie on the bench for it."""
        return self.quantity * (2 if self.hand == "pair" else 1)

    @property
    def volume_mm3(self) -> float:
        """Volume of one piece."""
        if self.volume is not None:
            return self.volume
        length, width, thickness = self.size
        return length * width * thickness


class Listed(Value):
    """A line of the printed list or of what lies in the box."""

    name: Text
    quantity: Count = 1
    material: str | None = None
    thickness: Positive | None = None


class OwnWood(Value):
    """The builder's own figures for a material; what is ``None`` stays as in the table."""

    density: Positive | None = None
    stiffness: Positive | None = None
    strength: Positive | None = None
    source: str | None = None


class CutPiece(Value):
    """Sticks that are cut: how many, and to what length, mm."""

    pieces: Count
    length: Positive


class CheckedPiece(Value):
    """What a picture of a cut piece on a mat said of it.

    Attributes
    ----------
    read_at : str
        When, ISO time.
    drawn : str
        A mark of the drawing that it was held against: of another one it says nothing.
    mirrored : bool
        It lay with its other face up: turned over, or the other hand.
    doubts : tuple of {"face", "way"}
        What its shape could not tell: which face was up, which way round it lay.
    tilt : float, optional
        How far from straight above it was seen, degrees; ``None`` of a scan.
    sigma : float
        Of one place of its edge, mm.
    by : tuple of float or None
        Wood left on along its drawn edges a millimetre apart, mm; ``None`` where no edge was seen.
    """

    read_at: str
    drawn: str
    mirrored: bool = False
    doubts: tuple[Literal["face", "way"], ...] = ()
    tilt: NotNegative | None = None
    sigma: NotNegative = 0.0
    by: tuple[float | None, ...] = ()


class Ledger(Value):
    """What the builder says of the parts; the parts themselves follow from the airframe.

    Attributes
    ----------
    weighed : dict
        Grams for all pieces of a part together.
    pairs : dict
        What holding a handed pair against each other showed.
    cut : dict
        Sticks that are cut, by what the cut list remembers them by.
    checked : dict
        Pieces that were held against their drawing on a mat, by their names; the second hand of a pair by its name
        and `OTHER_HAND`.
    """

    states: dict[str, State] = Field(default_factory=dict)
    weighed: dict[str, Positive] = Field(default_factory=dict)
    pairs: dict[str, PairAnswer] = Field(default_factory=dict)
    printed: tuple[Listed, ...] = ()
    box: tuple[Listed, ...] = ()
    own: tuple[Part, ...] = ()
    cut: dict[str, CutPiece] = Field(default_factory=dict)
    woods: dict[str, OwnWood] = Field(default_factory=dict)
    checked: dict[str, CheckedPiece] = Field(default_factory=dict)
