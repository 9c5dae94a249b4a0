"""The main window: assembles header, rail and pages, and carries out what the menu asks."""

from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING, Final

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtGui import QCloseEvent, QKeySequence, QShortcut
from PyQt6.QtWidgets import (
    QFileDialog,
    QHBoxLayout,
    QMainWindow,
    QVBoxLayout,
    QWidget,
)

from hardkeel.base.errors import (
    BadInput,
    CannotSave,
    FileInUse,
    HardKeelError,
    WouldLose,
)
from hardkeel.base.late import late
from hardkeel.demo.shipped import shipped_build
from hardkeel.edits.named import go_back
from hardkeel.messages import practising
from hardkeel.messages import shell as say
from hardkeel.messages.advice import headline
from hardkeel.messages.names import PHASE_WORDS
from hardkeel.messages.unusual import looked_at
from hardkeel.practice.standing import right_in
from hardkeel.project.model import Build, empty_build
from hardkeel.project.unusual import oddities_in
from hardkeel.storage.atomic import moment_of
from hardkeel.storage.attaching import Images
from hardkeel.storage.journal import Rescued
from hardkeel.storage.package import load
from hardkeel.ui.document.document import Change, Clock, Document
from hardkeel.ui.document.document_file import DocumentFile
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.settings import Settings
from hardkeel.ui.shell.blank_page import BlankPage
from hardkeel.ui.shell.exporting import ExportController
from hardkeel.ui.shell.header import Header
from hardkeel.ui.shell.keel import keel_of
from hardkeel.ui.shell.manual_reader import ManualReader
from hardkeel.ui.shell.menu import BuildMenu
from hardkeel.ui.shell.notice import Notice
from hardkeel.ui.shell.page_stack import PageStack
from hardkeel.ui.shell.questions import ReportDialog, UnsavedDialog, YesNoDialog
from hardkeel.ui.shell.stage_rail import StageRail
from hardkeel.ui.shell.starting import Starting
from hardkeel.ui.shell.tour import Tour
from hardkeel.ui.shell.visiting import Hands, Visiting
from hardkeel.ui.stages import (
    HOME,
    ON_PAPER,
    PICTURED,
    PRINTED,
    STAGES,
    Stage,
    StageContext,
    home_of,
)
from hardkeel.ui.theme import Theme, apply_style, make_theme
from hardkeel.ui.widgets.dropped import PictureDrop

if TYPE_CHECKING:
    from hardkeel.demo import fleet
    from hardkeel.demo.fleet import Demo
    from hardkeel.export import bundle
    from hardkeel.ui.shell import finder, new_build
    from hardkeel.ui.tabbed.stage_page import StagePage
else:
    fleet = late("hardkeel.demo.fleet")
    bundle, new_build = late("hardkeel.export.bundle"), late("hardkeel.ui.shell.new_build")
    finder = late("hardkeel.ui.shell.finder")

