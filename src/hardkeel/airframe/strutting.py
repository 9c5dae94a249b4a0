"""Struts under a wing: from where they meet it to the contacts of its seat."""

import math
from typing import Final

from hardkeel.airframe.shapes import Surface
from hardkeel.survey.model import Body, Contact, Seat, Struts

_OUT: Final = 0.7  # of the half span: where the struts of a biplane usually stand
_INBOARD: Final = 0.35  # of the half span, for struts that come up from the fuselage


def strutted(body: Body, wing: Surface, struts: Struts) -> Body:
    """A body whose seat's contacts are where its struts meet the wing, each with its foot."""
    contacts = tuple(
        Contact(
            id=f"{place}_{side}",
            at=wing.point(sign * struts.out, share),
            foot=(wing.point(sign * struts.out, share)[0], sign * struts.foot_out, struts.foot_z),
        )
        for place, share in (("front", struts.front), ("rear", struts.rear))
        for side, sign in (("port", -1.0), ("starboard", 1.0))
    )
    seat = body.seat or Seat()
    return body.but(seat=seat.but(contacts=contacts, kind="struts", struts=struts))


def usual_struts(wing: Surface, under: Surface | None, half_width: float, foot_z: float) -> Struts:
    """Where struts of such a wing usually stand: on the wing under it, else on the fuselage's sides."""
    half = wing.span / 2
    if under is None:
        out = round(_INBOARD * half, 1)
        return Struts(out=out, foot_out=round(half_width, 1), foot_z=round(foot_z, 1))
    out = round(_OUT * min(half, under.span / 2), 1)
    foot = under.point(out, 0.4)
    return Struts(out=out, foot_out=out, foot_z=round(foot[2], 1))


def strut_length(contact: Contact) -> float | None:
    """From hole to hole, mm; ``None`` where its foot is not known."""
    return math.dist(contact.at, contact.foot) if contact.foot is not None else None
