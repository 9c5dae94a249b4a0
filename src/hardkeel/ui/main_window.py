"""The main window: assembles header, rail and pages, and carries out what the menu asks."""

from pathlib import Path
from typing import Final

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtGui import QCloseEvent
from PyQt6.QtWidgets import (
    QFileDialog,
    QHBoxLayout,
    QMainWindow,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from hardkeel.base.errors import BadInput, CannotSave, FileInUse
from hardkeel.gauges.protocol import GAUGE_KINDS
from hardkeel.logbook.entries import total_hours
from hardkeel.project.build import Build, empty_build
from hardkeel.storage.journal import Rescued
from hardkeel.storage.package import load
from hardkeel.ui.commands.document import Clock, Document
from hardkeel.ui.commands.filing import Filing
from hardkeel.ui.dialogs.questions import UnsavedDialog
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.menu import BuildMenu
from hardkeel.ui.pages import true_view
from hardkeel.ui.pages.blank_page import BlankPage
from hardkeel.ui.pages.desk_work import DeskWork
from hardkeel.ui.pages.gauge_bench import GaugeBench
from hardkeel.ui.pages.layout_page import LayoutPage
from hardkeel.ui.pages.log_page import LogPage
from hardkeel.ui.pages.true_page import TruePage
from hardkeel.ui.settings import Settings
from hardkeel.ui.theme import Theme, make_theme
from hardkeel.ui.widgets.gauge_dock import GaugeDock
from hardkeel.ui.widgets.header import Header
from hardkeel.ui.widgets.notice import Notice
from hardkeel.ui.widgets.stage_rail import StageRail
from hardkeel.voice.advice import headline
from hardkeel.voice.names import PHASE_WORDS

_STAGES: Final = ("Lay out", "True", "Log")
_RAIL_PX: Final = 130


class MainWindow(QMainWindow):
    """One window on one build.

    Parameters
    ----------
    state : Path
        The application's state folder: locks and journals.

    Signals
    -------
    theme_changed : object
        The `Theme` to dress the application in.
    """

    theme_changed = pyqtSignal(object)

    def __init__(self, settings: Settings, state: Path, clock: Clock) -> None:
        super().__init__()
        self._settings = settings
        self._clock = clock
        self.document = Document(empty_build(), clock, self)
        self.filing = Filing(self.document, state, self)
        self.jobs = Jobs(self)
        theme = make_theme(settings.theme, settings.text_percent)
        self.menu = BuildMenu(self.document.stack, self)
        self.header = Header(theme, self.menu)
        self.notice = Notice()
        self.rail = StageRail(_STAGES)
        self.dock = GaugeDock(GAUGE_KINDS, theme)
        self.rail.add_foot(self.dock)
        self.blank = BlankPage()
        self.layout_page = LayoutPage(self.document, theme, settings.unit)
        self.true = TruePage(self.document, theme, settings.unit)
        self.log = LogPage(self.document, theme)
        self.gauges = GaugeBench(self.document, self.dock, self.true, lambda: settings.unit, self)
        self.desk = DeskWork(
            self.document, self.layout_page, self.filing.images, self.jobs, self.notice.tell, self
        )
        self._stack = QStackedWidget()
        self._lay_out(theme)
        self._connect()
        self._show_build()
        self.resize(1280, 800)

    def _lay_out(self, theme: Theme) -> None:
        for page in (self.blank, self.layout_page, self.true, self.log):
            self._stack.addWidget(page)
        self.rail.setFixedWidth(theme.px(_RAIL_PX))
        body = QHBoxLayout()
        body.setSpacing(0)
        body.addWidget(self.rail)
        body.addWidget(self._stack, 1)
        column = QVBoxLayout()
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.header)
        column.addWidget(self.notice)
        column.addLayout(body, 1)
        centre = QWidget()
        centre.setObjectName("desk")
        centre.setLayout(column)
        self.setCentralWidget(centre)
        self.header.show_unit(self._settings.unit)
        if self._settings.geometry is not None:
            self.restoreGeometry(self._settings.geometry)

    def _connect(self) -> None:
        menu = self.menu
        menu.new_wanted.connect(self.new_build)
        menu.clear_wanted.connect(self.clear_bench)
        menu.open_wanted.connect(self._on_open_wanted)
        menu.demo_wanted.connect(self.open_demo)
        menu.path_wanted.connect(self.open_path)
        menu.version_wanted.connect(self.go_back_to)
        menu.save_wanted.connect(self.save)
        menu.save_as_wanted.connect(self._on_save_as_wanted)
        menu.export_wanted.connect(self._on_export_wanted)
        menu.scale_wanted.connect(self._on_scale_wanted)
        menu.unit_wanted.connect(self._on_unit_toggled)
        menu.quit_wanted.connect(self.close)
        menu.aboutToShow.connect(self._on_menu_shown)
        self.header.unit_toggled.connect(self._on_unit_toggled)
        self.header.theme_toggled.connect(self._on_theme_toggled)
        self.header.body_picked.connect(self._on_body_picked)
        self.rail.stage_picked.connect(self.show_stage)
        self.blank.new_wanted.connect(self.new_build)
        self.blank.plan_wanted.connect(self._on_plan_wanted)
        self.blank.open_wanted.connect(self._on_open_wanted)
        self.blank.demo_wanted.connect(self.open_demo)
        self.blank.recent_wanted.connect(self.open_path)
        self.true.body_chosen.connect(self.header.keel.choose_body)
        self.true.description_wanted.connect(self.new_build)
        self.document.build_changed.connect(self._show_build)
        self.filing.filed.connect(self._show_name)
        self.filing.journal_failed.connect(
            lambda why: self.notice.tell(
                f"The autosave journal can't be written: {why}. Save often."
            )
        )

    # -- showing ---------------------------------------------------------------------------------

    @property
    def stage(self) -> str:
        """The stage shown, or empty on the blank page."""
        page = self._stack.currentWidget()
        shown = {id(self.true): "True", id(self.log): "Log", id(self.layout_page): "Lay out"}
        return shown.get(id(page), "")

    def show_stage(self, stage: str) -> None:
        """Turn to a stage."""
        blank = self.document.build.survey is None and stage == "True"
        page: QWidget = self.blank if blank else self.true
        if stage == "Log":
            page = self.log
        elif stage == "Lay out":
            page = self.layout_page
            self.layout_page.wake()
        self._stack.setCurrentWidget(page)
        self.rail.show_stage(stage)
        if page is self.true:
            self.true.next.focus_entry()

    def _show_build(self) -> None:
        build, judgement = self.document.build, self.document.judgement
        self.header.keel.show_keel(true_view.keel_of(build, judgement, self._settings.unit))
        out = sum(check.verdict == "out" for check in judgement.checks)
        open_ = sum(check.verdict == "unsure" for check in judgement.checks)
        note = "all true" if judgement.checks and not out + open_ else f"{out} out, {open_} open"
        self.rail.show_note("True", note if judgement.checks else "nothing yet")
        stops = build.fuselage.stops if build.fuselage is not None else ()
        self.rail.show_note("Lay out", f"{len(stops)} stations" if stops else "nothing yet")
        hours = total_hours(build.sessions)
        self.rail.show_note("Log", f"{hours:.1f} h" if hours else f"{len(build.log)} entries")
        if self._stack.currentWidget() not in (self.log, self.layout_page):
            self._stack.setCurrentWidget(self.blank if build.survey is None else self.true)
            self.rail.show_stage("True")
        self.blank.show_recent(self._settings.recent)
        self._show_name()

    def _show_name(self) -> None:
        build, path = self.document.build, self.filing.path
        name = build.name or (path.stem if path else "") or "No model yet"
        phase = PHASE_WORDS.get(build.phase or "", "")
        words = (phase, self.filing.standing)
        state = " · ".join(word for word in words if word) if build.described else ""
        answer = (
            headline(build.surveyed, self.document.judgement) if build.survey is not None else ""
        )
        out = any(check.verdict == "out" for check in self.document.judgement.checks)
        self.header.show_build(name, state, answer, out=out)
        self.setWindowTitle(f"{name}{' *' if self.filing.unsaved else ''} · Hard Keel")

    # -- files -----------------------------------------------------------------------------------

    def new_build(self) -> None:
        """Ask for the figures of a model and put it on the bench."""
        from hardkeel.ui.dialogs.new_build import NewBuildDialog  # noqa: PLC0415  start-up is felt

        dialog = NewBuildDialog(
            make_theme(self._settings.theme, self._settings.text_percent), self._settings.unit, self
        )
        if dialog.exec() and dialog.build is not None and self._may_leave():
            self.start(dialog.build)

    def clear_bench(self) -> None:
        """Begin with nothing, at the first stage."""
        if self._may_leave():
            self.start(empty_build())
            self.show_stage("Lay out")

    def open_demo(self) -> None:
        """Put the demo build on the bench."""
        if self._may_leave():
            from hardkeel.demo.kettlewick import demo_build  # noqa: PLC0415  start-up is felt

            self.start(demo_build())

    def start(self, build: Build) -> None:
        """Put a build on the bench that has no file yet."""
        self.gauges.close()
        self.filing.start(build)
        self.show_stage("True")

    def open_path(self, path: Path) -> None:
        """Open a file, or say why not."""
        if not self._may_leave():
            return
        try:
            self.filing.open(path)
        except BadInput as fault:
            self.notice.tell(f"{path.name} was not opened. {fault}.")
        except FileInUse as fault:
            self.notice.tell(
                f"{path.name}: {fault}.", ("Open a copy", lambda: self._open_copy(path))
            )
        else:
            self.gauges.close()
            self._settings.add_recent(path.absolute())
            self.show_stage("True")

    def go_back_to(self, version: Path) -> None:
        """Take up an older version of this build, as one more step that can be undone."""
        try:
            older = load(version).build
            self.document.apply(f"go back to {version.name[:19]}", lambda _build: older)
        except BadInput as fault:
            self.notice.tell(f"That version was not taken up. {fault}.")

    def save(self) -> bool:
        """Save where the build belongs, asking for a place only where it has none; whether it is saved."""
        if self.filing.path is None:
            return self._on_save_as_wanted()
        try:
            self.filing.save()
        except CannotSave as fault:
            self.notice.tell(
                f"Not saved: {fault}.", ("Save under another name", self._on_save_as_wanted)
            )
            return False
        return True

    def save_to(self, path: Path) -> bool:
        """Save under a name; whether it is saved."""
        if path.suffix.lower() not in (".keel", ".json"):
            path = path.with_name(path.name + ".keel")
        try:
            self.filing.save_as(path)
        except (CannotSave, FileInUse) as fault:
            self.notice.tell(
                f"Not saved: {fault}.", ("Save under another name", self._on_save_as_wanted)
            )
            return False
        self._settings.add_recent(path.absolute())
        return True

    def offer_recovery(self) -> None:
        """Offer what a program that died has left."""
        left = self.filing.left_behind()
        if left:
            rescued = left[0]
            name = rescued.build.name or "A build"
            self.notice.tell(
                f"{name} had changes from {rescued.at:%d %b %H:%M} that were not saved when Hard Keel ended.",
                ("Bring them back", lambda: self._recover(rescued)),
                ("Drop them", lambda: self.filing.decline(rescued)),
            )

    def export_to(self, folder: Path) -> None:
        """Write the record into a folder, beside the window."""
        from hardkeel.export.bundle import export_record  # noqa: PLC0415  the PDF library loads late

        build, unit = self.document.build, self._settings.unit
        attached = self.filing.images.of(build)
        self.jobs.start(
            "export",
            lambda: export_record(build, folder, build.phase, unit, attached),
            lambda _paths: self.notice.tell(f"The record is in {folder}."),
            lambda why: self.notice.tell(f"No record: {why}."),
        )

    def _open_copy(self, path: Path) -> None:
        try:
            self.filing.open_copy(path)
        except BadInput as fault:
            self.notice.tell(f"{path.name} was not opened. {fault}.")
            return
        self.show_stage("True")

    def _recover(self, rescued: Rescued) -> None:
        try:
            self.filing.recover(rescued)
        except FileInUse as fault:
            self.notice.tell(f"Brought back as a build without a file: {fault}.")
        self.show_stage("True")

    def _may_leave(self) -> bool:
        if not self.filing.unsaved or self.document.build == empty_build():
            return True
        dialog = UnsavedDialog(self.document.build.name or "This build", self)
        dialog.exec()
        return dialog.answer == "drop" or (dialog.answer == "save" and self.save())

    def _on_open_wanted(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, "Open a build", "", "Builds (*.keel *.json)")
        if name:
            self.open_path(Path(name))

    def _on_save_as_wanted(self) -> bool:
        start = str(self.filing.path or f"{self.document.build.name or 'My model'}.keel")
        name, _ = QFileDialog.getSaveFileName(
            self, "Save the build", start, "Builds (*.keel);;Bare JSON (*.json)"
        )
        return bool(name) and self.save_to(Path(name))

    def _on_export_wanted(self) -> None:
        name = QFileDialog.getExistingDirectory(self, "Where shall the record go?")
        if name:
            self.export_to(Path(name))

    def _on_menu_shown(self) -> None:
        self.menu.show_files(self._settings.recent, self.filing.path)

    # -- switches --------------------------------------------------------------------------------

    def _on_unit_toggled(self) -> None:
        self._settings.unit = "in" if self._settings.unit == "mm" else "mm"
        self.header.show_unit(self._settings.unit)
        self.true.set_unit(self._settings.unit)
        self.layout_page.set_unit(self._settings.unit)
        self._show_build()

    def _on_theme_toggled(self) -> None:
        self._settings.theme = "light" if self._settings.theme == "dark" else "dark"
        self.dress()

    def _on_scale_wanted(self, percent: int) -> None:
        self._settings.text_percent = percent
        self.dress()

    def dress(self) -> None:
        """Dress everything in the theme and text size of the settings."""
        theme = make_theme(self._settings.theme, self._settings.text_percent)
        self.theme_changed.emit(theme)
        for part in (self.header, self.true, self.layout_page, self.log, self.dock):
            part.set_theme(theme)
        self.rail.setFixedWidth(theme.px(_RAIL_PX))

    def _on_plan_wanted(self) -> None:
        self.show_stage("Lay out")
        self.layout_page.turn_to("paper")

    def _on_body_picked(self, body: str) -> None:
        self.header.keel.choose_body(body)
        self.true.choose_body(body)
        self.layout_page.choose_body(body)

    # -- leaving ---------------------------------------------------------------------------------

    def closeEvent(self, event: QCloseEvent | None) -> None:
        """Ask about unsaved work, then end in peace."""
        if event is None:
            return
        if not self._may_leave():
            event.ignore()
            return
        self._settings.geometry = self.saveGeometry()
        self.gauges.close()
        self.jobs.wait()
        self.filing.close()
        event.accept()
