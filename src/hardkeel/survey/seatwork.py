"""What the hands do at one body's seat, step by step, as ids and millimetres: a correction made ready."""

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations
from typing import Final, Literal

from hardkeel.survey.attribution import BY_PACKING
from hardkeel.survey.checking import Check
from hardkeel.survey.correcting import ContactMove, Correction, Way
from hardkeel.survey.judging import Judgement
from hardkeel.survey.model import PROP, SeatKind, Shop, Survey, contacts_of
from hardkeel.survey.seat_step import Act, SeatStep

WayName = Literal["shims", "sanding"]

_BY_SLIDING: Final = frozenset({"yaw", "offset", "fin_yaw", "fins_toe", "vee_yaw", "stagger"})
# of what a root tells: a panel's or a V half's
_BY_ROOT: Final = frozenset({"incidence", "decalage", "vee_incidence_difference"})
# a seat is seldom out by more: beyond it the readings are to be looked at before the wood is
MOST_MM: Final = 8.0
MOST_DEGREES: Final = 5.0
_LEAST_MM: Final = 0.05  # finer than this nobody sands or shims


@dataclass(frozen=True, slots=True)
class SeatWork:
    """What to do at one body's seat, and how it should then stand.

    Attributes
    ----------
    needed : bool
        Whether a check of this body is out, or lies at the edge and may be corrected or accepted; without
        it nothing should be touched.
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


def seat_work(
    judgement: Judgement, correction: Correction, way: WayName, *, insisted: bool = False
) -> SeatWork:
    """The work at a body whose seat has contacts, with only shims or only sanding.

    Parameters
    ----------
    insisted : bool
        It was measured again because it was more than seats are out by, and came out so again.
    """
    mine = judgement.checks_on(correction.body)
    kind = _kind(judgement, correction)
    far = None if insisted else _too_far(correction, mine, kind)
    if far is not None:
        known = not any(check.verdict == "unsure" for check in mine)
        return SeatWork(correction.body, needed=True, known=known, steps=(far,), after=())
    out = [check for check in mine if check.verdict == "out" or check.edge]
    known = not any(check.verdict == "unsure" for check in mine)
    if out and _is_guessed(judgement, correction.body):
        # a lever that nobody has said tells millimetres that are not so
        place = SeatStep(act="place")
        return SeatWork(correction.body, needed=True, known=known, steps=(place,), after=())
    at_firewall = kind == "firewall"
    chosen = correction.fitted or (
        correction.only_shims if way == "shims" or at_firewall else correction.only_sanding
    )
    # a foot that lies along one line leans as its top is held: nothing under it turns it over
    leans = (
        [check for check in out if check.kind == "fin_lean_to_stab"]
        if _in_line(judgement, correction)
        else []
    )
    packed = {check.id for check in out if check.kind in BY_PACKING and check not in leans}
    slid = any(check.kind in _BY_SLIDING for check in out)
    steps: list[SeatStep] = []
    if correction.fitted is not None and (packed or slid):
        steps += _fitting(judgement, correction, packed=bool(packed), slid=slid)
    else:
        if packed:
            steps += _packing(chosen, "behind" if at_firewall else "pack")
        if slid:
            steps += _sliding(judgement, correction)
    if any(check.kind == "twist_difference" for check in out):
        steps.append(SeatStep(act="untwist"))
    steps += [_stood_up(judgement, check) for check in leans]
    if out and not steps:
        steps.append(SeatStep(act="leave"))
    after = tuple(check for check in chosen.checks if check.id in packed)
    return SeatWork(correction.body, bool(out), known, tuple(steps), after)


def _too_far(correction: Correction, mine: Iterable[Check], kind: SeatKind) -> SeatStep | None:
    """A correction that no seat was ever built for: its readings are looked at again first."""
    out = [check for check in mine if check.verdict == "out"]
    # packed from behind alone: how an engine stands up and across no reading at its shaft can tell
    furthest = max((max(map(abs, _felt_of(m, kind))) for m in correction.moves), default=0.0)
    if kind == "struts":  # far out on the wing a small turn is much: what all of them rise counts
        rises = [move.lift for move in correction.moves]
        furthest = max(furthest, abs(sum(rises) / len(rises)))
    turned = any(check.unit == "deg" and abs(check.error) > MOST_DEGREES for check in out)
    if out and (furthest > MOST_MM or turned):
        return SeatStep(act="again", mm=furthest)
    return None


def _is_guessed(judgement: Judgement, body_id: str) -> bool:
    """Whether where a body is held is only where such things usually are."""
    body = judgement.net.survey.body(body_id)
    laid = body.seat.laid if body is not None and body.seat is not None else None
    return laid is not None and not laid.said


def _in_line(judgement: Judgement, correction: Correction) -> bool:
    """Whether the contacts of a seat lie on one line, as along a fin's foot."""
    body = judgement.net.survey.body(correction.body)
    ys = [contact.at[1] for contact in contacts_of(body)] if body is not None else []
    return bool(ys) and max(ys) - min(ys) < _LEAST_MM


