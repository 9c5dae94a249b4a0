"""A frame on its board in words: what is wrong with it, how to move each former, what was held where."""

import math
from collections.abc import Collection, Sequence
from typing import TYPE_CHECKING, Final

from hardkeel.base.units import LengthUnit, decimal, format_angle, format_length, shortest
from hardkeel.fuselage.board_places import place_of_board
from hardkeel.messages.counting import number_of
from hardkeel.survey.checking import Check
from hardkeel.survey.readings import (
    ANGULAR,
    AngleAt,
    Distance,
    DistanceDifference,
    Gap,
    Height,
    Incidence,
    Offset,
    Reading,
    Sight,
    Tilt,
)

if TYPE_CHECKING:
    from hardkeel.fuselage.curing import Cure, JudgedFrame, Move
    from hardkeel.fuselage.shaping import Named, Shape
    from hardkeel.fuselage.squaring import Movement, Squared
    from hardkeel.survey.outliers import Outlier

SQUARE: Final = "Square"
FRAME_CHECKS: Final = "Square?"
NO_BOARD: Final = "There is no board to measure from yet."
SET_A_BOARD: Final = "Set it on a board"
SET_A_BOARD_WHY: Final = "The formers then stand on spacers, the lowest 25 mm over the board, and are squared from its centre line."
LEVEL_FIRST: Final = "Level the board both ways first: a level across it, then along it."
TAKE_NEXT: Final = "Take next"
TAKE_AGAIN: Final = "Take it again"
TURN: Final = "Click one mark or two in a drawing, or a row of the list, to take that instead; Enter takes the value."
ALL_KNOWN: Final = "All of it is known."
AS_FAR: Final = "Known as far as these tools go."
FINER_MM: Final = 0.2  # a steel rule under a loupe, or a caliper
MOVES: Final = "Move"
NOTHING_TO_MOVE: Final = "Nothing that was read is to be moved."
AFTER_THE_CURE: Final = "Then, once the whole is right:"
AS_FINE_AS_A_HAND_MM: Final = 0.3
FROM_ABOVE: Final = "from above, as it stands on the board"
FROM_THE_SIDE: Final = "from the side"
FROM_BEHIND: Final = "from behind"
SHEET: Final = "readings of the frame"
SHEET_HOW: Final = "Level the board both ways first. Take what you can reach, in any order; a blank does no harm, a diagonal without its twin does little good."
SHEET_HEADS: Final = ("reading", "if square", "dry", "cured")
MOST_MM: Final = 8.0
_HALF_WAY: Final = 0.5
_RUN: Final = 2  # formers in a row that are told one by one
_MARKS: Final = {
    "tp": "top port", "ts": "top starboard", "bp": "bottom port", "bs": "bottom starboard",
    "tc": "top middle", "bc": "bottom middle",
}  # fmt: skip
_KINDS: Final = {
    "dy": "off the line",
    "roll": "level",
    "lean": "lean",
    "yaw": "square in plan",
    "rack": "square in itself",
}


def mark_words(mark: str) -> str:
    """``F3.tp`` as ``F3 top port``, ``board.F3`` as ``the board at F3``."""
    place = place_of_board(mark)
    if place is not None:
        x, y = (shortest(one).replace("-", "−") for one in place)
        return f"the board at x {x}, y {y}"
    body, _, corner = mark.rpartition(".")
    if body == "board":
        return f"the board at {corner}"
    return f"{body} {_MARKS.get(corner, corner)}"


def reading_words(reading: Reading | Sight) -> str:  # noqa: PLR0911  one for each kind
    """One line that says what is held where."""
    match reading:
        case Sight():
            return f"the target on {mark_words(reading.mark)} in {reading.photo}"
        case Distance():
            return f"{mark_words(reading.from_)} to {mark_words(reading.to)}"
        case DistanceDifference():
            return f"{mark_words(reading.from_)} to {mark_words(reading.to[0])} less {mark_words(reading.to[1])}"
        case Height():
            return f"height of {mark_words(reading.mark)}"
        case Tilt():
            return f"level across {mark_words(reading.from_)} to {mark_words(reading.to)}"
        case Offset():
            return f"{mark_words(reading.mark)} off the centre line"
        case AngleAt():
            return f"square in {mark_words(reading.at)}"
        case Incidence():
            return f"lean of {reading.body}"
        case Gap():
            along = {"x": "aft of", "y": "beside", "z": "over"}[reading.axis]
            return f"{mark_words(reading.to)} {along} {mark_words(reading.from_)}"


