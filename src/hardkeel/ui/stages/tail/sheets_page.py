"""Wood and sheets of the tail."""

from hardkeel.messages import tail as say
from hardkeel.ui.stages.tail.tail_page import SHOWS
from hardkeel.ui.tabbed.sheets_page import SheetsPage


class TailSheetsPage(SheetsPage):
    """Ribs, gussets, skins and templates on their sheets, the strips, the paper."""

    nothing = say.HOW_BUILT_FIRST
    shows = SHOWS

    @property
    def ready(self) -> bool:
        """Whether any surface says how it is built."""
        return any(one.kind is not None for one in self.document.build.tail)
