"""Reckons what stands in space beside the window, for every stage that shows it in the round."""

from collections.abc import Callable

from PyQt6.QtCore import QObject

from hardkeel.base.errors import HardKeelError
from hardkeel.ui.document.document import Document
from hardkeel.ui.jobs.pool import Jobs
from hardkeel.ui.tabbed.round_page import RoundPage


class RoundController(QObject):
    """Gives a page that is made its hands."""

    def __init__(self, document: Document, stage: QObject, jobs: Jobs, name: str) -> None:
        super().__init__(stage)
        self._document, self._jobs, self._name = document, jobs, name

    def take(self, page: object) -> None:
        """Take a page that was made, if it is one of these, and show what it shows."""
        if isinstance(page, RoundPage):
            page.run = self._run
            page.refresh()

    def _run(
        self,
        work: Callable[[], object],
        done: Callable[[object], object],
        failed: Callable[[HardKeelError], object],
    ) -> None:
        kind = f"{self._name} in the round"
        self._jobs.start(self._document.session, kind, work, done, failed)
