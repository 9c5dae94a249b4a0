"""When a page is shown anew: at once while it is seen, else when it is next turned to."""

from collections.abc import Callable

from PyQt6.QtCore import QEvent, QObject
from PyQt6.QtWidgets import QWidget

from hardkeel.ui.document.document import Change, Document


class LazyRefresh(QObject):
    """Keeps one page fresh without working for pages that nobody sees.

    Parameters
    ----------
    page : QWidget
        The page; this lives as long as it.
    refresh : callable
        Shows the document as it is now.
    shows : frozenset of str, optional
        The parts of a build that the page shows, as `Change` names them; without it all.
    """

    def __init__(
        self,
        page: QWidget,
        document: Document,
        refresh: Callable[[], None],
        shows: frozenset[str] | None = None,
    ) -> None:
        super().__init__(page)
        self._page, self._refresh, self._shows = page, refresh, shows
        self._stale = False
        document.build_changed.connect(self._on_build_changed)
        page.installEventFilter(self)

    def _on_build_changed(self, change: Change) -> None:
        if self._shows is not None and not change.touches(self._shows):
            return
        self.renew()

    def renew(self) -> None:
        """Show the page anew: now if it is seen, else when it is next turned to."""
        if self._page.isVisible():
            self.catch_up()
        else:
            self._stale = True

    def catch_up(self) -> None:
        """Show the page as the document is now."""
        self._stale = False
        self._refresh()

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """Catch up before a page that has stayed behind is painted."""
        if self._stale and event is not None and event.type() == QEvent.Type.Show:
            self.catch_up()
        return super().eventFilter(watched, event)
