"""What the Paper page asks for: sheets laid out beside the window, pages printed or written, prints noted."""

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING, cast

from PyQt6.QtCore import QObject, QTimer
from PyQt6.QtWidgets import QDialog, QFileDialog

from hardkeel.base.errors import BadInput, GivenUp, HardKeelError
from hardkeel.base.late import late
from hardkeel.edits import prints as edits
from hardkeel.export.paper_sizes import PAPERS, ROLLS, paper_for
from hardkeel.export.renewing import file_stem
from hardkeel.messages import describe
from hardkeel.messages import diary as diary_say
from hardkeel.messages import prints as say
from hardkeel.messages.faults import told
from hardkeel.paper.prints import Printed, SheetStanding, standing_of
from hardkeel.storage.atomic import write_atomically
from hardkeel.ui.document.lazy_refresh import LazyRefresh
from hardkeel.ui.jobs.progress import Progress
from hardkeel.ui.stages import StageContext
from hardkeel.ui.stages.paper.page import PaperPage

if TYPE_CHECKING:
    from hardkeel.export import framing, paper, plan_pages, print_set
    from hardkeel.export.plan_drawing import PlanDrawing
    from hardkeel.ui.stages.paper import printing, shown
else:
    print_set, paper = late("hardkeel.export.print_set"), late("hardkeel.export.paper")
    framing, plan_pages = late("hardkeel.export.framing"), late("hardkeel.export.plan_pages")
    printing = late("hardkeel.ui.stages.paper.printing")
    shown = late("hardkeel.ui.stages.paper.shown")

_REST_MS = 250  # after the last of several edits
_BAR_MM = 100.0
_EDGE_PX = 24
_SHOWS = frozenset(
    {
        "fuselage",
        "wings",
        "tail",
        "profiles",
        "masses",
        "balance",
        "survey",
        "ledger",
        "name",
        "audit",
        "prints",
    }
)
_FILTERS = {
    "pdf": say.PDF_FILES,
    "whole": say.PDF_FILES,
    "dxf": say.DXF_FILES,
    "svg": say.SVG_FILES,
}