def value_words(reading: Reading, unit: LengthUnit) -> str:
    """Its value with its unit."""
    if reading.kind in ANGULAR:
        return format_angle(reading.value)
    return format_length(reading.value, unit)


def off_words(reading: Reading, residual: float, unit: LengthUnit) -> str:
    """How far it is off what the others want."""
    text = format_angle(residual) if reading.kind in ANGULAR else format_length(residual, unit)
    return f"+{text}" if residual > 0 else text


def check_title(check: Check) -> str:
    """``F3 lean``."""
    return f"{check.body} {_KINDS[check.kind]}"


def check_value(check: Check, unit: LengthUnit) -> str:
    """The value, or what it may be off where that is all there is to say."""

    def told(value: float) -> str:
        return format_length(value, unit) if check.unit == "mm" else format_angle(value)

    return f"±{told(2 * check.sigma)}" if check.sigma > check.tolerance else told(check.value)


def check_sentence(check: Check, unit: LengthUnit) -> str:
    """A check in a sentence, with its doubt."""
    way = _way(check.kind, check.value)
    amount = (
        format_length(abs(check.value), unit)
        if check.unit == "mm"
        else format_angle(abs(check.value))
    )
    doubt = (
        format_length(2 * check.sigma, unit)
        if check.unit == "mm"
        else format_angle(2 * check.sigma)
    )
    if check.verdict == "unsure" and check.sigma > check.tolerance:
        return f"{check_title(check)} is not known yet: it may be off by {doubt}."
    return f"{check.body} {way} {amount} ± {doubt}."


def _way(kind: str, value: float) -> str:
    plus, minus = {
        "dy": ("stands to starboard by", "stands to port by"),
        "roll": ("stands starboard side up by", "stands port side up by"),
        "lean": ("leans aft at the top by", "leans ahead at the top by"),
        "yaw": ("stands starboard side ahead by", "stands port side ahead by"),
        "rack": ("is pushed to starboard at the top by", "is pushed to port at the top by"),
    }[kind]
    return plus if value >= 0 else minus


# -- the whole frame --------------------------------------------------------------------------------


def frame_answer(named: "Named") -> str:
    """What the frame is, in a few words."""
    return {
        "true": "Square and straight.",
        "twisted": "Twisted.",
        "bowed": "Bowed.",
        "racked": "Racked.",
        "leaning": "Leaning.",
        "lozenge": "A lozenge.",
        "askew": "Straight, but askew on the board.",
        "one-former": f"{named.former} is off.",
        "unsure": "Not known yet.",
    }[named.name]


def frame_sentence(named: "Named", shape: "Shape", squared: "Squared", unit: LengthUnit) -> str:
    """Its size and how sure that is."""
    length = (
        float(squared.stations[-1] - squared.stations[0]) / 1000 if len(squared.stations) else 0.0
    )
    match named.name:
        case "twisted":
            turn, doubt = shape.twist * length, 2 * shape.sigma["twist"] * length
            side = "starboard" if turn > 0 else "port"
            return (
                f"From nose to tail it turns {format_angle(abs(turn))} ± {format_angle(doubt)}: "
                f"the tail has its {side} side up."
            )
        case "bowed":
            side = "starboard" if shape.bow > 0 else "port"
            return (
                f"In the middle it stands {format_length(abs(shape.bow), unit)} ± "
                f"{format_length(2 * shape.sigma['bow'], unit)} to {side}."
            )
        case "racked":
            side = "starboard" if shape.yaw > 0 else "port"
            return (
                f"Every former stands {side} side ahead, by {format_angle(abs(shape.yaw))} ± "
                f"{format_angle(2 * shape.sigma['yaw'])}."
            )
        case "leaning":
            way = "aft" if shape.lean > 0 else "ahead"
            return (
                f"Every former leans {way} at the top, by {format_angle(abs(shape.lean))} ± "
                f"{format_angle(2 * shape.sigma['lean'])}."
            )
        case "one-former":
            return others_words(squared, {named.former or ""})
        case "unsure":
            return f"The readings do not bear a name yet. {others_words(squared, set())}".strip()
        case _:
            return _SAID[named.name]


