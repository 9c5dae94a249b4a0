"""Sticks: the side as it is pinned down, and below it one stick at a time with its angles."""

from PyQt6.QtWidgets import QWidget

from hardkeel.base.units import LengthUnit, format_length
from hardkeel.edits import framing as edits
from hardkeel.fuselage.inspecting import findings_of
from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.model import Fuselage
from hardkeel.messages import frame as say
from hardkeel.picture.framing import laid_flat
from hardkeel.picture.wood import WoodPicture
from hardkeel.ui.document.document import Document
from hardkeel.ui.stages.frame.cards import FindingCard
from hardkeel.ui.stages.frame.frame_page import SHOWS, is_framed
from hardkeel.ui.tabbed.cutting_page import CuttingPage
from hardkeel.ui.tabbed.sticks_shown import Sticks, sticks_of_build
from hardkeel.ui.theme import Theme
from hardkeel.ui.widgets.doing_card import Doing


class SticksPage(CuttingPage):
    """The fuselage's sticks, and what is wrong with its formers."""

    title, nothing, shows = say.PORT_SIDE, say.NOTHING_TO_FRAME, SHOWS

    @property
    def second_half(self) -> str:
        """The other side is cut with the first."""
        return say.SECOND_SIDE

    def __init__(
        self, document: Document, theme: Theme, unit: LengthUnit, parent: QWidget | None = None
    ) -> None:
        self.finding = FindingCard()
        super().__init__(document, theme, unit, parent)
        self.finding.shown.connect(self._on_shown)

    @property
    def _fuselage(self) -> Fuselage:
        return self.document.build.fuselage or Fuselage()

    def cards(self) -> tuple[QWidget, ...]:
        """What is wrong with the formers."""
        return (self.finding,)

    def reckoned(self) -> Sticks | None:
        """The fuselage's sticks."""
        build = self.document.build
        framed = is_framed(build)
        self.finding.setVisible(framed)
        return sticks_of_build(build) if framed else None

    def drawn(self) -> tuple[WoodPicture, str]:
        """The side laid flat."""
        loft = loft_of(self._fuselage)
        long = float(loft.developed()[-1])
        drawn = float(loft.stations[-1] - loft.stations[0])
        note = say.laid_flat_note(
            format_length(long, self.unit), format_length(long - drawn, self.unit)
        )
        findings = findings_of(self._fuselage)
        self.finding.show_findings(findings, self._fuselage.framed.web, self.unit)
        return laid_flat(self.document.build), note

    def first(self) -> Doing | None:
        """Members come before sticks."""
        if not is_framed(self.document.build):
            return Doing(say.NOTHING_TO_FRAME)
        if not self._fuselage.framed.members:
            return Doing(
                say.FRAME_IT_NOW, say.USUAL_MEMBERS, button=say.FRAME_AS_USUAL, key="usual"
            )
        return None

    def asked(self, key: str) -> None:
        """Frame it as is usual, or go to another bench."""
        if key == "usual":
            self.apply(say.FRAME_AS_USUAL.lower(), edits.frame_as_usual.of())
        else:
            self.place_wanted.emit(key)

    def _on_shown(self, former: str) -> None:
        self.piece_chosen.emit(former)
        self.place_wanted.emit("formers")
