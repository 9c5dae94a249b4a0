"""Which readings of a frame are there to take, and which is worth most."""

from collections.abc import Iterator
from functools import lru_cache
from itertools import pairwise
from typing import Any, Final

import numpy as np

from hardkeel.fuselage.squaring import BOARD, CHECKED, CORNERS, Squared
from hardkeel.survey.checking import CheckRule
from hardkeel.survey.model import (
    AngleAt,
    Distance,
    Gap,
    Height,
    Incidence,
    Offset,
    Reading,
    Tilt,
    marks_of,
    place_of,
)
from hardkeel.survey.pooling import offers_of, pool_of
from hardkeel.survey.ranking import NextReading, rank, undecided

_AT: Final[dict[str, Any]] = {"id": "?", "value": 0.0}


@lru_cache(maxsize=8)
def readings_at_hand(names: tuple[str, ...]) -> tuple[Reading, ...]:
    """Everything that is read on a frame: former by former, then bay by bay."""
    return tuple(_readings(names))


def reading_of_marks(
    names: tuple[str, ...], marks: tuple[str, ...], kinds: tuple[str, ...]
) -> Reading | None:
    """What is read at one mark, or from one mark to another.

    Parameters
    ----------
    marks : tuple of str
        One or two, as ``F3.tp``.
    kinds : tuple of str
        Kinds of reading that are meant, the likeliest first; ``incidence`` is the lean of a former
        whose top and foot are pointed at.
    """
    wanted = frozenset(marks)
    bodies = {mark.rpartition(".")[0] for mark in marks}
    best: tuple[int, Reading] | None = None
    for reading in readings_at_hand(names):
        if reading.kind not in kinds:
            continue
        if isinstance(reading, Incidence):
            meant = len(marks) > 1 and bodies == {reading.body}
        else:
            ends = frozenset(one for one in marks_of(reading) if not one.startswith(f"{BOARD}."))
            meant = ends == wanted
        rank_ = kinds.index(reading.kind)
        if meant and (best is None or rank_ < best[0]):
            best = (rank_, reading)
    return best[1] if best is not None else None


def _readings(names: tuple[str, ...]) -> Iterator[Reading]:
    for name in names:
        yield Incidence(**_AT, body=name)
        for corner in CORNERS:
            yield Height(**_AT, mark=f"{name}.{corner}")
        for middle in ("tc", "bc"):
            yield Offset(**_AT, mark=f"{name}.{middle}")
        yield Distance(**_AT, from_=f"{name}.bp", to=f"{name}.ts")
        yield Distance(**_AT, from_=f"{name}.bs", to=f"{name}.tp")
        yield Tilt(**_AT, from_=f"{name}.tp", to=f"{name}.ts")
        yield AngleAt(**_AT, at=f"{name}.bp", from_=f"{name}.bs", to=f"{name}.tp")
        yield AngleAt(**_AT, at=f"{name}.bs", from_=f"{name}.bp", to=f"{name}.ts")
        for corner in CORNERS:
            yield Gap(**_AT, from_=f"{BOARD}.{name}", to=f"{name}.{corner}", axis="x")
    for a, b in pairwise(names):
        for level in "tb":
            yield Distance(**_AT, from_=f"{a}.{level}p", to=f"{b}.{level}s")
            yield Distance(**_AT, from_=f"{a}.{level}s", to=f"{b}.{level}p")
        for side in "ps":
            yield Distance(**_AT, from_=f"{a}.t{side}", to=f"{b}.b{side}")
            yield Distance(**_AT, from_=f"{a}.b{side}", to=f"{b}.t{side}")


def next_readings(squared: Squared) -> tuple[NextReading, ...]:
    """The best readings for the worst check that is not decided and that any of them would still help."""
    pool = pool_of(squared.net, readings_at_hand(squared.formers))
    used = {fit.id for fit in squared.fits if fit.used}
    held = [reading for reading in squared.readings if reading.id in used]
    offers = offers_of(pool, squared.solution, held)
    rules = _rules(squared)
    for check in undecided(squared.checks):
        best = rank(offers, squared.solution, rules[check.id])
        if best:
            return best
    return ()


def expected(squared: Squared, reading: Reading) -> float:
    """What a reading would show by the estimate."""
    values, _ = squared.net.observer([reading]).predict(
        squared.solution.unknowns, squared.solution.placed
    )
    return float(values[0])


def like(readings: tuple[Reading, ...], place: Reading) -> Reading | None:
    """The reading that was taken at the same place, if one was."""
    return next((one for one in readings if place_of(one) == place_of(place)), None)


def _rules(squared: Squared) -> dict[str, CheckRule]:
    found = {}
    kinds = [kind for kind, _, _ in CHECKED]
    for i, name in enumerate(squared.formers):
        for j, kind in enumerate(kinds):
            slope = np.zeros(squared.net.columns.size)
            slope[int(squared.columns[i, j])] = 1.0
            check_id = f"{name}_{kind}"
            unit = "mm" if kind == "dy" else "deg"
            limit = float(squared.tolerances[i, j])
            found[check_id] = CheckRule(check_id, kind, name, unit, 0.0, limit, 0.0, slope)
    return found
