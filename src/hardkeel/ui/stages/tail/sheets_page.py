"""Wood and sheets of the tail."""

from hardkeel.ui.stages.tail.tail_page import SAY_HOW_BUILT, SHOWS
from hardkeel.ui.tabbed.sheets_page import SheetsPage


class TailSheetsPage(SheetsPage):
    """Ribs, gussets, skins and templates on their sheets, the strips, the paper."""

    nothing = SAY_HOW_BUILT
    shows = SHOWS

    @property
    def ready(self) -> bool:
        """Whether any surface says how it is built."""
        return any(one.kind is not None for one in self.document.build.tail)
