"""The whole record written beside the window: what is being written stands in the notice, and can be left off."""

from pathlib import Path
from typing import TYPE_CHECKING, Final

from PyQt6.QtCore import QObject, QTimer
from PyQt6.QtWidgets import QFileDialog, QWidget

from hardkeel.base.errors import GivenUp, HardKeelError, NotOurs
from hardkeel.base.late import late
from hardkeel.export.paper_sizes import paper_for
from hardkeel.export.renewing import Destination
from hardkeel.messages import shell as say
from hardkeel.ui.document.document import Document
from hardkeel.ui.document.document_file import DocumentFile
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.jobs.progress import Progress
from hardkeel.ui.settings import Settings
from hardkeel.ui.shell.notice import Notice

if TYPE_CHECKING:
    from hardkeel.export import bundle
else:
    bundle = late("hardkeel.export.bundle")

_LOOK_MS: Final = 150


class ExportController(QObject):
    """Lives as long as the window."""

    def __init__(
        self,
        document_file: DocumentFile,
        document: Document,
        jobs: Jobs,
        notice: Notice,
        settings: Settings,
        window: QWidget,
    ) -> None:
        super().__init__(window)
        self._file, self._document, self._jobs = document_file, document, jobs
        self._notice, self._settings, self._window = notice, settings, window
        self._progress: Progress | None = None
        self._shown = ""
        self._look = QTimer(self)
        self._look.setInterval(_LOOK_MS)
        self._look.timeout.connect(self._show_progress)

    def ask(self) -> None:
        """Ask for a folder, and write there."""
        name = QFileDialog.getExistingDirectory(self._window, say.RECORD_WHERE)
        if name:
            self.write_to(Path(name))

    def write_to(self, folder: Path, *, overwrite: bool = False) -> None:
        """Write everything into a folder; other builds' files only when told to."""
        build, unit = self._document.build, self._settings.unit
        to = Destination(folder, self._file.path, overwrite, paper_for(unit))
        attached = self._document.session.images.of(build)
        progress = self._progress = Progress()
        self._shown = ""
        self._look.start()

        def done(_paths: object) -> None:
            self._end()
            self._notice.tell(say.the_record_is_in(folder), well=True)

        def failed(fault: HardKeelError) -> None:
            self._end()
            self._tell_failed(folder, fault)

        def left() -> None:
            self._end()
            self._notice.tell(say.RECORD_LEFT_OFF)

        self._jobs.start(
            self._document.session,
            "export",
            lambda: bundle.export_record(
                build, to, build.phase, unit, attached, doing=progress.name
            ),
            done,
            failed,
            stop=progress.stop,
            left=left,
            writes=True,
        )

    def _end(self) -> None:
        self._progress = None
        self._look.stop()

    def _show_progress(self) -> None:
        progress = self._progress
        if progress is not None and progress.doing and progress.doing != self._shown:
            self._shown = progress.doing
            self._notice.tell(
                say.writing_what(progress.doing), (say.LEAVE_IT_OFF, progress.stop), well=True
            )

    def _tell_failed(self, folder: Path, fault: HardKeelError) -> None:
        if isinstance(fault, GivenUp):
            self._notice.tell(say.NOTHING_WAS_WRITTEN, well=True)
        elif isinstance(fault, NotOurs):
            self._notice.tell(
                say.no_record(fault),
                (say.WRITE_OVER_IT, lambda: self.write_to(folder, overwrite=True)),
                (say.CHOOSE_ANOTHER_FOLDER, self.ask),
            )
        else:
            self._notice.tell(say.no_record(fault))
