"""The mat that a cut part is checked on: a plain cyan ground in a white rim with coded labels, all of it in mm."""

from typing import Annotated, Final

from pydantic import Field

from hardkeel.base.errors import BadInput
from hardkeel.base.values import Point2, Positive, Value

# Mid-cyan: no wood, dust, glue or shadow is like it, and a white rim would be like pale balsa.
GROUND: Final = (70, 165, 190)
CODE_MM: Final = 15.0
_MODULES: Final = 6
RIM_MM: Final = CODE_MM / _MODULES  # white round a label, at least
EDGE_MM: Final = 7.0  # a printer leaves it white
_PITCH_MM: Final = 31.0
_FOOT_MM: Final = 9.0  # for words and bars, under the lower labels
_CODES: Final = 100

Level = Annotated[int, Field(ge=0, le=255)]


class MatCode(Value):
    """A label of a mat.

    Attributes
    ----------
    corners : four (x, y)
        Of its black square, mm from the mat's lower left corner; its own upper left one first, clockwise as printed.
    """

    code: Annotated[int, Field(ge=0, lt=_CODES)]
    corners: tuple[Point2, Point2, Point2, Point2]

    @property
    def box(self) -> tuple[float, float, float, float]:
        """Least x and y, greatest x and y, mm."""
        xs, ys = zip(*self.corners, strict=True)
        return min(xs), min(ys), max(xs), max(ys)


class Mat(Value):
    """A printed mat, by the contract.

    Attributes
    ----------
    size : (float, float)
        Of the paper, mm.
    ground : (int, int, int)
        What the inside is printed in, red, green, blue, 0 to 255.
    """

    paper: str
    size: tuple[Positive, Positive]
    ground: tuple[Level, Level, Level]
    codes: tuple[MatCode, ...]

    @property
    def inside(self) -> tuple[float, float, float, float]:
        """What the labels and their white rims leave free, mm: least x and y, greatest x and y.

        Raises
        ------
        BadInput
            When they leave nothing.
        """
        wide, tall = self.size
        x0, y0, x1, y1 = 0.0, 0.0, wide, tall
        for one in self.codes:
            left, low, right, high = one.box
            margin = max(right - left, high - low) / _MODULES
            reach = {
                "left": left,
                "low": low,
                "right": wide - right,
                "high": tall - high,
            }
            nearest = min(reach, key=lambda side, reach=reach: reach[side])  # type: ignore[misc]
            if nearest == "left":
                x0 = max(x0, right + margin)
            elif nearest == "right":
                x1 = min(x1, left - margin)
            elif nearest == "low":
                y0 = max(y0, high + margin)
            else:
                y1 = min(y1, low - margin)
        if x1 - x0 <= 0 or y1 - y0 <= 0:
            raise BadInput("codes", "leave nothing free inside the mat")
        return x0, y0, x1, y1

    def measured(self, across: float, along: float) -> "Mat":
        """The same as a printer has made it that makes so many millimetres of one, across and along."""

        def as_printed(spot: Point2) -> Point2:
            return spot[0] * across, spot[1] * along

        return self.but(
            size=as_printed(self.size),
            codes=tuple(
                one.but(corners=tuple(as_printed(spot) for spot in one.corners))
                for one in self.codes
            ),
        )


def mat_for(paper: str, size: tuple[float, float]) -> Mat:
    """The mat that fills a paper, labels all round: a part may cover some of one side and the rest still do.

    Parameters
    ----------
    size : (float, float)
        mm.
    """
    wide, tall = size
    low, left = EDGE_MM + _FOOT_MM + RIM_MM, EDGE_MM + RIM_MM
    right, high = wide - left - CODE_MM, tall - left - CODE_MM
    xs, ys = _spread(left, right), _spread(low, high)
    spots = [(x, high) for x in xs] + [(right, y) for y in reversed(ys[1:-1])]
    spots += [(x, low) for x in reversed(xs)] + [(left, y) for y in ys[1:-1]]
    codes = tuple(_code(number, x, y) for number, (x, y) in enumerate(spots[:_CODES]))
    return Mat(paper=paper, size=size, ground=GROUND, codes=codes)


def _code(number: int, x: float, y: float) -> MatCode:
    far = CODE_MM
    return MatCode(code=number, corners=((x, y + far), (x + far, y + far), (x + far, y), (x, y)))


def _spread(first: float, last: float) -> list[float]:
    """Places from the first to the last, alike far apart."""
    count = max(1, round((last - first) / _PITCH_MM))
    return [round(first + (last - first) * i / count, 3) for i in range(count + 1)]
