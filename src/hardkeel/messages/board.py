"""Setting a frame up on its board, in words."""

from typing import Final

from hardkeel.base.units import LengthUnit, format_length
from hardkeel.fuselage.members import members_with
from hardkeel.fuselage.model import Fuselage
from hardkeel.fuselage.standing import beyond_the_board
from hardkeel.messages.steps import named

BOARD: Final = "Board"
FROM_ABOVE: Final = "from above: what is drawn on the board"
FROM_THE_SIDE: Final = "from the side: formers on their spacers"
SETTING_UP: Final = "Setting up"
SPACERS: Final = "Spacers"
TURN_IT_OVER: Final = "Turn it over"
BOARD_HEIGHT: Final = "board under the datum"
BOARD_LENGTH: Final = "length of the board"
UPRIGHT: Final = "Upright on the board."
INVERTED: Final = "Upside down on the board."
TURNED: Final = "turn the frame over on its board"
MOVED: Final = "set the board's height"
HEADS: Final = ("former", "from the first", "spacer", "each side of the line", "edges bevelled")
_NEGATIVE: Final = "{} would reach through the board: lower the board by {}."


TACKED: Final = "tacked, to be broken off"
TACKED_TIP: Final = (
    "Sacrificial blocks on a sheet of glass or a board, each held by a drop of glue instead of pins"
)
TACK_THEM: Final = (
    "5. Tack sacrificial blocks to the glass or board with a drop of thin cyanoacrylate (eyes, skin, fumes: the maker's sheet "
    "goes before), and the formers to the blocks; they are broken off along the grain when the frame is stiff."
)


def setting_up(fuselage: Fuselage) -> list[str]:
    """What is done in which order before the first former is glued."""
    wires = members_with(fuselage, "threaded")
    rods = [member for member in fuselage.framed.members if member.kind == "rod"]
    split = [former.id for former in fuselage.formers if former.split]
    told = [
        "1. Level the board both ways: a level across it at both ends, then along it; wedge it, look again.",
        "2. Draw the centre line with a stretched string, not with a short rule.",
        "3. Measure every station off the first one, never from former to former: errors would add up.",
        "4. Square each station line to the centre line and draw it over the whole board.",
        TACK_THEM
        if fuselage.board is not None and fuselage.board.tacked
        else "5. Pin the spacers, film between them and the wood, so that glue does not hold the frame down.",
    ]
    over = beyond_the_board(fuselage)
    if over:
        told.append(
            f"6. The board ends before {named(over)}: clamp a straight strip as wide as the board under it, its upper "
            "face one plane with the board's, and hold a long rule over both. What stands on it is read once more at the end."
        )
    if wires:
        told.append(
            f"{len(told) + 1}. Thread the formers on the wires, waxed, or they stay for ever."
        )
    if rods:
        told.append(
            f"{len(told) + 1}. Put the cross rods through both sides while they are parallel."
        )
    told.append(
        f"{len(told) + 1}. Set the centre marks to the line, square each former at its top and at its foot, then glue."
    )
    if split:
        told.append(
            f"{len(told) + 1}. Leave the halves of {', '.join(split)} loose: they are closed last."
        )
    return told


def through_the_board(former: str, mm: float, unit: LengthUnit) -> str:
    """A spacer of less than nothing."""
    return _NEGATIVE.format(former, format_length(mm, unit))
