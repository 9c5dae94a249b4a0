"""The airframe in the round as it is laid out: fuselage with its skin, wings and tail where they are wanted."""

from hardkeel.picture.in_space import Space
from hardkeel.ui.tabbed.round_page import RoundPage
from hardkeel.ui.widgets.round_view import Seen


class LayoutRoundPage(RoundPage):
    """All of it, whole."""

    def seen(self, space: Space) -> Seen:
        """With wings and tail."""
        plain = super().seen(space)
        return Seen(space, names=plain.names, chosen=plain.chosen, whole=True)