_RAIL_PX: Final = 130
_SAVING: Final = "saving"
_STATE: Final = "state"


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
        store = Images(state)
        self.document = Document(empty_build(), clock, self, store)
        self.document_file = DocumentFile(self.document, state, store, self)
        self.jobs = Jobs(self)
        self.document.beside = self._work_beside
        theme = make_theme(settings.theme, settings.text_percent)
        self.menu = BuildMenu(self.document.stack, self)
        self.header = Header(theme, self.menu)
        self.reader = ManualReader(
            settings, lambda: (self.stage, self.pages[self._stage].tabs), self
        )
        self.notice = Notice()
        self.tour = Tour(settings, self._turn_to)
        self.tour.own_wanted.connect(self.new_build)
        self.menu.tour_wanted.connect(self.tour.forget)
        self.document.build_opened.connect(self.tour.end)
        self.rail = StageRail([(stage.key, stage.title) for stage in STAGES])
        self.exports = ExportController(
            self.document_file, self.document, self.jobs, self.notice, settings, self
        )
        self.blank = BlankPage(theme)
        self._starting = Starting(self.blank, self.document, self.jobs, settings, self)
        hands = Hands(self._may_leave, self.start, self.open_path)
        visit = Visiting(self.document, self.document_file, hands)
        bench = StageContext(
            self.document, settings, theme, self.jobs, self.notice.tell, visit, state
        )
        self.pages: dict[str, StagePage] = {stage.key: stage.make(bench) for stage in STAGES}
        self._stage = HOME
        self._stack = PageStack()
        self._stack.currentChanged.connect(self._restyle)
        pictures = PictureDrop(self, lambda: bool(self.document.build.surveyed.targets))
        pictures.dropped.connect(self._on_pictures)
        self._lay_out(theme)
        self._connect()
        self._show_build()

    def _lay_out(self, theme: Theme) -> None:
        self._stack.addWidget(self.blank)
        for page in self.pages.values():
            self._stack.addWidget(page)
            if page.foot is not None:
                self.rail.add_foot(page.foot)
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
        column.addWidget(self.tour)
        column.addLayout(body, 1)
        centre = QWidget()
        centre.setObjectName("desk")
        centre.setLayout(column)
        self.setCentralWidget(centre)
        self.header.show_unit(self._settings.unit)
        self.resize(1280, 800)
        if self._settings.geometry is not None:
            self.restoreGeometry(self._settings.geometry)

    def _connect(self) -> None:
        menu = self.menu
        menu.new_wanted.connect(self.new_build)
        menu.clear_wanted.connect(self.clear_bench)
        menu.open_wanted.connect(self._on_open_wanted)
        menu.demo_wanted.connect(partial(self.open_demo, shipped_build))
        menu.other_demo_wanted.connect(self.open_other_demo)
        menu.path_wanted.connect(self.open_path)
        menu.version_wanted.connect(self.go_back_to)
        menu.save_wanted.connect(self.save)
        menu.save_as_wanted.connect(self._on_save_as_wanted)
        menu.export_wanted.connect(self.exports.ask)
        menu.print_wanted.connect(self.show_print)
        menu.scale_wanted.connect(self._on_scale_wanted)
        menu.unit_wanted.connect(self._on_unit_toggled)
        menu.find_wanted.connect(self.find_what_to_do)
        menu.manual_wanted.connect(self.reader.open)
        menu.tour_wanted.connect(partial(self.open_demo, shipped_build))
        for keys, act in (("?", self.find_what_to_do), ("F10", self.header.menu_button.click)):
            shortcut = QShortcut(QKeySequence(keys), self)
            shortcut.activated.connect(act)
        menu.quit_wanted.connect(self.close)
        menu.aboutToShow.connect(self._on_menu_shown)
        self.header.unit_toggled.connect(self._on_unit_toggled)
        self.header.theme_toggled.connect(self._on_theme_toggled)
        self.header.body_picked.connect(self._on_body_picked)
        self.header.keel.station_picked.connect(self._on_station_picked)
        self.rail.stage_picked.connect(self.show_stage)
        self.blank.new_wanted.connect(self.new_build)
        self.blank.plan_wanted.connect(self._on_plan_wanted)
        self.blank.practice_wanted.connect(partial(self.show_stage, "practice"))
        self.blank.open_wanted.connect(self._on_open_wanted)
        self.blank.demo_wanted.connect(partial(self.open_demo, shipped_build))
        self.blank.recent_wanted.connect(self.open_path)
        for page in self.pages.values():
            page.body_chosen.connect(self.header.keel.choose_body)
            page.description_wanted.connect(self.new_build)
        self.document.build_changed.connect(self._on_build_changed)
        self.document.refused.connect(lambda why: self.notice.tell(say.put_back(why)))
        self.document_file.filed.connect(self._show_name)
        self.document_file.state_failed.connect(self._on_state_failed)
        self.jobs.crashed.connect(self.tell_fault)
        menu.left_wanted.connect(self._recover)

    def _work_beside(
        self,
        kind: str,
        work: Callable[[], object],
        done: Callable[[object], object],
        failed: Callable[[HardKeelError], object],
    ) -> None:
        self.jobs.start(self.document.session, kind, work, done, failed)

    # -- showing ---------------------------------------------------------------------------------

    @property
    def stage(self) -> str:
        """The stage shown, or empty on the blank page."""
        return "" if self._stack.currentWidget() is self.blank else self._stage

    def show_stage(self, key: str) -> None:
        """Turn to a stage; one that is not on the rail for this build is not turned to."""
        if not _stage_called(key).appears(self.document.build):
            return
        self._stage = key
        self._show_page()
        if self.stage:
            self.pages[key].wake()

    def _on_pictures(self, paths: list[Path]) -> None:
        """Pictures of the model were dropped on a page that has no use for them: who reads them is turned to."""
        self.show_stage(PICTURED)
        if self.stage == PICTURED:
            self.pages[PICTURED].take_pictures(paths)

    def show_print(self) -> None:
        """Turn to the sheet that is printed of what is shown."""
        wanted = self.pages[self._stage].prints
        self.show_stage(PRINTED)
        if wanted and self.stage == PRINTED:
            self.pages[PRINTED].turn_to(wanted)

    def _show_page(self) -> None:
        """Show the page of the stage turned to, or the blank one while it has nothing to work on."""
        ready = _stage_called(self._stage).ready(self.document.build)
        page = self.pages[self._stage] if ready else self.blank
        self._stack.setCurrentWidget(page)
        if not ready:
            self._starting.refresh()
        self.rail.show_stage(self._stage)

    def _show_build(self) -> None:
        build, judgement = self.document.build, self.document.judgement
        self.header.keel.show_keel(keel_of(build, judgement, self._settings.unit))
        for stage in STAGES:
            appears = stage.appears(build)
            self.rail.show_note(stage.key, stage.note(build, judgement), appears=appears)
            foot = self.pages[stage.key].foot
            if foot is not None:
                foot.setVisible(appears)
            if stage.key == self._stage and not appears:
                self._stage = home_of(build)
        self._show_page()
        self._show_name()

    def _show_name(self) -> None:
        build, path = self.document.build, self.document_file.path
        name = build.name or (path.stem if path else "") or say.NO_MODEL_YET
        phase = PHASE_WORDS.get(build.phase or "", "")
        words = (phase, self.document_file.standing)
        state = " · ".join(word for word in words if word) if build.described else ""
        answer = (
            headline(build.surveyed, self.document.judgement) if build.survey is not None else ""
        )
        out = any(check.verdict == "out" for check in self.document.judgement.checks)
        if build.practice is not None:
            state, out = practising.NOT_YOURS, False
            answer = practising.answer_words(
                build.practice, right_in(build, self.document.judgement)
            )
        self.header.show_build(name, state, answer, out=out)
        self.setWindowTitle(f"{name}{' *' if self.document_file.unsaved else ''} · Hard Keel")

    def find_what_to_do(self) -> None:
        """Find by name what can be done now, and do it."""
        self._on_menu_shown()  # its lists as they are now
        stages = [
            (stage.title, self.pages[stage.key].tabs, partial(self._turn_to, stage.key))
            for stage in STAGES
            if stage.appears(self.document.build)
        ]
        found = finder.all_deeds(self._stack.currentWidget(), self.rail.buttons, stages, self.menu)
        found.append(finder.light_or_dark(self._on_theme_toggled))
        theme = make_theme(self._settings.theme, self._settings.text_percent)
        dialog = finder.FinderDialog(found, theme, self)
        dialog.picked.connect(lambda deed: deed.do())
        dialog.exec()

    def _turn_to(self, stage: str, place: str) -> None:
        self.show_stage(stage)
        self.pages[stage].turn_to(place)

    # -- files -----------------------------------------------------------------------------------

    def new_build(self) -> None:
        """Ask for the figures of a model and put it on the bench."""
        dialog = new_build.NewBuildDialog(
            make_theme(self._settings.theme, self._settings.text_percent), self._settings.unit, self
        )
        if dialog.exec() and dialog.build is not None and self._may_leave():
            self.start(dialog.build)

    def clear_bench(self) -> None:
        """Begin with nothing, at the first stage."""
        if self._may_leave():
            self.start(empty_build())
            self.show_stage(STAGES[0].key)

    def open_demo(self, make: Callable[[], Build] = shipped_build) -> None:
        """Put a demo build on the bench."""
        if self._may_leave():
            self.start(make(), again=True)
            self.tour.offer()

    def open_other_demo(self, demo: "Demo") -> None:
        """Put another demo on the bench, at the page where it has most to show."""
        if self._may_leave():
            self.start(demo.make(), again=True)
            stage, place = demo.opens
            self.show_stage(stage)
            self.pages[stage].turn_to(place)

    def start(self, build: Build, *, again: bool = False) -> None:
        """Put a build on the bench that has no file yet; `again` where it can be had again as it is."""
        self.document_file.start(build, again=again)
        self._show_opened()

    def _show_opened(self) -> None:
        """Turn to what was opened, and ask about figures in it that hardly any model has."""
        self.show_stage(home_of(self.document.build))
        told = looked_at(oddities_in(self.document.build))
        if told:
            self.notice.tell(told)

    def open_path(self, path: Path) -> None:
        """Open a file, or say why not."""
        if not self._may_leave():
            return
        try:
            self.document_file.open(path)
        except BadInput as fault:
            self.notice.tell(say.not_opened(path.name, fault))
        except FileInUse as fault:
            self.notice.tell(
                f"{path.name}: {fault}.", (say.OPEN_A_COPY, lambda: self._open_copy(path))
            )
        else:
            self._settings.add_recent(path.absolute())
            self._show_opened()

    def go_back_to(self, version: Path) -> None:
        """Take up an older version of this build, as one more step that can be undone."""
        try:
            loaded = load(version)
            older = loaded.build
            self.document.session.images.keep(loaded.attached())
            when = f"{moment_of(version):%Y-%m-%d %H:%M}"
            self.document.apply(say.version_edit(when), go_back.of(older))
        except BadInput as fault:
            self.notice.tell(say.version_not_taken(fault))

    def save(self) -> bool:
        """Save where the build belongs, asking for a place only where it has none; whether it is saved."""
        if self.document_file.path is None:
            return self._on_save_as_wanted()
        return self._saved(self.document_file.save)

    def save_to(self, path: Path) -> bool:
        """Save under a name; whether it is saved."""
        path = _with_suffix(path)
        if not self._saved(partial(self.document_file.save_as, path)):
            return False
        self._settings.add_recent(path.absolute())
        return True

    def _saved(self, save: Callable[..., None]) -> bool:
        """Whether a save went well; if not, why, and the ways out."""
        try:
            save()
        except WouldLose as fault:
            self.notice.tell(
                say.not_saved(fault),
                (say.SAVE_WITHOUT_IT, lambda: self._saved(partial(save, lose=True))),
                (say.SAVE_UNDER_ANOTHER_NAME, self._on_save_as_wanted),
                about=_SAVING,
            )
            return False
        except (CannotSave, FileInUse) as fault:
            self.notice.tell(
                say.not_saved(fault),
                (say.SAVE_UNDER_ANOTHER_NAME, self._on_save_as_wanted),
                about=_SAVING,
            )
            return False
        self.notice.settle(_SAVING)
        return True

    def offer_recovery(self) -> None:
        """Offer what a program that died has left."""
        left = self.document_file.left_behind()
        newer = self.document_file.left_by_newer()
        if not left:
            self.notice.offer(say.left_by_newer(newer) if newer else "")
        else:
            rescued = left[0]
            name = rescued.build.name or say.A_BUILD
            self.notice.offer(
                say.had_changes(name, rescued.at, len(left) - 1),
                (say.BRING_THEM_BACK, lambda: self._recover(rescued)),
                (say.DROP_THEM, lambda: self._decline(rescued)),
            )

    def _on_build_changed(self, change: Change) -> None:
        if not change.parts:  # another build
            self.notice.clear()
        self._show_build()

    def _open_copy(self, path: Path) -> None:
        if not self._may_leave():
            return
        try:
            self.document_file.open_copy(path)
        except BadInput as fault:
            self.notice.tell(say.not_opened(path.name, fault))
            return
        self._show_opened()

    def _recover(self, rescued: Rescued) -> None:
        if self._may_leave():
            try:
                said = self.document_file.recover(rescued)
            except BadInput as fault:
                self.notice.tell(say.not_brought_back(fault))
                return
            if said:
                self.notice.tell(said)
            self.show_stage(home_of(self.document.build))
        self.offer_recovery()

    def _decline(self, rescued: Rescued) -> None:
        self.document_file.decline(rescued)
        self.offer_recovery()

    def _on_state_failed(self, why: str) -> None:
        self.notice.tell(
            say.state_folder_closed(why),
            about=_STATE,
        )

    def tell_fault(self, report: str) -> None:
        """Say that something went wrong beside the window, with the report for who wants it."""
        self.notice.tell(
            say.UNFORESEEN,
            (say.SHOW_THE_REPORT, lambda: ReportDialog(report, self).exec()),
        )

    def _may_leave(self) -> bool:
        if not self.document_file.unsaved or self.document.build == empty_build():
            return True
        if self.document.build.practice is not None and self.document_file.path is None:
            return True  # an exercise without a file is there to be thrown away
        dialog = UnsavedDialog(self.document.build.name or say.THIS_BUILD, self)
        dialog.exec()
        return dialog.answer == "drop" or (dialog.answer == "save" and self.save())

    def _on_open_wanted(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, say.OPEN_WHICH_BUILD, "", say.BUILD_FILES)
        if name:
            self.open_path(Path(name))

    def _on_save_as_wanted(self) -> bool:
        start = str(self.document_file.path or f"{self.document.build.name or say.MY_MODEL}.keel")
        name, _ = QFileDialog.getSaveFileName(self, say.SAVE_THE_BUILD, start, say.SAVED_FILES)
        if not name:
            return False
        path = _with_suffix(Path(name))
        own = self.document_file.path is not None and path.absolute() == self.document_file.path
        # the dialog has asked about the name as it was typed, not as it becomes
        if path != Path(name) and path.exists() and not own and not self._may_replace(path):
            return False
        return self.save_to(path)

    def _may_replace(self, path: Path) -> bool:
        dialog = YesNoDialog(say.REPLACE, say.replaces(path.name), say.REPLACE_IT, self)
        dialog.exec()
        return dialog.said_yes

    def _on_menu_shown(self) -> None:
        self.menu.show_files(self._settings.recent, self.document_file.path)
        self.menu.show_left(self.document_file.left_behind())
        self.menu.show_demos(
            [(f"{d.name}: {d.framed}", d) for d in (*fleet.DEMOS, *fleet.OTHER_SHAPES)]
        )

    # -- switches --------------------------------------------------------------------------------

    def _on_unit_toggled(self) -> None:
        self._settings.unit = "in" if self._settings.unit == "mm" else "mm"
        self.header.show_unit(self._settings.unit)
        for page in self.pages.values():
            page.set_unit(self._settings.unit)
        self._show_build()

    def _on_theme_toggled(self) -> None:
        self._settings.theme = "light" if self._settings.theme == "dark" else "dark"
        self.restyle()

    def _on_scale_wanted(self, percent: int) -> None:
        self._settings.text_percent = percent
        self.restyle()

    def restyle(self) -> None:
        """Dress everything in the theme and text size of the settings."""
        theme = make_theme(self._settings.theme, self._settings.text_percent)
        self.theme_changed.emit(theme)
        self._restyle()
        self.header.set_theme(theme)
        for page in self.pages.values():
            page.set_theme(theme)
        self.blank.set_theme(theme)
        self.rail.setFixedWidth(theme.px(_RAIL_PX))

    def _restyle(self) -> None:
        """Put the style sheet on what is seen; a page that is not gets it when it is turned to."""
        for room in (self.header, self.notice, self.tour, self.rail):
            apply_style(room)
        if self.stage:
            self.pages[self.stage].apply_style()
        else:
            apply_style(self.blank)

    def _on_plan_wanted(self) -> None:
        stage, place = ON_PAPER
        self.show_stage(stage)
        self.pages[stage].turn_to(place)

    def _on_body_picked(self, body: str) -> None:
        self.header.keel.choose_body(body)
        for page in self.pages.values():
            page.choose_body(body)

    def _on_station_picked(self, stop: str) -> None:
        self.header.keel.choose_body(stop)
        for page in self.pages.values():
            page.choose_station(stop)

    def _may_stop_writing(self) -> bool:
        """Whether what is being written may be left off; asked once."""
        if not self.jobs.writing:
            return True
        dialog = YesNoDialog(say.STILL_WRITING, say.STILL_WRITING_WHY, say.STOP_AND_CLOSE, self)
        dialog.exec()
        return dialog.said_yes

    # -- leaving ---------------------------------------------------------------------------------

    def closeEvent(self, event: QCloseEvent | None) -> None:
        """Ask about unsaved work, then end in peace."""
        if event is None:
            return
        if not self._may_stop_writing() or not self._may_leave():
            event.ignore()
            return
        self._settings.geometry = self.saveGeometry()
        for page in self.pages.values():
            page.closed.emit()
        self.jobs.stop_all()
        self.document_file.close()
        event.accept()


def _with_suffix(path: Path) -> Path:
    """The name that a build is saved under."""
    if path.suffix.lower() in (".keel", ".json"):
        return path
    return path.with_name(path.name + ".keel")


def _stage_called(key: str) -> Stage:
    return next(stage for stage in STAGES if stage.key == key)
