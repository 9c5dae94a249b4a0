"""Readings that the builder's instruments could take: generated from marks, bodies and tools."""

import math
from collections.abc import Iterable, Iterator
from functools import lru_cache
from itertools import combinations
from typing import Any, Final

from hardkeel.base.values import Point
from hardkeel.survey.instruments import USED_FOR, apart_mm, sigma_with, within_reach
from hardkeel.survey.model import FUSELAGE, OWN_TARGET, Body, Instrument, Mark, Survey
from hardkeel.survey.priors import Shared
from hardkeel.survey.readings import (
    AngleAt,
    Distance,
    DistanceDifference,
    Height,
    Incidence,
    Offset,
    Reading,
    Tilt,
    place_of,
    sigma_of,
)
from hardkeel.survey.roles import is_panel, role_of

EVERY_TOOL: Final[tuple[Instrument, ...]] = (
    Instrument(id="tape", kind="tape"),
    Instrument(id="line", kind="line"),
    Instrument(id="stand", kind="height-stand"),
    Instrument(id="gauge", kind="incidence-gauge"),
    Instrument(id="level", kind="level"),
    Instrument(id="laser", kind="laser"),
)
_LEAST_TAPE: Final = 30.0  # mm: shorter than this a tape is no use
_FAR_APART_MM: Final = 300.0  # a string or a tape along the fuselage: less says little of it
_SAME: Final = 1.0  # mm: marks this alike are mirror images
_SQUARE: Final = 5.0  # degrees from 90 within which a square is held
_HALF_WAY: Final = 0.5
_PROPOSED: Final = "?"


def candidates_of(survey: Survey) -> tuple[Reading, ...]:
    """Every reading the tools at hand could take; values are left at 0.

    They are made without pydantic's checks: all that goes in is known to be sound, and there are
    hundreds of them.  They depend on bodies, marks and tools alone, which most edits leave as they
    are, so the last few lists are remembered.
    """
    marks = tuple(mark for mark in survey.marks if not mark.id.startswith(OWN_TARGET))
    return _candidates(survey.bodies, marks, tools_of(survey), survey.shared)


def tools_of(survey: Survey) -> tuple[Instrument, ...]:
    """The tools at hand; all but square and eye where the builder has not said."""
    return survey.instruments if survey.instruments is not None else EVERY_TOOL


def kinds_at_hand(survey: Survey) -> frozenset[str] | None:
    """Kinds of reading that the builder's tools take; ``None`` where he has not said which he has."""
    if survey.instruments is None:
        return None
    return frozenset(USED_FOR[tool.kind] for tool in survey.instruments)


@lru_cache(maxsize=8)
def _candidates(
    bodies: tuple[Body, ...],
    marks: tuple[Mark, ...],
    tools: tuple[Instrument, ...],
    shared: Shared | None,
) -> tuple[Reading, ...]:
    survey = Survey.model_construct(bodies=bodies, marks=marks, instruments=tools, shared=shared)
    best: dict[object, Reading] = {}
    kinds_done: set[str] = set()
    for tool in tools:
        if tool.kind in kinds_done:
            continue
        kinds_done.add(tool.kind)
        common: dict[str, Any] = {"id": _PROPOSED, "value": 0.0, "instrument": tool.id}
        for bare in _BY_TOOL[tool.kind](survey, common):
            if not within_reach(survey, tool, bare):
                continue
            reading = counted_with(survey, tool, bare)
            place = place_of(reading)
            held = best.get(place)
            # two tools for one place: the finer is worth the walk to its peg
            if held is None or sigma_of(reading) < sigma_of(held):
                best[place] = reading
    return tuple(best.values())


def counted_with(survey: Survey, tool: Instrument, bare: Reading) -> Reading:
    """A reading with the sigma that this tool gives it."""
    apart = apart_mm(survey, bare.from_, bare.to) if isinstance(bare, Tilt) else None
    sigma = sigma_with(tool, apart)
    return (
        bare if sigma is None or sigma == bare.sigma else bare.model_copy(update={"sigma": sigma})
    )


