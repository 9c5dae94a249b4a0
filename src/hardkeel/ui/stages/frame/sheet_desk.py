"""Carries out Frame's long work beside the window: strips reckoned, pieces nested, templates written."""

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING, Final, cast

from PyQt6.QtCore import QObject, QTimer
from PyQt6.QtWidgets import QFileDialog

from hardkeel.airframe.framing import build_pieces
from hardkeel.base.errors import BadInput, HardKeelError
from hardkeel.base.late import late
from hardkeel.export.renewing import Destination
from hardkeel.fuselage.buying import Purchase, purchases_of
from hardkeel.fuselage.cut_list import cut_list_of
from hardkeel.fuselage.nesting import NestedSheet, nested
from hardkeel.ui.document.document import Document
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.jobs.progress import Progress
from hardkeel.ui.stages.frame.page import FramePage
from hardkeel.voice import frame as say

if TYPE_CHECKING:
    from hardkeel.export import framing as templates
    from hardkeel.ui.stages.frame.sheets_page import SheetsPage
    from hardkeel.ui.stages.frame.sticks_page import SticksPage

    _Strips = SticksPage | SheetsPage
else:
    templates = late("hardkeel.export.framing")

_LOOK_MS: Final = 80


class SheetDesk(QObject):
    """Listens to the benches and answers them when the work is done."""

    def __init__(
        self, document: Document, page: FramePage, jobs: Jobs, tell: Callable[[str], object]
    ) -> None:
        super().__init__(page)
        self._document, self._page, self._jobs, self._tell = document, page, jobs, tell
        self._strips: tuple[object, tuple[Purchase, ...]] | None = None
        self._nested: tuple[object, tuple[NestedSheet, ...]] | None = None
        self._under_way: tuple[object, Progress] | None = None
        self._clock = QTimer(self)
        self._clock.setInterval(_LOOK_MS)
        self._clock.timeout.connect(self._show_progress)
        page.made.connect(self._on_made)
        page.closed.connect(self._stop)

    def _on_made(self, key: str, page: QObject) -> None:
        if key == "sticks":
            sticks = cast("SticksPage", page)
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
        fuselage = self._document.build.fuselage
        if fuselage is None:
            return
        framed, parts = fuselage.framed, cut_list_of(fuselage)
        known = (parts, framed.kerf, framed.stock)
        if self._strips is not None and self._strips[0] == known:
            self._show_strips(self._strips[1])
            return

        def done(bought: object) -> None:
            self._strips = (known, cast("tuple[Purchase, ...]", bought))
            self._show_strips(self._strips[1])

        self._jobs.start(
            "frame strips",
            lambda: purchases_of(parts, framed.kerf, framed.stock),
            done,
            lambda fault: self._tell(str(fault)),
        )

    def _show_strips(self, bought: tuple[Purchase, ...]) -> None:
        for key in ("sticks", "sheets"):
            page = self._page.made_page(key)
            if page is not None:
                cast("_Strips", page).show_strips(bought)

    # -- sheets ------------------------------------------------------------------------------------

    def _nest(self) -> None:
        build = self._document.build
        try:
            pieces = build_pieces(build)
        except BadInput as fault:
            self._tell(str(fault))
            return
        framed = build.fuselage.framed if build.fuselage is not None else None
        if framed is None:
            return
        known = (pieces, framed.sheet, framed.sheet_gap)
        if self._nested is not None and self._nested[0] == known:
            self._sheets_page().show_sheets(self._nested[1])
            return
        if self._under_way is not None and self._under_way[0] == known:
            return
        self._stop()
        progress = Progress()
        self._under_way = (known, progress)
        self._clock.start()

        def done(sheets: object) -> None:
            self._nested = (known, cast("tuple[NestedSheet, ...]", sheets))
            self._end()
            self._sheets_page().show_sheets(self._nested[1])

        self._jobs.start(
            "frame sheets",
            lambda: nested(pieces, framed.sheet, framed.sheet_gap, progress.step),
            done,
            lambda _fault: self._end(),
        )

    def _sheets_page(self) -> "SheetsPage":
        return cast("SheetsPage", self._page.page("sheets"))

    def _stop(self) -> None:
        if self._under_way is not None:
            self._under_way[1].stop()
            self._end()

    def _end(self) -> None:
        self._under_way = None
        self._clock.stop()
        self._show_progress()

    def _show_progress(self) -> None:
        page = self._page.made_page("sheets")
        if page is None:
            return
        share = None
        if self._under_way is not None:
            progress = self._under_way[1]
            share = progress.done / progress.total if progress.total else 0.0
        cast("SheetsPage", page).show_working(share)

    # -- templates ---------------------------------------------------------------------------------

    def _on_templates_wanted(self, paper: str) -> None:
        folder = QFileDialog.getExistingDirectory(self._page, say.WHICH_FOLDER)
        if folder:
            self.write_templates(Path(folder), paper)

    def write_templates(self, folder: Path, paper: str) -> None:
        """Write all templates into a folder, beside the window."""
        build, unit, to = self._document.build, self._page.unit, Destination(folder)
        self._stop()
        progress = Progress()
        self._under_way = (object(), progress)
        self._clock.start()

        def done(_paths: object) -> None:
            self._end()
            self._tell(say.written(folder))

        def failed(fault: HardKeelError) -> None:
            self._end()
            self._tell(say.not_written(fault))

        self._jobs.start(
            "frame templates",
            lambda: templates.write_templates(build, to, paper, unit, progress.step),
            done,
            failed,
        )