_SAID: Final = {
    "lozenge": "The formers are pushed out of square in themselves: the diagonals of their openings differ.",
    "askew": "It is straight, but turned or tipped as a whole: turn or level it so, before a single former is moved.",
    "true": "What is left is inside the tolerance.",
}


def others_words(squared: "Squared", without: Collection[str]) -> str:
    """What is known of each former: off, true, at the limit, not decided, not read; nothing that was not read is true."""
    groups: dict[str, list[str]] = {}
    for name in squared.formers:
        if name not in without:
            groups.setdefault(_state_of(squared, name), []).append(name)
    told = [
        f"{_listed(groups[state], squared.formers)} {words[len(groups[state]) > 1]}"
        for state, words in _STANDING.items()
        if state in groups
    ]
    return "; ".join(told) + "." if told else ""


def _state_of(squared: "Squared", former: str) -> str:
    mine = squared.checks_on(former)
    if any(check.verdict == "out" for check in mine):
        return "out"
    if former not in squared.read_on:
        return "unread"
    if any(check.verdict == "unsure" and not check.edge for check in mine):
        return "open"
    return "edge" if any(check.edge for check in mine) else "true"


_STANDING: Final = {
    "out": ("is off", "are off"),
    "true": ("stands true", "stand true"),
    "edge": ("is known, at the limit", "are known, at the limit"),
    "open": ("is not decided yet", "are not decided yet"),
    "unread": ("is not read yet", "are not read yet"),
}


def _listed(names: Sequence[str], order: Sequence[str]) -> str:
    """``F1 to F3, F5``."""
    at = [order.index(name) for name in names]
    runs: list[list[int]] = []
    for i in at:
        if runs and i == runs[-1][-1] + 1:
            runs[-1].append(i)
        else:
            runs.append([i])
    told = [
        f"{order[run[0]]} to {order[run[-1]]}"
        if len(run) > _RUN
        else ", ".join(order[i] for i in run)
        for run in runs
    ]
    return ", ".join(told)


def cure_words(cure: "Cure | None", squared: "Squared", unit: LengthUnit) -> list[str]:
    """The cure of the whole in one order, and how to hold it; nothing without one."""
    if cure is None:
        return []
    first, last = squared.formers[0], squared.formers[-1]
    match cure.name:
        case "twisted":
            turn = cure.of(last, "roll") - cure.of(first, "roll")
            side = "starboard" if turn > 0 else "port"
            width = _width_at(squared, last)
            lift = format_length(abs(math.radians(turn)) * width, unit)
            return [
                f"Twist the whole box back before the glue sets: {last} {side} side up {lift} against {first}, {format_angle(abs(turn))} in all.",
                f"Hold it so: {first} flat on the board under weight, {lift} packed under the {side} side of {last}, weight on its other side; then read it again.",
            ]
        case "bowed":
            middle = min(squared.formers, key=lambda one: abs(_place(squared, one) - _HALF_WAY))
            push = cure.of(middle, "dy")
            side = "starboard" if push > 0 else "port"
            amount = format_length(abs(push), unit)
            return [
                f"Push the middle of the box back before the glue sets: {middle} {amount} to {side}.",
                f"Hold it so: {first} and {last} pinned on the line, blocks against both sides at {middle}.",
            ]
        case "racked":
            turn = cure.of(first, "yaw")
            side, other = ("starboard", "port") if turn > 0 else ("port", "starboard")
            run = format_length(abs(math.radians(turn)) * _width_at(squared, first), unit)
            return [
                f"Push the whole {side} side ahead by {run} against the {other} side before the glue sets.",
                "Hold it so: a line from corner to corner over the longer diagonals, until both are alike.",
            ]
        case _:
            lean = cure.of(first, "lean")
            way = "aft" if lean > 0 else "ahead"
            return [
                f"Push all tops {way} together, by {format_angle(abs(lean))}, before the glue sets.",
                f"Hold it so: a square at {first} and at {last}.",
            ]


def _width_at(squared: "Squared", former: str) -> float:
    ends = [
        mark.at[1]
        for mark in squared.net.survey.marks
        if mark.id in (f"{former}.bp", f"{former}.bs")
    ]
    return abs(ends[0] - ends[1])


