"""The first page kept up to date: what was lately on the bench is looked into beside the window, while it is seen."""

from datetime import datetime
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING, Final

from PyQt6.QtCore import QObject

from hardkeel.base.late import late
from hardkeel.ui.document.document import Document
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.settings import Settings
from hardkeel.ui.shell.blank_page import BlankPage

if TYPE_CHECKING:
    from hardkeel.ui.shell import glancing
else:
    glancing = late("hardkeel.ui.shell.glancing")

_MOST: Final = 3  # builds that are looked into: each takes a second
_LOOKING: Final = "glance "


class Starting(QObject):
    """Lives as long as the window."""

    def __init__(
        self, page: BlankPage, document: Document, jobs: Jobs, settings: Settings, parent: QObject
    ) -> None:
        super().__init__(parent)
        self._page, self._document, self._jobs, self._settings = page, document, jobs, settings
        self._shown: tuple[tuple[Path, float], ...] | None = None

    def refresh(self) -> None:
        """Show what was lately on the bench, where it is another than what is shown."""
        recent = self._settings.recent
        stamps = tuple((path, _stamp(path)) for path in recent[:_MOST])
        if stamps == self._shown:
            return
        self._shown = stamps
        if not stamps:
            self._page.show_recent({})
            return
        now = self._document.clock()
        paths = [path for path, _ in stamps]
        self._page.show_recent({path: glancing.unread(path, now) for path in paths})
        self._look(paths, now)

    def _look(self, paths: list[Path], now: datetime) -> None:
        """Into one after the other: the newest first."""
        if not paths:
            return
        path, *others = paths
        unit = self._settings.unit

        def found(glance: object) -> None:
            self._page.show_glance(path, glance)  # type: ignore[arg-type]
            self._look(others, now)

        self._jobs.start(
            self._document.session,
            f"{_LOOKING}{path}",
            partial(glancing.glance_at, path, now, unit),
            found,
            lambda _fault: self._look(others, now),
            left=self._forget,
        )

    def _forget(self) -> None:
        """Another build came: it is looked into again when the page is seen next."""
        self._shown = None


def _stamp(path: Path) -> float:
    try:
        return path.stat().st_mtime
    except OSError:
        return 0.0
