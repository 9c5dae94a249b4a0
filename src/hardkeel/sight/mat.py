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
JOINT_MM: Final = 9.0  # of a page that its printer leaves white, cut off where the next page lies
MOST_PAGES: Final = 2  # across and up: every page has some of the rim, and its labels
_CLEAR_MM: Final = 1.0  # of a label's white from a joint
_FOOT_MM: Final = 9.0  # for words and bars, under the lower labels
_CODES: Final = 100

Box = tuple[float, float, float, float]
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
    pages : tuple of (x0, y0, x1, y1)
        What of it is on which sheet, mm, where it is put together of several; our own addition to the file.
    """

    paper: str
    size: tuple[Positive, Positive]
    ground: tuple[Level, Level, Level]
    codes: tuple[MatCode, ...]
    pages: tuple[Box, ...] = ()

    def page_of(self, spot: Point2) -> int:
        """Which sheet a place is on."""
        x, y = spot
        for number, (x0, y0, x1, y1) in enumerate(self.pages):
            if x0 <= x < x1 and y0 <= y < y1:
                return number
        return 0

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
            pages=tuple(
                (x0 * across, y0 * along, x1 * across, y1 * along) for x0, y0, x1, y1 in self.pages
            ),
        )


def mat_for(paper: str, size: tuple[float, float], pages: tuple[int, int] = (1, 1)) -> Mat:
    """The mat that fills a paper, labels all round: a part may cover some of one side and the rest still do.

    Parameters
    ----------
    size : (float, float)
        Of the paper, mm.
    pages : (int, int)
        Sheets across and up that it is put together of.

    Raises
    ------
    BadInput
        When they are too many.
    """
    if not all(1 <= one <= MOST_PAGES for one in pages):
        raise BadInput("pages", f"{pages[0]} by {pages[1]}: one or {MOST_PAGES} each way")
    boxes = _pages(size, pages)
    wide, tall = boxes[-1][2:]
    low, left = EDGE_MM + _FOOT_MM + RIM_MM, EDGE_MM + RIM_MM
    right, high = wide - left - CODE_MM, tall - left - CODE_MM
    xs, ys = _spread(left, right), _spread(low, high)
    spots = [(x, high) for x in xs] + [(right, y) for y in reversed(ys[1:-1])]
    spots += [(x, low) for x in reversed(xs)] + [(left, y) for y in ys[1:-1]]
    whole = [spot for spot in spots if not _lies_over(spot, boxes)][:_CODES]
    codes = tuple(_code(number, x, y) for number, (x, y) in enumerate(whole))
    several = boxes if len(boxes) > 1 else ()
    return Mat(paper=paper, size=(wide, tall), ground=GROUND, codes=codes, pages=several)


def _pages(size: tuple[float, float], pages: tuple[int, int]) -> tuple[Box, ...]:
    """What each sheet has of the mat: all of it, but what is cut off at its joints."""
    (wide, tall), (across, up) = size, pages
    broad = wide - (JOINT_MM if across > 1 else 0.0)
    high = tall - (JOINT_MM if up > 1 else 0.0)
    return tuple(
        (i * broad, j * high, (i + 1) * broad, (j + 1) * high)
        for j in range(up)
        for i in range(across)
    )


def _lies_over(spot: Point2, boxes: tuple[Box, ...]) -> bool:
    """Whether a label there has some of its white on the next sheet."""
    x, y = spot
    room = RIM_MM + _CLEAR_MM
    lines_x = {one[0] for one in boxes} - {0.0}
    lines_y = {one[1] for one in boxes} - {0.0}
    return any(x - room < line < x + CODE_MM + room for line in lines_x) or any(
        y - room < line < y + CODE_MM + room for line in lines_y
    )


def _code(number: int, x: float, y: float) -> MatCode:
    far = CODE_MM
    return MatCode(code=number, corners=((x, y + far), (x + far, y + far), (x + far, y), (x, y)))


def _spread(first: float, last: float) -> list[float]:
    """Places from the first to the last, alike far apart."""
    count = max(1, round((last - first) / _PITCH_MM))
    return [round(first + (last - first) * i / count, 3) for i in range(count + 1)]
