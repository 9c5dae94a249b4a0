"""Carries out long work beside the window for a stage that cuts: strips, nested sheets, templates."""

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING, Final, cast

from PyQt6.QtCore import QObject, QTimer
from PyQt6.QtWidgets import QFileDialog

from hardkeel.base.errors import BadInput, HardKeelError
from hardkeel.base.units import LengthUnit
from hardkeel.export.renewing import Destination
from hardkeel.fuselage.model import Fuselage
from hardkeel.joinery.buying import Purchase, purchases_of
from hardkeel.joinery.cut_part import CutPart
from hardkeel.joinery.flat import FlatPiece
from hardkeel.joinery.nesting import NestedSheet, nested
from hardkeel.joinery.tightening import density_of, tightened
from hardkeel.messages import frame as say
from hardkeel.project.model import Build
from hardkeel.ui.document.document import Document
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.jobs.progress import Progress
from hardkeel.ui.tabbed.stage_page import TabbedStage

if TYPE_CHECKING:
    from hardkeel.ui.tabbed.cutting_page import CuttingPage
    from hardkeel.ui.tabbed.sheets_page import SheetsPage

    _Strips = CuttingPage | SheetsPage

_LOOK_MS: Final = 80
_SHEETS, _TIGHTER, _TEMPLATES = "sheets", "tighter sheets", "templates"


class _Better:
    """Sheets that became better, told by the job in its thread, taken by the window in its own."""

    def __init__(self) -> None:
        self._latest: tuple[NestedSheet, ...] | None = None

    def put(self, sheets: tuple[NestedSheet, ...]) -> None:
        """Tell of them; for the job."""
        self._latest = sheets

    def take(self) -> tuple[NestedSheet, ...] | None:
        """What was told since, once."""
        latest, self._latest = self._latest, None
        return latest


@dataclass(frozen=True, slots=True)
class CutSource:
    """What a stage cuts.

    Attributes
    ----------
    name : str
        Of its jobs.
    parts, pieces : callable
        The cut list and the flat pieces of a build.
    write : callable
        Writes all templates: build, destination, paper, unit, progress.
    cutting : str
        The key of the bench where sticks are cut.
    """

    name: str
    parts: Callable[[Build], tuple[CutPart, ...]]
    pieces: Callable[[Build], tuple[FlatPiece, ...]]
    write: Callable[[Build, Destination, str, LengthUnit, Callable[[int, int], None]], object]
    cutting: str = "sticks"