def is_upright(survey: Survey, body: Body) -> bool:
    """Whether a body is a fin, by its shape: it reaches further up than sideways."""
    points = [mark.at for mark in survey.marks if mark.body == body.id] + list(body.outline)
    if not points:
        return role_of(body) == "fin"
    reach = [max(p[a] for p in points) - min(p[a] for p in points) for a in (1, 2)]
    return reach[1] > reach[0]


def _free(survey: Survey) -> list[Body]:
    return [body for body in survey.bodies if body.id != FUSELAGE]


def _mirror_pairs(survey: Survey) -> Iterator[tuple[Mark, Mark]]:
    """Port and starboard marks that are mirror images, port first: of one body, a V's halves, two fins, two panels."""
    role = {body.id: role_of(body) for body in survey.bodies}
    panels = {body.id for body in survey.bodies if body.id != FUSELAGE and is_panel(body)}
    for port in survey.marks:
        if port.at[1] >= -_SAME:
            continue
        for starboard in survey.marks:
            one = starboard.body == port.body
            pair = role.get(port.body) == role.get(starboard.body) in _IN_PAIRS
            pair |= {port.body, starboard.body} <= panels
            if (one or pair) and _is_mirror(port.at, starboard.at):
                yield port, starboard


_IN_PAIRS: Final = ("vee", "fin")


def _is_mirror(a: Point, b: Point) -> bool:
    return abs(a[0] - b[0]) < _SAME and abs(a[1] + b[1]) < _SAME and abs(a[2] - b[2]) < _SAME


def _distances(survey: Survey, common: dict[str, Any]) -> Iterable[Reading]:
    for a, b in combinations(survey.marks, 2):
        if a.body == b.body:
            continue
        if math.dist(a.at, b.at) > _LEAST_TAPE:
            yield Distance.model_construct(**common, from_=a.id, to=b.id)
    if survey.shared is not None and survey.shared.tape_zero > 0:
        # a length that the drawing tells shows what the hook adds
        for a, b in combinations(_on_centre_line(survey), 2):
            if abs(a.at[0] - b.at[0]) > _FAR_APART_MM:
                yield Distance.model_construct(**common, from_=a.id, to=b.id)


def _on_centre_line(survey: Survey) -> list[Mark]:
    """The fuselage's marks on its centre line, from the nose aft."""
    own = [mark for mark in survey.marks if mark.body == FUSELAGE and abs(mark.at[1]) < _SAME]
    return sorted(own, key=lambda mark: mark.at[0])


def _strings(survey: Survey, common: dict[str, Any]) -> Iterable[Reading]:
    """A string from nose to tail, and how far each middle mark stands beside it."""
    if survey.shared is None or not survey.shared.bend_y > 0:
        return
    pins = _on_centre_line(survey)
    long = (pins[-1].at[0] - pins[0].at[0]) / 2 if pins else 0.0
    middle = [mark for mark in survey.marks if abs(mark.at[1]) < _SAME]
    for a, b in combinations(pins, 2):
        if b.at[0] - a.at[0] <= max(long, _FAR_APART_MM):
            continue
        for mark in middle:
            if mark.id not in (a.id, b.id):
                yield Offset.model_construct(**common, mark=mark.id, along=(a.id, b.id))


def _differences(survey: Survey, common: dict[str, Any]) -> Iterable[Reading]:
    # a line is swung from something that stands up: a pin in the fuselage or a fin's corner
    upright = {body.id for body in _free(survey) if is_upright(survey, body)}
    pins = [m for m in survey.marks if abs(m.at[1]) < _SAME and m.body in upright | {FUSELAGE}]
    for port, starboard in _mirror_pairs(survey):
        for pin in pins:
            if pin.body not in (port.body, starboard.body):
                yield DistanceDifference.model_construct(
                    **common, from_=pin.id, to=(port.id, starboard.id)
                )
    yield from _strings(survey, common)


