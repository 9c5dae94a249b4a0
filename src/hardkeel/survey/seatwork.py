"""What the hands do at one body's seat, step by step, as ids and millimetres: a correction made ready."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Annotated, Final, Literal

from pydantic import Field

from hardkeel.base.values import Finite, Text, Value
from hardkeel.survey.blaming import BY_PACKING
from hardkeel.survey.checking import Check
from hardkeel.survey.correcting import Correction, Way
from hardkeel.survey.judging import Judgement

WayName = Literal["shims", "sanding"]
Act = Literal["pack", "sand", "slide", "untwist", "leave"]

_BY_SLIDING: Final = frozenset({"yaw", "offset", "fin_yaw"})
_LEAST_MM: Final = 0.05  # finer than this nobody sands or shims
_TWO_WILL_DO: Final = 2  # contacts to slide: enough to swing or shift a body


class SeatStep(Value):
    """One thing to do at a seat; a log keeps it as it is.

    Attributes
    ----------
    act : str
        ``pack`` under or ``sand`` off the contacts; ``slide`` them; ``untwist`` the panel; ``leave``:
        what is left is finer than hands can do.
    contacts : tuple of str
        Ids of the seat's contacts that it is done at.
    mm : float
        How much to pack or sand.
    aft, starboard : float
        How far to slide, mm; negative is forward, to port.
    """

    act: Act
    contacts: tuple[Text, ...] = ()
    mm: Annotated[Finite, Field(ge=0)] = 0.0
    aft: Finite = 0.0
    starboard: Finite = 0.0


@dataclass(frozen=True, slots=True)
class SeatWork:
    """What to do at one body's seat, and how it should then stand.

    Attributes
    ----------
    needed : bool
        Whether a check of this body is out; without it nothing should be touched.
    known : bool
        Whether all checks of this body are decided.
    after : tuple of Check
        Those that packing changes and that are out now, as they should be afterwards.
    """

    body: str
    needed: bool
    known: bool
    steps: tuple[SeatStep, ...]
    after: tuple[Check, ...]


def seat_work(judgement: Judgement, correction: Correction, way: WayName) -> SeatWork:
    """The work at a body whose seat has contacts, with only shims or only sanding."""
    mine = judgement.checks_on(correction.body)
    out = [check for check in mine if check.verdict == "out"]
    known = not any(check.verdict == "unsure" for check in mine)
    chosen = correction.only_shims if way == "shims" else correction.only_sanding
    packed = {check.id for check in out if check.kind in BY_PACKING}
    steps: list[SeatStep] = []
    if packed:
        steps += _packing(chosen)
    if any(check.kind in _BY_SLIDING for check in out):
        steps += _sliding(correction)
    if any(check.kind == "twist_difference" for check in out):
        steps.append(SeatStep(act="untwist"))
    if out and not steps:
        steps.append(SeatStep(act="leave"))
    after = tuple(check for check in chosen.checks if check.id in packed)
    return SeatWork(correction.body, bool(out), known, tuple(steps), after)


def _packing(way: Way) -> list[SeatStep]:
    """Packing and sanding, contacts of one amount together, the most first."""
    groups: dict[float, list[str]] = {}
    for contact, mm in way.moves:
        if abs(mm) >= _LEAST_MM:
            groups.setdefault(round(mm, 3), []).append(contact)
    return [
        SeatStep(act="pack" if mm > 0 else "sand", contacts=tuple(contacts), mm=abs(mm))
        for mm, contacts in sorted(groups.items(), key=lambda group: -abs(group[0]))
    ]


def _sliding(correction: Correction) -> Iterable[SeatStep]:
    """The contacts that must go furthest."""
    reach = {move.contact: _felt(move.slide_x) + _felt(move.slide_y) for move in correction.moves}
    far = sorted(
        (move for move in correction.moves if reach[move.contact]),
        key=lambda move: -(abs(move.slide_x) + abs(move.slide_y)),
    )
    return [
        SeatStep(
            act="slide",
            contacts=(move.contact,),
            aft=move.slide_x if _felt(move.slide_x) else 0.0,
            starboard=move.slide_y if _felt(move.slide_y) else 0.0,
        )
        for move in far[:_TWO_WILL_DO]
    ]


def _felt(mm: float) -> float:
    return abs(mm) if abs(mm) >= _LEAST_MM else 0.0
