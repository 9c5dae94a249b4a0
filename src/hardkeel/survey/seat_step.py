"""One thing that the hands do at a seat, as a log keeps it."""

from typing import Annotated, Literal

from pydantic import Field

from hardkeel.base.values import Finite, Text, Value

Act = Literal[
    "pack",
    "sand",
    "slide",
    "untwist",
    "hold",
    "again",
    "leave",
    "edge",
    "hole",
    "strut",
    "washers",
    "behind",
    "place",
    "upright",
    "prop",
    "along",
    "rib",
]


class SeatStep(Value):
    """One thing to do at a seat; a log keeps it as it is.

    Attributes
    ----------
    act : str
        ``pack`` under or ``sand`` off the contacts; ``slide`` them, or ``hold`` one where it is while the other
        slides; measure ``again`` before anything is touched; ``untwist`` the panel; ``leave``:
        what is left is finer than hands can do.  Open the ``edge`` of a slot and pack the one across;
        open a ``hole`` and fill it behind; make a ``strut`` longer or shorter; put or take ``washers``;
        pack ``behind`` an engine's bolts; stand a fin ``upright`` by its top; set a ``prop`` higher or
        lower; shift it ``along`` its tube; pack or sand a panel's root ``rib``; ``place``: say first where the struts
        meet, for what to do hangs on that.
    contacts : tuple of str
        Ids of the seat's contacts that it is done at.
    mm : float
        How much to pack or sand.
    aft, starboard : float
        How far to slide, mm; negative is forward, to port.
    up : float
        How far the contact must rise, or a root rib go outward, mm; negative is down, or off the rib.
    count : int
        Strokes of a file, or washers; negative washers are taken out.
    length : float
        What a strut must measure, mm.
    """

    act: Act
    contacts: tuple[Text, ...] = ()
    mm: Annotated[Finite, Field(ge=0)] = 0.0
    aft: Finite = 0.0
    starboard: Finite = 0.0
    up: Finite = 0.0
    count: int = 0
    length: Annotated[Finite, Field(ge=0)] = 0.0
