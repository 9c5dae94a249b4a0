"""Wood and sheets of the tail."""

from hardkeel.ui.benches.sheets_page import SheetsPage
from hardkeel.ui.stages.tail.tail_page import SHOWS
from hardkeel.voice import tail as say


class TailSheetsPage(SheetsPage):
    """Ribs, gussets, skins and templates on their sheets, the strips, the paper."""

    nothing = say.HOW_BUILT_FIRST
    shows = SHOWS

    @property
    def ready(self) -> bool:
        """Whether any surface says how it is built."""
        return any(one.kind is not None for one in self.document.build.tail)
