"""The airframe in the round as it is believed to stand: its error enlarged, what is wanted dashed."""

from collections.abc import Callable

from PyQt6.QtWidgets import QWidget

from hardkeel.messages.names import body_name
from hardkeel.messages.verdicts import state_words
from hardkeel.picture.frame_in_space import trued_in_space
from hardkeel.picture.truing import body_verdict
from hardkeel.ui.tabbed.round_page import RoundPage, seen_of
from hardkeel.ui.widgets.exaggeration import Exaggeration
from hardkeel.ui.widgets.round_view import Seen


class TrueRoundPage(RoundPage):
    """Wings and tail as they were read."""

    def more_cards(self) -> tuple[QWidget, ...]:
        """How much the error is enlarged."""
        self.enlarged = Exaggeration()
        self.enlarged.factor_changed.connect(self.refresh)
        return (self.enlarged,)

    def prepared(self) -> Callable[[], Seen]:
        """As it stands, and dashed as it is wanted."""
        build, judgement = self.document.build, self.document.judgement
        factor = float(self.enlarged.factor)

        def work() -> Seen:
            stands, wanted = trued_in_space(build, judgement, factor)
            verdicts = {}
            for body in build.surveyed.bodies:
                verdict = body_verdict(judgement, body.id)
                if verdict is not None:
                    verdicts[body.id] = verdict
            return seen_of(build, stands, wanted=wanted, verdicts=verdicts, whole=True)

        return work

    def words(self, ref: str) -> tuple[str, tuple[str, ...]]:
        """A part, and what is known of it."""
        survey, judgement = self.document.build.surveyed, self.document.judgement
        if survey.body(ref) is None:
            return super().words(ref)
        name = body_name(survey, ref)
        state = state_words(judgement.checks_on(ref), self.unit)
        return f"{name[:1].upper()}{name[1:]}", (state,) if state else ()