def _heights(survey: Survey, common: dict[str, Any]) -> Iterable[Reading]:
    return (Height.model_construct(**common, mark=mark.id) for mark in survey.marks)


def _incidences(survey: Survey, common: dict[str, Any]) -> Iterable[Reading]:
    for body in _free(survey):
        if is_upright(survey, body):
            continue
        if body.twist:
            for side in ("port", "starboard"):
                for fraction in (0.1, _HALF_WAY, 0.9):
                    yield Incidence.model_construct(
                        **common, body=body.id, side=side, span_fraction=fraction
                    )
        else:
            yield Incidence.model_construct(
                **common, body=body.id, side="centre", span_fraction=0.0
            )


def _gauge(survey: Survey, common: dict[str, Any]) -> Iterable[Reading]:
    """The gauge on the surfaces, and where its zero may be off on the datum and end for end."""
    for reading in _incidences(survey, common):
        yield reading
        if survey.shared is not None and survey.shared.gauge > 0:
            yield reading.model_copy(update={"turned": True})
    if survey.shared is not None and survey.shared.gauge > 0:
        yield Incidence.model_construct(
            **common, body=FUSELAGE, side="centre", span_fraction=0.0, zero="datum"
        )


def _tilts(survey: Survey, common: dict[str, Any]) -> Iterable[Reading]:
    for port, starboard in _mirror_pairs(survey):
        yield Tilt.model_construct(**common, from_=port.id, to=starboard.id)
        if survey.shared is not None and survey.shared.level > 0:
            yield Tilt.model_construct(**common, from_=port.id, to=starboard.id, turned=True)


def _level(survey: Survey, common: dict[str, Any]) -> Iterable[Reading]:
    yield from _tilts(survey, common)
    yield Incidence.model_construct(
        **common, body=FUSELAGE, side="centre", span_fraction=0.0, zero="level"
    )


def _offsets(survey: Survey, common: dict[str, Any]) -> Iterable[Reading]:
    for mark in survey.marks:
        if mark.body != FUSELAGE and abs(mark.at[1]) < _SAME:
            yield Offset.model_construct(**common, mark=mark.id)
    if survey.shared is not None and survey.shared.bend_y > 0:
        for mark in _on_centre_line(survey)[1:]:
            yield Offset.model_construct(**common, mark=mark.id)


def _angles(survey: Survey, common: dict[str, Any]) -> Iterable[Reading]:
    """A square between an upright body and another: nominally square corners only."""
    upright = {body.id for body in _free(survey) if is_upright(survey, body)}
    tops = [m for m in survey.marks if m.body in upright]
    for top, foot in combinations(tops, 2):
        high, low = (top, foot) if top.at[2] > foot.at[2] else (foot, top)
        for side in survey.marks:
            if side.body in upright or side.body == FUSELAGE:
                continue
            if abs(_corner(high.at, low.at, side.at) - 90) < _SQUARE:
                yield AngleAt.model_construct(**common, at=low.id, from_=high.id, to=side.id)


def _corner(a: Point, apex: Point, b: Point) -> float:
    u = [p - q for p, q in zip(a, apex, strict=True)]
    v = [p - q for p, q in zip(b, apex, strict=True)]
    product = math.hypot(*u) * math.hypot(*v)
    if product == 0:
        return 0.0
    cosine = sum(p * q for p, q in zip(u, v, strict=True)) / product
    return math.degrees(math.acos(max(-1.0, min(1.0, cosine))))


_BY_TOOL: Final = {
    "tape": _distances,
    "line": _differences,
    "trammel": _differences,
    "height-stand": _heights,
    "stand-pair": _tilts,
    "incidence-gauge": _gauge,
    "level": _level,
    "digital-level": _level,
    "water-level": _tilts,
    "square": _angles,
    "laser": _offsets,
    "eye": _tilts,
}
