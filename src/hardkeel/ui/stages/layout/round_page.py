"""The airframe in the round as it is laid out: fuselage with its skin, wings and tail where they are wanted."""

from collections.abc import Callable

from hardkeel.picture.frame_in_space import in_space
from hardkeel.ui.tabbed.round_page import RoundPage, seen_of
from hardkeel.ui.widgets.round_view import Seen


class LayoutRoundPage(RoundPage):
    """All of it, whole."""

    def prepared(self) -> Callable[[], Seen]:
        """With wings and tail."""
        build = self.document.build
        return lambda: seen_of(build, in_space(build), whole=True)