class PaperController(QObject):
    """Lives as long as the page."""

    def __init__(self, context: StageContext, page: PaperPage) -> None:
        super().__init__(page)
        self._context, self._page = context, page
        self._document = context.document
        self.sheets: tuple[print_set.PrintSheet, ...] = ()
        self._known: object = None  # of what the sheets were laid out
        self._printers: list[str] | None = (
            None  # asked for once: a print server may be slow to answer
        )
        self._rest = QTimer(self)
        self._rest.setSingleShot(True)
        self._rest.setInterval(_REST_MS)
        self._rest.timeout.connect(self._lay_out)
        LazyRefresh(page, self._document, self._refresh, _SHOWS)
        page.woken.connect(self._on_woken)
        page.unit_changed.connect(self._on_unit)
        page.print_wanted.connect(self.print_pages)
        page.forget_wanted.connect(self._on_forget)
        page.look_wanted.connect(self.look)
        page.card.paper_picked.connect(self._on_paper)
        page.card.printer_picked.connect(self._on_printer)
        page.card.bars_measured.connect(self._on_bars)
        page.card.file_wanted.connect(self._on_file)

    def _on_woken(self) -> None:
        self._show_paper()
        self._refresh()

    # -- what it is printed on ---------------------------------------------------------------------

    @property
    def paper(self) -> str:
        """The paper that was picked; until one is, what goes with the unit."""
        kept = self._context.settings.paper
        return kept if kept in PAPERS or kept in ROLLS else paper_for(self._page.unit)

    @property
    def correction(self) -> tuple[float, float]:
        """What the printer makes of a millimetre: by its own bars, else by the build's print check."""
        own = self._context.settings.bars(self._context.settings.printer)
        return own or framing.printer_of(self._document.build)

    def _show_paper(self) -> None:
        settings = self._context.settings
        self._page.card.show_paper(self.paper)
        if self._printers is None:
            self._printers = printing.printer_names()
        self._page.card.show_printers(self._printers, settings.printer)
        self._page.card.show_bars(self.correction)

    def _on_paper(self, name: str) -> None:
        self._context.settings.paper = name
        self._refresh()

    def _on_unit(self) -> None:
        self._show_paper()
        self._refresh()

    def _on_printer(self, name: str) -> None:
        self._context.settings.printer = name
        self._page.card.show_bars(self.correction)
        self._refresh()

    def _on_bars(self, across: float, up: float) -> None:
        """They were printed as corrected till now: what is left over comes on top."""
        x, y = self.correction
        settings = self._context.settings
        settings.set_bars(settings.printer, (x * across / _BAR_MM, y * up / _BAR_MM))
        self._page.card.show_bars(self.correction)
        self._refresh()

    # -- sheets ------------------------------------------------------------------------------------

    def _inputs(self) -> object:
        build = self._document.build
        survey = build.surveyed
        drawn = (
            build.fuselage,
            build.wings,
            build.tail,
            build.profiles,
            build.masses,
            build.balance,
        )
        return (*drawn, survey.bodies, survey.marks, self._page.unit, self.paper, self.correction)

    def _refresh(self) -> None:
        if self._inputs() == self._known:
            self._show()
        elif self._known is None:
            self._lay_out()
        else:
            self._rest.start()

    def _lay_out(self) -> None:
        """Lay all pages out beside the window."""
        build, unit, known = self._document.build, self._page.unit, self._inputs()
        page = paper.Page(self.paper, self.correction)
        progress = Progress()
        faults: list[BadInput] = []

        def done(found: object) -> None:
            self.sheets, self._known = cast("tuple[print_set.PrintSheet, ...]", found), known
            why = dict.fromkeys(told(fault, unit) for fault in faults)  # each once
            self._page.show_left_out(tuple(why))
            self._show()

        self._context.jobs.start(
            self._document.session,
            "sheets to print",
            lambda: print_set.print_sheets(build, unit, page, progress.step, faults.append),
            done,
            self._failed,
            stop=progress.stop,
        )

    def _show(self) -> None:
        page = paper.Page(self.paper, self.correction)
        standings = {one.key: self._standing(one) for one in self.sheets}
        sheets = [shown.sheet_shown(one, standings[one.key], page) for one in self.sheets]
        nothing = say.NOTHING_TO_PRINT if not self.sheets else ""
        self._page.show_sheets(sheets, nothing, self.paper)
        self._page.say_changed(
            {
                key: say.changed_words(standing.changed, self._page.unit)
                for key, standing in standings.items()
            }
        )

    def _standing(self, sheet: "print_set.PrintSheet") -> SheetStanding:
        return standing_of(self._printed(sheet.key), self.paper, sheet.marks, sheet.figures)

    def _printed(self, key: str) -> Printed | None:
        return next((one for one in self._document.build.prints if one.sheet == key), None)

    def _sheet(self, key: str) -> "print_set.PrintSheet":
        return next(one for one in self.sheets if one.key == key)

    # -- printing ----------------------------------------------------------------------------------

    def print_pages(self, key: str, numbers: frozenset[int]) -> None:
        """Send pages of a sheet to the printer; where none is set up, ask for a file."""
        if not self._printers:
            self._ask_for_file(key, "pdf", numbers)
            return
        printer = printing.printer_for(self._context.settings.printer)
        if printing.asked(printer, self._page) != QDialog.DialogCode.Accepted:
            return
        self._make(
            key,
            numbers,
            lambda pdf: self._sent(
                key, numbers, printing.send(pdf, printer), printer.printerName()
            ),
        )

    def _sent(self, key: str, numbers: frozenset[int], count: int, name: str) -> None:
        self._note(key, numbers)
        self._context.tell(say.printed(count, name), well=True)

    def _make(self, key: str, numbers: frozenset[int], then: Callable[[bytes], object]) -> None:
        """Make the PDF of pages beside the window."""
        sheet, title = self._sheet(key), self._title(key)
        page = paper.Page(self.paper, self.correction)
        pages = [one for one in sheet.pages if one.number in numbers]
        progress = Progress()
        self._context.tell(say.printing(say.name_of_sheet(key)))
        self._context.jobs.start(
            self._document.session,
            "pages",
            lambda: paper.pages_pdf(pages, title, page, progress.step),
            lambda pdf: then(cast("bytes", pdf)),
            self._failed,
            stop=progress.stop,
            writes=True,
        )

    def look(self, key: str, number: int) -> None:
        """Show a page as the printer gets it: its own PDF, in the view."""
        page = paper.Page(self.paper, self.correction)
        pages = [one for one in self._sheet(key).pages if one.number == number]
        pdf = paper.pages_pdf(pages, self._title(key), page)
        self._page.view.show_page(printing.picture_of(pdf, self._page.view.height() - _EDGE_PX))

    def _title(self, key: str) -> str:
        build = self._document.build
        before = self._printed(key)
        return say.title_line(
            build.name or diary_say.UNNAMED,
            say.day_words(self._document.clock().isoformat()),
            before.count + 1 if before is not None else 1,
            describe.class_words(build.model_class),
        )

    def _note(self, key: str, numbers: frozenset[int]) -> None:
        sheet = self._sheet(key)
        made = Printed(
            sheet=key,
            paper=self.paper,
            at=self._document.clock().isoformat(timespec="minutes"),
            pages=sheet.marks,
            figures=sheet.figures,
        )
        self._document.apply(say.NOTE_IT, edits.note_print.of(made, tuple(sorted(numbers))))

    def _on_forget(self, key: str) -> None:
        self._document.apply(say.FORGET_IT, edits.forget_print.of(key))

    # -- files -------------------------------------------------------------------------------------

    def _on_file(self, kind: str) -> None:
        key = self._page.chosen
        if key:
            every = frozenset(one.number for one in self._sheet(key).pages)
            self._ask_for_file(key, kind, self._page.pages or every)

    def _ask_for_file(self, key: str, kind: str, numbers: frozenset[int]) -> None:
        ending = "pdf" if kind == "whole" else kind
        name = f"{file_stem(self._document.build.name)}-{key}.{ending}"
        chosen, _ = QFileDialog.getSaveFileName(
            self._page, say.name_of_sheet(key), name, _FILTERS[kind]
        )
        if chosen:
            self.write(Path(chosen), key, kind, numbers)

    def write(self, path: Path, key: str, kind: str, numbers: frozenset[int]) -> None:
        """Write a sheet into a file: ``pdf`` these pages, ``whole`` one page a drawing, ``dxf``, ``svg``."""
        sheet, title = self._sheet(key), self._title(key)
        page = paper.Page(self.paper, self.correction)
        pages = [one for one in sheet.pages if one.number in numbers]
        drawings = cast("list[PlanDrawing]", list(sheet.drawn))
        makers: dict[str, Callable[[], bytes]] = {
            "pdf": lambda: paper.pages_pdf(pages, title, page),
            "whole": lambda: plan_pages.whole_pages_pdf(drawings, title),
            "dxf": lambda: drawings[0].dxf().encode("utf-8"),
            "svg": lambda: drawings[0].svg().encode("utf-8"),
        }

        def work() -> None:
            write_atomically(path, makers[kind](), versions=0)

        def done(_none: object) -> None:
            if kind == "pdf":
                self._note(key, numbers)
            words = say.written(path.name) if kind == "pdf" else say.file_written(path.name)
            self._context.tell(words, well=True)

        self._context.jobs.start(
            self._document.session, "pages", work, done, self._failed, writes=True
        )

    def _failed(self, why: HardKeelError) -> None:
        if not isinstance(why, GivenUp):
            self._context.tell(f"{why}.")
