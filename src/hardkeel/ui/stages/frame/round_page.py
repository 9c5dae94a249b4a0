"""The frame in the round: how it stands on its board, enlarged, against how it is wanted."""

from collections.abc import Callable
from typing import Final

import numpy as np
from PyQt6.QtWidgets import QWidget

from hardkeel.base.errors import BadInput
from hardkeel.base.units import format_length, format_size
from hardkeel.fuselage.curing import judge_frame
from hardkeel.fuselage.inspecting import findings_of
from hardkeel.fuselage.loft import loft_of
from hardkeel.fuselage.model import Fuselage, Squaring
from hardkeel.messages import findings as findings_say
from hardkeel.messages import frame as say
from hardkeel.messages import in_the_round as round_say
from hardkeel.messages import layout as layout_say
from hardkeel.messages.square import what_to_do
from hardkeel.picture.frame_in_space import in_space, moves_of
from hardkeel.picture.in_space import Space
from hardkeel.ui.tabbed.round_page import RoundPage, seen_of
from hardkeel.ui.tabbed.sticks_shown import wood_name
from hardkeel.ui.widgets.exaggeration import Exaggeration
from hardkeel.ui.widgets.round_view import Seen

_STEPS: Final = 60


class FrameRoundPage(RoundPage):
    """Members, formers and sticks in space; where the frame was read it stands as it was read."""

    def more_cards(self) -> tuple[QWidget, ...]:
        """How much the error is enlarged."""
        self.enlarged = Exaggeration()
        self.enlarged.factor_changed.connect(self.refresh)
        return (self.enlarged,)

    def prepared(self) -> Callable[[], Seen]:
        """The frame as it stands, and dashed as it is wanted."""
        build = self.document.build
        fuselage, factor = build.fuselage, float(self.enlarged.factor)
        read = fuselage is not None and fuselage.board is not None
        read = read and fuselage is not None and bool((fuselage.squaring or Squaring()).readings)
        self.enlarged.setVisible(read)

        def work() -> Seen:
            space = in_space(build)
            moves = None
            if fuselage is not None and read:
                moves = moves_of(fuselage, judge_frame(fuselage, build.phase).squared, factor)
            if moves is None or fuselage is None:
                return seen_of(build, space)
            return seen_of(build, space.turned(moves), wanted=Space(lines=_edges(fuselage)))

        return work

    def words(self, ref: str) -> tuple[str, tuple[str, ...]]:
        """What is in hand, what it is, what is wrong with it."""
        fuselage = self.document.build.fuselage
        if fuselage is None:
            return super().words(ref)
        former = fuselage.former(ref)
        if former is not None:
            place = format_length(former.station, self.unit)
            wood = wood_name(self.document.build, former.material)
            lines = [round_say.stands_at(place, wood)]
            lines += self._found(fuselage, ref)
            return layout_say.former(ref), tuple(lines)
        member = next((one for one in fuselage.framed.members if one.id == ref), None)
        if member is not None:
            wood = wood_name(self.document.build, member.material)
            size = format_size(member.section, self.unit) if member.section is not None else ""
            told = ", ".join(part for part in (say.MEMBER_WORDS[member.kind], size, wood) if part)
            return say.member_title(member.id), (told,)
        return super().words(ref)

    def _found(self, fuselage: Fuselage, name: str) -> list[str]:
        web = fuselage.framed.web
        lines = [
            f"{findings_say.finding_title(one)} {findings_say.finding_sentence(one, self.unit, web)}"
            for one in findings_of(fuselage)
            if one.former == name
        ]
        if fuselage.squaring is None or fuselage.board is None:
            return lines
        try:
            judged = judge_frame(fuselage, self.document.build.phase)
        except BadInput:
            return lines
        return [*lines, *(one for one in what_to_do(judged, self.unit) if name in one)]


def _edges(
    fuselage: Fuselage,
) -> list[tuple[str, np.ndarray[tuple[int, int], np.dtype[np.float64]]]]:
    """The corner lines of a fuselage as it is wanted."""
    loft = loft_of(fuselage)
    x = np.linspace(loft.stations[0], loft.stations[-1], _STEPS)
    half = loft.half_width.value(x)
    return [
        (name, np.column_stack([x, hand * half, loft.edge(lower=lower).value(x)]))
        for name, lower in (("upper", False), ("lower", True))
        for hand in (-1.0, 1.0)
    ]
