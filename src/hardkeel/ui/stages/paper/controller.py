"""What the Paper page asks for: sheets laid out beside the window, pages printed or written, prints noted."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
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
from hardkeel.messages import shell as shell_say
from hardkeel.messages.faults import told
from hardkeel.paper.prints import Printed, SheetStanding, standing_of
from hardkeel.storage.atomic import write_atomically
from hardkeel.ui.document.lazy_refresh import LazyRefresh
from hardkeel.ui.jobs.progress import Progress
from hardkeel.ui.stages import StageContext
from hardkeel.ui.stages.paper.page import PaperPage

if TYPE_CHECKING:
    from PyQt6.QtPrintSupport import QPrinter

    from hardkeel.export import framing, paper, plan_pages, print_set
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


@dataclass(frozen=True, slots=True)
class _Laid:
    """Sheets as they were laid out, of which build and on what: what is printed and noted is that, whatever came since.

    Attributes
    ----------
    of : object
        All that they follow from.
    session : object
        Of the build that they are of.
    """

    sheets: "tuple[print_set.PrintSheet, ...]" = ()
    page: "paper.Page | None" = None
    of: object = None
    session: object = None


@dataclass(frozen=True, slots=True)
class PrintJob:
    """Pages of one sheet that are printed, or written."""

    sheet: "print_set.PrintSheet"
    page: "paper.Page"
    numbers: frozenset[int]
    title: str
    session: object

    @property
    def pages(self) -> "list[paper.LaidPage]":
        """They, in their order."""
        return [one for one in self.sheet.pages if one.number in self.numbers]


class PaperController(QObject):
    """Lives as long as the page."""

    def __init__(self, context: StageContext, page: PaperPage) -> None:
        super().__init__(page)
        self._context, self._page = context, page
        self._document = context.document
        self._laid = _Laid()
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

    @property
    def sheets(self) -> "tuple[print_set.PrintSheet, ...]":
        """All sheets, as they were laid out last."""
        return self._laid.sheets

    def _refresh(self) -> None:
        if self._laid.session is not self._document.session:  # another build's sheets are nobody's
            self._laid = _Laid(session=self._document.session)
            self._page.show_left_out(())
            self._page.show_sheets((), say.LAYING_OUT, self.paper)
            self._lay_out()
        elif self._inputs() == self._laid.of:
            self._show()
        else:
            self._rest.start()

    def _lay_out(self) -> None:
        """Lay all pages out beside the window."""
        build, unit, known = self._document.build, self._page.unit, self._inputs()
        page, session = paper.Page(self.paper, self.correction), self._document.session
        progress = Progress()
        faults: list[BadInput] = []

        def done(found: object) -> None:
            sheets = cast("tuple[print_set.PrintSheet, ...]", found)
            self._laid = _Laid(sheets, page, known, session)
            why = dict.fromkeys(told(fault, unit) for fault in faults)  # each once
            self._page.show_left_out(tuple(why))
            self._show()

        self._context.jobs.start(
            session,
            "sheets to print",
            lambda: print_set.print_sheets(build, unit, page, progress.step, faults.append),
            done,
            self._failed,
            stop=progress.stop,
        )

    def _show(self) -> None:
        page = self._laid.page
        if page is None:
            return
        standings = {one.key: self._standing(one) for one in self.sheets}
        sheets = [shown.sheet_shown(one, standings[one.key], page) for one in self.sheets]
        nothing = say.NOTHING_TO_PRINT if not self.sheets else ""
        self._page.show_sheets(sheets, nothing, page.paper)
        self._page.say_changed(
            {
                key: say.changed_words(standing.changed, self._page.unit)
                for key, standing in standings.items()
            }
        )

    def _standing(self, sheet: "print_set.PrintSheet") -> SheetStanding:
        paper_now = self._laid.page.paper if self._laid.page is not None else self.paper
        return standing_of(self._printed(sheet.key), paper_now, sheet.marks, sheet.figures)

    def _printed(self, key: str) -> Printed | None:
        return next((one for one in self._document.build.prints if one.sheet == key), None)

    def job(self, key: str, numbers: frozenset[int]) -> PrintJob | None:
        """What is to be printed, as it lies now; ``None`` where nothing is laid out."""
        sheet = next((one for one in self.sheets if one.key == key), None)
        if sheet is None or self._laid.page is None:
            return None
        return PrintJob(sheet, self._laid.page, numbers, self._title(key), self._laid.session)

    # -- printing ----------------------------------------------------------------------------------

    def print_pages(self, key: str, numbers: frozenset[int]) -> None:
        """Send pages of a sheet to the printer; where none is set up, ask for a file."""
        job = self.job(key, numbers)
        if job is None:
            return
        if not self._printers:
            self._ask_for_file(job, "pdf")
            return
        printer = printing.printer_for(self._context.settings.printer)
        if printing.asked(printer, self._page) == QDialog.DialogCode.Accepted:
            self.send(job, printer)

    def send(self, job: PrintJob, printer: "QPrinter") -> None:
        """Make the pages beside the window, then send them one by one."""
        progress = Progress()
        self._context.jobs.start(
            self._document.session,
            "pages",
            lambda: paper.pages_pdf(job.pages, job.title, job.page, progress.step),
            lambda pdf: self._next_page(
                job, printing.Sending(cast("bytes", pdf), printer), printer.printerName()
            ),
            self._failed,
            stop=progress.stop,
            writes=True,
        )

    def _next_page(self, job: PrintJob, sending: "printing.Sending", name: str) -> None:
        if sending.done == sending.count:
            self._note(job)
            self._context.tell(say.printed(sending.count, name), well=True)
            return
        if sending.left_off:
            sending.stop()
            self._context.tell(say.printing_left_off(sending.done), well=True)
            return
        if not sending.step():
            self._context.tell(say.not_printed(name, sending.done))
            return
        words = say.printing(sending.done, sending.count)
        self._context.tell(words, (shell_say.LEAVE_IT_OFF, sending.leave_off), well=True)
        then = QTimer(self)  # it ends with the page
        then.setSingleShot(True)
        then.timeout.connect(lambda: self._next_page(job, sending, name))
        then.timeout.connect(then.deleteLater)
        then.start(0)

    def look(self, key: str, number: int) -> None:
        """Show a page as the printer gets it: its own PDF, in the view."""
        job = self.job(key, frozenset({number}))
        if job is not None:
            pdf = paper.pages_pdf(job.pages, job.title, job.page)
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

    def _note(self, job: PrintJob) -> None:
        """Note what lies printed now, as it was laid out when it was sent; not in another build's diary."""
        if job.session is not self._document.session:
            return
        made = Printed(
            sheet=job.sheet.key,
            paper=job.page.paper,
            at=self._document.clock().isoformat(timespec="minutes"),
            pages=job.sheet.marks,
            figures=job.sheet.figures,
        )
        self._document.apply(say.NOTE_IT, edits.note_print.of(made, tuple(sorted(job.numbers))))

    def _on_forget(self, key: str) -> None:
        self._document.apply(say.FORGET_IT, edits.forget_print.of(key))

    # -- files -------------------------------------------------------------------------------------

    def _on_file(self, kind: str) -> None:
        job = self.job(self._page.chosen, self._page.pages)
        if job is not None:
            every = frozenset(one.number for one in job.sheet.pages)
            self._ask_for_file(replace(job, numbers=job.numbers or every), kind)

    def _ask_for_file(self, job: PrintJob, kind: str) -> None:
        ending = "pdf" if kind == "whole" else kind
        name = f"{file_stem(self._document.build.name)}-{job.sheet.key}.{ending}"
        chosen, _ = QFileDialog.getSaveFileName(
            self._page, say.name_of_sheet(job.sheet.key), name, _FILTERS[kind]
        )
        if chosen:
            self.write(Path(chosen), job, kind)

    def write(self, path: Path, job: PrintJob, kind: str) -> None:
        """Write a sheet into a file: ``pdf`` these pages, ``whole`` one page a drawing, ``dxf``, ``svg``.

        A sheet of several drawings becomes as many DXF or SVG files, numbered from the second on.
        """

        def made() -> Iterator[tuple[Path, bytes]]:
            if kind == "pdf":
                yield path, paper.pages_pdf(job.pages, job.title, job.page)
            elif kind == "whole":
                yield path, plan_pages.whole_pages_pdf(job.sheet.drawn, job.title)
            else:
                for number, drawing in enumerate(job.sheet.drawn, start=1):
                    text = drawing.dxf() if kind == "dxf" else drawing.svg()
                    place = path.with_stem(f"{path.stem}-{number}") if number > 1 else path
                    yield place, text.encode("utf-8")

        def work() -> None:
            for place, data in made():
                write_atomically(place, data, versions=0)

        def done(_none: object) -> None:
            if kind == "pdf":
                self._note(job)
            words = say.written(path.name) if kind == "pdf" else say.file_written(path.name)
            self._context.tell(words, well=True)

        self._context.jobs.start(
            self._document.session, "pages", work, done, self._failed, writes=True
        )

    def _failed(self, why: HardKeelError) -> None:
        if not isinstance(why, GivenUp):
            self._context.tell(f"{why}.")
