"""What is said of sheets that are printed: which, what has changed, what to print."""

from collections.abc import Mapping, Sequence
from datetime import datetime
from typing import Final

from hardkeel.base.units import LengthUnit, decimal, format_length
from hardkeel.messages.building_plan import sheet_name
from hardkeel.messages.counting import number_of

PAPER: Final = "Paper"
NOW: Final = "Now"
SHEETS: Final = "Sheets"
SINCE: Final = "since the last print"
NOTHING_TO_PRINT: Final = (
    "Nothing to print yet: give the fuselage two stations, or a tail its sticks."
)
LAYING_OUT: Final = "laying the pages out…"
NOT_PRINTED: Final = "not printed yet"
STILL_RIGHT: Final = "still right"
PRINT_ALL: Final = "Print all of it"
AS_A_FILE: Final = "As a file"
PDF_PAGES: Final = "PDF, these pages"
PDF_WHOLE: Final = "PDF, one page"
DXF: Final = "DXF"
SVG: Final = "SVG"
LOOK_AT_IT: Final = "Look at the page"
FORGET: Final = "The print is lost"
PRINTER: Final = "Printer"
BARS: Final = "Measure both bars of a print, and type what they are; all pages come out true then."
BARS_LINE: Final = "Its bars"
THE_SHEET: Final = "the sheet"
NEARER: Final = (
    "Wheel: nearer.  Drag: move.  Double click: all of it.  Click a page: print it, or not."
)
ACROSS: Final = "across"
UP: Final = "up the page"
AS_IT_COMES: Final = "any printer, as it comes"
NOTE_IT: Final = "note the print"
FORGET_IT: Final = "forget the print"
PDF_FILES: Final = "PDF (*.pdf)"
DXF_FILES: Final = "DXF drawings (*.dxf)"
SVG_FILES: Final = "SVG drawings (*.svg)"
STATION: Final = "station "
OUTLINE: Final = "outline of "
_SOON: Final = 6  # so many figures are told, the rest counted
_SAID: Final = {
    "side": "the sides",
    "top": "the view from above",
    "board": "the board",
    "sections": "the sections",
    "elevation": "the side elevation",
    "sticks": "the list of sticks",
    "tail-sticks": "the tail's list of sticks",
    "strips": "the long strips",
    "pieces": "the pieces to cut out",
    "tail-pieces": "the tail pieces to cut out",
}
_TRUE: Final = 5e-4  # a twentieth of a millimetre in the bars' hundred
_KEYS: Final = {"pieces": "Pieces to cut out", "tail-pieces": "Tail pieces to cut out"}


def name_of_sheet(key: str) -> str:
    """What a sheet is called."""
    return _KEYS.get(key) or sheet_name(key)


def said_of_sheet(key: str) -> str:
    """The same within a sentence."""
    name = sheet_name(key)
    return _SAID.get(key) or f"the {name[:1].lower()}{name[1:]}"


def outline_of(piece: str) -> str:
    """Under which name a piece's outline is remembered."""
    return f"{OUTLINE}{piece}"


def pages_words(count: int, paper: str) -> str:
    """``9 pages of A4, laid together on their crosses``."""
    if count == 1:
        return f"One page of {paper}."
    return f"{number_of(count, 'page')} of {paper}, laid together on their crosses, 10 mm over each other."


def foot_words(count: int, paper: str) -> str:
    """Under the sheet."""
    return f"{pages_words(count, paper)}  {NEARER}"


def which_pages(numbers: Sequence[int], count: int) -> str:
    """``2, 4, 5 and 7``; ``all 9 pages``; ``the page``."""
    if count == 1:
        return "the page"
    if len(numbers) == count:
        return f"all {count} pages"
    told = [str(number) for number in numbers]
    words = f"{', '.join(told[:-1])} and {told[-1]}" if len(told) > 1 else told[0]
    return f"page {words}" if len(told) == 1 else f"pages {words}"


def print_button(numbers: Sequence[int], count: int) -> str:
    """On the button that Enter presses."""
    return f"Print {which_pages(numbers, count)} (Enter)"


def act_words(key: str, stale: Sequence[int], count: int, *, printed: bool) -> str:
    """The one thing to do with a sheet."""
    name = said_of_sheet(key)
    if not stale:
        return f"The print of {name} is still right."
    if not printed:
        return f"Print {name}: {number_of(count, 'page')}."
    if len(stale) == count:
        return f"Print {name} again."
    return f"Print {number_of(len(stale), 'page')} of {name} again."


def state_words(stale: Sequence[int], count: int, *, printed: bool) -> str:
    """How a sheet's print stands, in a word or two."""
    if not printed:
        return NOT_PRINTED
    if not stale:
        return STILL_RIGHT
    return f"out of date: {which_pages(stale, count)}" if count > 1 else "out of date"