def _stood_up(judgement: Judgement, check: Check) -> SeatStep:
    """How far a fin's top goes to a side: a lean is a turn about its foot, top to port where it is positive."""
    body = judgement.net.survey.body(check.body)
    tall = (body.span or 0.0) if body is not None else 0.0
    return SeatStep(act="upright", starboard=tall * math.sin(math.radians(check.error)))


def _felt_of(move: ContactMove, kind: SeatKind) -> tuple[float, ...]:
    """How far a contact must move, as far as that tells whether a seat can be so far out."""
    if move.contact == PROP:  # a prop far out: a small turn is much there
        return (0.0,)
    if kind == "struts":
        return (move.slide_x, move.slide_y)
    return (move.slide_x,) if kind == "firewall" else (move.lift, move.slide_x, move.slide_y)


def _kind(judgement: Judgement, correction: Correction) -> SeatKind:
    body = judgement.net.survey.body(correction.body)
    return body.seat.kind if body is not None and body.seat is not None else "saddle"


def _packing(way: Way, act: Act) -> list[SeatStep]:
    """Packing and sanding, contacts of one amount together, the most first."""
    groups: dict[float, list[str]] = {}
    for contact, mm in way.moves:
        if abs(mm) >= _LEAST_MM:
            groups.setdefault(round(mm, 3), []).append(contact)
    return [
        SeatStep(act=act if mm > 0 else "sand", contacts=tuple(contacts), mm=abs(mm))
        for mm, contacts in sorted(groups.items(), key=lambda group: -abs(group[0]))
    ]


def _fitting(
    judgement: Judgement, correction: Correction, *, packed: bool, slid: bool
) -> Iterable[SeatStep]:
    """What a slot, a hole, struts or a cabane can do, contact by contact."""
    survey = judgement.net.survey
    shop = survey.shop or Shop()
    kind = _kind(judgement, correction)
    if kind == "struts" and all(move.strut is None for move in correction.moves):
        # a lever that nobody has said tells millimetres that are not so
        yield SeatStep(act="place")
        return
    rounded = dict(correction.fitted.moves) if correction.fitted is not None else {}
    if any(move.contact == PROP for move in correction.moves):
        yield from _at_root_and_tip(judgement, correction, rounded, packed=packed, slid=slid)
        return
    for move in correction.moves:
        up = rounded.get(move.contact, 0.0) if packed else 0.0
        yield from _at_contact(kind, move, up, shop, slid=slid)
    if slid and kind == "tube":
        yield from _shifted(sum(one.slide_y for one in correction.moves) / len(correction.moves))
    elif slid and kind in ("cabane", "struts"):
        # a strut's length hardly tells fore and aft: what it holds is moved along and across
        yield from _sliding(judgement, correction)