def _place(squared: "Squared", former: str) -> float:
    x = squared.stations
    at = squared.formers.index(former)
    return float((x[at] - x[0]) / max(x[-1] - x[0], 1e-9))


def what_to_do(judged: "JudgedFrame", unit: LengthUnit) -> list[str]:
    """The cure of the whole, then each former that is out; else that nothing is to be moved."""
    told = cure_words(judged.cure, judged.squared, unit)
    then = moves_of(judged.moves, unit)
    if told and then:
        told.append(AFTER_THE_CURE)
    return [*told, *then] or [NOTHING_TO_MOVE]


def moves_of(moves: Sequence["Move"], unit: LengthUnit) -> list[str]:
    """For each former what to do with its top and its foot: ``F4: top 0.8 mm aft, foot stays.``."""
    told, fine = [], []
    for former in dict.fromkeys(move.former for move in moves):
        mine = {move.point.rpartition(".")[2]: move for move in moves if move.former == former}
        furthest = max(max(abs(one.dx), abs(one.dy), abs(one.dz)) for one in mine.values())
        if furthest > MOST_MM:
            far = format_length(furthest, unit)
            told.append(f"{former}: {far} is more than any former is off; measure it again first.")
            continue
        said = _former_move(mine, unit)
        if said:
            told.append(f"{former}: {said}")
        else:
            fine.append(former)
    if fine:
        told.append(
            f"{', '.join(fine)}: finer than a hand; leave {'it' if len(fine) == 1 else 'them'}."
        )
    return told


def _former_move(corners: dict[str, "Move"], unit: LengthUnit) -> str:
    parts = []
    for word, port, starboard in (("top", "tp", "ts"), ("foot", "bp", "bs")):
        p, s = corners[port], corners[starboard]
        ways = [
            _moved((p.dx + s.dx) / 2, ("aft", "ahead"), unit),
            _moved((p.dy + s.dy) / 2, ("to starboard", "to port"), unit),
        ]
        said = " and ".join(way for way in ways if way)
        parts.append(f"{word} {said}" if said else f"{word} stays")
    lift = (corners["bs"].dz - corners["bp"].dz) / 2
    turn = (corners["bs"].dx - corners["bp"].dx) / 2
    if abs(lift) >= AS_FINE_AS_A_HAND_MM:
        side, other = ("starboard", "port") if lift > 0 else ("port", "starboard")
        amount = format_length(abs(lift), unit)
        parts.append(f"{side} side up {amount}, {other} side down as much")
    if abs(turn) >= AS_FINE_AS_A_HAND_MM:
        side = "starboard" if turn > 0 else "port"
        parts.append(f"{side} side {format_length(abs(turn), unit)} aft, the other ahead")
    if all(part.endswith("stays") for part in parts):
        return ""
    return ", ".join(parts) + "."


def _moved(mm: float, ways: tuple[str, str], unit: LengthUnit) -> str:
    if abs(mm) < AS_FINE_AS_A_HAND_MM:
        return ""
    return f"{format_length(abs(mm), unit)} {ways[0] if mm > 0 else ways[1]}"


def doubt_sentence(squared: "Squared", suspect: "Outlier", unit: LengthUnit) -> str:
    """Which reading does not fit, by how much, and which others it might be instead."""
    by_id: dict[str, Reading | Sight] = {
        reading.id: reading for reading in (*squared.readings, *squared.sightings)
    }
    if suspect.alike:
        named = [by_id[one] for one in (suspect.reading, *suspect.alike)]
        told = [reading_words(one) for one in named]
        if all(isinstance(one, Sight) for one in named):
            return f"One of these does not fit the rest; does its label lie flat on its corner? {'; '.join(told)}."
        return f"One of these is wrong, take them again: {'; '.join(told)}."
    words = reading_words(by_id[suspect.reading])
    return f"{words[:1].upper()}{words[1:]} does not fit the rest, {_by(squared, suspect, unit)}"


def sighted_words(squared: "Squared") -> str:
    """What photographs of targets add to the readings."""
    used = sum(fit.used for fit in squared.sight_fits)
    photos = len({one.photo for one in squared.sightings})
    return f"{number_of(photos, 'photograph')} of targets: {number_of(len(squared.sightings), 'sighting')}, {used} of them used."


