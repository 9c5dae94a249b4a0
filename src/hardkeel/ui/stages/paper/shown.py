"""A sheet as the page shows it: its drawings with their pages, how its last print stands, what to do."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from hardkeel.base.values import Point2
from hardkeel.export.paper import LaidPage, Page
from hardkeel.export.plan_drawing import (
    DASHED,
    OTHER_END,
    WEIGHTS,
    Anchor,
    PlanDrawing,
    PlanWords,
    readable,
)
from hardkeel.export.print_set import PrintSheet
from hardkeel.messages import prints as say
from hardkeel.paper.prints import SheetStanding

_LIES = 1.25  # so much taller than wide, and it is shown lying
CHAIN, HIDDEN = (8.0, 2.0, 1.5, 2.0), (2.0, 1.2)  # mm of line and gap


@dataclass(frozen=True, slots=True)
class BoardLine:
    """A line: its points in mm, v up; how heavy, mm; its dashes, mm."""

    points: tuple[Point2, ...]
    weight: float
    dashes: tuple[float, ...] = ()
    wood: bool = False


@dataclass(frozen=True, slots=True)
class BoardPage:
    """A page on a drawing: its number, its corner, and how wide and tall it is, mm."""

    number: int
    at: Point2
    size: tuple[float, float]
    stale: bool

    def holds(self, at: Point2) -> bool:
        """Whether a place lies on it."""
        (u, v), (wide, tall) = self.at, self.size
        return u <= at[0] <= u + wide and v <= at[1] <= v + tall


@dataclass(frozen=True, slots=True)
class Board:
    """A drawing with its pages.

    Attributes
    ----------
    bounds : (float, float, float, float)
        Least u and v, greatest u and v of its pages, mm.
    """

    lines: tuple[BoardLine, ...]
    words: tuple[PlanWords, ...]
    pages: tuple[BoardPage, ...]
    bounds: tuple[float, float, float, float]


@dataclass(frozen=True, slots=True)
class SheetShown:
    """A sheet in the list, and on the table when it is picked.

    Attributes
    ----------
    is_drawing : bool
        Whether it is drawn to build over, and so goes out as DXF and SVG from here.
    """

    key: str
    name: str
    state: str
    boards: tuple[Board, ...]
    standing: SheetStanding
    is_drawing: bool

    def pages_with(self, piece: str) -> frozenset[int]:
        """The pages that a piece of a name lies on, by where that is written."""
        found = set()
        for board in self.boards:
            for words in board.words:
                names = words.text.split("\n")[0].replace("_", " ")
                if piece.replace("_", " ") in names.split(", "):
                    found |= {page.number for page in board.pages if page.holds(words.at)}
        return frozenset(found)


def sheet_shown(sheet: PrintSheet, standing: SheetStanding, page: Page) -> SheetShown:
    """A sheet with its state in words."""
    printed = standing.printed is not None
    state = say.state_words(standing.stale, standing.pages, printed=printed)
    stale = frozenset(standing.stale) if printed else frozenset()
    return SheetShown(
        sheet.key,
        say.name_of_sheet(sheet.key),
        state,
        _boards(sheet.pages, stale, page),
        standing,
        is_drawing=all(one.layer != "CUT" for drawn in sheet.drawn for one in drawn.lines),
    )


def _boards(pages: Sequence[LaidPage], stale: frozenset[int], page: Page) -> tuple[Board, ...]:
    """One for each drawing, its pages beside each other as they are laid together."""
    by_drawing: dict[int, list[LaidPage]] = {}
    for laid in pages:
        by_drawing.setdefault(id(laid.drawn), []).append(laid)
    return tuple(_board(laid, stale, page) for laid in by_drawing.values())


def _board(pages: Sequence[LaidPage], stale: frozenset[int], page: Page) -> Board:
    """As it is laid on its pages; what lies upright on them is shown lying, for a screen is wide."""
    drawn, room = pages[0].drawn, page.room
    sizes = [(room[0], min(room[1], drawn.size[1] + 10.0) if page.is_roll else room[1])] * len(
        pages
    )
    on = tuple(
        BoardPage(one.number, (one.tile.u, one.tile.v), size, one.number in stale)
        for one, size in zip(pages, sizes, strict=True)
    )
    bounds = (
        min(one.at[0] for one in on),
        min(one.at[1] for one in on),
        max(one.at[0] + one.size[0] for one in on),
        max(one.at[1] + one.size[1] for one in on),
    )
    board = Board(_lines(drawn), tuple(drawn.words), on, bounds)
    upright = bounds[3] - bounds[1] > _LIES * (bounds[2] - bounds[0])
    return _lying(board) if upright and len(on) > 1 else board


def _lying(board: Board) -> Board:
    """A quarter round, to the right: what was at the top is at the right."""

    def turned(point: Point2) -> Point2:
        return point[1], -point[0]

    left, low, right, high = board.bounds
    return Board(
        tuple(replace(one, points=tuple(map(turned, one.points))) for one in board.lines),
        tuple(
            replace(one, at=turned(one.at), turn=readable(one.turn - 90), anchor=_anchor(one))
            for one in board.words
        ),
        tuple(
            replace(one, at=(one.at[1], -one.at[0] - one.size[0]), size=one.size[::-1])
            for one in board.pages
        ),
        (low, -right, high, -left),
    )


def _anchor(words: PlanWords) -> Anchor:
    """Where they are read the other way round they end where they began."""
    over = abs(readable(words.turn - 90) - (words.turn - 90)) > 1.0
    return OTHER_END[words.anchor] if over else words.anchor


def _lines(drawn: PlanDrawing) -> tuple[BoardLine, ...]:
    return tuple(
        BoardLine(
            (*one.points, *one.points[: 1 if one.closed else 0]),
            WEIGHTS[one.layer],
            HIDDEN if one.hidden or one.layer == "MARKS" else CHAIN if one.layer in DASHED else (),
            one.wood,
        )
        for one in drawn.lines
    )
