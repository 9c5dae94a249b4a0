"""Sticks: the surface as it is pinned down, and one stick at a time with its angles."""

from hardkeel.airframe.tails import tail_cut_list
from hardkeel.base.errors import BadInput
from hardkeel.messages import tail as say
from hardkeel.picture.tail import flat_picture_of
from hardkeel.picture.wood import WoodPicture
from hardkeel.ui.stages.tail.tail_page import SAY_HOW_BUILT, SHOWS
from hardkeel.ui.tabbed.cutting_page import CuttingPage
from hardkeel.ui.tabbed.sticks_shown import Sticks, sticks_of
from hardkeel.ui.widgets.doing_card import Doing


class TailSticksPage(CuttingPage):
    """The sticks of every surface, in the jig's order."""

    title, nothing, shows = say.FROM_ABOVE, say.HOW_BUILT_FIRST, SHOWS
    _shown = ""

    @property
    def second_half(self) -> str:
        """Whether what is cut has a mirror."""
        shown = next((one for one in self.document.build.tail if one.id == self._shown), None)
        return say.NO_SECOND_HALF if shown is not None and shown.upright else say.SECOND_HALF

    def reckoned(self) -> Sticks | None:
        """Sticks of all surfaces that say how they are built."""
        build = self.document.build
        if all(one.kind is None for one in build.tail):
            return None
        try:
            return sticks_of(build, tail_cut_list(build))
        except BadInput as fault:
            self.tell(str(fault))
            return None

    def turned(self) -> None:
        """Draw the surface that the stick in hand is of, where it is another one."""
        if self.part is not None and self.part.member != self._shown:
            picture, note = self.drawn()
            self.board.show_picture(picture, "", note)

    def drawn(self) -> tuple[WoodPicture, str]:
        """The surface that the stick in hand is of."""
        build = self.document.build
        part = self.part
        self._shown = part.member if part is not None else ""
        surface = next((one for one in build.tail if one.id == self._shown), build.tail[0])
        self.board.set_title(say.FIN_FLAT if surface.upright else say.FROM_ABOVE)
        cut = frozenset(key for key, one in build.listed.cut.items() if one.pieces > 0)
        try:
            return flat_picture_of(surface, build.profiles, cut), say.surface_title(surface)
        except BadInput as fault:
            self.tell(str(fault))
            return WoodPicture(), ""

    def first(self) -> Doing | None:
        """How it is built comes first."""
        if all(one.kind is None for one in self.document.build.tail):
            return SAY_HOW_BUILT
        return None