def again_sentence(squared: "Squared", suspect: "Outlier", unit: LengthUnit) -> str:
    """The same under the reading's own name."""
    if suspect.alike:
        return doubt_sentence(squared, suspect, unit)
    return f"It does not fit the rest, {_by(squared, suspect, unit)}"


def _by(squared: "Squared", suspect: "Outlier", unit: LengthUnit) -> str:
    seen = next((one for one in squared.sight_fits if one.id == suspect.reading), None)
    if seen is not None:
        return (
            f"by {decimal(seen.residual or 0.0, 1)} pixels: does its label lie flat on its corner?"
        )
    fit = next(one for one in squared.fits if one.id == suspect.reading)
    reading = next(one for one in squared.readings if one.id == suspect.reading)
    return f"by {off_words(reading, fit.residual, unit)}: take it again."


def squared_lines(judged: "JudgedFrame", unit: LengthUnit) -> list[str]:
    """The frame in a sentence, what to doubt, what to move."""
    squared, named = judged.squared, judged.named
    said = [f"{frame_answer(named)} {frame_sentence(named, judged.shape, squared, unit)}"]
    said += [doubt_sentence(squared, one, unit) for one in squared.outliers]
    return said + what_to_do(judged, unit)


def worth_words(
    sigma_now: float, sigma_after: float, helps: str, *, angular: bool, unit: LengthUnit
) -> str:
    """Why a reading is worth taking."""
    former, _, kind = helps.rpartition("_")

    def told(value: float) -> str:
        return format_angle(value) if angular else format_length(value, unit)

    return f"It settles {former} {_KINDS[kind]}: ± {told(2 * sigma_now)} now, ± {told(2 * sigma_after)} after."


def finer_words(decided: int, open_: int, unit: LengthUnit) -> str:
    """What a better tool would decide, where nothing that can be had sharpens a check by a tenth."""
    if not open_:
        return ""
    finer = format_length(FINER_MM, unit)
    told = f"{open_} {'check stays' if open_ == 1 else 'checks stay'} open: no reading that can be had sharpens {'it' if open_ == 1 else 'one of them'} by a tenth."
    if decided:
        return f"{told} Read to {finer} the same lengths would decide {decided} of them."
    return f"{told} Even read to {finer} the same lengths would not decide them: they lie near the limit."


def taken_edit(reading: Reading) -> str:
    """The step's name for undo."""
    return f"take {reading_words(reading)}"


def struck_edit(reading: Reading) -> str:
    """The step's name for undo."""
    return f"strike out {reading_words(reading)}"


def used_edit(reading: Reading) -> str:
    """The step's name for undo."""
    return f"use {reading_words(reading)} or not"


def taken_count(count: int, doubtful: int) -> str:
    """``34 taken, 1 in doubt``."""
    return f"{count} taken" + (f", {doubtful} in doubt" if doubtful else "")


def movement_words(moved: Sequence["Movement"], before: str, unit: LengthUnit) -> str:
    """What moved most since the phase before, and how many figures more."""
    if not moved:
        return f"nothing has moved beyond doubt since {before}"
    one = moved[0]
    size = abs(one.amount)
    amount = format_length(size, unit) if one.kind == "dy" else format_angle(size)
    more = f", {len(moved) - 1} more figures moved" if len(moved) > 1 else ""
    more = more.replace("1 more figures", "one more figure") if len(moved) == 2 else more  # noqa: PLR2004
    return f"since {before}: {one.former} {_MOVED[one.kind][one.amount < 0]} {amount}{more}"


_MOVED: Final = {
    "dy": ("to starboard", "to port"),
    "roll": ("starboard side up", "port side up"),
    "lean": ("aft at the top", "ahead at the top"),
    "yaw": ("starboard side ahead", "port side ahead"),
    "rack": ("pushed to starboard at the top", "pushed to port at the top"),
}


# -- steps as undo names them -----------------------------------------------------------------------


def tolerance_of_edit(check: str) -> str:
    """``tolerance of …``."""
    return f"tolerance of {check}"


def go_on_edit(phase: str) -> str:
    """``go on …``."""
    return f"go on {phase}"
