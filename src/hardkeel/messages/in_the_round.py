"""The airframe in space, in words."""

from typing import Final

IN_THE_ROUND: Final = "In the round"
IN_HAND: Final = "In hand"
TURN_IT: Final = "Turn it"
HOW_TO_TURN: Final = "Drag it, or the arrow keys. Double click goes to plan, side, rear and back. Space takes the skin off, then shows the inside of its far half."
SKINS: Final = {
    "closed": "with its skin",
    "open": "far half of its skin",
    "bare": "without its skin",
}
VIEWS: Final = {"plan": "plan", "side": "side", "rear": "rear"}
AS_WANTED: Final = "dashed: as wanted"
POINT_AT_A_PIECE: Final = "Point at a piece: it is taken in hand on every bench."
NOTHING_IN_HAND: Final = "Nothing in hand"
MAGNIFIED: Final = "four times the drawing"
FROM_PORT_AHEAD: Final = "From port ahead, as drawn; of the skin the inside of its far half."


def stands_at(place: str, wood: str) -> str:
    """``At 210.0 mm, of light ply, poplar.``."""
    return f"At {place}, of {wood}." if wood else f"At {place}."


def looked_from(round_: float, up: float) -> str:
    """``from port ahead, 30° round, 20° up``."""
    turn = (round_ + 180) % 360 - 180
    names = (
        ("from port", 0),
        ("from port ahead", 45),
        ("from ahead", 90),
        ("from starboard ahead", 135),
        ("from starboard", 180),
        ("from starboard behind", -135),
        ("from behind", -90),
        ("from port behind", -45),
        ("from starboard", -180),
    )
    if up >= _STRAIGHT:
        return "from above"
    if up <= -_STRAIGHT:
        return "from beneath"
    words = min(names, key=lambda one: abs(one[1] - turn))[0]
    side = f"{up:.0f}° up" if up >= 0 else f"{-up:.0f}° down"
    return f"{words}, {turn:.0f}° round, {side}"


_STRAIGHT: Final = 89.0
