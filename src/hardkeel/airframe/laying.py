"""Bolts, tube and pin, legs or corners under a surface: from where it is held to the contacts of its seat."""

from typing import Final

from hardkeel.airframe.shapes import Surface
from hardkeel.survey.model import Body, Contact, Laid, Seat, SeatKind

# of the chord, front and rear, by experience; what is packed and sanded all along rests at its corners
_USUAL: Final[dict[SeatKind, tuple[float, float]]] = {
    "bolts": (0.05, 0.85),  # dowels ahead, bolts aft
    "tube": (0.30, 0.75),  # the tube at the thickest place, the pin well aft of it
    "cabane": (0.20, 0.70),
}
# where a default would be a guess at a lever: it is asked
ASKED: Final = frozenset(_USUAL)


def usual_laid(kind: SeatKind, surface: Surface) -> Laid:
    """Where such a seat usually holds a surface: as wide as the fuselage."""
    front, rear = _USUAL.get(kind, (0.0, 1.0))
    return Laid(out=surface.seat_width / 2, front=front, rear=rear)


def laid_on(body: Body, surface: Surface, laid: Laid) -> Body:
    """A body whose seat's contacts are where it is held."""
    contacts = tuple(
        Contact(id=f"{place}_{side}", at=surface.point(sign * laid.out, share))
        for place, share in (("front", laid.front), ("rear", laid.rear))
        for side, sign in (("port", -1.0), ("starboard", 1.0))
    )
    seat = body.seat or Seat()
    return body.but(seat=seat.but(contacts=contacts, laid=laid))