class SheetController(QObject):
    """Listens to the benches and answers them when the work is done."""

    def __init__(
        self,
        document: Document,
        page: TabbedStage,
        jobs: Jobs,
        tell: Callable[..., object],
        source: CutSource,
    ) -> None:
        super().__init__(page)
        self._document, self._page, self._jobs, self._tell = document, page, jobs, tell
        self._source = source
        self._strips: tuple[object, tuple[Purchase, ...]] | None = None
        self._nested: tuple[object, tuple[NestedSheet, ...]] | None = None
        self._better = _Better()
        self._under_way: dict[str, tuple[object, Progress]] = {}  # by kind: sheets, templates
        self._clock = QTimer(self)
        self._clock.setInterval(_LOOK_MS)
        self._clock.timeout.connect(self._show_progress)
        page.made.connect(self._on_made)
        page.closed.connect(self._stop)

    def _on_made(self, key: str, page: QObject) -> None:
        if key == self._source.cutting:
            sticks = cast("CuttingPage", page)
            sticks.strips_wanted.connect(self._reckon_strips)
            sticks.refresh()
        if key == "sheets":
            sheets = cast("SheetsPage", page)
            sheets.strips_wanted.connect(self._reckon_strips)
            sheets.sheets_wanted.connect(self._nest)
            sheets.templates_wanted.connect(self._on_templates_wanted)
            sheets.stop_wanted.connect(self._stop)
            sheets.refresh()

    # -- strips ------------------------------------------------------------------------------------

    def _reckon_strips(self) -> None:
        build = self._document.build
        framed = (build.fuselage or Fuselage()).framed
        try:
            parts = self._source.parts(build)
        except BadInput as fault:
            self._tell(str(fault))
            return
        known = (parts, framed.kerf, framed.stock)
        if self._strips is not None and self._strips[0] == known:
            self._show_strips(self._strips[1])
            return

        def done(bought: object) -> None:
            self._strips = (known, cast("tuple[Purchase, ...]", bought))
            self._show_strips(self._strips[1])

        self._jobs.start(
            self._document.session,
            f"{self._source.name} strips",
            lambda: purchases_of(parts, framed.kerf, framed.stock),
            done,
            lambda fault: self._tell(str(fault)),
        )

    def _show_strips(self, bought: tuple[Purchase, ...]) -> None:
        for key in (self._source.cutting, "sheets"):
            page = self._page.made_page(key)
            if page is not None:
                cast("_Strips", page).show_strips(bought)

    # -- sheets ------------------------------------------------------------------------------------

    def _nest(self) -> None:
        build = self._document.build
        try:
            pieces = self._source.pieces(build)
        except BadInput as fault:
            self._tell(str(fault))
            return
        framed = (build.fuselage or Fuselage()).framed
        known = (pieces, framed.sheet, framed.sheet_gap, framed.offcuts)
        if self._nested is not None and self._nested[0] == known:
            self._sheets_page().show_sheets(self._nested[1])
            return
        if _SHEETS in self._under_way and self._under_way[_SHEETS][0] == known:
            return
        if _TIGHTER in self._under_way:
            self._under_way[_TIGHTER][1].stop()
        progress = self._begin(_SHEETS, known)

        def done(sheets: object) -> None:
            self._nested = (known, cast("tuple[NestedSheet, ...]", sheets))
            self._end(_SHEETS, progress)
            self._sheets_page().show_sheets(self._nested[1])
            self._tighten(known, self._nested[1], framed.sheet_gap)

        self._jobs.start(
            self._document.session,
            f"{self._source.name} {_SHEETS}",
            lambda: nested(pieces, framed.sheet, framed.sheet_gap, progress.step, framed.offcuts),
            done,
            lambda _fault: self._end(_SHEETS, progress),
            stop=progress.stop,
            left=lambda: self._end(_SHEETS, progress),
        )

    def _tighten(self, known: object, sheets: tuple[NestedSheet, ...], gap: float) -> None:
        """Look for room while the builder reads on; each better laying is shown as it comes."""
        if not sheets:
            return
        progress = self._begin(_TIGHTER, known)

        def done(better: object) -> None:
            self._show_better(known, cast("tuple[NestedSheet, ...]", better))
            self._end(_TIGHTER, progress)

        self._jobs.start(
            self._document.session,
            f"{self._source.name} {_TIGHTER}",
            lambda: tightened(sheets, gap, seen=self._better.put, step=progress.step),
            done,
            lambda _fault: self._end(_TIGHTER, progress),
            stop=progress.stop,
            left=lambda: self._end(_TIGHTER, progress),
        )

    def _show_better(self, known: object, sheets: tuple[NestedSheet, ...]) -> None:
        if self._nested is not None and self._nested[0] == known:
            self._nested = (known, sheets)
            self._sheets_page().show_sheets(sheets)

    def _sheets_page(self) -> "SheetsPage":
        return cast("SheetsPage", self._page.page("sheets"))

    def _begin(self, kind: str, known: object) -> Progress:
        """Work of a kind is under way; what was of that kind leaves off."""
        if kind in self._under_way:
            self._under_way[kind][1].stop()
        progress = Progress()
        self._under_way[kind] = (known, progress)
        self._clock.start()
        return progress

    def _stop(self) -> None:
        """All that is under way leaves off."""
        for kind, (_, progress) in list(self._under_way.items()):
            progress.stop()
            self._end(kind, progress)

    def _end(self, kind: str, progress: Progress) -> None:
        """It is over; another of its kind may be under way since."""
        if kind in self._under_way and self._under_way[kind][1] is progress:
            del self._under_way[kind]
        if not self._under_way:
            self._clock.stop()
        self._show_progress()

    def _show_progress(self) -> None:
        page = self._page.made_page("sheets")
        if page is None:
            return
        share, words = None, say.WORKING
        for kind, (known, progress) in list(self._under_way.items()):
            share = progress.done / progress.total if progress.total else 0.0
            if kind == _TIGHTER:
                better = self._better.take()
                if better is not None:
                    self._show_better(known, better)
                if self._nested is not None:
                    words = say.looking_for_room(density_of(self._nested[1]))
        cast("SheetsPage", page).show_working(share, words)

    # -- templates ---------------------------------------------------------------------------------

    def _on_templates_wanted(self, paper: str) -> None:
        folder = QFileDialog.getExistingDirectory(self._page, say.WHICH_FOLDER)
        if folder:
            self.write_templates(Path(folder), paper)

    def write_templates(self, folder: Path, paper: str) -> None:
        """Write all templates into a folder, beside the window."""
        build, unit, to = self._document.build, self._page.unit, Destination(folder)
        progress = self._begin(_TEMPLATES, object())

        def done(_paths: object) -> None:
            self._end(_TEMPLATES, progress)
            self._tell(say.written(folder), well=True)

        def failed(fault: HardKeelError) -> None:
            self._end(_TEMPLATES, progress)
            self._tell(say.not_written(fault))

        self._jobs.start(
            self._document.session,
            f"{self._source.name} {_TEMPLATES}",
            lambda: self._source.write(build, to, paper, unit, progress.step),
            done,
            failed,
            stop=progress.stop,
            left=lambda: self._end(_TEMPLATES, progress),
            writes=True,
        )
