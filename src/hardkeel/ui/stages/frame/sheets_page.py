"""Wood and sheets of the fuselage."""

from hardkeel.ui.stages.frame.frame_page import SHOWS, is_framed
from hardkeel.ui.tabbed.sheets_page import SheetsPage


class FrameSheetsPage(SheetsPage):
    """The fuselage's pieces on their sheets, its strips, its templates."""

    shows = SHOWS

    @property
    def ready(self) -> bool:
        """Whether there is a fuselage to frame."""
        return is_framed(self.document.build)