def when_words(at: str, count: int) -> str:
    """``Printed on Tue 6 Oct, for the 2nd time.``."""
    day = datetime.fromisoformat(at)
    times = "" if count < 2 else f", {count} times by now"  # noqa: PLR2004  once needs no word
    return f"Printed on {day:%a} {day.day} {day:%b %H:%M}{times}."


def changed_words(
    changed: Mapping[str, tuple[float | None, float | None]], unit: LengthUnit
) -> str:
    """``F5 went 2.0 mm aft; upright 4 and diagonal 11 have other lengths.``; empty where no figure has changed."""
    moved = [
        _moved(name.removeprefix(STATION).replace("_", " "), was, now, unit)
        for name, (was, now) in changed.items()
        if name.startswith(STATION) and was is not None and now is not None
    ]
    shaped = [
        name.removeprefix(OUTLINE)
        for name, (was, now) in changed.items()
        if name.startswith(OUTLINE) and was is not None and now is not None
    ]
    other = [
        name
        for name, (was, now) in changed.items()
        if not name.startswith((STATION, OUTLINE)) and was is not None and now is not None
    ]
    added = [name for name, (was, _) in changed.items() if was is None]
    gone = [name for name, (_, now) in changed.items() if now is None]
    told = [
        _few(moved),
        _told(other, "has another length", "have other lengths"),
        _told(shaped, "has another outline", "have other outlines"),
        _told([_plain(name) for name in added], "is new", "are new"),
        _told([_plain(name) for name in gone], "is gone", "are gone"),
    ]
    said = "; ".join(one for one in told if one)
    return f"{said[:1].upper()}{said[1:]}." if said else ""


def _plain(name: str) -> str:
    return name.removeprefix(OUTLINE).removeprefix(STATION).replace("_", " ")


def _moved(stop: str, was: float, now: float, unit: LengthUnit) -> str:
    way = "aft" if now > was else "forward"
    return f"{stop} went {format_length(abs(now - was), unit)} {way}"


def _told(names: Sequence[str], one: str, many: str) -> str:
    return f"{_few(names)} {one if len(names) == 1 else many}" if names else ""


def _few(names: Sequence[str]) -> str:
    shown = list(names[:_SOON])
    if len(names) > _SOON:
        shown = [*shown[:-1], f"{len(names) - _SOON + 1} more"]
    return f"{', '.join(shown[:-1])} and {shown[-1]}" if len(shown) > 1 else "".join(shown)


def title_line(build: str, day: str, count: int, tolerances: str) -> str:
    """``Withy 820 · 30 Nov 2026 · print 3 · sport model``; what is not known of it is left out."""
    printed = f"print {count}" if count else ""
    return "  ·  ".join(one for one in (build, day, printed, tolerances) if one)


def day_words(at: str) -> str:
    """``30 Nov 2026``."""
    day = datetime.fromisoformat(at)
    return f"{day.day} {day:%b %Y}"


def written(name: str) -> str:
    """A file is there."""
    return f"{name} is written. Print it at 100 %, not fitted to the page."


def printing(number: int, count: int) -> str:
    """While pages go to the printer."""
    return f"Page {number} of {count} goes to the printer…"


def not_printed(printer: str, count: int) -> str:
    """The printer would not take the next page."""
    of_it = f"no more after {number_of(count, 'page')}" if count else "no page"
    return f"{printer or 'The printer'} takes {of_it}: none is noted as printed."


def printing_left_off(count: int) -> str:
    """The builder stopped it."""
    return f"Left off after {number_of(count, 'page')}: none is noted as printed."


def printed(count: int, printer: str) -> str:
    """They went."""
    return f"{number_of(count, 'page')} sent to {printer}. Measure both bars before you cut."


def made_up(x: float, y: float) -> str:
    """What the printer does to 100 mm, and that it is made up for."""
    if abs(x - 1) < _TRUE and abs(y - 1) < _TRUE:
        return "true both ways"
    told = [
        f"{decimal(abs(f - 1) * 100, 1)} % {'long' if f > 1 else 'short'} {way}"
        for f, way in ((x, ACROSS), (y, UP))
        if abs(f - 1) >= _TRUE
    ]
    return f"{' and '.join(told)}: made up for"


def file_written(name: str) -> str:
    """A drawing is there as a file."""
    return f"{name} is written."


def left_out_words(why: Sequence[str]) -> str:
    """``Left out: former F3: its outline crosses itself.``; a line each."""
    return "\n".join(f"Left out: {one.rstrip('.')}." for one in why)