def _at_root_and_tip(
    judgement: Judgement,
    correction: Correction,
    rounded: Mapping[str, float],
    *,
    packed: bool,
    slid: bool,
) -> Iterable[SeatStep]:
    """A V's half, or a panel that comes off: its tip's prop says how steep it stands, its root the rest.

    The root is touched only where what it tells is out: of a steepness it knows nothing.
    """
    survey, kind = judgement.net.survey, _kind(judgement, correction)
    shop = survey.shop or Shop()
    out = {
        one.kind for one in judgement.checks_on(correction.body) if one.verdict == "out" or one.edge
    }
    roots = [move for move in correction.moves if move.contact != PROP]
    turned = packed and bool(out & _BY_ROOT)
    over = 0.0 if turned else sum(rounded.get(one.contact, 0.0) for one in roots) / len(roots)
    tip = _stepped(rounded.get(PROP, 0.0) - over, shop.shim_step) if packed else 0.0
    for move in roots if turned else []:
        up = rounded.get(move.contact, 0.0)
        if up and kind == "tube":
            yield from _at_contact(kind, move, up, shop, slid=False)
        elif up:
            act: Act = "pack" if up > 0 else "sand"
            yield SeatStep(act=act, contacts=(move.contact,), mm=abs(up))
    if tip:
        yield SeatStep(act="prop", contacts=(PROP,), up=tip)
    if slid and kind == "tube":
        yield from _at_root_ribs(survey, correction.body, roots)
    elif slid:
        yield from _sliding(judgement, correction)


def _at_root_ribs(survey: Survey, body_id: str, roots: Sequence[ContactMove]) -> Iterable[SeatStep]:
    """How a panel is squared to the wing: along its joiner as far as both ends agree, the rest at its root rib."""
    body = survey.body(body_id)
    outward = 1.0 if body is not None and body.origin[1] > 0 else -1.0
    off = [move.slide_y * outward for move in roots]
    alike = min(off, key=abs) if min(off) * max(off) > 0 else 0.0
    yield from _shifted(alike * outward)
    for move, one in zip(roots, off, strict=True):
        if _felt(one - alike):
            yield SeatStep(act="rib", contacts=(move.contact,), up=one - alike)


def _at_contact(
    kind: SeatKind, move: ContactMove, up: float, shop: Shop, *, slid: bool
) -> Iterable[SeatStep]:
    """What is done at one contact of a slot, a tube, struts or a cabane."""
    at = (move.contact,)
    aft = _stepped(move.slide_x, shop.stroke) if slid else 0.0
    match kind:
        case "slot" | "tube":
            act: Act = "edge" if kind == "slot" else "hole"
            across = _stepped(move.slide_y, shop.stroke) if slid and kind == "slot" else 0.0
            farthest = max(abs(up), abs(aft), abs(across))
            if farthest:
                strokes = round(farthest / shop.stroke)
                yield SeatStep(act=act, contacts=at, up=up, aft=aft, starboard=across, count=strokes)  # fmt: skip
        case "struts" if move.strut is not None:
            change = _stepped(move.strut[1] - move.strut[0], shop.shim_step)
            if change:
                yield SeatStep(act="strut", contacts=at, up=change, length=move.strut[1])
        case "cabane" if up:
            count = round(up / shop.washer)
            yield SeatStep(act="washers", contacts=at, mm=abs(up), count=count)


def _shifted(starboard: float) -> Iterable[SeatStep]:
    """What sits on a tube goes along it as a whole."""
    if _felt(starboard):
        yield SeatStep(act="along", starboard=starboard)


def _stepped(mm: float, step: float) -> float:
    """To the builder's nearest step."""
    steps = round(mm / step)
    return steps * step if steps else 0.0


def _sliding(judgement: Judgement, correction: Correction) -> Iterable[SeatStep]:
    """The two contacts that lie furthest apart: a hand's error swings the body least over the longest base.

    One of them that need not move is held where it is.
    """
    body = judgement.net.survey.body(correction.body)
    at = {contact.id: contact.at for contact in contacts_of(body)} if body is not None else {}
    moves = correction.moves
    if not any(_felt(move.slide_x) + _felt(move.slide_y) for move in moves):
        return []
    pair = max(
        combinations(moves, 2) if len(moves) > 1 else [moves],
        key=lambda two: math.dist(at[two[0].contact][:2], at[two[-1].contact][:2]),
    )
    return [
        SeatStep(
            act="slide" if _felt(move.slide_x) + _felt(move.slide_y) else "hold",
            contacts=(move.contact,),
            aft=move.slide_x if _felt(move.slide_x) else 0.0,
            starboard=move.slide_y if _felt(move.slide_y) else 0.0,
        )
        for move in pair
    ]


def _felt(mm: float) -> float:
    return abs(mm) if abs(mm) >= _LEAST_MM else 0.0
